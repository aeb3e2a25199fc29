package wiring

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"zapbarn/core/circuit"
	"zapbarn/core/measure"
	"zapbarn/core/memo"
	"zapbarn/core/pixel"
	"zapbarn/core/stock"
)

// lampKind is whatever the current is for: a lamp, a strip, pixels, a motor, a
// servo, a screen, as its product of the shop says.
var lampKind = &Kind{
	Name: "lamp", Title: "Lamps, motors, servos", Role: Load,
	more: lampTicket,
	valid: func(d *Device, s Set) error {
		if err := measure.InList("product", d.Product, s.Lib.Lamps, "flicker12 or puck12"); err != nil {
			return err
		}
		if err := possible(LampOf(d, s.Lib)); err != nil {
			return err
		}
		if k := s.Lib.Lamps[d.Product].Kind; (k == "strip" || k == "pixels") && d.Length.IsZero() {
			return measure.Bad("length", "is empty; a strip needs its length, such as 2 m")
		}
		if r := d.Resistor.Or(1); r <= 0 {
			return measure.Bad("resistor", "must be more than nothing, such as 470 ohm")
		}
		if _, err := ParseFeeds(d.Feeds); err != nil {
			return err
		}
		if matrix := s.Lib.Lamps[d.Product].Columns > 0; d.Picture != "" &&
			matrix != (d.Picture == string(pixel.Eyes)) {
			return measure.Bad(
				"picture",
				"%q does not go there; a matrix shows eyes, a string of pixels the others",
				d.Picture,
			)
		}
		if d.Picture != "" && d.Picture != string(pixel.Eyes) &&
			!slices.Contains(pixel.Pictures, pixel.Picture(d.Picture)) {
			return measure.Bad(
				"picture",
				"%q is none; choose solid, chase, breathe, embers, swarm or eyes",
				d.Picture,
			)
		}
		if d.Colour != "" {
			if _, err := pixel.Read(d.Colour); err != nil {
				return measure.Bad("colour", "%s", err)
			}
		}
		if d.Pin < 0 || d.Pin > 100 {
			return measure.Bad("pin", "%d; write 1 to 100", d.Pin)
		}
		return nil
	},
	build: buildLamp,
	read:  readLamp,
	bill:  lampBill,
}

func lampTicket(d *Device, lib *stock.Library) []Field {
	first := []Field{{"product", "Lamp", "lamp"}, {"from", "Fed by", "feeders"}, {"at", "At, along it", "text"}}
	rest := []Field{
		{"need", "Lead needed", "text"},
		{"lead", "Lead it has", "text"},
		{"extension", "Extension", "text"},
		{"in", "Built into", "solids"},
		{"reversed", "Reversed", "check"},
		{"proven", "Proven, lit", "check"},
	}
	if lib.Lamps[d.Product].Columns > 0 {
		first = append(first, Field{"picture", "Shows", "|eyes"}, Field{"colour", "Colour", "text"},
			Field{"bright", "Held to, %", "text"})
	}
	switch lib.Lamps[d.Product].Kind {
	case "led":
		return append(
			append(first, rest...),
			Field{"row", "LEDs in a row", "text"},
			Field{"resistor", "Resistor", "text"},
		)
	case "strip", "pixels": // what makes it a strip comes first
		first = append(first, Field{"length", "Length", "text"}, Field{"feeds", "Fed at, %", "text"},
			Field{"gauge", "Feed gauge", "text"})
		if lib.Lamps[d.Product].Kind == "pixels" {
			first = append(
				first,
				Field{"bright", "Held to, %", "text"},
				Field{"picture", "Shows", "|solid|chase|breathe|embers|swarm"},
				Field{"colour", "Colour", "text"},
				Field{"data", "Data from", "datas"},
				Field{"pin", "Pin", "text"},
				Field{"dataLead", "Data wire", "text"},
				Field{"common", "Data ground", "check"},
				Field{"shifter", "Level shifter", "check"},
				Field{"damper", "Data resistor", "check"},
				Field{"bulk", "Feed capacitor", "check"},
			)
		}
	}
	return append(first, rest...)
}

