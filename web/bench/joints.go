package bench

import (
	"fmt"
	"strings"

	"zapbarn/web/shell"

	"zapbarn/core/check"
	"zapbarn/core/measure"

	"github.com/gin-gonic/gin"
)

func (s Room) jointsWay() shell.Way {
	return shell.Way{
		ID:    "joints",
		Title: "Joints and coats",
		Fill: shell.Showing(newView, func(_ *gin.Context, p *view, _ []check.Snag) error {
			p.joints()
			p.ticket(nil)
			return nil
		}),
	}
}

// joints lists a prop's glue lines and stacks of coats.
func (p *view) joints() {
	for _, l := range p.Plan.Lots() {
		key := "lot:" + l.ID
		p.Bottles = append(p.Bottles, shell.Row{Key: key, Href: p.Href("bench", p.Prop, key, "joints"), On: p.Sel == key,
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
			shell.Row{
				Key:     "joint:" + j.ID,
				Href:    p.Href("bench", p.Prop, "joint:"+j.ID, "joints"),
				Mark:    a.Verdict.String(),
				Verdict: true,
				Title:   shell.SideName(w, j.A) + " to " + shell.SideName(w, j.B),
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
			shell.Row{
				Key:     "solid:" + sol.ID,
				Href:    p.Href("bench", p.Prop, "finish:"+f.ID, "joints"),
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
