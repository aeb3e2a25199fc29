package shorthand

import (
	"math"
	"regexp"
	"slices"
	"strings"

	"zapbarn/core/plan"
	"zapbarn/core/words"
)

// Sizes that are said by name (6 ft wide, 2 ft deep and 3 ft high) are put in the orders
// that lines have them in. Which order a form has is not known here: what comes out is
// taken only when the solid then has each size where it was said.

// ways are the words that say which size of a solid is meant.
var ways = [][]string{
	{"wide", "across", "width", "diameter"},
	{"deep", "depth"},
	{"high", "tall", "height"},
}

// wayFields are the fields of a solid that hold them; the first that it has.
var wayFields = [][]string{{"w", "low", "wide"}, {"d", "depth", "deep"}, {"h"}}

// orders are those that forms have their sizes in.
var orders = [][]int{{0, 1, 2}, {0, 2, 1}}

var (
	whole    = regexp.MustCompile(`^\d+$`)
	fraction = regexp.MustCompile(`^\d+/\d+$`)
)

// saidSize is a size as it is said: by its word, or bare.
type saidSize struct {
	way  int // of ways; -1 when it is bare
	name string
	list []string // its number and its unit
}

// sizesIn parts a line into its verb, its sizes and the rest.
func sizesIn(list []string) (sizes []saidSize, rest []string) {
	for i := 1; i < len(list); {
		w := strings.ToLower(list[i])
		if w == "called" {
			return sizes, append(rest, list[i:]...)
		}
		if !number.MatchString(w) {
			if !slices.Contains([]string{"x", "by", "and", ","}, w) {
				rest = append(rest, list[i])
			}
			i++
			continue
		}
		_, n := words.LengthAt(list, i, "in")
		if n == 0 {
			rest, i = append(rest, list[i]), i+1
			continue
		}
		end := i + n
		s := saidSize{way: -1, list: list[i:end]}
		if end < len(list) {
			s.name = strings.ToLower(list[end])
			s.way = slices.IndexFunc(ways, func(x []string) bool { return slices.Contains(x, s.name) })
		}
		switch {
		case s.way >= 0:
			end++
		case fraction.MatchString(w) && end == i+1: // 1/2 plywood
			rest, i = append(rest, list[i]), end
			continue
		}
		sizes, i = append(sizes, s), end
	}
	return sizes, rest
}

// labelled are the lines that one with sizes said by name may mean: bare ones stand for
// those that are not named, in their order. None when there are none, or when two say one.
func labelled(list []string) (out [][]string) {
	sizes, rest := sizesIn(list)
	var by [3]*saidSize
	named := 0
	for i := range sizes {
		if s := &sizes[i]; s.way >= 0 {
			if by[s.way] != nil {
				return nil
			}
			by[s.way] = s
			named++
		}
	}
	if named == 0 || len(sizes) > len(by) {
		return nil
	}
	for i := range sizes {
		if sizes[i].way < 0 {
			by[slices.Index(by[:], nil)] = &sizes[i]
		}
	}
	for _, order := range orders {
		line := []string{list[0]}
		for _, way := range order {
			if by[way] == nil {
				continue
			}
			if len(line) > 1 {
				line = append(line, "x")
			}
			line = append(line, by[way].list...)
		}
		out = append(out, append(line, rest...))
	}
	return out
}

// astray is a size of a line that the solid it makes has not where it was said; "" when
// each is there. Strictly, a size that the solid has no field for is astray as well.
// Scales have the word before its size: scales 24 x 36 in wide 3 tall 4.
func astray(r *Reading, list []string, metric, strictly bool) string {
	var s plan.Solid
	if c := r.Edit.Changes; len(c) == 0 || c[0].Kind != "solid" || c[0].Before != nil ||
		s.UnmarshalJSON(c[0].After) != nil || s.Kind == "scales" {
		return ""
	}
	sizes, _ := sizesIn(list)
	for _, size := range sizes {
		if size.way < 0 {
			continue
		}
		has := func(f string) bool { _, _, _, ok := plan.At(&s, f); return ok }
		k := slices.IndexFunc(wayFields[size.way], has)
		if k < 0 && !strictly {
			continue
		}
		w := words.Words{Metric: metric, List: slices.Clone(size.list)}
		dims := w.Sizes()
		if k < 0 || len(dims) != 1 || math.Abs(s.Length(wayFields[size.way][k]).Value()-dims[0].Value()) > 0.01 {
			return strings.Join(slices.Concat(size.list, []string{size.name}), " ")
		}
	}
	return ""
}
