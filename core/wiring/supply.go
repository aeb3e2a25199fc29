package wiring

import (
	"fmt"

	"zapbarn/core/circuit"
	"zapbarn/core/measure"
	"zapbarn/core/stock"
)

// supplyKind is where a tree of wiring begins: a plug-in supply, or cells.
var supplyKind = &Kind{
	Name: "supply", Title: "Supplies", Role: Origin, feeds: true,
	more: func(d *Device, _ *stock.Library) []Field {
		if d.Cell != "" {
			return []Field{{"name", "Name", "text"}, {"cell", "Cell", "cells"}, {"cells", "In a row", "text"},
				{"sets", "Rows", "text"}, {"in", "Built into", "solids"}}
		}
		return []Field{{"name", "Name", "text"}, {"product", "Supply", "supply"}, {"volts", "or volts", "text"},
			{"amps", "and amps", "text"}, {"in", "Built into", "solids"}, {"outlet", "Plugged into", "outlets"}}
	},
	valid: func(d *Device, s Set) error {
		if d.Cell != "" {
			return cellsValid(d, s)
		}
		if d.Product == "" && (d.Volts.IsZero() || d.Amps.IsZero()) {
			return measure.Bad("volts", "give volts and amps, or choose a supply such as ps12-5")
		}
		if d.Product != "" {
			return measure.InList("product", d.Product, s.Lib.Supplies, "ps12-5")
		}
		return nil
	},
	build: func(b *builder, d *Device, _, _ int) {
		r := b.Rig
		v, a := SupplyOf(d, r.lib)
		neg, pos := r.Net.Node(d.ID+"-"), r.Net.Node(d.ID+"+")
		r.at(d.ID).source = r.Net.Add(circuit.Element{
			Kind: circuit.Supply, A: pos, B: neg, E: v, R: SourceOhms(d, v, a), Limit: overloadFactor * a, Name: d.ID,
		})
		r.at(d.ID).supply = d.ID
		r.at(d.ID).port = [2]int{pos, neg}
	},
	read: readSource,
	bill: func(d *Device, lib *stock.Library) Bill {
		if c, ok := circuit.Cells[d.Cell]; ok {
			return Bill{Money: c.Price * float64(max(1, d.Cells)*max(1, d.Sets))}
		}
		return Bill{Money: SupplyGood(d, lib).Price}
	},
}

// SupplyGood is what is bought for a plug-in supply: the one of the shop's list that it names,
// where its own figures say nothing else; the one of the list with just its figures; or one of
// its own, without an ID, named by its figures and priced by its power (from memory: $6 and
// 20 cents a watt).
func SupplyGood(d *Device, lib *stock.Library) stock.Supply {
	v, a := SupplyOf(d, lib)
	if s, ok := lib.Supplies[d.Product]; ok && s.Volts == v && s.Amps == a {
		return s
	}
	for _, id := range stock.IDs(lib.Supplies) {
		if s := lib.Supplies[id]; s.Volts == v && s.Amps == a {
			return s
		}
	}
	return stock.Supply{
		Name:  fmt.Sprintf("Supply, %s %s", measure.Volts(v), measure.Amps(a)),
		Volts: v, Amps: a, Price: 6 + .2*v*a,
	}
}

func cellsValid(d *Device, s Set) error {
	switch {
	case d.Cells < 0 || d.Cells > 40 || d.Sets < 0 || d.Sets > 40:
		return measure.Bad("cells", "write 1 to 40 cells in a row, and 1 to 40 rows")
	case d.Outlet != "":
		return measure.Bad("outlet", "batteries need none; leave it empty")
	}
	if v, _ := SupplyOf(d, s.Lib); v > 60 {
		return measure.Bad("cells", "%d of %s give %s; extra-low voltage ends at 60 V", d.Cells, d.Cell, measure.Volts(v))
	}
	return measure.InList("cell", d.Cell, circuit.Cells, "aa or 9v")
}

// readSource is what a supply or a converter gives.
func readSource(r *Rig, sol *circuit.Solution, d *Device, g *Operating) {
	e := r.at(d.ID).source
	g.Volts, g.Amps = sol.Across(r.Net.Elements[e]), -sol.I[e]
	_, limit := SupplyOf(d, r.lib)
	g.Lit = g.Amps / limit
	g.State = LoadState(g.Lit)
}

// SupplyOf is a supply's volts and amps, from the list or as written.
func SupplyOf(d *Device, lib *stock.Library) (volts, amps float64) {
	if c, ok := circuit.Cells[d.Cell]; ok {
		return c.Volts * float64(max(1, d.Cells)), c.Most * float64(max(1, d.Sets))
	}
	s := lib.Supplies[d.Product]
	return d.Volts.Or(s.Volts), d.Amps.Or(s.Amps)
}

// SourceOhms is what stands behind a supply's volts, inside it.
func SourceOhms(d *Device, volts, amps float64) float64 {
	if c, ok := circuit.Cells[d.Cell]; ok {
		return c.Ohms * float64(max(1, d.Cells)) / float64(max(1, d.Sets))
	}
	return stock.SupplyResistance(volts, amps)
}

// overloadFactor is how many times its rating a plug-in supply gives before its limit
// holds. From memory: 110 to 150 %.
const overloadFactor = 1.3

// ShortAmps is what a supply can push into a short circuit, in A: of cells what
// their open volts drive through their own resistance; of a plug-in supply what
// it gives before it gives in.
func ShortAmps(d *Device, lib *stock.Library) float64 {
	v, limit := SupplyOf(d, lib)
	if d.Cell != "" {
		return v / SourceOhms(d, v, limit)
	}
	return overloadFactor * limit
}

// LoadState is how a source stands at a share of its rating.
func LoadState(share float64) string {
	switch {
	case share > 1:
		return "overloaded"
	case share > circuit.LoadLimit:
		return "heavy"
	}
	return "ok"
}
