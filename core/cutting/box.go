package cutting

import (
	"zapbarn/core/memo"
	"zapbarn/core/nest"
	"zapbarn/core/pattern"
	"zapbarn/core/stock"
)

// Box is a panel as the nesting takes it, its area in mm2, and the sum of all that tells how
// it may be laid.
type Box struct {
	part nest.Part
	area float64
	sum  memo.Key
}

// BoxOf is the box of a panel cut from a stock. It is to be read only, and may be kept.
func BoxOf(p *pattern.Panel, m *stock.Material) *Box {
	b := &Box{part: boxOf(p, m), area: p.Area()}
	turn := 0.0
	if b.part.Turn {
		turn = 1
	}
	s := memo.NewSum()
	s.Num(b.part.W, b.part.H, b.part.Low, b.part.High, b.part.Round, b.part.Bore, turn)
	rings(s, b.part.Polys)
	rings(s, b.part.Holes)
	b.sum = s.Key()
	return b
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

func boxOf(p *pattern.Panel, m *stock.Material) nest.Part {
	lo, hi := p.Bounds()
	outline := func(pts []pattern.Point) []pattern.Point {
		if lo.X == 0 && lo.Y == 0 { // as most are: shared, and only read
			return pts
		}
		out := make([]pattern.Point, len(pts))
		for i, q := range pts {
			out[i] = pattern.Point{X: q.X - lo.X, Y: q.Y - lo.Y}
		}
		return out
	}
	n := nest.Part{W: hi.X - lo.X, H: hi.Y - lo.Y, Turn: m.Grain == "" || p.Grain == "", Round: p.Round, Bore: p.Bore}
	n.Polys = append(n.Polys, outline(p.Outline))
	if p.Inside != nil {
		n.Polys = append(n.Polys, outline(p.Inside))
	}
	for _, h := range p.Holes {
		n.Holes = append(n.Holes, outline(h))
	}
	if p.Bore > 0 {
		n.Holes = append(n.Holes, outline(pattern.Circle(p.Round/2, p.Round/2, p.Bore*0.997)))
	}
	if p.Round == 0 && len(p.Outline) == 4 && p.Inside != nil && p.CutAngle > 0 {
		low, high := p.Outline[1].X-p.Outline[0].X, p.Outline[2].X-p.Outline[3].X
		// the inside face is smaller and shifted by a level bevel; the box
		// round both keeps the trapezoid's own slant, so widths stay true
		grow := (n.H/(p.Outline[2].Y-p.Outline[1].Y) - 1) * (low - high)
		if grow >= 0 {
			n.Low, n.High = low, high-grow
		} else {
			n.Low, n.High = low-grow, high
		}
		n.W = max(n.Low, n.High)
		if n.High <= 0 || n.Low <= 0 {
			n.Low, n.High = 0, 0
		}
	}
	return n
}
