package pattern

import (
	"errors"
	"math"
	"testing"

	"zapbarn/core/measure"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

const inch = 25.4

// Crown-moulding saw tables (spring angle as slope): mitre and bevel.
func TestCompoundAnglesFromSawTables(t *testing.T) {
	for _, c := range []struct {
		slope      float64
		n          int
		face, tilt float64
	}{{52, 4, 31.6, 33.9}, {45, 4, 35.3, 30.0}, {90, 4, 0, 45}, {38, 4, 38.2, 25.8}, {90, 6, 0, 30}, {90, 8, 0, 22.5},
		{0, 4, 45, 0}} {
		m, b := Compound(c.slope, c.n)
		assert.InDelta(t, c.face, m, .05, "%v", c)
		assert.InDelta(t, c.tilt, b, .05, "%v", c)
	}
}

// The angle between neighbouring faces, measured in space from the assembled
// bodies, must be twice the complement that the two tilts take up.
func TestTowerTiltFromItsOwnDihedral(t *testing.T) {
	for _, w := range []Tower{{6, 48 * inch, 20 * inch, 9 * inch, inch}, {4, 300, 200, 500, 10}, {3, 500, 400, 100, 12},
		{8, 900, 300, 300, 25}} {
		s, err := w.Lay()
		require.NoError(t, err)
		n := func(b Body) Vec { p := b.Faces[0].Points; return unit(cross(sub(p[1], p[0]), sub(p[3], p[0]))) }
		a, b := n(s.Bodies[0]), n(s.Bodies[1])
		between := math.Acos(a.X*b.X+a.Y*b.Y+a.Z*b.Z) * 180 / math.Pi
		assert.InDelta(t, between/2, s.Panels[0].Edges[1].Tilt, 1e-6)
		// each flat panel is congruent with its face in space
		f := s.Bodies[0].Faces[0].Points
		for i := range f {
			j := (i + 1) % 4
			v, o := sub(f[j], f[i]), s.Panels[0].Outline
			assert.InDelta(t, math.Sqrt(v.X*v.X+v.Y*v.Y+v.Z*v.Z), math.Hypot(o[j].X-o[i].X, o[j].Y-o[i].Y), 1e-6)
		}
	}
}

func cross(a, b Vec) Vec { return Vec{a.Y*b.Z - a.Z*b.Y, a.Z*b.X - a.X*b.Z, a.X*b.Y - a.Y*b.X} }

// Closed form: the walls of a tower fill the outer frustum less the inner one;
// a frustum is h/3 (A1 + A2 + sqrt(A1 A2)).
func TestTowerVolumeIsFrustumLessFrustum(t *testing.T) {
	w := Tower{6, 48 * inch, 20 * inch, 9 * inch, inch}
	s, err := w.Lay()
	require.NoError(t, err)
	slope := math.Atan2(w.H, (w.Bottom-w.Top)/2)
	area := func(apothem float64) float64 { return 6 * apothem * apothem * math.Tan(math.Pi/6) }
	frustum := func(b, t float64) float64 { return w.H / 3 * (area(b) + area(t) + math.Sqrt(area(b)*area(t))) }
	flat := w.T / math.Sin(slope)
	want := frustum(w.Bottom/2, w.Top/2) - frustum(w.Bottom/2-flat, w.Top/2-flat)
	assert.InEpsilon(t, want, 6*s.Panels[0].Volume(), 1e-9)
}

// Whatever the joint, the walls of a box fill outside less inside.
func TestBoxWallsFillTheSameVolume(t *testing.T) {
	for _, joint := range []string{"butt", "mitre", "rabbet"} {
		s, err := Box{
			W:        22 * inch,
			D:        18 * inch,
			H:        27.5 * inch,
			T:        inch,
			Joint:    joint,
			Bottom:   true,
			Lid:      true,
			Overhang: 2 * inch,
		}.Lay()
		require.NoError(t, err)
		v := 0.0 // under a lid of 1 in the walls are 26 1/2
		for _, p := range s.Panels[:4] {
			v += p.Volume()
		}
		assert.InEpsilon(t, (22*18-20*16)*26.5*inch*inch*inch, v, 1e-9, joint)
		assert.InDelta(t, 26*inch, s.Panels[5].Outline[1].X, 1e-9)
		assert.InDelta(t, 27.5*inch, s.Size.Z, 1e-9)
	}
	_, err := Box{W: 22 * inch, D: 18 * inch, H: inch, T: inch, Joint: "butt", Lid: true}.Lay()
	assert.ErrorContains(t, err, "no wall under a lid")
	// rabbet of half the thickness, worked by hand: 18 - 2 x (1 - 1/2) = 17
	s, _ := Box{W: 22 * inch, D: 18 * inch, H: 26.5 * inch, T: inch, Joint: "rabbet"}.Lay()
	assert.InDelta(t, 17*inch, s.Panels[2].Outline[1].X, 1e-9)
	assert.Equal(t, "rabbet", s.Panels[0].Edges[1].Joint)
}

// Closed forms: pi/4 d^2 t for the disc, and rings against their annulus.
func TestRounds(t *testing.T) {
	d, err := Disc{D: 900, T: 25, Copies: 2}.Lay()
	require.NoError(t, err)
	assert.InEpsilon(t, math.Pi/4*900*900*25, d.Panels[0].Volume(), 1e-12)
	r, err := Rings{Bottom: 500, Top: 500, H: 254, Wall: 50, T: 50.8}.Lay()
	require.NoError(t, err)
	require.Len(t, r.Panels, 1)
	assert.Equal(t, 5, r.Panels[0].Copies)
	assert.InEpsilon(t, math.Pi/4*(500*500-400*400)*50.8, r.Panels[0].Volume(), 1e-12)
	r, err = Rings{Bottom: 600, Top: 300, H: 300, Wall: 60, T: 25}.Lay()
	require.NoError(t, err)
	assert.Len(t, r.Panels, 12)
	for i := 1; i < 12; i++ {
		assert.Less(t, r.Panels[i].Bore, r.Panels[i-1].Round, "ring %d must rest on the one below", i)
	}
}

func TestNearStopGap(t *testing.T) {
	// Closed form at small angles: gap = 2 t/cos45 * delta.
	assert.InDelta(t, 2*25.4/math.Cos(math.Pi/4)*1.8*math.Pi/180, NearStopGap(25.4, 43.2, 45), .005)
	assert.Equal(t, 45.0, NearStop(43.2))
	assert.Zero(t, NearStopGap(25.4, 30, 30))
}

func TestPipesAndFlats(t *testing.T) {
	s, err := Pipes{Cuts: []Cut{{"leg", 44 * inch, 6}, {"rail", 60 * inch, 4}}, OD: 1.9 * inch}.Lay()
	require.NoError(t, err)
	assert.InDelta(t, (6*44+4*60)*inch, s.Results[0].Value, 1e-9)
	assert.InDelta(t, 60*inch, s.Size.Z, 1e-9)
	f, err := Flat{W: 900, H: 300, T: 12, Copies: 3, Lying: true, Pitch: 400}.Lay()
	require.NoError(t, err)
	assert.InDelta(t, 812, f.Size.Z, 1e-9)
}

func TestOpenings(t *testing.T) {
	box := Box{W: 560, D: 460, H: 670, T: 25, Joint: "butt"}
	handle := Opening{Name: "handle", Face: "front", Kind: "slot", W: 200, H: 40, Y: 500}
	s, err := pierced(box, handle)
	require.NoError(t, err)
	want := 560*670 - (160*40 + math.Pi*20*20)
	assert.InEpsilon(t, want, s.Panels[0].Area(), 1e-3)
	assert.Len(t, s.Bodies[0].Faces[0].Holes, 1)
	handle.W = 600
	_, err = pierced(box, handle)
	assert.ErrorContains(t, err, "runs over the edge of Front")
}

// Impossible sizes name the field and what would do.
func TestRefusals(t *testing.T) {
	for want, lay := range map[string]func() (*Shape, error){
		"width": Box{W: 10, D: 400, H: 400, T: 25, Joint: "butt"}.Lay,
		"depth": Box{W: 100, H: 400, T: 25, Joint: "butt"}.Lay,
		"joint": Box{W: 300, D: 400, H: 400, T: 25, Joint: "dovetail"}.Lay,
		"openings": func() (*Shape, error) {
			return pierced(Box{W: 300, D: 400, H: 400, T: 25, Joint: "butt"}, Opening{Name: "x", Face: "roof", Kind: "rect",
				W: 1, H: 1, Y: 5})
		},
		"top":       Tower{6, 400, 300, 40, 25}.Lay,
		"sides":     Tower{2, 400, 300, 40, 25}.Lay,
		"height":    Tower{4, 1e6, 300, 100, 25}.Lay,
		"wall":      Rings{Bottom: 100, Top: 100, H: 100, Wall: 50, T: 10}.Lay,
		"bore":      Disc{D: 100, Bore: 100, T: 10, Copies: 1}.Lay,
		"copies":    Disc{D: 100, T: 10, Copies: 0}.Lay,
		"lengths":   Pipes{}.Lay,
		"bottom":    Tower{4, 400, 20, 300, 25}.Lay,
		"thickness": Flat{W: 1, H: 1, T: math.NaN(), Copies: 1}.Lay,
	} {
		_, err := lay()
		var fe *measure.FieldError
		require.True(t, errors.As(err, &fe), want)
		assert.Equal(t, want, fe.Field)
		assert.NotEmpty(t, fe.Why)
	}
}

// volume of a closed body by the divergence theorem over its faces.
func volume(b Body) float64 {
	v := 0.0
	for _, f := range b.Faces {
		for i := 1; i+1 < len(f.Points); i++ {
			p, q, r := f.Points[0], f.Points[i], f.Points[i+1]
			c := cross(q, r)
			v += (p.X*c.X + p.Y*c.Y + p.Z*c.Z) / 6
		}
	}
	return v
}

// What stands assembled is what was cut: bodies by the divergence theorem
// against the flat parts' volume, for any sizes.
func TestAssembledVolumeIsCutVolume(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		l := func(name string, lo, hi float64) float64 { return rapid.Float64Range(lo, hi).Draw(t, name) }
		specs := []interface{ Lay() (*Shape, error) }{
			Tower{
				N:      rapid.IntRange(3, 12).Draw(t, "n"),
				H:      l("h", 200, 2000),
				Bottom: l("bottom", 200, 900),
				Top:    l("top", 200, 900),
				T:      l("t", 2, 20),
			},
			Box{
				W:        l("w", 200, 900),
				D:        l("d", 200, 900),
				H:        l("bh", 100, 900),
				T:        l("bt", 2, 50),
				Joint:    rapid.SampledFrom([]string{"butt", "mitre"}).Draw(t, "joint"),
				Bottom:   true,
				Lid:      rapid.Bool().Draw(t, "lid"),
				Overhang: l("over", 0, 50),
			},
			Flat{
				W:      l("fw", 10, 2000),
				H:      l("fh", 10, 2000),
				T:      l("ft", 1, 50),
				Copies: 2,
				Lying:  rapid.Bool().Draw(t, "lying"),
			},
		}
		for _, s := range specs {
			shape, err := s.Lay()
			require.NoError(t, err)
			cut, stood := 0.0, 0.0
			for _, p := range shape.Panels {
				cut += p.Volume() * float64(p.Copies)
			}
			for _, b := range shape.Bodies {
				v := volume(b)
				require.Greater(t, v, 0.0, "faces look outwards")
				stood += v
			}
			require.InEpsilon(t, cut, stood, 1e-9)
		}
	})
}

