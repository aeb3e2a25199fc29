// Package stores works out what is still to be bought: what the tasks that are left take,
// in the units it is bought in, less what lies on the shelf, by when it must be ordered and
// what it costs.
package stores

import (
	"fmt"
	"math"
	"slices"
	"sort"
	"strings"

	"zapbarn/core/calendar"
	"zapbarn/core/circuit"
	"zapbarn/core/measure"
	"zapbarn/core/order"
	"zapbarn/core/plan"
	"zapbarn/core/source"
	"zapbarn/core/wiring"
	"zapbarn/core/words"
	"zapbarn/core/work"
)

// Need is one thing that is bought.
type Need struct {
	What     string // table:id, what the shelf names it by
	Name     string
	Unit     string  // sheets, lengths, sticks, mL, L, m, pieces
	Use      float64 // what is left to do takes
	Spare    float64 // share that is added
	Have     float64 // on the shelf
	Pack     float64 // how much a pack holds
	PackName string
	Price    float64 // of a pack; 0 is not known
	Packs    int     // to buy
	Cost     float64
	First    int // minute when it is first wanted, at the latest; -1 when nothing that takes it has a time
	OrderBy  int // minute of the day by which it must be ordered
	Lead     int // days until it comes
	Props    []string
	By       map[string]float64 // what of it each prop takes, by its ID
	On       *plan.Stocked
	Steps    []source.Step
	from     source.Source
	steps    []source.Step
}

// Wanted is what is needed with what is added to be spare: of pieces whole ones, so that of one
// screen no second is bought.
func (n *Need) Wanted() float64 {
	if n.Unit == "pieces" {
		return n.Use + math.Round(n.Use*n.Spare)
	}
	return n.Use * (1 + n.Spare)
}

// Short is what is missing.
func (n *Need) Short() float64 { return math.Max(0, n.Wanted()-n.Have) }

// ToBuy is what is to be bought, in what it comes in: 3 sheets, 2 x spool of 30 m.
func (n *Need) ToBuy() string {
	switch {
	case n.PackName == "" && strings.HasSuffix(n.Unit, "s"), n.PackName+"s" == n.Unit:
		return words.Count(n.Packs, strings.TrimSuffix(n.Unit, "s"))
	case n.PackName == "":
		return fmt.Sprintf("%d %s", n.Packs, n.Unit)
	}
	return fmt.Sprintf("%d x %s", n.Packs, n.PackName)
}

// Asks is what that costs.
func (n *Need) Asks() string {
	if n.Price > 0 {
		return fmt.Sprintf("$%.2f", n.Cost)
	}
	return "price not known"
}

// The shares that are added, and the days until things come, by what they are: common
// practice, no source; the days can be said for each thing.
var (
	spare = map[string]float64{"glue": .15, "coat": .1, "lamp": .05, "wire": .1}
	lead  = map[string]int{
		"material": 1,
		"glue":     1,
		"coat":     1,
		"lamp":     6,
		"supply":   6,
		"part":     6,
		"input":    6,
		"wire":     6,
		"cell":     1,
	}
)

var typical = source.FromMemory("pack sizes and prices, typical; the shop takes your own")

// list gathers needs.
type list struct {
	*work.Work
	o     *order.Order
	all   map[string]*Need
	start map[*order.Task]int
}

// Of lists what is to be bought, what must be ordered first before the rest.
func Of(w *work.Work) []*Need {
	return work.Derive(w, "needs", allNeeds)
}

func allNeeds(w *work.Work) []*Need {
	t := order.In(w)
	l := &list{Work: w, o: t.Order, all: map[string]*Need{}, start: map[*order.Task]int{}}
	for i, x := range t.Row {
		if t.Slots != nil && t.Slots[i].Placed() { // tonight is when it could begin, not when it must be here
			l.start[x] = t.Latest[i] + idle(t)
		}
	}
	l.stocks()
	l.making()
	l.magnets()
	l.glues()
	l.coats()
	l.devices()
	l.inputs()
	return l.priced()
}

