package shorthand

import (
	"strings"
	"testing"
	"time"

	"zapbarn/demo"
	"zapbarn/testkit/shop"

	"github.com/stretchr/testify/assert"
)

// Every solid's example is understood as it is given, in either unit, and most of what
// else there is once a prop has something; what cannot be yet says why.
func TestHelpIsUnderstood(t *testing.T) {
	day := time.Date(2026, 9, 20, 0, 0, 0, 0, time.UTC)
	for _, p := range []struct {
		metric bool
		prop   string
	}{{false, "riser"}, {true, ""}} {
		display := demo.Apiary(day).In(shop.Kept)
		if p.metric {
			display = demo.Metric(day).In(shop.Kept)
			p.prop = display.Props()[0].ID
		}
		good, all := 0, 0
		for _, g := range HelpFor(display, shop.Kept, p.prop) {
			assert.NotEmpty(t, g.Places, g.Title)
			for _, h := range g.Lines {
				assert.NotEmpty(t, h.Says, h.Line)
				if g.Title == "Solids" {
					assert.True(t, h.Good, "%s: %s", h.Line, h.Says)
				}
				if p.metric {
					assert.NotRegexp(t, `\d ft\b|\d(in|ft)\b`, h.Line)
				}
				if all++; h.Good {
					good++
				} else {
					t.Log(h.Line, "-", h.Says)
				}
			}
		}
		assert.Greater(t, good, all*7/10)
	}
	assert.Equal(
		t,
		"box 560 x 455 x 675 xps1 rabbet lid bottom",
		InUnits("box 22 x 18 x 26 1/2 xps1 rabbet lid bottom", true),
	)
	assert.Equal(t, "run 18awg 3660 mm on F1", InUnits("run 18awg 12ft on F1", true))
	assert.Equal(t, "tower 6 sides 1220 tall 510 to 230 xps1", InUnits("tower 6 sides 48 tall 20 to 9 xps1", true))
	assert.Equal(t, "pipe 6@1120mm 4@1525mm 1.5", InUnits("pipe 6@44in 4@60in 1.5", true))
	assert.Equal(t, "box 22 x 18", InUnits("box 22 x 18", false))
}

// An example for an empty place would be understood, where anything of its verb would.
func TestExamplesAreOfThePlan(t *testing.T) {
	p := demo.Apiary(time.Date(2026, 9, 20, 0, 0, 0, 0, time.UTC)).In(shop.Kept)
	for _, prop := range []string{"gate", "riser", "skep", "bee"} {
		for _, verb := range []string{"glue", "coat", "supply", "opened", "prop", "box"} {
			line := Example(p, shop.Kept, prop, verb)
			_, err := Read(p, shop.Kept, prop, line)
			if err != nil { // all its seams are glued: the place is not empty
				assert.ErrorContains(t, err, "no seam of its own left", prop+": "+line)
			}
		}
	}
}

// A prop with nothing in it has its solids to say, and why the rest must wait.
func TestHelpOfAnEmptyProp(t *testing.T) {
	p := demo.Apiary(time.Date(2026, 9, 20, 0, 0, 0, 0, time.UTC)).In(shop.Kept)
	p.Doc().Props = append(p.Props(), p.Props()[0])
	p.Props()[len(p.Props())-1].ID, p.Props()[len(p.Props())-1].Name = "bare", "Bare"
	for _, g := range HelpFor(p, shop.Kept, "bare") {
		for _, h := range g.Lines {
			if strings.HasPrefix(h.Line, "feed ") {
				assert.False(t, h.Good)
				assert.NotEmpty(t, h.Says)
			}
		}
	}
}

// Examples call devices by their names, and do then what they did by their IDs.
func TestExamplesCallDevicesByName(t *testing.T) {
	p := demo.Apiary(time.Date(2026, 9, 20, 0, 0, 0, 0, time.UTC)).In(shop.Kept)
	lines := map[string]bool{}
	for _, g := range HelpFor(p, shop.Kept, "keeper") {
		for _, h := range g.Lines {
			lines[h.Line] = true
			if !h.Good {
				continue
			}
			_, err := Read(p, shop.Kept, "keeper", h.Line)
			assert.NoError(t, err, h.Line)
		}
	}
	assert.True(t, lines["always Arm up never longer than 8 s"], "%v", lines)
	assert.Equal(t, "always Arm up never longer than 8 s", Example(p, shop.Kept, "keeper", "always"))
}
