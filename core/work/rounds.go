package work

import (
	"encoding/json"
	"fmt"

	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/wiring"
)

// Round is one line of the list that is walked before a night opens, or after it closed.
type Round struct {
	Key     string // stable: what a tick refers to
	Closing bool
	Prop    string
	At      string // the element it is of, kind:id
	What    string
	Danger  string
}

// Rounds are the opening and the closing list of a night, made from the plan.
func (w *Work) Rounds(on string) (out []Round) {
	add := func(closing bool, key, prop, at, what, danger string) {
		list := "open:"
		if closing {
			list = "close:"
		}
		out = append(out, Round{list + key, closing, prop, at, what, danger})
	}
	if f := w.Plan.ForecastOf(on); f != nil {
		w.windRounds(f, add)
	}
	for i := range w.Plan.Outlets() {
		if o := &w.Plan.Outlets()[i]; o.Guard {
			add(false, "guard:"+o.ID, "", "outlet:"+o.ID, o.Name+": press the test button, then reset it",
				"Nothing is plugged in that the button does not switch off.")
		}
	}
	w.cellRounds(add)
	w.lampRounds(add)
	w.showRounds(add)
	for i := range w.Plan.Walkways() {
		if x := &w.Plan.Walkways()[i]; x.Kind != "street" {
			add(
				false,
				"way:"+x.ID,
				"",
				"walkway:"+x.ID,
				x.Name+": walk it, clear and lit, with no cord bare on it",
				"",
			)
		}
	}
	for i := range w.Plan.Props() {
		x := &w.Plan.Props()[i]
		add(false, "prop:"+x.ID, x.ID, "prop:"+x.ID, x.Name+": stands fast, lit, nothing hangs loose", "")
	}
	if len(w.Plan.Outlets()) > 0 {
		add(
			true,
			"off",
			"",
			"display:"+w.Plan.Display().ID,
			"Everything off at the outlets, plugs out, plugs off the ground",
			"",
		)
	}
	for i := range w.Plan.Props() {
		x := &w.Plan.Props()[i]
		add(true, "look:"+x.ID, x.ID, "prop:"+x.ID, x.Name+": look for what is torn, loose or wet; note it below", "")
	}
	add(true, "count", "", "display:"+w.Plan.Display().ID, "How many came, and the weather, into the book", "")
	return out
}

// showRounds are sensors, sounds and what moves, each tried once.
func (w *Work) showRounds(add adder) {
	for i := range w.Plan.Inputs() {
		if x := &w.Plan.Inputs()[i]; x.Kind == "beam" || x.Kind == "motion" {
			add(false, "lens:"+x.ID, x.Prop, "input:"+x.ID, x.Name+": wipe its lens, and walk through it once", "")
		}
	}
	for i := range w.Plan.Clips() {
		x := &w.Plan.Clips()[i]
		add(false, "clip:"+x.ID, x.Prop, "clip:"+x.ID, "“"+x.Name+"”: its card is in; play it once", "")
	}
	for _, m := range w.Mechanisms() {
		if m.Of.Motor != "" {
			add(
				false,
				"run:"+m.Of.ID,
				m.Of.Prop,
				"mechanism:"+m.Of.ID,
				m.Of.Name+": run it once up and down, then press the "+
					"stop button",
				hands,
			)
		}
	}
}

type adder func(closing bool, key, prop, at, what, danger string)

// windRounds are what a night's wind takes down.
func (w *Work) windRounds(f *plan.Forecast, add adder) {
	if len(w.Plan.Plots()) == 0 {
		return
	}
	for _, s := range w.Yard().Placed {
		if s.Mass > 0 && !s.Holds() && !s.Of.Inside && s.Sides.Goes() <= f.Strongest() {
			add(
				false,
				"wind:"+s.Prop.ID,
				s.Prop.ID,
				"plot:"+s.Of.ID,
				fmt.Sprintf("%s: leave it in or tie it down; it moves at "+
					"%s and %s is forecast", s.Prop.Name, w.Speed(s.Sides.Goes()), w.Speed(f.Strongest())),
				"",
			)
		}
	}
	if f.Rain {
		add(
			false,
			"rain",
			"",
			"display:"+w.Plan.Display().ID,
			"Rain: plugs and supplies off the ground and under cover",
			"Water and mains: what you are not sure of stays off.",
		)
	}
}

// cellRounds are the batteries: fresh before, out and on the charger after.
func (w *Work) cellRounds(add adder) {
	for i := range w.Plan.Devices() {
		d := &w.Plan.Devices()[i]
		if !d.Is(wiring.Origin) || d.Cell == "" {
			continue
		}
		lasts := ""
		if r := w.Results().At("device", d.ID, "hours"); r.Text != "" {
			lasts = "; a set lasts " + r.Text
		}
		v, _ := wiring.SupplyOf(d, w.Lib)
		add(
			false,
			"cells:"+d.ID,
			d.Prop,
			"device:"+d.ID,
			fmt.Sprintf("%s: cells in, %s or more%s", d.Name, measure.Volts(v*0.9),
				lasts),
			"",
		)
		add(true, "cells:"+d.ID, d.Prop, "device:"+d.ID, d.Name+": cells out, to be charged or changed", "")
	}
}

// lampRounds are what is filled and burns hot: foggers.
func (w *Work) lampRounds(add adder) {
	for i := range w.Plan.Devices() {
		d := &w.Plan.Devices()[i]
		if w.Lib.Lamps[d.Product].Makes != "fog" {
			continue
		}
		add(
			false,
			"fog:"+d.ID,
			d.Prop,
			"device:"+d.ID,
			d.Name+": fill it, outlet clear, nothing that burns before it",
			"It is hot: keep it off foam and cloth.",
		)
		add(true, "fog:"+d.ID, d.Prop, "device:"+d.ID, d.Name+": off and cool before it is packed", "")
	}
	for i := range w.Plan.Plugs() {
		x := &w.Plan.Plugs()[i]
		if x.Heater {
			add(
				false,
				"heat:"+x.ID,
				"",
				"plug:"+x.ID,
				x.Name+": fill it, let it warm up, nothing that burns before it",
				"It is hot: keep it off foam and cloth.",
			)
			add(true, "heat:"+x.ID, "", "plug:"+x.ID, x.Name+": off and cool before it is packed", "")
		}
	}
}

// mostNights is of how many nights a phone's file may hold ticks.
const mostNights = 40

// RoundsOf tells which lines are on a list of their night, for the ticks that a phone sent.
func (w *Work) RoundsOf(sent []plan.Sent) (known func(on, line string) bool, err error) {
	lines := map[[2]string]bool{}
	nights := map[string]bool{}
	for _, s := range sent {
		var x plan.Ticked
		if s.Kind != "ticked" || json.Unmarshal(s.Value, &x) != nil || nights[x.On] {
			continue
		}
		if nights[x.On] = true; len(nights) > mostNights {
			return nil, measure.Bad("file", "holds ticks of more than %d nights; bring in a file a night", mostNights)
		}
		for _, r := range w.Rounds(x.On) {
			lines[[2]string{x.On, r.Key}] = true
		}
	}
	return func(on, line string) bool { return lines[[2]string{on, line}] }, nil
}
