package pattern

import (
	"fmt"
	"math"

	"zapbarn/core/measure"
	"zapbarn/core/source"
)

// known are the least R/r for n equal discs in a disc: proven to 13 and for 19,
// the best known for the others. From memory; a test packs them all.
var known = map[int]float64{
	1:  1,
	2:  2,
	3:  1 + 2/math.Sqrt(3),
	4:  1 + math.Sqrt2,
	5:  1 + math.Sqrt(2*(1+1/math.Sqrt(5))),
	6:  3,
	7:  3,
	8:  1 + 1/math.Sin(math.Pi/7),
	9:  1 + 1/math.Sin(math.Pi/8),
	10: 3.813026,
	11: 1 + 1/math.Sin(math.Pi/9),
	12: 4.029602,
	13: 2 + math.Sqrt(5),
	14: 4.328429,
	15: 4.521357,
	16: 4.615426,
	17: 4.792034,
	18: 4.863704,
	19: 4.863704,
	20: 5.122321,
}

var packingFrom = source.Std("known optimal packings of equal discs in a disc")

// DiscsInDisc is the least diameter that holds n discs of diameter d: from the
// known packings, else by hexagonal rings, which always holds them but may not
// be the least.
func DiscsInDisc(n int, d float64) (source.Result, error) {
	if err := positive("d", d); err != nil {
		return source.Result{}, err
	}
	if n < 1 || n > 1000 {
		return source.Result{}, measure.Bad("n", "%d discs; write 1 to 1000", n)
	}
	ratio, from := known[n], packingFrom
	if ratio == 0 {
		rings := int(math.Ceil((math.Sqrt(12*float64(n)-3) - 3) / 6))
		ratio, from = float64(2*rings+1), source.Exact(
			fmt.Sprintf("%d hexagonal rings hold %d; a smaller disc may do", rings, 1+3*rings*(rings+1)),
		)
		for k, r := range known { // never more than a larger known one
			if k > n && r < ratio {
				ratio, from = r, packingFrom
			}
		}
	}
	out := ratio * d
	return result(
			"holder",
			fmt.Sprintf("Disc that holds %d", n),
			out,
			"mm",
			measure.MarkedUp(out),
		).With("D = d (R/r)", fmt.Sprintf("%s x %.5f", inches(d),
			ratio), measure.MarkedUp(out)+", rounded up so that they fit", from),
		nil
}

// Layers is how many layers of stock t thick reach a thickness, and what is
// left over; stack first, then cut, where edges must line up (common
// practice, no source).
func Layers(want, t float64) (source.Result, error) {
	if err := sizes("want", want, "t", t); err != nil {
		return source.Result{}, err
	}
	n := math.Ceil(want/t - 1e-6)
	if n > 1000 {
		return source.Result{}, measure.Bad("t", "takes %.0f layers; use thicker stock", n)
	}
	return result("layers", "Layers", n, "", fmt.Sprintf("%.0f, %s too thick", n, inches(n*t-want))).
			With("n = ceil(T / t)", fmt.Sprintf("ceil(%s / %s)", inches(want), inches(t)), fmt.Sprintf("%.0f, %s in all",
				n, inches(n*t)),
				source.Exact("whole layers"), source.FromTrade("stack, then cut, when edges must line up")),
		nil
}

// DiscPlaces is where n unit discs lie in the least disc round them, where that
// is a ring about one in the middle (up to 9) or hexagonal rings (19, and from 21
// on); nil for the others, whose best packings are neither.
func DiscPlaces(n int) (out []Point) {
	ring := func(k int, middle bool) []Point {
		r := 1 / math.Sin(math.Pi/float64(k))
		if middle {
			out = append(out, Point{})
			r = math.Max(r, 2)
		}
		for i := range k {
			s, c := math.Sincos(2 * math.Pi * float64(i) / float64(k))
			out = append(out, Point{r * c, r * s})
		}
		return out
	}
	switch {
	case n < 1 || n >= 10 && n <= 20 && n != 19 || n > 400:
		return nil
	case n == 1:
		return []Point{{}}
	case n <= 5:
		return ring(n, false)
	case n <= 9:
		return ring(n-1, true)
	}
	out = append(out, Point{})
	for r := 1; len(out) < n; r++ {
		for side := range 6 {
			a, b := math.Pi/3*float64(side), math.Pi/3*float64(side+2)
			for k := 0; k < r && len(out) < n; k++ {
				out = append(
					out,
					Point{
						2 * (float64(r)*math.Cos(a) + float64(k)*math.Cos(b)),
						2 * (float64(r)*math.Sin(a) + float64(k)*math.Sin(b)),
					},
				)
			}
		}
	}
	return out
}
