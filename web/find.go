package web

import (
	"strings"

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
func (p *Page) find(text string, snags []check.Snag) (out []Found) {
	words := strings.Fields(strings.ToLower(text))
	if len(words) == 0 {
		return nil
	}
	hit := func(parts ...string) bool {
		all := strings.ToLower(strings.Join(parts, " "))
		for _, w := range words {
			if !strings.Contains(all, w) {
				return false
			}
		}
		return true
	}
	add := func(f Found) {
		if len(out) < mostFound {
			out = append(out, f)
		}
	}
	for _, kind := range plan.Kinds() {
		if kind == "display" || kind == "photo" || kind == "layout" || kind == "waiver" || kind == "ticked" {
			continue
		}
		for _, e := range p.Plan.Elements(kind) {
			prop, note := p.Plan.Belongs(e.Value), ""
			says := ""
			if x := p.Plan.Prop(prop); x != nil && kind != "prop" {
				says = "in " + x.Name
			}
			switch x := e.Value.(type) {
			case *plan.Note:
				if note = x.Text; hit(note, "note") {
					of, id, _ := strings.Cut(x.On, ":")
					v, _ := p.Plan.Get(of, id)
					add(Found{"note", p.Plan.Name(x), "on " + p.Plan.Name(v), said(p.PlanID, prop, x.On)})
				}
				continue
			case *plan.Job:
				if x.Task != "" {
					continue // found as the task
				}
			case *plan.Prop:
				note = x.Note
			case *plan.Solid:
				note = x.Stock + " " + p.Work.Lib.Materials[x.Stock].Name + " " + x.Kind
			case *plan.Device:
				note = x.Product + " " + x.Kind
			}
			if hit(e.ID, p.Plan.Name(e.Value), kind, note) {
				add(Found{kind, p.Plan.Name(e.Value), says, said(p.PlanID, prop, kind+":"+e.ID)})
			}
		}
	}
	for _, x := range order.In(p.Work).Tasks {
		if x.Kind != "own" && hit(x.Name, "task") {
			add(Found{"task", x.Name, x.State(), p.href("calendar", "", "task:"+x.Key, "bars")})
		}
	}
	for _, sn := range snags {
		if hit(sn.Title, sn.Why, sn.Code) {
			v := p.view(sn)
			add(Found{"snag", sn.Title, sn.Level.String(), v.Href})
		}
	}
	shop := func(table string, ids []string, name func(string) string) {
		for _, id := range ids {
			if hit(id, name(id), table, "shop") {
				add(Found{"shop", name(id), id, p.href("barn", "", "", "shop") + "&find=" + id})
			}
		}
	}
	l := p.Work.Lib
	shop("material", stock.IDs(l.Materials), func(id string) string { return l.Materials[id].Name })
	shop("glue", stock.IDs(l.Glues), func(id string) string { return l.Glues[id].Name })
	shop("coat", stock.IDs(l.Coats), func(id string) string { return l.Coats[id].Name })
	shop("lamp", stock.IDs(l.Lamps), func(id string) string { return l.Lamps[id].Name })
	shop("supply", stock.IDs(l.Supplies), func(id string) string { return l.Supplies[id].Name })
	for _, c := range calc.List() {
		if hit(c.Name, c.Doc, "calculator") {
			add(Found{"calculator", c.Name, c.Doc, "/calc?name=" + c.Name + "#" + c.Name})
		}
	}
	return out
}
