package demo

import (
	"math"

	"zapbarn/core/measure"
	"zapbarn/core/plan"
)

// rehearsal is what moves, hums and fogs, on a supply of its own, and what starts it.
// Two things are wrong with it on purpose: the player toggles at the top switch, and
// the Keeper's motor is too weak for his arm.
func rehearsal(p *plan.Plan) {
	movers(p)
	mechanisms(p)
	p.Doc().Inputs = append(p.Inputs(),
		plan.Input{ID: "top", Prop: "riser", Name: "Top switch", Kind: "switch", Mover: "frames", Place: 100},
		plan.Input{ID: "smoker-beam", Prop: "keeper", Name: "Smoker beam", Kind: "beam", MinPulse: d("30 ms"),
			HoldOff: d("1 s"), Far: l("26 ft")},
		plan.Input{ID: "gate-beam", Prop: "gate", Name: "Gate beam", Kind: "beam", MinPulse: d("40 ms"),
			HoldOff: d("3 s"), Far: l("2 ft")},
		plan.Input{ID: "flutter-timer", Prop: "bee", Name: "Every 2 min", Kind: "timer", Every: d("2 min")},
		plan.Input{ID: "bell-timer", Prop: "gate", Name: "Every 10 min", Kind: "timer", Every: d("10 min")},
	)
	for i := range p.Inputs() {
		if p.Inputs()[i].ID == "mat" {
			p.Inputs()[i].Far = l("14 ft")
		}
	}
	cue := func(channel, at, long string) plan.Cue {
		return plan.Cue{Channel: channel, Start: d(at), Length: d(long)}
	}
	embers := cue("K17", "0 s", "9 s")
	embers.Shape, embers.Level = "flicker", 70
	p.Doc().Scenes = append(p.Scenes(),
		plan.Scene{ID: "rise", Prop: "riser", Name: "Frames rise", Cues: []plan.Cue{cue("K10", "0 s", "1.5 s"),
			cue("K11", "5.5 s", "1.2 s")}},
		plan.Scene{ID: "hum", Prop: "riser", Name: "Hum", Cues: []plan.Cue{cue("K12", "0 s", "4 s")}},
		plan.Scene{ID: "smoke", Prop: "keeper", Name: "Smoker", Cues: []plan.Cue{cue("K14", "0 s", "2 s"), embers,
			cue("K16", "1.2 s", "3 s"), cue("K15", "7 s", "1.2 s")}},
		plan.Scene{ID: "flutter", Prop: "bee", Name: "Flutter", Cues: []plan.Cue{cue("K30", "0 s", "4 s")}},
		plan.Scene{ID: "bell", Prop: "gate", Name: "Gate bell", Cues: []plan.Cue{cue("K18", "0 s", "2.5 s")}},
	)
	p.Doc().Triggers = append(p.Triggers(),
		plan.Trigger{ID: "mat-rise", Input: "mat", Scene: "rise", Latch: "one-shot", Rest: d("4 s")},
		plan.Trigger{ID: "top-hum", Input: "top", Scene: "hum", Latch: "toggle"},
		plan.Trigger{ID: "beam-smoke", Input: "smoker-beam", Scene: "smoke", Latch: "one-shot", Rest: d("12 s")},
		plan.Trigger{ID: "gate-bell", Input: "gate-beam", Scene: "bell", Latch: "one-shot", Rest: d("8 s")},
		plan.Trigger{ID: "timer-flutter", Input: "flutter-timer", Scene: "flutter", Latch: "one-shot"},
		plan.Trigger{ID: "timer-bell", Input: "bell-timer", Scene: "bell", Latch: "one-shot"},
	)
	hum := make([]float64, 240)
	for i := range hum { // swells, as bees do
		t := float64(i) / 240
		hum[i] = math.Min(1, t*6) * math.Min(1, (1-t)*8) * (.55 + .3*math.Abs(math.Sin(t*21)) + .12*math.Sin(t*173))
	}
	p.Doc().Clips = append(
		p.Clips(),
		plan.Clip{ID: "hum-clip", Prop: "riser", Name: "Bees wake", Channel: "K12", Long: d("4 s"),
			Peak: -1.2, RMS: -11.4, Loud: -14.2, Guests: l("6 ft"), Fence: l("55 ft"), Wave: plan.Outline(hum)},
	)
	p.Doc().Promises = append(p.Promises(),
		plan.Promise{ID: "hum-up", Prop: "riser", Says: "hum player is on while top switch is closed"},
		plan.Promise{ID: "fog-short", Prop: "keeper", Says: "smoker fog never longer than 5 s"},
		plan.Promise{ID: "arm-one-way", Prop: "keeper", Says: "arm up and arm down never together"},
	)
}

