package draw

import (
	"fmt"
	"math"
	"sort"
	"strconv"

	"zapbarn/core/cutting"
	"zapbarn/core/measure"
	"zapbarn/core/pattern"
	"zapbarn/core/work"
	"zapbarn/formats"
)

// Parts draws the picked part: where it is in the prop, its flat pattern with
// marks, its edge cut across, and its place on the sheet.
func Parts(w *work.Work, part *work.Part, href func(string) string) string {
	c := New(986, 520, w.Plan.Metric())
	p := part.Panel
	lo, hi := p.Bounds()
	pw, ph := hi.X-lo.X, hi.Y-lo.Y
	ilo, ihi := boxIn(w, part.Solid.Prop, Iso(1, 0, 0))
	small := math.Min(250/(ihi.X-ilo.X), 380/(ihi.Y-ilo.Y))
	scale := math.Min(330/pw, 360/ph)
	x0, y0 := TapeSize+44+math.Max(0, (330-pw*scale)/2), 84+(360-ph*scale)/2
	c.Tape(scale, x0, y0+ph*scale, true)
	c.Prop(w, part.Solid.Prop, Iso(small, 620-(ilo.X+ihi.X)*small/2, 290-(ilo.Y+ihi.Y)*small/2), "part:"+part.Ref, href)
	c.Text("t soft", "middle", 620, 498, "where it goes")
	at := func(q pattern.Point) XY { return XY{x0 + (q.X-lo.X)*scale, y0 + (hi.Y-q.Y)*scale} }
	m := w.Lib.Materials[part.Solid.Stock]
	c.Text("t lbl", "start", TapeSize+14, 46, part.Name())
	about := fmt.Sprintf("%s, cut %d, no. %d of %d", m.Name, p.Copies, part.No, part.Of)
	if p.Hand != "" {
		about += ", " + p.Hand + " of a pair"
	}
	if m.Grain != "" && p.Grain == "up" {
		about += ", " + map[string]string{"wood": "grain", "flutes": "flutes"}[m.Grain] + " up"
	}
	c.Text("t soft", "start", TapeSize+14, 64, about)
	c.panel(&p, m.Texture, at)
	c.openings(part, at, scale)
	for i, e := range p.Edges {
		a, b := at(p.Outline[i]), at(p.Outline[(i+1)%len(p.Outline)])
		if e.Depth > 0 {
			q, r := p.Inward(i, e.Width)
			qa, ra := at(q), at(r)
			c.Poly("rabbet", []XY{a, b, ra, qa})
		}
	}
	c.Dim(XY{x0, y0 + ph*scale}, XY{x0 + pw*scale, y0 + ph*scale}, -20, w.Len(pw))
	c.Dim(XY{x0 + pw*scale, y0 + ph*scale}, XY{x0 + pw*scale, y0}, -20, w.Len(ph))
	if p.Round == 0 && len(p.Outline) == 4 { // a trapezoid's other side
		top := at(p.Outline[3])
		if l := p.Outline[2].X - p.Outline[3].X; math.Abs(l-pw) > 0.5 && l*scale > 26 {
			off := 10. // inside the part where the caption stands above it
			if says := (label{text: about}).wide(); top.Y < 96 && top.X < TapeSize+14+says && ph*scale > 90 {
				off = -16
			}
			c.Dim(top, at(p.Outline[2]), off, w.Len(l))
		}
	}
	mid := XY{x0 + pw*scale/2, y0 + ph*scale/2}
	if p.Bore > 0 {
		mid.Y -= (p.Round + p.Bore) / 4 * scale
	} else {
		for _, k := range []float64{.5, .7, .3, .82, .18} { // clear of the holes
			try := pattern.Point{X: (lo.X + hi.X) / 2, Y: lo.Y + ph*k}
			hit := narrowAt(p, try.Y)*scale <= 76
			rings := p.Holes
			for _, k := range p.Pockets {
				rings = append(rings[:len(rings):len(rings)], k.Ring)
			}
			for _, h := range rings {
				hlo, hhi := pattern.Panel{Outline: h}.Bounds()
				hit = hit || hlo.X < try.X+50/scale && hhi.X > try.X-50/scale && hlo.Y < try.Y+24/scale && hhi.Y > try.Y-24/scale
			}
			if !hit {
				mid.Y = y0 + ph*scale*(1-k)
				break
			}
		}
	}
	face, up := part.Face()
	if room := narrowAt(p, hi.Y-(mid.Y-y0)/scale) * scale; room > 76 && ph*scale > 46 {
		c.Text("t lbl", "middle", mid.X, mid.Y-12, face)
		c.Open("up", []XY{{mid.X, mid.Y + 20}, {mid.X, mid.Y - 4}})
		c.Open("up", []XY{{mid.X - 6, mid.Y + 4}, {mid.X, mid.Y - 5}, {mid.X + 6, mid.Y + 4}})
		c.Text("t", "start", mid.X+9, mid.Y+16, up)
	} else {
		c.Text("t lbl", "start", x0+pw*scale+44, mid.Y, face+", as drawn")
	}
	c.section(w, part, 770, 46)
	c.sheetOf(w, part, 770, 236)
	return c.SVG(
		"parts",
		part.Name()+", flat pattern",
		fmt.Sprintf(
			"Flat pattern of %s, %s by %s, with its edge cut across and its place on the sheet.",
			part.Name(),
			w.Len(pw),
			w.Len(ph),
		),
	)
}

