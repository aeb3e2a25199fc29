// Package motion works mechanisms out over their travel: where every joint is, what
// torque the motor must give at each angle, how long it takes, what it draws, how hard
// it hits, and what happens when its power goes. Metres, kilograms, radians, N m.
package motion

import (
	"fmt"
	"math"
)

// Gravity in m/s2 (standard gravity, ISO 80000-3).
const Gravity = 9.80665

// KgfCm is one kilogram-force centimetre in N m, exactly.
const KgfCm = 0.0980665

// Pt is a point in the plane of the mechanism, m: right and up from the hinge.
type Pt struct{ X, Y float64 }

func (a Pt) to(b Pt) float64 { return math.Hypot(a.X-b.X, a.Y-b.Y) }

func polar(from Pt, r, angle float64) Pt {
	return Pt{from.X + r*math.Cos(angle), from.Y + r*math.Sin(angle)}
}

// Mechanism is what a motor moves, and by which way.
type Mechanism struct {
	Way
	From, To float64 // of the motor's shaft, rad
	Load
}

// Load is what is moved.
type Load struct {
	Mass      float64 // kg
	Reach     float64 // m, from the hinge to its centre of gravity
	Lean      float64 // rad, that lies beyond the arm's line
	Tip       float64 // m, from the hinge to its farthest point
	Friction  float64 // share of the weight's torque
	Spring    float64 // N m about the hinge at the beginning, none at the end
	Counter   float64 // kg on the hinge's other side
	CounterAt float64 // m from the hinge
	Wind      float64 // N on the load at its centre of gravity, against it
}

// Way is how the motor's turn reaches the load: one file each.
type Way interface {
	// Place is where the joints are at an angle of the shaft; false where it cannot be.
	Place(q float64) (Place, bool)
	// Bars pairs the joints that a bar lies between.
	Bars() [][2]int
	// Turns is whether the load turns about the hinge; else it slides up by Place.Rise.
	Turns() bool
}

// Place is a mechanism at one angle of its shaft.
type Place struct {
	Joints []Pt
	Angle  float64 // of the arm, rad
	Rise   float64 // of a load that slides, m
}

// Row is one step of the travel.
type Row struct {
	Q       float64 // of the shaft, rad
	Place   Place
	COM     Pt
	Tip     Pt
	Up      float64 // N m at the shaft to go on towards To
	Back    float64 // N m that the load turns the shaft back with, friction taken off
	Inertia float64 // kg m2 at the shaft
	Speed   float64 // m of the tip a rad of the shaft
}

// Jam is an angle that a mechanism cannot come to.
type Jam struct{ At, From, To float64 }

func (j *Jam) Error() string {
	return fmt.Sprintf("it jams at %.0f degrees of %.0f to %.0f: the link is too short or too long there",
		j.At*180/math.Pi, j.From*180/math.Pi, j.To*180/math.Pi)
}

// com is the load's centre of gravity, and its farthest point.
func (m *Mechanism) com(p Place) (com, tip Pt) {
	if !m.Turns() {
		return Pt{0, p.Rise}, Pt{0, p.Rise}
	}
	return polar(Pt{}, m.Reach, p.Angle+m.Lean), polar(Pt{}, math.Max(m.Tip, m.Reach), p.Angle)
}

// sense is which way the arm goes from where it begins, and how far it is to its end.
type sense struct{ begin, way, all float64 }

// energy is the potential energy of all that the shaft moves, J: weight, counterweight
// and wind.
func (m *Mechanism) energy(p Place, s sense) float64 {
	com, _ := m.com(p)
	all := s.all
	turned := (p.Angle - s.begin) * s.way
	if l, ok := m.Way.(interface{ Level() bool }); ok && l.Level() {
		return m.Wind * m.Reach * turned
	}
	e := m.Mass * Gravity * com.Y
	if !m.Turns() {
		return e - m.Counter*Gravity*p.Rise + m.Wind*p.Rise
	}
	e -= m.Counter * Gravity * m.CounterAt * math.Sin(p.Angle+m.Lean)
	if all != 0 {
		e -= m.Spring * turned * (1 - turned/all/2) // a torque that falls evenly to nothing
	}
	return e + m.Wind*m.Reach*turned
}

// Steps is how many steps a travel is worked out in.
const Steps = 120

// Travel works the mechanism out from one end to the other in n steps: n+1 rows. The
// torque is the energy's slope (virtual work), with friction against the motion.
// An error is *Jam.
func (m *Mechanism) Travel(n int) ([]Row, error) {
	if m.To == m.From || n < 2 {
		return nil, fmt.Errorf("it has no travel: its two ends are one")
	}
	step := (m.To - m.From) / float64(n)
	h := step / 64
	all, way, err := m.places(n)
	if err != nil {
		return nil, err
	}
	rows := make([]Row, n+1)
	for i, p := range all {
		q := m.From + step*float64(i)
		a, ok1 := m.Place(q - h)
		b, ok2 := m.Place(q + h)
		width := 2 * h
		if !ok1 && i == 0 {
			a, ok1, width = p, true, h
		}
		if !ok2 && i == n {
			b, ok2, width = p, true, h
		}
		if !ok1 || !ok2 {
			return nil, &Jam{q, m.From, m.To}
		}
		a.Angle, b.Angle = m.onward(p, a), m.onward(p, b)
		r := Row{Q: q, Place: p}
		r.COM, r.Tip = m.com(p)
		slope := (m.energy(b, way) - m.energy(a, way)) / width
		ca, ta := m.com(a)
		cb, tb := m.com(b)
		rub := m.Friction * m.Mass * Gravity * ca.to(cb) / math.Abs(width)
		dir := math.Copysign(1, step)
		r.Up = slope*dir + rub
		r.Back = slope*dir - rub
		r.Speed = ta.to(tb) / math.Abs(width)
		r.Inertia = m.inertia(a, b, math.Abs(width))
		rows[i] = r
	}
	return rows, nil
}

// inertia is that of the load at the shaft, between two places a turn apart: a rod's
// about its end, or a weight's that slides.
func (m *Mechanism) inertia(a, b Place, turn float64) float64 {
	if !m.Turns() {
		v := (b.Rise - a.Rise) / turn
		return (m.Mass + m.Counter) * v * v
	}
	w := (b.Angle - a.Angle) / turn
	long := math.Max(m.Tip, m.Reach)
	return (m.Mass*(m.Reach*m.Reach+long*long/12) + m.Counter*m.CounterAt*m.CounterAt) * w * w
}

// Peak is the row with the largest torque to go on.
func Peak(rows []Row) Row {
	best := rows[0]
	for _, r := range rows {
		if r.Up > best.Up {
			best = r
		}
	}
	return best
}

// Falls is the largest torque with which the load turns the shaft back by itself: what
// happens when power goes and nothing holds it; 0 when it stays.
func Falls(rows []Row) float64 {
	most := 0.0
	for _, r := range rows {
		most = math.Max(most, r.Back)
	}
	return most
}

// Wind is the push of a wind on an area, N: half the density of air times the square of
// the speed (m/s) times the area (m2), 1.25 kg/m3 at 10 C, drag 1.2 of a flat thing
// (drag from memory).
func Wind(speed, area float64) float64 { return 0.5 * 1.25 * speed * speed * 1.2 * area }
