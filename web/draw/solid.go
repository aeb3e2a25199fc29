package draw

import (
	"fmt"
	"math"
	"sort"

	"zapbarn/core/check"
	"zapbarn/core/pattern"
	"zapbarn/core/plan"
)

// View projects space to the canvas.
type View struct {
	Scale  float64 // px per mm
	X, Y   float64 // where the prop's origin lies
	Front  bool    // straight on; otherwise isometric from front right above
	Toward pattern.Vec
}

// Iso and Front are the two views.
func Iso(scale, x, y float64) View { return View{scale, x, y, false, pattern.Vec{X: 1, Y: -1, Z: 1}} }

// Front is the elevation.
func Front(scale, x, y float64) View { return View{scale, x, y, true, pattern.Vec{Y: -1}} }

const cos30 = 0.8660254037844386

// At projects a point.
func (v View) At(p pattern.Vec) XY {
	if v.Front {
		return XY{v.X + p.X*v.Scale, v.Y - p.Z*v.Scale}
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
func bodies(w *plan.Work, prop string, v View) []standing {
	var out []standing
	for i := range w.Plan.Solids {
		s := &w.Plan.Solids[i]
		shape := w.Shapes[s.ID]
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
			if s.Kind == "rings" || s.Kind == "disc" {
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
	return out
}

// Prop draws a prop. Each part is a link made by href; sel is the one picked.
// With explode the bodies carry the way they move.
func (c *Canvas) Prop(w *plan.Work, prop string, v View, sel string, href func(key string) string) {
	for _, st := range bodies(w, prop, v) {
		key := "part:" + st.solid.ID + "/" + st.body.Panel
		if st.solid.Kind == "pipe" {
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
		c.f(`<g class="body" data-dx="%s" data-dy="%s">`, n((tip.X-zero.X)/v.Scale*100), n((tip.Y-zero.Y)/v.Scale*100))
		texture := w.Lib.Materials[st.solid.Stock].Texture
		for _, f := range sortFaces(st.body.Faces, v) {
			c.face(f, st.offset, v, texture)
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
	c.Poly(fmt.Sprintf("m m-%s-%d", texture, tone), p)
	for _, h := range f.Holes {
		hp := make([]XY, len(h))
		for i, q := range h {
			hp[i] = v.At(pattern.Vec{X: q.X + off.X, Y: q.Y + off.Y, Z: q.Z + off.Z})
		}
		c.Poly("hole", hp)
	}
}

// isoBox is a prop's extent on the canvas at scale 1.
func isoBox(w *plan.Work, prop string) (lo, hi XY) {
	lo, hi = XY{math.Inf(1), math.Inf(1)}, XY{math.Inf(-1), math.Inf(-1)}
	v := Iso(1, 0, 0)
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

// Whole draws the prop in isometric and front view with a standing adult.
func Whole(w *plan.Work, prop, sel string, href func(string) string) string {
	c := New(986, 520, w.Plan.Metric())
	size, ok := check.Extent(w, prop)
	name := w.Plan.Prop(prop).Name
	if !ok {
		scale := 0.2
		c.Tape(scale, TapeSize, 490, true)
		c.Person(493, 480, scale)
		return c.SVG("whole", name, "Nothing to draw yet; a standing adult for size.")
	}
	lo, hi := isoBox(w, prop)
	person := 1753.0
	scale := math.Min(math.Min(430/(hi.X-lo.X), 400/(hi.Y-lo.Y)), math.Min(290/size.X, 400/math.Max(size.Z, person)))
	scale = math.Min(scale, 0.55)
	ground := 478.0
	c.Tape(scale, TapeSize, ground, true)
	c.Line("ground", TapeSize, ground, c.W, ground)
	iso := Iso(scale, 60-lo.X*scale+(430-(hi.X-lo.X)*scale)/2, 462-hi.Y*scale)
	c.Prop(w, prop, iso, sel, href)
	// the elevation, dimensioned
	fx := 720.0
	front := Front(scale, fx, ground)
	c.Prop(w, prop, front, sel, nil)
	left, right := fx-size.X*scale/2, fx+size.X*scale/2
	c.Dim(XY{left, ground - size.Z*scale}, XY{left, ground}, -16, w.Len(size.Z))
	c.Dim(XY{left, ground - size.Z*scale}, XY{right, ground - size.Z*scale}, 14, w.Len(size.X))
	c.Person(math.Min(right+34+8*69*25.4/69*scale, 960), ground, scale)
	c.Text("t", "middle", fx, ground+17, "front")
	c.Text("t", "middle", 60+215, ground+17, "isometric, depth "+w.Len(size.Y))
	return c.SVG("whole", name+", isometric and front view", fmt.Sprintf("%s stands %s tall, %s wide and %s deep, drawn beside an adult of 5 ft 9 in.", name, w.Len(size.Z), w.Len(size.X), w.Len(size.Y)))
}

// Barn draws all props as elevations on one ground line, to one scale.
func Barn(w *plan.Work, sel string, href func(string) string, states func(prop string) [4]string) string {
	c := New(986, 366, w.Plan.Metric())
	ground := 300.0
	total, tall, count := 0.0, 1753.0, 0.0
	type item struct {
		p    plan.Prop
		size pattern.Vec
		ok   bool
	}
	var items []item
	for _, p := range w.Plan.Props {
		size, ok := check.Extent(w, p.ID)
		if !ok {
			size = pattern.Vec{X: 500, Z: p.Known.Or(900)}
		}
		items = append(items, item{p, size, ok})
		total, tall, count = total+size.X, math.Max(tall, size.Z), count+1
	}
	room := c.W - TapeSize - 110
	scale := math.Min(255/tall, (room-60*count)/math.Max(total, 1))
	scale = math.Max(scale, 0.02)
	c.Tape(scale, TapeSize, ground, false)
	for y := ground; y > 30; y -= 304.8 * scale {
		c.Line("rule", TapeSize, y, c.W, y)
	}
	c.Line("ground", TapeSize, ground, c.W, ground)
	slot := (room - total*scale) / math.Max(count, 1)
	x := TapeSize + 90.0
	c.Person(TapeSize+42, ground, scale)
	for _, it := range items {
		wide := math.Max(it.size.X*scale, 10)
		mid := x + slot/2 + wide/2
		c.Pick(href("prop:"+it.p.ID), "prop:"+it.p.ID, it.p.Name, "prop:"+it.p.ID == sel)
		if it.ok {
			c.Prop(w, it.p.ID, Front(scale, mid, ground), "", nil)
		} else {
			c.Rect("idea", mid-wide/2, ground-it.size.Z*scale, wide, it.size.Z*scale)
		}
		c.Rect("touch", mid-wide/2-8, ground-it.size.Z*scale-8, wide+16, it.size.Z*scale+62)
		c.Text("t lbl", "middle", mid, ground+22, it.p.Name)
		for i, s := range states(it.p.ID) {
			c.Rect("state st-"+s, mid-34+float64(i)*18, ground+32, 13, 13)
			if s == "snag" {
				c.Line("hookink", mid-34+float64(i)*18, ground+45, mid-21+float64(i)*18, ground+32)
			}
		}
		c.Done()
		x += wide + slot
	}
	return c.SVG("barn", "All props to one scale", "Front views of every prop on one ground line beside an adult of 5 ft 9 in.")
}
