package shell

import (
	"encoding/json"
	"fmt"
	"reflect"
	"strconv"
	"strings"

	"zapbarn/core/circuit"
	"zapbarn/core/form"
	"zapbarn/core/measure"
	"zapbarn/core/order"
	"zapbarn/core/plan"
	"zapbarn/core/shorthand"
	"zapbarn/core/stock"
	"zapbarn/core/wiring"
	"zapbarn/core/work"
)

// Field is one field of a ticket.
type Field struct {
	Name, Label, Kind string // text, choice, check or wide
	Value             string
	Checked           bool
	Options           []Option
	Error             string
	Stored            string // what is stored, where something else was entered that is wrong
	Max               int    // letters at most; 0 where the kind says
}

// Option is one choice.
type Option struct {
	Value, Text string
	On          bool
}

// spec is a field before it has a value: kind text, wide, check, or a choice
// of a part of the library or of words.
type spec struct{ name, label, kind string }

// seams are a solid's fields where a part of it is larger than its sheet.
var seams = []spec{{"seam", "Large parts", "|butt|half-lap"}, {"seamAt", "Seam at", "text"}, {"lap", "Lap", "text"}}

// placed are the fields every solid has for where it stands in its prop.
var placed = []spec{{"how", "Stands", "hows"}, {"by", "what", "beside"}, {"byAt", "so far up it", "text"},
	{"x", "Right by", "text"}, {"y", "Back by", "text"}, {"z", "Up by", "text"}}

// tooLarge reports whether a part of a solid fits no sheet.
func tooLarge(w *work.Work, solid string) bool {
	for _, sh := range w.Sheets() {
		for _, i := range sh.Layout.TooLarge {
			if w.Part(sh.Pieces[i].Ref).Solid.ID == solid {
				return true
			}
		}
	}
	return false
}

// tagged are the fields of a struct as their tags have them: short ones, ticks
// and long texts, each in the struct's own order.
func tagged(v any) (short, ticks, long []spec) {
	t := reflect.TypeOf(v)
	if t.Kind() == reflect.Pointer {
		t = t.Elem()
	}
	for i := range t.NumField() {
		f := t.Field(i)
		name, _, _ := strings.Cut(f.Tag.Get("json"), ",")
		label := f.Tag.Get("label")
		if s, ok := v.(interface{ Shows(field string) bool }); label == "" || ok && !s.Shows(name) {
			continue
		}
		switch {
		case f.Type.Kind() == reflect.Bool:
			ticks = append(ticks, spec{name, label, "check"})
		case f.Tag.Get("choose") != "":
			short = append(short, spec{name, label, f.Tag.Get("choose")})
		case f.Tag.Get("wide") != "":
			long = append(long, spec{name, label, "wide"})
		default:
			short = append(short, spec{name, label, "text"})
		}
	}
	return short, ticks, long
}

// solidSpecs are the fields of a solid: its name, its form's own, its stock, and
// what every solid has.
func solidSpecs(w *work.Work, x *plan.Solid) []spec {
	k, _ := form.Of(x.Kind)
	out := []spec{{"name", "Name", "text"}}
	var choices, ticks, long []spec
	if x.Form != nil {
		var short []spec
		short, ticks, long = tagged(x.Form)
		for _, s := range short {
			if s.kind == "text" {
				out = append(out, s)
			} else {
				choices = append(choices, s)
			}
		}
	}
	out = append(append(append(out, spec{"stock", "Stock", k.Form}), choices...), ticks...)
	out = append(out, spec{"sealed", "Closed for good", "check"}, spec{"lit", "Light must pass", "check"},
		spec{"blacked", "Blacked out inside", "check"})
	if k.Form == "sheet" {
		long = append(long, spec{"openings", "Openings", "wide"})
	}
	if x.Fills != "" {
		out = append(out, spec{"magnets", "Pairs of magnets", "text"}, spec{"pull", "One pair holds", "text"})
	}
	out = append(out, long...)
	switch {
	case x.Seam != "":
		out = append(out, seams...)
	case k.Splits && tooLarge(w, x.ID):
		out = append(out, seams[0])
	}
	return append(out, placed...)
}

func specsOf(w *work.Work, v any) []spec {
	switch x := v.(type) {
	case *plan.Good:
		return goodSpecs(x)
	case *plan.Solid:
		return solidSpecs(w, x)
	case *plan.Device:
		return deviceSpecs(w, x)
	}
	short, ticks, long := tagged(v)
	return append(append(short, ticks...), long...)
}

func deviceSpecs(w *work.Work, x *plan.Device) (out []spec) {
	for _, f := range x.Fields(w.Lib) {
		out = append(out, spec{f.Name, f.Label, f.Choose})
	}
	return out
}

