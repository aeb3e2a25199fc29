package shorthand

import (
	"fmt"
	"math"
	"strings"

	"zapbarn/core/measure"
	"zapbarn/core/plan"
)

// array reads several of a solid in a row, in a circle or along a fence: row box x6 every
// 14 in, circle stone x8 6 ft, pickets board x12 along 8 ft.
func (r *reader) array() (*Reading, error) {
	how := strings.ToLower(r.words[0])
	t, rest, ok := r.named(r.words[1:])
	s, solid := t.value.(*plan.Solid)
	if !ok || !solid {
		return nil, r.what(r.words[1:])
	}
	line := r.phrase(rest)
	n := line.Copies()
	line.Take("every")
	line.Take("along")
	line.Take("across")
	line.Take("apart")
	dims := line.Sizes()
	if err := line.None(); err != nil {
		return nil, err
	}
	if len(dims) > 1 {
		return nil, fmt.Errorf("takes one length: how far apart, or how long or wide in all")
	}
	places, text, err := r.places(how, s, n, dims)
	if err != nil {
		return nil, err
	}
	e, err := r.p.Array(s.ID, places)
	if err != nil {
		return nil, err
	}
	return &Reading{Text: text, Edit: e, Select: "solid:" + s.ID}, nil
}

// places are where so many of a solid stand, and what that is called.
func (r *reader) places(how string, s *plan.Solid, n int, dims []measure.Length) ([]plan.Place, string, error) {
	wide, size := r.p.Width(s), 0.0
	if len(dims) == 1 {
		size = dims[0].Value()
	}
	at := plan.Place{X: s.X.Value(), Y: s.Y.Value()}
	broad := w(r, tape(r, wide))
	switch {
	case n < 2 || n > plan.MostInArray:
		return nil, "", fmt.Errorf("say how many, x2 to x%d", plan.MostInArray)
	case how == "row":
		if size == 0 { // a hand's width between them
			size = wide + 4*measure.Inch
		}
		every := w(r, tape(r, size))
		if size < wide {
			return nil, "", fmt.Errorf("every %s they would stand in each other; they are %s wide", every, broad)
		}
		return plan.RowOf(at, n, size), fmt.Sprintf("%d of %s in a row, every %s", n, s.Name, every), nil
	case size == 0:
		return nil, "", fmt.Errorf("say how long or how wide in all, such as 8 ft")
	case how == "pickets":
		gap := (size - float64(n)*wide) / float64(n-1)
		if gap < 0 {
			return nil, "", fmt.Errorf("%d of them, %s wide, do not go into %s", n, broad, w(r, dims[0]))
		}
		return plan.PicketsOf(at, n, size, wide),
			fmt.Sprintf("%d of %s along %s, gaps of %s", n, s.Name, w(r, dims[0]), w(r, tape(r, gap))), nil
	case size*math.Sin(math.Pi/float64(n)) < wide-1e-6:
		return nil, "", fmt.Errorf("%d of them, %s wide, do not go round a circle %s across", n, broad, w(r, dims[0]))
	}
	return plan.CircleOf(at, n, size), fmt.Sprintf("%d of %s in a circle %s across", n, s.Name, w(r, dims[0])), nil
}

func tape(r *reader, mm float64) measure.Length { return measure.OnTape(mm, r.p.Metric()) }
