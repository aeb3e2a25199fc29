package pattern

import (
	"math"
	"testing"

	"github.com/stretchr/testify/require"
)

// The ticks of edges that meet lie at the same height, and tell up from down.
func TestTicksMeetAcrossSeams(t *testing.T) {
	box, err := Box{W: 600, D: 400, H: 900, T: 25, Joint: "rabbet"}.Lay()
	require.NoError(t, err)
	heights := func(p Panel, right bool) (out []float64) {
		lo, hi := p.Bounds()
		for _, m := range p.Marks {
			if at := m[0].X; right && math.Abs(at-hi.X) < 1 || !right && math.Abs(at-lo.X) < 1 {
				out = append(out, m[0].Y)
			}
		}
		return
	}
	front, left := box.Panels[0], box.Panels[2]
	require.Len(t, heights(front, false), 3)
	require.ElementsMatch(
		t,
		heights(front, false),
		heights(left, true),
		"front's left edge meets the left side's right edge",
	)
	require.ElementsMatch(t, []float64{300, 595, 605}, heights(front, true))
	tower, err := Tower{N: 5, H: 1000, Bottom: 500, Top: 300, T: 25}.Lay()
	require.NoError(t, err)
	require.Len(t, tower.Panels[0].Marks, 6)
	for _, m := range tower.Panels[0].Marks { // ticks run into the part
		in := Point{(m[0].X + m[1].X) / 2, (m[0].Y + m[1].Y) / 2}
		require.True(t, Inside([][]Point{tower.Panels[0].Outline}, in))
	}
}

func TestSeamsHaveTicks(t *testing.T) {
	flat, err := Flat{W: 500, H: 3000, T: 25, Copies: 1}.Lay()
	require.NoError(t, err)
	require.NoError(t, flat.Split(Seam{Kind: "butt", W: 1190, H: 2400}))
	require.NotEmpty(t, flat.Panels[0].Marks)
}

func TestSilhouetteFromTheFront(t *testing.T) {
	box, err := Box{W: 600, D: 400, H: 900, T: 25, Joint: "butt"}.Lay()
	require.NoError(t, err)
	s := Silhouette(box.Bodies)
	require.Len(t, s, 1)
	require.InEpsilon(t, 600*900, SignedArea(s[0]), 0.012)
	disc, err := Disc{D: 500, Bore: 300, T: 20, Copies: 1, Upright: true}.Lay()
	require.NoError(t, err)
	s = Silhouette(disc.Bodies)
	require.Len(t, s, 2)
	a := 0.0
	for _, r := range s {
		a += SignedArea(r)
	}
	require.InEpsilon(t, math.Pi/4*(500*500-300*300), a, 0.02)
	require.Nil(t, Silhouette(nil))
}

// The places give the least R/r that is known, and no two discs overlap.
func TestDiscPlacesAreTheKnownPackings(t *testing.T) {
	for n, ratio := range known {
		p := DiscPlaces(n)
		if n >= 10 && n <= 20 && n != 19 {
			require.Nil(t, p)
			continue
		}
		require.Len(t, p, n)
		r := 0.0
		for i, a := range p {
			r = math.Max(r, math.Hypot(a.X, a.Y)+1)
			for _, b := range p[:i] {
				require.GreaterOrEqual(t, math.Hypot(a.X-b.X, a.Y-b.Y), 2-1e-9, n)
			}
		}
		if n == 19 {
			require.InDelta(t, 5, r, 1e-9, "hexagonal rings are a little more than the best known, 4.8637")
			continue
		}
		require.InDelta(t, ratio, r, 1e-4, n)
	}
}
