package shorthand

import (
	"fmt"

	"zapbarn/core/plan"
)

// onlyName answers a line that is a thing's name and nothing more: where the thing is, and
// what can be said of it. Those of the open prop come first; nil when nothing is called so.
func onlyName(p *plan.Plan, prop, text string) *Error {
	var found plan.Element
	for _, kind := range []string{"solid", "device", "input", "scene", "outlet", "plug", "prop"} {
		for _, e := range p.Elements(kind) {
			if !sameName(plan.NameOf(e.Value), text) && !sameName(e.ID, text) {
				continue
			}
			if found.Value == nil || p.Belongs(found.Value) != prop && p.Belongs(e.Value) == prop {
				found = e
			}
		}
	}
	if found.Value == nil {
		return nil
	}
	name := plan.NameOf(found.Value)
	e := &Error{Why: "that is a name: say what of it", Example: "rename " + found.ID + " as New name"}
	if s, ok := found.Value.(*plan.Solid); ok {
		e.Example = NameFor(p, s) + " right by 3 in"
		if p.Metric() {
			e.Example = NameFor(p, s) + " right by 75"
		}
	}
	if in := p.Belongs(found.Value); in != "" && in != prop && found.Kind != "prop" {
		e.Why = fmt.Sprintf("%s is in %s: say what of it", name, plan.NameOf(p.Prop(in)))
	}
	return e
}
