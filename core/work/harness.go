package work

import (
	"fmt"
	"math"
	"regexp"
	"sort"
	"strings"

	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/source"
	"zapbarn/core/stock"
	"zapbarn/core/wiring"
)

// Values for building a harness.
const (
	ServiceLoop = 100.0 // mm left over at each end of a wire, a hand's width
	mainsPlug   = 40.0  // mm, the widest way through a mains plug
	pixelPlug   = 12.0  // mm, a three-pin pixel connector
)

// HarnessFrom are their sources.
var HarnessFrom = []source.Source{
	source.FromTrade("a hand's width left at each end, heat-shrink slid on before soldering"),
	source.FromMemory("plug sizes, wire over its insulation, heat-shrink sizes"),
}

// jacket is a wire over its insulation, mm by AWG, from memory.
var jacket = map[int]float64{28: .9, 26: 1.3, 24: 1.4, 22: 1.6, 20: 1.8, 18: 2.1, 16: 2.4, 14: 2.8, 12: 3.5, 10: 4.5}

// Jacket is a wire over its insulation in mm: that of the next thicker listed
// size.
func Jacket(mm2 float64) float64 {
	best := jacket[10]
	for _, n := range stock.Gauges {
		if measure.AWGArea(n)*1.001 >= mm2 {
			best = math.Min(best, jacket[n])
		}
	}
	return best
}

// Bundle is how thick wires are together: circles fill about 0.8 of a round
// bundle.
func Bundle(wires ...float64) float64 {
	a := 0.0
	for _, d := range wires {
		a += d * d
	}
	return math.Sqrt(a / .8)
}

// shrinkSizes are heat-shrink tubes that shrink to half, mm before.
var shrinkSizes = []float64{1.5, 2, 3, 4.5, 6, 9, 12, 18, 25}

// Shrink is the smallest tube that slides over a joint of wires, a tenth wider
// than they are together.
func Shrink(wires ...float64) float64 {
	need := 1.1 * Bundle(wires...)
	for _, s := range shrinkSizes {
		if s >= need {
			return s
		}
	}
	return shrinkSizes[len(shrinkSizes)-1]
}

// HarnessWire is a wire to cut: a pair, or a data wire with its ground.
type HarnessWire struct {
	Label, Kind, From, To string
	Gauge                 measure.Gauge
	Conductors            int
	Path                  float64 // mm along the corners it is drawn with; 0 when it has none
	Laid, Cut             float64 // mm as planned, and with a loop at each end
	Rail                  string
}

// Splice is a joint in a pair: two solder joints, each with its heat-shrink.
type Splice struct {
	Label, Where string
	Joins        []string
	Shrink       float64 // mm before shrinking
	Sleeves      int
}

// Entry is where wires go through the wall of a solid.
type Entry struct {
	Wires  []string
	Solid  string
	Bundle float64 // mm
	Plug   float64 // mm; 0 goes through before its plug is fitted
	Hole   float64 // mm wanted
	Fits   bool    // an opening of the solid is large enough
}

// Terminal is one channel or input of the controller.
type Terminal struct {
	No     int
	Name   string
	Works  string
	Volts  float64
	Amps   float64
	Device string
}

// Plugged is a connector of the list: two contacts that part.
type Plugged struct {
	Label, After, Before string
	Amps                 float64 // everything on
	Rating               measure.Current
}

// Harness is what building a prop's wiring takes, from cut wires to the order
// of work.
type Harness struct {
	Wires   []HarnessWire
	Splices []Splice
	Entries []Entry
	Pins    []Terminal
	Plugs   []Plugged
	Chains  []wiring.Chain
	Steps   []string
}

// Rail is how wires of a supply are told apart: by colour, and by bands of tape
// at their ends for whoever does not see the colour.
func (w *Work) Rail(device string) string {
	s := w.Device(w.Rig().Supply(device))
	if s == nil {
		return "not fed yet"
	}
	v, _ := wiring.SupplyOf(s, w.Lib)
	switch {
	case s.Cell != "":
		return "cells: white and blue, three bands"
	case v < 7:
		return "5 V: yellow and black, one band"
	case v < 15:
		return "12 V: red and black, no band"
	}
	return "24 V: orange and black, two bands"
}

