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
	Amps    float64 // A, the most that flows for a quarter of a second
	Square  float64 // A2 s over the travel: what heats it
	Speed   float64 // m/s, the tip's fastest
	End     float64 // m/s, as it arrives
	Energy  float64 // J in the load as it arrives
	Fastest float64 // J, the most there is on the way
}

// Moment is for how long a current flows, s, until wire, fuse and supply feel it: the first
// instant of any start draws what a stalled motor does (blade fuses of road vehicles,
// ISO 8820-3: 0.15 s at least at twice their rating; from memory).
const Moment = 0.25

// Held is the current, A, with which a motor that keeps its place bears a torque, N m: that of
// a stalled motor, for the share of the torque.
func (m Motor) Held(torque float64) float64 {
	return m.Most * math.Max(0, math.Min(1, torque/m.Stall))
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
	var last window
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
		amps := m.Current(math.Abs(m.Torque(w)))
		r.Amps = math.Max(r.Amps, last.add(amps))
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
	if r.Amps == 0 { // it has arrived before the moment is over
		r.Amps = math.Sqrt(r.Square / r.Time)
	}
	return r
}

// window is the root of the mean square of the last quarter of a second's currents, a
// millisecond each.
type window struct {
	squares [Moment * 1000]float64
	n       int
	sum     float64
}

// add is the next; it gives 0 until the moment is full.
func (x *window) add(amps float64) float64 {
	i := x.n % len(x.squares)
	x.sum += amps*amps - x.squares[i]
	x.squares[i] = amps * amps
	if x.n++; x.n < len(x.squares) {
		return 0
	}
	return math.Sqrt(x.sum / float64(len(x.squares)))
}

// Holding is the torque, N m, that keeps a load where a row has it: what is left, after the
// friction, of what would turn the shaft back, or on.
func (r Row) Holding() float64 { return math.Max(0, math.Max(r.Back, -r.Up)) }

// Duty is how a motor spends its time from one run to the next: both ways of a run, and how it
// holds its load at either end.
type Duty struct {
	Square   float64 // A2 s of a run, both ways
	Run      float64 // s of it
	Top      float64 // s that it holds at the end
	AtTop    float64 // A
	AtBottom float64 // A at the beginning, for what is left of a cycle and while no one comes
}

// Heat is the steady current, A, that heats a motor as much as a duty does that is repeated
// every so many seconds: the root of the mean square, or what it holds with all evening.
func (d Duty) Heat(cycle float64) float64 {
	if cycle <= 0 {
		return d.AtBottom
	}
	rest := math.Max(0, cycle-d.Run-d.Top)
	all := d.Square + d.AtTop*d.AtTop*d.Top + d.AtBottom*d.AtBottom*rest
	return math.Max(d.AtBottom, math.Sqrt(all/cycle))
}

// Cycle is the shortest time, s, from one run to the next with which a motor heats no more
// than so many amps would; false when no rest is long enough.
func (d Duty) Cycle(amps float64) (float64, bool) {
	if amps <= d.AtBottom {
		return 0, false
	}
	hold := d.AtBottom * d.AtBottom
	left := d.Square + d.AtTop*d.AtTop*d.Top - hold*(d.Run+d.Top)
	return math.Max(d.Run+d.Top, left/(amps*amps-hold)), true
}
