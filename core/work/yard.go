package work

import (
	"math"

	"zapbarn/core/pattern"
	"zapbarn/core/plan"
	"zapbarn/core/yard"
)

// Yard is the display as it is set out, in metres.
type Yard struct {
	Placed  []*Placed
	Walls   []yard.Wall // that stand by themselves
	Kinds   []string    // of each of those
	Hides   []yard.Wall // those, and the sides of all props
	Paths   []Walked
	Lamps   []yard.Lamp
	Lit     []*plan.Fixture // of each lamp
	Cords   []Laid
	Outlets map[string]yard.Pt
}

// Stands is a prop where it stands.
type Placed struct {
	Of    *plan.Plot
	Prop  *plan.Prop
	Box   yard.Box
	Known bool       // its size is known, by its parts or as said
	Mass  float64    // kg, without ballast; 0 where that or its size is not known
	Sides yard.Sides // as the wind finds it; none where that is not known
	Bare  bool       // its weight is that of its parts alone
	Near  float64    // m from the guests' path; infinite where there is none
	Along float64    // m along it
}

// Holds is whether it is held by something that does not tip with it.
func (s *Placed) Holds() bool {
	return s.Of.Held == "stakes" || s.Of.Held == "guys" || s.Of.Held == "wall"
}

// Walked is a way that is walked.
type Walked struct {
	Of *plan.Walkway
	yard.Path
	Speed float64 // m/s
}

// Laid is a cord as it lies.
type Laid struct {
	Of    *plan.Cord
	Route []yard.Pt // from its outlet to its prop
	Needs float64   // m: along the ground, up and down, and a tenth that never lies straight
	Over  []yard.Stretch
	Path  *Walked // the one it lies on
}

// What is taken where nobody said, in mm.
const (
	wallHigh = 6 * 304.8
	pathWide = 4 * 304.8
	drops    = 6 * 304.8
)

// slack is the share of a cord that never lies straight (common practice, no source).
const slack = 0.1

// rub is what holds a foot on grass or paving (from memory).
const rub = 0.4

// dragOf are the shares of the wind's pressure that faces take (from memory).
var dragOf = map[string]float64{"": 1.3, "round": 1.2, "ball": 0.5}

// Yard is the plan's, worked out once.
func (w *Work) Yard() *Yard {
	return Derive(w, "yard", (*Work).setOut)
}

// Path is the guests' path: the first of that kind; nil where there is none.
func (y *Yard) Path() *Walked {
	for i := range y.Paths {
		if y.Paths[i].Of.Kind == "path" {
			return &y.Paths[i]
		}
	}
	return nil
}

// Fence is how far a place is from the nearest fence, behind which the neighbours are; 0
// where there is none.
func (y *Yard) Fence(at yard.Pt) float64 {
	best := math.Inf(1)
	for i, w := range y.Walls {
		if y.Kinds[i] == "fence" {
			_, far := yard.Path{Through: []yard.Pt{w.A, w.B}}.Near(at)
			best = math.Min(best, far)
		}
	}
	if math.IsInf(best, 1) {
		return 0
	}
	return best
}

// Of is where a prop stands, or nil.
func (y *Yard) Of(prop string) *Placed {
	for _, s := range y.Placed {
		if s.Prop.ID == prop {
			return s
		}
	}
	return nil
}

