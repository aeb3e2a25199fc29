package calc

import (
	"fmt"
	"math"

	"zapbarn/core/measure"
	"zapbarn/core/motion"
	"zapbarn/core/pixel"
	"zapbarn/core/sound"
	"zapbarn/core/source"
)

// one decimal of decibels
func decibels(v float64) string { return measure.Decimal(v, 1) + " dB" }

var (
	_ = register(
		"sound",
		"How loud a speaker is at the guests and at the fence, and how long an ear bears it.",
		[]Param{
			{"level", "number", "dB at one metre", ""},
			{"at", "length", "to the guests", "10 ft"},
			{"fence", "length", "to the neighbours' fence", "60 ft"},
			{"crowd", "number", "dB of the guests themselves", "65"},
		},
		func(in Inputs) ([]source.Result, error) {
			if in.N("level") > 194 {
				return nil, measure.Bad("level", "%g dB cannot be in air; write such as 92", in.N("level"))
			}
			near, far := in.N("at")/1000, in.N("fence")/1000
			if near <= 0 || far <= 0 {
				return nil, measure.Bad("at", "is nothing; write such as 10 ft")
			}
			std := source.Std("inverse square: 6 dB with each doubling of the distance")
			res := func(key, label string, d float64) source.Result {
				l := sound.Fall(in.N("level"), d)
				r := source.Num(label, l, "dB", decibels(l)).With("L = L at 1 m - 20 log d",
					fmt.Sprintf("%s - 20 log %s", decibels(in.N("level")), measure.Decimal(d, 2)), decibels(l), std)
				r.Key = source.What(key)
				return r
			}
			guests := res("guests", "At the guests", near)
			over := guests.Value - in.N("crowd")
			o := source.Num("Over the crowd", over, "dB", decibels(over)).With("L - crowd, 10 dB wanted",
				fmt.Sprintf("%s - %s", decibels(guests.Value), decibels(in.N("crowd"))), decibels(over),
				source.FromTrade("10 dB over the crowd"))
			o.Key = source.What("over")
			hours := math.Min(24, sound.Bears(guests.Value))
			b := source.Num("An ear bears it", hours*3600, "s", measure.Span(hours*3600)+" a day").With(
				"8 h / 2^((L - 85) / 3)", decibels(guests.Value), measure.Span(hours*3600), source.Std("NIOSH 98-126"))
			b.Key = source.What("bears")
			return []source.Result{guests, o, res("fence", "At the fence", far), b}, nil
		},
	)
	_ = register(
		"fog",
		"Fluid and heater for a night of fog.",
		[]Param{
			{"rate", "number", "mL a minute while it fogs", "20"},
			{"burst", "time", "of one", "3 s"},
			{"runs", "count", "bursts a night", ""},
			{"tank", "number", "mL in its tank", "300"},
			{"heater", "watts", "of its heater", "400 W"},
			{"night", "hours", "that it is kept hot", "4"},
		},
		func(in Inputs) ([]source.Result, error) {
			ml := in.N("rate") * in.N("burst") / 60 * in.N("runs")
			mem := source.FromMemory("a machine's mL a minute: measure yours once")
			fluid := source.Num("Fluid a night", ml, "mL", measure.Decimal(ml, 0)+" mL").With("rate x burst x runs",
				fmt.Sprintf("%g mL/min x %s x %g", in.N("rate"), measure.Span(in.N("burst")), in.N("runs")),
				measure.Decimal(ml, 0)+" mL", mem)
			fluid.Key = source.What("fluid")
			fills := math.Ceil(ml/in.N("tank") - 1e-9)
			f := source.Num("Tanks a night", fills, "", measure.Decimal(fills, 0)).With("fluid / tank, rounded up",
				fmt.Sprintf("%s mL out of tanks of %g mL", measure.Decimal(ml, 0), in.N("tank")),
				measure.Decimal(fills, 0), source.Exact("sum"))
			f.Key = source.What("fills")
			wh := in.N("heater") * in.N("night")
			h := source.Num("Heater, at most", wh, "Wh", measure.Decimal(wh/1000, 2)+" kWh").With("power x time",
				fmt.Sprintf("%s x %g h", measure.Watts(in.N("heater")), in.N("night")),
				measure.Decimal(wh/1000, 2)+" kWh",
				source.Exact("it heats less once it is hot"))
			h.Key = source.What("heat")
			return []source.Result{fluid, f, h}, nil
		},
	)
	_ = register(
		"fog-split",
		"A fog tube split in two: what each branch gets.",
		[]Param{
			{"a", "length", "one branch, bends counted", ""},
			{"b", "length", "the other", ""},
			{"da", "length", "inside, of the one", "2 in"},
			{"db", "length", "inside, of the other", "2 in"},
		},
		func(in Inputs) ([]source.Result, error) {
			for _, k := range []string{"a", "b", "da", "db"} {
				if in.N(k) <= 0 {
					return nil, measure.Bad(k, "is nothing; write such as 6 ft")
				}
			}
			// turbulent flow at one pressure: flow goes with d^2.5 and with the root of 1/length
			a := math.Pow(in.N("da"), 2.5) / math.Sqrt(in.N("a"))
			b := math.Pow(in.N("db"), 2.5) / math.Sqrt(in.N("b"))
			share := 100 * a / (a + b)
			r := source.Num("The one gets", share, "%", measure.Decimal(share, 0)+" %").With(
				"q goes with d^2.5 / sqrt(length)", fmt.Sprintf("%.3g / (%.3g + %.3g)", a, a, b), measure.Decimal(share, 0)+" %",
				source.Std("Darcy-Weisbach, one friction factor for both"))
			r.Key = source.What("share")
			o := source.Num("The other gets", 100-share, "%", measure.Decimal(100-share, 0)+" %").With("the rest", "",
				measure.Decimal(100-share, 0)+" %", source.Exact("sum"))
			o.Key = source.What("other")
			return []source.Result{r, o}, nil
		},
	)
	_ = register(
		"matrix",
		"A row-scanned matrix on shift registers: refresh, duty, current of a row.",
		[]Param{
			{"columns", "count", "across", ""},
			{"rows", "count", "scanned one after another", ""},
			{"bits", "count", "of shades", "1"},
			{"clock", "number", "kHz that bits are shifted at", "1000"},
			{"amps", "amps", "of one LED, lit", "10 mA"},
		},
		func(in Inputs) ([]source.Result, error) {
			if in.N("bits") > 12 {
				return nil, measure.Bad("bits", "%g; write 1 to 12", in.N("bits"))
			}
			m := pixel.Matrix{Columns: int(in.N("columns")), Rows: int(in.N("rows")), Bits: max(1, int(in.N("bits"))),
				Clock: in.N("clock") * 1000, Amps: in.N("amps")}
			if m.Columns < 1 || m.Rows < 1 || m.Clock <= 0 {
				return nil, measure.Bad("columns", "wants a column, a row and a clock at least")
			}
			hz := m.Refresh()
			r := source.Num("Refreshed", hz, "Hz", measure.Decimal(hz, 0)+" times a second").With(
				"clock / (columns x rows x (2^bits - 1))",
				fmt.Sprintf("%g kHz / (%d x %d x %g)", in.N("clock"), m.Columns, m.Rows, math.Pow(2, float64(m.Bits))-1),
				measure.Decimal(hz, 0)+
					" Hz", source.Exact("rows lit one after another; below 60 it is seen to flicker"))
			r.Key = source.What("refresh")
			d := source.Num("Each row is lit", m.Duty()*100, "%", measure.Decimal(m.Duty()*100, 1)+" %").
				With("1 / rows",
					fmt.Sprintf("1 / %d", m.Rows), measure.Decimal(m.Duty()*100, 1)+" %", source.Exact("scanning"))
			d.Key = source.What("duty")
			a := source.Num("A row's driver switches", m.RowAmps(), "A", measure.Amps(m.RowAmps())).
				With("columns x current of one",
					fmt.Sprintf("%d x %s", m.Columns, measure.Amps(m.Amps)),
					measure.Amps(m.RowAmps()), source.Exact("sum"))
			a.Key = source.What("row")
			return []source.Result{r, d, a}, nil
		},
	)
	_ = register(
		"lever",
		"Torque that a weight out on an arm asks for, and the motor that lifts it.",
		[]Param{
			{"mass", "number", "kg", ""},
			{"reach", "length", "from the hinge to its balance point", ""},
			{"angle", "angle", "of the arm over level", "0"},
			{"friction", "percent", "of the weight's torque", "15"},
		},
		func(in Inputs) ([]source.Result, error) {
			t := in.N("mass") * motion.Gravity * in.N("reach") / 1000 * math.Cos(in.N("angle")*math.Pi/180) *
				(1 + in.N("friction")/100)
			r := source.Num("Torque", t, "N m", measure.NewtonMetres(t)).
				With("T = m g reach cos(angle) (1 + friction)",
					fmt.Sprintf("%g kg, %s mm out at %g degrees, %g %% rubbed away", in.N("mass"), measure.Decimal(in.N("reach"), 0),
						in.N("angle"), in.N("friction")),
					measure.NewtonMetres(t),
					source.Std("ISO 80000-3: g = 9.80665 m/s2"), source.FromMemory("friction of plain bearings"))
			r.Key = source.What("torque")
			k := source.Num("In the units of servos", t/motion.KgfCm, "kgf cm", measure.Decimal(t/motion.KgfCm, 1)+" kgf cm").
				With(
					"1 kgf cm = 0.0980665 N m", measure.NewtonMetres(t), measure.Decimal(t/motion.KgfCm, 1)+" kgf cm",
					source.Exact("kilogram-force, exactly 9.80665 N"))
			k.Key = source.What("kgfcm")
			w := source.Num("Take a motor that stalls at", t*motion.Margin, "N m", measure.NewtonMetres(t*motion.Margin)).
				With(
					"2 x torque", fmt.Sprintf("2 x %s", measure.NewtonMetres(t)), measure.NewtonMetres(t*motion.Margin),
					source.FromTrade("a margin of 2"))
			w.Key = source.What("motor")
			return []source.Result{r, k, w}, nil
		},
	)
)
