package stock

import (
	"fmt"
	"maps"
	"reflect"
	"slices"
	"strconv"
	"strings"

	"zapbarn/core/measure"
	"zapbarn/core/memo"
	"zapbarn/core/source"
)

// Over is an entry of the shop's list that a builder changed or added: what it
// starts from, and the fields that differ.
type Over struct {
	Table    string // one of Tables
	ID, Like string // Like is the entry it starts from; its own ID when empty
	Set      []Setting
	On       string // date
}

// Setting is one field by its name in the shop's files, as written.
type Setting struct{ Field, Value string }

// Tables are the lists of the shop that can be added to.
func Tables() []string { return []string{"material", "glue", "coat", "lamp", "supply"} }

// Base is the library without what a plan adds to it.
func (l *Library) Base() *Library {
	if l.base != nil {
		return l.base
	}
	return l
}

// On is the library at hand on a bench, where what is worked out of its goods is remembered.
func (l *Library) On(b *memo.Bench) *Library {
	own := *l.Base()
	own.bench = b
	return &own
}

// Bench is where what is worked out of the library's goods is remembered; nil remembers nothing.
func (l *Library) Bench() *memo.Bench { return l.bench }

// With is the library with entries changed and added, one after another. The
// error is a *measure.FieldError naming the field.
func (l *Library) With(overs []Over) (*Library, error) {
	base := l.Base()
	out := &Library{
		maps.Clone(base.Materials),
		maps.Clone(base.Glues),
		maps.Clone(base.Coats),
		maps.Clone(base.Lamps),
		maps.Clone(base.Supplies),
		base,
		base.bench,
	}
	for _, o := range overs {
		var err error
		switch o.Table {
		case "material":
			err = lay(out.Materials, o, func(m *Material) { m.ID, m.Entered = o.ID, entered(o.On) })
		case "glue":
			err = lay(out.Glues, o, func(g *Glue) { g.ID, g.Entered = o.ID, entered(o.On) })
		case "coat":
			err = lay(out.Coats, o, func(c *Coat) { c.ID = o.ID })
		case "lamp":
			err = lay(out.Lamps, o, func(x *Lamp) { x.ID = o.ID })
		case "supply":
			err = lay(out.Supplies, o, func(s *Supply) { s.ID = o.ID })
		default:
			err = measure.Bad("table", "%q is no list of the shop; choose %s", o.Table, strings.Join(Tables(), ", "))
		}
		if err != nil {
			return nil, err
		}
	}
	for id, m := range out.Materials {
		if m.Entered != "" {
			if err := m.whole(); err != nil {
				return nil, fmt.Errorf("%s: %w", id, err)
			}
		}
	}
	return out, nil
}

func entered(on string) string {
	if on == "" {
		return "undated"
	}
	return on
}

// whole refuses a material that nothing can be made of.
func (m Material) whole() error {
	forms := []string{"sheet", "pipe", "bought", "modelled", "laminate", "filament"}
	switch {
	case !slices.Contains(forms, m.Form):
		return measure.Bad("form", "%q is no form of stock; choose one of %s", m.Form, strings.Join(forms, ", "))
	case !slices.Contains([]string{"ok", "softens", "crazes", "core", "dissolves"}, m.Solvent):
		return measure.Bad(
			"solvent",
			"%q is not what a solvent does; choose ok, softens, crazes, core or dissolves",
			m.Solvent,
		)
	case m.Density <= 0 || m.Density > 25_000:
		return measure.Bad("density", "%g kg/m3 is no stock; write such as 32", m.Density)
	case m.Price < 0:
		return measure.Bad("price", "cannot be less than nothing")
	case m.Form == "sheet" && (m.Thick.Value() <= 0 || m.Sheet[0].Value() <= 0 || m.Sheet[1].Value() < m.Sheet[0].Value()):
		return measure.Bad("sheet", "wants its short side, its long side and a thickness, such as 24 x 36 in")
	case m.Form == "pipe" && (m.Wall.Value() <= 0 || m.Bore() <= 0 || m.Length.Value() <= 0):
		return measure.Bad("od", "a pipe wants an outside diameter, a wall that leaves a bore, and a length")
	case (m.Form == "modelled" || m.Form == "filament") && m.Unit <= 0:
		return measure.Bad("unit", "wants the litres that a tub makes")
	case m.Form == "laminate" && (m.Fibre <= 0 || m.Glass <= 0 || m.Glass >= 1 || m.Hardener < 0 || m.Pot.Value() < 60):
		return measure.Bad(
			"fibre",
			"a laminate wants kg/m2 of a ply, the share of glass, of hardener, and a pot life",
		)
	}
	return nil
}

// lay puts one entry into its table.
func lay[T any](table map[string]T, o Over, name func(*T)) error {
	like := o.Like
	if like == "" {
		like = o.ID
	}
	v, ok := table[like]
	if !ok {
		return measure.Bad(
			"like",
			"the shop has no %s %q to start from; it has %s",
			o.Table,
			like,
			strings.Join(IDs(table), ", "),
		)
	}
	for _, s := range o.Set {
		if err := set(reflect.ValueOf(&v).Elem(), s); err != nil {
			return err
		}
	}
	name(&v)
	table[o.ID] = v
	return nil
}

// FieldsOf lists what can be set in a table's entries, by their names in files.
func FieldsOf(table string) []string {
	var out []string
	t := tableType(table)
	if t == nil {
		return nil
	}
	for i := range t.NumField() {
		name, _, _ := strings.Cut(t.Field(i).Tag.Get("json"), ",")
		if kind := t.Field(i).Type.Kind(); name != "id" && name != "-" && kind != reflect.Slice {
			out = append(out, name)
		}
	}
	return out
}

