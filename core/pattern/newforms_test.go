package pattern

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// frustum's volume by Heron's mean: H/3 (A + sqrt(A B) + B) holds for similar
// ends; for any rectangles the prismatoid formula H/6 (A + 4 M + B) does.
func prismatoid(h, w0, d0, w1, d1 float64) float64 {
	return h / 6 * (w0*d0 + (w0+w1)*(d0+d1) + w1*d1)
}

// The faces of a hopper fill what lies between outside and inside: prismatoid
// formula. On a square its blade tilt is the tower's, from the crown-moulding tables.
func TestPyramidWallsFillTheirVolume(t *testing.T) {
	for _, p := range []Pyramid{{W: 600, D: 400, H: 500, TopW: 200, TopD: 150, T: 25},
		{W: 300, D: 300, H: 800, TopW: 120, TopD: 120, T: 12}, {W: 200, D: 300, H: 400, TopW: 500, TopD: 310, T: 25}} {
		s, err := p.Lay()
		require.NoError(t, err)
		fx := p.T * math.Hypot(p.H, (p.W-p.TopW)/2) / p.H
		fy := p.T * math.Hypot(p.H, (p.D-p.TopD)/2) / p.H
		want := prismatoid(
			p.H,
			p.W,
			p.D,
			p.TopW,
			p.TopD,
		) - prismatoid(
			p.H,
			p.W-2*fx,
			p.D-2*fy,
			p.TopW-2*fx,
			p.TopD-2*fy,
		)
		got := 0.0
		for _, q := range s.Panels {
			got += q.Volume() * float64(q.Copies)
		}
		assert.InEpsilon(t, want, got, 1e-9)
		assert.InEpsilon(t, want, enclosed(s.Bodies), 1e-9, "and so do the bodies in space")
	}
	square, err := Pyramid{W: 600, D: 600, H: 300 * math.Tan(52*math.Pi/180), T: 20}.Lay()
	require.NoError(t, err)
	assert.InDelta(t, 33.9, square.Panels[0].Edges[1].Tilt, .05, "s = 52, n = 4")
	tower, err := Tower{N: 4, H: 700, Bottom: 500, Top: 300, T: 20}.Lay()
	require.NoError(t, err)
	same, err := Pyramid{W: 500, D: 500, H: 700, TopW: 300, TopD: 300, T: 20}.Lay()
	require.NoError(t, err)
	assert.InDelta(t, tower.Panels[0].Edges[1].Tilt, same.Panels[0].Edges[1].Tilt, 1e-9)
	assert.InDelta(t, tower.Panels[0].CutAngle, same.Panels[0].CutAngle, 1e-9)
	for i, e := range tower.Panels[0].Edges {
		assert.InDelta(t, e.Tilt, same.Panels[0].Edges[i].Tilt, 1e-9, e.Name)
	}
	for i, q := range tower.Panels[0].Inside {
		assert.InDelta(t, q.X, same.Panels[0].Inside[i].X, 1e-9)
		assert.InDelta(t, q.Y, same.Panels[0].Inside[i].Y, 1e-9)
	}
	for field, p := range map[string]Pyramid{"top width": {W: 500, D: 500, H: 500, TopW: 100, T: 25},
		"height": {W: 500, D: 500, T: 25}, "width": {D: 5, H: 5, T: 1}} {
		_, err := p.Lay()
		assert.ErrorContains(t, err, field)
	}
	_, err = Pyramid{W: 500, D: 500, H: 500, TopW: 60, TopD: 60, T: 30}.Lay()
	assert.ErrorContains(t, err, "leave nothing inside")
}

