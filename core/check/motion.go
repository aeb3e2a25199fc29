package check

import (
	"fmt"
	"math"
	"strings"

	"zapbarn/core/measure"
	"zapbarn/core/motion"
	"zapbarn/core/plan"
	"zapbarn/core/source"
	"zapbarn/core/wiring"
	"zapbarn/core/words"
	"zapbarn/core/work"
)

var motors = source.FromMemory("motor's torque and speed: typical of its kind; its data sheet comes first")

// mover registers a rule of one mechanism at a time.
func mover(code string, level Level, doc string, run func(w *work.Work, m *work.Moved, say func(Snag))) bool {
	return rule(code, level, doc, func(w *work.Work, say func(Snag)) {
		for _, m := range w.Mechanisms() {
			run(w, m, func(s Snag) {
				s.Level, s.Place, s.At = level, "rehearsal", append([]string{"mechanism:" + m.Of.ID}, s.At...)
				say(s)
			})
		}
	})
}

var _ = mover("motion-sizes", Mind, "A mechanism lacks sizes, so nothing is known of it.",
	func(w *work.Work, m *work.Moved, say func(Snag)) {
		if len(m.Lacks) > 0 {
			say(Snag{Title: m.Of.Name + does(m.Of.Name, " lacks ", " lack ") + words.Count(len(m.Lacks), "size"),
				Why: "Measure and enter: " + strings.Join(plan.Labels("mechanism", m.Lacks), ", ") + "."})
		}
	})

var _ = mover("jams", Stop, "A linkage cannot come to all of its travel.",
	func(w *work.Work, m *work.Moved, say func(Snag)) {
		if m.Jam == nil {
			return
		}
		say(Snag{Title: m.Of.Name + does(m.Of.Name, " jams", " jam"), Why: measure.Capital(m.Jam.Error()) + ".",
			From: []source.Source{source.Exact("two circles that do not meet")}, Mends: longerLink(w, m)})
	})

// longerLink are lengths of the pull arm that come through the whole travel.
func longerLink(w *work.Work, m *work.Moved) (out []Mend) {
	x := *m.Of
	if x.Link.IsZero() {
		return nil
	}
	long := x.Link.Value()
	for k := 1; k <= 60; k++ {
		for _, v := range []float64{long + float64(k)*measure.Inch/4, long - float64(k)*measure.Inch/4} {
			if v <= 0 {
				continue
			}
			x.Link = written(w, v)
			if n := w.With(&x, wiring.LampOf(&plan.Device{}, w.Lib)); n.Jam == nil && len(n.Rows) > 0 {
				return []Mend{put(w, "Pull arm of "+x.Link.String(), "mechanism", x.ID, x)}
			}
		}
	}
	return nil
}

func written(w *work.Work, mm float64) measure.Length {
	text := w.Len(mm)
	if got, err := measure.Parse[measure.LengthKind](text); err == nil {
		return got
	}
	return measure.Of[measure.LengthKind](mm)
}

var _ = mover("motor-weak", Stop, "A motor cannot move its load through the travel at all.",
	func(w *work.Work, m *work.Moved, say func(Snag)) {
		if m.Motor == nil || !m.Up.Stalled && !m.Down.Stalled {
			return
		}
		say(Snag{At: []string{"device:" + m.Of.Motor}, Title: m.Device.Name + " cannot lift " + measure.Uncapital(m.Of.Name),
			Why: fmt.Sprintf(
				"It needs %s at %.0f degrees of the shaft; %s stalls at %s.",
				measure.NewtonMetres(m.Need()),
				m.Peak.Q*180/math.Pi,
				measure.Uncapital(w.Lib.Lamps[m.Device.Product].Name),
				measure.NewtonMetres(m.Motor.Stall),
			),
			From: []source.Source{motors}, Mends: chooseMotor(w, m)})
	})

var _ = mover("motor-margin", Fix, "A motor has less than twice the torque that its load needs.",
	func(w *work.Work, m *work.Moved, say func(Snag)) {
		if m.Motor == nil || m.Up.Stalled || m.Down.Stalled || m.Margin() >= motion.Margin {
			return
		}
		say(Snag{At: []string{"device:" + m.Of.Motor},
			Title: fmt.Sprintf("%s has %s times what it needs", m.Device.Name, measure.Decimal(m.Margin(), 1)),
			Why: fmt.Sprintf(
				"%s needs %s at the worst; the motor stalls at %s. Cold grease, wind and a battery that sags "+
					"take the rest: plan for twice.",
				m.Of.Name,
				measure.NewtonMetres(m.Need()),
				measure.NewtonMetres(m.Motor.Stall),
			),
			From: []source.Source{source.FromTrade("a margin of 2"), motors}, Mends: chooseMotor(w, m)})
	})

