package plan

import "zapbarn/core/measure"

// Plot is where a prop stands in the yard, and how it is held there.
type Plot struct {
	ID   string         `json:"id"`
	Prop string         `json:"prop" ref:"prop,needed"`
	X    measure.Length `json:"x,omitzero" label:"Right by"` // its middle, from the plan's corner
	Y    measure.Length `json:"y,omitzero" label:"Down by"`
	Turn measure.Angle  `json:"turn,omitzero" label:"Turned by"` // clockwise; its front looks down the plan
	// what its foot, its height and its weight are where the parts do not tell
	Wide    measure.Length `json:"wide,omitzero" label:"Foot, wide"`
	Deep    measure.Length `json:"deep,omitzero" label:"Foot, deep"`
	High    measure.Length `json:"high,omitzero" label:"Height"`
	Mass    measure.Mass   `json:"mass,omitzero" label:"Weighs"`
	Open    int            `json:"open,omitempty" label:"Wind goes through, %"` // of its outline seen from the front
	Face    string         `json:"face,omitempty" label:"Its face is" choose:"|round|ball"`
	Held    string         `json:"held,omitempty" label:"Held by" choose:"|ballast|stakes|guys|wall"`
	Ballast measure.Mass   `json:"ballast,omitzero" label:"Ballast"`
	Inside  bool           `json:"inside,omitempty" label:"Under a roof, out of the wind"`
	Group   string         `json:"group,omitempty" max:"40" label:"Group it moves with"`
	Fixed   bool           `json:"fixed,omitempty" label:"Locked in place"`
	// what was done so that it does not burn: what the fire authority asks to see
	Treated string `json:"treated,omitempty" label:"Flame treated on"`
	Sheet   string `json:"sheet,omitempty" max:"200" label:"Product, and its sheet" wide:"true"`
}

var plotKind = listed(kind{name: "plot", most: 400, twin: func(v any) (string, error) {
	return v.(*Plot).Prop, measure.Bad("prop", "stands in the yard already; move it")
}, again: func(any, *copying) string { return "" }}, func(p *Plan) *[]Plot { return &p.doc.Plots })

func (x *Plot) Key() string    { return x.ID }
func (x *Plot) Called() string { return "place of " + x.Prop }

// yardMost is how far a yard goes, mm.
const yardMost = 300 * metre

func inYard(field string, l measure.Length) error {
	return measure.Within(field, l, -yardMost, yardMost)
}

func (x *Plot) valid(checks) error {
	if x.Open < 0 || x.Open > 95 {
		return measure.Bad("open", "%d %%; write 0 to 95", x.Open)
	}
	for _, f := range []struct {
		field string
		m     measure.Mass
	}{{"mass", x.Mass}, {"ballast", x.Ballast}} {
		if v := f.m.Value(); v < 0 || v > 5000 {
			return measure.Bad(f.field, "%s is out of range; write up to 5000 kg", f.m)
		}
	}
	if t := x.Turn.Value(); t < -3600 || t > 3600 {
		return measure.Bad("turn", "%s is out of range; write such as 30 deg", x.Turn)
	}
	return measure.First(
		date("treated", x.Treated),
		inYard("x", x.X),
		inYard("y", x.Y),
		measure.Within("wide", x.Wide, 10, 30*metre),
		measure.Within("deep", x.Deep, 10, 30*metre),
		measure.Within("high", x.High, 10, 30*metre),
		measure.OneOf("face", x.Face, "", "round", "ball"),
		measure.OneOf("held", x.Held, "", "ballast", "stakes", "guys", "wall"),
	)
}

// PlotOf is where a prop stands, or nil.
func (p *Plan) PlotOf(prop string) *Plot {
	for i := range p.Plots() {
		if p.Plots()[i].Prop == prop {
			return &p.Plots()[i]
		}
	}
	return nil
}
