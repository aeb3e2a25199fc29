package check

import (
	"fmt"

	"zapbarn/core/wiring"
	"zapbarn/core/words"
	"zapbarn/core/work"
)

// scorches is from how many watts on a filament or a heater scorches what touches it
// (from memory).
const scorches = 2.0

var _ = rule(
	"fabric-near-heat",
	Fix,
	"Cloth, fur or paper lies in or on what holds something hot.",
	func(w *work.Work, say func(Snag)) {
		for i := range w.Plan.Devices() {
			d := &w.Plan.Devices()[i]
			l := w.Lib.Lamps[d.Product]
			if d.In == "" || l.Kind != "resistive" || l.Volts*wiring.RatedAmps(d, w.Lib) < scorches {
				continue
			}
			for k := range w.Plan.Solids() {
				s := &w.Plan.Solids()[k]
				f := w.Lib.Materials[s.Stock].Family
				if s.ID != d.In && s.By != d.In || f != "cloth" && f != "paper" {
					continue
				}
				next := *d
				next.In = ""
				say(Snag{
					Level: Fix,
					Place: "bench",
					At:    []string{"device:" + d.ID, "solid:" + s.ID},
					key:   d.ID + "+" + s.ID,
					Title: d.Name + does(d.Name, " is", " are") + " hot beside " + s.Name,
					Why: fmt.Sprintf(
						"%s scorches, and burns. Keep what is hot in open air, a hand's width from anything that "+
							"lights, or take a light that stays cool. Treat the cloth against fire in any case.",
						w.Lib.Materials[s.Stock].Name,
					),
					Mends: []Mend{put(w, "It stands outside", "device", d.ID, next)},
				})
			}
		}
	},
)

var _ = rule(
	"sharp-edge",
	Mind,
	"Wires pass an edge of metal.",
	func(w *work.Work, say func(Snag)) {
		n := map[string]int{}
		for i := range w.Plan.Devices() {
			n[w.Plan.Devices()[i].In]++
		}
		for i := range w.Plan.Solids() {
			s := &w.Plan.Solids()[i]
			if !w.Lib.Materials[s.Stock].Conducts || n[s.ID] == 0 {
				continue
			}
			say(Snag{
				Level: Mind,
				Place: "loom",
				At:    []string{"solid:" + s.ID},
				Title: "A sharp edge where wires enter " + s.Name,
				Why: fmt.Sprintf(
					"%s in %s; a cut edge of metal wears through insulation as the prop moves in the wind. File it "+
						"round, and a grommet in the hole.",
					words.Count(n[s.ID], "thing"),
					w.Lib.Materials[s.Stock].Name,
				),
			})
		}
	},
)

var _ = rule(
	"print-cut",
	Note,
	"A printed part is to be cut into afterwards.",
	func(w *work.Work, say func(Snag)) {
		for i := range w.Plan.Solids() {
			s := &w.Plan.Solids()[i]
			if w.Lib.Materials[s.Stock].Form != "filament" || len(s.Openings) == 0 {
				continue
			}
			say(Snag{
				Level: Note,
				Place: "bench",
				At:    []string{"solid:" + s.ID},
				Title: s.Name + does(s.Name, " is", " are") + " printed, and then cut into",
				Why: fmt.Sprintf(
					"%s: put it into the model and print it so. A saw opens the infill, melts the wall and splits "+
						"its layers.",
					words.Count(len(s.Openings), "opening"),
				),
			})
		}
	},
)

var _ = rule(
	"stiff-on-flex",
	Mind,
	"Foam that does not bend stands on foam that does.",
	func(w *work.Work, say func(Snag)) {
		for i := range w.Plan.Solids() {
			s := &w.Plan.Solids()[i]
			on := w.Solid(s.By)
			if on == nil || s.How != "on" || !w.Lib.Materials[s.Stock].Foam() {
				continue
			}
			if m := w.Lib.Materials[on.Stock]; m.Flexible && m.Family == "eva" {
				say(Snag{
					Level: Mind,
					Place: "bench",
					At:    []string{"solid:" + s.ID, "solid:" + on.ID},
					Title: s.Name + does(s.Name, " is", " are") + " stiff on what bends",
					Why: fmt.Sprintf(
						"%s gives each time %s is carried, and the seam to it tears first. Back it with a stiff board, "+
							"or let both be of one kind.",
						m.Name,
						on.Name,
					),
				})
			}
		}
	},
)

var _ = rule(
	"indoor-goods",
	Mind,
	"A plug-in supply, made for a room, stands outdoors with nothing round it.",
	func(w *work.Work, say func(Snag)) {
		if !w.Plan.Display().Outdoors {
			return
		}
		for i := range w.Plan.Devices() {
			d := &w.Plan.Devices()[i]
			if !d.Is(wiring.Origin) || d.Cell != "" || d.Outlet == "" || d.In != "" {
				continue
			}
			if x := w.Plan.PlotOf(d.Prop); x != nil && x.Inside {
				continue
			}
			s := Snag{
				Level: Mind,
				Place: "loom",
				At:    []string{"device:" + d.ID},
				Title: d.Name + does(d.Name, " is", " are") + " for indoors",
				Why: "Supplies of the plug-in kind are rated for dry rooms. Outdoors: in a box that keeps rain off and lets heat " +
					"out, or one that is rated for rain (IP 65)." + licensed,
			}
			for k := range w.Plan.Solids() {
				if b := &w.Plan.Solids()[k]; b.Prop == d.Prop && b.Kind == "box" && len(s.Mends) < 2 {
					next := *d
					next.In = b.ID
					s.Mends = append(s.Mends, put(w, "Into "+b.Name, "device", d.ID, next))
				}
			}
			say(s)
		}
	},
)
