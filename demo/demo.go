// Package demo builds the made-up displays the product ships with: the
// Midnight Apiary in inches, and a small second one in millimetres.
package demo

import (
	"fmt"
	"math"
	"strings"
	"time"

	"zapbarn/core/form"
	"zapbarn/core/measure"
	"zapbarn/core/pattern"
	"zapbarn/core/plan"
)

func l(s string) measure.Length   { return measure.Len(s) }
func d(s string) measure.Duration { return measure.Must[measure.DurationKind](s) }
func a(s string) measure.Current  { return measure.Must[measure.AmpKind](s) }
func g(s string) measure.Gauge    { return measure.Must[measure.GaugeKind](s) }

const box = "riser-box"

func v(s string) measure.Voltage { return measure.Must[measure.VoltKind](s) }

// Apiary is the overgrown bee yard of Thistledown House, 18 days before it
// opens. The plan is good but not finished: snags of every level are open.
func Apiary(today time.Time) *plan.Plan {
	p := plan.New("midnight-apiary", "The Midnight Apiary", "in", today.AddDate(0, 0, 18).Format(time.DateOnly))
	p.Doc().Display.Outdoors = true
	p.Doc().Display.Temp = measure.Must[measure.CelsiusKind]("58 F")
	p.Doc().Display.RH = 70
	prop := func(id, name, high, note string) plan.Prop {
		return plan.Prop{ID: id, Name: name, Known: l(high), Of: "height", Stage: "cut", Note: note}
	}
	p.Doc().Props = []plan.Prop{
		prop("gate", "Gate", "84 in", "foam-block pillars"),
		prop("keeper", "Keeper", "78 in", "figure on a pipe frame"),
		prop("skep", "Skep", "54 in", "straw hive of rings"),
		prop("riser", "Frame riser", "27 1/2 in", "hive box; frames rise from it"),
		prop("shelf", "Honey shelf", "60 in", "24 tinted jars on a flicker run"),
		prop("sunflowers", "Sunflowers", "72 in", "discs on pipe stems"),
	}
	gateSolids(p)
	keeperSolids(p)
	skepSolids(p)
	riserSolids(p)
	shelfSolids(p)
	sunflowersSolids(p)
	bee(p)
	comb(p)
	signs(p)
	trims(p)
	joints(p)
	finishes(p)
	shelfAndRiser(p)
	pixels(p)
	glow(p)
	jars(p)
	behaviour(p)
	beePack(p)
	turning(p)
	rehearsal(p)
	helpers(p, today)
	mains(p)
	setOut(p, today)
	nights(p, today)
	ph, pic := sketch()
	p.Doc().Photos, p.Doc().Pictures = []plan.Photo{ph}, []plan.Picture{pic}
	crew(p, today)
	return p
}

// gateSolids are what is cut for the gate.
func gateSolids(p *plan.Plan) {
	p.Doc().Solids = append(
		p.Solids(),
		plan.Solid{
			ID:    "gate-pillar",
			Prop:  "gate",
			Name:  "Pillar",
			Kind:  "tower",
			Stock: "xps1",
			Form:  form.Tower{Sides: 4, H: l("84 in"), Low: l("26 in"), High: l("10 in")},
		},
	)
}

// keeperSolids are what is cut for the keeper.
func keeperSolids(p *plan.Plan) {
	p.Doc().Solids = append(
		p.Solids(),
		plan.Solid{
			ID:    "keeper-frame",
			Prop:  "keeper",
			Name:  "Frame",
			Kind:  "pipe",
			Stock: "pvc1.5",
			Form:  form.Pipe{Lengths: "2@78in 2@30in 3@14in"},
		},
		plan.Solid{
			ID:    "keeper-arms",
			Prop:  "keeper",
			Name:  "Arms",
			Kind:  "pipe",
			Stock: "pvc1",
			Form:  form.Pipe{Lengths: "2@26in 2@18in"},
			Y:     l("8 in"),
			Z:     l("40 in"),
		},
		plan.Solid{
			ID:    "keeper-hat",
			Prop:  "keeper",
			Name:  "Hat",
			Kind:  "cone",
			Stock: "eva5",
			Form:  form.Cone{Low: l("12 in"), High: l("7 in"), H: l("6 in"), Allow: l("1/2 in")},
			X:     l("-10 in"),
			Y:     l("-12 in"),
			Z:     l("72 in"),
		},
		plan.Solid{
			ID:    "keeper-brim",
			Prop:  "keeper",
			Name:  "Brim",
			Kind:  "disc",
			Stock: "eva5",
			Form:  form.Disc{W: l("20 in"), Bore: l("11 1/2 in")},
			X:     l("-10 in"),
			Y:     l("-12 in"),
			Z:     l("71 3/4 in"),
		},
	)
}

// skepSolids are what is cut for the skep.
func skepSolids(p *plan.Plan) {
	p.Doc().Solids = append(
		p.Solids(),
		plan.Solid{
			ID:    "skep-rings",
			Prop:  "skep",
			Name:  "Hive",
			Kind:  "slices",
			Stock: "xps2",
			Form:  form.Slices{Profile: "dome", W: l("46 in"), H: l("54 in"), Wall: l("3 in"), Allow: l("1/4 in")},
		},
	)
}

