package shorthand

import (
	"errors"
	"fmt"
	"math/rand/v2"
	"strings"
	"testing"

	"zapbarn/core/form"
	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/testkit/shop"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// What people say means what the line's own words mean.
func TestSaidPlainly(t *testing.T) {
	p := plan.New("x", "X", "in", "").In(shop.Kept)
	p.Doc().Props = []plan.Prop{{ID: "a", Name: "A"}}
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
		want, err := Read(p, shop.Kept, "a", c[1])
		require.NoError(t, err, c[1])
		got, err := Read(p, shop.Kept, "a", c[0])
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
	p := plan.New("x", "X", "in", "").In(shop.Kept)
	p.Doc().Props = []plan.Prop{{ID: "a", Name: "A"}}
	words := map[string][]string{"w": {"wide", "across"}, "d": {"deep"}, "h": {"high", "tall"}}
	also := map[string][]string{"w": {"low", "wide"}, "d": {"depth", "deep"}, "h": {"rise"}}
	rng := rand.New(rand.NewPCG(7, 7))
	understood := map[string]int{}
	for range 3000 {
		verb := []string{
			"box", "panel", "ball", "hive", "tube", "frame", "skin", "modelled", "laminate", "arch", "cone", "tower", "crate",
			"trim", "pyramid", "rings", "disc", "bought jar", "cylinder", "slices",
		}[rng.IntN(20)]
		line, at := verb, map[string]float64{}
		for _, k := range rng.Perm(3)[:1+rng.IntN(3)] {
			way := []string{"w", "d", "h"}[k]
			inches := 6 + rng.IntN(60)
			mm := float64(inches) * 25.4
			said := measure.Inches(mm)
			if inches > 11 && rng.IntN(3) == 0 {
				mm += 12.7
				said = fmt.Sprintf("%d ft %d 1/2 in", inches/12, inches%12)
			}
			line += " " + said
			if rng.IntN(5) > 0 { // else it is bare
				w := words[way]
				line, at[way] = line+" "+w[rng.IntN(len(w))], mm
			} else if rng.IntN(2) == 0 {
				line += " x"
			}
		}
		r, err := Read(p, shop.Kept, "a", line)
		if err != nil || len(at) == 0 {
			continue
		}
		understood[verb]++
		var s plan.Solid
		require.NoError(t, s.UnmarshalJSON(r.Edit.Changes[0].After))
		for way, mm := range at {
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
	p := plan.New("x", "X", "in", "").In(shop.Kept)
	p.Doc().Props = []plan.Prop{{ID: "a", Name: "A"}}
	for line, first := range map[string]string{
		"box 10 x 10 x 10 xpz1": "box 10 x 10 x 10 xps1",
		"box 10x10x10 plywood":  "box 10x10x10 ply1/2",
		"box 10x10x10 plywod":   "box 10 x 10 x 10 ply1/2",
		"panel 12 x 10 acrilic": "panel 12 x 10 acrylic",
		"pole 6 ft 2 in pvc":    "pipe 6 ft pvc2",
		"panel 24 x 18 1/2 ply": "panel 24 x 18 ply1/2",
	} {
		_, err := Read(p, shop.Kept, "a", line)
		var wrong *Error
		require.True(t, errors.As(err, &wrong), line)
		require.NotEmpty(t, wrong.Offers, line)
		assert.Equal(t, first, wrong.Tries()[0], line)
		for _, o := range wrong.Offers {
			_, err := Read(p, shop.Kept, "a", o)
			assert.NoError(t, err, o)
		}
	}
	// another thickness is no misspelling
	_, err := Read(p, shop.Kept, "a", "box 10 x 10 x 10 ply3/8")
	var thick *Error
	require.True(t, errors.As(err, &thick))
	assert.Empty(t, thick.Offers)
	// 60 1/2 plywood is 60 of half an inch, or 60 1/2: each is offered, neither guessed
	_, err = Read(p, shop.Kept, "a", "box 40 x 30 x 60 1/2 plywood")
	require.True(t, errors.As(err, &thick))
	assert.Equal(t, "box 40 x 30 x 60 ply1/2", thick.Offers[0])
	assert.Contains(t, thick.Offers, "box 40 x 30 x 60 1/2 ply1/4")
	// an own name is never taken for another's
	_, err = Read(p, shop.Kept, "a", "frobnicate 10 x 10")
	var wrong *Error
	require.True(t, errors.As(err, &wrong))
	assert.Contains(t, wrong.Why, "no word the quick line knows")
	assert.Equal(t, []string{"box height 30", "box wider by 2 in, cap on body"},
		(&Error{Example: "box height 30 (or: box wider by 2 in, cap on body)"}).Tries())
}

// What is wired and coated is said as people say it; what has no sign of its own is asked
// for, never guessed.
func TestWiringSaidPlainly(t *testing.T) {
	p := plan.New("x", "X", "in", "").In(shop.Kept)
	p.Doc().Props = []plan.Prop{{ID: "a", Name: "A"}}
	for _, line := range []string{
		"box 10 x 10 x 10 called crate", "box 6 x 6 x 6 beside called bin", "supply 12 volt 3 amp",
		"2a fuse on S1", "switch on F1", "wire 18 awg 10 ft from SW1", "outlet patio 15 amp 120 volt",
		"glue crate to bin with hot glue", "paint crate with exterior latex paint", "four lamps puck12 on W1",
		"crate 2 in taller", "S1 into patio", "2 in hole in bin front",
	} {
		r, err := Read(p, shop.Kept, "a", line)
		require.NoError(t, err, line)
		p, err = p.Apply(p.Settled(r.Edit))
		require.NoError(t, err, line)
	}
	kinds := map[string]int{}
	for _, d := range p.Devices() {
		kinds[d.Kind]++
	}
	assert.Equal(t, map[string]int{"supply": 1, "fuse": 1, "switch": 1, "run": 1, "lamp": 4}, kinds)
	assert.Equal(t, "Patio", p.Outlets()[0].Name)
	assert.Equal(t, p.Outlets()[0].ID, p.Device("S1").Outlet)
	assert.InDelta(t, 12*25.4, p.Solids()[0].Length("h").Value(), 0.1)
	assert.Equal(t, "latex", p.Finishes()[0].Layers[0].Coat)
	for _, line := range []string{"motor on W1", "servo on W1", "pump on W1", "led on W1", "bulb on W1"} {
		r, err := Read(p, shop.Kept, "a", line)
		if err == nil {
			word, _, _ := strings.Cut(line, " ")
			assert.Contains(t, strings.ToLower(r.Text), strings.TrimSuffix(word, "s"), line)
			continue
		}
		var wrong *Error
		require.True(t, errors.As(err, &wrong))
		for _, o := range wrong.Offers {
			_, err := Read(p, shop.Kept, "a", o)
			assert.NoError(t, err, o)
		}
	}
	q, err := p.Apply(plan.Edit{})
	require.NoError(t, err)
	r, err := Read(q, shop.Kept, "a", "rename crate to 12 volt box")
	require.NoError(t, err)
	assert.Contains(t, string(r.Edit.Changes[0].After), "12 volt box", "a name stays as it is said")
}

// Whatever is asked for by a part of its name, with what may stand beside it: a line that
// is offered for it is understood as it stands, or asks which of several another word is.
// Where nothing can be offered, what stands in the way is said.
func TestWhatIsOfferedReads(t *testing.T) {
	bare := plan.New("x", "X", "in", "").In(shop.Kept)
	bare.Doc().Props = []plan.Prop{{ID: "a", Name: "A"}}
	fed := bare.Clone()
	for _, line := range []string{"box 10 x 10 x 10 xps1", "supply 12v 5a"} {
		r, err := Read(fed, shop.Kept, "a", line)
		require.NoError(t, err)
		fed, err = fed.Apply(r.Edit)
		require.NoError(t, err)
	}
	pick := func(rng *rand.Rand, of []string) string { return of[rng.IntN(len(of))] }
	verbs := []string{"box", "panel", "pole", "tube", "lamp", "led", "servo", "motor", "strip", "supply", "glue box with",
		"coat box", "pane", "disc", "3 pipes", "bulb"}
	what := []string{"pvc", "plywood", "plywod", "eva", "acrylic", "board", "foam", "led", "servo", "motor", "candle",
		"latex", "12 v", "pixels", "xpz1"}
	more := []string{"6 ft high", "2 in", "10 x 10 x 10", "10 x 12", "60 rpm", "on S1", "in box", "6 ft", "1/2", "x3",
		"in the box", "3 mm", "12 v", ""}
	rng := rand.New(rand.NewPCG(11, 11))
	offered, alone := 0, 0
	for range 3000 {
		p := bare
		if rng.IntN(2) == 0 {
			p = fed
		}
		line := strings.Join([]string{pick(rng, verbs), pick(rng, more), pick(rng, what), pick(rng, more)}, " ")
		_, err := Read(p, shop.Kept, "a", line)
		var wrong, again *Error
		if !errors.As(err, &wrong) {
			require.NoError(t, err)
			continue
		}
		if len(wrong.Offers) == 0 {
			alone++
		}
		for _, o := range wrong.Offers {
			offered++
			_, err := Read(p, shop.Kept, "a", o)
			require.True(t, err == nil || errors.As(err, &again) && len(again.Offers) > 0, "%s: %s, but %v", line, o, err)
		}
	}
	assert.Greater(t, offered, 150)
	assert.Greater(t, alone, 300)

	_, err := Read(bare, shop.Kept, "a", "12 leds in the cellar")
	assert.ErrorContains(t, err, "could be")
	_, err = Read(bare, shop.Kept, "a", "servo")
	assert.ErrorContains(t, err, "nothing to feed it from yet; try: supply 12v 5a")
	assert.NotContains(t, err.Error(), "did you mean")
}

// A length of pipe is as long as it is said, in feet, inches and their parts; two lengths
// are two pieces. A number before the name is its bore where it can be nothing else.
func TestALengthOfPipe(t *testing.T) {
	p := plan.New("x", "X", "in", "").In(shop.Kept)
	p.Doc().Props = []plan.Prop{{ID: "a", Name: "A"}}
	for line, want := range map[string]string{
		"post 6 ft 2 in pvc1":            "1@1879.6 pvc1",
		`6' 2" post pvc1`:                "1@1879.6 pvc1",
		"pole 10 1/2 in pvc1":            "1@266.7 pvc1",
		"pole 6 ft 2 1/2 in pvc1":        "1@1892.3 pvc1",
		"pipe 6 ft 4 ft pvc1":            "1@1828.8 1@1219.2 pvc1",
		"three posts 4 ft pvc1":          "3@1219.2 pvc1",
		"pipe 4 ft 2 ft x2 pvc1":         "2@1219.2 2@609.6 pvc1",
		"pole 6 ft high 2 in pvc":        "1@1828.8 pvc2",
		"pole 6 ft long 2 1/2 in pvc":    "1@1828.8 pvc2.5",
		"pole 6 ft tall 1/2 in pvc":      "1@1828.8 pvc1/2",
		"pole 6 ft tall 1 in pvc":        "1@1828.8 pvc1",
		"pipe 2@4ft 1@2ft pvc1":          "2@1219.2 1@609.6 pvc1",
		"pole 6 ft 2 in pvc":             "“pvc” could be",
		"pole 6 ft 2 1/2 in pvc":         "“pvc” could be",
		"pole 6 ft tall 4 ft pvc1":       "one length is said by name",
		"pipe 2@4ft x2 pvc1":             "x2 beside a count",
		"pipe pvc1":                      "a pipe list takes count@length",
		"pipe 6 ft bananas pvc1":         "bananas",
		"panel 24 x 18 5 mm eva":         "eva5",
		"panel 24 x 18 in 1/2 plywood":   "ply1/2",
		"panel 24 x 18 1/2 in plywood":   "“plywood” could be",
		"panel 24 in x 18 in 10 mm eva":  "eva10",
		"panel 24 in x 18 in 7 mm eva":   "“eva” could be",
		"panel 24 in x 18 in 5 in eva":   "“eva” could be",
		"remove the pipe, whichever one": "nothing here is called",
	} {
		r, err := Read(p, shop.Kept, "a", line)
		if err != nil {
			assert.ErrorContains(t, err, want, line)
			continue
		}
		var s plan.Solid
		require.NoError(t, s.UnmarshalJSON(r.Edit.Changes[0].After))
		got := s.Stock
		if pipe, ok := s.Form.(form.Pipe); ok {
			cuts, err := form.Cuts(pipe.Lengths)
			require.NoError(t, err)
			for i := len(cuts) - 1; i >= 0; i-- {
				got = fmt.Sprintf("%d@%.5g %s", cuts[i].Count, cuts[i].Length, got)
			}
		}
		assert.Equal(t, want, got, line)
	}
}

// An article before a thing is no part of its name, and what is written stays as it is.
func TestArticles(t *testing.T) {
	p := plan.New("x", "X", "in", "").In(shop.Kept)
	p.Doc().Props = []plan.Prop{{ID: "a", Name: "A"}}
	r, err := Read(p, shop.Kept, "a", "box 20 x 20 x 20 xps1")
	require.NoError(t, err)
	p, err = p.Apply(r.Edit)
	require.NoError(t, err)
	for line, plain := range map[string]string{
		"remove the box":                             "remove box",
		"hole 3 in in the box front":                 "hole 3 in in box front",
		"letters 3 in in the box front says THE END": "letters 3 in in box front says THE END",
		"drill 2 in in my box front":                 "hole 2 in in box front",
		"rename the box to the chest":                "rename box to the chest",
	} {
		want, err := Read(p, shop.Kept, "a", plain)
		require.NoError(t, err, plain)
		got, err := Read(p, shop.Kept, "a", line)
		require.NoError(t, err, line)
		assert.Equal(t, want.Text, got.Text, line)
	}
}
