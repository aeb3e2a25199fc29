package yard

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"
)

// Inverse square and the cone's solid angle: one candela all round is 4 pi lm, the candle
// of the inverse square law; half a sphere takes twice as much from the same lumens.
func TestCandela(t *testing.T) {
	assert.InDelta(t, 1, Candela(4*math.Pi, 2*math.Pi), 1e-12, "one candle is 12.57 lm (by definition of the candela)")
	assert.InDelta(t, 100/(2*math.Pi), Candela(100, math.Pi), 1e-9, "half a sphere: lm / 2 pi")
	assert.InDelta(t, 50/(2*math.Pi*(1-math.Cos(15*math.Pi/180))), Candela(50, 30*math.Pi/180), 1e-9)
}

func TestLuxByHand(t *testing.T) {
	down := Lamp{Spot: Spot{Pt{0, 0}, 2}, Lumens: 4 * math.Pi, Beam: 2 * math.Pi}
	assert.InDelta(t, 0.25, Ground([]Lamp{down}, Pt{0, 0}, nil), 1e-12, "1 cd at 2 m: 1 / 4 lx (inverse square)")
	assert.InDelta(t, 2/math.Pow(8, 1.5), Ground([]Lamp{down}, Pt{2, 0}, nil), 1e-12, "E = I h / d3, d2 = 8 (cosine law)")
	assert.InDelta(t, 0.25, Upright([]Lamp{down}, Spot{Pt{2, 0}, 2}, Pt{-1, 0}, nil), 1e-12)
	assert.Zero(t, Upright([]Lamp{down}, Spot{Pt{2, 0}, 2}, Pt{1, 0}, nil), "its back")
	assert.Zero(t, Ground([]Lamp{down}, Pt{2, 0}, []Wall{{A: Pt{1, -1}, B: Pt{1, 1}, High: 1.5}}), "in a wall's shadow")
	assert.Positive(t, Ground([]Lamp{down}, Pt{2, 0}, []Wall{{A: Pt{1, -1}, B: Pt{1, 1}, High: 0.9}}),
		"over a wall of 0.9 m: the line passes it at 1 m")
	spot := Lamp{Spot: Spot{Pt{0, 0}, 2}, Lumens: 100, Beam: 20 * math.Pi / 180, Tilt: math.Pi / 2}
	assert.Positive(t, Ground([]Lamp{spot}, Pt{0.3, 0}, nil))
	assert.Zero(t, Ground([]Lamp{spot}, Pt{0.4, 0}, nil), "2 tan 10 degrees is 0.353 m")
}

// A wall hides what is lower than the line over its top, by similar triangles.
func TestOverAWall(t *testing.T) {
	wall := []Wall{{A: Pt{5, -3}, B: Pt{5, 3}, High: 1.2}}
	eye := Spot{Pt{0, 0}, 1.6}
	for z, hidden := range map[float64]bool{0.79: true, 0.81: false} { // 1.6 - (1.6 - 1.2) x 10 / 5 = 0.8
		assert.Equal(t, hidden, Blocked(eye, Spot{Pt{10, 0}, z}, wall, ""), "%v m", z)
	}
	assert.False(t, Blocked(eye, Spot{Pt{10, 0}, 0.1}, wall[:0], ""))
	own := []Wall{{A: Pt{5, -3}, B: Pt{5, 3}, High: 1.2, Of: "a"}}
	assert.False(t, Blocked(eye, Spot{Pt{10, 0}, 0.1}, own, "a"), "its own does not count")
	assert.True(t, Faces(Pt{}, Pt{1, 0}, Pt{1, 1.7}, Field), "59.5 degrees aside")
	assert.False(t, Faces(Pt{}, Pt{1, 0}, Pt{1, 1.75}, Field), "60.3 degrees aside")
	p := Path{Through: []Pt{{0, 0}, {10, 0}}}
	s := Seen(p, AdultEye, 2*math.Pi, Spot{Pt{5, 4}, 1}, []Wall{{A: Pt{4, 2}, B: Pt{6, 2}, High: 3}}, "", 1000)
	assert.Len(t, s, 2)
	assert.InDelta(t, 3, s[0].To, 0.02, "a screen half way hides twice its width")
	assert.InDelta(t, 7, s[1].From, 0.02)
	assert.InDelta(t, 6, Total(s, 0), 0.05)
}