// chooseMotor is the cheapest motor of the shop's that does it, with what it draws there.
func chooseMotor(w *work.Work, m *work.Moved) (out []Mend) {
	product, as := w.Choose(m.Of)
	if product == "" || m.Device == nil {
		if x := *m.Of; x.Counter.IsZero() && (x.Kind == "lid" || x.Kind == "servo") {
			x.Counter = measure.Of[measure.MassKind](math.Round(m.Is.Mass*5) / 10)
			x.CounterAt = written(w, m.Of.Reach.Value())
			return []Mend{put(w, "A counterweight of "+x.Counter.String(), "mechanism", x.ID, x)}
		}
		return nil
	}
	next := *m.Device
	next.Product = product
	next.Amps = measure.Of[measure.AmpKind](draws(as))
	mend := put(
		w,
		"Take "+measure.Uncapital(w.Lib.Lamps[product].Name)+", "+next.Amps.String(),
		"device",
		next.ID,
		next,
	).made(w)
	mend.Edit.Changes = append(mend.Edit.Changes, cuesFor(w, m.Of, as)...)
	id := m.Of.ID
	mend.gives = func(w *work.Work) string {
		if n := w.Moved(id); n != nil && n.Motor != nil {
			return fmt.Sprintf(
				"%s times what it needs, %s for the travel",
				measure.Decimal(n.Margin(), 1),
				measure.Span(n.Up.Time),
			)
		}
		return ""
	}
	return []Mend{mend}
}

// cuesFor are the cues that drive a mechanism made as long as its travel takes.
func cuesFor(w *work.Work, x *plan.Mechanism, as *work.Moved) (out []plan.Change) {
	for _, s := range w.Plan.Scenes() {
		next, changed := s, false
		next.Cues = append([]plan.Cue(nil), s.Cues...)
		for i, q := range next.Cues {
			long := map[string]int{x.Up: as.UpMS, x.Down: as.DownMS}[q.Channel]
			if has := plan.Milliseconds(q.Length); q.Channel != "" && long > 0 && (has < long || has > long+250) {
				next.Cues[i].Length, changed = travels(long), true
			}
		}
		if changed {
			out = append(out, w.Plan.Put("scene", s.ID, next))
		}
	}
	return out
}

// travels is a cue's length for a travel of so many ms: up to the next twentieth of a
// second, and one more for the contact.
func travels(ms int) measure.Duration {
	return measure.Of[measure.DurationKind](float64((ms+99)/50*50) / 1000)
}

// draws is what a motor takes at most for a moment, moving or holding, rounded up to 0.1 A.
func draws(m *work.Moved) float64 {
	return math.Ceil(m.Draws()*10-1e-9) / 10
}

var _ = mover("motor-amps", Fix, "A motor draws more under its load than the wiring was planned with.",
	func(w *work.Work, m *work.Moved, say func(Snag)) {
		if m.Motor == nil || m.Up.Stalled || m.Down.Stalled {
			return
		}
		if m.Margin() < motion.Margin {
			return // it wants another motor first, which comes with what it draws
		}
		has := wiring.LampOf(m.Device, w.Lib).Amps
		if draws(m) <= has*1.05 {
			return
		}
		next := *m.Device
		next.Amps = measure.Of[measure.AmpKind](draws(m))
		say(Snag{At: []string{"device:" + m.Of.Motor},
			Title: fmt.Sprintf("%s draws %s, not %s", m.Device.Name, measure.Amps(draws(m)), measure.Amps(has)),
			Why: "The wire, the fuse and the supply of the Loom are worked out with less than " + measure.Uncapital(
				m.Of.Name,
			) +
				does(
					m.Of.Name,
					" asks",
					" ask",
				) + " of it.",
			From: []source.Source{
				motors,
			}, Mends: []Mend{put(w, "Plan with "+next.Amps.String(), "device", next.ID, next)}})
	})

var _ = mover("motor-hot", Fix, "A motor runs so often that it heats beyond what it bears.",
	func(w *work.Work, m *work.Moved, say func(Snag)) {
		if m.Motor == nil || m.Up.Stalled || m.Down.Stalled {
			return
		}
		bears := w.Lib.Lamps[m.Device.Product].Amps
		if m.Heat <= bears*1.02 {
			return
		}
		say(Snag{At: []string{"device:" + m.Of.Motor}, Title: m.Device.Name + " gets too hot",
			Why: fmt.Sprintf(
				"Run back to back it heats as %s all the time would; it bears %s. A longer rest, a lighter load or a "+
					"stronger motor helps.",
				measure.Amps(m.Heat),
				measure.Amps(bears),
			),
			From: []source.Source{motors}, Mends: append(longerRest(w, m, bears), chooseMotor(w, m)...)})
	})