// riserSolids are what is cut for the frame riser.
func riserSolids(p *plan.Plan) {
	p.Doc().Solids = append(
		p.Solids(),
		plan.Solid{
			ID:    box,
			Prop:  "riser",
			Name:  "Hive box",
			Kind:  "box",
			Stock: "xps1",
			Form: form.Box{
				W:        l("22 in"),
				D:        l("18 in"),
				H:        l("27 1/2 in"),
				Joint:    "rabbet",
				Bottom:   true,
				Lid:      true,
				Overhang: l("1 1/2 in"),
			},
			Sealed: true,
			Openings: []plan.Opening{
				{Name: "Entrance", Face: "front", Kind: "slot", W: l("8 in"), H: l("1 5/8 in"), Y: l("3 in")},
				{Name: "Hand hole", Face: "left", Kind: "slot", W: l("4 in"), H: l("1 1/4 in"), Y: l("20 in")},
			},
		},
	)
}

// shelfSolids are what is cut for the honey shelf.
func shelfSolids(p *plan.Plan) {
	p.Doc().Solids = append(
		p.Solids(),
		plan.Solid{
			ID:    "shelf-boards",
			Prop:  "shelf",
			Name:  "Boards",
			Kind:  "panel",
			Stock: "ply1/2",
			Form:  form.Panel{W: l("36 in"), H: l("10 in"), Copies: 4, Lying: true, Pitch: l("18 in")},
			Z:     l("5 1/2 in"),
		},
		plan.Solid{
			ID:    "shelf-left",
			Prop:  "shelf",
			Name:  "Left post",
			Kind:  "panel",
			Stock: "ply1/2",
			Form:  form.Panel{W: l("3 in"), H: l("60 in")},
			X:     l("-16 1/2 in"),
			Y:     l("-5 1/4 in"),
		},
		plan.Solid{
			ID:    "shelf-right",
			Prop:  "shelf",
			Name:  "Right post",
			Kind:  "panel",
			Stock: "ply1/2",
			Form:  form.Panel{W: l("3 in"), H: l("60 in")},
			X:     l("16 1/2 in"),
			Y:     l("-5 1/4 in"),
		},
		plan.Solid{
			ID:    "shelf-fascia",
			Prop:  "shelf",
			Name:  "Fascia",
			Kind:  "box",
			Stock: "xps1/2",
			Form:  form.Box{W: l("12 in"), D: l("6 in"), H: l("5 1/2 in"), Joint: "mitre", Lid: true},
			X:     l("0 in"),
			Y:     l("3 in"),
		},
	)
}

// sunflowersSolids are what is cut for the sunflowers.
func sunflowersSolids(p *plan.Plan) {
	p.Doc().Solids = append(
		p.Solids(),
		plan.Solid{
			ID:    "sun-heads",
			Prop:  "sunflowers",
			Name:  "Heads",
			Kind:  "disc",
			Stock: "xps1",
			Form:  form.Disc{W: l("36 in"), Copies: 2, Upright: true},
			Z:     l("36 in"),
			Y:     l("-3 in"),
		},
		plan.Solid{
			ID:    "sun-stems",
			Prop:  "sunflowers",
			Name:  "Stems",
			Kind:  "pipe",
			Stock: "pvc1",
			Form:  form.Pipe{Lengths: "5@72in"},
		},
	)
}

// bee is one of the seven bees.
func bee(p *plan.Plan) {
	p.Doc().Props = append(
		p.Props(),
		plan.Prop{
			ID:    "bee",
			Name:  "Bee, one of seven",
			Known: l("9 in"),
			Of:    "width",
			Note:  "EVA gores on an egg, lit from its own cells",
		},
	)
	p.Doc().Solids = append(
		p.Solids(),
		plan.Solid{
			ID:    "bee-body",
			Prop:  "bee",
			Name:  "Body",
			Kind:  "gores",
			Stock: "eva5",
			Form:  form.Gores{Profile: "egg", W: l("9 in"), H: l("14 in"), Sides: 8},
			Z:     l("40 in"),
		},
	)
}

// comb is the wall of cells.
func comb(p *plan.Plan) {
	p.Doc().Props = append(
		p.Props(),
		plan.Prop{
			ID:    "comb",
			Name:  "Comb wall",
			Known: l("48 in"),
			Of:    "height",
			Note:  "216 slices of pipe, lit by 72 pixels",
		},
	)
	p.Doc().Solids = append(
		p.Solids(),
		plan.Solid{
			ID:    "comb-cells",
			Prop:  "comb",
			Name:  "Cells",
			Kind:  "pipe",
			Stock: "pvc2",
			Form:  form.Pipe{Lengths: "216@2in", Sides: 13},
			X:     l("0 in"),
			Y:     l("-1 in"),
			Z:     l("5 1/4 in"),
		},
		plan.Solid{
			ID:    "comb-back",
			Prop:  "comb",
			Name:  "Back",
			Kind:  "panel",
			Stock: "ply1/4",
			Form:  form.Panel{W: l("36 in"), H: l("48 in")},
			Y:     l("1/4 in"),
		},
	)
}

