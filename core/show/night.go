package show

import (
	"math"
	"math/rand/v2"
	"slices"
	"sort"
)

// Night is an evening of guests in groups, drawn by seed.
type Night struct {
	Length int     // ms
	Groups int     // that come, evenly spread but for chance
	Size   int     // people in a group at most
	Speed  float64 // m/s at a walk
	Dwell  int     // ms a group stays before a prop that plays
	Stops  []Stop
	Seed   uint64
	Loads  []Load // for the energy
	Volts  map[string]float64
}

// Stop is an input that guests work as they come by.
type Stop struct {
	Input string
	Far   float64 // m along the path
	Held  int     // ms that a group works it
}

// Report is how the night went.
type Report struct {
	Groups  int
	Guests  int
	Props   []PropNight
	Longest int            // ms between two shows, whichever
	Cycles  map[string]int // of each mover, up and down again
	On      map[string]int // ms each channel was on
	Ah      map[string]float64
	Wh      map[string]float64
	Events  int
}

// PropNight is how one input's night went: of the groups that came by, for how many
// something began, who came while it still played for others, who found it resting.
type PropNight struct {
	Input   string
	Came    int
	Scared  int
	Shared  int // came while it played for the group before: saw its end, not its start
	Missed  int // came in its hold-off or rest: nothing
	Ignored int // closings that did not count
	Wait    int // ms, the longest between two starts
}

// Run plays the night through.
func (n Night) Run(m Machine) (Report, Trace) {
	rep := Report{Groups: n.Groups, Cycles: map[string]int{}, On: map[string]int{}, Ah: map[string]float64{},
		Wh: map[string]float64{}}
	stops := slices.Clone(n.Stops)
	sort.SliceStable(stops, func(i, j int) bool { return stops[i].Far < stops[j].Far })
	visits, stim, guests := n.walks(stops)
	rep.Guests = guests
	tr := m.Run(apartFrom(stim), n.Length+600_000)
	rep.Events = len(tr.Events)
	for i, s := range stops {
		pn := propNight(m, tr, s.Input, i, visits)
		rep.Longest = max(rep.Longest, pn.Wait)
		rep.Props = append(rep.Props, pn)
	}
	channels := compile(m).channels
	for _, c := range channels {
		for _, s := range tr.Spans(c.ID) {
			rep.On[c.ID] += s.To - s.From
		}
	}
	for _, v := range m.Movers {
		rep.Cycles[v.ID] = len(tr.Spans(v.Up))
	}
	for _, l := range n.Loads {
		hours := float64(n.Length) / 3.6e6
		ah := l.Rest * hours
		for _, c := range channels { // in an order of its own, so that sums are equal
			ah += l.Amps[c.ID] * float64(rep.On[c.ID]) / 3.6e6
		}
		rep.Ah[l.Supply], rep.Wh[l.Supply] = ah, ah*n.Volts[l.Supply]
	}
	return rep, tr
}

// visit is a group that comes to a stop at a time, ms.
type visit struct{ stop, at int }

// walks are the groups of a night: when each comes to each stop, what it sets off, and how
// many guests there are.
func (n Night) walks(stops []Stop) (visits []visit, stim []Stimulus, guests int) {
	rng := rand.New(rand.NewPCG(n.Seed, 0x2545f4914f6cdd1d))
	gap := float64(n.Length) / float64(max(1, n.Groups))
	for g := range n.Groups {
		t := int((float64(g) + 0.2 + 0.6*rng.Float64()) * gap)
		size := 1 + rng.IntN(max(1, n.Size))
		guests += size
		speed := n.Speed * (0.75 + 0.5*rng.Float64())
		far := 0.0
		for i, s := range stops {
			t += int((s.Far - far) / math.Max(0.1, speed) * 1000)
			far = s.Far
			visits = append(visits, visit{i, t})
			at := t
			for range size { // one after the other crosses it
				stim = append(stim, Press(s.Input, at, max(40, s.Held))...)
				at += max(40, s.Held) + 200 + rng.IntN(900)
			}
			t += n.Dwell/2 + rng.IntN(max(1, n.Dwell))
		}
	}
	return visits, stim, guests
}

// propNight is what an input's scenes did for the groups that came to its stop.
func propNight(m Machine, tr Trace, input string, stop int, visits []visit) PropNight {
	pn := PropNight{Input: input}
	var starts, ends []int
	mine := map[string]bool{}
	for _, t := range m.Triggers {
		if t.Input == input {
			mine[t.Scene] = true
		}
	}
	for _, e := range tr.Events {
		switch {
		case e.What == "start" && mine[e.Who]:
			starts = append(starts, e.At)
		case e.What == "end" && mine[e.Who]:
			ends = append(ends, e.At)
		case e.What == "ignored" && e.Who == input:
			pn.Ignored++
		}
	}
	for _, v := range visits {
		if v.stop != stop {
			continue
		}
		pn.Came++
		k := sort.SearchInts(starts, v.at) // the first that began since they came
		switch {
		case k < len(starts) && starts[k] <= v.at+2000:
			pn.Scared++
		case k > 0 && (k > len(ends) || ends[k-1] > v.at):
			pn.Shared++
		default:
			pn.Missed++
		}
	}
	for k := 1; k < len(starts); k++ {
		pn.Wait = max(pn.Wait, starts[k]-starts[k-1])
	}
	return pn
}

// apartFrom puts stimuli in order and joins presses of one input that overlap: two
// groups on one mat are one contact.
func apartFrom(stim []Stimulus) []Stimulus {
	sort.SliceStable(stim, func(i, j int) bool { return stim[i].At < stim[j].At })
	held := map[string]int{}
	out := stim[:0:0]
	for _, s := range stim {
		was := held[s.Input]
		if s.Down {
			held[s.Input]++
		} else {
			held[s.Input]--
		}
		if (was > 0) != (held[s.Input] > 0) {
			out = append(out, s)
		}
	}
	return out
}
