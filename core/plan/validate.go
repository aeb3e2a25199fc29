package plan

import (
	"errors"
	"strings"
	"time"

	"zapbarn/core/circuit"
	"zapbarn/core/form"
	"zapbarn/core/measure"
	"zapbarn/core/stock"
)

// ref is a reference an element makes to another.
type ref struct{ Kind, ID, Field string }

// references lists what an element names.
func references(v any) (out []ref) {
	add := func(kind, field, id string) {
		if id != "" {
			out = append(out, ref{kind, id, field})
		}
	}
	part := func(field, r string) {
		if !strings.HasPrefix(r, "=") {
			id, _, _ := strings.Cut(r, "/")
			add("solid", field, id)
		}
	}
	switch x := v.(type) {
	case *Solid:
		add("prop", "prop", x.Prop)
	case *Joint:
		add("prop", "prop", x.Prop)
		part("a", x.A)
		part("b", x.B)
	case *Finish:
		add("solid", "solid", x.Solid)
	case *Device:
		add("prop", "prop", x.Prop)
		add("device", "from", x.From)
		add("device", "to", x.To)
		add("device", "data", x.Data)
		add("solid", "in", x.In)
		add("outlet", "outlet", x.Outlet)
	case *Input:
		add("prop", "prop", x.Prop)
	case *Scene:
		add("prop", "prop", x.Prop)
		for _, c := range x.Cues {
			add("device", "channel", c.Channel)
		}
	case *Plug:
		add("outlet", "outlet", x.Outlet)
	case *Picture:
		add("prop", "prop", x.Prop)
		add("photo", "photo", x.Photo)
	case *Reading:
		add("device", "device", x.Device)
	case *Trigger:
		add("input", "input", x.Input)
		add("scene", "scene", x.Scene)
	}
	return out
}

// oneOf checks a choice.
func oneOf(field, value string, choices ...string) error {
	for _, c := range choices {
		if value == c {
			return nil
		}
	}
	return measure.Bad(field, "%q is not known; choose %s", value, strings.Join(choices, ", "))
}

// inList checks a name against a part of the stock library.
func inList[T any](field, value string, m map[string]T, example string) error {
	if _, ok := m[value]; ok {
		return nil
	}
	if value == "" {
		return measure.Bad(field, "is empty; choose such as %s", example)
	}
	return measure.Bad(field, "the shop has no %q; choose such as %s", value, example)
}

func date(field, s string) error {
	if s == "" {
		return nil
	}
	if _, err := time.Parse(time.DateOnly, s); err != nil {
		return measure.Bad(field, "%q is not a date; write such as 2026-10-09", s)
	}
	return nil
}

// within checks a length that is given against a sensible range in mm.
func within(field string, l measure.Length, low, high float64) error {
	if l.IsZero() {
		return nil
	}
	if l.Value() < low || l.Value() > high {
		return measure.Bad(field, "%s is out of range; write %s to %s", l, measure.Run(low, false), measure.Run(high, false))
	}
	return nil
}

func first(errs ...error) error {
	for _, e := range errs {
		if e != nil {
			return e
		}
	}
	return nil
}

