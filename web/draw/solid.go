package draw

import (
	"fmt"
	"math"
	"reflect"
	"sort"
	"strconv"
	"strings"

	"zapbarn/core/check"
	"zapbarn/core/form"
	"zapbarn/core/measure"
	"zapbarn/core/pattern"
	"zapbarn/core/plan"
	"zapbarn/core/work"
)

// View projects space to the canvas.
type View struct {
	Scale  float64 // px per mm
	X, Y   float64 // where the prop's origin lies
	Seen   Seen
	Toward pattern.Vec
}

// Seen is from where: in isometric from front right above, straight on, or
// straight down with the front below.
type Seen int

// The ways to see a prop.
const (
	FromCorner Seen = iota
	FromFront
	FromTop
)

// Iso and Front are the two views.
func Iso(scale, x, y float64) View {
	return View{scale, x, y, FromCorner, pattern.Vec{X: 1, Y: -1, Z: 1}}
}

// Front is the elevation.
func Front(scale, x, y float64) View { return View{scale, x, y, FromFront, pattern.Vec{Y: -1}} }

// Above is the plan.
func Above(scale, x, y float64) View { return View{scale, x, y, FromTop, pattern.Vec{Z: 1}} }

const cos30 = 0.8660254037844386

// At projects a point.
func (v View) At(p pattern.Vec) XY {
	switch v.Seen {
	case FromFront:
		return XY{v.X + p.X*v.Scale, v.Y - p.Z*v.Scale}
	case FromTop:
		return XY{v.X + p.X*v.Scale, v.Y - p.Y*v.Scale}
	}
	return XY{v.X + (p.X+p.Y)*cos30*v.Scale, v.Y + ((p.X-p.Y)*0.5-p.Z)*v.Scale}
}

func dot(a, b pattern.Vec) float64 { return a.X*b.X + a.Y*b.Y + a.Z*b.Z }

func normal(p []pattern.Vec) pattern.Vec {
	var s pattern.Vec // Newell
	for i := range p {
		a, b := p[i], p[(i+1)%len(p)]
		s.X += (a.Y - b.Y) * (a.Z + b.Z)
		s.Y += (a.Z - b.Z) * (a.X + b.X)
		s.Z += (a.X - b.X) * (a.Y + b.Y)
	}
	return s
}

type standing struct {
	body   pattern.Body
	solid  *plan.Solid
	depth  float64
	layer  float64
	offset pattern.Vec
}

// bodies gathers a prop's bodies, far ones first.
func bodies(w *work.Work, prop string, v View) []standing {
	var out []standing
	for i := range w.Plan.Solids() {
		s := &w.Plan.Solids()[i]
		shape := w.Shapes()[s.ID]
		if s.Prop != prop || shape == nil {
			continue
		}
		off := pattern.Vec{X: s.X.Value(), Y: s.Y.Value(), Z: s.Z.Value()}
		for _, b := range shape.Bodies {
			var c pattern.Vec
			k, low := 0.0, math.Inf(1)
			for _, f := range b.Faces {
				for _, p := range f.Points {
					c.X, c.Y, c.Z, k = c.X+p.X, c.Y+p.Y, c.Z+p.Z, k+1
					low = math.Min(low, p.Z)
				}
			}
			c = pattern.Vec{X: c.X/k + off.X, Y: c.Y/k + off.Y, Z: c.Z/k + off.Z}
			st := standing{b, s, dot(c, v.Toward), 0, off}
			if k, _ := form.Of(s.Kind); k.Layered {
				st.layer = low
			}
			out = append(out, st)
		}
	}
	sort.SliceStable(out, func(i, j int) bool {
		a, b := out[i], out[j]
		if a.solid == b.solid && a.layer != b.layer {
			return a.layer < b.layer
		}
		return a.depth < b.depth
	})
	return paintOrder(out, v.Toward)
}

