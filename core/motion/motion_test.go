package motion

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

const deg = math.Pi / 180

// A textbook's four-bar: crank 40, pull arm 120, rocker 80, ground 100 mm, the crank at
// 40 degrees: the rocker stands at 57.33 degrees, crossed at -98.01 (from memory). The
// book measures from the crank's shaft, with the rocker's pivot at (100, 0).
func TestFourBarOfATextbook(t *testing.T) {
	f := FourBar{Pivot: Pt{-100, 0}, Crank: 40, Link: 120, Arm: 80}
	p, ok := f.Place(40 * deg)
	require.True(t, ok)
	q, _ := FourBar{Pivot: f.Pivot, Crank: 40, Link: 120, Arm: 80, Crossed: true}.Place(40 * deg)
	got := []float64{p.Angle / deg, q.Angle / deg}
	assert.ElementsMatch(t, []float64{57, -98}, []float64{math.Round(math.Max(got[0], got[1])),
		math.Round(math.Min(got[0], got[1]))})
	assert.InDelta(t, 57.33, math.Max(got[0], got[1]), .01)
	assert.InDelta(t, -98.01, math.Min(got[0], got[1]), .01)
	assert.True(t, f.Grashof(), "40 + 120 <= 80 + 100")
	assert.True(t, f.FullTurn(), "the crank is shortest")
	assert.False(t, FourBar{Pivot: Pt{-100, 0}, Crank: 60, Link: 120, Arm: 70}.Grashof(), "60 + 120 > 170")
	assert.False(
		t,
		FourBar{Pivot: Pt{-100, 0}, Crank: 80, Link: 40, Arm: 90}.FullTurn(),
		"the link goes round, not the crank",
	)
}

// The loop always closes: every bar keeps its length.
func TestBarsKeepTheirLength(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		d := func(n string) float64 { return rapid.Float64Range(.02, .5).Draw(t, n) }
		f := FourBar{Pivot: Pt{d("x"), -d("y")}, Crank: d("r"), Link: d("l"), Arm: d("a"),
			Crossed: rapid.Bool().Draw(t, "crossed")}
		p, ok := f.Place(rapid.Float64Range(-7, 7).Draw(t, "q"))
		if !ok {
			return
		}
		require.InDelta(t, f.Crank, p.Joints[0].to(p.Joints[1]), 1e-9)
		require.InDelta(t, f.Link, p.Joints[1].to(p.Joints[2]), 1e-7)
		require.InDelta(t, f.Arm, p.Joints[2].to(p.Joints[3]), 1e-9)
	})
}

// The slider-crank's torque in closed form: T = F r (sin-and-cos of the link's angle);
// with q from the horizontal and the slide upright, dy/dq = r cos q + x r sin q / sqrt(l2-x2).
func TestSliderCrankForce(t *testing.T) {
	s := Slide{Crank: .05, Link: .2}
	m := Mechanism{Way: s, From: -80 * deg, To: 80 * deg, Load: Load{Mass: 3}}
	rows, err := m.Travel(40)
	require.NoError(t, err)
	for _, r := range rows {
		x := .05 * math.Cos(r.Q)
		want := 3 * Gravity * (.05*math.Cos(r.Q) + x*.05*math.Sin(r.Q)/math.Sqrt(.04-x*x))
		assert.InDelta(t, want, r.Up, 1e-4)
	}
	// the books' form, with the crank's angle from the slide's own line: F r sin(a+b)/cos b
	r := rows[30]
	a := 90*deg - r.Q
	b := math.Asin(.05 * math.Sin(a) / .2)
	assert.InDelta(t, 3*Gravity*.05*math.Sin(a+b)/math.Cos(b), r.Up, 1e-4)
	// work in is energy gained
	sum := 0.0
	for i := 1; i < len(rows); i++ {
		sum += (rows[i].Up + rows[i-1].Up) / 2 * (rows[i].Q - rows[i-1].Q)
	}
	assert.InDelta(t, 3*Gravity*(rows[40].Place.Rise-rows[0].Place.Rise), sum, 2e-3)
}

// A lever by hand: 2 kg at 300 mm, level, is 5.88 N m; upright nothing; a counterweight
// of 4 kg at 150 mm takes it all away.
func TestLever(t *testing.T) {
	m := Mechanism{Way: Direct{}, From: 0, To: 90 * deg, Load: Load{Mass: 2, Reach: .3, Tip: .6}}
	rows, err := m.Travel(90)
	require.NoError(t, err)
	assert.InDelta(t, 5.884, rows[0].Up, .001)
	assert.InDelta(t, 5.884/2, rows[60].Up, .001)
	assert.InDelta(t, 0, rows[90].Up, .01)
	assert.InDelta(t, 5.884, Falls(rows), .001, "let go, it falls")
	assert.InDelta(t, 2*(.09+.03), rows[0].Inertia, 1e-4, "a rod of 0.6 m about its end: m l2 / 3")
	assert.InDelta(t, .6, rows[5].Speed, 1e-4)
	m.Counter, m.CounterAt = 4, .15
	rows, _ = m.Travel(90)
	assert.InDelta(t, 0, Peak(rows).Up, 1e-9)
	m.Counter, m.Spring, m.Friction = 0, 5.884, .1
	rows, _ = m.Travel(90)
	assert.InDelta(t, .588, rows[0].Up, .05, "a spring that balances it at the start leaves the friction")
	assert.Less(t, rows[0].Back, 0.0, "and there it stays by itself")
}

