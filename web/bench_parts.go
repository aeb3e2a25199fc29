package web

import (
	"html/template"
	"strings"

	"zapbarn/core/check"
	"zapbarn/web/draw"

	"github.com/gin-gonic/gin"
)

func (s *Server) benchPartsWay() way {
	return way{
		id:    "parts",
		title: "Parts",
		fill: showing(newBench, func(_ *gin.Context, p *benchView, _ []check.Snag) error {
			p.parts()
			return nil
		}),
	}
}

// parts draws the part selected, or the first of the solid or the prop.
func (p *benchView) parts() {
	w := p.Work
	kind, id, _ := strings.Cut(p.Sel, ":")
	part := p.partOf()
	for _, q := range w.Parts() {
		if part == nil && q.Solid.Prop == p.Prop && (kind != "solid" || q.Solid.ID == id) {
			part, p.Sel = q, "part:"+q.Ref
		}
	}
	if part != nil {
		p.Draw = template.HTML(draw.Parts(w, part, p.here))
	} else {
		p.whole()
	}
	p.benchTicket(part)
	p.order()
}
