package pattern

import (
	"fmt"
	"math"
	"sort"

	"zapbarn/core/measure"
	"zapbarn/core/source"
)

// Bought is a thing that comes as it is: a bottle, a jar, a ball, a skull, a
// mannequin, a tote. Sizes are outside ones; D is the depth of what is not round.
type Bought struct {
	Of      string // one of BoughtNames
	W, D, H float64
	Wall    float64 // mm
	Density float64 // of its stock, kg/m3
	Mass    float64 // kg as weighed; 0 reckons it from its wall
}

// bodies are the half outlines of what is round, as radius and height in shares
// of the widest and the height. Common practice, no source.
var bodies = map[string]Profile{
	"jar":       {{0, 0}, {1, 0}, {1, .82}, {.8, .9}, {.8, 1}},
	"bottle":    {{0, 0}, {1, 0}, {1, .58}, {.9, .68}, {.36, .82}, {.33, 1}},
	"ball":      nil, // a sphere, by its formula
	"skull":     {{.45, 0}, {.62, .12}, {.7, .3}, {.92, .5}, {1, .68}, {.93, .84}, {.7, .95}, {.3, 1}, {0, 1}},
	"mannequin": {{.55, 0}, {.75, .1}, {.72, .3}, {.85, .5}, {1, .72}, {.95, .85}, {.4, .93}, {.33, 1}, {0, 1}},
	"tote":      nil, // a tapered tub
}

// BoughtNames lists what a bought thing can be.
func BoughtNames() []string {
	var out []string
	for n := range bodies {
		out = append(out, n)
	}
	sort.Strings(out)
	return out
}

// profile is a round thing's half outline in mm.
func (b Bought) profile() Profile {
	if b.Of == "ball" {
		p, _ := NewProfile("sphere", b.W, b.H, 1)
		return p
	}
	var out Profile
	for _, q := range bodies[b.Of] {
		out = append(out, Point{q.X * b.W / 2, q.Y * b.H})
	}
	return out
}

// toteTaper is how much narrower a tub is at its foot.
const toteTaper = .85

// Lay reckons its outside, what it holds and what it weighs; nothing is cut.
func (b Bought) Lay() (*Shape, error) {
	if _, ok := bodies[b.Of]; !ok {
		return nil, measure.Bad("of", "%q is no thing the shop knows; choose %s", b.Of, choices(BoughtNames()))
	}
	if err := sizes("width", b.W, "height", b.H, "wall", b.Wall); err != nil {
		return nil, err
	}
	if b.D < 0 || b.D > 30_000 {
		return nil, measure.Bad("depth", "%s cannot be; leave it out for what is round", inches(b.D))
	}
	if b.Mass < 0 || b.Mass > 500 {
		return nil, measure.Bad("weight", "%s cannot be; write such as 450 g", measure.Kilograms(b.Mass))
	}
	deep := b.D
	if deep == 0 {
		deep = b.W
	}
	if 2*b.Wall >= math.Min(math.Min(b.W, deep), b.H) {
		return nil, measure.Bad("wall", "%s leaves nothing inside; make it thinner", inches(b.Wall))
	}
	s := &Shape{Size: Vec{b.W, deep, b.H}, Walls: []string{"side", "top", "bottom"}}
	volume, how := 0.0, "profile of revolution, summed along its points"
	if b.Of == "tote" {
		w0, d0 := toteTaper*b.W, toteTaper*deep
		s.Outside = w0*d0 + (b.W+w0)*math.Hypot(b.H, (deep-d0)/2) + (deep+d0)*math.Hypot(b.H, (b.W-w0)/2)
		volume = b.H / 6 * (w0*d0 + (b.W+w0)*(deep+d0) + b.W*deep)
		how = "prismatoid, open above"
		quad := func(w, d, z float64) []Vec {
			return []Vec{{-w / 2, -d / 2, z}, {w / 2, -d / 2, z}, {w / 2, d / 2, z}, {-w / 2, d / 2, z}}
		}
		s.Bodies = []Body{prism("thing", 0, quad(b.W, deep, b.H), quad(w0, d0, 0), Vec{0, 0, 1})}
	} else {
		p := b.profile()
		squeeze := deep / b.W
		s.Outside, volume = p.Surface()*(1+squeeze)/2, p.Volume()*squeeze
		if squeeze != 1 {
			how += "; the area of one that is not round by the mean of both widths"
		}
		s.Bodies = []Body{turned("thing", p, squeeze)}
	}
	shell := s.Outside * b.Wall * 1e-9 * b.Density
	s.Mass = b.Mass
	weigh := result("mass", "Mass, bare", b.Mass, "kg", measure.Kilograms(b.Mass)).
		With("as weighed", b.Of, measure.Kilograms(b.Mass), source.Entered("the weight of one"))
	if b.Mass == 0 {
		s.Mass = shell
		weigh = result("mass", "Mass, bare", shell, "kg", measure.Kilograms(shell)).
			With("outside x wall x density", fmt.Sprintf("%.4f m2 x %.2f mm x %.0f kg/m3", s.Outside/1e6, b.Wall, b.Density),
				measure.Kilograms(shell), source.FromMemory("typical wall and density; weigh yours"))
	}
	litres := volume / 1e6
	s.Results = append(
		s.Results,
		weigh,
		result("holds", "Holds, to the brim", litres, "L", fmt.Sprintf("%.2f L", litres)).
			With(how, fmt.Sprintf("%s by %s by %s", inches(b.W), inches(deep), inches(b.H)), fmt.Sprintf("%.2f L", litres),
				source.Exact("volume of the outside")),
	)
	return s, nil
}

