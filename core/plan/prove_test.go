package plan_test

import (
	"testing"

	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/wiring"

	"github.com/stretchr/testify/assert"
)

// The limits by hand at a lamp of 12 V and 100 mA: 12 x 3 % + 0.05 = 0.41 V,
// 100 x 15 % + 2 = 17 mA; a megohm to ground; red on its plus, so never minus.
func TestReadingsProve(t *testing.T) {
	g := wiring.Operating{Volts: 12, Amps: .1}
	for text, good := range map[string]bool{"12.4 V": true, "12.5 V": false, "11.6 V": true, "11.5 V": false,
		"-12 V": false, "0 V": false} {
		assert.Equal(t, good, (&plan.Reading{Volts: measure.Must[measure.VoltKind](text)}).Proves(g), text)
	}
	for text, good := range map[string]bool{"116 mA": true, "118 mA": false, "84 mA": true, "82 mA": false, "0 A": false} {
		assert.Equal(t, good, (&plan.Reading{Amps: measure.Must[measure.AmpKind](text)}).Proves(g), text)
	}
	for text, good := range map[string]bool{"1 Mohm": true, "20 Mohm": true, "990 kohm": false, "0 ohm": false} {
		assert.Equal(t, good, (&plan.Reading{Ohms: measure.Must[measure.OhmKind](text)}).Proves(g), text)
	}
	reversed := wiring.Operating{Volts: -12}
	swapped := &plan.Reading{Volts: measure.Must[measure.VoltKind]("12 V")}
	assert.True(t, swapped.Proves(reversed), "once its leads are swapped")
}
