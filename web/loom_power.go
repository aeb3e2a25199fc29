package web

import (
	"html/template"
	"strings"

	"zapbarn/core/check"
	"zapbarn/web/draw"

	"github.com/gin-gonic/gin"
)

func (s *Server) loomPowerWay() way {
	return way{
		id:    "power",
		title: "Power",
		fill: showing(newLoom, func(_ *gin.Context, p *loomView, _ []check.Snag) error {
			p.Draw = template.HTML(draw.Power(p.Work, p.Sel, p.here))
			kind, id, _ := strings.Cut(p.Sel, ":")
			if p.Ticket = p.ticket(kind, id); p.Ticket == nil {
				p.Ticket = p.ticket("display", p.Plan.Display().ID)
			}
			return nil
		}),
	}
}
