package pattern

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A half ball of 200 mm in two plies of 450 g mat at 30 % glass, worked by hand:
// face 2 pi r2 = 0.06283 m2; with an inch over the rim + pi/4 (0.2508^2 - 0.2^2) =
// 0.01799, 0.08082 m2; fibre 0.9 kg/m2, resin 2.1 kg/m2 and 15 % lost: 0.1952 kg,
// hardener at 2 % 3.9 g; cured 3 kg/m2 at 1425 kg/m3 is 2.1 mm and 0.1885 kg.
func TestLaminateByHand(t *testing.T) {
	l := Laminate{W: 200, H: 200, Deep: 100, Plies: 2, Fibre: .45, Glass: .3, Density: 1425, Hardener: .02, Pot: 900}
	s, err := l.Lay()
	require.NoError(t, err)
	got := map[string]float64{}
	for _, r := range s.Results {
		got[r.Key.What] = r.Value
	}
	assert.InDelta(t, .06283, got["face"], 1e-5)
	assert.InDelta(t, .08082*2*1.15, got["cloth"], 1e-4)
	assert.InDelta(t, .1952, got["resin"], 1e-4)
	assert.InDelta(t, .0039, got["hardener"], 1e-4)
	assert.InDelta(t, 3./1425*1000, got["thick"], 1e-9)
	assert.InDelta(t, .1885, got["mass"], 1e-4)
	assert.Equal(t, got["mass"], s.Mass)
	assert.Equal(t, 1., got["mixes"], "a sixth of a square metre in a quarter of an hour")
	assert.NotContains(t, got, "gel")
	assert.Equal(t, Vec{200, 100, 200}, s.Size)
	for _, f := range s.Bodies[0].Faces {
		for _, v := range f.Points {
			assert.LessOrEqual(t, math.Abs(v.X), 100+1e-9)
			assert.LessOrEqual(t, math.Abs(v.Y), 50+1e-9)
			assert.InDelta(t, 100, v.Z, 100+1e-9)
		}
	}

	// with a gel coat, 0.6 kg/m2; ten such shells' face takes more than one mix
	l.Gel, l.W, l.H, l.Deep = true, 1000, 1000, 500
	s, err = l.Lay()
	require.NoError(t, err)
	for _, r := range s.Results {
		got[r.Key.What] = r.Value
	}
	face := 2 * math.Pi * .25
	laid := face + math.Pi/4*(1.0508*1.0508-1)
	assert.InEpsilon(t, laid*.6*1.15, got["gel"], 1e-9)
	assert.InEpsilon(t, face*(3+.6), got["mass"], 1e-9)
	assert.Equal(t, math.Ceil(laid*2/.1/15), got["mixes"])

	for _, bad := range []Laminate{{W: 1, H: 1, Plies: 1}, {W: 9, H: 9, Deep: 9}, {W: 9, H: 9, Deep: 9, Plies: 13}} {
		_, err := bad.Lay()
		assert.Error(t, err)
	}
}

// Thomsen against the closed forms of a ball and of spheroids (as in any table of
// areas), and against a fine sum over a scalene one.
func TestHalfEllipsoid(t *testing.T) {
	assert.InEpsilon(t, 2*math.Pi, halfEllipsoid(1, 1, 1), 1e-9)
	oblate := func(a, c float64) float64 { // 2 pi a2 (1 + (1 - e2)/e artanh e) / 2
		e := math.Sqrt(1 - c*c/a/a)
		return math.Pi * a * a * (1 + (1-e*e)/e*math.Atanh(e))
	}
	for _, c := range []float64{.2, .5, .9} {
		assert.InEpsilon(t, oblate(1, c), halfEllipsoid(1, 1, c), .011)
	}
	const n = 400
	a, b, c := 3., 2., 1.
	sum := 0.
	for i := range n {
		for k := range n {
			th, ph := math.Pi/2*(float64(i)+.5)/n, 2*math.Pi*(float64(k)+.5)/n
			st, ct := math.Sincos(th)
			sp, cp := math.Sincos(ph)
			sum += st * math.Sqrt(b*b*c*c*st*st*cp*cp+a*a*c*c*st*st*sp*sp+a*a*b*b*ct*ct)
		}
	}
	assert.InEpsilon(t, sum*math.Pi/2/n*2*math.Pi/n, halfEllipsoid(a, b, c), .011)
}
