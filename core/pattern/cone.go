package pattern

import (
	"fmt"
	"math"

	"zapbarn/core/measure"
	"zapbarn/core/source"
)

// Cone is a cone or truncated cone rolled from one flat sector, thickness
// counted at the middle of the sheet.
type Cone struct {
	Bottom, Top float64 // outside diameters; Top 0 comes to a point
	H, T        float64
	Overlap     float64 // seam allowance along one straight side
}

// Lay develops the cone: a sector of angle 360 (R - r)/L between the radii
// L R/(R - r) and L r/(R - r).
func (c Cone) Lay() (*Shape, error) {
	if err := sizes("height", c.H, "bottom", c.Bottom, "thickness", c.T); err != nil {
		return nil, err
	}
	switch {
	case c.Top < 0:
		return nil, measure.Bad("top", "must not be less than nothing")
	case math.Abs(c.Bottom-c.Top) < 1e-6*c.Bottom:
		return nil, measure.Bad("top", "is as wide as the bottom: that is a tube; use wrap")
	case c.Overlap < 0 || c.Overlap > c.Bottom:
		return nil, measure.Bad("allowance", "must lie between 0 and the bottom's width")
	}
	d, err := c.developed()
	if err != nil {
		return nil, err
	}
	big := math.Max(c.Bottom, c.Top)
	sh := &Shape{Panels: []Panel{c.sector(d)}, Size: Vec{big, big, c.H}, Bodies: []Body{c.body()}}
	sh.Lines = []Line{{"sector", "sector", d.slant, overlapped(c.Overlap, c.T)}}
	deg := d.theta * 180 / math.Pi
	exact := source.Exact("development of a cone, at the middle of the sheet")
	sh.Results = append(
		sh.Results,
		result("outer", "Outer radius", d.outer, "mm", inches(d.outer)).
			With("L R / (R - r)", fmt.Sprintf("%.1f x %.1f / %.1f", d.slant, d.rb, d.rb-d.rs), measure.MarkedTape(d.outer),
				exact),
		result("inner", "Inner radius", d.inner, "mm", inches(d.inner)).
			With("L r / (R - r)", fmt.Sprintf("%.1f x %.1f / %.1f", d.slant, d.rs, d.rb-d.rs), measure.MarkedTape(d.inner),
				exact),
		result("angle", "Angle of the sector", deg, "deg", measure.Degrees(deg)).
			With("360 (R - r) / L", fmt.Sprintf("360 x %.1f / %.1f", d.rb-d.rs, d.slant), measure.Degrees(deg), exact),
	)
	return sh, nil
}

// developed is a cone laid flat: the radii of the sheet's middle at its wide and narrow
// end, the length between them, and the sector's radii and angle.
type developed struct{ rb, rs, slant, outer, inner, theta float64 }

func (c Cone) developed() (d developed, err error) {
	big, small := math.Max(c.Bottom, c.Top)/2, math.Min(c.Bottom, c.Top)/2
	inside := c.T / 2 * c.H / math.Hypot(c.H, big-small) // the sheet's middle lies this far inside
	if big-inside <= 0 {
		return d, measure.Bad("bottom", "is closed by stock this thick")
	}
	d.rb, d.rs = big-inside, math.Max(0, small-inside)
	d.slant = math.Hypot(c.H, d.rb-d.rs)
	d.outer, d.inner = d.slant*d.rb/(d.rb-d.rs), d.slant*d.rs/(d.rb-d.rs)
	d.theta = 2 * math.Pi * (d.rb - d.rs) / d.slant
	return d, nil
}

