package bench

import (
	"fmt"
	"html/template"
	"strings"

	"zapbarn/web/shell"

	"zapbarn/core/form"
	"zapbarn/core/measure"
	"zapbarn/core/work"
	"zapbarn/formats"
)

// Place is one prop as it is cut, glued, painted and printed.
func (s Room) Place() shell.Place {
	return shell.Place{
		ID: "bench", Name: "Bench", Hint: "box 22 x 18 x 26 1/2 xps1 rabbet", OfProp: true,
		Ways: []shell.Way{s.wholeWay(), s.partsWay(), s.sheetsWay(), s.jointsWay(), s.pictureWay(), s.printWay()},
		First: func(p *shell.Page) string {
			kind, _, _ := strings.Cut(p.Sel, ":")
			return map[string]string{"part": "parts", "joint": "joints", "finish": "joints"}[kind]
		},
		Link: func(p *shell.Page, to shell.Way) string {
			sel := p.Sel
			if strings.HasPrefix(sel, "joint:") && to.ID != "joints" {
				sel = ""
			}
			return p.Href("bench", p.Prop, sel, to.ID)
		},
	}
}

// partOf is the part that is selected, or nil.
func (p *view) partOf() *work.Part {
	if id, ok := strings.CutPrefix(p.Sel, "part:"); ok {
		return p.Work.Part(id)
	}
	return nil
}

// ticket shows what is selected on the bench: a part of its solid, an
// offcut, a joint, a stack; else the prop.
func (p *view) ticket(part *work.Part) {
	w := p.Work
	kind, id, _ := strings.Cut(p.Sel, ":")
	switch {
	case kind == "offcut":
		p.Ticket = p.TicketOf(kind, id)
	case part != nil:
		p.Ticket = p.TicketOf("solid", part.Solid.ID)
		p.Ticket.Title = part.Name()
		p.Ticket.Sub = fmt.Sprintf(
			"%s › part %d of %d, cut %d",
			w.Plan.Prop(p.Prop).Name,
			part.No,
			part.Of,
			part.Panel.Copies,
		)
		p.Ticket.Results = append(p.NumbersOf("part", part.Ref), p.Ticket.Results...)
		p.Ticket.Cautions = append(formats.SawLines(part.Panel, w.Plan.Metric()), p.Ticket.Cautions...)
	case kind == "solid" || kind == "joint" || kind == "finish" || kind == "lot":
		p.Ticket = p.TicketOf(kind, id)
	}
	if p.Ticket == nil {
		p.Ticket = p.TicketOf("prop", p.Prop)
	}
}

// order is how the solid that is selected goes together.
func (p *view) order() {
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

// view is what the Bench shows.
type view struct {
	*shell.Page
	Draw, Side              template.HTML
	Rows, Finishes, Bottles []shell.Row
	Prints, Sheets          []Print
	Stocks                  []Stock
	Shelf                   []shell.Row
	Picture                 *PictureView
	Order                   []string // of assembly
	OrderOf                 string
	BookPages               int // of the whole display in one print
}

func newView(p *shell.Page) *view { return &view{Page: p} }
