package shorthand

import (
	"encoding/json"
	"strings"

	"zapbarn/core/plan"
)

// naming reads a line that ends in called and a name, of a verb that knows no names: the one
// thing it makes is called that. failed is how the line as it stands was refused.
func (r *reader) naming(name string, v verb, failed error) (*Reading, error) {
	list, said, ok := parted(r.words, "called")
	if !ok {
		return nil, failed
	}
	r.words = list
	got, err := r.attempt(name, v)
	if err != nil {
		return nil, err // what else is wrong
	}
	only := -1
	for i, c := range got.Edit.Changes {
		if c.Before == nil && c.After != nil {
			if only >= 0 {
				return nil, failed // which of them?
			}
			only = i
		}
	}
	if only < 0 {
		return nil, failed
	}
	c := got.Edit.Changes[only]
	made, err := plan.Blank(c.Kind)
	if err != nil {
		return nil, err
	}
	if err := json.Unmarshal(c.After, made); err != nil {
		return nil, err
	}
	called := strings.ReplaceAll(strings.Join(said, " "), " , ", ", ")
	if plan.SetText(made, "name", called, r.p.Metric()) != nil {
		return nil, failed // it has no name
	}
	put := r.p.Put(c.Kind, c.ID, made)
	put.At = c.At
	got.Edit.Changes[only] = put
	got.Text += ", called " + called
	return got, nil
}
