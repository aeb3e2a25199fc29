// Package wirings makes wirings at random, for tests that hold for any.
package wirings

import (
	"fmt"
	"math"
	"math/rand/v2"
	"slices"

	"zapbarn/core/form"
	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/stock"
	"zapbarn/core/wiring"
	"zapbarn/testkit/shop"
)

// Random is one prop wired as a careless beginner might: supplies of any
// size and batteries, fuses of any rating or none, runs too long and too thin,
// every lamp of the shop on any of them, strips with feeds, data from anywhere.
func Random(seed uint64) *plan.Plan {
	r := rand.New(rand.NewPCG(seed, 42))
	p := plan.New("x", "X", "in", "")
	p.Doc().Props = []plan.Prop{{ID: "a", Name: "A"}}
	add := func(d plan.Device) string {
		d.Prop, d.Name = "a", d.ID
		p.Doc().Devices = append(p.Devices(), d)
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
		if up := p.Device(d.From); up.Is(wiring.Wire) && r.IntN(2) == 0 {
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
	loads := stock.IDs(stock.Shop.Lamps)
	if r.IntN(4) > 0 { // mostly what draws no constant power
		loads = slices.DeleteFunc(loads, func(id string) bool {
			k := stock.Shop.Lamps[id].Kind
			return k == "power" || k == "sensor"
		})
	}
	for i := range 2 + r.IntN(8) {
		d := plan.Device{
			ID:       fmt.Sprintf("L%d", i),
			Kind:     "lamp",
			From:     pick(feeders),
			Product:  pick(loads),
			Reversed: r.IntN(9) == 0,
		}
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

// RandomProp is a prop as a careless builder might draw it: solids of any kind
// and stock and many sizes, some larger than their sheet, joints with any glue,
// coats in any order, one known size that may not add up, outlets that carry
// too much.
func RandomProp(seed uint64) *plan.Plan {
	r := rand.New(rand.NewPCG(seed, 77))
	p := plan.New("x", "X", []string{"in", "mm"}[r.IntN(2)], "")
	p.Doc().Display.Outdoors = r.IntN(2) == 0
	p.Doc().Display.Temp = measure.Must[measure.CelsiusKind](fmt.Sprintf("%d C", 2+r.IntN(25)))
	inch := func(low, high int) measure.Length { return measure.Len(fmt.Sprintf("%d in", low+r.IntN(high-low))) }
	p.Doc().Props = []plan.Prop{
		{ID: "a", Name: "A", Known: inch(10, 90), Of: []string{"height", "width", "depth"}[r.IntN(3)]},
	}
	var sheets []string
	for _, id := range stock.IDs(stock.Shop.Materials) {
		if stock.Shop.Materials[id].Form == "sheet" {
			sheets = append(sheets, id)
		}
	}
	for i := range 1 + r.IntN(3) {
		s := plan.Solid{
			ID:     fmt.Sprintf("s%d", i),
			Prop:   "a",
			Name:   fmt.Sprintf("Piece %d", i),
			Stock:  sheets[r.IntN(len(sheets))],
			Sealed: r.IntN(3) == 0,
			Lit:    r.IntN(4) == 0,
		}
		round := func() (w, h measure.Length, n int, profile string) {
			return inch(8, 40), inch(10, 60), 6 + r.IntN(6), []string{"sphere", "dome", "egg"}[r.IntN(3)]
		}
		switch r.IntN(14) {
		case 0:
			s = s.As(
				form.Box{
					W:      inch(8, 60),
					D:      inch(8, 40),
					H:      inch(8, 110),
					Lid:    r.IntN(2) == 0,
					Bottom: r.IntN(2) == 0,
					Joint:  []string{"butt", "mitre", "rabbet"}[r.IntN(3)],
				},
			)
		case 1:
			s = s.As(form.Tower{Sides: 3 + r.IntN(5), H: inch(20, 110), Low: inch(12, 40), High: inch(6, 12)})
		case 2:
			s = s.As(form.Panel{W: inch(8, 70), H: inch(8, 110), Copies: 1 + r.IntN(3)})
		case 3:
			s = s.As(form.Disc{W: inch(8, 100)})
		case 4:
			w, h, n, profile := round()
			s = s.As(form.Gores{W: w, H: h, Sides: n, Profile: profile})
		case 5:
			w, h, _, profile := round()
			s = s.As(form.Slices{W: w, H: h, Profile: profile})
		case 6:
			s = s.As(form.Outline{H: inch(10, 80), Path: "0,0 8,0 8,4 5,5 8,9 0,9 3,5 0,4"})
		case 8:
			s = s.As(form.Pyramid{W: inch(12, 60), D: inch(12, 60), H: inch(10, 90), TopW: inch(6, 12), TopD: inch(6, 12)})
		case 9:
			s = s.As(form.Arch{W: inch(12, 100), D: inch(6, 60), H: inch(3, 12), Ends: r.IntN(2) == 0})
		case 10:
			s = s.As(
				form.Wheel{
					W:      inch(8, 70),
					Teeth:  r.IntN(2) * (8 + r.IntN(12)),
					Spokes: r.IntN(2) * (3 + r.IntN(5)),
					Bore:   inch(1, 3),
				},
			)
		case 11:
			s.Stock = []string{"pvc1/2", "pvc1", "pvc2"}[r.IntN(3)]
			s = s.As(
				form.Frame{
					W:      inch(10, 90),
					D:      inch(10, 50),
					H:      inch(20, 90),
					Levels: 1 + r.IntN(3),
					Load:   measure.Must[measure.MassKind](fmt.Sprintf("%d kg", 1+r.IntN(30))),
				},
			)
		case 12:
			s.Stock = []string{"pet", "hips", "glass"}[r.IntN(3)]
			s = s.As(
				form.Bought{
					Of:     []string{"jar", "skull", "tote"}[r.IntN(3)],
					W:      inch(4, 20),
					H:      inch(4, 20),
					Copies: r.IntN(4),
				},
			)
		case 13:
			s = s.As(form.Trim{W: inch(8, 60), D: inch(8, 40), H: inch(1, 4), Copies: 1 + r.IntN(3)})
		case 7:
			s = s.As(form.Cone{Low: inch(10, 30), High: inch(2, 9), H: inch(6, 30)})
		}
		if _, err := s.Shape(shop.Kept); err != nil {
			s = s.As(form.Panel{W: inch(8, 40), H: inch(8, 40)})
			s.Stock = sheets[r.IntN(len(sheets))]
		}
		p.Doc().Solids = append(p.Solids(), s)
		glues, coats := stock.IDs(stock.Shop.Glues), stock.IDs(stock.Shop.Coats)
		if r.IntN(2) == 0 {
			p.Doc().Joints = append(
				p.Joints(),
				plan.Joint{
					ID:     "j" + s.ID,
					Prop:   "a",
					A:      s.ID,
					B:      p.Solids()[r.IntN(len(p.Solids()))].ID,
					Glue:   glues[r.IntN(len(glues))],
					Length: inch(4, 80),
					Strain: r.IntN(3) == 0,
				},
			)
		}
		if r.IntN(2) == 0 {
			f := plan.Finish{ID: s.ID, Solid: s.ID}
			for range 1 + r.IntN(3) {
				f.Layers = append(f.Layers, plan.Layer{Coat: coats[r.IntN(len(coats))], Coats: 1 + r.IntN(4)})
			}
			p.Doc().Finishes = append(p.Finishes(), f)
		}
	}
	for i := range r.IntN(3) {
		o := plan.Outlet{
			ID:      fmt.Sprintf("o%d", i),
			Name:    fmt.Sprintf("Outlet %d", i),
			Volts:   measure.Must[measure.VoltKind]("120 V"),
			Breaker: measure.Must[measure.AmpKind]("15 A"),
			Guard:   r.IntN(2) == 0,
		}
		if r.IntN(2) == 0 {
			o.Gauge, o.Cord = measure.Must[measure.GaugeKind](
				[]string{"18 AWG", "16 AWG", "14 AWG"}[r.IntN(3)],
			), inch(100, 1200)
		}
		p.Doc().Outlets = append(p.Outlets(), o)
		for k := range 1 + r.IntN(3) {
			p.Doc().Plugs = append(
				p.Plugs(),
				plan.Plug{
					ID:     fmt.Sprintf("g%d-%d", i, k),
					Name:   fmt.Sprintf("Plug %d-%d", i, k),
					Outlet: o.ID,
					Watts:  measure.Must[measure.WattKind](fmt.Sprintf("%d W", 40+r.IntN(1000))),
					Heater: r.IntN(3) == 0,
				},
			)
		}
	}
	return p
}
