package pattern

import (
	"fmt"
	"math"

	"zapbarn/core/measure"
	"zapbarn/core/source"
)

// Disc is one or more equal discs, with a hole in the middle when Bore > 0.
type Disc struct {
	D, Bore, T float64
	Copies     int
	Upright    bool    // standing on edge, facing front, side by side
	Pitch      float64 // from one to the next when upright; 1.1 D when 0
}

// Lay works the discs out; in space they lie stacked.
func (d Disc) Lay() (*Shape, error) {
	if err := sizes("diameter", d.D, "thickness", d.T); err != nil {
		return nil, err
	}
	if d.Bore < 0 || d.Bore >= d.D {
		return nil, measure.Bad("bore", "must be smaller than the disc's %s", inches(d.D))
	}
	if err := copies(d.Copies); err != nil {
		return nil, err
	}
	p := roundPanel("disc", "Disc", d.D, d.Bore, d.T, d.Copies)
	s := &Shape{Panels: []Panel{p}, Size: Vec{d.D, d.D, d.T * float64(d.Copies)}}
	for i := range d.Copies {
		if !d.Upright {
			s.Bodies = append(s.Bodies, ringBody("disc", i, d.D, d.Bore, float64(i)*d.T, d.T)...)
			continue
		}
		pitch := d.Pitch
		if pitch <= 0 {
			pitch = 1.1 * d.D
		}
		x := (float64(i) - float64(d.Copies-1)/2) * pitch
		for _, b := range ringBody("disc", i, d.D, d.Bore, -d.T/2, d.T) {
			b.moved(func(p Vec) Vec { return Vec{p.X + x, -p.Z, p.Y + d.D/2} }) // turned about X by 90 degrees
			b.Explode = Vec{0, -1, 0}
			s.Bodies = append(s.Bodies, b)
		}
	}
	if d.Upright {
		s.Size = extent(s.Bodies)
	}
	circ := math.Pi * d.D
	s.Results = append(s.Results, result("edge", "Length round the edge", circ, "mm", inches(circ)).
		With("c = pi d", "pi x "+inches(d.D), measure.MarkedTape(circ), source.Exact("circle")))
	return s, nil
}

// Rings is a stack of rings cut from sheet: straight, or stepped from the
// bottom diameter to the top one. The plugs stay as offcuts.
type Rings struct {
	Bottom, Top float64 // outside diameters
	H           float64
	Wall        float64 // radial
	T           float64
}

// Lay works the stack out: ceil(H/T) rings, each as wide as the widest place
// of its layer, so that carving only takes away.
func (r Rings) Lay() (*Shape, error) {
	if err := sizes("bottom", r.Bottom, "top", r.Top, "height", r.H, "wall", r.Wall, "thickness", r.T); err != nil {
		return nil, err
	}
	if 2*r.Wall >= math.Min(r.Bottom, r.Top) {
		return nil, measure.Bad(
			"wall",
			"%s on both sides closes a ring of %s; make it less than %s",
			inches(r.Wall),
			inches(math.Min(r.Bottom, r.Top)),
			inches(math.Min(r.Bottom, r.Top)/2),
		)
	}
	n := int(math.Ceil(r.H/r.T - 1e-6))
	if n > 400 {
		return nil, measure.Bad("height", "takes %d rings; use thicker stock or a lower stack (400 at most)", n)
	}
	s := &Shape{}
	at := func(z float64) float64 { return r.Bottom + (r.Top-r.Bottom)*math.Min(1, z/r.H) }
	for i := range n {
		d := math.Max(at(float64(i)*r.T), at(float64(i+1)*r.T))
		bore := math.Min(at(float64(i)*r.T), at(float64(i+1)*r.T)) - 2*r.Wall
		if bore <= 0 {
			return nil, measure.Bad("wall", "closes ring %d; make the wall thinner", i+1)
		}
		if k := len(s.Panels); k > 0 && s.Panels[k-1].Round == d && s.Panels[k-1].Bore == bore {
			s.Panels[k-1].Copies++
		} else {
			s.Panels = append(s.Panels, roundPanel(fmt.Sprintf("ring%d", i+1), fmt.Sprintf("Ring %d", i+1), d, bore, r.T, 1))
		}
		k := s.Panels[len(s.Panels)-1]
		s.Bodies = append(s.Bodies, ringBody(k.ID, k.Copies-1, d, bore, float64(i)*r.T, r.T)...)
	}
	s.pile()
	dmax := math.Max(r.Bottom, r.Top)
	s.Size = Vec{dmax, dmax, float64(n) * r.T}
	s.Results = append(s.Results, result("layers", "Rings in the stack", float64(n), "", fmt.Sprint(n)).
		With("n = ceil(height / thickness)", fmt.Sprintf("ceil(%s / %s)", inches(r.H), inches(r.T)),
			fmt.Sprintf("%d, %s tall", n, inches(float64(n)*r.T)), source.Exact("whole layers")),
	)
	return s, nil
}

func copies(n int) error {
	if n < 1 || n > 2000 {
		return measure.Bad("copies", "%d cannot be cut; write 1 to 2000", n)
	}
	return nil
}

func roundPanel(id, name string, d, bore, t float64, n int) Panel {
	p := Panel{ID: id, Name: name, Copies: n, Thick: t, Outline: Circle(d/2, d/2, d), Round: d, Bore: bore}
	return p
}

// ringBody is a disc or ring in space; a ring comes as two half shells so
// that the drawing's depth order stays right.
func ringBody(panel string, no int, d, bore, z, t float64) []Body {
	half := func(from, to, n float64) Body {
		b := Body{Panel: panel, Copy: no, Explode: Vec{0, 0, 1}}
		pt := func(r, k, z float64) Vec {
			sn, cs := math.Sincos(from + (to-from)*k/n)
			return Vec{r * cs, r * sn, z}
		}
		var top, under []Vec
		var arcs [][]Vec
		for _, r := range []float64{d / 2, bore / 2} {
			var arc []Vec
			for k := 0.0; k <= n && r > 0; k++ {
				arc = append(arc, pt(r, k, z+t))
			}
			if arc != nil {
				arcs = append(arcs, arc)
			}
		}
		for k := 0.0; k <= n; k++ {
			top = append(top, pt(d/2, k, z+t))
		}
		for k := n; k >= 0 && bore > 0; k-- {
			top = append(top, pt(bore/2, k, z+t))
		}
		for i := len(top) - 1; i >= 0; i-- {
			under = append(under, Vec{top[i].X, top[i].Y, z})
		}
		b.Faces = append(b.Faces, Face{Points: top, Skin: true, Edges: arcs}, Face{Points: under})
		for k := 0.0; k < n; k++ {
			b.Faces = append(
				b.Faces,
				Face{Curved: true, Points: []Vec{pt(d/2, k, z), pt(d/2, k+1, z), pt(d/2, k+1, z+t), pt(d/2, k, z+t)}},
			)
			if bore > 0 {
				b.Faces = append(
					b.Faces,
					Face{
						Curved: true,
						Points: []Vec{pt(bore/2, k+1, z), pt(bore/2, k, z), pt(bore/2, k, z+t), pt(bore/2, k+1, z+t)},
					},
				)
			}
		}
		return b
	}
	if bore == 0 {
		b := half(0, 2*math.Pi, 36)
		b.Faces[0].Points = b.Faces[0].Points[:36]
		b.Faces[1].Points = b.Faces[1].Points[1:]
		return []Body{b}
	}
	return []Body{half(0, math.Pi, 18), half(math.Pi, 2*math.Pi, 18)}
}
