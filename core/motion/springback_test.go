package motion

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"
)

// A worked example of manufacturing texts, from memory: sheet of 0.0359 in, bent round
// 0.5 in, yields at 40,000 psi, 29e6 psi stiff: Ri/Rf = 0.942, so it opens to 0.531 in.
func TestSpringbackOfTheTexts(t *testing.T) {
	psi := 0.00689476
	steel := Metal{"", 29e6 * psi, 40_000 * psi}
	bend, opens, far := Springback(steel, 0.0359*25.4, 0.5*25.4, 90)
	assert.False(t, far)
	assert.InDelta(t, 0.531, opens/25.4, 0.0006)
	assert.InDelta(t, 90*(opens+0.0359*12.7)/(12.7+0.0359*12.7), bend, 1e-9)
}

// Against the bending moment itself: a section bent to a radius is plastic outside of where
// its strain passes yield; let go, it springs back by the moment over its stiffness. Summed
// up strip by strip across the thickness.
func TestSpringbackBySummingStress(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		m := Metal{"", rapid.Float64Range(50_000, 210_000).Draw(t, "E"), rapid.Float64Range(100, 600).Draw(t, "Y")}
		thick := rapid.Float64Range(0.5, 6).Draw(t, "thick")
		x := rapid.Float64Range(0.01, 0.45).Draw(t, "x")
		radius := x * m.Stiff * thick / m.Yield
		_, opens, far := Springback(m, thick, radius, 90)
		if far {
			t.Fatal("not wholly")
		}
		moment := 0.0
		const n = 4000
		for k := range n {
			y := (float64(k) + 0.5) / n * thick / 2
			moment += 2 * y * math.Min(m.Yield, m.Stiff*y/radius) * thick / 2 / n
		}
		bends := 1/radius - moment/(m.Stiff*thick*thick*thick/12)
		if got := 1 / opens; math.Abs(got-bends) > 2e-4/radius {
			t.Fatalf("opens to %g, by its moment %g", opens, 1/bends)
		}
	})
}

// Stiffer or softer metal, thicker bars and tighter bends spring back less; what is bent
// within its spring comes back wholly.
func TestSpringbackGrows(t *testing.T) {
	at := func(m Metal, thick, radius float64) float64 {
		b, _, far := Springback(m, thick, radius, 90)
		if far {
			return math.Inf(1)
		}
		return b
	}
	for _, m := range Metals {
		assert.Greater(t, at(m, 2, 6), 90.0, m.Name)
		assert.Greater(t, at(m, 2, 12), at(m, 2, 6), m.Name)
		assert.Greater(t, at(m, 1, 6), at(m, 2, 6), m.Name)
	}
	assert.Greater(t, at(Metals["spring-steel"], 2, 6), at(Metals["steel"], 2, 6))
	assert.Greater(t, at(Metals["aluminium"], 2, 6), at(Metals["steel"], 2, 6))
	_, _, far := Springback(Metals["spring-steel"], 1, 200, 90)
	assert.True(t, far)
	// by hand: at x = 1/2 the radius opens without end
	m := Metals["steel"]
	edge := 0.5 * m.Stiff * 2 / m.Yield
	_, opens, far := Springback(m, 2, edge*0.999, 90)
	assert.False(t, far)
	assert.Greater(t, opens, 100*edge)
	_, _, far = Springback(m, 2, edge*1.001, 90)
	assert.True(t, far)
}
