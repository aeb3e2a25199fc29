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

// Playing is a run of the show to be drawn.
type Playing struct {
	Contacts []show.Stimulus // as the pins see them
	Trace    show.Trace
	Frames   []work.Frame
	At       int             // ms
	Props    map[string]bool // on the stage
	Prop     string          // whose rails are drawn; "" is all
	Broken   int             // ms at which a promise is broken; below 0 for none
}

// Rehearsal draws the dark stage at a moment and, below it, every channel's trace and
// each supply's current over the whole time. The player moves the cursor, the glows and
// the mechanisms; their places carry data-lamp, data-mover, data-amps and so on.
func Rehearsal(w *work.Work, p Playing) string {
	c := New(railsWide, 0, w.Plan.Metric())
	c.stage(w, p)
	end := c.rails(w, p, 234, true)
	c.H = end + 10
	return c.SVG(
		"stage",
		"The dark stage and its traces",
		fmt.Sprintf("%d events in %s.", len(p.Trace.Events), measure.Span(float64(p.Trace.Until)/1000)),
	)
}

// Strip draws a sequence of events and what comes of it, without the stage.
func Strip(w *work.Work, p Playing) string {
	c := New(railsWide, 0, w.Plan.Metric())
	c.H = c.rails(w, p, 16, false) + 8
	return c.SVG("strip", "What happens, along the time",
		fmt.Sprintf("%d events in %s.", len(p.Trace.Events), measure.Span(float64(p.Trace.Until)/1000)))
}

const (
	railsWide = 986.0
	railsFrom = 150.0
	railHigh  = 25.0
)

// rails draws inputs, channels, mechanisms and supplies along the time, from y on, and
// says where it ends.
func (c *Canvas) rails(w *work.Work, p Playing, y float64, supplies bool) float64 {
	r := c.railed(w, p, supplies)
	rows := len(r.inputs) + len(r.channels) + min(1, len(r.cuts))
	end := y + 26 + float64(rows)*railHigh + float64(len(r.movers))*36 + float64(len(r.fed))*50
	r.times(y, end)
	if p.Broken >= 0 {
		r.broken(y, end)
		y += 14
		end += 14
	}
	r.row = y + 14
	r.fill()
	c.f(
		`<g class="cursor" data-cursor="" data-x0="%s" data-x1="%s" data-until="%d" transform="translate(%s 0)">`+
			`<path d="M-6 %sh12l-6 9z"/><line x1="0" y1="%s" x2="0" y2="%s"/></g>`,
		n(railsFrom),
		n(railsTo),
		p.Trace.Until,
		n(r.px(min(p.At, p.Trace.Until))),
		n(y+4),
		n(y+4),
		n(end),
	)
	return end
}

// railsTo is where the rails end.
const railsTo = railsWide - 24

// railSet is what has a rail, and the row at hand.
type railSet struct {
	*Canvas
	w        *work.Work
	p        Playing
	inputs   []string
	channels []string
	movers   []*work.Moved
	fed      []plan.Device
	cuts     []show.Span
	row      float64
}

func (c *Canvas) railed(w *work.Work, p Playing, supplies bool) *railSet {
	r := &railSet{Canvas: c, w: w, p: p, cuts: cutsOf(p.Trace)}
	mine := func(prop string) bool { return p.Prop == "" || prop == p.Prop }
	for _, in := range w.Plan.Inputs() {
		if mine(in.Prop) {
			r.inputs = append(r.inputs, in.ID)
		}
	}
	for _, d := range w.Plan.Devices() {
		if d.Driven && mine(d.Prop) {
			r.channels = append(r.channels, d.ID)
		}
	}
	for _, m := range w.Mechanisms() {
		if m.Of.Up != "" && m.UpMS > 0 && mine(m.Of.Prop) {
			r.movers = append(r.movers, m)
		}
	}
	if supplies {
		r.fed = c.feeding(w, r.channels)
	}
	return r
}

// px is where a time is.
func (r *railSet) px(ms int) float64 {
	return railsFrom + float64(ms)/float64(max(1, r.p.Trace.Until))*(railsTo-railsFrom)
}

// times are the seconds, ten at most.
func (r *railSet) times(y, end float64) {
	step := 1000
	for r.p.Trace.Until/step > 10 {
		step += 1000
	}
	for ms := 0; ms <= r.p.Trace.Until; ms += step {
		r.Line("gridline", r.px(ms), y+6, r.px(ms), end)
		r.Text("t soft", "middle", r.px(ms), y, measure.Decimal(float64(ms)/1000, 1)+" s")
	}
}

