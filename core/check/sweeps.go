package check

import (
	"fmt"
	"math"
	"slices"

	"zapbarn/core/measure"
	"zapbarn/core/pattern"
	"zapbarn/core/plan"
	"zapbarn/core/source"
	"zapbarn/core/wiring"
	"zapbarn/core/work"
)

// spare is how much room is left about a moving load, mm (common practice, no source).
const spare = 10.0

// fineness is how far a load's tip moves at most from one looked-at place to the next, mm.
const fineness = 2.0

// swept are the lines from its hinge to its tip that a load takes up over its travel, in
// its prop's front view, mm; none where its hinge's place or its tip is not known.
func swept(m *work.Moved) (out [][2]pattern.Point) {
	if len(m.Rows) == 0 || !m.Is.Turns() || m.Of.Kind == "turntable" || m.Of.X.IsZero() && m.Of.Z.IsZero() ||
		m.Is.Tip == 0 {
		return nil
	}
	hinge := pattern.Point{X: m.Of.X.Value(), Y: m.Of.Z.Value()}
	line := func(angle float64) [2]pattern.Point {
		sin, cos := math.Sincos(angle)
		return [2]pattern.Point{hinge, {X: hinge.X + m.Is.Tip*1000*cos, Y: hinge.Y + m.Is.Tip*1000*sin}}
	}
	for k, r := range m.Rows {
		if k > 0 {
			from := m.Rows[k-1].Place.Angle
			turn := r.Place.Angle - from
			parts := min(maxParts, math.Ceil(math.Abs(turn)*m.Is.Tip*1000/fineness))
			for i := 1.0; i < parts; i++ {
				out = append(out, line(from+turn*i/parts))
			}
		}
		out = append(out, line(r.Place.Angle))
	}
	return out
}

// maxParts is into how many parts a step of the travel is cut at most.
const maxParts = 64

var _ = mover("sweeps-into", Fix, "A moving load meets a part of its prop, or a cable, on its way.",
	func(w *work.Work, m *work.Moved, say func(Snag)) {
		lines := swept(m)
		if lines == nil {
			return
		}
		depth := [2]float64{0, 0} // where the load lies, from front to back
		if s, shape := w.Solid(m.Of.Carries), w.Shapes()[m.Of.Carries]; s != nil && shape != nil {
			depth = [2]float64{s.Y.Value() - shape.Size.Y/2, s.Y.Value() + shape.Size.Y/2}
		}
		for i := range w.Plan.Solids() {
			s := &w.Plan.Solids()[i]
			shape := w.Shapes()[s.ID]
			if s.Prop != m.Of.Prop || shape == nil || s.ID == m.Of.Carries {
				continue
			}
			if depth[1] > depth[0] && (s.Y.Value()-shape.Size.Y/2 >= depth[1]-1e-6 ||
				s.Y.Value()+shape.Size.Y/2 <= depth[0]+1e-6) {
				continue // before or behind it
			}
			lo := pattern.Point{X: s.X.Value() - shape.Size.X/2, Y: s.Z.Value()}
			hi := pattern.Point{X: s.X.Value() + shape.Size.X/2, Y: s.Z.Value() + shape.Size.Z}
			at, ok := meets(lines, func(l [2]pattern.Point, room float64) bool {
				return enters(l[0], l[1], grown(lo, -room), grown(hi, room))
			})
			if !ok {
				continue
			}
			say(Snag{At: []string{"solid:" + s.ID}, key: "mechanism:" + m.Of.ID + "/" + s.ID,
				Title: m.Of.Name + " meets " + measure.Uncapital(s.Name),
				Why: fmt.Sprintf(
					"At %d %% of its travel the line from its hinge to its tip comes within %s of it, or through it, seen "+
						"from the front. Move one of them, or shorten the travel.",
					at, w.Len(spare),
				),
				From: []source.Source{source.FromTrade("10 mm of room about what moves")}})
		}
		cables(w, m, lines, say)
	})

func grown(p pattern.Point, by float64) pattern.Point { return pattern.Point{X: p.X + by, Y: p.Y + by} }

