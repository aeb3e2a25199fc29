package form

import (
	"math"
	"strings"
	"testing"

	"zapbarn/core/pattern"
	"zapbarn/core/stock"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A form is cut of sheets or lengths, or it declares what is bought for it; and what is not cut
// declares what is done, but for a shell, whose jobs in the mould are order's own.
func TestEachFormDeclaresHowItIsMade(t *testing.T) {
	for _, name := range Names() {
		k, _ := Of(name)
		_, makes := k.Blank.(Maker)
		assert.Equal(t, k.Form != "sheet" && k.Form != "pipe", makes, "%s, of %s", name, k.Form)
	}
}

func made(t *testing.T, f Form, of string) Making {
	m := stock.Shop.Materials[of]
	s, err := f.Lay(On{m})
	require.NoError(t, err)
	got, ok := MadeOf(f, On{m}, s)
	require.True(t, ok)
	return got
}

// A head of 8 x 9 x 11 in, 3/8 in of foam clay over an armature: its outside less the armature's,
// pi/6 of the products, is 1.745 L by hand; one layer of at most 12 mm dries through, and 24 h after
// it. Solid, it is 6.8 L in as many layers as go to the middle.
func TestABodyIsModelledInLayersThatDry(t *testing.T) {
	in := func(v float64) float64 { return v * 25.4 }
	skin := Modelled{W: mm(in(8)), D: mm(in(9)), H: mm(in(11)), Skin: mm(in(3. / 8))}
	m := made(t, skin, "lightclay")
	require.Len(t, m.Jobs, 2)
	assert.Equal(t, "armature", m.Jobs[0].ID)
	assert.Equal(t, 24*60., m.Jobs[1].Wait)
	assert.Equal(t, "water", m.Jobs[1].Carrier)
	hand := math.Pi / 6 * (8*9*11 - 7.25*8.25*10.25) * 25.4 * 25.4 * 25.4 / 1e6
	assert.InDelta(t, hand, m.Jobs[1].Takes[0].N, 1e-6)
	clay := m.Goods[len(m.Goods)-1]
	assert.Equal(t, "material:lightclay", clay.What)
	assert.InDelta(t, hand, clay.Use, 1e-6)
	assert.Equal(t, 16., clay.Price)
	assert.Equal(t, "tub of 1 L", clay.In)

	solid := made(t, Modelled{W: mm(in(8)), D: mm(in(9)), H: mm(in(11))}, "lightclay")
	require.Len(t, solid.Jobs, int(math.Ceil(in(4)/12)))
	sum := 0.0
	for _, j := range solid.Jobs {
		sum += j.Takes[0].N
	}
	assert.InDelta(t, math.Pi/6*8*9*11*25.4*25.4*25.4/1e6, sum, 1e-6, "all of it is modelled, once")
	foam := made(t, Modelled{W: mm(300), D: mm(300), H: mm(300)}, "foamcan")
	assert.Equal(t, "carve", foam.Jobs[len(foam.Jobs)-1].ID, "expanding foam is carved when it is cured")
	assert.Empty(t, foam.Jobs[0].Carrier, "it cures in damp air as in dry")
}

// Twenty-four jars are twenty-four jars, at their price; those one has are not bought.
func TestBoughtThingsAreBought(t *testing.T) {
	jar := Bought{W: mm(100), H: mm(150), Copies: 24, Of: "jar", Each: "$2.50"}
	m := made(t, jar, "pet")
	require.Len(t, m.Goods, 1)
	assert.Equal(t, 24., m.Goods[0].Use)
	assert.Equal(t, 2.5, m.Goods[0].Price)
	assert.True(t, strings.HasPrefix(m.Goods[0].Name, `Jar 3.94" x 5.91"`), m.Goods[0].Name)
	require.Len(t, m.Jobs, 1)
	assert.Equal(t, 24., m.Jobs[0].Takes[0].N)
	jar.Have = true
	m = made(t, jar, "pet")
	assert.Empty(t, m.Goods)
	assert.NotEmpty(t, m.Have)
	require.Len(t, m.Jobs, 1)
	for _, each := range []string{"-1", "cheap", "NaN", "1e9"} {
		jar.Each = each
		_, err := jar.Lay(On{stock.Shop.Materials["pet"]})
		assert.ErrorContains(t, err, "each", each)
	}
}

// A shell takes mat, resin with its hardener by mass, wax for its mould, and gel coat where it has one.
func TestAShellAndItsResin(t *testing.T) {
	l := Laminate{W: mm(230), H: mm(280), D: mm(130), Plies: 2, Gel: true}
	m := made(t, l, "glassmat")
	names := map[string]float64{}
	for _, g := range m.Goods {
		names[g.What] = g.Use
	}
	assert.Len(t, names, 5)
	assert.InDelta(t, names["material:glassmat resin"]*.02, names["material:glassmat hardener"], 1e-9, "2 % of the resin")
	assert.Positive(t, names["material:glassmat gel"])
	l.Gel = false
	assert.Len(t, made(t, l, "glassmat").Goods, 4)
}

// What is made by hand or machine, by hand sums: mache of 20 mm in four layers of 6 mm at most; a
// dozen jars at four minutes each; a litre of plastic at 15 cm3 an hour is 66 2/3 hours; hardener
// comes in tenths of a kilogram.
func TestMakingByHandSums(t *testing.T) {
	layers := 0
	for _, j := range made(t, Modelled{W: mm(200), D: mm(200), H: mm(200), Skin: mm(20)}, "mache").Jobs {
		if strings.HasPrefix(j.ID, "layer") {
			layers++
		}
	}
	assert.Equal(t, 4, layers)
	jars := made(t, Bought{W: mm(100), H: mm(150), Copies: 12}, "pet").Jobs[0].Takes[0]
	assert.Equal(t, 48., jars.N*jars.Each)
	pla := stock.Shop.Materials["pla"]
	shape := &pattern.Shape{Mass: pla.Density / 1000} // a litre of it
	print, ok := MadeOf(Printed{}, On{pla}, shape)
	require.True(t, ok)
	assert.InDelta(t, 1, print.Goods[0].Use, 1e-9)
	assert.InDelta(t, 1000./15*60, print.Jobs[0].Wait, 1e-6)
	for _, g := range made(t, Laminate{W: mm(230), H: mm(280), D: mm(130), Plies: 2}, "glassmat").Goods {
		if strings.HasSuffix(g.What, "hardener") {
			assert.Equal(t, .1, g.Pack)
		}
	}
}
