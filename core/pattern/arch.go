package pattern

import (
	"fmt"
	"math"

	"zapbarn/core/measure"
	"zapbarn/core/source"
)

// Arch is a roof or vault: part of a cylinder bent of one sheet, kerfed inside
// or not, over a span; with an end plate under each end when Ends.
type Arch struct {
	Span, Rise, Deep, T float64 // outside sizes
	Kerf, Skin          float64 // as of a Wrap
	Ends                bool
}

// Radius is the outside radius: R = (S^2/4 + r^2) / 2r.
func (a Arch) Radius() float64 { return (a.Span*a.Span/4 + a.Rise*a.Rise) / (2 * a.Rise) }

// Lay works the sheet out along its neutral layer, and the end plates.
func (a Arch) Lay() (*Shape, error) {
	if err := sizes("span", a.Span, "rise", a.Rise, "depth", a.Deep, "thickness", a.T); err != nil {
		return nil, err
	}
	if a.Rise > a.Span/2+1e-9 {
		return nil, measure.Bad(
			"rise",
			"%s is more than half the span; a half circle rises %s",
			inches(a.Rise),
			inches(a.Span/2),
		)
	}
	r := a.Radius()
	if a.Rise <= a.T {
		return nil, measure.Bad("rise", "%s leaves nothing under a sheet of %s", inches(a.Rise), inches(a.T))
	}
	if a.Kerf > 0 && (a.Skin <= 0 || a.Skin >= a.T) {
		return nil, measure.Bad("skin", "%s must lie between nothing and the stock's %s", inches(a.Skin), inches(a.T))
	}
	bend := a.T
	if a.Kerf > 0 {
		bend = a.Skin
	}
	theta := 2 * math.Asin(math.Min(1, a.Span/2/r))
	long := theta * (r - bend/2)
	p := Panel{
		ID:      "sheet",
		Name:    "Sheet",
		Copies:  1,
		Thick:   a.T,
		Outline: Rect(long, a.Deep),
		Edges:   []Edge{{Name: "front"}, {Name: "right"}, {Name: "back"}, {Name: "left"}},
	}
	s := &Shape{Size: Vec{a.Span, a.Deep, a.Rise}}
	exact := source.Exact("length of the bent sheet's neutral layer")
	s.Results = append(
		s.Results,
		result("radius", "Outside radius", r, "mm", inches(r)).
			With("R = (S^2 / 4 + r^2) / (2 r)", fmt.Sprintf("(%.1f^2 / 4 + %.1f^2) / (2 x %.1f)", a.Span, a.Rise, a.Rise),
				measure.MarkedTape(r), source.Exact("circle through the springing points and the crown")),
		result("length", "Length of the sheet", long, "mm", inches(long)).
			With("angle (R - bending thickness / 2)", fmt.Sprintf("%.4f x (%.1f - %.1f / 2)", theta, r, bend),
				measure.MarkedTape(long), exact),
	)
	if a.Kerf > 0 {
		kerfs, err := a.kerfs(&p, theta, long)
		if err != nil {
			return nil, err
		}
		s.Results = append(s.Results, kerfs)
	}
	s.Panels = []Panel{p}
	s.Bodies = []Body{a.bent(r, theta)}
	if a.Ends {
		a.ends(s, r-a.T, a.Rise-r)
	}
	return s, nil
}

