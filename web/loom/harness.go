package loom

import (
	"html/template"

	"zapbarn/web/shell"

	"zapbarn/core/check"
	"zapbarn/core/wiring"
	"zapbarn/web/draw"

	"github.com/gin-gonic/gin"
)

func (s Room) harnessWay() shell.Way {
	return shell.Way{
		ID:    "harness",
		Title: "Harness",
		Fill: shell.Showing(newView, func(_ *gin.Context, p *view, _ []check.Snag) error {
			p.harness(p.state())
			p.ticket()
			return nil
		}),
	}
}

// harness draws the board and the drop along what is selected, or along the way
// of the lamp that loses most.
func (p *view) harness(st *wiring.State) {
	w, d := p.Work, p.device()
	p.Draw = template.HTML(draw.Harness(w, st, p.Prop, p.Sel,
		p.Here))
	run := ""
	if d != nil && !d.Is(wiring.Origin) && d.Prop == p.Prop {
		run = d.ID
	}
	if run == "" { // the lamp that loses most
		most := -1.0
		for _, x := range w.Plan.Devices() {
			if g := st.Readings[x.ID]; x.Is(wiring.Load) && x.Prop == p.Prop && !x.Reversed && g.Drop > most {
				run, most = x.ID, g.Drop
			}
		}
	}
	if p.Below = template.HTML(draw.Profile(w, st, run)); p.Below == "" && d != nil && d.From != "" {
		p.Below = template.HTML(draw.Profile(w, st, d.From))
	}
}