// openings lays something to take hold of over each opening of a part.
func (c *Canvas) openings(part *work.Part, at func(pattern.Point) XY, scale float64) {
	lo, hi := part.Panel.Bounds()
	step := measure.Inch / 4
	if c.Metric {
		step = 5
	}
	for k, o := range part.Solid.Openings {
		w, h := o.W.Value(), o.H.Value()
		if h == 0 {
			h = w
		}
		if w == 0 { // letters, as wide as they come
			w = h
		}
		if o.Face != part.Panel.ID || part.Panel.Hand == "right" {
			continue
		}
		m := at(pattern.Point{X: (lo.X+hi.X)/2 + o.X.Value(), Y: lo.Y + o.Y.Value()})
		name := o.Name
		if name == "" {
			name = o.Kind
		}
		c.f(
			`<g class="opening" tabindex="0" role="button" data-solid="%s" data-opening="%d" data-scale="%s" data-step="%s" `+
				`aria-label="%s: drag it, or move it with the arrow keys">`,
			esc(part.Solid.ID), k, fmt.Sprint(scale), fmt.Sprint(step), esc(name),
		)
		c.Rect("touch", m.X-w*scale/2-3, m.Y-h*scale/2-3, w*scale+6, h*scale+6)
		c.f(`</g>`)
	}
}

// narrowAt is the outside face's width at a height.
func narrowAt(p pattern.Panel, y float64) float64 {
	var xs []float64
	for i, a := range p.Outline {
		b := p.Outline[(i+1)%len(p.Outline)]
		if (a.Y-y)*(b.Y-y) < 0 {
			xs = append(xs, a.X+(b.X-a.X)*(y-a.Y)/(b.Y-a.Y))
		}
	}
	if len(xs) < 2 {
		return 0
	}
	return math.Abs(xs[1]-xs[0]) - p.Bore
}

