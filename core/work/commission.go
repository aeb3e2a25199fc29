package work

import (
	"fmt"
	"strings"

	"zapbarn/core/measure"
	"zapbarn/core/wiring"
	"zapbarn/core/yard"
)

// Trial is one thing to be tried before the first guest comes: how, and what is to be seen
// or measured.
type Trial struct {
	At     string // the element, kind:id
	Prop   string
	What   string
	How    string
	Expect string
	Danger string // what to beware of; "" for nothing
}

// hands is what is said wherever something moves.
const hands = "Hands out of it; one stands at the stop button."

// Trials are those of what is switched, moves and sounds in a prop, or in all: direction,
// end stops, times, currents, contacts, levels.
func (w *Work) Trials(prop string) (out []Trial) {
	mine := func(p string) bool { return prop == "" || p == prop }
	moves := false
	for _, m := range w.Mechanisms() {
		moves = moves || mine(m.Of.Prop) && m.Of.Motor != ""
	}
	if moves {
		at := "prop:" + prop
		if prop == "" {
			at = "display:" + w.Plan.Display().ID
		}
		out = append(out, Trial{At: at, Prop: prop, What: "Stop button",
			How:    "Run everything that moves, then press it.",
			Expect: "every motor stops at once, and none starts again when it is let go", Danger: hands})
	}
	out = append(out, w.polarities(mine)...)
	out = append(out, w.contactTrials(mine)...)
	out = append(out, w.outputTrials(mine)...)
	for _, m := range w.Mechanisms() {
		if mine(m.Of.Prop) {
			out = append(out, w.movingTrials(m)...)
		}
	}
	for i := range w.Plan.Clips() {
		x := &w.Plan.Clips()[i]
		if h := w.Heard(x); mine(x.Prop) && h.Known {
			out = append(out, Trial{At: "clip:" + x.ID, Prop: x.Prop, What: "“" + x.Name + "”",
				How:    "Play it, and hold a level meter where guests stand, " + w.Len(h.AtGuest*1000) + " away.",
				Expect: fmt.Sprintf("%.0f dB, 3 more or less", h.Guests)})
		}
	}
	if prop == "" {
		out = append(out, w.darkTests()...)
	}
	return out
}

// Trial is the card of an element by its name; false where there is none any more.
func (w *Work) Trial(at, what string) (Trial, bool) {
	kind, _, _ := strings.Cut(at, ":")
	var all []Trial
	switch prop := w.Plan.PropOf(at); {
	case kind == "viewpoint":
		all = w.darkTests()
	case prop != "":
		all = w.Trials(prop)
	default:
		all = w.Trials("")
	}
	for _, t := range all {
		if t.At == at && t.What == what {
			return t, true
		}
	}
	return Trial{}, false
}

// polarities are what a meter says of supplies before anything hangs on them.
func (w *Work) polarities(mine func(string) bool) (out []Trial) {
	for i := range w.Plan.Devices() {
		d := &w.Plan.Devices()[i]
		if !d.Is(wiring.Origin) || !mine(d.Prop) {
			continue
		}
		v, _ := wiring.SupplyOf(d, w.Lib)
		out = append(out, Trial{At: "device:" + d.ID, Prop: d.Prop, What: d.Name + ", polarity",
			How:    "Nothing joined to it yet: a meter at its output, red on plus.",
			Expect: measure.Volts(v) + ", a tenth more or less, and not minus"})
	}
	return out
}

// darkTests are the looks from the viewpoints that are kept, in the dark.
func (w *Work) darkTests() (out []Trial) {
	y := w.Yard()
	for i := range w.Plan.Viewpoints() {
		x := &w.Plan.Viewpoints()[i]
		eye := yard.Spot{Pt: yard.Pt{X: m(x.X.Value()), Y: m(x.Y.Value())}, Z: m(x.Eye.Or(yard.AdultEye * 1000))}
		var sees []string
		for k, l := range y.Lamps {
			if !l.Fill && !yard.Blocked(eye, l.Spot, y.Hides, l.Of) && len(sees) < 6 {
				sees = append(sees, measure.Uncapital(y.Lit[k].Name))
			}
		}
		expect := "no bare lamp that only lights the scene"
		if len(sees) > 0 {
			expect = strings.Join(sees, ", ") + " are seen, and " + expect
		}
		out = append(out, Trial{At: "viewpoint:" + x.ID, What: "Dark test from " + measure.Uncapital(x.Name),
			How:    "All lit, everything else dark: stand there a minute, then look, once as a child does.",
			Expect: expect, Danger: "Somebody stays by the switch for the lights."})
	}
	return out
}

