package shorthand

import (
	"strconv"
	"strings"
	"testing"

	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/work"
	"zapbarn/testkit/shop"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// built is a plan typed line by line.
func built(t *testing.T, units string, lines ...string) *plan.Plan {
	t.Helper()
	p := plan.New("x", "X", units, "").In(shop.Kept)
	r, said := ReadAll(p, shop.Kept, "", strings.Join(lines, "\n"))
	for _, l := range said {
		require.NoError(t, l.Err, l.Text)
	}
	q, err := p.Apply(r.Edit)
	require.NoError(t, err)
	return q
}

func typed(t *testing.T, p *plan.Plan, line string) *plan.Plan {
	t.Helper()
	r, err := Read(p, shop.Kept, p.Props()[0].ID, line)
	require.NoError(t, err, line)
	q, err := p.Apply(r.Edit)
	require.NoError(t, err, line)
	return q
}

func TestThingsAreChangedByTheirName(t *testing.T) {
	p := built(
		t,
		"in",
		"prop chest 30 in tall",
		"box 20 x 12 x 10 xps1",
		"supply 12v 5a",
		"fuse 3a on S1",
		"switch on F1",
	)
	solid := func(p *plan.Plan, f string) string { return p.Solids()[0].Length(f).String() }
	p = typed(t, p, "box height 30")
	assert.Equal(t, "30", solid(p, "h"))
	p = typed(t, p, "Box wider by 2 in")
	assert.Equal(t, `22"`, solid(p, "w"))
	p = typed(t, p, "box shorter by 1 1/2")
	assert.Equal(t, `28 1/2"`, solid(p, "h"))
	p = typed(t, p, "box lid")
	p = typed(t, p, "box corners mitre")
	p = typed(t, p, "F1 rating 5a")
	assert.Equal(t, "5a", p.Device("F1").Rating.String())
	p = typed(t, p, "chest known to 29 in")
	assert.Equal(t, "29 in", p.Props()[0].Known.String())
	p = typed(t, p, "rename box to sea chest")
	assert.Equal(t, "sea chest", p.Solids()[0].Name)
	p = typed(t, p, "Sea Chest depth = 14 in")
	assert.Equal(t, "14 in", solid(p, "d"))
	p = typed(t, p, "sea chest right 5 in")
	p = typed(t, p, "sea chest left 3 in")
	assert.InDelta(t, -3*measure.Inch, p.Solids()[0].X.Value(), 1e-9)
	q := typed(t, p, "remove F1")
	assert.Nil(t, q.Device("F1"))
	assert.Nil(t, q.Device("K1"), "what hangs on it goes with it")
	q = typed(t, p, "remove chest")
	assert.Empty(t, q.Props())
	for line, want := range map[string]string{
		"sea chest colour red": `has no "colour"`, "sea chest height": "say the new height",
		"sea chest height tall": "write a length",
		"remove lighthouse":     "there is sea chest, ", "rename sea chest": "say what, then to",
		"sea chest height 4000 ft": "larger than any prop",
		"sea chest":                "is no word",
	} {
		_, err := Read(p, shop.Kept, "chest", line)
		if line == "sea chest" {
			assert.ErrorContains(t, err, "say what of it")
			continue
		}
		assert.ErrorContains(t, err, want, line)
	}
	mm := built(t, "mm", "prop chest", "box 500 x 300 x 200 xps1")
	assert.Equal(t, "250 mm", typed(t, mm, "box taller by 50").Solids()[0].Length("h").String())
}

// Places by relation, against the known dimension: a cap on a body on a base is
// as high as the three; a ring larger than its pole goes round it, and not else.
func TestSolidsArePlacedByRelation(t *testing.T) {
	p := built(
		t,
		"in",
		"prop lantern",
		"box 20 x 20 x 6 ply1/2 beside",
		"tower 4 sides 30 tall 18 to 10 xps1 beside",
		"cone 14 to 2 9 tall eva5 beside",
		"rings 24 12 tall wall 2 xps2 beside",
		"disc 30 in xps1 beside",
	)
	p = typed(t, p, "tower on box")
	p = typed(t, p, "cone on tower")
	at := func(p *plan.Plan, name string) *plan.Solid {
		for i := range p.Solids() {
			if p.Solids()[i].Name == name {
				return &p.Solids()[i]
			}
		}
		return nil
	}
	assert.InDelta(t, 6*measure.Inch, at(p, "Tower").Z.Value(), 1e-9)
	assert.InDelta(t, 36*measure.Inch, at(p, "Cone").Z.Value(), 1e-9)
	assert.Zero(t, at(p, "Cone").X.Value())
	p = typed(t, p, "rings around tower at 4 in")
	assert.InDelta(t, 10*measure.Inch, at(p, "Rings").Z.Value(), 1e-9)
	p = typed(t, p, "disc beside box left")
	assert.InDelta(t, -25*measure.Inch, at(p, "Disc").X.Value(), 1e-9)
	p = typed(t, p, "disc behind box")
	assert.InDelta(t, 25*measure.Inch, at(p, "Disc").Y.Value(), 1e-9)
	p = typed(t, p, "disc hangs at 6 ft")
	assert.InDelta(t, 72*measure.Inch, at(p, "Disc").Z.Value(), 1e-9)
	p = typed(t, p, "disc centred")
	assert.Zero(t, at(p, "Disc").Y.Value())
	p = typed(t, p, "disc floor")
	assert.Zero(t, at(p, "Disc").Z.Value())
	for line, want := range map[string]string{"cone around tower": "Tower is larger than",
		"disc in box": "Disc is larger than", "cone on moon": "nothing here is called", "cone hangs": "at what height",
		"cone on cone": "nothing here is called"} {
		_, err := Read(p, shop.Kept, "lantern", line)
		assert.ErrorContains(t, err, want, line)
	}
}

// A copied prop is one of its own: as many of everything, all of its references
// inside it, and it weighs and draws the same.
func TestAPropIsCopiedWhole(t *testing.T) {
	p := built(
		t,
		"in",
		"prop lamp post",
		"box 10 x 10 x 40 xps1",
		"glue front to left with pu",
		"coat box latex 2",
		"supply 12v 5a",
		"fuse 3a on S1",
		"run 18awg 6ft on F1",
		"driven switch on W1",
		"lamp puck12 on K1",
		"mat runs glow",
	)
	q := typed(t, p, "copy prop lamp post as second post")
	for _, kind := range plan.Kinds() {
		if kind == "display" || kind == "outlet" {
			continue
		}
		assert.Len(t, q.Elements(kind), 2*len(p.Elements(kind)), kind)
	}
	w := work.Do(q, shop.Kept, today)
	assert.InEpsilon(
		t,
		w.Results().At("prop", "lamp-post", "mass").Value,
		w.Results().At("prop", "second-post", "mass").Value,
		1e-12,
	)
	for _, d := range q.Devices() {
		if d.From != "" {
			assert.Equal(t, d.Prop, q.Device(d.From).Prop, d.ID)
		}
	}
	assert.InEpsilon(t, w.All().Readings["S1"].Amps, w.All().Readings["S2"].Amps, 1e-9)
	undone, err := q.Apply(mustRead(t, p, "copy prop lamp post as second post").Inverse())
	require.NoError(t, err)
	assert.Equal(t, string(p.Encode()), string(undone.Encode()))
}

func mustRead(t *testing.T, p *plan.Plan, line string) plan.Edit {
	r, err := Read(p, shop.Kept, p.Props()[0].ID, line)
	require.NoError(t, err)
	return r.Edit
}

func TestASolidIsMirrored(t *testing.T) {
	p := built(t, "in", "prop moth", "outline 20 in tall ply1/4 0,0 10,2 8,20")
	p.Solids()[0].X = measure.Len("-6 in")
	q := typed(t, p, "mirror outline as right wing")
	require.Len(t, q.Solids(), 2)
	assert.InDelta(t, 6*measure.Inch, q.Solids()[1].X.Value(), 1e-9)
	a, err := p.Solids()[0].Shape(shop.Kept)
	require.NoError(t, err)
	b, err := q.Solids()[1].Shape(shop.Kept)
	require.NoError(t, err)
	assert.InDelta(t, a.Panels[0].Area(), b.Panels[0].Area(), 1e-6)
	lo, hi := a.Panels[0].Bounds()
	mid := func(o []float64) (s float64) {
		for _, x := range o {
			s += x / float64(len(o))
		}
		return
	}
	var xs, ys []float64
	for _, q := range a.Panels[0].Outline {
		xs = append(xs, q.X)
	}
	for _, q := range b.Panels[0].Outline {
		ys = append(ys, q.X)
	}
	assert.InDelta(t, lo.X+hi.X-mid(xs), mid(ys), 1e-6)
	back := typed(t, q, "mirror right wing as left wing")
	assert.Equal(t, p.Solids()[0].X.Value(), back.Solids()[2].X.Value(), "twice is as it was")
}

func TestSeveralLinesAllOrNone(t *testing.T) {
	p := plan.New("x", "X", "in", "").In(shop.Kept)
	r, lines := ReadAll(p, shop.Kept, "", "prop a\n\n# a remark\nbox 10 x 10 x 10 xps1\nprop b\nbox 8 x 8 x 8 xps1\n")
	require.NotNil(t, r)
	assert.Len(t, lines, 4)
	q, err := p.Apply(r.Edit)
	require.NoError(t, err)
	assert.Equal(t, "a", q.Solids()[0].Prop)
	assert.Equal(t, "b", q.Solids()[1].Prop, "a line that names a prop opens it")
	r, lines = ReadAll(p, shop.Kept, "", "prop a\nbox 10 x 10\ndisc 12 in xps1")
	assert.Nil(t, r)
	require.Len(t, lines, 3)
	assert.NoError(t, lines[0].Err)
	assert.ErrorContains(t, lines[1].Err, "2 sizes read")
	assert.NoError(t, lines[2].Err, "the others are read all the same")
	r, lines = ReadAll(p, shop.Kept, "", strings.Repeat("prop a\n", 201))
	assert.Nil(t, r)
	assert.ErrorContains(t, lines[len(lines)-1].Err, "200 lines at most")
}

func TestWhatMayFollow(t *testing.T) {
	p := built(t, "in", "prop chest", "box 20 x 12 x 10 xps1", "supply 12v 5a")
	for text, want := range map[string]string{"bo": "box", "ge": "gear", "box 20 x 12 x 10 xp": "xps1",
		"box 20 x 12 x 10 xps1 r": "rabbet", "glue Box/front with p": "pu", "coat box m": "masonry", "fuse 3a on S": "S1",
		"shop ma": "material", "price ps": "ps12-1", "remove B": "Box", "box he": "height", "Box h": "height",
		"gear 20 t": "teeth", "lamp pu": "puck12", "": "ball"} {
		assert.Contains(t, Complete(p, shop.Kept, "chest", text), want, text)
	}
	assert.LessOrEqual(t, len(Complete(p, shop.Kept, "chest", "panel 20 x 10 ")), 8)
	assert.Empty(t, Complete(p, shop.Kept, "chest", "box zzz"))
}

// Other words for the same, and the nearest phrase when one is mistyped.
func TestOtherWords(t *testing.T) {
	p := built(t, "in", "prop chest")
	for line, kind := range map[string]string{"ball 18 in eva5": "gores", "hive 24 x 20 xps2": "slices",
		"gear 20 in 12 teeth ply1/4": "wheel", "hopper 20 x 10 to 6 x 4 12 tall": "pyramid", "jar 4 x 6 x24": "bought",
		"skull 6 x 7 x 8 hips": "bought", "cloth 18 x 30 muslin": "skin", "clay 6 x 6 x 8 lightclay": "modelled",
		"tube 10 x 20 eva5roll": "wrap"} {
		q := typed(t, p, line)
		assert.Equal(t, kind, q.Solids()[0].Kind, line)
	}
	for typo, want := range map[string]string{"bxo": "box 22", "towr": "tower 6", "discs": "disc 36",
		"suply": "supply 12v", "gaer": "wheel 30"} {
		assert.True(t, strings.HasPrefix(nearest(typo), want), "%s: %s", typo, nearest(typo))
	}
}

// Reading and completing a phrase, at demo size and 20 times it.
func BenchmarkRead(b *testing.B) {
	for name, n := range map[string]int{"demo": 60, "20x": 1200} {
		p := plan.New("x", "X", "in", "").In(shop.Kept)
		p.Doc().Props = []plan.Prop{{ID: "a", Name: "A"}}
		for i := range n {
			p.Doc().Devices = append(
				p.Devices(),
				plan.Device{
					ID:      "L" + strconv.Itoa(i),
					Name:    "Jar " + strconv.Itoa(i),
					Prop:    "a",
					Kind:    "lamp",
					Product: "flicker12",
				},
			)
		}
		b.Run(name, func(b *testing.B) {
			b.ReportAllocs()
			for range b.N {
				Complete(p, shop.Kept, "a", "jar 7 ")
				_, _ = Read(p, shop.Kept, "a", "box 22 x 18 x 26 1/2 xps1")
			}
		})
	}
}

// A count behind a line does it so often, as one step.
func TestALineIsRepeated(t *testing.T) {
	p := built(t, "in", "prop chest", "supply 12v 5a", "run 18awg 12ft on S1")
	q := typed(t, p, "lamp puck12 on W1 x3")
	assert.Len(t, q.Devices(), 5)
	assert.Equal(t, []string{"L1", "L2", "L3"}, []string{q.Devices()[2].ID, q.Devices()[3].ID, q.Devices()[4].ID})
	for line, want := range map[string]string{"lamp puck12 on W1 x0": "too often", "lamp puck12 on W1 x101": "too often",
		"lamp puck12 on W9 x2": "no device"} {
		_, err := Read(p, shop.Kept, "chest", line)
		assert.ErrorContains(t, err, want, line)
	}
	q = typed(t, p, "disc 12 in xps1 x2")
	assert.Len(t, q.Solids(), 1, "of solids it is copies")
}

// Several of a solid by the line: in a row, in a circle, along a fence; what cannot stand
// so is refused, with what would.
func TestSeveralByTheLine(t *testing.T) {
	p := plan.New("x", "X", "in", "").In(shop.Kept)
	p.Doc().Props = []plan.Prop{{ID: "a", Name: "A"}}
	r, err := Read(p, shop.Kept, "a", "box 4 x 4 x 30 called post")
	require.NoError(t, err)
	p, err = p.Apply(r.Edit)
	require.NoError(t, err)
	for line, want := range map[string]string{
		"row post x6":                  `6 of post in a row, every 8"`,
		"row post x3 every 4 in":       `3 of post in a row, every 4"`,
		"circle post x8 6 ft across":   `8 of post in a circle 72" across`,
		"pickets post x5 along 40 in":  `5 of post along 40", gaps of 5"`,
		"pickets post x10 along 40 in": `10 of post along 40", gaps of 0"`,
		"row post x3 every 3 in":       "they would stand in each other",
		"row post x101":                "say how many, x2 to x100",
		"row post":                     "say how many",
		"circle post x4":               "say how long or how wide",
		"pickets post x11 along 40 in": "do not go into 40",
		"circle post x8 10 in":         "do not go round a circle 10\" across",
		"row nothing x3":               `nothing here is called "nothing x3"`,
	} {
		r, err := Read(p, shop.Kept, "a", line)
		if err != nil {
			assert.Contains(t, err.Error(), want, line)
			continue
		}
		assert.Equal(t, want, r.Text, line)
		q, err := p.Apply(r.Edit)
		require.NoError(t, err)
		assert.Greater(t, len(q.Solids()), 2, line)
	}
}