// Prop draws a prop. Each part is a link made by href; sel is the one picked.
// With explode the bodies carry the way they move.
func (c *Canvas) Prop(w *work.Work, prop string, v View, sel string, href func(key string) string) {
	held := map[string]bool{}
	for _, st := range bodies(w, prop, v) {
		key := "part:" + st.solid.ID + "/" + st.body.Panel
		if w.Part(st.solid.ID+"/"+st.body.Panel) == nil { // not cut flat: the whole is picked
			key = "solid:" + st.solid.ID
		}
		if href != nil {
			label := st.solid.Name
			if p := w.Part(st.solid.ID + "/" + st.body.Panel); p != nil {
				label = p.Name()
			}
			c.Pick(href(key), key, label, key == sel || "solid:"+st.solid.ID == sel)
		}
		tip := v.At(st.body.Explode)
		zero := v.At(pattern.Vec{})
		class := "body"
		if href == nil && sel != "" && (key == sel || "solid:"+st.solid.ID == sel) {
			class += " on"
		}
		c.f(
			`<g class="%s" data-solid="%s" data-dx="%s" data-dy="%s">`,
			class,
			esc(st.solid.ID),
			n((tip.X-zero.X)/v.Scale*100),
			n((tip.Y-zero.Y)/v.Scale*100),
		)
		if v.Seen == FromTop && !held[st.solid.ID] { // to be taken hold of where it is hollow, too
			held[st.solid.ID] = true
			half := w.Shapes()[st.solid.ID].Size
			a := v.At(pattern.Vec{X: st.offset.X - half.X/2, Y: st.offset.Y + half.Y/2})
			c.Rect("touch", a.X, a.Y, half.X*v.Scale, half.Y*v.Scale)
		}
		texture := w.Lib.Materials[st.solid.Stock].Texture
		curved := false
		if v.Seen == FromFront && c.post(st, v, texture) {
			c.f(`</g>`)
			if href != nil {
				c.Done()
			}
			continue
		}
		for _, f := range sortFaces(st.body.Faces, v) {
			c.face(f, st.offset, v, texture)
			curved = curved || f.Curved
		}
		if curved {
			c.silhouette(st, v)
		}
		c.f(`</g>`)
		if href != nil {
			c.Done()
		}
	}
}

func sortFaces(faces []pattern.Face, v View) []pattern.Face {
	out := make([]pattern.Face, 0, len(faces))
	for _, f := range faces {
		if dot(normal(f.Points), v.Toward) > 1e-6 {
			out = append(out, f)
		}
	}
	mean := func(f pattern.Face) float64 {
		s := 0.0
		for _, p := range f.Points {
			s += dot(p, v.Toward)
		}
		return s / float64(len(f.Points))
	}
	sort.SliceStable(out, func(i, j int) bool { return mean(out[i]) < mean(out[j]) })
	return out
}

func (c *Canvas) face(f pattern.Face, off pattern.Vec, v View, texture string) {
	m := normal(f.Points)
	l := math.Sqrt(dot(m, m))
	tone := 2
	if m.Z/l > 0.7 {
		tone = 1
	} else if m.X/l > 0.45 {
		tone = 3
	}
	p := make([]XY, len(f.Points))
	for i, q := range f.Points {
		p[i] = v.At(pattern.Vec{X: q.X + off.X, Y: q.Y + off.Y, Z: q.Z + off.Z})
	}
	if f.Curved {
		c.Poly(fmt.Sprintf("mc m-%s-%d", texture, tone), p)
		if f.Edges == nil {
			c.Line("edge", p[0].X, p[0].Y, p[1].X, p[1].Y)
			c.Line("edge", p[2].X, p[2].Y, p[3].X, p[3].Y)
		}
		return
	}
	if f.Edges != nil {
		c.Poly(fmt.Sprintf("mc m-%s-%d", texture, tone), p)
		for _, e := range f.Edges {
			line := make([]XY, len(e))
			for i, q := range e {
				line[i] = v.At(pattern.Vec{X: q.X + off.X, Y: q.Y + off.Y, Z: q.Z + off.Z})
			}
			c.Open("edge", line)
		}
	} else {
		c.Poly(fmt.Sprintf("m m-%s-%d", texture, tone), p)
	}
	class := "hole"
	if texture == "pipe" { // into a pipe one sees its wall
		class = "bore"
	}
	for _, h := range f.Holes {
		hp := make([]XY, len(h))
		for i, q := range h {
			hp[i] = v.At(pattern.Vec{X: q.X + off.X, Y: q.Y + off.Y, Z: q.Z + off.Z})
		}
		c.Poly(class, hp)
	}
}

