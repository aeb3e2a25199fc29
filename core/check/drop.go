package check

import (
	"encoding/json"
	"fmt"
	"sort"
	"strings"

	"zapbarn/core/circuit"
	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/source"
	"zapbarn/core/stock"
	"zapbarn/core/wiring"
	"zapbarn/core/work"
)

var _ = rule(
	"drop",
	Stop,
	"Lamps lie past the drop budget (3 % to plan for, 10 % never).",
	func(w *work.Work, say func(Snag)) {
		mended := max(3, min(mendedDrops, 4000/max(1, len(w.Plan.Devices()))))
		for n, g := range dropping(w) {
			s := g.snag(w)
			if n >= mended {
				s.Why += " Mend the worse ones first: that may cure it too."
			} else if s.Mends = dropMends(w, g.run, g.worst.ID, g.volts); len(s.Mends) == 0 {
				s.Why += " No wire alone does it: feed it nearer, in more places, or from a higher rail."
			}
			say(s)
		}
	},
)

// dropped are the lamps past the budget that hang on one thing.
type dropped struct {
	from  string       // what they hang on
	run   *plan.Device // the run above them, if there is one
	worst plan.Device
	share float64 // of the rated volts, that the worst loses
	volts float64 // rated
	n     int
	first plan.Device
}

// dropping are those, the worst first.
func dropping(w *work.Work) (all []*dropped) {
	groups := map[string]*dropped{}
	for _, d := range w.Plan.Devices() {
		s := w.Device(w.Rig().Supply(d.ID))
		if !d.Is(wiring.Load) || s == nil || d.Reversed {
			continue
		}
		rated, _ := wiring.SupplyOf(s, w.Lib)
		share := w.All().Readings[d.ID].Drop / rated
		if share <= circuit.DropBudget {
			continue
		}
		g := groups[d.From]
		if g == nil {
			g = &dropped{from: d.From, run: runAbove(w, d.From), first: d, volts: rated}
			groups[d.From] = g
			all = append(all, g)
		}
		g.n++
		if share > g.share {
			g.share, g.worst = share, d
		}
	}
	sort.SliceStable(all, func(i, j int) bool { return all[i].share > all[j].share })
	return all
}

// snag says how far they drop.
func (g *dropped) snag(w *work.Work) Snag {
	level, limit := Fix, circuit.DropBudget
	if g.share > circuit.DropLimit {
		level, limit = Stop, circuit.DropLimit
	}
	title := g.worst.Name + fmt.Sprintf(" drops %.0f %%", 100*g.share)
	why := fmt.Sprintf("Past the %.0f %% line: it sees", 100*limit)
	if g.n > 1 {
		title = fmt.Sprintf("%d lamps drop up to %.1f %%", g.n, 100*g.share)
		why = fmt.Sprintf("Past the %.0f %% line from %s on; %s sees", 100*limit, g.first.Name, g.worst.Name)
	}
	r := w.All().Readings[g.worst.ID]
	s := Snag{
		Level:  level,
		Place:  "loom",
		At:     []string{"device:" + g.worst.ID},
		key:    "device:" + g.from,
		Title:  title,
		weight: g.share,
		From:   []source.Source{circuit.BudgetFrom},
		Why: why + fmt.Sprintf(" %s of %s, %.0f %% of full light.",
			measure.Volts(g.volts-r.Drop), measure.Volts(g.volts), 100*r.Lit),
	}
	if g.run != nil {
		s.At = append(s.At, "device:"+g.run.ID)
	}
	return s
}

// mendedDrops is for how many groups of lamps, the worst first, mends are
// sought, fewer in a large plan: each takes many solves, and the mend of one often
// cures the next.
const mendedDrops = 16

// runAbove is the nearest run on the way from a device to its supply, or nil.
func runAbove(w *work.Work, id string) *plan.Device {
	d := w.Device(id)
	for d != nil && !d.Is(wiring.Wire) {
		d = w.Device(d.From)
	}
	return d
}

// resolve is the wiring round a device with everything on after a mend, or nil
// when the mend does not apply.
func resolve(w *work.Work, device string, m Mend) *wiring.State {
	p := with(w, device, m)
	if p == nil {
		return nil
	}
	return plan.NewRig(p, w.Lib).Solve(nil)
}

