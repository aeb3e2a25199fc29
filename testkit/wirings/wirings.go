// Package wirings makes wirings at random, for tests that hold for any.
package wirings

import (
	"fmt"
	"math"
	"math/rand/v2"

	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/stock"
)

// Random is one prop wired as a careless beginner might: supplies of any
// size and batteries, fuses of any rating or none, runs too long and too thin,
// every lamp of the shop on any of them, strips with feeds, data from anywhere.
func Random(seed uint64) *plan.Plan {
	r := rand.New(rand.NewPCG(seed, 42))
	p := plan.New("x", "X", "in", "")
	p.Props = []plan.Prop{{ID: "a", Name: "A"}}
	add := func(d plan.Device) string {
		d.Prop, d.Name = "a", d.ID
		p.Devices = append(p.Devices, d)
		return d.ID
	}
	pick := func(list []string) string { return list[r.IntN(len(list))] }
	mm := func(low, high float64) measure.Length {
		return measure.Len(fmt.Sprintf("%.0f mm", low+r.Float64()*(high-low)))
	}
	amps := func(low, high float64) measure.Current {
		return measure.Must[measure.AmpKind](fmt.Sprintf("%.1f A", low+r.Float64()*(high-low)))
	}
	var feeders, runs, pixels, controllers []string
	for i := range 1 + r.IntN(3) {
		d := plan.Device{ID: fmt.Sprintf("S%d", i+1), Kind: "supply", Product: pick(stock.IDs(stock.Shop.Supplies))}
		if r.IntN(5) == 0 {
			d.Product, d.Cell, d.Cells = "", pick([]string{"aa", "d", "9v", "bank"}), 1+r.IntN(8)
		}
		feeders = append(feeders, add(d))
	}
	for i := range 3 + r.IntN(8) {
		d := plan.Device{From: pick(feeders)}
		if up := p.Device(d.From); up.Kind == "run" && r.IntN(2) == 0 {
			d.At = measure.Of[measure.LengthKind](math.Max(1, math.Floor(up.Length.Value()*r.Float64())))
		}
		switch r.IntN(6) {
		case 0:
			d.ID, d.Kind, d.Rating, d.Poly = fmt.Sprintf("F%d", i), "fuse", amps(.5, 8), r.IntN(4) == 0
		case 1:
			d.ID, d.Kind, d.Driven = fmt.Sprintf("K%d", i), "switch", true
		case 2:
			d.ID, d.Kind, d.Rating = fmt.Sprintf("X%d", i), "connector", amps(.5, 5)
		case 3:
			d.ID, d.Kind = fmt.Sprintf("U%d", i), "controller"
			controllers = append(controllers, d.ID)
		default:
			d.ID, d.Kind = fmt.Sprintf("W%d", i), "run"
			d.Gauge = measure.Of[measure.GaugeKind](measure.AWGArea(stock.Gauges[r.IntN(len(stock.Gauges))]))
			d.Length = mm(200, 12000)
			if r.IntN(4) == 0 {
				d.FedAt = measure.Of[measure.LengthKind](math.Floor(d.Length.Value() / 2))
			}
			runs = append(runs, d.ID)
		}
		feeders = append(feeders, add(d))
	}
	for i := range 2 + r.IntN(8) {
		d := plan.Device{ID: fmt.Sprintf("L%d", i), Kind: "lamp", From: pick(feeders), Product: pick(stock.IDs(stock.Shop.Lamps)), Reversed: r.IntN(9) == 0}
		l := stock.Shop.Lamps[d.Product]
		if l.Kind == "strip" || l.Kind == "pixels" {
			d.Length = mm(300, 4000)
			d.Feeds = pick([]string{"", "0% 100%", "50%", "25% 75%"})
		}
		if l.Kind == "pixels" {
			d.Bright = 10 + r.IntN(91)
			if len(controllers) > 0 && r.IntN(3) > 0 {
				d.Data, d.Pin, d.DataLead, d.Common = pick(append(controllers, pixels...)), 1, mm(100, 12000), r.IntN(2) == 0
			}
			pixels = append(pixels, d.ID)
		}
		if l.Kind == "led" && r.IntN(2) == 0 {
			d.Row, d.Resistor = 1+r.IntN(4), measure.Must[measure.OhmKind](fmt.Sprintf("%d ohm", 50+r.IntN(600)))
		}
		add(d)
	}
	if len(runs) > 1 && r.IntN(4) == 0 {
		p.Device(runs[0]).To = runs[len(runs)-1]
	}
	return p
}
