package work

import (
	"fmt"
	"math"

	"zapbarn/core/measure"
	"zapbarn/core/motion"
	"zapbarn/core/plan"
	"zapbarn/core/source"
	"zapbarn/core/stock"
	"zapbarn/core/wiring"
)

// Moved is a mechanism worked out.
type Moved struct {
	Of     *plan.Mechanism
	Is     motion.Mechanism
	Lacks  []string // fields that are missing
	Jam    error    // it cannot come to all of its travel
	Rows   []motion.Row
	Back   []motion.Row // the way back
	Peak   motion.Row
	Falls  float64 // N m at the shaft with which the load turns it back
	Device *plan.Device
	Motor  *motion.Motor // nil where none is known
	Up     motion.Run
	Down   motion.Run
	Heat   float64 // A, steady, that heats the motor as much
	Duty   Drives  // by which it does
	// HoldsAt is what a servo draws as it keeps its load at the beginning and at the end, A
	HoldsAt [2]float64
	UpMS    int
	DownMS  int
	Drops   bool // it goes back by itself when nothing drives it
}

// Margin is how many times what it needs at most its motor has at stall; 0 for no motor.
func (m *Moved) Margin() float64 {
	if m.Motor == nil || len(m.Rows) == 0 {
		return 0
	}
	return m.Motor.Stall / math.Max(1e-6, m.need())
}

// need is the largest torque either way, N m.
func (m *Moved) need() float64 { return math.Max(m.Peak.Up, motion.Peak(m.Back).Up) }

// Need is the largest torque at the shaft either way, N m.
func (m *Moved) Need() float64 { return m.need() }

// Draws is the most current that flows for a moment, either way or as it holds, A.
func (m *Moved) Draws() float64 {
	return max(m.Up.Amps, m.Down.Amps, m.HoldsAt[0], m.HoldsAt[1])
}

// MotorOf is a motor of the shop's by its line; false where its torque is not known.
func MotorOf(l stock.Lamp) (motion.Motor, bool) {
	m := motion.Motor{
		Stall: l.Torque,
		Free:  l.Free * 2 * math.Pi / 60,
		Idle:  l.FreeAmps,
		Most:  l.Stall,
		Rated: l.Amps,
		Holds: l.Holds,
	}
	return m, l.Torque > 0 && l.Free > 0 && l.Stall > 0
}

// Mechanisms are all of the plan's worked out, in its order, once.
func (w *Work) Mechanisms() []*Moved {
	return Derive(w, "mechanisms", func(w *Work) []*Moved {
		var out []*Moved
		for i := range w.Plan.Mechanisms() {
			out = append(out, w.moved(&w.Plan.Mechanisms()[i]))
		}
		return out
	})
}

// Moved is one mechanism worked out, or nil.
func (w *Work) Moved(id string) *Moved {
	for _, m := range w.Mechanisms() {
		if m.Of.ID == id {
			return m
		}
	}
	return nil
}

// With is a mechanism worked out as it would be with another motor.
func (w *Work) With(x *plan.Mechanism, l stock.Lamp) *Moved {
	m := w.still(x)
	m.run(w, l)
	return m
}

func (w *Work) moved(x *plan.Mechanism) *Moved {
	m := w.still(x)
	if d := w.Device(x.Motor); d != nil {
		m.Device = d
		m.run(w, wiring.LampOf(d, w.Lib))
	}
	return m
}

// friction is the share of the weight's torque that is rubbed away when nothing is said
// of it (from memory: plain bearings and a slide, greased).
const friction = 15

// windy is the wind that a mechanism outdoors must still move in, m/s: a fresh breeze,
// Beaufort 5.
const windy = 10.0