// broken is where a promise was.
func (r *railSet) broken(y, end float64) {
	x := r.px(r.p.Broken)
	r.Line("limitline", x, y+6, x, end)
	if x > railsTo-140 {
		r.Text("t bad", "end", x-8, y+18, "here it is broken")
	} else {
		r.Text("t bad", "start", x+8, y+18, "here it is broken")
	}
}

func (r *railSet) name(text string, high float64) {
	r.Text("t", "start", 16, r.row+15, text)
	r.Line("gridline", railsFrom, r.row+high-3, railsTo, r.row+high-3)
}

// fill draws the rails one below the other.
func (r *railSet) fill() {
	if len(r.cuts) > 0 {
		r.name("Power", railHigh)
		from := 0
		for _, k := range append(r.cuts, show.Span{From: r.p.Trace.Until, To: r.p.Trace.Until}) {
			r.Rect("span live", r.px(from), r.row+9, math.Max(1, r.px(k.From)-r.px(from)), 8)
			from = k.To
		}
		r.row += railHigh
	}
	for _, id := range r.inputs {
		r.name(r.w.Plan.Input(id).Name, railHigh)
		r.contact(r.p, id, r.row, r.px)
		r.row += railHigh
	}
	for _, id := range r.channels {
		r.name(r.w.Device(id).Name, railHigh)
		r.spans(id)
		r.row += railHigh
	}
	for _, m := range r.movers {
		r.name(m.Of.Name, 36)
		r.travelled(r.w, r.p, m, r.row, r.px)
		r.row += 36
	}
	for _, d := range r.fed {
		r.supplied(r.w, r.p, d, r.row, r.px)
		r.row += 50
	}
}

// spans are when a channel was on.
func (r *railSet) spans(id string) {
	for _, s := range r.p.Trace.Spans(id) {
		if s.From > r.p.Trace.Until {
			continue
		}
		x, to := r.px(s.From), r.px(min(s.To, r.p.Trace.Until))
		r.Rect("span on", x, r.row+4, math.Max(2, to-x), 18)
		if to-x > 44 {
			r.Text("t dark", "start", x+5, r.row+17, measure.Span(float64(s.To-s.From)/1000))
		}
	}
}

// cutsOf are when power was away.
func cutsOf(t show.Trace) (out []show.Span) {
	lost := -1
	for _, e := range t.Events {
		switch {
		case e.What == "power" && e.Why == "lost":
			lost = e.At
		case e.What == "power" && lost >= 0:
			out = append(out, show.Span{From: lost, To: e.At})
			lost = -1
		}
	}
	if lost >= 0 {
		out = append(out, show.Span{From: lost, To: t.Until})
	}
	return out
}

// contact is an input along its rail: closed, and what of it did not count.
func (c *Canvas) contact(p Playing, id string, row float64, px func(int) float64) {
	open := -1
	for _, s := range p.Contacts {
		if s.Input != id {
			continue
		}
		if s.Down && open < 0 {
			open = s.At
		} else if !s.Down && open >= 0 {
			c.Rect("span held", px(open), row+4, math.Max(2, px(min(s.At, p.Trace.Until))-px(open)), 18)
			open = -1
		}
	}
	if open >= 0 {
		c.Rect("span held", px(open), row+4, math.Max(2, px(p.Trace.Until)-px(open)), 18)
	}
	last := -1e9
	for _, e := range p.Trace.Events {
		if e.Who == id && e.What == "ignored" {
			if x := px(e.At) + 22; x > last+230 {
				c.Text("t bad", "start", x, row+16, "ignored: "+e.Why)
				last = x
			}
		}
		if e.Who == id && e.What == "press" {
			c.Line("counted", px(e.At), row+2, px(e.At), row+22)
		}
	}
}

// travelled is where a mechanism is, along the time.
func (c *Canvas) travelled(w *work.Work, p Playing, m *work.Moved, row float64, px func(int) float64) {
	for _, v := range w.Machine().Movers {
		if v.ID != m.Of.ID {
			continue
		}
		var ps []XY
		for ms := 0; ms <= p.Trace.Until; ms += max(20, p.Trace.Until/400) {
			ps = append(ps, XY{px(ms), row + 30 - float64(p.Trace.At(v, ms))/1000*26})
		}
		c.Open("travelled", ps)
	}
}

