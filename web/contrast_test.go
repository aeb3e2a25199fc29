package web

import (
	"math"
	"os"
	"regexp"
	"strconv"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// contrast of two colours by WCAG 2.2, from 1 to 21.
func contrast(a, b string) float64 {
	light := func(hex string) float64 {
		sum := 0.0
		for i, share := range []float64{.2126, .7152, .0722} {
			v, _ := strconv.ParseUint(hex[1+2*i:3+2*i], 16, 8)
			c := float64(v) / 255
			if c <= .04045 {
				c /= 12.92
			} else {
				c = math.Pow((c+.055)/1.055, 2.4)
			}
			sum += share * c
		}
		return sum
	}
	x, y := light(a), light(b)
	return (math.Max(x, y) + .05) / (math.Min(x, y) + .05)
}

// What is written on drawings can be read, in both themes, on every ground a drawing has:
// 4.5 to 1 at least, as for other text; accessibility checkers leave drawings open.
func TestWordsOnDrawingsCanBeRead(t *testing.T) {
	assert.InDelta(t, 21, contrast("#000000", "#FFFFFF"), 1e-9) // the standard's own examples
	assert.InDelta(t, 4.54, contrast("#767676", "#FFFFFF"), 0.01)
	css, err := os.ReadFile("shell/style/theme.css")
	require.NoError(t, err)
	theme := func(block string) map[string]string {
		m := regexp.MustCompile(block).FindStringSubmatch(string(css))
		require.NotNil(t, m, block)
		out := map[string]string{}
		for _, v := range regexp.MustCompile(`--color-([a-z0-9]+): (#[0-9A-Fa-f]{6})\b`).FindAllStringSubmatch(m[1], -1) {
			out[v[1]] = v[2]
		}
		return out
	}
	light := theme(`(?s)@theme static \{(.*?)\}`)
	dark := theme(`(?s)\.dark \{(.*?)\}`)
	for name, colours := range map[string]map[string]string{"light": light, "dark": dark} {
		for _, ink := range []string{"ink", "ink2", "barn", "verdigris"} { // plain, soft, bad and glued words
			for _, ground := range []string{"paper", "card", "tape"} {
				require.NotEmpty(t, colours[ink], name+" "+ink)
				require.NotEmpty(t, colours[ground], name+" "+ground)
				assert.GreaterOrEqual(t, contrast(colours[ink], colours[ground]), 4.5, "%s: %s on %s", name, ink, ground)
			}
		}
		for _, part := range []string{"foam1", "foam2", "wood1", "wood2", "eva1", "eva2", "pipe1", "pipe2"} { // on a part
			require.NotEmpty(t, colours[part], name+" "+part)
			assert.GreaterOrEqual(t, contrast(colours["ink"], colours[part]), 4.5, "%s: on %s", name, part)
		}
	}
}
