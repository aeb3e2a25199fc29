package check

import (
	"math"
	"testing"

	"zapbarn/core/form"
	"zapbarn/core/measure"
	"zapbarn/core/motion"
	"zapbarn/core/pattern"
	"zapbarn/core/plan"
	"zapbarn/core/work"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"
)

// A line goes through a box or not, against small steps along it.
func TestEntersByBruteForce(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		num := func(n string) float64 { return rapid.Float64Range(-10, 10).Draw(t, n) }
		a, b := pattern.Point{X: num("ax"), Y: num("ay")}, pattern.Point{X: num("bx"), Y: num("by")}
		lo := pattern.Point{X: num("x"), Y: num("y")}
		hi := pattern.Point{X: lo.X + 3, Y: lo.Y + 2}
		inside, near := false, false
		for k := 0; k <= 4000; k++ {
			f := float64(k) / 4000
			x, y := a.X+f*(b.X-a.X), a.Y+f*(b.Y-a.Y)
			inside = inside || x > lo.X+.02 && x < hi.X-.02 && y > lo.Y+.02 && y < hi.Y-.02
			near = near || x > lo.X-.02 && x < hi.X+.02 && y > lo.Y-.02 && y < hi.Y+.02
		}
		if inside == near && enters(a, b, lo, hi) != inside {
			t.Fatalf("enters %v: %v %v in %v %v", !inside, a, b, lo, hi)
		}
	})
}

// Whatever comes within the room wanted half way is seen, however thin it is and however little
// of it lies in the circle; what keeps clear of it is not. Against points along the arm.
func TestWhatComesNearHalfWayIsSeen(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		num := func(n string, lo, hi float64) float64 { return rapid.Float64Range(lo, hi).Draw(t, n) }
		long, from := num("long", 60, 900), num("from", -4, 4)
		turn := num("turn", .2, 3) * float64(rapid.SampledFrom([]int{-1, 1}).Draw(t, "way"))
		m := &work.Moved{Of: &plan.Mechanism{Kind: "lid", X: measure.Len("1000 mm"), Z: measure.Len("1000 mm")}}
		m.Is.Way, m.Is.Tip = motion.Direct{}, long/1000
		for k := range motion.Steps + 1 {
			m.Rows = append(m.Rows, motion.Row{Place: motion.Place{Angle: from + turn*float64(k)/motion.Steps}})
		}
		at, r := num("at", 0, 7), num("r", .2, 1.1)*long
		lo := pattern.Point{X: 1000 + r*math.Cos(at), Y: 1000 + r*math.Sin(at)}
		hi := pattern.Point{X: lo.X + num("wide", 1, 80), Y: lo.Y + num("high", 1, 80)}
		gap := func(angle float64) float64 { // of the arm at an angle from the box, by points along it
			least := math.Inf(1)
			for k := range 401 {
				x, y := 1000+long*float64(k)/400*math.Cos(angle), 1000+long*float64(k)/400*math.Sin(angle)
				dx := math.Max(0, math.Max(lo.X-x, x-hi.X))
				dy := math.Max(0, math.Max(lo.Y-y, y-hi.Y))
				least = math.Min(least, math.Hypot(dx, dy))
			}
			return least
		}
		least := math.Inf(1)
		for k := range 301 {
			least = math.Min(least, gap(from+turn*float64(k)/300))
		}
		_, seen := meets(swept(m), func(l [2]pattern.Point, room float64) bool {
			return enters(l[0], l[1], grown(lo, -room), grown(hi, room))
		})
		switch {
		case least > 1.5*spare && seen:
			t.Fatalf("seen, and %.1f mm off", least)
		case least < .8*spare && gap(from) > 1.5*spare && gap(from+turn) > 1.5*spare && !seen:
			t.Fatalf("not seen, and %.1f mm off", least)
		}
	})
}

// Two lines against points along both.
func TestApartByBruteForce(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		num := func(n string) float64 { return rapid.Float64Range(-10, 10).Draw(t, n) }
		a := [2]pattern.Point{{X: num("ax"), Y: num("ay")}, {X: num("bx"), Y: num("by")}}
		b := [2]pattern.Point{{X: num("cx"), Y: num("cy")}, {X: num("dx"), Y: num("dy")}}
		least := math.Inf(1)
		for i := range 301 {
			for k := range 301 {
				f, g := float64(i)/300, float64(k)/300
				least = math.Min(least, math.Hypot(a[0].X+f*(a[1].X-a[0].X)-b[0].X-g*(b[1].X-b[0].X),
					a[0].Y+f*(a[1].Y-a[0].Y)-b[0].Y-g*(b[1].Y-b[0].Y)))
			}
		}
		if got := apart(a, b); got > least+1e-9 || got < least-.1 {
			t.Fatalf("%.3f apart, not %.3f", got, least)
		}
	})
}

