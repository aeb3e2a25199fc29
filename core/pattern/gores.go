package pattern

import (
	"fmt"
	"math"

	"zapbarn/core/measure"
	"zapbarn/core/source"
)

// Gores are n equal strips that close a solid of revolution. The seams lie on
// the profile; between them each gore is flat across and bent along.
type Gores struct {
	Profile Profile
	N       int
	T       float64
	Crease  bool    // bevelled at 45 for a deep rib, else at 180/n for a smooth seam
	Allow   float64 // added along both long edges
}

// Lay works the gore out: its length is the arc along its middle, its width at
// each place the chord 2 r sin(180/n).
func (g Gores) Lay() (*Shape, error) {
	if g.N < 3 || g.N > 64 {
		return nil, measure.Bad("sides", "%d gores cannot be made; choose 3 to 64", g.N)
	}
	if err := positive("thickness", g.T); err != nil {
		return nil, err
	}
	if g.Allow < 0 || g.Allow > g.Profile.Widest() {
		return nil, measure.Bad("allowance", "must lie between 0 and the width")
	}
	p, long := g.panel()
	seam := 0.0 // along the meridian where two gores meet
	for i := 1; i < len(g.Profile); i++ {
		seam += math.Hypot(g.Profile[i].X-g.Profile[i-1].X, g.Profile[i].Y-g.Profile[i-1].Y)
	}
	return &Shape{
		Panels:  []Panel{p},
		Lines:   []Line{{"gore", "gore", float64(g.N) * seam, overlapped(g.Allow, g.T)}},
		Bodies:  g.bodies(),
		Size:    Vec{g.Profile.Widest(), g.Profile.Widest(), g.Profile.Height()},
		Results: g.results(p, long),
	}, nil
}

// half is half the width of a gore at a radius.
func (g Gores) half(r float64) float64 { return r*math.Sin(math.Pi/float64(g.N)) + g.Allow }

// bevel is of its long edges, degrees.
func (g Gores) bevel() float64 {
	if g.Crease {
		return 45
	}
	return 180 / float64(g.N)
}

// panel is one gore, and its length.
func (g Gores) panel() (p Panel, long float64) {
	cs := math.Cos(math.Pi / float64(g.N))
	wide := g.half(g.Profile.Widest() / 2)
	var right, left []Point
	var arc []float64
	for i, q := range g.Profile {
		if i > 0 {
			p := g.Profile[i-1]
			long += math.Hypot((q.X-p.X)*cs, q.Y-p.Y)
		}
		arc = append(arc, long)
		right = append(right, Point{wide + g.half(q.X), long})
		left = append(left, Point{wide - g.half(q.X), long})
	}
	p = Panel{ID: "gore", Name: "Gore", Copies: g.N, Thick: g.T, Grain: "up", Bevel: g.bevel()}
	p.Outline = append(p.Outline, right...)
	for i := len(left) - 1; i >= 0; i-- {
		if math.Hypot(left[i].X-p.Outline[len(p.Outline)-1].X, left[i].Y-p.Outline[len(p.Outline)-1].Y) > 1e-9 {
			p.Outline = append(p.Outline, left[i])
		}
	}
	if k := len(p.Outline) - 1; math.Hypot(p.Outline[k].X-p.Outline[0].X, p.Outline[k].Y-p.Outline[0].Y) < 1e-9 {
		p.Outline = p.Outline[:k]
	}
	p.Notes = append(
		p.Notes,
		fmt.Sprintf("Both long edges: bevel %s, inside face smaller.", measure.Degrees(g.bevel())),
		"Join in pairs, pairs to halves, the halves last; ticks meet ticks.",
	)
	for k, n := 1, int(long/100); k <= n && k < 40; k++ { // ticks across the seams, every 100 mm or so
		at := long * float64(k) / float64(n+1)
		if h := g.halfAt(arc, at); h > 14 {
			p.Marks = append(
				p.Marks,
				[2]Point{{wide + h, at}, {wide + h - 8, at}},
				[2]Point{{wide - h, at}, {wide - h + 8, at}},
			)
		}
	}
	return p, long
}