func (w *Work) setOut() *Yard {
	y := &Yard{Outlets: map[string]yard.Pt{}}
	for i := range w.Plan.Walls() {
		x := &w.Plan.Walls()[i]
		y.Walls = append(y.Walls, yard.Wall{A: yard.Pt{X: m(x.X.Value()), Y: m(x.Y.Value())},
			B: yard.Pt{X: m(x.ToX.Value()), Y: m(x.ToY.Value())}, High: m(x.High.Or(wallHigh)), Of: "wall:" + x.ID})
		y.Kinds = append(y.Kinds, x.Kind)
	}
	y.Hides = append(y.Hides, y.Walls...)
	for i := range w.Plan.Walkways() {
		x := &w.Plan.Walkways()[i]
		y.Paths = append(y.Paths, Walked{Of: x, Speed: x.Speed.Or(yard.WalkDark),
			Path: yard.Path{Through: w.route(x.Through), Wide: m(x.Wide.Or(pathWide))}})
	}
	for i := range w.Plan.Plots() {
		s := w.plotted(&w.Plan.Plots()[i])
		if s.Near = math.Inf(1); y.Path() != nil {
			p := y.Path()
			for _, c := range append(s.Box.Walls(), yard.Wall{A: s.Box.At, B: s.Box.At}) {
				for k := range 9 { // along each side
					q := c.A.Plus(c.B.Sub(c.A).Times(float64(k) / 8))
					if along, far := p.Near(q); far < s.Near {
						s.Near, s.Along = far, along
					}
				}
			}
			s.Near = math.Max(0, s.Near-p.Wide/2)
		}
		y.Placed = append(y.Placed, s)
		if s.Known {
			y.Hides = append(y.Hides, s.Box.Walls()...)
		}
	}
	for i := range w.Plan.Outlets() {
		if o := &w.Plan.Outlets()[i]; !o.X.IsZero() || !o.Y.IsZero() {
			y.Outlets[o.ID] = yard.Pt{X: m(o.X.Value()), Y: m(o.Y.Value())}
		}
	}
	for i := range w.Plan.Fixtures() {
		x := &w.Plan.Fixtures()[i]
		if l, ok := y.lamp(x); ok {
			y.Lamps, y.Lit = append(y.Lamps, l), append(y.Lit, x)
		}
	}
	for i := range w.Plan.Cords() {
		y.Cords = append(y.Cords, w.lies(y, &w.Plan.Cords()[i]))
	}
	return y
}

func m(mm float64) float64 { return mm / 1000 }

// route is a route that was read before, in metres.
func (w *Work) route(text string) (out []yard.Pt) {
	places, err := plan.Route("through", text, w.Plan.Display().Units)
	if err != nil {
		return nil
	}
	for _, p := range places {
		out = append(out, yard.Pt{X: m(p.X), Y: m(p.Y)})
	}
	return out
}

// lamp is a fixture where it is; ok is false where its prop does not stand yet.
func (y *Yard) lamp(x *plan.Fixture) (yard.Lamp, bool) {
	rad := math.Pi / 180
	l := yard.Lamp{
		Lumens: float64(x.Lumens),
		Beam:   x.Beam.Or(360) * rad,
		Aim:    x.Aim.Value() * rad,
		Tilt:   x.Tilt.Value() * rad,
		Of:     x.Prop,
		Fill:   x.Use == "fill",
	}
	l.Z, l.Pt = m(x.High.Value()), yard.Pt{X: m(x.X.Value()), Y: m(x.Y.Value())}
	if x.Prop == "" {
		return l, true
	}
	s := y.Of(x.Prop)
	if s == nil {
		return l, false
	}
	l.Pt, l.Aim = s.Box.On(m(x.X.Value()), -m(x.Y.Value())), l.Aim+s.Box.Turn
	return l, true
}

// lies is a cord as it lies: from its outlet through its places to its prop's middle.
func (w *Work) lies(y *Yard, x *plan.Cord) Laid {
	c := Laid{Of: x}
	if at, ok := y.Outlets[x.Outlet]; ok {
		c.Route = append(c.Route, at)
	}
	c.Route = append(c.Route, w.route(x.Through)...)
	if s := y.Of(x.Prop); s != nil {
		c.Route = append(c.Route, s.Box.At)
	}
	if len(c.Route) < 2 {
		return c
	}
	c.Needs = ((yard.Path{Through: c.Route}).Long() + m(x.Drops.Or(drops))) * (1 + slack)
	for i := range y.Paths {
		if over := yard.Over(c.Route, y.Paths[i].Path); len(over) > 0 && y.Paths[i].Of.Kind != "street" &&
			c.Path == nil {
			c.Over, c.Path = over, &y.Paths[i]
		}
	}
	return c
}