// post draws a round body that stands upright, seen straight on: a rectangle,
// which saves its facets. It reports whether the body is one.
func (c *Canvas) post(st standing, v View, texture string) bool {
	lo, hi := XY{math.Inf(1), math.Inf(1)}, XY{math.Inf(-1), math.Inf(-1)}
	round, towards := false, false
	for _, f := range st.body.Faces {
		if f.Curved {
			m := normal(f.Points)
			if math.Abs(m.Z) > 1e-6*math.Sqrt(dot(m, m)) {
				return false
			}
			round, towards = true, towards || dot(m, v.Toward) > 0
			for _, q := range f.Points {
				p := v.At(pattern.Vec{X: q.X + st.offset.X, Y: q.Y + st.offset.Y, Z: q.Z + st.offset.Z})
				lo, hi = XY{math.Min(lo.X, p.X), math.Min(lo.Y, p.Y)}, XY{math.Max(hi.X, p.X), math.Max(hi.Y, p.Y)}
			}
		}
	}
	if round && towards {
		c.Poly(fmt.Sprintf("m thin m-%s-2", texture), []XY{lo, {hi.X, lo.Y}, hi, {lo.X, hi.Y}})
	}
	return round
}

// silhouette strokes the sides of a round body: where a facet that faces the
// eye meets one that does not.
func (c *Canvas) silhouette(st standing, v View) {
	type seam struct{ a, b pattern.Vec }
	round := func(p pattern.Vec) pattern.Vec {
		return pattern.Vec{X: math.Round(p.X * 100), Y: math.Round(p.Y * 100), Z: math.Round(p.Z * 100)}
	}
	seen := map[seam]pattern.Face{}
	for _, f := range st.body.Faces {
		if !f.Curved {
			continue
		}
		front := dot(normal(f.Points), v.Toward) > 1e-6
		for _, s := range [][2]int{{0, 3}, {1, 2}} { // the two straight sides
			a, b := round(f.Points[s[0]]), round(f.Points[s[1]])
			g, ok := seen[seam{a, b}]
			if !ok {
				seen[seam{a, b}] = f
				continue
			}
			if other := dot(normal(g.Points), v.Toward) > 1e-6; other != front {
				p := v.At(
					pattern.Vec{
						X: f.Points[s[0]].X + st.offset.X,
						Y: f.Points[s[0]].Y + st.offset.Y,
						Z: f.Points[s[0]].Z + st.offset.Z,
					},
				)
				q := v.At(
					pattern.Vec{
						X: f.Points[s[1]].X + st.offset.X,
						Y: f.Points[s[1]].Y + st.offset.Y,
						Z: f.Points[s[1]].Z + st.offset.Z,
					},
				)
				c.Line("edge", p.X, p.Y, q.X, q.Y)
			}
			delete(seen, seam{a, b})
		}
	}
	for s, f := range seen { // the cut ends of a half ring
		if dot(normal(f.Points), v.Toward) > 1e-6 && v.Seen != FromCorner {
			p := v.At(pattern.Vec{X: s.a.X/100 + st.offset.X, Y: s.a.Y/100 + st.offset.Y, Z: s.a.Z/100 + st.offset.Z})
			q := v.At(pattern.Vec{X: s.b.X/100 + st.offset.X, Y: s.b.Y/100 + st.offset.Y, Z: s.b.Z/100 + st.offset.Z})
			c.Line("edge", p.X, p.Y, q.X, q.Y)
		}
	}
}

// boxIn is a prop's extent on the canvas in a view.
func boxIn(w *work.Work, prop string, v View) (lo, hi XY) {
	lo, hi = XY{math.Inf(1), math.Inf(1)}, XY{math.Inf(-1), math.Inf(-1)}
	for _, st := range bodies(w, prop, v) {
		for _, f := range st.body.Faces {
			for _, q := range f.Points {
				p := v.At(pattern.Vec{X: q.X + st.offset.X, Y: q.Y + st.offset.Y, Z: q.Z + st.offset.Z})
				lo, hi = XY{math.Min(lo.X, p.X), math.Min(lo.Y, p.Y)}, XY{math.Max(hi.X, p.X), math.Max(hi.Y, p.Y)}
			}
		}
	}
	return lo, hi
}

// frontOver is the front view with the middle of all the prop's parts over x.
func frontOver(w *work.Work, prop string, scale, x, ground float64) View {
	lo, hi := boxIn(w, prop, Front(1, 0, 0))
	return Front(scale, x-(lo.X+hi.X)/2*scale, ground)
}

