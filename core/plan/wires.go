package plan

import "slices"

// wires is what hangs on what, found at once.
type wires struct {
	byID  map[string]*Device
	kids  map[string][]*Device // what a device feeds, in the plan's order
	joins []*Device            // runs whose far end joins something
}

func wiresOf(p *Plan) wires {
	w := wires{byID: make(map[string]*Device, len(p.Devices)), kids: map[string][]*Device{}}
	for i := range p.Devices {
		d := &p.Devices[i]
		w.byID[d.ID] = d
		if d.From != "" {
			w.kids[d.From] = append(w.kids[d.From], d)
		}
		if d.To != "" {
			w.joins = append(w.joins, d)
		}
	}
	return w
}

// root is the supply, or the device fed by nothing, at the head of a device.
func (w wires) root(id string) string {
	d := w.byID[id]
	for n := 0; d != nil && d.From != "" && n <= len(w.byID); n++ {
		id, d = d.From, w.byID[d.From]
	}
	return id
}

func (w wires) fedBy(p *Plan, supply string) *Plan {
	q := *p
	supply = w.root(supply)
	for _, d := range w.joins {
		if a, b := w.root(d.ID), w.root(d.To); a != b && (a == supply || b == supply) {
			q.Devices = slices.Clone(p.Devices)
			return &q
		}
	}
	q.Devices = nil
	var walk func(d *Device)
	walk = func(d *Device) {
		q.Devices = append(q.Devices, *d)
		for _, k := range w.kids[d.ID] {
			walk(k)
		}
	}
	if d := w.byID[supply]; d != nil {
		walk(d)
	}
	return &q
}

// FedBy is the plan with only what one supply, or the supply behind a
// converter, feeds, when no wire joins it to another's: the rest does not
// change what is read. Its devices may be changed; all else is shared.
func (p *Plan) FedBy(supply string) *Plan { return wiresOf(p).fedBy(p, supply) }