// kerfs marks the kerfs of the sheet, so long, bent by an angle, and says how many.
func (a Arch) kerfs(p *Panel, theta, long float64) (source.Result, error) {
	n := int(math.Ceil(theta*(a.T-a.Skin)/a.Kerf - 1e-9))
	if gap := long / float64(n); n > 2000 || gap <= a.Kerf {
		return source.Result{}, measure.Bad("skin",
			"%d kerfs leave nothing between them; leave more skin or use thinner stock", n)
	}
	for k := range n {
		x := (float64(k) + .5) * long / float64(n)
		p.Marks = append(p.Marks, [2]Point{{x, 0}, {x, a.Deep}})
	}
	p.Notes = append(
		p.Notes,
		fmt.Sprintf(
			"%d kerfs in the inside face, %s apart, leaving %s.",
			n,
			measure.Decimal(long/float64(n), 1)+" mm",
			measure.Decimal(a.Skin, 1)+" mm",
		),
	)
	return result("kerfs", "Kerfs", float64(n), "", fmt.Sprint(n)).
		With("n = angle (T - skin) / kerf", fmt.Sprintf("%.4f x (%.1f - %.1f) / %.1f", theta, a.T, a.Skin, a.Kerf),
			fmt.Sprintf("%d, rounded up", n), source.Exact("each kerf closes by kerf/(T - skin)")), nil
}

// bent is the sheet in space.
func (a Arch) bent(r, theta float64) Body {
	at := func(radius, angle, y float64) Vec {
		return Vec{radius * math.Sin(angle), y, a.Rise - r + radius*math.Cos(angle)}
	}
	steps := max(8, int(theta*12))
	body := Body{Panel: "sheet", Explode: Vec{0, 0, 1}}
	o, p := r, r-a.T
	front, back := -a.Deep/2, a.Deep/2
	for k := range steps {
		u, v := theta*(float64(k)/float64(steps)-.5), theta*(float64(k+1)/float64(steps)-.5)
		body.Faces = append(
			body.Faces,
			Face{
				Curved: true,
				Skin:   true,
				Points: []Vec{at(o, u, front), at(o, v, front), at(o, v, back), at(o, u, back)},
			},
			Face{Curved: true, Points: []Vec{at(p, v, front), at(p, u, front), at(p, u, back), at(p, v, back)}},
			Face{Edges: [][]Vec{}, Points: []Vec{at(p, u, front), at(p, v, front), at(o, v, front), at(o, u, front)}},
			Face{Edges: [][]Vec{}, Points: []Vec{at(p, v, back), at(p, u, back), at(o, u, back), at(o, v, back)}},
		)
	}
	foot := func(angle, sign float64) Face {
		f := []Vec{at(p, angle, front), at(o, angle, front), at(o, angle, back), at(p, angle, back)}
		if sign < 0 {
			f[1], f[3] = f[3], f[1]
		}
		return Face{Points: f}
	}
	body.Faces = append(body.Faces, foot(-theta/2, 1), foot(theta/2, -1))
	return body
}

// ends adds the plates that stand under the sheet's ends: a circle's segment.
func (a Arch) ends(s *Shape, ri, centre float64) {
	half := math.Acos(math.Min(1, -centre/ri)) // from the crown down to the floor
	n := max(4, arcSteps(ri, 2*half))
	var ring []Point
	for k := n; k >= 0; k-- { // anticlockwise from the right foot over the crown
		sn, cs := math.Sincos(half * (2*float64(k)/float64(n) - 1))
		ring = append(ring, Point{ri*sn + ri*math.Sin(half), ri*cs - ri*math.Cos(half)})
	}
	// the first two corners are the chord's: left foot, right foot
	ring = append([]Point{ring[len(ring)-1]}, ring[:len(ring)-1]...)
	s.Panels = append(s.Panels, Panel{ID: "end", Name: "End", Copies: 2, Thick: a.T, Outline: ring, Grain: "up"})
	s.Lines = []Line{{"end", "sheet", 2 * 2 * half * ri, a.T}}
	foot := ri * math.Sin(half)
	for k, y := range []float64{-a.Deep / 2, a.Deep/2 - a.T} {
		var outer, inner []Vec
		for _, q := range ring {
			outer = append(outer, Vec{q.X - foot, y, q.Y})
			inner = append(inner, Vec{q.X - foot, y + a.T, q.Y})
		}
		s.Bodies = append(s.Bodies, prism("end", k, outer, inner, Vec{0, float64(2*k - 1), 0}))
	}
}
