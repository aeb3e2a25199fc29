package form

import (
	"math"
	"strings"
	"testing"

	"zapbarn/core/measure"
	"zapbarn/core/pattern"
	"zapbarn/core/stock"
	"zapbarn/core/words"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func on(id string) On { return On{Stock: stock.Shop.Materials[id]} }

func mm(v float64) measure.Length { return measure.Of[measure.LengthKind](v) }

// read reads a phrase's form from its words.
func read(t *testing.T, text string) Form {
	k, ok := Of(strings.Fields(text)[0])
	require.True(t, ok, text)
	w := &words.Words{List: strings.Fields(strings.ReplaceAll(text, ",", " , "))[1:]}
	w.Known("", func(x string) bool { return stock.Shop.Materials[x].ID != "" })
	f, said, err := k.Read(w)
	require.NoError(t, err, text)
	require.NotEmpty(t, said)
	return f
}

// Every kind's own example is read, lays out on its stock, tells how it goes
// together, and names itself; its sizes are all on its ticket; scaled by two it
// is twice as large, and what the stock gives stays.
func TestEveryKindIsWhole(t *testing.T) {
	for _, name := range Names() {
		k, _ := Of(name)
		assert.Equal(t, name, KindOf(k.Blank))
		assert.NotEmpty(t, k.Title)
		assert.NotEmpty(t, stock.Shop.Materials[k.Stock].ID, name)
		assert.Equal(t, k.Form, stock.Shop.Materials[k.Stock].Form, name)
		_, err := k.Blank.Lay(on(k.Stock))
		var missing *Missing
		require.ErrorAs(t, err, &missing, "%s: a blank one is half known, not wrong", name)
		if k.Read == nil {
			continue
		}
		example, _, _ := strings.Cut(k.Example, " (or")
		words := strings.Fields(example)
		if k.Form == "pipe" { // its stock is no word of the form's
			words = words[:len(words)-1]
		}
		f := read(t, strings.Join(words, " "))
		assert.Equal(t, name, KindOf(f))
		s, err := f.Lay(on(k.Stock))
		require.NoError(t, err, name)
		assert.NotEmpty(t, Steps(f, s), name)
		twice, err := Scaled(f, func(l measure.Length) measure.Length {
			if l.IsZero() {
				return l
			}
			return mm(2 * l.Value())
		}, 2).Lay(on(k.Stock))
		require.NoError(t, err, name)
		thick := on(k.Stock).Thick()
		switch {
		case k.Form == "bought": // it comes as it is
			assert.Equal(t, s.Size, twice.Size, name)
		case name != "pipe": // they stand side by side, as wide as they are
			assert.InDelta(
				t,
				2*max(s.Size.X, s.Size.Z),
				max(twice.Size.X, twice.Size.Z),
				max(3*thick, 30, 1.1*on(k.Stock).Stock.OD.Value()), // a pipe stays as thick as it is
				name,
			) // rounded up to whole layers or rows
		}
	}
}

// A drawn profile is scaled point by point, its unit kept; a name, and what is no
// profile, stay as they are.
func TestProfilesAreScaled(t *testing.T) {
	for text, want := range map[string]string{"1,2 3,4": "2,4 6,8", "10,0 20,30 mm": "20,0 40,60 mm", "1.5,2in": "3,4 in",
		"dome": "dome", "": "", "1,2 x,y": "1,2 x,y"} {
		assert.Equal(t, want, scaledPoints(text, 2), text)
	}
}

func TestOrderOfAssembly(t *testing.T) {
	b := Box{W: mm(600), D: mm(400), H: mm(900), Bottom: true, Lid: true}
	s, err := b.Lay(on("xps1"))
	require.NoError(t, err)
	steps := Steps(b, s)
	require.Len(t, steps, 4)
	assert.Contains(t, steps[3], "Lid last")
	g := Gores{W: mm(600), H: mm(600), Sides: 12}
	s, err = g.Lay(on("eva5"))
	require.NoError(t, err)
	assert.Contains(t, Steps(g, s)[0], "12 gores")
	p := Panel{W: mm(500), H: mm(3000)}
	s, err = p.Lay(on("xps1"))
	require.NoError(t, err)
	require.NoError(t, s.Split(pattern.Seam{Kind: "butt", W: 1190, H: 2400}))
	assert.Contains(t, Steps(p, s)[0], "Join the pieces")
	jar := Bought{Of: "jar", W: mm(100), H: mm(150)}
	s, err = jar.Lay(on("pet"))
	require.NoError(t, err)
	require.NoError(t, s.Pierce([]pattern.Opening{{Name: "Lamp", Face: "bottom", Kind: "round", W: 30, Y: 50}}))
	assert.Contains(t, strings.Join(Steps(jar, s), " "), "Lamp: ")
	for copies, want := range map[int]bool{1: false, 2: true} {
		o := Outline{H: mm(100), Path: "0,0 1,0 0,1", Copies: copies}
		s, err = o.Lay(on("ply1/4"))
		require.NoError(t, err)
		assert.Equal(t, want, strings.Contains(strings.Join(Steps(o, s), " "), "Stack pieces"))
	}
}

// The palette goes from what is built most to what is rare: an order of its own.
func TestThePaletteHasAnOrder(t *testing.T) {
	var names []string
	for _, k := range Pressed() {
		names = append(names, k.Press.Name)
	}
	assert.Equal(t, strings.Fields("box tower hopper arch disc gear rings cone ball hive tube panel silhouette pipe "+
		"frame cloth clay jar "+
		"bands scales hoops bend shell"), names)
}

// Where a bendable form bends most, by hand: a cone at its small end, by the radius
// across its face, r / cos of its slope, less the stock it is drawn outside of; a
// point is cut blunt.
func TestWhereFormsBendMost(t *testing.T) {
	mm := measure.Of[measure.LengthKind]
	radius, thick, ok := Cone{Low: mm(400), High: mm(100), H: mm(200)}.Bends(5)
	require.True(t, ok)
	assert.InDelta(t, 50*math.Hypot(200, 150)/200-5, radius, 1e-9)
	assert.Equal(t, 5., thick)
	upright, _, _ := Cone{Low: mm(100), High: mm(100), H: mm(200)}.Bends(5)
	assert.InDelta(t, 45, upright, 1e-9)
	point, _, _ := Cone{Low: mm(400), H: mm(200)}.Bends(5)
	assert.InDelta(t, 15*math.Hypot(200, 185)/200-5, point, 1e-9)
	down, _, _ := Cone{Low: mm(100), High: mm(400), H: mm(200)}.Bends(5)
	assert.Equal(t, radius, down, "whichever end is small")
}

// An arch wants all three of its sizes, and a frame its load by mass alone.
func TestWhatAPhraseLacks(t *testing.T) {
	for _, line := range []string{"arch 48 in wide 10 in deep", "arch 48 in wide rise 12 in", "arch 10 in deep rise 12 in",
		"arch 48 in wide 10 in deep 12 in 9 in", "frame 24 24 60 5"} {
		name, _, _ := strings.Cut(line, " ")
		k, ok := Of(name)
		require.True(t, ok)
		_, _, err := k.Read(&words.Words{List: strings.Fields(line)[1:]})
		assert.Error(t, err, line)
	}
	k, _ := Of("frame")
	f, _, err := k.Read(&words.Words{List: strings.Fields("24 x 24 x 60 5kg 3 levels")})
	require.NoError(t, err)
	assert.Equal(t, 5., f.(Frame).Load.Value())
	assert.Equal(t, 3, f.(Frame).Levels)
}
