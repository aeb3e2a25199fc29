package cutting

import (
	"fmt"

	"zapbarn/core/memo"
	"zapbarn/core/nest"
)

// layoutWeight is how many pieces a layout lays, and one for itself.
func layoutWeight(l nest.Layout) int64 {
	n := int64(1)
	for _, s := range l.Sheets {
		n += int64(len(s.Placed))
	}
	return n
}

// remembered lays the loose pieces, or takes over how the like were laid.
func (s *Sheets) remembered(parts []nest.Part, stocks []nest.Stock, o nest.Options) nest.Layout {
	sum := memo.NewSum()
	sum.Num(o.Kerf, o.Margin, float64(o.Seed), float64(o.Tries), float64(len(parts)), float64(len(stocks)))
	for i, p := range parts {
		sum.Text(p.Shape)
		if i == 0 || p.Shape != parts[i-1].Shape { // equal shapes are equal parts
			key := s.shapes[s.loose[i]]
			sum.Bits(key[:]...)
		}
	}
	for _, x := range stocks {
		sum.Text(x.ID)
		sum.Num(x.W, x.H, float64(x.Left))
	}
	sum.Text(fmt.Sprint(o.Fixed))
	layouts := memo.At[memo.Key](s.bench, "layouts", 500_000, layoutWeight) // most edits change one stock or none
	return layouts.Get(sum.Key(), func() nest.Layout { return nest.Sheets(parts, stocks, o) })
}
