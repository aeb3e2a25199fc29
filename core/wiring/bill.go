package wiring

import (
	"zapbarn/core/source"
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
