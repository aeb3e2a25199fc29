package pattern

import (
	"math"
	"sort"
	"strconv"
	"strings"

	"zapbarn/core/measure"
)

// Profile is half the outline of a solid of revolution: radius at heights that
// never fall, in mm.
type Profile []Point // X is the radius, Y the height

// shapes are the profiles by name, as radius at a share z of the height, both
// 0 to 1.
var shapes = map[string]func(z float64) float64{
	"sphere": func(z float64) float64 { return math.Sqrt(math.Max(0, 1-(2*z-1)*(2*z-1))) },
	"dome":   func(z float64) float64 { return math.Sqrt(math.Max(0, 1-math.Pow(z, 2.2))) },
	"squash": func(z float64) float64 { return math.Pow(math.Max(0, 1-math.Pow(math.Abs(2*z-1), 2.6)), 1/2.6) },
	"egg": func(z float64) float64 { // fuller below: the sphere's height slid down
		u := math.Pow(z, 0.78)
		return math.Sqrt(math.Max(0, 1-(2*u-1)*(2*u-1)))
	},
	"onion": func(z float64) float64 { // a ball drawn out to a point
		if z < 0.42 {
			u := z / 0.84
			return math.Sqrt(math.Max(0, 1-(2*u-1)*(2*u-1)))
		}
		u := (z - 0.42) / 0.58
		return math.Pow(math.Max(0, math.Cos(math.Pi/2*u)), 1.5) * (1 - 0.18*u)
	},
	"bell": func(z float64) float64 {
		pts := [][2]float64{
			{0, 1},
			{.05, .93},
			{.15, .77},
			{.3, .64},
			{.5, .56},
			{.7, .51},
			{.82, .45},
			{.92, .31},
			{1, 0},
		}
		for i := 1; i < len(pts); i++ {
			if z <= pts[i][0] {
				a, b := pts[i-1], pts[i]
				return a[1] + (b[1]-a[1])*(z-a[0])/(b[0]-a[0])
			}
		}
		return 0
	},
}

// ProfileNames lists the named profiles.
func ProfileNames() []string {
	var out []string
	for n := range shapes {
		out = append(out, n)
	}
	sort.Strings(out)
	return out
}

// NewProfile reads a profile: a name, stretched to width w and height h, or
// points "radius,height ..." in units of one mm times unit, taken as they are.
func NewProfile(text string, w, h, unit float64) (Profile, error) {
	text = strings.ToLower(strings.TrimSpace(text))
	if f, ok := shapes[text]; ok {
		if err := sizes("width", w, "height", h); err != nil {
			return nil, err
		}
		const n = 96
		p := make(Profile, 0, n+1)
		for i := range n + 1 {
			z := (1 - math.Cos(math.Pi*float64(i)/n)) / 2 // closer where it curves, at the ends
			p = append(p, Point{f(z) * w / 2, z * h})
		}
		return p, nil
	}
	bad := func() error {
		return measure.Bad(
			"profile",
			"%q is not understood; choose %s, or write points radius,height from the bottom up such as 0,0 12,4 15,10 0,24",
			text,
			strings.Join(ProfileNames(), ", "),
		)
	}
	var p Profile
	for _, w := range strings.Fields(text) {
		a, b, ok := strings.Cut(w, ",")
		r, e1 := strconv.ParseFloat(a, 64)
		z, e2 := strconv.ParseFloat(b, 64)
		if !ok || e1 != nil || e2 != nil || r < 0 || z < 0 || r*unit > 15_000 || z*unit > 30_000 || r != r || z != z {
			return nil, bad()
		}
		if n := len(p); n > 0 && z*unit < p[n-1].Y {
			return nil, measure.Bad("profile", "height falls at %s; write the points from the bottom up", w)
		}
		p = append(p, Point{r * unit, z * unit})
	}
	if len(p) < 2 || len(p) > 400 || p[len(p)-1].Y == p[0].Y {
		return nil, bad()
	}
	return p, nil
}

// At is the radius at a height.
func (p Profile) At(z float64) float64 {
	for i := 1; i < len(p); i++ {
		if z <= p[i].Y+1e-9 {
			a, b := p[i-1], p[i]
			if b.Y == a.Y {
				return math.Max(a.X, b.X)
			}
			return a.X + (b.X-a.X)*math.Max(0, z-a.Y)/(b.Y-a.Y)
		}
	}
	return 0
}

// Span is the least and greatest radius between two heights.
func (p Profile) Span(z0, z1 float64) (least, most float64) {
	a, b := p.At(z0), p.At(z1)
	least, most = math.Min(a, b), math.Max(a, b)
	for _, q := range p {
		if q.Y >= z0 && q.Y <= z1 {
			least, most = math.Min(least, q.X), math.Max(most, q.X)
		}
	}
	return
}

// Height and Widest are the profile's size.
func (p Profile) Height() float64 { return p[len(p)-1].Y - p[0].Y }

// Widest is the largest diameter.
func (p Profile) Widest() float64 {
	w := 0.0
	for _, q := range p {
		w = math.Max(w, 2*q.X)
	}
	return w
}

// Surface is the exact area of the surface of revolution, cone by cone.
func (p Profile) Surface() float64 {
	a := 0.0
	for i := 1; i < len(p); i++ {
		a += math.Pi * (p[i].X + p[i-1].X) * math.Hypot(p[i].X-p[i-1].X, p[i].Y-p[i-1].Y)
	}
	return a
}

// Volume is the exact volume of revolution, cone by cone.
func (p Profile) Volume() float64 {
	v := 0.0
	for i := 1; i < len(p); i++ {
		a, b := p[i-1].X, p[i].X
		v += math.Pi / 3 * (a*a + a*b + b*b) * (p[i].Y - p[i-1].Y)
	}
	return v
}
