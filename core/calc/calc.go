// Package calc holds the single calculators: each registered once, with its
// parameters and sources, and used by the command line, the screens and the
// documentation alike.
package calc

import (
	"fmt"
	"math"
	"sort"
	"strconv"
	"strings"
	"time"

	"zapbarn/core/bond"
	"zapbarn/core/circuit"
	"zapbarn/core/measure"
	"zapbarn/core/nest"
	"zapbarn/core/pattern"
	"zapbarn/core/source"
	"zapbarn/core/stock"
)

// Param is one input of a calculator.
type Param struct {
	Name    string `json:"name"`
	Kind    string `json:"kind"` // one of domains, or text
	Doc     string `json:"doc"`
	Default string `json:"default,omitempty"` // "" must be given
}

// Calculator is one sum.
type Calculator struct {
	Name   string  `json:"name"`
	Doc    string  `json:"doc"`
	Params []Param `json:"params"`
	run    func(in Inputs) ([]source.Result, error)
}

// Inputs are the parsed values: base units for quantities, text for text.
type Inputs struct {
	num   map[string]float64
	text  map[string]string
	drawn **pattern.Shape
}

// N is a number in its base unit; T the text as written.
func (in Inputs) N(name string) float64 { return in.num[name] }

// T is a parameter's text as written.
func (in Inputs) T(name string) string { return in.text[name] }

var all = map[string]Calculator{}

func register(name, doc string, params []Param, run func(in Inputs) ([]source.Result, error)) bool {
	all[name] = Calculator{name, doc, params, run}
	return true
}

// List is every calculator by name.
func List() []Calculator {
	var out []Calculator
	for _, c := range all {
		out = append(out, c)
	}
	sort.Slice(out, func(i, j int) bool { return out[i].Name < out[j].Name })
	return out
}

// Named finds a calculator.
func Named(name string) (Calculator, error) {
	c, ok := all[name]
	if !ok {
		var names []string
		for _, c := range List() {
			names = append(names, c.Name)
		}
		return c, measure.Bad("name", "there is no calculator %q; choose %s", name, strings.Join(names, ", "))
	}
	return c, nil
}

// Run parses the arguments as written and runs the calculator, in the units
// they are written in.
func (c Calculator) Run(args map[string]string) ([]source.Result, error) {
	_, _, rs, err := c.Lay(args, "")
	return rs, err
}

// Lay is Run in units of choice ("in", "mm", or "" for those of the arguments),
// and hands over the shape a pattern was laid out as (nil for other sums) and
// the inputs, so that it can be drawn. A bare length is in those units, and so
// are the answers.
func (c Calculator) Lay(
	args map[string]string,
	units string,
) (in Inputs, s *pattern.Shape, rs []source.Result, err error) {
	in = Inputs{map[string]float64{}, map[string]string{}, &s}
	if units == "" {
		units = c.unitsOf(args)
	}
	metric := units == "mm"
	if err = in.read(c, args, units); err == nil {
		rs, err = c.run(in)
	}
	for i := range rs {
		rs[i] = rs[i].InUnits(metric)
	}
	return in, s, rs, measure.ErrorIn(err, metric)
}

// unitsOf are the units lengths were written in: metric when one is, and none is
// in inches or feet.
func (c Calculator) unitsOf(args map[string]string) string {
	mm, inch := false, false
	for _, p := range c.Params {
		if p.Kind == "length" {
			text := strings.ToLower(args[p.Name])
			inch = inch || strings.ContainsAny(text, `'"’”`) || strings.Contains(text, "in") ||
				strings.Contains(text, "ft")
			mm = mm || strings.Contains(text, "m") && !strings.Contains(text, "mil")
		}
	}
	if mm && !inch {
		return "mm"
	}
	return "in"
}

