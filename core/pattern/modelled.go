package pattern

import (
	"fmt"
	"math"

	"zapbarn/core/measure"
	"zapbarn/core/source"
)

// Modelled is a rounded body built up by hand of clay, papier-mache, filler or
// expanding foam, over an armature: a skin of a thickness, or solid.
type Modelled struct {
	W, D, H float64
	Skin    float64 // 0 is solid
	Density float64 // kg/m3, dry
	Unit    float64 // litres a tub or can makes
}

// Lay reckons its volume as an ellipsoid less the armature's, its mass dry, and
// how many tubs or cans it takes, a tenth spare.
func (m Modelled) Lay() (*Shape, error) {
	if err := sizes("width", m.W, "depth", m.D, "height", m.H); err != nil {
		return nil, err
	}
	if m.Skin < 0 || 2*m.Skin >= math.Min(m.W, math.Min(m.D, m.H)) {
		return nil, measure.Bad("skin", "%s leaves no room for the armature; leave it out for a solid body", inches(m.Skin))
	}
	all := math.Pi / 6 * m.W * m.D * m.H
	core := 0.0
	how, numbers := "V = pi / 6 W D H", fmt.Sprintf("pi / 6 x %.1f x %.1f x %.1f", m.W, m.D, m.H)
	if m.Skin > 0 {
		w, d, h := m.W-2*m.Skin, m.D-2*m.Skin, m.H-2*m.Skin
		core = math.Pi / 6 * w * d * h
		how, numbers = "V = pi / 6 (W D H - w d h), the armature a skin smaller all round", fmt.Sprintf(
			"pi / 6 x (%.1f x %.1f x %.1f - %.1f x %.1f x %.1f)",
			m.W,
			m.D,
			m.H,
			w,
			d,
			h,
		)
	}
	litres := (all - core) / 1e6
	const p = 1.6075
	a, b, c := m.W/2, m.D/2, m.H/2
	s := &Shape{Size: Vec{m.W, m.D, m.H}, Mass: litres * 1e-3 * m.Density, Walls: []string{"side", "top", "bottom"},
		Outside: 4 * math.Pi * math.Pow((math.Pow(a*b, p)+math.Pow(a*c, p)+math.Pow(b*c, p))/3, 1/p)}
	exact := source.Exact("ellipsoid")
	s.Results = append(
		s.Results,
		result("volume", "To model", litres, "L", fmt.Sprintf("%.2f L", litres)).
			With(how, numbers, fmt.Sprintf("%.2f L", litres), exact),
		result(
			"mass",
			"Mass, bare",
			s.Mass,
			"kg",
			measure.Kilograms(s.Mass),
		).With("volume x density when dry", fmt.Sprintf("%.2f L x %.0f kg/m3", litres, m.Density), measure.Kilograms(s.Mass),
			source.FromMemory("density when dry")),
	)
	if m.Unit > 0 {
		n := math.Ceil(1.1*litres/m.Unit - 1e-9)
		s.Results = append(
			s.Results,
			result(
				"tubs",
				"Tubs or cans",
				n,
				"",
				fmt.Sprintf("%.0f", n),
			).With("volume, a tenth spare, by what one makes; rounded up", fmt.Sprintf("1.1 x %.2f L / %.2f L", litres, m.Unit),
				fmt.Sprintf("%.0f", n), source.FromTrade("a tenth is lost"), source.FromMemory("what one makes")),
		)
	}
	ball, _ := NewProfile("sphere", m.W, m.H, 1)
	s.Bodies = []Body{turned("body", ball, m.D/m.W)}
	return s, nil
}
