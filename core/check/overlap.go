package check

import (
	"fmt"
	"math"

	"zapbarn/core/measure"
	"zapbarn/core/pattern"
	"zapbarn/core/plan"
	"zapbarn/core/work"
)

// bite is how deep two parts may run into each other and still be called touching, mm.
const bite = 3.0

var _ = rule(
	"overlap",
	Mind,
	"Two solids take up the same room.",
	func(w *work.Work, say func(Snag)) {
		for _, p := range w.Plan.Props {
			solids := solidsOf(w, p.ID)
			for k, a := range solids {
				for _, b := range solids[k+1:] {
					deep, ok := bitten(w, a, b)
					if !ok || a.By == b.ID || b.By == a.ID || b.How == "in" || a.How == "in" {
						continue
					}
					snag := Snag{
						Level:  Mind,
						Place:  "bench",
						At:     []string{"solid:" + b.ID, "solid:" + a.ID},
						key:    a.ID + "+" + b.ID,
						weight: deep.Z,
						Title:  fmt.Sprintf("%s and %s take up the same room", a.Name, b.Name),
						Why: fmt.Sprintf(
							"Their parts run %s into each other. Move one, cut it out, or say that it stands in "+
								"the other.",
							w.Len(math.Min(deep.X, math.Min(deep.Y, deep.Z))),
						),
					}
					snag.Mends = parted(w, b, a)
					say(snag)
				}
			}
		}
	},
)

// solidsOf are a prop's solids that have a shape.
func solidsOf(w *work.Work, prop string) (out []*plan.Solid) {
	for i := range w.Plan.Solids {
		if s := &w.Plan.Solids[i]; s.Prop == prop && w.Shapes[s.ID] != nil {
			out = append(out, s)
		}
	}
	return out
}

// bitten is how far flat parts of two solids run into each other, each way. What is
// round or hollow is not judged: its box says nothing of it.
func bitten(w *work.Work, a, b *plan.Solid) (deep pattern.Vec, ok bool) {
	for _, p := range w.Shapes[a.ID].Bodies {
		for _, q := range w.Shapes[b.ID].Bodies {
			if round(p) || round(q) {
				continue
			}
			d := common(boxOf(p, a), boxOf(q, b))
			if d.X > bite && d.Y > bite && d.Z > bite && d.X*d.Y*d.Z > deep.X*deep.Y*deep.Z {
				deep, ok = d, true
			}
		}
	}
	return deep, ok
}

// round is true of a body that does not fill its box, or nearly.
func round(b pattern.Body) bool {
	lo, hi := b.Bounds()
	full := (hi.X - lo.X) * (hi.Y - lo.Y) * (hi.Z - lo.Z)
	return full <= 0 || b.Filled() < 0.9*full
}

// boxOf is a body's box where its solid stands.
func boxOf(b pattern.Body, s *plan.Solid) (box [2]pattern.Vec) {
	lo, hi := b.Bounds()
	x, y, z := s.X.Value(), s.Y.Value(), s.Z.Value()
	return [2]pattern.Vec{{X: lo.X + x, Y: lo.Y + y, Z: lo.Z + z}, {X: hi.X + x, Y: hi.Y + y, Z: hi.Z + z}}
}

// common is how far two boxes run into each other, each way; less than nothing where
// they do not.
func common(a, b [2]pattern.Vec) pattern.Vec {
	return pattern.Vec{
		X: math.Min(a[1].X, b[1].X) - math.Max(a[0].X, b[0].X),
		Y: math.Min(a[1].Y, b[1].Y) - math.Max(a[0].Y, b[0].Y),
		Z: math.Min(a[1].Z, b[1].Z) - math.Max(a[0].Z, b[0].Z),
	}
}

// parted moves one solid beside another, or onto it.
func parted(w *work.Work, s, by *plan.Solid) (out []Mend) {
	a, b := w.Shapes[s.ID].Size, w.Shapes[by.ID].Size
	free := *s
	free.By, free.How, free.ByAt = "", "", measure.Length{}
	beside, on := free, free
	beside.X = tape(w, by.X.Value()+(a.X+b.X)/2)
	on.Z = tape(w, by.Z.Value()+b.Z)
	out = append(out, put(w, "Stand "+s.Name+" beside "+by.Name, "solid", s.ID, beside))
	if on.Z.Value() > s.Z.Value() {
		out = append(out, put(w, "Stand "+s.Name+" on "+by.Name, "solid", s.ID, on))
	}
	return out
}
