package pattern

import (
	"fmt"
	"math"

	"zapbarn/core/measure"
	"zapbarn/core/source"
)

// Laminate is a shell laid up in a mould: plies of mat or cloth wetted out with
// resin, over a gel coat or none. The mould is a dish, an ellipse at its rim.
type Laminate struct {
	W, H, Deep float64 // of the rim, and of the dish
	Plies      int
	Gel        bool
	Fibre      float64 // kg/m2 of one ply, dry
	Glass      float64 // share of the cured plies' mass that is glass
	Density    float64 // kg/m3, cured
	Hardener   float64 // share of the resin's mass
	Pot        float64 // s from mixing until it gels
}

// What a lay-up takes beside its plies.
const (
	trimEdge  = 25.4    // mm of lay-up over the rim, cut off when it is cured
	lapped    = .15     // of the mat or cloth goes into overlaps
	wasted    = .15     // of the resin stays in cups and brushes
	gelMass   = .6      // kg/m2 of gel coat, some half a millimetre
	wettedOut = .1 / 60 // m2 of one ply that one person wets out in a second
)

// Lay reckons the mould's face, the mat or cloth, the resin by mass with its
// hardener, the mixes that are used up before they gel, and what comes out.
func (l Laminate) Lay() (*Shape, error) {
	if err := sizes("width", l.W, "height", l.H, "depth", l.Deep); err != nil {
		return nil, err
	}
	if l.Plies < 1 || l.Plies > 12 {
		return nil, measure.Bad("plies", "%d plies; write 1 to 12", l.Plies)
	}
	x := l.laidUp()
	s := &Shape{Size: Vec{l.W, l.Deep, l.H}, Mass: x.mass, Outside: x.face * 1e6, Walls: []string{"front"}}
	s.Results = append(x.takes(), x.cured()...)
	if l.Gel {
		gel := x.area * gelMass * (1 + wasted)
		s.Results = append(s.Results, result("gel", "Gel coat", gel, "kg", measure.Kilograms(gel)).With(
			"face x 0.6 kg/m2, 15 % lost",
			fmt.Sprintf("%.4f m2 x 0.6 kg/m2 x 1.15", x.area),
			measure.Kilograms(gel),
			source.FromTrade("brushed half a millimetre thick"),
		))
	}
	s.Bodies = []Body{l.body()}
	return s, nil
}

// laidUp is a lay-up reckoned: areas in m2, masses in kg, thickness in mm.
type laidUp struct {
	Laminate
	face, area         float64 // of the mould, and with what goes over its rim
	mixed, mass, thick float64
	mixes              float64
}

func (l Laminate) laidUp() laidUp {
	x := laidUp{Laminate: l, face: halfEllipsoid(l.W/2, l.H/2, l.Deep) / 1e6}
	wide, high := l.W+2*trimEdge, l.H+2*trimEdge
	x.area = x.face + (math.Pi/4*(wide*high-l.W*l.H))/1e6
	n := float64(l.Plies)
	fibre := x.area * n * l.Fibre
	x.mixed = fibre * (1 - l.Glass) / l.Glass * (1 + wasted)
	x.thick = n * l.Fibre / l.Glass / l.Density * 1000
	if x.mass = x.face * n * l.Fibre / l.Glass; l.Gel {
		x.mass += x.face * gelMass
	}
	x.mixes = math.Ceil(x.area*n/wettedOut/l.Pot - 1e-9)
	return x
}

var plyFrom = source.FromMemory("a ply's mass and its share of glass, as its maker gives them")

