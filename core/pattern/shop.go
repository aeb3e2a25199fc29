package pattern

import (
	"fmt"
	"math"

	"zapbarn/core/measure"
	"zapbarn/core/source"
)

// Small sums of the shop: spacing, wrapping, fitting. Lengths are mm.

// RingsAtPitch is rings of round section d round a pole, from one end to the
// other at a pitch: how many, and the length of each at its own middle.
func RingsAtPitch(height, pitch, pole, d float64) ([]source.Result, error) {
	if err := sizes("height", height, "pitch", pitch, "pole", pole, "d", d); err != nil {
		return nil, err
	}
	if pitch < d {
		return nil, measure.Bad("pitch", "%s is less than the ring's %s; they would overlap", inches(pitch), inches(d))
	}
	n := math.Floor((height-d)/pitch+1e-9) + 1
	if n < 1 {
		return nil, measure.Bad("height", "%s holds no ring of %s", inches(height), inches(d))
	}
	round := math.Pi * (pole + d)
	exact := source.Exact("circle at the ring's middle; whole pitches")
	return []source.Result{
		result("rings", "Rings", n, "", fmt.Sprintf("%.0f", n)).
			With("n = floor((H - d) / pitch) + 1",
				fmt.Sprintf("floor((%s - %s) / %s) + 1", inches(height), inches(d), inches(pitch)),
				fmt.Sprintf("%.0f, the last %s from the end", n, measure.MarkedTape(height-d-(n-1)*pitch)), exact),
		result("each", "Length of each", round, "mm", measure.MarkedTape(round)).
			With("pi (pole + d)", fmt.Sprintf("pi x (%s + %s)", inches(pole), inches(d)), measure.MarkedTape(round), exact),
		result("all", "Length in all", n*round, "mm", measure.MarkedRun(n*round)).
			With("n x each", fmt.Sprintf("%.0f x %s", n, measure.MarkedTape(round)), measure.MarkedRun(n*round), exact),
	}, nil
}

// Scales is rows of scales, each row half a scale over: how many cover a face.
func Scales(w, h, wide, tall, show float64) ([]source.Result, error) {
	if err := sizes("w", w, "h", h, "wide", wide, "tall", tall, "show", show); err != nil {
		return nil, err
	}
	if show > tall {
		return nil, measure.Bad("show", "%s shows more than the scale's %s", inches(show), inches(tall))
	}
	rows := math.Max(1, math.Ceil((h-tall)/show-1e-9)+1)
	even, odd := math.Ceil(w/wide-1e-9), math.Ceil(w/wide+.5-1e-9)
	n := math.Ceil(rows/2)*even + math.Floor(rows/2)*odd
	return []source.Result{
		result("rows", "Rows", rows, "", fmt.Sprintf("%.0f", rows)).
			With("ceil((H - tall) / showing) + 1",
				fmt.Sprintf("ceil((%s - %s) / %s) + 1", inches(h), inches(tall), inches(show)),
				fmt.Sprintf("%.0f", rows), source.Exact("whole rows")),
		result("scales", "Scales", n, "", fmt.Sprintf("%.0f", n)).
			With("rows of ceil(W / wide), every second half a scale over", fmt.Sprintf("%.0f and %.0f a row", even, odd),
				fmt.Sprintf("%.0f", n), source.Exact("whole scales")),
	}, nil
}

// Banding is strips that wrap the four edges of a W x D rectangle, mitred or
// butted, and their length in all.
func Banding(w, d, t float64, mitred bool) ([]source.Result, error) {
	if err := sizes("w", w, "d", d, "t", t); err != nil {
		return nil, err
	}
	long, short, how := w+2*t, d+2*t, "to the long points of 45 mitres"
	if !mitred {
		short, how = d, "butted between the long strips"
	}
	exact := source.Exact("outside sizes, strip thickness counted")
	return []source.Result{
		result("long", "Two long strips", long, "mm", inches(long)).
			With("W + 2 t", fmt.Sprintf("%s + 2 x %s", inches(w), inches(t)), inches(long), exact),
		result("short", "Two short strips, "+how, short, "mm", inches(short)).
			With(map[bool]string{true: "D + 2 t", false: "D"}[mitred], map[bool]string{true: inches(d) + " + 2 x " + inches(t),
				false: inches(d)}[mitred], inches(short), exact),
		result("all", "Strip in all", 2*(long+short), "mm", measure.MarkedRun(2*(long+short))).
			With("2 (long + short)", "", measure.MarkedRun(2*(long+short)), exact),
	}, nil
}

// Armature is wire for an armature: strands twisted round each other at a
// pitch take the helix's length, sqrt(1 + (pi d / pitch)^2) times the path.
func Armature(path, d, pitch float64, strands int, hooks float64) (source.Result, error) {
	if err := sizes("path", path, "d", d, "pitch", pitch); err != nil {
		return source.Result{}, err
	}
	if strands < 1 || strands > 12 || hooks < 0 {
		return source.Result{}, measure.Bad("strands", "write 1 to 12")
	}
	f := 1.0
	if strands > 1 {
		f = math.Hypot(1, math.Pi*d/pitch)
	}
	total := float64(strands)*path*f + hooks
	return result("wire", "Wire", total, "mm", measure.MarkedRun(total)).
			With("strands x path x sqrt(1 + (pi d / pitch)^2) + hooks", fmt.Sprintf("%d x %s x %.3f + %s", strands,
				measure.MarkedRun(path), f, inches(hooks)), measure.MarkedRun(total), source.Exact("length of a helix"),
				source.FromTrade("metal springs back: overbend")),
		nil
}