// reach is how high above the floor a prop's parts begin and end, mm: one that
// hangs begins above it.
func reach(w *work.Work, prop string) (bottom, top float64) {
	bottom = math.Inf(1)
	for i := range w.Plan.Solids() {
		if s := &w.Plan.Solids()[i]; s.Prop == prop && w.Shapes()[s.ID] != nil {
			z := s.Z.Value()
			bottom, top = math.Min(bottom, z), math.Max(top, z+w.Shapes()[s.ID].Size.Z)
		}
	}
	return bottom, top
}

// Whole draws the prop twice: in isometric, as large as fits, and from the
// front, to the tape, dimensioned and beside a standing adult. above leads to the
// same from above.
func Whole(w *work.Work, prop, sel, above string, href func(string) string) (iso, front string) {
	name := w.Plan.Prop(prop).Name
	size, ok := check.Extent(w, prop)
	f := New(460, 470, w.Plan.Metric())
	ground := 442.0
	if !ok {
		f.Tape(0.2, TapeSize, ground, true)
		f.Line("ground", TapeSize, ground, f.W, ground)
		f.Person(240, ground, 0.2)
		return "", f.SVG("front", name, "Nothing to draw yet; a standing adult for size.")
	}
	c := New(526, 470, w.Plan.Metric())
	lo, hi := boxIn(w, prop, Iso(1, 0, 0))
	scale := math.Min(440/(hi.X-lo.X), 400/(hi.Y-lo.Y))
	c.Prop(w, prop, Iso(scale, (526-(lo.X+hi.X)*scale)/2, 225-(lo.Y+hi.Y)*scale/2), sel, href)
	c.Text("t soft", "middle", 263, 458, "isometric, "+w.Len(size.Y)+" deep")
	iso = c.SVG("iso", name+", isometric", fmt.Sprintf("%s in isometric. Each part is a link.", name))

	person := 1753.0
	bottom, top := reach(w, prop)
	scale = math.Min(310/(size.X+person*0.45), 370/math.Max(top, person))
	f.Tape(scale, TapeSize, ground, true)
	f.Line("ground", TapeSize, ground, f.W, ground)
	mid := TapeSize + 62 + size.X*scale/2
	left, right := mid-size.X*scale/2, mid+size.X*scale/2
	f.Prop(w, prop, frontOver(w, prop, scale, mid, ground), sel, nil)
	f.Dim(XY{left, ground - top*scale}, XY{left, ground - bottom*scale}, -16, w.Len(size.Z))
	f.Dim(XY{left, ground - top*scale}, XY{right, ground - top*scale}, 14, w.Len(size.X))
	f.handles(w, prop, sel, scale, frontOver(w, prop, scale, mid, ground))
	adult := math.Min(right+46+130*scale, 440-420*scale)
	f.Person(adult, ground, scale)
	f.Child(adult+ChildFrom*scale, ground, scale)
	f.other(mid, ground+17, "front", "from above", above)
	f.f(`<g data-moves="%s"></g>`, strconv.FormatFloat(scale, 'f', 6, 64))
	front = f.SVG(
		"front",
		name+", front view",
		fmt.Sprintf(
			"%s stands %s tall, %s wide and %s deep, drawn beside an adult of 5 ft 9 in.",
			name,
			w.Len(size.Z),
			w.Len(size.X),
			w.Len(size.Y),
		),
	)
	return iso, front
}

// FromAbove draws the prop straight down, its front below, on a grid of feet or of
// 250 mm: where its solids stand beside and behind each other.
func FromAbove(w *work.Work, prop, sel, front string) string {
	name := w.Plan.Prop(prop).Name
	f := New(460, 470, w.Plan.Metric())
	size, ok := check.Extent(w, prop)
	if !ok {
		return f.SVG("front above", name, "Nothing to draw yet.")
	}
	lo, hi := boxIn(w, prop, Above(1, 0, 0))
	scale := math.Min(340/math.Max(hi.X-lo.X, 1), 340/math.Max(hi.Y-lo.Y, 1))
	v := Above(scale, 230-(lo.X+hi.X)/2*scale, 215-(lo.Y+hi.Y)/2*scale)
	step, word := 12*measure.Inch, "1 ft"
	if w.Plan.Metric() {
		step, word = 250, "250 mm"
	}
	for step*scale < 24 {
		step, word = step*2, w.Len(step*2)
	}
	for x := math.Mod(v.X, step*scale); x < f.W; x += step * scale {
		f.Line("gridline", x, 12, x, 418)
	}
	for y := math.Mod(v.Y, step*scale); y < 418; y += step * scale {
		f.Line("gridline", 12, y, f.W-12, y)
	}
	f.Prop(w, prop, v, sel, nil)
	left, right := v.X+lo.X*scale, v.X+hi.X*scale
	top, low := v.Y+lo.Y*scale, v.Y+hi.Y*scale
	f.Dim(XY{left, top}, XY{right, top}, 16, w.Len(size.X))
	f.Dim(XY{left, top}, XY{left, low}, -16, w.Len(size.Y))
	f.Line("ground", left-10, low+14, right+10, low+14)
	f.Text("t soft", "middle", (left+right)/2, low+32, "front, where guests stand")
	f.other(230, 459, "from above, a square is "+word, "front", front)
	f.f(`<g data-moves="%s" data-above></g>`, strconv.FormatFloat(scale, 'f', 6, 64))
	return f.SVG("front above", name+", from above", fmt.Sprintf("%s from above: %s wide, %s deep, its front below.",
		name, w.Len(size.X), w.Len(size.Y)))
}

