package shorthand

import (
	"fmt"
	"regexp"
	"sort"
	"strconv"
	"strings"

	"zapbarn/core/circuit"
	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/wiring"
)

var wattWord = regexp.MustCompile(`(?i)^\d+(\.\d+)?k?w$`)

// outlet is a mains outlet: outlet porch 15a 120v guarded 14awg 50 ft.
func (r *reader) outlet() (*Reading, error) {
	guard, words := take(r.words[1:], "guarded")
	f, rest, err := r.wiring(words)
	if err != nil {
		return nil, err
	}
	o := plan.Outlet{
		Volts:   f.volts,
		Breaker: f.amps,
		Guard:   guard,
		Gauge:   f.gauge,
		Cord:    f.length,
		Name:    strings.Join(rest, " "),
	}
	if o.Volts.IsZero() {
		o.Volts = measure.Must[measure.VoltKind]("120 V")
		if r.p.Metric() {
			o.Volts = measure.Must[measure.VoltKind]("230 V")
		}
	}
	if o.Breaker.IsZero() {
		o.Breaker = measure.Must[measure.AmpKind]("15 A")
		if r.p.Metric() {
			o.Breaker = measure.Must[measure.AmpKind]("16 A")
		}
	}
	if o.Name == "" {
		o.Name = fmt.Sprintf("Outlet %d", len(r.p.Outlets())+1)
	}
	o.Name = measure.Capital(o.Name)
	if there := r.outletNamed(o.Name); there != nil {
		return nil, fmt.Errorf(
			"there is an outlet “%s” already; press it to change it, or call this one otherwise, such as %s 2",
			there.Name,
			there.Name,
		)
	}
	o.ID = r.p.FreshID("outlet", o.Name)
	text := fmt.Sprintf("outlet “%s”, %s, %s breaker", o.Name, o.Volts, o.Breaker)
	if guard {
		text += ", ground-fault protected"
	}
	if !o.Cord.IsZero() {
		text += fmt.Sprintf(", %s cord of %s", o.Gauge, o.Cord)
	}
	return r.put(text, "outlet", o.ID, o)
}

func (r *reader) outletNamed(name string) *plan.Outlet {
	for i := range r.p.Outlets() {
		if o := &r.p.Outlets()[i]; strings.EqualFold(o.ID, name) || sameName(o.Name, name) {
			return o
		}
	}
	return nil
}

// plug hangs a supply, or something else with its watts, on an outlet: plug S1
// into porch; plug fogger 400w heater into shed.
func (r *reader) plug() (*Reading, error) {
	at := -1
	for i, x := range r.words {
		if strings.EqualFold(x, "into") || strings.EqualFold(x, "on") {
			at = i
		}
	}
	if at < 2 || at+1 >= len(r.words) {
		return nil, fmt.Errorf("say what is plugged into which outlet")
	}
	name := strings.Join(r.words[at+1:], " ")
	o := r.outletNamed(name)
	if o == nil {
		return nil, fmt.Errorf("there is no outlet %q", name)
	}
	what := r.words[1:at]
	if d := r.device(strings.Join(what, " ")); d != nil {
		if !d.Is(wiring.Origin) || d.Cell != "" {
			return nil, fmt.Errorf("%s has no plug", d.Name)
		}
		next := *d
		next.Outlet = o.ID
		return r.put(fmt.Sprintf("plug %s into %s", d.Name, o.Name), "device", d.ID, next)
	}
	heater, what := take(what, "heater")
	p := plan.Plug{Outlet: o.ID, Heater: heater}
	var words []string
	for _, x := range what {
		if wattWord.MatchString(x) {
			w, err := measure.Parse[measure.WattKind](strings.ToLower(x))
			if err != nil {
				return nil, err
			}
			p.Watts = w
			continue
		}
		words = append(words, x)
	}
	if len(words) == 0 || p.Watts.IsZero() {
		return nil, fmt.Errorf("name it and say its watts")
	}
	p.Name = strings.Join(words, " ")
	p.Name = measure.Capital(p.Name)
	p.ID = r.p.FreshID("plug", p.Name)
	text := fmt.Sprintf("plug %s, %s, into %s", p.Name, p.Watts, o.Name)
	if heater {
		text += ", a heater"
	}
	return r.put(text, "plug", p.ID, p)
}

// battery is a supply of cells: battery 4 aa, battery 8 aa x2.
func (r *reader) battery() (*Reading, error) {
	d := plan.Device{ID: r.p.FreshName("B"), Prop: r.prop, Kind: "supply", Cells: 1}
	words := r.words[1:]
	line := r.phrase(words)
	d.Sets, words = line.Copies(), line.List
	for _, x := range words {
		low := strings.ToLower(x)
		if _, ok := circuit.Cells[low]; ok && d.Cell == "" {
			d.Cell = low
		} else if n, err := strconv.Atoi(x); err == nil {
			d.Cells = n
		} else {
			return nil, wantNone([]string{x})
		}
	}
	if d.Cell == "" {
		var ids []string
		for id := range circuit.Cells {
			ids = append(ids, id)
		}
		sort.Strings(ids)
		return nil, fmt.Errorf("say which cell: %s", strings.Join(ids, ", "))
	}
	d.Name = "Battery " + d.ID
	v, _ := wiring.SupplyOf(&d, r.lib)
	text := fmt.Sprintf(
		"battery %s, %d of %s in a row, %s",
		d.ID,
		d.Cells,
		circuit.Cells[d.Cell].Name,
		measure.Volts(v),
	)
	if d.Sets > 1 {
		text += fmt.Sprintf(", %d rows", d.Sets)
	}
	return r.put(text, "device", d.ID, d)
}

// converter steps a rail down: converter 5v 3a on W1 at 4 ft.
func (r *reader) converter() (*Reading, error) {
	return r.simple("converter", "C", func(d *plan.Device, f wire) string {
		d.Volts, d.Amps = f.volts, f.amps
		return fmt.Sprintf("converter %s, down to %s, %s", d.ID, d.Volts, d.Amps)
	})
}
