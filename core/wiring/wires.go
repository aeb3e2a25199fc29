package wiring

import "slices"

// Index is what hangs on what, found at once.
type Index struct {
	byID  map[string]*Device
	kids  map[string][]*Device // what a device feeds, in the plan's order
	joins []*Device            // runs whose far end joins something
}

func IndexOf(devices []Device) Index {
	w := Index{byID: make(map[string]*Device, len(devices)), kids: map[string][]*Device{}}
	for i := range devices {
		d := &devices[i]
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

// Root is the supply, or the device fed by nothing, at the head of a device.
func (w Index) Root(id string) string {
	d := w.byID[id]
	for n := 0; d != nil && d.From != "" && n <= len(w.byID); n++ {
		id, d = d.From, w.byID[d.From]
	}
	return id
}

// FedBy is only what one supply, or the supply behind a converter, feeds, when no
// wire joins it to another's: the rest does not change what is read. The list is a
// fresh one.
func (w Index) FedBy(devices []Device, supply string) (out []Device) {
	supply = w.Root(supply)
	for _, d := range w.joins {
		if a, b := w.Root(d.ID), w.Root(d.To); a != b && (a == supply || b == supply) {
			return slices.Clone(devices)
		}
	}
	var walk func(d *Device)
	walk = func(d *Device) {
		out = append(out, *d)
		for _, k := range w.kids[d.ID] {
			walk(k)
		}
	}
	if d := w.byID[supply]; d != nil {
		walk(d)
	}
	return out
}

// Device is the device with that ID, or nil.
func (w Index) Device(id string) *Device { return w.byID[id] }

// Kids are what a device feeds, in the plan's order.
func (w Index) Kids(id string) []*Device { return w.kids[id] }