// sector is the flat panel: it stands symmetrically, its arc below.
func (c Cone) sector(d developed) Panel {
	var pts []Point
	arc := func(r float64, from, to float64) {
		n := max(24, arcSteps(r, to-from))
		for k := range n + 1 {
			a := from + (to-from)*float64(k)/float64(n)
			pts = append(pts, Point{r * math.Sin(a), -r * math.Cos(a)})
		}
	}
	arc(d.outer, -d.theta/2, d.theta/2)
	s, k := math.Sincos(d.theta / 2)
	if c.Overlap > 0 { // a strip along the right-hand side
		pts = append(
			pts,
			Point{d.outer*s + c.Overlap*k, -d.outer*k + c.Overlap*s},
			Point{d.inner*s + c.Overlap*k, -d.inner*k + c.Overlap*s},
		)
	}
	if d.inner > 0.01 {
		arc(d.inner, d.theta/2, -d.theta/2)
	} else {
		pts = append(pts, Point{})
	}
	p := Panel{ID: "sector", Name: "Sector", Copies: 1, Thick: c.T, Outline: toOrigin(pts)}
	lo := minimum(pts)
	p.Marks = append(p.Marks, [2]Point{{d.outer*s - lo.X, -d.outer*k - lo.Y}, {d.inner*s - lo.X, -d.inner*k - lo.Y}})
	p.Notes = append(
		p.Notes,
		fmt.Sprintf(
			"Trammel: outer radius %s, inner %s, angle %s.",
			measure.MarkedTape(d.outer),
			measure.MarkedTape(d.inner),
			measure.Degrees(d.theta*180/math.Pi),
		),
		"Roll with the outside out; the straight sides meet.",
	)
	return p
}

// body is the cone in space.
func (c Cone) body() Body {
	prof := Profile{{c.Bottom / 2, 0}, {c.Top / 2, c.H}}
	const facets = 32
	b := Body{Panel: "sector", Explode: Vec{0, 0, 1}}
	for i := range facets {
		a0, a1 := 2*math.Pi*float64(i)/facets, 2*math.Pi*float64(i+1)/facets
		pt := func(a, z float64) Vec { r := prof.At(z); return Vec{r * math.Cos(a), r * math.Sin(a), z} }
		b.Faces = append(
			b.Faces,
			Face{Curved: true, Skin: true, Points: []Vec{pt(a0, 0), pt(a1, 0), pt(a1, c.H), pt(a0, c.H)}},
		)
	}
	return b
}

// overlapped is the width of a seam: its overlap, or the stock's edge.
func overlapped(overlap, t float64) float64 {
	if overlap > 0 {
		return overlap
	}
	return t
}

func minimum(pts []Point) Point {
	m := Point{math.Inf(1), math.Inf(1)}
	for _, p := range pts {
		m = Point{math.Min(m.X, p.X), math.Min(m.Y, p.Y)}
	}
	return m
}

// toOrigin moves an outline so that its box starts at 0, 0.
func toOrigin(pts []Point) []Point {
	m := minimum(pts)
	out := make([]Point, len(pts))
	for i, p := range pts {
		out[i] = Point{p.X - m.X, p.Y - m.Y}
	}
	return out
}

// Wrap is a tube bent from one sheet; stiff stock is kerfed on the inside.
type Wrap struct {
	D, H, T float64
	Overlap float64
	Kerf    float64 // width of a kerf; 0 bends without
	Skin    float64 // left under each kerf
}

// Lay works the tube out: its length is pi (D - T), at the middle of the sheet,
// or pi (D - skin) where kerfs leave only a skin to bend.
func (w Wrap) Lay() (*Shape, error) {
	if err := sizes("diameter", w.D, "height", w.H, "thickness", w.T); err != nil {
		return nil, err
	}
	if w.D <= 2*w.T {
		return nil, measure.Bad("diameter", "%s is closed by walls of %s", inches(w.D), inches(w.T))
	}
	if w.Kerf > 0 && (w.Skin <= 0 || w.Skin >= w.T) {
		return nil, measure.Bad("skin", "%s must lie between nothing and the stock's %s", inches(w.Skin), inches(w.T))
	}
	if w.Overlap < 0 || w.Overlap > w.D {
		return nil, measure.Bad("allowance", "must lie between 0 and the diameter")
	}
	bend := w.T
	if w.Kerf > 0 {
		bend = w.Skin
	}
	round := math.Pi * (w.D - bend)
	p := Panel{
		ID:      "wrap",
		Name:    "Wrap",
		Copies:  1,
		Thick:   w.T,
		Outline: Rect(round+w.Overlap, w.H),
		Edges:   []Edge{{Name: "bottom"}, {Name: "right"}, {Name: "top"}, {Name: "left"}},
	}
	sh := &Shape{Size: Vec{w.D, w.D, w.H}}
	exact := source.Exact("length of the bent sheet's neutral layer")
	r := result("round", "Length round", round, "mm", inches(round)).
		With("pi (D - bending thickness)", fmt.Sprintf("pi x (%.1f - %.1f)", w.D, bend), measure.MarkedTape(round), exact)
	sh.Results = append(sh.Results, r)
	if w.Kerf > 0 {
		kerfs, err := w.kerfs(&p, round)
		if err != nil {
			return nil, err
		}
		sh.Results = append(sh.Results, kerfs)
	}
	sh.Panels = []Panel{p}
	sh.Lines = []Line{{"wrap", "wrap", w.H, overlapped(w.Overlap, w.T)}}
	sh.Bodies = ringBody("wrap", 0, w.D, w.D-2*w.T, 0, w.H)
	return sh, nil
}

