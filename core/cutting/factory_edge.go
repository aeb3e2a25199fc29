package cutting

import (
	"math"

	"zapbarn/core/measure"
	"zapbarn/core/nest"
	"zapbarn/core/pattern"
	"zapbarn/core/stock"
)

// factorySlack is how far in mm a part's size may be off its sheet's for the
// factory edge to be its own edge.
const factorySlack = 0.5

// factory reports whether a part that leaves no margin fits a sheet all the
// same, its edges being the sheet's own: along each way it either keeps the
// margin or is as large as the sheet.
func factory(p nest.Part, st nest.Stock, margin float64) (turned, ok bool) {
	fits := func(size, sheet float64) bool {
		return size <= sheet-2*margin+1e-6 || math.Abs(size-sheet) <= factorySlack
	}
	switch {
	case fits(p.W, st.W) && fits(p.H, st.H):
		return false, true
	case p.Turn && fits(p.H, st.W) && fits(p.W, st.H):
		return true, true
	}
	return false, false
}

// straight reports whether a part fits a sheet within its margins.
func straight(p nest.Part, st nest.Stock, margin float64) bool {
	w, h := st.W-2*margin+1e-6, st.H-2*margin+1e-6
	return p.W <= w && p.H <= h || p.Turn && p.H <= w && p.W <= h
}

// onFactoryEdges lays the parts that are exactly as large as their sheet one a
// sheet, against its factory edges, and says which they are.
func (set Set) onFactoryEdges(s *Sheets, done map[int]bool) {
	margin := set.Margin
	st := s.stocks[len(s.stocks)-1] // a new sheet
	for i, p := range s.Boxes {
		if done[i] || straight(p, st, margin) {
			continue
		}
		turned, ok := factory(p, st, margin)
		if !ok {
			continue
		}
		done[i] = true
		at := func(size, sheet float64) float64 {
			if math.Abs(size-sheet) <= factorySlack {
				return 0
			}
			return margin
		}
		bw, bh := p.W, p.H
		if turned {
			bw, bh = bh, bw
		}
		x, y := at(bw, st.W), at(bh, st.H)
		sh := nest.Sheet{Stock: st, Placed: []nest.Placed{{Part: i, X: x, Y: y, Turned: turned}}}
		if rest := st.H - y - bh - set.Kerf; rest > 0 {
			sh.Offcuts = append(sh.Offcuts, nest.Rect{X: 0, Y: st.H - rest, W: st.W, H: rest})
		}
		if rest := st.W - x - bw - set.Kerf; rest > 0 {
			sh.Offcuts = append(sh.Offcuts, nest.Rect{X: st.W - rest, Y: 0, W: rest, H: st.H})
		}
		s.own = append(s.own, sh)
	}
}

// Aslant turns a panel that fits its sheet neither way by the least angle at
// which it does, where its stock has no grain that minds. It is false when no
// angle does.
func Aslant(p pattern.Panel, m stock.Material, margin float64) (pattern.Panel, float64, bool) {
	if m.Form != "sheet" || p.Round > 0 || m.Grain != "" && p.Grain != "" {
		return p, 0, false
	}
	long, short := math.Max(m.Sheet[0].Value(), m.Sheet[1].Value())-2*margin, math.Min(
		m.Sheet[0].Value(),
		m.Sheet[1].Value(),
	)-2*margin
	fits := func(deg float64) bool {
		sn, cs := math.Sincos(deg * math.Pi / 180)
		lo, hi := pattern.Point{X: math.Inf(1), Y: math.Inf(1)}, pattern.Point{X: math.Inf(-1), Y: math.Inf(-1)}
		for _, ring := range [][]pattern.Point{p.Outline, p.Inside} {
			for _, q := range ring {
				x, y := q.X*cs-q.Y*sn, q.X*sn+q.Y*cs
				lo.X, lo.Y, hi.X, hi.Y = math.Min(lo.X, x), math.Min(lo.Y, y), math.Max(hi.X, x), math.Max(hi.Y, y)
			}
		}
		w, h := hi.X-lo.X, hi.Y-lo.Y
		return math.Max(w, h) <= long+1e-6 && math.Min(w, h) <= short+1e-6
	}
	if fits(0) {
		return p, 0, false
	}
	for half := 1; half < 180; half++ {
		for _, deg := range []float64{float64(half) / 2, -float64(half) / 2} {
			if fits(deg) {
				return p.Turned(deg), deg, true
			}
		}
	}
	return p, 0, false
}

// SlantNote says how a part that lies aslant is to be read.
func SlantNote(deg float64) string {
	way := "left"
	if deg < 0 {
		way = "right"
	}
	return "Drawn as it lies on its sheet, turned by " + measure.Degrees(
		math.Abs(deg),
	) + ": its top points to the " + way + " of up by that much."
}
