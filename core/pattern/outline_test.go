package pattern

import (
	"math"
	"sort"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

func lay(t *testing.T, o Outline) *Shape {
	t.Helper()
	if o.T == 0 {
		o.T = 25.4
	}
	o.Copies = max(1, o.Copies)
	s, err := o.Lay()
	require.NoError(t, err)
	return s
}

func rings(t require.TestingT, text string) [][]Point {
	r, err := ReadRings(text)
	require.NoError(t, err)
	return r
}

func TestOutlineStretchesToItsKnownSizeAndKeepsItsHoles(t *testing.T) {
	// a 4 x 3 frame with a 2 x 1 window and an island of 1 x 0.5 in it; closed forms
	s := lay(
		t,
		Outline{Rings: rings(t, "0,0 4,0 4,3 0,3; 1,1 3,1 3,2 1,2; 1.5,1.25 2.5,1.25 2.5,1.75 1.5,1.75"), W: 400},
	)
	require.Len(t, s.Panels, 2, "the frame and the island that falls out of its window")
	require.InDelta(t, 100*100*(12-2), s.Panels[0].Area(), 1e-6)
	require.InDelta(t, 100*100*.5, s.Panels[1].Area(), 1e-6)
	require.InDelta(t, 300, s.Size.Z, 1e-9)
	require.InDelta(t, 100*100*10*25.4, s.Panels[0].Volume(), 1e-3)
	both := lay(t, Outline{Rings: rings(t, "0,0 4,0 4,3 0,3"), W: 400, H: 400})
	require.InDelta(t, 160000, both.Panels[0].Area(), 1e-6, "two known sizes stretch each way")
}

func TestPairIsMirrored(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		n := rapid.IntRange(3, 12).Draw(t, "n")
		var ring []Point
		for i := range n { // a star round the middle never meets itself
			a := 2 * math.Pi * float64(i) / float64(n)
			r := rapid.Float64Range(1, 5).Draw(t, "r")
			ring = append(ring, Point{r * math.Cos(a), r * math.Sin(a)})
		}
		s, err := Outline{Rings: [][]Point{ring}, H: 500, T: 10, Copies: 2, Pair: true}.Lay()
		require.NoError(t, err)
		l, r := s.Panels[0], s.Panels[1]
		require.Equal(t, []string{"left", "right"}, []string{l.Hand, r.Hand})
		require.InDelta(t, l.Area(), r.Area(), 1e-6)
		require.Greater(t, SignedArea(l.Outline), 0.0)
		require.Greater(t, SignedArea(r.Outline), 0.0)
		_, hi := l.Bounds()
		for i, q := range l.Outline { // each corner has its mirror image
			m := r.Outline[len(r.Outline)-1-i]
			require.InDelta(t, hi.X-q.X, m.X, 1e-9)
			require.InDelta(t, q.Y, m.Y, 1e-9)
		}
		back, err := ReadRings(WriteRings([][]Point{ring}))
		require.NoError(t, err)
		require.InDelta(t, Area(ring), Area(back[0]), Area(ring)*0.05)
	})
}

func TestOutlineRefusesWhatNoSawCuts(t *testing.T) {
	for text, want := range map[string]string{
		"":                         "is empty",
		"0,0 1,1":                  "no area",
		"0,0 4,4 4,0 0,4":          "no area",
		"0,0 5,4 4,0 0,3":          "meets itself",
		"0,0 a,4 4,0":              "is not a corner",
		"0,0 1e9,4 4,0":            "is not a corner",
		"0,0 4,0 4,4; 2,1 6,2 3,3": "meets itself",
	} {
		r, err := ReadRings(text)
		if err == nil {
			_, err = Outline{Rings: r, W: 100, T: 5, Copies: 1}.Lay()
		}
		require.ErrorContains(t, err, want, text)
	}
}

func TestNeckOfADumbbellIsItsBar(t *testing.T) {
	// closed form: two squares of 10 in, a bar of the given width between
	for _, bar := range []float64{0.5, 0.8, 1.2} {
		a, b := 5-bar/2, 5+bar/2
		r := []Point{
			{0, 0},
			{10, 0},
			{10, a},
			{14, a},
			{14, 0},
			{24, 0},
			{24, 10},
			{14, 10},
			{14, b},
			{10, b},
			{10, 10},
			{0, 10},
		}
		s := lay(t, Outline{Rings: [][]Point{r}, W: 24 * 25.4})
		n := s.Panels[0].Necks(1.5 * 25.4)
		require.NotEmpty(t, n, bar)
		require.False(t, n[0].Limb)
		require.InDelta(t, bar*25.4, n[0].Width, 1e-6, bar)
		require.InDelta(t, 12*25.4, n[0].At.X, 2.2*25.4)
		require.InDelta(t, 5*25.4, n[0].At.Y, 0.3*25.4)
		require.Empty(t, s.Panels[0].Necks(0.3*25.4), "wide enough")
	}
}