func lampBill(d *Device, lib *stock.Library) (b Bill) {
	add := func(c Bill) { b.Copper, b.Money = b.Copper+c.Copper, b.Money+c.Money }
	l := LampOf(d, lib)
	mm2 := l.LeadGauge.Value()
	add(pair(mm2, d.Extension.Value()))
	feeds, _ := ParseFeeds(d.Feeds)
	for i, f := range feeds {
		far := f * d.Length.Value()
		if i > 0 {
			far += d.Extension.Value() + l.Lead.Value()
		}
		add(pair(mm2, far))
	}
	if d.Shifter {
		b.Money += 2
	}
	if d.Damper || d.Bulk {
		b.Money++
	}
	return b
}

// buildLamp is its leads and its load, of a strip one load a segment.
func buildLamp(b *builder, d *Device, pos, neg int) {
	r := b.Rig
	l := LampOf(d, r.lib)
	ohms := stock.CopperOhmsPerMetre(l.LeadGauge.Value(), r.temp) / 1000
	join := func(mm float64, x, y int) {
		r.at(d.ID).leads = append(r.at(d.ID).leads,
			lead{r.Net.Wire(d.ID+" lead", pos, x, ohms*mm), r.Net.Wire(d.ID+" lead", neg, y, ohms*mm)})
	}
	turn := func(x, y int) (int, int) {
		if d.Reversed && l.Kind != "motor" { // which turns as well, backwards
			x, y = y, x
		}
		return x, y
	}
	long := l.Lead.Value() + d.Extension.Value()
	x, y := turn(r.Net.Node(d.ID+"+"), r.Net.Node(d.ID+"-"))
	e := element(d, l, r.lib.Bench())
	if l.Kind == "strip" || l.Kind == "pixels" {
		buildStrip(b, d, l, e, x, y, func(share float64, p, q int) {
			p, q = turn(p, q)
			join(long+share*d.Length.Value(), p, q)
		})
		return
	}
	p, q := turn(x, y)
	join(long, p, q)
	e.A, e.B = x, y
	r.at(d.ID).load = []int{r.Net.Add(e)}
	if l.Kind == "power" || l.Kind == "sensor" {
		r.power = append(r.power, powered{r.at(d.ID).load[0], l.Volts * l.Amps})
	}
}

// buildStrip is a strip's segments between its rails; each of its feeds is joined
// at its share of the length.
func buildStrip(
	b *builder,
	d *Device,
	l stock.Lamp,
	e circuit.Element,
	x, y int,
	feed func(share float64, p, q int),
) {
	r := b.Rig
	from, n := len(r.Net.Elements), lumps(Segments(d, r.lib))
	base := len(r.Net.Names)
	farPos, farNeg := r.Net.StripOf(d.ID, x, y, Segments(d, r.lib), n, l.Copper*float64(l.Cut)/l.PerMetre, e)
	r.at(d.ID).strip = [2]int{farPos, farNeg}
	to := len(r.Net.Elements)
	feeds, _ := ParseFeeds(d.Feeds)
	for _, f := range feeds {
		p, q := x, y
		if k := int(math.Round(f * float64(n))); k > 0 {
			p, q = base+2*k-2, base+2*k-1
		}
		feed(f, p, q)
	}
	for i := from; i < to; i++ {
		if r.Net.Elements[i].Kind == e.Kind {
			r.at(d.ID).load = append(r.at(d.ID).load, i)
		}
	}
}

func readLamp(r *Rig, sol *circuit.Solution, d *Device, g *Operating) {
	ids := r.at(d.ID).load
	g.Volts, g.FarVolt = sol.Across(r.Net.Elements[ids[0]]), math.Inf(1)
	full := RatedAmps(d, r.lib) / float64(len(ids))
	g.Lit = math.Inf(1)
	for _, e := range ids {
		v := sol.Across(r.Net.Elements[e])
		g.Amps += sol.I[e]
		g.Watts += sol.I[e] * v
		g.FarVolt = math.Min(g.FarVolt, v)
		g.Lit = math.Min(g.Lit, sol.I[e]/full)
	}
	g.Lit = math.Max(0, works(LampOf(d, r.lib), *g))
	g.State = LampState(d, *g, RatedVolts(d, r.lib), r.Unfed(d.ID))
	if d.Reversed {
		g.Volts, g.FarVolt = -g.Volts, -g.FarVolt // as a meter on its leads reads
	}
}

