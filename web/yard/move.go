package yard

import (
	"math"
	"strconv"
	"strings"

	"zapbarn/web/shell"

	"zapbarn/core/measure"
	"zapbarn/core/plan"

	"github.com/gin-gonic/gin"
)

// MoveInYard moves what was dragged: by so much, or one place of it.
func (s Room) MoveInYard(c *gin.Context) {
	var in struct {
		Key string `form:"key"`
	}
	if !s.Bind(c, &in) {
		return
	}
	by, err := shell.Dragged(c, 400_000, "dx", "dy", "near", "turn")
	if err != nil {
		s.Applied(c, err, shell.Over{}, "")
		return
	}
	key, grip, one := strings.Cut(in.Key, "#")
	kind, id, _ := strings.Cut(key, ":")
	at, _ := strconv.Atoi(grip)
	if !one {
		at = -1
	}
	err = s.Change(c, func(p *plan.Plan) (plan.Edit, error) {
		v, _ := p.Get(kind, id)
		if v == nil {
			return plan.Edit{}, shell.ErrGone
		}
		next, err := Shifted(p, v, at, by)
		if err != nil {
			return plan.Edit{}, err
		}
		e := plan.Edit{Label: "move " + p.Name(v), Changes: []plan.Change{p.Put(kind, id, next)}}
		if at < 0 {
			e.Changes = append(e.Changes, MovedWith(p, v, next)...)
		}
		return e, nil
	})
	s.Applied(c, err, shell.Over{}, "")
}

// shift moves a thing of the yard, or one of its places: by dx and dy, mm, and turned. It
// settles on what others are in line with, else on the nearest inch, or 25 mm.
type shift struct {
	p          *plan.Plan
	dx, dy     float64
	near, turn float64
	step       float64
	at         int // which place of it; below 0 for all
	xs, ys     []float64
}

// Shifted is a thing of the yard moved.
func Shifted(p *plan.Plan, v any, at int, by map[string]float64) (any, error) {
	s := &shift{p: p, dx: by["dx"], dy: by["dy"], near: math.Min(by["near"], 600), turn: by["turn"], at: at,
		step: measure.Inch}
	if p.Metric() {
		s.step = 25
	}
	s.others(v)
	return s.moved(v)
}

// moved is a thing of the yard shifted; the error says that it is locked, or none of it.
func (s *shift) moved(v any) (any, error) {
	fixed := false
	var next any
	var err error
	switch o := v.(type) {
	case *plan.Plot:
		n := *o
		n.X, n.Y, n.Turn = s.right(o.X), s.down(o.Y), s.turned(o.Turn)
		next, fixed = n, o.Fixed
	case *plan.Wall:
		next, fixed = s.wall(*o), o.Fixed
	case *plan.Walkway:
		n := *o
		n.Through, err = s.route(o.Through)
		next, fixed = n, o.Fixed
	case *plan.Cord:
		n := *o
		n.Through, err = s.route(o.Through)
		next, fixed = n, o.Fixed
	case *plan.Fixture:
		next, fixed = s.fixture(*o), o.Fixed
	case *plan.Viewpoint:
		n := *o
		n.X, n.Y, n.Look = s.right(o.X), s.down(o.Y), s.turned(o.Look)
		next, fixed = n, o.Fixed
	case *plan.Outlet:
		n := *o
		n.X, n.Y = s.right(o.X), s.down(o.Y)
		next = n
	case *plan.Sketch:
		n := *o
		n.X, n.Y = s.right(o.X), s.down(o.Y)
		next = n
	default:
		return nil, shell.ErrGone
	}
	if fixed {
		return nil, measure.Bad("fixed", "it is locked in place; unlock it on its ticket")
	}
	return next, err
}

// others are the places of what else stands there.
func (s *shift) others(v any) {
	for _, o := range s.p.Plots() {
		if me, ok := v.(*plan.Plot); !ok || me.ID != o.ID {
			s.xs, s.ys = append(s.xs, o.X.Value()), append(s.ys, o.Y.Value())
		}
	}
	for _, o := range s.p.Walls() {
		if me, ok := v.(*plan.Wall); !ok || me.ID != o.ID {
			s.xs, s.ys = append(s.xs, o.X.Value(), o.ToX.Value()), append(s.ys, o.Y.Value(), o.ToY.Value())
		}
	}
}

