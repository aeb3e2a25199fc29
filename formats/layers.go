package formats

import (
	"fmt"
	"html"
	"io"
	"strings"

	"zapbarn/core/cutting"
	"zapbarn/core/measure"
	"zapbarn/core/pattern"
	"zapbarn/core/work"
)

// Flat is a drawing for cutting at 1:1: millimetres, Y up, by layer.
type Flat struct {
	Title string
	W, H  float64
	Lines []Stroke
	Texts []Label
	Of    []string // its layers, where they are not those of the tools
}

// layers are the drawing's, in the order they are drawn.
func (f *Flat) layers() []string {
	if f.Of != nil {
		return f.Of
	}
	return Layers
}

// Stroke is a line on a layer: cut (through), score (part way, or the inside
// face of a bevel), mark (drawn only).
type Stroke struct {
	Layer  string
	Points []pattern.Point
	Closed bool
}

// Label is text on the layer "text".
type Label struct {
	At   pattern.Point
	High float64
	Text string
}

// Layers are the layers in the order they are worked.
var Layers = []string{"text", "mark", "score", "pocket", "cut"}

// FlatPart is one part with its marks and what must be written on it.
func FlatPart(w *work.Work, part *work.Part) *Flat {
	p := part.Panel
	lo, hi := p.Bounds()
	f := &Flat{Title: part.Name(), W: hi.X - lo.X, H: hi.Y - lo.Y}
	f.add(p, func(q pattern.Point) pattern.Point { return pattern.Point{X: q.X - lo.X, Y: q.Y - lo.Y} })
	mid := pattern.Point{X: f.W / 2, Y: f.H / 2}
	if p.Bore > 0 {
		mid.Y += (p.Round + p.Bore) / 4
	}
	high := min(12, max(4, min(f.W, f.H)/14))
	face, up := part.Face()
	for i, t := range []string{fmt.Sprintf("%d %s", part.No, part.Name()), w.Lib.Materials[part.Solid.Stock].Name,
		face + "  ^ " + up} {
		f.Texts = append(f.Texts, Label{pattern.Point{X: mid.X, Y: mid.Y - float64(i)*high*1.6}, high, t})
	}
	return f
}

// FlatSheet is a whole sheet as nested, for a machine or as a map.
func FlatSheet(w *work.Work, s *cutting.Sheets, number int) *Flat {
	sh := s.Layout.Sheets[number]
	f := &Flat{Title: s.Stock.Name + ", " + w.Called(s, number), W: sh.Stock.W, H: sh.Stock.H}
	f.Lines = append(f.Lines, Stroke{"mark", pattern.Rect(f.W, f.H), true})
	for _, q := range sh.Placed {
		part := w.Part(s.Pieces[q.Part].Ref)
		lo, _ := part.Panel.Bounds()
		box := s.Boxes[q.Part]
		f.add(part.Panel, func(p pattern.Point) pattern.Point {
			x, y := p.X-lo.X, p.Y-lo.Y
			if q.Flip {
				x, y = box.W-x, box.H-y
			}
			if q.Turned {
				x, y = y, box.W-x
			}
			return pattern.Point{X: q.X + x, Y: q.Y + y}
		})
		_, mid := OnSheet(part.Panel, box.W, box.H, q.X, q.Y, q.Turned, q.Flip)
		if part.Panel.Bore > 0 {
			mid.Y += (part.Panel.Round + part.Panel.Bore) / 4
		}
		f.Texts = append(f.Texts, Label{mid, 12, fmt.Sprintf("%d %s", part.No, part.Solid.Name)})
	}
	return f
}

// add puts a panel's lines on their layers.
func (f *Flat) add(p pattern.Panel, at func(pattern.Point) pattern.Point) {
	poly := func(layer string, pts []pattern.Point, closed bool) {
		out := make([]pattern.Point, len(pts))
		for i, q := range pts {
			out[i] = at(q)
		}
		f.Lines = append(f.Lines, Stroke{layer, out, closed})
	}
	poly("cut", p.Outline, true)
	for _, h := range p.Holes {
		poly("cut", h, true)
	}
	for _, k := range p.Pockets {
		poly("pocket", k.Ring, true)
	}
	if p.Bore > 0 {
		poly("cut", pattern.Circle(p.Round/2, p.Round/2, p.Bore), true)
	}
	if p.Inside != nil {
		poly("score", p.Inside, true)
	}
	for i, e := range p.Edges {
		if e.Depth > 0 {
			a, b := p.Inward(i, e.Width)
			poly("score", []pattern.Point{a, b}, false)
		}
	}
	for _, m := range p.Marks {
		poly("mark", m[:], false)
	}
}

// colours of the layers, told apart also by dash.
var layerPen = map[string]string{
	"cut":    `stroke="#000" stroke-width="0.3"`,
	"score":  `stroke="#8C2F1B" stroke-width="0.3" stroke-dasharray="4 2"`,
	"pocket": `stroke="#3B4C8C" stroke-width="0.25" stroke-dasharray="3 1"`,
	"mark":   `stroke="#1C6653" stroke-width="0.2" stroke-dasharray="1 1"`,
	"paths":  `stroke="#5E5141" stroke-width="20" stroke-dasharray="120 60"`,
	"walls":  `stroke="#000" stroke-width="50"`,
	"props":  `stroke="#000" stroke-width="25"`,
	"lamps":  `stroke="#8C2F1B" stroke-width="20"`,
	"cords":  `stroke="#1C6653" stroke-width="20" stroke-dasharray="200 80"`,
}

// SVG writes the drawing in millimetres at 1:1, one group a layer.
func (f *Flat) SVG(out io.Writer) error {
	var b strings.Builder
	fmt.Fprintf(
		&b,
		`<svg xmlns="http://www.w3.org/2000/svg" width="%gmm" height="%gmm" viewBox="0 0 %g %g"><title>%s</title>`,
		round(f.W),
		round(f.H),
		round(f.W),
		round(f.H),
		html.EscapeString(f.Title),
	)
	for _, layer := range f.layers() {
		fmt.Fprintf(&b, `<g id="%s" fill="none" %s>`, layer, layerPen[layer])
		for _, s := range f.Lines {
			if s.Layer != layer {
				continue
			}
			name := "polyline"
			if s.Closed {
				name = "polygon"
			}
			fmt.Fprintf(&b, `<%s points="`, name)
			for i, p := range s.Points {
				if i > 0 {
					b.WriteByte(' ')
				}
				fmt.Fprintf(&b, "%g,%g", round(p.X), round(f.H-p.Y))
			}
			b.WriteString(`"/>`)
		}
		if layer == "text" {
			for _, t := range f.Texts {
				fmt.Fprintf(
					&b,
					`<text fill="#333" font-family="sans-serif" font-size="%g" text-anchor="middle" x="%g" y="%g">%s</text>`,
					t.High,
					round(t.At.X),
					round(f.H-t.At.Y),
					html.EscapeString(t.Text),
				)
			}
		}
		b.WriteString(`</g>`)
	}
	b.WriteString("</svg>\n")
	_, err := io.WriteString(out, b.String())
	return err
}

// round keeps a thousandth of a millimetre.
func round(v float64) float64 {
	var r float64
	_, _ = fmt.Sscan(measure.Decimal(v, 3), &r)
	return r
}