// LampOf is a lamp's shop entry with the device's own values laid over it.
func LampOf(d *Device, lib *stock.Library) stock.Lamp {
	l := lib.Lamps[d.Product]
	if !d.Volts.IsZero() {
		l.Volts = d.Volts.Value()
	}
	if !d.Amps.IsZero() {
		l.Amps = d.Amps.Value()
	} else if l.Columns > 0 && d.Picture != "" {
		l.Amps = l.Idle + (l.Amps-l.Idle)*shown(d, l, lib.Bench())
	}
	if !d.Lead.IsZero() {
		l.Lead = d.Lead
	}
	if !d.Gauge.IsZero() {
		l.LeadGauge = d.Gauge
	}
	return l
}

// OwnFigures are the volts and amperes of a lamp where they are not its product's, as they are
// said of what is bought; "" where they are.
func OwnFigures(d *Device, lib *stock.Library) string {
	l, out := lib.Lamps[d.Product], []string{}
	if !d.Volts.IsZero() && d.Volts.Value() != l.Volts {
		out = append(out, measure.Volts(d.Volts.Value()))
	}
	if !d.Amps.IsZero() && d.Amps.Value() != l.Amps {
		out = append(out, measure.Amps(d.Amps.Value()))
	}
	return strings.Join(out, " ")
}

// RatedVolts is what the lamp is made for: for bare LEDs with a resistor, what
// runs their row at its rated current.
func RatedVolts(d *Device, lib *stock.Library) float64 {
	l := LampOf(d, lib)
	if l.Kind == "led" {
		return float64(max(1, d.Row))*l.Vf + l.Amps*d.Resistor.Or(0)
	}
	return l.Volts
}

// mostLumps is as how many loads a strip is solved at most: with 600, ten metres of 60 a
// metre, one more or less is below a tenth of a millivolt.
const mostLumps = 600

// lumps is as how many loads a strip of so many segments is solved.
func lumps(segments int) int { return min(segments, mostLumps) }

// Segments is how many cut segments or pixels a strip has.
func Segments(d *Device, lib *stock.Library) int {
	return segments(d, lib.Lamps[d.Product])
}

func segments(d *Device, l stock.Lamp) int {
	return max(1, int(d.Length.Value()/1000*l.PerMetre+1e-6)/max(1, l.Cut))
}

// LengthOf is how long a strip of so many segments is, as it is written: rounded up, so that
// it has them all.
func LengthOf(n int, l stock.Lamp, metric bool) measure.Length {
	mm := 1000 * float64(n*max(1, l.Cut)) / l.PerMetre
	if metric {
		return measure.Must[measure.LengthKind](measure.Decimal(math.Ceil(mm*10-1e-6)/10, 1) + " mm")
	}
	return measure.Must[measure.LengthKind](measure.Decimal(math.Ceil(mm/measure.Inch*100-1e-6)/100, 2) + " in")
}

// RatedAmps is what the lamp draws at its rated volts.
func RatedAmps(d *Device, lib *stock.Library) float64 {
	l := LampOf(d, lib)
	switch l.Kind {
	case "strip":
		return l.Amps * float64(Segments(d, lib))
	case "pixels":
		return float64(Segments(d, lib)) * (l.Idle + (l.Amps-l.Idle)*shown(d, l, lib.Bench()))
	}
	return l.Amps
}

// shown is the share of full white that pixels show at most: what their picture takes, held
// to what they are held to.
func shown(d *Device, l stock.Lamp, b *memo.Bench) float64 { return bright(d) * pictured(d, l, b) }

// Picture is the share of full white that a string's picture takes at most; all of it when
// it has none.
func Picture(d *Device, lib *stock.Library) float64 {
	return pictured(d, lib.Lamps[d.Product], lib.Bench())
}

// pictured is what a picture takes, remembered by itself, its colour and its pixels.
func pictured(d *Device, l stock.Lamp, b *memo.Bench) float64 {
	if d.Picture == "" {
		return 1
	}
	c, err := pixel.Read(d.Colour)
	if err != nil {
		c = pixel.Names["white"]
	}
	pictures := memo.At[string, float64](b, "pictures", 500, nil)
	if l.Columns > 0 {
		return pictures.Get(fmt.Sprint(d.Picture, c, l.Columns, l.Rows), func() float64 {
			return pixel.EyesShare(c, l.Columns, l.Rows)
		})
	}
	n := segments(d, l)
	return pictures.Get(fmt.Sprint(d.Picture, c, n), func() float64 { return pixel.Picture(d.Picture).Share(c, n) })
}

func bright(d *Device) float64 {
	if d.Bright == 0 {
		return 1
	}
	return float64(d.Bright) / 100
}

