// Package bond judges what holds on what: a glue between a pair of materials,
// and a stack of coats from the surface up. Verdicts are derived from the
// properties of both, rule by rule; there is no table of pairs.
package bond

import (
	"fmt"
	"math"
	"sort"

	"zapbarn/core/measure"
	"zapbarn/core/source"
	"zapbarn/core/stock"
)

// Verdict is how far a joint or coat can be trusted.
type Verdict int

// The verdicts, best first.
const (
	Good Verdict = iota
	Works
	TestFirst
	No
)

func (v Verdict) String() string {
	return [...]string{"good", "works", "test on scrap first", "no"}[v]
}

// Reason is one rule that spoke.
type Reason struct {
	Code    string // stable: solvent-on-foam, closed-faces, ...
	Verdict Verdict
	Text    string
	Layer   int // of a coat stack, from 0; -1 for a joint
	From    source.Source
}

// Joint is a glue between two faces.
type Joint struct {
	A, B   stock.Material
	Glue   stock.Glue
	Age    float64 // seconds since opened; 0 is unknown or new
	Temp   float64 // Celsius
	RH     float64 // per cent
	Sun    bool    // the prop stands in sun or a hot car
	Strain bool    // the seam is bent or pulled
	Apart  bool    // it must come off again: a lid, a battery door, a head, a switch that is turned
}

// Advice is the verdict with all a builder needs to act on it.
type Advice struct {
	Verdict  Verdict
	Reasons  []Reason
	Open     float64 // seconds, as are the rest
	Clamp    float64
	Handling float64
	Full     float64
	Prep     []string
	Cautions []string
	Undo     string
	Working  []source.Step
}

var trade = source.FromTrade("")

// Judge gives the verdict on a joint: the worst of all rules that apply.
func Judge(j Joint) Advice {
	v := &verdicts{Joint: j}
	v.apart()
	for i, m := range []stock.Material{j.A, j.B} {
		if i == 1 && j.A.ID == j.B.ID {
			break
		}
		v.solvents(m)
		v.heat(m)
		v.grip(m)
	}
	v.together()
	v.aged()
	a, g := v.Advice, j.Glue
	if a.Verdict == Good && len(a.Reasons) == 0 {
		v.say("fits", Good, "nothing about %s speaks against it on %s and %s", g.Name, j.A.Name, j.B.Name)
		a = v.Advice
	}
	sort.SliceStable(a.Reasons, func(x, y int) bool { return a.Reasons[x].Verdict > a.Reasons[y].Verdict })
	a.Open, a.Clamp, a.Handling, a.Full = g.Open.Value(), g.Clamp.Value(), g.Handling.Value(), g.Full.Value()
	f, steps := waitFactor(g.Cure, g.Carrier, j.Temp, j.RH)
	a.Clamp, a.Handling, a.Full, a.Working = a.Clamp*f, a.Handling*f, a.Full*f, steps
	a.Prep, a.Undo = g.Prep, g.Undo
	a.Cautions = append(append([]string(nil), g.Cautions...), "read the product's own data sheet")
	return a
}

// verdicts is a joint being judged.
type verdicts struct {
	Joint
	Advice
}

func (v *verdicts) say(code string, is Verdict, format string, args ...any) {
	v.Reasons = append(v.Reasons, Reason{code, is, fmt.Sprintf(format, args...), -1, trade})
	v.Verdict = max(v.Verdict, is)
}

// apart is what must come off again, or turn.
func (v *verdicts) apart() {
	if !v.Apart {
		return
	}
	switch g := v.Glue; g.Cure {
	case "mechanical":
	case "melt", "tape":
		v.say("must-come-apart", TestFirst, "%s lets go again (%s), but not often: screws, ties or magnets do",
			g.Name, g.Undo)
	default:
		v.say("must-come-apart", No, "this must come apart, or turn, and %s holds for good (%s)", g.Name, g.Undo)
	}
}

