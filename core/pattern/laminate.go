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
	face := halfEllipsoid(l.W/2, l.H/2, l.Deep) / 1e6
	wide, high, deep := l.W+2*trimEdge, l.H+2*trimEdge, l.Deep
	laidUp := face + (math.Pi/4*(wide*high-l.W*l.H))/1e6
	n := float64(l.Plies)
	fibre := laidUp * n * l.Fibre
	resin := fibre * (1 - l.Glass) / l.Glass
	mixed := resin * (1 + wasted)
	thick := n * l.Fibre / l.Glass / l.Density * 1000
	mass := face * n * l.Fibre / l.Glass
	if l.Gel {
		mass += face * gelMass
	}
	working := laidUp * n / wettedOut
	mixes := math.Ceil(working/l.Pot - 1e-9)

	kg := measure.Kilograms
	m2 := func(v float64) string { return fmt.Sprintf("%.2f m2", v) }
	s := &Shape{Size: Vec{l.W, deep, l.H}, Mass: mass, Outside: face * 1e6, Walls: []string{"front"}}
	thomsen := source.FromMemory("half an ellipsoid's area by Thomsen's formula, true to 1.1 %")
	memory := source.FromMemory("a ply's mass and its share of glass, as its maker gives them")
	s.Results = append(s.Results,
		result("face", "Mould face", face, "m2", m2(face)).
			With("half an ellipsoid", fmt.Sprintf("%s x %s, %s deep", in(l.W), in(l.H), in(l.Deep)), m2(face), thomsen),
		result("cloth", "Mat or cloth", laidUp*n*(1+lapped), "m2", m2(laidUp*n*(1+lapped))).With(
			"(face + an inch over the rim) x plies, 15 % for overlaps",
			fmt.Sprintf("%.4f m2 x %d x 1.15", laidUp, l.Plies),
			m2(laidUp*n*(1+lapped)),
			source.FromTrade("strips overlap; an edge to trim"),
		),
		result("resin", "Resin to mix", mixed, "kg", kg(mixed)).With(
			"plies x mass of a ply x (1 - glass) / glass, 15 % lost",
			fmt.Sprintf("%.4f m2 x %d x %g kg/m2 x (1 - %g) / %g x 1.15", laidUp, l.Plies, l.Fibre, l.Glass, l.Glass),
			kg(mixed),
			memory,
			source.FromTrade("10 to 15 % stays in cups and brushes"),
		),
		result("hardener", "Hardener in it", mixed*l.Hardener, "kg", kg(mixed*l.Hardener)).With(
			"resin x its share by mass",
			fmt.Sprintf("%.4f kg x %g", mixed, l.Hardener),
			kg(mixed*l.Hardener),
			source.FromMemory("read the product's own sheet: too much runs hot, too little never cures"),
		),
		result("mixes", "Mixes, each before it gels", mixes, "", fmt.Sprintf("%.0f of %s", mixes, kg(mixed/mixes))).With(
			"plies x face / 0.1 m2 a minute / pot life; rounded up",
			fmt.Sprintf("%.4f m2 x %d / 0.1 / %.1f", laidUp, l.Plies, l.Pot/60),
			fmt.Sprintf("%.0f", mixes),
			source.FromTrade("one person wets out a square metre of one ply in ten minutes"),
		),
		result("thick", "It is thick", thick, "mm", fmt.Sprintf("%.1f mm", thick)).With(
			"plies x mass of a ply / glass / density",
			fmt.Sprintf("%d x %g kg/m2 / %g / %g kg/m3 x 1000", l.Plies, l.Fibre, l.Glass, l.Density),
			fmt.Sprintf("%.1f mm", thick),
			memory,
		),
		result("mass", "Mass, bare", mass, "kg", kg(mass)).With(
			"face x (plies x mass of a ply / glass + gel coat)",
			l.sums(face),
			kg(mass),
			memory,
		),
	)
	if l.Gel {
		gel := laidUp * gelMass * (1 + wasted)
		s.Results = append(s.Results, result("gel", "Gel coat", gel, "kg", kg(gel)).With(
			"face x 0.6 kg/m2, 15 % lost",
			fmt.Sprintf("%.4f m2 x 0.6 kg/m2 x 1.15", laidUp),
			kg(gel),
			source.FromTrade("brushed half a millimetre thick"),
		))
	}
	var dome Profile
	for k := range 49 {
		sn, cs := math.Sincos(math.Pi / 2 * float64(k) / 48)
		dome = append(dome, Point{l.W / 2 * cs, deep * sn})
	}
	b := turned("shell", dome, l.H/l.W)
	for i := range b.Faces { // its rim stands upright, the dish to the front
		f := &b.Faces[i]
		for k, v := range f.Points {
			f.Points[k] = Vec{v.X, deep/2 - v.Z, v.Y + l.H/2}
		}
	}
	b.Explode = Vec{0, -1, 0}
	s.Bodies = []Body{b}
	return s, nil
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
