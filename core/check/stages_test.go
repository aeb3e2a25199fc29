package check

import (
	"encoding/json"
	"math/rand/v2"
	"os"
	"reflect"
	"slices"
	"strings"
	"testing"
	"time"

	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/work"
	"zapbarn/testkit"
	"zapbarn/testkit/edits"
	"zapbarn/testkit/shop"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Whatever is edited, the plan worked out from the one before says just what it
// says worked out afresh: one element of each kind at a time, some way off or
// taken away.
func TestWorkTakenOverIsWorkDoneAfresh(t *testing.T) {
	today := time.Date(2026, 9, 20, 0, 0, 0, 0, time.UTC)
	data, err := os.ReadFile("../../docs/examples/midnight-apiary.json")
	require.NoError(t, err)
	p, err := plan.Decode(data)
	require.NoError(t, err)
	before := work.Do(p, shop.Kept, today)
	was, err := Find(nil, before)
	require.NoError(t, err)
	told := func(f *Found, w *work.Work) string {
		f, err := Find(f, w)
		require.NoError(t, err)
		all, err := json.MarshalIndent(f.Snags, "", " ")
		require.NoError(t, err)
		return string(all)
	}
	tried := 0
	try := func(what string, e plan.Edit) {
		q, err := p.Apply(e)
		if err != nil {
			return // refused: nothing is worked out
		}
		from, err := work.DoFrom(before, nil, q, shop.Kept, today)
		require.NoError(t, err)
		a, b := string(answers(from)), string(answers(work.Do(q, shop.Kept, today)))
		require.True(t, a == b, "%s: %s", what, firstOther(a, b))
		a, b = told(was, from), told(nil, work.Do(q, shop.Kept, today))
		require.True(t, a == b, "%s: %s", what, firstOther(a, b))
		tried++
	}
	r := rand.New(rand.NewPCG(27, 4))
	for i, kind := range plan.Kinds() {
		if !testkit.Slow() && i%2 == 1 {
			continue // every second kind; in make slow all
		}
		for range 8 {
			if e, what, ok := edits.Of(r, p, kind); ok {
				try(what, e)
				break
			}
		}
	}
	assert.Greater(t, tried, map[bool]int{true: 25, false: 12}[testkit.Slow()])
}

func firstOther(a, b string) string {
	x, y := strings.Split(a, "\n"), strings.Split(b, "\n")
	for i := range x {
		if i >= len(y) || x[i] != y[i] {
			return at(x, i) + "\nafresh " + at(y, i)
		}
	}
	return ""
}

// An edit of a coat solves no circuit and cuts nothing; one of a wire does not
// look at a joint.
func TestAnEditWorksOutWhatItTouches(t *testing.T) {
	today := time.Date(2026, 9, 20, 0, 0, 0, 0, time.UTC)
	data, err := os.ReadFile("../../docs/examples/midnight-apiary.json")
	require.NoError(t, err)
	p, err := plan.Decode(data)
	require.NoError(t, err)
	before := work.Do(p, shop.Kept, today)
	after := func(e plan.Edit, on time.Time) *work.Work {
		q, err := p.Apply(e)
		require.NoError(t, err)
		w, err := work.DoFrom(before, nil, q, shop.Kept, on)
		require.NoError(t, err)
		return w
	}
	cut := func(w *work.Work) bool { return len(w.Parts()) > 0 && w.Parts()[0] != before.Parts()[0] }
	finish := p.Finishes()[0]
	finish.Layers = append([]plan.Layer{{Coat: "masonry", Coats: 1}}, finish.Layers...)
	w := after(plan.Edit{Changes: []plan.Change{p.Put("finish", finish.ID, finish)}}, today)
	assert.Same(t, before.All(), w.All())
	assert.False(t, cut(w))
	assert.NotEqual(t, before.Finishes()[finish.ID].Total, w.Finishes()[finish.ID].Total)

	run := *p.Device("W1")
	run.Gauge = p.Device("W2").Gauge
	run.Name = "another"
	w = after(plan.Edit{Changes: []plan.Change{p.Put("device", "W1", run)}}, today)
	assert.NotSame(t, before.All(), w.All())
	assert.False(t, cut(w))
	assert.Equal(t, reflect.ValueOf(before.Joints()).Pointer(), reflect.ValueOf(w.Joints()).Pointer())

	named, cold := p.Display(), p.Display()
	named.Name, named.Opens = "Another name", "2026-10-30"
	w = after(plan.Edit{Changes: []plan.Change{p.Put("display", named.ID, named)}}, today)
	assert.True(t, cut(w), "the display is read whole")
	cold.Temp = measure.Must[measure.CelsiusKind]("3 C")
	w = after(plan.Edit{Changes: []plan.Change{p.Put("display", cold.ID, cold)}}, today)
	assert.NotSame(t, before.All(), w.All(), "copper is another at another temperature")
	assert.NotEqual(t, before.Finishes()[finish.ID].Total, w.Finishes()[finish.ID].Total)

	good := func(table, id, field, value string) *work.Work {
		g := plan.Good{
			ID:    table + "-" + id,
			Table: table,
			Good:  id,
			Set:   []plan.Setting{{Field: field, Value: value}},
		}
		e := plan.Edit{Changes: []plan.Change{p.Put("good", g.ID, g)}}
		w := after(e, today)
		q, err := p.Apply(e)
		require.NoError(t, err)
		a, err := json.Marshal(work.Do(q, shop.Kept, today).Results())
		require.NoError(t, err)
		b, err := json.Marshal(w.Results())
		require.NoError(t, err)
		assert.JSONEq(t, string(a), string(b), g.ID)
		return w
	}
	w = good("material", p.Solids()[0].Stock, "price", "77.5")
	assert.NotSame(t, before.All(), w.All(), "the shop is read whole")
	assert.True(t, cut(w))
	lit := p.Devices()[slices.IndexFunc(p.Devices(), func(d plan.Device) bool { return d.Kind == "lamp" })]
	w = good("lamp", lit.Product, "amps", "0.123")
	assert.NotSame(t, before.All(), w.All())

	w = after(p.Without("solid", p.Solids()[0].ID), today)
	assert.True(t, cut(w))
	w = after(plan.Edit{}, today.AddDate(0, 0, 1)) // bottles are a day older
	assert.True(t, cut(w))
	assert.NotSame(t, before.All(), w.All())
}

// Rules asked side by side say what they say one after the other, on plans of all kinds.
func TestRulesSideBySide(t *testing.T) {
	today := time.Date(2026, 9, 20, 0, 0, 0, 0, time.UTC)
	data, err := os.ReadFile("../../docs/examples/midnight-apiary.json")
	require.NoError(t, err)
	p, err := plan.Decode(data)
	require.NoError(t, err)
	r := rand.New(rand.NewPCG(8, 1))
	for tried := 0; tried < 12; {
		q, what := edits.Varied(r, p)
		if q == nil {
			continue
		}
		tried++
		w := work.Do(q, shop.Kept, today)
		one, _ := look(w, nil, Note, 1)
		many, _ := look(work.Do(q, shop.Kept, today), nil, Note, 4)
		require.Equal(t, told(one), told(many), what)
	}
}

// What a rule said is taken over while all it read is as it was. A mend that is an edit of the
// display does not outlive another edit of it: taken, it would be refused as old.
func TestARuleIsAskedAgainWhenWhatItReadChanged(t *testing.T) {
	today := time.Date(2026, 9, 20, 0, 0, 0, 0, time.UTC)
	data, err := os.ReadFile("../../docs/examples/thistledown-porch.json")
	require.NoError(t, err)
	p, err := plan.Decode(data)
	require.NoError(t, err)
	asked := map[string]int{}
	defer func(was []Rule) { rules = was }(rules)
	rules = nil
	rule("of-plugs", Note, "", func(w *work.Work, _ func(Snag)) { asked["of-plugs"] += 1 + 0*len(w.Plan.Plugs()) })
	rule("of-display", Note, "", func(w *work.Work, say func(Snag)) {
		asked["of-display"]++
		d := w.Plan.Display()
		say(Snag{Mends: []Mend{put(w, "warmer", "display", d.ID, d)}})
	})
	rule("of-a-mend", Note, "", func(w *work.Work, say func(Snag)) {
		asked["of-a-mend"]++
		say(Snag{Mends: []Mend{put(w, "named", "person", "x", plan.Person{ID: "x"})}})
	})
	before := work.Do(p, shop.Kept, today)
	was, err := Find(nil, before)
	require.NoError(t, err)
	after := func(c plan.Change) map[string]int {
		q, err := p.Apply(plan.Edit{Changes: []plan.Change{c}})
		require.NoError(t, err)
		w, err := work.DoFrom(before, nil, q, shop.Kept, today)
		require.NoError(t, err)
		clear(asked)
		_, err = Find(was, w)
		require.NoError(t, err)
		return asked
	}
	d := p.Display()
	d.Name = "Another porch"
	assert.Equal(t, map[string]int{"of-display": 1}, after(p.Put("display", d.ID, d)))
	assert.Equal(t, map[string]int{"of-a-mend": 1}, after(p.Put("person", "ann", plan.Person{ID: "ann", Name: "Ann"})))
	outlet := plan.Outlet{ID: "o9", Name: "Shed", Volts: measure.Must[measure.VoltKind]("120 V"),
		Breaker: measure.Must[measure.AmpKind]("15 A")}
	assert.Empty(t, after(p.Put("outlet", "o9", outlet)))
}
