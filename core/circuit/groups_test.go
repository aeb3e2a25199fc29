package circuit

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

// By hand, 12 V, whites of 3.2 V at 20 mA: 0.9 x 12 / 3.2 = 3 in a row, whose
// resistor is (12 - 9.6) / 0.02 = 120 ohm. Eight of them make 3 rows, as even
// as can be: two of 3 with 120 ohm, one of 2 with (12 - 6.4)/0.02 = 280 -> 300.
func TestGroupsByHand(t *testing.T) {
	rows, out, err := Groups(12, 3.2, 8, .02)
	require.NoError(t, err)
	assert.Equal(t, []Row{{2, 3, 120, .125}, {1, 2, 300, .25}}, rows)
	assert.Equal(t, "2 x 3 with 120 ohm 0.125 W; 1 x 2 with 300 ohm 0.25 W", out[0].Text)
	assert.InEpsilon(t, 2*.02+5.6/300, out[1].Value, 1e-9)
	assert.InEpsilon(t, 2*2.4*.02+5.6*5.6/300, out[2].Value, 1e-9)
	assert.InEpsilon(t, (12.6-9.6)/120, out[3].Value, 1e-9) // 25 mA
	for in, want := range map[[3]float64]string{{3, 3.2, 5}: "volts", {12, 3.2, 0}: "count", {12, 0, 5}: "vf"} {
		_, _, err := Groups(in[0], in[1], int(in[2]), .02)
		assert.ErrorContains(t, err, want)
	}
	_, _, err = Groups(12, 3.2, 8, 0)
	assert.ErrorContains(t, err, "amps")
}

// Every LED is in one row; no row overdrives; no fewer rows would leave the
// headroom; and the rows, solved as a network with the junction's own curve,
// carry no more than was asked for.
func TestGroupsProperty(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		vs := rapid.SampledFrom([]float64{5, 9, 12, 24}).Draw(t, "vs")
		vf := rapid.SampledFrom([]float64{2, 3, 3.2}).Draw(t, "vf")
		count := rapid.IntRange(1, 200).Draw(t, "count")
		rows, _, err := Groups(vs, vf, count, .02)
		require.NoError(t, err)
		leds, n, longest := 0, 0, 0
		for _, r := range rows {
			leds, n, longest = leds+r.Count*r.LEDs, n+r.Count, max(longest, r.LEDs)
			require.LessOrEqual(t, float64(r.LEDs)*vf, .9*vs+1e-9)
			left := vs - float64(r.LEDs)*vf
			require.LessOrEqual(t, left/r.Ohms, .02+1e-9)
			require.GreaterOrEqual(t, r.Watts, 2*left*left/r.Ohms-1e-9)
			vt := 2 * .02585
			net := &Network{}
			p, g := ideal(net, vs)
			net.Add(Element{Kind: LED, A: p, B: g, R: r.Ohms, Is: SaturationCurrent(vf, .02, vt), Vt: vt * float64(r.LEDs)})
			s := Solve(net)
			require.True(t, s.Settled)
			require.LessOrEqual(t, s.I[1], .0201)
			require.GreaterOrEqual(t, s.I[1], .015)
		}
		require.Equal(t, count, leds)
		if n > 1 {
			require.Greater(t, float64((count+n-2)/(n-1))*vf, .9*vs-1e-9, "one row fewer would be too long")
		}
		require.LessOrEqual(t, longest-leds/n, 1, "even")
	})
}

// A worked example: 60 pixels want 3.6 A at full white; three AA
// cells (say 1 A) cannot, and the cap follows from 80 % of that. 300 pixels
// take 9.3 ms a picture: 107 a second. 3.3 V logic is under 0.7 x 5 V.
func TestPixelLine(t *testing.T) {
	out, err := PixelLine(60, 1, 3.3, 5, .060, .001, 1)
	require.NoError(t, err)
	by := map[string]string{}
	for _, r := range out {
		by[r.Key.What] = r.Text
	}
	assert.Equal(t, "LEVEL SHIFTER: 3.3 V is under the 3.5 V a one must have", by["level"])
	assert.Equal(t, "20 % of full white", by["bright"]) // (0.8 - 0.06)/(60 x 0.059) = 0.209
	assert.NotContains(t, by, "copies")

	out, err = PixelLine(300, 2, 5, 5, .060, .001, 100)
	require.NoError(t, err)
	assert.Equal(t, "107", out[0].Text)
	assert.Equal(t, "the pin reaches it; no level shifter", out[1].Text)
	assert.Contains(t, out[2].Text, "2 x 330 ohm")
	assert.Contains(t, out[3].Text, "2, all showing the same picture")
	assert.Equal(t, "100 % of full white", out[4].Text)

	out, err = PixelLine(2000, 1, 5, 5, .060, .001, 2)
	require.NoError(t, err)
	assert.Contains(t, out[3].Text, "NONE")
	assert.Zero(t, out[3].Value)

	for name, bad := range map[string][7]float64{"count": {0, 1, 5, 5, .06, .001, 1}, "copies": {9, 0, 5, 5, .06, .001, 1},
		"logic": {9, 1, 0, 5, .06, .001, 1}, "rail": {9, 1, 5, 0, .06, .001, 1}, "full": {9, 1, 5, 5, .001, .001, 1},
		"amps": {9, 1, 5, 5, .06, .001, 0}} {
		_, err := PixelLine(int(bad[0]), int(bad[1]), bad[2], bad[3], bad[4], bad[5], bad[6])
		assert.ErrorContains(t, err, name)
	}
}
