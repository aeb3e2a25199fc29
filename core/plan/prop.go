package plan

import (
	"strings"

	"zapbarn/core/measure"
)

// OutsideOnly is how a prop is painted of which only what faces out gets coats.
const OutsideOnly = "outside only"

// Prop is one piece of the display.
type Prop struct {
	ID    string         `json:"id"`
	Name  string         `json:"name" max:"80" label:"Name"`
	Known measure.Length `json:"known,omitzero" label:"One known dimension"` // the one known dimension
	// what it measures: height, width or depth
	Of    string `json:"of,omitempty" label:"It is the" choose:"height|width|depth"`
	Stage string `json:"stage,omitempty" label:"Stage" choose:"|idea|drawn|cut|glued|wired|proven|closed|standing"`
	// where it is glued and painted: garage, yard, warm room; the workshop's air when not given
	Temp measure.Celsius `json:"temp,omitzero" label:"Dries at"`
	RH   int             `json:"rh,omitempty" label:"in humidity, %"`
	// what of it is painted: all that a brush meets, or what faces out alone
	Paint    string `json:"paint,omitempty" label:"Painted" choose:"|outside only"`
	PaintWhy string `json:"paintWhy,omitempty" max:"200" label:"because" wide:"true"`
	Note     string `json:"note,omitempty" max:"2000" label:"Note" wide:"true"`
}

var propKind = listed(kind{name: "prop", most: 400}, func(p *Plan) *[]Prop { return &p.doc.Props })

func (x *Prop) Key() string    { return x.ID }
func (x *Prop) Called() string { return x.Name }

func (x *Prop) valid(c checks) error {
	if x.RH < 0 || x.RH > 100 {
		return measure.Bad("rh", "%d %% cannot be; write 1 to 100", x.RH)
	}
	if t := x.Temp.Or(21); t < -30 || t > 60 {
		return measure.Bad("temp", "%s is no place to work; write -30 C to 60 C", x.Temp)
	}
	if x.Paint == OutsideOnly && strings.TrimSpace(x.PaintWhy) == "" {
		return measure.Bad("paintWhy",
			"is empty; say why nothing else of it is painted, such as: its back stands against a wall")
	}
	return measure.First(
		measure.Named(x.Name),
		measure.OneOf("paint", x.Paint, "", OutsideOnly),
		measure.Within("known", x.Known, 10, 30*metre),
		measure.OneOf("of", x.Of, "", "height", "width", "depth"),
		measure.OneOf("stage", x.Stage, append([]string{""}, StageNames...)...),
	)
}
