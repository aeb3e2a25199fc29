package draw

import (
	"fmt"
	"math"
	"sort"

	"zapbarn/core/measure"
	"zapbarn/core/pattern"
)

// Shape draws a pattern that stands in no plan: assembled in isometric, and
// its first flat parts side by side to one scale, with their sizes.
func Shape(s *pattern.Shape) string {
	c := New(640, 256, false)
	v := Iso(1, 0, 0)
	lo, hi := XY{math.Inf(1), math.Inf(1)}, XY{math.Inf(-1), math.Inf(-1)}
	bodies := append([]pattern.Body(nil), s.Bodies...)
	depth := func(b pattern.Body) float64 {
		var sum pattern.Vec
		n := 0.0
		for _, f := range b.Faces {
			for _, p := range f.Points {
				sum, n = pattern.Vec{X: sum.X + p.X, Y: sum.Y + p.Y, Z: sum.Z + p.Z}, n+1
				q := v.At(p)
				lo, hi = XY{math.Min(lo.X, q.X), math.Min(lo.Y, q.Y)}, XY{math.Max(hi.X, q.X), math.Max(hi.Y, q.Y)}
			}
		}
		return dot(sum, v.Toward) / n
	}
	far := map[int]float64{}
	order := make([]int, len(bodies))
	for i := range bodies {
		order[i], far[i] = i, depth(bodies[i])
	}
	sort.SliceStable(order, func(a, b int) bool { return far[order[a]] < far[order[b]] })
	if len(bodies) > 0 {
		k := math.Min(190/(hi.X-lo.X), 200/(hi.Y-lo.Y))
		v = Iso(k, 110-(lo.X+hi.X)/2*k, 115-(lo.Y+hi.Y)/2*k)
		for _, i := range order {
			for _, f := range sortFaces(bodies[i].Faces, v) {
				c.face(f, pattern.Vec{}, v, "plain")
			}
		}
		c.Text("t soft", "middle", 110, 243, "assembled")
	}
	wide, tall := 0.0, 0.0
	n := min(4, len(s.Panels))
	for _, p := range s.Panels[:n] {
		a, b := p.Bounds()
		wide, tall = wide+b.X-a.X, math.Max(tall, b.Y-a.Y)
	}
	k := math.Min((410-56*float64(n))/wide, 160/tall)
	x := 236.0
	for _, p := range s.Panels[:n] {
		a, b := p.Bounds()
		at := func(q pattern.Point) XY { return XY{x + (q.X-a.X)*k, 190 - (q.Y-a.Y)*k} }
		c.panel(&p, "plain", at)
		w, h := (b.X-a.X)*k, (b.Y-a.Y)*k
		c.Dim(XY{x, 190}, XY{x + w, 190}, -22, measure.Tape(b.X-a.X, false))
		c.Dim(XY{x + w, 190}, XY{x + w, 190 - h}, -20, measure.Tape(b.Y-a.Y, false))
		c.Text("t soft", "start", x, 234, fmt.Sprintf("%s, cut %d", p.Name, p.Copies))
		x += w + 56
	}
	if k := len(s.Panels) - n; k > 0 {
		c.Text("t soft", "end", 632, 250, fmt.Sprintf("and %d more parts", k))
	}
	return c.SVG("book", "The pattern", fmt.Sprintf("%d flat parts, and how they stand together.", len(s.Panels)))
}

// Sum draws what a shop calculator lays out, from its inputs in mm; "" for
// sums that have no picture.
func Sum(name string, in func(string) float64, text func(string) string) string {
	sketch := sums[name]
	if sketch == nil {
		return ""
	}
	c := New(640, 180, false)
	if !sketch(c, in, text) {
		return ""
	}
	return c.SVG("book", "A sketch of it", name)
}

