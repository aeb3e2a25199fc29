package loom

import (
	"html/template"
	"strings"

	"zapbarn/web/shell"

	"zapbarn/core/plan"
	"zapbarn/core/wiring"
	"zapbarn/core/work"
)

// Place is a prop's wiring.
func (s Room) Place() shell.Place {
	return shell.Place{
		ID: "loom", Name: "Loom", Hint: "24 jars flicker12 20ma on S1 22awg 35 ft", OfProp: true,
		Ways: []shell.Way{s.harnessWay(), s.listWay(), s.buildWay(), s.proveWay(), s.faultWay(), s.trainWay(), s.powerWay()},
		Link: func(p *shell.Page, to shell.Way) string { return p.Href("loom", p.Prop, p.Sel, to.ID) },
	}
}

// state is the wiring in the state that is asked for, and offers the others.
func (p *view) state() *wiring.State {
	w, asked := p.Work, p.Query.Get("state")
	for _, k := range w.Plan.Cases(w.Lib) {
		on := k.Key == asked || asked == "" && k.Key == "all"
		p.Cases = append(p.Cases, shell.Option{Value: k.Key, Text: k.Name, On: on})
	}
	if got := w.Plan.Case(w.Lib, asked); got != nil && asked != "all" {
		return got
	}
	return w.All()
}

// device is the device that is selected, or nil.
func (p *view) device() *plan.Device {
	_, id, _ := strings.Cut(p.Sel, ":")
	return p.Work.Plan.Device(id)
}

// ticket shows the device selected, else the prop's first supply, else the prop.
func (p *view) ticket() {
	w, d := p.Work, p.device()
	if d != nil {
		p.Ticket = p.TicketOf("device", d.ID)
	}
	if p.Ticket == nil {
		for _, x := range w.Plan.Devices() {
			if x.Prop == p.Prop && x.Is(wiring.Origin) {
				p.Ticket = p.TicketOf("device", x.ID)
				break
			}
		}
	}
	if p.Ticket == nil {
		p.Ticket = p.TicketOf("prop", p.Prop)
	}
}

// view is what the Loom shows.
type view struct {
	*shell.Page
	Draw, Below, Side template.HTML
	Groups            []shell.Group
	Harness           *work.Harness
	Cases             []shell.Option // states of the wiring
	Cards             []Card
	Fault             *Fault
	Train             *Trainer
}

func newView(p *shell.Page) *view { return &view{Page: p} }
