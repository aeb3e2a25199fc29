package plan

import (
	"fmt"
	"math"
	"sort"
	"strings"

	"zapbarn/core/measure"
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
	s := w.Device(w.Rig.Supply(device))
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

// inside is the solid a device is in: its own, or for a run that of both its
// ends when they agree.
func (w *Work) inside(d *Device) string {
	if d.In != "" || d.Kind != "run" || d.From == "" {
		return d.In
	}
	in := w.Device(d.From).In
	for i := range w.Plan.Devices {
		if c := &w.Plan.Devices[i]; c.From == d.ID && c.In != in {
			return ""
		}
	}
	return in
}

// Harness works out what building a prop's wiring takes.
func (w *Work) Harness(prop string) *Harness {
	h := &Harness{}
	type spot struct {
		run string
		at  float64
	}
	joins := map[spot][]string{}
	sizes := map[spot][]float64{}
	var spots []spot
	closing := map[string][]string{}
	enter := map[string]*Entry{}
	var order []string
	into := func(solid, label string, bundle []float64, plug float64) {
		e := enter[solid]
		if e == nil {
			e = &Entry{Solid: solid}
			enter[solid] = e
			order = append(order, solid)
		}
		e.Wires = append(e.Wires, label)
		e.Bundle = math.Hypot(e.Bundle, Bundle(bundle...))
		e.Plug = math.Max(e.Plug, plug)
	}
	channel := 0
	for i := range w.Plan.Devices {
		d := &w.Plan.Devices[i]
		if d.Prop != prop {
			continue
		}
		in := w.inside(d)
		if in != "" && d.Kind != "run" {
			closing[in] = append(closing[in], d.Name)
		}
		var size float64
		plug := 0.0
		switch d.Kind {
		case "supply":
			if in != "" && d.Cell == "" {
				into(in, "mains lead of "+d.Name, []float64{7}, mainsPlug)
			}
		case "run":
			size = Jacket(d.Gauge.Value())
			to := w.endOf(d)
			corners, _ := wiring.ParsePath(d.Path, w.Plan.Metric())
			h.Wires = append(
				h.Wires,
				HarnessWire{
					d.ID,
					"run",
					tapped(d.From, d.At),
					to,
					d.Gauge,
					2,
					wiring.PathLength(corners),
					d.Length.Value(),
					d.Length.Value() + 2*ServiceLoop,
					w.Rail(d.ID),
				},
			)
			if !d.Back.IsZero() { // a second pair to its far end
				label := d.ID + "-b"
				h.Wires = append(
					h.Wires,
					HarnessWire{
						label,
						"second pair",
						tapped(d.To, d.ToAt),
						d.ID + " far end",
						d.Gauge,
						2,
						0,
						d.Back.Value(),
						d.Back.Value() + 2*ServiceLoop,
						w.Rail(d.ID),
					},
				)
				h.Splices = append(
					h.Splices,
					Splice{
						Label:   label,
						Where:   "the far end of " + d.Name,
						Joins:   []string{d.ID, label},
						Shrink:  Shrink(size, size),
						Sleeves: 2,
					},
				)
			}
			if at := d.FedAt.Value(); at > 0 { // its feed is joined to it there
				s := spot{d.ID, math.Round(at)}
				if joins[s] == nil {
					spots = append(spots, s)
				}
				joins[s], sizes[s] = append(joins[s], "its feed from "+d.From), append(sizes[s], size, size, size)
			}
		case "lamp":
			l := wiring.LampOf(d, w.Lib)
			size = Jacket(l.LeadGauge.Value())
			if l.Kind == "servo" { // three cores in one flat lead
				size *= 1.5
			}
			if l.Kind == "pixels" {
				plug = pixelPlug
			}
			if !d.Extension.IsZero() {
				n, rail := 2, w.Rail(d.ID)
				if l.Kind == "servo" { // its signal goes along
					n, rail = 3, rail+"; signal: yellow"
				}
				h.Wires = append(
					h.Wires,
					HarnessWire{
						d.ID + "-x",
						"lead extension",
						tapped(d.From, d.At),
						d.ID,
						l.LeadGauge,
						n,
						0,
						d.Extension.Value(),
						d.Extension.Value() + 2*10,
						rail,
					},
				)
				h.Splices = append(
					h.Splices,
					Splice{
						Label:   d.ID + "-x",
						Where:   "where the lead of " + d.Name + " ends",
						Joins:   []string{d.ID, d.ID + "-x"},
						Shrink:  Shrink(size, size),
						Sleeves: n,
					},
				)
			}
			feeds, _ := wiring.ParseFeeds(d.Feeds)
			for k, f := range feeds {
				at := f * d.Length.Value()
				if k > 0 {
					at += l.Lead.Value() + d.Extension.Value()
				}
				if at == 0 {
					continue // its own lead
				}
				label := fmt.Sprintf("%s-f%d", d.ID, k+1)
				where := fmt.Sprintf("%s at %s", d.ID, wiring.FeedsText([]float64{f}))
				h.Wires = append(
					h.Wires,
					HarnessWire{
						label,
						"feed",
						tapped(d.From, d.At),
						where,
						l.LeadGauge,
						2,
						0,
						at,
						at + 2*ServiceLoop,
						w.Rail(d.ID),
					},
				)
				h.Splices = append(
					h.Splices,
					Splice{
						Label:   label,
						Where:   where,
						Joins:   []string{d.ID, label},
						Shrink:  Shrink(size, size),
						Sleeves: 2,
					},
				)
			}
			if by := w.Device(d.Data); by != nil && !d.DataLead.IsZero() {
				n, from := 1, by.ID+" end"
				if by.Kind == "controller" {
					from = fmt.Sprintf("%s pin %d", by.ID, max(1, d.Pin))
				}
				if d.Common {
					n = 2
				}
				h.Wires = append(
					h.Wires,
					HarnessWire{
						d.ID + "-d",
						"data",
						from,
						d.ID + " start",
						measure.Of[measure.GaugeKind](measure.AWGArea(wiring.DataGauge)),
						n,
						0,
						d.DataLead.Value(),
						d.DataLead.Value() + 2*ServiceLoop,
						map[bool]string{true: "data: green, ground: black", false: "data: green"}[d.Common],
					},
				)
			}
		case "connector":
			g := w.All.Readings[d.ID]
			h.Plugs = append(h.Plugs, Plugged{d.ID, tapped(d.From, d.At), w.feedsWhat(d.ID), g.Amps, d.Rating})
		case "switch":
			if d.Driven {
				channel++
				g := w.All.Readings[d.ID]
				h.Pins = append(h.Pins, Terminal{channel, d.Name, w.feedsWhat(d.ID), g.Volts, g.Amps, d.ID})
			}
		}
		from := w.Device(d.From)
		if from == nil {
			continue
		}
		if in != "" && d.Kind != "fuse" && w.inside(from) != in && size > 0 {
			into(in, d.ID, []float64{size, size}, plug)
		}
		if from.Kind == "run" {
			at := d.At.Value()
			if d.At.IsZero() {
				at = from.Length.Value()
			}
			s := spot{from.ID, math.Round(at)}
			if joins[s] == nil {
				spots = append(spots, s)
				rs := Jacket(from.Gauge.Value())
				sizes[s] = []float64{rs}
				if at < from.Length.Value()-1 { // the run goes on
					sizes[s] = append(sizes[s], rs)
				}
			}
			joins[s] = append(joins[s], d.ID)
			if size == 0 {
				size = 1.8
			}
			sizes[s] = append(sizes[s], size)
		}
	}
	sort.SliceStable(spots, func(i, j int) bool {
		return spots[i].run < spots[j].run || spots[i].run == spots[j].run && spots[i].at < spots[j].at
	})
	for n, s := range spots {
		h.Splices = append(
			h.Splices,
			Splice{
				Label:   fmt.Sprintf("J%d", n+1),
				Where:   s.run + " at " + measure.Run(s.at, w.Plan.Metric()),
				Joins:   append([]string{s.run}, joins[s]...),
				Shrink:  Shrink(sizes[s]...),
				Sleeves: 2,
			},
		)
	}
	for _, in := range w.Plan.Inputs {
		if in.Prop == prop {
			way := "normally open"
			if in.Closed {
				way = "normally closed"
			}
			h.Pins = append(
				h.Pins,
				Terminal{No: len(h.Pins) + 1, Name: in.Name, Works: "input, " + way + ", dry contact to common"},
			)
		}
	}
	h.Chains = w.Plan.Wiring(w.Lib).Chains(prop)
	for _, c := range h.Chains {
		h.Pins = append(
			h.Pins,
			Terminal{
				No:     len(h.Pins) + 1,
				Name:   fmt.Sprintf("%s pin %d", c.Controller, c.Pin),
				Works:  strings.TrimSuffix(fmt.Sprintf("data out: %d pixels, %s", c.Pixels, c.Parts()), ", "),
				Device: c.Controller,
			},
		)
	}
	step := measure.Inch / 8
	for _, id := range order {
		e := enter[id]
		e.Hole = math.Ceil(math.Max(e.Bundle, e.Plug)*1.1/step-1e-6) * step
		for _, o := range w.Plan.Solid(id).Openings {
			least := o.W.Value()
			if o.Kind != "round" {
				least = math.Min(least, o.H.Value())
			}
			e.Fits = e.Fits || least >= math.Max(e.Bundle, e.Plug)
		}
		h.Entries = append(h.Entries, *e)
	}
	h.steps(w, closing)
	return h
}

// endOf is what hangs at the far end of a run.
func (w *Work) endOf(d *Device) string {
	if d.To != "" {
		return tapped(d.To, d.ToAt)
	}
	var names []string
	for i := range w.Plan.Devices {
		if c := &w.Plan.Devices[i]; c.From == d.ID && (c.At.IsZero() || c.At.Value() > d.Length.Value()-1) {
			names = append(names, c.ID)
		}
	}
	if names == nil {
		return "open end"
	}
	return strings.Join(names, ", ")
}

func tapped(from string, at measure.Length) string {
	if at.IsZero() {
		return from
	}
	return from + " at " + at.String()
}

// feedsWhat says what hangs on a device.
func (w *Work) feedsWhat(id string) string {
	n := map[string]int{}
	var names []string
	var walk func(string)
	walk = func(up string) {
		for _, d := range w.wires.Kids(up) {
			if d.Kind == "lamp" {
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
	say("Cut the %d wires to the list, every conductor of each; label both ends before the next is cut.", len(h.Wires))
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
			w.Plan.Solid(e.Solid).Name,
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
		if s := w.Plan.Solid(id); s.Sealed {
			say(
				"Light everything in %s (%s) against the Prove cards, then close it.",
				s.Name,
				strings.Join(closing[id], ", "),
			)
		}
	}
	say("Power on one supply at a time, mains last: measure each lamp against its card.")
}