// An arch of 1000 rising 200: R = (500^2 + 200^2) / 400 = 725; half its angle is
// asin(500/725). A half circle's sheet is pi (R - t/2); its end is half a disc.
func TestArch(t *testing.T) {
	s, err := Arch{Span: 1000, Rise: 200, Deep: 600, T: 6, Ends: true}.Lay()
	require.NoError(t, err)
	assert.InDelta(t, 725, s.Results[0].Value, 1e-9)
	long := 2 * math.Asin(500./725) * (725 - 3)
	assert.InDelta(t, long*600, s.Panels[0].Area(), 1e-6)
	ri, c := 719., 525. // under the sheet; the centre lies 525 below the floor
	phi := math.Acos(c / ri)
	assert.InEpsilon(t, ri*ri*(phi-math.Sin(phi)*math.Cos(phi)), s.Panels[1].Area(), 1e-3, "segment of a circle")
	assert.InDelta(t, 2*2*phi*ri, s.Lines[0].Length, 1e-6)
	assert.InEpsilon(
		t,
		2*s.Panels[1].Area()*6+math.Asin(500./725)*(725*725-719*719)*600,
		enclosed(s.Bodies),
		5e-3,
		"flat facets lie a little inside the arc",
	)

	half, err := Arch{Span: 800, Rise: 400, Deep: 100, T: 10, Kerf: 3.175, Skin: 2}.Lay()
	require.NoError(t, err)
	assert.InDelta(t, math.Pi*(400-1), half.Panels[0].Outline[1].X, 1e-9)
	assert.Len(t, half.Panels[0].Marks, int(math.Ceil(math.Pi*8/3.175)), "each kerf closes by kerf / (T - skin)")
	for field, a := range map[string]Arch{"rise": {Span: 800, Rise: 401, Deep: 100, T: 10},
		"skin": {Span: 800, Rise: 300, Deep: 100, T: 10, Kerf: 3, Skin: 11}, "span": {Rise: 300, Deep: 100, T: 10}} {
		_, err := a.Lay()
		assert.ErrorContains(t, err, field)
	}
	_, err = Arch{Span: 800, Rise: 5, Deep: 100, T: 10}.Lay()
	assert.ErrorContains(t, err, "leaves nothing under")
}

// The wheel's area against counting a fine grid of points on it, each judged by
// its radius and angle alone, not by the outline.
func TestWheelAgainstAGrid(t *testing.T) {
	for _, w := range []Wheel{{D: 600, Teeth: 12, Depth: 40, Bore: 50}, {D: 600, Bore: 40, Spokes: 5, Spoke: 40, Rim: 50,
		Hub: 140}, {D: 500, Teeth: 9, Depth: 30, Spokes: 4, Spoke: 30, Rim: 40, Hub: 120},
		{D: 400, Holes: 6, HoleD: 30, HoleCircle: 300}} {
		rings, err := w.Rings()
		require.NoError(t, err)
		area := Area(rings[0])
		for _, h := range rings[1:] {
			area -= Area(h)
		}
		on, n := 0, 0
		const step = 0.9
		for x := -w.D / 2; x < w.D/2; x += step {
			for y := -w.D / 2; y < w.D/2; y += step {
				n++
				if onWheel(w, x+step/2, y+step/2) {
					on++
				}
			}
		}
		assert.InEpsilon(t, float64(on)*step*step, area, 3e-3, "%+v", w)
	}
	for want, w := range map[string]Wheel{"bore": {D: 100, Bore: 100}, "spokes": {D: 600, Spokes: 5},
		"no window at the hub": {D: 600, Spokes: 40, Spoke: 40, Rim: 50, Hub: 100}, "teeth": {D: 600, Teeth: 2, Depth: 9},
		"holes": {D: 600, Holes: 3, HoleD: 50, HoleCircle: 560}, "run into each other": {D: 600, Bore: 100, Holes: 3,
			HoleD: 50, HoleCircle: 120}} {
		_, err := w.Rings()
		assert.ErrorContains(t, err, want)
	}
}

func onWheel(w Wheel, x, y float64) bool {
	r, a := math.Hypot(x, y), math.Mod(math.Atan2(y, x)-math.Pi/2+4*math.Pi, 2*math.Pi)
	root := w.D / 2
	if w.Teeth > 0 {
		root -= w.Depth
		step := 2 * math.Pi / float64(w.Teeth)
		off := math.Abs(math.Mod(a+step/2, step)-step/2) / step // from the nearest tooth's middle, in pitches
		if r > root {
			// a flank is a straight line from 0.3 of a pitch at the root to 0.2 at the tip
			x0, y0 := root*math.Cos(.3*step), root*math.Sin(.3*step)
			x1, y1 := w.D/2*math.Cos(.2*step), w.D/2*math.Sin(.2*step)
			px, py := r*math.Cos(off*step), r*math.Sin(off*step)
			if r > w.D/2 || (x1-x0)*(py-y0)-(y1-y0)*(px-x0) > 0 {
				return false
			}
			return true
		}
	}
	if r > root || r < w.Bore/2 {
		return false
	}
	if w.Spokes > 0 && r > w.Hub/2 && r < root-w.Rim {
		step := 2 * math.Pi / float64(w.Spokes)
		off := math.Abs(math.Mod(a+step/2, step) - step/2)
		return r*math.Sin(off) <= w.Spoke/2
	}
	for k := range w.Holes {
		sn, cs := math.Sincos(math.Pi/2 + 2*math.Pi*float64(k)/float64(w.Holes))
		if math.Hypot(x-w.HoleCircle/2*cs, y-w.HoleCircle/2*sn) < w.HoleD/2 {
			return false
		}
	}
	return true
}

