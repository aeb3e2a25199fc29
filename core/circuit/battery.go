package circuit

import (
	"fmt"
	"math"
	"sort"
	"strings"

	"zapbarn/core/measure"
	"zapbarn/core/source"
)

// Cell is a battery of the shop: what it gives at a few currents, from a fresh
// start to its cut-off.
type Cell struct {
	Name  string
	Volts float64
	Load  []float64 // A, rising
	MAh   []float64 // at each load
	Cold  float64   // share left near freezing
	Lead  bool      // Peukert instead of the table
	Rated float64   // mAh at 20 h, for lead
	Least float64   // A below which a self-switching bank turns off
	Ohms  float64   // of one, inside
	Most  float64   // A it gives without sagging away
	Price float64
	Again bool // charged and used again
}

// Cells are the batteries by ID. All from memory, typical, editable.
var Cells = map[string]Cell{
	"coin": {
		Name:  "Coin cell, 20 mm",
		Volts: 3,
		Load:  []float64{.0002, .002, .01},
		MAh:   []float64{225, 190, 110},
		Cold:  .8,
		Ohms:  15,
		Most:  0.01,
		Price: 1,
	},
	"aaa": {
		Name:  "AAA alkaline",
		Volts: 1.5,
		Load:  []float64{.025, .1, .5},
		MAh:   []float64{1150, 900, 450},
		Cold:  .5,
		Ohms:  0.3,
		Most:  0.6,
		Price: 0.6,
	},
	"aa": {
		Name:  "AA alkaline",
		Volts: 1.5,
		Load:  []float64{.025, .1, .5},
		MAh:   []float64{2500, 2000, 1300},
		Cold:  .5,
		Ohms:  0.15,
		Most:  1,
		Price: 0.7,
	},
	"c": {
		Name:  "C alkaline",
		Volts: 1.5,
		Load:  []float64{.025, .1, .5},
		MAh:   []float64{8000, 7000, 4500},
		Cold:  .5,
		Ohms:  0.1,
		Most:  1.5,
		Price: 1.6,
	},
	"d": {
		Name:  "D alkaline",
		Volts: 1.5,
		Load:  []float64{.025, .1, .5},
		MAh:   []float64{17000, 14000, 9000},
		Cold:  .5,
		Ohms:  0.08,
		Most:  2,
		Price: 2,
	},
	"9v": {
		Name:  "9 V alkaline",
		Volts: 9,
		Load:  []float64{.01, .05, .2},
		MAh:   []float64{550, 400, 200},
		Cold:  .5,
		Ohms:  1.7,
		Most:  0.25,
		Price: 2.5,
	},
	"sla7": {
		Name:  "Sealed lead 12 V, 7 Ah",
		Volts: 12,
		Cold:  .8,
		Lead:  true,
		Rated: 7000,
		Ohms:  0.03,
		Most:  21,
		Price: 25,
		Again: true,
	},
	"li11": {
		Name:  "Lithium pack 11.1 V, 5 Ah, with its own guard and charger",
		Volts: 11.1,
		Load:  []float64{.5, 2.5, 5},
		MAh:   []float64{5000, 4800, 4500},
		Cold:  .75,
		Ohms:  0.06,
		Most:  10,
		Price: 45,
		Again: true,
	},
	"bank": {
		Name:  "USB bank, 10 000 mAh printed",
		Volts: 5,
		Load:  []float64{.1, 1, 2},
		MAh:   []float64{6000, 6000, 5600},
		Cold:  .8,
		Least: .08,
		Ohms:  0.05,
		Most:  2.1,
		Price: 18,
		Again: true,
	},
}

// CellsFrom is the source of the tables.
var CellsFrom = source.FromMemory(
	"alkaline AA 2500 mAh at 25 mA, 2000 at 100, 1300 at 500; 9 V 550 at 10, 400 at 50, 200 at 200; sealed lead gives " +
		"three times its capacity for minutes (data sheets of such batteries); banks give about 60 % of what is printed; " +
		"inner resistance and prices typical",
)

