package shell

import (
	"errors"
	"fmt"
	"slices"
	"strings"

	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/shorthand"

	"github.com/gin-gonic/gin"
)

// Several is what is picked together, as one ticket.
type Several struct {
	Things []Link // each leads to the others without it
	Keys   string // kind:id, parted by commas
	Say    string // what was to be said of each, when that was refused
	Errors string
	Hint   string
	Join   []string // the two solids of one prop that may be joined, or none
	Prop   string
	Yard   bool // they stand in the yard, and can be put in line
}

// mostPicked is how many things can be picked together.
const mostPicked = 60

// pickable are the kinds of elements that can be picked together.
var pickable = []string{"solid", "device", "plot", "fixture", "viewpoint", "outlet"}

// picked is the keys of a selection that are there, each once.
func picked(p *plan.Plan, sel string) (keys []string) {
	for _, key := range strings.Split(sel, ",") {
		kind, id, _ := strings.Cut(key, ":")
		if !slices.Contains(pickable, kind) || slices.Contains(keys, key) || len(keys) == mostPicked {
			continue
		}
		if v, _ := p.Get(kind, id); v != nil {
			keys = append(keys, key)
		}
	}
	return keys
}

// several lays the ticket of what is picked together over the page.
func (p *Page) several(keys []string, o Over) {
	v := &Several{Keys: strings.Join(keys, ","), Hint: "right by 3 in"}
	for _, key := range keys {
		kind, id, _ := strings.Cut(key, ":")
		x, _ := p.Plan.Get(kind, id)
		rest := slices.DeleteFunc(slices.Clone(keys), func(k string) bool { return k == key })
		v.Things = append(v.Things, Link{Text: p.Plan.Name(x), Href: p.Here(strings.Join(rest, ","))})
		if kind == "device" {
			v.Hint = "gauge 16 AWG"
		}
	}
	if p.Plan.Metric() && v.Hint == "right by 3 in" {
		v.Hint = "right by 75"
	}
	v.Say = o.Values["each"]
	v.Join, v.Prop = p.twoSolids(keys)
	v.Yard = p.Place == "yard"
	p.Several, p.Ticket = v, nil
}

// twoSolids are the solids of a prop that are picked, when they are just two.
func (p *Page) twoSolids(keys []string) (two []string, prop string) {
	for _, key := range keys {
		id, ok := strings.CutPrefix(key, "solid:")
		if !ok || len(keys) != 2 {
			return nil, ""
		}
		s := p.Plan.Solid(id)
		if len(two) == 1 && s.Prop != prop {
			return nil, ""
		}
		two, prop = append(two, id), s.Prop
	}
	return two, prop
}

// ForEach does one thing to all that is picked, as one step: takes them away,
// makes each once more, puts them in line, or says a phrase of each.
func (s *Site) ForEach(c *gin.Context) {
	var in struct {
		Do   string `form:"do"`
		Each string `form:"each"`
		Sel  string `form:"sel"`
		Back string `form:"back"`
	}
	if !s.Bind(c, &in) {
		return
	}
	do, each := in.Do, strings.TrimSpace(in.Each)
	why := ""
	gone := do == "remove"
	err := s.Change(c, func(p *plan.Plan) (plan.Edit, error) {
		keys := picked(p, in.Sel)
		if len(keys) == 0 {
			return plan.Edit{}, ErrGone
		}
		e, err := together(p, s, keys, do, each)
		if err != nil {
			why = err.Error()
		}
		return e, err
	})
	if why != "" || errors.Is(err, ErrGone) {
		if why == "" {
			why = err.Error()
		}
		s.Refused(
			c,
			Over{
				Err:    "Nothing was done to any of them. " + measure.Capital(why),
				Values: map[string]string{"each": each},
			},
		)
		return
	}
	to := ""
	if gone {
		to = without(in.Back)
	}
	s.Applied(c, err, Over{}, to)
}

// without is an address that selects nothing.
func without(back string) string {
	path, query, _ := strings.Cut(Local(back), "?")
	var keep []string
	for _, q := range strings.Split(query, "&") {
		if q != "" && !strings.HasPrefix(q, "sel=") {
			keep = append(keep, q)
		}
	}
	return path + "?" + strings.Join(keep, "&")
}

// together is the edit that does one thing to each of several, one after the other.
func together(p *plan.Plan, s *Site, keys []string, do, each string) (plan.Edit, error) {
	e := plan.Edit{Label: fmt.Sprintf("%s of %d", each, len(keys))}
	switch {
	case slices.Contains(plan.Aligned, do):
		return p.Align(keys, do)
	case do == "remove":
		e.Label = fmt.Sprintf("take away %d", len(keys))
	case do == "copy":
		e.Label = fmt.Sprintf("copy %d", len(keys))
	case each == "":
		return e, errors.New("say what of each, such as right by 3 in, or height 30")
	}
	for _, key := range keys {
		kind, id, _ := strings.Cut(key, ":")
		v, _ := p.Get(kind, id)
		if v == nil {
			continue // it went with one before
		}
		var one plan.Edit
		switch {
		case do == "remove":
			one = p.Without(kind, id)
		case do == "copy" && kind == "solid":
			var err error
			if one, _, err = p.CopySolid(id, fresh(p, plan.NameOf(v)), false); err != nil {
				return e, err
			}
		case do == "copy":
			return e, fmt.Errorf("%s is wired: say what feeds the copy, in the quick line", plan.NameOf(v))
		default:
			r, err := shorthand.Read(p, s.Lib, p.Belongs(v), id+" "+each)
			if err != nil {
				return e, fmt.Errorf("%s: %w", plan.NameOf(v), err)
			}
			one = r.Edit
		}
		next, err := p.Apply(one)
		if err != nil {
			return e, err
		}
		p, e.Changes = next, append(e.Changes, one.Changes...)
	}
	return e, nil
}

// fresh is a name with a number behind that no solid has.
func fresh(p *plan.Plan, name string) string {
	for n := 2; ; n++ {
		try := fmt.Sprintf("%s %d", name, n)
		if !slices.ContainsFunc(p.Solids(), func(s plan.Solid) bool { return strings.EqualFold(s.Name, try) }) {
			return try
		}
	}
}
