package work

import (
	"slices"
	"strings"

	"zapbarn/core/measure"
	"zapbarn/core/pattern"
	"zapbarn/core/plan"
	"zapbarn/core/stock"
)

// GlueLine is a joint's length and width in mm. Where a solid's own parts meet
// its form says both; a length that was written down stands. Elsewhere the width
// is the thinner stock's edge, and the length 0 until it is written.
func (w *Work) GlueLine(j *plan.Joint) (length, width float64) {
	width = measure.Inch
	for k, m := range []stock.Material{w.MaterialAt(j.A), w.MaterialAt(j.B)} {
		if t := m.Thick.Value(); t > 0 && (k == 0 || t < width) {
			width = t
		}
	}
	length = j.Length.Value()
	if l, ok := w.FormLine(j); ok {
		width = l.Width
		if length == 0 {
			length = l.Length
		}
	}
	return length, width
}

// GlueRun is a joint's glue line as it is laid and bought. Where two bodies meet and no length was
// written down it is about the rim of the smaller face that both can have: about is true then.
func (w *Work) GlueRun(j *plan.Joint) (length, width float64, about bool) {
	length, width = w.GlueLine(j)
	if length > 0 {
		return length, width, false
	}
	a, _, _ := strings.Cut(j.A, "/")
	b, _, _ := strings.Cut(j.B, "/")
	x, y := w.Shapes()[a], w.Shapes()[b]
	if a == b || x == nil || y == nil {
		return length, width, false
	}
	one, other := faceOf(x), faceOf(y)
	return 2 * (min(one[0], other[0]) + min(one[1], other[1])), width, true
}

// faceOf is how long and how wide the largest face of a body is, mm.
func faceOf(s *pattern.Shape) [2]float64 {
	sides := []float64{s.Size.X, s.Size.Y, s.Size.Z}
	slices.Sort(sides)
	return [2]float64{sides[2], sides[1]}
}

// FormLine is the glue line between two parts of one solid that a joint stands
// for, as the solid's form has it.
func (w *Work) FormLine(j *plan.Joint) (pattern.Line, bool) {
	a, pa, _ := strings.Cut(j.A, "/")
	b, pb, _ := strings.Cut(j.B, "/")
	shape := w.Shapes()[a]
	if a != b || shape == nil {
		return pattern.Line{}, false
	}
	for _, l := range shape.Lines {
		if l.A == pa && l.B == pb || l.A == pb && l.B == pa {
			return l, true
		}
	}
	return pattern.Line{}, false
}