// drawn is a yard of walls and a line of sight.
func drawn(t *rapid.T) (eye, at Spot, walls []Wall) {
	num := func(n string, lo, hi float64) float64 { // to a centimetre
		return float64(rapid.IntRange(int(lo*100), int(hi*100)).Draw(t, n)) / 100
	}
	pt := func(n string) Pt { return Pt{num(n, -10, 10), num(n, -10, 10)} }
	eye, at = Spot{pt("eye"), num("z", 0.5, 2)}, Spot{pt("at"), num("z", 0, 3)}
	for range rapid.IntRange(0, 5).Draw(t, "walls") {
		w := Wall{A: pt("a").Plus(Pt{.0031, .0017}), B: pt("b").Plus(Pt{.0023, .0041}), High: num("high", 0, 3)}
		if w.B.Sub(w.A).Len() > 0.05 {
			walls = append(walls, w)
		}
	}
	return eye, at, walls
}

// Sight against brute force: small steps along the line, each asked on which side of each
// wall it lies.
func TestSightByBruteForce(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		eye, at, walls := drawn(t)
		const steps = 4000
		hit, close := false, false
		for _, w := range walls {
			side := func(p Pt) float64 { return cross(w.B.Sub(w.A), p.Sub(w.A)) }
			was := side(eye.Pt)
			close = close || w.B.Sub(w.A).Len() < 0.1 || math.Abs(was) < 0.05 || math.Abs(side(at.Pt)) < 0.05
			for k := 1; k <= steps; k++ {
				f := float64(k) / steps
				p := eye.Pt.Plus(at.Sub(eye.Pt).Times(f))
				now := side(p)
				if was*now <= 0 {
					along := p.Sub(w.A).Dot(w.B.Sub(w.A)) / math.Max(1e-12, w.B.Sub(w.A).Dot(w.B.Sub(w.A)))
					z := eye.Z + f*(at.Z-eye.Z)
					close = close || math.Abs(z-w.High) < 0.01 || math.Abs(along) < 0.01 || math.Abs(along-1) < 0.01 ||
						k < 3 || k > steps-3
					hit = hit || along >= 0 && along <= 1 && z < w.High
				}
				was = now
			}
		}
		if close {
			t.Skip("at an edge")
		}
		if Blocked(eye, at, walls, "") != hit {
			t.Fatalf("blocked is %v, steps say %v: %v %v %v", !hit, hit, eye, at, walls)
		}
	})
}

// Turning or moving the whole yard changes nothing; a taller wall never shows more.
func TestTheYardMayTurn(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		eye, at, walls := drawn(t)
		by, off := rapid.Float64Range(0, 6).Draw(t, "by"), Pt{rapid.Float64Range(-50, 50).Draw(t, "off"), 3}
		go2 := func(p Pt) Pt { return p.turned(by).Plus(off) }
		var other, taller []Wall
		for _, w := range walls {
			other = append(other, Wall{go2(w.A), go2(w.B), w.High, w.Of})
			taller = append(taller, Wall{w.A, w.B, w.High + 0.5, w.Of})
		}
		was := Blocked(eye, at, walls, "")
		sure := true // not just along an edge
		for _, d := range []Spot{{Pt{1e-6, 0}, 0}, {Pt{-1e-6, 0}, 0}, {Pt{0, 1e-6}, 0}, {Pt{0, -1e-6}, 0}, {Z: 1e-6}} {
			near, there := Spot{eye.Pt.Plus(d.Pt), eye.Z + d.Z}, Spot{at.Pt.Plus(d.Pt), at.Z + d.Z}
			sure = sure && Blocked(near, at, walls, "") == was && Blocked(eye, there, walls, "") == was
		}
		if sure && Blocked(Spot{go2(eye.Pt), eye.Z}, Spot{go2(at.Pt), at.Z}, other, "") != was {
			t.Fatal("turned, it is seen otherwise")
		}
		if was && !Blocked(eye, at, taller, "") {
			t.Fatal("a taller wall shows more")
		}
		l := Lamp{Spot: at, Lumens: 100, Beam: 1, Aim: 0.3, Tilt: 0.2}
		m := l
		m.Pt, m.Aim = go2(at.Pt), l.Aim+by
		a, b := Ground([]Lamp{l}, eye.Pt, nil), Ground([]Lamp{m}, go2(eye.Pt), nil)
		if math.Abs(a-b) > 1e-6*math.Max(1, a) && a*b != 0 {
			t.Fatalf("%v lx, turned %v", a, b)
		}
	})
}