// still is a mechanism with no motor yet.
func (w *Work) still(x *plan.Mechanism) *Moved {
	m := &Moved{Of: x, Lacks: x.Lacks()}
	if s := w.Solid(x.Carries); s != nil && w.Shapes()[s.ID] == nil && x.Mass.IsZero() {
		m.Lacks = append(m.Lacks, "mass")
	}
	if len(m.Lacks) > 0 {
		m.UpMS, m.DownMS = plan.Milliseconds(x.Time), plan.Milliseconds(x.Time)
		return m
	}
	mm := func(l measure.Length) float64 { return l.Value() / 1000 }
	rad := func(a measure.Angle) float64 { return a.Value() * math.Pi / 180 }
	pivot := motion.Pt{X: mm(x.PivotX), Y: mm(x.PivotY)}
	m.Is = motion.Mechanism{From: rad(x.From), To: rad(x.To), Load: motion.Load{
		Mass: x.Mass.Value(), Reach: mm(x.Reach), Lean: rad(x.Lean), Tip: mm(x.Tip), Friction: friction / 100.0,
		Spring: x.Spring.Value(), Counter: x.Counter.Value(), CounterAt: mm(x.CounterAt),
	}}
	if x.Mass.IsZero() {
		m.Is.Mass = w.MassOf(x.Carries)
	}
	if x.Friction > 0 {
		m.Is.Friction = float64(x.Friction) / 100
	}
	if w.Plan.Display().Outdoors {
		m.Is.Wind = motion.Wind(windy, mm(x.Wide)*mm(x.High))
	}
	switch x.Kind {
	case "lid":
		m.Is.Way = motion.FourBar{
			Pivot:   pivot,
			Crank:   mm(x.Crank),
			Link:    mm(x.Link),
			Arm:     mm(x.Arm),
			Crossed: x.Crossed,
		}
	case "slide":
		m.Is.Way = motion.Slide{Crank: mm(x.Crank), Link: mm(x.Link), Aside: mm(x.PivotX)}
	case "winch":
		m.Is.Way = motion.Winch{Drum: mm(x.Drum)}
		m.Is.From, m.Is.To = 0, mm(x.Travel)/(mm(x.Drum)/2)
	case "turntable":
		m.Is.Way = motion.Turntable{}
	default:
		m.Is.Way = motion.Direct{}
	}
	rows, err := m.Is.Travel(motion.Steps)
	if err != nil {
		m.Jam = err
		return m
	}
	m.Rows, m.Peak, m.Falls = rows, motion.Peak(rows), motion.Falls(rows)
	for i := len(rows) - 1; i >= 0; i-- {
		r := rows[i]
		r.Up, r.Back = -rows[i].Back, -rows[i].Up
		m.Back = append(m.Back, r)
	}
	m.UpMS, m.DownMS = plan.Milliseconds(x.Time), plan.Milliseconds(x.Time)
	m.Drops = m.Falls > 0 && x.Motor == ""
	return m
}

// run drives it with a motor of the shop's.
func (m *Moved) run(w *Work, l stock.Lamp) {
	motor, ok := MotorOf(l)
	if !ok || len(m.Rows) == 0 {
		return
	}
	m.Motor = &motor
	m.Drops = m.Falls > 0 && !motor.Holds
	m.Up, m.Down = motion.Drive(m.Rows, motor), motion.Drive(m.Back, motor)
	if !m.Up.Stalled {
		m.UpMS = int(math.Round(m.Up.Time * 1000))
	}
	if m.DownMS = m.UpMS; !m.Down.Stalled {
		m.DownMS = int(math.Round(m.Down.Time * 1000))
	}
	if l.Sweep > 0 { // a servo keeps its place, and draws for it
		rows := m.Rows
		m.HoldsAt = [2]float64{motor.Held(rows[0].Holding()), motor.Held(rows[len(rows)-1].Holding())}
	}
	for i, d := range w.Drives(m) {
		if heat := d.Heat(d.Every); i == 0 || heat > m.Heat {
			m.Heat, m.Duty = heat, d
		}
	}
}

