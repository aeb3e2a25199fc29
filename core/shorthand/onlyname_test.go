package shorthand

import (
	"errors"
	"strings"
	"testing"

	"zapbarn/demo"
	"zapbarn/testkit/shop"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A line that is only a name says where the thing is and goes on with a line that reads:
// so for every thing of the display, from every prop.
func TestALineThatIsOnlyAName(t *testing.T) {
	p := demo.Apiary(today).In(shop.Kept)
	for _, prop := range p.Props() {
		for _, kind := range []string{"solid", "device", "prop", "input", "scene"} {
			for _, e := range p.Elements(kind) {
				_, err := Read(p, shop.Kept, prop.ID, e.ID)
				if err == nil {
					continue // it is a phrase of its own
				}
				var wrong *Error
				require.True(t, errors.As(err, &wrong), e.ID)
				assert.Contains(t, wrong.Why, "say what of", e.ID)
				if in := p.Belongs(e.Value); in != "" && in != prop.ID && kind != "prop" {
					assert.Contains(t, wrong.Why, "is in "+p.Prop(in).Name, e.ID)
				} else {
					assert.NotContains(t, wrong.Why, " is in ", e.ID)
				}
				_, err = Read(p, shop.Kept, prop.ID, wrong.Example)
				assert.NoError(t, err, "%s: %s", e.ID, wrong.Example)
			}
		}
	}
	_, err := Read(p, shop.Kept, "riser", "hat")
	assert.EqualError(t, err, "Hat is in Keeper: say what of it; try: Hat right by 3 in")
}

// What a field was is told as it was, whatever the thing is.
func TestWhatAFieldWas(t *testing.T) {
	p := demo.Apiary(today).In(shop.Kept)
	for line, want := range map[string]string{
		"S1 product ps12-5":      "was ps12-2",
		"W1 gauge 12 awg":        "was ",
		"riser-box height 30":    "was ",
		"riser known 30 in":      "was 27 1/2 in",
		"Ola hours mon 9-10":     "was mon-fri 18-21:30, sat sun 10-18",
		"riser-box sealed off":   "was on",
		"Ola trades wiring":      "was not said",
		"porch breaker 20 A":     "was ",
		"jar-8 name Eighth jar":  "was ",
		"riser name Rising hive": "was Frame riser",
	} {
		r, err := Read(p, shop.Kept, "riser", line)
		require.NoError(t, err, line)
		_, was, ok := strings.Cut(r.Text, ", was ")
		require.True(t, ok, r.Text)
		now, _, _ := strings.Cut(r.Text, ", was ")
		assert.False(t, strings.HasSuffix(now, " "+was), r.Text)
		assert.Contains(t, r.Text, want, line)
	}
}