// A winch: half the drum times the weight, everywhere.
func TestWinchAndTurntable(t *testing.T) {
	m := Mechanism{Way: Winch{.04}, From: 0, To: 50, Load: Load{Mass: 5, Friction: .1}}
	rows, err := m.Travel(10)
	require.NoError(t, err)
	assert.InDelta(t, 1.1*5*Gravity*.02, rows[5].Up, 1e-6)
	assert.InDelta(t, 1, rows[10].Place.Rise, 1e-9)
	m = Mechanism{Way: Turntable{}, From: 0, To: 2 * math.Pi, Load: Load{Mass: 5, Reach: .2, Friction: .05, Wind: 3}}
	rows, err = m.Travel(10)
	require.NoError(t, err)
	assert.InDelta(t, .05*5*Gravity*.2+3*.2, rows[4].Up, 1e-3)
}

func TestJams(t *testing.T) {
	m := Mechanism{Way: FourBar{Pivot: Pt{.3, 0}, Crank: .1, Link: .15, Arm: .1}, From: 0, To: 180 * deg}
	_, err := m.Travel(90)
	var j *Jam
	require.ErrorAs(t, err, &j)
	assert.Contains(t, j.Error(), "jams at 0 degrees of 0 to 180")
	m.Way = Slide{Crank: .2, Link: .1}
	m.From, m.To = -90*deg, 90*deg
	_, err = m.Travel(90)
	require.ErrorAs(t, err, &j)
	assert.InDelta(t, -60, j.At/deg, 3, "the crank is longer than the link: from 60 degrees on it cannot")
	_, err = (&Mechanism{Way: Direct{}}).Travel(9)
	assert.ErrorContains(t, err, "no travel")
}

// A straight line from stall to free speed has most power at half speed: T w / 4.
func TestMotorLine(t *testing.T) {
	m := Motor{Stall: 20, Free: 5, Idle: 1.5, Most: 18}
	best, at := 0.0, 0.0
	for w := 0.0; w <= 5; w += .01 {
		if p := m.Torque(w) * w; p > best {
			best, at = p, w
		}
	}
	assert.InDelta(t, 2.5, at, .011)
	assert.InDelta(t, 25, best, .01)
	assert.InDelta(t, 2.5, m.Speed(10), 1e-9)
	assert.InDelta(t, 9.75, m.Current(10), 1e-9)
	assert.Equal(t, 0.0980665, KgfCm)
	assert.InDelta(t, 98.0665, 1000*KgfCm, 1e-9, "a kilogram-force is 9.80665 N exactly")
}

// A light load under an even torque runs at the line's speed; one that needs more than
// stall does not go.
func TestDrive(t *testing.T) {
	m := Motor{Stall: 4, Free: 6, Idle: .5, Most: 6}
	rows, _ := (&Mechanism{Way: Winch{.04}, From: 0, To: 30, Load: Load{Mass: 5.0986}}).Travel(50) // 1 N m
	r := Drive(rows, m)
	assert.InDelta(t, 30/4.5, r.Time, .02)
	assert.InDelta(t, 4.5*.02, r.Speed, 1e-3)
	even := .5 + 5.5/4
	assert.InDelta(t, even, r.Amps, .1, "the start takes 3 ms of the worst quarter second")
	assert.Greater(t, r.Amps, even)
	assert.InDelta(t, even*even*r.Time, r.Square, .2)
	assert.InDelta(t, .5*5.0986*.09*.09, r.Energy, 1e-3)
	m.Stall = .9
	r = Drive(rows, m)
	assert.True(t, r.Stalled)
	assert.Equal(t, 6.0, r.Amps)
	// accelerating alone: a flywheel with no other load comes to its speed as 1 - exp(-t/tau)
	disc, _ := (&Mechanism{Way: Turntable{}, From: 0, To: 100, Load: Load{Mass: 10, Reach: .5, Tip: .5}}).Travel(50)
	i := disc[0].Inertia
	tau := i * 6 / 4
	f := Drive(disc, Motor{Stall: 4, Free: 6, Most: 1})
	want := 0.0 // the time at which 6 (t - tau (1 - exp(-t/tau))) comes to 100
	for ; 6*(want-tau*(1-math.Exp(-want/tau))) < 100; want += 1e-4 {
	}
	assert.InDelta(t, want, f.Time, .01)
	// a travel of an hour is no stall: what is left after ten minutes goes as evenly
	long, _ := (&Mechanism{Way: Winch{.04}, From: 0, To: 30 * 540, Load: Load{Mass: 5.0986}}).Travel(50)
	m.Stall = 4
	r = Drive(long, m)
	assert.False(t, r.Stalled)
	assert.InEpsilon(t, 540*30/4.5, r.Time, 1e-4)
	assert.InEpsilon(t, even*even*r.Time, r.Square, 1e-4)
}

// Half a density times the square of the speed: 10 m/s on a square metre is 62.5 Pa, 75 N
// with its drag.
func TestWind(t *testing.T) { assert.InDelta(t, 75, Wind(10, 1), 1e-9) }

func BenchmarkTravel(b *testing.B) {
	m := Mechanism{Way: FourBar{Pivot: Pt{.1, -.2}, Crank: .04, Link: .2, Arm: .15}, From: 0, To: 2,
		Load: Load{Mass: 2, Reach: .3}}
	b.ReportAllocs()
	for b.Loop() {
		rows, _ := m.Travel(Steps)
		Drive(rows, Motor{Stall: 20, Free: 5, Most: 18})
	}
}