// halfAt is half the width so far along a gore; arc is how far along its profile's points lie.
func (g Gores) halfAt(arc []float64, at float64) float64 {
	for i := 1; i < len(arc); i++ {
		if arc[i] >= at {
			f := (at - arc[i-1]) / (arc[i] - arc[i-1])
			return g.half(g.Profile[i-1].X + f*(g.Profile[i].X-g.Profile[i-1].X))
		}
	}
	return 0
}

// bodies are the gores in space.
func (g Gores) bodies() (out []Body) {
	const rows = 20
	z0, h := g.Profile[0].Y, g.Profile.Height()
	for i := range g.N {
		a0, a1 := -math.Pi/2+(float64(i)-.5)*2*math.Pi/float64(g.N), -math.Pi/2+(float64(i)+.5)*2*math.Pi/float64(g.N)
		b := Body{Panel: "gore", Copy: i, Explode: Vec{math.Cos((a0 + a1) / 2), math.Sin((a0 + a1) / 2), 0}}
		pt := func(a float64, k int) Vec {
			z := h * (1 - math.Cos(math.Pi*float64(k)/rows)) / 2
			r := g.Profile.At(z0 + z)
			return Vec{r * math.Cos(a), r * math.Sin(a), z}
		}
		for k := range rows {
			q := []Vec{pt(a0, k), pt(a1, k), pt(a1, k+1), pt(a0, k+1)}
			b.Faces = append(b.Faces, Face{Points: q, Skin: true, Edges: [][]Vec{{q[1], q[2]}, {q[3], q[0]}}})
		}
		out = append(out, b)
	}
	return out
}

// results are its numbers with their working.
func (g Gores) results(p Panel, long float64) []source.Result {
	wide, bevel, area := 2*g.half(g.Profile.Widest()/2), g.bevel(), p.Area()*float64(g.N)
	exact := source.Exact("profile of revolution, summed along its points")
	return []source.Result{
		result("arc", "Length of a gore", long, "mm", inches(long)).
			With("sum of sqrt((dr cos(180/n))^2 + dz^2)", fmt.Sprintf("%d steps, n = %d", len(g.Profile)-1, g.N),
				measure.MarkedTape(long), exact),
		result("widest", "Widest place", wide, "mm", inches(wide)).
			With("2 r sin(180/n) + 2 allowance", fmt.Sprintf("2 x %.1f sin %.2f + 2 x %.1f", g.Profile.Widest()/2,
				180/float64(g.N), g.Allow), measure.MarkedTape(wide), exact),
		result("bevel", "Bevel of the long edges", bevel, "deg", measure.Degrees(bevel)).
			With("180/n for a smooth seam, 45 for a creased rib", fmt.Sprintf("n = %d", g.N), measure.Degrees(bevel),
				source.Exact("angle between neighbouring flats"),
				source.FromTrade("8 gores of 10 mm EVA at 45 make a ribbed squash")),
		result("skin", "Skin in all", area/1e6, "m2", fmt.Sprintf("%.2f m2", area/1e6)).
			With("n x area of a gore", fmt.Sprintf("%d x %.4f m2; the round surface is %.4f m2", g.N, p.Area()/1e6,
				g.Profile.Surface()/1e6), fmt.Sprintf("%.3f m2", area/1e6), exact),
	}
}

// Slices is a solid of revolution in layers of the stock, wide enough that
// carving only takes away, hollowed to a wall where it is thick enough.
type Slices struct {
	Profile Profile
	T       float64
	Wall    float64 // radial at the thinnest; 0 leaves it solid
	Allow   float64 // carve allowance on the radius
	Dowels  int     // holes through every slice, on one circle
	Dowel   float64 // their diameter
}