// sums are the sketches by the calculator they belong to; each tells whether there is
// something to draw.
var sums = map[string]func(c *Canvas, in func(string) float64, text func(string) string) bool{
	"layers":         sketchLayers,
	"rings-at-pitch": sketchRingsAtPitch,
	"scales":         sketchScales,
	"banding":        sketchBanding,
	"armature":       sketchArmature,
	"hangers":        sketchHangers,
	"wedge":          sketchWedge,
	"hollow":         sketchHollow,
	"screen":         sketchScreen,
	"fit":            sketchFit,
	"discs-in-disc":  sketchDiscsInDisc,
	"scale":          sketchScale,
	"grid":           sketchGrid,
}

// sumFits is the scale at which so much fits a sketch.
func sumFits(w, h float64) float64 { return math.Min(560/math.Max(w, 1), 120/math.Max(h, 1)) }

func sketchLayers(c *Canvas, in func(string) float64, _ func(string) string) bool {
	n := int(math.Ceil(in("want")/in("t") - 1e-9))
	k := sumFits(in("t")*float64(n)*3, in("t")*float64(n))
	for i := range min(n, 40) {
		c.Rect("m m-plain-"+fmt.Sprint(1+i%2), 60, 150-float64(i+1)*in("t")*k, 260, in("t")*k)
	}
	c.Dim(XY{60, 150}, XY{60, 150 - in("want")*k}, -16, "wanted "+measure.Inches(in("want")))
	c.Text("t", "start", 330, 100, fmt.Sprintf("%d layers of %s", n, measure.Inches(in("t"))))
	return true
}

func sketchRingsAtPitch(c *Canvas, in func(string) float64, _ func(string) string) bool {
	k := 560 / in("height")
	c.Rect("m m-pipe-1", 40, 90-in("pole")*k/2, in("height")*k, math.Max(4, in("pole")*k))
	for x := 0.0; x <= in("height")-in("d")+1e-6; x += in("pitch") {
		c.Rect("m m-plain-2", 40+x*k, 90-(in("pole")/2+in("d"))*k, math.Max(1.5, in("d")*k), (in("pole")+2*in("d"))*k)
	}
	c.Dim(XY{40, 110}, XY{40 + in("pitch")*k, 110}, -24, measure.Inches(in("pitch")))
	return true
}

func sketchScales(c *Canvas, in func(string) float64, _ func(string) string) bool {
	k := sumFits(in("w"), in("h"))
	rows := int(math.Ceil((in("h")-in("tall"))/in("show")-1e-9)) + 1
	c.Rect("idea", 40, 20, in("w")*k, in("h")*k)
	for r := range min(rows, 30) { // the upper rows lie over the lower
		y := 20 + in("h")*k - in("tall")*k - float64(r)*in("show")*k
		off := 0.0
		if r%2 == 1 {
			off = -in("wide") / 2
		}
		for x := off; x < in("w") && r < 30; x += in("wide") {
			l, w := 40+x*k, in("wide")*k
			c.f(
				`<path class="m m-plain-1" d="M%s %sV%sq%s %s %s 0V%sZ"/>`,
				n(l),
				n(y),
				n(y+in("tall")*k*.6),
				n(w/2),
				n(in("tall")*k*.8),
				n(w),
				n(y),
			)
		}
	}
	c.Text("t", "start", 50+in("w")*k, 60, fmt.Sprintf("%d rows, %s showing", rows, measure.Inches(in("show"))))
	return true
}

