package draw

import (
	"fmt"
	"math"
	"slices"
	"sort"
	"strconv"

	"zapbarn/core/cutting"
	"zapbarn/core/measure"
	"zapbarn/core/nest"
	"zapbarn/core/pattern"
	"zapbarn/core/stock"
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
	c.Prop(
		w,
		part.Solid.Prop,
		Iso(small, 620-(ilo.X+ihi.X)*small/2, 290-(ilo.Y+ihi.Y)*small/2),
		"part:"+part.Ref,
		href,
	)
	c.Text("t soft", "middle", 620, 498, "where it goes")
	at := func(q pattern.Point) XY { return XY{x0 + (q.X-lo.X)*scale, y0 + (hi.Y-q.Y)*scale} }
	m := w.Lib.Materials[part.Solid.Stock]
	c.Text("t lbl", "start", TapeSize+14, 46, part.Name())
	about := partAbout(part, m)
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
	c.faced(part, at(lo), scale)
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

// partAbout is what a part is cut from, how often, and how its grain runs.
func partAbout(part *work.Part, m stock.Material) string {
	p := &part.Panel
	about := fmt.Sprintf("%s, cut %d, no. %d of %d", m.Name, p.Copies, part.No, part.Of)
	if p.Hand != "" {
		about += ", " + p.Hand + " of a pair"
	}
	if m.Grain != "" && p.Grain == "up" {
		about += ", " + map[string]string{"wood": "grain", "flutes": "flutes"}[m.Grain] + " up"
	}
	return about
}

// faced says on a part, whose lower left corner is given, which face is drawn and where its
// upper edge points: in its middle, clear of its holes; beside it where there is no room.
func (c *Canvas) faced(part *work.Part, corner XY, scale float64) {
	p := part.Panel
	lo, hi := p.Bounds()
	pw, ph := hi.X-lo.X, hi.Y-lo.Y
	up := .5 // of its height
	if p.Bore == 0 {
		up = clearOf(p, scale)
	}
	mid := XY{corner.X + pw*scale/2, corner.Y - ph*scale*up}
	if p.Bore > 0 {
		mid.Y -= (p.Round + p.Bore) / 4 * scale
	}
	face, points := part.Face()
	if room := narrowAt(p, lo.Y+(corner.Y-mid.Y)/scale) * scale; room > 76 && ph*scale > 46 {
		c.Text("t lbl", "middle", mid.X, mid.Y-12, face)
		c.Open("up", []XY{{mid.X, mid.Y + 20}, {mid.X, mid.Y - 4}})
		c.Open("up", []XY{{mid.X - 6, mid.Y + 4}, {mid.X, mid.Y - 5}, {mid.X + 6, mid.Y + 4}})
		c.Text("t", "start", mid.X+9, mid.Y+16, points)
	} else {
		c.Text("t lbl", "start", corner.X+pw*scale+44, mid.Y, face+", as drawn")
	}
}

// clearOf is how far up a panel, as a share, words stand clear of its holes and pockets;
// the middle where they stand nowhere.
func clearOf(p pattern.Panel, scale float64) float64 {
	lo, hi := p.Bounds()
	rings := slices.Clone(p.Holes)
	for _, k := range p.Pockets {
		rings = append(rings, k.Ring)
	}
	for _, up := range []float64{.5, .7, .3, .82, .18} {
		try := pattern.Point{X: (lo.X + hi.X) / 2, Y: lo.Y + (hi.Y-lo.Y)*up}
		hit := narrowAt(p, try.Y)*scale <= 76
		for _, h := range rings {
			hlo, hhi := pattern.Panel{Outline: h}.Bounds()
			hit = hit ||
				hlo.X < try.X+50/scale && hhi.X > try.X-50/scale && hlo.Y < try.Y+24/scale && hhi.Y > try.Y-24/scale
		}
		if !hit {
			return up
		}
	}
	return .5
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
			esc(part.Solid.ID),
			k,
			fmt.Sprint(scale),
			fmt.Sprint(step),
			esc(name),
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
	c.Text("t lbl", "start", x, y, "Edge, cut across")
	texture := w.Lib.Materials[part.Solid.Stock].Texture
	e := &edgePen{
		c, w, part, shownEdge(part), x, y + 14, 34 / part.Panel.Thick, "m m-" + texture + "-2", "m m-" + texture + "-1",
	}
	if e.edge == nil {
		c.Poly(e.face, []XY{{e.x, e.y}, {e.x + 120, e.y}, {e.x + 120, e.y + 34}, {e.x, e.y + 34}})
		c.Text("t", "start", e.x+128, e.y+22, "square, "+w.Len(part.Panel.Thick))
		return
	}
	switch e.edge.Joint {
	case "rabbet":
		e.rabbet()
	case "butt":
		e.butt()
	case "half-lap":
		e.halfLap()
	default: // mitre or level
		e.mitre()
	}
	glue := ""
	for _, j := range w.Plan.Joints() {
		if j.A == part.Ref || j.B == part.Ref {
			glue = w.Lib.Glues[j.Glue].Name
		}
	}
	if glue != "" {
		c.Text("t glued", "start", e.x, e.y+112, glue)
	} else if e.edge.Joint != "level" {
		c.Text("t soft", "start", e.x, e.y+112, "no glue chosen")
	}
}

// shownEdge is the edge of a part that says most of how it is joined, or nil.
func shownEdge(part *work.Part) (edge *pattern.Edge) {
	for i := range part.Panel.Edges {
		if e := &part.Panel.Edges[i]; e.Joint != "" && (edge == nil || edge.Joint == "level" || e.Name == "seam") {
			edge = e
		}
	}
	if edge == nil && part.Panel.Bevel > 0 {
		edge = &pattern.Edge{Joint: "mitre", Tilt: part.Panel.Bevel}
	}
	return edge
}

// edgePen draws an edge cut across, from a corner on, so many px a mm.
type edgePen struct {
	*Canvas
	w           *work.Work
	part        *work.Part
	edge        *pattern.Edge
	x, y, u     float64
	face, other string
}

// at are points from the corner on.
func (e *edgePen) at(points ...XY) []XY {
	for i := range points {
		points[i].X, points[i].Y = points[i].X+e.x, points[i].Y+e.y
	}
	return points
}

func (e *edgePen) rabbet() {
	d := 34 - e.edge.Depth*e.u
	e.Poly(e.face, e.at(XY{0, 0}, XY{114, 0}, XY{114, d}, XY{80, d}, XY{80, 34}, XY{0, 34}))
	e.Poly(e.other, e.at(XY{80, d}, XY{114, d}, XY{114, 92}, XY{80, 92}))
	e.Open("glue", e.at(XY{80, 34}, XY{80, d}, XY{114, d}))
	e.Text("t", "end", e.x+74, e.y+58, "rabbet "+e.w.Len(e.edge.Width))
	e.Text("t", "end", e.x+74, e.y+73, "x "+e.w.Len(e.edge.Depth)+" deep")
}

func (e *edgePen) butt() {
	e.Poly(e.face, e.at(XY{0, 0}, XY{114, 0}, XY{114, 34}, XY{0, 34}))
	e.Poly(e.other, e.at(XY{80, 34}, XY{114, 34}, XY{114, 92}, XY{80, 92}))
	e.Open("glue", e.at(XY{80, 34}, XY{114, 34}))
	e.Text("t", "end", e.x+74, e.y+62, "butt")
}

func (e *edgePen) halfLap() {
	const mid = 17.0
	end := 70 + math.Min(60, math.Max(24, e.edge.Width*e.u*.4)) // along, not to scale
	e.Poly(e.face, e.at(XY{0, 0}, XY{70, 0}, XY{70, mid}, XY{end, mid}, XY{end, 34}, XY{0, 34}))
	e.Poly(e.other, e.at(XY{70, 0}, XY{190, 0}, XY{190, 34}, XY{end, 34}, XY{end, mid}, XY{70, mid}))
	e.Open("glue", e.at(XY{70, 0}, XY{70, mid}, XY{end, mid}, XY{end, 34}))
	e.Text("t", "start", e.x, e.y+58, "half-lap of "+e.w.Len(e.edge.Width))
	e.Text("t", "start", e.x, e.y+73, "each loses "+e.w.Len(e.edge.Depth))
}

// mitre is a tilted edge; its neighbour is the same part turned about the corner.
func (e *edgePen) mitre() {
	r := e.edge.Tilt * math.Pi / 180
	back := 34 * math.Tan(r)
	e.Poly(e.face, e.at(XY{0, 0}, XY{110, 0}, XY{110 - back, 34}, XY{0, 34}))
	below := 54.0
	if e.edge.Joint == "mitre" {
		below = 128
		s, k := math.Sincos(math.Pi - 2*(math.Pi/2-r))
		mirror := func(q XY) XY {
			dx, dy := 110-q.X, q.Y
			return XY{110 + dx*k - dy*s, dx*s + dy*k}
		}
		e.Poly(e.other, e.at(mirror(XY{40, 0}), mirror(XY{110, 0}), mirror(XY{110 - back, 34}), mirror(XY{40, 34})))
		e.Open("glue", e.at(XY{110, 0}, XY{110 - back, 34}))
	}
	e.Text("t halo2", "start", e.x, e.y+below, "blade tilt "+measure.Degrees(math.Abs(e.edge.Tilt)))
	if e.part.Panel.CutAngle > 0.05 {
		e.Text("t", "start", e.x, e.y+144, "cut angle "+measure.Degrees(e.part.Panel.CutAngle)+" on the face")
	}
}

// sheetOf draws the sheet the part lies on, small.
func (c *Canvas) sheetOf(w *work.Work, part *work.Part, x, y float64) {
	for _, s := range w.Sheets() {
		for k, sh := range s.Layout.Sheets {
			for _, q := range sh.Placed {
				if s.Pieces[q.Part].Ref != part.Ref {
					continue
				}
				name := w.Called(s, k)
				c.Text(
					"t lbl",
					"start",
					x,
					y+12,
					measure.Capital(name)+", "+w.Len(sh.Stock.W)+" x "+w.Len(sh.Stock.H),
				)
				sc := math.Min(180/sh.Stock.H, 120/sh.Stock.W)
				c.sheet(w, s, k, x, y+22, sc, "part:"+part.Ref, part.Solid.Prop, nil)
				c.Text(
					"t",
					"start",
					x,
					y+22+sh.Stock.H*sc+16,
					w.Results().At("stock", s.Stock.ID, "yield").Text+" of the sheets used",
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
	p := &sheetPen{c, w, s, sh.Stock.H, x, y, sc, sel, prop, href, index < s.Cut}
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
			map[bool]string{true: ` data-cut="1"`}[p.cut],
		)
		defer c.f(`</g>`)
	}
	c.Rect("sheet", x, y, sh.Stock.W*sc, sh.Stock.H*sc)
	if s.Stock.Grain != "" { // which way it runs
		at := x + sh.Stock.W*sc - 8
		c.Open("up", []XY{{at, y + 26}, {at, y + 8}})
		c.Open("up", []XY{{at - 3, y + 13}, {at, y + 8}, {at + 3, y + 13}})
	}
	for _, o := range sh.Offcuts {
		p.offcut(o)
	}
	for _, q := range sh.Placed {
		p.piece(q)
	}
	if p.cut && href != nil {
		q := p.at(sh.Stock.W/2, sh.Stock.H/2)
		c.TextAt("stamp", q.X, q.Y, -35, "CUT")
	}
}

// sheetPen draws what lies on a sheet; href is nil where nothing can be pressed.
type sheetPen struct {
	*Canvas
	w           *work.Work
	s           *cutting.Sheets
	high        float64 // of the sheet, mm
	x, y, scale float64
	sel, prop   string
	href        func(string) string
	cut         bool
}

func (p *sheetPen) at(px, py float64) XY { return XY{p.x + px*p.scale, p.y + (p.high-py)*p.scale} }

// offcut is what is left over, with its size where that has room.
func (p *sheetPen) offcut(o nest.Rect) {
	a, b := p.at(o.X, o.Y+o.H), p.at(o.X+o.W, o.Y)
	p.Rect("offcut", a.X, a.Y, b.X-a.X, b.Y-a.Y)
	if p.href == nil {
		return
	}
	label := p.w.Len(o.W) + " x " + p.w.Len(o.H)
	need := float64(len(label)) * 6.6
	switch {
	case b.X-a.X > need && b.Y-a.Y > 16:
		p.Text("t soft", "middle", (a.X+b.X)/2, (a.Y+b.Y)/2+4, label)
	case b.Y-a.Y > need && b.X-a.X > 16:
		p.TextAt("t soft", (a.X+b.X)/2+4, (a.Y+b.Y)/2, -90, label)
	}
}

// piece is a part as it lies.
func (p *sheetPen) piece(q nest.Placed) {
	part := p.w.Part(p.s.Pieces[q.Part].Ref)
	key := "part:" + part.Ref
	box := p.s.Boxes[q.Part]
	rings, mid := formats.OnSheet(part.Panel, box.W, box.H, q.X, q.Y, q.Turned, q.Flip)
	if p.href != nil {
		p.take(q, part, key)
	}
	mine := part.Solid.Prop == p.prop
	class := "cut m-" + p.s.Stock.Texture + "-1"
	if key == p.sel && p.href == nil {
		class = "cut picked"
	} else if !mine {
		class += " other"
	}
	for i, ring := range rings {
		ps := make([]XY, len(ring))
		for k := range ring {
			ps[k] = p.at(ring[k].X, ring[k].Y)
		}
		if i > 0 {
			class = "cut paper"
		}
		p.Poly(class, ps)
	}
	centre := p.at(mid.X, mid.Y)
	if part.Panel.Bore > 0 {
		p.f(
			`<circle class="cut paper" cx="%s" cy="%s" r="%s"/>`,
			n(centre.X),
			n(centre.Y),
			n(part.Panel.Bore/2*p.scale),
		)
		centre.Y -= (part.Panel.Round + part.Panel.Bore) / 4 * p.scale
	}
	if p.href == nil {
		return
	}
	if mine && (part.Panel.Bore == 0 || (part.Panel.Round-part.Panel.Bore)/2*p.scale > 13) {
		p.Text("t lbl", "middle", centre.X, centre.Y+4, fmt.Sprint(part.No))
	}
	if p.s.Locked[q.Part] { // a nail holds it
		p.f(`<g class="nail"><circle cx="%s" cy="%s" r="5"/><circle class="head" cx="%s" cy="%s" r="1.6"/></g>`,
			n(centre.X+12), n(centre.Y-8), n(centre.X+12), n(centre.Y-8))
	}
	p.Done()
}

// take begins a part that can be pressed, and dragged where its sheet is not cut.
func (p *sheetPen) take(q nest.Placed, part *work.Part, key string) {
	box := p.s.Boxes[q.Part]
	label := fmt.Sprintf("%d %s, copy %d", part.No, part.Name(), p.s.Pieces[q.Part].Copy+1)
	if p.s.Locked[q.Part] {
		label += ", laid by hand"
	}
	if !p.cut {
		p.move = fmt.Sprintf(` data-piece="%d" data-px="%s" data-py="%s" data-pw="%s" data-ph="%s" data-turned="%t"`+
			` data-flip="%t" data-turn="%t" data-locked="%t"`, q.Part, n(q.X), n(q.Y), n(box.W), n(box.H), q.Turned, q.Flip,
			box.Turn, p.s.Locked[q.Part])
	}
	p.Pick(p.href(key), key, label, key == p.sel)
	p.move = ""
}

// Sheets draws every sheet, those of the prop's own stocks first, then every
// pipe length.
func Sheets(w *work.Work, prop, sel string, href func(string) string) string {
	const wide = 986.0
	c := New(wide, 0, w.Plan.Metric())
	count := 0
	for _, s := range w.Sheets() {
		count += len(s.Layout.Sheets)
	}
	sc := 0.12 // px per mm: a 4 x 8 ft sheet is 146 x 293
	if count <= 8 {
		sc = 0.155
	}
	x, y, rowH := 24.0, 40.0, 0.0
	sheets := append([]*cutting.Sheets(nil), w.Sheets()...)
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
	if len(w.Sheets())+len(w.Bars()) == 0 {
		c.Text(
			"t soft",
			"middle",
			wide/2,
			150,
			"No parts yet, so nothing to lay out. Type a solid in the quick line.",
		)
	}
	return c.SVG(
		"sheets",
		"All stock laid out",
		fmt.Sprintf("%d kinds of sheet and %d of pipe with every part in place.", len(w.Sheets()), len(w.Bars())),
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
	for _, b := range w.Bars() {
		full := b.Stock.Length.Value()
		c.Text("t lbl", "start", 24, y, b.Stock.Name)
		note := fmt.Sprintf("%d lengths of %s, proven least", len(b.Cutting.Bars), w.Stocked(b.Stock))
		if !b.Cutting.Proven {
			note = fmt.Sprintf(
				"%d lengths of %s, at least %d needed",
				len(b.Cutting.Bars),
				w.Stocked(b.Stock),
				b.Cutting.Bound,
			)
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
