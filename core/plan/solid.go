package plan

import (
	"bytes"
	"encoding/json"
	"errors"
	"reflect"
	"strings"

	"zapbarn/core/form"
	"zapbarn/core/measure"
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
	X        measure.Length `json:"x,omitzero"` // of its middle, from the prop's middle
	Y        measure.Length `json:"y,omitzero"` // towards the back
	Z        measure.Length `json:"z,omitzero"` // off the floor
	Openings []Opening      `json:"openings,omitempty" max:"100"`
	Sealed   bool           `json:"sealed,omitempty"` // closed up for good, but for its doors
	Lit      bool           `json:"lit,omitempty"`    // light must pass
}

// Opening is a hole through one face of a solid.
type Opening struct {
	Name string         `json:"name" max:"80"`
	Face string         `json:"face"`
	Kind string         `json:"kind"` // rect, slot or round
	W    measure.Length `json:"w"`
	H    measure.Length `json:"h,omitzero"`
	X    measure.Length `json:"x,omitzero"` // of its centre, from the face's middle
	Y    measure.Length `json:"y,omitzero"` // of its centre, from the face's bottom
	Door bool           `json:"door,omitempty"`
}

var solidKind = listed(kind{name: "solid", most: 4000, again: func(v any, c *copying) string {
	x := v.(*Solid)
	x.ID = c.fresh("solid", c.prop+"-"+x.Name)
	return x.ID
}}, func(p *Plan) *[]Solid { return &p.Solids })

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
	for _, o := range x.Openings {
		if err := measure.OneOf("openings", o.Kind, "rect", "slot", "round"); err != nil {
			return err
		}
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
