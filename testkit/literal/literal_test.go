package literal

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
)

func TestReads(t *testing.T) {
	for text, want := range map[string]float64{
		"2 x (3 + 4)": 14, `84" - 2 x 1 1/2"`: 81 * 25.4, "4' 6\"": 54 * 25.4, "12 V x 500 mA": 6, "pi x 20\"": math.Pi * 508,
		"sqrt(3^2 + 4^2)":     5,
		"2 x 20 mohm/m x 3 m": .12, "100 cm3 x 30 kg/m3": .003, "30 % x 2 A": .6, "atan(cos 52 x tan 45)": 31.62,
		"2 x 10 sin 30": 10, "ceil(11\" / 2\")": 6, "1228 / 589": 2.0849,
	} {
		q, ok := Eval(text)
		assert.True(t, ok, text)
		assert.InDelta(t, want, q.V, .01*math.Abs(want)+1e-6, text)
	}
	for _, text := range []string{"", "words", "3 parts", "2 x", "(3", "3 V + 2 A"} {
		_, ok := Eval(text)
		assert.False(t, ok, text)
	}
	q, _ := First("2 h 5 min")
	assert.InDelta(t, 2.0833, q.V, 1e-3)
	a, _ := Eval("0.5 V x 18.5 mA")
	b, _ := First("9.26 mW, so much")
	assert.True(t, Agree(a, b, "9.26 mW"))
	b.V *= 1.05
	assert.False(t, Agree(a, b, "9.7 mW"))
}
