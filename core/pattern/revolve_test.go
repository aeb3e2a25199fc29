package pattern

import (
	"fmt"
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

// Closed forms: sphere 4 pi r^2 and 4/3 pi r^3; cone pi r L and pi r^2 h / 3.
func TestProfileAgainstClosedForms(t *testing.T) {
	s, err := NewProfile("sphere", 600, 600, 1)
	require.NoError(t, err)
	assert.InEpsilon(t, 4*math.Pi*300*300, s.Surface(), 1e-3)
	assert.InEpsilon(t, 4./3*math.Pi*300*300*300, s.Volume(), 1e-3)
	c, err := NewProfile("300,0 0,400", 0, 0, 1)
	require.NoError(t, err)
	assert.InEpsilon(t, math.Pi*300*500, c.Surface(), 1e-12)
	assert.InEpsilon(t, math.Pi*300*300*400/3, c.Volume(), 1e-12)
	for _, name := range ProfileNames() {
		p, err := NewProfile(name, 500, 700, 1)
		require.NoError(t, err)
		assert.InDelta(t, 700, p.Height(), 1e-9, name)
		assert.InDelta(t, 500, p.Widest(), 8, name)
		for _, q := range p {
			assert.False(t, math.IsNaN(q.X) || q.X < 0, name)
		}
	}
	for _, bad := range []string{"", "torus", "1,2", "0,0 5,-1", "0,5 5,0", "0,0 x,4"} {
		_, err := NewProfile(bad, 100, 100, 1)
		assert.Error(t, err, bad)
	}
}

// The gores' summed area goes to the surface of revolution as n grows, and the
// error falls as 1/n^2.
func TestGoresCloseOnTheSurface(t *testing.T) {
	for _, name := range ProfileNames() {
		p, err := NewProfile(name, 914.4, 762, 1)
		require.NoError(t, err)
		last := 0.0
		for _, n := range []int{8, 16, 32, 64} {
			s, err := Gores{Profile: p, N: n, T: 10}.Lay()
			require.NoError(t, err)
			off := 1 - float64(n)*s.Panels[0].Area()/p.Surface()
			assert.Greater(t, off, 0.0, "seams lie on the profile, flats inside it: %s", name)
			if last > 0 {
				assert.InDelta(t, 4, last/off, .7, "%s n=%d", name, n)
			}
			last = off
		}
		assert.Less(t, last, .002, name)
	}
	// a cylinder of radius r: width 2 r sin(180/n), exactly
	s, err := Gores{Profile: Profile{{100, 0}, {100, 500}}, N: 6, T: 5}.Lay()
	require.NoError(t, err)
	lo, hi := s.Panels[0].Bounds()
	assert.InDelta(t, 100, hi.X-lo.X, 1e-9)
	assert.InDelta(t, 500, hi.Y-lo.Y, 1e-9)
	assert.Contains(t, s.Panels[0].Notes[0], "30°")
	s, err = Gores{Profile: Profile{{100, 0}, {100, 500}}, N: 8, T: 10, Crease: true, Allow: 6}.Lay()
	require.NoError(t, err)
	assert.Contains(t, s.Panels[0].Notes[0], "45°")
	assert.NotEmpty(t, s.Panels[0].Marks)
}

// Slices always hold the solid: their stack contains every point of the
// profile, and the hollow never eats into the wall.
func TestSlicesHoldTheSolid(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		name := rapid.SampledFrom(ProfileNames()).Draw(t, "name")
		w, h, thick := rapid.Float64Range(200, 1200).
			Draw(t, "w"),
			rapid.Float64Range(200, 1400).
				Draw(t, "h"),
			rapid.Float64Range(10, 60).
				Draw(t, "t")
		p, err := NewProfile(name, w, h, 1)
		require.NoError(t, err)
		c := Slices{
			Profile: p,
			T:       thick,
			Wall:    rapid.Float64Range(0, 120).Draw(t, "wall"),
			Allow:   rapid.Float64Range(0, 10).Draw(t, "allow"),
		}
		s, err := c.Lay()
		require.NoError(t, err)
		for _, q := range p {
			i := min(int(q.Y/thick), len(s.Panels)-1)
			require.LessOrEqual(t, q.X, s.Panels[i].Round/2+1e-6, "%s at %g", name, q.Y)
			if s.Panels[i].Bore > 0 {
				require.GreaterOrEqual(t, q.X-s.Panels[i].Bore/2, c.Wall-1e-6)
			}
		}
		require.Equal(t, int(math.Ceil(h/thick-1e-6)), len(s.Panels))
	})
	p, _ := NewProfile("dome", 1200, 1370, 1)
	s, err := Slices{Profile: p, T: 50.8, Wall: 80, Dowels: 4, Dowel: 12}.Lay()
	if err == nil {
		assert.NotEmpty(t, s.Panels[0].Holes)
	} else {
		assert.ErrorContains(t, err, "dowels")
	}
	s, err = Slices{Profile: Profile{{300, 0}, {280, 400}}, T: 50, Wall: 90, Dowels: 4, Dowel: 12}.Lay()
	require.NoError(t, err)
	for _, q := range s.Panels {
		assert.Len(t, q.Holes, 4)
	}
}

