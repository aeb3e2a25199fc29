package shorthand

import (
	"errors"
	"math/rand/v2"
	"strings"
	"testing"

	"zapbarn/core/measure"
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
		{"box 10 x 10 x 10 in 1/2 plywood", "box 10 x 10 x 10 in ply1/2"},
		{"box 10 x 10 6 high xps1", "box 10 x 10 x 6 xps1"},
		{"box 40 high 30 x 20 xps1", "box 30 x 20 x 40 xps1"},
		{"box 26 1/2 in high 10 wide 20 deep xps1", "box 10 x 20 x 26 1/2 in xps1"},
		{"laminate 9 wide 11 high 5 deep glassmat", "laminate 9 x 11 x 5 glassmat"},
		{"20 x 30 xps1 panel", "panel 20 x 30 xps1"},
		{"6 ft post pvc1", "pipe 1@6ft pvc1"},
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

// Whatever form is said with sizes by name, in any order, some of them bare: what is
// understood has each size where it was said, or it is refused.
func TestASizeIsWhereItWasSaid(t *testing.T) {
	p := plan.New("x", "X", "in", "")
	p.Props = []plan.Prop{{ID: "a", Name: "A"}}
	words := map[string][]string{"w": {"wide", "across"}, "d": {"deep"}, "h": {"high", "tall"}}
	also := map[string][]string{"w": {"low", "wide"}, "d": {"depth", "deep"}, "h": {"rise"}}
	rng := rand.New(rand.NewPCG(7, 7))
	understood := map[string]int{}
	for range 3000 {
		verb := []string{
			"box", "panel", "ball", "hive", "tube", "frame", "skin", "modelled", "laminate", "arch", "cone", "tower", "crate",
			"trim", "pyramid", "rings", "disc", "bought jar", "cylinder", "slices",
		}[rng.IntN(20)]
		line, said := verb, map[string]float64{}
		for _, k := range rng.Perm(3)[:1+rng.IntN(3)] {
			way := []string{"w", "d", "h"}[k]
			mm := float64(6+rng.IntN(60)) * 25.4
			line += " " + measure.Inches(mm)
			if rng.IntN(5) > 0 { // else it is bare
				w := words[way]
				line, said[way] = line+" "+w[rng.IntN(len(w))], mm
			} else if rng.IntN(2) == 0 {
				line += " x"
			}
		}
		r, err := Read(p, stock.Shop, "a", line)
		if err != nil || len(said) == 0 {
			continue
		}
		understood[verb]++
		var s plan.Solid
		require.NoError(t, s.UnmarshalJSON(r.Edit.Changes[0].After))
		for way, mm := range said {
			got := -1.0
			for _, f := range append([]string{way}, also[way]...) {
				if l := s.Length(f); !l.IsZero() && got < 0 {
					got = l.Value()
				}
			}
			assert.InDelta(t, mm, got, 0.1, "%s: %s, but %s", line, way, r.Text)
		}
	}
	for _, verb := range []string{"box", "tube", "frame", "modelled", "laminate", "hive", "crate"} {
		assert.Greater(t, understood[verb], 10, verb)
	}
}

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
	// another thickness is no misspelling
	_, err := Read(p, stock.Shop, "a", "box 10 x 10 x 10 ply3/8")
	var thick *Error
	require.True(t, errors.As(err, &thick))
	assert.Empty(t, thick.Offers)
	// 60 1/2 plywood is 60 of half an inch, or 60 1/2: each is offered, neither guessed
	_, err = Read(p, stock.Shop, "a", "box 40 x 30 x 60 1/2 plywood")
	require.True(t, errors.As(err, &thick))
	assert.Equal(t, "box 40 x 30 x 60 ply1/2", thick.Offers[0])
	assert.Contains(t, thick.Offers, "box 40 x 30 x 60 1/2 ply1/4")
	// an own name is never taken for another's
	_, err = Read(p, stock.Shop, "a", "frobnicate 10 x 10")
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
		"crate 2 in taller", "S1 into patio", "2 in hole in bin front",
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
