package shorthand

import (
	"fmt"
	"strconv"
	"strings"

	"zapbarn/core/circuit"
	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/stock"
	"zapbarn/core/wiring"
)

// feeds says where along itself a strip or a run is fed: feed comb at 0% 50%.
// A prop's name means its strips.
func (r *reader) feeds() (*Reading, error) {
	name, at, ok := strings.Cut(strings.Join(r.words[1:], " "), " at ")
	if !ok {
		return nil, fmt.Errorf("say what, and at which places along it")
	}
	var on []plan.Device
	if d := r.device(name); d != nil {
		on = []plan.Device{*d}
	} else {
		for _, d := range r.p.Devices() {
			if d.Prop == strings.ToLower(name) && d.Is(wiring.Load) && !d.Length.IsZero() {
				on = append(on, d)
			}
		}
	}
	if len(on) == 0 {
		return nil, fmt.Errorf("%q is no strip or run, nor a prop with strips", name)
	}
	var changes []plan.Change
	var names []string
	for _, d := range on {
		switch {
		case d.Is(wiring.Wire):
			l, err := measure.ParseLengthIn(at, r.bare())
			if err != nil {
				return nil, err
			}
			d.FedAt, at = l, l.String()
		case d.Is(wiring.Load) && !d.Length.IsZero():
			f, err := wiring.ParseFeeds(at)
			if err != nil {
				return nil, err
			}
			if d.Feeds = wiring.FeedsText(f); d.Feeds == "0%" {
				d.Feeds = ""
			}
			at = wiring.FeedsText(f)
		default:
			return nil, fmt.Errorf("%s is no strip or run", d.Name)
		}
		changes, names = append(changes, r.p.Put("device", d.ID, d)), append(names, d.Name)
	}
	return &Reading{
		Text:   "feed " + strings.Join(names, " and ") + " at " + at,
		Edit:   plan.Edit{Changes: changes},
		Select: "device:" + on[0].ID,
	}, nil
}

func (r *reader) controller() (*Reading, error) {
	return r.simple("controller", "U", func(d *plan.Device, f wire) string {
		d.Logic, d.Amps = f.volts, f.amps
		return fmt.Sprintf("controller %s, pins of %s", d.ID, measure.Volts(d.Logic.Or(wiring.ControllerLogic)))
	})
}

func (r *reader) connector() (*Reading, error) {
	return r.simple("connector", "X", func(d *plan.Device, f wire) string {
		d.Rating = f.amps
		return "connector " + d.ID
	})
}

// data drives pixels from a controller's pin, or from the pixels before them:
// data comb from U1 pin 2 6 ft.
func (r *reader) data() (*Reading, error) {
	name, from, ok := strings.Cut(strings.Join(r.words[1:], " "), " from ")
	d := r.device(name)
	pixels := func(d *plan.Device) bool { return r.lib.Lamps[d.Product].Kind == "pixels" }
	switch {
	case !ok:
		return nil, fmt.Errorf("say which pixels, then from, then what drives them")
	case d == nil || !pixels(d):
		var there []string
		for i := range r.p.Devices() {
			if x := &r.p.Devices()[i]; pixels(x) && x.Prop == r.prop {
				there = append(there, x.ID+" ("+x.Name+")")
			}
		}
		if len(there) == 0 {
			return nil, fmt.Errorf("there are no pixels here yet; write such as pixels 1m 60/m 5v on F1")
		}
		return nil, fmt.Errorf("%q is no pixels; there is %s", name, strings.Join(there, ", "))
	}
	words := strings.Fields(from)
	by := r.device(words[0])
	if by == nil {
		return nil, fmt.Errorf("there is no device %q", words[0])
	}
	next := *d
	next.Data, next.Pin, words = by.ID, 0, words[1:]
	text := fmt.Sprintf("%s gets its data from %s", d.Name, by.Name)
	if by.Is(wiring.Controller) {
		next.Pin = 1
	}
	if len(words) > 1 && strings.EqualFold(words[0], "pin") {
		n, err := strconv.Atoi(words[1])
		if err != nil {
			return nil, fmt.Errorf("%q is no pin", words[1])
		}
		next.Pin, words = n, words[2:]
	}
	if next.Pin > 0 {
		text += fmt.Sprintf(", pin %d", next.Pin)
	}
	if dims, rest := r.sizes(words); len(dims) == 1 && len(rest) == 0 {
		next.DataLead = dims[0]
		text += ", " + next.DataLead.String() + " of wire"
	} else if len(words) > 0 {
		return nil, wantNone(words)
	}
	return r.put(text, "device", d.ID, next)
}