// signs are the letters, leaves and petals of what stands already.
func signs(p *plan.Plan) {
	p.Doc().Solids = append(
		p.Solids(),
		plan.Solid{
			ID:    "gate-letters",
			Prop:  "gate",
			Name:  "Lettering",
			Kind:  "outline",
			Stock: "ply1/4",
			Form: form.Outline{
				W: l("40 in"),
				Path: "0,0 3,0 3,5.5 7,5.5 7,0 10,0 10,14 7,14 7,8.5 3,8.5 3,14 0,14; 13,0 16,0 16,14 13,14; 22.5,0 25.5,0 " +
					"29,14 25.8,14 24,5.5 22.2,14 19,14; 32,0 40,0 40,3 35,3 35,5.5 39,5.5 39,8.5 35,8.5 35,11 40,11 40,14 32,14",
			},
			X: l("0 in"),
			Y: l("-14 in"),
			Z: l("48 in"),
		},
		plan.Solid{
			ID:    "sun-petals",
			Prop:  "sunflowers",
			Name:  "Petals",
			Kind:  "outline",
			Stock: "eva5",
			Form: form.Outline{
				H:      l("9 in"),
				Copies: 14,
				Bore:   l("34 in"),
				Path:   "-1,0 1,0 1.7,3 1.5,6 0,9 -1.5,6 -1.7,3",
			},
			X: l("-19 3/4 in"),
			Y: l("-2 in"),
			Z: l("28 in"),
		},
		plan.Solid{
			ID:    "sun-leaf",
			Prop:  "sunflowers",
			Name:  "Leaf",
			Kind:  "outline",
			Stock: "ply1/4",
			Form: form.Outline{
				H:    l("14 in"),
				Pair: true,
				Path: "-0.4,0 0.4,0 0.5,1.6 3,3 4,6 3,9.5 0,14 -2,10 -2.5,6 -1.8,3 -0.5,1.6",
			},
			X: l("12 in"),
			Y: l("-5 in"),
			Z: l("16 in"),
		},
	)
}

// trims are the small parts that come last.
func trims(p *plan.Plan) {
	p.Doc().Solids = append(
		p.Solids(),
		plan.Solid{
			ID:    "keeper-head",
			Prop:  "keeper",
			Name:  "Head",
			Kind:  "mesh",
			Stock: "xps2",
			Form:  form.Mesh{H: l("11 in"), Allow: l("1/8 in"), Dowels: 1, Dowel: l("1/2 in"), Mesh: head()},
			X:     l("-10 in"),
			Y:     l("-12 in"),
			Z:     l("61 in"),
		},
		plan.Solid{
			ID:    "skep-screen",
			Prop:  "skep",
			Name:  "Screen board",
			Kind:  "panel",
			Stock: "ply1/4",
			Form:  form.Panel{W: l("14 in"), H: l("10 in")},
			Y:     l("-20 in"),
			Z:     l("9 in"),
			Openings: []plan.Opening{
				{Name: "Picture", Face: "panel", Kind: "rect", W: l("8 1/2 in"), H: l("5 3/8 in"), Y: l("5 in")},
			},
		},
		plan.Solid{
			ID:    "bee-wings",
			Prop:  "bee",
			Name:  "Wings",
			Kind:  "outline",
			Stock: "acrylic3",
			Form: form.Outline{
				W:     l("9 in"),
				Pair:  true,
				Pitch: l("1 in"),
				Path:  "0,1.2 1,0.5 4,0 7.5,0.6 9,2 8.6,3.4 6.8,4.2 3.5,3.6 1,2.4 0,2",
			},
			X: l("0 in"),
			Y: l("2 in"),
			Z: l("50 in"),
		},
	)
}

// joints are how it holds together so far.
func joints(p *plan.Plan) {
	seam := func(id, prop, a, b, glue, long string) plan.Joint {
		return plan.Joint{ID: id, Prop: prop, A: a, B: b, Glue: glue, Length: l(long)}
	}
	hat := seam("hat-seam", "keeper", "keeper-hat/sector", "keeper-hat/sector", "contact", "6 in")
	hat.Strain = true
	p.Doc().Joints = []plan.Joint{
		{ID: "bee-seams", Prop: "bee", A: "bee-body/gore", B: "bee-body/gore", Glue: "contact", Strain: true},
		hat,
		seam("hat-brim", "keeper", "keeper-hat/sector", "keeper-brim/disc", "ca", "36 in"),
		seam("riser-front-left", "riser", box+"/front", box+"/left", "pu", "26 1/2 in"),
		seam("riser-front-right", "riser", box+"/front", box+"/right", "pva", "26 1/2 in"),
		seam("riser-back-left", "riser", box+"/back", box+"/left", "pu", "26 1/2 in"),
		seam("riser-back-right", "riser", box+"/back", box+"/right", "contact", "26 1/2 in"),
		seam("shelf-boards-posts", "shelf", "shelf-boards/panel", "shelf-left/panel", "pva", "3 in"),
		{ID: "shelf-jars", Prop: "shelf", A: "=pet", B: "shelf-boards/panel", Glue: "hotlow"},
		{ID: "skep-layers", Prop: "skep", A: "skep-rings", B: "skep-rings", Glue: "pu"},
	}
}

// finishes are its coats.
func finishes(p *plan.Plan) {
	p.Doc().Finishes = []plan.Finish{
		{ID: box, Solid: box, Layers: []plan.Layer{{Coat: "enamel", Coats: 2}, {Coat: "wash", Coats: 1}}},
		{
			ID:    "skep-rings",
			Solid: "skep-rings",
			Layers: []plan.Layer{
				{Coat: "masonry", Coats: 1},
				{Coat: "latex", Coats: 2},
				{Coat: "wash", Coats: 1},
				{Coat: "clear", Coats: 2},
			},
		},
		{
			ID:     "shelf-boards",
			Solid:  "shelf-boards",
			Layers: []plan.Layer{{Coat: "acrylic", Coats: 2}, {Coat: "clear", Coats: 2}},
		},
	}
}

