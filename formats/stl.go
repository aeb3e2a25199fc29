package formats

import (
	"bytes"
	"encoding/binary"
	"fmt"
	"math"
	"strconv"
	"strings"

	"zapbarn/core/measure"
	"zapbarn/core/pattern"
)

// MaxTriangles is the largest mesh read.
const MaxTriangles = 1_000_000

// STL reads a mesh, ASCII or binary, its numbers taken as unit mm each.
func STL(data []byte, unit float64) (pattern.Mesh, error) {
	if unit <= 0 || math.IsNaN(unit) || unit > 10_000 {
		return nil, measure.Bad("unit", "must be the millimetres of one unit, such as 1 or 25.4")
	}
	if len(data) >= 84 { // binary: its count must fit its length
		n := binary.LittleEndian.Uint32(data[80:84])
		if uint64(len(data)) == 84+50*uint64(n) {
			return binarySTL(data[84:], int(n), unit)
		}
	}
	if !bytes.HasPrefix(bytes.TrimSpace(data), []byte("solid")) {
		return nil, measure.Bad(
			"stl",
			"is neither ASCII (it starts with solid) nor binary (its length fits its count of triangles); export it again as "+
				"STL",
		)
	}
	m := make(pattern.Mesh, 0, min(MaxTriangles, bytes.Count(data, []byte("endfacet"))))
	var t pattern.Triangle
	corners, no := 0, -1
	for line := range bytes.Lines(data) {
		no++
		f := strings.Fields(string(line[:min(len(line), 400)])) // what counts stands at its beginning
		if len(f) == 0 {
			continue
		}
		switch strings.ToLower(f[0]) {
		case "vertex":
			if len(f) != 4 || corners > 2 {
				return nil, measure.Bad("stl", "line %d: a corner has three numbers, a triangle three corners", no+1)
			}
			var v [3]float64
			for i := range 3 {
				x, err := strconv.ParseFloat(f[i+1], 64)
				if err != nil || math.IsNaN(x) || math.Abs(x*unit) > 1e6 {
					return nil, measure.Bad("stl", "line %d: %q is not a place in a prop", no+1, f[i+1])
				}
				v[i] = x * unit
			}
			t[corners] = pattern.Vec{X: v[0], Y: v[1], Z: v[2]}
			corners++
		case "endfacet":
			if corners != 3 {
				return nil, measure.Bad("stl", "line %d: a triangle with %d corners", no+1, corners)
			}
			if m = append(m, t); len(m) > MaxTriangles {
				return nil, tooMany()
			}
			corners = 0
		}
	}
	if len(m) == 0 {
		return nil, measure.Bad("stl", "has no triangles")
	}
	return m, nil
}

func tooMany() error {
	return measure.Bad("stl", "has more than %d triangles; make the mesh coarser", MaxTriangles)
}

func binarySTL(b []byte, n int, unit float64) (pattern.Mesh, error) {
	if n == 0 {
		return nil, measure.Bad("stl", "has no triangles")
	}
	if n > MaxTriangles {
		return nil, tooMany()
	}
	m := make(pattern.Mesh, n)
	for i := range m {
		for k := range 3 {
			var v [3]float64
			for j := range 3 {
				x := float64(math.Float32frombits(binary.LittleEndian.Uint32(b[i*50+12+k*12+j*4:]))) * unit
				if math.IsNaN(x) || math.Abs(x) > 1e6 {
					return nil, measure.Bad("stl", "triangle %d lies beyond any prop", i+1)
				}
				v[j] = x
			}
			m[i][k] = pattern.Vec{X: v[0], Y: v[1], Z: v[2]}
		}
	}
	return m, nil
}

// SliceReport is a mesh cut in layers of a thickness.
type SliceReport struct {
	Mesh   pattern.MeshReport
	Slices [][][]pattern.Point // of each layer, at its middle
	Volume float64             // of the layers together, mm3
	Union  bool                // shells touch or run into each other: what is in any of them was cut
}

// SliceSTL cuts a mesh in level layers t thick from its lowest point up: a sound one, or one of
// closed shells that touch or run into each other, as their union.
func SliceSTL(m pattern.Mesh, t float64) (*SliceReport, error) {
	r := &SliceReport{Mesh: m.Report()}
	if !r.Mesh.Sound() && !r.Mesh.Shells() {
		return r, fmt.Errorf("the mesh cannot be cut: %s", strings.Join(r.Mesh.Words(), "; "))
	}
	if t <= 0 {
		return r, measure.Bad("t", "must be more than nothing, such as 2 in")
	}
	n := int(math.Ceil((r.Mesh.Hi.Z-r.Mesh.Lo.Z)/t - 1e-9))
	if n > 1000 {
		return r, measure.Bad("t", "takes %d layers; 1000 at most", n)
	}
	at := func(i int) float64 {
		return r.Mesh.Lo.Z + math.Min((float64(i)+.5)*t, r.Mesh.Hi.Z-r.Mesh.Lo.Z-1e-6)
	}
	r.Union = !r.Mesh.Sound()
	for i := 0; i < n && !r.Union; i++ {
		_, r.Union = m.Overlap(at(i))
	}
	for i := range n {
		loops := m.Section(at(i))
		if r.Union {
			loops = m.Union(at(i))
		}
		r.Slices = append(r.Slices, loops)
		for _, l := range loops {
			r.Volume += pattern.SignedArea(l) * t
		}
	}
	return r, nil
}
