package circuit

import (
	"fmt"

	"zapbarn/core/measure"
	"zapbarn/core/source"
	"zapbarn/core/stock"
)

// Row is some equal rows of bare LEDs, each row with its own resistor.
type Row struct {
	Count int     // rows of this kind
	LEDs  int     // in each
	Ohms  float64 // E24
	Watts float64 // the resistor's rating
}

// headroom is the least share of the supply that a row's resistor keeps: with
// less, a supply a little high overdrives the LEDs.
const headroom = 0.10

// HeadroomFrom is its source.
var HeadroomFrom = source.FromTrade("leave the resistor a tenth of the supply's volts")

// Groups lays count LEDs of vf volts at amps out on a supply of vs volts: rows
// as long as the headroom allows, so that as little as can be is lost in the
// resistors, and as even as can be. The results say the rows, what they draw
// together, the share that only warms resistors, and the current in the worst
// row when the supply is 5 % high.
func Groups(vs, vf float64, count int, amps float64) (rows []Row, out []source.Result, err error) {
	switch {
	case count < 1 || count > 1000:
		return nil, nil, measure.Bad("count", "%d LEDs; write 1 to 1000", count)
	case amps <= 0:
		return nil, nil, measure.Bad("amps", "must be more than nothing, such as 20 mA")
	case vf <= 0:
		return nil, nil, measure.Bad("vf", "must be more than nothing, such as 3.2 V")
	}
	most := int((1-headroom)*vs/vf + 1e-9)
	if most < 1 {
		return nil, nil, measure.Bad(
			"volts",
			"%s cannot light one LED of %s and leave its resistor a tenth",
			measure.Volts(vs),
			measure.Volts(vf),
		)
	}
	n := (count + most - 1) / most
	long, each := count%n, count/n
	for _, r := range []Row{{Count: long, LEDs: each + 1}, {Count: n - long, LEDs: each}} {
		if r.Count == 0 {
			continue
		}
		if r.Ohms, r.Watts, _, err = LEDResistor(vs, vf, r.LEDs, amps); err != nil {
			return nil, nil, err
		}
		rows = append(rows, r)
	}
	return rows, grouped(vs, vf, count, most, amps, rows), nil
}

// grouped are the numbers of rows of LEDs: most fit in one.
func grouped(vs, vf float64, count, most int, amps float64, rows []Row) (out []source.Result) {
	n := (count + most - 1) / most
	text, drawn, lost, high := "", 0.0, 0.0, 0.0
	for i, r := range rows {
		if i > 0 {
			text += "; "
		}
		text += fmt.Sprintf("%d x %d with %s %s", r.Count, r.LEDs, measure.Ohms(r.Ohms), measure.Watts(r.Watts))
		left := vs - float64(r.LEDs)*vf
		drawn += float64(r.Count) * left / r.Ohms
		lost += float64(r.Count) * left * left / r.Ohms
		high = max(high, (left+0.05*vs)/r.Ohms)
	}
	law := source.Std("Ohm's law")
	out = append(
		out,
		source.Result{Key: source.What("rows"), Label: "Rows", Value: float64(n), Text: text}.
			With("in a row: 0.9 Vs / Vf, whole; rows: LEDs / that, up", fmt.Sprintf("0.9 x %s / %s = %d; %d / %d",
				measure.Volts(vs), measure.Volts(vf), most, count, most), fmt.Sprintf("%d rows", n), HeadroomFrom).
			With("each row: R = (Vs - n Vf) / I, next E24 up; rated twice its power", fmt.Sprintf("%s each", measure.Amps(amps)),
				text, law, stock.E24From),
		source.Result{Key: source.What("amps"), Label: "Draws", Value: drawn, Unit: "A", Text: measure.Amps(drawn)}.
			With("sum of (Vs - n Vf) / R over the rows", text, measure.Amps(drawn), law),
		source.Result{
			Key:   source.What("lost"),
			Label: "Lost in resistors",
			Value: lost,
			Unit:  "W",
			Text:  fmt.Sprintf("%s, %.0f %%", measure.Watts(lost), 100*lost/(drawn*vs)),
		}.
			With(
				"sum of (Vs - n Vf)^2 / R",
				fmt.Sprintf("of %s x %s", measure.Volts(vs), measure.Amps(drawn)),
				measure.Watts(lost),
				law,
			),
		source.Result{
			Key:   source.What("high"),
			Label: "Worst row, supply 5 % high",
			Value: high,
			Unit:  "A",
			Text:  measure.Amps(high),
		}.
			With("(1.05 Vs - n Vf) / R", text, measure.Amps(high), law),
	)
	return out
}