// idle is by how many minutes all of the work could begin later and be over before the opening: in
// whole weeks, since people's hours are those of a week.
func idle(t *order.Timetable) int {
	if t.Deadline <= t.End {
		return 0
	}
	const week = 7 * calendar.Day
	return (t.Deadline - t.End) / week * week
}

// priced are the needs with what they cost, what must be ordered first before the rest.
func (l *list) priced() []*Need {
	out := make([]*Need, 0, len(l.all))
	for _, n := range l.all {
		l.price(n)
		out = append(out, n)
	}
	sort.Slice(out, func(i, j int) bool {
		a, b := out[i], out[j]
		if (a.Packs > 0) != (b.Packs > 0) {
			return a.Packs > 0
		}
		if a.OrderBy != b.OrderBy {
			return a.OrderBy < b.OrderBy
		}
		return a.What < b.What
	})
	return out
}

// Total is what all of it costs, and how many things have no price.
func Total(needs []*Need) (cost float64, unknown int) {
	for _, n := range needs {
		cost += n.Cost
		if n.Packs > 0 && n.Price == 0 {
			unknown++
		}
	}
	return cost, unknown
}

// Money is what all of it costs, with its working: the dearest things by name.
func Money(w *work.Work, needs []*Need) source.Result {
	cost, unknown := Total(needs)
	orders, ship := Orders(needs), float64(w.Plan.Display().Shipping)
	cost += float64(orders) * ship
	r := source.Num("To buy", cost, "$", fmt.Sprintf("$%.2f", cost))
	for _, n := range needs {
		if n.Packs > 0 {
			r = r.With(n.Name, fmt.Sprintf("%d x $%.2f", n.Packs, n.Price), fmt.Sprintf("$%.2f", n.Cost), n.from)
		}
	}
	if ship > 0 && orders > 0 {
		text := fmt.Sprintf("$%.2f", float64(orders)*ship)
		r = r.With("shipping, an order a day of ordering", fmt.Sprintf("%d x $%.0f", orders, ship), text,
			source.Entered("shipping of an order"))
	}
	if unknown > 0 {
		r = r.With("with no price yet", fmt.Sprint(unknown), "not counted")
	}
	return r
}

// Orders is on how many days something is to be ordered: so many parcels.
func Orders(needs []*Need) int {
	days := map[int]bool{}
	for _, n := range needs {
		if n.Packs > 0 && n.Cost > 0 {
			days[max(-1, n.OrderBy/calendar.Day)] = true
		}
	}
	return len(days)
}

// Share is what of the money is a prop's.
type Share struct {
	Prop  *plan.Prop
	Goods float64 // by how much of each thing it takes
	Ship  float64 // its share of the shipping, as of the goods
}

// Shares parts what is to be bought, and its shipping, among the props. What is of no prop
// is left out of it.
func Shares(w *work.Work, needs []*Need) (out []Share) {
	goods, all := map[string]float64{}, 0.0
	for _, n := range needs {
		all += n.Cost
		for prop, use := range n.By {
			if n.Use > 0 {
				goods[prop] += n.Cost * use / n.Use
			}
		}
	}
	ship := float64(Orders(needs) * w.Plan.Display().Shipping)
	for i := range w.Plan.Props() {
		p := &w.Plan.Props()[i]
		if g := goods[p.ID]; g > 0 {
			out = append(out, Share{p, g, ship * g / all})
		}
	}
	return out
}

// left reports that a task is still to be done.
func (l *list) left(key string) bool { return l.o.Next(key) != nil }

