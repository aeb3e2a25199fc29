package plan

import (
	"strings"

	"zapbarn/core/stock"
	"zapbarn/core/wiring"
)

// Device is one thing of the wiring, as package wiring has it.
type Device = wiring.Device

var deviceKind = listed(
	kind{
		name:  "device",
		most:  5000,
		valid: func(v any, c checks) error { return v.(*Device).Valid(c.plan.Wiring(c.lib)) },
		again: func(v any, c *copying) string {
			x := v.(*Device)
			fresh := c.numbered("device", x.ID)
			if x.Name = strings.ReplaceAll(x.Name, x.ID, fresh); x.Name == "" {
				x.Name = fresh
			}
			x.ID, x.Proven = fresh, false
			return fresh
		},
	},
	func(p *Plan) *[]Device { return &p.doc.Devices },
)

// Wiring is the plan's wiring, to be worked out.
func (p *Plan) Wiring(lib *stock.Library) wiring.Set {
	return wiring.Set{Devices: p.Devices(), Lib: lib, Temp: p.Temperature(), Metric: p.Metric()}
}

// NewRig is its network.
func NewRig(p *Plan, lib *stock.Library) *wiring.Rig { return wiring.NewRig(p.Wiring(lib)) }

// FedBy is the plan with only what one supply feeds. Its devices may be changed;
// all else is shared.
func (p *Plan) FedBy(supply string) *Plan {
	q := *p
	q.doc.Devices = wiring.IndexOf(p.Devices()).FedBy(p.Devices(), supply)
	return &q
}
