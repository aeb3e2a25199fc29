package motion

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

// mirrored is a mechanism as a mirror beside it shows it: what went right goes left.
func mirrored(m Mechanism) Mechanism {
	m.From, m.To, m.Lean = math.Pi-m.From, math.Pi-m.To, -m.Lean
	switch w := m.Way.(type) {
	case FourBar:
		w.Pivot.X, w.Crossed = -w.Pivot.X, !w.Crossed
		m.Way = w
	case Slide:
		w.Aside = -w.Aside
		m.Way = w
	case Winch:
		m.From, m.To = math.Pi-m.From, math.Pi-m.To // a drum has no left and right
	}
	return m
}

// turned is a mechanism whose linkage is turned about the hinge, and its load turned back on
// it: the load is where it was.
func turned(m Mechanism, by float64) Mechanism {
	w := m.Way.(FourBar)
	r, a := math.Hypot(w.Pivot.X, w.Pivot.Y), math.Atan2(w.Pivot.Y, w.Pivot.X)
	w.Pivot = polar(Pt{}, r, a+by)
	m.Way, m.From, m.To, m.Lean = w, m.From+by, m.To+by, m.Lean-by
	return m
}

// anyMechanism draws a mechanism of every way.
func anyMechanism(t *rapid.T) Mechanism {
	d := func(n string, lo, hi float64) float64 { return rapid.Float64Range(lo, hi).Draw(t, n) }
	m := Mechanism{From: d("from", -4, 4), Load: Load{Mass: d("mass", .1, 20), Reach: d("reach", .05, .6),
		Lean: d("lean", -3, 3), Tip: d("tip", .1, 1), Friction: d("rub", 0, .4), Spring: d("spring", 0, 20),
		Counter: d("counter", 0, 5), CounterAt: d("out", 0, .5), Wind: d("wind", 0, 30)}}
	m.To = m.From + d("span", .3, 4)*float64(rapid.SampledFrom([]int{-1, 1}).Draw(t, "way"))
	switch rapid.SampledFrom([]string{"bars", "bars", "slide", "winch", "table", "direct"}).Draw(t, "kind") {
	case "bars":
		m.Way = FourBar{Pivot: Pt{d("x", -.4, .4), d("y", -.4, .4)}, Crank: d("crank", .02, .2),
			Link: d("link", .05, .5), Arm: d("arm", .05, .4), Crossed: rapid.Bool().Draw(t, "crossed")}
	case "slide":
		m.Way = Slide{Crank: d("crank", .02, .1), Link: d("link", .2, .5), Aside: d("aside", -.05, .05)}
	case "winch":
		m.Way = Winch{d("drum", .01, .1)}
	case "table":
		m.Way = Turntable{}
	default:
		m.Way = Direct{}
	}
	return m
}

func sameRows(t *rapid.T, a, b Mechanism, why string) {
	one, err := a.Travel(Steps)
	two, err2 := b.Travel(Steps)
	require.Equal(t, err == nil, err2 == nil, why)
	if err != nil {
		return
	}
	scale := 1.0
	for _, r := range one {
		scale = math.Max(scale, math.Max(math.Abs(r.Up), math.Max(r.Speed, r.Inertia)))
	}
	for i := range one {
		require.InDelta(t, one[i].Up, two[i].Up, 1e-6*scale, "%s: torque at step %d", why, i)
		require.InDelta(t, one[i].Back, two[i].Back, 1e-6*scale, "%s: torque back at step %d", why, i)
		require.InDelta(t, one[i].Inertia, two[i].Inertia, 1e-6*scale, "%s: inertia at step %d", why, i)
		require.InDelta(t, one[i].Speed, two[i].Speed, 1e-6*scale, "%s: speed at step %d", why, i)
	}
}

// What opens to the left needs what opens to the right does, and a linkage turned about its
// hinge under the same load what it needed before: for every way a motor's turn reaches a load.
func TestMirrorAndRotationChangeNothing(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		m := anyMechanism(t)
		sameRows(t, m, mirrored(m), "mirrored")
		if _, ok := m.Way.(FourBar); ok {
			sameRows(t, m, turned(m, rapid.Float64Range(-7, 7).Draw(t, "by")), "turned")
		}
	})
}

// Work in is energy gained, whichever way a lid opens: the torque without friction summed over
// the shaft is the weight times the height (the principle of virtual work, whole).
func TestWorkInIsEnergyGained(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		m := anyMechanism(t)
		if _, ok := m.Way.(Turntable); ok {
			return
		}
		m.Friction, m.Spring, m.Counter, m.Wind = 0, 0, 0, 0
		rows, err := m.Travel(600)
		if err != nil {
			return
		}
		sum, most := 0.0, 0.0
		for i := 1; i < len(rows); i++ {
			sum += (rows[i].Up + rows[i-1].Up) / 2 * math.Abs(rows[i].Q-rows[i-1].Q)
			most = math.Max(most, math.Abs(rows[i].Up))
		}
		gained := m.Mass * Gravity * (rows[600].COM.Y - rows[0].COM.Y)
		if most > 50*math.Max(1, math.Abs(gained)) {
			return // near a dead point the torque is steeper than six hundred steps show
		}
		require.InDelta(t, gained, sum, .02*math.Max(1, math.Abs(gained))+.002*most)
	})
}

// A lid that lies level to the left and is lifted upright, by hand: 6 kg at 200 mm is 11.77 N m
// at its hinge; crank and arm are alike and parallel, so the shaft has all of it.
func TestALidThatStartsLevelToTheLeft(t *testing.T) {
	f := FourBar{Pivot: Pt{0, -.3}, Crank: .1, Link: .3, Arm: .1}
	for _, crossed := range []bool{false, true} {
		f.Crossed = crossed
		p, ok := f.Place(180 * deg)
		require.True(t, ok)
		if math.Abs(math.Abs(p.Angle)-math.Pi) > 1e-9 {
			continue // the pull arm lies the other way
		}
		m := Mechanism{Way: f, From: 180 * deg, To: 95 * deg, Load: Load{Mass: 6, Reach: .2, Tip: .4}}
		rows, err := m.Travel(Steps)
		require.NoError(t, err)
		assert.InDelta(t, 6*Gravity*.2, rows[0].Up, .01)
		assert.InDelta(t, 6*Gravity*.2, Peak(rows).Up, .01)
		return
	}
	t.Fatal("neither way lies level")
}

// An arm that goes all the way round and back to where it began has no end to fall to: the
// wind is against it all the way.
func TestAFullTurnOfTheArm(t *testing.T) {
	// a drag link: the ground is the shortest, both crank and arm go round
	f := FourBar{Pivot: Pt{-.05, 0}, Crank: .2, Link: .21, Arm: .22}
	require.True(t, f.FullTurn())
	for _, way := range []float64{1, -1} {
		m := Mechanism{Way: f, From: .3, To: .3 + way*2*math.Pi, Load: Load{Mass: 2, Reach: .2, Tip: .3, Wind: 10}}
		rows, err := m.Travel(Steps)
		require.NoError(t, err)
		assert.InDelta(t, 2*math.Pi, math.Abs(rows[Steps].Place.Angle-rows[0].Place.Angle), 1e-9)
		sum := 0.0
		for i := 1; i < len(rows); i++ {
			sum += (rows[i].Up + rows[i-1].Up) / 2 * math.Abs(rows[i].Q-rows[i-1].Q)
		}
		assert.InDelta(t, 10*.2*2*math.Pi, sum, .02, "the weight gives back what it took; the wind does not")
	}
}