func (s *shift) by(l measure.Length, d float64, on []float64) measure.Length {
	if d == 0 {
		return l
	}
	return measure.OnTape(shell.Settle(l.Value()+d, s.step, s.near, on...), s.p.Metric())
}

func (s *shift) right(l measure.Length) measure.Length { return s.by(l, s.dx, s.xs) }
func (s *shift) down(l measure.Length) measure.Length  { return s.by(l, s.dy, s.ys) }

func (s *shift) turned(a measure.Angle) measure.Angle {
	if s.turn == 0 {
		return a
	}
	return measure.Of[measure.AngleKind](math.Mod(a.Value()+s.turn, 360))
}

// route moves the places of a route, or one of them.
func (s *shift) route(text string) (string, error) {
	places, err := plan.Route("through", text, s.p.Display().Units)
	if err != nil {
		return text, err
	}
	for k := range places {
		if s.at < 0 || s.at == k {
			places[k].X = math.Round((places[k].X+s.dx)/s.step) * s.step
			places[k].Y = math.Round((places[k].Y+s.dy)/s.step) * s.step
		}
	}
	return plan.RouteText(places, s.p.Metric()), nil
}

// wall moves a wall, as long as it was, or one of its ends.
func (s *shift) wall(x plan.Wall) plan.Wall {
	n := x
	if s.at != 1 {
		n.X, n.Y = s.right(x.X), s.down(x.Y)
	}
	if s.at == 1 {
		n.ToX, n.ToY = s.right(x.ToX), s.down(x.ToY)
	}
	if s.at < 0 { // whatever its first end settled on
		n.ToX = measure.OnTape(n.X.Value()+x.ToX.Value()-x.X.Value(), s.p.Metric())
		n.ToY = measure.OnTape(n.Y.Value()+x.ToY.Value()-x.Y.Value(), s.p.Metric())
	}
	return n
}

// fixture moves a light; one that is on a prop as that is turned.
func (s *shift) fixture(x plan.Fixture) plan.Fixture {
	dx, dy := s.dx, s.dy
	if at := s.p.PlotOf(x.Prop); at != nil {
		sin, cos := math.Sincos(-at.Turn.Value() * math.Pi / 180)
		dx, dy = dx*cos-dy*sin, dx*sin+dy*cos
	}
	n := x
	n.X, n.Y, n.Aim = s.by(x.X, dx, nil), s.by(x.Y, dy, nil), s.turned(x.Aim)
	return n
}

// standsAt is where a thing of the yard stands, and the group it moves with.
func standsAt(v any) (x, y float64, group string) {
	switch o := v.(type) {
	case *plan.Plot:
		return o.X.Value(), o.Y.Value(), o.Group
	case plan.Plot:
		return o.X.Value(), o.Y.Value(), o.Group
	case *plan.Wall:
		return o.X.Value(), o.Y.Value(), o.Group
	case plan.Wall:
		return o.X.Value(), o.Y.Value(), o.Group
	case *plan.Viewpoint:
		return o.X.Value(), o.Y.Value(), o.Group
	case plan.Viewpoint:
		return o.X.Value(), o.Y.Value(), o.Group
	case *plan.Fixture:
		if o.Prop == "" { // else it moves with that
			return o.X.Value(), o.Y.Value(), o.Group
		}
	case plan.Fixture:
		if o.Prop == "" {
			return o.X.Value(), o.Y.Value(), o.Group
		}
	}
	return 0, 0, ""
}

// MovedWith moves the others of a thing's group by as much as it moved; what is locked stays.
func MovedWith(p *plan.Plan, was, now any) (out []plan.Change) {
	x, y, group := standsAt(was)
	if group == "" {
		return nil
	}
	toX, toY, _ := standsAt(now)
	for _, kind := range []string{"plot", "wall", "fixture", "viewpoint"} {
		for _, e := range p.Elements(kind) {
			if _, _, of := standsAt(e.Value); of != group || e.Value == was {
				continue
			}
			s := &shift{p: p, dx: toX - x, dy: toY - y, at: -1, step: 1e-3}
			next, err := s.moved(e.Value)
			if err == nil {
				out = append(out, p.Put(kind, e.ID, next))
			}
		}
	}
	return out
}
