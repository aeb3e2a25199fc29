package plan

import (
	"bytes"
	"crypto/sha256"
	"encoding/json"
	"errors"
	"fmt"
	"reflect"
	"strings"

	"zapbarn/core/form"
	"zapbarn/core/measure"
	"zapbarn/core/stock"
)

// MaxPhoto is how much a kept picture may be, as base64, in bytes.
const MaxPhoto = 600 << 10

// MaxFile is the largest plan file read, in bytes.
const MaxFile = 8 << 20

// Encode writes the plan's JSON form, each length with its unit; Decode reads the same plan back.
func (p *Plan) Encode() []byte {
	q := p.Clone()
	q.inUnits("in")
	for _, f := range []reflect.Value{reflect.ValueOf(&q.doc).Elem()} {
		for i := range f.NumField() {
			if f.Field(i).CanSet() && f.Field(i).Kind() == reflect.Slice && f.Field(i).IsNil() {
				f.Field(i).Set(reflect.MakeSlice(f.Field(i).Type(), 0, 0))
			}
		}
	}
	var b bytes.Buffer
	enc := json.NewEncoder(&b)
	enc.SetEscapeHTML(false)
	enc.SetIndent("", " ")
	if err := enc.Encode(&q.doc); err != nil {
		panic(err) // plain structs of text and numbers cannot fail
	}
	return p.whole(b.Bytes())
}

// Sum tells plans apart by all they hold.
func (p *Plan) Sum() [32]byte { return sha256.Sum256(encode(p.Doc())) }

// Decode reads and validates a plan. Errors name the list, the element and the
// field, the value, and what would be accepted.
func Decode(data []byte) (*Plan, error) {
	p, err := parse(data)
	if err != nil {
		return nil, err
	}
	if err := p.Validate(); err != nil {
		return nil, err
	}
	return p, nil
}

// parse reads a plan that is well formed, not yet judged.
func parse(data []byte) (*Plan, error) {
	data = bytes.TrimPrefix(data, []byte("\ufeff")) // a byte-order mark, as some editors write
	if len(data) > MaxFile {
		return nil, fmt.Errorf("the file is %d MB; a plan is at most %d MB", len(data)>>20, MaxFile>>20)
	}
	if len(bytes.TrimSpace(data)) == 0 {
		return nil, errors.New("the file is empty; choose a plan as exported, ending in .json")
	}
	if err := soundJSON(data); err != nil {
		return nil, err
	}
	data, err := upgradeFile(data)
	if err != nil {
		return nil, err
	}
	p := &Plan{}
	if err := decodeFields(data, &p.doc); err != nil {
		return nil, err
	}
	v := reflect.ValueOf(&p.doc).Elem()
	for i := range v.NumField() {
		if v.Field(i).CanSet() && v.Field(i).Kind() == reflect.Slice && v.Field(i).Len() == 0 {
			v.Field(i).SetZero()
		}
	}
	for i, ph := range p.Photos() {
		if ph.Data == "" {
			return nil, measure.Bad(fmt.Sprintf("photos[%d].data", i), "is empty; a file holds its pictures whole")
		}
	}
	p.inUnits(p.Display().Units)
	return p, nil
}

// decodeFields reads one JSON object field by field, so that an error can name
// the field, also inside lists. Unknown fields are refused.
func decodeFields(data []byte, into any) error {
	raw, err := members(data)
	if err != nil {
		return err
	}
	if s, ok := into.(*Solid); ok {
		return decodeSolid(raw, s)
	}
	return decodeRaw(raw, into)
}

func decodeRaw(raw map[string]json.RawMessage, into any) error {
	v := reflect.ValueOf(into).Elem()
	t := v.Type()
	known := map[string]int{}
	for i := range t.NumField() {
		if name, _, _ := strings.Cut(t.Field(i).Tag.Get("json"), ","); t.Field(i).IsExported() && name != "-" {
			known[name] = i
		}
	}
	for _, name := range sortedKeys(raw) {
		i, ok := known[name]
		if !ok {
			return measure.Bad(
				name,
				"is not a field of %s; it has %s",
				called(t),
				strings.Join(sortedKeys(known), ", "),
			)
		}
		field := v.Field(i)
		switch {
		case field.Kind() == reflect.Slice:
			list, err := entriesOf(raw[name], mostEntries)
			if err != nil {
				return measure.Bad(name, "%s", err)
			}
			s := reflect.MakeSlice(field.Type(), len(list), len(list))
			for k, item := range list {
				if err := decodeFields(item, s.Index(k).Addr().Interface()); err != nil {
					return place(fmt.Sprintf("%s[%d]", name, k), err)
				}
			}
			if len(list) == 0 {
				s = reflect.Zero(field.Type())
			}
			field.Set(s)
		case field.Kind() == reflect.Struct && !implementsText(field):
			if err := decodeFields(raw[name], field.Addr().Interface()); err != nil {
				return place(name, err)
			}
		default:
			fresh := reflect.New(field.Type())
			if err := json.Unmarshal(raw[name], fresh.Interface()); err != nil {
				return measure.Bad(name, "%s", plain(err, field.Type()))
			}
			field.Set(fresh.Elem())
		}
	}
	for name, i := range known { // what is not there is empty
		if _, ok := raw[name]; !ok {
			v.Field(i).SetZero()
		}
	}
	return nil
}

