package walkdown

import (
	"strings"

	"zapbarn/web/shell"

	"zapbarn/core/calc"
	"zapbarn/core/check"
	"zapbarn/core/order"
	"zapbarn/core/plan"
	"zapbarn/core/stock"
)

// Found is one thing that a search found, and where it leads.
type Found struct{ What, Name, Says, Href string }

// mostFound is how many things a search lists.
const mostFound = 60

// find looks for words in everything a display has: its things by name, number
// or note, its snags, the shop, the calculators. All words must be there.
func (p *view) find(text string, snags []check.Snag) (out []Found) {
	f := &finding{view: p, words: strings.Fields(strings.ToLower(text))}
	if len(f.words) == 0 {
		return nil
	}
	for _, kind := range plan.Kinds() {
		if kind == "display" || kind == "photo" || kind == "layout" || kind == "waiver" || kind == "ticked" {
			continue
		}
		for _, e := range p.Plan.Elements(kind) {
			f.element(kind, e)
		}
	}
	for _, x := range order.In(p.Work).Tasks {
		if x.Kind != "own" && f.hit(x.Name, "task") {
			f.add(Found{"task", x.Name, x.State(), p.Href("calendar", "", "task:"+x.Key, "bars")})
		}
	}
	for _, sn := range snags {
		if f.hit(sn.Title, sn.Why, sn.Code) {
			v := p.View(sn)
			f.add(Found{"snag", sn.Title, sn.Level.String(), v.Href})
		}
	}
	f.inShop()
	for _, c := range calc.List() {
		if f.hit(c.Name, c.Doc, "calculator") {
			f.add(Found{"calculator", c.Name, c.Doc, "/calc?name=" + c.Name + "#" + c.Name})
		}
	}
	return f.out
}

// finding is a search under way.
type finding struct {
	*view
	words []string // all of which must be there
	out   []Found
}

func (f *finding) hit(parts ...string) bool {
	all := strings.ToLower(strings.Join(parts, " "))
	for _, w := range f.words {
		if !strings.Contains(all, w) {
			return false
		}
	}
	return true
}

func (f *finding) add(x Found) {
	if len(f.out) < mostFound {
		f.out = append(f.out, x)
	}
}

// element looks at an element's name, and at what else it is known by.
func (f *finding) element(kind string, e plan.Element) {
	prop, note, says := f.Plan.Belongs(e.Value), "", ""
	if x := f.Plan.Prop(prop); x != nil && kind != "prop" {
		says = "in " + x.Name
	}
	switch x := e.Value.(type) {
	case *plan.Note:
		if f.hit(x.Text, "note") {
			of, id, _ := strings.Cut(x.On, ":")
			v, _ := f.Plan.Get(of, id)
			f.add(Found{"note", f.Plan.Name(x), "on " + f.Plan.Name(v), shell.ShownAt(f.PlanID, prop, x.On)})
		}
		return
	case *plan.Job:
		if x.Task != "" {
			return // found as the task
		}
	case *plan.Prop:
		note = x.Note
	case *plan.Solid:
		note = x.Stock + " " + f.Work.Lib.Materials[x.Stock].Name + " " + x.Kind
	case *plan.Device:
		note = x.Product + " " + x.Kind
	}
	if f.hit(e.ID, f.Plan.Name(e.Value), kind, note) {
		f.add(Found{kind, f.Plan.Name(e.Value), says, shell.ShownAt(f.PlanID, prop, kind+":"+e.ID)})
	}
}

// inShop looks through the shop.
func (f *finding) inShop() {
	l := f.Work.Lib
	table := func(table string, ids []string, name func(string) string) {
		for _, id := range ids {
			if f.hit(id, name(id), table, "shop") {
				f.add(Found{"shop", name(id), id, f.Href("barn", "", "", "shop") + "&find=" + id})
			}
		}
	}
	table("material", stock.IDs(l.Materials), func(id string) string { return l.Materials[id].Name })
	table("glue", stock.IDs(l.Glues), func(id string) string { return l.Glues[id].Name })
	table("coat", stock.IDs(l.Coats), func(id string) string { return l.Coats[id].Name })
	table("lamp", stock.IDs(l.Lamps), func(id string) string { return l.Lamps[id].Name })
	table("supply", stock.IDs(l.Supplies), func(id string) string { return l.Supplies[id].Name })
}
