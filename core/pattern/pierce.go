package pattern

import (
	"fmt"
	"math"
	"slices"
	"strconv"
	"strings"

	"zapbarn/core/measure"
)

// Pierce cuts openings through the faces they name: a panel's own name cuts all
// its copies, with a number behind, such as "face 2", that one alone. A hole
// that would run over an edge or into another is refused with its name. On flat
// faces the hole is drawn in space as well.
func (s *Shape) Pierce(openings []Opening) error {
	for _, o := range openings {
		if len(s.Walls) > 0 {
			if err := s.drill(o); err != nil {
				return err
			}
			continue
		}
		i, err := s.facing(o)
		if err != nil {
			return err
		}
		p := &s.Panels[i]
		holes, err := p.pierced(o)
		if err != nil {
			return err
		}
		if o.Deep > 0 {
			p.recess(o, holes)
			continue
		}
		p.Holes = append(p.Holes[:len(p.Holes):len(p.Holes)], holes...)
		for b := range s.Bodies {
			if s.Bodies[b].Panel != p.ID {
				continue
			}
			for _, hole := range holes {
				s.Bodies[b].hole(p.Outline, hole)
			}
		}
	}
	return nil
}

// recess sinks an opening into the outside face instead of cutting it through.
func (p *Panel) recess(o Opening, rings [][]Point) {
	p.Pockets = slices.Clone(p.Pockets)
	for _, ring := range rings {
		p.Pockets = append(p.Pockets, Pocket{o.Name, ring, o.Deep})
	}
	p.Notes = append(p.Notes[:len(p.Notes):len(p.Notes)],
		fmt.Sprintf("%s: sunk %s into the outside face, not through.", o.Name, inches(o.Deep)))
}

// drill notes a hole in a thing that is not cut flat: it must be smaller than the
// thing, and goes through one of its walls.
func (s *Shape) drill(o Opening) error {
	name := strings.ToLower(strings.TrimSpace(o.Face))
	if !slices.Contains(s.Walls, name) {
		return measure.Bad("openings", "%s: there is no face %q; choose %s", o.Name, o.Face, choices(s.Walls))
	}
	if o.Kind == "round" {
		o.H = o.W
	}
	if o.Deep > 0 || o.Kind == "shape" || o.Kind == "text" {
		return measure.Bad(
			"openings",
			"%s: a thing that is bought or built up takes plain holes, slots and windows",
			o.Name,
		)
	}
	high := s.Size.Z
	if name == "top" || name == "bottom" {
		high = s.Size.Y
	}
	if o.W <= 0 || o.H <= 0 {
		return measure.Bad("openings", "%s has no size; give a width and a height", o.Name)
	}
	if math.Abs(o.X)+o.W/2 > s.Size.X/2 || o.Y-o.H/2 < 0 || o.Y+o.H/2 > high {
		return measure.Bad("openings", "%s runs over the edge of the %s; make it smaller or move it", o.Name, name)
	}
	s.Drilled = append(s.Drilled, o)
	return nil
}

// facing is the panel an opening is in; one copy of several becomes a panel of
// its own.
func (s *Shape) facing(o Opening) (int, error) {
	name := strings.ToLower(strings.TrimSpace(o.Face))
	var have []string
	for i, p := range s.Panels {
		if p.ID == name || strings.ToLower(p.Name) == name {
			return i, nil
		}
		have = append(have, p.ID)
	}
	id, number, ok := cutLast(name)
	n, err := strconv.Atoi(number)
	for i, p := range s.Panels {
		if !ok || err != nil || p.ID != id || p.Copies < 2 {
			continue
		}
		if n < 1 || n > p.Copies {
			return 0, measure.Bad(
				"openings",
				"%s: there are %d of %s; write %s 1 to %s %d",
				o.Name,
				p.Copies,
				p.Name,
				id,
				id,
				p.Copies,
			)
		}
		return s.apart(i, n), nil
	}
	return 0, measure.Bad("openings", "%s: there is no face %q; choose %s", o.Name, o.Face, choices(have))
}

// cutLast parts "face 2" and "face2" into face and 2.
func cutLast(name string) (word, number string, ok bool) {
	at := len(name)
	for at > 0 && name[at-1] >= '0' && name[at-1] <= '9' {
		at--
	}
	return strings.TrimSpace(name[:at]), name[at:], at > 0 && at < len(name)
}

// choices writes a list: a, b or c.
func choices(list []string) string {
	if len(list) < 2 {
		return strings.Join(list, "")
	}
	return strings.Join(list[:len(list)-1], ", ") + " or " + list[len(list)-1]
}

// apart makes copy n of panel i, from 1, a panel of its own.
func (s *Shape) apart(i, n int) int {
	one := s.Panels[i]
	one.ID, one.Name, one.Copies = fmt.Sprintf("%s%d", one.ID, n), fmt.Sprintf("%s %d", one.Name, n), 1
	s.Panels[i].Copies--
	for b := range s.Bodies {
		body := &s.Bodies[b]
		switch {
		case body.Panel != s.Panels[i].ID:
		case body.Copy == n-1:
			body.Panel, body.Copy = one.ID, 0
		case body.Copy > n-1:
			body.Copy--
		}
	}
	s.Panels = append(s.Panels, one)
	return len(s.Panels) - 1
}

