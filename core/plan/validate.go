package plan

import (
	"strings"
	"time"

	"zapbarn/core/form"
	"zapbarn/core/measure"
	"zapbarn/core/stock"
)

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
		return measure.Bad(
			field,
			"%s is out of range; write %s to %s",
			l,
			measure.Run(low, false),
			measure.Run(high, false),
		)
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
	for _, k := range kinds {
		have[k.name] = map[string]bool{}
		shared := map[string]bool{}
		all := k.all(p)
		if len(all) > k.most { // of the whole plan, no one element's
			return measure.Bad(k.name, "%d of them; %d at most in one plan", len(all), k.most)
		}
		for _, e := range all {
			if e.ID == "" {
				return measure.Bad(k.name, "an ID is missing; each needs its own")
			}
			if err := first(texts(e.Value), needs(e.Value)); err != nil {
				return in(e, err)
			}
			if err := k.twins(e, shared); err != nil {
				return in(e, err)
			}
			if have[k.name][e.ID] {
				return in(e, measure.Bad(k.name, "two have the ID %q; give each its own", e.ID))
			}
			have[k.name][e.ID] = true
		}
	}
	c := checks{p, wiresOf(p), p.Shop(stock.Shop)}
	for _, k := range kinds {
		for _, e := range k.all(p) {
			for _, r := range references(e.Value) {
				if !have[r.Kind][r.ID] {
					return in(e, measure.Bad(r.Field, "there is no %s %q in this plan", r.Kind, r.ID))
				}
			}
			if err := e.Value.(item).valid(c); err != nil {
				return in(e, measure.ErrorIn(err, p.Metric()))
			}
		}
	}
	if n := p.pieces(); n > maxPieces {
		return measure.Bad("copies", "%d pieces in all; %d at most in one plan", n, maxPieces)
	}
	return p.feeds(c.wires)
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

func seconds(field string, d measure.Duration, limit float64) error {
	if d.Value() < 0 || d.Value() > limit {
		return measure.Bad(field, "%s is out of range; write 0 to %s", d, measure.Span(limit))
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
		return in(
			Element{"device", d.ID, d},
			measure.Bad("from", "feeding runs in a circle through %s; feed one of them from a supply", d.Name),
		)
	}
	if d := wires.circle(p, data); d != nil {
		return in(
			Element{"device", d.ID, d},
			measure.Bad("data", "runs in a circle; the first pixels hang on a controller"),
		)
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
			return measure.Bad(
				end.field,
				"%s is a lamp and feeds nothing; choose a supply, fuse, switch or run",
				f.Name,
			)
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
