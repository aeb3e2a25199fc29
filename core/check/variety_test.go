package check

import (
	"bytes"
	"fmt"
	"hash/fnv"
	"image"
	"math"
	"math/rand/v2"
	"reflect"
	"regexp"
	"sort"
	"strconv"
	"strings"
	"testing"
	"time"

	"zapbarn/core/bond"
	"zapbarn/core/calc"
	"zapbarn/core/circuit"
	"zapbarn/core/form"
	"zapbarn/core/measure"
	"zapbarn/core/nest"
	"zapbarn/core/pattern"
	"zapbarn/core/photo"
	"zapbarn/core/plan"
	"zapbarn/core/shorthand"
	"zapbarn/core/show"
	"zapbarn/core/source"
	"zapbarn/core/stock"
	"zapbarn/core/wiring"
	"zapbarn/core/work"
	"zapbarn/testkit/edits"
	"zapbarn/testkit/shop"
	"zapbarn/testkit/wirings"

	"github.com/stretchr/testify/require"
)

// The same for what no example holds: forms, phrases, calculators, cells, glues,
// coats, sheets and faults by the hundred, drawn by seed, what is refused with its
// reason. A line each, so that a change says where; it does not say what is right:
// that is the business of the tests beside each rule.
func TestVarietyStandsAsFrozen(t *testing.T) {
	for _, net := range []struct {
		name string
		of   func(*bytes.Buffer)
	}{ // quick ones first
		{"measures", measures}, {"shop", shops}, {"glues", glues}, {"cells", cells}, {"packs", packs}, {"shows", shows},
		{"bounds", bounds}, {"calculators", calculators}, {"phrases", phrases}, {"faults", faults}, {"pictures", pictures},
		{"forms", forms}, {"sheets", sheets}, {"edges", edges}, {"layouts", layouts}, {"rules", spoilt}, {"meshes", meshes},
	} {
		t.Run(net.name, func(t *testing.T) {
			var b bytes.Buffer
			net.of(&b)
			require.Greater(t, bytes.Count(b.Bytes(), []byte("\n")), 60, "it varies")
			frozen(t, "variety-"+net.name, b.Bytes())
		})
	}
}

// sum is a short mark of a long text.
func sum(text string) string {
	h := fnv.New32a()
	h.Write([]byte(fine.ReplaceAllString(text, "~")))
	return fmt.Sprintf("%08x", h.Sum32())
}

// seeded draws for one name: another name beside it changes nothing here.
func seeded(name string) *rand.Rand {
	h := fnv.New64a()
	h.Write([]byte(name))
	return rand.New(rand.NewPCG(17, h.Sum64()))
}

func numbers(rs []source.Result) string {
	var b, all strings.Builder
	for _, r := range rs {
		v := r.Value
		if math.Abs(v) < 1e-9 {
			v = 0 // what is left of a sum that comes to nothing
		}
		fmt.Fprintf(&b, " %s=%.5g", r.Key, v)
		fmt.Fprint(&all, r.Label, r.Text)
		for _, s := range r.Steps {
			fmt.Fprint(&all, s.Formula, s.Numbers, s.Value)
		}
	}
	return b.String() + " " + sum(all.String())
}

func inches(r *rand.Rand, low, high float64) measure.Length {
	return measure.Of[measure.LengthKind](math.Round(4*(low+(high-low)*r.Float64()*r.Float64())) / 4 * measure.Inch)
}

// anyForm fills a form's fields, most within reason and a few beyond.
func anyForm(r *rand.Rand, k form.Kind) form.Form {
	v := reflect.New(reflect.TypeOf(k.Blank)).Elem()
	v.Set(reflect.ValueOf(k.Blank))
	for i := range v.NumField() {
		f, tag := v.Field(i), v.Type().Field(i).Tag
		name, _, _ := strings.Cut(tag.Get("json"), ",")
		switch x := f.Interface().(type) {
		case measure.Length:
			switch {
			case strings.Contains(" w d h low high length topW topD ", " "+name+" "):
				if r.IntN(14) > 0 {
					f.Set(reflect.ValueOf(inches(r, 3, 70)))
				}
			case r.IntN(3) > 0:
				f.Set(reflect.ValueOf(inches(r, .25, 6)))
			}
		case int:
			if r.IntN(2) == 0 {
				f.SetInt(int64(x + r.IntN(9)))
			}
		case bool:
			f.SetBool(r.IntN(2) == 0)
		case string:
			switch {
			case tag.Get("choose") != "":
				all := strings.Split(tag.Get("choose"), "|")
				f.SetString(all[r.IntN(len(all))])
			case name == "profile":
				names := append(pattern.ProfileNames(), "0,0 9,2 12,8 7,14 0,16", "mm 0,0 200,40 260,300 90,500")
				f.SetString(names[r.IntN(len(names))])
			case name == "path":
				f.SetString(anyPath(r))
			case name == "legs":
				f.SetString([]string{"24 in turn 90 18 in", "40 in turn -45 22 1/2 in turn 90 12 in",
					"3 ft turn 60 9 in turn 120 30 in"}[r.IntN(3)])
			case name == "lengths":
				f.SetString([]string{"24 30 18", "4 x 36, 2 x 20", "96 12"}[r.IntN(3)])
			}
		}
	}
	return v.Interface().(form.Form)
}