// pierced is an opening's outlines on a panel, or why it cannot be there.
func (p *Panel) pierced(o Opening) ([][]Point, error) {
	if o.Kind == "round" {
		o.H = o.W
	}
	if o.W <= 0 && o.Kind != "text" || o.H <= 0 {
		return nil, measure.Bad("openings", "%s has no size; give a width and a height", o.Name)
	}
	if o.Kind == "shape" && (len(o.Path) < 3 || Area(o.Path) < 1e-9) {
		return nil, measure.Bad("openings", "%s has no shape; write its corners, such as 0,0 4,0 2,3", o.Name)
	}
	if least := p.Thick / 8; o.Deep < 0 || o.Deep > p.Thick-least {
		return nil, measure.Bad("openings", "%s: %s deep in a part of %s; leave at least %s of it", o.Name, inches(o.Deep),
			inches(p.Thick), inches(least))
	}
	if o.Kind == "slot" && o.H > o.W {
		return nil, measure.Bad("openings", "%s: a slot is wider than it is high; give its length first", o.Name)
	}
	lo, hi := extentOf(p.Outline)
	holes, err := o.outlines(hi.X - lo.X)
	if err != nil {
		return nil, err
	}
	for _, hole := range holes {
		for i := range hole {
			hole[i].X, hole[i].Y = hole[i].X+lo.X, hole[i].Y+lo.Y
		}
		if err := p.room(o, hole); err != nil {
			return nil, err
		}
	}
	return holes, nil
}

// room says why a hole cannot be where it is: it meets another, or an edge.
func (p *Panel) room(o Opening, hole []Point) error {
	others := p.Holes
	for _, k := range p.Pockets {
		others = append(others[:len(others):len(others)], k.Ring)
	}
	if p.Bore > 0 {
		others = append(others[:len(others):len(others)], Circle(p.Round/2, p.Round/2, p.Bore))
	}
	for _, h := range others {
		if overlap(h, hole) {
			return measure.Bad("openings", "%s runs into another opening of %s; make them one, or move it", o.Name, p.Name)
		}
	}
	for _, face := range [][]Point{p.Outline, p.Inside} {
		if face != nil && !holds(face, hole) {
			return measure.Bad("openings", "%s runs over the edge of %s; make it smaller or move it", o.Name, p.Name)
		}
	}
	return nil
}

// outlines are an opening's rings on a face of width w.
func (o Opening) outlines(w float64) ([][]Point, error) {
	if o.Kind != "text" {
		return [][]Point{o.outline(w)}, nil
	}
	rings, err := Letters(o.Text, o.H)
	for _, r := range rings {
		for i := range r {
			r[i] = Point{r[i].X + w/2 + o.X, r[i].Y + o.Y}
		}
	}
	return rings, err
}

// holds reports whether a hole lies in an outline; it may touch it.
func holds(outline, hole []Point) bool {
	if _, crosses := crossing([][]Point{outline, hole}); crosses {
		lo, hi := extentOf(outline)
		if len(outline) != 4 || Area(outline) < (hi.X-lo.X)*(hi.Y-lo.Y)*(1-1e-9) {
			return false
		}
	}
	lo, hi := extentOf(outline)
	var c Point
	for _, q := range hole {
		if q.X < lo.X || q.X > hi.X || q.Y < lo.Y || q.Y > hi.Y {
			return false
		}
		c = Point{c.X + q.X/float64(len(hole)), c.Y + q.Y/float64(len(hole))}
	}
	return Inside([][]Point{outline}, c)
}

func extentOf(ring []Point) (lo, hi Point) {
	lo, hi = Point{math.Inf(1), math.Inf(1)}, Point{math.Inf(-1), math.Inf(-1)}
	for _, q := range ring {
		lo = Point{math.Min(lo.X, q.X), math.Min(lo.Y, q.Y)}
		hi = Point{math.Max(hi.X, q.X), math.Max(hi.Y, q.Y)}
	}
	return
}

// hole draws a flat hole on the body's face that is the flat outline laid in
// space: the first turn of its corners at which every one lies as far from the
// first two as on the flat.
func (b *Body) hole(outline, hole []Point) {
	n := len(outline)
	for i := range b.Faces {
		f := &b.Faces[i]
		if !f.Skin || len(f.Points) != n || n < 3 {
			continue
		}
		for k := range n {
			at := func(i int) Vec { return f.Points[(i+k)%n] }
			if !alike(outline, at) {
				continue
			}
			ux := unit(sub(at(1), at(0)))
			nz := unit(crossed(sub(at(1), at(0)), sub(at(2), at(0))))
			uy := crossed(nz, ux)
			dx, dy := outline[1].X-outline[0].X, outline[1].Y-outline[0].Y
			l := math.Hypot(dx, dy)
			cs, sn := dx/l, dy/l
			ring := make([]Vec, len(hole))
			for j, q := range hole {
				x, y := q.X-outline[0].X, q.Y-outline[0].Y
				a, c := x*cs+y*sn, y*cs-x*sn // along the first edge, and to its left
				o := at(0)
				ring[j] = Vec{o.X + a*ux.X + c*uy.X, o.Y + a*ux.Y + c*uy.Y, o.Z + a*ux.Z + c*uy.Z}
			}
			f.Holes = append(f.Holes[:len(f.Holes):len(f.Holes)], ring)
			return
		}
	}
}

// alike reports whether a face's corners lie to each other as an outline's do.
func alike(outline []Point, at func(int) Vec) bool {
	for i, q := range outline {
		for _, from := range []int{0, 1} {
			d := sub(at(i), at(from))
			if math.Abs(math.Sqrt(dotted(d, d))-math.Hypot(q.X-outline[from].X, q.Y-outline[from].Y)) > 0.1 {
				return false
			}
		}
	}
	return true
}
