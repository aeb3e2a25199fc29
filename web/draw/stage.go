package draw

import (
	"fmt"
	"math"

	"zapbarn/core/check"
	"zapbarn/core/measure"
	"zapbarn/core/pattern"
	"zapbarn/core/plan"
	"zapbarn/core/show"
	"zapbarn/core/wiring"
	"zapbarn/core/work"
)

// Rehearsal draws the dark stage at a moment and, below it, every channel's
// trace and each supply's current over the whole time. The player moves the
// cursor and the glows; their places carry data-lamp, data-supply and so on.
func Rehearsal(
	w *work.Work,
	stim []show.Stimulus,
	tr show.Trace,
	frames []work.Frame,
	at int,
	props map[string]bool,
) string {
	const wide = 986.0
	c := New(wide, 0, w.Plan.Metric())
	now := frames[0]
	for _, f := range frames {
		if f.At <= at {
			now = f
		}
	}
	c.stage(w, now, props)
	x0, x1 := 132.0, wide-24
	px := func(ms int) float64 { return x0 + float64(ms)/float64(tr.Until)*(x1-x0) }
	y := 216.0
	step := 1000
	for tr.Until/step > 10 {
		step += 1000
	}
	bottom := y + 26
	rows := 0
	for range w.Plan.Inputs {
		rows++
	}
	for _, d := range w.Plan.Devices {
		if d.Driven {
			rows++
		}
	}
	bottom += float64(rows) * 25
	supplies := []plan.Device{}
	for _, d := range w.Plan.Devices {
		if d.Kind == "supply" {
			supplies = append(supplies, d)
		}
	}
	end := bottom + float64(len(supplies))*46
	for ms := 0; ms <= tr.Until; ms += step {
		c.Line("gridline", px(ms), y+6, px(ms), end)
		c.Text("t soft", "middle", px(ms), y, measure.Decimal(float64(ms)/1000, 1)+" s")
	}
	row := y + 14
	line := func(name string) {
		c.Text("t", "start", 16, row+15, name)
		c.Line("gridline", x0, row+22, x1, row+22)
	}
	for _, in := range w.Plan.Inputs {
		line(in.Name)
		open := -1
		for _, s := range append(append([]show.Stimulus(nil), stim...), show.Stimulus{At: tr.Until, Input: in.ID}) {
			if s.Input != in.ID {
				continue
			}
			if s.Down && open < 0 {
				open = s.At
			} else if !s.Down && open >= 0 {
				c.Rect("span held", px(open), row+4, math.Max(2, px(min(s.At, tr.Until))-px(open)), 18)
				open = -1
			}
		}
		for _, e := range tr.Events {
			if e.Who == in.ID && e.What == "ignored" {
				c.Text("t bad", "start", px(e.At)+22, row+16, "ignored: "+e.Why)
			}
		}
		row += 25
	}
	for _, d := range w.Plan.Devices {
		if !d.Driven {
			continue
		}
		line(d.Name)
		for _, s := range tr.Spans(d.ID) {
			c.Rect("span on", px(s.From), row+4, math.Max(2, px(s.To)-px(s.From)), 18)
			if px(s.To)-px(s.From) > 44 {
				c.Text("t dark", "start", px(s.From)+5, row+17, measure.Span(float64(s.To-s.From)/1000))
			}
		}
		row += 25
	}
	row = bottom + 4
	for _, d := range supplies {
		_, limit := wiring.SupplyOf(&d, w.Lib)
		c.Text("t", "start", 16, row+22, d.ID+", amps")
		g := now.State.Readings[d.ID]
		c.f(
			`<text class="t live" text-anchor="start" x="16" y="%s" data-amps="%s">%s</text>`,
			n(row+38),
			esc(d.ID),
			esc(measure.Amps(g.Amps)),
		)
		top := math.Max(limit, 0.1)
		for _, f := range frames {
			top = math.Max(top, f.State.Readings[d.ID].Amps)
		}
		yy := func(a float64) float64 { return row + 42 - a/top*32 }
		c.Line("limitline", x0, yy(limit), x1, yy(limit))
		c.Text("t bad", "end", x1, yy(limit)-3, measure.Amps(limit)+" limit")
		var ps []XY
		for i, f := range frames {
			to := tr.Until
			if i+1 < len(frames) {
				to = frames[i+1].At
			}
			a := f.State.Readings[d.ID].Amps
			ps = append(ps, XY{px(f.At), yy(a)}, XY{px(to), yy(a)})
		}
		c.Open("amps", ps)
		row += 46
	}
	c.H = end + 10
	c.f(
		`<g class="cursor" data-cursor="" data-x0="%s" data-x1="%s" data-until="%d" transform="translate(%s 0)"><path d="M-6 %sh12l-6 9z"/><line x1="0" y1="%s" x2="0" y2="%s"/></g>`,
		n(x0),
		n(x1),
		tr.Until,
		n(px(min(at, tr.Until))),
		n(y+4),
		n(y+4),
		n(end),
	)
	return c.SVG(
		"stage",
		"The dark stage and its traces",
		fmt.Sprintf("%d events in %s.", len(tr.Events), measure.Span(float64(tr.Until)/1000)),
	)
}

