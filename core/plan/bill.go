package plan

import (
	"math"

	"zapbarn/core/circuit"
	"zapbarn/core/source"
	"zapbarn/core/stock"
)

// Bill is what a device takes: copper in grams, and money.
type Bill struct{ Copper, Money float64 }

// copperDensity is in g/cm3. Source: IEC 60028, 8.89 at 20 C.
const copperDensity = 8.89

// BillFrom is where its prices are from.
var BillFrom = []source.Source{
	source.Std("IEC 60028: copper 8.89 g/cm3"),
	source.FromMemory(
		"a pair of hook-up wire about $0.20 a metre and $0.50 more for each mm2; fuse with holder $2, driven switch $3, " +
			"connector $1, converter $3 and $1 an ampere, controller $8, level shifter $2, resistor and capacitor $1",
	),
}

// pair is the bill of mm of a pair of wires.
func pair(mm2, mm float64) Bill {
	return Bill{2 * mm2 * mm / 1000 * copperDensity, mm / 1000 * (.20 + .50*mm2)}
}

// BillOf is what a device takes beyond itself when it is a lamp: the wire of
// its extension and of its feeds, and the parts at its data pin.
func BillOf(d *Device, lib *stock.Library) (b Bill) {
	add := func(c Bill) { b.Copper, b.Money = b.Copper+c.Copper, b.Money+c.Money }
	switch d.Kind {
	case "supply":
		if c, ok := circuit.Cells[d.Cell]; ok {
			return Bill{0, c.Price * float64(max(1, d.Cells)*max(1, d.Sets))}
		}
		if s, ok := lib.Supplies[d.Product]; ok {
			return Bill{0, s.Price}
		}
		v, a := SupplyOf(d, lib)
		return Bill{0, 6 + .2*v*a}
	case "run":
		add(pair(d.Gauge.Value(), d.Length.Value()+d.Back.Value()))
	case "fuse":
		b.Money = 2
	case "switch":
		b.Money = 3
	case "connector":
		b.Money = 1
	case "converter":
		b.Money = 3 + math.Ceil(d.Amps.Value())
	case "controller":
		b.Money = 8
	case "lamp":
		mm2 := lampOf(d, lib).LeadGauge.Value()
		add(pair(mm2, d.Extension.Value()))
		feeds, _ := ParseFeeds(d.Feeds)
		for i, f := range feeds {
			far := f * d.Length.Value()
			if i > 0 {
				far += d.Extension.Value() + lampOf(d, lib).Lead.Value()
			}
			add(pair(mm2, far))
		}
		if d.Shifter {
			b.Money += 2
		}
		if d.Damper || d.Bulk {
			b.Money++
		}
	}
	return b
}