// Bought things against closed forms: a sphere's surface and volume, a
// cylinder's, a tub's by Heron; what is weighed counts as weighed.
func TestBoughtThings(t *testing.T) {
	ball, err := Bought{Of: "ball", W: 200, H: 200, Wall: 2, Density: 1050}.Lay()
	require.NoError(t, err)
	assert.InEpsilon(t, math.Pi*200*200, ball.Outside, 2e-3)
	assert.InEpsilon(t, math.Pi*200*200*2e-9*1050, ball.Mass, 2e-3)
	assert.InEpsilon(t, math.Pi/6*8, ball.Results[1].Value, 2e-3, "litres")
	tub, err := Bought{Of: "tote", W: 600, D: 400, H: 300, Wall: 2, Density: 950}.Lay()
	require.NoError(t, err)
	w, d := 600*.85, 400*.85
	assert.InEpsilon(
		t,
		100*(600*400+w*d+math.Sqrt(600*400*w*d)),
		tub.Results[1].Value*1e6,
		1e-9,
		"similar ends: Heron's formula",
	)
	jar, err := Bought{Of: "jar", W: 100, H: 150, Wall: .3, Density: 1380, Mass: .05}.Lay()
	require.NoError(t, err)
	assert.Equal(t, .05, jar.Mass)
	assert.Greater(t, jar.Results[1].Value, math.Pi*.25*1.5*.82, "more than its straight part")
	assert.Less(t, jar.Results[1].Value, math.Pi*.25*1.5)
	row := jar.Row(24)
	assert.InDelta(t, 1.2, row.Mass, 1e-12)
	assert.InEpsilon(t, 24*jar.Outside, row.Outside, 1e-12)
	assert.Len(t, row.Bodies, 24)
	require.NoError(t, jar.Pierce([]Opening{{Name: "lamp", Face: "bottom", Kind: "round", W: 30, Y: 50}}))
	assert.Len(t, jar.Drilled, 1)
	assert.ErrorContains(
		t,
		jar.Pierce([]Opening{{Name: "lamp", Face: "lid", Kind: "round", W: 30, Y: 50}}),
		"choose side, top or bottom",
	)
	assert.ErrorContains(
		t,
		jar.Pierce([]Opening{{Name: "lamp", Face: "side", Kind: "round", W: 130, Y: 75}}),
		"runs over the edge",
	)
	for want, b := range map[string]Bought{"is no thing": {Of: "car", W: 9, H: 9, Wall: 1},
		"leaves nothing inside": {Of: "jar", W: 9, H: 9, Wall: 5}, "height": {Of: "jar", W: 9, Wall: 1},
		"weight": {Of: "jar", W: 9, H: 9, Wall: 1, Mass: 501}, "depth": {Of: "jar", W: 9, H: 9, D: -1, Wall: 1}} {
		_, err := b.Lay()
		assert.ErrorContains(t, err, want)
	}
	flat, err := Bought{Of: "skull", W: 160, D: 80, H: 200, Wall: 2, Density: 1050}.Lay()
	require.NoError(t, err)
	whole, err := Bought{Of: "skull", W: 160, H: 200, Wall: 2, Density: 1050}.Lay()
	require.NoError(t, err)
	assert.InEpsilon(t, whole.Results[1].Value/2, flat.Results[1].Value, 1e-9)
	assert.Less(t, flat.Mass, whole.Mass)
}

