package wiring

import (
	"testing"

	"zapbarn/core/measure"
	"zapbarn/testkit/shop"

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

// What pixels show is what they draw: an amber picture at half is 72 x (idle + (full -
// idle) x .5 x 375/765), and a pixel of full white without one.
func TestAPictureIsPaidFor(t *testing.T) {
	d := &Device{ID: "P", Name: "P", Kind: "lamp", Product: "pixel5", Length: measure.Len("1.2 m"), Bright: 50}
	full := RatedAmps(d, shop.Kept)
	assert.InDelta(t, 72*(.001+.059*.5), full, 1e-9)
	d.Picture, d.Colour = "solid", "amber"
	assert.InDelta(t, 72*(.001+.059*.5*375/765), RatedAmps(d, shop.Kept), 1e-9)
	d.Picture = "swarm"
	assert.Less(t, RatedAmps(d, shop.Kept), full/4)
	assert.InDelta(t, RatedAmps(d, shop.Kept)/72, element(d, LampOf(d, shop.Kept), nil).I, 1e-9)
	d.Colour = "mauve"
	assert.ErrorContains(t, d.Valid(Set{Lib: shop.Kept}), "is no colour")
}
