package pattern

import (
	"fmt"
	"math"

	"zapbarn/core/measure"
	"zapbarn/core/source"
)

// Printed is a mesh made on a printer: shells and infill, in as many pieces as
// its bed wants, glued at the cuts.
type Printed struct {
	Mesh    Mesh
	H       float64    // the height it is stretched to, in all three ways alike
	Bed     [3]float64 // width, depth and height of what can be printed
	Wall    float64    // of its shells
	Infill  float64    // share
	Density float64    // kg/m3
	Unit    float64    // litres of plastic a spool has
}

// turnedBy maps a mesh so that an axis (0 X, 1 Y, 2 Z) becomes Z.
func (m Mesh) turnedBy(axis int) Mesh {
	if axis == 2 {
		return m
	}
	out := make(Mesh, len(m))
	for i, t := range m {
		for k, v := range t {
			if axis == 0 {
				out[i][k] = Vec{v.Y, v.Z, v.X}
			} else {
				out[i][k] = Vec{v.Z, v.X, v.Y}
			}
		}
	}
	return out
}

// sectionArea is the area of the mesh in a level plane, by its directed cuts.
func (m Mesh) sectionArea(z float64) float64 {
	a := 0.0
	for _, c := range m.cuts(z) {
		a += c[0].X*c[1].Y - c[1].X*c[0].Y
	}
	return math.Abs(a) / 2
}

// Lay counts the pieces, the plastic and the glued faces. The shells are taken as
// the surface times the wall, the rest of the volume at the infill's share.
func (p Printed) Lay() (*Shape, error) {
	if err := sizes("height", p.H, "wall", p.Wall, "width", p.Bed[0], "depth", p.Bed[1], "bed", p.Bed[2]); err != nil {
		return nil, err
	}
	if p.Infill < 0 || p.Infill > 1 {
		return nil, measure.Bad("infill", "write 0 to 100 %%")
	}
	r := p.Mesh.Report()
	if !r.Sound() || r.Hi.Z <= r.Lo.Z {
		return nil, measure.Bad("mesh", "is not closed; bring the STL in again")
	}
	f := p.H / (r.Hi.Z - r.Lo.Z)
	size := Vec{(r.Hi.X - r.Lo.X) * f, (r.Hi.Y - r.Lo.Y) * f, p.H}
	n := [3]int{}
	for i, s := range []float64{size.X, size.Y, size.Z} {
		n[i] = max(1, int(math.Ceil(s/p.Bed[i]-1e-6)))
	}
	pieces := n[0] * n[1] * n[2]
	if pieces > 400 {
		return nil, measure.Bad("bed", "takes %d pieces; make it smaller or the bed larger", pieces)
	}
	glued := p.glued(r, f, size, n)
	volume, area := r.Volume*f*f*f, r.Area*f*f
	shell := math.Min(volume, area*p.Wall+2*glued*p.Wall)
	plastic := shell + (volume-shell)*p.Infill
	s := &Shape{Size: size, Mass: plastic * 1e-9 * p.Density, Outside: area, Walls: []string{"side", "top", "bottom"}}
	if glued > 0 {
		s.Lines = []Line{{"", "", glued / p.Wall, p.Wall}}
	}
	exact := source.Exact("divergence theorem; sections by their outlines")
	s.Results = append(
		s.Results,
		result("mass", "Mass, printed", s.Mass, "kg", measure.Kilograms(s.Mass)).
			With("(shells + rest x infill) x density", fmt.Sprintf("(%.0f cm3 + %.0f cm3 x %.2f) x %.0f kg/m3", shell/1000,
				(volume-shell)/1000, p.Infill, p.Density),
				measure.Kilograms(s.Mass), exact, source.FromMemory("density")),
		result("pieces", "Pieces", float64(pieces), "", fmt.Sprintf("%d: %d x %d x %d", pieces, n[0], n[1], n[2])).
			With("each way, its size by the bed's, rounded up", fmt.Sprintf("%s by %s by %s on %s by %s by %s", inches(size.X),
				inches(size.Y), inches(size.Z), inches(p.Bed[0]), inches(p.Bed[1]), inches(p.Bed[2])), fmt.Sprint(pieces),
				source.Exact("whole pieces")),
		result("glued", "Glued faces", glued/1e6, "m2", fmt.Sprintf("%.0f cm2", glued/100)).
			With("sum of the sections at the cuts", "", fmt.Sprintf("%.1f cm2", glued/100), exact),
	)
	if p.Unit > 0 {
		s.Results = append(s.Results, p.spools(plastic))
	}
	drawn, err := MeshSlices{Mesh: p.Mesh, H: p.H, T: p.H / 24}.Lay() // its outside, in layers
	if err != nil {
		return nil, err
	}
	for _, b := range drawn.Bodies {
		b.Panel, b.Explode = "print", Vec{0, 0, 1}
		s.Bodies = append(s.Bodies, b)
	}
	return s, nil
}

// glued is the area of the faces at which the pieces are glued, so many pieces each way;
// the mesh is stretched f times.
func (p Printed) glued(r MeshReport, f float64, size Vec, n [3]int) (area float64) {
	m := make(Mesh, len(p.Mesh))
	mid := Vec{(r.Lo.X + r.Hi.X) / 2, (r.Lo.Y + r.Hi.Y) / 2, r.Lo.Z}
	for i, t := range p.Mesh {
		for k, v := range t {
			m[i][k] = Vec{(v.X - mid.X) * f, (v.Y - mid.Y) * f, (v.Z - mid.Z) * f}
		}
	}
	lo := [3]float64{-size.X / 2, -size.Y / 2, 0}
	for axis, s := range []float64{size.X, size.Y, size.Z} {
		t := m.turnedBy(axis)
		for k := 1; k < n[axis]; k++ {
			area += t.sectionArea(lo[axis] + s*float64(k)/float64(n[axis]) + 1e-7)
		}
	}
	return area
}

// spools is how many the plastic takes, mm3, a tenth spare.
func (p Printed) spools(plastic float64) source.Result {
	n := math.Ceil(1.1*plastic/1e6/p.Unit - 1e-9)
	text := fmt.Sprintf("%.0f", n)
	return result("tubs", "Spools", n, "", text).With("plastic, a tenth spare, by what a spool has; rounded up",
		fmt.Sprintf("1.1 x %.2f L / %.2f L", plastic/1e6, p.Unit), text,
		source.FromTrade("a tenth is lost"), source.FromMemory("what a spool has"))
}