// flagged is a short name such as W3, as it is written on a wire's flag.
var flagged = regexp.MustCompile(`^[A-Z]{1,3}[0-9]+$`)

// Flag is what a device is called on a wire's flag: its short name, or its own, with a
// number where several have one name. No two are called the same.
func (w *Work) Flag(id string) string {
	return Derive(w, "flags", func(w *Work) map[string]string {
		of, twins := make(map[string]string, len(w.Plan.Devices())), map[string]int{}
		for i := range w.Plan.Devices() {
			d := &w.Plan.Devices()[i]
			name := d.ID
			if !flagged.MatchString(name) && d.Name != "" {
				name = d.Name
			}
			if twins[name]++; twins[name] > 1 {
				name = fmt.Sprintf("%s (%d)", name, twins[name])
			}
			of[d.ID] = name
		}
		return of
	})[id]
}

// inside is the solid a device is in: its own, or for a run that of both its
// ends when they agree.
func (w *Work) inside(d *plan.Device) string {
	if d.In != "" || !d.Is(wiring.Wire) || d.From == "" {
		return d.In
	}
	in := w.Device(d.From).In
	for _, c := range w.Kids(d.ID) {
		if c.In != in {
			return ""
		}
	}
	return in
}

// Harness works out what building a prop's wiring takes.
func (w *Work) Harness(prop string) *Harness {
	b := &harnessBuilder{
		Work: w, h: &Harness{}, prop: prop, joins: map[spot][]string{}, sizes: map[spot][]float64{},
		closing: map[string][]string{}, enter: map[string]*Entry{},
	}
	for i := range w.Plan.Devices() {
		if d := &w.Plan.Devices()[i]; d.Prop == prop {
			b.device(d)
		}
	}
	b.spliced()
	b.pins()
	b.entries()
	b.h.steps(w, b.closing)
	return b.h
}

// spot is a place along a run where something is joined to it.
type spot struct {
	run string
	at  float64
}

// bench is a prop's harness being made up.
type harnessBuilder struct {
	*Work
	h       *Harness
	prop    string
	joins   map[spot][]string
	sizes   map[spot][]float64 // of the wires joined there, over their insulation
	spots   []spot
	closing map[string][]string // by solid: what is built into it
	enter   map[string]*Entry
	order   []string // of the solids that wires lead into
	channel int
}

// into leads a bundle of wires into a solid.
func (b *harnessBuilder) into(solid, label string, bundle []float64, plug float64) {
	e := b.enter[solid]
	if e == nil {
		e = &Entry{Solid: solid}
		b.enter[solid] = e
		b.order = append(b.order, solid)
	}
	e.Wires = append(e.Wires, label)
	e.Bundle = math.Hypot(e.Bundle, Bundle(bundle...))
	e.Plug = math.Max(e.Plug, plug)
}

// join puts wires together at a spot of a run; there says what lies there already.
func (b *harnessBuilder) join(s spot, name string, there []float64, sizes ...float64) {
	if b.joins[s] == nil {
		b.spots = append(b.spots, s)
		b.sizes[s] = there
	}
	b.joins[s], b.sizes[s] = append(b.joins[s], name), append(b.sizes[s], sizes...)
}