// Round bodies are drawn as 36 facets: their volume lies within 0.6 % of the
// exact one (a 36-gon has 0.9949 of its circle's area).
func TestRoundBodies(t *testing.T) {
	for _, d := range []Disc{{D: 600, T: 25, Copies: 2}, {D: 600, Bore: 300, T: 25, Copies: 1},
		{D: 600, T: 25, Copies: 2, Upright: true}} {
		s, err := d.Lay()
		require.NoError(t, err)
		v := 0.0
		for _, b := range s.Bodies {
			v += volume(b)
		}
		assert.InEpsilon(t, s.Panels[0].Volume()*float64(d.Copies), v, .006)
	}
	up, err := Disc{D: 600, T: 25, Copies: 2, Upright: true}.Lay()
	require.NoError(t, err)
	assert.InDelta(t, 600, up.Size.Z, 5)
	assert.InDelta(t, 25, up.Size.Y, .1)
}

// The room between two walls, and a lid's overhang, at their ends.
func TestBoxAtItsEnds(t *testing.T) {
	ok := func(b Box) bool { _, err := b.Lay(); return err == nil }
	assert.True(t, ok(Box{W: 50.1, D: 400, H: 400, T: 25, Joint: "butt"}))
	assert.False(t, ok(Box{W: 50, D: 400, H: 400, T: 25, Joint: "butt"}))
	assert.True(t, ok(Box{W: 400, D: 50.1, H: 400, T: 25, Joint: "butt"}))
	assert.False(t, ok(Box{W: 400, D: 50, H: 400, T: 25, Joint: "butt"}))
	assert.True(t, ok(Box{W: 400, D: 400, H: 400, T: 25, Joint: "butt", Lid: true, Overhang: 400}))
	assert.False(t, ok(Box{W: 400, D: 400, H: 400, T: 25, Joint: "butt", Lid: true, Overhang: 401}))
	assert.False(t, ok(Box{W: 400, D: 400, H: 400, T: 25, Joint: "butt", Lid: true, Overhang: -1}))
}

