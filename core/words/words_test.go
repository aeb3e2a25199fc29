package words

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func of(text string, metric bool) *Words {
	return &Words{List: strings.Fields(text), Metric: metric}
}

// Sizes as builders write them: fractions stay whole, feet and inches are one
// size when the inches are less than a foot, a bare number has the plan's unit.
func TestSizes(t *testing.T) {
	for text, want := range map[string][]float64{
		"22 x 18 x 26 1/2": {558.8, 457.2, 673.1}, "22 by 18": {558.8, 457.2}, "4 ft 6 x 20": {1371.6, 508},
		"4 ft 20 in": {1219.2, 508}, "20 to 9": {508, 228.6},
		"6 ft 4 ft": {1828.8, 1219.2}, "6 ft 2 1/2 in x 3 ft 1 in": {1892.3, 939.8}, "6 in in": {152.4},
		"600 mm x 1.2 m": {600, 1200}, ".5": {12.7}, "lid 22": {558.8}, "": nil, "2x": nil,
	} {
		w := of(text, false)
		var got []float64
		for _, l := range w.Sizes() {
			got = append(got, l.Value())
		}
		assert.InDeltaSlice(t, want, got, 1e-9, text)
	}
	w := of("600 x 450 lid", true)
	assert.Equal(t, 600., w.Sizes()[0].Value())
	assert.Equal(t, []string{"lid"}, w.List)
	assert.ErrorContains(t, w.None(), `"lid" is not understood`)
}

// A length before or after a word is taken whole, in feet, inches and their parts.
func TestAWholeLengthIsTaken(t *testing.T) {
	for said, mm := range map[string]float64{
		"6 ft 2 1/2 in": 1892.3, "6 ft 2 in": 1879.6, `6' 2"`: 1879.6, "6 ft": 1828.8, "2 1/2": 63.5, "18": 457.2,
	} {
		w := of("20 x "+said+" tall lid", false)
		assert.InDelta(t, mm, w.Before("tall").Value(), 1e-9, said)
		assert.Equal(t, []string{"20", "x", "lid"}, w.List, said)
		w = of("20 wall "+said+" lid", false)
		assert.InDelta(t, mm, w.After("wall").Value(), 1e-9, said)
		assert.Equal(t, []string{"20", "lid"}, w.List, said)
	}
	w := of("4 ft 20 in tall", false)
	assert.InDelta(t, 508, w.Before("tall").Value(), 1e-9, "two lengths")
}

func TestTaking(t *testing.T) {
	w := of("48 in tall 6 sides wall 1 1/2 x3 LID", false)
	assert.InDelta(t, 48*25.4, w.Before("high", "tall").Value(), 1e-9)
	n, err := w.Count(4, "sides")
	require.NoError(t, err)
	assert.Equal(t, 6, n)
	assert.InDelta(t, 38.1, w.After("wall").Value(), 1e-9)
	assert.Equal(t, 3, w.Copies())
	assert.True(t, w.Take("lid"))
	assert.False(t, w.Take("lid"))
	assert.NoError(t, w.None())
	assert.Equal(t, 1, w.Copies())
	n, err = w.Count(4, "sides")
	require.NoError(t, err)
	assert.Equal(t, 4, n)
	_, err = of("many sides", false).Count(4, "sides")
	assert.ErrorContains(t, err, `"many" sides: write a whole number`)
	assert.True(t, of("tall", false).Before("tall").IsZero())
	assert.True(t, of("wall", false).After("wall").IsZero())
	assert.Equal(t, "butt", of("22 Butt", false).OneOf("mitre", "rabbet", "butt"))
	assert.Equal(t, "mitre", of("22", false).OneOf("mitre", "rabbet", "butt"))
	k := of("22 XPS1 lid", false)
	assert.Equal(t, "xps1", k.Known("", func(s string) bool { return s == "xps1" }))
	assert.Equal(t, []string{"22", "lid"}, k.List)
	_, err = of("22 x 18", false).Exactly(3, "a box takes three")
	assert.ErrorContains(t, err, "a box takes three, 2 sizes read")
}

func TestCount(t *testing.T) {
	for want, got := range map[string]string{
		"1 disc": Count(1, "disc"), "3 discs": Count(3, "disc"), "0 sheets": Count(0, "sheet"), "2 boxes": Count(2, "box"),
		"2 glasses": Count(2, "glass"), "4 lengths": Count(4, "length"), "2 torches": Count(2, "torch"),
	} {
		assert.Equal(t, want, got)
	}
}

func TestWhose(t *testing.T) {
	assert.Equal(t, "Gate's", Whose("Gate"))
	assert.Equal(t, "Eyes'", Whose("Eyes"))
	assert.Equal(t, "LEDS'", Whose("LEDS"))
}
