package plan

import (
	"time"

	"zapbarn/core/form"
	"zapbarn/core/measure"
	"zapbarn/core/stock"
	"zapbarn/core/wiring"
)

func date(field, s string) error {
	if s == "" {
		return nil
	}
	if _, err := time.Parse(time.DateOnly, s); err != nil {
		return measure.Bad(field, "%q is not a date; write such as 2026-10-09", s)
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
			if err := measure.First(texts(e.Value), needs(e.Value)); err != nil {
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
	c := checks{p, wiring.IndexOf(p.Devices), p.Shop(stock.Shop)}
	for _, k := range kinds {
		for _, e := range k.all(p) {
			for _, r := range references(e.Value) {
				if !have[r.Kind][r.ID] {
					return in(e, measure.Bad(r.Field, "there is no %s %q in this plan", r.Kind, r.ID))
				}
			}
			if err := k.check(e.Value, c); err != nil {
				return in(e, measure.ErrorIn(err, p.Metric()))
			}
		}
	}
	if n := p.pieces(); n > maxPieces {
		return measure.Bad("copies", "%d pieces in all; %d at most in one plan", n, maxPieces)
	}
	if d, err := c.wires.Fed(p.Devices); err != nil {
		return in(Element{"device", d.ID, d}, err)
	}
	return nil
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

const metre = 1000.0

func seconds(field string, d measure.Duration, limit float64) error {
	if d.Value() < 0 || d.Value() > limit {
		return measure.Bad(field, "%s is out of range; write 0 to %s", d, measure.Span(limit))
	}
	return nil
}
