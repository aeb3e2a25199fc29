package shell

import (
	"strings"

	"zapbarn/core/stock"
	"zapbarn/core/work"
)

// GlueChoices are the glues of the shop.
func (p *Page) GlueChoices() (out []Option) {
	for _, id := range stock.IDs(p.Work.Lib.Glues) {
		out = append(out, Option{Value: id, Text: p.Work.Lib.Glues[id].Name, On: id == "pu"}) // good for most foam
	}
	return out
}

// PartsOf are a prop's solids, each followed by its parts.
func PartsOf(w *work.Work, prop string) (out []Option) {
	for i := range w.Plan.Solids() {
		s := &w.Plan.Solids()[i]
		if s.Prop != prop {
			continue
		}
		out = append(out, Option{Value: s.ID, Text: s.Name + ", whole"})
		for _, part := range w.Parts() {
			if part.Solid.ID == s.ID {
				out = append(out, Option{Value: part.Ref, Text: part.Name()})
			}
		}
	}
	return out
}

// SideName is what a side of a joint is called: a part, a solid or something bought.
func SideName(w *work.Work, ref string) string {
	if q := w.Part(ref); q != nil {
		return q.Name()
	}
	if m, ok := strings.CutPrefix(ref, "="); ok {
		return w.Lib.Materials[m].Name
	}
	if s := w.Plan.Solid(ref); s != nil {
		return s.Name
	}
	return ref
}