// section draws the part's joined edge cut across, and what it meets.
func (c *Canvas) section(w *work.Work, part *work.Part, x, y float64) {
	var edge *pattern.Edge
	for i := range part.Panel.Edges {
		if e := &part.Panel.Edges[i]; e.Joint != "" && (edge == nil || edge.Joint == "level" || e.Name == "seam") {
			edge = e
		}
	}
	if edge == nil && part.Panel.Bevel > 0 {
		edge = &pattern.Edge{Joint: "mitre", Tilt: part.Panel.Bevel}
	}
	c.Text("t lbl", "start", x, y, "Edge, cut across")
	m := w.Lib.Materials[part.Solid.Stock]
	t := part.Panel.Thick
	u := 34 / t // px per mm in this detail
	face := "m m-" + m.Texture + "-2"
	other := "m m-" + m.Texture + "-1"
	glue := ""
	for _, j := range w.Plan.Joints {
		if j.A == part.Ref || j.B == part.Ref {
			glue = w.Lib.Glues[j.Glue].Name
		}
	}
	px, py := x, y+14
	if edge == nil {
		c.Poly(face, []XY{{px, py}, {px + 120, py}, {px + 120, py + 34}, {px, py + 34}})
		c.Text("t", "start", px+128, py+22, "square, "+w.Len(t))
		return
	}
	switch edge.Joint {
	case "rabbet":
		d := edge.Depth * u
		c.Poly(
			face,
			[]XY{
				{px, py},
				{px + 114, py},
				{px + 114, py + 34 - d},
				{px + 80, py + 34 - d},
				{px + 80, py + 34},
				{px, py + 34},
			},
		)
		c.Poly(other, []XY{{px + 80, py + 34 - d}, {px + 114, py + 34 - d}, {px + 114, py + 92}, {px + 80, py + 92}})
		c.Open("glue", []XY{{px + 80, py + 34}, {px + 80, py + 34 - d}, {px + 114, py + 34 - d}})
		c.Text("t", "end", px+74, py+58, "rabbet "+w.Len(edge.Width))
		c.Text("t", "end", px+74, py+73, "x "+w.Len(edge.Depth)+" deep")
	case "butt":
		c.Poly(face, []XY{{px, py}, {px + 114, py}, {px + 114, py + 34}, {px, py + 34}})
		c.Poly(other, []XY{{px + 80, py + 34}, {px + 114, py + 34}, {px + 114, py + 92}, {px + 80, py + 92}})
		c.Open("glue", []XY{{px + 80, py + 34}, {px + 114, py + 34}})
		c.Text("t", "end", px+74, py+62, "butt")
	case "half-lap":
		lap := math.Min(60, math.Max(24, edge.Width*u*.4)) // along, not to scale
		mid := 17.0
		c.Poly(
			face,
			[]XY{
				{px, py},
				{px + 70, py},
				{px + 70, py + mid},
				{px + 70 + lap, py + mid},
				{px + 70 + lap, py + 34},
				{px, py + 34},
			},
		)
		c.Poly(
			other,
			[]XY{
				{px + 70, py},
				{px + 190, py},
				{px + 190, py + 34},
				{px + 70 + lap, py + 34},
				{px + 70 + lap, py + mid},
				{px + 70, py + mid},
			},
		)
		c.Open("glue", []XY{{px + 70, py}, {px + 70, py + mid}, {px + 70 + lap, py + mid}, {px + 70 + lap, py + 34}})
		c.Text("t", "start", px, py+58, "half-lap of "+w.Len(edge.Width))
		c.Text("t", "start", px, py+73, "each loses "+w.Len(edge.Depth))
	default: // mitre or level
		r := edge.Tilt * math.Pi / 180
		back := 34 * math.Tan(r)
		c.Poly(face, []XY{{px, py}, {px + 110, py}, {px + 110 - back, py + 34}, {px, py + 34}})
		if edge.Joint == "mitre" {
			// the neighbour: the same part turned about the corner
			turn := math.Pi - 2*(math.Pi/2-r)
			rot := func(q XY) XY {
				dx, dy := q.X-(px+110), q.Y-py
				s, k := math.Sincos(turn)
				return XY{px + 110 + dx*k - dy*s, py + dx*s + dy*k}
			}
			mirror := func(q XY) XY { return rot(XY{2*(px+110) - q.X, q.Y}) }
			c.Poly(
				other,
				[]XY{
					mirror(XY{px + 40, py}),
					mirror(XY{px + 110, py}),
					mirror(XY{px + 110 - back, py + 34}),
					mirror(XY{px + 40, py + 34}),
				},
			)
			c.Open("glue", []XY{{px + 110, py}, {px + 110 - back, py + 34}})
		}
		c.Text(
			"t halo2",
			"start",
			px,
			py+(map[bool]float64{true: 128, false: 54})[edge.Joint == "mitre"],
			"blade tilt "+measure.Degrees(math.Abs(edge.Tilt)),
		)
		if part.Panel.CutAngle > 0.05 {
			c.Text("t", "start", px, py+144, "cut angle "+measure.Degrees(part.Panel.CutAngle)+" on the face")
		}
	}
	if glue != "" {
		c.Text("t glued", "start", px, py+112, glue)
	} else if edge.Joint != "level" {
		c.Text("t soft", "start", px, py+112, "no glue chosen")
	}
}