// A frame worked by hand: 36 x 24 x 72 in of 1 in pipe (1.315 in), take-off
// 11/16 in, three levels: rails 36 - 1.315 - 1.375 = 33.31 in and 21.31 in,
// posts (72 - 1.315) / 2 - 1.375 = 33.9675 in; 8 corners and 4 four-ways. The
// loaded rail, a simple beam: I = pi/64 (D^4 - d^4).
func TestFrameByHand(t *testing.T) {
	f := Frame{
		W:       36 * inch,
		D:       24 * inch,
		H:       72 * inch,
		Levels:  3,
		OD:      1.315 * inch,
		Bore:    1.049 * inch,
		TakeOff: 11. / 16 * inch,
		Load:    5,
	}
	s, err := f.Lay()
	require.NoError(t, err)
	want := []Cut{{"", 33.31 * inch, 6}, {"", 21.31 * inch, 6}, {"", 33.9675 * inch, 8}}
	for i, c := range s.Cuts {
		assert.InDelta(t, want[i].Length, c.Length, 1e-6)
		assert.Equal(t, want[i].Count, c.Count)
	}
	value := func(key string) float64 {
		for _, r := range s.Results {
			if r.Key.What == key {
				return r.Value
			}
		}
		return math.NaN()
	}
	assert.Equal(t, 12., value("fittings"))
	i := math.Pi / 64 * (math.Pow(1.315*.0254, 4) - math.Pow(1.049*.0254, 4))
	assert.InEpsilon(t, 5*9.80665*math.Pow(.9144, 3)/(48*2.8e9*i)*1000, value("sag"), 1e-9)
	assert.InEpsilon(t, 5*9.80665*.9144/4*(1.315*.0254/2)/i/1e6, value("stress"), 1e-9)
	assert.InDelta(t, f.W, extent(s.Bodies).X, .5)
	assert.InDelta(t, f.H, extent(s.Bodies).Z, 1e-9)
	f.Levels = 1
	s, err = f.Lay()
	require.NoError(t, err)
	assert.InDelta(t, (72-1.315/2-11./16)*inch, s.Cuts[2].Length, 1e-9)
	assert.Equal(t, 4, s.Cuts[2].Count)
	assert.Equal(t, 4., value("fittings"))
	assert.Equal(t, 17.5, TakeOff(1.315*inch))
	for want, f := range map[string]Frame{"width": {W: 60, D: 600, H: 600, Levels: 2, OD: 33, TakeOff: 17},
		"levels": {W: 600, D: 600, H: 600, OD: 33}, "load": {W: 600, D: 600, H: 600, Levels: 1, OD: 33, Load: 1001},
		"takeOff": {W: 600, D: 600, H: 600, Levels: 1, OD: 33, TakeOff: 201},
		"height":  {W: 600, D: 600, H: 90, Levels: 3, OD: 33, TakeOff: 17}} {
		_, err := f.Lay()
		assert.ErrorContains(t, err, want)
	}
}

// A cover by hand: round 18 in with 3 % ease and half-inch seams the strip is
// pi 18 x 1.03 + 1 = 59.25 in; 40 in high with a top, 40 + 1 + 1/2.
func TestSkinByHand(t *testing.T) {
	s, err := Skin{W: 18 * inch, H: 40 * inch, T: .4, Ease: .03, Seam: .5 * inch, Hem: inch, Top: true}.Lay()
	require.NoError(t, err)
	assert.InDelta(t, (math.Pi*18*1.03+1)*inch, s.Panels[0].Outline[1].X, 1e-9)
	assert.InDelta(t, 41.5*inch, s.Panels[0].Outline[2].Y, 1e-9)
	assert.InDelta(t, 19*inch, s.Panels[1].Round, 1e-9)
	assert.InDelta(t, (41.5+math.Pi*18)*inch, s.Results[1].Value, 1e-6)
	assert.InDelta(t, math.Pi*18*inch, s.Results[2].Value, 1e-6, "one hem, the top is sewn in")
	box, err := Skin{W: 300, D: 200, H: 500, T: 1, Hem: 20, Seam: 10}.Lay()
	require.NoError(t, err)
	assert.InDelta(t, 1020, box.Panels[0].Outline[1].X, 1e-9)
	assert.InDelta(t, 540, box.Panels[0].Outline[2].Y, 1e-9, "hemmed above as well")
	assert.InDelta(t, 2000, box.Results[2].Value, 1e-9)
	for want, k := range map[string]Skin{"seam": {W: 9, H: 9, T: 1, Seam: 10}, "depth": {W: 9, D: -1, H: 9, T: 1},
		"height": {W: 9, T: 1}} {
		_, err := k.Lay()
		assert.ErrorContains(t, err, want)
	}
}