// with is what hangs on a device's supply after a mend; nil when that changes
// more than devices.
func with(w *work.Work, device string, m Mend) *plan.Plan {
	w.Watch.At("device", device)
	p := w.FedBy(w.Rig().Supply(device))       // what another supply feeds stays as it is
	for _, c := range m.made(w).Edit.Changes { // devices only, whose new values are known to be sound
		var d plan.Device
		if c.Kind != "device" || json.Unmarshal(c.After, &d) != nil {
			return nil
		}
		if old := p.Device(c.ID); old != nil {
			*old = d
		} else {
			p = p.OfDevices(append(p.Devices(), d))
		}
	}
	for i := range p.Devices() { // it changes what that supply does not feed
		if d := &p.Devices()[i]; d.From != "" && p.Device(d.From) == nil || d.To != "" && p.Device(d.To) == nil {
			return nil
		}
	}
	return p
}

// dropMends tries thicker gauges, a second feed and feeds along a strip by
// solving the wiring with each, and offers those that bring the worst lamp
// within the budget. When no one run does it, the run that loses most is made
// thicker again and again.
func dropMends(w *work.Work, run *plan.Device, lamp string, rated float64) (out []Mend) {
	if w.Plain {
		return nil
	}
	budget := circuit.DropBudget * rated
	try := func(m Mend) bool {
		st := resolve(w, lamp, m)
		return st != nil && st.Readings[lamp].Drop <= budget
	}
	if run != nil {
		out = onRun(w, run, try)
	}
	feeds := feedsMends(w, lamp)
	if m, ok := least(feeds, try); ok {
		out = append(out, m)
	}
	if len(out) == 0 {
		out = onTheWay(w, lamp, budget, feeds)
	}
	if len(out) == 0 && run != nil {
		out = nearerTheSupply(w, run, try)
	}
	if len(out) == 0 && run != nil {
		if m, ok := ownSupply(w, run, rated); ok && try(m) {
			out = append(out, m)
		}
	}
	if d := w.Device(lamp); len(out) == 0 && w.Lib.Lamps[d.Product].Kind == "pixels" {
		if m, ok := dimmed(w, d, func(st *wiring.State) bool { return st.Readings[lamp].Drop <= budget }); ok {
			out = append(out, m)
		}
	}
	for i := range out {
		out[i].gives = func(w *work.Work) string { return fmt.Sprintf("drops %.1f %%", 100*dropShare(w, lamp)) }
	}
	return out
}

// onRun are the mends of one run: thicker, fed at its far end too, or in its middle.
func onRun(w *work.Work, run *plan.Device, try func(Mend) bool) (out []Mend) {
	var thicker []Mend
	for _, n := range stock.Gauges {
		if measure.AWGArea(n) > run.Gauge.Value()+1e-9 {
			next := *run
			next.Gauge = measure.Of[measure.GaugeKind](measure.AWGArea(n))
			thicker = append(thicker, put(w, next.Gauge.String()+" for "+run.Name, "device", run.ID, next))
		}
	}
	if m, ok := least(thicker, try); ok {
		out = append(out, m)
	}
	if run.To == "" && run.From != "" {
		next := *run
		next.To, next.ToAt, next.Back = run.From, run.At, run.Length // a second pair beside the first
		if m := put(w, "Feed the far end too, by a second pair", "device", run.ID, next); try(m) {
			out = append(out, m)
		}
	}
	if run.To == "" && run.FedAt.IsZero() && taps(w, run.ID) > 2 {
		next := *run
		next.FedAt = tape(w, run.Length.Value()/2)
		if m := put(w, "Move its feed to the middle of "+run.Name, "device", run.ID, next); try(m) {
			out = append(out, m)
		}
	}
	return out
}

// onTheWay thickens all that leads to a lamp, by itself or with the fewest feeds besides.
func onTheWay(w *work.Work, lamp string, budget float64, feeds []Mend) (out []Mend) {
	if m, ok := thicken(w, lamp, budget, Mend{}); ok {
		out = append(out, m)
	}
	var both []Mend
	if m, ok := least(feeds, func(m Mend) bool {
		more, ok := thicken(w, lamp, budget, m)
		both = append(both, more)
		return ok
	}); ok {
		for _, more := range both {
			if strings.HasPrefix(more.Label, m.Label) {
				return append(out, more)
			}
		}
	}
	return out
}

// nearerTheSupply feeds the far end of a run above.
func nearerTheSupply(w *work.Work, run *plan.Device, try func(Mend) bool) []Mend {
	up := runAbove(w, run.From)
	for n := 0; up != nil && up.To == "" && up.From != "" && n < 6; n++ {
		next := *up
		next.To, next.ToAt, next.Back = up.From, up.At, up.Length
		if m := put(w, "Feed the far end of "+up.Name+" too, by a second pair", "device", up.ID, next); try(m) {
			return []Mend{m}
		}
		up = runAbove(w, up.From)
	}
	return nil
}

