package pattern

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// ball is a closed mesh of an ellipsoid with half axes a, b, c.
func ball(a, b, c float64, n int) Mesh {
	at := func(i, k int) Vec {
		s, z := math.Sincos(-math.Pi/2 + math.Pi*float64(i)/float64(n))
		y, x := math.Sincos(2 * math.Pi * float64(k%(2*n)) / float64(2*n))
		if i == 0 || i == n {
			z = 0
		}
		return Vec{a * z * x, b * z * y, c * s}
	}
	var m Mesh
	for i := range n {
		for k := range 2 * n {
			p, q, r, s := at(i, k), at(i, k+1), at(i+1, k+1), at(i+1, k)
			if i > 0 {
				m = append(m, Triangle{p, q, r})
			}
			if i < n-1 {
				m = append(m, Triangle{p, r, s})
			}
		}
	}
	return m
}

func TestPackedMeshKeepsItsForm(t *testing.T) {
	m := ball(300, 200, 500, 24)
	text, err := m.Pack()
	require.NoError(t, err)
	require.Less(t, len(text), 40_000)
	back, err := Unpack(text)
	require.NoError(t, err)
	r, q := m.Report(), back.Report()
	require.True(t, q.Sound())
	require.InEpsilon(t, r.Volume, q.Volume*1e9, 1e-4, "the largest extent is 1; here it is 1000")
	for _, bad := range []string{"", "zm1", "AAAA", text[:40], text[:len(text)/2]} {
		_, err := Unpack(bad)
		require.ErrorContains(t, err, "bring the STL in again")
	}
	_, err = ball(1, 1, 1, 200).Pack()
	require.ErrorContains(t, err, "coarser")
}

// slab is a closed box from one corner to the other.
func slab(lo, hi Vec) (m Mesh) {
	v := func(k int) Vec {
		p := lo
		if k&1 > 0 {
			p.X = hi.X
		}
		if k&2 > 0 {
			p.Y = hi.Y
		}
		if k&4 > 0 {
			p.Z = hi.Z
		}
		return p
	}
	for _, q := range [6][4]int{{0, 2, 3, 1}, {4, 5, 7, 6}, {0, 1, 5, 4}, {2, 6, 7, 3}, {0, 4, 6, 2}, {1, 3, 7, 5}} {
		m = append(m, Triangle{v(q[0]), v(q[1]), v(q[2])}, Triangle{v(q[0]), v(q[2]), v(q[3])})
	}
	return m
}

func TestMeshSlicesHoldTheMeshAndLittleMore(t *testing.T) {
	rng := rand.New(rand.NewPCG(3, 3))
	for range 12 {
		a, b, h := 100+300*rng.Float64(), 100+300*rng.Float64(), 200+700*rng.Float64()
		m := ball(a, b, h/2, 20)
		s, err := MeshSlices{Mesh: m, H: h, T: 50.8}.Lay()
		require.NoError(t, err)
		require.Equal(t, int(math.Ceil(h/50.8)), len(s.Panels))
		vol := 0.0
		for _, p := range s.Panels {
			vol += p.Volume()
		}
		// an ellipsoid's layers, each the ellipse at its widest (closed form)
		want := 0.0
		cell := 2 * math.Max(a, b) / cells
		for i := range s.Panels {
			z0, z1 := float64(i)*50.8-h/2, math.Min(h, float64(i+1)*50.8)-h/2
			z := math.Max(0, math.Max(z0, -z1))
			k := math.Sqrt(math.Max(0, 1-z*z/(h*h/4)))
			want += math.Pi * (a*k + 1.5*cell) * (b*k + 1.5*cell) * 50.8
		}
		require.InEpsilon(t, want, vol, 0.035, "the mesh is a polyhedron inside the ellipsoid")
		require.Greater(t, vol, m.Report().Volume)
	}
}

func TestMeshSlicesOfABox(t *testing.T) {
	// a box of 400 x 200 x 300 in 100 mm layers, 10 mm to carve, walls 40: closed form
	m := slab(Vec{}, Vec{400, 200, 300})
	require.True(t, m.Report().Sound())
	s, err := MeshSlices{Mesh: m, H: 300, T: 100, Allow: 10, Wall: 40, Dowels: 2, Dowel: 12}.Lay()
	require.NoError(t, err)
	require.Len(t, s.Panels, 3)
	cell := 400.0 / cells
	for i, p := range s.Panels {
		lo, hi := p.Bounds()
		require.InDelta(t, 420, hi.X-lo.X, 4*cell)
		require.InDelta(t, 220, hi.Y-lo.Y, 4*cell)
		pins := 0
		for _, hole := range p.Holes {
			if a := Area(hole); a < 200 {
				pins++
			} else {
				w, h := bounds(hole)
				require.InDelta(t, 320, w, 4*cell)
				require.InDelta(t, 120, h, 4*cell)
			}
		}
		require.Equal(
			t,
			[]int{2, 5, 2}[i],
			pins+map[bool]int{true: 1}[i == 1],
			"two pins a joint, and the hollow of the middle layer",
		)
		require.Len(t, p.Holes, []int{2, 5, 2}[i])
	}
	// a pin of the first layer has its hole in the second at the same place under the middle
	where := func(p Panel, h []Point) Point {
		mid := p.Marks[1][0]
		mid.Y += 10
		lo, hi := Panel{Outline: h}.Bounds()
		return Point{(lo.X+hi.X)/2 - mid.X, (lo.Y+hi.Y)/2 - mid.Y}
	}
	for _, h := range s.Panels[0].Holes {
		a, near := where(s.Panels[0], h), math.Inf(1)
		for _, g := range s.Panels[1].Holes {
			b := where(s.Panels[1], g)
			near = math.Min(near, math.Hypot(a.X-b.X, a.Y-b.Y))
		}
		require.InDelta(t, 0, near, 1e-6)
	}
	m[0][0], m[0][1] = m[0][1], m[0][0]
	_, err = MeshSlices{Mesh: m, H: 300, T: 100}.Lay()
	require.ErrorContains(t, err, "flips")
}

