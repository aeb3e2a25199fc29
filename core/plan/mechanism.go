package plan

import (
	"slices"

	"zapbarn/core/measure"
	"zapbarn/core/wiring"
)

// Mechanism is something that a motor moves: by which way, between which ends, and what
// it carries. Lengths are from the hinge or the slide, as built.
type Mechanism struct {
	ID   string `json:"id"`
	Prop string `json:"prop" ref:"prop,needed"`
	Name string `json:"name" max:"80" label:"Name"`
	// how the motor's turn reaches the load
	Kind  string `json:"kind" label:"Kind" choose:"lid|slide|servo|winch|turntable"`
	Up    string `json:"up,omitempty" ref:"device" label:"Driven up by" choose:"driven"`
	Down  string `json:"down,omitempty" ref:"device" label:"and down by" choose:"driven"`
	Motor string `json:"motor,omitempty" ref:"device" label:"Motor" choose:"motors"`

	Crank  measure.Length `json:"crank,omitzero" label:"Crank"`
	Link   measure.Length `json:"link,omitzero" label:"Pull arm"`
	Arm    measure.Length `json:"arm,omitzero" label:"Takes hold at"`
	PivotX measure.Length `json:"pivotX,omitzero" label:"Motor right by"`
	PivotY measure.Length `json:"pivotY,omitzero" label:"Motor up by"`
	From   measure.Angle  `json:"from,omitzero" label:"Shaft from"`
	To     measure.Angle  `json:"to,omitzero" label:"to"`
	Drum   measure.Length `json:"drum,omitzero" label:"Drum across"`
	Travel measure.Length `json:"travel,omitzero" label:"Lifts by"`

	Carries   string           `json:"carries,omitempty" ref:"solid" label:"Carries" choose:"solids"`
	Mass      measure.Mass     `json:"mass,omitzero" label:"Weighs"`
	Reach     measure.Length   `json:"reach,omitzero" label:"Balance point at"`
	Lean      measure.Angle    `json:"lean,omitzero" label:"leaning by"`
	Tip       measure.Length   `json:"tip,omitzero" label:"Tip at"`
	Friction  int              `json:"friction,omitempty" label:"Friction, %"` // of the weight's torque; 15 when not given
	Spring    measure.Torque   `json:"spring,omitzero" label:"Spring helps by"`
	Counter   measure.Mass     `json:"counter,omitzero" label:"Counterweight"`
	CounterAt measure.Length   `json:"counterAt,omitzero" label:"that far out"`
	Wide      measure.Length   `json:"wide,omitzero" label:"Faces the wind, wide"`
	High      measure.Length   `json:"high,omitzero" label:"and high"`
	Time      measure.Duration `json:"time,omitzero" label:"Travel takes"`
	Guests    measure.Length   `json:"guests,omitzero" label:"Guests stand at"`
	X         measure.Length   `json:"x,omitzero" label:"Hinge right by"`
	Z         measure.Length   `json:"z,omitzero" label:"Hinge up by"`
	Crossed   bool             `json:"crossed,omitempty" label:"Pull arm crossed"`
	Springs   bool             `json:"springs,omitempty" label:"Goes back by itself"`
	Stops     bool             `json:"stops,omitempty" label:"End switches cut the motor"`
	Mirrored  bool             `json:"mirrored,omitempty" label:"Faces its twin"`
}

// MechanismKinds are the ways a motor's turn reaches a load.
var MechanismKinds = []string{"lid", "slide", "servo", "winch", "turntable"}

// used are the fields of each kind besides those of all.
var used = map[string][]string{
	"lid": {
		"crank",
		"link",
		"arm",
		"pivotX",
		"pivotY",
		"from",
		"to",
		"reach",
		"lean",
		"tip",
		"counter",
		"counterAt",
		"spring",
		"crossed",
	},
	"slide":     {"crank", "link", "pivotX", "from", "to", "counter"},
	"servo":     {"from", "to", "reach", "lean", "tip", "counter", "counterAt", "spring", "mirrored"},
	"winch":     {"drum", "travel", "counter"},
	"turntable": {"from", "to", "reach", "tip"},
}