// dropShare is what a lamp loses on the way, as a share of its supply's volts.
func dropShare(w *work.Work, lamp string) float64 {
	s := w.Device(w.Rig().Supply(lamp))
	if s == nil {
		return 0
	}
	rated, _ := wiring.SupplyOf(s, w.Lib)
	return w.All().Readings[lamp].Drop / rated
}

// ownSupply feeds a run from a new supply and fuse where it begins, as large as
// what hangs on it asks.
func ownSupply(w *work.Work, run *plan.Device, volts float64) (Mend, bool) {
	amps := below(w, run.ID)
	product, rating := smallest(w, volts, amps), circuit.ChooseFuse(amps, carries(w, run.ID))
	if product == "" || rating == 0 || run.From == "" {
		return Mend{}, false
	}
	s := plan.Device{ID: w.FreshName("S"), Prop: run.Prop, Kind: "supply", Product: product}
	f := plan.Device{
		ID:     w.FreshName("F"),
		Prop:   run.Prop,
		Kind:   "fuse",
		From:   s.ID,
		Rating: measure.Of[measure.AmpKind](rating),
	}
	s.Name, f.Name = "Supply "+s.ID, "Fuse "+f.ID
	if o := w.Device(w.Rig().Supply(run.ID)); o != nil {
		s.Outlet = o.Outlet
	}
	next := *run
	next.From, next.At = f.ID, measure.Length{}
	label := "A supply of its own for " + run.Name
	return Mend{
		Label: label,
		Edit: plan.Edit{
			Label: label,
			Changes: []plan.Change{
				w.Plan.Put("device", s.ID, s),
				w.Plan.Put("device", f.ID, f),
				w.Plan.Put("device", run.ID, next),
			},
		},
	}, true
}

// least is the first of mends, each stronger than the one before, that does.
// The strongest is tried first: when it does not, none does.
func least(mends []Mend, does func(Mend) bool) (Mend, bool) {
	if len(mends) == 0 || !does(mends[len(mends)-1]) {
		return Mend{}, false
	}
	lo, hi := 0, len(mends)-1 // hi does
	for lo < hi {
		if mid := (lo + hi) / 2; does(mends[mid]) {
			hi = mid
		} else {
			lo = mid + 1
		}
	}
	return mends[hi], true
}

// taps counts what leaves a run before its end.
func taps(w *work.Work, run string) (n int) {
	for _, d := range w.Kids(run) {
		if !d.At.IsZero() {
			n++
		}
	}
	return n
}

// feedPlaces are where a strip's supply is joined along it, least wire first:
// its middle, and the middles of two, three and four equal parts.
var feedPlaces = []string{"50%", "0% 100%", "25% 75%", "0% 50% 100%", "17% 50% 83%", "12.5% 37.5% 62.5% 87.5%"}

// feedsMends joins a strip's supply at more places along it than now: its drop
// along its own copper falls with the square of their number.
func feedsMends(w *work.Work, lamp string) (out []Mend) {
	d := *w.Device(lamp)
	if k := w.Lib.Lamps[d.Product].Kind; k != "strip" && k != "pixels" {
		return nil
	}
	now, _ := wiring.ParseFeeds(d.Feeds)
	for _, f := range feedPlaces {
		at, _ := wiring.ParseFeeds(f)
		if len(at) < len(now) || len(at) == len(now) && d.Feeds != "" || len(at) >= wiring.Segments(&d, w.Lib) {
			continue
		}
		next := d
		next.Feeds = f
		if d.Proven {
			next.Proven = false // it is soldered anew
		}
		out = append(out, put(w, "Feed "+d.Name+" at "+strings.ReplaceAll(f, "%", " %"), "device", d.ID, next))
	}
	return out
}

// thicken goes on from a mend: of the runs on the way to a lamp the one that
// loses most takes the next thicker gauge, until the lamp is within budget.
func thicken(w *work.Work, lamp string, budget float64, m Mend) (Mend, bool) {
	m = m.made(w)
	t := &thickening{w: w, base: m}
	supply := w.Rig().Supply(lamp)
	for run := runAbove(w, lamp); run != nil && w.Rig().Supply(run.ID) == supply; run = runAbove(w, run.From) {
		t.path = append(t.path, *run)
	}
	if len(t.path) == 0 {
		return m, false
	}
	t.raised = make([]bool, len(t.path))
	if st := resolve(w, lamp, t.thickest()); st == nil || st.Readings[lamp].Drop > budget {
		return m, false
	}
	for {
		now := t.mend()
		st := resolve(w, lamp, now)
		switch {
		case st == nil:
			return m, false
		case st.Readings[lamp].Drop <= budget:
			return now, true
		case !t.raise(st, st.Readings[lamp].Drop-budget):
			return m, false
		}
	}
}