// need adds a use by a task to what is needed of a thing.
func (l *list) need(what, name, unit string, use float64, prop, task string) *Need {
	n := l.all[what]
	if n == nil {
		n = &Need{What: what, Name: name, Unit: unit, First: -1, Pack: 1, from: typical}
		table, _, _ := strings.Cut(what, ":")
		n.Spare, n.Lead = spare[table], lead[table]
		l.all[what] = n
	}
	n.Use += use
	if n.By == nil {
		n.By = map[string]float64{}
	}
	n.By[prop] += use
	if p := l.Plan.Prop(prop); p != nil && !slices.Contains(n.Props, p.Name) {
		n.Props = append(n.Props, p.Name)
	}
	t := l.o.Next(task)
	if at, ok := l.start[t]; ok && (n.First < 0 || at < n.First) {
		n.First = at
	}
	n.steps = append(n.steps, source.Step{Formula: t.Name, Value: Amount(use, unit)})
	return n
}

// glues are what the joints take that are not glued yet.
func (l *list) glues() {
	for i := range l.Plan.Joints() {
		j := &l.Plan.Joints()[i]
		task := "join:" + j.ID
		if !l.left(task) {
			id, _, _ := strings.Cut(j.A, "/")
			if task = "glue:" + id; !l.left(task) || l.o.Task("join:"+j.ID) != nil {
				continue
			}
		}
		r := l.Takes(j.ID)
		g := l.Lib.Glues[j.Glue]
		unit := r.Unit
		use := r.Value
		if unit == "mm" {
			unit, use = "m", use/1000
		}
		if use <= 0 {
			continue
		}
		n := l.need("glue:"+g.ID, g.Name, unit, use, j.Prop, task)
		n.Pack, n.PackName, n.Price = g.Pack, g.PackName, g.Price
		if unit == "m" {
			n.Pack = g.Pack / 1000
		}
	}
}

// coats are what is left to be painted.
func (l *list) coats() {
	for i := range l.Plan.Finishes() {
		f := &l.Plan.Finishes()[i]
		judged := l.Finishes()[f.ID]
		for k, layer := range f.Layers {
			c := l.Lib.Coats[layer.Coat]
			for coat := range layer.Coats {
				task := fmt.Sprintf("coat:%s:%d:%d", f.ID, k+1, coat+1)
				if !l.left(task) || judged.Litres[k] <= 0 {
					continue
				}
				n := l.need(
					"coat:"+c.ID,
					c.Name,
					"L",
					judged.Litres[k]/float64(layer.Coats),
					l.Solid(f.Solid).Prop,
					task,
				)
				n.Pack, n.PackName, n.Price = c.Pack, c.PackName, c.Price
			}
		}
	}
}

// resistors are how many come on a strip (typical, from memory).
const resistors = 10

// spool is how much wire is bought at once, m.
const spool = 30.0

// devices are what a prop that is not wired yet wants.
func (l *list) devices() {
	for i := range l.Plan.Devices() {
		d := &l.Plan.Devices()[i]
		task := "wire:" + d.Prop
		if !l.left(task) {
			if task = "mount:" + d.ID; !l.left(task) {
				continue
			}
		}
		l.device(d, task)
	}
}

// prefixed is a text with what comes before it; nothing where there is none.
func prefixed(before, text string) string {
	if text == "" {
		return ""
	}
	return before + text
}