// Validate checks every element for itself, every reference, and that feeds
// and names make sense. Missing sizes are allowed; impossible ones are not.
func (p *Plan) Validate() error {
	if p.Format != Format {
		return measure.Bad("format", "%q cannot be read; this program reads %s", p.Format, Format)
	}
	have := map[string]map[string]bool{}
	coated := map[string]bool{}
	for _, k := range kinds {
		have[k.name] = map[string]bool{}
		all := k.all(p)
		if len(all) > most[k.name] { // of the whole plan, no one element's
			return measure.Bad(k.name, "%d of them; %d at most in one plan", len(all), most[k.name])
		}
		for _, e := range all {
			if e.ID == "" {
				return measure.Bad(k.name, "an ID is missing; each needs its own")
			}
			if err := first(texts(e.Value), needs(e.Value)); err != nil {
				return in(e, err)
			}
			if f, ok := e.Value.(*Finish); ok {
				if coated[f.Solid] {
					return in(e, measure.Bad("solid", "%q has a stack of coats already; add to that", f.Solid))
				}
				coated[f.Solid] = true
			}
			if have[k.name][e.ID] {
				return in(e, measure.Bad(k.name, "two have the ID %q; give each its own", e.ID))
			}
			have[k.name][e.ID] = true
		}
	}
	wires, lib := wiresOf(p), p.Shop(stock.Shop)
	for _, k := range kinds {
		for _, e := range k.all(p) {
			for _, r := range references(e.Value) {
				if !have[r.Kind][r.ID] {
					return in(e, measure.Bad(r.Field, "there is no %s %q in this plan", r.Kind, r.ID))
				}
			}
			if err := p.validate(e.Value, wires, lib); err != nil {
				return in(e, measure.ErrorIn(err, p.Metric()))
			}
		}
	}
	if n := p.pieces(); n > maxPieces {
		return measure.Bad("copies", "%d pieces in all; %d at most in one plan", n, maxPieces)
	}
	return p.feeds(wires)
}

// maxPieces is how many copies of parts a plan may have.
const maxPieces = 20_000

func (p *Plan) pieces() (n int) {
	for i := range p.Solids {
		n += max(1, form.Int(p.Solids[i].Form, "copies"))
	}
	return n
}

// ElementError says which element an error is in.
type ElementError struct {
	Kind, ID, Name string
	Err            error
}

func (e *ElementError) Error() string { return e.Kind + " " + e.Name + ": " + e.Err.Error() }
func (e *ElementError) Unwrap() error { return e.Err }

func in(e Element, err error) error {
	return &ElementError{e.Kind, e.ID, NameOf(e.Value), err}
}

func named(name string) error {
	if strings.TrimSpace(name) == "" {
		return measure.Bad("name", "is empty; write what it is called")
	}
	return nil
}

const metre = 1000.0