func (in Inputs) read(c Calculator, args map[string]string, units string) error {
	known := map[string]bool{}
	for _, p := range c.Params {
		known[p.Name] = true
		text := strings.TrimSpace(args[p.Name])
		if text == "" {
			text = p.Default
		}
		if text == "" {
			return measure.Bad(p.Name, "is empty; write %s", p.Doc)
		}
		v, err := read(p.Kind, text, units)
		if err != nil {
			return measure.Bad(p.Name, "%s", err)
		}
		if err := p.within(v, text); err != nil {
			return err
		}
		in.num[p.Name], in.text[p.Name] = v, text
	}
	for name := range args {
		if !known[name] {
			var names []string
			for _, p := range c.Params {
				names = append(names, p.Name)
			}
			return measure.Bad(name, "is no parameter of %s; it takes %s", c.Name, strings.Join(names, ", "))
		}
	}
	return nil
}

// domain is what values of a kind may be: from Low to High in the base unit;
// words say so.
type domain struct {
	low, high float64
	words     string
}

// domains by kind. A parameter that must be given must be more than nothing
// where its kind starts at nothing: no sum has a length of 0.
var domains = map[string]domain{
	"length":  {0, 100_000, "up to 100 m (328 ft)"},
	"volts":   {0, 1000, "up to 1000 V"},
	"amps":    {0, 1000, "up to 1000 A"},
	"ohms":    {0, 1e9, "up to 1000 Mohm"},
	"watts":   {0, 100_000, "up to 100 kW"},
	"gauge":   {0, 1000, "such as 18 AWG"},
	"angle":   {-360, 360, "degrees, -360 to 360"},
	"percent": {0, 100, "per cent, 0 to 100"},
	"hours":   {0, 24 * 366, "hours, such as 4 or 4 h"},
	"time":    {0, 366 * 86400, "such as 2 h or 30 min"},
	"temp":    {-60, 200, "-60 C to 200 C"},
	"number":  {0, 1e6, "0 to 1000000"},
	"count":   {0, 1e6, "a whole number, 0 to 1000000"},
}

// within refuses a value out of its kind's domain, naming field, value and what
// is accepted.
func (p Param) within(v float64, text string) error {
	d, ok := domains[p.Kind]
	if !ok {
		return nil
	}
	if p.Default == "" && d.low == 0 && p.Kind != "count" && p.Kind != "percent" && v == 0 {
		return measure.Bad(p.Name, "%s is nothing; write more than that, %s", text, d.words)
	}
	if v < d.low || v > d.high {
		return measure.Bad(p.Name, "%s is out of range; write %s", text, d.words)
	}
	return nil
}

func read(kind, text, units string) (float64, error) {
	switch kind {
	case "length":
		w, err := measure.ParseLengthIn(text, units)
		return w.Value(), err
	case "volts":
		return value[measure.VoltKind](text)
	case "amps":
		return value[measure.AmpKind](text)
	case "ohms":
		return value[measure.OhmKind](text)
	case "watts":
		return value[measure.WattKind](text)
	case "gauge":
		return value[measure.GaugeKind](text)
	case "angle":
		return value[measure.AngleKind](text)
	case "temp":
		return value[measure.CelsiusKind](text)
	case "time":
		if v, err := strconv.ParseFloat(text, 64); err == nil && v != 0 {
			return 0, fmt.Errorf("%s has no unit; write such as %s h or %s min", text, text, text)
		}
		return value[measure.DurationKind](text)
	case "hours":
		if v, err := plainNumber(text); err == nil {
			return v, nil
		}
		w, err := measure.Parse[measure.DurationKind](text)
		if err != nil {
			return 0, fmt.Errorf("%q is not understood; write hours, such as 4 or 4 h", text)
		}
		return w.Value() / 3600, nil
	case "percent":
		v, err := plainNumber(strings.TrimSpace(strings.TrimSuffix(text, "%")))
		if err != nil {
			return 0, fmt.Errorf("%q is not understood; write per cent, such as 3 or 3 %%", text)
		}
		return v, nil
	case "number":
		v, err := plainNumber(text)
		if err != nil {
			return 0, fmt.Errorf("%q is not a number; it takes no unit", text)
		}
		return v, nil
	case "count":
		v, err := plainNumber(text)
		if err != nil || v != math.Trunc(v) {
			return 0, fmt.Errorf("%q is not a whole number", text)
		}
		return v, nil
	}
	return 0, nil
}