// device is its wires, and where they are joined and lead in.
func (b *harnessBuilder) device(d *plan.Device) {
	in := b.inside(d)
	if in != "" && !d.Is(wiring.Wire) {
		b.closing[in] = append(b.closing[in], d.Name)
	}
	size, plug := 0.0, 0.0
	switch {
	case d.Is(wiring.Origin):
		if in != "" && d.Cell == "" {
			b.into(in, "mains lead of "+d.Name, []float64{7}, mainsPlug)
		}
	case d.Is(wiring.Wire):
		size = b.run(d)
	case d.Is(wiring.Load):
		size, plug = b.lamp(d)
	case d.Is(wiring.Connector):
		g := b.All().Readings[d.ID]
		b.h.Plugs = append(
			b.h.Plugs,
			Plugged{b.Flag(d.ID), b.tapped(d.From, d.At), b.feedsWhat(d.ID), g.Amps, d.Rating},
		)
	case d.Channel():
		b.channel++
		g := b.All().Readings[d.ID]
		b.h.Pins = append(b.h.Pins, Terminal{b.channel, d.Name, b.feedsWhat(d.ID), g.Volts, g.Amps, d.ID})
	}
	from := b.Device(d.From)
	if from == nil {
		return
	}
	if in != "" && !d.Is(wiring.Fuse) && b.inside(from) != in && size > 0 {
		b.into(in, b.Flag(d.ID), []float64{size, size}, plug)
	}
	if from.Is(wiring.Wire) {
		b.tap(d, from, size)
	}
}

// run is a run's pair, its second pair, and its feed where that is along it.
func (b *harnessBuilder) run(d *plan.Device) (size float64) {
	size = Jacket(d.Gauge.Value())
	corners, _ := wiring.ParsePath(d.Path, b.Plan.Metric())
	b.h.Wires = append(b.h.Wires, HarnessWire{
		b.Flag(
			d.ID,
		), "run", b.tapped(d.From, d.At), b.endOf(d), d.Gauge, 2, wiring.PathLength(corners), d.Length.Value(),
		d.Length.Value() + 2*ServiceLoop, b.Rail(d.ID),
	})
	if !d.Back.IsZero() { // a second pair to its far end
		label := b.Flag(d.ID) + " back"
		b.h.Wires = append(b.h.Wires, HarnessWire{
			label, "second pair", b.tapped(d.To, d.ToAt), b.Flag(d.ID) + " far end", d.Gauge, 2, 0, d.Back.Value(),
			d.Back.Value() + 2*ServiceLoop, b.Rail(d.ID),
		})
		b.h.Splices = append(b.h.Splices, Splice{
			Label: label, Where: "the far end of " + d.Name, Joins: []string{b.Flag(d.ID), label}, Shrink: Shrink(size, size),
			Sleeves: 2,
		})
	}
	if at := d.FedAt.Value(); at > 0 { // its feed is joined to it there
		b.join(spot{d.ID, math.Round(at)}, "its feed from "+b.Flag(d.From), nil, size, size, size)
	}
	return size
}

// lamp is a lamp's lengthened lead, its further feeds, and its data wire.
func (b *harnessBuilder) lamp(d *plan.Device) (size, plug float64) {
	l := wiring.LampOf(d, b.Lib)
	size = Jacket(l.LeadGauge.Value())
	if l.Kind == "servo" { // three cores in one flat lead
		size *= 1.5
	}
	if l.Kind == "pixels" {
		plug = pixelPlug
	}
	if !d.Extension.IsZero() {
		n, rail := 2, b.Rail(d.ID)
		if l.Kind == "servo" { // its signal goes along
			n, rail = 3, rail+"; signal: yellow"
		}
		label := b.Flag(d.ID) + " extension"
		b.h.Wires = append(b.h.Wires, HarnessWire{
			label, "lead extension", b.tapped(d.From, d.At), b.Flag(d.ID), l.LeadGauge, n, 0, d.Extension.Value(),
			d.Extension.Value() + 2*10, rail,
		})
		b.h.Splices = append(b.h.Splices, Splice{
			Label: label, Where: "where the lead of " + d.Name + " ends", Joins: []string{b.Flag(d.ID), label},
			Shrink: Shrink(size, size), Sleeves: n,
		})
	}
	b.feeds(d, l, size)
	b.data(d)
	return size, plug
}

