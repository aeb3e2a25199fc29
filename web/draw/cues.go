package draw

import (
	"fmt"
	"math"

	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/work"
)

// Cues draws a scene's cues along its time, a rail a channel: each is taken hold of in its
// middle to move it, at its right end to stretch it; a press on a rail adds one.
func Cues(w *work.Work, s *plan.Scene) string {
	var rails []string
	row := map[string]int{}
	add := func(id string) {
		if _, ok := row[id]; !ok {
			row[id] = len(rails)
			rails = append(rails, id)
		}
	}
	end := s.Length.Value()
	for _, q := range s.Cues {
		add(q.Channel)
		end = math.Max(end, q.Start.Value()+q.Length.Value())
	}
	for i := range w.Plan.Devices() { // switches of its prop that have no cue yet
		if d := &w.Plan.Devices()[i]; d.Channel() && d.Prop == s.Prop {
			add(d.ID)
		}
	}
	end = math.Max(2, math.Ceil(end*1.15))
	const left, high = 150.0, 34.0
	c := New(986, 40+high*float64(len(rails))+14, w.Plan.Metric())
	k := (c.W - left - 20) / end // drawing units a second
	x := func(t float64) float64 { return left + t*k }
	for t := 0.0; t <= end+1e-9; t += grid(end) {
		c.Line("rule", x(t), 26, x(t), c.H-10)
		c.Text("t soft", "middle", x(t), 18, measure.Decimal(t, 1)+" s")
	}
	for i, id := range rails {
		y := 34 + high*float64(i)
		name := id
		if d := w.Device(id); d != nil {
			name = d.Name
		}
		c.Text("t", "start", 14, y+20, name)
		c.f(
			`<rect class="cuerail" data-rail="%s" data-left="%s" data-k="%s" x="%s" y="%s" width="%s" height="%s"/>`,
			esc(id), n(left), fmt.Sprint(k), n(left), n(y+2), n(c.W-left-20), n(high-6),
		)
	}
	for i := range s.Cues {
		c.cue(w, s, i, left, 34+high*float64(row[s.Cues[i].Channel]), high, k)
	}
	if s.Length.Value() > 0 {
		c.Line("limit", x(s.Length.Value()), 26, x(s.Length.Value()), c.H-8)
	}
	return c.SVG(
		"cues",
		"Cues of "+s.Name,
		fmt.Sprintf("%d cues of %s on %d rails.", len(s.Cues), s.Name, len(rails)),
	)
}

// wave is a clip's outline, as wide as it lasts, cut off where its cue ends.
func (c *Canvas) wave(clip *plan.Clip, x, y, wide, most, high float64) {
	h := clip.Heights()
	var top, low []XY
	for i, v := range h {
		at := wide * float64(i) / float64(max(1, len(h)-1))
		if at > most {
			break
		}
		top, low = append(top, XY{x + at, y + high/2 - v*high*.46}), append(low, XY{x + at, y + high/2 + v*high*.46})
	}
	for i := len(low) - 1; i >= 0; i-- {
		top = append(top, low[i])
	}
	if len(top) > 3 {
		c.Poly("soundwave", top)
	}
}

// grid is how far apart the times are written, for a scene so long.
func grid(end float64) float64 {
	for _, g := range []float64{0.5, 1, 2, 5, 10, 30, 60, 300} {
		if end/g <= 14 {
			return g
		}
	}
	return 900
}

// cue draws a cue of a scene on its rail, y down and so high; k is drawing units a second.
func (c *Canvas) cue(w *work.Work, s *plan.Scene, i int, left, y, high, k float64) {
	q := s.Cues[i]
	at := left + q.Start.Value()*k
	long := math.Max(6, q.Length.Value()*k)
	c.f(
		`<g class="cue" tabindex="0" role="button" data-cue="%d" data-start="%s" data-length="%s" data-k="%s" aria-label="`+
			`Cue of %s at %s for %s: arrow keys move it, with Shift they stretch it, Delete takes it away">`,
		i,
		fmt.Sprint(q.Start.Value()),
		fmt.Sprint(q.Length.Value()),
		fmt.Sprint(k),
		esc(q.Channel),
		esc(q.Start.String()),
		esc(q.Length.String()),
	)
	c.Rect("cuebar", at, y+2, long, high-6)
	if clip := w.Plan.ClipOn(q.Channel); clip != nil && clip.Long.Value() > 0 {
		c.wave(clip, at, y+2, k*clip.Long.Value(), long, high-6)
	}
	c.Rect("cueend", at+long-8, y+2, 8, high-6)
	c.f(`</g>`)
	if l := (label{class: "t", text: q.Length.String()}); l.wide() < long-14 {
		c.Text("t dark pass", "start", at+6, y+20, l.text)
	}
}