func anyPath(r *rand.Rand) string {
	fixed := []string{"0,0 36,0 18,60", "0,0 30,0 30,20 0,20; 5,5 9,5 9,9", "0,0 40,0 40,4 22,4 22,40 18,40 18,4 0,4"}
	if n := r.IntN(9); n < len(fixed) {
		return fixed[n]
	}
	var corners []string
	n := 3 + r.IntN(9)
	for k := range n {
		a, d := 2*math.Pi*float64(k)/float64(n), 4+30*r.Float64()
		corners = append(corners, fmt.Sprintf("%.1f,%.1f", 40+d*math.Cos(a), 40+d*math.Sin(a)))
	}
	return strings.Join(corners, " ")
}

func forms(b *bytes.Buffer) {
	ids := stock.IDs(stock.Shop.Materials)
	for _, name := range form.Names() {
		r := seeded(name)
		k, _ := form.Of(name)
		for n := range 48 {
			of := k.Stock
			for n%3 == 0 { // and of other stock of the kind
				if of = ids[r.IntN(len(ids))]; stock.Shop.Materials[of].Form == k.Form {
					break
				}
			}
			s := plan.NewSolid("p", name, of, anyForm(r, k))
			for range 5 { // most of them are to be such as can be made
				if _, err := s.Shape(shop.Kept); err == nil || n%6 == 0 {
					break
				}
				s = plan.NewSolid("p", name, of, anyForm(r, k))
			}
			s.Seam = []string{"", "butt", "half-lap"}[r.IntN(3)]
			if k.Form == "sheet" && n%2 == 0 {
				for range r.IntN(3) {
					s.Openings = append(
						s.Openings,
						plan.Opening{
							Name: "o",
							Face: []string{"front", "face1", "side2", "slice2", "gore", "sheet", "disc", "panel"}[r.IntN(8)],
							Kind: []string{"rect", "slot", "round"}[r.IntN(3)],
							W:    inches(r, .5, 9),
							H:    inches(r, .5, 9),
							X:    inches(r, -4, 8),
							Y:    inches(r, 0, 12),
							Door: r.IntN(4) == 0,
						},
					)
				}
			}
			fmt.Fprintf(b, "%s %d of %s: ", name, n, of)
			shape, err := s.Shape(shop.Kept)
			if err != nil {
				fmt.Fprintln(b, err)
				continue
			}
			area, volume, cut, marks := 0.0, 0.0, 0.0, 0
			for _, p := range shape.Panels {
				area, volume, cut, marks = area+p.Area()*float64(p.Copies), volume+p.Volume()*float64(
					p.Copies,
				), cut+p.CutAngle+2*p.Bevel+3*p.Slant, marks+len(p.Marks)+10*len(p.Holes)
				for i, e := range p.Edges {
					cut += float64(i+1) * (e.Tilt + 2*e.Width + 3*e.Depth)
				}
				for i, q := range p.Outline {
					cut += math.Sqrt(float64(i)) * (q.X - 2*q.Y)
				}
			}
			for _, c := range shape.Cuts {
				cut += c.Length * float64(c.Count)
			}
			seen := "-"
			if n == 1 { // it takes its time
				seen = sum(asJSON(pattern.Silhouette(shape.Bodies)))
			}
			fmt.Fprintf(
				b,
				"%d panels, %.5g mm2, %.5g mm3, %.4g, %d marks, exposed %.5g,%s stands %s, seen %s\n",
				len(shape.Panels),
				area,
				volume,
				cut,
				marks,
				shape.Exposed(),
				numbers(shape.Results),
				sum(stands(shape, &s)),
				seen,
			)
		}
	}
}

var number = regexp.MustCompile(`\d+(\.\d+)?`)

// phrases are the quick line's examples with other numbers, words left out and
// doubled, in a plan that has something of everything.
func phrases(b *bytes.Buffer) {
	p := wirings.Random(3)
	prop := p.Props()[0].ID
	for _, line := range []string{"box 22 x 18 x 26 1/2 xps1 rabbet", "tower 20 x 30 n6 ply1/4", "supply 12v 5a",
		"fuse 3a on S1", "run 18awg 12ft on F1", "controller 3.3v on W1", "mat runs glow"} {
		if got, err := shorthand.Read(p, shop.Kept, prop, line); err == nil {
			if q, err := p.Apply(got.Edit); err == nil {
				p = q
			}
		}
	}
	for _, example := range shorthand.Examples() {
		r := seeded(example)
		example, _, _ = strings.Cut(example, " (or")
		for n := range 14 {
			line := number.ReplaceAllStringFunc(example, func(s string) string {
				x, _ := strconv.ParseFloat(s, 64)
				if r.IntN(3) > 0 {
					return s
				}
				return measure.Decimal(x*[]float64{0, .5, .9, 1.1, 2, 3, 12, 400}[r.IntN(8)], 2)
			})
			if n%7 == 6 { // units a space off
				line = unitAt.ReplaceAllString(line, "$1 $2")
			}
			words := strings.Fields(line)
			if k := r.IntN(len(words)); n%3 == 0 && k > 0 {
				words = append(words[:k], words[k+1:]...)
			} else if n%5 == 0 {
				words = append(words, words[k])
			}
			line = strings.Join(words, " ")
			got, err := shorthand.Read(p, shop.Kept, prop, line)
			if err != nil {
				fmt.Fprintf(b, "%s: %v\n", line, err)
				continue
			}
			_, err = p.Apply(got.Edit)
			fmt.Fprintf(b, "%s: %s (%s, %s, %v)\n", line, got.Text, got.Select, sum(asJSON(got.Edit)), err)
		}
	}
}

