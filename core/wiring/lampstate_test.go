package wiring

import (
	"testing"

	"github.com/stretchr/testify/assert"
)

// The states of a lamp at and beside their bounds: dark below 5 %, dim below
// 90 %, over from 10 % above its volts; reversed only with its volts the wrong way.
func TestLampStatesAtTheirBounds(t *testing.T) {
	fwd, back := &Device{}, &Device{Reversed: true}
	for _, c := range []struct {
		d     *Device
		volts float64
		lit   float64
		want  string
	}{
		{fwd, 12, .049, "dark"}, {fwd, 12, .051, "dim"}, {fwd, 12, .899, "dim"}, {fwd, 12, .901, "lit"},
		{fwd, 13.19, 1, "lit"}, {fwd, 13.21, 1, "over"},
		{back, -11, .049, "reversed"}, {back, -11, .3, "dim"}, {back, -.05, 0, "dark"},
	} {
		assert.Equal(t, c.want, LampState(c.d, Operating{Volts: c.volts, Lit: c.lit}, 12, false), "%+v", c)
	}
	assert.Equal(t, "unfed", LampState(fwd, Operating{}, 12, true))
}