// shelfAndRiser are the first two props wired, with the comb's feed.
func shelfAndRiser(p *plan.Plan) {
	p.Doc().Devices = []plan.Device{
		{ID: "S1", Prop: "shelf", Kind: "supply", Name: "Supply S1", Product: "ps12-2"},
		{ID: "F1", Prop: "shelf", Kind: "fuse", Name: "Fuse F1", From: "S1", Rating: a("3 A")},
		{ID: "W1", Prop: "shelf", Kind: "run", Name: "Run W1", From: "F1", Gauge: g("18 AWG"), Length: l("9'4\"")},
		{
			ID:     "W2",
			Prop:   "shelf",
			Kind:   "run",
			Name:   "Run W2",
			From:   "W1",
			At:     l("9'4\""),
			Gauge:  g("22 AWG"),
			Length: l("35 ft"),
		},
		{
			ID:     "K1",
			Prop:   "shelf",
			Kind:   "switch",
			Name:   "Fill switch K1",
			From:   "W1",
			At:     l("9'4\""),
			Driven: true,
			Rating: a("5 A"),
		},
		{
			ID:      "fill",
			Prop:    "shelf",
			Kind:    "lamp",
			Name:    "Hidden fill",
			From:    "K1",
			Product: "fill12",
			Need:    l("30 in"),
		},
		{ID: "S2", Prop: "riser", Kind: "supply", Name: "Supply S2", Product: "ps12-1", In: box},
		{
			ID:     "K2",
			Prop:   "riser",
			Kind:   "switch",
			Name:   "Glow switch K2",
			From:   "S2",
			Driven: true,
			Rating: a("2 A"),
			In:     box,
		},
		{ID: "W3", Prop: "riser", Kind: "run", Name: "Run W3", From: "K2", Gauge: g("22 AWG"), Length: l("6 ft")},
	}
}

// pixels are the comb's, with their supply.
func pixels(p *plan.Plan) {
	p.Doc().Devices = append(
		p.Devices(),
		plan.Device{ID: "S3", Prop: "comb", Kind: "supply", Name: "Supply S3", Product: "ps5-10"},
		plan.Device{ID: "F3", Prop: "comb", Kind: "fuse", Name: "Fuse F3", From: "S3", Rating: a("5 A")},
		plan.Device{
			ID:     "W4",
			Prop:   "comb",
			Kind:   "run",
			Name:   "Feed W4",
			From:   "F3",
			Gauge:  g("18 AWG"),
			Length: l("4 ft"),
			Path:   "34,3,1 14,3,1 14,3,24",
		},
		plan.Device{ID: "X1", Prop: "comb", Kind: "connector", Name: "Comb plug X1", From: "W4", Rating: a("5 A")},
		plan.Device{
			ID:    "U1",
			Prop:  "comb",
			Kind:  "controller",
			Name:  "Comb controller U1",
			From:  "W4",
			At:    l("3 ft"),
			Volts: v("5 V"),
			Logic: v("3.3 V"),
		},
		plan.Device{
			ID:       "cells",
			Prop:     "comb",
			Kind:     "lamp",
			Name:     "Cells 1 to 72",
			From:     "X1",
			Product:  "pixel5",
			Length:   l("1.2 m"),
			Bright:   60,
			Picture:  "breathe",
			Colour:   "honey",
			Feeds:    "0% 50%",
			Gauge:    g("18 AWG"),
			Data:     "U1",
			Pin:      1,
			DataLead: l("18 in"),
			Damper:   true,
		},
	)
}

// glow are the lamps within the frame riser.
func glow(p *plan.Plan) {
	for i := range 4 {
		p.Doc().Devices = append(
			p.Devices(),
			plan.Device{
				ID:      fmt.Sprintf("glow-%d", i+1),
				Prop:    "riser",
				Kind:    "lamp",
				Name:    fmt.Sprintf("Glow %d", i+1),
				From:    "W3",
				At:      l(fmt.Sprintf("%d in", 18*(i+1))),
				Product: "puck12",
				Need:    l("18 in"),
				In:      box,
				Proven:  i != 3,
			},
		)
	}
}

// jars are the lit jars on the shelf.
func jars(p *plan.Plan) {
	for i := range 24 {
		jar := plan.Device{
			ID:      fmt.Sprintf("jar-%d", i+1),
			Prop:    "shelf",
			Kind:    "lamp",
			Name:    fmt.Sprintf("Jar %d", i+1),
			From:    "W2",
			Product: "flicker12",
			At:      measure.Of[measure.LengthKind](float64(i+1) * 420 / 24 * measure.Inch),
			Need:    l("6 in"),
			Proven:  i%3 != 1,
		}
		if i >= 9 {
			jar.Need = l(fmt.Sprintf("%d in", 8+i%4))
		}
		jar.Reversed = i == 7
		if i >= 21 { // these have their extensions already
			jar.Extension = l("5 in")
		}
		p.Doc().Devices = append(p.Devices(), jar)
	}
}

