package stores

import (
	"slices"
	"strings"

	"zapbarn/core/work"
)

// Bin is a bin of the shelf with the names of what lies in it.
type Bin struct {
	Name  string
	Holds []string
}

// Bins are the bins that something lies in, by name.
func Bins(w *work.Work) (out []Bin) {
	names := map[string]string{}
	for _, n := range Of(w) {
		names[n.What] = n.Name
	}
	at := map[string]int{}
	for i := range w.Plan.Shelf() {
		x := &w.Plan.Shelf()[i]
		if x.Bin == "" {
			continue
		}
		name := names[x.What]
		if name == "" { // nothing needs it now
			_, name, _ = strings.Cut(x.What, ":")
		}
		k, there := at[x.Bin]
		if !there {
			k = len(out)
			at[x.Bin] = k
			out = append(out, Bin{Name: x.Bin})
		}
		out[k].Holds = append(out[k].Holds, name)
	}
	slices.SortFunc(out, func(a, b Bin) int { return strings.Compare(a.Name, b.Name) })
	return out
}
