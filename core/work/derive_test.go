package work

import (
	"sync"
	"sync/atomic"
	"testing"
	"time"

	"zapbarn/core/plan"
	"zapbarn/demo"
	"zapbarn/testkit/shop"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// What many ask for at once is worked out once; broken off, by whoever asks next.
func TestDerivedOnce(t *testing.T) {
	w := Do(plan.New("x", "X", "in", ""), shop.Kept, time.Now())
	var made atomic.Int64
	var all sync.WaitGroup
	for range 8 {
		all.Go(func() {
			got := Derive(w, "deep", func(w *Work) int64 {
				return Derive(w, "x", func(*Work) int64 {
					time.Sleep(5 * time.Millisecond)
					return made.Add(1)
				})
			})
			assert.EqualValues(t, 1, got)
		})
	}
	all.Wait()
	x, ok := Known[int64](w, "x")
	assert.True(t, ok)
	assert.EqualValues(t, 1, x)
	_, ok = Known[int64](w, "never")
	assert.False(t, ok)

	assert.Panics(t, func() { Derive(w, "late", func(*Work) string { panic("over") }) })
	_, ok = Known[string](w, "late")
	assert.False(t, ok)
	assert.Equal(t, "now", Derive(w, "late", func(*Work) string { return "now" }))
}

// What is derived is taken over while all it read is as it was, and worked out again once any
// of that is another: what it read itself, and what the things read that it rests on.
func TestDerivedAgainWhenWhatItReadChanged(t *testing.T) {
	day := time.Date(2026, 9, 12, 10, 0, 0, 0, time.UTC)
	p := demo.Apiary(day).In(shop.Kept)
	made := map[string]int{}
	names := func(w *Work) int {
		return Derive(w, "names", func(w *Work) int {
			made["names"]++
			return len(w.Plan.People())
		})
	}
	on := func(w *Work) int {
		return Derive(w, "on names", func(w *Work) int {
			made["on names"]++
			if names(w) == 0 {
				return 0
			}
			return len(w.Plan.Notes())
		})
	}
	w := Do(p, shop.Kept, day)
	on(w)
	ask := func(e plan.Edit) map[string]int {
		clear(made)
		q, err := p.Apply(e)
		require.NoError(t, err)
		v, err := DoFrom(w, nil, q, shop.Kept, day)
		require.NoError(t, err)
		names(v)
		on(v)
		return made
	}
	assert.Empty(t, ask(plan.Edit{}))
	assert.Empty(t, ask(p.Without("plug", p.Plugs()[0].ID)))
	assert.Equal(t, map[string]int{"names": 1, "on names": 1}, ask(p.Without("person", p.People()[0].ID)))
	note := plan.Note{ID: "n", On: "prop:" + p.Props()[0].ID, Text: "x"}
	assert.Equal(t, map[string]int{"on names": 1}, ask(plan.Edit{Changes: []plan.Change{p.Put("note", "n", note)}}))
	other := Do(p, shop.Kept, day.AddDate(0, 0, 1))
	assert.Equal(t, plan.All, other.Since(w), "another day")
	assert.Zero(t, w.Since(w))
}