// behaviour is what the mat and the button do.
func behaviour(p *plan.Plan) {
	p.Doc().Inputs = []plan.Input{
		{ID: "mat", Prop: "riser", Name: "Path mat", Kind: "mat", MinPulse: d("30 ms"), HoldOff: d("2 s")},
		{ID: "button", Prop: "riser", Name: "Keeper's button", Kind: "button"},
	}
	p.Doc().Scenes = []plan.Scene{
		{
			ID:   "glow",
			Prop: "riser",
			Name: "Frames glow",
			Cues: []plan.Cue{
				{Channel: "K2", Start: d("0 s"), Length: d("5.6 s")},
				{Channel: "K1", Start: d("0.5 s"), Length: d("4 s")},
			},
		},
		{
			ID:     "breathe",
			Prop:   "riser",
			Name:   "Hive breathes",
			Length: d("3 s"),
			Cues: []plan.Cue{
				{Channel: "K2", Start: d("0 s"), Length: d("1.2 s")},
				{Channel: "K2", Start: d("1.8 s"), Length: d("0.4 s")},
			},
		},
	}
	p.Doc().Triggers = []plan.Trigger{
		{ID: "mat-glow", Input: "mat", Scene: "glow", Latch: "one-shot", Rest: d("4 s")},
		{ID: "button-breathe", Input: "button", Scene: "breathe", Latch: "toggle"},
	}
}

// beePack is the bees' own cells.
func beePack(p *plan.Plan) {
	p.Doc().Devices = append(
		p.Devices(),
		plan.Device{ID: "B1", Prop: "bee", Kind: "supply", Name: "Bee pack B1", Cell: "aa", Cells: 3},
		plan.Device{
			ID:     "W6",
			Prop:   "bee",
			Kind:   "run",
			Name:   "Belly wire W6",
			From:   "B1",
			Gauge:  g("24 AWG"),
			Length: l("9 in"),
		},
		plan.Device{
			ID:      "belly",
			Prop:    "bee",
			Kind:    "lamp",
			Name:    "Belly pixels",
			From:    "W6",
			Product: "pixel5",
			Length:  l("0.2 m"),
			Bright:  80,
			Need:    l("4 in"),
		},
		plan.Device{
			ID:       "eye",
			Prop:     "bee",
			Kind:     "lamp",
			Name:     "Eyes",
			From:     "W6",
			Product:  "led-red",
			Row:      2,
			Resistor: measure.Must[measure.OhmKind]("33 ohm"),
			Need:     l("4 in"),
		},
		plan.Device{ID: "B2", Prop: "bee", Kind: "supply", Name: "Wing pack B2", Cell: "d", Cells: 3, Sets: 2},
		plan.Device{ID: "F30", Prop: "bee", Kind: "fuse", Name: "Fuse F30", From: "B2", Rating: a("3 A")},
		plan.Device{ID: "W30", Prop: "bee", Kind: "run", Name: "Wing wire W30", From: "F30", Gauge: g("16 AWG"),
			Length: l("6 in")},
		plan.Device{ID: "K30", Prop: "bee", Kind: "switch", Name: "Wings", From: "W30", Driven: true, Rating: a("5 A")},
		plan.Device{ID: "wing-left", Prop: "bee", Kind: "lamp", Name: "Left wing servo", From: "K30", Product: "servo5",
			Need: l("3 in")},
		plan.Device{ID: "wing-right", Prop: "bee", Kind: "lamp", Name: "Right wing servo", From: "K30", Product: "servo5",
			Need: l("3 in")},
	)
}

// turning is the motor of the sunflowers.
func turning(p *plan.Plan) {
	p.Doc().Devices = append(
		p.Devices(),
		plan.Device{
			ID:      "S4",
			Prop:    "sunflowers",
			Kind:    "supply",
			Name:    "Supply S4",
			Product: "ps12-2",
			Outlet:  "shed",
		},
		plan.Device{ID: "F4", Prop: "sunflowers", Kind: "fuse", Name: "Fuse F4", From: "S4", Rating: a("3 A")},
		plan.Device{
			ID:     "W7",
			Prop:   "sunflowers",
			Kind:   "run",
			Name:   "Run W7",
			From:   "F4",
			Gauge:  g("16 AWG"),
			Length: l("6 ft"),
		},
		plan.Device{
			ID:      "sun-motor",
			Prop:    "sunflowers",
			Kind:    "lamp",
			Name:    "Turning motor",
			From:    "W7",
			Product: "motor12",
			Need:    l("6 in"),
		},
	)
}

// mains is the outlets and what else hangs on them.
func mains(p *plan.Plan) {
	w := func(s string) measure.Power { return measure.Must[measure.WattKind](s) }
	p.Doc().Display.Nights, p.Doc().Display.Night, p.Doc().Display.Duty = 18, d("4 h"), 30
	p.Doc().Outlets = []plan.Outlet{
		{
			ID:      "porch",
			Name:    "Porch outlet",
			Volts:   v("120 V"),
			Breaker: a("15 A"),
			Guard:   true,
			Gauge:   g("16 AWG"),
			Cord:    l("50 ft"),
		},
		{
			ID:      "shed",
			Name:    "Shed outlet",
			Volts:   v("120 V"),
			Breaker: a("20 A"),
			Gauge:   g("14 AWG"),
			Cord:    l("75 ft"),
		},
	}
	p.Doc().Plugs = []plan.Plug{
		{ID: "smoker", Name: "Smoker's fog heater", Outlet: "porch", Watts: w("700 W"), Heater: true, Duty: 40},
		{ID: "swarm-screen", Name: "Swarm screen", Outlet: "porch", Watts: w("18 W")},
		{ID: "gate-speaker", Name: "Gate speaker", Outlet: "shed", Watts: w("40 W")},
	}
	for i := range p.Devices() {
		switch p.Devices()[i].ID {
		case "S1", "S3":
			p.Devices()[i].Outlet = "porch"
		}
	}
}