// takes is what it takes, with its working.
func (x laidUp) takes() []source.Result {
	kg := measure.Kilograms
	m2 := func(v float64) string { return fmt.Sprintf("%.2f m2", v) }
	cloth, hardener := x.area*float64(x.Plies)*(1+lapped), x.mixed*x.Hardener
	each := fmt.Sprintf("%.0f of %s", x.mixes, kg(x.mixed/x.mixes))
	return []source.Result{
		result("face", "Mould face", x.face, "m2", m2(x.face)).
			With("half an ellipsoid", fmt.Sprintf("%s x %s, %s deep", inches(x.W), inches(x.H), inches(x.Deep)), m2(x.face),
				source.FromMemory("half an ellipsoid's area by Thomsen's formula, true to 1.1 %")),
		result("cloth", "Mat or cloth", cloth, "m2", m2(cloth)).With(
			"(face + an inch over the rim) x plies, 15 % for overlaps",
			fmt.Sprintf("%.4f m2 x %d x 1.15", x.area, x.Plies),
			m2(cloth),
			source.FromTrade("strips overlap; an edge to trim"),
		),
		result("resin", "Resin to mix", x.mixed, "kg", kg(x.mixed)).With(
			"plies x mass of a ply x (1 - glass) / glass, 15 % lost",
			fmt.Sprintf("%.4f m2 x %d x %g kg/m2 x (1 - %g) / %g x 1.15", x.area, x.Plies, x.Fibre, x.Glass, x.Glass),
			kg(x.mixed),
			plyFrom,
			source.FromTrade("10 to 15 % stays in cups and brushes"),
		),
		result("hardener", "Hardener in it", hardener, "kg", kg(hardener)).With(
			"resin x its share by mass",
			fmt.Sprintf("%.4f kg x %g", x.mixed, x.Hardener),
			kg(hardener),
			source.FromMemory("read the product's own sheet: too much runs hot, too little never cures"),
		),
		result("mixes", "Mixes, each before it gels", x.mixes, "", each).With(
			"plies x face / 0.1 m2 a minute / pot life; rounded up",
			fmt.Sprintf("%.4f m2 x %d / 0.1 / %.1f", x.area, x.Plies, x.Pot/60),
			fmt.Sprintf("%.0f", x.mixes),
			source.FromTrade("one person wets out a square metre of one ply in ten minutes"),
		),
	}
}

// cured is what comes out, with its working.
func (x laidUp) cured() []source.Result {
	return []source.Result{
		result("thick", "It is thick", x.thick, "mm", fmt.Sprintf("%.1f mm", x.thick)).With(
			"plies x mass of a ply / glass / density",
			fmt.Sprintf("%d x %g kg/m2 / %g / %g kg/m3 x 1000", x.Plies, x.Fibre, x.Glass, x.Density),
			fmt.Sprintf("%.1f mm", x.thick),
			plyFrom,
		),
		result("mass", "Mass, bare", x.mass, "kg", measure.Kilograms(x.mass)).With(
			"face x (plies x mass of a ply / glass + gel coat)",
			x.sums(x.face),
			measure.Kilograms(x.mass),
			plyFrom,
		),
	}
}

// body is the shell in space: its rim stands upright, the dish to the front.
func (l Laminate) body() Body {
	var dome Profile
	for k := range 49 {
		sn, cs := math.Sincos(math.Pi / 2 * float64(k) / 48)
		dome = append(dome, Point{l.W / 2 * cs, l.Deep * sn})
	}
	b := turned("shell", dome, l.H/l.W)
	for i := range b.Faces {
		f := &b.Faces[i]
		for k, v := range f.Points {
			f.Points[k] = Vec{v.X, l.Deep/2 - v.Z, v.Y + l.H/2}
		}
	}
	b.Explode = Vec{0, -1, 0}
	return b
}

// sums is the shell's mass in numbers.
func (l Laminate) sums(face float64) string {
	gel := 0.
	if l.Gel {
		gel = gelMass
	}
	return fmt.Sprintf("%.4f m2 x (%d x %g kg/m2 / %g + %g)", face, l.Plies, l.Fibre, l.Glass, gel)
}

// halfEllipsoid is the area of half an ellipsoid of those semi-axes, open at the
// ellipse of the first two (Thomsen's formula, true to 1.1 %).
func halfEllipsoid(a, b, c float64) float64 {
	const p = 1.6075
	return 2 * math.Pi * math.Pow((math.Pow(a*b, p)+math.Pow(a*c, p)+math.Pow(b*c, p))/3, 1/p)
}
