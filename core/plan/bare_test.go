package plan

import (
	"strings"
	"testing"

	"zapbarn/core/measure"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A bare number in a plan file is of the file's units, wherever it stands; what is written
// always says its unit, so that it means the same in any file.
func TestABareNumberIsOfTheFilesUnits(t *testing.T) {
	file := func(units string) string {
		return `{"format":"` + Format + `","display":{"id":"x","name":"X","units":"` + units + `","kerf":"3"},
		"props":[{"id":"a","name":"A","known":"600"}],
		"solids":[{"id":"b","prop":"a","name":"B","kind":"box","stock":"ply1/4","w":"600","d":"400","h":"500","joint":"butt","x":"-50",
		 "openings":[{"name":"O","face":"front","kind":"rect","w":"100","h":"2 in","y":"250"}]}]}`
	}
	for _, c := range []struct {
		units string
		f     float64
	}{{"mm", 1}, {"in", measure.Inch}} {
		text := file(c.units)
		if c.units == "in" {
			text = strings.NewReplacer(`"600"`, `"60"`, `"400"`, `"40"`, `"500"`, `"50"`, `"-50"`, `"-5"`,
				`"100"`, `"10"`, `"250"`,
				`"25"`, `"kerf":"3"`, `"kerf":"0.1"`).Replace(text)
		}
		p, err := Decode([]byte(text))
		require.NoError(t, err, c.units)
		b, o := p.Solid("b"), p.Solid("b").Openings[0]
		k := 1.0
		if c.units == "in" {
			k = .1
		}
		for _, got := range []struct{ v, want float64 }{{p.Props()[0].Known.Value(), 600 * k},
			{b.Length("w").Value(), 600 * k},
			{b.Length("h").Value(), 500 * k}, {b.X.Value(), -50 * k}, {o.W.Value(), 100 * k}, {o.Y.Value(), 250 * k}} {
			assert.InDelta(t, got.want*c.f, got.v, 1e-9, c.units)
		}
		assert.InDelta(t, 2*measure.Inch, o.H.Value(), 1e-9, "a unit that is written stands")
		again := p.Encode()
		assert.NotRegexp(t, `"(w|h|d|x|y|known|kerf)": "-?[0-9.]+"`, string(again))
		q, err := Decode([]byte(strings.Replace(string(again), `"units": "`+c.units,
			`"units": "`+map[string]string{"in": "mm", "mm": "in"}[c.units], 1)))
		require.NoError(t, err)
		assert.InDelta(t, b.Length("w").Value(), q.Solid("b").Length("w").Value(), 1e-9,
			"and in a file of other units it is the same")
	}
	// as it was entered it stays in the plan, and has its unit in the file
	p := New("x", "X", "in", "")
	p.doc.Props = []Prop{{ID: "a", Name: "A", Known: measure.Len("22 1/2")}}
	assert.Contains(t, string(p.Encode()), `"known": "22 1/2 in"`)
	assert.Equal(t, "22 1/2", p.Props()[0].Known.String())
	got, err := measure.ParseLengthIn("-50", "mm")
	require.NoError(t, err)
	assert.InDelta(t, -50, got.Value(), 1e-9, "below nothing as well")
}
