package shell

import (
	"strings"

	"zapbarn/core/check"
)

// foldFrom is from how many equal snags on they are told once, with a count.
const foldFrom = 4

func (p *Page) View(s check.Snag) SnagView {
	v := SnagView{Snag: s, Href: p.goTo(s), Keys: strings.Join(s.At, " "), Main: len(p.Snags) == 0}
	if x := p.Plan.Prop(s.Prop); x != nil && p.Prop != s.Prop && x.Name != s.Title {
		v.Of = x.Name
	}
	return v
}

// Folded puts equal snags, of one rule, level and prop, under the first of
// them; the order is kept. Waived ones stand each by itself.
func Folded(list []SnagView) []SnagView {
	type kind struct {
		code, prop string
		level      check.Level
	}
	of := func(v SnagView) kind { return kind{v.Code, v.Prop, v.Level} }
	count, first := map[kind]int{}, map[kind]int{}
	for _, v := range list {
		if v.Waived == nil {
			count[of(v)]++
		}
	}
	var out []SnagView
	for _, v := range list {
		k := of(v)
		i, told := first[k]
		if v.Waived != nil || count[k] < foldFrom || !told {
			if v.Waived == nil && !told {
				first[k] = len(out)
			}
			out = append(out, v)
			continue
		}
		out[i].Like = append(out[i].Like, v)
	}
	return out
}
