package show

// Shape is how a cue's level goes over its time.
type Shape string

// The shapes.
const (
	Steady  Shape = ""        // on at its level
	Fade    Shape = "fade"    // rises evenly from nothing to its level
	Ebb     Shape = "ebb"     // falls evenly from its level to nothing
	Pulse   Shape = "pulse"   // rises and falls once a second
	Flicker Shape = "flicker" // unsteady, as a flame is
	Blink   Shape = "blink"   // half a second on, half a second off
	Strobe  Shape = "strobe"  // eight flashes a second
)

// Shapes lists them.
var Shapes = []Shape{Steady, Fade, Ebb, Pulse, Flicker, Blink, Strobe}

// grain is how often a level is set anew, in ms from its cue's start.
const grain = 50

// blinks are how long a flash and its dark last, in ms.
var blinks = map[Shape]int{Blink: 500, Strobe: 62}

// FlashesPerSecond of a shape; 0 of one that does not flash.
func (s Shape) FlashesPerSecond() float64 {
	if n := blinks[s]; n > 0 {
		return 500 / float64(n)
	}
	return 0
}

// level is a cue's level in per cent, at a time since its start. Whole numbers only,
// so that a small controller comes to the same.
func (c *Cue) level(since int) int {
	top := c.Level
	if top == 0 {
		top = 100
	}
	step := since / grain * grain
	switch c.Shape {
	case Fade:
		return max(1, top*step/c.Length)
	case Ebb:
		return max(1, top-top*step/c.Length)
	case Pulse:
		phase := step % 1000
		if phase > 500 {
			phase = 1000 - phase
		}
		return max(1, top*phase/500)
	case Flicker: // a fixed scatter of its steps: the same each time
		n := uint32(step/grain)*2654435761 + 12345
		n ^= n >> 15
		n *= 2246822519
		n ^= n >> 13
		return max(1, top*(40+int(n%61))/100)
	case Blink, Strobe:
		if since/blinks[c.Shape]%2 == 1 {
			return 0
		}
	}
	return top
}

// next is when the level changes next, in ms since the cue's start.
func (c *Cue) next(since int) int {
	switch c.Shape {
	case Steady:
		return c.Length
	case Blink, Strobe:
		return min(c.Length, (since/blinks[c.Shape]+1)*blinks[c.Shape])
	}
	return min(c.Length, (since/grain+1)*grain)
}