// unitAt is a number with its unit right behind.
var unitAt = regexp.MustCompile(`(\d)(awg|v|a|ma|in|ft|mm|w|s|h)\b`)

func calculators(b *bytes.Buffer) {
	some := map[string][]string{
		"length": {"3 in", "11 1/4 in", "26 in", "8 ft", "450 mm", "0"},
		"volts":  {"3.3 V", "5 V", "12 V", "24 V"},
		"amps":   {"20 mA", "0.35 A", "3 A", "18 A"},
		"ohms":   {"0.3 ohm", "470 ohm", "10 kohm"},
	}
	texts := map[string][]string{"lengths": {"6@44in,4@60in", "2000@1in", "2001@1in", "0@1in", "3@900mm", "x"},
		"a": {
			"xps1",
			"ply1/4",
			"eva5",
			"pvc1",
			"none",
		}, "b": {"xps1", "ply1/4", "hips", "muslin"}, "glue": {"pu", "pva", "contact", "hot"},
		"profile": {
			"sphere",
			"dome",
			"egg",
			"4,0 4,20",
			"0,0 5,1",
		}, "size": {"1/2", "1", "1.5", "9"}, "gauge": {"18awg", "22awg", "12awg"},
		"cell": {"aa", "9v", "sla7"}, "kind": {"butt", "half-lap"}, "joint": {"butt", "mitre", "rabbet"}}
	for _, c := range calc.List() {
		r := seeded(c.Name)
		for range 24 {
			args := map[string]string{}
			for _, p := range c.Params {
				switch {
				case some[p.Kind] != nil:
					args[p.Name] = some[p.Kind][r.IntN(len(some[p.Kind]))]
				case p.Kind == "text" && texts[p.Name] != nil:
					args[p.Name] = texts[p.Name][r.IntN(len(texts[p.Name]))]
				case p.Kind == "count" && r.IntN(2) == 0:
					args[p.Name] = []string{"0", "1", "2", "3", "7", "19", "64", "65", "200", "2001"}[r.IntN(10)]
				case p.Kind == "angle" && r.IntN(2) == 0:
					args[p.Name] = []string{"0", "1", "45", "89", "90", "179", "180", "181"}[r.IntN(8)]
				case p.Default != "":
					args[p.Name] = p.Default
				default:
					args[p.Name] = []string{"2", "5", "12", "40", "0.4", "-3"}[r.IntN(6)]
				}
				if p.Default != "" && r.IntN(3) == 0 {
					args[p.Name] = number.ReplaceAllStringFunc(p.Default, func(s string) string {
						x, _ := strconv.ParseFloat(s, 64)
						return measure.Decimal(x*(.5+1.5*r.Float64()), 1)
					})
				}
			}
			rs, err := c.Run(args)
			if err != nil {
				fmt.Fprintf(b, "%s %v: %v\n", c.Name, args, err)
				continue
			}
			fmt.Fprintf(b, "%s %v:%s\n", c.Name, args, numbers(rs))
		}
	}
}

func cells(b *bytes.Buffer) {
	for _, id := range stock.IDs(circuit.Cells) {
		for _, amps := range []float64{.004, .02, .11, .5, 1.7, 6} {
			for rows := range 3 {
				rs, err := circuit.Runtime(id, amps, rows+1, rows == 2, 3.5, 14)
				fmt.Fprintf(
					b,
					"%s %g A x%d: %.5g mAh%s %v\n",
					id,
					amps,
					rows+1,
					circuit.Cells[id].Capacity(amps),
					numbers(rs),
					err,
				)
			}
		}
	}
	r := rand.New(rand.NewPCG(20, 0))
	for range 80 {
		amps, ohms, v := r.Float64()*8, r.Float64(), []float64{5, 12, 24}[r.IntN(3)]
		k, drop, one := circuit.Feeds(amps, ohms, v, .1)
		rs, err := circuit.Outlet(amps*400, 120, 15, 5)
		fmt.Fprintf(
			b,
			"feeds %.3g A %.3g ohm %g V: %d %.5g %v; outlet%s %v; gauge %d, fuse %g\n",
			amps,
			ohms,
			v,
			k,
			drop,
			one,
			numbers(rs),
			err,
			circuit.ChooseGauge(ohms*9000, amps, v, .03),
			circuit.ChooseFuse(amps, 2*amps),
		)
		row, got, err := circuit.Groups(v, 1.8+2*r.Float64(), 1+r.IntN(40), .02)
		fmt.Fprintf(b, "groups %v%s %v\n", asJSON(row), numbers(got), err)
		got, err = circuit.PixelLine(r.IntN(900), 1+r.IntN(3), 3.3+1.7*float64(r.IntN(2)), v, .06, .001, amps)
		fmt.Fprintf(b, "pixels%s %v\n", numbers(got), err)
	}
}