// feeds are a strip's further feeds, along its back.
func (b *harnessBuilder) feeds(d *plan.Device, l stock.Lamp, size float64) {
	feeds, _ := wiring.ParseFeeds(d.Feeds)
	for k, f := range feeds {
		at := f * d.Length.Value()
		if k > 0 {
			at += l.Lead.Value() + d.Extension.Value()
		}
		if at == 0 {
			continue // its own lead
		}
		label := fmt.Sprintf("%s feed %d", b.Flag(d.ID), k+1)
		where := fmt.Sprintf("%s at %s", b.Flag(d.ID), wiring.FeedsText([]float64{f}))
		b.h.Wires = append(b.h.Wires, HarnessWire{
			label, "feed", b.tapped(d.From, d.At), where, l.LeadGauge, 2, 0, at, at + 2*ServiceLoop, b.Rail(d.ID),
		})
		b.h.Splices = append(b.h.Splices, Splice{
			Label: label, Where: where, Joins: []string{b.Flag(d.ID), label}, Shrink: Shrink(size, size), Sleeves: 2,
		})
	}
}

// data is the wire that pixels get their picture by, its ground beside it or not.
func (b *harnessBuilder) data(d *plan.Device) {
	by := b.Device(d.Data)
	if by == nil || d.DataLead.IsZero() {
		return
	}
	n, from, colours := 1, b.Flag(by.ID)+" end", "data: green"
	if by.Is(wiring.Controller) {
		from = fmt.Sprintf("%s pin %d", b.Flag(by.ID), max(1, d.Pin))
	}
	if d.Common {
		n, colours = 2, "data: green, ground: black"
	}
	b.h.Wires = append(b.h.Wires, HarnessWire{
		b.Flag(d.ID) + " data", "data", from, b.Flag(d.ID) + " start",
		measure.Of[measure.GaugeKind](measure.AWGArea(wiring.DataGauge)), n, 0,
		d.DataLead.Value(), d.DataLead.Value() + 2*ServiceLoop, colours,
	})
}

// tap joins a device to the run it is fed from.
func (b *harnessBuilder) tap(d, from *plan.Device, size float64) {
	at := d.At.Value()
	if d.At.IsZero() {
		at = from.Length.Value()
	}
	run := Jacket(from.Gauge.Value())
	there := []float64{run}
	if at < from.Length.Value()-1 { // the run goes on
		there = append(there, run)
	}
	if size == 0 {
		size = 1.8
	}
	b.join(spot{from.ID, math.Round(at)}, b.Flag(d.ID), there, size)
}

// spliced lists the joints along the runs, in order.
func (b *harnessBuilder) spliced() {
	sort.SliceStable(b.spots, func(i, j int) bool {
		x, y := b.spots[i], b.spots[j]
		return x.run < y.run || x.run == y.run && x.at < y.at
	})
	for n, s := range b.spots {
		b.h.Splices = append(b.h.Splices, Splice{
			Label: fmt.Sprintf("J%d", n+1), Where: b.Flag(s.run) + " at " + measure.Run(s.at, b.Plan.Metric()),
			Joins: append([]string{b.Flag(s.run)}, b.joins[s]...), Shrink: Shrink(b.sizes[s]...), Sleeves: 2,
		})
	}
}

// pins are the controller's further terminals: inputs, and data out.
func (b *harnessBuilder) pins() {
	for _, in := range b.Plan.Inputs() {
		if in.Prop != b.prop {
			continue
		}
		way := "normally open"
		if in.Closed {
			way = "normally closed"
		}
		b.h.Pins = append(b.h.Pins,
			Terminal{No: len(b.h.Pins) + 1, Name: in.Name, Works: "input, " + way + ", dry contact to common"})
	}
	b.h.Chains = b.Plan.Wiring(b.Lib).Chains(b.prop)
	for _, c := range b.h.Chains {
		b.h.Pins = append(b.h.Pins, Terminal{
			No: len(b.h.Pins) + 1, Name: fmt.Sprintf("%s pin %d", b.Flag(c.Controller), c.Pin), Device: c.Controller,
			Works: strings.TrimSuffix(fmt.Sprintf("data out: %d pixels, %s", c.Pixels, c.Parts()), ", "),
		})
	}
}

