package work

import (
	"math"

	"zapbarn/core/motion"
	"zapbarn/core/plan"
)

// Drives is how a trigger's scene drives a mechanism's motor, run after run with nothing but
// its rest between.
type Drives struct {
	motion.Duty
	Trigger *plan.Trigger // nil for a mechanism that no scene drives: it runs without a rest
	Scene   *plan.Scene
	Long    float64 // s that the scene takes
	Every   float64 // s from one run to the next
}

// Still is what it heats by holding its load, A2 s a cycle.
func (d Drives) Still() float64 {
	rest := math.Max(0, d.Every-d.Run-d.Top)
	return d.AtTop*d.AtTop*d.Top + d.AtBottom*d.AtBottom*rest
}

// Drives are the ways in which a mechanism's motor is driven: of each trigger whose scene moves it.
func (w *Work) Drives(m *Moved) (out []Drives) {
	duty := motion.Duty{Square: m.Up.Square + m.Down.Square, Run: float64(m.UpMS+m.DownMS) / 1000,
		AtBottom: m.HoldsAt[0], AtTop: m.HoldsAt[1]}
	for i := range w.Plan.Triggers() {
		t := &w.Plan.Triggers()[i]
		s := w.Plan.Scene(t.Scene)
		if s == nil {
			continue
		}
		d := Drives{Duty: duty, Trigger: t, Scene: s, Long: s.Length.Value()}
		up, down := -1.0, math.Inf(1) // when it sets out, and when it comes back
		for _, q := range s.Cues {
			begin, end := q.Start.Value(), q.Start.Value()+q.Length.Value()
			if s.Length.IsZero() {
				d.Long = math.Max(d.Long, end)
			}
			switch {
			case q.Channel == "":
			case q.Channel == m.Of.Up && up < 0:
				up = begin
				if m.Of.Down == "" {
					down = end
				}
			case q.Channel == m.Of.Down && up >= 0:
				down = math.Min(down, begin)
			}
		}
		if up < 0 {
			continue
		}
		if math.IsInf(down, 1) { // it stays up until the scene is over
			down = math.Max(d.Long, up)
		}
		d.Top = math.Max(0, down-up-float64(m.UpMS)/1000)
		d.Every = math.Max(d.Run+d.Top, d.Long+t.Rest.Value())
		out = append(out, d)
	}
	if len(out) == 0 {
		out = append(out, Drives{Duty: duty, Every: duty.Run})
	}
	return out
}
