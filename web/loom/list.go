package loom

import (
	"fmt"

	"zapbarn/web/shell"

	"zapbarn/core/check"
	"zapbarn/core/measure"
	"zapbarn/core/wiring"

	"github.com/gin-gonic/gin"
)

func (s Room) listWay() shell.Way {
	return shell.Way{ID: "list", Title: "List", Fill: shell.Showing(newView, func(_ *gin.Context, p *view,
		_ []check.Snag) error {
		p.wired(p.state())
		p.ticket()
		return nil
	})}
}

// wired lists a prop's devices by kind, each with its volts and amperes.
func (p *view) wired(st *wiring.State) {
	w := p.Work
	for _, k := range wiring.Names() {
		g := shell.Group{Title: wiring.KindOf(k).Title}
		for _, d := range w.Plan.Devices() {
			if d.Prop == p.Prop && d.Kind == k {
				r := st.Readings[d.ID]
				sub := "fed by nothing"
				switch {
				case d.From != "":
					sub = "from " + d.From
				case d.Is(wiring.Origin) && d.Cell != "":
					sub = fmt.Sprintf("%d x %s", max(1, d.Cells)*max(1, d.Sets), d.Cell)
				case d.Is(wiring.Origin):
					v, a := wiring.SupplyOf(&d, w.Lib)
					sub = measure.Volts(v) + " " + measure.Amps(a)
					if o := w.Plan.OutletNamed(d.Outlet); o != nil {
						sub += ", " + o.Name
					}
				}
				if !d.At.IsZero() {
					sub += " at " + d.At.String()
				}
				if d.Is(wiring.Wire) {
					sub += fmt.Sprintf(
						", %s, %s, both conductors %s",
						d.Gauge,
						d.Length,
						w.Results().At("device", d.ID, "ohms").Text,
					)
				}
				g.Rows = append(
					g.Rows,
					shell.Row{
						Key:   "device:" + d.ID,
						Href:  p.Href("loom", p.Prop, "device:"+d.ID, "list"),
						Mark:  r.State,
						Title: d.Name,
						Sub:   sub,
						Right: measure.Volts(r.Volts) + "  " + measure.Amps(r.Amps),
						On:    p.Sel == "device:"+d.ID,
					},
				)
			}
		}
		if g.Rows != nil {
			p.Groups = append(p.Groups, g)
		}
	}
}