func (p *Plan) validate(v any, wires wires, lib *stock.Library) error {
	switch x := v.(type) {
	case *Good:
		return x.valid(p)
	case *Display:
		if Slug(x.ID) != x.ID {
			return measure.Bad("id", "%q must be small letters, digits and dashes, at most 40, such as %s", x.ID, Slug(x.ID))
		}
		if x.RH < 0 || x.RH > 100 {
			return measure.Bad("rh", "%d %% cannot be; write 1 to 100", x.RH)
		}
		if t := x.Temp.Or(21); t < -30 || t > 60 {
			return measure.Bad("temp", "%s is no workshop; write -30 C to 60 C", x.Temp)
		}
		if x.Nights < 0 || x.Nights > 366 || x.Duty < 0 || x.Duty > 100 {
			return measure.Bad("nights", "write 1 to 366 nights, and a duty of 1 to 100 %%")
		}
		if n := x.Night.Or(3600); n <= 0 || n > 86400 {
			return measure.Bad("night", "%s is no night; write such as 4 h", x.Night)
		}
		return first(named(x.Name), oneOf("units", x.Units, "in", "mm"), date("opens", x.Opens),
			within("kerf", x.Kerf, 0, 25), within("margin", x.Margin, 0, 200))
	case *Prop:
		return first(named(x.Name), within("known", x.Known, 10, 30*metre), oneOf("of", x.Of, "", "height", "width", "depth"))
	case *Solid:
		if err := first(named(x.Name), oneOf("kind", x.Kind, form.Names()...), inList("stock", x.Stock, lib.Materials, "xps1 or ply1/4")); err != nil {
			return err
		}
		if m, k := lib.Materials[x.Stock], x.formKind(); m.Form != k.Form {
			return measure.Bad("stock", "%s is not %s stock; a %s is cut from %s", m.Name, k.Form, x.Kind, k.Form)
		}
		for f, l := range map[string]measure.Length{"x": x.X, "y": x.Y, "z": x.Z} {
			if err := within(f, l, -30*metre, 30*metre); err != nil {
				return err
			}
		}
		for _, o := range x.Openings {
			if err := oneOf("openings", o.Kind, "rect", "slot", "round"); err != nil {
				return err
			}
		}
		if x.Seam != "" {
			if err := first(oneOf("seam", x.Seam, "butt", "half-lap"), within("seamAt", x.SeamAt, 1, 30*metre), within("lap", x.Lap, 5, metre)); err != nil {
				return err
			}
		}
		_, err := x.Shape(lib)
		var missing *Missing
		if errors.As(err, &missing) {
			return nil
		}
		return err
	case *Joint:
		for f, r := range map[string]string{"a": x.A, "b": x.B} {
			if m, bought := strings.CutPrefix(r, "="); bought {
				if err := inList(f, m, lib.Materials, "=pet"); err != nil {
					return err
				}
			} else if r == "" {
				return measure.Bad(f, "is empty; name a part such as box/front")
			}
		}
		return first(inList("glue", x.Glue, lib.Glues, "pu or hotlow"), within("length", x.Length, 1, 1000*metre))
	case *Finish:
		if len(x.Layers) > 30 {
			return measure.Bad("layers", "%d is more than a part can bear; 30 at most", len(x.Layers))
		}
		for _, l := range x.Layers {
			if l.Coats < 1 || l.Coats > 20 {
				return measure.Bad("layers", "%d coats of %s; write 1 to 20", l.Coats, l.Coat)
			}
			if err := inList("layers", l.Coat, lib.Coats, "masonry or latex"); err != nil {
				return err
			}
		}
	case *Device:
		return p.validateDevice(x, lib)
	case *Input:
		return first(named(x.Name), oneOf("kind", x.Kind, "button", "mat", "beam", "switch"), seconds("minPulse", x.MinPulse, 60), seconds("holdOff", x.HoldOff, 86400))
	case *Scene:
		if len(x.Cues) > 500 {
			return measure.Bad("cues", "500 at most")
		}
		for _, c := range x.Cues {
			d := wires.byID[c.Channel]
			if d == nil || d.Kind != "switch" || !d.Driven {
				return measure.Bad("cues", "%s is not a driven switch; cues work switches that scenes drive", c.Channel)
			}
			if c.Length.Value() <= 0 {
				return measure.Bad("cues", "%s: write how long, such as 5 s", c.Channel)
			}
			if err := first(seconds("cues", c.Start, 86400), seconds("cues", c.Length, 86400)); err != nil {
				return err
			}
		}
		return first(named(x.Name), seconds("length", x.Length, 86400))
	case *Trigger:
		return first(oneOf("latch", x.Latch, "one-shot", "retrigger", "momentary", "toggle"), seconds("rest", x.Rest, 86400))
	case *Reading:
		n := 0
		for _, given := range []bool{!x.Volts.IsZero(), !x.Amps.IsZero(), !x.Ohms.IsZero(), x.Light != ""} {
			if given {
				n++
			}
		}
		if n != 1 {
			return measure.Bad("volts", "write what the meter shows, such as 11.6 V, 20 mA or 2 Mohm, or say lit or dark")
		}
		if a := x.Amps.Value(); a < 0 || a > 200 {
			return measure.Bad("amps", "%s is out of range; write such as 20 mA", x.Amps)
		}
		if r := x.Ohms.Value(); r < 0 {
			return measure.Bad("ohms", "%s cannot be; write such as 2 Mohm", x.Ohms)
		}
		if x.Far && x.Volts.IsZero() {
			return measure.Bad("far", "only volts are read at a far end")
		}
		if v := x.Volts.Value(); v < -60 || v > 60 {
			return measure.Bad("volts", "%s is not extra-low voltage; stay off mains with this", x.Volts)
		}
		return first(oneOf("light", x.Light, "", "lit", "dark"), date("on", x.On))
	case *Lot:
		return first(inList("glue", x.Glue, lib.Glues, "pva"), date("opened", x.Opened))
	case *Offcut:
		if err := first(inList("stock", x.Stock, lib.Materials, "xps1"), within("w", x.W, 20, 10*metre), within("h", x.H, 20, 10*metre)); err != nil {
			return err
		}
		switch {
		case lib.Materials[x.Stock].Form != "sheet":
			return measure.Bad("stock", "%s is no sheet; the shelf takes offcuts of sheet", lib.Materials[x.Stock].Name)
		case x.W.IsZero():
			return measure.Bad("w", "is empty; write such as 18 in")
		case x.H.IsZero():
			return measure.Bad("h", "is empty; write such as 30 in")
		}
	case *Layout:
		if err := inList("id", x.ID, lib.Materials, "xps1"); err != nil {
			return err
		}
		for _, q := range x.Pins {
			if q.Copy < 0 || q.Copy >= 2000 || q.Sheet < 0 || q.Sheet >= 2000 || q.Part == "" {
				return measure.Bad("pins", "copy %d of %q on sheet %d cannot be", q.Copy, q.Part, q.Sheet)
			}
			if err := first(within("pins", q.X, -10*metre, 10*metre), within("pins", q.Y, -10*metre, 10*metre)); err != nil {
				return err
			}
		}
	case *Outlet:
		if v := x.Volts.Value(); v < 100 || v > 250 {
			return measure.Bad("volts", "%s is no outlet; write 120 V or 230 V", x.Volts)
		}
		if a := x.Breaker.Value(); a < 5 || a > 32 {
			return measure.Bad("breaker", "%s is no outlet circuit; write 10 A to 20 A", x.Breaker)
		}
		return first(named(x.Name), within("cord", x.Cord, 1, 100*metre))
	case *Plug:
		if p := x.Watts.Value(); p <= 0 || p > 5000 {
			return measure.Bad("watts", "%s is out of range; write such as 400 W, 5 kW at most", x.Watts)
		}
		if x.Duty < 0 || x.Duty > 100 {
			return measure.Bad("duty", "%d %%; write 1 to 100", x.Duty)
		}
		return named(x.Name)
	case *Photo:
		if len(x.Data) == 0 || len(x.Data) > MaxPhoto {
			return measure.Bad("data", "is %d KB; a picture is kept with at most %d", len(x.Data)>>10, MaxPhoto>>10)
		}
	case *Picture:
		if x.Wide < 1 || x.Tall < 1 || x.Wide > 10_000 || x.Tall > 10_000 {
			return measure.Bad("wide", "%d x %d pixels cannot be", x.Wide, x.Tall)
		}
		if n := len(x.Corners); n != 0 && n != 4 {
			return measure.Bad("corners", "are %d; a rectangle has four", n)
		}
		for _, s := range append([]Spot{x.A, x.B}, x.Corners...) {
			if s.X < -10_000 || s.Y < -10_000 || s.X > 20_000 || s.Y > 20_000 {
				return measure.Bad("corners", "lie far outside the picture")
			}
		}
		return first(named(x.Name), within("known", x.Known, 1, 100*metre), within("sqw", x.SqW, 1, 100*metre), within("sqh", x.SqH, 1, 100*metre), within("x", x.X, -100*metre, 100*metre), within("z", x.Z, -100*metre, 100*metre))
	case *Waiver:
		if err := oneOf("level", x.Level, "", "note", "mind", "fix", "stop"); err != nil {
			return err
		}
		if strings.TrimSpace(x.Reason) == "" {
			return measure.Bad("reason", "is empty; say why this snag may stand")
		}
	}
	return nil
}

