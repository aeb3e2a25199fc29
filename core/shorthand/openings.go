package shorthand

import (
	"fmt"
	"strings"

	"zapbarn/core/measure"
	"zapbarn/core/pattern"
	"zapbarn/core/plan"
	"zapbarn/core/words"
)

// opening cuts a hole through a face of a solid that is there: hole 2 in in
// box/front up 3 in, slot 8 x 2 in crate front, window 10 x 8 in body face 2, door
// 8 x 6 in crate back. With no place said it lies in the face's middle.
func (r *reader) opening() (*Reading, error) {
	verb := strings.ToLower(r.words[0])
	line := r.phrase(r.words[1:])
	o, err := openingOf(verb, line)
	if err != nil {
		return nil, err
	}
	up, right, left := line.After("up"), line.After("right"), line.After("left")
	// the last "in" (or on, through) is where; one behind a number is inches
	at := -1
	for i, w := range line.List {
		if strings.EqualFold(w, "in") || strings.EqualFold(w, "on") || strings.EqualFold(w, "through") {
			at = i
		}
	}
	if at < 1 || at == len(line.List)-1 {
		return nil, fmt.Errorf("say its size, then in and what, such as hole 2 in in box/front")
	}
	if err := o.sized(verb, r.phrase(line.List[:at])); err != nil {
		return nil, err
	}
	where := line.List[at+1:]
	t, face, ok := r.named(strings.Fields(strings.ReplaceAll(strings.Join(where, " "), "/", " ")))
	s, solid := t.value.(*plan.Solid)
	if !ok || !solid {
		return nil, r.what(where)
	}
	shape, err := s.Shape(r.lib)
	if err != nil {
		return nil, fmt.Errorf("%s: %w", s.Name, err)
	}
	o.on(strings.ToLower(strings.Join(face, " ")), shape)
	tape := func(mm float64) measure.Length { return measure.OnTape(mm, r.p.Metric()) }
	if o.Y = up; up.IsZero() {
		o.Y = tape(highOf(shape, o.Face) / 2)
	}
	if o.X = right; !left.IsZero() {
		o.X = tape(-left.Value())
	}
	if o.Name == "" {
		o.Name = measure.Capital(verb)
		for n := 2; hasOpening(s, o.Name); n++ {
			o.Name = fmt.Sprintf("%s %d", measure.Capital(verb), n)
		}
	}
	next := *s
	next.Openings = append(append([]plan.Opening(nil), s.Openings...), o.Opening)
	if _, err := next.Shape(r.lib); err != nil {
		return nil, err
	}
	text := fmt.Sprintf("%s of %s in the %s of %s, %s up", verb, o.said(r), o.Face, s.Name, w(r, o.Y))
	return r.put(text, "solid", s.ID, next)
}

// opened is an opening as it is being read.
type opened struct{ plan.Opening }

// openingOf is what the verb, and what stands at the line's end, say of an opening: its
// kind, its name, its corners, its letters. They are taken off the line.
func openingOf(verb string, line *words.Words) (*opened, error) {
	o := &opened{plan.Opening{Kind: map[string]string{"hole": "round", "slot": "slot"}[verb], Door: verb == "door"}}
	if o.Kind == "" {
		o.Kind = "rect"
	}
	if _, name, ok := parted(line.List, "called"); ok {
		o.Name = strings.Join(name, " ")
		line.List = line.List[:len(line.List)-len(name)-1]
	}
	if _, path, ok := parted(line.List, "corners"); ok {
		line.List = line.List[:len(line.List)-len(path)-1]
		o.Kind, o.Path = "shape", strings.ReplaceAll(strings.Join(path, " "), " , ", ",")
	}
	if verb == "letters" {
		_, says, ok := parted(line.List, "says")
		if !ok {
			return nil, fmt.Errorf("say what they say, such as letters 3 in in box front says BEWARE")
		}
		line.List = line.List[:len(line.List)-len(says)-1]
		o.Kind, o.Text = "text", strings.Join(says, " ")
	}
	return o, nil
}

// sized reads an opening's sizes.
func (o *opened) sized(verb string, size *words.Words) error {
	if o.Deep = size.After("deep"); (verb == "pocket" || verb == "groove") && o.Deep.IsZero() {
		return fmt.Errorf("say how deep, such as %s 4 x 2 deep 1/2 in box back", verb)
	}
	dims := size.Sizes()
	if err := size.None(); err != nil {
		return err
	}
	want := map[bool]int{true: 1, false: 2}[o.Kind == "round" || o.Kind == "text"]
	if len(dims) != want {
		return fmt.Errorf("a %s takes %d sizes, %d read", verb, want, len(dims))
	}
	if o.W = dims[0]; o.Kind == "text" {
		o.W, o.H = measure.Length{}, dims[0]
	}
	if len(dims) > 1 {
		o.H = dims[1]
	}
	return nil
}

// on is the face that is named, or the shape's first.
func (o *opened) on(face string, shape *pattern.Shape) {
	if o.Face = face; face != "" {
		return
	}
	switch {
	case len(shape.Panels) > 0:
		o.Face = shape.Panels[0].ID
	case len(shape.Walls) > 0:
		o.Face = shape.Walls[0]
	}
}

// highOf is how high a face of a shape is.
func highOf(shape *pattern.Shape, face string) float64 {
	high := shape.Size.Z
	for _, p := range shape.Panels {
		if p.ID == strings.TrimRight(strings.ReplaceAll(face, " ", ""), "0123456789") || p.ID == face {
			low, top := p.Outline[0].Y, p.Outline[0].Y
			for _, q := range p.Outline {
				low, top = min(low, q.Y), max(top, q.Y)
			}
			high = top - low
		}
	}
	return high
}

// said is its size in words.
func (o *opened) said(r *reader) string {
	said := w(r, o.W)
	switch {
	case o.Kind == "text":
		said = o.Text + " " + w(r, o.H) + " high"
	case !o.H.IsZero():
		said += " x " + w(r, o.H)
	}
	if !o.Deep.IsZero() {
		said += ", " + w(r, o.Deep) + " deep,"
	}
	return said
}

func hasOpening(s *plan.Solid, name string) bool {
	for _, o := range s.Openings {
		if o.Name == name {
			return true
		}
	}
	return false
}
