package plan

import (
	"strconv"
	"strings"

	"zapbarn/core/measure"
)

// Walkway is a way that people walk: the guests' path from where they come in, a way out,
// the street they see the display from.
type Walkway struct {
	ID      string         `json:"id"`
	Name    string         `json:"name" max:"80" label:"Name"`
	Kind    string         `json:"kind" label:"Is" choose:"path|way out|street"`
	Through string         `json:"through" max:"2000" label:"Goes through" wide:"true"` // 3 ft, 26 ft; 14 ft, 19 ft
	Wide    measure.Length `json:"wide,omitzero" label:"Width"`                         // 4 ft when not given
	Speed   measure.Speed  `json:"speed,omitzero" label:"Walked at"`                    // 0.6 m/s, in the dark
	Fixed   bool           `json:"fixed,omitempty" label:"Locked in place"`
}

// WalkwayKinds are what a walkway can be.
var WalkwayKinds = []string{"path", "way out", "street"}

var walkwayKind = listed(kind{name: "walkway", most: 40}, func(p *Plan) *[]Walkway { return &p.doc.Walkways })

func (x *Walkway) Key() string    { return x.ID }
func (x *Walkway) Called() string { return x.Name }

func (x *Walkway) valid(c checks) error {
	if pts, err := Route("through", x.Through, c.plan.Display().Units); err != nil {
		return err
	} else if len(pts) < 2 {
		return measure.Bad("through", "needs two places or more; write such as 3 ft, 26 ft; 14 ft, 19 ft")
	}
	if v := x.Speed.Or(1); v < 0.1 || v > 5 {
		return measure.Bad("speed", "%s is no walk; write such as 0.6 m/s", x.Speed)
	}
	return measure.First(measure.Named(x.Name), measure.OneOf("kind", x.Kind, WalkwayKinds...),
		measure.Within("wide", x.Wide, 200, 20*metre))
}

// YardLength reads a length of the yard: a bare number is feet there, or metres where the
// plan is metric.
func YardLength(text, units string) (measure.Length, error) {
	text = strings.TrimSpace(text)
	if _, err := strconv.ParseFloat(text, 64); err == nil {
		if units == "mm" {
			return measure.ParseLengthIn(text+" m", units)
		}
		return measure.ParseLengthIn(text+" ft", units)
	}
	return measure.ParseLengthIn(text, units)
}

// Corner is one of a route, mm.
type Corner struct{ X, Y float64 }

// Route reads a route: places apart by semicolons, each how far right and how far down. A
// bare number is feet, or metres where the plan is metric. Nothing is no place.
func Route(field, text, units string) (out []Corner, err error) {
	for i, one := range strings.Split(text, ";") {
		if strings.TrimSpace(one) == "" {
			continue
		}
		two := strings.Split(one, ",")
		if len(two) != 2 {
			return nil, measure.Bad(field, "place %d, %q, is not two lengths; write such as 3 ft, 26 ft", i+1,
				strings.TrimSpace(one))
		}
		var at [2]float64
		for k := range two {
			l, err := YardLength(two[k], units)
			if err != nil {
				return nil, measure.Bad(field, "%s", err.Error())
			}
			if err := inYard(field, l); err != nil {
				return nil, err
			}
			at[k] = l.Value()
		}
		out = append(out, Corner{at[0], at[1]})
	}
	if len(out) > 100 {
		return nil, measure.Bad(field, "has %d places; at most 100", len(out))
	}
	return out, nil
}

// RouteText writes a route as it is read.
func RouteText(places []Corner, metric bool) string {
	out := make([]string, len(places))
	for i, p := range places {
		out[i] = measure.Tape(p.X, metric) + ", " + measure.Tape(p.Y, metric)
	}
	return strings.Join(out, "; ")
}
