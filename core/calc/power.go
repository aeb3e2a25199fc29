package calc

import (
	"fmt"

	"zapbarn/core/circuit"
	"zapbarn/core/measure"
	"zapbarn/core/source"
)

var (
	_ = register(
		"battery",
		"Hours a set of batteries gives, and sets for a season.",
		[]Param{
			{"cell", "text", "coin, aaa, aa, c, d, 9v, sla7 or bank", ""},
			{"amps", "amps", "average current", ""},
			{"rows", "count", "sets side by side", "1"},
			{"cold", "count", "1 near freezing", "0"},
			{"hours", "hours", "a night", "4"},
			{"nights", "count", "of the season", "18"},
		},
		func(in Inputs) ([]source.Result, error) {
			return circuit.Runtime(
				in.T("cell"),
				in.N("amps"),
				int(in.N("rows")),
				in.N("cold") > 0,
				in.N("hours"),
				int(in.N("nights")),
			)
		},
	)
	_ = register(
		"strip-feeds",
		"How many feed points a strip needs.",
		[]Param{
			{"amps", "amps", "the whole strip draws", ""},
			{"ohms", "ohms", "both rails of the whole strip", ""},
			{"volts", "volts", "of the strip", "12 V"},
			{"drop", "percent", "budget", "3"},
		},
		func(in Inputs) ([]source.Result, error) {
			if in.N("amps") <= 0 || in.N("ohms") <= 0 || in.N("volts") <= 0 || in.N("drop") <= 0 {
				return nil, measure.Bad("ohms", "amps, ohms, volts and drop must be more than nothing")
			}
			k, drop, oneEnd := circuit.Feeds(in.N("amps"), in.N("ohms"), in.N("volts"), in.N("drop")/100)
			r := source.Result{Key: source.What("feeds"), Label: "Feed points", Value: float64(k), Text: fmt.Sprint(k)}
			from := source.Std("closed form of a uniformly loaded strip")
			if oneEnd {
				r.Text = "one end does"
				return one(
					r.With(
						"drop = I R / 2",
						fmt.Sprintf("%s x %s / 2", measure.Amps(in.N("amps")), measure.Ohms(in.N("ohms"))),
						measure.Volts(drop),
						from,
						circuit.BudgetFrom,
					),
					nil,
				)
			}
			r.Text = fmt.Sprintf("%d, at the middles of %d equal parts", k, k)
			return one(
				r.With(
					"drop = I R / (8 k^2)",
					fmt.Sprintf("%s x %s / (8 x %d^2)", measure.Amps(in.N("amps")), measure.Ohms(in.N("ohms")), k),
					measure.Volts(drop),
					from,
					circuit.BudgetFrom,
				),
				nil,
			)
		},
	)
	_ = register(
		"led-rows",
		"Rows and resistors for a number of bare LEDs.",
		[]Param{
			{"count", "count", "LEDs in all", ""},
			{"volts", "volts", "of the supply", "12 V"},
			{"vf", "volts", "of one LED", "3.2 V"},
			{"amps", "amps", "through each", "20 mA"},
		},
		func(in Inputs) ([]source.Result, error) {
			_, out, err := circuit.Groups(in.N("volts"), in.N("vf"), int(in.N("count")), in.N("amps"))
			return out, err
		},
	)
	_ = register(
		"pixel-line",
		"What one data line of addressable pixels needs.",
		[]Param{
			{"count", "count", "pixels on the line", ""},
			{"amps", "amps", "the supply gives", ""},
			{"copies", "count", "strips side by side on this pin", "1"},
			{"logic", "volts", "of the controller's pin", "3.3 V"},
			{"rail", "volts", "of the strip", "5 V"},
			{"full", "amps", "a pixel at full white", "60 mA"},
			{"idle", "amps", "a dark pixel", "1 mA"},
		},
		func(in Inputs) ([]source.Result, error) {
			return circuit.PixelLine(
				int(in.N("count")),
				int(in.N("copies")),
				in.N("logic"),
				in.N("rail"),
				in.N("full"),
				in.N("idle"),
				in.N("amps"),
			)
		},
	)
	_ = register(
		"outlet",
		"Loads on one mains outlet circuit: plugs and cords only.",
		[]Param{
			{"watts", "watts", "all loads together", ""},
			{"volts", "volts", "120 V or 230 V", "120 V"},
			{"breaker", "amps", "of the circuit", "15 A"},
			{"hours", "hours", "a night", "4"},
		},
		func(in Inputs) ([]source.Result, error) {
			return circuit.Outlet(in.N("watts"), in.N("volts"), in.N("breaker"), in.N("hours"))
		},
	)
)