// Lay works the slices out from the bottom up.
func (c Slices) Lay() (*Shape, error) {
	if err := positive("thickness", c.T); err != nil {
		return nil, err
	}
	h := c.Profile.Height()
	n := int(math.Ceil(h/c.T - 1e-6))
	switch {
	case n > 400:
		return nil, measure.Bad("height", "takes %d slices; use thicker stock (400 at most)", n)
	case c.Wall < 0 || c.Allow < 0 || c.Allow > 300:
		return nil, measure.Bad("wall", "must not be less than nothing")
	case c.Dowels < 0 || c.Dowels > 12 || c.Dowels > 0 && c.Dowel <= 0:
		return nil, measure.Bad("dowels", "write 0 to 12, and how thick they are")
	}
	layers := c.layers(n)
	circle, held, err := c.dowels(layers)
	if err != nil {
		return nil, err
	}
	s := &Shape{}
	vol, w := 0.0, 0.0
	for i, l := range layers {
		p := c.slice(i, l)
		if i < held && l.outer-c.Dowel >= circle && l.inner+c.Dowel <= circle {
			for k := range c.Dowels {
				sn, cs := math.Sincos(2 * math.Pi * float64(k) / float64(c.Dowels))
				p.Holes = append(p.Holes, Circle(l.outer+circle*cs, l.outer+circle*sn, c.Dowel))
			}
		}
		if i+1 < n { // where the next slice stands on it
			p.Notes = append(
				p.Notes,
				fmt.Sprintf("Slice %d stands on it, %s across.", i+2, measure.MarkedTape(2*layers[i+1].outer)),
			)
		}
		vol += p.Volume()
		w = math.Max(w, 2*l.outer)
		s.Panels = append(s.Panels, p)
		s.Bodies = append(s.Bodies, ringBody(p.ID, 0, 2*l.outer, 2*l.inner, float64(i)*c.T, c.T)...)
	}
	s.pile()
	s.Size = Vec{w, w, float64(n) * c.T}
	s.Results = append(
		s.Results,
		result("layers", "Slices", float64(n), "", fmt.Sprint(n)).
			With("n = ceil(height / thickness)", fmt.Sprintf("ceil(%s / %s)", inches(h), inches(c.T)), fmt.Sprint(n),
				source.Exact("whole layers")),
		result(
			"carve",
			"Carved away, hollow counted",
			vol/1e9-c.Profile.Volume()/1e9,
			"m3",
			fmt.Sprintf("%.1f L", (vol-c.Profile.Volume())/1e6),
		).
			With("slices - solid of revolution", fmt.Sprintf("%.1f L - %.1f L", vol/1e6, c.Profile.Volume()/1e6),
				fmt.Sprintf("%.1f L; below 0 the hollow saves more than carving takes", (vol-c.Profile.Volume())/1e6),
				source.Exact("Pappus: volume of revolution")),
	)
	return s, nil
}

// layer is a slice's outside and inside radius.
type layer struct{ outer, inner float64 }

// layers are so many slices from the bottom up, hollow where they are thick enough.
func (c Slices) layers(n int) []layer {
	h, z0 := c.Profile.Height(), c.Profile[0].Y
	out := make([]layer, n)
	for i := range out {
		least, most := c.Profile.Span(z0+float64(i)*c.T, z0+math.Min(h, float64(i+1)*c.T))
		if out[i].outer = most + c.Allow; c.Wall > 0 && least > c.Wall && i > 0 && i < n-1 {
			out[i].inner = least - c.Wall
		}
	}
	return out
}

// slice is a slice's panel, its dowel holes not in it.
func (c Slices) slice(i int, l layer) Panel {
	return roundPanel(fmt.Sprintf("slice%d", i+1), fmt.Sprintf("Slice %d", i+1), 2*l.outer, 2*l.inner, c.T, 1)
}

// dowels is the radius of the one circle on which all dowels stand, which every slice must
// hold, and up to which slice they go: a top too small for them is glued only.
func (c Slices) dowels(layers []layer) (circle float64, held int, err error) {
	if c.Dowels == 0 {
		return 0, 0, nil
	}
	lo, hi := 0.0, math.Inf(1)
	for i, l := range layers {
		if l.outer < 2*c.Dowel+10 {
			continue
		}
		lo, hi = math.Max(lo, l.inner+c.Dowel), math.Min(hi, l.outer-c.Dowel)
		held = i + 1
	}
	if lo > hi {
		return 0, 0, measure.Bad(
			"dowels",
			"no circle of dowels runs through every slice with this wall; make the wall at least %s thick or leave dowels out",
			inches(c.Wall+lo-hi),
		)
	}
	return (lo + hi) / 2, held, nil
}
