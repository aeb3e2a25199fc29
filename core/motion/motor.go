package motion

import "math"

// Motor is a motor with its gear by its torque-speed line: torque falls evenly from
// stall to nothing at its free speed, current rises evenly with torque.
type Motor struct {
	Stall float64 // N m
	Free  float64 // rad/s with no load
	Idle  float64 // A with no load
	Most  float64 // A at stall
	Rated float64 // A that it bears for long
	Holds bool    // its gear cannot be turned back by the load
}

// Margin is how many times the torque that is needed a motor should have (common
// practice, no source).
const Margin = 2

// Torque that it has at a speed, N m.
func (m Motor) Torque(speed float64) float64 { return m.Stall * (1 - speed/m.Free) }

// Speed that it turns at under a torque, rad/s; none at stall.
func (m Motor) Speed(torque float64) float64 {
	return math.Max(0, m.Free*(1-torque/m.Stall))
}

// Current at a torque, A.
func (m Motor) Current(torque float64) float64 {
	return m.Idle + (m.Most-m.Idle)*math.Max(0, math.Min(1, torque/m.Stall))
}

// Run is a travel driven by a motor.
type Run struct {
	Time    float64 // s for the travel
	Stalled bool
	At      float64 // rad where it stalls
	Amps    float64 // the most of it, once it turns
	Square  float64 // A2 s over the travel: what heats it
	Speed   float64 // m/s, the tip's fastest
	End     float64 // m/s, as it arrives
	Energy  float64 // J in the load as it arrives
	Fastest float64 // J, the most there is on the way
}

// slowest is how many seconds of a travel are worked out step by step.
const slowest = 600

// Drive runs a motor through a travel from standing: the load is accelerated by what
// the motor has over, step by step of a millisecond, taken implicitly so that a light
// load is as exact as a heavy one.
func Drive(rows []Row, m Motor) (r Run) {
	const dt = 1e-3
	span := math.Abs(rows[len(rows)-1].Q - rows[0].Q)
	step := span / float64(len(rows)-1)
	turned, w := 0.0, 0.0
	slope := m.Stall / m.Free
	for turned < span {
		x := turned / step
		i := min(int(x), len(rows)-2)
		f := x - float64(i)
		mix := func(a, b float64) float64 { return a + f*(b-a) }
		need := mix(rows[i].Up, rows[i+1].Up)
		if m.Holds { // a gear that cannot be turned back is not driven on by its load either
			need = math.Max(need, 0)
		}
		inertia := mix(rows[i].Inertia, rows[i+1].Inertia) + 1e-6
		w = (w + dt/inertia*(m.Stall-need)) / (1 + dt/inertia*slope)
		if w <= 1e-6 {
			r.Stalled, r.At = true, mix(rows[i].Q, rows[i+1].Q)
			r.Amps = m.Most
			return r
		}
		amps := m.Current(math.Max(need, 0))
		r.Amps = math.Max(r.Amps, amps)
		r.Square += amps * amps * dt
		tip := mix(rows[i].Speed, rows[i+1].Speed) * w
		r.Speed, r.End = math.Max(r.Speed, tip), tip
		r.Energy = inertia * w * w / 2
		r.Fastest = math.Max(r.Fastest, r.Energy)
		turned += w * dt
		r.Time += dt
		if r.Time > slowest { // it has long run evenly: the rest of the way as it goes now
			left := (span - turned) / w
			r.Time, r.Square = r.Time+left, r.Square+amps*amps*left
			break
		}
	}
	return r
}

// Heat is the steady current that heats a motor as much as so many runs over a time do,
// in A: the root of the mean square.
func Heat(runs float64, square, over float64) float64 {
	if over <= 0 {
		return 0
	}
	return math.Sqrt(runs * square / over)
}
