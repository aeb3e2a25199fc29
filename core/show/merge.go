package show

import (
	"fmt"
	"sort"
)

// Rule says how one piece goes on a time line with another.
type Rule string

// The rules.
const (
	Wins    Rule = "wins"    // where both want a channel, the second has it and the first is silent there
	Follows Rule = "follows" // the second begins when the first is over
	Waits   Rule = "waits"   // the second begins as soon as none of its channels is wanted by the first any more
)

// Rules lists them.
var Rules = []Rule{Wins, Follows, Waits}

// Merge puts two pieces on one time line by a rule. No channel is wanted twice at a time
// by what comes out, and nothing of the second is lost; of the first only what the second
// wins.
func Merge(a, b Scene, rule Rule) (Scene, error) {
	out := Scene{ID: a.ID}
	shift := 0
	switch rule {
	case Wins:
	case Follows:
		shift = a.Duration()
	case Waits:
		for _, q := range b.Cues {
			for _, p := range a.Cues {
				if p.Channel == q.Channel {
					shift = max(shift, p.Start+p.Length)
				}
			}
		}
	default:
		return out, fmt.Errorf("%q is no rule; choose wins, follows or waits", rule)
	}
	for _, p := range a.Cues {
		left := []Cue{p}
		if rule == Wins {
			for _, q := range b.Cues {
				if q.Channel == p.Channel {
					left = without(left, q.Start, q.Start+q.Length)
				}
			}
		}
		out.Cues = append(out.Cues, left...)
	}
	for _, q := range b.Cues {
		q.Start += shift
		out.Cues = append(out.Cues, q)
	}
	sort.SliceStable(out.Cues, func(i, j int) bool { return out.Cues[i].Start < out.Cues[j].Start })
	if end := max(a.Duration(), b.Duration()+shift); end > out.Duration() {
		out.Length = end
	}
	return out, nil
}

// without are cues with a stretch of time taken out of them.
func without(cues []Cue, from, to int) (out []Cue) {
	for _, c := range cues {
		end := c.Start + c.Length
		if end <= from || c.Start >= to {
			out = append(out, c)
			continue
		}
		if c.Start < from {
			head := c
			head.Length = from - c.Start
			out = append(out, head)
		}
		if end > to {
			tail := c
			tail.Start, tail.Length = to, end-to
			out = append(out, tail)
		}
	}
	return out
}

// Perform is a channel that follows a curve of levels, 0 to 1, over a time in ms: a jaw
// that moves as a voice sounds, a hand that was recorded. Cues of one level, none shorter
// than step, those below least left out.
func Perform(channel string, curve []float64, long, step int, least float64) (out []Cue) {
	if len(curve) == 0 || long <= 0 || step <= 0 {
		return nil
	}
	for at := 0; at < long; at += step {
		end := min(at+step, long)
		lo, hi := at*len(curve)/long, max(at*len(curve)/long+1, end*len(curve)/long)
		most := 0.0
		for _, v := range curve[lo:min(hi, len(curve))] {
			most = max(most, v)
		}
		level := min(100, int(most*10+0.5)*10) // tenths: what an eye tells apart
		if most < least || level == 0 {
			continue
		}
		if n := len(out); n > 0 && out[n-1].Level == level && out[n-1].Start+out[n-1].Length == at {
			out[n-1].Length += end - at
			continue
		}
		out = append(out, Cue{Channel: channel, Start: at, Length: end - at, Level: level})
	}
	return out
}