func sketchBanding(c *Canvas, in func(string) float64, text func(string) string) bool {
	k := sumFits(in("w")+2*in("t"), in("d")+2*in("t"))
	t := math.Max(5, in("t")*k)
	w, d := in("w")*k, in("d")*k
	c.Rect("m m-plain-1", 60, 30, w, d)
	if text("joint") == "mitre" {
		c.Poly("m m-wood-2", []XY{{60 - t, 30 - t}, {60 + w + t, 30 - t}, {60 + w, 30}, {60, 30}})
		c.Poly("m m-wood-2", []XY{{60 - t, 30 + d + t}, {60 + w + t, 30 + d + t}, {60 + w, 30 + d}, {60, 30 + d}})
		c.Poly("m m-wood-3", []XY{{60 - t, 30 - t}, {60, 30}, {60, 30 + d}, {60 - t, 30 + d + t}})
		c.Poly("m m-wood-3", []XY{{60 + w + t, 30 - t}, {60 + w, 30}, {60 + w, 30 + d}, {60 + w + t, 30 + d + t}})
	} else {
		c.Rect("m m-wood-2", 60-t, 30-t, w+2*t, t)
		c.Rect("m m-wood-2", 60-t, 30+d, w+2*t, t)
		c.Rect("m m-wood-3", 60-t, 30, t, d)
		c.Rect("m m-wood-3", 60+w, 30, t, d)
	}
	c.Text("t", "start", 80+w+t, 60, text("joint")+" corners")
	return true
}

func sketchArmature(c *Canvas, in func(string) float64, _ func(string) string) bool {
	var a, b []XY
	for x := 0.0; x <= 520; x += 3 {
		s := math.Sin(x / 520 * in("path") / in("pitch") * 2 * math.Pi)
		a, b = append(a, XY{50 + x, 90 + 9*s}), append(b, XY{50 + x, 90 - 9*s})
	}
	c.Open("glue", a)
	c.Open("scribe", b)
	c.Dim(XY{50, 105}, XY{570, 105}, -16, measure.Inches(in("path"))+" along")
	return true
}

func sketchHangers(c *Canvas, in func(string) float64, _ func(string) string) bool {
	k := 560 / in("length")
	c.Rect("m m-wood-1", 40, 90, 560, 14)
	cnt := int(in("n"))
	for i := range cnt {
		x := in("length") / 2
		if cnt > 1 {
			x = in("inset") + (in("length")-2*in("inset"))*float64(i)/float64(cnt-1)
		}
		c.Line("scribe", 40+x*k, 30, 40+x*k, 90)
		c.Rect("splice", 37+x*k, 86, 6, 8)
	}
	if cnt > 1 {
		gap := (in("length") - 2*in("inset")) / float64(cnt-1)
		c.Dim(XY{40 + in("inset")*k, 108}, XY{40 + (in("inset")+gap)*k, 108}, -18, measure.Inches(gap))
	}
	return true
}

func sketchWedge(c *Canvas, in func(string) float64, _ func(string) string) bool {
	h := in("base") * in("rise") / in("run")
	c.Poly("m m-wood-1", []XY{{60, 140}, {500, 140}, {500, 140 - 440*math.Min(.25, h/in("base"))}})
	c.Line("ground", 40, 140, 540, 140)
	c.Dim(XY{500, 140}, XY{500, 140 - 440*math.Min(.25, h/in("base"))}, -16, measure.Inches(h))
	c.Dim(XY{60, 140}, XY{500, 140}, -16, measure.Inches(in("base")))
	return true
}

func sketchHollow(c *Canvas, in func(string) float64, _ func(string) string) bool {
	k := 110 / in("thick")
	d := in("depth") * k
	c.Poly(
		"m m-foam-2",
		[]XY{
			{60, 30},
			{60 + in("edge")*k, 30},
			{60 + in("edge")*k, 30 + d},
			{360, 30 + d},
			{360, 30},
			{480, 30},
			{480, 140},
			{60, 140},
		},
	)
	c.Dim(XY{480, 140}, XY{480, 30}, -16, measure.Inches(in("thick")))
	c.Text("t", "start", 70+in("edge")*k, 30+d-8, "pocket "+measure.Inches(in("depth"))+" deep")
	under := measure.Inches(in("thick") - in("depth"))
	c.Text("t soft", "start", 62, 158, "edge "+measure.Inches(in("edge"))+", "+under+" stays under it")
	return true
}

