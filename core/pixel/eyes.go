package pixel

import "math"

// Eyes is the picture of a row-scanned matrix: two eyes that look about together and blink.
const Eyes Picture = "eyes"

// Eye is the share of full of a matrix's lamp in a column and a row, ms after it began: two
// round eyes side by side, a dark pupil in each that wanders, lids that close for a fifth of
// a second every five.
func Eye(col, row, columns, rows, ms int) float64 {
	half := float64(columns) / 2
	r := math.Min(half, float64(rows)) * .46
	x, y := math.Mod(float64(col)+.5, half)-half/2, float64(row)+.5-float64(rows)/2
	if math.Hypot(x, y) > r {
		return 0
	}
	t := float64(ms) / 1000
	if blink := math.Mod(t, 5); blink < .2 {
		if open := math.Abs(blink-.1) / .1; math.Abs(y) > r*open {
			return 0
		}
	}
	px, py := .4*r*math.Sin(2*math.Pi*t/3.7), .3*r*math.Sin(2*math.Pi*t/5.3)
	switch d := math.Hypot(x-px, y-py); {
	case d < .25*r:
		return 0 // the pupil
	case d < .55*r:
		return 1
	}
	return .15
}

// EyesShare is what a matrix's eyes draw at most over a minute, as a share of every lamp at
// full white; each of its three colours draws a third.
func EyesShare(c Colour, columns, rows int) (most float64) {
	if columns < 1 || rows < 1 {
		return 0
	}
	for ms := 0; ms < 60_000; ms += 100 {
		sum := 0.0
		for row := range rows {
			for col := range columns {
				sum += Eye(col, row, columns, rows, ms)
			}
		}
		most = math.Max(most, sum)
	}
	return most / float64(columns*rows) * (float64(c.R) + float64(c.G) + float64(c.B)) / 765
}