// Wind by hand: a board of 1.2 by 2.4 m, 12 kg, foot 0.6 m deep.
func TestWindByHand(t *testing.T) {
	assert.InDelta(t, 0.613*100, Pressure(10), 1e-9)
	// ASCE 7: 0.00256 V2 psf at 90 mph is 20.7 psf, 993 Pa
	assert.InDelta(t, 993, Pressure(90*0.44704), 3)
	s := Standing{Mass: 12, Foot: 0.3, Half: 0.3, Face: 2.88, Middle: 1.2, Drag: 1.2, Rub: 0.4}
	// 12 g x 0.3 = 35.3 N m; 0.613 x 2.88 x 1.2 x 1.2 = 2.5423 a m2/s2: V = 3.726
	assert.InDelta(t, 3.726, s.Tips(), 0.001)
	assert.InDelta(t, math.Sqrt(12*G*0.4/(0.613*2.88*1.2)), s.Slides(), 1e-9)
	assert.Equal(t, s.Tips(), s.Goes())
	v := 12.0
	s.Ballast = s.Needs(v)
	f := 1.5 * Pressure(v) * 2.88 * 1.2
	assert.InDelta(t, f*1.2, (12+s.Ballast)*G*0.3, 1e-6, "its moment is one and a half times the wind's")
	assert.InDelta(t, v*math.Sqrt(1.5), s.Tips(), 1e-9)
	assert.Zero(t, Standing{Mass: 5000, Foot: 1, Half: 1, Face: 1, Middle: 1, Drag: 1, Rub: 0.5}.Needs(10))
	assert.InDelta(t, f*1.2/2*math.Sqrt2, s.Guy(v, 2), 1e-9, "moments about the foot, 45 degrees")
	b := Standing{Mass: 200 / G, Foot: 1, Half: 1}
	assert.True(t, b.Stands(2))
	b.Foot = 0.99
	assert.False(t, b.Stands(2), "200 N at 1 m")
	assert.True(t, b.Stands(0.9), "a low thing is pushed lower")
}

// Weight off the middle, by hand: 30 kg on a foot of 1.2 by 1 m, 0.3 m to the left of its
// middle, 1.2 m high, in a wind of 20 m/s (245.2 Pa). What ballast it needs is asked of all four
// sides, and of tipping and sliding: from the right it tips over its left edge, 0.3 m from its
// weight; but the front, 1.44 m2, is pushed along hardest.
func TestWeightOffTheMiddle(t *testing.T) {
	side := func(from string, face, foot, half float64) Standing {
		return Standing{From: from, Mass: 30, Foot: foot, Half: half, Face: face, Middle: .6, Drag: 1.3, Rub: .4}
	}
	s := Sides{side("the front", 1.44, .5, .5), side("the back", 1.44, .5, .5),
		side("the left", 1.2, .9, .6), side("the right", 1.2, .3, .6)}
	assert.Equal(t, "the right", s.Tips().From)
	assert.InDelta(t, math.Sqrt(30*G*.3/(.613*1.2*1.3*.6)), s.Tips().Tips(), 1e-9)
	assert.Equal(t, "the front", s.Slides().From)
	assert.InDelta(t, math.Sqrt(30*G*.4/(.613*1.44*1.3)), s.Slides().Slides(), 1e-9)
	assert.InDelta(t, math.Min(s.Tips().Tips(), s.Slides().Slides()), s.Goes(), 1e-12)
	q := 1.5 * .613 * 20 * 20 // Pa
	slides := q*1.44*1.3/.4/G - 30
	tips := (q*1.2*1.3*.6/G - 30*.3) / .6
	need := s.Needs(20)
	assert.InDelta(t, math.Max(slides, tips), need.Needs(20), 1e-9)
	assert.Greater(t, need.Needs(20), s.Tips().Needs(20), "the side that tips soonest is not the one that needs most")
	for i := range s {
		s[i].Ballast = need.Needs(20)
	}
	assert.InDelta(t, 20*math.Sqrt(1.5), s.Goes(), 1e-9, "with it all sides bear one and a half times that wind")
	assert.Equal(t, "the front", s.Guys(20, 1).From)
	for i := range s {
		s[i].Ballast = 0
	}
	rough := s[3] // on ground that holds its foot it only tips: ballast pulls at its own arm
	rough.Rub = 5
	rough.Ballast = rough.Needs(20)
	assert.InDelta(t, 20*math.Sqrt(1.5), rough.Tips(), 1e-9)
	assert.InDelta(t, q*1.2*1.3*.6, (30*.3+rough.Ballast*.6)*G, 1e-9)
	push := s.Pushed(1.2)
	assert.Equal(t, "the right", push.From)
	push.Ballast = push.Pushed(1.2)
	assert.InDelta(t, 200, (30*.3+push.Ballast*.6)*G, 1e-9)
}

