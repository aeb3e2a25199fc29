package nest

import (
	"math"
	"math/rand/v2"
	"testing"

	"zapbarn/core/pattern"

	"github.com/stretchr/testify/assert"
)

// Two parts clash when less than the kerf is between them: boxes side by side
// and one over the other, as they lie and turned, just at it and just under.
func TestClashOfBoxes(t *testing.T) {
	a, b := Part{W: 100, H: 40}, Part{W: 60, H: 30}
	at := func(x, y float64, turned bool) Placed { return Placed{X: x, Y: y, Turned: turned} }
	for _, c := range []struct {
		a, b  Placed
		clash bool
	}{
		{at(0, 0, false), at(103, 0, false), false}, {at(0, 0, false), at(102.9, 0, false), true},
		{at(63, 0, false), at(0, 0, false), false}, {at(62.9, 0, false), at(0, 0, false), true},
		{at(0, 0, false), at(0, 43, false), false}, {at(0, 0, false), at(0, 42.9, false), true},
		{at(0, 33, false), at(0, 0, false), false}, {at(0, 32.9, false), at(0, 0, false), true},
		{at(0, 0, true), at(43, 0, false), false}, {at(0, 0, true), at(42.9, 0, false), true},
		{at(33, 0, false), at(0, 0, true), false}, {at(32.9, 0, false), at(0, 0, true), true},
		{at(0, 0, false), at(10, 5, false), true}, // one in the other
	} {
		assert.Equal(t, c.clash, Clash(a, b, c.a, c.b, 3), "%+v", c)
	}
}

// Circles by the distance of their middles (closed form), also one in another's
// bore; outlines by their true form, not their box.
func TestClashOfRounds(t *testing.T) {
	ring := func(d, bore float64) Part {
		p := Part{W: d, H: d, Round: d, Bore: bore, Polys: [][]pattern.Point{pattern.Circle(d/2, d/2, d)}}
		if bore > 0 {
			p.Holes = [][]pattern.Point{pattern.Circle(d/2, d/2, bore)}
		}
		return p
	}
	big, small := ring(200, 120), ring(80, 0)
	place := func(dx, dy float64) Placed { return Placed{X: 100 + dx - 40, Y: 100 + dy - 40} }
	d := 140 + 3.0 // touching, with the kerf
	for _, angle := range []float64{0, .4, 1.1, 2, 3} {
		sn, cs := math.Sincos(angle)
		assert.False(t, Clash(big, small, Placed{}, place(d*cs, d*sn), 3), angle)
		assert.True(t, Clash(big, small, Placed{}, place((d-.1)*cs, (d-.1)*sn), 3), angle)
		in := 60.0 - 40 - 3 // off the middle of the bore
		assert.False(t, Clash(big, small, Placed{}, place(in*cs, in*sn), 3), angle)
		assert.False(t, Clash(small, big, place(in*cs, in*sn), Placed{}, 3), angle)
		assert.True(t, Clash(big, small, Placed{}, place((in+.1)*cs, (in+.1)*sn), 3), angle)
	}
	half := []pattern.Point{{X: 0, Y: 0}, {X: 100, Y: 0}, {X: 0, Y: 100}}
	other := []pattern.Point{{X: 100, Y: 100}, {X: 0, Y: 100}, {X: 100, Y: 0}}
	a, b := Part{W: 100, H: 100, Polys: [][]pattern.Point{half}}, Part{W: 100, H: 100, Polys: [][]pattern.Point{other}}
	off := 3 / math.Sqrt2 // along both axes: 3 mm apart across the slope
	assert.False(t, Clash(a, b, Placed{}, Placed{X: off + .01, Y: off + .01}, 3))
	assert.True(t, Clash(a, b, Placed{}, Placed{X: off - .1, Y: off - .1}, 3))
}

// The distance of two segments against many points tried on both.
func TestApartAgainstBruteForce(t *testing.T) {
	r := rand.New(rand.NewPCG(3, 9))
	for range 200 {
		p := func() pattern.Point { return pattern.Point{X: float64(r.IntN(20)), Y: float64(r.IntN(20))} }
		a, b, u, v := p(), p(), p(), p()
		on := func(a, b pattern.Point, k int) pattern.Point {
			t := float64(k) / 200
			return pattern.Point{X: a.X + t*(b.X-a.X), Y: a.Y + t*(b.Y-a.Y)}
		}
		least := math.Inf(1)
		for i := range 201 {
			for k := range 201 {
				x, y := on(a, b, i), on(u, v, k)
				least = math.Min(least, (x.X-y.X)*(x.X-y.X)+(x.Y-y.Y)*(x.Y-y.Y))
			}
		}
		got := apart2(a, b, u, v)
		if got < 0 { // they cross
			assert.Less(t, least, .01)
			continue
		}
		assert.InDelta(t, math.Sqrt(least), math.Sqrt(got), .1, "%v %v %v %v", a, b, u, v)
		assert.LessOrEqual(t, got, least+1e-9)
	}
}

// First fit leaves a kerf behind each piece: two of 50 in 100 do not pair.
func TestFirstFitKeepsTheKerf(t *testing.T) {
	assert.Len(t, firstFit([]float64{50, 50}, 100, 5), 2)
	assert.Len(t, firstFit([]float64{50, 45}, 105, 5), 1) // 50 + 5 + 45 + 5: just
	assert.Len(t, firstFit([]float64{50, 45.1}, 105, 5), 2)
}
