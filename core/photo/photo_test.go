package photo

import (
	"image"
	"image/color"
	"math"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

// camera is a pinhole camera that looks at the plane z = 0 from somewhere: the
// closed form that squaring must undo.
func camera(yaw, pitch, dist, f float64) func(x, y float64) Spot {
	sy, cy := math.Sincos(yaw)
	sp, cp := math.Sincos(pitch)
	return func(x, y float64) Spot {
		// turn the plane about its Y, then its X axis, and move it away
		x1, z1 := x*cy, -x*sy
		y1, z2 := y*cp-z1*sp, y*sp+z1*cp
		z := dist + z2
		return Spot{600 + f*x1/z, 400 - f*y1/z}
	}
}

func TestSquaringUndoesACamera(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		cam := camera(
			rapid.Float64Range(-.9, .9).Draw(t, "yaw"),
			rapid.Float64Range(-.7, .7).Draw(t, "pitch"),
			5000,
			1500,
		)
		w, h := rapid.Float64Range(300, 1200).Draw(t, "w"), rapid.Float64Range(300, 1200).Draw(t, "h")
		p, err := BySquare([4]Spot{cam(0, 0), cam(w, 0), cam(w, h), cam(0, h)}, w, h)
		require.NoError(t, err)
		x1, y1 := rapid.Float64Range(-900, 1500).Draw(t, "x1"), rapid.Float64Range(-900, 1500).Draw(t, "y1")
		x2, y2 := rapid.Float64Range(-900, 1500).Draw(t, "x2"), rapid.Float64Range(-900, 1500).Draw(t, "y2")
		require.InDelta(
			t,
			math.Hypot(x2-x1, y2-y1),
			p.Between(cam(x1, y1), cam(x2, y2)),
			1e-4,
			"any length in the plane, not only the rectangle's",
		)
		s := p.Spot(x1, y1)
		require.InDelta(t, cam(x1, y1).X, s.X, 1e-5)
		require.InDelta(t, cam(x1, y1).Y, s.Y, 1e-5)
	})
}

func TestOneKnownLine(t *testing.T) {
	p, err := ByLine(Spot{100, 500}, Spot{100, 200}, 1800, false)
	require.NoError(t, err)
	require.InDelta(t, 600, p.Between(Spot{0, 0}, Spot{100, 0}), 1e-9)
	x, y := p.MM(Spot{200, 400})
	require.InDelta(t, 600, x, 1e-9)
	require.InDelta(t, 600, y, 1e-9, "up is up")
	// a leaning picture is levelled: the line stands upright
	lean, err := ByLine(Spot{100, 500}, Spot{160, 420}, 1000, true)
	require.NoError(t, err)
	x, y = lean.MM(Spot{160, 420})
	require.InDelta(t, 0, x, 1e-9)
	require.InDelta(t, 1000, y, 1e-9)
	require.InDelta(t, 1000, lean.Between(Spot{100, 500}, Spot{180, 560}), 1e-9, "lengths across it are true as well")
}

func TestWhatCannotBeSquared(t *testing.T) {
	_, err := ByLine(Spot{1, 1}, Spot{2, 2}, 100, false)
	require.ErrorContains(t, err, "further apart")
	_, err = ByLine(Spot{1, 1}, Spot{200, 2}, 0, false)
	require.ErrorContains(t, err, "how long")
	_, err = BySquare([4]Spot{{0, 0}, {100, 0}, {100, 100}, {0, 100}}, 10, 10)
	require.ErrorContains(t, err, "lower left first")
	_, err = BySquare([4]Spot{{0, 100}, {100, 100}, {50, 50}, {100, 0}}, 10, 10)
	require.ErrorContains(t, err, "not the corners")
	_, err = BySquare([4]Spot{{0, 100}, {100, 100}, {100, 0}, {0, 0}}, 0, 10)
	require.ErrorContains(t, err, "no size")
}

// A chequered board photographed at a slant comes out chequered.
func TestSquaredPictureIsTheBoard(t *testing.T) {
	cam := camera(.6, -.4, 3000, 1500)
	img := image.NewRGBA(image.Rect(0, 0, 1200, 800))
	w, h := 1000.0, 800.0
	p, err := BySquare([4]Spot{cam(0, 0), cam(w, 0), cam(w, h), cam(0, h)}, w, h)
	require.NoError(t, err)
	black := func(x, y float64) bool {
		return (int(math.Floor(x/100))+int(math.Floor(y/100)))%2 == 0
	}
	for y := range 800 {
		for x := range 1200 {
			mx, my := p.MM(Spot{float64(x) + .5, float64(y) + .5})
			c := color.RGBA{255, 255, 255, 255}
			if mx >= 0 && my >= 0 && mx < w && my < h && black(mx, my) {
				c = color.RGBA{0, 0, 0, 255}
			}
			img.SetRGBA(x, y, c)
		}
	}
	v := p.Frame(1200, 800, 900)
	require.LessOrEqual(t, v.W, 901)
	out := p.Squared(img, v)
	for i := range 10 {
		for k := range 8 {
			mx, my := float64(i)*100+50, float64(k)*100+50
			x, y := int((mx-v.X)/v.PerPixel), v.H-1-int((my-v.Y)/v.PerPixel)
			require.Equal(t, black(mx, my), out.RGBAAt(x, y).R < 128, "field %d %d", i, k)
		}
	}
}