// stage draws the props dark, with each lamp as a glow: in its order along the
// prop's width, since places inside props are not entered yet.
func (c *Canvas) stage(w *work.Work, now work.Frame, props map[string]bool) {
	ground := 182.0
	c.Rect("night", 0, 0, c.W, 200)
	total, tall, count := 0.0, 1753.0, 0.0
	var shown []plan.Prop
	sizes := map[string]pattern.Vec{}
	for _, p := range w.Plan.Props {
		size, ok := check.Extent(w, p.ID)
		if !ok || !props[p.ID] {
			continue
		}
		shown, sizes[p.ID] = append(shown, p), size
		_, top := reach(w, p.ID)
		total, tall, count = total+size.X, math.Max(tall, top), count+1
	}
	scale := math.Min(160/tall, (c.W-140-50*count)/math.Max(1, total))
	gap := (c.W - 60 - total*scale) / math.Max(1, count+1)
	x := 30 + gap
	c.Line("horizon", 0, ground, c.W, ground)
	c.Person(44, ground, scale)
	c.Text("t soft", "end", c.W-14, 18, "lamps in their order, not yet in their place")
	for _, p := range shown {
		size := sizes[p.ID]
		mid := x + size.X*scale/2
		c.f(`<g class="dim-prop">`)
		c.Prop(w, p.ID, frontOver(w, p.ID, scale, mid, ground), "", nil)
		c.f(`</g>`)
		var lamps []plan.Device
		for _, d := range w.Plan.Devices {
			if _, dark := moving[w.Lib.Lamps[d.Product].Kind]; d.Kind == "lamp" && d.Prop == p.ID && !dark {
				lamps = append(lamps, d)
			}
		}
		per := 8
		for i, d := range lamps {
			rows := (len(lamps) + per - 1) / per
			inRow := min(per, len(lamps)-(i/per)*per)
			lx := mid + (float64(i%per)+.5-float64(inRow)/2)*size.X*scale/float64(inRow)*0.86
			ly := ground - size.Z*scale*(0.5+0.62*(float64(rows-1)/2-float64(i/per))/float64(max(1, rows)))
			g := now.State.Readings[d.ID]
			level := GlowLevel(g)
			r := 15.0
			if w.Lib.Lamps[d.Product].Amps > .1 {
				r = 44
			}
			c.f(
				`<circle class="stageglow lv%d" data-lamp="%s" cx="%s" cy="%s" r="%s"><title>%s</title></circle><circle class="pinlamp" cx="%s" cy="%s" r="2"/>`,
				level,
				esc(d.ID),
				n(lx),
				n(ly),
				n(r),
				esc(d.Name),
				n(lx),
				n(ly),
			)
		}
		c.Text("t", "middle", mid, ground+15, p.Name)
		x += size.X*scale + gap
	}
}

// GlowLevel is a lamp's light in four steps, 0 dark to 3 full.
func GlowLevel(g wiring.Operating) int {
	if g.State != "lit" && g.State != "dim" && g.State != "over" {
		return 0
	}
	return max(1, min(3, int(math.Ceil(g.Lit*3-0.05))))
}