func glues(b *bytes.Buffer) {
	r := rand.New(rand.NewPCG(21, 0))
	ms, gs, cs := stock.IDs(stock.Shop.Materials), stock.IDs(stock.Shop.Glues), stock.IDs(stock.Shop.Coats)
	for range 500 {
		j := bond.Joint{
			A:      stock.Shop.Materials[ms[r.IntN(len(ms))]],
			B:      stock.Shop.Materials[ms[r.IntN(len(ms))]],
			Glue:   stock.Shop.Glues[gs[r.IntN(len(gs))]],
			Age:    float64(r.IntN(4)) * 200 * 86400,
			Temp:   -5 + 45*r.Float64(),
			RH:     20 + 75*r.Float64(),
			Sun:    r.IntN(2) == 0,
			Strain: r.IntN(2) == 0,
		}
		a := bond.Judge(j)
		better := ""
		for _, g := range bond.Suggest(j, stock.Shop.Glues) {
			better += " " + g.ID
		}
		takes, err := bond.Quantity(j.Glue, 3000*r.Float64(), 60*r.Float64())
		fmt.Fprintf(
			b,
			"%s to %s, %s, %.4g C: %s open %.4g clamp %.4g handle %.4g full %.4g %s; better%s; takes %.5g %v\n",
			j.A.ID,
			j.B.ID,
			j.Glue.ID,
			j.Temp,
			a.Verdict,
			a.Open,
			a.Clamp,
			a.Handling,
			a.Full,
			sum(asJSON(a)),
			better,
			takes.Value,
			err,
		)
	}
	for range 300 {
		s := bond.Stack{
			On:       stock.Shop.Materials[ms[r.IntN(len(ms))]],
			OnFoam:   r.IntN(2) == 0,
			Outdoors: r.IntN(2) == 0,
			Lit:      r.IntN(4) == 0,
			Area:     4 * r.Float64(),
			Temp:     2 + 30*r.Float64(),
			RH:       20 + 75*r.Float64(),
		}
		said := s.On.ID
		for range 1 + r.IntN(4) {
			l := bond.Layer{Coat: stock.Shop.Coats[cs[r.IntN(len(cs))]], Coats: 1 + r.IntN(3)}
			s.Layers = append(s.Layers, l)
			said += fmt.Sprintf(", %s %d", l.Coat.ID, l.Coats)
		}
		f := bond.Coats(s)
		fmt.Fprintf(b, "coats on %s: %s %.4g s %.4g L %s\n", said, f.Verdict, f.Total, f.Litres, sum(asJSON(f)))
	}
}

func sheets(b *bytes.Buffer) {
	r := rand.New(rand.NewPCG(22, 0))
	for n := range 70 {
		var parts []nest.Part
		for i := range 4 + r.IntN(22) {
			p := nest.Part{ID: fmt.Sprint(i), W: 60 + 700*r.Float64(), H: 60 + 900*r.Float64(), Turn: r.IntN(2) == 0}
			switch r.IntN(5) {
			case 0:
				p.H = p.W
				p.Round, p.Bore = p.W, p.W*float64(r.IntN(2))*.6
			case 1:
				p.Low, p.High = p.W, p.W*r.Float64()
			case 2:
				p.Shape = fmt.Sprint("tri", i)
				p.Polys = [][]pattern.Point{{{X: 0, Y: 0}, {X: p.W, Y: 0}, {X: p.W * r.Float64(), Y: p.H}}}
			}
			parts = append(parts, p)
		}
		stocks := []nest.Stock{{ID: "left", W: 700, H: 900, Left: 1}, {ID: "new", W: 1220, H: 2440, Left: -1}}
		o := nest.Options{Kerf: 3.175 * float64(r.IntN(2)), Margin: 6.35 * float64(r.IntN(2)), Seed: 7, Tries: 40}
		for how, of := range map[string]func([]nest.Part, []nest.Stock, nest.Options) nest.Layout{"boxes": nest.Sheets,
			"shapes": nest.Shapes} {
			if how == "shapes" {
				continue
			}
			l := of(parts, stocks, o)
			fmt.Fprintf(b, "%s %d: %d sheets, too large %v, %s\n", how, n, len(l.Sheets), l.TooLarge, sum(asJSON(l)))
		}
		if n < 12 {
			l := nest.Shapes(parts, stocks, o)
			fmt.Fprintf(b, "shapes %d: %d sheets, too large %v, %s\n", n, len(l.Sheets), l.TooLarge, sum(asJSON(l)))
		}
		var pieces []float64
		for range 3 + r.IntN(14) {
			pieces = append(pieces, 100+1800*r.Float64())
		}
		c := nest.Lengths(pieces, 3048, o.Kerf)
		fmt.Fprintf(b, "lengths %d: %d bars, bound %d, proven %v\n", n, len(c.Bars), c.Bound, c.Proven)
	}
}

func faults(b *bytes.Buffer) {
	day := time.Date(2026, 9, 20, 0, 0, 0, 0, time.UTC)
	for seed := uint64(1); seed <= 14; seed++ {
		p := wirings.Random(seed)
		if p.Validate() != nil {
			continue
		}
		r := rand.New(rand.NewPCG(seed, 23))
		w := work.Do(p, shop.Kept, day)
		for _, d := range p.Devices() {
			if d.Kind != "supply" {
				continue
			}
			bench := wiring.Suspects(p.Wiring(shop.Kept), d.ID)
			for level := 1; level <= 3; level++ { // what a learner may name, and what is hidden
				for n := range uint64(4) {
					drill, err := wiring.NewDrill(p.Wiring(shop.Kept), d.ID, level, seed*10+n)
					if err != nil {
						fmt.Fprintf(b, "%d %s level %d: %v\n", seed, d.ID, level, err)
						continue
					}
					groups, says := drill.Choices()
					truth, _ := drill.Truth()
					fmt.Fprintf(
						b,
						"%d %s level %d: %d choices %s %s of %s, best %d\n",
						seed,
						d.ID,
						level,
						len(groups),
						sum(strings.Join(groups,
							",")),
						sum(strings.Join(says, ",")),
						truth,
						drill.Best(),
					)
				}
			}
			var seen []circuit.Seen
			for _, x := range p.Devices() {
				if o, ok := bench.Volts(x.ID, w.All().Readings[x.ID].Volts*r.Float64()); ok && r.IntN(3) == 0 {
					seen = append(seen, o)
				}
				if o, ok := bench.Light(x.ID, r.IntN(2) == 0); ok && r.IntN(3) == 0 {
					seen = append(seen, o)
				}
			}
			for _, causes := range [][]circuit.Cause{bench.Rank(seen, circuit.HandMeter),
				bench.RankTwo(seen, circuit.HandMeter)} {
				for _, c := range causes[:min(4, len(causes))] {
					fmt.Fprintf(b, "%d %s %d readings: %s\n", seed, d.ID, len(seen), asJSON(c))
				}
				fmt.Fprintf(b, "next %d\n", bench.Next(causes, circuit.HandMeter, map[int]bool{}))
			}
		}
	}
}