// longerRest are rests with which a motor stays within what it bears.
func longerRest(w *work.Work, m *work.Moved, bears float64) (out []Mend) {
	for _, d := range w.Drives(m) {
		every, ok := d.Cycle(bears)
		if d.Trigger == nil || !ok || every <= d.Every {
			continue
		}
		t := *d.Trigger
		t.Rest = measure.Of[measure.DurationKind](math.Ceil(every - d.Long + 0.5))
		out = append(out, put(w, "Rest "+t.Rest.String()+" after “"+d.Scene.Name+"”", "trigger", t.ID, t))
	}
	return out
}

// held is the torque at the shaft below which friction is taken to hold, N m (common
// practice, no source).
const held = 0.05

var _ = mover("falls", Fix, "A load falls back by itself when the power of its motor goes.",
	func(w *work.Work, m *work.Moved, say func(Snag)) {
		if m.Motor == nil || m.Motor.Holds || m.Falls < held || m.Of.Springs {
			return
		}
		x := *m.Of
		x.Springs = true
		out := []Mend{put(w, "It is meant to fall back", "mechanism", x.ID, x)}
		if x.Counter.IsZero() && (x.Kind == "lid" || x.Kind == "servo") { // friction holds the rest
			x = *m.Of
			x.Counter = measure.Of[measure.MassKind](math.Round(m.Is.Mass*95) / 100)
			x.CounterAt = x.Reach
			label := "A counterweight of " + x.Counter.String() + ", as far out on the other side"
			out = append([]Mend{put(w, label, "mechanism", x.ID, x)}, out...)
		}
		say(Snag{Title: m.Of.Name + does(m.Of.Name, " falls", " fall") + " when power goes",
			Why: fmt.Sprintf(
				"The load turns the shaft back with %s, and nothing holds it: it comes down on whoever is under it. "+
					"A worm gear, a spring, a counterweight or a catch holds.",
				measure.NewtonMetres(m.Falls),
			),
			From: []source.Source{source.Exact("virtual work")}, Mends: out})
	})

// What may hit: 4 J where nothing else guards (EN ISO 14120 for powered guards, from memory).
const joules = 4

var _ = mover("hits-hard", Fix, "Something moves fast or heavily enough to hurt whom it hits.",
	func(w *work.Work, m *work.Moved, say func(Snag)) {
		if m.Motor == nil || m.Up.Stalled || math.Max(m.Up.Fastest, m.Down.Fastest) <= joules {
			return
		}
		say(
			Snag{
				Title: fmt.Sprintf(
					"%s %s with %s J",
					m.Of.Name,
					does(m.Of.Name, "hits", "hit"),
					measure.Decimal(math.Max(m.Up.Fastest, m.Down.Fastest), 1),
				),
				Why: fmt.Sprintf(
					"More than %d J where a guest or a hand can be. Keep it out of reach, guard it, slow it down, and fit "+
						"a stop button that takes the power away. Local rules come first.",
					joules,
				),
				From: []source.Source{source.FromMemory("EN ISO 14120: 4 J for powered guards with nothing else")},
			},
		)
	})

var _ = mover("within-reach", Mind, "A moving part comes within an arm's length of guests.",
	func(w *work.Work, m *work.Moved, say func(Snag)) {
		guests := guestsAt(w, m)
		if guests == 0 || len(m.Rows) == 0 {
			return
		}
		far := 0.0
		for _, r := range m.Rows {
			far = math.Max(far, math.Max(math.Abs(r.Tip.X), math.Abs(r.COM.X))*1000)
		}
		gap := guests - far
		if gap >= arm {
			return
		}
		say(Snag{Title: "Guests can reach " + measure.Uncapital(m.Of.Name),
			Why: fmt.Sprintf(
				"Its farthest point comes to %s of where guests stand; an arm is %s long. Pinch points are where the "+
					"pull arm meets its crank, and where it closes on what it stands on. Move the path, guard it, or keep it slow "+
					"and "+
					"light.",
				w.Len(math.Max(0, gap)),
				w.Len(arm),
			),
			From: []source.Source{source.FromMemory("ISO 13857: 850 mm arm's reach")}})
	})

// guestsAt is how far guests stand from a mechanism's hinge, mm: as was said, or as the yard
// has its prop; 0 where neither is known.
func guestsAt(w *work.Work, m *work.Moved) float64 {
	if !m.Of.Guests.IsZero() || len(w.Plan.Plots()) == 0 {
		return m.Of.Guests.Value()
	}
	if s := w.Yard().Of(m.Of.Prop); s != nil && !math.IsInf(s.Near, 1) {
		return (s.Near + s.Box.Deep/2) * 1000
	}
	return 0
}

