package loom

import (
	"html/template"
	"strings"

	"zapbarn/web/shell"

	"zapbarn/core/check"
	"zapbarn/web/draw"

	"github.com/gin-gonic/gin"
)

func (s Room) powerWay() shell.Way {
	return shell.Way{
		ID:    "power",
		Title: "Power",
		Fill: shell.Showing(newView, func(_ *gin.Context, p *view, _ []check.Snag) error {
			p.Draw = template.HTML(draw.Power(p.Work, p.Sel, p.Here))
			kind, id, _ := strings.Cut(p.Sel, ":")
			if p.Ticket = p.TicketOf(kind, id); p.Ticket == nil {
				p.Ticket = p.TicketOf("display", p.Plan.Display().ID)
			}
			return nil
		}),
	}
}
