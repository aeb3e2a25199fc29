package calc

import (
	"testing"
	"time"

	"zapbarn/core/plan"
	"zapbarn/core/source"
	"zapbarn/core/work"
	"zapbarn/demo"
	"zapbarn/testkit/literal"
	"zapbarn/testkit/shop"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Every working gives its number when it is read literally: the printed numbers
// of each step, put into a pocket calculator, come to the printed value. Of the
// demo in inches and in millimetres, and of every calculator's example.
func TestWorkingsReadLiterally(t *testing.T) {
	read, words := 0, map[string]bool{}
	look := func(where string, r source.Result) {
		for _, s := range r.Steps {
			if s.Numbers == "" {
				continue
			}
			got, ok := literal.Eval(s.Numbers)
			said, is := literal.First(s.Value)
			if !ok || !is {
				words[s.Formula] = true
				continue
			}
			read++
			assert.True(
				t,
				literal.Agree(got, said, s.Value),
				"%s, %s: %s = %.6g, not %s",
				where,
				s.Formula,
				s.Numbers,
				got.V,
				s.Value,
			)
		}
	}
	today := time.Date(2026, 9, 20, 0, 0, 0, 0, time.UTC)
	for _, p := range []*plan.Plan{demo.Apiary(today).In(shop.Kept), demo.Metric(today).In(shop.Kept)} {
		for r := range work.Do(p, shop.Kept, today).Results().All() {
			look(r.Key.String(), r)
		}
	}
	for name, x := range examples {
		c, err := Named(name)
		require.NoError(t, err)
		for _, units := range []string{"", "mm"} {
			_, _, rs, err := c.Lay(x.args, units)
			if err != nil {
				continue // its bare sizes are no prop in these units
			}
			for _, r := range rs {
				look("calc "+name, r)
			}
		}
	}
	t.Logf("%d steps read; in words: %d formulas", read, len(words))
	for f := range words {
		t.Log("words:", f)
	}
	assert.Greater(t, read, 350)
}