// Hangers are n evenly spaced along a length, the outer two in from the ends.
func Hangers(length, inset float64, n int) (source.Result, error) {
	if err := positive("length", length); err != nil {
		return source.Result{}, err
	}
	if n < 2 || n > 500 || inset < 0 || 2*inset >= length {
		return source.Result{}, measure.Bad("n", "write 2 to 500, with an inset of less than half the length")
	}
	gap := (length - 2*inset) / float64(n-1)
	return result("gap", "From one to the next", gap, "mm", measure.MarkedTape(gap)).
			With("(L - 2 inset) / (n - 1)", fmt.Sprintf("(%s - 2 x %s) / %d", inches(length), inches(inset), n-1),
				measure.MarkedTape(gap), source.Exact("even spacing"),
				source.FromTrade("rate each hanger for the whole load shared by one fewer")),
		nil
}

// Wedge levels a base on sloping ground: its height at the low end.
func Wedge(base, rise, run float64) (source.Result, error) {
	if err := sizes("base", base, "run", run); err != nil {
		return source.Result{}, err
	}
	if rise < 0 || rise > run {
		return source.Result{}, measure.Bad("rise", "must lie between nothing and the run")
	}
	h := base * rise / run
	return result("height", "Wedge at the low end", h, "mm", measure.MarkedTape(h)).
			With("base x rise / run", fmt.Sprintf("%s x %s / %s", inches(base), inches(rise), inches(run)),
				fmt.Sprintf("%s, an angle of %s", measure.MarkedTape(h), measure.Degrees(math.Atan2(rise, run)*180/math.Pi)),
				source.Exact("similar triangles")),
		nil
}

// KeepUnder is the least that must stay under a pocket in foam, in mm (1/2 in).
const KeepUnder = 12.7

// Hollow is a pocket in a part: what stays under it and to the edge.
func Hollow(thick, depth, edge float64) (source.Result, error) {
	if err := sizes("thick", thick, "depth", depth); err != nil {
		return source.Result{}, err
	}
	from := source.FromTrade("keep 1/2 in of foam under and beside a pocket")
	left := thick - depth
	switch {
	case left <= 0:
		return source.Result{}, measure.Bad("depth", "%s goes through a part of %s", inches(depth), inches(thick))
	case left < KeepUnder:
		return source.Result{}, measure.Bad(
			"depth",
			"leaves %s under the pocket; keep %s: no deeper than %s",
			inches(left),
			inches(KeepUnder),
			inches(math.Max(0, thick-KeepUnder)),
		)
	case edge < KeepUnder:
		return source.Result{}, measure.Bad("edge", "%s to the edge; keep %s", inches(edge), inches(KeepUnder))
	}
	return result(
			"left",
			"Stays under the pocket",
			left,
			"mm",
			inches(left),
		).With("thickness - depth", inches(thick)+" - "+inches(depth), inches(left), from),
		nil
}

// Screen is a picture's width and height from its diagonal and aspect.
func Screen(diagonal, aspectW, aspectH float64, portrait bool) ([]source.Result, error) {
	if err := sizes("diagonal", diagonal, "aspect", aspectW, "aspect", aspectH); err != nil {
		return nil, err
	}
	k := diagonal / math.Hypot(aspectW, aspectH)
	w, h := k*aspectW, k*aspectH
	if portrait {
		w, h = h, w
	}
	from := source.Exact("Pythagoras")
	return []source.Result{
		result(
			"w",
			"Picture width",
			w,
			"mm",
			measure.MarkedTape(w),
		).With("d a / sqrt(a^2 + b^2)",
			fmt.Sprintf("%s x %g / sqrt(%g^2 + %g^2)", inches(diagonal), aspectW, aspectW, aspectH),
			measure.MarkedTape(w), from),
		result("h", "Picture height", h, "mm", measure.MarkedTape(h)).
			With("d b / sqrt(a^2 + b^2)", "", measure.MarkedTape(h), from),
	}, nil
}

// fits are what is added to the hole's size, in mm.
var fits = map[string]float64{"press": +0.5, "slide": -0.75}

// Fit is the size to cut a plug for a hole: 0.5 mm over for EVA pressed in
// pipe, 0.5 to 1 mm under where it must slide.
func Fit(hole float64, kind string) (source.Result, error) {
	if err := positive("hole", hole); err != nil {
		return source.Result{}, err
	}
	add, ok := fits[kind]
	if !ok {
		return source.Result{}, measure.Bad("kind", "%q is no fit; choose press or slide", kind)
	}
	d := hole + add
	if d <= 0 {
		return source.Result{}, measure.Bad("hole", "%s is too small for a sliding fit", inches(hole))
	}
	return result(
			"cut",
			"Cut the plug",
			d,
			"mm",
			measure.Decimal(d, 2)+" mm",
		).With("hole + fit", fmt.Sprintf("%.2f %+.2f mm", hole, add), measure.Decimal(d, 2)+" mm",
			source.FromTrade("press +0.5 mm for EVA in pipe, sliding 0.5 to 1 mm clearance")),
		nil
}

// Scale is what a reference's length is on the prop, from one known pair.
func Scale(known, onReference, other float64) (source.Result, error) {
	if err := sizes("known", known, "ref", onReference, "other", other); err != nil {
		return source.Result{}, err
	}
	f := known / onReference
	return result("length", "On the prop", other*f, "mm", measure.MarkedTape(other*f)).
			With("f = known / same on the reference", fmt.Sprintf("%s / %s", inches(known), inches(onReference)),
				fmt.Sprintf("x %.4g", f), source.Exact("similarity")).
			With("other x f", inches(other)+fmt.Sprintf(" x %.4g", f), measure.MarkedTape(other*f), source.Exact("similarity")),
		nil
}