// value is a measure in its base unit.
func value[K measure.Kind](text string) (float64, error) {
	w, err := measure.Parse[K](text)
	return w.Value(), err
}

// plainNumber is a number with no unit.
func plainNumber(text string) (float64, error) {
	v, err := strconv.ParseFloat(text, 64)
	if err == nil && (math.IsNaN(v) || math.IsInf(v, 0) || strings.ContainsAny(text, "xX_")) {
		err = strconv.ErrSyntax
	}
	return v, err
}

func one(r source.Result, err error) ([]source.Result, error) {
	if err != nil {
		return nil, err
	}
	return []source.Result{r}, nil
}

func (in Inputs) shape(s *pattern.Shape, err error) ([]source.Result, error) {
	if err != nil {
		return nil, err
	}
	*in.drawn = s
	out := s.Results
	for _, p := range s.Panels {
		lo, hi := p.Bounds()
		size := measure.Marked(hi.X-lo.X) + " x " + measure.Marked(hi.Y-lo.Y)
		out = append(
			out,
			source.Result{
				Key:   source.What(p.ID),
				Label: fmt.Sprintf("%s, cut %d", p.Name, p.Copies),
				Value: p.Area(),
				Unit:  "mm2",
				Text:  size,
			}.
				With(
					"extent of both faces",
					fmt.Sprintf("%.1f by %.1f mm", hi.X-lo.X, hi.Y-lo.Y),
					size,
					source.Exact("outside sizes, stock thickness counted"),
				),
		)
	}
	return out, nil
}