func TestNeckOfTwoCirclesIsTheirCommonChord(t *testing.T) {
	// closed form: chord = 2 sqrt(r^2 - (d/2)^2)
	const r, d = 100.0, 196.0
	want := 2 * math.Sqrt(r*r-d*d/4)
	half := math.Acos(d / 2 / r)
	var p []Point
	for k := range 120 {
		a := half + (2*math.Pi-2*half)*float64(k)/119
		p = append(p, Point{r * math.Cos(a), r * math.Sin(a)})
	}
	for k := 1; k < 119; k++ {
		a := math.Pi + half + (2*math.Pi-2*half)*float64(k)/119
		p = append(p, Point{d + r*math.Cos(a), r * math.Sin(a)})
	}
	s := lay(t, Outline{Rings: [][]Point{p}, W: d + 2*r})
	n := s.Panels[0].Necks(60)
	require.Len(t, n, 1)
	require.InDelta(t, want, n[0].Width, 0.01)
}

func TestLimbIsThinToItsEnd(t *testing.T) {
	// an antenna 8 wide and 120 long on a body of 200 x 200
	r := []Point{{0, 0}, {200, 0}, {200, 200}, {104, 200}, {104, 320}, {96, 320}, {96, 200}, {0, 200}}
	n := lay(t, Outline{Rings: [][]Point{r}, W: 200}).Panels[0].Necks(24)
	require.Len(t, n, 1)
	require.True(t, n[0].Limb)
	require.InDelta(t, 8, n[0].Width, 3)
	require.InDelta(t, 120, n[0].Reach, 14)
	require.Empty(
		t,
		lay(t, Outline{Rings: [][]Point{Circle(0, 0, 300)}, W: 300}).Panels[0].Necks(24),
		"a disc has none",
	)
	require.Empty(
		t,
		lay(t, Outline{Rings: [][]Point{{{0, 0}, {300, 0}, {150, 260}}}, W: 300}).Panels[0].Necks(24),
		"nor the corners of a triangle",
	)
}

func TestDistancesAgainstBruteForce(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		nx, ny := rapid.IntRange(1, 12).Draw(t, "nx"), rapid.IntRange(1, 12).Draw(t, "ny")
		set := rapid.SliceOfN(rapid.Bool(), nx*ny, nx*ny).Draw(t, "set")
		got := distances(set, nx, ny)
		for i := range set {
			best := math.Inf(1)
			for k := range set {
				if !set[k] {
					best = math.Min(best, math.Hypot(float64(i%nx-k%nx), float64(i/nx-k/nx)))
				}
			}
			if math.IsInf(best, 1) {
				require.True(t, math.IsInf(got[i], 1))
			} else {
				require.InDelta(t, best, got[i], 1e-9)
			}
		}
	})
}

// A label lies on its shape: in the middle of a square, on the wide leg of a
// hook whose middle is in the open, on the rim of a frame.
func TestLabelLiesOnTheShape(t *testing.T) {
	square := [][]Point{{{0, 0}, {10, 0}, {10, 10}, {0, 10}}}
	require.Equal(t, Point{5, 5}, LabelAt(square))
	for name, rings := range map[string][][]Point{
		"hook":  {{{0, 0}, {20, 0}, {20, 30}, {12, 30}, {12, 50}, {20, 60}, {0, 60}}},
		"frame": {square[0], {{1, 1}, {9, 1}, {9, 9}, {1, 9}}},
		"L":     {{{0, 0}, {100, 0}, {100, 2}, {2, 2}, {2, 100}, {0, 100}}},
	} {
		require.True(t, Inside(rings, LabelAt(rings)), name)
	}
}

// Petals stand at equal angles round their ring, mirrored ones between.
func TestPetalsStandAllRound(t *testing.T) {
	for _, pair := range []bool{false, true} {
		s := lay(
			t,
			Outline{
				Rings:  [][]Point{{{X: -1, Y: 0}, {X: 1, Y: 0}, {X: 0, Y: 9}}},
				H:      100,
				T:      5,
				Copies: 6,
				Pair:   pair,
				Around: 200,
			},
		)
		n := 6
		if pair {
			n = 12
		}
		require.Len(t, s.Bodies, n)
		var at []float64
		for _, b := range s.Bodies {
			x, z, k := 0.0, 0.0, 0.0
			for _, f := range b.Faces {
				for _, q := range f.Points {
					x, z, k = x+q.X, z+q.Z, k+1
				}
			}
			at = append(at, math.Atan2(z/k-s.Size.Z/2, x/k))
		}
		sort.Float64s(at)
		for i := 1; i < n; i++ {
			require.InDelta(t, 2*math.Pi/float64(n), at[i]-at[i-1], .02, "pair %v", pair)
		}
	}
}
