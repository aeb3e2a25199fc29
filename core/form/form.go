// Package form holds the forms a solid can have, one file a form: a box, a
// tower, gores. A form is a small struct of sizes as written; it lays itself out
// flat, says how it goes together, and reads its own phrase of the quick line.
// Tickets, grips, files, the schema and the docs are made from its tags:
//
//	label   what the field is called on a ticket; none keeps it off
//	choose  the words it takes, parted by |
//	wide    yes: a long text, over the whole ticket
//	grip    where it is dragged: across, across-low, across-top, up
//	scale   no: stays when the prop is scaled, as the stock gives it
package form

import (
	"fmt"
	"reflect"
	"sort"
	"strings"

	"zapbarn/core/measure"
	"zapbarn/core/pattern"
	"zapbarn/core/stock"
	"zapbarn/core/words"
)

// Form is what a solid is made as. Values never change; a changed one is a new one.
type Form interface {
	// Lay lays the form out flat and in space. Errors are *Missing when a size is
	// not given yet, or *measure.FieldError naming the form's own field.
	Lay(on On) (*pattern.Shape, error)
	// Order is how its parts go together: common practice, no source.
	Order(p Parts) []string
}

// On is what a form is cut from.
type On struct{ Stock stock.Material }

// Thick is the stock's thickness in mm.
func (on On) Thick() float64 { return on.Stock.Thick.Value() }

// Kind is one form as the program knows it.
type Kind struct {
	Name    string // in files, the quick line and the docs
	Title   string // as a builder calls it
	Form    string // of its stock: sheet or pipe
	Stock   string // taken when none is said
	Nick    string // what a bare word of its stock stands for, as pvc for 1.5
	Example string // of the quick line
	Blank   Form   // before its sizes are known
	Read    func(w *words.Words) (Form, string, error)

	Press   Press // its drawing in the palette; the zero value keeps it off
	Piles   bool  // stands on what is there: a base, a body, a cap
	Splits  bool  // its large parts can be cut in two with a seam
	Flat    bool  // flat pieces that meet nothing of their own
	Layered bool  // layers, the lower ones drawn first
}

// Press is a drawing of the palette: pressing it says a phrase of the quick line,
// in inches or in millimetres. Outline and Lines are SVG paths in 30 x 27.
type Press struct {
	Rank           int
	Name           string
	Inches, Metric string
	Outline, Lines string
}

// Pressed lists the kinds of the palette in its order.
func Pressed() []Kind {
	var out []Kind
	for _, k := range kinds {
		if k.Press.Rank > 0 {
			out = append(out, k)
		}
	}
	sort.Slice(out, func(i, j int) bool { return out[i].Press.Rank < out[j].Press.Rank })
	return out
}

var kinds = map[string]Kind{}

// register adds a kind; each form's file does so once.
func register(k Kind) bool {
	if _, twice := kinds[k.Name]; twice {
		panic("form: two of " + k.Name)
	}
	kinds[k.Name] = k
	return true
}

// Of is the kind of a name.
func Of(name string) (Kind, bool) {
	k, ok := kinds[name]
	return k, ok
}

// Names lists the kinds, in the order of the alphabet.
func Names() []string {
	out := make([]string, 0, len(kinds))
	for n := range kinds {
		out = append(out, n)
	}
	sort.Strings(out)
	return out
}

// Missing says which sizes a form still lacks: no mistake, only half known.
type Missing struct{ Fields []string }

func (m *Missing) Error() string { return "still needs " + strings.Join(m.Fields, ", ") }

// need lists the fields not given, from name, length pairs.
func need(pairs ...any) error {
	var m Missing
	for i := 0; i < len(pairs); i += 2 {
		if pairs[i+1].(measure.Length).IsZero() {
			m.Fields = append(m.Fields, pairs[i].(string))
		}
	}
	if m.Fields != nil {
		return &m
	}
	return nil
}

// layer is what package pattern lays out.
type layer interface {
	Lay() (*pattern.Shape, error)
}

// laid lays a pattern out, its errors under the form's own field names; names
// are pairs of package pattern's word and the field.
func laid(p layer, names ...string) (*pattern.Shape, error) {
	s, err := p.Lay()
	return s, named(err, names...)
}

func named(err error, names ...string) error {
	f, ok := err.(*measure.FieldError)
	if !ok {
		return err
	}
	for i := 0; i+1 < len(names); i += 2 {
		if names[i] == f.Field {
			return &measure.FieldError{Field: names[i+1], Why: f.Why}
		}
	}
	if f.Field == "thickness" {
		return &measure.FieldError{Field: "stock", Why: f.Why}
	}
	return err
}

// Parts are what goes together: how many pieces, and which.
type Parts struct {
	N    int
	Have map[string]bool
}

// Steps is the short order in which a solid is put together.
func Steps(f Form, s *pattern.Shape) []string {
	if f == nil || s == nil {
		return nil
	}
	p, split := Parts{Have: map[string]bool{}}, false
	for _, panel := range s.Panels {
		p.N += panel.Copies
		p.Have[panel.ID] = true
		if first, piece, ok := strings.Cut(panel.ID, "-"); ok && piece == "1" { // the first piece of one that was split
			p.Have[first] = true
		}
		for _, e := range panel.Edges {
			split = split || e.Name == "seam"
		}
	}
	out := f.Order(p)
	for _, o := range s.Drilled {
		size := measure.MarkedTape(o.W)
		if o.Kind != "round" {
			size += " x " + measure.MarkedTape(o.H)
		}
		out = append(
			out,
			fmt.Sprintf("%s: %s through the %s, its middle %s up.", o.Name, size, o.Face, measure.MarkedTape(o.Y)),
		)
	}
	if split {
		out = append([]string{"Join the pieces of each large part first, flat on the bench, ticks to ticks."}, out...)
	}
	return out
}

