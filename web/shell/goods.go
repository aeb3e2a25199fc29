package shell

import (
	"strings"
	"unicode"

	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/stock"
	"zapbarn/core/work"
)

// goodSpecs are the fields of an entry of the shop: those of its list.
func goodSpecs(g *plan.Good) []spec {
	out := []spec{{"good", "Called", "text"}, {"like", "Like", "text"}, {"on", "As of", "text"}}
	for _, f := range stock.FieldsOf(g.Table) {
		out = append(out, spec{f, spaced(f), "text"})
	}
	return out
}

// spaced writes a field's name as words: minTemp becomes Min temp.
func spaced(name string) string {
	var b strings.Builder
	for _, r := range name {
		if unicode.IsUpper(r) {
			b.WriteByte(' ')
			r = unicode.ToLower(r)
		}
		b.WriteRune(r)
	}
	return measure.Capital(b.String())
}

// goodFields are an entry's fields as everything is worked out with them.
func goodFields(w *work.Work, g *plan.Good) []Field {
	var out []Field
	for _, s := range goodSpecs(g) {
		f := Field{Name: s.name, Label: s.label, Kind: s.kind, Max: 120}
		switch s.name {
		case "good":
			continue // its name is what refers to it
		case "like":
			f.Value, f.Max = g.Like, 30
		case "on":
			f.Value = g.On
		default:
			f.Value, _ = w.Lib.Value(g.Table, g.Good, s.name)
		}
		out = append(out, f)
	}
	return out
}

// fillGood lays entered values over an entry: only what differs from how it
// stands is set.
func fillGood(w *work.Work, g *plan.Good, values map[string]string) plan.Good {
	out := *g
	for _, f := range goodFields(w, g) {
		text, sent := values[f.Name]
		text = strings.TrimSpace(text)
		if !sent || text == f.Value {
			continue
		}
		switch f.Name {
		case "like":
			out.Like = strings.ToLower(text)
		case "on":
			out.On = text
		default:
			out = out.With(f.Name, text)
		}
	}
	return out
}