func seconds(field string, d measure.Duration, limit float64) error {
	if d.Value() < 0 || d.Value() > limit {
		return measure.Bad(field, "%s is out of range; write 0 to %s", d, measure.Span(limit))
	}
	return nil
}

func (p *Plan) validateDevice(x *Device, lib *stock.Library) error {
	if err := first(named(x.Name), oneOf("kind", x.Kind, DeviceKinds...), within("fedAt", x.FedAt, 0, 300*metre), within("dataLead", x.DataLead, 0, 300*metre),
		within("length", x.Length, 1, 300*metre), within("lead", x.Lead, 0, 300*metre), within("need", x.Need, 0, 300*metre),
		within("extension", x.Extension, 0, 300*metre), within("at", x.At, 0, 300*metre), within("toAt", x.ToAt, 0, 300*metre), within("back", x.Back, 1, 300*metre)); err != nil {
		return err
	}
	if v := x.Volts.Or(12); v <= 0 || v > 60 {
		return measure.Bad("volts", "%s is not extra-low voltage; write 1 V to 60 V. Mains wiring belongs to a licensed electrician and the local code", x.Volts)
	}
	if a := x.Amps.Or(1); a <= 0 || a > 200 {
		return measure.Bad("amps", "%s is out of range; write 1 mA to 200 A", x.Amps)
	}
	if a := x.Rating.Or(1); a <= 0 || a > 200 {
		return measure.Bad("rating", "%s is out of range; write such as 3 A, 200 A at most", x.Rating)
	}
	if x.Row < 0 || x.Row > 100 || x.Bright < 0 || x.Bright > 100 {
		return measure.Bad("row", "write 1 to 100")
	}
	switch x.Kind {
	case "supply":
		if x.Cell != "" {
			switch {
			case x.Cells < 0 || x.Cells > 40 || x.Sets < 0 || x.Sets > 40:
				return measure.Bad("cells", "write 1 to 40 cells in a row, and 1 to 40 rows")
			case x.Outlet != "":
				return measure.Bad("outlet", "batteries need none; leave it empty")
			}
			if v, _ := SupplyOf(x, lib); v > 60 {
				return measure.Bad("cells", "%d of %s give %s; extra-low voltage ends at 60 V", x.Cells, x.Cell, volts(v))
			}
			return inList("cell", x.Cell, circuit.Cells, "aa or 9v")
		}
		if x.Product == "" && (x.Volts.IsZero() || x.Amps.IsZero()) {
			return measure.Bad("volts", "give volts and amps, or choose a supply such as ps12-5")
		}
		if x.Product != "" {
			return inList("product", x.Product, lib.Supplies, "ps12-5")
		}
	case "converter":
		if x.Volts.IsZero() || x.Amps.IsZero() {
			return measure.Bad("volts", "give what it puts out, such as 5 V and 3 A")
		}
	case "lamp":
		if err := inList("product", x.Product, lib.Lamps, "flicker12 or puck12"); err != nil {
			return err
		}
		if err := possible(lampOf(x, lib)); err != nil {
			return err
		}
		if k := lib.Lamps[x.Product].Kind; (k == "strip" || k == "pixels") && x.Length.IsZero() {
			return measure.Bad("length", "is empty; a strip needs its length, such as 2 m")
		}
		if r := x.Resistor.Or(1); r <= 0 {
			return measure.Bad("resistor", "must be more than nothing, such as 470 ohm")
		}
		if _, err := ParseFeeds(x.Feeds); err != nil {
			return err
		}
		if x.Pin < 0 || x.Pin > 100 {
			return measure.Bad("pin", "%d; write 1 to 100", x.Pin)
		}
	case "controller":
		if v := x.Logic.Or(3.3); v < 1 || v > 12 {
			return measure.Bad("logic", "%s is no logic level; write 3.3 V or 5 V", x.Logic)
		}
	case "connector":
		if r := x.Resistor.Or(1); r <= 0 || r > 100 {
			return measure.Bad("resistor", "%s a contact; write such as 10 mohm, or leave it empty", x.Resistor)
		}
	case "run":
		if x.Gauge.IsZero() {
			return measure.Bad("gauge", "is empty; write such as 18 AWG")
		}
		if x.Length.IsZero() {
			return measure.Bad("length", "is empty; write such as 12 ft")
		}
		if _, err := ParsePath(x.Path, p.Metric()); err != nil {
			return err
		}
	case "fuse":
		if x.Rating.Value() <= 0 {
			return measure.Bad("rating", "is empty; write such as 3 A")
		}
	}
	return nil
}