// solvents is what the glue's carrier does to one of the two.
func (v *verdicts) solvents(m stock.Material) {
	g := v.Glue
	if g.Carrier == "solvent" && (m.Foam() || m.Solvent == "core") {
		what := m.Name
		if m.Solvent == "core" {
			what = "the core of " + m.Name
		}
		v.say("solvent-on-foam", No, "the solvent in %s dissolves %s", g.Name, what)
	}
	if g.FoamUnsafe && m.Foam() {
		v.say("solvent-on-foam", No, "%s attacks %s; use the foam-safe kind", g.Name, m.Name)
	}
	if g.Carrier == "solvent" && m.Solvent == "crazes" {
		v.say("crazes", TestFirst, "the solvent in %s can craze %s", g.Name, m.Name)
	}
}

// heat is what a glue that goes on hot does to one of the two.
func (v *verdicts) heat(m stock.Material) {
	g := v.Glue
	if g.Hot > 0 && m.Softens > 0 && m.Thin && g.Hot > m.Softens {
		v.say("heat-on-thin", No,
			"%s goes on at about %.0f C; %s softens at %.0f C and its wall is too thin to take the heat",
			g.Name, g.Hot, m.Name, m.Softens)
	} else if g.Hot > 150 && m.Foam() {
		v.say("heat-on-foam", No, "%s at %.0f C melts a hollow into %s (softens at %.0f C); low-melt holds", g.Name,
			g.Hot, m.Name, m.Softens)
	}
	if g.Hot > 0 && m.Conducts {
		v.say("metal-drains-heat", Works, "%s drains the heat: warm it, or put the glue on the other side first", m.Name)
	}
}

// grip is whether the glue holds on one of the two, and leaves it as it was.
func (v *verdicts) grip(m stock.Material) {
	g := v.Glue
	if m.LowE && !g.LowOK {
		v.say("low-energy", No, "%s is a polyolefin: hardly any glue holds on it; use ties, rivets or double tape", m.Name)
	}
	if smooth(m) && g.Carrier == "water" {
		v.say("no-grip", TestFirst, "%s hardly grips a face as smooth as %s", g.Name, m.Name)
	}
	if g.Fogs && m.Clear {
		v.say("fogs-clear", TestFirst, "%s leaves a white haze on %s", g.Name, m.Name)
	}
	if g.Brittle && m.Flexible {
		v.say("brittle-on-flex", TestFirst, "%s sets brittle and cracks where %s bends", g.Name, m.Name)
	}
	if len(g.Only) > 0 && !contains(g.Only, m.Family) {
		v.say("wrong-family", No, "%s welds %s only, not %s", g.Name, g.Only[0], m.Name)
	}
}

// together is whether it can cure between the two.
func (v *verdicts) together() {
	g := v.Glue
	if g.Cure == "evaporates" && !g.Contact && !v.A.Breathes && !v.B.Breathes {
		v.say("closed-faces", No, "%s dries only through a face that breathes; between %s and %s it stays wet for days",
			g.Name, v.A.Name, v.B.Name)
	}
	if g.Cure == "moisture" && !v.A.Breathes && !v.B.Breathes {
		v.say("mist-one-face", Good, "cures from moisture: mist one face, since neither breathes")
	}
}

// aged is what the bottle's age, the air and the place say.
func (v *verdicts) aged() {
	g := v.Glue
	if !g.Shelf.IsZero() && v.Age > g.Shelf.Value() {
		is := TestFirst
		if v.Age > 1.5*g.Shelf.Value() {
			is = No
		}
		v.say("past-date", is, "opened %s ago, keeps about %s. Test: %s", measure.Span(v.Age), g.Shelf, g.Test)
	}
	if v.Temp < g.MinTemp {
		v.say("too-cold", No, "%.0f C is below its least %.0f C", v.Temp, g.MinTemp)
	}
	if g.Creeps > 0 && v.Sun {
		v.say("creeps-in-heat", TestFirst, "softens again from about %.0f C: a hot car or sun lets go", g.Creeps)
	}
	if g.Brittle && v.Strain {
		v.say("brittle-in-strain", TestFirst, "sets brittle: cracks in a bent or pulled seam")
	}
	if g.NoPaint {
		v.say("unpaintable", Works, "paint does not stick to it")
	}
}

func contains(list []string, s string) bool {
	for _, x := range list {
		if x == s {
			return true
		}
	}
	return false
}