// feeding are the supplies that feed some channels, in the plan's order.
func (c *Canvas) feeding(w *work.Work, channels []string) (out []plan.Device) {
	roots := map[string]bool{}
	for _, id := range channels {
		roots[w.Root(id)] = true
	}
	for _, d := range w.Plan.Devices() {
		if d.Is(wiring.Origin) && roots[d.ID] {
			out = append(out, d)
		}
	}
	return out
}

// supplied is a supply's current along the time, against what it can give, and how many
// volts come to its end.
func (c *Canvas) supplied(w *work.Work, p Playing, d plan.Device, row float64, px func(int) float64) {
	x0, x1 := px(0), px(p.Trace.Until)
	now := p.frame()
	_, limit := wiring.SupplyOf(&d, w.Lib)
	c.f(`<text class="t" text-anchor="start" x="16" y="%s">%s</text>`, n(row+24), esc(d.ID))
	g := now.State.Readings[d.ID]
	c.f(
		`<text class="t live" text-anchor="start" x="16" y="%s" data-amps="%s">%s</text>`,
		n(row+42),
		esc(d.ID),
		esc(suppliedText(g)),
	)
	top := math.Max(limit, 0.1)
	for _, f := range p.Frames {
		top = math.Max(top, f.State.Readings[d.ID].Amps)
	}
	yy := func(a float64) float64 { return row + 42 - a/top*32 }
	c.Line("limitline", x0, yy(limit), x1, yy(limit))
	c.Text("t bad", "end", x1, yy(limit)-3, measure.Amps(limit)+" limit")
	var ps []XY
	for i, f := range p.Frames {
		to := p.Trace.Until
		if i+1 < len(p.Frames) {
			to = p.Frames[i+1].At
		}
		a := f.State.Readings[d.ID].Amps
		ps = append(ps, XY{px(f.At), yy(a)}, XY{px(to), yy(a)})
	}
	c.Open("amps", ps)
}

// suppliedText is a supply's current and volts.
func suppliedText(g wiring.Operating) string {
	return measure.Amps(g.Amps) + ", " + measure.Volts(g.Volts)
}

// Supplied is what is written of a supply beside its rail.
func Supplied(g wiring.Operating) string { return suppliedText(g) }

// frame is the wiring at the moment that is looked at.
func (p Playing) frame() work.Frame {
	now := p.Frames[0]
	for _, f := range p.Frames {
		if f.At <= p.At {
			now = f
		}
	}
	return now
}

// stage draws the props dark, with each lamp as a glow in its order along the prop's
// width, each mechanism where it is, fog and sound.
func (c *Canvas) stage(w *work.Work, p Playing) {
	ground, now := 182.0, p.frame()
	c.Rect("night", 0, 0, c.W, 216)
	total, count := 0.0, 0.0
	var shown []plan.Prop
	sizes := map[string]pattern.Vec{}
	for _, x := range w.Plan.Props() {
		size, ok := check.Extent(w, x.ID)
		if !ok || !p.Props[x.ID] {
			continue
		}
		shown, sizes[x.ID] = append(shown, x), size
		total, count = total+size.X, count+1
	}
	scale := StageScale(w, p.Props)
	gap := (c.W - 140 - total*scale) / math.Max(1, count+1)
	x := 30 + gap
	c.Line("horizon", 0, ground, c.W, ground)
	c.Person(44, ground, scale)
	for _, prop := range shown {
		size := sizes[prop.ID]
		mid := x + size.X*scale/2
		c.f(`<g class="dim-prop">`)
		c.Prop(w, prop.ID, frontOver(w, prop.ID, scale, mid, ground), "", nil)
		c.f(`</g>`)
		c.onStage(w, p, now, prop.ID, mid, ground, scale, size)
		c.Text("t", "middle", mid, ground+15, prop.Name)
		x += size.X*scale + gap
	}
	c.meter(w, now)
}

