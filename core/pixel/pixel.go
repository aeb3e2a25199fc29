// Package pixel computes the pictures that addressable pixels show: the colour of each at
// any moment, the same each time, and what share of full white all of them draw.
package pixel

import (
	"fmt"
	"math"
	"slices"
	"strings"
)

// Colour is red, green and blue, each 0 to 255.
type Colour struct{ R, G, B uint8 }

// Picture is what a string of pixels shows.
type Picture string

// The pictures.
const (
	Solid   Picture = "solid"   // all alike
	Chase   Picture = "chase"   // a head with a tail runs along
	Breathe Picture = "breathe" // all rise and fall, once in four seconds
	Embers  Picture = "embers"  // each glows up and down by itself
	Swarm   Picture = "swarm"   // a few bright ones wander, as bees do
)

// Pictures lists them.
var Pictures = []Picture{Solid, Chase, Breathe, Embers, Swarm}

// Names of colours that can be said.
var Names = map[string]Colour{
	"white": {255, 255, 255}, "warm white": {255, 180, 100}, "amber": {255, 120, 0}, "red": {255, 0, 0},
	"green": {0, 255, 0}, "blue": {0, 0, 255}, "purple": {160, 0, 255}, "honey": {255, 150, 20},
}

// Read reads a colour: a name, or six letters of red, green and blue such as ff7a00.
func Read(text string) (Colour, error) {
	t := strings.ToLower(strings.TrimPrefix(strings.TrimSpace(text), "#"))
	if c, ok := Names[t]; ok {
		return c, nil
	}
	var c Colour
	if n, err := fmt.Sscanf(t, "%02x%02x%02x", &c.R, &c.G, &c.B); err != nil || n != 3 || len(t) != 6 {
		names := make([]string, 0, len(Names))
		for n := range Names {
			names = append(names, n)
		}
		slices.Sort(names)
		return c, fmt.Errorf(
			"%q is no colour; write %s, or six letters such as ff7a00",
			text,
			strings.Join(names, ", "),
		)
	}
	return c, nil
}

// At is the colour of pixel i of n, ms after the picture began.
func (p Picture) At(c Colour, i, n, ms int) Colour {
	return c.times(p.level(i, n, ms))
}

// times is a colour so much of full.
func (c Colour) times(k float64) Colour {
	k = math.Max(0, math.Min(1, k))
	f := func(v uint8) uint8 { return uint8(math.Round(float64(v) * k)) }
	return Colour{f(c.R), f(c.G), f(c.B)}
}

// level is a pixel's share of its colour, 0 to 1.
func (p Picture) level(i, n, ms int) float64 {
	t := float64(ms) / 1000
	switch p {
	case Chase: // ten pixels a second, a tail of a quarter of the string
		tail := math.Max(2, float64(n)/4)
		behind := math.Mod(t*10-float64(i), float64(n))
		if behind < 0 {
			behind += float64(n)
		}
		return math.Max(0, 1-behind/tail)
	case Breathe:
		return 0.08 + 0.92*(0.5-0.5*math.Cos(2*math.Pi*t/4))
	case Embers:
		a, b := scatter(i, 1), scatter(i, 2)
		s := 0.5 - 0.5*math.Cos(2*math.Pi*(t/(2+3*a)+b))
		return 0.06 + 0.7*s*s
	case Swarm: // one bee for a dozen pixels, each on its own way
		best := 0.0
		for k := range max(1, n/12) {
			a, b := scatter(k, 3), scatter(k, 4)
			at := float64(n) * (0.5 + 0.5*math.Sin(2*math.Pi*(t/(3+4*a)+b))*math.Cos(2*math.Pi*(t/(7+5*b)+a)))
			best = math.Max(best, 1-math.Abs(float64(i)+.5-at)/1.6)
		}
		return math.Max(0, best)
	}
	return 1
}

// scatter is a number of 0 to 1 for two others: the same each time.
func scatter(a, b int) float64 {
	n := uint32(a)*2654435761 + uint32(b)*40503 + 12345
	n ^= n >> 15
	n *= 2246822519
	n ^= n >> 13
	return float64(n%10007) / 10007
}

// Share is what a string of n pixels draws at most over a minute, as a share of full
// white: each of its three colours draws a third.
func (p Picture) Share(c Colour, n int) float64 {
	if n < 1 {
		return 0
	}
	most := 0.0
	for ms := 0; ms < 60_000; ms += 100 {
		sum := 0.0
		for i := range n {
			q := p.At(c, i, n, ms)
			sum += float64(q.R) + float64(q.G) + float64(q.B)
		}
		most = math.Max(most, sum/float64(n)/765)
		if p == Solid {
			break
		}
	}
	return most
}

// Matrix is a row-scanned matrix on shift registers: its rows are lit one after another.
type Matrix struct {
	Columns, Rows, Bits int     // bits a colour is shown with
	Clock               float64 // Hz
	Amps                float64 // of one column, lit
}

// Refresh is how often a second the whole picture is shown: the clock over columns, rows
// and the steps that its bits take.
func (m Matrix) Refresh() float64 {
	return m.Clock / float64(m.Columns*m.Rows) / (math.Pow(2, float64(m.Bits)) - 1)
}

// Duty is the share of the time that each row is lit.
func (m Matrix) Duty() float64 { return 1 / float64(m.Rows) }

// RowAmps is what one row's driver switches with all of its columns lit.
func (m Matrix) RowAmps() float64 { return m.Amps * float64(m.Columns) }