func tableType(table string) reflect.Type {
	return map[string]reflect.Type{"material": reflect.TypeFor[Material](), "glue": reflect.TypeFor[Glue](),
		"coat": reflect.TypeFor[Coat](), "lamp": reflect.TypeFor[Lamp](), "supply": reflect.TypeFor[Supply]()}[table]
}

// Value is a field of an entry as it would be written; false when there is none.
func (l *Library) Value(table, id, field string) (string, bool) {
	var v reflect.Value
	switch table {
	case "material":
		v = reflect.ValueOf(l.Materials[id])
	case "glue":
		v = reflect.ValueOf(l.Glues[id])
	case "coat":
		v = reflect.ValueOf(l.Coats[id])
	case "lamp":
		v = reflect.ValueOf(l.Lamps[id])
	case "supply":
		v = reflect.ValueOf(l.Supplies[id])
	default:
		return "", false
	}
	for i := range v.NumField() {
		if name, _, _ := strings.Cut(v.Type().Field(i).Tag.Get("json"), ","); name != field {
			continue
		}
		switch x := v.Field(i).Interface().(type) {
		case float64:
			return measure.Decimal(x, 6), true
		case bool:
			return map[bool]string{true: "yes", false: "no"}[x], true
		case [2]measure.Length:
			return x[0].String() + " x " + x[1].String(), true
		default:
			return fmt.Sprint(x), true
		}
	}
	return "", false
}

// unitOf reads a number with the unit its field has.
var unitOf = map[string]func(string) (float64, error){
	"volts": number[measure.VoltKind], "vf": number[measure.VoltKind], "min": number[measure.VoltKind],
	"amps": number[measure.AmpKind], "idle": number[measure.AmpKind], "stall": number[measure.AmpKind],
	"peak": number[measure.AmpKind], "freeAmps": number[measure.AmpKind], "torque": number[measure.TorqueKind],
	"softens": number[measure.CelsiusKind], "hot": number[measure.CelsiusKind], "creeps": number[measure.CelsiusKind],
	"minTemp": number[measure.CelsiusKind], "heat": number[measure.CelsiusKind],
	"copper": number[measure.OhmKind],
}

func number[K interface {
	measure.VoltKind | measure.AmpKind | measure.CelsiusKind | measure.OhmKind | measure.TorqueKind
	measure.Kind
}](text string) (float64, error) {
	w, err := measure.Parse[K](text)
	return w.Value(), err
}

func set(v reflect.Value, s Setting) error {
	text := strings.TrimSpace(s.Value)
	for i := range v.NumField() {
		name, _, _ := strings.Cut(v.Type().Field(i).Tag.Get("json"), ",")
		if name != s.Field || name == "id" || name == "-" {
			continue
		}
		f := v.Field(i)
		bad := func(want string) error { return measure.Bad(s.Field, "%q is not understood; write %s", text, want) }
		switch x := f.Addr().Interface().(type) {
		case *string:
			if text == "" || len(text) > 120 {
				return bad("1 to 120 letters")
			}
			*x = text
		case *bool:
			switch strings.ToLower(text) {
			case "yes", "true":
				*x = true
			case "no", "false":
				*x = false
			default:
				return bad("yes or no")
			}
		case *int:
			n, err := strconv.Atoi(text)
			if err != nil || n < 0 || n > 10_000 {
				return bad("a whole number")
			}
			*x = n
		case *float64:
			read := unitOf[s.Field]
			if read == nil {
				read = func(t string) (float64, error) { return strconv.ParseFloat(strings.TrimPrefix(t, "$"), 64) }
			}
			n, err := read(text)
			if err != nil || n != n || n < -300 || n > 1e7 {
				return bad("a number, with its unit")
			}
			*x = n
		case *[2]measure.Length:
			if !strings.ContainsAny(text, "x×") {
				return bad("its short side x its long side")
			}
			if err := sides(x, text); err != nil {
				return measure.Bad(s.Field, "%s", err)
			}
		default:
			u, ok := x.(interface{ UnmarshalText([]byte) error })
			if !ok {
				return measure.Bad(s.Field, "cannot be set here")
			}
			if err := u.UnmarshalText([]byte(text)); err != nil {
				return measure.Bad(s.Field, "%s", err)
			}
		}
		return nil
	}
	return measure.Bad(s.Field, "is no field of this list of the shop")
}

// Known is where one of a material's values is from.
func (m Material) Known(what string) source.Source { return knownOf(m.Name, what, m.Entered) }

// Known is where one of a glue's values is from.
func (g Glue) Known(what string) source.Source { return knownOf(g.Name, what, g.Entered) }

func knownOf(name, what, on string) source.Source {
	text := strings.TrimSpace(name + " " + what)
	if on != "" {
		return source.Entered(text + ", " + on)
	}
	return source.FromMemory(text)
}

// sides reads a sheet's two: 24 x 36 in.
func sides(x *[2]measure.Length, text string) error {
	a, b, _ := strings.Cut(strings.ReplaceAll(text, "×", "x"), "x")
	if u := strings.Fields(b); len(u) > 1 && strings.Trim(strings.TrimSpace(a), "0123456789./ ") == "" {
		a += " " + u[len(u)-1] // its unit counts for both
	}
	for k, part := range []string{a, b} {
		l, err := measure.Parse[measure.LengthKind](part)
		if err != nil {
			return err
		}
		x[k] = l
	}
	return nil
}