// kerfs marks the kerfs of a sheet so long, and says how many: one closes by
// kerf/(T - skin) radians.
func (w Wrap) kerfs(p *Panel, round float64) (source.Result, error) {
	n := int(math.Ceil(2 * math.Pi * (w.T - w.Skin) / w.Kerf))
	if n > 2000 {
		return source.Result{}, measure.Bad("kerf", "takes %d kerfs; use a wider blade", n)
	}
	gap := round / float64(n)
	if gap <= w.Kerf {
		return source.Result{}, measure.Bad(
			"kerf",
			"%d kerfs of %s leave nothing between them; use thinner stock or a wider tube",
			n,
			inches(w.Kerf),
		)
	}
	for k := range n {
		x := (float64(k) + .5) * gap
		p.Marks = append(p.Marks, [2]Point{{x, 0}, {x, w.H}})
	}
	p.Notes = append(
		p.Notes,
		fmt.Sprintf(
			"%d kerfs in the inside face, %s apart, leaving %s.",
			n,
			measure.Decimal(gap, 1)+" mm",
			measure.Decimal(w.Skin, 1)+" mm",
		),
	)
	return result("kerfs", "Kerfs", float64(n), "", fmt.Sprint(n)).
		With("n = 2 pi (T - skin) / kerf", fmt.Sprintf("2 pi x (%.1f - %.1f) / %.1f", w.T, w.Skin, w.Kerf),
			fmt.Sprintf("%d, %.1f mm apart", n, gap), source.Exact("each kerf closes by kerf/(T - skin)")), nil
}

// Boards is a disc too wide for one board, made of boards side by side with a
// brace behind each seam.
type Boards struct {
	D, T   float64
	Board  float64 // width of a board that can be used
	Offset float64 // of the seams from the even places, to keep them off a face
	Brace  float64 // width of a brace; 0 leaves it out
}

// Lay works out each board's piece: a band of the circle between two chords.
func (b Boards) Lay() (*Shape, error) {
	if err := sizes("diameter", b.D, "thickness", b.T, "board", b.Board); err != nil {
		return nil, err
	}
	n := int(math.Ceil((b.D + 2*math.Abs(b.Offset)) / b.Board))
	if n > 24 {
		return nil, measure.Bad("diameter", "takes %d boards; 24 at most", n)
	}
	r := b.D / 2
	cut := []float64{-r}
	for k := 1; k < n; k++ {
		cut = append(cut, -r+b.D*float64(k)/float64(n)+b.Offset)
	}
	cut = append(cut, r)
	sh := &Shape{Size: Vec{b.D, b.T, b.D}}
	for k := range n {
		x0, x1 := cut[k], cut[k+1]
		if x1-x0 > b.Board+1e-6 || x1 <= x0 {
			return nil, measure.Bad(
				"offset",
				"makes board %d %s wide; the boards are %s",
				k+1,
				inches(x1-x0),
				inches(b.Board),
			)
		}
		b.board(sh, k+1, x0, x1)
	}
	b.seams(sh, cut[1:n])
	sh.Results = append(
		sh.Results,
		result("string", "String from the middle", r, "mm", inches(r)).
			With("D / 2", inches(b.D)+" / 2", inches(r), source.Exact("circle")),
		result("boards", "Boards", float64(n), "", fmt.Sprint(n)).
			With("n = ceil(D / board)", fmt.Sprintf("ceil(%s / %s)", inches(b.D), inches(b.Board)), fmt.Sprint(n),
				source.Exact("whole boards")),
	)
	if n > 1 {
		sh.Results = append(
			sh.Results,
			result("seam", "First seam, from the middle", math.Abs(cut[1]), "mm", inches(math.Abs(cut[1]))).
				With("D k/n - D/2 + offset; half its length sqrt(r^2 - x^2)", fmt.Sprintf("%s, half-length %s",
					inches(math.Abs(cut[1])), measure.MarkedTape(b.chord(cut[1]))), inches(math.Abs(cut[1])),
					source.Exact("chord of a circle")),
		)
	}
	return sh, nil
}