func (l *list) device(d *plan.Device, task string) {
	switch {
	case d.Is(wiring.Load):
		lamp := l.Lib.Lamps[d.Product]
		use, unit := 1.0, "pieces"
		if (lamp.Kind == "strip" || lamp.Kind == "pixels") && !d.Length.IsZero() {
			use, unit = d.Length.Value()/1000, "m"
		}
		if lamp.Kind == "led" { // a row of them, and what limits it
			use = float64(max(1, d.Row))
			if d.Resistor.Value() > 0 {
				r := l.need("part:resistor "+strings.ToLower(d.Resistor.String()), "Resistor, "+d.Resistor.String(), "pieces", 1,
					d.Prop, task)
				r.Pack, r.PackName, r.Price = resistors, "strip of 10", 1
			}
		}
		own := wiring.OwnFigures(d, l.Lib)
		n := l.need("lamp:"+strings.TrimSpace(lamp.ID+" "+strings.ToLower(own)), lamp.Name+prefixed(", of ",
			own), unit, use,
			d.Prop, task)
		n.Price = lamp.Price
	case d.Is(wiring.Wire):
		if metres := (d.Length.Value() + d.Back.Value()) / 1000; metres > 0 {
			size := measure.Of[measure.GaugeKind](d.Gauge.Value()).String() // one name a size, however it was written
			n := l.need("wire:"+size, size+" pair", "m", metres, d.Prop, task)
			n.Pack, n.PackName = spool, "spool of 30 m"
			n.Price = spool * wiring.BillOf(d, l.Lib).Money / metres
		}
	case d.Is(wiring.Origin) && d.Cell != "":
		c := circuit.Cells[d.Cell]
		n := l.need("cell:"+d.Cell, c.Name, "pieces", float64(max(1, d.Cells)*max(1, d.Sets)), d.Prop, task)
		n.Price = c.Price
	case d.Is(wiring.Origin):
		g := wiring.SupplyGood(d, l.Lib)
		what := "supply:" + g.ID
		if g.ID == "" {
			what += strings.ToLower(fmt.Sprintf("%s %s", measure.Volts(g.Volts), measure.Amps(g.Amps)))
		}
		n := l.need(what, g.Name, "pieces", 1, d.Prop, task)
		n.Price = g.Price
	default:
		name := measure.Capital(d.Kind)
		if !d.Rating.IsZero() {
			name += ", " + d.Rating.String()
		}
		n := l.need("part:"+strings.ToLower(name), name, "pieces", 1, d.Prop, task)
		n.Price = wiring.BillOf(d, l.Lib).Money
	}
}

// price finishes a need: packs, cost, by when.
func (l *list) price(n *Need) {
	if n.On = l.Plan.StockedOf(n.What); n.On != nil {
		n.Have = n.On.Amount()
		if d, said := n.On.LeadDays(); said {
			n.Lead = d
		}
	}
	if n.Pack <= 0 {
		n.Pack = 1
	}
	n.Packs = int(math.Ceil(n.Short()/n.Pack - 1e-9))
	n.Cost = float64(n.Packs) * n.Price
	n.OrderBy = 1 << 40
	if n.First >= 0 {
		n.OrderBy = (n.First/calendar.Day - n.Lead) * calendar.Day
	}
	n.Steps = append(
		n.steps,
		source.Step{Formula: "spare", Numbers: fmt.Sprintf(
			"%s x %s",
			Amount(n.Use, n.Unit),
			measure.Decimal(
				1+n.Spare,
				2,
			),
		), Value: Amount(n.Wanted(), n.Unit), Sources: []source.Source{source.FromTrade("")}},
		source.Step{
			Formula: "less what lies on the shelf",
			Numbers: fmt.Sprintf("%s - %s", Amount(n.Wanted(), n.Unit),
				Amount(n.Have, n.Unit)),
			Value:   Amount(n.Short(), n.Unit),
			Sources: []source.Source{source.Entered("")},
		},
		source.Step{Formula: "packs", Numbers: fmt.Sprintf("%s / %s, whole ones", Amount(n.Short(), n.Unit),
			Amount(n.Pack, n.Unit)), Value: fmt.Sprint(n.Packs), Sources: []source.Source{n.from}},
	)
}

// Amount writes an amount with its unit.
func Amount(v float64, unit string) string {
	switch {
	case unit == "pieces" || unit == "sheets" || unit == "lengths":
		return words.Count(int(math.Ceil(v-1e-9)), strings.TrimSuffix(unit, "s"))
	case v >= 100:
		return measure.Decimal(v, 0) + " " + unit
	}
	return measure.Decimal(v, 2) + " " + unit
}
