package check

import (
	"fmt"
	"math"

	"zapbarn/core/measure"
	"zapbarn/core/pattern"
	"zapbarn/core/plan"
	"zapbarn/core/source"
	"zapbarn/core/wiring"
	"zapbarn/core/work"
)

// spare is how much room is left about a moving load, mm (common practice, no source).
const spare = 10.0

// swept are the lines from its hinge to its tip that a load takes up over its travel, in
// its prop's front view, mm; none where its hinge's place or its tip is not known.
func swept(m *work.Moved) (out [][2]pattern.Point) {
	if len(m.Rows) == 0 || !m.Is.Turns() || m.Of.Kind == "turntable" || m.Of.X.IsZero() && m.Of.Z.IsZero() ||
		m.Is.Tip == 0 {
		return nil
	}
	hinge := pattern.Point{X: m.Of.X.Value(), Y: m.Of.Z.Value()}
	for _, r := range m.Rows {
		out = append(out, [2]pattern.Point{hinge, {X: hinge.X + r.Tip.X*1000, Y: hinge.Y + r.Tip.Y*1000}})
	}
	return out
}

var _ = mover("sweeps-into", Fix, "A moving load meets a part of its prop, or a cable, on its way.",
	func(w *work.Work, m *work.Moved, say func(Snag)) {
		lines := swept(m)
		if lines == nil {
			return
		}
		depth := [2]float64{0, 0} // where the load lies, from front to back
		if s, shape := w.Solid(m.Of.Carries), w.Shapes[m.Of.Carries]; s != nil && shape != nil {
			depth = [2]float64{s.Y.Value() - shape.Size.Y/2, s.Y.Value() + shape.Size.Y/2}
		}
		for i := range w.Plan.Solids {
			s := &w.Plan.Solids[i]
			shape := w.Shapes[s.ID]
			if s.Prop != m.Of.Prop || shape == nil || s.ID == m.Of.Carries {
				continue
			}
			if s.Y.Value()-shape.Size.Y/2 > depth[1]-1 && depth[1] > depth[0] ||
				s.Y.Value()+shape.Size.Y/2 < depth[0]+1 &&
					depth[1] > depth[0] {
				continue // before or behind it
			}
			lo := pattern.Point{X: s.X.Value() - shape.Size.X/2 + spare, Y: s.Z.Value() + spare}
			hi := pattern.Point{X: s.X.Value() + shape.Size.X/2 - spare, Y: s.Z.Value() + shape.Size.Z - spare}
			meets(m, lines, lo, hi, func(at int) {
				say(Snag{At: []string{"solid:" + s.ID}, key: "mechanism:" + m.Of.ID + "/" + s.ID,
					Title: m.Of.Name + " meets " + measure.Uncapital(s.Name),
					Why: fmt.Sprintf(
						"At %d %% of its travel the line from its hinge to its tip runs through it, seen from the "+
							"front. Move one of them, or shorten the travel.",
						at,
					),
					From: []source.Source{source.FromTrade("10 mm of room about what moves")}})
			})
		}
		cables(w, m, lines, say)
	})

// meets tells at how many per cent of its travel a load first enters a box that it is not
// in all along.
func meets(m *work.Moved, lines [][2]pattern.Point, lo, hi pattern.Point, tell func(at int)) {
	if hi.X <= lo.X || hi.Y <= lo.Y {
		return
	}
	first, count := -1, 0
	for k, l := range lines {
		if enters(l[0], l[1], lo, hi) {
			if count++; first < 0 {
				first = k
			}
		}
	}
	if count > 0 && count < len(lines) {
		tell(int(math.Round(100 * float64(first) / float64(len(lines)-1))))
	}
}

// enters is whether a line goes through a box (Liang and Barsky's clipping).
func enters(a, b, lo, hi pattern.Point) bool {
	t0, t1 := 0.0, 1.0
	for _, e := range [4][2]float64{{a.X - b.X, a.X - lo.X}, {b.X - a.X, hi.X - a.X}, {a.Y - b.Y, a.Y - lo.Y},
		{b.Y - a.Y, hi.Y - a.Y}} {
		p, q := e[0], e[1]
		switch {
		case p == 0 && q < 0:
			return false
		case p < 0:
			t0 = math.Max(t0, q/p)
		case p > 0:
			t1 = math.Min(t1, q/p)
		}
	}
	return t0 < t1
}

// cables are the wires whose paths a load sweeps over.
func cables(w *work.Work, m *work.Moved, lines [][2]pattern.Point, say func(Snag)) {
	for i := range w.Plan.Devices {
		d := &w.Plan.Devices[i]
		if d.Prop != m.Of.Prop || d.Path == "" {
			continue
		}
		corners, err := wiring.ParsePath(d.Path, w.Plan.Metric())
		if err != nil {
			continue
		}
		for k := 1; k < len(corners); k++ {
			a, b := corners[k-1], corners[k]
			lo := pattern.Point{X: math.Min(a[0], b[0]) - spare/2, Y: math.Min(a[2], b[2]) - spare/2}
			hi := pattern.Point{X: math.Max(a[0], b[0]) + spare/2, Y: math.Max(a[2], b[2]) + spare/2}
			hit := false
			meets(m, lines, lo, hi, func(at int) {
				hit = true
				say(Snag{At: []string{"device:" + d.ID}, key: "mechanism:" + m.Of.ID + "/" + d.ID,
					Title: m.Of.Name + " sweeps over " + measure.Uncapital(d.Name),
					Why: fmt.Sprintf(
						"At %d %% of its travel it crosses the wire's path, seen from the front: it is caught or worn "+
							"through. Lead the wire past the hinge, tied down, with a loop that moves.",
						at,
					)})
			})
			if hit {
				break
			}
		}
	}
}

var _ = rule("larger-than-room", Fix, "A body is larger than the room or the bench it is built on.",
	func(w *work.Work, say func(Snag)) {
		d := w.Plan.Display
		for i := range w.Plan.Solids {
			s := &w.Plan.Solids[i]
			shape := w.Shapes[s.ID]
			if shape == nil || plan.StageNamed(w.Plan.Prop(s.Prop).Stage) >= plan.Standing {
				continue
			}
			x := work.Piece{Size: sorted3(shape.Size)}
			what, helps, level := "", "", Fix
			switch {
			case !d.RoomLong.IsZero() && !d.RoomWide.IsZero() && !d.RoomHigh.IsZero() &&
				!x.Into(d.RoomLong.Value(), d.RoomWide.Value(), d.RoomHigh.Value()):
				what, helps = "the room", "Build it where it stands, under a roof, or in two that are joined there."
			case !d.BenchLong.IsZero() && x.Size[0] > d.BenchLong.Value()+300:
				what, helps, level = "the bench", "Hang it from the ceiling, lay it on trestles, or build it where it stands.", Mind
			default:
				continue
			}
			say(
				Snag{
					Level: level,
					Place: "bench",
					At:    []string{"solid:" + s.ID},
					Title: s.Name + does(s.Name, " is", " are") + " larger than " + what,
					Why: fmt.Sprintf(
						"It is %s x %s x %s. %s",
						w.Run(x.Size[0]),
						w.Run(x.Size[1]),
						w.Run(x.Size[2]),
						helps,
					),
				},
			)
		}
	}, work.Cut)

// sorted3 is a size with its longest side first.
func sorted3(v pattern.Vec) [3]float64 {
	s := [3]float64{v.X, v.Y, v.Z}
	for i := range s {
		for k := i + 1; k < 3; k++ {
			if s[k] > s[i] {
				s[i], s[k] = s[k], s[i]
			}
		}
	}
	return s
}
