package web

import (
	"fmt"
	"html/template"
	"strings"

	"zapbarn/core/form"
	"zapbarn/core/measure"
	"zapbarn/core/work"
	"zapbarn/formats"
)

// benchPlace is one prop as it is cut, glued, painted and printed.
func (s *Server) benchPlace() place {
	return place{
		id: "bench", name: "Bench", hint: "box 22 x 18 x 26 1/2 xps1 rabbet", ofProp: true,
		ways: []way{s.benchWholeWay(), s.benchPartsWay(), s.benchSheetsWay(), s.benchJointsWay(), s.benchPictureWay(), s.benchPrintWay()},
		first: func(p *Page) string {
			kind, _, _ := strings.Cut(p.Sel, ":")
			return map[string]string{"part": "parts", "joint": "joints", "finish": "joints"}[kind]
		},
		link: func(p *Page, to way) string {
			sel := p.Sel
			if strings.HasPrefix(sel, "joint:") && to.id != "joints" {
				sel = ""
			}
			return p.href("bench", p.Prop, sel, to.id)
		},
	}
}

// partOf is the part that is selected, or nil.
func (p *benchView) partOf() *work.Part {
	if id, ok := strings.CutPrefix(p.Sel, "part:"); ok {
		return p.Work.Part(id)
	}
	return nil
}

// benchTicket shows what is selected on the bench: a part of its solid, an
// offcut, a joint, a stack; else the prop.
func (p *benchView) benchTicket(part *work.Part) {
	w := p.Work
	kind, id, _ := strings.Cut(p.Sel, ":")
	switch {
	case kind == "offcut":
		p.Ticket = p.ticket(kind, id)
	case part != nil:
		p.Ticket = p.ticket("solid", part.Solid.ID)
		p.Ticket.Title = part.Name()
		p.Ticket.Sub = fmt.Sprintf(
			"%s › part %d of %d, cut %d",
			w.Plan.Prop(p.Prop).Name,
			part.No,
			part.Of,
			part.Panel.Copies,
		)
		p.Ticket.Results = append(p.numbersOf("part", part.Ref), p.Ticket.Results...)
		p.Ticket.Cautions = append(formats.SawLines(part.Panel, w.Plan.Metric()), p.Ticket.Cautions...)
	case kind == "solid" || kind == "joint" || kind == "finish" || kind == "lot":
		p.Ticket = p.ticket(kind, id)
	}
	if p.Ticket == nil {
		p.Ticket = p.ticket("prop", p.Prop)
	}
}

// order is how the solid that is selected goes together.
func (p *benchView) order() {
	w := p.Work
	kind, id, _ := strings.Cut(p.Sel, ":")
	if sol := w.Plan.Solid(id); kind == "solid" || kind == "part" {
		if part := p.partOf(); part != nil {
			sol = part.Solid
		}
		if sol != nil && w.Shapes()[sol.ID] != nil {
			p.OrderOf = sol.Name
			for _, step := range form.Steps(sol.Form, w.Shapes()[sol.ID]) {
				step = measure.InUnits(step, w.Plan.Metric())
				p.Order = append(p.Order, measure.InUnits(step, w.Plan.Metric()))
			}
		}
	}
}

// benchView is what the Bench shows.
type benchView struct {
	*Page
	Draw, Side              template.HTML
	Rows, Finishes, Bottles []Row
	Prints, Sheets          []Print
	Stocks                  []Stock
	Shelf                   []Row
	Picture                 *PictureView
	Order                   []string // of assembly
	OrderOf                 string
	BookPages               int // of the whole display in one print
}

func newBench(p *Page) *benchView { return &benchView{Page: p} }
