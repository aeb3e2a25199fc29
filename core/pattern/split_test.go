package pattern

import (
	"math"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

// bodyVolume is a closed body's volume by the divergence theorem, its faces
// fanned out from their first corner.
func bodyVolume(b Body) float64 {
	v := 0.0
	add := func(p []Vec, sign float64) {
		for i := 2; i < len(p); i++ {
			v += sign * dotted(p[0], crossed(p[i-1], p[i])) / 6
		}
	}
	for _, f := range b.Faces {
		add(f.Points, 1)
	}
	return v
}

func TestPiecesFitTheirSheetAndMakeTheWhole(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		const in = 25.4
		low, high := rapid.Float64Range(30, 150).Draw(t, "low")*in, rapid.Float64Range(8, 150).Draw(t, "high")*in
		tower := Tower{N: 4, H: rapid.Float64Range(97, 280).Draw(t, "h") * in, Bottom: low, Top: high, T: in}
		s, err := tower.Lay()
		require.NoError(t, err)
		whole, bodies := 0.0, 0.0
		for _, p := range s.Panels {
			whole += p.Volume() * float64(p.Copies)
		}
		for _, b := range s.Bodies {
			bodies += bodyVolume(b)
		}
		seam := Seam{Kind: "butt", W: 47 * in, H: 95 * in}
		if err := s.Split(seam); err != nil { // a sharp corner may not pair up with its inside
			require.ErrorContains(t, err, "put the seam elsewhere")
			return
		}
		sum, after := 0.0, 0.0
		for _, p := range s.Panels {
			sum += p.Volume() * float64(p.Copies)
			lo, hi := p.Bounds()
			w, h := hi.X-lo.X, hi.Y-lo.Y
			// the bevel of a cut corner may stand over the line by the inside face
			require.LessOrEqual(t, math.Max(w, h), 95*in+2*in)
			require.LessOrEqual(t, math.Min(w, h), 47*in+2*in)
			require.Len(t, p.Edges, len(p.Outline))
			for _, q := range p.Outline { // it begins at its lower left
				require.GreaterOrEqual(t, q.Y, p.Outline[0].Y-1e-6)
			}
		}
		require.InEpsilon(t, whole, sum, 1e-6, "no material is lost or made")
		for _, b := range s.Bodies {
			after += bodyVolume(b)
		}
		require.InEpsilon(t, bodies, after, 1e-3, "nor in the drawing in space")
	})
}

func TestHalfLapLiesOverAndLosesHalfItsThickness(t *testing.T) {
	const in = 25.4
	s, err := Flat{W: 40 * in, H: 120 * in, T: 2 * in, Copies: 1}.Lay()
	require.NoError(t, err)
	require.NoError(t, s.Split(Seam{Kind: "half-lap", Lap: 4 * in, At: 50 * in, W: 47 * in, H: 95 * in}))
	require.Len(t, s.Panels, 2)
	require.InDelta(t, 40*52*in*in, s.Panels[0].Area(), 1e-6, "to the seam and half the lap past it")
	require.InDelta(t, 40*72*in*in, s.Panels[1].Area(), 1e-6)
	// both rabbets together are one lap of the full thickness
	require.InDelta(t, 40*120*2*in*in*in, s.Panels[0].Volume()+s.Panels[1].Volume(), 1e-3)
	n := 0
	for _, p := range s.Panels {
		for _, e := range p.Edges {
			if e.Name == "seam" {
				n++
				require.InDelta(t, in, e.Depth, 1e-9)
			}
		}
	}
	require.Equal(t, 2, n)
}

func TestSeamThroughAWindowAndACurve(t *testing.T) {
	// a ring-shaped plate cut across its hole: exact by symmetry
	s := lay(t, Outline{Rings: [][]Point{Circle(0, 0, 200), Circle(0, 0, 100)}, W: 2000})
	whole := s.Panels[0].Area()
	err := s.Split(Seam{Kind: "butt", W: 1200, H: 2400})
	require.NoError(t, err)
	require.Len(t, s.Panels, 2)
	require.InDelta(t, whole/2, s.Panels[0].Area(), whole*1e-9)
	require.InDelta(t, whole/2, s.Panels[1].Area(), whole*1e-9)
	// a U cut where its legs stand apart falls into loose bits
	u := lay(t, Outline{Rings: rings(t, "0,0 30,0 30,90 20,90 20,10 10,10 10,90 0,90"), H: 3000})
	require.ErrorContains(t, u.Split(Seam{Kind: "butt", W: 1200, H: 2400}), "loose bits")
	require.NoError(t, lay(t, Outline{Rings: rings(t, "0,0 30,0 30,90 20,90 20,10 10,10 10,90 0,90"), H: 3000}).Split(Seam{Kind: "butt", At: 200, W: 1200, H: 2900}))
	d, err := Disc{D: 3000, T: 25, Copies: 1}.Lay()
	require.NoError(t, err)
	require.ErrorContains(t, d.Split(Seam{Kind: "butt", W: 1200, H: 2400}), "over several boards")
	require.ErrorContains(t, d.Split(Seam{Kind: "dovetail"}), "butt or half-lap")
}
