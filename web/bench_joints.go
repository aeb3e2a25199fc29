package web

import (
	"fmt"
	"strings"

	"zapbarn/core/check"
	"zapbarn/core/measure"

	"github.com/gin-gonic/gin"
)

func (s *Server) benchJointsWay() way {
	return way{
		id:    "joints",
		title: "Joints and coats",
		fill: showing(newBench, func(_ *gin.Context, p *benchView, _ []check.Snag) error {
			p.joints()
			p.benchTicket(nil)
			return nil
		}),
	}
}

// joints lists a prop's glue lines and stacks of coats.
func (p *benchView) joints() {
	for _, l := range p.Plan.Lots() {
		key := "lot:" + l.ID
		p.Bottles = append(p.Bottles, Row{Key: key, Href: p.href("bench", p.Prop, key, "joints"), On: p.Sel == key,
			Title: p.Work.Lib.Glues[l.Glue].Name, Sub: "opened " + l.Opened})
	}
	w := p.Work
	for _, j := range w.Plan.Joints() {
		if j.Prop != p.Prop {
			continue
		}
		a := w.Joints()[j.ID]
		p.Rows = append(
			p.Rows,
			Row{
				Key:     "joint:" + j.ID,
				Href:    p.href("bench", p.Prop, "joint:"+j.ID, "joints"),
				Mark:    a.Verdict.String(),
				Verdict: true,
				Title:   sideName(w, j.A) + " to " + sideName(w, j.B),
				Sub:     w.Lib.Glues[j.Glue].Name + ": " + a.Reasons[0].Text,
				Right:   "handle after " + measure.Span(a.Handling),
				On:      p.Sel == "joint:"+j.ID,
			},
		)
	}
	for _, f := range w.Plan.Finishes() {
		sol := w.Plan.Solid(f.Solid)
		if sol.Prop != p.Prop {
			continue
		}
		g := w.Finishes()[f.ID]
		var said []string
		for _, l := range f.Layers {
			said = append(said, fmt.Sprintf("%s x%d", w.Lib.Coats[l.Coat].Name, l.Coats))
		}
		sub := strings.Join(said, ", then ")
		if len(g.Reasons) > 0 {
			sub += ". " + measure.Capital(g.Reasons[0].Text)
		}
		p.Finishes = append(
			p.Finishes,
			Row{
				Key:     "solid:" + sol.ID,
				Href:    p.href("bench", p.Prop, "finish:"+f.ID, "joints"),
				Mark:    g.Verdict.String(),
				Verdict: true,
				Title:   sol.Name,
				Sub:     sub,
				Right:   "waits " + measure.Span(g.Total),
				On:      p.Sel == "finish:"+f.ID,
			},
		)
	}
}
