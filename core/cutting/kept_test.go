package cutting

import (
	"testing"

	"zapbarn/core/memo"
	"zapbarn/core/pattern"
	"zapbarn/core/stock"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Boxes that may be laid otherwise have other sums, whatever they differ in; equal ones have
// one, wherever on the paper their panels are drawn.
func TestBoxesThatDifferHaveOtherSums(t *testing.T) {
	ring := func(x, y, w, h float64) []pattern.Point {
		return []pattern.Point{{X: x, Y: y}, {X: x + w, Y: y}, {X: x + w, Y: y + h}, {X: x, Y: y + h}}
	}
	m := stock.Shop.Materials["ply1/4"]
	require.NotEmpty(t, m.Grain)
	as := func(change func(p *pattern.Panel)) memo.Key {
		p := pattern.Panel{Outline: ring(0, 0, 400, 300), Holes: [][]pattern.Point{ring(50, 50, 100, 100)}}
		change(&p)
		return BoxOf(&p, &m).sum
	}
	same := as(func(*pattern.Panel) {})
	assert.Equal(t, same, as(func(p *pattern.Panel) {
		p.Outline, p.Holes = ring(7, 9, 400, 300), [][]pattern.Point{ring(57, 59, 100, 100)}
	}))
	seen := map[memo.Key]string{same: "as it was"}
	for what, change := range map[string]func(p *pattern.Panel){
		"wider":  func(p *pattern.Panel) { p.Outline = ring(0, 0, 401, 300) },
		"higher": func(p *pattern.Panel) { p.Outline = ring(0, 0, 400, 301) },
		"a corner off": func(p *pattern.Panel) {
			p.Outline = append(p.Outline[:3:3], pattern.Point{Y: 300}, pattern.Point{Y: 150})
		},
		"another face":  func(p *pattern.Panel) { p.Inside = ring(10, 10, 380, 280) },
		"hole moved":    func(p *pattern.Panel) { p.Holes = [][]pattern.Point{ring(60, 50, 100, 100)} },
		"hole larger":   func(p *pattern.Panel) { p.Holes = [][]pattern.Point{ring(50, 50, 110, 100)} },
		"no hole":       func(p *pattern.Panel) { p.Holes = nil },
		"two holes":     func(p *pattern.Panel) { p.Holes = append(p.Holes, ring(200, 50, 20, 20)) },
		"round":         func(p *pattern.Panel) { p.Round = 300 },
		"round, bored":  func(p *pattern.Panel) { p.Round, p.Bore = 300, 50 },
		"grain":         func(p *pattern.Panel) { p.Grain = "up" },
		"bevelled":      func(p *pattern.Panel) { p.Inside, p.CutAngle = ring(10, 10, 380, 280), 45 },
		"hole as face":  func(p *pattern.Panel) { p.Inside, p.Holes = p.Holes[0], nil },
		"hole backward": func(p *pattern.Panel) { h := p.Holes[0]; h[1], h[3] = h[3], h[1] },
	} {
		k := as(change)
		if was, twice := seen[k]; twice {
			t.Errorf("%s has the sum of %s", what, was)
		}
		seen[k] = what
	}
}