// Bent is a form that bends its sheet: the least inside radius in mm, and the
// thickness that bends; false where nothing is bent.
type Bent interface {
	Bends(thick float64) (radius, bends float64, ok bool)
}

// Level is a form whose drawn face is its top, not its outside.
type Level interface{ Lies() bool }

// Free is a form whose parts stand free: a brush meets both their faces and their edges.
type Free interface{ Free() bool }

// IsFree reports whether a form's parts stand free.
func IsFree(f Form) bool {
	x, ok := f.(Free)
	return ok && x.Free()
}

// IsLoose reports whether a form's copies are things by themselves.
func IsLoose(f Form) bool {
	switch f.(type) {
	case Panel, Outline, Disc, Wheel:
		return true
	}
	return false
}

// Lies reports whether a form's drawn face is its top.
func Lies(f Form) bool {
	l, ok := f.(Level)
	return ok && l.Lies()
}

// Raised reports whether a form's height stands up, to be dragged so.
func Raised(f Form) bool {
	r, ok := f.(interface{ Raised() bool })
	return !ok || r.Raised()
}

// Single is a form that may stand so that nothing is piled on it.
type Single interface{ Alone() bool }

// Piles reports whether a form stands on another, or another on it.
func Piles(kind string, f Form) bool {
	s, ok := f.(Single)
	return kinds[kind].Piles && (!ok || !s.Alone())
}

// stretcher is a form with sizes that are no fields of their own.
type stretcher interface {
	stretched(by func(measure.Length) measure.Length, f float64) Form
}

// largest is how large any size of a form may be, mm: no solid is larger than a yard's width.
const largest = 30_000

// Lay lays a form out on its stock, each of its sizes within what anything may be. The error is
// *Missing while a size is not given yet, or a *measure.FieldError naming the one that cannot be.
func Lay(f Form, on On) (*pattern.Shape, error) {
	s, err := f.Lay(on)
	if err != nil {
		return nil, err
	}
	v := reflect.ValueOf(f)
	for i := range v.NumField() { // most forms have looked at most of them
		at := v.Type().Field(i)
		least := map[string]float64{"yes": -largest}[at.Tag.Get("signed")]
		if l, ok := v.Field(i).Interface().(measure.Length); ok && (l.Value() > largest || l.Value() < least) {
			name, _, _ := strings.Cut(at.Tag.Get("json"), ",")
			return nil, measure.Bad(name, "%s is no size of a prop; write 0 to 98 ft (30 m)", l)
		}
	}
	return s, nil
}

// Scaled is the form f times as large: each length by by, but for what the stock
// gives.
func Scaled(x Form, by func(measure.Length) measure.Length, f float64) Form {
	if s, ok := x.(stretcher); ok {
		x = s.stretched(by, f)
	}
	v := reflect.New(reflect.TypeOf(x)).Elem()
	v.Set(reflect.ValueOf(x))
	for i := range v.NumField() {
		if l, ok := v.Field(i).Interface().(measure.Length); ok && v.Type().Field(i).Tag.Get("scale") != "no" {
			v.Field(i).Set(reflect.ValueOf(by(l)))
		}
	}
	return v.Interface().(Form)
}

// field is a form's field by its name in files.
func field(v reflect.Value, name string) (reflect.Value, bool) {
	for i := range v.NumField() {
		if n, _, _ := strings.Cut(v.Type().Field(i).Tag.Get("json"), ","); n == name {
			return v.Field(i), true
		}
	}
	return reflect.Value{}, false
}

// value is one of a form's fields by its name in files; the zero value when it has
// none such, or one of another type.
func value[T any](f Form, name string) (v T) {
	if f == nil {
		return v
	}
	if at, ok := field(reflect.ValueOf(f), name); ok {
		v, _ = at.Interface().(T)
	}
	return v
}

// Length is one of a form's lengths by its name in files; zero when it has none
// such.
func Length(f Form, name string) measure.Length { return value[measure.Length](f, name) }

// Int is one of a form's whole numbers by its name in files; 0 when it has none
// such.
func Int(f Form, name string) int { return value[int](f, name) }

// With is the form with one of its fields set by its name in files. It panics on
// a name or a type that the form does not have.
func With(f Form, name string, to any) Form {
	v := reflect.New(reflect.TypeOf(f)).Elem()
	v.Set(reflect.ValueOf(f))
	at, ok := field(v, name)
	if !ok {
		panic(fmt.Sprintf("form: %T has no %s", f, name))
	}
	at.Set(reflect.ValueOf(to))
	return v.Interface().(Form)
}

// KindOf is the name of a form's kind.
func KindOf(f Form) string {
	for n, k := range kinds {
		if reflect.TypeOf(k.Blank) == reflect.TypeOf(f) {
			return n
		}
	}
	return ""
}
