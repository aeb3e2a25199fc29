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
	x := w.towered()
	if small := math.Min(x.ab, x.at); small <= x.flat {
		field := "top"
		if x.ab < x.at {
			field = "bottom"
		}
		return nil, measure.Bad(
			field,
			"%s across is closed by walls of %s; make it more than %s",
			inches(2*small),
			inches(w.T),
			inches(2*x.flat),
		)
	}
	s := &Shape{Panels: []Panel{x.panel()}, Bodies: x.bodies()}
	edge := math.Hypot(
		w.H,
		(x.ab-x.at)/math.Cos(math.Pi/float64(w.N)),
	) // the corner runs further out than the face's middle
	s.Lines = []Line{{"face", "face", float64(w.N) * edge, w.T / math.Cos(x.tilt*math.Pi/180)}}
	s.Size = extent(s.Bodies)
	s.Results = x.results()
	return s, nil
}

// towered is a tower with what its faces are cut by: half across at bottom and top, the
// slope in degrees, the length up a face, the wall measured level, the saw's two angles.
type towered struct {
	Tower
	ab, at      float64
	slope       float64
	lift        float64 // of the inside face up the outside one
	slant, flat float64
	cut, tilt   float64
}

func (w Tower) towered() towered {
	x := towered{Tower: w, ab: w.Bottom / 2, at: w.Top / 2}
	rad := math.Atan2(w.H, x.ab-x.at)
	x.slope = rad * 180 / math.Pi
	x.flat, x.lift = w.T/math.Sin(rad), w.T/math.Tan(rad)
	x.slant = math.Hypot(w.H, x.ab-x.at)
	x.cut, x.tilt = Compound(x.slope, w.N)
	return x
}

// panel is one face.
func (x towered) panel() Panel {
	tn := math.Tan(math.Pi / float64(x.N))
	level := 90 - x.slope
	bh, th := x.ab*tn, x.at*tn
	wide := math.Max(bh, th)
	ib, it := (x.ab-x.flat)*tn, (x.at-x.flat)*tn
	p := Panel{
		ID:      "face",
		Name:    "Face",
		Copies:  x.N,
		Thick:   x.T,
		Outline: []Point{{wide - bh, 0}, {wide + bh, 0}, {wide + th, x.slant}, {wide - th, x.slant}},
		Inside: []Point{
			{wide - ib, x.lift},
			{wide + ib, x.lift},
			{wide + it, x.slant + x.lift},
			{wide - it, x.slant + x.lift},
		},
		CutAngle: math.Abs(x.cut),
		Grain:    "up",
		Edges: []Edge{
			{Name: "bottom", Joint: "level", Tilt: level, Reason: "lies level"},
			{Name: "right", Joint: "mitre", Tilt: x.tilt, Reason: "next face"},
			{Name: "top", Joint: "level", Tilt: -level, Reason: "lies level"},
			{Name: "left", Joint: "mitre", Tilt: x.tilt, Reason: "next face"},
		},
	}
	p.tick("left", "right")
	return p
}

// bodies are the faces where they stand: face i looks towards -Y turned by i steps.
func (x towered) bodies() (out []Body) {
	c := math.Cos(math.Pi / float64(x.N))
	at3 := func(apothem, angle, z float64) Vec {
		return Vec{apothem / c * math.Cos(angle), apothem / c * math.Sin(angle), z}
	}
	for i := range x.N {
		a0, a1 := -math.Pi/2+(float64(i)-.5)*2*math.Pi/float64(x.N), -math.Pi/2+(float64(i)+.5)*2*math.Pi/float64(x.N)
		quad := func(b, t float64) []Vec {
			return []Vec{at3(b, a0, 0), at3(b, a1, 0), at3(t, a1, x.H), at3(t, a0, x.H)}
		}
		mid := (a0 + a1) / 2
		out = append(out, prism("face", i, quad(x.ab, x.at), quad(x.ab-x.flat, x.at-x.flat),
			Vec{math.Cos(mid), math.Sin(mid), 0}))
	}
	return out
}

// results are its numbers with their working.
func (x towered) results() []source.Result {
	exact := source.Exact("right triangle of height and half the difference across")
	num, level, cut := float64(x.N), 90-x.slope, math.Abs(x.cut)
	over := func(narrows, widens string) string { // as it stands, or wider at the top
		if x.Top > x.Bottom {
			return widens
		}
		return narrows
	}
	return []source.Result{
		result("slope", "Slope of a face from level", x.slope, "deg", measure.Degrees(x.slope)).
			With(over("s = atan(h / ((bottom - top)/2))", "s = 180 - atan(h / ((top - bottom)/2))"),
				over(fmt.Sprintf("atan(%s / ((%s - %s)/2))", inches(x.H), inches(x.Bottom), inches(x.Top)),
					fmt.Sprintf("180 - atan(%s / ((%s - %s)/2))", inches(x.H), inches(x.Top), inches(x.Bottom))),
				measure.Degrees(x.slope), exact),
		result("slant", "Length up the face", x.slant, "mm", inches(x.slant)).
			With("L = sqrt(h^2 + ((bottom - top)/2)^2)", fmt.Sprintf("sqrt(%s^2 + %s^2)", inches(x.H), inches(x.ab-x.at)),
				inches(x.slant), exact),
		result("cut", "Cut angle on the face", cut, "deg", measure.Degrees(cut)).
			With(over("M = atan(cos s tan(180/n))", "M = atan(cos(180 - s) tan(180/n))"),
				fmt.Sprintf("atan(cos %.3f tan %.3f)", math.Min(x.slope, 180-x.slope), 180/num), measure.Degrees(cut),
				sawTables),
		result("tilt", "Blade tilt", x.tilt, "deg", measure.Degrees(x.tilt)).
			With("B = asin(sin s sin(180/n))", fmt.Sprintf("asin(sin %.3f sin %.3f)", x.slope, 180/num),
				measure.Degrees(x.tilt), sawTables),
		result("level", "Bevel of top and bottom, to lie level", level, "deg", measure.Degrees(math.Abs(level))).
			With(over("90 - s", "s - 90"), over(fmt.Sprintf("90 - %.2f", x.slope), fmt.Sprintf("%.2f - 90", x.slope)),
				measure.Degrees(math.Abs(level)), exact),
		x.atStop(),
	}
}

// atStop is what it costs to leave the saw at its nearest stop.
func (x towered) atStop() source.Result {
	stop := NearStop(x.tilt)
	gap := NearStopGap(x.T, x.tilt, stop)
	text := "nothing: it is a stop of the saw"
	if math.Abs(gap) > 0.05 {
		where := "inside"
		if gap < 0 {
			where = "outside"
		}
		text = fmt.Sprintf("%.1f mm open at the %s", math.Abs(gap), where)
	}
	return result("gap", fmt.Sprintf("If the saw is set to its %s stop", measure.Degrees(stop)), gap, "mm", text).
		With("gap = 2 t / cos(stop) sin(stop - B)", fmt.Sprintf("2 x %.2f mm / cos %.1f x sin(%.4f)", x.T, stop,
			math.Abs(stop-x.tilt)), measure.Decimal(math.Abs(gap), 2)+" mm",
			source.Exact("two cut faces turned about one corner"))
}

func sub(a, b Vec) Vec { return Vec{a.X - b.X, a.Y - b.Y, a.Z - b.Z} }

func unit(a Vec) Vec {
	n := math.Sqrt(a.X*a.X + a.Y*a.Y + a.Z*a.Z)
	if n == 0 {
		return a
	}
	return Vec{a.X / n, a.Y / n, a.Z / n}
}