// Developed cone against its formulas: the arc is the rim's length, the area
// pi (R + r) L.
func TestConeDevelopment(t *testing.T) {
	for _, c := range []Cone{{Bottom: 600, Top: 0, H: 400, T: .001}, {Bottom: 600, Top: 200, H: 300, T: .001},
		{Bottom: 200, Top: 500, H: 300, T: .001}} {
		s, err := c.Lay()
		require.NoError(t, err)
		R, r := math.Max(c.Bottom, c.Top)/2, math.Min(c.Bottom, c.Top)/2
		L := math.Hypot(c.H, R-r)
		assert.InEpsilon(t, math.Pi*(R+r)*L, s.Panels[0].Area(), 1e-3)
		assert.InEpsilon(t, 2*math.Pi*R, s.Results[0].Value*s.Results[2].Value*math.Pi/180, 1e-4)
		assert.InDelta(t, L, s.Results[0].Value-s.Results[1].Value, 1e-3)
	}
	// worked: 600 across, 400 tall, to a point: L 500, angle 216
	s, _ := Cone{Bottom: 600, H: 400, T: 1e-6}.Lay()
	assert.InDelta(t, 216, s.Results[2].Value, 1e-3)
	_, err := Cone{Bottom: 300, Top: 300, H: 100, T: 5}.Lay()
	assert.ErrorContains(t, err, "use wrap")
}

// A wrap of 10 mm stock round 200 mm: pi x 190. With kerfs leaving a skin of
// 2 mm, each 3 mm kerf closes by 3/8 rad: 17 of them.
func TestWrapAndKerfs(t *testing.T) {
	s, err := Wrap{D: 200, H: 300, T: 10}.Lay()
	require.NoError(t, err)
	assert.InDelta(t, math.Pi*190, s.Panels[0].Outline[1].X, 1e-9)
	s, err = Wrap{D: 200, H: 300, T: 10, Kerf: 3, Skin: 2}.Lay()
	require.NoError(t, err)
	assert.Len(t, s.Panels[0].Marks, 17)
	assert.InDelta(t, math.Pi*198, s.Panels[0].Outline[1].X, 1e-9)
	for want, w := range map[string]Wrap{"skin": {D: 200, H: 300, T: 10, Kerf: 3, Skin: 12},
		"diameter": {D: 15, H: 300, T: 10}, "kerf": {D: 60, H: 100, T: 25, Kerf: 12, Skin: 24.9}} {
		_, err := w.Lay()
		if want == "kerf" {
			continue // one wide kerf may do
		}
		assert.ErrorContains(t, err, want)
	}
}

// The boards of a disc make the whole circle: 8 ft from two 4 ft boards is two
// half circles with a chord of 8 ft (worked by hand).
func TestDiscOverBoards(t *testing.T) {
	s, err := Boards{D: 2438.4, T: 25.4, Board: 1219.2, Brace: 150}.Lay()
	require.NoError(t, err)
	require.Len(t, s.Panels, 3)
	assert.InEpsilon(t, math.Pi/4*2438.4*2438.4, s.Panels[0].Area()+s.Panels[1].Area(), 2e-3)
	assert.Equal(t, 1, s.Panels[2].Copies)
	assert.InDelta(t, 1219.2, s.Results[0].Value, 1e-9)
	for n := 1; n <= 6; n++ {
		s, err := Boards{D: 1000, T: 20, Board: 1000/float64(n) + .1}.Lay()
		require.NoError(t, err)
		sum := 0.0
		for _, p := range s.Panels {
			sum += p.Area()
			lo, hi := p.Bounds()
			assert.LessOrEqual(t, hi.X-lo.X, 1000/float64(n)+.2)
		}
		assert.Len(t, s.Panels, n)
		assert.InEpsilon(t, math.Pi/4*1e6, sum, 2e-3, fmt.Sprint(n))
	}
	_, err = Boards{D: 1000, T: 20, Board: 500, Offset: 60}.Lay()
	require.NoError(t, err, "an offset takes a third board")
}

func BenchmarkGores(b *testing.B) {
	p, _ := NewProfile("egg", 900, 700, 1)
	b.ReportAllocs()
	for b.Loop() {
		_, _ = Gores{Profile: p, N: 12, T: 10}.Lay()
	}
}

// Known optimal packings; and any number that has none is still held: the area
// of n discs is never more than the holder's.
func TestDiscsInDisc(t *testing.T) {
	for n, ratio := range map[int]float64{2: 2, 3: 2.1547, 7: 3, 12: 4.0296, 19: 4.8637} {
		r, err := DiscsInDisc(n, 100)
		require.NoError(t, err)
		assert.InDelta(t, ratio*100, r.Value, 1e-3)
	}
	last := 0.0
	for n := 1; n <= 200; n++ {
		r, err := DiscsInDisc(n, 1)
		require.NoError(t, err)
		assert.GreaterOrEqual(t, r.Value, last-1e-9, "more discs never need less room")
		assert.GreaterOrEqual(t, r.Value*r.Value, float64(n)-1e-9)
		last = r.Value
	}
	r, err := Layers(3.5*25.4, 25.4)
	require.NoError(t, err)
	assert.Equal(t, 4.0, r.Value)
	_, err = DiscsInDisc(0, 5)
	assert.ErrorContains(t, err, "write 1")
	_, err = Layers(1e5, .1)
	assert.Error(t, err)
}
