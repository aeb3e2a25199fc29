package plan

import (
	"encoding/json"
	"slices"

	"zapbarn/core/measure"
	"zapbarn/core/stock"
	"zapbarn/core/wiring"
)

// figured is an edit in which a device's own figures and its product agree: one that becomes
// another product has that one's figures; a supply whose figures are changed becomes the one
// of the shop with just these, or one of its own.
func (p *Plan) figured(e Edit) Edit {
	cloned := false
	for i, c := range e.Changes {
		if c.Kind != "device" || c.After == nil {
			continue
		}
		var was, is Device
		if c.Before != nil && json.Unmarshal(c.Before, &was) != nil || json.Unmarshal(c.After, &is) != nil {
			continue
		}
		if !agreed(&was, &is, p.Own()) {
			continue
		}
		if !cloned { // the edit may be somebody's still
			e.Changes, cloned = slices.Clone(e.Changes), true
		}
		e.Changes[i].After = encode(is)
	}
	return e
}

// agreed brings a device's figures and product together, and tells whether it changed any.
func agreed(was, is *Device, lib *stock.Library) bool {
	if is.Product == "" || is.Volts.IsZero() && is.Amps.IsZero() {
		return false
	}
	if was.ID != "" && was.Product != is.Product && was.Volts == is.Volts && was.Amps == is.Amps {
		is.Volts, is.Amps = measure.Voltage{}, measure.Current{}
		return true
	}
	if !is.Is(wiring.Origin) || is.Cell != "" {
		return false
	}
	good := wiring.SupplyGood(is, lib)
	if good.ID == is.Product {
		return false
	}
	v, a := wiring.SupplyOf(is, lib)
	if is.Volts.IsZero() { // what the product said is its own now
		is.Volts = measure.Of[measure.VoltKind](v)
	}
	if is.Amps.IsZero() {
		is.Amps = measure.Of[measure.AmpKind](a)
	}
	is.Product = good.ID
	return true
}