func shops(b *bytes.Buffer) {
	values := []string{
		"",
		"0",
		"3",
		"-2",
		"1.5",
		"3 mm",
		"24 x 36 in",
		"12 V",
		"20 mA",
		"4 h",
		"90 C",
		"yes",
		"no",
		"foam",
		"water",
		"18",
		"abc",
		"400 kg",
		"1e9",
	}
	for _, table := range stock.Tables() {
		for _, field := range stock.FieldsOf(table) {
			r := seeded(table + field)
			for range 9 {
				v := values[r.IntN(len(values))]
				l, err := stock.Shop.With(
					[]stock.Over{
						{
							Table: table,
							ID:    "new1",
							Like: map[string]string{"material": "xps1", "glue": "pu", "coat": "latex", "lamp": "puck12",
								"supply": "ps12-5"}[table],
							Set: []stock.Setting{{Field: field, Value: v}},
						},
					},
				)
				said := ""
				if err == nil {
					said = sum(
						asJSON(
							[]any{
								l.Materials["new1"],
								l.Glues["new1"],
								l.Coats["new1"],
								l.Lamps["new1"],
								l.Supplies["new1"],
							},
						),
					)
				}
				fmt.Fprintf(b, "%s %s %q: %s %v\n", table, field, v, said, err)
			}
		}
	}
}

func measures(b *bytes.Buffer) {
	for _, n := range []string{"0", "1", "22", "1/2", "22 1/2", "22-1/2", "0.3", ".5", "-4", "1e3", "3,5", "1 000",
		"99999", "7/0", ""} {
		for _, u := range []string{"", "in", `"`, "ft", "'", "mm", "cm", "m", "V", "mV", "A", "mA", "ohm", "kohm", "mohm",
			"W", "kW", "h", "min", "s", "ms", "d", "C", "F", "kg", "g", "lb", "oz", "AWG", "mm2", "%", "deg"} {
			for _, text := range []string{n + u, n + " " + u} {
				l, e1 := measure.ParseLengthIn(text, "mm")
				v, e2 := measure.Parse[measure.VoltKind](text)
				a, e3 := measure.Parse[measure.AmpKind](text)
				o, e4 := measure.Parse[measure.OhmKind](text)
				p, e5 := measure.Parse[measure.WattKind](text)
				d, e6 := measure.Parse[measure.DurationKind](text)
				c, e7 := measure.Parse[measure.CelsiusKind](text)
				m, e8 := measure.Parse[measure.MassKind](text)
				g, e9 := measure.Parse[measure.GaugeKind](text)
				fmt.Fprintf(
					b,
					"%q: %.6g %.6g %.6g %.6g %.6g %.6g %.6g %.6g %.6g %s\n",
					text,
					l.Value(),
					v.Value(),
					a.Value(),
					o.Value(),
					p.Value(),
					d.Value(),
					c.Value(),
					m.Value(),
					g.Value(),
					sum(fmt.Sprint(e1, e2, e3, e4, e5, e6, e7, e8, e9)),
				)
			}
		}
	}
	for x := 1e-7; x < 1e6; x *= 1.37 {
		fmt.Fprintf(
			b,
			"%.4g: %s %s %s %s %s %s %s %s %s %s\n",
			x,
			measure.Inches(x),
			measure.Tape(x, true),
			measure.Run(x, false),
			measure.Run(x, true),
			measure.Volts(x),
			measure.Amps(x),
			measure.Ohms(x),
			measure.Watts(x),
			measure.Span(x),
			measure.Kilograms(x),
		)
	}
}

