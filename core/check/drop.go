package check

import (
	"encoding/json"
	"fmt"

	"zapbarn/core/circuit"
	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/stock"
)

var _ = rule("drop", Stop, "Lamps lie past the drop budget (3 % to plan for, 10 % never).", func(w *plan.Work, say func(Snag)) {
	type group struct {
		run   *plan.Device
		worst plan.Device
		share float64
		volts float64
		n     int
		first plan.Device
	}
	groups := map[string]*group{}
	var order []string
	for _, d := range w.Plan.Devices {
		s := w.Plan.Device(w.Rig.Supply(d.ID))
		if d.Kind != "lamp" || s == nil || d.Reversed {
			continue
		}
		rated, _ := plan.SupplyOf(s, w.Lib)
		share := w.All.Readings[d.ID].Drop / rated
		if share <= circuit.DropBudget {
			continue
		}
		g := groups[d.From]
		if g == nil {
			g = &group{run: runAbove(w, d.From), first: d, volts: rated}
			groups[d.From] = g
			order = append(order, d.From)
		}
		g.n++
		if share > g.share {
			g.share, g.worst = share, d
		}
	}
	for _, id := range order {
		g := groups[id]
		level, limit := Fix, circuit.DropBudget
		if g.share > circuit.DropLimit {
			level, limit = Stop, circuit.DropLimit
		}
		r := w.All.Readings[g.worst.ID]
		title := g.worst.Name + fmt.Sprintf(" drops %.0f %%", 100*g.share)
		if g.n > 1 {
			title = fmt.Sprintf("%d lamps drop up to %.1f %%", g.n, 100*g.share)
		}
		s := Snag{Level: level, Place: "loom", At: []string{"device:" + g.worst.ID}, Title: title, weight: g.share,
			Why: fmt.Sprintf("Past the %.0f %% line from %s on; %s sees %s of %s, %.0f %% of full light.", 100*limit, g.first.Name, g.worst.Name, measure.Volts(g.volts-r.Drop), measure.Volts(g.volts), 100*r.Lit)}
		if g.run != nil {
			s.At = append(s.At, "device:"+g.run.ID)
			s.Mends = dropMends(w, g.run, g.worst.ID, g.volts)
		}
		say(s)
	}
})

// runAbove is the nearest run on the way from a device to its supply, or nil.
func runAbove(w *plan.Work, id string) *plan.Device {
	d := w.Plan.Device(id)
	for d != nil && d.Kind != "run" {
		d = w.Plan.Device(d.From)
	}
	return d
}

// resolve is the wiring with everything on after a mend, or nil when the mend
// does not apply.
func resolve(w *plan.Work, m Mend) *plan.State {
	p := w.Plan.Clone()
	for _, c := range m.Edit.Changes { // runs only, whose new values are known to be sound
		var d plan.Device
		if c.Kind != "device" || json.Unmarshal(c.After, &d) != nil || p.Device(c.ID) == nil {
			return nil
		}
		*p.Device(c.ID) = d
	}
	if len(m.Edit.Changes) > 0 { // what another supply feeds stays as it is
		p = p.FedBy(w.Rig.Supply(m.Edit.Changes[0].ID))
	}
	return plan.NewRig(p, w.Lib).Solve(w.Lib, nil)
}

// dropMends tries thicker gauges and a second feed by solving the wiring with
// each, and offers those that bring the worst lamp within the budget.
func dropMends(w *plan.Work, run *plan.Device, lamp string, rated float64) (out []Mend) {
	try := func(m Mend) bool {
		st := resolve(w, m)
		return st != nil && st.Readings[lamp].Drop <= circuit.DropBudget*rated
	}
	for _, n := range stock.Gauges {
		if measure.AWGArea(n) <= run.Gauge.Value() {
			continue
		}
		next := *run
		next.Gauge = measure.Of[measure.GaugeKind](measure.AWGArea(n))
		if m := put(w, next.Gauge.String()+" for "+run.Name, "device", run.ID, next); try(m) {
			out = append(out, m)
			break
		}
	}
	if run.To == "" && run.From != "" {
		next := *run
		next.To, next.ToAt = run.From, run.At
		if m := put(w, "Feed the far end too", "device", run.ID, next); try(m) {
			out = append(out, m)
		}
	}
	return out
}

var _ = rule("wire-too-thin", Stop, "A wire carries more current than it may, bundled and in foam.", func(w *plan.Work, say func(Snag)) {
	for _, d := range w.Plan.Devices {
		if d.Kind != "run" {
			continue
		}
		g, limit := w.All.Readings[d.ID], stock.Ampacity(d.Gauge.Value())
		if g.Amps <= limit {
			continue
		}
		snag := Snag{Level: Stop, Place: "loom", At: []string{"device:" + d.ID}, Title: d.Name + " is too thin", weight: g.Amps / max(limit, 0.1),
			Why: fmt.Sprintf("%s runs through %s, which may carry %s bundled or in foam.", measure.Amps(g.Amps), d.Gauge, measure.Amps(limit))}
		for _, n := range stock.Gauges {
			a := measure.AWGArea(n)
			if a <= d.Gauge.Value() || stock.Ampacity(a) < g.Amps {
				continue
			}
			next := d
			next.Gauge = measure.Of[measure.GaugeKind](a)
			m := put(w, "Make it "+next.Gauge.String(), "device", d.ID, next)
			// thicker wire drops less and so lets a little more through
			if st := resolve(w, m); st != nil && st.Readings[d.ID].Amps <= stock.Ampacity(a) {
				snag.Mends = []Mend{m}
				break
			}
		}
		say(snag)
	}
})
