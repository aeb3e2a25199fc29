package pattern

import (
	"fmt"
	"math"

	"zapbarn/core/measure"
	"zapbarn/core/source"
)

// Frame is a rectangular frame of pipe with fittings at its corners: four posts,
// and a rectangle of rails at each level, the lowest on the floor, the highest at
// the top. Sizes are over the pipes' outsides.
type Frame struct {
	W, D, H  float64
	Levels   int // of rails: 1 is the top alone, 2 floor and top
	OD, Bore float64
	TakeOff  float64 // from a fitting's middle to where the pipe stops in it
	Load     float64 // kg hung on the middle of the longest rail
}

// takeOffs are from the middle of a socket fitting to the stop in it, mm by the
// pipe's outside diameter: from memory of schedule 40 fittings, typical; measure
// yours.
var takeOffs = []struct{ od, stop float64 }{
	{21.3, 12.7},
	{26.7, 14.3},
	{33.4, 17.5},
	{42.2, 22.2},
	{48.3, 27},
	{60.3, 34.9},
	{73, 44.5},
	{88.9, 47.6},
	{114.3, 60.3},
}

// TakeOff is the usual distance for a pipe.
func TakeOff(od float64) float64 {
	best := takeOffs[0]
	for _, t := range takeOffs {
		if math.Abs(t.od-od) < math.Abs(best.od-od) {
			best = t
		}
	}
	return best.stop
}

// PipeModulus and PipeStress are PVC's: 2.8 GPa, and half the hydrostatic design
// stress of 13.8 MPa, half of what new pipe bears, as is usual for bent or sun-aged pipe (common practice, no source).
const (
	PipeModulus = 2.8e9
	PipeStress  = 13.8e6 / 2
)

var (
	pipeFrom = source.Std("ASTM D1784/D1785: modulus, design stress; halved for aged pipe (common practice)")
	fitFrom  = source.FromMemory("socket fittings of schedule 40; measure yours")
)

// Rail is how a simply carried pipe of length l bears a load of kg at its
// middle: stress F L / 4 Z in Pa, sag F L^3 / 48 E I in mm.
func Rail(od, bore, l, kg float64) (stress, sag float64) {
	i := math.Pi / 64 * (math.Pow(od, 4) - math.Pow(bore, 4)) * 1e-12
	f, m := kg*9.80665, l/1000
	return f * m / 4 / (i / (od / 2000)), f * m * m * m / (48 * PipeModulus * i) * 1000
}

// Lay cuts the pipes: outside size, less the pipe (the fittings' middles lie half
// a pipe inside), less the take-off at both ends.
func (f Frame) Lay() (*Shape, error) {
	if err := sizes("width", f.W, "depth", f.D, "height", f.H); err != nil {
		return nil, err
	}
	if f.Levels < 1 || f.Levels > 12 {
		return nil, measure.Bad("levels", "%d levels of rails cannot be made; write 1 to 12", f.Levels)
	}
	if f.TakeOff < 0 || f.TakeOff > 200 {
		return nil, measure.Bad("takeOff", "%s is no fitting; write such as 11/16 in", inches(f.TakeOff))
	}
	if f.Load < 0 || f.Load > 1000 {
		return nil, measure.Bad("load", "%s cannot hang on a pipe; write such as 5 kg", measure.Kilograms(f.Load))
	}
	storeys := max(1, f.Levels-1)
	wide, deep, post := f.between(f.W), f.between(f.D), f.post(storeys)
	for _, of := range []struct {
		field  string
		length float64
	}{{"width", wide}, {"depth", deep}, {"height", post}} {
		if l := of.length; l < f.OD {
			return nil, measure.Bad(of.field, "leaves %s of pipe between its fittings; make it larger", inches(l))
		}
	}
	n := 2 * f.Levels
	s := &Shape{Cuts: []Cut{{"Rail, wide", wide, n}, {"Rail, deep", deep, n}, {"Post", post, 4 * storeys}}}
	s.Results = append(f.lengths(wide, deep, post, storeys), f.fittings())
	if f.Load > 0 {
		s.Results = append(s.Results, f.bent()...)
	}
	f.stand(s)
	return s, nil
}

// between is the pipe between two fittings whose outsides are so far apart.
func (f Frame) between(outside float64) float64 { return outside - f.OD - 2*f.TakeOff }

// post is the pipe of one storey; with rails at the top alone the posts end on the floor,
// with a fitting above only.
func (f Frame) post(storeys int) float64 {
	if f.Levels == 1 {
		return f.H - f.OD/2 - f.TakeOff
	}
	return (f.H-f.OD)/float64(storeys) - 2*f.TakeOff
}

