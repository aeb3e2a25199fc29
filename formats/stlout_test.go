package formats

import (
	"bytes"
	"math"
	"math/rand/v2"
	"testing"

	"zapbarn/core/pattern"
	"zapbarn/core/work"
	"zapbarn/demo"
	"zapbarn/testkit/shop"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Triangles cover just what a polygon does, whichever way it lies and however it is cut.
func TestTrianglesCoverAPolygon(t *testing.T) {
	area := func(ts [][3]pattern.Vec) (sum float64) {
		for _, x := range ts {
			a := pattern.Vec{X: x[1].X - x[0].X, Y: x[1].Y - x[0].Y, Z: x[1].Z - x[0].Z}
			b := pattern.Vec{X: x[2].X - x[0].X, Y: x[2].Y - x[0].Y, Z: x[2].Z - x[0].Z}
			sum += math.Hypot(math.Hypot(a.Y*b.Z-a.Z*b.Y, a.Z*b.X-a.X*b.Z), a.X*b.Y-a.Y*b.X) / 2
		}
		return sum
	}
	rng := rand.New(rand.NewPCG(2, 4))
	for range 100 {
		n := 4 + rng.IntN(20)
		var ring []pattern.Point // a star: each corner further on round the middle
		for k := range n {
			s, c := math.Sincos(2 * math.Pi * float64(k) / float64(n))
			r := 20 + 80*rng.Float64()
			ring = append(ring, pattern.Point{X: r * c, Y: r * s})
		}
		for way := range 6 {
			var p []pattern.Vec
			for _, q := range ring {
				p = append(p, []pattern.Vec{
					{X: q.X, Y: q.Y}, {Y: q.X, Z: q.Y}, {Z: q.X, X: q.Y}, {Y: q.X, X: q.Y}, {Z: q.X, Y: q.Y}, {X: q.X, Z: q.Y},
				}[way])
			}
			got := triangles(p)
			require.Len(t, got, n-2)
			assert.InEpsilon(t, pattern.Area(ring), area(got), 1e-9)
		}
	}
}

// Every solid of the pattern book and the demo comes out, read back with the volume that
// its bodies have and the size that it has.
func TestEverySolidComesOutAsSTL(t *testing.T) {
	n := 0
	for _, p := range []*work.Work{
		work.Do(demo.Patterns(), shop.Kept, bookDay), work.Do(demo.Apiary(bookDay), shop.Kept, bookDay),
	} {
		for i := range p.Plan.Solids() {
			s := &p.Plan.Solids()[i]
			shape := p.Shapes()[s.ID]
			if shape == nil || len(shape.Bodies) == 0 {
				continue
			}
			var b bytes.Buffer
			require.NoError(t, SolidsSTL(&b, p, s.Prop, s.ID), s.ID)
			m, err := STL(b.Bytes(), 1)
			require.NoError(t, err, s.ID)
			r := m.Report()
			assert.InDelta(t, shape.Size.Z, r.Hi.Z-r.Lo.Z, shape.Size.Z*.02+1, s.ID)
			want := 0.0
			for _, body := range shape.Bodies {
				want += signedVolume(body.At(pattern.Vec{X: s.X.Value(), Y: s.Y.Value(), Z: s.Z.Value()}))
			}
			assert.InDelta(t, want, meshVolume(m), math.Abs(want)*1e-3+100, s.ID)
			n++
		}
	}
	assert.Greater(t, n, 60)
	var b bytes.Buffer
	w := work.Do(demo.Apiary(bookDay), shop.Kept, bookDay)
	require.NoError(t, SolidsSTL(&b, w, "riser", ""))
	assert.ErrorContains(t, SolidsSTL(&b, w, "riser", "nothing"), "no shape yet")
}

func meshVolume(m pattern.Mesh) (v float64) {
	for _, t := range m {
		v += tetra(t[0], t[1], t[2])
	}
	return v
}

func signedVolume(b pattern.Body) (v float64) {
	for _, f := range b.Faces {
		for i := 2; i < len(f.Points); i++ {
			v += tetra(f.Points[0], f.Points[i-1], f.Points[i])
		}
	}
	return v
}

func tetra(p, q, r pattern.Vec) float64 {
	return (p.X*(q.Y*r.Z-q.Z*r.Y) + p.Y*(q.Z*r.X-q.X*r.Z) + p.Z*(q.X*r.Y-q.Y*r.X)) / 6
}