// onStage is what of a prop is lit, moves or fogs.
func (c *Canvas) onStage(
	w *work.Work,
	p Playing,
	now work.Frame,
	prop string,
	mid, ground, scale float64,
	size pattern.Vec,
) {
	var lamps []plan.Device
	for _, d := range w.Plan.Devices() {
		l := w.Lib.Lamps[d.Product]
		if _, dark := moving[l.Kind]; d.Is(wiring.Load) && d.Prop == prop && !dark && l.Makes == "" {
			lamps = append(lamps, d)
		}
	}
	c.lamplight(w, now, lamps, mid, ground, scale, size)
	for _, m := range w.Mechanisms() {
		if m.Of.Prop != prop || len(m.Rows) == 0 {
			continue
		}
		ox, oy := mid, ground-size.Z*scale
		if m.Of.Kind == "lid" || m.Of.Kind == "servo" {
			oy = ground - size.Z*scale*.7
		}
		if m.Of.Kind == "turntable" {
			oy = ground - 6
		}
		if !m.Of.X.IsZero() || !m.Of.Z.IsZero() {
			ox, oy = mid+m.Of.X.Value()*scale, ground-m.Of.Z.Value()*scale
		}
		at := 0
		for _, v := range w.Machine().Movers {
			if v.ID == m.Of.ID {
				at = p.Trace.At(v, p.At)
			}
		}
		c.f(`<path class="mover" data-mover="%s" transform="translate(%s %s)" d="%s"/>`, esc(m.Of.ID), n(ox), n(oy),
			moverPath(m, at, scale))
	}
	for i := range w.Plan.Devices() {
		if d := &w.Plan.Devices()[i]; d.Prop == prop && w.Lib.Lamps[d.Product].Makes == "fog" {
			class := ""
			if GlowLevel(now.State.Readings[d.ID]) > 0 {
				class = " on"
			}
			x, y := mid+size.X*scale*.4, ground-size.Z*scale*.72
			c.f(`<g class="fog%s" data-fog="%s"><title>%s</title><ellipse cx="%s" cy="%s" rx="34" ry="15"/>`+
				`<ellipse cx="%s" cy="%s" rx="26" ry="12"/></g>`, class, esc(d.ID), esc(d.Name), n(x+24), n(y), n(x+64), n(y-12))
		}
	}
}

// lamplight is a prop's lamps as glows, in their order along its width.
func (c *Canvas) lamplight(
	w *work.Work,
	now work.Frame,
	lamps []plan.Device,
	mid, ground, scale float64,
	size pattern.Vec,
) {
	per := 8
	for i, d := range lamps {
		rows := (len(lamps) + per - 1) / per
		inRow := min(per, len(lamps)-(i/per)*per)
		lx := mid + (float64(i%per)+.5-float64(inRow)/2)*size.X*scale/float64(inRow)*0.86
		ly := ground - size.Z*scale*(0.5+0.62*(float64(rows-1)/2-float64(i/per))/float64(max(1, rows)))
		level := GlowLevel(now.State.Readings[d.ID])
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
}

// meter is how loud it is where a guest stands.
func (c *Canvas) meter(w *work.Work, now work.Frame) {
	x, top, tall := c.W-52, 18.0, 132.0
	db := w.Decibels(now.State)
	c.Rect("metercase", x, top, 12, tall)
	h := math.Max(0, math.Min(1, (db-40)/60)) * tall
	c.f(
		`<rect class="meterbar" data-meter="%s" data-top="%s" x="%s" y="%s" width="12" height="%s"/>`,
		n(tall),
		n(top),
		n(x),
		n(top+tall-h),
		n(h),
	)
	c.Line("limitline", x-6, top+tall-(85.0-40)/60*tall, x+18, top+tall-(85.0-40)/60*tall)
	c.f(
		`<text class="t" text-anchor="middle" x="%s" y="%s" data-db="">%s</text>`,
		n(x+6),
		n(top+tall+18),
		esc(LoudText(db)),
	)
}

// LoudText is a level as the meter writes it.
func LoudText(db float64) string {
	if db == 0 {
		return "quiet"
	}
	return measure.Decimal(db, 0) + " dB"
}

// GlowLevel is a lamp's light in four steps, 0 dark to 3 full.
func GlowLevel(g wiring.Operating) int {
	if !g.Works() {
		return 0
	}
	return max(1, min(3, int(math.Ceil(g.Lit*3-0.05))))
}

// Poses are a mechanism's figures at each fortieth of its travel, as on the stage.
func Poses(m *work.Moved, scale float64) (out []string) {
	for k := 0; k <= 40; k++ {
		out = append(out, moverPath(m, k*25, scale))
	}
	return out
}

// StageScale is the stage's scale, in px a mm.
func StageScale(w *work.Work, props map[string]bool) float64 {
	total, tall, count := 0.0, 1753.0, 0.0
	for _, x := range w.Plan.Props() {
		if size, ok := check.Extent(w, x.ID); ok && props[x.ID] {
			_, top := reach(w, x.ID)
			total, tall, count = total+size.X, math.Max(tall, top), count+1
		}
	}
	return math.Min(160/tall, (railsWide-220-50*count)/math.Max(1, total))
}
