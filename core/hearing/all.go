package hearing

import (
	"errors"

	"zapbarn/core/plan"
	"zapbarn/core/shorthand"
	"zapbarn/core/stock"
)

// All hears several lines, each on the plan as the ones before leave it, as one edit: all of them
// or none, as shorthand.ReadAll does. The reading is nil where a line was not done.
func All(p *plan.Plan, lib *stock.Library, prop, text string) (*shorthand.Reading, []shorthand.Line) {
	return shorthand.ReadEach(p, lib, prop, text, one)
}

// one hears a line and gives the plan as it leaves it.
func one(p *plan.Plan, lib *stock.Library, prop, text string) (*shorthand.Reading, *plan.Plan, error) {
	h := Hear(p, lib, prop, text)
	if h.Answer != Done {
		return nil, nil, errors.New(h.Trouble())
	}
	q, err := p.Apply(h.Reading.Edit)
	if err != nil {
		return nil, nil, err
	}
	r := *h.Reading
	r.Text = h.Text()
	return &r, q, nil
}
