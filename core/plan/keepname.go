package plan

import (
	"encoding/json"
	"fmt"
	"slices"
	"strings"
)

// keptUp is an edit in which a lamp that becomes another product is called by that, as
// long as it was called by the product it was: a name given by hand stays.
func (p *Plan) keptUp(e Edit) Edit {
	for i, c := range e.Changes {
		if c.Kind != "device" || c.Before == nil || c.After == nil {
			continue
		}
		var was, is Device
		if json.Unmarshal(c.Before, &was) != nil || json.Unmarshal(c.After, &is) != nil ||
			was.Product == is.Product || was.Name != is.Name {
			continue
		}
		lamps := p.Own().Lamps
		behind, own := strings.CutPrefix(was.Name, lamps[was.Product].Name)
		if next := lamps[is.Product].Name; own && lamps[was.Product].Name != "" && next != "" && counted(behind) {
			is.Name = p.FreeName("device", next)
			e.Changes = slices.Clone(e.Changes) // the edit may be somebody's still
			e.Changes[i].After = encode(is)
		}
	}
	return e
}

// counted is true of nothing, or of a space and a number.
func counted(behind string) bool {
	n, ok := strings.CutPrefix(behind, " ")
	return behind == "" || ok && n != "" && strings.Trim(n, "0123456789") == ""
}

// FreeName is a name that no other element of a kind has: with a number behind it where
// it is taken.
func (p *Plan) FreeName(kind, name string) string {
	taken := map[string]bool{}
	for _, e := range p.Elements(kind) {
		taken[strings.ToLower(NameOf(e.Value))] = true
	}
	out := name
	for n := 2; taken[strings.ToLower(out)]; n++ {
		out = fmt.Sprintf("%s %d", name, n)
	}
	return out
}