// other says which view this is, and leads to the other one.
func (c *Canvas) other(x, y float64, is, other, href string) {
	if href == "" {
		c.Text("t soft", "middle", x, y, is)
		return
	}
	c.f(
		`<text class="t soft" text-anchor="middle" x="%s" y="%s">%s, or <a class="view" href="%s">%s</a></text>`,
		n(x), n(y), esc(is), esc(href), esc(other),
	)
}

// handles are the dimensions of the picked solid that can be dragged in the
// front view: each says which field of the ticket it sets, which way it is
// pulled, what it measures now, and how much the size grows for each mm pulled.
func (c *Canvas) handles(w *work.Work, prop, sel string, scale float64, v View) {
	kind, id, _ := strings.Cut(sel, ":")
	if kind == "part" {
		id, _, _ = strings.Cut(id, "/")
	}
	s := w.Solid(id)
	if s == nil || s.Prop != prop || w.Shapes()[s.ID] == nil || kind != "solid" && kind != "part" {
		return
	}
	size := w.Shapes()[s.ID].Size
	at := func(x, z float64) XY {
		return v.At(pattern.Vec{X: s.X.Value() + x, Z: s.Z.Value() + z})
	}
	grip := func(field, label string, p XY, now float64, dx, dz float64) {
		c.f(
			`<g class="grip" data-size="f.%s" data-now="%s" data-dx="%g" data-dy="%g" data-scale="%s" data-metric="%t" transform="translate(%s %s)"><title>%s: drag to change</title><rect class="touch" x="-14" y="-14" width="28" height="28"/><path d="M0 -7L7 0L0 7L-7 0Z"/></g>`,
			field,
			n(now),
			dx,
			dz,
			strconv.FormatFloat(scale, 'f', 6, 64),
			w.Plan.Metric(),
			n(p.X),
			n(p.Y),
			esc(label),
		)
	}
	across := func(field, label string, l measure.Length, z float64) {
		if !l.IsZero() {
			grip(field, label, at(l.Value()/2, z), l.Value(), 2, 0)
		}
	}
	up := func(field, label string, l measure.Length) {
		if !l.IsZero() {
			grip(field, label, at(0, size.Z), l.Value(), 0, -1)
		}
	}
	if s.Form == nil {
		return
	}
	t := reflect.TypeOf(s.Form)
	for i := range t.NumField() { // what its fields' tags say can be dragged
		f := t.Field(i)
		name, _, _ := strings.Cut(f.Tag.Get("json"), ",")
		l := s.Length(name)
		switch label := strings.ToLower(f.Tag.Get("label")); f.Tag.Get("grip") {
		case "across":
			across(name, label, l, size.Z/2)
		case "across-low":
			across(name, label, l, 0)
		case "across-top":
			across(name, label, l, size.Z)
		case "up":
			if form.Raised(s.Form) {
				up(name, label, l)
			}
		}
	}
}

// Over draws a prop from the front at a scale, its middle standing at x, y: to
// be laid over a picture.
func Over(w *work.Work, prop string, scale, x, y float64) string {
	c := New(0, 0, w.Plan.Metric())
	if _, ok := check.Extent(w, prop); ok {
		c.Prop(w, prop, frontOver(w, prop, scale, x, y), "", nil)
	}
	return c.drawn()
}

// Defs are the materials, for a drawing that is put together elsewhere.
func Defs() string { return defs }