// movers are the devices that move, hum and fog.
func movers(p *plan.Plan) {
	on := func(id, prop, name, from string) plan.Device {
		return plan.Device{ID: id, Prop: prop, Kind: "switch", Name: name, From: from, Driven: true, Rating: a("5 A")}
	}
	led := func(id, prop, from, long, gauge string) plan.Device {
		return plan.Device{ID: id, Prop: prop, Kind: "run", Name: "Run " + id, From: from, Gauge: g(gauge), Length: l(long)}
	}
	run := func(id, prop, from, long string) plan.Device { return led(id, prop, from, long, "16 AWG") }
	load := func(id, prop, name, from, product string) plan.Device {
		return plan.Device{ID: id, Prop: prop, Kind: "lamp", Name: name, From: from, Product: product, Need: l("6 in")}
	}
	supply := func(id, prop, product, outlet string) plan.Device {
		return plan.Device{ID: id, Prop: prop, Kind: "supply", Name: "Supply " + id, Product: product, Outlet: outlet}
	}
	fuse := func(id, prop, from, rating string) plan.Device {
		return plan.Device{ID: id, Prop: prop, Kind: "fuse", Name: "Fuse " + id, From: from, Rating: a(rating)}
	}
	down, lower := run("W11", "riser", "K11", "2 ft"), run("W15", "keeper", "K15", "2 ft")
	down.To, lower.To = "W10", "W14"
	longest := on("K16", "keeper", "Smoker fog", "W22")
	longest.Longest = d("20 s")
	p.Doc().Devices = append(
		p.Devices(),
		supply("S5", "riser", "ps12-5", "shed"),
		fuse("F5", "riser", "S5", "5 A"),
		run("W9", "riser", "F5", "4 ft"),
		on("K10", "riser", "Frames up", "W9"),
		on("K11", "riser", "Frames down", "W9"),
		run("W10", "riser", "K10", "3 ft"),
		down,
		load("riser-motor", "riser", "Riser motor", "W10", "motor12"),
		on("K12", "riser", "Hum player", "W9"),
		load("hum-amp", "riser", "Hum amplifier", "K12", "amp12"),
		supply("S6", "keeper", "ps12-10", "shed"),
		fuse("F6", "keeper", "S6", "7.5 A"),
		led("W20", "keeper", "F6", "4 ft", "14 AWG"),
		on("K14", "keeper", "Arm up", "W20"),
		on("K15", "keeper", "Arm down", "W20"),
		run("W14", "keeper", "K14", "5 ft"),
		lower,
		load("arm-motor", "keeper", "Arm motor", "W14", "motor12"),
		supply("S7", "keeper", "ps12-5", "shed"),
		fuse("F7", "keeper", "S7", "5 A"),
		run("W22", "keeper", "F7", "3 ft"),
		longest,
		load("smoker-fogger", "keeper", "Smoker's fogger", "K16", "fogger12"),
		on("K17", "keeper", "Smoker glow", "W20"),
		load("smoker-glow", "keeper", "Smoker's embers", "K17", "puck12"),
		run("W21", "gate", "W9", "9 ft"),
		on("K18", "gate", "Gate bell player", "W21"),
		load("gate-amp", "gate", "Gate amplifier", "K18", "amp12"),
		supply("S8", "gate", "usb5-2", "porch"),
		fuse("F8", "gate", "S8", "2 A"),
		led("W23", "gate", "F8", "3 ft", "18 AWG"),
	)
	p.Doc().Devices = append(p.Devices(), letteringPixels()...)
}

// letteringPixels are the board and the pixels of the gate's lettering.
func letteringPixels() []plan.Device {
	return []plan.Device{
		{ID: "U8", Prop: "gate", Kind: "controller", Name: "Lettering board U8", From: "W23", Logic: v("5 V")},
		{
			ID:       "lettering",
			Prop:     "gate",
			Kind:     "lamp",
			Name:     "Lettering pixels",
			From:     "W23",
			Product:  "pixel5",
			Length:   l("1.2 m"),
			Picture:  "embers",
			Colour:   "honey",
			Data:     "U8",
			Pin:      1,
			DataLead: l("1 ft"),
			Damper:   true,
			Bulk:     true,
			Need:     l("6 in"),
		},
	}
}

// mechanisms are what the motors move.
func mechanisms(p *plan.Plan) {
	deg := func(s string) measure.Angle { return measure.Must[measure.AngleKind](s) }
	kg := func(s string) measure.Mass { return measure.Must[measure.MassKind](s) }
	p.Doc().Mechanisms = append(
		p.Mechanisms(),
		plan.Mechanism{ID: "frames", Prop: "riser", Name: "Frames", Kind: "slide", Up: "K10", Down: "K11",
			Motor: "riser-motor", Crank: l("5 in"), Link: l("12 in"), From: deg("-90"), To: deg("90"), Mass: kg("3.5 lb"),
			Guests: l("30 in")},
		plan.Mechanism{ID: "arm", Prop: "keeper", Name: "Smoker arm", Kind: "lid", Up: "K14", Down: "K15",
			Motor: "arm-motor", Crank: l("2 in"), Link: l("8 in"), Arm: l("5 in"), PivotX: l("2 in"), PivotY: l("-8 in"),
			From: deg("-90"), To: deg("90"), Mass: kg("5 lb"), Reach: l("14 in"), Tip: l("26 in"), Time: d("2.5 s"),
			Guests: l("48 in"), X: l("6 in"), Z: l("56 in")},
		plan.Mechanism{ID: "wing-l", Prop: "bee", Name: "Left wing", Kind: "servo", Motor: "wing-left", From: deg("-30"),
			To: deg("50"), Mass: kg("15 g"), Reach: l("3 in"), Tip: l("7 in")},
		plan.Mechanism{ID: "wing-r", Prop: "bee", Name: "Right wing", Kind: "servo", Motor: "wing-right", From: deg("-30"),
			To: deg("50"), Mass: kg("15 g"), Reach: l("3 in"), Tip: l("7 in"), Mirrored: true},
		plan.Mechanism{
			ID:     "sun-turn",
			Prop:   "sunflowers",
			Name:   "Sunflowers turn",
			Kind:   "turntable",
			Motor:  "sun-motor",
			From:   deg("0"),
			To:     deg("360"),
			Mass:   kg("14 lb"),
			Reach:  l("3 in"),
			Tip:    l("18 in"),
			Guests: l("6 ft"),
		},
	)
}
