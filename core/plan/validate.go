package plan

import (
	"runtime"
	"time"

	"zapbarn/core/form"
	"zapbarn/core/lanes"
	"zapbarn/core/measure"
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
	if p.Format() != Format {
		return measure.Bad("format", "%q cannot be read; this program reads %s", p.Format(), Format)
	}
	have := make([]map[string]bool, len(kinds))
	err := eachKind(func(i int, k *kind) (err error) {
		have[i], err = k.byThemselves(p)
		return err
	})
	if err != nil {
		return err
	}
	c := checks{p, wiring.IndexOf(p.Devices()), p.Own()}
	known := make(map[string]map[string]bool, len(kinds))
	for i, k := range kinds {
		known[k.name] = have[i]
	}
	if err := eachKind(func(_ int, k *kind) error { return k.together(p, known, c) }); err != nil {
		return err
	}
	if n := p.pieces(); n > maxPieces {
		return measure.Bad("copies", "%d pieces in all; %d at most in one plan", n, maxPieces)
	}
	if d, err := c.wires.Fed(p.Devices()); err != nil {
		return elementError(Element{"device", d.ID, d}, err)
	}
	return nil
}

// eachKind does something for each kind, several at once, and returns the first error in
// their order.
func eachKind(do func(i int, k *kind) error) error {
	errs := make([]error, len(kinds))
	lanes.Do(runtime.GOMAXPROCS(0), len(kinds), func(i int) { errs[i] = do(i, &kinds[i]) })
	return measure.First(errs...)
}

// byThemselves checks each element of a kind for itself, and that no two are one; it returns
// their IDs.
func (k *kind) byThemselves(p *Plan) (map[string]bool, error) {
	all := k.all(p)
	if len(all) > k.most { // of the whole plan, no one element's
		return nil, measure.Bad(k.name, "%d of them; %d at most in one plan", len(all), k.most)
	}
	have, shared := make(map[string]bool, len(all)), map[string]bool{}
	for _, e := range all {
		if e.ID == "" {
			return nil, measure.Bad(k.name, "an ID is missing; each needs its own")
		}
		if err := measure.First(texts(e.Value), needs(e.Value)); err != nil {
			return nil, elementError(e, err)
		}
		if err := k.twins(e, shared); err != nil {
			return nil, elementError(e, err)
		}
		if have[e.ID] {
			return nil, elementError(e, measure.Bad(k.name, "two have the ID %q; give each its own", e.ID))
		}
		have[e.ID] = true
	}
	return have, nil
}

// together checks each element of a kind against the others it names, of which those there
// are are known by kind and ID.
func (k *kind) together(p *Plan, known map[string]map[string]bool, c checks) error {
	for _, e := range k.all(p) {
		for _, r := range references(e.Value) {
			if !known[r.Kind][r.ID] {
				return elementError(e, measure.Bad(r.Field, "there is no %s %q in this plan", r.Kind, r.ID))
			}
		}
		if err := k.check(e.Value, c); err != nil {
			return elementError(e, measure.ErrorIn(err, p.Metric()))
		}
	}
	return nil
}

// maxPieces is how many copies of parts a plan may have.
const maxPieces = 20_000

func (p *Plan) pieces() (n int) {
	for i := range p.Solids() {
		n += max(1, form.Int(p.Solids()[i].Form, "copies"))
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

func elementError(e Element, err error) error {
	return &ElementError{e.Kind, e.ID, NameOf(e.Value), err}
}

const metre = 1000.0

func seconds(field string, d measure.Duration, limit float64) error {
	if d.Value() < 0 || d.Value() > limit {
		return measure.Bad(field, "%s is out of range; write 0 to %s", d, measure.Span(limit))
	}
	return nil
}