// crew is what the crew has noted: bottles, readings, what may stand.
func crew(p *plan.Plan, today time.Time) {
	p.Doc().Lots = []plan.Lot{
		{ID: "pva", Glue: "pva", Opened: today.AddDate(-1, -5, 0).Format(time.DateOnly)},
		{ID: "pu", Glue: "pu", Opened: today.AddDate(0, -3, 0).Format(time.DateOnly)},
	}
	// two faults the crew has begun to look for: a bad joint in the riser, a bad contact in the comb's plug
	was := today.AddDate(0, 0, -1).Format(time.DateOnly)
	for i, r := range []plan.Reading{{Device: "glow-2", Volts: v("11.84 V"), By: "Ira"},
		{Device: "glow-3", Volts: v("10.46 V"), By: "Ira"}, {Device: "glow-4", Volts: v("10.49 V"), By: "Ira"},
		{Device: "cells", Light: "dark", By: "Ola"}, {Device: "S3", Volts: v("4.98 V"), By: "Ola"},
		{Device: "W4", Volts: v("4.88 V"), By: "Ola"}, {Device: "X1", Volts: v("2.72 V"), By: "Ola"}} {
		r.ID, r.On = fmt.Sprintf("r%d", i+1), was
		p.Doc().Readings = append(p.Readings(), r)
	}
	p.Doc().Waivers = []plan.Waiver{
		{
			ID:     "saw-stop@part:gate-pillar/face",
			Reason: "caulk fills the seams before the block lines are cut",
			By:     "Ira",
		},
		{ID: "unjoined@solid:gate-pillar", Reason: "Ola glues the pillars at the yard with what is left", By: "Ola"},
	}
}

// Patterns is a book of every kind of solid, one prop each, with the seams and
// turns the Apiary itself does not use.
func Patterns() *plan.Plan {
	p := plan.New("pattern-book", "Pattern book of the Apiary", "in", "")
	add := func(name string, s plan.Solid) {
		s.Prop = plan.Slug(name)
		s.ID, s.Name = s.Prop+"-solid", name
		p.Doc().Props = append(p.Props(), plan.Prop{ID: s.Prop, Name: name})
		p.Doc().Solids = append(p.Solids(), s)
	}
	for _, page := range []func(func(string, plan.Solid)){bookBoxes, bookRounds, bookStacks, bookFlat, bookLast} {
		page(add)
	}
	return p
}

// bookBoxes are boxes, towers and hoppers.
func bookBoxes(add func(name string, s plan.Solid)) {
	for _, joint := range []string{"butt", "mitre", "rabbet"} {
		add(
			"Box, "+joint,
			plan.Solid{
				Kind:  "box",
				Stock: "xps1",
				Form: form.Box{
					Joint:    joint,
					W:        l("22 in"),
					D:        l("18 in"),
					H:        l("26 1/2 in"),
					Bottom:   true,
					Lid:      true,
					Overhang: l("1 in"),
				},
			},
		)
	}
	add(
		"Tower",
		plan.Solid{
			Kind:  "tower",
			Stock: "xps1",
			Form:  form.Tower{Sides: 6, H: l("48 in"), Low: l("20 in"), High: l("9 in")},
		},
	)
	add(
		"Hopper",
		plan.Solid{
			Kind:  "tower",
			Stock: "ply1/4",
			Form:  form.Tower{Sides: 4, H: l("12 in"), Low: l("8 in"), High: l("24 in")},
		},
	)
	add(
		"Staves",
		plan.Solid{
			Kind:  "tower",
			Stock: "xps1",
			Form:  form.Tower{Sides: 12, H: l("30 in"), Low: l("24 in"), High: l("24 in")},
		},
	)
	add(
		"Tall pillar, split",
		plan.Solid{
			Kind:  "tower",
			Stock: "xps1",
			Form:  form.Tower{Sides: 4, H: l("132 in"), Low: l("26 in"), High: l("18 in")},
			Seam:  "half-lap",
		},
	)
	add(
		"Back wall, split",
		plan.Solid{Kind: "panel", Stock: "ply1/4", Form: form.Panel{W: l("60 in"), H: l("80 in")}, Seam: "butt"},
	)
}