// possible refuses a load whose own values cannot be: LEDs that want more than
// the lamp's volts, a motor that takes more running than held.
func possible(l stock.Lamp) error {
	switch l.Kind {
	case "motor", "servo":
		if l.Stall > 0 && l.Amps >= l.Stall {
			return measure.Bad("amps", "%s running is not less than the %s it takes held; write what it takes running", amps(l.Amps), amps(l.Stall))
		}
	case "pixels":
		if l.Amps < l.Idle {
			return measure.Bad("amps", "%s at full white is less than the %s a dark pixel takes; write more", amps(l.Amps), amps(l.Idle))
		}
		if l.Volts < 3 {
			return measure.Bad("volts", "%s runs no pixel; write 5 V or 12 V", volts(l.Volts))
		}
	case "power", "amplifier", "sensor", "resistive", "coil", "led":
	default: // LEDs with a resistor inside
		if l.Volts <= l.Vf {
			return measure.Bad("volts", "%s is not more than the %s its LEDs want; write its rated volts", volts(l.Volts), volts(l.Vf))
		}
	}
	return nil
}

// feeds checks that feeding leads from supplies outwards, with no loop, and
// that taps lie on runs. Its cost grows with the number of devices.
func (p *Plan) feeds(wires wires) error {
	from := func(d *Device) string { return d.From }
	data := func(d *Device) string { return d.Data }
	for i := range p.Devices {
		d := &p.Devices[i]
		if err := p.feed(d, wires); err != nil {
			return in(Element{"device", d.ID, d}, err)
		}
	}
	if d := wires.circle(p, from); d != nil {
		return in(Element{"device", d.ID, d}, measure.Bad("from", "feeding runs in a circle through %s; feed one of them from a supply", d.Name))
	}
	if d := wires.circle(p, data); d != nil {
		return in(Element{"device", d.ID, d}, measure.Bad("data", "runs in a circle; the first pixels hang on a controller"))
	}
	return nil
}

