package plan

import (
	"bytes"
	"encoding/json"
	"errors"
	"reflect"
	"strings"

	"zapbarn/core/form"
	"zapbarn/core/measure"
	"zapbarn/core/pattern"
)

// Solid is a form of a stock, standing in a prop: it becomes flat parts or cut
// lengths. In JSON its form's fields stand among its own.
type Solid struct {
	ID    string `json:"id"`
	Prop  string `json:"prop" ref:"prop,needed"`
	Name  string `json:"name" max:"80" label:"Name"`
	Kind  string `json:"kind"`  // one of form.Names
	Stock string `json:"stock"` // material

	Form form.Form `json:"-"` // of that kind; nil where the kind is none

	Seam     string         `json:"seam,omitempty"` // of parts larger than their sheet: butt or half-lap
	SeamAt   measure.Length `json:"seamAt,omitzero"`
	Lap      measure.Length `json:"lap,omitzero"`
	X        measure.Length `json:"x,omitzero"`               // of its middle, from the prop's middle
	Y        measure.Length `json:"y,omitzero"`               // towards the back
	Z        measure.Length `json:"z,omitzero"`               // off the floor
	By       string         `json:"by,omitempty" ref:"solid"` // that it stands by, and moves with
	How      string         `json:"how,omitempty"`            // one of Hows
	ByAt     measure.Length `json:"byAt,omitzero"`            // so far up it
	Openings []Opening      `json:"openings,omitempty" max:"100"`
	Fills    string         `json:"fills,omitempty" max:"200" ref:"part"` // of a pane or a door: solid/opening
	Magnets  int            `json:"magnets,omitempty"`                    // pairs that hold it
	Pull     measure.Mass   `json:"pull,omitzero"`                        // of one pair, straight off, as rated
	Sealed   bool           `json:"sealed,omitempty"`                     // closed up for good, but for its doors
	Lit      bool           `json:"lit,omitempty"`                        // light must pass
	Blacked  bool           `json:"blacked,omitempty"`                    // its seams and edges, from the inside
}

// Opening is a hole through one face of a solid.
type Opening struct {
	Name string         `json:"name" max:"80"`
	Face string         `json:"face"`
	Kind string         `json:"kind"`                      // rect, slot, round, shape or text
	Path string         `json:"path,omitempty" max:"4000"` // of a shape: its corners
	Text string         `json:"text,omitempty" max:"60"`   // of a text: its letters, H high
	Deep measure.Length `json:"deep,omitzero"`             // of a pocket or groove; through when not given
	W    measure.Length `json:"w,omitzero"`
	H    measure.Length `json:"h,omitzero"`
	X    measure.Length `json:"x,omitzero"` // of its centre, from the face's middle
	Y    measure.Length `json:"y,omitzero"` // of its centre, from the face's bottom
	Door bool           `json:"door,omitempty"`
}

var solidKind = listed(kind{name: "solid", most: 4000, again: func(v any, c *copying) string {
	x := v.(*Solid)
	x.ID = c.fresh("solid", c.prop+"-"+x.Name)
	return x.ID
}}, func(p *Plan) *[]Solid { return &p.doc.Solids })

func (x *Solid) Key() string    { return x.ID }
func (x *Solid) Called() string { return x.Name }

func (x *Solid) valid(c checks) error {
	if err := measure.First(measure.Named(x.Name), measure.OneOf("kind", x.Kind, form.Names()...),
		measure.InList("stock", x.Stock, c.lib.Materials, "xps1 or ply1/4")); err != nil {
		return err
	}
	if m, k := c.lib.Materials[x.Stock], x.formKind(); m.Form != k.Form {
		return measure.Bad("stock", "%s is not %s stock; a %s is cut from %s", m.Name, k.Form, x.Kind, k.Form)
	}
	if err := measure.First(measure.Within("x", x.X, -30*metre, 30*metre), measure.Within("y", x.Y, -30*metre, 30*metre),
		measure.Within("z", x.Z, -30*metre, 30*metre)); err != nil {
		return err
	}
	if err := x.placeable(c); err != nil {
		return err
	}
	for _, o := range x.Openings {
		known := measure.OneOf("openings", o.Kind, "rect", "slot", "round", "shape", "text")
		if err := measure.First(known, o.shaped()); err != nil {
			return err
		}
	}
	if x.Magnets < 0 || x.Magnets > 40 {
		return measure.Bad("magnets", "%d pairs; write 1 to 40", x.Magnets)
	}
	if x.Pull.Value() < 0 || x.Pull.Value() > 100 {
		return measure.Bad("pull", "%s a pair; write such as 1 kg", x.Pull)
	}
	if x.Seam != "" {
		if err := measure.First(measure.OneOf("seam", x.Seam, "butt", "half-lap"),
			measure.Within("seamAt", x.SeamAt, 1, 30*metre),
			measure.Within("lap", x.Lap, 5, metre)); err != nil {
			return err
		}
	}
	_, err := x.Shape(c.lib)
	var missing *Missing
	if errors.As(err, &missing) {
		return nil
	}
	return err
}