// A sound mesh has nothing to say; each fault is counted in its own words.
func TestMeshWords(t *testing.T) {
	assert.Equal(t, []string{"closed, every face looks outwards"}, MeshReport{Volume: 1}.Words())
	words := MeshReport{Open: 1}.Words()
	require.Len(t, words, 1)
	assert.Contains(t, words[0], "1 edges")
}

// A mesh whose faces lie on one another is said to be flat; a thin plate is none.
func TestAFlatMeshIsSaidToBeFlat(t *testing.T) {
	plate := func(t float64) Mesh { // a triangle of 1 m, t thick
		a, b, c := Vec{}, Vec{X: 1000}, Vec{Y: 1000}
		d, e, f := Vec{Z: t}, Vec{X: 1000, Z: t}, Vec{Y: 1000, Z: t}
		return Mesh{{a, c, b}, {d, e, f}, {a, b, e}, {a, e, d}, {b, c, f}, {b, f, e}, {c, a, d}, {c, d, f}}
	}
	flat := Mesh{{Vec{}, Vec{X: 9}, Vec{Y: 9}}, {Vec{}, Vec{Y: 9}, Vec{X: 9}}}.Report()
	assert.False(t, flat.Sound())
	assert.Equal(t, []string{"flat: it encloses no volume; give it a thickness"}, flat.Words())
	assert.False(t, plate(0.00005).Report().Sound())
	thin := plate(0.4).Report()
	assert.True(t, thin.Sound(), thin.Words())
	assert.InDelta(t, 0.4*500_000, thin.Volume, 1e-6)
}
