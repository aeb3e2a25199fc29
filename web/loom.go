package web

import (
	"html/template"
	"strings"

	"zapbarn/core/plan"
	"zapbarn/core/wiring"
	"zapbarn/core/work"
)

// loomPlace is a prop's wiring.
func (s *Server) loomPlace() place {
	return place{
		id: "loom", name: "Loom", hint: "24 jars flicker12 20ma on S1 22awg 35 ft", ofProp: true,
		ways: []way{s.loomHarnessWay(), s.loomListWay(), s.loomBuildWay(), s.loomProveWay(), s.loomFaultWay(), s.loomTrainWay(), s.loomPowerWay()},
		link: func(p *Page, to way) string { return p.href("loom", p.Prop, p.Sel, to.id) },
	}
}

// state is the wiring in the state that is asked for, and offers the others.
func (p *loomView) state() *wiring.State {
	w, asked := p.Work, p.Query.Get("state")
	for _, k := range w.Plan.Cases(w.Lib) {
		p.Cases = append(p.Cases, Option{k.Key, k.Name, k.Key == asked || asked == "" && k.Key == "all"})
	}
	if got := w.Plan.Case(w.Lib, asked); got != nil && asked != "all" {
		return got
	}
	return w.All()
}

// device is the device that is selected, or nil.
func (p *loomView) device() *plan.Device {
	_, id, _ := strings.Cut(p.Sel, ":")
	return p.Work.Plan.Device(id)
}

// loomTicket shows the device selected, else the prop's first supply, else the prop.
func (p *loomView) loomTicket() {
	w, d := p.Work, p.device()
	if d != nil {
		p.Ticket = p.ticket("device", d.ID)
	}
	if p.Ticket == nil {
		for _, x := range w.Plan.Devices() {
			if x.Prop == p.Prop && x.Is(wiring.Origin) {
				p.Ticket = p.ticket("device", x.ID)
				break
			}
		}
	}
	if p.Ticket == nil {
		p.Ticket = p.ticket("prop", p.Prop)
	}
}

// loomView is what the Loom shows.
type loomView struct {
	*Page
	Draw, Below, Side template.HTML
	Groups            []Group
	Harness           *work.Harness
	Cases             []Option // states of the wiring
	Cards             []Card
	Fault             *Fault
	Train             *Trainer
}

func newLoom(p *Page) *loomView { return &loomView{Page: p} }