// bounds sets every field of one element of each kind to values near what may be
// its edge, and keeps what is refused.
func bounds(b *bytes.Buffer) {
	some := map[reflect.Type][]string{
		reflect.TypeFor[measure.Length](): {
			"-400 m",
			"-101 m",
			"-99 m",
			"-31 m",
			"-29 m",
			"-1 mm",
			"0.5 mm",
			"3 mm",
			"9 mm",
			"11 mm",
			"19 mm",
			"21 mm",
			"24 mm",
			"26 mm",
			"190 mm",
			"210 mm",
			"0.9 m",
			"1.1 m",
			"9 m",
			"11 m",
			"29 m",
			"31 m",
			"99 m",
			"101 m",
			"290 m",
			"310 m",
			"990 m",
			"1010 m",
		},
		reflect.TypeFor[measure.Duration](): {"-1 s", "59 s", "61 s", "86399 s", "86401 s", "20 days"},
		reflect.TypeFor[measure.Voltage](): {
			"-61 V",
			"-59 V",
			"0.9 V",
			"1.1 V",
			"2.9 V",
			"11 V",
			"13 V",
			"59 V",
			"61 V",
			"99 V",
			"101 V",
			"249 V",
			"251 V",
		},
		reflect.TypeFor[measure.Current]():    {"-1 A", "1 mA", "4.9 A", "5.1 A", "31 A", "33 A", "199 A", "201 A"},
		reflect.TypeFor[measure.Resistance](): {"-1 ohm", "0.1 ohm", "99 ohm", "101 ohm", "2 Mohm"},
		reflect.TypeFor[measure.Power]():      {"-1 W", "1 W", "4999 W", "5001 W"},
		reflect.TypeFor[measure.Celsius]():    {"-31 C", "-29 C", "59 C", "61 C"},
		reflect.TypeFor[measure.Gauge]():      {"4 AWG", "9 AWG", "31 AWG", "0.1 mm2", "100 mm2"},
		reflect.TypeFor[int](): {
			"-1",
			"1",
			"2",
			"19",
			"20",
			"21",
			"30",
			"31",
			"40",
			"41",
			"99",
			"100",
			"101",
			"366",
			"367",
			"1999",
			"2000",
			"10000",
			"10001",
		},
		reflect.TypeFor[string](): {"", "x", "2026-10-09", "2026-13-09", "a b", "in", strings.Repeat("y", 81),
			strings.Repeat("z", 501)},
		reflect.TypeFor[bool](): {"on", "off"},
	}
	p := wirings.Random(3)
	q := wirings.RandomProp(3)
	d := p.Doc()
	d.Solids, d.Outlets, d.Plugs, d.Finishes, d.Joints = q.Solids(), q.Outlets(), q.Plugs(), q.Finishes(), q.Joints()
	p.Doc().Lots = []plan.Lot{{ID: "l", Glue: "pva"}}
	p.Doc().Offcuts = []plan.Offcut{{ID: "o", Stock: "xps1", W: inchesOf(20), H: inchesOf(30)}}
	p.Doc().Readings = []plan.Reading{{ID: "r", Device: p.Devices()[0].ID, Volts: measure.Must[measure.VoltKind]("4 V")}}
	p.Doc().Waivers = []plan.Waiver{{ID: "w", Reason: "so", By: "me"}}
	p.Doc().Photos = []plan.Photo{{ID: "ph", Data: "AAAA"}}
	p.Doc().Pictures = []plan.Picture{{ID: "pi", Prop: p.Props()[0].ID, Photo: "ph", Name: "N", Wide: 10, Tall: 10}}
	p.Doc().Inputs = []plan.Input{{ID: "i", Prop: p.Props()[0].ID, Name: "I", Kind: "mat"}}
	p.Doc().Scenes = []plan.Scene{{ID: "s", Prop: p.Props()[0].ID, Name: "S"}}
	p.Doc().Triggers = []plan.Trigger{{ID: "t", Input: "i", Scene: "s", Latch: "toggle"}}
	fmt.Fprintln(b, "as it is:", p.Validate())
	for _, kind := range plan.Kinds() {
		seen := map[string]bool{}
		for _, e := range p.Elements(kind) {
			which := kind
			if d, ok := e.Value.(*plan.Device); ok {
				which += " " + d.Kind
			}
			if seen[which] || kind == "good" || kind == "layout" {
				continue
			}
			seen[which] = true
			t := reflect.TypeOf(e.Value).Elem()
			for i := range t.NumField() {
				name, _, _ := strings.Cut(t.Field(i).Tag.Get("json"), ",")
				if name == "id" || name == "-" {
					continue
				}
				for _, value := range some[t.Field(i).Type] {
					next := reflect.New(t)
					next.Elem().Set(reflect.ValueOf(e.Value).Elem())
					err := plan.SetText(next.Interface(), name, value, false)
					if err == nil {
						_, err = p.Apply(plan.Edit{Changes: []plan.Change{p.Put(kind, e.ID, next.Interface())}})
					}
					fmt.Fprintf(b, "%s %s %.12q: %.160v\n", which, name, value, err)
				}
			}
		}
	}
}

func inchesOf(x float64) measure.Length { return measure.Of[measure.LengthKind](x * measure.Inch) }