// lengths are the pipes with their working.
func (f Frame) lengths(wide, deep, post float64, storeys int) (out []source.Result) {
	exact := source.Exact("outside size less the pipe and both take-offs")
	n := 2 * f.Levels
	for _, k := range []struct {
		key, label string
		l, outside float64
	}{{"wide", "Rails along the width", wide, f.W}, {"deep", "Rails along the depth", deep, f.D}} {
		out = append(out, result(k.key, k.label, k.l, "mm", fmt.Sprintf("%d of %s", n, inches(k.l))).
			With("L = outside - pipe - 2 take-off", fmt.Sprintf("%.1f - %.1f - 2 x %.1f", k.outside, f.OD, f.TakeOff),
				measure.MarkedTape(k.l), exact, fitFrom))
	}
	how := "L = (H - pipe) / storeys - 2 take-off"
	numbers := fmt.Sprintf("(%.1f - %.1f) / %d - 2 x %.1f", f.H, f.OD, storeys, f.TakeOff)
	if f.Levels == 1 {
		how, numbers = "L = H - pipe / 2 - take-off", fmt.Sprintf("%.1f - %.1f / 2 - %.1f", f.H, f.OD, f.TakeOff)
	}
	return append(out, result("post", "Posts", post, "mm", fmt.Sprintf("%d of %s", 4*storeys, inches(post))).
		With(how, numbers, measure.MarkedTape(post), exact, fitFrom))
}

// fittings counts them.
func (f Frame) fittings() source.Result {
	corners, tees := 8, 4*(f.Levels-2)
	if f.Levels == 1 {
		corners, tees = 4, 0
	}
	text := fmt.Sprintf("%d corners of three ways", corners)
	if tees > 0 {
		text += fmt.Sprintf(", %d tees of four ways", tees)
	}
	return result("fittings", "Fittings", float64(corners+tees), "", text).
		With("a corner where three pipes meet, a four-way where a post goes on",
			fmt.Sprintf("%d levels of rails", f.Levels), text, source.Exact("count"))
}

// bent is how the longest rail bears its load.
func (f Frame) bent() []source.Result {
	l := math.Max(f.W, f.D)
	stress, sag := Rail(f.OD, f.Bore, l, f.Load)
	beam := source.Exact("simply carried beam, load at its middle")
	on := fmt.Sprintf("%s on %s", measure.Kilograms(f.Load), measure.MarkedTape(l))
	text := fmt.Sprintf("%.1f MPa of %.1f", stress/1e6, PipeStress/1e6)
	return []source.Result{
		result("stress", "Bending, loaded rail", stress/1e6, "MPa", text).
			With("F L / (4 Z)", on, fmt.Sprintf("%.2f MPa", stress/1e6), beam, pipeFrom),
		result("sag", "Sag, loaded rail", sag, "mm", fmt.Sprintf("%.1f mm", sag)).
			With("F L^3 / (48 E I)", fmt.Sprintf("%s, E %.1f GPa", on, PipeModulus/1e9), fmt.Sprintf("%.1f mm", sag), beam,
				pipeFrom),
	}
}

// stand draws every pipe from fitting to fitting.
func (f Frame) stand(s *Shape) {
	x, y := (f.W-f.OD)/2, (f.D-f.OD)/2
	bar := func(a, b Vec) { s.Bodies = append(s.Bodies, bar(a, b, f.OD)) }
	var levels []float64
	for k := range f.Levels {
		z := f.H - f.OD/2
		if f.Levels > 1 {
			z = f.OD/2 + (f.H-f.OD)*float64(k)/float64(f.Levels-1)
		}
		levels = append(levels, z)
	}
	for _, z := range levels {
		for _, side := range []float64{-1, 1} {
			bar(Vec{-x, side * y, z}, Vec{x, side * y, z})
			bar(Vec{side * x, -y, z}, Vec{side * x, y, z})
		}
	}
	for _, sx := range []float64{-1, 1} {
		for _, sy := range []float64{-1, 1} {
			bar(Vec{sx * x, sy * y, 0}, Vec{sx * x, sy * y, f.H})
		}
	}
	s.Size = Vec{f.W, f.D, f.H}
}

// bar is a length of pipe between two points.
func bar(a, b Vec, od float64) Body {
	along := unit(sub(b, a))
	u := Vec{0, 0, 1}
	if math.Abs(along.Z) > .9 {
		u = Vec{1, 0, 0}
	}
	v := crossed(along, u)
	ring := func(o Vec) []Vec {
		out := make([]Vec, 12)
		for i := range out {
			sn, cs := math.Sincos(math.Pi / 6 * float64(i))
			out[i] = Vec{o.X + od/2*(cs*u.X+sn*v.X), o.Y + od/2*(cs*u.Y+sn*v.Y), o.Z + od/2*(cs*u.Z+sn*v.Z)}
		}
		return out
	}
	body := prism("pipe", 0, ring(b), ring(a), Vec{0, 0, 1})
	for i := 2; i < len(body.Faces); i++ {
		body.Faces[i].Curved = true
	}
	return body
}
