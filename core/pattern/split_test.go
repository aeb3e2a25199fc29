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
	require.NoError(
		t,
		lay(t, Outline{Rings: rings(t, "0,0 30,0 30,90 20,90 20,10 10,10 10,90 0,90"), H: 3000}).
			Split(Seam{Kind: "butt", At: 200, W: 1200, H: 2900}),
	)
	d, err := Disc{D: 3000, T: 25, Copies: 1}.Lay()
	require.NoError(t, err)
	require.ErrorContains(t, d.Split(Seam{Kind: "dovetail"}), "butt or half-lap")
	// a ring of a hive in pieces: together the ring, its hole in none of them
	ring, err := Disc{D: 3000, Bore: 2000, T: 25, Copies: 1}.Lay()
	require.NoError(t, err)
	require.NoError(t, ring.Split(Seam{Kind: "butt", W: 1600, H: 2400}))
	sum := 0.0
	for _, p := range ring.Panels {
		sum += p.Area()
	}
	require.InEpsilon(t, math.Pi/4*(3000*3000-2000*2000), sum, 2e-4)
}

// An opening that a seam crosses is cut from both pieces, whatever its shape,
// and whichever way the seam runs: butt pieces together are the whole less the
// opening; half-lapped ones that and once more what lies over itself.
func TestSeamsCrossOpenings(t *testing.T) {
	for _, o := range []Opening{{Name: "o", Face: "panel", Kind: "rect", W: 300, H: 200},
		{Name: "o", Face: "panel", Kind: "slot", W: 320, H: 120}, {Name: "o", Face: "panel", Kind: "round", W: 240}} {
		for _, size := range [][2]float64{{1600, 900}, {900, 1600}} {
			for _, kind := range []string{"butt", "half-lap"} {
				o.Y = size[1]/2 + 3.7
				shape := func() *Shape {
					s, err := pierced(Flat{W: size[0], H: size[1], T: 25, Copies: 1}, o)
					require.NoError(t, err)
					return s
				}
				whole := shape().Panels[0].Area()
				s := shape()
				require.NoError(t, s.Split(Seam{Kind: kind, Lap: 50, W: 1000, H: 1000}), "%s %s", o.Kind, kind)
				require.Len(t, s.Panels, 2)
				sum := 0.0
				for _, p := range s.Panels {
					sum += p.Area()
					require.Less(t, p.Area(), size[0]*size[1]/2+50*size[0], "each lost its part of the opening")
				}
				if kind == "butt" {
					require.InDelta(t, whole, sum, 1, "%s %v", o.Kind, size)
					continue
				}
				lap := 0.0 // what lies over itself: the band less the opening in it, by thin strips
				const strips = 4000
				for i := range strips {
					v := -25 + 50*(float64(i)+.5)/strips
					cut := 0.0
					long, short := o.W, o.H
					if o.Kind == "round" {
						short = long
					}
					if size[0] > size[1] { // the seam runs up: strips are at x = v
						switch o.Kind {
						case "rect":
							cut = short
						case "slot":
							cut = short
						case "round":
							cut = 2 * math.Sqrt(long*long/4-v*v)
						}
						lap += (size[1] - cut) * 50 / strips
						continue
					}
					y := v - 3.7
					switch o.Kind {
					case "rect":
						cut = long
					case "slot":
						cut = long - short + 2*math.Sqrt(short*short/4-y*y)
					case "round":
						cut = 2 * math.Sqrt(long*long/4-y*y)
					}
					lap += (size[0] - cut) * 50 / strips
				}
				require.InEpsilon(t, whole+lap, sum, 2e-4, "%s %v", o.Kind, size)
			}
		}
	}
}

// Openings that run into each other are refused, so that none counts twice.
func TestOpeningsDoNotOverlap(t *testing.T) {
	lay := func(x float64, kind string) error {
		_, err := pierced(
			Flat{W: 900, H: 900, T: 6, Copies: 1},
			Opening{Name: "a", Face: "panel", Kind: "rect", W: 200, H: 200, Y: 450},
			Opening{Name: "b", Face: "panel", Kind: kind, W: 100, H: 60, X: x, Y: 450},
		)
		return err
	}
	require.NoError(t, lay(200, "rect"))
	require.ErrorContains(t, lay(120, "rect"), "b runs into another opening")
	require.ErrorContains(t, lay(0, "round"), "runs into another", "inside counts as well")
}

// A circle's chords lie within 0.05 mm of it, from a screw hole to a disc of 8 ft.
func TestCirclesAreTrue(t *testing.T) {
	for _, d := range []float64{3, 20, 300, 914.4, 2438.4} {
		c := Circle(0, 0, d)
		for i, p := range c {
			q := c[(i+1)%len(c)]
			require.LessOrEqual(t, d/2-math.Hypot((p.X+q.X)/2, (p.Y+q.Y)/2), .05, "%g mm", d)
		}
	}
}

// A plain disc in pieces has no hole; one with a bore keeps it in the middle.
func TestADiscInPieces(t *testing.T) {
	for _, bore := range []float64{0, 200} {
		s, err := Disc{D: 1000, Bore: bore, T: 25, Copies: 1}.Lay()
		require.NoError(t, err)
		require.NoError(t, s.Split(Seam{Kind: "butt", W: 800, H: 2000}))
		require.Len(t, s.Panels, 2)
		area := 0.0
		for _, p := range s.Panels {
			area += p.Area()
			require.Empty(t, p.Holes, "a seam through the middle leaves no hole whole")
		}
		require.InEpsilon(t, math.Pi/4*(1e6-bore*bore), area, 2e-3)
	}
}

// What stands in space of a split plate is the plate: by the divergence theorem
// the faces of its pieces enclose its volume.
func TestSplitBodiesEncloseTheWhole(t *testing.T) {
	s, err := Flat{W: 1000, H: 3000, T: 50, Copies: 1}.Lay()
	require.NoError(t, err)
	require.NoError(t, s.Split(Seam{Kind: "butt", At: 1200, W: 1100, H: 2000}))
	require.InEpsilon(t, 1000*3000*50, enclosed(s.Bodies), 1e-9)
}

func enclosed(bodies []Body) (v float64) {
	for _, b := range bodies {
		for _, f := range b.Faces {
			for i := 1; i+1 < len(f.Points); i++ {
				v += dotted(f.Points[0], crossed(f.Points[i], f.Points[i+1])) / 6
			}
		}
	}
	return v
}
