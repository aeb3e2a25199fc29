package bond

import (
	"fmt"
	"math"

	"zapbarn/core/source"
	"zapbarn/core/stock"
)

// Layer is one product of a stack and how many coats of it.
type Layer struct {
	Coat  stock.Coat
	Coats int
}

// Stack is the coats on a part, from the surface up.
type Stack struct {
	On       stock.Material
	Layers   []Layer
	OnFoam   bool // already joined to a foam that heat melts
	Outdoors bool
	Lit      bool    // light must pass
	Area     float64 // m2
	Temp, RH float64
}

// Finish is the judged stack.
type Finish struct {
	Verdict  Verdict
	Reasons  []Reason
	Waits    []float64 // seconds after each layer's last coat before the next
	Between  []float64 // seconds between coats of each layer
	Total    float64   // seconds of waiting until it can be handled
	Litres   []float64 // of each layer
	Cautions []string
	Working  []source.Step
}

// Coats judges a stack layer by layer against what lies under each.
func Coats(s Stack) Finish {
	var f Finish
	say := func(layer int, code string, v Verdict, format string, args ...any) {
		f.Reasons = append(f.Reasons, Reason{code, v, fmt.Sprintf(format, args...), layer, trade})
		f.Verdict = max(f.Verdict, v)
	}
	barrier, sealed, under, thirsty := 0.0, false, "", false
	for i, l := range s.Layers {
		c, n := l.Coat, max(1, l.Coats)
		foamy := s.On.Foam() || s.On.Solvent == "core"
		switch {
		case c.Carrier == "solvent" && foamy && barrier < 1-1e-9:
			if barrier == 0 {
				say(
					i,
					"solvent-on-bare-foam",
					No,
					"%s dissolves bare %s; put a barrier under it, edges included",
					c.Name,
					s.On.Name,
				)
			} else {
				say(i, "solvent-on-bare-foam", No, "the barrier under %s is only %.0f %% of what keeps a solvent out", c.Name,
					100*barrier)
			}
		case c.Carrier == "solvent" && foamy:
			say(
				i,
				"pinholes",
				Works,
				"%s over foam: hold a light to the barrier first, one pinhole lets the solvent through",
				c.Name,
			)
		}
		if c.Heat > 0 && s.On.Foam() {
			say(i, "heat-on-foam", No, "%s melts %s (softens at %.0f C)", c.Name, s.On.Name, s.On.Softens)
		} else if c.Heat > 0 && s.OnFoam {
			say(i, "heat-near-foam", No, "%s: the part is already joined to foam that melts near 75 C; heat-seal before joining",
				c.Name)
		}
		if c.Glaze && (under == "gloss" || under == "satin") {
			say(
				i,
				"glaze-beads",
				TestFirst,
				"%s beads on a %s coat; matte it with a clear coat or scuff first",
				c.Name,
				under,
			)
		}
		if c.Carrier == "solvent" && i > 0 && s.Layers[i-1].Coat.Carrier == "water" &&
			s.Layers[i-1].Coat.Role == "colour" {
			say(
				i,
				"wrinkles",
				TestFirst,
				"solvent over %s wrinkles it unless it has cured %s",
				s.Layers[i-1].Coat.Name,
				s.Layers[i-1].Coat.Full,
			)
		}
		if s.On.Flexible && !c.Flexible {
			say(i, "cracks-on-flex", TestFirst, "%s is hard and cracks when %s bends", c.Name, s.On.Name)
		}
		if s.On.Flexible && !sealed && c.Role != "seal" {
			say(i, "flex-unsealed", TestFirst, "%s drinks paint: heat-seal, then a flexible sealer first", s.On.Name)
			sealed = true
		}
		if s.Lit && !c.Translucent && s.On.Clear {
			say(i, "blocks-light", No, "%s is opaque: no light passes this lit part", c.Name)
		}
		if c.Coats > n {
			say(i, "too-few-coats", TestFirst, "%s wants %d thin coats, %d planned", c.Name, c.Coats, n)
		}
		if s.Temp < c.MinTemp {
			say(i, "too-cold", No, "%s: %.0f C is below its least %.0f C", c.Name, s.Temp, c.MinTemp)
		}
		barrier += c.Barrier * float64(n)
		sealed = sealed || c.Role == "seal"
		under = c.Finish
		factor, steps := waitFactor("", c.Carrier, s.Temp, s.RH)
		if f.Working == nil {
			f.Working = steps
		}
		wait := c.Recoat.Value() * factor
		last := wait
		if i == len(s.Layers)-1 {
			last = math.Max(wait, c.Handling.Value()*factor)
		}
		f.Waits, f.Between = append(f.Waits, last), append(f.Between, wait)
		f.Total += wait*float64(n-1) + last
		litres := 0.0
		if c.Coverage > 0 {
			litres = s.Area * float64(n) / c.Coverage
			if thirsty { // a first coat over masonry sealer covers half
				litres += s.Area / c.Coverage
			}
		}
		thirsty = c.Thirsty
		f.Litres = append(f.Litres, litres)
		for _, w := range c.Cautions {
			if !contains(f.Cautions, w) {
				f.Cautions = append(f.Cautions, w)
			}
		}
	}
	if k := len(s.Layers) - 1; k >= 0 && s.Outdoors && !s.Layers[k].Coat.Outdoor {
		say(
			k,
			"not-outdoor",
			TestFirst,
			"the last coat, %s, is not for outdoors; add an exterior clear or paint",
			s.Layers[k].Coat.Name,
		)
	}
	return f
}
