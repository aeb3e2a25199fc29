package pattern

import (
	"fmt"
	"math"

	"zapbarn/core/measure"
	"zapbarn/core/source"
)

// Skin is a sewn cover of cloth: a strip round a tube or a box, closed by one
// seam, hemmed below, with a top sewn in when Top.
type Skin struct {
	W, D, H   float64 // of what it covers; D is 0 for what is round
	T         float64
	Ease      float64 // share that the strip is longer, so that it goes on
	Seam, Hem float64 // allowances
	Top       bool
}

// Lay cuts the strip: round it, with ease, and a seam at both ends; as high as
// the body, a hem below and a seam (or a hem) above.
func (k Skin) Lay() (*Shape, error) {
	if err := sizes("width", k.W, "height", k.H, "thickness", k.T); err != nil {
		return nil, err
	}
	if k.D < 0 || k.D > 30_000 {
		return nil, measure.Bad("depth", "cannot be; leave it out for what is round")
	}
	if k.Ease < 0 || k.Ease > 1 || k.Seam < 0 || k.Hem < 0 || k.Seam > k.H || k.Hem > k.H {
		return nil, measure.Bad(
			"seam",
			"seam, hem and ease must be smaller than the cover; write such as 1/2 in, 1 in, 3",
		)
	}
	round, how, numbers := k.round()
	above, hems := k.Hem, 2.
	if k.Top {
		above, hems = k.Seam, 1
	}
	long, high := round*(1+k.Ease)+2*k.Seam, k.H+k.Hem+above
	strip := Panel{
		ID:      "strip",
		Name:    "Strip",
		Copies:  1,
		Thick:   k.T,
		Outline: Rect(long, high),
		Edges:   []Edge{{Name: "hem"}, {Name: "right"}, {Name: "top"}, {Name: "left"}},
		Marks: [][2]Point{
			{{k.Seam, 0}, {k.Seam, high}},
			{{long - k.Seam, 0}, {long - k.Seam, high}},
			{{0, k.Hem}, {long, k.Hem}},
			{{0, high - above}, {long, high - above}},
		},
		Notes: []string{"Right sides together; sew on the marked lines, then turn it."},
	}
	s := &Shape{Panels: []Panel{strip}}
	seams := high
	if k.Top {
		s.Panels = append(s.Panels, k.top())
		seams += round
	}
	exact := source.Exact("perimeter of what it covers, with allowances")
	s.Results = append(
		s.Results,
		result("strip", "Length of the strip", long, "mm", inches(long)).
			With(how, numbers, measure.MarkedTape(long), exact),
		result("seam", "To sew", seams, "mm", measure.MarkedRun(seams)).
			With("height of the strip, and round the top where there is one", fmt.Sprintf("%.1f of %.1f high", seams, high),
				measure.MarkedRun(seams), exact),
		result("hem", "To hem", hems*round, "mm", measure.MarkedRun(hems*round)).
			With("round it, once or twice", fmt.Sprintf("%.0f x %.1f", hems, round), measure.MarkedRun(hems*round), exact),
	)
	k.stand(s)
	return s, nil
}

// round is how long it is round what it covers, and the strip's length by it.
func (k Skin) round() (round float64, how, numbers string) {
	if k.D > 0 {
		return 2 * (k.W + k.D), "2 (W + D) (1 + ease) + 2 seam",
			fmt.Sprintf("2 x (%.1f + %.1f) x %.2f + 2 x %.1f", k.W, k.D, 1+k.Ease, k.Seam)
	}
	return math.Pi * k.W, "pi W (1 + ease) + 2 seam",
		fmt.Sprintf("pi x %.1f x %.2f + 2 x %.1f", k.W, 1+k.Ease, k.Seam)
}

// top is the piece sewn in above.
func (k Skin) top() Panel {
	if k.D == 0 {
		return roundPanel("top", "Top", k.W+2*k.Seam, 0, k.T, 1)
	}
	return Panel{
		ID:      "top",
		Name:    "Top",
		Copies:  1,
		Thick:   k.T,
		Outline: Rect(k.W+2*k.Seam, k.D+2*k.Seam),
		Edges:   []Edge{{Name: "front"}, {Name: "right"}, {Name: "back"}, {Name: "left"}},
	}
}

// stand draws it over what it covers.
func (k Skin) stand(s *Shape) {
	if k.D == 0 {
		s.Size, s.Bodies = Vec{k.W, k.W, k.H}, ringBody("strip", 0, k.W, 0, 0, k.H)
		return
	}
	a, b := k.W/2, k.D/2
	ring := func(z float64) []Vec { return []Vec{{-a, -b, z}, {a, -b, z}, {a, b, z}, {-a, b, z}} }
	s.Size, s.Bodies = Vec{k.W, k.D, k.H}, []Body{prism("strip", 0, ring(k.H), ring(0), Vec{0, 0, 1})}
}
