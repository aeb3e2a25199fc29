package check

import (
	"testing"

	"zapbarn/core/plan"

	"github.com/stretchr/testify/assert"
)

// Every rule is some trade's, and every trade has rules; what people call it leads to one.
func TestEveryRuleIsATrades(t *testing.T) {
	n := map[string]int{}
	for _, w := range Whys() {
		assert.Contains(t, Trades, w.Trade, w.Code)
		n[w.Trade]++
	}
	for _, trade := range Trades {
		assert.Positive(t, n[trade], trade)
	}
	for word, trade := range calledToo {
		assert.Contains(t, Trades, trade, word)
		assert.NotContains(t, Trades, word, "a trade of its own")
	}
	assert.Equal(t, "glue", TradeOf(Snag{Code: "glue-solvent-on-foam"}))
	assert.Equal(t, "wiring", TradeOf(Snag{Code: "controller-starved"}))
}

// By hand: Ira does wiring and carves, Moth paints and may do nothing else, nobody glues.
// A crew with one who names no trade leaves nothing to nobody.
func TestSnagsForAPerson(t *testing.T) {
	p := plan.Of(plan.Document{People: []plan.Person{
		{ID: "ira", Name: "Ira", Trades: "Wiring, carving"}, {ID: "moth", Name: "Moth", Trades: " paint"},
	}})
	all := []Snag{
		{Code: "drop", Prop: "shelf", Place: "loom"}, {Code: "neck", Prop: "skep", Place: "bench"},
		{Code: "coat-thin", Prop: "skep", Place: "bench"}, {Code: "glue-crazes", Prop: "shelf", Place: "bench"},
	}
	of := func(f For) (out []string) {
		for _, s := range all {
			if f.Of(p, s) {
				out = append(out, s.Code)
			}
		}
		return out
	}
	assert.Len(t, of(For{}), 4)
	assert.Equal(t, []string{"drop", "neck"}, of(For{Person: "ira"}))
	assert.Equal(t, []string{"coat-thin"}, of(For{Person: "moth"}))
	assert.Equal(t, []string{"glue-crazes"}, of(For{Person: Nobody}))
	assert.Equal(t, []string{"drop", "glue-crazes"}, of(For{Prop: "shelf"}))
	assert.Equal(t, []string{"neck"}, of(For{Prop: "skep", Trade: "foam"}))
	assert.Empty(t, of(For{Prop: "shelf", Person: "moth"}))
	assert.Empty(t, of(For{Person: "gone"}))
	p.Doc().People = append(p.People(), plan.Person{ID: "odd", Name: "Odd"})
	assert.Len(t, of(For{Person: "odd"}), 4, "who names no trade does all")
	assert.Empty(t, of(For{Person: Nobody}))
}

// Whoever narrows: what is for a person is the sum of what is theirs by trade, and all
// is for somebody or for nobody.
func TestNarrowedIsWhole(t *testing.T) {
	p := plan.Of(plan.Document{People: []plan.Person{{ID: "a", Trades: "foam"}, {ID: "b", Trades: "paint, motors"}}})
	for _, w := range Whys() {
		s := Snag{Code: w.Code}
		n := 0
		for _, trade := range Trades {
			if (For{Trade: trade}).Of(p, s) {
				n++
			}
		}
		assert.Equal(t, 1, n, w.Code)
		someone := (For{Person: "a"}).Of(p, s) || (For{Person: "b"}).Of(p, s)
		assert.NotEqual(t, someone, (For{Person: Nobody}).Of(p, s), w.Code)
	}
}