// meshes are bodies of triangles, turned and shifted: sound ones, open ones, such
// as overlap, and noise.
func meshes(b *bytes.Buffer) {
	r := rand.New(rand.NewPCG(25, 0))
	ball := func(x, y, z, rad float64, n int) (out []pattern.Triangle) {
		at := func(i, k int) pattern.Vec {
			if i == 0 || i == n {
				return pattern.Vec{X: x, Y: y, Z: z + rad*float64(1-2*(i/n))}
			}
			a, c := math.Pi*float64(i)/float64(n), 2*math.Pi*float64(k%(2*n))/float64(2*n)
			return pattern.Vec{
				X: x + rad*math.Sin(a)*math.Cos(c),
				Y: y + rad*math.Sin(a)*math.Sin(c),
				Z: z + rad*math.Cos(a),
			}
		}
		for i := range n {
			for k := range 2 * n {
				if i > 0 {
					out = append(out, pattern.Triangle{at(i, k), at(i+1, k), at(i, k+1)})
				}
				if i < n-1 {
					out = append(out, pattern.Triangle{at(i, k+1), at(i+1, k), at(i+1, k+1)})
				}
			}
		}
		return out
	}
	for n := range 9 {
		var m pattern.Mesh
		for range 1 + r.IntN(3) {
			m = append(
				m,
				ball(200*r.Float64(), 150*r.Float64(), 100+200*r.Float64(), 40+90*r.Float64(), 3+r.IntN(5))...)
		}
		if n%4 == 0 { // open
			m = m[:len(m)-1-r.IntN(3)]
		}
		if n%5 == 0 { // turned inside out in part
			m[0][1], m[0][2] = m[0][2], m[0][1]
		}
		rep := m.Report()
		fmt.Fprintf(b, "%d: %s %v %v; ", n, asJSON(rep), rep.Sound(), rep.Words())
		packed, err := m.Pack()
		fmt.Fprintf(b, "packed %v; ", err)
		for _, z := range []float64{60, 110.5, 180, 240} {
			area, corners := 0.0, 0
			for _, ring := range m.Section(z) {
				area, corners = area+pattern.SignedArea(ring), corners+len(ring)
			}
			at, over := m.Overlap(z)
			fmt.Fprintf(b, "at %g %.4f mm2 %d corners, over %v %.2f %.2f; ", z, area, corners, over, at.X, at.Y)
		}
		back, err := pattern.Unpack(packed)
		fmt.Fprintf(b, "back %d %v", len(back), err)
		for _, t := range []float64{12.7, 25.4} {
			for _, dowels := range []int{0, 2} {
				s := pattern.MeshSlices{Mesh: m, H: 300 + 200*r.Float64(), T: t, Dowels: dowels, Dowel: 8}
				shape, err := s.Lay()
				if err != nil {
					fmt.Fprintf(b, "; %v", err)
					continue
				}
				area := 0.0
				for _, q := range shape.Panels {
					area += q.Area()
				}
				fmt.Fprintf(b, "; %d slices %.4g mm2%s %s", len(shape.Panels), area, numbers(shape.Results),
					sum(asJSON(shape.Panels)))
			}
		}
		fmt.Fprintln(b)
	}
	for n := range 60 { // shapes with narrow places
		var ring []pattern.Point
		for k := range 6 + r.IntN(9) {
			a := float64(k) / 9 * 2
			d := 30 + 300*r.Float64()*r.Float64()
			ring = append(ring, pattern.Point{X: d * math.Cos(a), Y: d * math.Sin(a)})
		}
		p := pattern.Panel{ID: "p", Outline: ring, Thick: 12}
		if n%3 == 0 {
			p.Holes = [][]pattern.Point{pattern.Circle(10*r.Float64(), 10*r.Float64(), 30)}
		}
		fmt.Fprintf(b, "necks %d: %s\n", n, asJSON(p.Necks(20+60*r.Float64())))
	}
}

func pictures(b *bytes.Buffer) {
	r := rand.New(rand.NewPCG(26, 0))
	img := image.NewGray(image.Rect(0, 0, 60, 40))
	for i := range img.Pix {
		img.Pix[i] = uint8(i * 7)
	}
	spot := func() photo.Spot { return photo.Spot{X: 60 * r.Float64(), Y: 40 * r.Float64()} }
	for n := range 80 {
		pl, err := photo.ByLine(spot(), spot(), 1000*r.Float64(), n%2 == 0)
		if n%3 == 0 {
			j := func() float64 { return 8 * r.Float64() }
			pl, err = photo.BySquare([4]photo.Spot{{X: 5 + j(), Y: 35 - j()}, {X: 50 - j(), Y: 36 - j()},
				{X: 52 - j(), Y: 4 + j()},
				{X: 6 + j(), Y: 5 + j()}}, 100+900*r.Float64(), 100+900*r.Float64())
		}
		if err != nil {
			fmt.Fprintf(b, "%d: %v\n", n, err)
			continue
		}
		x, y := pl.MM(spot())
		f := pl.Frame(60, 40, 90)
		q := pl.Spot(x/2, y/3)
		fmt.Fprintf(
			b,
			"%d: %.3f %.3f mm, %.3f between, %.3f %.3f, %s %s\n",
			n,
			x,
			y,
			pl.Between(spot(), spot()),
			q.X,
			q.Y,
			asJSON(f),
			sum(fmt.Sprint(pl.Squared(img, f).Pix)),
		)
	}
}

// shows are small machines pressed at random.
func shows(b *bytes.Buffer) {
	r := rand.New(rand.NewPCG(27, 0))
	for n := range 120 {
		m := show.Machine{
			Inputs: []show.Input{
				{ID: "a"},
				{ID: "b", Closed: n%3 == 0, MinPulse: 10 * r.IntN(5), HoldOff: 50 * r.IntN(4)},
			},
		}
		for k := range 1 + r.IntN(3) {
			sc := show.Scene{ID: fmt.Sprint("s", k), Length: 300 * r.IntN(4)}
			for range r.IntN(4) {
				sc.Cues = append(
					sc.Cues,
					show.Cue{Channel: fmt.Sprint("K", r.IntN(2)), Start: 50 * r.IntN(9), Length: 50 * r.IntN(9)},
				)
			}
			m.Scenes = append(m.Scenes, sc)
			m.Triggers = append(
				m.Triggers,
				show.Trigger{ID: fmt.Sprint("t", k), Input: []string{"a", "b"}[r.IntN(2)], Scene: sc.ID,
					Latch: []show.Latch{show.OneShot, show.Retrigger, show.Momentary, show.Toggle}[r.IntN(4)], Rest: 100 * r.IntN(4)},
			)
		}
		if err := m.Check(); err != nil {
			fmt.Fprintf(b, "%d: %v\n", n, err)
			continue
		}
		var stim []show.Stimulus
		at := 0
		for range 8 {
			at += 25 * r.IntN(24)
			stim = append(stim, show.Press([]string{"a", "b"}[r.IntN(2)], at, 5+20*r.IntN(20))...)
		}
		sort.SliceStable(stim, func(i, k int) bool { return stim[i].At < stim[k].At })
		tr := m.Run(stim, at+2000)
		fmt.Fprintf(
			b,
			"%d: %d events %s, on %v %v\n",
			n,
			len(tr.Events),
			sum(asJSON(tr)),
			tr.Spans("K0"),
			tr.Spans("K1"),
		)
	}
}

