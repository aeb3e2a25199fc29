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
	f := &stacked{Stack: s}
	for i := range s.Layers {
		f.solvent(i)
		f.surface(i)
		f.light(i)
		f.dries(i)
		c, n := s.Layers[i].Coat, float64(max(1, s.Layers[i].Coats))
		f.barrier += c.Barrier * n
		f.sealed = f.sealed || c.Role == "seal"
		f.under, f.thirsty = c.Finish, c.Thirsty
		for _, w := range c.Cautions {
			if !contains(f.Cautions, w) {
				f.Cautions = append(f.Cautions, w)
			}
		}
	}
	if k := len(s.Layers) - 1; k >= 0 && s.Outdoors && !s.Layers[k].Coat.Outdoor {
		f.say(k, "not-outdoor", TestFirst, "the last coat, %s, is not for outdoors; add an exterior clear or paint",
			s.Layers[k].Coat.Name)
	}
	return f.Finish
}

// stacked is a stack being judged, with what lies under the layer at hand.
type stacked struct {
	Stack
	Finish
	barrier float64 // of what keeps a solvent out, so far
	sealed  bool
	under   string // the finish of the layer below
	thirsty bool   // that one drinks the next
}

func (f *stacked) say(layer int, code string, v Verdict, format string, args ...any) {
	f.Reasons = append(f.Reasons, Reason{code, v, fmt.Sprintf(format, args...), layer, trade})
	f.Verdict = max(f.Verdict, v)
}

// solvent is what a layer's carrier does to what is under it.
func (f *stacked) solvent(i int) {
	c, on := f.Layers[i].Coat, f.On
	if c.Carrier != "solvent" {
		return
	}
	switch foamy := on.Foam() || on.Solvent == "core"; {
	case foamy && f.barrier == 0:
		f.say(i, "solvent-on-bare-foam", No, "%s dissolves bare %s; put a barrier under it, edges included", c.Name, on.Name)
	case foamy && f.barrier < 1-1e-9:
		f.say(i, "solvent-on-bare-foam", No, "the barrier under %s is only %.0f %% of what keeps a solvent out", c.Name,
			100*f.barrier)
	case foamy:
		f.say(i, "pinholes", Works, "%s over foam: hold a light to the barrier first, one pinhole lets the solvent through",
			c.Name)
	}
	if i > 0 && f.Layers[i-1].Coat.Carrier == "water" && f.Layers[i-1].Coat.Role == "colour" {
		f.say(i, "wrinkles", TestFirst, "solvent over %s wrinkles it unless it has cured %s", f.Layers[i-1].Coat.Name,
			f.Layers[i-1].Coat.Full)
	}
}

// surface is whether a layer holds on what is under it.
func (f *stacked) surface(i int) {
	c := f.Layers[i].Coat
	if c.Heat > 0 && f.On.Foam() {
		f.say(i, "heat-on-foam", No, "%s melts %s (softens at %.0f C)", c.Name, f.On.Name, f.On.Softens)
	} else if c.Heat > 0 && f.OnFoam {
		f.say(i, "heat-near-foam", No,
			"%s: the part is already joined to foam that melts near 75 C; heat-seal before joining",
			c.Name)
	}
	if c.Glaze && (f.under == "gloss" || f.under == "satin") {
		f.say(i, "glaze-beads", TestFirst, "%s beads on a %s coat; matte it with a clear coat or scuff first",
			c.Name, f.under)
	}
	if f.On.Flexible && !c.Flexible {
		f.say(i, "cracks-on-flex", TestFirst, "%s is hard and cracks when %s bends", c.Name, f.On.Name)
	}
	if f.On.Flexible && !f.sealed && c.Role != "seal" {
		f.say(i, "flex-unsealed", TestFirst, "%s drinks paint: heat-seal, then a flexible sealer first", f.On.Name)
		f.sealed = true
	}
}

// light is whether light passes, whether there are coats enough, and whether it is warm enough.
func (f *stacked) light(i int) {
	c, n := f.Layers[i].Coat, max(1, f.Layers[i].Coats)
	if f.Lit && !c.Translucent && f.On.Clear {
		f.say(i, "blocks-light", No, "%s is opaque: no light passes this lit part", c.Name)
	}
	if c.Coats > n {
		f.say(i, "too-few-coats", TestFirst, "%s wants %d thin coats, %d planned", c.Name, c.Coats, n)
	}
	if f.Temp < c.MinTemp {
		f.say(i, "too-cold", No, "%s: %.0f C is below its least %.0f C", c.Name, f.Temp, c.MinTemp)
	}
}

// dries keeps how long a layer's coats wait, and how much they take.
func (f *stacked) dries(i int) {
	c, n := f.Layers[i].Coat, float64(max(1, f.Layers[i].Coats))
	factor, steps := waitFactor("", c.Carrier, f.Temp, f.RH)
	if f.Working == nil {
		f.Working = steps
	}
	wait := c.Recoat.Value() * factor
	last := wait
	if i == len(f.Layers)-1 {
		last = math.Max(wait, c.Handling.Value()*factor)
	}
	f.Waits, f.Between = append(f.Waits, last), append(f.Between, wait)
	f.Total += wait*(n-1) + last
	litres := 0.0
	if c.Coverage > 0 {
		litres = f.Area * n / c.Coverage
		if f.thirsty { // a first coat over masonry sealer covers half
			litres += f.Area / c.Coverage
		}
	}
	f.Litres = append(f.Litres, litres)
}