// sheetOf draws the sheet the part lies on, small.
func (c *Canvas) sheetOf(w *work.Work, part *work.Part, x, y float64) {
	for _, s := range w.Sheets {
		for k, sh := range s.Layout.Sheets {
			for _, q := range sh.Placed {
				if s.Pieces[q.Part].Ref != part.Ref {
					continue
				}
				name := w.Called(s, k)
				c.Text("t lbl", "start", x, y+12, measure.Capital(name)+", "+w.Len(sh.Stock.W)+" x "+w.Len(sh.Stock.H))
				sc := math.Min(180/sh.Stock.H, 120/sh.Stock.W)
				c.sheet(w, s, k, x, y+22, sc, "part:"+part.Ref, part.Solid.Prop, nil)
				c.Text(
					"t",
					"start",
					x,
					y+22+sh.Stock.H*sc+16,
					w.Results.At("stock", s.Stock.ID, "yield").Text+" of the sheets used",
				)
				return
			}
		}
	}
}

// sheet draws one sheet with its parts. With href it can be worked on: each
// piece is a link that can be dragged, and says where it lies.
func (c *Canvas) sheet(
	w *work.Work,
	s *cutting.Sheets,
	index int,
	x, y, sc float64,
	sel, prop string,
	href func(string) string,
) {
	sh := s.Layout.Sheets[index]
	at := func(px, py float64) XY { return XY{x + px*sc, y + (sh.Stock.H-py)*sc} }
	cut := index < s.Cut
	if href != nil {
		c.f(
			`<g data-sheet="%d" data-stock="%s" data-x="%s" data-y="%s" data-sc="%s" data-w="%s" data-h="%s"%s>`,
			index,
			esc(s.Stock.ID),
			n(x),
			n(y),
			strconv.FormatFloat(sc, 'f', 6, 64),
			n(sh.Stock.W),
			n(sh.Stock.H),
			map[bool]string{true: ` data-cut="1"`}[cut],
		)
		defer c.f(`</g>`)
	}
	c.Rect("sheet", x, y, sh.Stock.W*sc, sh.Stock.H*sc)
	if s.Stock.Grain != "" { // which way it runs
		c.Open("up", []XY{{x + sh.Stock.W*sc - 8, y + 26}, {x + sh.Stock.W*sc - 8, y + 8}})
		c.Open(
			"up",
			[]XY{{x + sh.Stock.W*sc - 11, y + 13}, {x + sh.Stock.W*sc - 8, y + 8}, {x + sh.Stock.W*sc - 5, y + 13}},
		)
	}
	for _, o := range sh.Offcuts {
		p, q := at(o.X, o.Y+o.H), at(o.X+o.W, o.Y)
		c.Rect("offcut", p.X, p.Y, q.X-p.X, q.Y-p.Y)
		if href != nil {
			label := w.Len(o.W) + " x " + w.Len(o.H)
			need := float64(len(label)) * 6.6
			switch {
			case q.X-p.X > need && q.Y-p.Y > 16:
				c.Text("t soft", "middle", (p.X+q.X)/2, (p.Y+q.Y)/2+4, label)
			case q.Y-p.Y > need && q.X-p.X > 16:
				c.TextAt("t soft", (p.X+q.X)/2+4, (p.Y+q.Y)/2, -90, label)
			}
		}
	}
	for _, q := range sh.Placed {
		part := w.Part(s.Pieces[q.Part].Ref)
		key := "part:" + part.Ref
		box := s.Boxes[q.Part]
		rings, mid := formats.OnSheet(part.Panel, box.W, box.H, q.X, q.Y, q.Turned, q.Flip)
		if href != nil {
			label := fmt.Sprintf("%d %s, copy %d", part.No, part.Name(), s.Pieces[q.Part].Copy+1)
			if s.Locked[q.Part] {
				label += ", laid by hand"
			}
			if !cut {
				c.move = fmt.Sprintf(
					` data-piece="%d" data-px="%s" data-py="%s" data-pw="%s" data-ph="%s" data-turned="%t" data-flip="%t" data-turn="%t" data-locked="%t"`,
					q.Part,
					n(q.X),
					n(q.Y),
					n(box.W),
					n(box.H),
					q.Turned,
					q.Flip,
					box.Turn,
					s.Locked[q.Part],
				)
			}
			c.Pick(href(key), key, label, key == sel)
			c.move = ""
		}
		class := "cut m-" + s.Stock.Texture + "-1"
		if key == sel && href == nil {
			class = "cut picked"
		}
		mine := part.Solid.Prop == prop
		if !mine && class != "cut picked" {
			class += " other"
		}
		for i, ring := range rings {
			ps := make([]XY, len(ring))
			for k := range ring {
				ps[k] = at(ring[k].X, ring[k].Y)
			}
			if i > 0 {
				class = "cut paper"
			}
			c.Poly(class, ps)
		}
		centre := at(mid.X, mid.Y)
		if part.Panel.Bore > 0 {
			c.f(`<circle class="cut paper" cx="%s" cy="%s" r="%s"/>`, n(centre.X), n(centre.Y), n(part.Panel.Bore/2*sc))
			centre.Y -= (part.Panel.Round + part.Panel.Bore) / 4 * sc
		}
		if href != nil {
			if mine && (part.Panel.Bore == 0 || (part.Panel.Round-part.Panel.Bore)/2*sc > 13) {
				c.Text("t lbl", "middle", centre.X, centre.Y+4, fmt.Sprint(part.No))
			}
			if s.Locked[q.Part] { // a nail holds it
				c.f(
					`<g class="nail"><circle cx="%s" cy="%s" r="5"/><circle class="head" cx="%s" cy="%s" r="1.6"/></g>`,
					n(centre.X+12),
					n(centre.Y-8),
					n(centre.X+12),
					n(centre.Y-8),
				)
			}
			c.Done()
		}
	}
	if cut && href != nil {
		p := at(sh.Stock.W/2, sh.Stock.H/2)
		c.TextAt("stamp", p.X, p.Y, -35, "CUT")
	}
}