// mostEntries is how many entries any list may have; Validate knows each one's own limit.
const mostEntries = 20_000

func implementsText(v reflect.Value) bool {
	_, ok := v.Addr().Interface().(interface{ UnmarshalText([]byte) error })
	return ok
}

// place puts the place before a field's name.
func place(at string, err error) error {
	var f *measure.FieldError
	if errors.As(err, &f) {
		return &measure.FieldError{Field: at + "." + f.Field, Why: f.Why}
	}
	return measure.Bad(at, "%s", err)
}

func plain(err error, t reflect.Type) string {
	var m *measure.Error
	if errors.As(err, &m) {
		return m.Error()
	}
	var u *json.UnmarshalTypeError
	if errors.As(err, &u) {
		want := map[reflect.Kind]string{reflect.String: `text in quotes`, reflect.Bool: "true or false",
			reflect.Int: "a whole number"}[t.Kind()]
		if want == "" {
			want = `text in quotes, such as "22 in"`
		}
		return "a " + u.Value + " stands here; write " + want
	}
	return err.Error()
}

// Schema is the plan's JSON Schema, draft 2020-12, made from the Go types.
func Schema() []byte {
	s := schemaOf(reflect.TypeFor[Document]())
	s["$schema"] = "https://json-schema.org/draft/2020-12/schema"
	s["title"] = "Zap Barn plan"
	s["required"] = []string{"format", "display"}
	s["properties"].(map[string]any)["format"] = map[string]any{"const": Format}
	b, err := json.MarshalIndent(s, "", " ")
	if err != nil {
		panic(err)
	}
	return append(b, '\n')
}

func schemaOf(t reflect.Type) map[string]any {
	switch {
	case t.Kind() == reflect.Slice:
		return map[string]any{"type": "array", "items": schemaOf(t.Elem())}
	case t.Kind() == reflect.Bool:
		return map[string]any{"type": "boolean"}
	case t.Kind() == reflect.Int:
		return map[string]any{"type": "integer"}
	case t.Kind() == reflect.Float64:
		return map[string]any{"type": "number"}
	case t.Kind() == reflect.String:
		return map[string]any{"type": "string"}
	case reflect.New(t).Type().Implements(reflect.TypeFor[interface{ UnmarshalText([]byte) error }]()):
		name := map[reflect.Type]string{reflect.TypeFor[measure.Length](): `length as written, such as 22 1/2 in or 600 mm`,
			reflect.TypeFor[measure.Duration](): "time as written, such as 0.9 s",
			reflect.TypeFor[measure.Voltage]():  "volts as written", reflect.TypeFor[measure.Current](): "current as written, " +
				"such as 350 mA", reflect.TypeFor[measure.Gauge](): "wire size, such as 18 AWG",
			reflect.TypeFor[measure.Resistance](): "ohms as written",
			reflect.TypeFor[measure.Celsius]():    "temperature, such as 58 F",
			reflect.TypeFor[measure.Torque]():     "torque, such as 1.5 N m or 12 kgf cm",
			reflect.TypeFor[measure.Angle]():      "angle, such as 45",
			reflect.TypeFor[measure.Mass]():       "weight, such as 450 g or 3 lb"}[t]
		return map[string]any{"type": "string", "maxLength": 60, "description": name}
	}
	props := map[string]any{}
	var need []string
	if t == reflect.TypeFor[Solid]() { // the fields of every form: its kind says which count
		for _, n := range form.Names() {
			k, _ := form.Of(n)
			for name, p := range schemaOf(reflect.TypeOf(k.Blank))["properties"].(map[string]any) {
				props[name] = p
			}
		}
	}
	for i := range t.NumField() {
		f := t.Field(i)
		if !f.IsExported() || f.Tag.Get("json") == "-" {
			continue
		}
		name, opts, _ := strings.Cut(f.Tag.Get("json"), ",")
		p := schemaOf(f.Type)
		switch {
		case f.Type.Kind() == reflect.String:
			p["maxLength"] = Letters(f)
		case f.Type.Kind() == reflect.Slice && t == reflect.TypeFor[Document]():
			p["maxItems"] = Most(kindOfType(f.Type.Elem()))
		case f.Type.Kind() == reflect.Slice:
			p["maxItems"] = entries(f)
		}
		props[name] = p
		if opts == "" && name == "id" {
			need = append(need, name)
		}
	}
	s := map[string]any{"type": "object", "additionalProperties": false, "properties": props}
	if need != nil {
		s["required"] = need
	}
	return s
}