// turned is a solid of revolution in space, flattened front to back by a share.
func turned(panel string, p Profile, squeeze float64) Body {
	const round, rows = 24, 20
	b := Body{Panel: panel, Explode: Vec{0, 0, 1}}
	none := [][]Vec{} // a round face has no edges between its facets
	z0, h := p[0].Y, p.Height()
	at := func(i, k int) Vec {
		z := h * float64(k) / rows
		r := p.At(z0 + math.Min(math.Max(z, h*1e-4), h*(1-1e-4)))
		sn, cs := math.Sincos(2 * math.Pi * float64(i) / round)
		return Vec{r * cs, r * sn * squeeze, z}
	}
	var top []Vec
	for i := range round {
		for k := range rows {
			b.Faces = append(
				b.Faces,
				Face{Curved: true, Skin: true, Edges: none, Points: []Vec{at(i, k), at(i+1, k), at(i+1, k+1), at(i, k+1)}},
			)
		}
		top = append(top, at(i, rows))
	}
	b.Faces = append(b.Faces, Face{Points: top, Skin: true})
	return b
}

// Row is so many of a thing that is not cut, side by side.
func (s *Shape) Row(n int) *Shape {
	pitch := s.Size.X * 1.1
	out := *s
	out.Bodies = nil
	for i := range min(n, 60) {
		x := (float64(i) - float64(min(n, 60)-1)/2) * pitch
		for _, b := range s.Bodies {
			b = b.At(Vec{x, 0, 0})
			b.Copy = i
			out.Bodies = append(out.Bodies, b)
		}
	}
	out.Size.X = pitch*float64(min(n, 60)-1) + s.Size.X
	out.Mass, out.Outside = s.Mass*float64(n), s.Outside*float64(n)
	out.Results = nil
	for _, r := range s.Results {
		if r.Key.What == "mass" {
			r.Key, r.Label = source.What("each"), "Mass, each"
		}
		out.Results = append(out.Results, r)
	}
	out.Results = append(
		out.Results,
		result("mass", "Mass, bare, all of them", out.Mass, "kg", measure.Kilograms(out.Mass)).
			With("n x mass of each", fmt.Sprintf("%d x %s", n, measure.Kilograms(s.Mass)), measure.Kilograms(out.Mass),
				source.Exact("sum")),
	)
	return &out
}
