package circuit

import (
	"fmt"
	"math"

	"zapbarn/core/measure"
	"zapbarn/core/source"
)

// LogicHigh is the share of the strip's volts its data pin needs to read a one.
const LogicHigh = 0.7

// What an addressable pixel line of the common one-wire kind takes.
const (
	pixelTime  = 30e-6 // s: 24 bits of 1.25 us
	resetTime  = 300e-6
	firstOhms  = 330.0
	bulkFarads = 1000e-6
)

// PixelFrom and pixelLevel are their sources.
var (
	PixelFrom = source.FromMemory(
		"one-wire addressable pixels: 24 bits of 1.25 us each, 300 us to latch; a one is 0.7 of the strip's volts or " +
			"more; 330 ohm at the first pixel, 1000 uF across the feed",
	)
	pixelLevel = source.FromMemory("a microcontroller's pin gives what its own rail is: 3.3 V or 5 V")
)

// PictureTime is how long one picture of count pixels takes on its line, in s.
func PictureTime(count int) float64 { return float64(count)*pixelTime + resetTime }

// PixelLine says what one data line of count addressable pixels needs: how
// long a picture takes and so how many a second, whether the controller's
// logic volts reach the strip's, the first resistor and the bulk capacitor,
// and what share of full white amps of supply can carry at 80 %. copies is how
// many strips hang on the same pin in parallel; all show the same picture.
func PixelLine(count, copies int, logic, rail, full, idle, amps float64) (out []source.Result, err error) {
	switch {
	case count < 1 || count > 20000:
		return nil, measure.Bad("count", "%d pixels; write 1 to 20000", count)
	case copies < 1 || copies > 64:
		return nil, measure.Bad("copies", "%d strips on one pin; write 1 to 64", copies)
	case logic <= 0:
		return nil, measure.Bad("logic", "must be more than nothing, such as 3.3 V")
	case rail <= 0:
		return nil, measure.Bad("rail", "must be more than nothing, such as 5 V")
	case amps <= 0:
		return nil, measure.Bad("amps", "must be more than nothing: what the supply gives")
	case full <= idle:
		return nil, measure.Bad("full", "must be more than a dark pixel's %s", measure.Amps(idle))
	}
	out = append(out, pictures(count), level(logic, rail), firstParts(copies))
	if copies > 1 {
		out = append(
			out,
			source.Result{
				Key:   source.What("copies"),
				Label: "Strips on this pin",
				Value: float64(copies),
				Text:  fmt.Sprintf("%d, all showing the same picture", copies),
			}.
				With(
					"one pin, one picture",
					fmt.Sprintf("%d strips in parallel", copies),
					"the same on each",
					PixelFrom,
				),
		)
	}
	return append(out, brightness(float64(count*copies), full, idle, amps)), nil
}

// pictures is how many a line shows in a second.
func pictures(count int) source.Result {
	frame := PictureTime(count)
	return source.Result{
		Key:   source.What("frames"),
		Label: "Pictures a second, at most",
		Value: 1 / frame,
		Text:  fmt.Sprintf("%.0f", math.Floor(1/frame)),
	}.
		With(
			"1 / (pixels x 30 us + 300 us)",
			fmt.Sprintf("1 / (%d x 30 us + 300 us)", count),
			fmt.Sprintf("%.1f ms a picture", 1000*frame),
			PixelFrom,
		)
}

// level is whether a controller's pin reaches the strip's.
func level(logic, rail float64) source.Result {
	need := LogicHigh * rail
	r := source.Result{
		Key:   source.What("level"),
		Label: "Data level",
		Value: logic / need,
		Text:  "the pin reaches it; no level shifter",
	}
	if logic < need-1e-9 {
		r.Text = fmt.Sprintf(
			"LEVEL SHIFTER: %s is under the %s a one must have",
			measure.Volts(logic),
			measure.Volts(need),
		)
	}
	return r.With(
		"a one >= 0.7 x strip volts",
		fmt.Sprintf("0.7 x %s", measure.Volts(rail)),
		measure.Volts(need),
		PixelFrom,
		pixelLevel,
	)
}

// firstParts are what stands before the first pixel of each strip.
func firstParts(copies int) source.Result {
	r := source.Result{Key: source.What("parts"), Label: "At the first pixel", Value: firstOhms, Unit: "ohm",
		Text: fmt.Sprintf(
			"%d x %s in the data line, %d x %.0f uF across the feed",
			copies,
			measure.Ohms(firstOhms),
			copies,
			1e6*bulkFarads,
		)}
	return r.With(
		"one of each a strip, next to its first pixel; grounds of controller and supply joined",
		fmt.Sprintf("%d strips", copies),
		r.Text,
		PixelFrom,
	)
}

// brightness is the share of full white that a supply carries of n pixels.
func brightness(n, full, idle, amps float64) source.Result {
	carry := (LoadLimit*amps - n*idle) / (n * (full - idle))
	share := math.Max(0, math.Min(1, carry))
	r := source.Result{
		Key:   source.What("bright"),
		Label: "Brightness cap",
		Value: share,
		Text:  fmt.Sprintf("%.0f %% of full white", math.Floor(100*share)),
	}
	if carry <= 0 {
		r.Text = "NONE: the dark pixels alone take more than the supply may give"
	}
	return r.With(
		"(80 % of the supply - pixels x dark) / (pixels x (full - dark))",
		fmt.Sprintf(
			"(0.8 x %s - %.0f x %s) / (%.0f x %s)",
			measure.Amps(amps),
			n,
			measure.Amps(idle),
			n,
			measure.Amps(full-idle),
		),
		fmt.Sprintf("%.3f", carry),
		LoadFrom,
		source.FromMemory("5 V pixels: up to 60 mA at full white, about 1 mA dark"),
	)
}