// stands is a prop where it stands: its outline by its parts, or as it was said.
func (w *Work) plotted(x *plan.Plot) *Placed {
	s := &Placed{Of: x, Prop: w.Plan.Prop(x.Prop), Box: yard.Box{Of: x.Prop, Turn: x.Turn.Value() * math.Pi / 180,
		At: yard.Pt{X: m(x.X.Value()), Y: m(x.Y.Value())}}}
	size, ok := plan.ExtentOf(w.Plan.Solids(), x.Prop, w.shapeOf)
	if !ok {
		size.X, size.Y, size.Z = 0, 0, 0
	}
	s.Box.Wide, s.Box.Deep, s.Box.High = m(x.Wide.Or(size.X)), m(x.Deep.Or(size.Y)), m(x.High.Or(size.Z))
	s.Known = s.Box.Wide > 0 && s.Box.Deep > 0 && s.Box.High > 0
	mass := w.Mass(x.Prop)
	if s.Bare = x.Mass.IsZero(); !s.Bare {
		mass = x.Mass.Value()
	}
	if !s.Known || mass <= 0 {
		return s
	}
	gx, gy, footX, footY := w.balance(x, s.Box)
	through := 1 - float64(x.Open)/100
	s.Mass = mass
	face := func(from string, wide, foot, off float64) {
		s.Sides = append(s.Sides, yard.Standing{From: from, Mass: mass, Foot: math.Max(0.001, foot/2+off), Half: foot / 2,
			Face: s.Box.High * wide * through, Middle: s.Box.High / 2, Drag: dragOf[x.Face], Rub: rub,
			Ballast: x.Ballast.Value()})
	}
	face("the front", s.Box.Wide, footY, -gy) // y is to the back: it tips over its back edge
	face("the back", s.Box.Wide, footY, gy)
	face("the left", s.Box.Deep, footX, -gx)
	face("the right", s.Box.Deep, footX, gx)
	return s
}

func (w *Work) shapeOf(s *plan.Solid) *pattern.Shape { return w.Shapes()[s.ID] }

// balance is where its weight lies off the middle of its foot, and how large that is, m:
// its foot is what of it stands on the ground.
func (w *Work) balance(x *plan.Plot, box yard.Box) (gx, gy, footX, footY float64) {
	const ground = 60.0 // mm: what is no higher stands on it
	lo, hi := [2]float64{math.Inf(1), math.Inf(1)}, [2]float64{math.Inf(-1), math.Inf(-1)}
	kg := 0.0
	for i := range w.Plan.Solids() {
		s := &w.Plan.Solids()[i]
		shape := w.Shapes()[s.ID]
		if s.Prop != x.Prop || shape == nil {
			continue
		}
		one := w.MassOf(s.ID)
		kg, gx, gy = kg+one, gx+one*m(s.X.Value()), gy+one*m(s.Y.Value())
		if s.Z.Value() <= ground {
			lo[0], hi[0] = math.Min(
				lo[0],
				m(s.X.Value()-shape.Size.X/2),
			), math.Max(
				hi[0],
				m(s.X.Value()+shape.Size.X/2),
			)
			lo[1], hi[1] = math.Min(
				lo[1],
				m(s.Y.Value()-shape.Size.Y/2),
			), math.Max(
				hi[1],
				m(s.Y.Value()+shape.Size.Y/2),
			)
		}
	}
	if kg == 0 || hi[0] <= lo[0] || hi[1] <= lo[1] {
		return 0, 0, box.Wide, box.Deep // nothing is known of it: its weight is taken to lie in the middle
	}
	gx, gy, footX, footY = gx/kg-(lo[0]+hi[0])/2, gy/kg-(lo[1]+hi[1])/2, hi[0]-lo[0], hi[1]-lo[1]
	if !x.Wide.IsZero() { // as said
		footX = box.Wide
	}
	if !x.Deep.IsZero() {
		footY = box.Deep
	}
	return gx, gy, footX, footY
}
