package wiring

import "zapbarn/core/measure"

// Fed checks that feeding leads from supplies outwards, with no loop, and that
// taps lie on runs: the device where it does not, and why. Its cost grows with the
// number of devices.
func (w Index) Fed(devices []Device) (*Device, error) {
	for i := range devices {
		if err := w.feed(&devices[i]); err != nil {
			return &devices[i], err
		}
	}
	if d := w.circle(devices, func(d *Device) string { return d.From }); d != nil {
		return d, measure.Bad("from", "feeding runs in a circle through %s; feed one of them from a supply", d.Name)
	}
	if d := w.circle(devices, func(d *Device) string { return d.Data }); d != nil {
		return d, measure.Bad("data", "runs in a circle; the first pixels hang on a controller")
	}
	return nil, nil
}

// circle is the first device from which going up never ends; nil when there
// is none. Each device is stepped over once.
func (w Index) circle(devices []Device, up func(*Device) string) *Device {
	seen := map[string]int{} // the walk that came by
	for i := range devices {
		for d := &devices[i]; d != nil && up(d) != ""; d = w.byID[up(d)] {
			if seen[d.ID] == i+1 {
				return &devices[i]
			}
			if seen[d.ID] != 0 {
				break // an earlier walk got to the end from here
			}
			seen[d.ID] = i + 1
		}
	}
	return nil
}

// feed checks what feeds one device, and what it joins.
func (w Index) feed(d *Device) error {
	if d.Is(Origin) && d.From != "" {
		return measure.Bad("from", "a supply feeds, it is not fed; leave it empty")
	}
	if d.To != "" && !d.Is(Wire) {
		return measure.Bad("to", "only a run has a far end to join")
	}
	if !d.Back.IsZero() && d.To == "" {
		return measure.Bad("back", "leads nowhere; say first what the far end joins")
	}
	for _, end := range []struct {
		field, atField, id string
		at                 measure.Length
	}{{"from", "at", d.From, d.At}, {"to", "toAt", d.To, d.ToAt}} {
		if end.id == "" {
			continue
		}
		f := w.byID[end.id]
		if !kinds[f.Kind].feeds {
			return measure.Bad(end.field, "%s is a lamp and feeds nothing; choose a supply, fuse, switch or run", f.Name)
		}
		if f.Is(Wire) && end.at.Value() > f.Length.Value()+1e-6 {
			return measure.Bad(end.atField, "%s lies past the end of %s (%s long)", end.at, f.Name, f.Length)
		}
	}
	if d.FedAt.Value() > d.Length.Value()+1e-6 {
		return measure.Bad("fedAt", "%s lies past the end (%s long)", d.FedAt, d.Length)
	}
	if d.Data == "" {
		return nil
	}
	switch by := w.byID[d.Data]; {
	case !d.Is(Load):
		return measure.Bad("data", "only pixels take data; leave it empty")
	case by == nil:
		return measure.Bad("data", "there is no device %q", d.Data)
	case !by.Is(Controller) && !by.Is(Load):
		return measure.Bad("data", "%s gives no data; choose a controller or the pixels before these", by.Name)
	}
	return nil
}