// path says how a run lies in its prop: path W1 0,0,4 20,0,4 20,0,40.
func (r *reader) path() (*Reading, error) {
	if len(r.words) > 2 && r.device(r.words[1]) == nil { // of guests, not of a wire
		return r.walk()
	}
	if len(r.words) < 3 {
		return nil, fmt.Errorf("say which run, and its corners as right,back,up")
	}
	d := r.device(r.words[1])
	if d == nil || !d.Is(wiring.Wire) {
		return nil, fmt.Errorf("%q is no run", r.words[1])
	}
	next := *d
	next.Path = strings.ReplaceAll(strings.Join(r.words[2:], " "), " , ", ",")
	c, err := wiring.ParsePath(next.Path, r.p.Metric())
	if err != nil {
		return nil, err
	}
	need := next.PathNeeds(r.p.Metric())
	text := fmt.Sprintf(
		"%s lies along %d corners, %s; with slack %s",
		d.Name,
		len(c),
		measure.Run(wiring.PathLength(c), r.p.Metric()),
		measure.Run(need, r.p.Metric()),
	)
	return r.put(text, "device", d.ID, next)
}

// groups lays bare LEDs out in rows on what feeds them, each row with its own
// resistor, as long as the supply's volts allow.
func (r *reader) groups(n int, f wire, name string) (*Reading, error) {
	from := r.feed(f)
	volts := r.voltsAt(from)
	if volts == 0 {
		return nil, &Error{Why: "nothing to feed it from yet", Example: verbs["supply"].example}
	}
	l := r.lib.Lamps[f.product]
	amps := f.amps.Or(l.Amps)
	rows, _, err := circuit.Groups(volts, l.Vf, n, amps)
	if err != nil {
		return nil, err
	}
	var changes []plan.Change
	title, k, text := measure.Capital(name), 0, ""
	total := 0
	for _, row := range rows {
		total += row.Count
	}
	run := plan.Device{}
	if !f.length.IsZero() {
		run = plan.Device{
			ID:     r.p.FreshName("W"),
			Prop:   r.prop,
			Kind:   "run",
			From:   from,
			Gauge:  f.gauge,
			Length: f.length,
		}
		if run.Gauge.IsZero() {
			run.Gauge = measure.Must[measure.GaugeKind]("22 AWG")
		}
		run.Name, from = "Run "+run.ID, run.ID
		changes = append(changes, r.p.Put("device", run.ID, run))
	}
	for i, row := range rows {
		if i > 0 {
			text += "; "
		}
		text += fmt.Sprintf(
			"%s of %d with %s, %s",
			count(row.Count, "row"),
			row.LEDs,
			measure.Ohms(row.Ohms),
			measure.Watts(row.Watts),
		)
		for range row.Count {
			k++
			d := r.ledRow(f, name, title, from, row, k)
			if run.ID != "" {
				d.At = measure.Of[measure.LengthKind](f.length.Value() * float64(k) / float64(total))
			}
			changes = append(changes, r.p.Put("device", d.ID, d))
		}
	}
	return &Reading{
		Text:   fmt.Sprintf("%d of %s on %s: %s", n, l.Name, measure.Volts(volts), text),
		Edit:   plan.Edit{Changes: changes},
		Select: changes[0].Kind + ":" + changes[0].ID,
	}, nil
}

func count(n int, one string) string {
	if n == 1 {
		return "1 " + one
	}
	return fmt.Sprintf("%d %ss", n, one)
}

