package loom

import (
	"html/template"

	"zapbarn/web/shell"

	"zapbarn/core/check"
	"zapbarn/formats"
	"zapbarn/web/draw"

	"github.com/gin-gonic/gin"
)

func (s Room) buildWay() shell.Way {
	return shell.Way{
		ID:    "build",
		Title: "Build",
		Fill: shell.Showing(newView, func(_ *gin.Context, p *view, _ []check.Snag) error {
			w := p.Work
			p.Harness = w.Harness(p.Prop)
			if d := p.device(); d != nil {
				p.Ticket = p.TicketOf("device", d.ID)
			} else {
				p.Ticket = p.TicketOf("prop", p.Prop)
			}
			p.Side = template.HTML(draw.Routes(w, p.Prop))
			if f, err := formats.FlatBoard(w, p.Prop); err == nil {
				p.Draw = template.HTML(draw.Board(f))
			}
			return nil
		}),
	}
}
