package shell

import (
	"fmt"
	"strings"

	"zapbarn/core/measure"
	"zapbarn/core/pattern"
	"zapbarn/core/plan"
	"zapbarn/core/shorthand"
	"zapbarn/core/wiring"
)

// Say is a phrase of the quick line on one press, about the selected thing.
type Say struct{ Name, Line string }

// says are what one press does with an element beside its fields: openings cut
// into a solid, its seams glued; another lamp like it.
func (p *Page) says(v any) []Say {
	switch x := v.(type) {
	case *plan.Solid:
		return p.cuts(x)
	case *plan.Device:
		l := p.Work.Lib.Lamps[x.Product]
		if x.Is(wiring.Load) && x.From != "" && l.Kind == "prewired" {
			one := "lamp " + x.Product + " on " + x.From
			return []Say{{"one more like it", one}, {"nine more like it", one + " x9"}}
		}
	}
	return nil
}

// cuts are openings in the face of a solid that is selected, its first where none is, sized
// to it, and its seams.
func (p *Page) cuts(s *plan.Solid) (out []Say) {
	shape := p.Work.Shapes()[s.ID]
	if shape == nil {
		return nil
	}
	face, wide, high, flat, thick := "", shape.Size.X, shape.Size.Z, false, 0.0
	switch {
	case len(shape.Panels) > 0:
		panel := p.picked(s, shape)
		lo, hi := panel.Bounds()
		face, wide, high, flat = panel.ID, hi.X-lo.X, hi.Y-lo.Y, true
		thick = panel.Thick
	case len(shape.Walls) > 0:
		face = shape.Walls[0]
	default:
		return nil
	}
	at := fmt.Sprintf(" in %s %s", shorthand.NameFor(p.Plan, s), face)
	deep := 0.
	if flat {
		deep = thick / 2
	}
	for _, c := range []cut{
		{"hole", "round", .12, 0, 0, ""},
		{"slot", "slot", .4, .08, 0, ""},
		{"window", "rect", .4, .3, 0, ""},
		{"door", "rect", .3, .3, 0, ""},
		{"pocket", "rect", .2, .12, deep, ""},
		{"letters", "text", 0, .2, 0, "BOO"},
	} {
		if (c.name == "pocket" || c.name == "letters") && !flat {
			continue
		}
		for f := 1.; f > .2; f /= 2 { // as large as goes in, down to a quarter
			o, line := p.cut(c, f*wide, f*high, at)
			next := *s
			o.Face, o.Y = face, measure.Of[measure.LengthKind](high/2)
			next.Openings = append(append([]plan.Opening(nil), s.Openings...), o)
			if _, err := next.Shape(p.Work.Lib); err == nil {
				out = append(out, Say{c.name, line})
				break
			}
		}
	}
	out = append(out, Say{"six in a row", "row " + shorthand.NameFor(p.Plan, s) + " x6"})
	out = append(
		out,
		Say{"eight in a circle", "circle " + shorthand.NameFor(p.Plan, s) + " x8 " + p.round(4*shape.Size.X)},
	)
	if len(shape.Lines) > 0 {
		out = append(out, Say{"glue its seams", "glue " + s.ID + " with pu"})
	}
	return out
}

// picked is the panel of a solid that is selected, or its first.
func (p *Page) picked(s *plan.Solid, shape *pattern.Shape) pattern.Panel {
	part, ok := strings.CutPrefix(p.Sel, "part:"+s.ID+"/")
	if !ok {
		return shape.Panels[0]
	}
	of, copied := shape.Panels[0], false
	for _, panel := range shape.Panels {
		if part == panel.ID {
			return panel
		}
		if !copied && strings.HasPrefix(part, panel.ID+"-") { // one of several alike
			of, copied = panel, true
		}
	}
	return of
}

// cut is a kind of opening: its size as shares of the face it goes into, and how
// deep it is, 0 for through.
type cut struct {
	name, kind string
	w, h, deep float64
	text       string
}

// cut is one such opening on a face so wide and high, and the phrase for it.
func (p *Page) cut(c cut, wide, high float64, at string) (plan.Opening, string) {
	small := min(wide, high)
	w, h := p.round(c.w*wide), p.round(c.h*high)
	o := plan.Opening{Name: c.name, Kind: c.kind, Text: c.text}
	line := c.name
	switch c.kind {
	case "round":
		w = p.round(c.w * small)
		line, h = line+" "+w, ""
	case "text":
		h = p.round(c.h * small)
		line, w = line+" "+h, ""
	case "slot":
		h = p.round(c.h * small)
		line += " " + w + " x " + h
	default:
		line += " " + w + " x " + h
	}
	length := func(s string) measure.Length {
		l, _ := measure.ParseLengthIn(s, "mm")
		return l
	}
	if o.W, o.H = length(w), length(h); c.deep > 0 {
		deep := measure.Of[measure.LengthKind](c.deep)
		line += " deep " + deep.String()
		o.Deep = deep
	}
	if line += at; c.text != "" {
		line += " says " + c.text
	}
	return o, line
}

// round is a length as a builder would choose it: to a quarter inch or 5 mm, with
// its unit.
func (p *Page) round(mm float64) string {
	step := measure.Inch / 4
	if p.Plan.Metric() {
		step = 5
	}
	mm = max(1, float64(int(mm/step+.5))) * step
	if p.Plan.Metric() {
		return fmt.Sprintf("%.0f mm", mm)
	}
	return measure.Decimal(mm/measure.Inch, 2) + " in"
}
