package pattern

import (
	"fmt"
	"math"
	"slices"

	"zapbarn/core/measure"
	"zapbarn/core/source"
)

// BentPipe is a pipe that turns, in one plane: bent by heat round a radius, or cut
// and joined with elbows. Legs are measured to where their middle lines meet, the
// first and the last to the pipe's ends, as one measures on a drawing.
type BentPipe struct {
	Legs     []float64
	Turns    []float64 // degrees after each leg but the last; to the right, or left below 0
	Radius   float64   // of a bend's middle line
	Elbows   bool
	OD, Bore float64
	TakeOff  float64 // of an elbow, from its middle to where the pipe stops in it
}

// BendLeast and BendUsual are how many outside diameters a pipe filled with sand is
// bent round: less kinks.
const (
	BendLeast = 3.0
	BendUsual = 4.0
)

var bendFrom = source.FromTrade(
	"plastic pipe filled with sand, warmed evenly: four times its outside, never below three",
)

// elbowTurns are the turns fittings are sold with, in degrees.
var elbowTurns = []float64{22.5, 45, 60, 90}

// Lay cuts the pipe: by heat one piece as long as its middle line, with elbows a
// piece a leg, less the take-off at each.
func (b BentPipe) Lay() (*Shape, error) {
	if len(b.Legs) < 2 || len(b.Legs) > 30 || len(b.Turns) != len(b.Legs)-1 {
		return nil, measure.Bad(
			"legs",
			"%d legs; write 2 to 30 with a turn between, such as 24 in turn 90 18 in",
			len(b.Legs),
		)
	}
	for i, t := range b.Turns {
		if a := math.Abs(t); a < 1 || a > 170 {
			return nil, measure.Bad("legs", "turn %d is %g degrees; write 1 to 170, below 0 to the left", i+1, t)
		}
		if b.Elbows && !slices.Contains(elbowTurns, math.Abs(t)) {
			return nil, measure.Bad(
				"legs",
				"turn %d is %g degrees; elbows turn 22.5, 45, 60 or 90: bend it by heat instead",
				i+1,
				t,
			)
		}
	}
	if least := BendLeast * b.OD; !b.Elbows && b.Radius < least {
		return nil, measure.Bad("radius", "%s kinks this pipe; write %s or more", inches(b.Radius), inches(least))
	}
	s := &Shape{}
	whole := 0.0
	for i, leg := range b.Legs {
		straight := leg - b.less(i-1) - b.less(i)
		if least := map[bool]float64{true: b.OD, false: 0}[b.Elbows]; straight < least {
			return nil, measure.Bad(
				"legs",
				"leg %d is %s: its turns alone take %s; make it longer",
				i+1,
				inches(leg),
				inches(leg-straight+least),
			)
		}
		if b.Elbows {
			s.Cuts = append(s.Cuts, Cut{fmt.Sprintf("Leg %d", i+1), straight, 1})
		}
		whole += straight
	}
	if b.Elbows {
		s.Results = append(s.Results, result("elbows", "Elbows", float64(len(b.Turns)), "", fmt.Sprint(len(b.Turns))).
			With("one a turn", "", fmt.Sprint(len(b.Turns)), source.Exact("count")))
	} else {
		arcs := 0.0
		for _, t := range b.Turns {
			arcs += b.Radius * math.Abs(t) * math.Pi / 180
		}
		s.Cuts = []Cut{{"Before it is bent", whole + arcs, 1}}
		s.Results = append(s.Results, result("cut", "Cut, before it is bent", whole+arcs, "mm",
			measure.MarkedTape(whole+arcs)).
			With("straights + R x turns in radians", fmt.Sprintf("%.1f + %.1f", whole, arcs), fmt.Sprintf("%.1f", whole+arcs),
				source.Exact("a bend's middle line keeps its length"), bendFrom))
	}
	b.stand(s)
	return s, nil
}

// less is what turn i takes off the legs beside it; nothing where there is none.
func (b BentPipe) less(i int) float64 {
	switch {
	case i < 0 || i >= len(b.Turns):
		return 0
	case b.Elbows:
		return b.TakeOff
	}
	return b.Radius * math.Tan(math.Abs(b.Turns[i])*math.Pi/360)
}

// Course is the pipe's middle line from its foot on, upright at first, in its
// plane; arcs in steps of some ten degrees.
func (b BentPipe) Course() (out []Point) {
	at, dir := Point{}, math.Pi/2
	step := func(d float64) {
		at = Point{at.X + d*math.Cos(dir), at.Y + d*math.Sin(dir)}
		out = append(out, at)
	}
	out = append(out, at)
	for i, leg := range b.Legs {
		if b.Elbows {
			step(leg)
		} else {
			step(leg - b.less(i-1) - b.less(i))
		}
		if i == len(b.Turns) {
			break
		}
		turn := -b.Turns[i] * math.Pi / 180
		if b.Elbows {
			dir += turn
			continue
		}
		n := max(2, int(math.Abs(b.Turns[i])/10))
		for range n { // a chord half a step on each side of its turn
			dir += turn / float64(n) / 2
			step(2 * b.Radius * math.Sin(math.Abs(turn)/float64(n)/2))
			dir += turn / float64(n) / 2
		}
	}
	return out
}

// stand draws it, its lowest point on the floor and its middle in the middle.
func (b BentPipe) stand(s *Shape) {
	course := b.Course()
	lo, hi := extentOf(course)
	at := func(p Point) Vec { return Vec{p.X - (lo.X+hi.X)/2, 0, p.Y - lo.Y + b.OD/2} }
	for i := 1; i < len(course); i++ {
		piece := bar(at(course[i-1]), at(course[i]), b.OD)
		ends := piece.Faces[:2:2] // the far one first: only the pipe's own are open to be seen
		piece.Faces = piece.Faces[2:]
		if i == 1 {
			piece.Faces = append(piece.Faces, ends[1])
		}
		if i == len(course)-1 {
			piece.Faces = append(piece.Faces, ends[0])
		}
		s.Bodies = append(s.Bodies, piece)
	}
	s.Size = Vec{hi.X - lo.X + b.OD, b.OD, hi.Y - lo.Y + b.OD}
}