func sketchScreen(c *Canvas, in func(string) float64, text func(string) string) bool {
	a, b := 16.0, 9.0
	fmt.Sscanf(text("aspect"), "%g:%g", &a, &b)
	if text("way") == "portrait" {
		a, b = b, a
	}
	l := math.Hypot(a, b)
	w, h := in("diagonal")*a/l, in("diagonal")*b/l
	k := sumFits(w, h)
	c.Rect("m m-plain-3", 50, 20, w*k, h*k)
	c.Line("scribe", 50, 20, 50+w*k, 20+h*k)
	c.Dim(XY{50, 20 + h*k}, XY{50 + w*k, 20 + h*k}, -14, measure.Inches(w))
	c.Dim(XY{50 + w*k, 20 + h*k}, XY{50 + w*k, 20}, -14, measure.Inches(h))
	return true
}

func sketchFit(c *Canvas, in func(string) float64, text func(string) string) bool {
	c.f(
		`<circle class="m m-plain-2" cx="120" cy="85" r="62"/><circle class="cut paper" cx="120" cy="85" r="46"/><circle class="m m-foam-1" cx="300" cy="85" r="%s"/>`,
		n(map[bool]float64{true: 48, false: 43}[text("kind") == "press"]),
	)
	c.Text("t", "middle", 120, 165, "hole "+measure.Inches(in("hole")))
	c.Text("t", "middle", 300, 165, "plug, "+text("kind")+" fit")
	return true
}

func sketchDiscsInDisc(c *Canvas, in func(string) float64, _ func(string) string) bool {
	cnt := int(in("n"))
	holder := pattern.DiscPlaces(cnt)
	if holder == nil {
		return false
	}
	r := 0.0
	for _, p := range holder {
		r = math.Max(r, math.Hypot(p.X, p.Y)+1)
	}
	k := 80 / r
	c.f(`<circle class="m m-plain-1" cx="120" cy="90" r="%s"/>`, n(80))
	for _, p := range holder {
		c.f(`<circle class="m m-plain-3" cx="%s" cy="%s" r="%s"/>`, n(120+p.X*k), n(90+p.Y*k), n(k))
	}
	return true
}

func sketchScale(c *Canvas, in func(string) float64, _ func(string) string) bool {
	k := 300 / math.Max(in("known"), 1)
	c.Line("dim", 40, 60, 40+in("known")*k, 60)
	c.Dim(XY{40, 60}, XY{40 + in("known")*k, 60}, 10, "known, "+measure.Inches(in("known")))
	o := in("other") * in("known") / in("ref")
	c.Dim(XY{40, 120}, XY{40 + math.Min(560, o*k), 120}, 10, measure.Inches(o))
	return true
}

func sketchGrid(c *Canvas, in func(string) float64, _ func(string) string) bool {
	for i := range 7 {
		c.Line("scribe", 40+float64(i)*14, 40, 40+float64(i)*14, 124)
		c.Line("scribe", 40, 40+float64(i)*14, 124, 40+float64(i)*14)
		c.Line("scribe", 240+float64(i)*24, 10, 240+float64(i)*24, 154)
		c.Line("scribe", 240, 10+float64(i)*24, 384, 10+float64(i)*24)
	}
	leaf := [][2]float64{{.5, .05}, {.8, .4}, {.7, .75}, {.5, .95}, {.3, .75}, {.2, .4}}
	var a, b []XY
	for _, p := range leaf {
		a, b = append(a, XY{40 + p[0]*84, 40 + p[1]*84}), append(b, XY{240 + p[0]*144, 10 + p[1]*144})
	}
	c.Poly("inside", a)
	c.Poly("inside", b)
	c.Text("t", "start", 40, 150, measure.Inches(in("square")))
	c.Text("t", "start", 396, 84, measure.Inches(in("square")*in("known")/in("ref"))+" a square")
	return true
}