// Shows is whether a field means something for its kind.
func (x *Mechanism) Shows(field string) bool {
	for _, names := range used {
		if slices.Contains(names, field) {
			return slices.Contains(used[x.Kind], field)
		}
	}
	return true
}

var mechanismKind = listed(kind{name: "mechanism", most: 400, again: func(v any, c *copying) string {
	x := v.(*Mechanism)
	x.ID = c.fresh("mechanism", c.prop+"-"+x.Name)
	return x.ID
}}, func(p *Plan) *[]Mechanism { return &p.doc.Mechanisms })

func (x *Mechanism) Key() string    { return x.ID }
func (x *Mechanism) Called() string { return x.Name }

func (x *Mechanism) valid(c checks) error {
	if d := c.wires.Device(x.Motor); x.Motor != "" && (d == nil || !d.Is(wiring.Load)) {
		return measure.Bad("motor", "%s is no motor", x.Motor)
	}
	for _, f := range []struct{ field, id string }{{"up", x.Up}, {"down", x.Down}} {
		if d := c.wires.Device(f.id); f.id != "" && (d == nil || !d.Channel()) {
			return measure.Bad(f.field, "%s is not a switch that scenes drive", f.id)
		}
	}
	if x.Up != "" && x.Up == x.Down {
		return measure.Bad(
			"down",
			"is the switch that drives it up; name another, or none where it goes back by itself",
		)
	}
	if x.Friction < 0 || x.Friction > 300 {
		return measure.Bad("friction", "%d %%; write 0 to 300", x.Friction)
	}
	within := func(field string, l measure.Length) error { return measure.Within(field, l, 0, 10*metre) }
	turn := func(field string, a measure.Angle) error {
		if v := a.Value(); v < -3600 || v > 3600 {
			return measure.Bad(field, "%s is out of range; write -3600 to 3600 degrees", a)
		}
		return nil
	}
	mass := func(field string, m measure.Mass) error {
		if v := m.Value(); v < 0 || v > 500 {
			return measure.Bad(field, "%s is out of range; write up to 500 kg", m)
		}
		return nil
	}
	side := func(field string, l measure.Length) error { return measure.Within(field, l, -10*metre, 10*metre) }
	return measure.First(
		measure.Named(x.Name),
		measure.OneOf("kind", x.Kind, MechanismKinds...),
		within("crank", x.Crank),
		within("link", x.Link),
		within("arm", x.Arm),
		side("pivotX", x.PivotX),
		side(
			"pivotY",
			x.PivotY,
		),
		turn("from", x.From),
		turn("to", x.To),
		turn("lean", x.Lean),
		within("drum", x.Drum),
		within("travel", x.Travel),
		mass("mass", x.Mass),
		mass("counter", x.Counter),
		within("reach", x.Reach),
		within("tip", x.Tip),
		within("counterAt", x.CounterAt),
		within("wide", x.Wide),
		within("high", x.High),
		within("guests", x.Guests), side("x", x.X), within("z", x.Z),
		seconds("time", x.Time, 3600),
	)
}

// Lacks are the sizes without which nothing can be worked out, by their fields.
func (x *Mechanism) Lacks() (out []string) {
	need := map[string][]string{"lid": {"crank", "link", "arm", "reach"}, "slide": {"crank", "link"},
		"servo": {"reach"}, "winch": {"drum", "travel"}, "turntable": {"reach"}}[x.Kind]
	has := map[string]bool{"crank": x.Crank.Value() > 0, "link": x.Link.Value() > 0, "arm": x.Arm.Value() > 0,
		"reach": x.Reach.Value() > 0, "drum": x.Drum.Value() > 0, "travel": x.Travel.Value() > 0}
	for _, f := range need {
		if !has[f] {
			out = append(out, f)
		}
	}
	if x.Kind != "winch" && x.From.Value() == x.To.Value() {
		out = append(out, "to")
	}
	if x.Mass.IsZero() && x.Carries == "" {
		out = append(out, "mass")
	}
	return out
}

// Mechanism is the one with that ID, or nil.
func (p *Plan) Mechanism(id string) *Mechanism {
	return find(p.Mechanisms(), id, func(m *Mechanism) string { return m.ID })
}
