package cutting

import (
	"fmt"

	"zapbarn/core/memo"
	"zapbarn/core/nest"
	"zapbarn/core/pattern"
)

// layouts keeps what was laid last: most edits change one stock or none.
var layouts = memo.New[memo.Key, nest.Layout](500_000, layoutWeight)

// layoutWeight is how many pieces a layout lays, and one for itself.
func layoutWeight(l nest.Layout) int64 {
	n := int64(1)
	for _, s := range l.Sheets {
		n += int64(len(s.Placed))
	}
	return n
}

// rings takes outlines into a sum.
func rings(s *memo.Sum, list [][]pattern.Point) {
	s.Bits(uint64(len(list)))
	for _, r := range list {
		s.Bits(uint64(len(r)))
		for _, q := range r {
			s.Num(q.X, q.Y)
		}
	}
}

func remembered(parts []nest.Part, stocks []nest.Stock, o nest.Options) nest.Layout {
	s := memo.NewSum()
	s.Num(o.Kerf, o.Margin, float64(o.Seed), float64(o.Tries), float64(len(parts)), float64(len(stocks)))
	for i, p := range parts {
		s.Text(p.Shape)
		if i > 0 && p.Shape != "" && p.Shape == parts[i-1].Shape {
			continue // equal shapes are equal parts
		}
		turn := 0.0
		if p.Turn {
			turn = 1
		}
		s.Num(p.W, p.H, p.Low, p.High, p.Round, p.Bore, turn)
		rings(s, p.Polys)
		rings(s, p.Holes)
	}
	for _, x := range stocks {
		s.Text(x.ID)
		s.Num(x.W, x.H, float64(x.Left))
	}
	s.Text(fmt.Sprint(o.Fixed))
	return layouts.Get(s.Key(), func() nest.Layout { return nest.Sheets(parts, stocks, o) })
}
