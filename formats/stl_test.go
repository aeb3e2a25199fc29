package formats

import (
	"bytes"
	"encoding/binary"
	"fmt"
	"math"
	"strings"
	"testing"

	"zapbarn/core/pattern"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// ball is a sphere of radius r as triangles; tube a square tube.
func ball(r float64, n int) (m pattern.Mesh) {
	at := func(i, j int) pattern.Vec {
		s, c := math.Sincos(math.Pi * float64(i) / float64(n))
		u, v := math.Sincos(2 * math.Pi * float64(j%(2*n)) / float64(2*n))
		if i == 0 || i == n {
			s = 0
		}
		return pattern.Vec{X: r * s * v, Y: r * s * u, Z: r * c}
	}
	for i := range n {
		for j := range 2 * n {
			a, b, c, d := at(i, j), at(i+1, j), at(i+1, j+1), at(i, j+1)
			if i > 0 {
				m = append(m, pattern.Triangle{a, b, d})
			}
			if i < n-1 {
				m = append(m, pattern.Triangle{b, c, d})
			}
		}
	}
	return m
}

func block(x0, y0, z0, x1, y1, z1 float64, out bool) (m pattern.Mesh) {
	v := func(i int) pattern.Vec {
		p := pattern.Vec{X: x0, Y: y0, Z: z0}
		if i&1 > 0 {
			p.X = x1
		}
		if i&2 > 0 {
			p.Y = y1
		}
		if i&4 > 0 {
			p.Z = z1
		}
		return p
	}
	for _, q := range [][4]int{{0, 2, 3, 1}, {4, 5, 7, 6}, {0, 1, 5, 4}, {2, 6, 7, 3}, {0, 4, 6, 2}, {1, 3, 7, 5}} {
		a, b := pattern.Triangle{v(q[0]), v(q[1]), v(q[2])}, pattern.Triangle{v(q[0]), v(q[2]), v(q[3])}
		if !out {
			a[1], a[2], b[1], b[2] = a[2], a[1], b[2], b[1]
		}
		m = append(m, a, b)
	}
	return m
}

func ascii(m pattern.Mesh) []byte {
	var b bytes.Buffer
	b.WriteString("solid hive\n")
	for _, t := range m {
		b.WriteString(" facet normal 0 0 0\n  outer loop\n")
		for _, v := range t {
			fmt.Fprintf(&b, "   vertex %.9g %.9g %.9g\n", v.X, v.Y, v.Z)
		}
		b.WriteString("  endloop\n endfacet\n")
	}
	b.WriteString("endsolid hive\n")
	return b.Bytes()
}

func binarySTLOf(m pattern.Mesh) []byte {
	var b bytes.Buffer
	b.Write(make([]byte, 80))
	_ = binary.Write(&b, binary.LittleEndian, uint32(len(m)))
	for _, t := range m {
		_ = binary.Write(&b, binary.LittleEndian, [3]float32{})
		for _, v := range t {
			_ = binary.Write(&b, binary.LittleEndian, [3]float32{float32(v.X), float32(v.Y), float32(v.Z)})
		}
		b.Write([]byte{0, 0})
	}
	return b.Bytes()
}

// Closed forms: a block's volume exactly; a ball's to 4/3 pi r^3; the slices'
// areas against pi (r^2 - z^2), and together the volume.
func TestSTLVolumesAndSections(t *testing.T) {
	for _, data := range [][]byte{ascii(block(0, 0, 0, 20, 30, 40, true)), binarySTLOf(block(0, 0, 0, 20, 30, 40, true))} {
		m, err := STL(data, 25.4)
		require.NoError(t, err)
		r := m.Report()
		assert.InEpsilon(t, 20*30*40*math.Pow(25.4, 3), r.Volume, 1e-6)
		assert.True(t, r.Sound(), r.Words())
		s, err := SliceSTL(m, 50.8)
		require.NoError(t, err)
		assert.Len(t, s.Slices, 20)
		assert.InEpsilon(t, r.Volume, s.Volume, 1e-6)
	}
	b := ball(100, 48)
	r := b.Report()
	require.True(t, r.Sound(), r.Words())
	assert.InEpsilon(t, 4./3*math.Pi*1e6, r.Volume, .004)
	for _, z := range []float64{-90, -33.3, 0, 12, 71} {
		loops := b.Section(z)
		require.Len(t, loops, 1)
		assert.InEpsilon(t, math.Pi*(1e4-z*z), pattern.SignedArea(loops[0]), .01, "%g", z)
	}
	s, err := SliceSTL(b, 5)
	require.NoError(t, err)
	assert.InEpsilon(t, r.Volume, s.Volume, .002)
	// two shells that overlap are cut as their union, two apart each for itself
	s, err = SliceSTL(append(block(0, 0, 0, 100, 100, 100, true), block(60, 20, 20, 180, 80, 80, true)...), 50)
	require.NoError(t, err)
	assert.True(t, s.Union)
	assert.InEpsilon(t, 2*50*(1e4+80*60), s.Volume, 5e-3)
	s, err = SliceSTL(append(block(0, 0, 0, 100, 100, 100, true), block(110, 20, 0, 180, 80, 80, true)...), 50)
	require.NoError(t, err)
	assert.InEpsilon(t, 2*50*1e4+2*50*70*60, s.Volume, 1e-9)
	// a hollow: the hole's outline runs the other way
	hollow := append(block(0, 0, 0, 100, 100, 100, true), block(20, 20, 20, 80, 80, 80, false)...)
	loops := hollow.Section(50)
	require.Len(t, loops, 2)
	assert.InEpsilon(t, 1e4-3600, pattern.SignedArea(loops[0])+pattern.SignedArea(loops[1]), 1e-9)
}

// Holes, flips and self-contact are told in words; a mesh with holes or flips is not cut, shells
// that touch are cut as one.
func TestMeshFaultsInWords(t *testing.T) {
	whole := block(0, 0, 0, 10, 10, 10, true)
	flipped := append(pattern.Mesh(nil), whole...)
	flipped[3][1], flipped[3][2] = flipped[3][2], flipped[3][1]
	for want, m := range map[string]pattern.Mesh{"holes: 3 edges": whole[1:], "flips: at 3 edges": flipped,
		"inside out":   block(0, 0, 0, 10, 10, 10, false),
		"self-contact": append(append(pattern.Mesh(nil), whole...), whole...),
		"no area":      append(append(pattern.Mesh(nil), whole...), pattern.Triangle{})} {
		r := m.Report()
		assert.Contains(t, strings.Join(r.Words(), "; "), want)
		if want == "self-contact" {
			s, err := SliceSTL(m, 2)
			require.NoError(t, err)
			assert.InEpsilon(t, 1000, s.Volume, 5e-3, "twice the same block is one")
		} else if want != "no area" {
			_, err := SliceSTL(m, 2)
			assert.ErrorContains(t, err, "cannot be cut")
		}
	}
}

func TestBadSTL(t *testing.T) {
	for want, data := range map[string]string{"neither ASCII": "PK\x03\x04", "no triangles": "solid x\nendsolid x",
		"three corners": "solid x\nvertex 1 2", "is not a place": "solid x\nvertex 1 2 nan\n",
		"with 1 corners": "solid x\nvertex 1 2 3\nendfacet"} {
		_, err := STL([]byte(data), 1)
		assert.ErrorContains(t, err, want)
	}
	_, err := STL(make([]byte, 84), 1)
	assert.ErrorContains(t, err, "no triangles")
	_, err = STL(ascii(ball(1, 4)), 0)
	assert.ErrorContains(t, err, "millimetres of one unit")
}

func FuzzSTL(f *testing.F) {
	f.Add(ascii(block(0, 0, 0, 1, 1, 1, true)))
	f.Add(binarySTLOf(block(0, 0, 0, 1, 1, 1, true)))
	f.Fuzz(func(t *testing.T, b []byte) {
		if m, err := STL(b, 1); err == nil && len(m) < 1000 {
			_, _ = SliceSTL(m, 1)
		}
	})
}

func BenchmarkSlice200k(b *testing.B) {
	m := ball(500, 224) // 200,704 triangles
	b.ReportMetric(float64(len(m)), "triangles")
	for b.Loop() {
		if _, err := SliceSTL(m, 50.8); err != nil {
			b.Fatal(err)
		}
	}
}
