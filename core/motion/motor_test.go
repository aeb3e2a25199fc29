package motion

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A flywheel alone comes to its speed as 1 - exp(-t/tau); its current falls from the stalled
// motor's as exp(-t/tau): the squares add up to I0^2 t + 2 I0 D tau (1-e) + D^2 tau/2 (1-e^2),
// with D what a stalled motor draws over what it draws free.
func TestAcceleratingHeats(t *testing.T) {
	rows, err := (&Mechanism{Way: Turntable{}, From: 0, To: 6, Load: Load{Mass: 20, Reach: .4, Tip: .6}}).Travel(60)
	require.NoError(t, err)
	m := Motor{Stall: 8, Free: 4, Idle: .6, Most: 9}
	r := Drive(rows, m)
	tau := rows[0].Inertia * m.Free / m.Stall
	e := math.Exp(-r.Time / tau)
	d := m.Most - m.Idle
	want := m.Idle*m.Idle*r.Time + 2*m.Idle*d*tau*(1-e) + d*d*tau/2*(1-e*e)
	assert.InEpsilon(t, want, r.Square, .005)
	// the worst quarter second is the first
	e = math.Exp(-Moment / tau)
	first := m.Idle*m.Idle + (2*m.Idle*d*tau*(1-e)+d*d*tau/2*(1-e*e))/Moment
	assert.InEpsilon(t, math.Sqrt(first), r.Amps, .005)
	// less than a quarter second: all of it
	short, _ := (&Mechanism{Way: Turntable{}, From: 0, To: .01, Load: Load{Mass: 20, Reach: .4, Tip: .6}}).Travel(60)
	r = Drive(short, m)
	require.Less(t, r.Time, Moment)
	assert.InEpsilon(t, math.Sqrt(r.Square/r.Time), r.Amps, 1e-9)
	assert.Greater(t, r.Amps, .8*m.Most, "it hardly turns yet")
}

// A load that runs ahead of the motor is held back by it, and that heats it as lifting does: at
// a steady speed the motor makes just the torque the load has over.
func TestHoldingBackHeats(t *testing.T) {
	rows, _ := (&Mechanism{Way: Winch{.04}, From: 30, To: 0, Load: Load{Mass: 5.0986}}).Travel(50) // -1 N m
	m := Motor{Stall: 4, Free: 6, Idle: .5, Most: 6}
	r := Drive(rows, m)
	assert.InDelta(t, 6*1.25*.02, r.Speed, 1e-3, "a quarter faster than free")
	even := .5 + 5.5/4
	assert.InEpsilon(t, even*even*r.Time, r.Square, .02)
	m.Holds = true
	r = Drive(rows, m)
	assert.InDelta(t, 6*.02, r.Speed, 1e-3, "a worm is not driven on")
	assert.InEpsilon(t, .25*r.Time, r.Square, .05)
}

// An arm of 1 kg at 200 mm held level is 1.96 N m: half of a motor's 3.92, half of its amps.
func TestHolding(t *testing.T) {
	m := Mechanism{Way: Direct{}, From: 0, To: 90 * deg, Load: Load{Mass: 1, Reach: .2}}
	rows, _ := m.Travel(90)
	assert.InDelta(t, Gravity*.2, rows[0].Holding(), 1e-3)
	assert.InDelta(t, 0, rows[90].Holding(), .02)
	assert.InDelta(t, 1.5, Motor{Stall: 2 * Gravity * .2, Most: 3}.Held(rows[0].Holding()), .001)
	assert.Equal(t, 3.0, Motor{Stall: 1, Most: 3}.Held(5))
	// from upright down to level: what pushes on is held as well, and friction helps
	m.From, m.To, m.Friction = 90*deg, 0, .2
	rows, _ = m.Travel(90)
	assert.InDelta(t, .8*Gravity*.2, rows[90].Holding(), 1e-3)
}

func TestDutyHeats(t *testing.T) {
	d := Duty{Square: 40, Run: 2}
	assert.InDelta(t, 2, d.Heat(10), 1e-9, "2 A all the time")
	assert.InDelta(t, 1, d.Heat(40), 1e-9, "a quarter of it: half the current heats as much")
	every, ok := d.Cycle(1)
	assert.True(t, ok)
	assert.InDelta(t, 40, every, 1e-9)
	// 40 + 2 A for 5 s + 0.5 A for 13 s of 20 s: (40 + 20 + 3.25) / 20
	d.Top, d.AtTop, d.AtBottom = 5, 2, .5
	assert.InDelta(t, math.Sqrt(63.25/20), d.Heat(20), 1e-9)
	every, ok = d.Cycle(1)
	assert.True(t, ok)
	assert.InDelta(t, 1, d.Heat(every), 1e-9, "the cycle promised is the cycle that gives it")
	d.AtBottom = 1.2
	_, ok = d.Cycle(1.1)
	assert.False(t, ok, "no rest cools what holds too much all evening")
	assert.InDelta(t, 1.2, Duty{AtBottom: 1.2}.Heat(1e6), 1e-9)
	assert.InDelta(t, 1.2, Duty{AtBottom: 1.2}.Heat(0), 1e-9)
}