// stripOf is the strip of the shop's list with so many LEDs a metre and volts,
// either of them not said when 0.
func stripOf(lib *stock.Library, perMetre, volts float64, pixels bool) string {
	for _, id := range stock.IDs(lib.Lamps) {
		l := lib.Lamps[id]
		if pixels == (l.Kind == "pixels") && (l.Kind == "strip" || l.Kind == "pixels") &&
			(perMetre == 0 || l.PerMetre == perMetre) &&
			(volts == 0 || l.Volts == volts) {
			return id
		}
	}
	return ""
}

// gauges chooses the wire of every run of the prop: gauges 3%.
func (r *reader) gauges() (*Reading, error) {
	budget := circuit.DropBudget
	if len(r.words) > 2 {
		return nil, wantNone(r.words[2:])
	}
	if len(r.words) == 2 {
		v, err := strconv.ParseFloat(strings.TrimSuffix(r.words[1], "%"), 64)
		if err != nil || v < .5 || v > 100*circuit.DropLimit {
			return nil, fmt.Errorf("%q is no drop budget; write 0.5%% to 10%%", r.words[1])
		}
		budget = v / 100
	}
	q, worst, ok := wiring.Gauges(r.p.Wiring(r.lib), r.prop, budget)
	if !ok {
		return nil, fmt.Errorf(
			"even the thickest wire leaves a drop of %.1f %%; feed nearer, in more places, or from a higher rail",
			100*worst,
		)
	}
	var changes []plan.Change
	var said []string
	first := ""
	grams, money := 0.0, 0.0
	for i := range q.Devices {
		d, was := &q.Devices[i], &r.p.Devices()[i]
		if !d.Is(wiring.Wire) || d.Prop != r.prop {
			continue
		}
		if first == "" {
			first = d.ID
		}
		a, b := wiring.BillOf(was, r.lib), wiring.BillOf(d, r.lib)
		grams, money = grams+b.Copper-a.Copper, money+b.Money-a.Money
		said = append(said, d.ID+" "+d.Gauge.String())
		if d.Gauge.Value() != was.Gauge.Value() {
			changes = append(changes, r.p.Put("device", d.ID, *d))
		}
	}
	if first == "" {
		return nil, fmt.Errorf("there is no run in this prop yet")
	}
	if len(changes) == 0 {
		return nil, fmt.Errorf("every run has the thinnest wire that does already: %s", strings.Join(said, ", "))
	}
	cost := fmt.Sprintf("costs $%.2f", money)
	if money < 0 {
		cost = fmt.Sprintf("saves $%.2f", -money)
	}
	return &Reading{
		Text: fmt.Sprintf(
			"%s: worst drop %.1f %%, copper %+.0f g, %s",
			strings.Join(said, ", "),
			100*worst,
			grams,
			cost,
		),
		Edit:   plan.Edit{Changes: changes},
		Select: "device:" + first,
	}, nil
}

// ledRow is a row of LEDs with its resistor, as a lamp.
func (r *reader) ledRow(f wire, name, title, from string, row circuit.Row, k int) plan.Device {
	return plan.Device{
		ID:       r.p.FreshID("device", fmt.Sprintf("%s-%s-row-%d", r.prop, name, k)),
		Prop:     r.prop,
		Kind:     "lamp",
		In:       f.in,
		Name:     fmt.Sprintf("%s row %d", title, k),
		From:     from,
		Product:  f.product,
		Amps:     f.amps,
		Row:      row.LEDs,
		Resistor: measure.Of[measure.OhmKind](row.Ohms),
	}
}

// voltsAt is what the supply or converter gives that a device hangs on; 0 where there is none.
func (r *reader) voltsAt(id string) (volts float64) {
	for up := r.p.Device(id); up != nil; up = r.p.Device(up.From) {
		if up.Is(wiring.Source) {
			volts, _ = wiring.SupplyOf(up, r.lib)
			break
		}
	}
	return volts
}