// stands refuses a place by another that cannot be.
func (x *Solid) placeable(c checks) error {
	if x.How == "" && x.By == "" {
		return nil
	}
	if x.How != "" {
		if err := measure.OneOf("how", x.How, Hows...); err != nil {
			return err
		}
	}
	if c.plan.loops(x) {
		return measure.Bad("by", "%s would stand, over others, by itself; choose another", x.Name)
	}
	if o := c.plan.Solid(x.By); o != nil && o.Prop != x.Prop {
		return measure.Bad("by", "%s is of another prop; choose one of the same", o.Name)
	}
	return measure.Within("byAt", x.ByAt, 0, 30*metre)
}

// shaped refuses a shape whose corners cannot be read.
func (o Opening) shaped() error {
	if o.Kind != "shape" {
		return nil
	}
	_, err := o.corners()
	return err
}

// corners are a shape's.
func (o Opening) corners() ([]pattern.Point, error) {
	rings, err := pattern.ReadRings(o.Path)
	if err != nil || len(rings) != 1 {
		return nil, measure.Bad("openings", "%s: write one ring of corners, such as 0,0 4,0 2,3", o.Name)
	}
	return rings[0], nil
}

// Opening is the opening of that name, or nil.
func (s *Solid) Opening(name string) *Opening {
	for i := range s.Openings {
		if strings.EqualFold(s.Openings[i].Name, name) {
			return &s.Openings[i]
		}
	}
	return nil
}

// OpeningSize is how wide and high an opening is, in mm.
func OpeningSize(o *Opening) (wide, high float64) {
	switch o.Kind {
	case "round":
		return o.W.Value(), o.W.Value()
	case "text":
		return 0, 0 // letters let nothing through, and no pane fills them
	}
	return o.W.Value(), o.H.Value()
}

// Filled is the solid and the opening that a pane or a door fills; nil where it
// fills none, or that is gone.
func (p *Plan) Filled(s *Solid) (*Solid, *Opening) {
	id, name, _ := strings.Cut(s.Fills, "/")
	of := p.Solid(id)
	if of == nil {
		return nil, nil
	}
	return of, of.Opening(name)
}

// NewSolid is a solid of a form, its kind by the form's own.
func NewSolid(prop, name, of string, f form.Form) Solid {
	return Solid{Prop: prop, Name: name, Kind: form.KindOf(f), Stock: of, Form: f}
}

// formKind is what a solid's form is; the zero kind where its name is none.
func (s *Solid) formKind() form.Kind {
	k, _ := form.Of(s.Kind)
	return k
}

// As turns the solid into another form, of the form's kind.
func (s Solid) As(f form.Form) Solid {
	s.Kind, s.Form = form.KindOf(f), f
	return s
}

// Set is the solid with one of its form's fields set, by its name in files.
func (s Solid) Set(field string, value any) Solid {
	s.Form = form.With(s.Form, field, value)
	return s
}

// Length is one of its form's lengths by its name in files; zero when it has
// none such.
func (s *Solid) Length(field string) measure.Length { return form.Length(s.Form, field) }

// plainSolid is a solid without its own JSON.
type plainSolid Solid

