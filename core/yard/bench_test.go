package yard

import (
	"math"
	"testing"
)

// large is a yard of so many times 40 lamps and 60 things that hide, along a path.
func large(times int) (p Path, lamps []Lamp, walls []Wall) {
	for k := range 40 * times {
		a := float64(k) * 2.4
		at := Pt{float64(k%20) * 3, 4 + 3*math.Sin(a)}
		lamps = append(lamps, Lamp{Spot: Spot{at, 0.5}, Lumens: 120, Beam: 2 * math.Pi, Fill: k%2 == 0})
	}
	for k := range 60 * times {
		x := float64(k % 60)
		walls = append(walls, Wall{A: Pt{x, 7}, B: Pt{x + 0.7, 7 + math.Sin(x)}, High: 1 + math.Mod(x, 3)})
	}
	return Path{Through: []Pt{{0, 12}, {20, 10}, {40, 13}, {60, 10}}, Wide: 1.2}, lamps, walls
}

// Sight and light of 40 lamps, 300 places of the path, 60 things that hide; and ten times.
func BenchmarkYard(b *testing.B) {
	for name, times := range map[string]int{"1x": 1, "10x": 10} {
		p, lamps, walls := large(times)
		b.Run("sight/"+name, func(b *testing.B) {
			b.ReportAllocs()
			for b.Loop() {
				for _, l := range lamps {
					Seen(p, AdultEye, Field, l.Spot, walls, "", Steps)
				}
			}
		})
		b.Run("light/"+name, func(b *testing.B) {
			b.ReportAllocs()
			for b.Loop() {
				Dark(p, lamps, walls, 0.5, Steps)
			}
		})
	}
}
