package web

import (
	"html/template"

	"zapbarn/core/check"
	"zapbarn/formats"
	"zapbarn/web/draw"

	"github.com/gin-gonic/gin"
)

func (s *Server) loomBuildWay() way {
	return way{
		id:    "build",
		title: "Build",
		fill: showing(newLoom, func(_ *gin.Context, p *loomView, _ []check.Snag) error {
			w := p.Work
			p.Harness = w.Harness(p.Prop)
			if d := p.device(); d != nil {
				p.Ticket = p.ticket("device", d.ID)
			} else {
				p.Ticket = p.ticket("prop", p.Prop)
			}
			p.Side = template.HTML(draw.Routes(w, p.Prop))
			if f, err := formats.FlatBoard(w, p.Prop); err == nil {
				p.Draw = template.HTML(draw.Board(f))
			}
			return nil
		}),
	}
}
