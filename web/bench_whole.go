package web

import (
	"html/template"

	"zapbarn/core/check"
	"zapbarn/web/draw"

	"github.com/gin-gonic/gin"
)

func (s *Server) benchWholeWay() way {
	return way{
		id:    "whole",
		title: "Whole",
		fill: showing(newBench, func(_ *gin.Context, p *benchView, _ []check.Snag) error {
			p.whole()
			p.benchTicket(p.partOf())
			p.order()
			return nil
		}),
	}
}

// whole draws the prop in two views.
func (p *benchView) whole() {
	iso, front := draw.Whole(p.Work, p.Prop, p.Sel, p.Front()+"&from=above", p.here)
	if p.Above() {
		front = draw.FromAbove(p.Work, p.Prop, p.Sel, p.Front())
	}
	p.Draw, p.Side = template.HTML(iso), template.HTML(front)
}