// motions keeps the numbers of the mechanisms, each with its working.
func (w *Work) motions() {
	for _, m := range w.Mechanisms() {
		if len(m.Rows) == 0 {
			continue
		}
		of := func(what string) source.Key { return source.KeyOf("mechanism", m.Of.ID, what) }
		nm := func(v float64) string { return measure.NewtonMetres(v) }
		work := source.Exact("virtual work: torque is the slope of the energy over the shaft's angle")
		w.keep(of("torque"), source.Num("Torque it needs at most", m.need(), "N m", nm(m.need())).With(
			"T = dE/dq + friction, over the travel",
			fmt.Sprintf("%s, worst at %.0f degrees of the shaft", measure.Kilograms(m.Is.Mass), m.Peak.Q*180/math.Pi),
			nm(m.need()), work, source.Std("ISO 80000-3: g = 9.80665 m/s2")))
		if m.Motor == nil {
			continue
		}
		line := source.FromMemory("motor's torque and speed: typical of its kind; its data sheet comes first")
		w.keep(
			of("margin"),
			source.Num("Motor's margin", m.Margin(), "", measure.Decimal(m.Margin(), 1)+" times").With(
				"stall torque / torque it needs", fmt.Sprintf("%s / %s", nm(m.Motor.Stall), nm(m.need())),
				measure.Decimal(m.Margin(), 2), line, source.FromTrade("2 times, no source")),
		)
		if m.Up.Stalled {
			continue
		}
		w.keep(of("time"), source.Num("Travel, up", m.Up.Time, "s", measure.Span(m.Up.Time)).With(
			"dw/dt = (T motor - T load) / J, T motor = stall (1 - w / free), step by step",
			fmt.Sprintf("%d steps of 1 ms", m.UpMS), measure.Span(m.Up.Time), line))
		w.keep(of("amps"), source.Num("Draws at most", m.Draws(), "A", measure.Amps(m.Draws())).With(
			"I = free + (stall - free) T / T stall, T = stall (1 - w / free): lifting, rubbing and speeding up; the worst "+
				"quarter of a second either way, or holding",
			fmt.Sprintf("up %s, down %s, holding %s and %s; for the first instant of a start %s", measure.Amps(m.Up.Amps),
				measure.Amps(m.Down.Amps), measure.Amps(m.HoldsAt[0]), measure.Amps(m.HoldsAt[1]),
				measure.Amps(m.Motor.Most)), measure.Amps(m.Draws()), line))
		w.keep(of("heat"), source.Num("Heats as much as", m.Heat, "A", measure.Amps(m.Heat)+" all the time").With(
			"root of (sum of I2 t of a cycle / its time)",
			fmt.Sprintf("%.2f A2s of running and %.2f A2s of holding over %s", m.Duty.Square, m.Duty.Still(),
				measure.Span(m.Duty.Every)), measure.Amps(m.Heat), line))
		w.keep(of("energy"), source.Num("Hits with", m.Up.Energy, "J", measure.Decimal(m.Up.Energy, 2)+" J").With(
			"E = J w2 / 2 as it arrives",
			fmt.Sprintf("tip at %.2f m/s", m.Up.End), measure.Decimal(m.Up.Energy, 2)+" J", line))
	}
}

// Choose is the cheapest motor of the shop's for the same volts that has the margin, is
// no slower than wanted and turns as far; "" when there is none.
func (w *Work) Choose(x *plan.Mechanism) (product string, as *Moved) {
	volts := 0.0
	if d := w.Device(x.Motor); d != nil {
		volts = wiring.LampOf(d, w.Lib).Volts
	}
	for _, id := range stock.IDs(w.Lib.Lamps) {
		l := w.Lib.Lamps[id]
		if _, ok := MotorOf(l); !ok || volts > 0 && l.Volts != volts ||
			product != "" && l.Price >= w.Lib.Lamps[product].Price {
			continue
		}
		if span := math.Abs(x.To.Value() - x.From.Value()); l.Sweep > 0 && (x.Kind == "winch" || span > l.Sweep) {
			continue
		}
		m := w.With(x, l)
		if len(m.Rows) == 0 || m.Up.Stalled || m.Down.Stalled || m.Margin() < motion.Margin || m.Heat > l.Amps {
			continue
		}
		if want := x.Time.Value(); want > 0 && m.Up.Time > want*1.02 {
			continue
		}
		product, as = id, m
	}
	return product, as
}