// circle is the first device from which going up never ends; nil when there
// is none. Each device is stepped over once.
func (w wires) circle(p *Plan, up func(*Device) string) *Device {
	seen := map[string]int{} // the walk that came by
	for i := range p.Devices {
		for d := &p.Devices[i]; d != nil && up(d) != ""; d = w.byID[up(d)] {
			if seen[d.ID] == i+1 {
				return &p.Devices[i]
			}
			if seen[d.ID] != 0 {
				break // an earlier walk got to the end from here
			}
			seen[d.ID] = i + 1
		}
	}
	return nil
}

// feed checks what feeds one device, and what it joins.
func (p *Plan) feed(d *Device, wires wires) error {
	if d.Kind == "supply" && d.From != "" {
		return measure.Bad("from", "a supply feeds, it is not fed; leave it empty")
	}
	if d.To != "" && d.Kind != "run" {
		return measure.Bad("to", "only a run has a far end to join")
	}
	if !d.Back.IsZero() && d.To == "" {
		return measure.Bad("back", "leads nowhere; say first what the far end joins")
	}
	for _, end := range []struct {
		field, atField, id string
		at                 measure.Length
	}{{"from", "at", d.From, d.At}, {"to", "toAt", d.To, d.ToAt}} {
		if end.id == "" {
			continue
		}
		f := wires.byID[end.id]
		if f.Kind == "lamp" {
			return measure.Bad(end.field, "%s is a lamp and feeds nothing; choose a supply, fuse, switch or run", f.Name)
		}
		if f.Kind == "run" && end.at.Value() > f.Length.Value()+1e-6 {
			return measure.Bad(end.atField, "%s lies past the end of %s (%s long)", end.at, f.Name, f.Length)
		}
	}
	if d.FedAt.Value() > d.Length.Value()+1e-6 {
		return measure.Bad("fedAt", "%s lies past the end (%s long)", d.FedAt, d.Length)
	}
	if d.Data == "" {
		return nil
	}
	switch by := wires.byID[d.Data]; {
	case d.Kind != "lamp":
		return measure.Bad("data", "only pixels take data; leave it empty")
	case by == nil:
		return measure.Bad("data", "there is no device %q", d.Data)
	case by.Kind != "controller" && by.Kind != "lamp":
		return measure.Bad("data", "%s gives no data; choose a controller or the pixels before these", by.Name)
	}
	return nil
}
