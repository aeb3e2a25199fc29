package calendar

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

// By hand: 10 hours of drying from noon on a day that is twice as slow: 12 hours dry 6 of them,
// the next day, half as long, the other 4 in 2.
func TestDryingOverMidnight(t *testing.T) {
	d := Drying{600, []float64{2, .5}}
	assert.Equal(t, 14*60, d.From(12*60))
	assert.Equal(t, 300, d.From(Day), "all on the fast day")
	assert.Equal(t, 600, d.From(2*Day), "beyond what is foreseen as planned")
	assert.Equal(t, 600, d.From(-3*Day), "and before it")
	assert.Equal(t, 300, d.least())
	assert.Zero(t, Drying{}.From(5))
	x := Task{Wait: 700, Drying: []Drying{d, {610, nil}}}
	assert.Equal(t, 610, x.WaitFrom(Day), "the slower of two")
	assert.Equal(t, 700, Task{Wait: 700}.WaitFrom(Day))
}

// Minute by minute: a share of the wait dries in each minute by its day's air.
func TestEveryWaitIsThatOfItsOwnHours(t *testing.T) {
	minutely := func(d Drying, at int) int {
		left := d.Wait
		for n := 0; ; n++ {
			if left <= 1e-9 {
				return n
			}
			left -= 1 / d.slow(int(math.Floor(float64(at+n)/Day)))
		}
	}
	rapid.Check(t, func(t *rapid.T) {
		days := rapid.SliceOfN(rapid.Float64Range(.5, 6), 0, 9).Draw(t, "air")
		var p Problem
		for k := range rapid.IntRange(1, 3).Draw(t, "crew") {
			who := Person{}
			for d := range 60 {
				who.There = append(who.There, Span{d*Day + (9+3*k)*60, d*Day + (13+3*k)*60})
			}
			p.Crew = append(p.Crew, who)
		}
		for i := range rapid.IntRange(2, 9).Draw(t, "tasks") {
			x := Task{Work: rapid.IntRange(1, 200).Draw(t, "work"), Wait: 30}
			for range rapid.IntRange(0, 2).Draw(t, "waits") {
				x.Drying = append(x.Drying, Drying{rapid.Float64Range(0, 2000).Draw(t, "wait"), days})
			}
			for a := range i {
				if rapid.IntRange(0, 2).Draw(t, "after") == 0 {
					x.After = append(x.After, a)
				}
			}
			p.Tasks = append(p.Tasks, x)
		}
		s := NewSearch(p, 1).Run(20)
		latest := Latest(p, s)
		require.GreaterOrEqual(t, s.End, s.Bound)
		for i, x := range s.Slots {
			require.True(t, x.Placed())
			want := 0
			for _, d := range p.Tasks[i].Drying {
				want = max(want, minutely(d, x.End()))
			}
			if len(p.Tasks[i].Drying) == 0 {
				want = 30
			}
			require.InDelta(t, want, x.Free-x.End(), 1)
			for _, a := range p.Tasks[i].After {
				require.GreaterOrEqual(t, x.Start(), s.Slots[a].Free)
			}
			require.GreaterOrEqual(t, latest[i], x.Start(), "it may begin when it does")
			// what begins to dry later is never dry before
			require.LessOrEqual(t, x.End()+p.Tasks[i].WaitFrom(x.End()), x.End()+61+p.Tasks[i].WaitFrom(x.End()+61))
		}
	})
}

// Nothing is begun for less than it is worth: ten minutes before somebody leaves a task of an
// hour that wants thirty is left for the next day; its rest may be shorter; one that is shorter
// than that altogether is done.
func TestNothingIsBegunForTooLittle(t *testing.T) {
	there := []Span{{0, 10}, {Day, Day + 45}, {2 * Day, 2*Day + 60}}
	p := Problem{Crew: []Person{{There: there}}, Tasks: []Task{{Work: 60, Least: 30}}}
	s := NewSearch(p, 1).Run(10)
	assert.Equal(t, []Span{{Day, Day + 45}, {2 * Day, 2*Day + 15}}, s.Slots[0].Pieces)
	assert.Equal(t, []int{Day}, Latest(p, s))
	p.Tasks[0].Least = 0
	assert.Equal(t, 0, NewSearch(p, 1).Run(10).Slots[0].Start())
	p.Tasks[0] = Task{Work: 8, Least: 30}
	assert.Equal(t, []Span{{0, 8}}, NewSearch(p, 1).Run(10).Slots[0].Pieces)
}
