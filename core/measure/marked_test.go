package measure

import (
	"errors"
	"testing"

	"github.com/stretchr/testify/assert"
)

// What is marked is written in the units asked for; a square foot is 0.09290304
// m2 exactly (international foot of 0.3048 m), an inch 25.4 mm.
func TestInUnits(t *testing.T) {
	for _, c := range []struct{ text, inches, metric string }{
		{Marked(254), `10"`, "254 mm"},
		{"of " + Marked(1.6) + " each", `of 0.06" each`, "of 1.6 mm each"},
		{MarkedTape(12.7), `1/2"`, "12.7 mm"},
		{MarkedRun(3048), `10' 0"`, "3.05 m"},
		{MarkedArea(0.9290304), "10 sq ft", "0.929 m2"},
		{MarkedArea(1), "10.76 sq ft", "1 m2"},
		{"⟦ix⟧ long", "x long", "x long"}, // a mark that is no number
		{"no mark ⟦here⟧ 5 mm", "no mark ⟦here⟧ 5 mm", "no mark ⟦here⟧ 5 mm"},
	} {
		assert.Equal(t, c.inches, InUnits(c.text, false))
		assert.Equal(t, c.metric, InUnits(c.text, true))
		err := ErrorIn(Bad("w", "%s is too wide", c.text), true)
		assert.ErrorContains(t, err, c.metric+" is too wide")
		var f *FieldError
		assert.ErrorAs(t, err, &f)
		assert.ErrorContains(t, ErrorIn(errors.New(c.text), false), c.inches)
	}
	assert.NoError(t, ErrorIn(nil, true))
}