func TestContourOfADiscIsItsCircle(t *testing.T) {
	const n, r = 200, 70.0
	set := make([]bool, n*n)
	for i := range set {
		set[i] = math.Hypot(float64(i%n-100), float64(i/n-100)) <= r
	}
	f := signedField(set, n, n)
	for _, grow := range []float64{-20, 0, 15} {
		c := f.contours(grow)
		require.Len(t, c, 1)
		require.InEpsilon(t, math.Pi*(r+grow)*(r+grow), SignedArea(c[0]), 0.02)
		small := Simplified(c[0], 0.3)
		require.Less(t, len(small), len(c[0])/3)
		require.InEpsilon(t, Area(c[0]), Area(small), 0.01)
	}
}

func BenchmarkMeshSlices(b *testing.B) {
	m := ball(400, 300, 600, 60)
	b.ReportAllocs()
	for b.Loop() {
		_, err := MeshSlices{Mesh: m, H: 1200, T: 50.8, Wall: 75, Allow: 6, Dowels: 2, Dowel: 12}.Lay()
		require.NoError(b, err)
	}
}

// moved is a mesh elsewhere.
func (m Mesh) moved(d Vec) Mesh {
	out := make(Mesh, len(m))
	for i, t := range m {
		for k, v := range t {
			out[i][k] = Vec{v.X + d.X, v.Y + d.Y, v.Z + d.Z}
		}
	}
	return out
}

// Two balls that overlap, as one mesh of two shells, are cut as their union: a
// layer's area against two discs less their lens (closed form). A shell turned
// inside out is a hollow.
func TestOverlappingShellsAreCutAsOne(t *testing.T) {
	a, b := ball(100, 100, 100, 24), ball(100, 100, 100, 24).moved(Vec{X: 100})
	both := append(append(Mesh{}, a...), b...)
	s, err := MeshSlices{Mesh: both, H: 200, T: 200}.Lay()
	require.NoError(t, err)
	require.Len(t, s.Panels, 1)
	require.Empty(t, s.Panels[0].Holes)
	r, d := 100+300.0/cells, 100.0
	lens := 2*r*r*math.Acos(d/(2*r)) - d/2*math.Sqrt(4*r*r-d*d)
	require.InEpsilon(t, 2*math.Pi*r*r-lens, s.Panels[0].Area(), .02)

	var inside Mesh
	for _, f := range ball(60, 60, 60, 24) {
		inside = append(inside, Triangle{f[0], f[2], f[1]})
	}
	at, twice := both.Overlap(3)
	require.True(t, twice)
	require.InDelta(t, 50, at.X, 50)
	_, twice = a.Overlap(3)
	require.False(t, twice)
	mask := make([]bool, 100*100)
	fillCuts(mask, 100, 100, append(append(Mesh{}, a...), inside...).cuts(0), Point{-125, -125}, 2.5)
	n := 0
	for _, v := range mask {
		if v {
			n++
		}
	}
	require.InEpsilon(t, math.Pi*(100*100-60*60), float64(n)*2.5*2.5, .02)
}

// Corners shaken about a cut plane, as a scan's are, change a layer by no more
// than they were shaken; a thin fin between two samples is held all the same.
func TestSlicesStandNoise(t *testing.T) {
	rng := rand.New(rand.NewPCG(5, 5))
	still := ball(200, 150, 100, 16) // its waist lies on the plane between two layers
	shaken := make(Mesh, len(still))
	at := map[Vec]Vec{}
	for i, f := range still {
		for k, v := range f {
			if _, ok := at[v]; !ok {
				at[v] = Vec{v.X, v.Y, v.Z + 1e-7*(rng.Float64()-.5)}
			}
			shaken[i][k] = at[v]
		}
	}
	lay := func(m Mesh) *Shape {
		s, err := MeshSlices{Mesh: m, H: 200, T: 50}.Lay()
		require.NoError(t, err)
		require.Len(t, s.Panels, 4)
		return s
	}
	a, b := lay(still), lay(shaken)
	for i := range a.Panels {
		require.InEpsilon(t, a.Panels[i].Area(), b.Panels[i].Area(), 1e-3)
	}
	fin := slab(Vec{-150, -10, 62}, Vec{150, 10, 65}) // 300 mm wide, 3 mm thick, at a quarter of its layer
	s, err := MeshSlices{Mesh: append(ball(60, 60, 100, 24).moved(Vec{Z: 100}), fin...), H: 200, T: 50}.Lay()
	require.NoError(t, err)
	lo, hi := s.Panels[1].Bounds()
	require.InDelta(t, 300, hi.X-lo.X, 6)
}

// Two balls that share a place fill less than the sum of both: what is carved off
// is then not told, for it would be short of what they share.
func TestSharedPlacesAreNotCountedTwice(t *testing.T) {
	one := slab(Vec{0, 0, 0}, Vec{100, 100, 100})
	apart := append(append(Mesh(nil), one...), one.moved(Vec{300, 0, 0})...)
	into := append(append(Mesh(nil), one...), one.moved(Vec{50, 20, 0})...)
	keys := func(m Mesh) (out []string) {
		s, err := MeshSlices{Mesh: m, H: 100, T: 25}.Lay()
		require.NoError(t, err)
		for _, r := range s.Results {
			out = append(out, r.Key.What)
		}
		return out
	}
	assert.Contains(t, keys(apart), "carve")
	assert.NotContains(t, keys(into), "carve")
}