// bookRounds are discs, rings and what is made of gores.
func bookRounds(add func(name string, s plan.Solid)) {
	add("Disc", plan.Solid{Kind: "disc", Stock: "xps1", Form: form.Disc{W: l("36 in"), Bore: l("8 in")}})
	add(
		"Disc over boards",
		plan.Solid{Kind: "boards", Stock: "xps1", Form: form.Boards{W: l("90 in"), Offset: l("2 in")}},
	)
	add(
		"Rings",
		plan.Solid{
			Kind:  "rings",
			Stock: "xps2",
			Form:  form.Rings{Low: l("24 in"), High: l("16 in"), H: l("18 in"), Wall: l("3 in")},
		},
	)
	for _, profile := range []string{"sphere", "egg", "bell", "squash", "onion", "0,0 6,3 8,9 3,14 0,18"} {
		add(
			"Gores, "+strings.Split(profile, ",")[0],
			plan.Solid{
				Kind:  "gores",
				Stock: "eva5roll",
				Form:  form.Gores{Profile: profile, Sides: 8, W: l("18 in"), H: l("18 in")},
			},
		)
	}
	add(
		"Ribbed squash",
		plan.Solid{
			Kind:  "gores",
			Stock: "eva5roll",
			Form:  form.Gores{Profile: "squash", Sides: 8, W: l("24 in"), H: l("16 in"), Crease: true},
		},
	)
	add(
		"Slices, bell",
		plan.Solid{
			Kind:  "slices",
			Stock: "xps2",
			Form: form.Slices{
				Profile: "bell",
				W:       l("24 in"),
				H:       l("24 in"),
				Allow:   l("1/4 in"),
				Dowels:  3,
				Dowel:   l("1/2 in"),
			},
		},
	)
	add(
		"Carved head",
		plan.Solid{
			Kind:  "mesh",
			Stock: "xps2",
			Form:  form.Mesh{H: l("22 in"), Wall: l("3 in"), Allow: l("1/8 in"), Dowels: 2, Mesh: head()},
		},
	)
}

// bookStacks are slices, cones and tubes.
func bookStacks(add func(name string, s plan.Solid)) {
	add(
		"Cone",
		plan.Solid{
			Kind:  "cone",
			Stock: "eva5roll",
			Form:  form.Cone{Low: l("18 in"), H: l("20 in"), Allow: l("1/2 in")},
		},
	)
	add(
		"Truncated cone",
		plan.Solid{Kind: "cone", Stock: "eva5roll", Form: form.Cone{Low: l("18 in"), High: l("8 in"), H: l("14 in")}},
	)
	add(
		"Tube",
		plan.Solid{Kind: "wrap", Stock: "eva5roll", Form: form.Wrap{W: l("12 in"), H: l("24 in"), Allow: l("1 in")}},
	)
	add(
		"Tube, kerf bent",
		plan.Solid{Kind: "wrap", Stock: "ply1/4", Form: form.Wrap{W: l("14 in"), H: l("18 in"), Skin: l("1/16 in")}},
	)
	add(
		"Window frame",
		plan.Solid{
			Kind:  "outline",
			Stock: "ply1/4",
			Form: form.Outline{
				W:    l("24 in"),
				Path: "0,0 24,0 24,36 0,36; 3,3 21,3 21,16 3,16; 3,20 21,20 21,33 3,33",
			},
		},
	)
	add(
		"Wings, a pair",
		plan.Solid{
			Kind:  "outline",
			Stock: "acrylic3",
			Form: form.Outline{
				W:    l("20 in"),
				Pair: true,
				Path: "0,1.2 1,0.5 4,0 7.5,0.6 9,2 8.6,3.4 6.8,4.2 3.5,3.6 1,2.4 0,2",
			},
		},
	)
	add(
		"Petals",
		plan.Solid{
			Kind:  "outline",
			Stock: "eva5",
			Form: form.Outline{
				H:      l("8 in"),
				Copies: 12,
				Bore:   l("20 in"),
				Path:   "-1,0 1,0 1.7,3 1.5,6 0,9 -1.5,6 -1.7,3",
			},
		},
	)
	add("Comb", plan.Solid{Kind: "pipe", Stock: "pvc2", Form: form.Pipe{Lengths: "60@2in", Sides: 8}})
}

// bookFlat are silhouettes, panels and what is bent.
func bookFlat(add func(name string, s plan.Solid)) {
	add(
		"Hopper, oblong",
		plan.Solid{
			Kind:  "pyramid",
			Stock: "ply1/4",
			Form:  form.Pyramid{W: l("24 in"), D: l("16 in"), H: l("18 in"), TopW: l("8 in"), TopD: l("6 in")},
		},
	)
	add(
		"Pyramid",
		plan.Solid{Kind: "pyramid", Stock: "xps1", Form: form.Pyramid{W: l("24 in"), D: l("24 in"), H: l("30 in")}},
	)
	add(
		"Arched roof",
		plan.Solid{
			Kind:  "arch",
			Stock: "ply1/8",
			Form:  form.Arch{W: l("40 in"), D: l("20 in"), H: l("12 in"), Ends: true},
		},
	)
	add(
		"Gear",
		plan.Solid{
			Kind:  "wheel",
			Stock: "ply1/4",
			Form: form.Wheel{
				W:          l("24 in"),
				Teeth:      16,
				Depth:      l("1 1/2 in"),
				Spokes:     5,
				Bore:       l("1 in"),
				Holes:      5,
				HoleD:      l("1/2 in"),
				HoleCircle: l("4 in"),
				Hub:        l("6 in"),
			},
		},
	)
	add(
		"Jars",
		plan.Solid{
			Kind:  "bought",
			Stock: "pet",
			Form: form.Bought{
				Of:     "jar",
				W:      l("4 in"),
				H:      l("6 in"),
				Copies: 8,
				Weight: measure.Must[measure.MassKind]("45 g"),
			},
		},
	)
}