// entries are the holes wires need, and whether one that is there lets them in.
func (b *harnessBuilder) entries() {
	const step = measure.Inch / 8
	for _, id := range b.order {
		e := b.enter[id]
		e.Hole = math.Ceil(math.Max(e.Bundle, e.Plug)*1.1/step-1e-6) * step
		for _, o := range b.Solid(id).Openings {
			if !o.Deep.IsZero() {
				continue // a pocket lets nothing through
			}
			wide, high := plan.OpeningSize(&o)
			e.Fits = e.Fits || math.Min(wide, high) >= math.Max(e.Bundle, e.Plug)
		}
		b.h.Entries = append(b.h.Entries, *e)
	}
}

// endOf is what hangs at the far end of a run.
func (w *Work) endOf(d *plan.Device) string {
	if d.To != "" {
		return w.tapped(d.To, d.ToAt)
	}
	var names []string
	for _, c := range w.Kids(d.ID) {
		if c.At.IsZero() || c.At.Value() > d.Length.Value()-1 {
			names = append(names, w.Flag(c.ID))
		}
	}
	if names == nil {
		return "open end"
	}
	return strings.Join(names, ", ")
}

func (w *Work) tapped(from string, at measure.Length) string {
	if at.IsZero() {
		return w.Flag(from)
	}
	return w.Flag(from) + " at " + at.String()
}

// feedsWhat says what hangs on a device.
func (w *Work) feedsWhat(id string) string {
	n := map[string]int{}
	var names []string
	var walk func(string)
	walk = func(up string) {
		for _, d := range w.index().Kids(up) {
			if d.Is(wiring.Load) {
				if name := w.Lib.Lamps[d.Product].Name; n[name] == 0 {
					names = append(names, name)
					n[name] = 1
				} else {
					n[name]++
				}
			}
			walk(d.ID)
		}
	}
	walk(id)
	for i, name := range names {
		if n[name] > 1 {
			names[i] = fmt.Sprintf("%d x %s", n[name], name)
		}
	}
	if names == nil {
		return "nothing yet"
	}
	return strings.Join(names, ", ")
}

func (h *Harness) steps(w *Work, closing map[string][]string) {
	if len(h.Wires) == 0 {
		return
	}
	say := func(format string, args ...any) { h.Steps = append(h.Steps, fmt.Sprintf(format, args...)) }
	sleeves := 0
	for _, s := range h.Splices {
		sleeves += s.Sleeves
	}
	say(
		"Cut the %d wires to the list, every conductor of each; label both ends before the next is cut.",
		len(h.Wires),
	)
	say("Tape the nail board print to a board, a nail at each ring; lay the runs between them, longest first.")
	say(
		"Slide the %d heat-shrink sleeves on before any joint is soldered, then splice from the far end to the feed.",
		sleeves,
	)
	say("Before it leaves the board: no short between the two rails, and each end rings through to its label.")
	for _, c := range h.Chains {
		fit := ""
		if parts := c.Parts(); parts != "" {
			fit = " Fit " + parts + "."
		}
		say("Data runs %s: the arrows on each strip point the same way.%s", c, fit)
	}
	say("Tie it every hand's width, lift it off, and leave the loops at both ends.")
	for _, e := range h.Entries {
		say(
			"Before %s closes: %s in through a hole of %s, with strain relief inside.",
			w.Solid(e.Solid).Name,
			strings.Join(e.Wires, ", "),
			measure.Tape(e.Hole, w.Plan.Metric()),
		)
	}
	var solids []string
	for id := range closing {
		solids = append(solids, id)
	}
	sort.Strings(solids)
	for _, id := range solids {
		if s := w.Solid(id); s.Sealed {
			say(
				"Light everything in %s (%s) against the Prove cards, then close it.",
				s.Name,
				strings.Join(closing[id], ", "),
			)
		}
	}
	say("Power on one supply at a time, mains last: measure each lamp against its card.")
}