// arm is how far a guest reaches, mm (ISO 13857, from memory).
const arm = 850

var _ = mover("motion-slow", Mind, "A travel takes longer than it is meant to.",
	func(w *work.Work, m *work.Moved, say func(Snag)) {
		if m.Motor == nil || m.Up.Stalled || m.Of.Time.IsZero() || m.Up.Time <= m.Of.Time.Value()*1.05 {
			return
		}
		say(
			Snag{
				At:    []string{"device:" + m.Of.Motor},
				Title: m.Of.Name + does(m.Of.Name, " takes ", " take ") + measure.Span(m.Up.Time),
				Why: fmt.Sprintf(
					"It was to take %s. A faster gear, a longer crank with a stronger motor, or a lighter load helps.",
					measure.Span(m.Of.Time.Value()),
				),
				Mends: chooseMotor(w, m),
			},
		)
	})

var _ = mover("cue-short", Fix, "A cue ends before the mechanism it drives has arrived.",
	func(w *work.Work, m *work.Moved, say func(Snag)) {
		if m.UpMS == 0 || m.Of.Kind == "turntable" {
			return
		}
		for _, s := range w.Plan.Scenes() {
			for i, q := range s.Cues {
				long, way := m.UpMS, "up"
				if q.Channel == m.Of.Down {
					long, way = m.DownMS, "down"
				}
				if q.Channel == "" || q.Channel != m.Of.Up && q.Channel != m.Of.Down ||
					plan.Milliseconds(q.Length) >= long {
					continue
				}
				next := s
				next.Cues = append([]plan.Cue(nil), s.Cues...)
				next.Cues[i].Length = travels(long)
				say(Snag{At: []string{"scene:" + s.ID, "device:" + q.Channel}, key: "scene:" + s.ID + "/" + q.Channel,
					Title: m.Of.Name + does(m.Of.Name, " stops", " stop") + " half way in “" + s.Name + "”",
					Why: fmt.Sprintf(
						"It takes %s to go %s; the cue is %s.",
						measure.Span(float64(long)/1000),
						way,
						q.Length,
					),
					Mends: []Mend{put(w, "Make the cue "+next.Cues[i].Length.String(), "scene", s.ID, next)}})
				return
			}
		}
	})

var _ = mover("servo-range", Stop, "A servo cannot turn as far as it is asked to.",
	func(w *work.Work, m *work.Moved, say func(Snag)) {
		if m.Device == nil {
			return
		}
		sweep := w.Lib.Lamps[m.Device.Product].Sweep
		span := math.Abs(m.Is.To-m.Is.From) * 180 / math.Pi
		if sweep == 0 || span <= sweep+1e-9 {
			return
		}
		x := *m.Of
		mid := (x.From.Value() + x.To.Value()) / 2
		x.From = measure.Of[measure.AngleKind](mid - sweep/2)
		x.To = measure.Of[measure.AngleKind](mid + sweep/2)
		say(
			Snag{
				At:    []string{"device:" + m.Of.Motor},
				Title: m.Device.Name + " turns no farther than " + measure.Degrees(sweep),
				Why:   fmt.Sprintf("%s wants %s of it.", m.Of.Name, measure.Degrees(span)),
				From:  []source.Source{motors},
				Mends: []Mend{put(w, "Turn it "+measure.Degrees(sweep), "mechanism", x.ID, x)},
			},
		)
	})

var _ = rule("facing-servos", Mind, "Two servos that face each other are told to turn the same way.",
	func(w *work.Work, say func(Snag)) {
		for i := range w.Plan.Mechanisms() {
			a := &w.Plan.Mechanisms()[i]
			for k := i + 1; k < len(w.Plan.Mechanisms()); k++ {
				b := &w.Plan.Mechanisms()[k]
				if a.Kind != "servo" || b.Kind != "servo" || a.Prop != b.Prop || a.Up == "" || a.Up != b.Up ||
					!a.Mirrored && !b.Mirrored || a.From.Value() == -b.From.Value() && a.To.Value() == -b.To.Value() {
					continue
				}
				next := *b
				next.From, next.To = measure.Of[measure.AngleKind](
					-a.From.Value(),
				), measure.Of[measure.AngleKind](
					-a.To.Value(),
				)
				say(Snag{Level: Mind, Place: "rehearsal", At: []string{"mechanism:" + b.ID, "mechanism:" + a.ID},
					Title: b.Name + " turns against " + measure.Uncapital(a.Name),
					Why: "They face each other: the same angle turns the one up and the other down. " +
						"Give one of them the opposite sense.",
					Mends: []Mend{put(w, "Turn it the other way", "mechanism", b.ID, next)}})
			}
		}
	})