// FieldsOf are an element's fields with their values as written.
func FieldsOf(w *work.Work, v any) []Field {
	if g, ok := v.(*plan.Good); ok {
		return goodFields(w, g)
	}
	var out []Field
	for _, s := range specsOf(w, v) {
		f := Field{Name: s.name, Label: s.label, Kind: s.kind, Max: lettersOf(v, s.name)}
		at, _, _, ok := plan.At(v, s.name)
		if !ok {
			continue
		}
		switch val := at.Interface().(type) {
		case bool:
			f.Checked = val
		case int:
			if val != 0 {
				f.Value = strconv.Itoa(val)
			}
		case []plan.Opening:
			f.Value = shorthand.WriteOpenings(val)
		case []plan.Layer:
			f.Value = shorthand.WriteLayers(val)
		case []plan.Cue:
			f.Value = shorthand.WriteCues(val)
		default:
			f.Value = fmt.Sprint(val)
		}
		if s.kind != "text" && s.kind != "wide" && s.kind != "check" {
			f.Kind = "choice"
			for _, c := range choicesOf(w, v, s.kind, f.Value) {
				f.Options = append(f.Options, Option{c[0], c[1], c[0] == f.Value})
			}
		}
		out = append(out, f)
	}
	return out
}

// choice is a value and how it is called.
type choice = [2]string

// choicesOf are what a field can be chosen from: of the shop, of the plan, or the
// words themselves. now is what it is.
func choicesOf(w *work.Work, v any, kind, now string) (out []choice) {
	if of := ofShop(w, kind); of != nil {
		return of
	}
	if of, ok := ofDevices(w, v, kind); ok {
		return of
	}
	if of, ok := ofPlan(w, v, kind, now); ok {
		return of
	}
	for _, c := range strings.Split(kind, "|") {
		text := c
		if c == "" {
			text = unsaid(kind)
		}
		out = append(out, choice{c, text})
	}
	return out
}

// ofShop are the choices of a part of the shop; nil where it is none of it.
func ofShop(w *work.Work, kind string) (out []choice) {
	switch kind {
	case "sheet", "pipe", "bought", "modelled", "laminate", "filament":
		for _, id := range stock.IDs(w.Lib.Materials) {
			if m := w.Lib.Materials[id]; m.Form == kind {
				out = append(out, choice{id, m.Name})
			}
		}
	case "glue":
		return shopNames(w.Lib.Glues, func(x stock.Glue) string { return x.Name })
	case "supply":
		return append(
			[]choice{{"", "as written"}},
			shopNames(w.Lib.Supplies, func(x stock.Supply) string { return x.Name })...)
	case "lamp":
		return shopNames(w.Lib.Lamps, func(x stock.Lamp) string { return x.Name })
	case "cells":
		return shopNames(circuit.Cells, func(x circuit.Cell) string { return x.Name })
	}
	return out
}

// ofDevices are the choices among what is wired; false where it is none of that.
func ofDevices(w *work.Work, v any, kind string) ([]choice, bool) {
	none := "nothing"
	var of func(*plan.Device) bool
	switch kind {
	case "feeders":
		of = func(d *plan.Device) bool { return !d.Is(wiring.Load) }
	case "datas":
		of = func(d *plan.Device) bool {
			return d.Is(wiring.Controller) || w.Lib.Lamps[d.Product].Kind == "pixels" && v.(*plan.Device).ID != d.ID
		}
	case "driven":
		of = func(d *plan.Device) bool { return d.Driven }
	case "drivenor":
		x, _ := v.(*plan.Device)
		none, of = "any other", func(d *plan.Device) bool { return d.Driven && (x == nil || d.ID != x.ID) }
	case "motors":
		none, of = "none yet", func(d *plan.Device) bool { return d.Is(wiring.Load) && w.Lib.Lamps[d.Product].Torque > 0 }
	case "lamps":
		none, of = "nothing yet", func(d *plan.Device) bool { return d.Is(wiring.Load) }
	default:
		return nil, false
	}
	return append([]choice{{"", none}}, devices(w, of)...), true
}