// thickening is what leads to a lamp, run by run from it on, being made thicker besides
// another mend.
type thickening struct {
	w      *work.Work
	base   Mend
	path   []plan.Device
	raised []bool
}

// thickest is all of it as thick as can be.
func (t *thickening) thickest() Mend {
	out := Mend{Edit: plan.Edit{Changes: append([]plan.Change(nil), t.base.Edit.Changes...)}}
	for _, d := range t.path {
		d.Gauge = measure.Of[measure.GaugeKind](measure.AWGArea(stock.Gauges[len(stock.Gauges)-1]))
		out.Edit.Changes = append(out.Edit.Changes, t.w.Plan.Put("device", d.ID, d))
	}
	return out
}

// mend is as thick as it stands.
func (t *thickening) mend() Mend {
	out := Mend{Label: t.base.Label, Edit: plan.Edit{Changes: append([]plan.Change(nil), t.base.Edit.Changes...)}}
	var said []string
	for i := len(t.path) - 1; i >= 0; i-- { // from the supply on
		if d := t.path[i]; t.raised[i] {
			said = append(said, d.Gauge.String()+" for "+d.Name)
			out.Edit.Changes = append(out.Edit.Changes, t.w.Plan.Put("device", d.ID, d))
		}
	}
	if n := len(said); n > 4 {
		said = []string{fmt.Sprintf("Thicker wire for %d runs on the way", n)}
	}
	if out.Label != "" {
		said = append([]string{out.Label}, said...)
	}
	out.Label = strings.Join(said, ", ")
	out.Edit.Label = out.Label
	return out
}

// raise makes the runs that lose most thicker until the drop they promise is less by what
// it is over: currents hardly change with the wire. False when nothing more can be raised.
func (t *thickening) raise(st *wiring.State, over float64) (did bool) {
	loses, thicker := make([]float64, len(t.path)), make([]float64, len(t.path))
	lost := func(i int) float64 {
		d := t.path[i]
		return st.Readings[d.ID].Amps * circuit.WireOhms(d.Gauge.Value(), d.Length.Value(), t.w.Plan.Temperature())
	}
	look := func(i int) {
		thicker[i] = stock.Thicker(t.path[i].Gauge.Value())
		if loses[i] = lost(i); thicker[i] == 0 {
			loses[i] = 0
		}
	}
	for i := range t.path {
		look(i)
	}
	for ; over > 0; did = true {
		most := 0
		for i := range loses {
			if loses[i] > loses[most] {
				most = i
			}
		}
		if loses[most] == 0 {
			return did
		}
		was := loses[most]
		t.path[most].Gauge, t.raised[most] = measure.Of[measure.GaugeKind](thicker[most]), true
		look(most)
		over -= was - lost(most)
	}
	return did
}

var _ = rule(
	"wire-too-thin",
	Stop,
	"A wire carries more current than it may, bundled and in foam.",
	func(w *work.Work, say func(Snag)) {
		for i := range w.Plan.Devices() {
			d := &w.Plan.Devices()[i]
			if !d.Is(wiring.Wire) {
				continue
			}
			g, limit := w.All().Readings[d.ID], stock.Ampacity(d.Gauge.Value())
			if g.Amps <= limit {
				continue
			}
			snag := Snag{
				Level:  Stop,
				Place:  "loom",
				At:     []string{"device:" + d.ID},
				Title:  d.Name + does(d.Name, " is", " are") + " too thin",
				weight: g.Amps / max(limit, 0.1),
				From:   []source.Source{stock.AmpacityFrom},
				Why: fmt.Sprintf(
					"%s runs through %s, which may carry %s bundled or in foam.",
					measure.Amps(g.Amps),
					d.Gauge,
					measure.Amps(limit),
				),
			}
			for _, n := range stock.Gauges {
				a := measure.AWGArea(n)
				if a <= d.Gauge.Value() || stock.Ampacity(a) < g.Amps {
					continue
				}
				next := *d
				next.Gauge = measure.Of[measure.GaugeKind](a)
				m := put(w, "Make it "+next.Gauge.String(), "device", d.ID, next)
				// thicker wire drops less and so lets a little more through
				if st := resolve(w, d.ID, m); st != nil && st.Readings[d.ID].Amps <= stock.Ampacity(a) {
					m.gives = func(w *work.Work) string {
						return "may carry " + measure.Amps(stock.Ampacity(w.Device(d.ID).Gauge.Value()))
					}
					snag.Mends = []Mend{m}
					break
				}
			}
			say(snag)
		}
	},
)
