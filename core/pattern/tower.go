package pattern

import (
	"fmt"
	"math"

	"zapbarn/core/measure"
	"zapbarn/core/source"
)

// Tower is an n-sided tapered tower or hopper, open at both ends.
type Tower struct {
	N           int
	H           float64 // upright height
	Bottom, Top float64 // outside, across the flats (twice the apothem)
	T           float64
}

// sawTables is where the two angles of a leaning panel can be looked up.
var sawTables = source.Std("crown-moulding saw tables: slope 52, four sides: 31.6 and 33.9; slope 45: 35.3 and 30.0")

// Compound gives the two saw settings for a panel that leans at slope degrees
// from the horizontal in an n-sided ring: the cut angle on the face
// M = atan(cos s tan(180/n)) and the blade tilt B = asin(sin s sin(180/n)).
// Source: sawTables.
func Compound(slope float64, n int) (face, tilt float64) {
	s, a := slope*math.Pi/180, math.Pi/float64(n)
	return math.Atan(math.Cos(s)*math.Tan(a)) * 180 / math.Pi, math.Asin(math.Sin(s)*math.Sin(a)) * 180 / math.Pi
}

// NearStop is the saw's nearest detent to a tilt: 0, 15, 22.5, 30 or 45.
func NearStop(tilt float64) float64 {
	best := 0.0
	for _, s := range []float64{15, 22.5, 30, 45} {
		if math.Abs(s-math.Abs(tilt)) < math.Abs(best-math.Abs(tilt)) {
			best = s
		}
	}
	return best
}

// NearStopGap is what a near-enough setting costs: the gap in mm a joint opens
// when both parts of thickness t are cut at stop instead of tilt. The two cut
// faces turn by 2 delta about one corner, over a cut of length t/cos(stop).
// Positive opens at the inside, negative at the outside.
func NearStopGap(t, tilt, stop float64) float64 {
	r := math.Pi / 180
	return 2 * t / math.Cos(stop*r) * math.Sin((stop-tilt)*r)
}

