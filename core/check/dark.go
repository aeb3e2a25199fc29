package check

import (
	"fmt"
	"math"

	"zapbarn/core/plan"
	"zapbarn/core/source"
	"zapbarn/core/words"
	"zapbarn/core/work"
	"zapbarn/core/yard"
)

// The least light, lux on the ground: where guests walk (from memory), and on a way out
// (EN 1838: 1 lx along its middle).
const (
	pathLux   = 0.5
	escapeLux = 1.0
)

// DarkOn is the stretches of a way that are too dark, and what is too dark there.
func DarkOn(y *work.Yard, p *work.Walked) ([]yard.Stretch, float64) {
	return yard.Dark(p.Path, y.Lamps, y.Hides, leastOn(p), 120), leastOn(p)
}

// leastOn is the least light of a way, lx.
func leastOn(p *work.Walked) float64 {
	if p.Of.Kind == "way out" {
		return escapeLux
	}
	return pathLux
}

// tooLong is how much of a way may be dark, m: a step.
const tooLong = 0.3

var _ = yardRule("path-dark", Fix, "Part of a way that people walk is too dark to see one's feet.",
	func(w *work.Work, say func(Snag)) {
		y := w.Yard()
		for i := range y.Paths {
			p := &y.Paths[i]
			if p.Of.Kind == "street" || len(p.Through) < 2 {
				continue
			}
			dark, least := DarkOn(y, p)
			long := yard.Total(dark, p.Long()/120)
			if long < tooLong {
				continue
			}
			level, from := Mind, source.FromMemory("half a lux to see one's feet")
			if p.Of.Kind == "way out" {
				level, from = Fix, source.Std("EN 1838 4.2: 1 lx along the middle of an escape route")
			}
			say(Snag{Level: level, Place: "yard", At: []string{"walkway:" + p.Of.ID}, weight: long,
				Title: fmt.Sprintf("%s is dark for %s", p.Of.Name, w.Run(long*1000)),
				Why: fmt.Sprintf(
					"Under %g lx from %s along it, by the lamps that are set out. A low lamp aimed at the ground "+
						"lights feet and not faces. What your authority asks of ways out comes first.",
					least,
					w.Run(dark[0].From*1000),
				), From: []source.Source{from}, Mends: lit(w, y, p)})
		}
	})

// pathLamp is what a small lamp beside a path gives, lm, and how high it is, m (from memory).
const (
	pathLamp     = 100
	pathLampHigh = 0.6
)

// lit sets low lamps beside the darkest places of a way until none is too dark.
func lit(w *work.Work, y *work.Yard, p *work.Walked) []Mend {
	lamps := y.Lamps[:len(y.Lamps):len(y.Lamps)]
	var changes []plan.Change
	for n := 1; n <= 8; n++ {
		dark := yard.Dark(p.Path, lamps, y.Hides, leastOn(p), 120)
		if yard.Total(dark, p.Long()/120) < tooLong {
			break
		}
		at, way := p.At(dark[0].From + math.Min(1.5, (dark[0].To-dark[0].From)/2))
		at = at.Plus(yard.Pt{X: -way.Y, Y: way.X}.Times(p.Wide/2 + 0.3))
		x := plan.Fixture{
			Name:   fmt.Sprintf("Path lamp %d", len(w.Plan.Fixtures())+n),
			Use:    "practical",
			Lumens: pathLamp,
			X:      tape(w, at.X*1000),
			Y:      tape(w, at.Y*1000),
			High:   tape(w, pathLampHigh*1000),
		}
		x.ID = w.FreshID("fixture", x.Name)
		changes = append(changes, w.Plan.Put("fixture", x.ID, x))
		lamps = append(lamps, yard.Lamp{Spot: yard.Spot{Pt: yard.Pt{X: x.X.Value() / 1000, Y: x.Y.Value() / 1000},
			Z: x.High.Value() / 1000}, Lumens: float64(x.Lumens), Beam: 2 * math.Pi})
	}
	if len(changes) == 0 {
		return nil
	}
	label := words.Count(len(changes), "low lamp") + " of 100 lm beside it"
	return []Mend{{Label: label, Edit: plan.Edit{Label: label, Changes: changes}}}
}