// Broken is an element of a stored plan that cannot stand as it is: what a newer
// rule forbids, or what a newer program wrote. It is set aside, kept as it was
// stored, and a snag tells of it.
type Broken struct {
	Kind, ID string
	Raw      json.RawMessage
	Err      error
}

// Broken lists what is set aside.
func (p *Plan) Broken() []Broken { return p.broken }

// Assemble makes a plan in a shop of its elements as a store keeps them, by kind and in
// order. It always succeeds where there is a display: what cannot stand is set
// aside, together with what names it.
func Assemble(lib *stock.Library, of map[string][]json.RawMessage) (*Plan, error) {
	p := &Plan{doc: Document{Format: Format}, lib: lib}
	raws := map[ref2]json.RawMessage{}
	for _, k := range kinds {
		for _, raw := range of[k.name] {
			var head struct {
				ID string `json:"id"`
			}
			_ = json.Unmarshal(raw, &head)
			raws[ref2{k.name, head.ID}] = raw
			if err := k.add(p, raw); err != nil {
				if k.name == "display" {
					return nil, place(k.name, err)
				}
				p.broken = append(p.broken, Broken{k.name, head.ID, raw, err})
			}
		}
	}
	for { // one at a time: what names what was set aside follows it
		err := p.Validate()
		if err == nil {
			return p, nil
		}
		var at *ElementError
		if !errors.As(err, &at) || at.Kind == "display" {
			return p, nil // of the whole, such as too many: it opens all the same
		}
		k, kerr := kindNamed(at.Kind)
		raw, known := raws[ref2{at.Kind, at.ID}]
		if kerr != nil || !known || len(p.broken) > 2000 {
			return p, nil
		}
		k.drop(p, at.ID)
		p.broken = append(p.broken, Broken{at.Kind, at.ID, raw, at.Err})
	}
}

// ref2 names an element.
type ref2 struct{ kind, id string }

// setAside is where a broken element stands in the list of them; -1 when it is
// none.
func (p *Plan) setAside(kind, id string) int {
	for i, b := range p.broken {
		if b.Kind == kind && b.ID == id {
			return i
		}
	}
	return -1
}

// whole lays what is set aside back into an encoded plan, so that a file holds
// all that is stored.
func (p *Plan) whole(encoded []byte) []byte {
	if len(p.broken) == 0 {
		return encoded
	}
	var doc map[string]any
	if json.Unmarshal(encoded, &doc) != nil {
		return encoded
	}
	for _, b := range p.broken {
		list := listOf(b.Kind)
		all, _ := doc[list].([]any)
		var v any
		if json.Unmarshal(b.Raw, &v) == nil {
			doc[list] = append(all, v)
		}
	}
	var out bytes.Buffer
	enc := json.NewEncoder(&out)
	enc.SetEscapeHTML(false)
	enc.SetIndent("", " ")
	if enc.Encode(doc) != nil {
		return encoded
	}
	return out.Bytes()
}

// listOf is the name of the list that elements of a kind stand in.
func listOf(kind string) string {
	t := reflect.TypeFor[Document]()
	for i := range t.NumField() {
		if f := t.Field(i); f.IsExported() && f.Type.Kind() == reflect.Slice && kindOfType(f.Type.Elem()) == kind {
			name, _, _ := strings.Cut(f.Tag.Get("json"), ",")
			return name
		}
	}
	return ""
}

// called is what a struct of the document is called in an error: a solid, a plan.
func called(t reflect.Type) string {
	if t == reflect.TypeFor[Document]() {
		return "plan"
	}
	return strings.TrimPrefix(strings.ToLower(t.Name()), "plain")
}
