package plan

import (
	"encoding/json"
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

func raw(v any) json.RawMessage {
	b, err := json.Marshal(v)
	if err != nil {
		panic(err)
	}
	return b
}

// everyLine knows every line of every night.
func everyLine(_, _ string) bool { return true }

// Ticks of lines that are on no list are left out and named; two thousand of them, and two
// thousand that are, cost no more than what they hold.
func TestLinesThatAreOnNoList(t *testing.T) {
	sent := make([]Sent, MaxSent)
	for i := range sent {
		sent[i] = Sent{Kind: "ticked", Value: raw(Ticked{On: "2026-10-09", Line: fmt.Sprint("open:", i), By: "Ola"})}
	}
	p := book()
	got, err := p.Merge(sent, func(on, line string) bool { return on == "2026-10-09" && line == "open:7" })
	require.NoError(t, err)
	require.Len(t, got.Edit.Changes, 1)
	assert.Len(t, got.Left, MaxSent-1)
	assert.Equal(t, "2026-10-09 open:0", got.Left[0])
	per := testing.AllocsPerRun(1, func() {
		_, err = p.Merge(sent, everyLine)
	})
	require.NoError(t, err)
	assert.Less(t, per, 200.0*MaxSent, "each entry is looked at once")
	_, err = p.Merge(append(sent, sent[0]), everyLine)
	assert.ErrorContains(t, err, "2001 entries at once")
}

func book() *Plan {
	p := New("x", "X", "in", "")
	p.doc.Props = []Prop{{ID: "a", Name: "A"}}
	p.doc.NightBook = []Night{{ID: "n", On: "2026-10-09", Guests: 100, Weather: "dry"}}
	return p
}

// Two phones that were out of reach come back: what only one changed is taken, what both
// changed is told and kept, what was sent before is not taken again.
func TestPhonesAreMerged(t *testing.T) {
	p := book()
	was := p.NightBook()[0]
	mine := was
	mine.Guests, mine.Weather = 212, "fog"
	p.NightBook()[0].Guests = 205 // noted at the gate meanwhile
	tick := func(by, at string) Sent {
		return Sent{Kind: "ticked", Value: raw(Ticked{On: "2026-10-09", Line: "open:off", By: by, At: at})}
	}
	sent := []Sent{
		{Kind: "night", ID: "n", Value: raw(mine), Was: raw(was)},
		tick("Ola", "17:40"), tick("Ben", "17:52"), tick("Ola", "17:40"),
		{
			Kind:  "incident",
			ID:    "p1-1",
			Value: raw(Incident{On: "2026-10-09", Prop: "a", What: "Lamp out", Minutes: 12}),
		},
	}
	got, err := p.Merge(sent, everyLine)
	clashes := got.Clashes
	require.NoError(t, err)
	q, err := p.Apply(got.Edit)
	require.NoError(t, err)
	n := q.NightBook()[0]
	assert.Equal(t, 205, n.Guests, "what stands stays")
	assert.Equal(t, "fog", n.Weather, "what only the phone changed is taken")
	assert.Contains(t, n.Note, "guests 212", "what was sent is kept beside it")
	require.Len(t, clashes, 2)
	assert.Equal(t, Clash{"night of 2026-10-09", "guests 205", "guests 212"}, clashes[0])
	assert.Equal(t, Clash{"open:off", "done by Ola at 17:40", "done by Ben at 17:52"}, clashes[1])
	require.Len(t, q.Ticks(), 1)
	require.Len(t, q.Incidents(), 1)
	again, err := q.Merge(sent, everyLine)
	require.NoError(t, err)
	assert.Empty(t, again.Edit.Changes, "sent twice, taken once")
	_, err = p.Merge([]Sent{{Kind: "solid"}}, everyLine)
	assert.ErrorContains(t, err, "nothing of the night book")
	other := raw(Incident{On: "2026-10-09", Prop: "a", What: "Another"})
	more, err := q.Merge([]Sent{{Kind: "incident", ID: "p1-1", Value: other}}, everyLine)
	require.NoError(t, err)
	assert.Len(t, more.Edit.Changes, 1, "another of the same name is kept too")
	assert.Len(t, more.Clashes, 1)
	gone := raw(Incident{On: "2026-10-09", Prop: "long-gone", What: "It fell"})
	more, err = q.Merge([]Sent{{Kind: "incident", ID: "p1-2", Value: gone}}, everyLine)
	require.NoError(t, err)
	q, err = q.Apply(more.Edit)
	require.NoError(t, err, "of a prop that was taken away it is kept all the same")
	assert.Equal(t, "It fell", q.Incidents()[1].What)
}

// In whatever order phones come back, every line that any of them ticked is ticked once and
// every incident is there once.
func TestNothingIsLostInAMerge(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		lines, incidents := map[string]bool{}, map[string]bool{}
		q := book()
		for k := range rapid.IntRange(1, 4).Draw(t, "phones") {
			var sent []Sent
			for j := range rapid.IntRange(0, 6).Draw(t, "entries") {
				line := fmt.Sprint("open:", rapid.IntRange(0, 4).Draw(t, "line"))
				if rapid.Bool().Draw(t, "tick") {
					lines[line] = true
					sent = append(
						sent,
						Sent{Kind: "ticked", Value: raw(Ticked{On: "2026-10-09", Line: line, By: fmt.Sprint(k)})},
					)
					continue
				}
				what := fmt.Sprintf("%d of phone %d", j, k)
				incidents[what] = true
				sent = append(sent, Sent{Kind: "incident", ID: fmt.Sprintf("p%d-%d", k, j),
					Value: raw(Incident{On: "2026-10-09", What: what})})
			}
			for range rapid.IntRange(1, 2).Draw(t, "times") { // an answer that was lost is sent again
				got, err := q.Merge(sent, everyLine)
				require.NoError(t, err)
				if q, err = q.Apply(got.Edit); err != nil {
					t.Fatal(err)
				}
			}
		}
		require.Len(t, q.Ticks(), len(lines))
		require.Len(t, q.Incidents(), len(incidents))
		for _, x := range q.Incidents() {
			require.True(t, incidents[x.What])
		}
	})
}