// A post beside the sweep, before it or behind it is none of its business; a wire over which
// it goes is.
func TestWhatIsSwept(t *testing.T) {
	has := func(code string, spoil func(p *plan.Plan, m *plan.Mechanism)) bool {
		p := clean()
		lifted(func(p *plan.Plan, m *plan.Mechanism) {
			m.X, m.Z = measure.Len("0 in"), measure.Len("4 in")
			spoil(p, m)
		})(p)
		return find(snags(t, p), code, "") != nil
	}
	assert.False(t, has("sweeps-into", func(*plan.Plan, *plan.Mechanism) {}), "nothing in its way")
	wire := func(path string) func(p *plan.Plan, m *plan.Mechanism) {
		return func(p *plan.Plan, _ *plan.Mechanism) { p.Device("W1").Path = path }
	}
	assert.True(t, has("sweeps-into", wire("12,0,7 12,0,30")), "its tip comes by 7 in up there")
	assert.False(t, has("sweeps-into", wire("12,0,9 12,0,30")), "above all of it")
	assert.False(t, has("sweeps-into", wire("-12,0,0 -12,0,30")), "on the other side")
	board := func(x, z, w, h string) func(p *plan.Plan, m *plan.Mechanism) {
		return func(p *plan.Plan, _ *plan.Mechanism) {
			p.Doc().Solids = append(p.Solids(), plan.Solid{ID: "board", Prop: "a", Name: "Board", Kind: "panel", Stock: "ply1/4",
				X: measure.Len(x), Z: measure.Len(z), Form: form.Panel{W: measure.Len(w), H: measure.Len(h)}})
		}
	}
	assert.True(t, has("sweeps-into", board("16 in", "4.3 in", "6 in", "0.25 in")), "a thin shelf is in the way")
	assert.True(t, has("sweeps-into", board("14 in", "2 in", "0.25 in", "4 in")), "and so is a lath")
	assert.False(t, has("sweeps-into", board("14 in", "-20 in", "0.25 in", "4 in")), "far below")
}

// A lid rests on its box and does not meet it; one that goes on into it does, and one that
// comes through a lath just before it stops.
func TestWhatALidRestsOn(t *testing.T) {
	sweep := func(from, to float64) (out [][2]pattern.Point) {
		for k := range 1001 {
			a := (from + (to-from)*float64(k)/1000) * math.Pi / 180
			out = append(out, [2]pattern.Point{{}, {X: 600 * math.Cos(a), Y: 600 * math.Sin(a)}})
		}
		return out
	}
	seen := func(lines [][2]pattern.Point, lo, hi pattern.Point) bool {
		_, ok := meets(lines, func(l [2]pattern.Point, room float64) bool {
			return enters(l[0], l[1], grown(lo, -room), grown(hi, room))
		})
		return ok
	}
	pt := func(x, y float64) pattern.Point { return pattern.Point{X: x, Y: y} }
	assert.False(t, seen(sweep(0, 90), pt(0, -300), pt(600, 0)), "it lies on its box")
	assert.False(t, seen(sweep(90, 0), pt(0, -300), pt(600, 0)), "and comes down on it")
	assert.False(t, seen(sweep(0, 90), pt(0, -300), pt(600, 4)), "hinged 4 mm deep in it")
	assert.False(t, seen(sweep(-.5, 90), pt(0, -300), pt(600, 0)), "5 mm into it: as near as one measures")
	assert.True(t, seen(sweep(-2, 90), pt(0, -300), pt(600, 0)), "21 mm into it")
	assert.True(t, seen(sweep(90, -2), pt(0, -300), pt(600, 0)), "and on the way down")
	assert.True(t, seen(sweep(90, 0), pt(300, 3), pt(500, 7)), "through a lath, 3 mm before it stops")
	assert.True(t, seen(sweep(0, 90), pt(300, 3), pt(500, 7)), "and as it sets out")
	assert.False(t, seen(sweep(90, 1), pt(300, -1), pt(500, 4)), "it rests on a lath")
}
