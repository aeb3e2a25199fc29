package bench

import (
	"html/template"

	"zapbarn/web/shell"

	"zapbarn/core/check"
	"zapbarn/web/draw"

	"github.com/gin-gonic/gin"
)

func (s Room) wholeWay() shell.Way {
	return shell.Way{
		ID:    "whole",
		Title: "Whole",
		Fill: shell.Showing(newView, func(_ *gin.Context, p *view, _ []check.Snag) error {
			p.whole()
			p.ticket(p.partOf())
			p.order()
			return nil
		}),
	}
}

// whole draws the prop in two views.
func (p *view) whole() {
	iso, front := draw.Whole(p.Work, p.Prop, p.Sel, p.Front()+"&from=above", p.Here)
	if p.Above() {
		front = draw.FromAbove(p.Work, p.Prop, p.Sel, p.Front())
	}
	p.Draw, p.Side = template.HTML(iso), template.HTML(front)
}