// Sheets draws every sheet, those of the prop's own stocks first, then every
// pipe length.
func Sheets(w *work.Work, prop, sel string, href func(string) string) string {
	const wide = 986.0
	c := New(wide, 0, w.Plan.Metric())
	count := 0
	for _, s := range w.Sheets {
		count += len(s.Layout.Sheets)
	}
	sc := 0.12 // px per mm: a 4 x 8 ft sheet is 146 x 293
	if count <= 8 {
		sc = 0.155
	}
	x, y, rowH := 24.0, 40.0, 0.0
	sheets := append([]*cutting.Sheets(nil), w.Sheets...)
	mine := func(s *cutting.Sheets) bool {
		for _, pc := range s.Pieces {
			if w.Part(pc.Ref).Solid.Prop == prop {
				return true
			}
		}
		return false
	}
	sort.SliceStable(sheets, func(i, j int) bool { return mine(sheets[i]) && !mine(sheets[j]) }) // this prop's first
	for _, s := range sheets {
		scale := sc
		if s.Stock.Sheet[1].Value() < 1000 {
			scale = sc * 2
		}
		for k, sh := range s.Layout.Sheets {
			cw := math.Max(sh.Stock.W*scale, 130)
			if x+cw > wide-16 {
				x, y, rowH = 24, y+rowH+58, 0
			}
			c.Text("t lbl", "start", x, y-6, s.Stock.Name)
			c.sheet(w, s, k, x, y, scale, sel, prop, href)
			c.Text("t", "start", x, y+sh.Stock.H*scale+16, w.Called(s, k))
			x += cw + 18
			rowH = math.Max(rowH, sh.Stock.H*scale)
		}
	}
	if rowH > 0 {
		y += rowH + 52
	}
	c.pipes(w, wide, y)
	if len(w.Sheets)+len(w.Bars) == 0 {
		c.Text("t soft", "middle", wide/2, 150, "No parts yet, so nothing to lay out. Type a solid in the quick line.")
	}
	return c.SVG(
		"sheets",
		"All stock laid out",
		fmt.Sprintf("%d kinds of sheet and %d of pipe with every part in place.", len(w.Sheets), len(w.Bars)),
	)
}

