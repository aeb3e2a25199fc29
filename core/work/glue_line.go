package work

import (
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