func (w *Work) nameOfMechanism(id string) string {
	if m := w.Plan.Mechanism(id); m != nil {
		return m.Name
	}
	return id
}

// movingTrials are those of one mechanism.
func (w *Work) movingTrials(m *Moved) (out []Trial) {
	x := m.Of
	add := func(what, how, expect string) {
		out = append(
			out,
			Trial{At: "mechanism:" + x.ID, Prop: x.Prop, What: x.Name + ", " + what, How: how, Expect: expect,
				Danger: hands},
		)
	}
	if d := w.Device(x.Up); d != nil {
		add(
			"direction",
			"Take the pull arm off or the load away; switch "+measure.Uncapital(d.Name)+" on for a moment.",
			"the shaft turns the way that lifts; if not, swap the motor's two leads",
		)
	}
	if m.Motor == nil || m.Up.Stalled {
		return out
	}
	add("time", "With its load on, run it up and down.",
		fmt.Sprintf("%s up, %s down, a fifth more or less", measure.Span(float64(m.UpMS)/1000),
			measure.Span(float64(m.DownMS)/1000)))
	add("current", "A meter in the motor's lead, through a whole travel.",
		measure.Amps(m.Up.Amps)+" at the most once it turns; more says that something rubs")
	stop := "it stops by its cue before it meets anything hard"
	if x.Stops {
		stop = "each end switch takes the motor's current away by itself"
	}
	add("end stops", "Hold the switch on longer than the travel takes, once each way.", stop)
	falls := "it stays where it is"
	if m.Drops {
		falls = "it goes back by itself, and nothing is under it"
	}
	add("power cut", "Pull the plug half way up.", falls+"; when power is back it does not move by itself")
	return out
}

// contactTrials are those of what is worked: each counts as often as it is.
func (w *Work) contactTrials(mine func(prop string) bool) (out []Trial) {
	for i := range w.Plan.Inputs() {
		x := &w.Plan.Inputs()[i]
		if !mine(x.Prop) || !x.Wired() {
			continue
		}
		t := Trial{At: "input:" + x.ID, Prop: x.Prop, What: x.Name, How: "Work it by hand and let it go, ten times.",
			Expect: "it counts ten times, no more"}
		if x.Mover != "" {
			t.How = "Move " + measure.Uncapital(
				w.nameOfMechanism(x.Mover),
			) + " slowly past it by hand, power off, then on."
			t.Expect = fmt.Sprintf("it closes at %d %% of the travel, once each way", x.Place)
			t.Danger = hands
		}
		out = append(out, t)
	}
	return out
}

// outputTrials are those of what is switched: each comes on alone.
func (w *Work) outputTrials(mine func(prop string) bool) (out []Trial) {
	for i := range w.Plan.Devices() {
		d := &w.Plan.Devices()[i]
		if !d.Driven || !mine(d.Prop) {
			continue
		}
		var feeds []string
		for _, k := range w.Plan.Devices() {
			if k.Is(wiring.Load) && w.Feeds(d.ID, k.ID) && len(feeds) < 4 {
				feeds = append(feeds, measure.Uncapital(k.Name))
			}
		}
		expect := "it alone comes on"
		if len(feeds) > 0 {
			expect = "only " + strings.Join(feeds, ", ") + " come on"
			if len(feeds) == 1 {
				expect = "only " + feeds[0] + " comes on"
			}
		}
		out = append(
			out,
			Trial{At: "device:" + d.ID, Prop: d.Prop, What: d.Name, How: "Switch it on by itself.", Expect: expect},
		)
	}
	return out
}