// peukertK and peukertHours are the exponent of small sealed lead batteries,
// from memory, and the hours their capacity is rated over.
const peukertK, peukertHours = 1.2, 20.0

// Peukert is the hours a lead battery of rated mAh at 20 h gives at amps, with
// exponent k: t = H (C / (I H))^k, H = 20 h. Source: Peukert's law.
func Peukert(mah, amps, k float64) float64 {
	return peukertHours * math.Pow(mah/1000/(amps*peukertHours), k)
}

// Capacity is the mAh a cell gives at a current: read off its table on a log
// scale, its end slopes carried on; for lead by Peukert's law, never more than
// it is rated for.
func (c Cell) Capacity(amps float64) float64 {
	if c.Lead {
		return math.Min(c.Rated, Peukert(c.Rated, amps, peukertK)*amps*1000)
	}
	k := sort.SearchFloat64s(c.Load, amps)
	k = min(max(k, 1), len(c.Load)-1)
	f := math.Log(amps/c.Load[k-1]) / math.Log(c.Load[k]/c.Load[k-1])
	return math.Max(0, math.Min(c.MAh[0]*1.1, c.MAh[k-1]+f*(c.MAh[k]-c.MAh[k-1])))
}

// Runtime is the hours a set of cells in a row (and rows side by side) gives
// at an average current, and what it takes for nights of some hours.
func Runtime(id string, amps float64, rows int, cold bool, hoursANight float64, nights int) ([]source.Result, error) {
	c, ok := Cells[id]
	if !ok {
		var ids []string
		for k := range Cells {
			ids = append(ids, k)
		}
		sort.Strings(ids)
		return nil, measure.Bad("cell", "the shop has no %q; it has %s", id, strings.Join(ids, ", "))
	}
	if err := c.can(amps, rows, hoursANight, nights); err != nil {
		return nil, err
	}
	each := amps / float64(rows)
	mah := c.Capacity(each)
	share, why := 1.0, ""
	if cold {
		share, why = c.Cold, fmt.Sprintf(" x %.1f near freezing", c.Cold)
	}
	hours := mah * share / 1000 / each
	if hours < 0.01 {
		return nil, measure.Bad("amps", "%s is more than %s can give", measure.Amps(each), c.Name)
	}
	sets, plan := c.sets(hours, hoursANight, nights)
	how, at := "mAh at this current, on a log scale", fmt.Sprintf("%s at %s", c.Name, measure.Amps(each))
	if c.Lead {
		how = fmt.Sprintf("mAh = H I (C / (I H))^k, at most C; H = %g h, k = %g", peukertHours, peukertK)
		at = fmt.Sprintf("C = %.0f mAh, I = %s", c.Rated, measure.Amps(each))
	}
	return []source.Result{
		source.Result{
			Key:   source.What("hours"),
			Label: "Hours a set",
			Value: hours,
			Unit:  "h",
			Text:  measure.Span(hours * 3600),
		}.
			With(how, at, measure.Decimal(mah, 0)+" mAh", CellsFrom).
			With("hours = mAh / mA"+why, fmt.Sprintf("%.0f / %.0f%s", mah, each*1000, why), measure.Span(hours*3600),
				source.FromTrade("alkaline loses about half near freezing")),
		source.Result{
			Key:   source.What("sets"),
			Label: "Sets for the season",
			Value: sets,
			Text:  fmt.Sprintf("%.0f, %s", sets, plan),
		}.
			With(
				"whole nights a set",
				fmt.Sprintf("%d nights of %.1f h", nights, hoursANight),
				fmt.Sprintf("%.0f sets of %d", sets, rows),
				source.Exact("count"),
			)}, nil
}

// sets is how many a season takes of a cell that lasts some hours, and when they are
// changed. Of what is charged again, what one night takes is enough for all.
func (c Cell) sets(hours, hoursANight float64, nights int) (n float64, plan string) {
	perSet := math.Floor(hours / hoursANight)
	switch {
	case c.Again && perSet <= 1:
		return math.Max(1, math.Ceil(hoursANight/hours-1e-9)), "charge every night"
	case c.Again:
		return math.Max(1, math.Ceil(hoursANight/hours-1e-9)), fmt.Sprintf("charge every %.0f nights", perSet)
	case perSet < 1:
		return math.Ceil(float64(nights) * hoursANight / hours),
			fmt.Sprintf("swap %.0f times a night", math.Ceil(hoursANight/hours))
	}
	return math.Ceil(float64(nights) / perSet), fmt.Sprintf("a fresh set every %.0f nights", perSet)
}

