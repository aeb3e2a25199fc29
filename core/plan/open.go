package plan

import (
	"encoding/json"
	"errors"
)

// Open reads a plan file as an earlier version may have written it: what is well formed but no
// longer allowed is set aside with its words, as in a plan that is stored, and all else opens.
// A file that is none, or has fields or values that no version had, is refused as Decode does.
func Open(data []byte) (*Plan, error) {
	p, err := parse(data)
	if err != nil {
		return nil, err
	}
	var at *ElementError
	if err = p.Validate(); err == nil {
		return p, nil
	} else if !errors.As(err, &at) || at.Kind == "display" {
		return nil, err
	}
	of := map[string][]json.RawMessage{}
	for _, k := range Kinds() {
		seen := map[string]bool{}
		for _, e := range p.Elements(k) {
			if e.ID == "" && k != "display" || seen[e.ID] {
				return nil, err // one cannot be told from another
			}
			seen[e.ID] = true
			of[k] = append(of[k], encode(e.Value))
		}
	}
	q, e := Assemble(p.lib, of)
	if e != nil {
		return nil, err
	}
	if e := q.Validate(); e != nil {
		return nil, e // of the whole, such as too many
	}
	return q, nil
}

// readmit takes back in what was set aside and stands by now: what it names is there again.
func (p *Plan) readmit() {
	for again := true; again; {
		again = false
		for i, b := range p.broken {
			k, err := kindNamed(b.Kind)
			if err != nil {
				continue
			}
			if v, _ := k.find(p, b.ID); v != nil || k.add(p, b.Raw) != nil {
				continue
			}
			if p.Validate() != nil {
				k.drop(p, b.ID)
				continue
			}
			p.broken = append(append([]Broken(nil), p.broken[:i]...), p.broken[i+1:]...)
			again = true
			break
		}
	}
}