// A ball of 200 with a skin of 10 takes pi/6 (200^3 - 180^3) = 1.135 L; its
// surface is the sphere's; a tenth spare in tubs of 1 L makes two.
func TestModelledBall(t *testing.T) {
	s, err := Modelled{W: 200, D: 200, H: 200, Skin: 10, Density: 250, Unit: 1}.Lay()
	require.NoError(t, err)
	litres := math.Pi / 6 * (8 - 5.832)
	assert.InDelta(t, litres, s.Results[0].Value, 1e-9)
	assert.InDelta(t, litres*.25, s.Mass, 1e-9)
	assert.Equal(t, 2., s.Results[2].Value)
	assert.InEpsilon(t, math.Pi*200*200, s.Outside, 1e-9)
	spheroid, err := Modelled{W: 200, D: 200, H: 400}.Lay() // prolate, closed form: 2 pi a^2 (1 + c / (a e) asin e)
	require.NoError(t, err)
	e := math.Sqrt(1 - .25)
	assert.InEpsilon(t, 2*math.Pi*1e4*(1+2/e*math.Asin(e)), spheroid.Outside, .011, "Thomsen's formula holds to 1.06 %")
	assert.InDelta(t, math.Pi/6*16, spheroid.Results[0].Value, 1e-9)
	_, err = Modelled{W: 200, D: 200, H: 200, Skin: 100}.Lay()
	assert.ErrorContains(t, err, "skin")
}

// Banding round 22 x 18 with strips of 5 mm: long ones W + 2 t, short ones D, or
// both 2 t longer with mitres; so many bands, so many strips.
func TestBandAndScales(t *testing.T) {
	s, err := Band{W: 22 * inch, D: 18 * inch, H: 2 * inch, T: 5, Copies: 3}.Lay()
	require.NoError(t, err)
	assert.InDelta(t, 22*inch+10, s.Panels[0].Outline[1].X, 1e-9)
	assert.InDelta(t, 18*inch, s.Panels[1].Outline[1].X, 1e-9)
	assert.Equal(t, 6, s.Panels[0].Copies)
	assert.Len(t, s.Bodies, 12)
	assert.InDelta(t, 22*inch+10, s.Size.X, 1e-9)
	assert.InDelta(t, 18*inch+10, s.Size.Y, 1e-9)
	mitred, err := Band{W: 500, D: 300, H: 50, T: 5, Mitred: true, Copies: 1}.Lay()
	require.NoError(t, err)
	assert.InDelta(t, 310, mitred.Panels[1].Outline[1].X, 1e-9)
	assert.Equal(t, 45., mitred.Panels[0].Edges[1].Tilt)
	scales, err := Scaling{W: 600, H: 900, Wide: 80, Tall: 100, Show: 60, T: 2}.Lay()
	require.NoError(t, err)
	rows := math.Ceil((900-100)/60.) + 1
	assert.Equal(t, rows, scales.Results[0].Value)
	assert.EqualValues(t, scales.Panels[0].Copies, scales.Results[1].Value)
	assert.Equal(t, 15*8, scales.Panels[0].Copies, "15 rows of 7.5, whole ones half a scale over")
	assert.InEpsilon(t, 80*60+math.Pi/2*40*40, scales.Panels[0].Area(), 1e-3, "straight above, half round below")
	assert.Len(t, scales.Bodies, scales.Panels[0].Copies)
	assert.InDelta(t, 600, extent(scales.Bodies).X, 1e-9, "trimmed at the sides")
}

// What stands in space of a tub is as large as the tub, by its own faces.
func TestATubStandsAsLargeAsItIs(t *testing.T) {
	tub, err := Bought{Of: "tote", W: 600, D: 400, H: 300, Wall: 2, Density: 950}.Lay()
	require.NoError(t, err)
	size := extent(tub.Bodies)
	assert.InDelta(t, 600, size.X, 1e-9)
	assert.InDelta(t, 400, size.Y, 1e-9)
	assert.InDelta(t, 300, size.Z, 1e-9)
	for _, of := range BoughtNames() {
		s, err := Bought{Of: of, W: 300, D: 200, H: 400, Wall: 2, Density: 950}.Lay()
		require.NoError(t, err)
		size := extent(s.Bodies)
		assert.InDelta(t, 300, size.X, 6, of)
		assert.InDelta(t, 200, size.Y, 6, of)
		assert.InDelta(t, 400, size.Z, 1e-6, of)
	}
}

