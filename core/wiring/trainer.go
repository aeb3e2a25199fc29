package wiring

import (
	"math/rand/v2"
	"slices"
	"sort"

	"zapbarn/core/circuit"
	"zapbarn/core/measure"
)

// Drill is one hidden fault to be found with a virtual meter. The same seed
// hides the same fault and gives the same readings.
type Drill struct {
	*FaultBench
	Seed  uint64
	Level int // 1 dead, reversed or open leads; 2 also open wires, fuses, supplies; 3 also bad joints
	truth int
}

// levelOf is from which level on a kind of fault is hidden.
var levelOf = map[string]int{
	"dead":     1,
	"reversed": 1,
	"lead":     1,
	"open":     2,
	"wrong":    2,
	"short":    2,
	"bad":      3,
	"weak":     3,
}

// NewDrill hides a fault in what a supply feeds.
func NewDrill(s Set, supply string, level int, seed uint64) (*Drill, error) {
	if level < 1 || level > 3 {
		return nil, measure.Bad("level", "%d; choose 1, 2 or 3", level)
	}
	d := s.Device(supply)
	if d == nil || !d.Is(Origin) {
		return nil, measure.Bad("supply", "there is no supply %q", supply)
	}
	s.Devices = slices.Clone(s.Devices)
	for i := range s.Devices { // only the hidden fault, none the plan has of its own
		s.Devices[i].Reversed = false
	}
	dr := &Drill{FaultBench: Suspects(s, supply), Seed: seed, Level: level}
	var can []int
	for i, f := range dr.Faults {
		if l := levelOf[kindOf(f.Group)]; l > 0 && l <= level {
			can = append(can, i)
		}
	}
	if len(can) == 0 {
		return nil, measure.Bad("supply", "%s feeds nothing a fault could hide in", d.Name)
	}
	dr.truth = can[rand.New(rand.NewPCG(seed, 77)).IntN(len(can))]
	return dr, nil
}

func kindOf(group string) string {
	for i := range group {
		if group[i] == ':' {
			return group[:i]
		}
	}
	return group
}

// Measure is what the meter shows at a device's own terminals, its error in it.
func (d *Drill) Measure(device string) (volts float64, ok bool) {
	k, ok := d.byID[device]
	if !ok {
		return 0, false
	}
	v := d.Reads(d.truth, k)
	m := circuit.HandMeter
	return v + rand.New(rand.NewPCG(d.Seed, uint64(k))).NormFloat64()*(m.Share*v+m.Volts)/1.5, true
}

// Lit is whether a lamp is seen lit; ok is false for what is no lamp.
func (d *Drill) Lit(device string) (lit, ok bool) {
	e, ok := d.loads[device]
	return ok && d.Glows(d.truth, e), ok
}

// Truth is the hidden fault: its group and in words.
func (d *Drill) Truth() (group, say string) {
	return d.Faults[d.truth].Group, d.Faults[d.truth].Say
}

// Best is how many readings the bench itself needs to be sure: it looks at the
// lamps, then always takes the reading that tells most.
func (d *Drill) Best() int {
	var seen []circuit.Seen
	for _, id := range d.Devices {
		if lit, ok := d.Lit(id); ok {
			s, _ := d.Light(id, lit)
			seen = append(seen, s)
		}
	}
	done := map[int]bool{}
	for _, k := range d.byFar { // the learner's board has no far ends to press
		done[k] = true
	}
	causes := d.Rank(seen, circuit.HandMeter)
	for n := 0; n < 12; n++ {
		k := d.Next(causes, circuit.HandMeter, done)
		if causes[0].Share > 0.95 || k < 0 {
			return n
		}
		done[k] = true
		v, _ := d.Measure(d.Devices[k])
		seen = append(seen, circuit.Seen{Probe: k, Value: v})
		causes = d.Rank(seen, circuit.HandMeter)
	}
	return 12
}

// Choices are the faults a learner can name, in words, by group.
func (d *Drill) Choices() (groups, says []string) {
	by := map[string]string{}
	for _, f := range d.Faults[1:] {
		if l := levelOf[kindOf(f.Group)]; l > 0 && l <= d.Level && by[f.Group] == "" {
			by[f.Group] = f.Say
			groups = append(groups, f.Group)
		}
	}
	sort.SliceStable(groups, func(i, j int) bool { return by[groups[i]] < by[groups[j]] })
	for _, g := range groups {
		says = append(says, by[g])
	}
	return
}

// Score is 0 for a wrong answer; for a right one 100, less what readings were
// taken beyond the best possible.
func Score(right bool, readings, best int) int {
	if !right {
		return 0
	}
	return min(100, 100*(best+1)/(readings+1))
}