// packs are discs in a disc, bundles of wire, and parts that lie by hand.
func packs(b *bytes.Buffer) {
	for n := range 62 {
		res, err := pattern.DiscsInDisc(n, 25.4)
		fmt.Fprintf(
			b,
			"%d discs: %.6g %s %v, at %s\n",
			n,
			res.Value,
			numbers([]source.Result{res}),
			err,
			sum(asJSON(pattern.DiscPlaces(n))),
		)
	}
	for awg := 8; awg <= 30; awg++ {
		mm2 := measure.AWGArea(awg)
		fmt.Fprintf(
			b,
			"AWG %d: jacket %.4g, three %.4g, sleeve %.4g, cord %.4g, %.5g A, thicker %.4g thinner %.4g\n",
			awg,
			work.Jacket(mm2),
			work.Bundle(mm2, mm2, mm2/2),
			work.Shrink(mm2, mm2),
			stock.CordAmpacity(awg),
			stock.Ampacity(mm2),
			stock.Thicker(mm2),
			stock.Thinner(mm2),
		)
	}
	r := rand.New(rand.NewPCG(28, 0))
	for n := range 40 {
		var parts []nest.Part
		for i := range 6 {
			p := nest.Part{ID: fmt.Sprint(i), W: 80 + 300*r.Float64(), H: 80 + 300*r.Float64(), Turn: true}
			if i%2 == 0 {
				p.Shape = fmt.Sprint("L", n, i)
				p.Polys = [][]pattern.Point{
					{{}, {X: p.W}, {X: p.W, Y: p.H / 3}, {X: p.W / 3, Y: p.H / 3}, {X: p.W / 3, Y: p.H}, {Y: p.H}},
				}
			} else if i == 5 {
				p.High = p.W * float64(n%2)
				p.Low = p.W * float64(1-n%2)
			} else if i == 3 {
				p.H, p.Round, p.Bore = p.W, p.W, p.W*.7
			}
			parts = append(parts, p)
		}
		lie := func(i int) nest.Placed {
			return nest.Placed{Part: i, X: 900 * r.Float64(), Y: 900 * r.Float64(), Turned: r.IntN(2) == 0}
		}
		sheet := nest.Stock{ID: "s", W: 1000, H: 1200, Left: r.IntN(3) - 1}
		o := nest.Options{Kerf: 3 * float64(r.IntN(2)), Margin: 6 * float64(r.IntN(2)), Seed: 3, Tries: 10}
		a, c, d := lie(0), lie(1), lie(3)
		fits := nest.Fits(parts, []nest.Placed{a, c}, d, sheet, o)
		snapped, ok := nest.Snap(parts, []nest.Placed{a}, d, sheet, o)
		if nest.Fits(parts, nil, a, sheet, o) {
			o.Fixed = []nest.Fixed{{Stock: "s", Placed: a}}
		}
		stocks := []nest.Stock{
			{ID: "left", W: 400, H: 500, Left: 1 + r.IntN(2)},
			sheet,
			{ID: "new", W: 1220, H: 1500, Left: -1},
		}
		l := nest.Sheets(parts, stocks, o)
		kept, whole := nest.Kept(parts, stocks, o)
		fmt.Fprintf(
			b,
			"%d: clash %v, fits %v, snap %.2f %.2f %v, laid %d %s, kept %d %v, areas %.5g %.5g %.5g\n",
			n,
			nest.Clash(parts[0], parts[3], a, d, o.Kerf),
			fits,
			snapped.X,
			snapped.Y,
			ok,
			len(l.Sheets),
			sum(asJSON(l)),
			len(kept.Sheets),
			whole,
			parts[0].Area(), parts[5].Area(),
			parts[3].Area(),
		)
	}
}

// spoilt are the plans that each rule is shown by, with one or two fields of theirs
// some way off: every number, part, harness, snag and mend of it.
func spoilt(b *bytes.Buffer) {
	for n, c := range ruleCases() {
		r := seeded(fmt.Sprint("rules ", c.code, n))
		for range 4 {
			p := clean()
			c.spoil(p)
			var said []string
			for range 1 + r.IntN(2) {
				q, what := edits.Varied(r, p)
				if q != nil {
					p, said = q, append(said, what)
				}
			}
			if said == nil {
				continue
			}

			w := work.Do(p, shop.Kept, today)
			if q, worst, ok := wiring.Gauges(p.Wiring(shop.Kept), "a", .03); len(q.Devices) > 0 {
				said = append(said, fmt.Sprintf("gauged %s, %.4f %v", sum(asJSON(q.Devices)), worst, ok))
			}
			var codes []string
			for _, s := range Check(w) {
				codes = append(codes, fmt.Sprint(s.Level, " ", s.Code, " ", len(s.Mends)))
			}
			fmt.Fprintf(b, "%s %d, %s: %s; %s\n", c.code, n, strings.Join(said, ", "), strings.Join(codes, ", "),
				sum(string(answers(w))))
		}
	}
}