var (
	_ = register(
		"length",
		"A length read and written in inches and millimetres.",
		[]Param{{"of", "length", "a length as written, such as 4'6\"", ""}},
		func(in Inputs) ([]source.Result, error) {
			v := in.N("of")
			return one(
				source.Result{
					Key:   source.What("length"),
					Label: "Length",
					Value: v,
					Unit:  "mm",
					Text:  measure.Marked(v) + " = " + measure.Decimal(v, 3) + " mm",
				}.
					With(
						"1 in = 25.4 mm",
						in.T("of"),
						measure.Decimal(v, 3)+" mm",
						source.Std("international inch, exact"),
					),
				nil,
			)
		},
	)
	_ = register(
		"box",
		"Panels of a box, stock thickness counted.",
		[]Param{
			{"w", "length", "outside width", ""},
			{"d", "length", "outside depth", ""},
			{"h", "length", "outside height", ""},
			{"t", "length", "stock thickness", "1 in"},
			{"joint", "text", "butt, mitre or rabbet", "butt"},
			{"bottom", "count", "1 with a bottom", "0"},
			{"lid", "count", "1 with a lid", "0"},
			{"overhang", "length", "of the lid", "0 in"},
		},
		func(in Inputs) ([]source.Result, error) {
			return in.shape(
				pattern.Box{
					W:        in.N("w"),
					D:        in.N("d"),
					H:        in.N("h"),
					T:        in.N("t"),
					Joint:    in.T("joint"),
					Bottom:   in.N("bottom") > 0,
					Lid:      in.N("lid") > 0,
					Overhang: in.N("overhang"),
				}.Lay(),
			)
		},
	)
	_ = register(
		"tower",
		"Saw settings and faces of an n-sided tapered tower or hopper.",
		[]Param{
			{"n", "count", "number of sides", "4"},
			{"h", "length", "upright height", ""},
			{"bottom", "length", "across the flats at the bottom", ""},
			{"top", "length", "across the flats at the top", ""},
			{"t", "length", "stock thickness", "1 in"},
		},
		func(in Inputs) ([]source.Result, error) {
			return in.shape(
				pattern.Tower{
					N:      int(in.N("n")),
					H:      in.N("h"),
					Bottom: in.N("bottom"),
					Top:    in.N("top"),
					T:      in.N("t"),
				}.Lay(),
			)
		},
	)
	_ = register(
		"compound",
		"Compound angles of a leaning panel: cut angle on the face and blade tilt.",
		[]Param{{"slope", "angle", "slope of the face from level", ""}, {"n", "count", "number of sides", "4"}},
		func(in Inputs) ([]source.Result, error) {
			s, n := in.N("slope"), int(in.N("n"))
			if s <= 0 || s >= 180 {
				return nil, measure.Bad("slope", "%g is no slope; write more than 0 and less than 180 degrees", s)
			}
			if n < 3 || n > 64 {
				return nil, measure.Bad("n", "%d sides; write 3 to 64", n)
			}
			m, b := pattern.Compound(s, n)
			from := source.Std("crown-moulding saw tables")
			return []source.Result{
				source.Result{
					Key:   source.What("cut"),
					Label: "Cut angle on the face",
					Value: m,
					Unit:  "deg",
					Text:  measure.Degrees(m),
				}.With(
					"M = atan(cos s tan(180/n))",
					fmt.Sprintf("atan(cos %g tan %g)", s, 180/float64(n)),
					measure.Degrees(m),
					from,
				),
				source.Result{
					Key:   source.What("tilt"),
					Label: "Blade tilt",
					Value: b,
					Unit:  "deg",
					Text:  measure.Degrees(b),
				}.With(
					"B = asin(sin s sin(180/n))",
					fmt.Sprintf("asin(sin %g sin %g)", s, 180/float64(n)),
					measure.Degrees(b),
					from,
				)}, nil
		},
	)
	_ = register(
		"near-stop",
		"What setting the saw to its nearest stop costs.",
		[]Param{{"t", "length", "stock thickness", "1 in"}, {"tilt", "angle", "true tilt", ""}},
		func(in Inputs) ([]source.Result, error) {
			tilt := in.N("tilt")
			if tilt < 0 || tilt > 60 {
				return nil, measure.Bad("tilt", "%g is beyond a saw; write 0 to 60", tilt)
			}
			stop := pattern.NearStop(tilt)
			gap := pattern.NearStopGap(in.N("t"), tilt, stop)
			return one(
				source.Result{
					Key:   source.What("gap"),
					Label: "Gap at " + measure.Degrees(stop),
					Value: gap,
					Unit:  "mm",
					Text:  measure.Decimal(gap, 2) + " mm",
				}.
					With(
						"gap = 2 t / cos(stop) sin(stop - B)",
						fmt.Sprintf("2 x %.3f mm / cos %g x sin(%.4f)", in.N("t"), stop, stop-tilt),
						measure.Decimal(gap, 2)+" mm",
						source.Exact("two cut faces turned about one corner"),
					),
				nil,
			)
		},
	)
	_ = register(
		"disc",
		"A disc or ring of sheet.",
		[]Param{
			{"d", "length", "diameter", ""},
			{"bore", "length", "hole in its middle", "0 in"},
			{"t", "length", "stock thickness", "1 in"},
		},
		func(in Inputs) ([]source.Result, error) {
			return in.shape(pattern.Disc{D: in.N("d"), Bore: in.N("bore"), T: in.N("t"), Copies: 1}.Lay())
		},
	)
	_ = register(
		"rings",
		"A stack of rings, straight or stepped.",
		[]Param{
			{"bottom", "length", "outside diameter at the bottom", ""},
			{"top", "length", "outside diameter at the top", ""},
			{"h", "length", "height", ""},
			{"wall", "length", "wall, radial", ""},
			{"t", "length", "stock thickness", "2 in"},
		},
		func(in Inputs) ([]source.Result, error) {
			return in.shape(
				pattern.Rings{
					Bottom: in.N("bottom"),
					Top:    in.N("top"),
					H:      in.N("h"),
					Wall:   in.N("wall"),
					T:      in.N("t"),
				}.Lay(),
			)
		},
	)
	_ = register(
		"pipe",
		"A pipe's outside, wall and bore.",
		[]Param{{"size", "text", "trade size of schedule 40 PVC: 1/2, 3/4, 1, 1.25, 1.5, 2, 2.5, 3 or 4", ""}},
		func(in Inputs) ([]source.Result, error) {
			m, ok := stock.Shop.Materials["pvc"+in.T("size")]
			if !ok {
				return nil, measure.Bad(
					"size",
					"there is no schedule 40 pipe %q; write 1/2, 3/4, 1, 1.25, 1.5, 2, 2.5, 3 or 4",
					in.T("size"),
				)
			}
			return one(
				source.Result{
					Key:   source.What("bore"),
					Label: "Bore",
					Value: m.Bore(),
					Unit:  "mm",
					Text:  measure.Decimal(m.Bore()/measure.Inch, 3) + " in",
				}.
					With(
						"bore = OD - 2 wall",
						fmt.Sprintf("%s - 2 x %s", m.OD, m.Wall),
						measure.Decimal(m.Bore()/measure.Inch, 3)+" in",
						m.From(),
					),
				nil,
			)
		},
	)
	_ = register(
		"pipe-cut",
		"Fewest stock lengths for a list of pipe.",
		[]Param{
			{"lengths", "text", "count@length list, such as 6@44in,4@60in", ""},
			{"stock", "length", "stock length", "10 ft"},
			{"kerf", "length", "saw kerf", "1/8 in"},
		},
		func(in Inputs) ([]source.Result, error) {
			var pieces []float64
			for _, w := range strings.FieldsFunc(in.T("lengths"), func(r rune) bool { return r == ' ' || r == ',' }) {
				n, l, ok := strings.Cut(w, "@")
				k, err := strconv.Atoi(n)
				length, err2 := measure.Parse[measure.LengthKind](l)
				if !ok || err != nil || err2 != nil || k < 1 || k > 2000 || length.Value() <= 0 ||
					len(pieces) > 2000 {
					return nil, measure.Bad("lengths", "%q is not understood; write such as 6@44in,4@60in", w)
				}
				for range k {
					pieces = append(pieces, length.Value())
				}
			}
			if in.N("stock") <= 0 || in.N("kerf") < 0 {
				return nil, measure.Bad("stock", "must be more than nothing, such as 10 ft")
			}
			c := nest.Lengths(pieces, in.N("stock"), in.N("kerf"))
			if c.TooLong != nil {
				return nil, measure.Bad(
					"lengths",
					"%s is longer than the stock's %s",
					measure.Marked(c.TooLong[0]),
					in.T("stock"),
				)
			}
			proof := "proven least"
			if !c.Proven {
				proof = fmt.Sprintf("at least %d needed", c.Bound)
			}
			r := source.Result{
				Key:   source.What("bars"),
				Label: "Stock lengths",
				Value: float64(len(c.Bars)),
				Text:  fmt.Sprintf("%d, %s", len(c.Bars), proof),
			}
			for i, b := range c.Bars {
				var cut []string
				for _, p := range b.Pieces {
					cut = append(cut, measure.Marked(p))
				}
				r = r.With(
					fmt.Sprintf("length %d", i+1),
					strings.Join(cut, " and "),
					measure.Marked(b.Left)+" left",
					source.Exact("exact search"),
				)
			}
			return one(r, nil)
		},
	)
	_ = register(
		"wire",
		"Resistance and limit of a run of wire.",
		[]Param{
			{"gauge", "gauge", "wire size", ""},
			{"length", "length", "one way", "1 m"},
			{"temp", "temp", "of the copper", "20 C"},
			{"amps", "amps", "current through it", "1 A"},
			{"volts", "volts", "of the supply", "12 V"},
		},
		func(in Inputs) ([]source.Result, error) {
			per := stock.CopperOhmsPerMetre(in.N("gauge"), in.N("temp"))
			r := circuit.WireOhms(in.N("gauge"), in.N("length"), in.N("temp"))
			drop := r * in.N("amps")
			if in.N("volts") <= 0 || in.N("length") <= 0 {
				return nil, measure.Bad("volts", "must be more than nothing, such as 12 V")
			}
			return []source.Result{
				source.Result{
					Key:   source.What("ohms"),
					Label: "Both conductors",
					Value: r,
					Unit:  "ohm",
					Text:  measure.Ohms(r),
				}.With(
					"R = 2 rho L / A (1 + alpha (T - 20))",
					fmt.Sprintf("2 x %.3f mohm/m x %.3f m", per*1000, in.N("length")/1000),
					measure.Ohms(r),
					stock.CopperFrom,
					stock.GaugeFrom,
				),
				source.Result{
					Key:   source.What("drop"),
					Label: "Drop",
					Value: drop,
					Unit:  "V",
					Text:  fmt.Sprintf("%s, %.1f %%", measure.Volts(drop), 100*drop/in.N("volts")),
				}.With(
					"V = I R",
					fmt.Sprintf("%s x %s", measure.Amps(in.N("amps")), measure.Ohms(r)),
					measure.Volts(drop),
					source.Std("Ohm's law"),
					circuit.BudgetFrom,
				),
				source.Result{
					Key:   source.What("carry"),
					Label: "May carry",
					Value: stock.Ampacity(in.N("gauge")),
					Unit:  "A",
					Text:  measure.Amps(stock.Ampacity(in.N("gauge"))),
				}.With(
					"limit of the next smaller listed gauge",
					in.T("gauge")+" wire",
					measure.Amps(stock.Ampacity(in.N("gauge"))),
					stock.AmpacityFrom,
				)}, nil
		},
	)
	_ = register(
		"gauge",
		"Thinnest stocked wire for a run.",
		[]Param{
			{"length", "length", "one way", ""},
			{"amps", "amps", "current at its end", ""},
			{"volts", "volts", "of the supply", "12 V"},
			{"drop", "percent", "budget", "3"},
		},
		func(in Inputs) ([]source.Result, error) {
			n := circuit.ChooseGauge(in.N("length"), in.N("amps"), in.N("volts"), in.N("drop")/100)
			if n < 0 {
				return nil, measure.Bad(
					"amps",
					"no stocked wire keeps %s within %g %% over %s; feed it from nearer or at a higher voltage",
					in.T("amps"),
					in.N("drop"),
					in.T("length"),
				)
			}
			r := circuit.WireOhms(measure.AWGArea(n), in.N("length"), 20)
			return one(
				source.Result{
					Key:   source.What("gauge"),
					Label: "Wire",
					Value: float64(n),
					Unit:  "AWG",
					Text:  fmt.Sprintf("%d AWG", n),
				}.
					With(
						"thinnest with I <= limit and I R <= budget",
						fmt.Sprintf("%s x %s = %s", in.T("amps"), measure.Ohms(r), measure.Volts(r*in.N("amps"))),
						fmt.Sprintf("%d AWG", n),
						stock.AmpacityFrom,
						circuit.BudgetFrom,
					),
				nil,
			)
		},
	)
	_ = register(
		"led",
		"Series resistor of bare LEDs.",
		[]Param{
			{"vs", "volts", "supply", "12 V"},
			{"vf", "volts", "forward volts of one", "3.2 V"},
			{"n", "count", "in one row", "1"},
			{"amps", "amps", "wanted current", "20 mA"},
		},
		func(in Inputs) ([]source.Result, error) {
			_, _, r, err := circuit.LEDResistor(in.N("vs"), in.N("vf"), int(in.N("n")), in.N("amps"))
			return one(r, err)
		},
	)
	_ = register(
		"fuse",
		"Fuse for a run.",
		[]Param{{"amps", "amps", "running current", ""}, {"gauge", "gauge", "thinnest wire behind it", ""}},
		func(in Inputs) ([]source.Result, error) {
			carry := stock.Ampacity(in.N("gauge"))
			f := circuit.ChooseFuse(in.N("amps"), carry)
			if f == 0 {
				return nil, measure.Bad(
					"gauge",
					"no stocked fuse lies between 1.25 x %s and the %s that wire may carry; use thicker wire",
					in.T("amps"),
					measure.Amps(carry),
				)
			}
			return one(
				source.Result{Key: source.What("fuse"), Label: "Fuse", Value: f, Unit: "A", Text: measure.Amps(f)}.
					With(
						"smallest stocked with 1.25 I <= fuse <= wire's limit",
						fmt.Sprintf("1.25 x %s .. %s", in.T("amps"), measure.Amps(carry)),
						measure.Amps(f),
						stock.FuseFrom,
						stock.AmpacityFrom,
					),
				nil,
			)
		},
	)
	_ = register(
		"glue",
		"Verdict on a glue between two materials.",
		[]Param{
			{"a", "text", "material, such as xps1", ""},
			{"b", "text", "material, such as ply1/4", ""},
			{"glue", "text", "such as pu, pva, hotlow", ""},
			{"age", "time", "since opened", "0 s"},
			{"temp", "temp", "of the shop", "21 C"},
			{"rh", "percent", "humidity", "50"},
		},
		func(in Inputs) ([]source.Result, error) {
			a, ok1 := stock.Shop.Materials[in.T("a")]
			b, ok2 := stock.Shop.Materials[in.T("b")]
			g, ok3 := stock.Shop.Glues[in.T("glue")]
			for i, ok := range []bool{ok1, ok2} {
				if name := []string{"a", "b"}[i]; !ok {
					return nil, measure.Bad(
						name,
						"the shop has no %q; it has %s",
						in.T(name),
						strings.Join(stock.IDs(stock.Shop.Materials), ", "),
					)
				}
			}
			if !ok3 {
				return nil, measure.Bad(
					"glue",
					"the shop has no %q; it has %s",
					in.T("glue"),
					strings.Join(stock.IDs(stock.Shop.Glues), ", "),
				)
			}
			v := bond.Judge(bond.Joint{A: a, B: b, Glue: g, Age: in.N("age"), Temp: in.N("temp"), RH: in.N("rh")})
			r := source.Result{
				Key:   source.What("verdict"),
				Label: g.Name + " on " + a.Name + " and " + b.Name,
				Value: float64(v.Verdict),
				Text:  v.Verdict.String(),
			}
			for _, x := range v.Reasons {
				r = r.With(x.Code, x.Text, x.Verdict.String(), x.From)
			}
			wait := source.Result{
				Key:   source.What("handling"),
				Label: "Handle after",
				Value: v.Handling,
				Unit:  "s",
				Text:  measure.Span(v.Handling),
			}.With(
				"the product's wait at 21 C, 50 %",
				g.Handling.String(),
				measure.Span(v.Handling),
				source.FromMemory(g.Name),
			)
			wait.Steps = append(wait.Steps, v.Working...)
			return []source.Result{r, wait}, nil
		},
	)
	_ = register(
		"dry",
		"How much longer a waterborne wait takes in this air.",
		[]Param{
			{"wait", "time", "at 21 C and 50 %", "2 h"},
			{"temp", "temp", "air", ""},
			{"rh", "percent", "humidity", ""},
		},
		func(in Inputs) ([]source.Result, error) {
			if in.N("rh") < 0 || in.N("rh") > 100 {
				return nil, measure.Bad("rh", "%g %% cannot be; write 0 to 100", in.N("rh"))
			}
			f := bond.DryFactor(in.N("temp"), in.N("rh"))
			d := time.Duration(f * in.N("wait") * float64(time.Second))
			return one(
				source.Result{
					Key:   source.What("wait"),
					Label: "Wait",
					Value: d.Seconds(),
					Unit:  "s",
					Text:  measure.Span(d.Seconds()),
				}.
					With(
						"wait x VPD(21 C, 50 %) / VPD(T, RH), 0.5 to 6",
						fmt.Sprintf("%s x %.2f", in.T("wait"), f),
						measure.Span(d.Seconds()),
						source.Std("Alduchov and Eskridge 1996, Magnus formula"),
						source.FromTrade("waterborne waits follow the drying power of the air"),
					),
				nil,
			)
		},
	)
)
