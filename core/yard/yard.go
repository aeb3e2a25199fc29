// Package yard is the display in plan: who sees what from the path, how light it is, what
// the wind does, where a guest is when something goes off. All lengths are metres; x runs
// right and y down the plan, heights up from the ground; angles are radians, turning
// clockwise on the plan. It knows nothing of plans or props.
package yard

import "math"

// Pt is a place on the ground.
type Pt struct{ X, Y float64 }

// Sub is p - q.
func (p Pt) Sub(q Pt) Pt { return Pt{p.X - q.X, p.Y - q.Y} }

// Plus is p + q.
func (p Pt) Plus(q Pt) Pt { return Pt{p.X + q.X, p.Y + q.Y} }

// Times is p, k times as long.
func (p Pt) Times(k float64) Pt { return Pt{p.X * k, p.Y * k} }

// Len is how far p is from nothing.
func (p Pt) Len() float64 { return math.Hypot(p.X, p.Y) }

// Dot is the scalar product.
func (p Pt) Dot(q Pt) float64 { return p.X*q.X + p.Y*q.Y }

func cross(a, b Pt) float64 { return a.X*b.Y - a.Y*b.X }

// turned is p turned clockwise on the plan.
func (p Pt) turned(by float64) Pt {
	s, c := math.Sincos(by)
	return Pt{p.X*c - p.Y*s, p.X*s + p.Y*c}
}

// Spot is a place at a height.
type Spot struct {
	Pt
	Z float64
}

// Wall stands upright from a to b, opaque from the ground to its height.
type Wall struct {
	A, B Pt
	High float64
	Of   string // what it belongs to: its own things are seen through it
}

// Box is something with an upright outline: a prop's footprint and its height. Turned by
// nothing its front looks down the plan.
type Box struct {
	Of               string
	At               Pt // its middle
	Wide, Deep, High float64
	Turn             float64
}

// Corners are the four of its footprint, in order.
func (b Box) Corners() [4]Pt {
	var out [4]Pt
	for i, k := range [4]Pt{{-1, -1}, {1, -1}, {1, 1}, {-1, 1}} {
		out[i] = b.At.Plus(Pt{k.X * b.Wide / 2, k.Y * b.Deep / 2}.turned(b.Turn))
	}
	return out
}

// On is a place of the box's own on the plan: x right as seen from its front, back away
// from whoever looks at it.
func (b Box) On(x, back float64) Pt { return b.At.Plus(Pt{x, -back}.turned(b.Turn)) }

// Front is the way it looks, one metre long.
func (b Box) Front() Pt { return Pt{0, 1}.turned(b.Turn) }

// Walls are its four sides.
func (b Box) Walls() []Wall {
	c := b.Corners()
	out := make([]Wall, 4)
	for i := range c {
		out[i] = Wall{c[i], c[(i+1)%4], b.High, b.Of}
	}
	return out
}

// Far is how far a place is from the nearest of its footprint; 0 within it.
func (b Box) Far(p Pt) float64 {
	q := p.Sub(b.At).turned(-b.Turn)
	return Pt{math.Max(0, math.Abs(q.X)-b.Wide/2), math.Max(0, math.Abs(q.Y)-b.Deep/2)}.Len()
}

// Path is a way that is walked, from its first place to its last.
type Path struct {
	Through []Pt
	Wide    float64
}

// Long is its length along the middle.
func (p Path) Long() (sum float64) {
	for i := 1; i < len(p.Through); i++ {
		sum += p.Through[i].Sub(p.Through[i-1]).Len()
	}
	return sum
}

// At is the place so far along it, and which way one walks there; its ends beyond them.
func (p Path) At(far float64) (at, way Pt) {
	if len(p.Through) == 0 {
		return Pt{}, Pt{1, 0}
	}
	at, way = p.Through[0], Pt{1, 0}
	for i := 1; i < len(p.Through); i++ {
		leg := p.Through[i].Sub(p.Through[i-1])
		l := leg.Len()
		if l == 0 {
			continue
		}
		way = leg.Times(1 / l)
		if far <= l || i == len(p.Through)-1 {
			return p.Through[i-1].Plus(way.Times(math.Max(0, math.Min(far, l)))), way
		}
		at, far = p.Through[i], far-l
	}
	return at, way
}

// Near is where along the path it comes nearest to a place, and how far that is.
func (p Path) Near(q Pt) (along, far float64) {
	far, sum := math.Inf(1), 0.0
	for i := 1; i < len(p.Through); i++ {
		a, leg := p.Through[i-1], p.Through[i].Sub(p.Through[i-1])
		l := leg.Len()
		t := 0.0
		if l > 0 {
			t = math.Max(0, math.Min(1, q.Sub(a).Dot(leg)/(l*l)))
		}
		if d := q.Sub(a.Plus(leg.Times(t))).Len(); d < far {
			along, far = sum+t*l, d
		}
		sum += l
	}
	return along, far
}

// crosses is where along a-b, 0 to 1, it meets c-d; ok is false where it does not.
func crosses(a, b, c, d Pt) (t float64, ok bool) {
	r, s := b.Sub(a), d.Sub(c)
	k := cross(r, s)
	if math.Abs(k) < 1e-12 {
		return 0, false
	}
	t, u := cross(c.Sub(a), s)/k, cross(c.Sub(a), r)/k
	return t, t > 1e-9 && t < 1-1e-9 && u >= 0 && u <= 1
}