// Feeds is how many even feed points keep a uniformly loaded strip within a
// share of its volts: fed at the middles of k equal parts, the far points drop
// I R / (8 k^2), where one end alone drops I R / 2 (closed forms). ends says
// whether feeding one end does.
func Feeds(amps, ohms, volts, share float64) (k int, drop float64, oneEnd bool) {
	if drop = amps * ohms / 2; drop <= share*volts {
		return 1, drop, true
	}
	for k = 1; k < 1000; k++ {
		if drop = amps * ohms / 8 / float64(k*k); drop <= share*volts {
			break
		}
	}
	return k, drop, false
}

// Outlet is what loads on one mains outlet circuit come to: amperes, the
// continuous share of 80 %, and energy a night.
func Outlet(watts, volts, breaker, hours float64) ([]source.Result, error) {
	switch {
	case watts <= 0 || watts > 20_000:
		return nil, measure.Bad("watts", "must be more than nothing, such as 600 W")
	case volts < 100 || volts > 250:
		return nil, measure.Bad("volts", "write 120 V or 230 V")
	case breaker < 5 || breaker > 32:
		return nil, measure.Bad("breaker", "write the circuit's rating, 10 A to 20 A")
	case hours <= 0 || hours > 24:
		return nil, measure.Bad("hours", "write up to 24 hours")
	}
	a := watts / volts
	limit := breaker
	how := "under 3 h"
	if hours >= 3 {
		limit, how = 0.8*breaker, "continuous, 3 h or more"
	}
	verdict := "fits"
	if a > limit {
		verdict = "TOO MUCH for one circuit"
	}
	return []source.Result{
		source.Result{
			Key:   source.What("amps"),
			Label: "On the circuit",
			Value: a,
			Unit:  "A",
			Text:  measure.Amps(a) + ", " + verdict,
		}.
			With("I = P / V", fmt.Sprintf("%s / %s", measure.Watts(watts), measure.Volts(volts)), measure.Amps(a),
				source.Std("Ohm's law, power factor 1")).
			With("limit, "+how, fmt.Sprintf("%s of %s", measure.Amps(limit), measure.Amps(breaker)), verdict,
				source.Std("NEC 210.20(A): continuous load at most 80 %")),
		source.Result{
			Key:   source.What("energy"),
			Label: "Energy a night",
			Value: watts * hours / 1000,
			Unit:  "kWh",
			Text:  measure.Decimal(watts*hours/1000, 2) + " kWh",
		}.
			With(
				"P t",
				fmt.Sprintf(
					"%s x %g h; plugs and cords only, ground-fault protection outdoors, no chained strips, fixed wiring is for a "+
						"licensed electrician",
					measure.Watts(watts),
					hours,
				),
				measure.Decimal(watts*hours/1000, 2)+" kWh",
				source.Exact("energy"),
			)}, nil
}

// can refuses what no set of cells is asked for.
func (c Cell) can(amps float64, rows int, hoursANight float64, nights int) error {
	switch {
	case amps <= 0 || amps > 100:
		return measure.Bad("amps", "must be more than nothing, such as 120 mA")
	case rows < 1 || rows > 100:
		return measure.Bad("rows", "write 1 to 100")
	case hoursANight <= 0 || hoursANight > 24:
		return measure.Bad("hours", "write up to 24 hours a night")
	case nights < 1 || nights > 366:
		return measure.Bad("nights", "write 1 to 366")
	case amps/float64(rows) < c.Least:
		return measure.Bad(
			"amps",
			"%s is less than the %s a self-switching bank needs to stay on; add a load or use cells",
			measure.Amps(amps/float64(rows)),
			measure.Amps(c.Least),
		)
	}
	return nil
}