func TestWalking(t *testing.T) {
	p := Path{Through: []Pt{{0, 0}, {3, 0}, {3, 4}}, Wide: 1}
	assert.InDelta(t, 7, p.Long(), 1e-12)
	at, way := p.At(5)
	assert.Equal(t, Pt{3, 2}, at)
	assert.Equal(t, Pt{0, 1}, way)
	at, _ = p.At(99)
	assert.Equal(t, Pt{3, 4}, at)
	along, far := p.Near(Pt{4, 3})
	assert.InDelta(t, 6, along, 1e-12)
	assert.InDelta(t, 1, far, 1e-12)
	assert.InDelta(t, 5+1.2*0.5, Then(5, Walk, 0.5), 1e-12)
	assert.InDelta(t, 0.29e-3, Detail(1), 0.001e-3, "0.29 mm for each metre (20/20 acuity)")
	well, least := Letters(10 * 0.3048)
	assert.InDelta(t, 0.0254, well, 1e-9, "1 in at 10 ft")
	assert.InDelta(t, 0.0254/3, least, 1e-9)
	over := Over([]Pt{{1, -2}, {1, 2}}, p)
	assert.Len(t, over, 1)
	assert.InDelta(t, 1, over[0].From, 1e-9)
	assert.Empty(t, Over([]Pt{{0, 1}, {2, 1}}, p))
}

// A picture by hand: 4 m ahead, 90 degrees wide, 2 m to the right is half way to the edge.
func TestTheEye(t *testing.T) {
	e := Eye{Spot: Spot{Pt{1, 1}, 1.6}, Look: math.Pi / 2, Wide: math.Pi / 2} // down the plan
	x, y, deep, ok := e.Seen(Spot{Pt{-1, 5}, 2.6})
	assert.True(t, ok)
	assert.InDelta(t, 4, deep, 1e-9)
	assert.InDelta(t, 0.5, x, 1e-9, "walking down the plan, its left is on the right hand")
	assert.InDelta(t, 0.25, y, 1e-9)
	_, _, _, ok = e.Seen(Spot{Pt{1, 0}, 1})
	assert.False(t, ok, "behind")
}

func TestBoxes(t *testing.T) {
	b := Box{At: Pt{5, 5}, Wide: 2, Deep: 1, High: 1, Turn: math.Pi / 2}
	assert.InDelta(t, -1, b.Front().X, 1e-12, "a quarter turn clockwise: its front looks left")
	on := b.On(1, 0)
	assert.InDelta(t, 5, on.X, 1e-12)
	assert.InDelta(t, 6, on.Y, 1e-12)
	assert.InDelta(t, 1, b.Far(Pt{6.5, 5}), 1e-12)
	assert.Zero(t, b.Far(Pt{5.4, 5.9}))
}

// What hides a thing hides it.
func TestHiddenIsHidden(t *testing.T) {
	p := Path{Through: []Pt{{0, 0}, {10, 0}}}
	wall := []Wall{{A: Pt{4, 2}, B: Pt{8, 2}, High: 2}}
	at, ok := Hidden(p, Spot{Pt{9, 3}, 0.5}, wall, "", 4, nil)
	assert.True(t, ok)
	assert.True(t, Unseen(p, Spot{at, 0.5}, wall, ""))
	_, ok = Hidden(p, Spot{Pt{9, 3}, 0.5}, nil, "", 2, func(q Pt) bool { return q.X > 8 })
	assert.False(t, ok)
}

// Walls stand on the ground: what a child sees over them an adult sees too, at every place of a
// path, so that what is hidden from an adult is hidden from both.
func TestAnAdultSeesAllThatAChildSees(t *testing.T) {
	seen := 0
	rapid.Check(t, func(t *rapid.T) {
		m := func(name string, lo, hi float64) float64 { return rapid.Float64Range(lo, hi).Draw(t, name) }
		p := Path{Through: []Pt{{m("x0", 0, 4), m("y0", 0, 4)}, {m("x1", 5, 9), m("y1", 0, 9)}}}
		var walls []Wall
		for range rapid.IntRange(0, 4).Draw(t, "walls") {
			walls = append(walls, Wall{A: Pt{m("ax", 0, 12), m("ay", 0, 12)}, B: Pt{m("bx", 0, 12), m("by", 0, 12)},
				High: m("high", .2, 3)})
		}
		at := Spot{Pt{m("x", 0, 12), m("y", 0, 12)}, m("z", 0, 3)}
		for far := 0.0; far < p.Long(); far += p.Long() / 7 {
			eye, way := p.At(far)
			sees := func(high float64) bool {
				return Faces(eye, way, at.Pt, Field) && !Blocked(Spot{eye, high}, at, walls, "")
			}
			if sees(ChildEye) {
				seen++
				assert.True(t, sees(AdultEye), "at %.2f", far)
			}
		}
	})
	assert.NotZero(t, seen)
}