// bookLast are bought, built up and framed things.
func bookLast(add func(name string, s plan.Solid)) {
	of := func(name, kind, stock string, f form.Form) {
		add(name, plan.Solid{Kind: kind, Stock: stock, Form: f})
	}
	of("Skull", "bought", "hips", form.Bought{Of: "skull", W: l("6 in"), D: l("7 1/2 in"), H: l("8 1/2 in")})
	of("Frame", "frame", "pvc1", form.Frame{W: l("36 in"), D: l("24 in"), H: l("60 in"), Levels: 3,
		Load: measure.Must[measure.MassKind]("1 kg")})
	of("Cloth skin", "skin", "muslin", form.Skin{W: l("18 in"), H: l("40 in"), Top: true})
	of("Clay head", "modelled", "lightclay", form.Modelled{W: l("6 in"), D: l("7 in"), H: l("9 in"), Skin: l("3/8 in")})
	of("Bands", "trim", "eva5", form.Trim{W: l("22 in"), D: l("18 in"), H: l("2 in"), Copies: 2, Pitch: l("12 in")})
	of("Scales", "scales", "eva2", form.Scales{W: l("18 in"), H: l("24 in"), Wide: l("3 in"), Tall: l("4 in"),
		Show: l("2 1/2 in")})
	of("Printed head", "printed", "pla", form.Printed{H: l("11 in"), Mesh: head()})
	of("Hoops", "hoops", "pvc1/2", form.Hoops{W: l("12 in"), H: l("36 in"), Pitch: l("6 in")})
	of("Bent pipe", "bent", "pvc1", form.BentPipe{Legs: "30 in turn 60 18 in turn 60 14 in", Radius: l("6 in")})
	of("Laid up mask", "laminate", "glassmat", form.Laminate{W: l("9 in"), H: l("11 in"), D: l("5 in"), Plies: 2,
		Gel: true})
	of("Pipe frame", "pipe", "pvc1.5", form.Pipe{Lengths: "2@78in 2@30in 3@14in"})
}

// head is the Keeper's head: an ellipsoid with a nose and a chin, as a mesh.
func head() string {
	const n = 18
	at := func(i, k int) pattern.Vec {
		s, c := math.Sincos(-math.Pi/2 + math.Pi*float64(i)/n)
		y, x := math.Sincos(2 * math.Pi * float64(k%(2*n)) / (2 * n))
		if i == 0 || i == n {
			c = 0
		}
		front := math.Pow(math.Max(0, -y), 12) * c
		out := 1 + front*(.28*math.Exp(-40*s*s)+.16*math.Exp(-60*(s+.75)*(s+.75)))
		return pattern.Vec{X: 4 * c * x * (1 - .12*s), Y: 4.6 * c * y * out, Z: 5.5 * s}
	}
	var m pattern.Mesh
	for i := range n {
		for k := range 2 * n {
			p, q, r, s := at(i, k), at(i, k+1), at(i+1, k+1), at(i+1, k)
			if i > 0 {
				m = append(m, pattern.Triangle{p, q, r})
			}
			if i < n-1 {
				m = append(m, pattern.Triangle{p, r, s})
			}
		}
	}
	text, err := m.Pack()
	if err != nil {
		panic(err) // the mesh above is small and closed
	}
	return text
}

// Metric is a small second display in millimetres.
func Metric(today time.Time) *plan.Plan {
	p := plan.New("thistledown-porch", "Thistledown porch", "mm", today.AddDate(0, 0, 40).Format(time.DateOnly))
	p.Doc().Props = []plan.Prop{{ID: "hopper", Name: "Seed hopper", Known: l("500 mm"), Of: "height"}}
	p.Doc().Solids = []plan.Solid{
		{
			ID:    "hopper-body",
			Prop:  "hopper",
			Name:  "Hopper",
			Kind:  "tower",
			Stock: "eva10",
			Form:  form.Tower{Sides: 6, H: l("500 mm"), Low: l("180 mm"), High: l("420 mm")},
		},
	}
	p.Doc().Joints = []plan.Joint{
		{
			ID:     "hopper-seams",
			Prop:   "hopper",
			A:      "hopper-body/face",
			B:      "hopper-body/face",
			Glue:   "contact",
			Strain: true,
		},
	}
	p.Doc().Finishes = []plan.Finish{
		{
			ID:    "hopper-body",
			Solid: "hopper-body",
			Layers: []plan.Layer{
				{Coat: "heatseal", Coats: 1},
				{Coat: "flexseal", Coats: 2},
				{Coat: "latex", Coats: 2},
			},
		},
	}
	p.Doc().Devices = []plan.Device{
		{ID: "S1", Prop: "hopper", Kind: "supply", Name: "Supply S1", Product: "ps5-4"},
		{ID: "F1", Prop: "hopper", Kind: "fuse", Name: "Fuse F1", From: "S1", Rating: a("3 A")},
		{ID: "W1", Prop: "hopper", Kind: "run", Name: "Run W1", From: "F1", Gauge: g("0.75 mm2"), Length: l("1.2 m")},
		{
			ID:      "P1",
			Prop:    "hopper",
			Kind:    "lamp",
			Name:    "Pixels P1",
			From:    "W1",
			At:      l("1.2 m"),
			Product: "pixel5",
			Length:  l("1 m"),
			Bright:  60,
		},
	}
	return p
}
