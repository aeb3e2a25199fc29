package calendar

import (
	"math/rand/v2"
	"slices"
	"testing"

	"github.com/stretchr/testify/require"
)

// What was booked is taken back in one go, to just what was busy before.
func TestBookingsAreTakenBack(t *testing.T) {
	day := func(n int) Span { return Span{n*Day + 9*60, n*Day + 17*60} }
	var there []Span
	for n := range 5 {
		there = append(there, day(n))
	}
	p := Problem{Crew: []Person{{There: there}, {There: there}}, Tasks: []Task{{Work: 10, Tool: "saw"}}}
	r := rand.New(rand.NewPCG(3, 3))
	for range 200 {
		b := newBoard(p)
		free := func() (who int, s Span) { // a time at which somebody is not busy
			for {
				who, s = r.IntN(len(b.busy)), Span{r.IntN(5) * Day, 0}
				s.Start += 9*60 + 15*r.IntN(32)
				s.End = s.Start + 15*r.IntN(9)
				if !slices.ContainsFunc(
					b.busy[who],
					func(o Span) bool { return o.Start < s.End && s.Start < o.End },
				) {
					return who, s
				}
			}
		}
		var states [][][]Span
		var logs []int
		for range 40 {
			var now [][]Span
			for _, list := range b.busy {
				now = append(now, slices.Clone(list))
			}
			states, logs = append(states, now), append(logs, len(b.log))
			b.book(free())
		}
		for len(states) > 0 {
			k := r.IntN(len(states))
			b.undo(logs[k])
			for who, list := range states[k] {
				require.True(t, slices.Equal(list, b.busy[who]), "%v\n%v", list, b.busy[who])
			}
			states, logs = states[:k], logs[:k]
		}
	}
}

// Where a window closes, all is taken back to what it is counted from: nobody stays busy
// with what was taken back.
func TestNobodyIsBusyWithWhatWasTakenBack(t *testing.T) {
	there := []Span{{0, 2000}}
	p := Problem{Crew: []Person{{There: there}}, Tasks: []Task{
		{Work: 10},               // 0: glue
		{Work: 100}, {Work: 100}, // 1, 2: something else
		{Work: 10, After: []int{0}, Within: []Window{{After: 0, Minutes: 20}}}, // 3: press it soon after
	}}
	b := newBoard(p)
	s, held := b.apart([]int{0, 1, 2, 3})
	require.True(t, held)
	require.Equal(t, 280, s.End, "the glue waits until what stands in its way is done: %v", s.Slots)
}