// chord is half the height of the disc so far from its middle.
func (b Boards) chord(x float64) float64 { return math.Sqrt(math.Max(0, b.D*b.D/4-x*x)) }

// board adds the piece of one board, between two seams.
func (b Boards) board(sh *Shape, no int, x0, x1 float64) {
	r := b.D / 2
	a0, a1 := math.Acos(math.Max(-1, x0/r)), math.Acos(math.Min(1, x1/r))
	m := max(24, arcSteps(r, a1-a0))
	along := func(i int) float64 { return r * math.Cos(a0+(a1-a0)*float64(i)/float64(m)) }
	var pts []Point
	for i := range m + 1 {
		x := along(i)
		pts = append(pts, Point{x, -b.chord(x)})
	}
	for i := m; i >= 0; i-- {
		x := along(i)
		if y := b.chord(x); y > 1e-9 {
			pts = append(pts, Point{x, y})
		}
	}
	p := Panel{
		ID:      fmt.Sprintf("board%d", no),
		Name:    fmt.Sprintf("Board %d", no),
		Copies:  1,
		Thick:   b.T,
		Outline: toOrigin(pts),
		Grain:   "up",
	}
	p.Notes = append(
		p.Notes,
		fmt.Sprintf("Lay the boards side by side; string of %s from the middle.", measure.MarkedTape(r)),
		fmt.Sprintf(
			"Its straight sides are %s and %s long.",
			measure.MarkedTape(2*b.chord(x0)),
			measure.MarkedTape(2*b.chord(x1)),
		),
	)
	sh.Panels = append(sh.Panels, p)
	front, back := make([]Vec, len(pts)), make([]Vec, len(pts))
	for i, q := range pts {
		front[i], back[i] = Vec{q.X, -b.T / 2, q.Y + r}, Vec{q.X, b.T / 2, q.Y + r}
	}
	sh.Bodies = append(sh.Bodies, prism(p.ID, 0, front, back, Vec{(x0 + x1) / b.D, 0, 0}))
}

// seams adds the glue lines between the boards, and the braces behind them.
func (b Boards) seams(sh *Shape, at []float64) {
	longest := 0.0
	for k, x := range at {
		l := 2 * b.chord(x)
		sh.Lines = append(sh.Lines, Line{fmt.Sprintf("board%d", k+1), fmt.Sprintf("board%d", k+2), l, b.T})
		longest = math.Max(longest, l)
	}
	if b.Brace <= 0 || len(at) == 0 {
		return
	}
	sh.Panels = append(
		sh.Panels,
		Panel{
			ID:      "brace",
			Name:    "Brace",
			Copies:  len(at),
			Thick:   b.T,
			Outline: Rect(b.Brace, longest*.9),
			Edges:   []Edge{{Name: "bottom"}, {Name: "right"}, {Name: "top"}, {Name: "left"}},
			Notes:   []string{"Behind each seam, glued and screwed."},
		},
	)
	sh.Lines = append(sh.Lines, Line{"brace", "board1", float64(len(at)) * longest * .9, b.Brace})
}
