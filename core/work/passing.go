package work

import (
	"math"

	"zapbarn/core/plan"
	"zapbarn/core/yard"
)

// Passing is a sensor on the guests' path, and where a guest is when what it started begins.
type Passing struct {
	Input  *plan.Input
	Stands *Placed // its prop in the yard; nil where it is not set out
	Wait   float64 // s: the sensor's latency, and until the scene's first cue
	Then   float64 // m along the path
}

// Past is how far a guest is past the prop by then, m; below 0 still before it.
func (x Passing) Past() float64 { return x.Then - x.Stands.Along }

// Passings are those of all inputs that guests work and of which it is known how far along
// the path they lie; none where there is no path.
func (w *Work) Passings() (out []Passing) {
	if len(w.Plan.Walkways()) == 0 {
		return nil
	}
	y := w.Yard()
	path := y.Path()
	if path == nil {
		return nil
	}
	for i := range w.Plan.Inputs() {
		in := &w.Plan.Inputs()[i]
		if !in.ByGuests() || in.Far.IsZero() {
			continue
		}
		wait := in.Latency.Value() + w.firstCue(in.ID)
		out = append(out, Passing{in, y.Of(in.Prop), wait, yard.Then(m(in.Far.Value()), path.Speed, wait)})
	}
	return out
}

// firstCue is how long after an input's scene starts its first cue does, s.
func (w *Work) firstCue(input string) float64 {
	first := math.Inf(1)
	for _, t := range w.Plan.Triggers() {
		if s := w.Plan.Scene(t.Scene); t.Input == input && s != nil {
			for _, q := range s.Cues {
				first = math.Min(first, q.Start.Value())
			}
		}
	}
	if math.IsInf(first, 1) {
		return 0
	}
	return first
}

// Face is how light it is on a prop's front, half way up, lx.
func (y *Yard) Face(s *Placed) float64 {
	at, front := y.FaceOf(s)
	return yard.Upright(y.Lamps, at, front, y.Hides)
}

// FaceOf is the middle of a prop's front, and the way it looks.
func (y *Yard) FaceOf(s *Placed) (at yard.Spot, front yard.Pt) {
	front = s.Box.Front()
	return yard.Spot{Pt: s.Box.At.Plus(front.Times(s.Box.Deep/2 + 0.01)), Z: s.Box.High / 2}, front
}