// SheetsOf draws the sheets of one stock in a row, small: what a search has
// found so far.
func SheetsOf(w *work.Work, s *cutting.Sheets, prop string) string {
	c := New(986, 0, w.Plan.Metric())
	x, h := 24.0, 0.0
	sc := 0.155
	wide := 0.0
	for _, sh := range s.Layout.Sheets {
		wide += sh.Stock.W + 60
	}
	sc = math.Min(sc, 940/wide)
	for k, sh := range s.Layout.Sheets {
		c.sheet(w, s, k, x, 8, sc, "", prop, nil)
		x += sh.Stock.W*sc + 60*sc
		h = math.Max(h, sh.Stock.H*sc)
	}
	c.H = h + 16
	return c.SVG("sheets", s.Stock.Name+", its sheets", "")
}

// pipes draws every pipe length from y down.
func (c *Canvas) pipes(w *work.Work, wide, y float64) {
	for _, b := range w.Bars {
		full := b.Stock.Length.Value()
		c.Text("t lbl", "start", 24, y, b.Stock.Name)
		note := fmt.Sprintf("%d lengths of %s, proven least", len(b.Cutting.Bars), b.Stock.Length)
		if !b.Cutting.Proven {
			note = fmt.Sprintf("%d lengths of %s, at least %d needed", len(b.Cutting.Bars), b.Stock.Length, b.Cutting.Bound)
		}
		c.Text("t soft", "start", 200, y, note)
		y += 8
		for _, bar := range b.Cutting.Bars {
			px := 24.0
			c.Rect("sheet", px, y, wide-48, 20)
			for _, piece := range bar.Pieces {
				pw := piece / full * (wide - 48)
				c.Rect("cut m-pipe-1", px, y, pw, 20)
				c.Line("shine", px+2, y+5, px+pw-2, y+5)
				if l := (label{class: "t", text: w.Len(piece)}); l.wide() < pw-2 {
					c.Text("t", "middle", px+pw/2, y+15, l.text)
				}
				px += pw + w.Plan.Kerf()/full*(wide-48)
			}
			if bar.Left > full*0.06 {
				c.Text("t soft", "end", wide-30, y+15, w.Len(bar.Left)+" left")
			}
			y += 26
		}
		y += 16
	}
	c.H = math.Max(y, 300)
}

// panel draws a flat part as it is cut: its outline, holes and bore, the lines
// of its inner face and the marks scribed on it.
func (c *Canvas) panel(p *pattern.Panel, texture string, at func(pattern.Point) XY) {
	ring := func(r []pattern.Point) []XY {
		out := make([]XY, len(r))
		for i := range r {
			out[i] = at(r[i])
		}
		return out
	}
	c.Poly("cut m-"+texture+"-1", ring(p.Outline))
	for _, h := range p.Holes {
		c.Poly("cut paper", ring(h))
	}
	for _, k := range p.Pockets {
		c.Poly("pocket", ring(k.Ring))
	}
	if p.Bore > 0 {
		c.Poly("cut paper", ring(pattern.Circle(p.Round/2, p.Round/2, p.Bore)))
	}
	if p.Inside != nil {
		c.Poly("inside", ring(p.Inside))
	}
	for _, m := range p.Marks {
		q, r := at(m[0]), at(m[1])
		c.Line("scribe", q.X, q.Y, r.X, r.Y)
	}
}
