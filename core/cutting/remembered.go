package cutting

import (
	"crypto/sha256"
	"encoding/binary"
	"fmt"
	"math"

	"zapbarn/core/memo"
	"zapbarn/core/nest"
	"zapbarn/core/pattern"
)

// layouts keeps what was laid last: most edits change one stock or none.
var layouts = memo.New[[32]byte, nest.Layout](500_000, layoutWeight)

// layoutWeight is how many pieces a layout lays, and one for itself.
func layoutWeight(l nest.Layout) int64 {
	n := int64(1)
	for _, s := range l.Sheets {
		n += int64(len(s.Placed))
	}
	return n
}

func remembered(parts []nest.Part, stocks []nest.Stock, o nest.Options) nest.Layout {
	h := sha256.New()
	var buf []byte
	num := func(v ...float64) {
		for _, x := range v {
			buf = binary.LittleEndian.AppendUint64(buf, math.Float64bits(x))
		}
	}
	num(o.Kerf, o.Margin, float64(o.Seed), float64(o.Tries), float64(len(parts)), float64(len(stocks)))
	last := ""
	for _, p := range parts {
		if buf = append(append(buf, p.Shape...), 0); p.Shape == last && last != "" {
			continue // equal shapes are equal parts
		}
		last = p.Shape
		turn := 0.0
		if p.Turn {
			turn = 1
		}
		num(p.W, p.H, p.Low, p.High, p.Round, p.Bore, turn, float64(len(p.Polys)), float64(len(p.Holes)))
		for _, rings := range [][][]pattern.Point{p.Polys, p.Holes} {
			for _, r := range rings {
				num(float64(len(r)))
				for _, q := range r {
					num(q.X, q.Y)
				}
			}
		}
	}
	for _, s := range stocks {
		buf = append(append(buf, s.ID...), 0)
		num(s.W, s.H, float64(s.Left))
	}
	buf = fmt.Appendf(buf, "%v", o.Fixed)
	h.Write(buf)
	return layouts.Get([32]byte(h.Sum(nil)), func() nest.Layout { return nest.Sheets(parts, stocks, o) })
}