// ofPlan are the choices among the plan's other elements; false where it is none of them.
func ofPlan(w *work.Work, v any, kind, now string) (out []choice, ok bool) {
	switch kind {
	case "parts":
		return partChoices(w, w.Plan.Belongs(v), now), true
	case "hows":
		out = append(out, choice{"", "where its numbers say"})
		for _, h := range plan.Hows {
			out = append(out, choice{h, h})
		}
	case "beside":
		x, _ := v.(*plan.Solid)
		out = append(out, choice{"", "nothing"})
		for i := range w.Plan.Solids() {
			if o := &w.Plan.Solids()[i]; x != nil && o.Prop == x.Prop && o.ID != x.ID {
				out = append(out, choice{o.ID, o.Name})
			}
		}
	case "solids":
		out = elements(w, "solid", choice{"", "nothing"})
	case "outlets":
		if _, plug := v.(*plan.Plug); plug {
			return elements(w, "outlet"), true
		}
		out = elements(w, "outlet", choice{"", "nowhere"})
	case "inputs":
		out = elements(w, "input")
	case "anyscene":
		out = elements(w, "scene", choice{"", "none"})
	case "mechanisms":
		out = elements(w, "mechanism", choice{"", "nobody: by hand"})
	case "scenes":
		out = elements(w, "scene")
	case "props":
		out = elements(w, "prop", choice{"", "none"})
	case "tasks":
		out = append(out, choice{"", "nothing"})
		for _, t := range order.Of(w).Left() {
			if j, own := v.(*plan.Job); !own || t.Job == nil || t.Job.ID != j.ID {
				out = append(out, choice{t.Key, t.Name})
			}
		}
	default:
		return nil, false
	}
	return out, true
}

// unsaid is what it is where nothing is chosen, by how a list of words begins.
func unsaid(kind string) string {
	for begins, text := range map[string]string{
		"|idea":    "as what is done shows",
		"|round":   "flat",
		"|ballast": "nothing",
		"|covered": "bare",
		"|off the": "nothing said",
		"|done":    "still to do",
		"|solid":   "full white",
		"|eyes":    "all of it lit",
		"|upright": "as it came",
		"|latest":  "the highest level",
		"|outside": "all that a brush meets",
	} {
		if strings.HasPrefix(kind, begins) {
			return text
		}
	}
	return "stay whole"
}

// shopNames lists a part of the shop by its names.
func shopNames[T any](all map[string]T, name func(T) string) (out []choice) {
	for _, id := range stock.IDs(all) {
		out = append(out, choice{id, name(all[id])})
	}
	return out
}

func devices(w *work.Work, is func(*plan.Device) bool) (out []choice) {
	for i := range w.Plan.Devices() {
		if d := &w.Plan.Devices()[i]; is(d) {
			out = append(out, choice{d.ID, d.Name})
		}
	}
	return out
}

// elements lists all of a kind, behind what else can be chosen.
func elements(w *work.Work, kind string, out ...choice) []choice {
	for _, e := range w.Plan.Elements(kind) {
		out = append(out, choice{e.ID, plan.NameOf(e.Value)})
	}
	return out
}

// partChoices are a prop's solids and parts, and what is chosen now when it is none
// of them: a bought thing, or a part that is not laid out.
func partChoices(w *work.Work, prop, now string) (out []choice) {
	known := false
	for _, o := range PartsOf(w, prop) {
		out, known = append(out, choice{o.Value, o.Text}), known || o.Value == now
	}
	if !known {
		out = append(out, choice{now, SideName(w, now)})
	}
	return out
}

// lettersOf is how many letters a text field may have; 0 for what is no text.
func lettersOf(v any, name string) int {
	f, tag, _, ok := plan.At(v, name)
	if !ok || f.Kind() != reflect.String {
		return 0
	}
	return plan.Letters(reflect.StructField{Tag: tag})
}

// fill lays entered values over the element as it was shown. Only fields the
// form sent change.
func fill(w *work.Work, kind string, was []byte, values map[string]string) (json.RawMessage, error) {
	v, err := plan.Blank(kind)
	if err != nil {
		return nil, err
	}
	if err := json.Unmarshal(was, v); err != nil {
		return nil, measure.Bad("was", "this form is damaged; load the page again")
	}
	if g, ok := v.(*plan.Good); ok {
		return json.Marshal(fillGood(w, g, values))
	}
	bare := "in"
	if w.Plan.Metric() {
		bare = "mm"
	}
	for _, s := range specsOf(w, v) {
		text, sent := values[s.name]
		if !sent {
			continue
		}
		text = strings.TrimSpace(text)
		f, _, keep, ok := plan.At(v, s.name)
		if !ok {
			continue
		}
		switch f.Interface().(type) {
		case []plan.Opening:
			o, err := shorthand.ReadOpenings(text, bare)
			if err != nil {
				return nil, err
			}
			f.Set(reflect.ValueOf(o))
		case []plan.Layer:
			o, err := shorthand.ReadLayers(text)
			if err != nil {
				return nil, err
			}
			f.Set(reflect.ValueOf(o))
		case []plan.Cue:
			o, err := shorthand.ReadCues(text)
			if err != nil {
				return nil, err
			}
			if sc, ok := v.(*plan.Scene); ok && shorthand.WriteCues(o) != shorthand.WriteCues(sc.Cues) {
				sc.Made = false // cues of one's own
			}
			f.Set(reflect.ValueOf(o))
		default:
			if err := plan.SetText(v, s.name, text, w.Plan.Metric()); err != nil {
				return nil, err
			}
			continue // it kept itself
		}
		keep()
	}
	b, err := json.Marshal(v)
	return b, err
}
