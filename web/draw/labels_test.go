package draw

import (
	"math/rand/v2"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
)

// Whatever words are to stand where, none of those that were given a place runs into
// another or over the edge while there is room; what need not move stays.
func TestWordsFindTheirPlaces(t *testing.T) {
	rng := rand.New(rand.NewPCG(3, 9))
	for range 200 {
		c := New(700, 500, false)
		want := map[string]label{}
		for k := range 3 + rng.IntN(12) {
			name := strings.Repeat(string(rune('A'+k)), 3+rng.IntN(20))
			l := label{
				"t",
				[]string{"start", "middle", "end"}[rng.IntN(3)],
				700 * rng.Float64(),
				150 + 250*rng.Float64(),
				name,
				0,
				false,
			}
			want[name] = l
			c.say(l)
		}
		list := placed(c.labels, c.W, c.H)
		assert.Len(t, list, len(c.labels))
		var boxes []box
		for i, l := range c.labels {
			l = l.within(c.W)
			l, leader := l.free(boxes, c.H)
			assert.Equal(t, list[i], leader+l.svg(), "the same again")
			b := l.covers()
			for _, o := range boxes {
				assert.False(t, b.hits(o), l.text)
			}
			assert.GreaterOrEqual(t, b.left, 1.9)
			assert.LessOrEqual(t, b.right, 698.1)
			if own := want[l.text].within(c.W); leader == "" {
				assert.InDelta(t, own.y, l.y, 1e-9)
			}
			boxes = append(boxes, b)
		}
	}
	// no word is lost, whatever its class
	c := New(300, 200, false)
	for k, class := range []string{"t halo2", "t halo", "halo", "t", "soft"} {
		c.Text(class, "start", 10, 20+30*float64(k), class+" word")
	}
	for _, class := range []string{"t halo2", "t halo", "halo", "t", "soft"} {
		assert.Contains(t, c.SVG("x", "x", "x"), ">"+class+" word<")
	}
	// two on one spot: the second goes a line down, and is led back to it
	c = New(300, 200, false)
	c.Text("t", "middle", 150, 100, "first")
	c.Text("t", "middle", 150, 100, "second")
	svg := c.SVG("x", "x", "x")
	assert.Contains(t, svg, `y="100">first`)
	assert.Contains(t, svg, `y="115.6">second`)
	assert.Equal(t, 1, strings.Count(svg, "leadto"))
	// what is longer than the drawing is wide is shortened
	c = New(120, 100, false)
	c.Text("t", "start", 5, 50, "a name that is longer than this drawing is wide")
	assert.Contains(t, c.SVG("x", "x", "x"), "…")
}