// meets is at how many per cent of its travel a load first comes too near to something. near
// is whether a line comes within some room of it, mm; less than none is that far inside.
//
// What it is near all along is beside its hinge: of that only what it runs into counts. What it
// is near at an end of its travel is what it rests on, as a lid on its box: that counts when it
// goes deeper into it than the room wanted, or out again on the other side.
func meets(lines [][2]pattern.Point, near func(l [2]pattern.Point, room float64) bool) (at int, ok bool) {
	n := len(lines)
	close, inside, deep := make([]bool, n), make([]bool, n), make([]bool, n)
	closes, insides := 0, 0
	for k, l := range lines {
		if close[k] = near(l, spare); close[k] {
			closes++
			inside[k], deep[k] = near(l, -1), near(l, -spare)
		}
		if inside[k] {
			insides++
		}
	}
	if insides == n || closes == 0 {
		return 0, false
	}
	if closes == n {
		close = inside
	}
	for k := 0; k < n; {
		if !close[k] {
			k++
			continue
		}
		end := k
		for end < n && close[end] {
			end++
		}
		if k > 0 && end < n || through(inside, deep, k, end) {
			return int(math.Round(100 * float64(k) / float64(n-1))), true
		}
		k = end
	}
	return 0, false
}

// through is whether a load that rests near something, from one line to before another at an
// end of its travel, goes deep into it or out of it again.
func through(inside, deep []bool, from, end int) bool {
	in, out := slices.Clone(inside[from:end]), false
	if from == 0 { // it comes out of its rest: looked at backwards, it goes in
		slices.Reverse(in)
	}
	if at := slices.Index(in, true); at >= 0 {
		out = slices.Contains(in[at:], false)
	}
	return out || slices.Contains(deep[from:end], true)
}

// enters is whether a line goes through a box (Liang and Barsky's clipping).
func enters(a, b, lo, hi pattern.Point) bool {
	if hi.X <= lo.X || hi.Y <= lo.Y {
		return false
	}
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

// apart is how far two lines are from each other, 0 where they cross.
func apart(a, b [2]pattern.Point) float64 {
	side := func(p, q, r pattern.Point) float64 { return (q.X-p.X)*(r.Y-p.Y) - (q.Y-p.Y)*(r.X-p.X) }
	if side(a[0], a[1], b[0])*side(a[0], a[1], b[1]) < 0 && side(b[0], b[1], a[0])*side(b[0], b[1], a[1]) < 0 {
		return 0
	}
	to := func(p pattern.Point, l [2]pattern.Point) float64 {
		dx, dy := l[1].X-l[0].X, l[1].Y-l[0].Y
		f := 0.0
		if long := dx*dx + dy*dy; long > 0 {
			f = math.Max(0, math.Min(1, ((p.X-l[0].X)*dx+(p.Y-l[0].Y)*dy)/long))
		}
		return math.Hypot(p.X-l[0].X-f*dx, p.Y-l[0].Y-f*dy)
	}
	return min(to(a[0], b), to(a[1], b), to(b[0], a), to(b[1], a))
}

// cables are the wires whose paths a load sweeps over.
func cables(w *work.Work, m *work.Moved, lines [][2]pattern.Point, say func(Snag)) {
	for i := range w.Plan.Devices() {
		d := &w.Plan.Devices()[i]
		if d.Prop != m.Of.Prop || d.Path == "" {
			continue
		}
		corners, err := wiring.ParsePath(d.Path, w.Plan.Metric())
		if err != nil {
			continue
		}
		for k := 1; k < len(corners); k++ {
			a, b := corners[k-1], corners[k]
			wire := [2]pattern.Point{{X: a[0], Y: a[2]}, {X: b[0], Y: b[2]}}
			at, ok := meets(lines, func(l [2]pattern.Point, room float64) bool { return apart(l, wire) < max(room, 1) })
			if !ok {
				continue
			}
			say(Snag{At: []string{"device:" + d.ID}, key: "mechanism:" + m.Of.ID + "/" + d.ID,
				Title: m.Of.Name + " sweeps over " + measure.Uncapital(d.Name),
				Why: fmt.Sprintf(
					"At %d %% of its travel it crosses the wire's path, seen from the front: it is caught or worn "+
						"through. Lead the wire past the hinge, tied down, with a loop that moves.",
					at,
				)})
			break
		}
	}
}

var _ = rule("larger-than-room", Fix, "A body is larger than the room or the bench it is built on.",
	func(w *work.Work, say func(Snag)) {
		d := w.Plan.Display()
		for i := range w.Plan.Solids() {
			s := &w.Plan.Solids()[i]
			shape := w.Shapes()[s.ID]
			if shape == nil || plan.StageNamed(w.Plan.Prop(s.Prop).Stage) >= plan.Standing {
				continue
			}
			x := work.Piece{Size: sorted3(w.Largest(s))}
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
	})

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