// Lay works the tower out: n equal trapezoids with bevelled sides, top and
// bottom edges bevelled to lie level.
func (w Tower) Lay() (*Shape, error) {
	if w.N < 3 || w.N > 64 {
		return nil, measure.Bad("sides", "%d sides cannot be made; choose 3 to 64", w.N)
	}
	if err := sizes("height", w.H, "bottom", w.Bottom, "top", w.Top, "thickness", w.T); err != nil {
		return nil, err
	}
	ab, at, tn := w.Bottom/2, w.Top/2, math.Tan(math.Pi/float64(w.N))
	slopeRad := math.Atan2(w.H, ab-at)
	slope := slopeRad * 180 / math.Pi
	flat := w.T / math.Sin(slopeRad) // wall measured level
	if small := math.Min(ab, at); small <= flat {
		field := "top"
		if ab < at {
			field = "bottom"
		}
		return nil, measure.Bad(
			field,
			"%s across is closed by walls of %s; make it more than %s",
			in(2*small),
			in(w.T),
			in(2*flat),
		)
	}
	slant := math.Hypot(w.H, ab-at)
	m, b := Compound(slope, w.N)
	lift := w.T / math.Tan(slopeRad)
	level := 90 - slope
	bh, th := ab*tn, at*tn
	wide := math.Max(bh, th)
	out := []Point{{wide - bh, 0}, {wide + bh, 0}, {wide + th, slant}, {wide - th, slant}}
	ib, it := (ab-flat)*tn, (at-flat)*tn
	inside := []Point{{wide - ib, lift}, {wide + ib, lift}, {wide + it, slant + lift}, {wide - it, slant + lift}}
	p := Panel{
		ID:       "face",
		Name:     "Face",
		Copies:   w.N,
		Thick:    w.T,
		Outline:  out,
		Inside:   inside,
		CutAngle: math.Abs(m),
		Grain:    "up",
		Edges: []Edge{
			{Name: "bottom", Joint: "level", Tilt: level, Reason: "lies level"},
			{Name: "right", Joint: "mitre", Tilt: b, Reason: "next face"},
			{
				Name:   "top",
				Joint:  "level",
				Tilt:   -level,
				Reason: "lies level",
			},
			{Name: "left", Joint: "mitre", Tilt: b, Reason: "next face"},
		},
	}
	p.tick("left", "right")
	s := &Shape{Panels: []Panel{p}}
	edge := math.Hypot(
		w.H,
		(ab-at)/math.Cos(math.Pi/float64(w.N)),
	) // the corner runs further out than the face's middle
	s.Lines = []Line{{"face", "face", float64(w.N) * edge, w.T / math.Cos(b*math.Pi/180)}}
	for i := range w.N {
		// face i looks towards -Y turned by i steps
		a0, a1 := -math.Pi/2+(float64(i)-.5)*2*math.Pi/float64(w.N), -math.Pi/2+(float64(i)+.5)*2*math.Pi/float64(w.N)
		c := math.Cos(math.Pi / float64(w.N))
		at3 := func(apothem, angle, z float64) Vec {
			return Vec{apothem / c * math.Cos(angle), apothem / c * math.Sin(angle), z}
		}
		quad := func(b, t float64) []Vec {
			return []Vec{at3(b, a0, 0), at3(b, a1, 0), at3(t, a1, w.H), at3(t, a0, w.H)}
		}
		mid := (a0 + a1) / 2
		s.Bodies = append(
			s.Bodies,
			prism("face", i, quad(ab, at), quad(ab-flat, at-flat), Vec{math.Cos(mid), math.Sin(mid), 0}),
		)
	}
	s.Size = extent(s.Bodies)
	stop := NearStop(b)
	gap := NearStopGap(w.T, b, stop)
	at45 := "nothing: it is a stop of the saw"
	if math.Abs(gap) > 0.05 {
		where := "inside"
		if gap < 0 {
			where = "outside"
		}
		at45 = fmt.Sprintf("%.1f mm open at the %s", math.Abs(gap), where)
	}
	exact := source.Exact("right triangle of height and half the difference across")
	num := float64(w.N)
	over := func(narrows, widens string) string { // as it stands, or wider at the top
		if w.Top > w.Bottom {
			return widens
		}
		return narrows
	}
	s.Results = append(s.Results,
		result("slope", "Slope of a face from level", slope, "deg", measure.Degrees(slope)).
			With(over("s = atan(h / ((bottom - top)/2))", "s = 180 - atan(h / ((top - bottom)/2))"),
				over(fmt.Sprintf("atan(%s / ((%s - %s)/2))", in(w.H), in(w.Bottom), in(w.Top)),
					fmt.Sprintf("180 - atan(%s / ((%s - %s)/2))", in(w.H), in(w.Top), in(w.Bottom))), measure.Degrees(slope), exact),
		result("slant", "Length up the face", slant, "mm", in(slant)).
			With("L = sqrt(h^2 + ((bottom - top)/2)^2)", fmt.Sprintf("sqrt(%s^2 + %s^2)", in(w.H), in(ab-at)), in(slant), exact),
		result("cut", "Cut angle on the face", math.Abs(m), "deg", measure.Degrees(math.Abs(m))).
			With(over("M = atan(cos s tan(180/n))", "M = atan(cos(180 - s) tan(180/n))"),
				fmt.Sprintf("atan(cos %.3f tan %.3f)", math.Min(slope, 180-slope), 180/num), measure.Degrees(math.Abs(m)),
				sawTables),
		result("tilt", "Blade tilt", b, "deg", measure.Degrees(b)).
			With("B = asin(sin s sin(180/n))", fmt.Sprintf("asin(sin %.3f sin %.3f)", slope, 180/num), measure.Degrees(b),
				sawTables),
		result("level", "Bevel of top and bottom, to lie level", level, "deg", measure.Degrees(math.Abs(level))).
			With(over("90 - s", "s - 90"), over(fmt.Sprintf("90 - %.2f", slope), fmt.Sprintf("%.2f - 90", slope)),
				measure.Degrees(math.Abs(level)), exact),
		result("gap", fmt.Sprintf("If the saw is set to its %s stop", measure.Degrees(stop)), gap, "mm", at45).
			With("gap = 2 t / cos(stop) sin(stop - B)", fmt.Sprintf("2 x %.2f mm / cos %.1f x sin(%.4f)", w.T, stop,
				math.Abs(stop-b)), measure.Decimal(math.Abs(gap), 2)+" mm",
				source.Exact("two cut faces turned about one corner")),
	)
	return s, nil
}

func sub(a, b Vec) Vec { return Vec{a.X - b.X, a.Y - b.Y, a.Z - b.Z} }

func unit(a Vec) Vec {
	n := math.Sqrt(a.X*a.X + a.Y*a.Y + a.Z*a.Z)
	if n == 0 {
		return a
	}
	return Vec{a.X / n, a.Y / n, a.Z / n}
}
