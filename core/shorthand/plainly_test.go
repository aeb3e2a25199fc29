package shorthand

import (
	"errors"
	"strings"
	"testing"

	"zapbarn/core/plan"
	"zapbarn/core/stock"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// What people say means what the line's own words mean.
func TestSaidPlainly(t *testing.T) {
	p := plan.New("x", "X", "in", "")
	p.Props = []plan.Prop{{ID: "a", Name: "A"}}
	for _, c := range [][2]string{
		{"sphere 12in xps2", "ball 12in xps2"},
		{"add a box 10 x 10 x 10", "box 10 x 10 x 10"},
		{"box 10x10x10 xps1", "box 10 x 10 x 10 xps1"},
		{"box 1/2ftx10x10in xps1", "box 1/2ft x 10 x 10in xps1"},
		{"10x10x10", "box 10 x 10 x 10"},
		{"10 x 10 x 10 xps2", "box 10 x 10 x 10 xps2"},
		{"12x10 ply1/4", "panel 12 x 10 ply1/4"},
		{"box 6 ft wide 2 ft deep 3 ft high xps1", "box 6 ft x 2 ft x 3 ft xps1"},
		{"box 3 ft high 6 ft wide and 2 ft deep xps1", "box 6 ft x 2 ft x 3 ft xps1"},
		{"crate 6ft wide, 2ft deep, 3ft high xps1 lid", "box 6ft x 2ft x 3ft xps1 lid"},
		{"acrylic 12x10", "panel 12 x 10 acrylic3"},
		{"panel 10 tall 12 wide ply1/4", "panel 12 x 10 ply1/4"},
		{"cylinder 12in x 24in eva5", "tube 12in x 24in eva5"},
		{"cube 10 in xps1", "box 10 in x 10 in x 10 in xps1"},
		{"post 4ft pvc1", "pipe 1@4ft pvc1"},
		{"a pole 4 ft long pvc1", "pipe 1@4ft pvc1"},
		{"hexagon 48 tall 20 to 9 xps1", "tower 6 sides 48 tall 20 to 9 xps1"},
		{"Power Supply 12v 5a", "supply 12v 5a"},
		{"power supply 12 volts 5 amps", "supply 12v 5a"},
		{"three posts 4 ft pvc1", "pipe 3@4ft pvc1"},
		{"3 panels 36 x 10 ply1/4", "panel 36 x 10 ply1/4 x3"},
		{"box 10 x 10 x 10 1/2 plywood", "box 10 x 10 x 10 ply1/2"},
	} {
		want, err := Read(p, stock.Shop, "a", c[1])
		require.NoError(t, err, c[1])
		got, err := Read(p, stock.Shop, "a", c[0])
		require.NoError(t, err, c[0])
		assert.Equal(t, strings.ToLower(noNames(want.Text)), strings.ToLower(noNames(got.Text)), c[0])
		require.Len(t, got.Edit.Changes, len(want.Edit.Changes), c[0])
	}
}

// noNames is a reading without the name it makes up, which follows the word said.
func noNames(text string) string { _, rest, _ := strings.Cut(text, ", "); return rest }

// What is misspelt is offered set right, and what could be several as each of them; every
// line offered is understood, or asks which of several.
func TestOffersAreUnderstood(t *testing.T) {
	p := plan.New("x", "X", "in", "")
	p.Props = []plan.Prop{{ID: "a", Name: "A"}}
	for line, first := range map[string]string{
		"box 10 x 10 x 10 xpz1":    "box 10 x 10 x 10 xps1",
		"box 10x10x10 plywood":     "box 10x10x10 ply1/2",
		"box 10x10x10 plywod":      "box 10 x 10 x 10 ply1/2",
		"panel 12 x 10 acrilic":    "panel 12 x 10 acrylic",
		"disc 20 in craft fome x2": "",
	} {
		_, err := Read(p, stock.Shop, "a", line)
		var wrong *Error
		require.True(t, errors.As(err, &wrong), line)
		if first == "" {
			continue
		}
		require.NotEmpty(t, wrong.Offers, line)
		assert.Equal(t, first, wrong.Tries()[0], line)
		for _, o := range wrong.Offers {
			_, err := Read(p, stock.Shop, "a", o)
			assert.NoError(t, err, o)
		}
	}
	// an own name is never taken for another's
	_, err := Read(p, stock.Shop, "a", "frobnicate 10 x 10")
	var wrong *Error
	require.True(t, errors.As(err, &wrong))
	assert.Contains(t, wrong.Why, "no word the quick line knows")
	assert.Equal(t, []string{"box height 30", "box wider by 2 in, cap on body"},
		(&Error{Example: "box height 30 (or: box wider by 2 in, cap on body)"}).Tries())
}

// What is wired and coated is said as people say it; what has no sign of its own is asked
// for, never guessed.
func TestWiringSaidPlainly(t *testing.T) {
	p := plan.New("x", "X", "in", "")
	p.Props = []plan.Prop{{ID: "a", Name: "A"}}
	for _, line := range []string{
		"box 10 x 10 x 10 called crate", "box 6 x 6 x 6 beside called bin", "supply 12 volt 3 amp",
		"2a fuse on S1", "switch on F1", "wire 18 awg 10 ft from SW1", "outlet patio 15 amp 120 volt",
		"glue crate to bin with hot glue", "paint crate with exterior latex paint", "four lamps puck12 on W1",
		"crate 2 in taller", "S1 into patio",
	} {
		r, err := Read(p, stock.Shop, "a", line)
		require.NoError(t, err, line)
		p, err = p.Apply(p.Settled(r.Edit))
		require.NoError(t, err, line)
	}
	kinds := map[string]int{}
	for _, d := range p.Devices {
		kinds[d.Kind]++
	}
	assert.Equal(t, map[string]int{"supply": 1, "fuse": 1, "switch": 1, "run": 1, "lamp": 4}, kinds)
	assert.Equal(t, "Patio", p.Outlets[0].Name)
	assert.Equal(t, p.Outlets[0].ID, p.Device("S1").Outlet)
	assert.InDelta(t, 12*25.4, p.Solids[0].Length("h").Value(), 0.1)
	assert.Equal(t, "latex", p.Finishes[0].Layers[0].Coat)
	for _, line := range []string{"motor on W1", "servo on W1", "pump on W1", "led on W1", "bulb on W1"} {
		r, err := Read(p, stock.Shop, "a", line)
		if err == nil {
			word, _, _ := strings.Cut(line, " ")
			assert.Contains(t, strings.ToLower(r.Text), strings.TrimSuffix(word, "s"), line)
			continue
		}
		var wrong *Error
		require.True(t, errors.As(err, &wrong))
		for _, o := range wrong.Offers {
			_, err := Read(p, stock.Shop, "a", o)
			assert.NoError(t, err, o)
		}
	}
	q, err := p.Apply(plan.Edit{})
	require.NoError(t, err)
	r, err := Read(q, stock.Shop, "a", "rename crate to 12 volt box")
	require.NoError(t, err)
	assert.Contains(t, string(r.Edit.Changes[0].After), "12 volt box", "a name stays as it is said")
}