// Suggest ranks the glues that would do for the same joint, best first: by
// verdict, then by handling time.
func Suggest(j Joint, glues map[string]stock.Glue) []stock.Glue {
	type scored struct {
		g stock.Glue
		a Advice
	}
	var ok []scored
	for _, id := range stock.IDs(glues) {
		k := j
		k.Glue, k.Age = glues[id], 0
		if k.Glue.Cure == "mechanical" || k.Glue.Cure == "tape" && !j.A.LowE && !j.B.LowE || k.Glue.NoPaint ||
			k.Glue.ID == "caulk" {
			continue
		}
		if a := Judge(k); a.Verdict <= Works {
			ok = append(ok, scored{k.Glue, a})
		}
	}
	sort.SliceStable(ok, func(i, k int) bool {
		if ok[i].a.Verdict != ok[k].a.Verdict {
			return ok[i].a.Verdict < ok[k].a.Verdict
		}
		if a, b := burden(ok[i].g, j), burden(ok[k].g, j); a != b {
			return a < b
		}
		return ok[i].a.Handling < ok[k].a.Handling
	})
	out := make([]stock.Glue, len(ok))
	for i := range ok {
		out[i] = ok[i].g
	}
	return out
}

// burden ranks what a glue makes harder on a seam: brittle worst, then one that
// softens again, then one with less than ten minutes to place the parts.
func burden(g stock.Glue, j Joint) int {
	switch {
	case g.Brittle:
		return 3
	case g.Creeps > 0:
		return 2
	case g.Open.Value() < 600 && !g.Contact:
		return 1
	case g.Contact && !j.A.Flexible && !j.B.Flexible:
		return 1
	}
	return 0
}

// smooth reports a closed, glassy face that water glue hardly wets.
func smooth(m stock.Material) bool {
	return m.Clear || m.Family == "pvc" || m.Family == "steel"
}

// SaturationPressure of water in hPa at t Celsius, by Magnus' formula.
// Source: Alduchov and Eskridge 1996: 6.1094 exp(17.625 t/(t + 243.04)).
func SaturationPressure(t float64) float64 { return 6.1094 * math.Exp(17.625*t/(t+243.04)) }

// DryFactor is how many times longer a waterborne wait takes than at 21 C and
// 50 %: the ratio of vapour pressure deficits, held between 0.5 and 6.
func DryFactor(t, rh float64) float64 {
	deficit := func(t, rh float64) float64 { return SaturationPressure(t) * (1 - rh/100) }
	d := deficit(t, rh)
	if d <= 0 {
		return 6
	}
	return math.Min(6, math.Max(0.5, deficit(21, 50)/d))
}

// ColdFactor is how many times longer a two-part cure takes than at 21 C:
// double per 10 C colder (common practice, no source), never below 0.5.
func ColdFactor(t float64) float64 { return math.Max(0.5, math.Exp2((21-t)/10)) }

// WaitFactor is how many times longer a product waits in some air than at 21 C and 50 %.
func WaitFactor(cure, carrier string, t, rh float64) float64 {
	f, _ := waitFactor(cure, carrier, t, rh)
	return f
}

func waitFactor(cure, carrier string, t, rh float64) (float64, []source.Step) {
	switch {
	case cure == "twopart":
		f := ColdFactor(t)
		return f, []source.Step{
			{
				Formula: "wait x 2^((21 C - T)/10)",
				Numbers: fmt.Sprintf("2^((21 - %.0f)/10)", t),
				Value:   fmt.Sprintf("x %.2f", f),
				Sources: []source.Source{source.FromTrade("two-part cures double per 10 C colder")},
			},
		}
	case carrier == "water":
		f := DryFactor(t, rh)
		return f, []source.Step{
			{
				Formula: "wait x VPD(21 C, 50 %) / VPD(T, RH), 0.5 to 6",
				Numbers: fmt.Sprintf(
					"%.1f hPa / %.1f hPa",
					SaturationPressure(21)/2,
					SaturationPressure(t)*(1-rh/100),
				),
				Value: fmt.Sprintf("x %.2f", f),
				Sources: []source.Source{
					source.Std("Alduchov and Eskridge 1996, Magnus formula"),
					source.FromTrade("waterborne waits follow the drying power of the air"),
				},
			},
		}
	}
	return 1, nil
}
