package nest

import "math"

// skyline packs the blocks sheet by sheet into the lowest gap of the outline
// of what is already laid: of the blocks that fit the gap, the first in order
// that fills its width exactly, else the widest but for pick's tolerance, else
// the first in order (after the best-fit rule of Burke, Kendall and Whitwell
// 2004, with the order left to a search). Along swaps the sheet's sides. Cost
// grows with blocks squared, with small constants.
func skyline(order []block, parts []Part, stocks []Stock, o Options, along bool, pick int) Layout {
	type step struct{ x, w, y float64 }
	var l Layout
	left := make([]int, len(stocks))
	for i, s := range stocks {
		left[i] = s.Left
	}
	waiting := make([]int, len(order))
	for i := range waiting {
		waiting[i] = i
	}
	for k := 0; k < len(stocks) && len(waiting) > 0; k++ {
		st := stocks[k]
		W, H := st.W-2*o.Margin+o.Kerf, st.H-2*o.Margin+o.Kerf
		if along {
			W, H = H, W
		}
		for left[k] != 0 && len(waiting) > 0 {
			sheet := Sheet{Stock: st}
			far := Rect{}
			sky := []step{{0, W, 0}}
			placed := false
			for {
				// the lowest, then leftmost gap
				g := -1
				for i := range sky {
					if g < 0 || sky[i].y < sky[g].y-1e-9 {
						g = i
					}
				}
				if sky[g].y >= H-1e-6 {
					break
				}
				best, bw, bh, turned, score := -1, 0.0, 0.0, false, math.Inf(1)
				for n, i := range waiting {
					b := &order[i]
					for t := range 2 {
						w, h := b.w+o.Kerf, b.h+o.Kerf
						if along {
							w, h = h, w
						}
						if t == 1 {
							if !b.turn || math.Abs(b.w-b.h) < 1e-9 {
								break
							}
							w, h = h, w
						}
						if w > sky[g].w+1e-6 || sky[g].y+h > H+1e-6 {
							continue
						}
						spare := sky[g].w - w
						s := spare
						switch {
						case spare < 1e-6:
							s = -1e6 + float64(n)*1e-3
							// flush with a neighbour as well: no step is left
							if g > 0 && math.Abs(sky[g-1].y-sky[g].y-h) < 1e-6 ||
								g+1 < len(sky) && math.Abs(sky[g+1].y-sky[g].y-h) < 1e-6 {
								s -= 1e5
							}
						case pick == 1: // the first in order
							s = float64(n)
						case pick == 2: // the first in order, unless it wastes the gap
							s = float64(n) + 40*spare/W
						}
						if s < score {
							best, bw, bh, turned, score = n, w, h, t == 1, s
						}
					}
					if best >= 0 && pick == 1 && score > -1e5 && n > 60 {
						break
					}
				}
				if best < 0 { // nothing fits: up to the lower neighbour
					lo := math.Inf(1)
					if g > 0 {
						lo = sky[g-1].y
					}
					if g+1 < len(sky) {
						lo = math.Min(lo, sky[g+1].y)
					}
					if math.IsInf(lo, 1) {
						break
					}
					sky[g].y = lo
					sky = flush(sky, func(a, b *step) bool { return math.Abs(a.y-b.y) < 1e-6 }, func(a, b *step) { a.w += b.w })
					continue
				}
				i := waiting[best]
				waiting = append(waiting[:best:best], waiting[best+1:]...)
				x, y := sky[g].x, sky[g].y
				// against the taller neighbour
				lh, rh := math.Inf(1), math.Inf(1)
				if g > 0 {
					lh = sky[g-1].y
				}
				if g+1 < len(sky) {
					rh = sky[g+1].y
				}
				atLeft := lh >= rh
				if !atLeft {
					x += sky[g].w - bw
				}
				next := append([]step(nil), sky[:g]...)
				if !atLeft && sky[g].w-bw > 1e-6 {
					next = append(next, step{sky[g].x, sky[g].w - bw, y})
				}
				next = append(next, step{x, bw, y + bh})
				if atLeft && sky[g].w-bw > 1e-6 {
					next = append(next, step{x + bw, sky[g].w - bw, y})
				}
				sky = flush(
					append(next, sky[g+1:]...),
					func(a, b *step) bool { return math.Abs(a.y-b.y) < 1e-6 },
					func(a, b *step) { a.w += b.w },
				)
				placed = true
				px, py := o.Margin+x, o.Margin+y
				if along {
					px, py = o.Margin+y, o.Margin+x
				}
				w, h := order[i].w, order[i].h
				if turned {
					w, h = h, w
				}
				for _, p := range order[i].parts {
					q := Placed{Part: p.Part, X: px + p.X, Y: py + p.Y, Turned: turned, Flip: p.Flip}
					if turned {
						q.X, q.Y = px+p.Y, py+p.X
					}
					sheet.Placed = append(sheet.Placed, q)
				}
				far.W, far.H = math.Max(far.W, px+w), math.Max(far.H, py+h)
			}
			if !placed {
				break // no block fits this stock
			}
			left[k]--
			sheet.Offcuts = []Rect{{0, 0, st.W, far.H}}
			if far.W*st.H < far.H*st.W {
				sheet.Offcuts[0] = Rect{0, 0, far.W, st.H}
			}
			l.Sheets = append(l.Sheets, sheet)
		}
	}
	for _, i := range waiting {
		for _, p := range order[i].parts {
			l.Missing = append(l.Missing, p.Part)
		}
	}
	return l
}

// flush joins neighbours that belong together.
func flush[T any](list []T, same func(a, b *T) bool, join func(a, b *T)) []T {
	out := list[:0]
	for i := range list {
		if n := len(out); n > 0 && same(&out[n-1], &list[i]) {
			join(&out[n-1], &list[i])
			continue
		}
		out = append(out, list[i])
	}
	return out
}