// ledOhms is the resistance of a small LED's own stuff; a stronger one has less,
// so that no more than ledShare of its volts is lost in it. Typical, from memory.
const ledOhms, ledShare = 5., .1

// element is the load between two nodes.
func element(d *Device, l stock.Lamp, b *memo.Bench) circuit.Element {
	switch l.Kind {
	case "resistive", "coil":
		return circuit.Element{Kind: circuit.Resistor, R: l.Volts / l.Amps, Name: d.ID}
	case "motor", "servo": // turns against its load with a steady current; below that it stands, a resistance
		return circuit.Element{Kind: circuit.Sink, I: l.Amps, Vf: l.Amps * l.Volts / l.Stall, Name: d.ID}
	case "power", "amplifier", "sensor": // a screen's current is found in solve
		return circuit.Element{Kind: circuit.Sink, I: l.Amps, Vf: l.Min, Name: d.ID}
	case "led":
		n := float64(max(1, d.Row))
		vt := 2 * 0.02585 // emission coefficient 2 at 27 C, per LED
		bulk := min(ledOhms, ledShare*l.Vf/l.Amps)
		return circuit.Element{
			Kind: circuit.LED,
			R:    math.Max(d.Resistor.Or(0)+bulk*n, 0.1),
			Is:   circuit.SaturationCurrent(l.Vf-bulk*l.Amps, l.Amps, vt),
			Vt:   vt * n,
			Name: d.ID,
		}
	case "strip":
		return circuit.Element{Kind: circuit.Prewired, Vf: l.Vf, R: (l.Volts - l.Vf) / l.Amps, Name: d.ID}
	case "pixels":
		return circuit.Element{
			Kind: circuit.Sink,
			I:    l.Idle + (l.Amps-l.Idle)*shown(d, l, b),
			Vf:   0.74 * l.Volts,
			Name: d.ID,
		}
	}
	return circuit.Element{Kind: circuit.Prewired, Vf: l.Vf, R: (l.Volts - l.Vf) / l.Amps, Name: d.ID}
}

// possible refuses a load whose own values cannot be: LEDs that want more than
// the lamp's volts, a motor that takes more running than held.
func possible(l stock.Lamp) error {
	switch l.Kind {
	case "motor", "servo":
		if l.Stall > 0 && l.Amps >= l.Stall {
			return measure.Bad(
				"amps",
				"%s running is not less than the %s it takes held; write what it takes running",
				measure.Amps(l.Amps),
				measure.Amps(l.Stall),
			)
		}
	case "pixels":
		if l.Amps < l.Idle {
			return measure.Bad(
				"amps",
				"%s at full white is less than the %s a dark pixel takes; write more",
				measure.Amps(l.Amps),
				measure.Amps(l.Idle),
			)
		}
		if l.Volts < 3 {
			return measure.Bad("volts", "%s runs no pixel; write 5 V or 12 V", measure.Volts(l.Volts))
		}
	case "power", "amplifier", "sensor", "resistive", "coil", "led":
	default: // LEDs with a resistor inside
		if l.Volts <= l.Vf {
			return measure.Bad(
				"volts",
				"%s is not more than the %s its LEDs want; write its rated volts",
				measure.Volts(l.Volts),
				measure.Volts(l.Vf),
			)
		}
	}
	return nil
}

// works is how much of its work a load does: of a lamp its share of rated
// current; of a motor its share of rated speed, which is the volts left over
// its winding; of a screen or an amplifier whether it has the volts it needs.
func works(l stock.Lamp, g Operating) float64 {
	switch l.Kind {
	case "motor", "servo":
		winding := l.Amps * l.Volts / l.Stall
		return math.Min(1, (g.Volts-winding)/(l.Volts-winding))
	case "power", "amplifier", "sensor":
		return math.Min(1, g.Volts/math.Max(l.Min, .1)) * math.Min(1, math.Max(g.Lit, 0)*2)
	}
	return g.Lit
}

// LampState is how a lamp is seen: dim below 90 % of its current and dark below 5 %; over from 10 %
// above its volts.
func LampState(d *Device, g Operating, rated float64, unfed bool) string {
	switch {
	case unfed:
		return "unfed"
	case d.Reversed && g.Lit < 0.05 && g.Volts < -0.1:
		return "reversed"
	case g.Volts > 1.1*rated:
		return "over"
	case g.Lit < 0.05:
		return "dark"
	case g.Lit < 0.90:
		return "dim"
	}
	return "lit"
}