// Hoops of 21 mm round a pole of 300 over 900 at 150: (900 - 21) / 150 = 5.86,
// so 6, each pi (300 + 21) long.
func TestHoops(t *testing.T) {
	s, err := Hoops{Pole: 300, H: 900, Pitch: 150, OD: 21}.Lay()
	require.NoError(t, err)
	require.Len(t, s.Cuts, 1)
	assert.Equal(t, 6, s.Cuts[0].Count)
	assert.InDelta(t, math.Pi*321, s.Cuts[0].Length, 1e-9)
	assert.Equal(t, Vec{342, 342, 5*150 + 21}, s.Size)
	assert.InDelta(t, s.Size.Z, extent(s.Bodies).Z, 1e-9)
	_, err = Hoops{Pole: 300, H: 900, Pitch: 20, OD: 21}.Lay()
	assert.ErrorContains(t, err, "overlap")
}

// A cube of 300 printed on a bed of 200: eight pieces, three cuts of 300 x 300
// glued; shells of 2 over its surface and the cuts, a fifth of the rest inside.
func TestPrintedCube(t *testing.T) {
	var m Mesh
	quad := func(a, b, c, d Vec) { m = append(m, Triangle{a, b, c}, Triangle{a, c, d}) }
	v := func(x, y, z float64) Vec { return Vec{x * 10, y * 10, z * 10} }
	quad(v(0, 0, 0), v(0, 1, 0), v(1, 1, 0), v(1, 0, 0))
	quad(v(0, 0, 1), v(1, 0, 1), v(1, 1, 1), v(0, 1, 1))
	quad(v(0, 0, 0), v(1, 0, 0), v(1, 0, 1), v(0, 0, 1))
	quad(v(1, 1, 0), v(0, 1, 0), v(0, 1, 1), v(1, 1, 1))
	quad(v(0, 1, 0), v(0, 0, 0), v(0, 0, 1), v(0, 1, 1))
	quad(v(1, 0, 0), v(1, 1, 0), v(1, 1, 1), v(1, 0, 1))
	p := Printed{Mesh: m, H: 300, Bed: [3]float64{200, 200, 200}, Wall: 2, Infill: .2, Density: 1240, Unit: .8}
	s, err := p.Lay()
	require.NoError(t, err)
	glued, shell := 3*300*300., (6*300*300+2*3*300*300)*2.
	plastic := shell + (27e6-shell)*.2
	assert.InEpsilon(t, plastic*1e-9*1240, s.Mass, 1e-6)
	assert.Equal(t, 8., s.Results[1].Value)
	assert.InEpsilon(t, glued/1e6, s.Results[2].Value, 1e-6)
	assert.InEpsilon(t, glued, s.Lines[0].Area(), 1e-6)
	assert.Equal(t, math.Ceil(1.1*plastic/1e6/.8), s.Results[3].Value)
	assert.InDelta(t, 300, s.Size.X, 1e-9)
	p.Bed = [3]float64{300, 300, 300}
	s, err = p.Lay()
	require.NoError(t, err)
	assert.Equal(t, 1., s.Results[1].Value)
	assert.Empty(t, s.Lines)
	p.Bed = [3]float64{30, 30, 30}
	_, err = p.Lay()
	assert.ErrorContains(t, err, "1000 pieces")
	p.Mesh = m[1:]
	p.Bed = [3]float64{300, 300, 300}
	_, err = p.Lay()
	assert.ErrorContains(t, err, "not closed")
}

// A body moved keeps that it has no edges to draw.
func TestMovedBodiesKeepTheirEdges(t *testing.T) {
	b := Body{
		Faces: []Face{{Points: []Vec{{}, {X: 1}, {Y: 1}}, Edges: [][]Vec{}}, {Points: []Vec{{}, {X: 1}, {Y: 1}}}},
	}.At(Vec{X: 5})
	assert.NotNil(t, b.Faces[0].Edges)
	assert.Nil(t, b.Faces[1].Edges)
	assert.Equal(t, 5., b.Faces[0].Points[0].X)
}

// The stop in a fitting lies deeper the thicker the pipe (outside diameters of ASTM
// D1785, schedule 40), and about two fifths to two thirds of the pipe from its middle.
func TestTakeOffsGrowWithThePipe(t *testing.T) {
	last := 0.
	for _, od := range []float64{.840, 1.050, 1.315, 1.660, 1.900, 2.375, 2.875, 3.5, 4.5} {
		stop := TakeOff(od * inch)
		assert.Greater(t, stop, last, "%g in", od)
		assert.InDelta(t, .53, stop/od/inch, .1, "%g in", od)
		last = stop
	}
}
