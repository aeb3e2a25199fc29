package plan_test

import (
	"bytes"
	"encoding/json"
	"errors"
	"os"
	"strings"
	"testing"
	"time"

	"zapbarn/core/form"
	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/work"
	"zapbarn/demo"
	"zapbarn/testkit/shop"

	"github.com/santhosh-tekuri/jsonschema/v6"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

var today = time.Date(2026, 9, 20, 0, 0, 0, 0, time.UTC)

func apiary(t testing.TB) *plan.Plan {
	p := demo.Apiary(today).In(shop.Kept)
	require.NoError(t, p.Validate())
	return p
}

func TestJSONRoundTripIsExact(t *testing.T) {
	for _, p := range []*plan.Plan{apiary(t), demo.Metric(today), plan.New("x", "X", "in", "")} {
		b := p.Encode()
		q, err := plan.Decode(b)
		require.NoError(t, err)
		assert.Equal(t, p.Doc(), q.Doc())
		assert.Equal(t, string(b), string(q.Encode()))
	}
}

// The published schema is the one made from the types, and it accepts and
// refuses what Decode does.
func TestSchemaIsTrue(t *testing.T) {
	file, err := os.ReadFile("../../docs/plan.schema.json")
	require.NoError(t, err)
	assert.Equal(t, string(plan.Schema()), string(file), "run: go run ./cmd/zapbarn schema > docs/plan.schema.json")
	doc, err := jsonschema.UnmarshalJSON(bytes.NewReader(file))
	require.NoError(t, err)
	c := jsonschema.NewCompiler()
	require.NoError(t, c.AddResource("plan.json", doc))
	sch, err := c.Compile("plan.json")
	require.NoError(t, err)
	check := func(b []byte) error {
		v, err := jsonschema.UnmarshalJSON(bytes.NewReader(b))
		require.NoError(t, err)
		return sch.Validate(v)
	}
	good := apiary(t).Encode()
	assert.NoError(t, check(good))
	for _, bad := range []string{`{"format":"zapbarn-plan/1"}`, `{"format":"other/1","display":{"id":"x"}}`,
		strings.Replace(string(good), `"kind": "box"`, `"kind": 7`, 1), strings.Replace(string(good), `"props"`, `"prosp"`,
			1)} {
		assert.Error(t, check([]byte(bad)))
		_, err := plan.Decode([]byte(bad))
		assert.Error(t, err)
	}
}

// Bad files: the message names the place, the value and what would be accepted.
func TestDecodeSaysWhereAndWhat(t *testing.T) {
	good := string(apiary(t).Encode())
	swap := func(old, new string) string {
		require.Contains(t, good, old)
		return strings.Replace(good, old, new, 1)
	}
	for want, text := range map[string]string{
		"the file is empty":          "",
		"line 1":                     `{"format": `,
		`there is no prop "nowhere"`: swap(`"prop": "riser"`, `"prop": "nowhere"`),
		`"sideways" is not understood; write a length`: swap(`"w": "22 in"`, `"w": "sideways"`),
		"solids[6].w":                       swap(`"w": "22 in"`, `"w": "sideways"`),
		"must be more than nothing":         swap(`"w": "22 in"`, `"w": "0 in"`),
		"larger than any prop":              swap(`"w": "22 in"`, `"w": "4000 ft"`),
		"solids[6].w: a number stands here": swap(`"w": "22 in"`, `"w": 22`),
		"is not a field of solid":           swap(`"joint": "rabbet"`, `"jiont": "rabbet"`),
		`"dovetail" is not a corner joint`:  swap(`"joint": "rabbet"`, `"joint": "dovetail"`),
		"feeding runs in a circle": swap(`"id": "F1",`,
			`"id": "F1", "at": "", "name": "Fuse F1", "kind": "fuse", "prop": "shelf", "rating": "3 A", "from": "W1"}, {"id": "F9",`),
		`the shop has no "unobtainium"`:           swap(`"stock": "xps2"`, `"stock": "unobtainium"`),
		"reads up to zapbarn-plan/2":              swap(plan.Format, "zapbarn-plan/99"),
		"two have the ID":                         swap(`"id": "keeper",`, `"id": "gate",`),
		"lies past the end":                       swap(`"at": "9'4\""`, `"at": "90 ft"`),
		"licensed electrician":                    swap(`"product": "ps12-2"`, `"volts": "120 V", "amps": "2 A"`),
		"small letters, digits and dashes":        swap(`"id": "midnight-apiary"`, `"id": "Midnight <Apiary>"`),
		"must be an object":                       "[]",
		"must be a list":                          `{"format":"` + plan.Format + `","lots":"none"}`,
		`"lots" is said twice in one object`:      swap(`"lots": [`, `"lots": [], "lots": [`),
		"line 6 holds a letter that is not UTF-8": swap(`"name": "The Midnight`, "\n\"name\": \"The \xe9 Midnight"),
		`solids[6].w: a number`:                   swap(`"w": "22 in"`, `"w": 1e999`),
		`"1e999 in" is not understood`:            swap(`"w": "22 in"`, `"w": "1e999 in"`),
		`"inf in" is not understood`:              swap(`"w": "22 in"`, `"w": "inf in"`),
		"something follows the end":               swap("", "") + "{}",
	} {
		_, err := plan.Decode([]byte(text))
		require.Error(t, err, want)
		assert.Contains(t, err.Error(), want)
	}
	_, err := plan.Decode(make([]byte, plan.MaxFile+1))
	assert.ErrorContains(t, err, "at most 8 MB")
}

func FuzzDecode(f *testing.F) {
	f.Add(demo.Metric(today).In(shop.Kept).Encode())
	f.Add([]byte(`{"format":"zapbarn-plan/1","display":{"id":"x","name":"X","units":"in"},"solids":[{"id":"a"}]}`))
	f.Fuzz(func(t *testing.T, b []byte) {
		if p, err := plan.Decode(b); err == nil {
			work.Do(p, shop.Kept, today)
		}
	})
}

func TestEditsInvert(t *testing.T) {
	p := apiary(t)
	box := *p.Solid("riser-box")
	box = box.Set("w", measure.Len("24 in"))
	edits := []plan.Edit{
		{Label: "wider", Changes: []plan.Change{p.Put("solid", box.ID, box)}},
		p.Without("prop", "shelf"),
		p.Without("device", "W1"),
		{
			Label: "rename",
			Changes: []plan.Change{
				p.Put("display", p.Display().ID, plan.Display{ID: p.Display().ID, Name: "Other", Units: "mm"}),
			},
		},
		{Label: "add", Changes: []plan.Change{p.Put("prop", "new", plan.Prop{ID: "new", Name: "New"})}},
	}
	before := string(p.Encode())
	for _, e := range edits {
		q, err := p.Apply(e)
		require.NoError(t, err, e.Label)
		assert.NotEqual(t, before, string(q.Encode()), e.Label)
		back, err := q.Apply(e.Inverse())
		require.NoError(t, err, e.Label)
		assert.Equal(t, before, string(back.Encode()), e.Label)
	}
	assert.Equal(t, before, string(p.Encode()), "the plan itself never changes")
}

func TestStaleEditIsRefused(t *testing.T) {
	p := apiary(t)
	mine, theirs := *p.Device("W2"), *p.Device("W2")
	mine.Gauge, theirs.Length = measure.Must[measure.GaugeKind]("18 AWG"), measure.Len("36 ft")
	my := plan.Edit{Changes: []plan.Change{p.Put("device", "W2", mine)}}
	theirsEdit := plan.Edit{Changes: []plan.Change{p.Put("device", "W2", theirs)}}
	q, err := p.Apply(theirsEdit)
	require.NoError(t, err)
	_, err = q.Apply(my)
	var stale *plan.Stale
	require.True(t, errors.As(err, &stale))
	assert.Contains(t, string(stale.Now), "36 ft")
	// another element is no conflict
	s1 := *p.Device("S1")
	s1.Product = "ps12-5"
	_, err = q.Apply(plan.Edit{Changes: []plan.Change{p.Put("device", "S1", s1)}})
	assert.NoError(t, err)
}

func TestApplyNamesTheField(t *testing.T) {
	p := apiary(t)
	for field, change := range map[string]func(*plan.Solid){
		"w":     func(s *plan.Solid) { *s = s.Set("w", measure.Len("1 in")) },
		"stock": func(s *plan.Solid) { s.Stock = "pvc1" },
		"openings": func(s *plan.Solid) {
			s.Openings = append(s.Openings, plan.Opening{Name: "x", Face: "roof", Kind: "rect", W: measure.Len("1 in"),
				H: measure.Len("1 in")})
		},
		"name": func(s *plan.Solid) { s.Name = " " },
	} {
		box := *p.Solid("riser-box")
		change(&box)
		_, err := p.Apply(plan.Edit{Changes: []plan.Change{p.Put("solid", box.ID, box)}})
		var f *measure.FieldError
		require.True(t, errors.As(err, &f), field)
		assert.Equal(t, field, f.Field)
	}
	half := plan.Solid{
		ID:    "half",
		Prop:  "riser",
		Name:  "Half",
		Kind:  "box",
		Stock: "xps1",
		Form:  form.Box{W: measure.Len("10 in")},
	}
	q, err := p.Apply(plan.Edit{Changes: []plan.Change{p.Put("solid", "half", half)}})
	require.NoError(t, err, "half known is allowed")
	assert.Equal(t, []string{"d", "h"}, work.Do(q, shop.Kept, today).Lacks("half"))
}

// One flicker run worked by hand. 12 V, 2 A supply (Rs 60 mohm), ten lamps of
// (v - 3.1)/445 ohm all at the end of 22 AWG 10 m: I = 8.9/(445/10 + Rs + R).
func TestRigAgainstHandCalculation(t *testing.T) {
	p := plan.New("x", "X", "mm", "").In(shop.Kept)
	p.Doc().Display.Temp = measure.Must[measure.CelsiusKind]("20 C")
	p.Doc().Props = []plan.Prop{{ID: "a", Name: "A"}}
	p.Doc().Devices = []plan.Device{{ID: "S", Prop: "a", Kind: "supply", Name: "S", Product: "ps12-2"},
		{
			ID:     "W",
			Prop:   "a",
			Kind:   "run",
			Name:   "W",
			From:   "S",
			Gauge:  measure.Must[measure.GaugeKind]("22 AWG"),
			Length: measure.Len("10 m"),
		}}
	for i := range 10 {
		id := string(rune('a' + i))
		p.Doc().Devices = append(
			p.Devices(),
			plan.Device{
				ID:      id,
				Prop:    "a",
				Kind:    "lamp",
				Name:    id,
				From:    "W",
				At:      measure.Len("10 m"),
				Product: "flicker12",
				Lead:    measure.Len("1 mm"),
			},
		)
	}
	require.NoError(t, p.Validate())
	w := work.Do(p, shop.Kept, today)
	amps := 8.9 / (44.5 + .06 + 2*10*.05296)
	assert.InEpsilon(t, amps, w.All().Readings["S"].Amps, 1e-3)
	assert.InEpsilon(t, 12-amps*(.06+1.0592), w.All().Readings["a"].Volts, 1e-4)
	assert.Equal(t, "lit", w.All().Readings["a"].State)
	at, v := w.Rig().Profile(w.All(), "W")
	assert.Equal(t, []float64{0, 10000}, at)
	assert.InEpsilon(t, w.All().Readings["W"].Volts, v[1], 1e-9)
}

func TestLampStates(t *testing.T) {
	p := apiary(t)
	w := work.Do(p, shop.Kept, today)
	assert.Equal(t, "reversed", w.All().Readings["jar-8"].State)
	assert.Equal(t, "lit", w.All().Readings["jar-1"].State)
	assert.Equal(t, "heavy", w.All().Readings["S2"].State)
	off := w.Rig().Solve(map[string]bool{})
	assert.Equal(t, "dark", off.Readings["fill"].State)
	assert.Equal(t, "lit", off.Readings["jar-1"].State)
	p.Device("S1").Product = "ps24-5"
	assert.Equal(t, "over", work.Do(p, shop.Kept, today).All().Readings["jar-1"].State)
}

// Feeding the far end too makes a loop: the worst drop falls to about a
// quarter of what the run alone drops (closed form for a uniform run).
func TestSecondFeed(t *testing.T) {
	p := apiary(t)
	before := work.Do(p, shop.Kept, today)
	run := func(w *work.Work) float64 {
		worst := 0.0
		for _, d := range w.Plan.Devices() {
			if d.From == "W2" && !d.Reversed {
				worst = max(worst, w.All().Readings["W1"].Volts-w.All().Readings[d.ID].Volts)
			}
		}
		return worst
	}
	d := p.Device("W2")
	d.To, d.ToAt = "W1", measure.Len(`9'4"`)
	require.NoError(t, p.Validate())
	after := work.Do(p, shop.Kept, today)
	assert.InDelta(t, .25, run(after)/run(before), .05)
}

// Every element knows its prop, however far away it is named.
func TestPropOf(t *testing.T) {
	p := apiary(t)
	p.Doc().Readings = []plan.Reading{{ID: "r1", Device: "jar-3", Light: "lit"}}
	require.NoError(t, p.Validate())
	for key, want := range map[string]string{"prop:gate": "gate", "solid:riser-box": "riser",
		"part:riser-box/front": "riser", "joint:shelf-jars": "shelf", "finish:skep-rings": "skep",
		"device:jar-1": "shelf", "input:mat": "riser", "scene:glow": "riser", "trigger:mat-glow": "riser",
		"reading:r1": "shelf", "display:midnight-apiary": "", "lot:pva": "", "device:none": "", "": ""} {
		assert.Equal(t, want, p.PropOf(key), key)
	}
	for what, r := range map[string]plan.Reading{"write what the meter shows": {ID: "r2", Device: "jar-3"},
		"extra-low": {ID: "r2", Device: "jar-3", Volts: measure.Must[measure.VoltKind]("120 V")},
		"choose":    {ID: "r2", Device: "jar-3", Light: "glowing"}, "no device": {ID: "r2", Device: "x", Light: "lit"}} {
		q := p.Clone()
		q.Doc().Readings = append(q.Readings(), r)
		assert.ErrorContains(t, q.Validate(), what)
	}
}

// Taking something away takes what cannot stand without it, and nothing else.
func TestWithoutTakesDependents(t *testing.T) {
	p := apiary(t)
	q, err := p.Apply(p.Without("device", "K2"))
	require.NoError(t, err)
	for _, id := range []string{"K2", "W3", "glow-1", "glow-4"} {
		assert.Nil(t, q.Device(id), id)
	}
	assert.NotNil(t, q.Device("S2"))
	assert.Nil(t, q.Scene("glow"), "its cues named it")
	assert.Len(t, q.Triggers(), len(p.Triggers())-2, "what ran its two scenes is gone")
	assert.Len(t, q.Inputs(), len(p.Inputs()))
	q, err = p.Apply(p.Without("prop", "riser"))
	require.NoError(t, err)
	for _, s := range q.Solids() {
		assert.NotEqual(t, "riser", s.Prop)
	}
	assert.NotNil(t, q.Device("W2"), "another prop's wiring stays")
}

func TestCloneKeepsAll(t *testing.T) {
	p := apiary(t)
	a, _ := json.Marshal(p.Doc())
	b, _ := json.Marshal(p.Clone().Doc())
	assert.Equal(t, string(a), string(b))
}