// MarshalJSON writes the form's fields behind the stock, before the seam.
func (s Solid) MarshalJSON() ([]byte, error) {
	own, err := json.Marshal(plainSolid(s))
	if err != nil || s.Form == nil {
		return own, err
	}
	shape, err := json.Marshal(s.Form)
	if err != nil || len(shape) <= 2 {
		return own, err
	}
	stock, err := json.Marshal(s.Stock)
	if err != nil {
		return nil, err
	}
	head := append([]byte(`"stock":`), stock...)
	at := bytes.Index(own, head) + len(head) // the names before it are written by the same encoder
	out := append(append(append([]byte(nil), own[:at]...), ','), shape[1:len(shape)-1]...)
	return append(out, own[at:]...), nil
}

// UnmarshalJSON reads both; what neither has is passed over.
func (s *Solid) UnmarshalJSON(b []byte) error {
	if err := json.Unmarshal(b, (*plainSolid)(s)); err != nil {
		return err
	}
	s.Form = nil
	into := s.blankForm()
	if into == nil {
		return nil
	}
	if err := json.Unmarshal(b, into); err != nil {
		return err
	}
	s.Form = reflect.ValueOf(into).Elem().Interface().(form.Form)
	return nil
}

// blankForm is a new empty form of the solid's kind, as a pointer; nil when it
// has none.
func (s *Solid) blankForm() any {
	k, ok := form.Of(s.Kind)
	if !ok {
		return nil
	}
	return reflect.New(reflect.TypeOf(k.Blank)).Interface()
}

// decodeSolid reads a solid strictly: what no form has is refused, what only
// another form has is passed over, since a solid may have been of that one.
func decodeSolid(raw map[string]json.RawMessage, s *Solid) error {
	var kind string
	_ = json.Unmarshal(raw["kind"], &kind)
	if err := measure.OneOf("kind", kind, form.Names()...); err != nil {
		return err
	}
	*s = Solid{Kind: kind}
	into := s.blankForm()
	own, other := map[string]json.RawMessage{}, map[string]json.RawMessage{}
	fields, ours := jsonFields(reflect.TypeOf(into).Elem()), jsonFields(reflect.TypeFor[Solid]())
	for name, v := range raw {
		switch {
		case fields[name]:
			other[name] = v
		case ours[name] || !anyForm[name]:
			own[name] = v
		}
	}
	if err := decodeRaw(own, (*plainSolid)(s)); err != nil {
		return err
	}
	if err := decodeRaw(other, into); err != nil {
		return err
	}
	s.Form = reflect.ValueOf(into).Elem().Interface().(form.Form)
	return nil
}

// jsonFields are a struct's field names in files.
func jsonFields(t reflect.Type) map[string]bool {
	out := map[string]bool{}
	for i := range t.NumField() {
		if name, _, _ := strings.Cut(t.Field(i).Tag.Get("json"), ","); name != "" && name != "-" {
			out[name] = true
		}
	}
	return out
}

// anyForm holds every field name that some form has.
var anyForm = func() map[string]bool {
	out := map[string]bool{}
	for _, n := range form.Names() {
		k, _ := form.Of(n)
		for f := range jsonFields(reflect.TypeOf(k.Blank)) {
			out[f] = true
		}
	}
	return out
}()

// At is one of an element's fields by its name in files, to be set; keep lays it
// back into the element. A solid's form is looked through. It is false when the
// element has none such.
func At(element any, name string) (field reflect.Value, tag reflect.StructTag, keep func(), ok bool) {
	in := func(v reflect.Value) (reflect.Value, reflect.StructTag, bool) {
		for i := range v.NumField() {
			if n, _, _ := strings.Cut(v.Type().Field(i).Tag.Get("json"), ","); n == name {
				return v.Field(i), v.Type().Field(i).Tag, true
			}
		}
		return reflect.Value{}, "", false
	}
	if f, tag, ok := in(reflect.ValueOf(element).Elem()); ok {
		return f, tag, func() {}, true
	}
	s, solid := element.(*Solid)
	if !solid || s.Form == nil {
		return reflect.Value{}, "", nil, false
	}
	v := reflect.New(reflect.TypeOf(s.Form)).Elem()
	v.Set(reflect.ValueOf(s.Form))
	f, tag, ok := in(v)
	return f, tag, func() { s.Form = v.Interface().(form.Form) }, ok
}
