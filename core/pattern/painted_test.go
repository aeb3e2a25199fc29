package pattern

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
)

// What a brush meets, against closed forms: a board has two faces and four edges, a hole's edge
// counts; of a box the outside, whole whatever the joint, with its rim; a lid has an edge and,
// where it stands out, an underside.
func TestPainted(t *testing.T) {
	board := laid(t, Flat{W: 600, H: 400, T: 50, Copies: 3})
	assert.InDelta(t, 3*(2*600*400+2*(600+400)*50), board.Painted(true), 1e-6)
	assert.InDelta(t, 3*600*400, board.Exposed(), 1e-6, "one side")
	ring := laid(t, Disc{D: 500, Bore: 200, T: 25, Copies: 1})
	assert.InEpsilon(t, math.Pi/2*(500*500-200*200)+math.Pi*700*25, ring.Painted(true), 1e-4)
	holed := Panel{Copies: 1, Thick: 20, Outline: Rect(300, 200), Holes: [][]Point{Rect(100, 50)}}
	assert.InDelta(t, 2*(300*200-100*50)+(2*500+2*150)*20, holed.AllRound(), 1e-9)
	holed.Pockets = []Pocket{{Ring: Rect(40, 30), Deep: 5}}
	assert.InDelta(t, 2*(300*200-100*50)+(2*500+2*150)*20+2*70*5, holed.AllRound(), 1e-9)
	// a square frustum: 200 outside, 160 inside, 20 thick: slanted sides of 20 √2
	bevel := Panel{Copies: 1, Thick: 20, Outline: Rect(200, 200), Inside: []Point{{20, 20}, {180, 20}, {180,
		180}, {20, 180}}}
	assert.InDelta(t, 200*200+160*160+4*180*20*math.Sqrt2, bevel.AllRound(), 1e-6)
	for _, joint := range []string{"butt", "mitre", "rabbet"} {
		open := laid(t, Box{W: 300, D: 200, H: 400, T: 10, Joint: joint})
		assert.InDelta(t, 2*(300+200)*400+300*200-280*180, open.Painted(false), 1e-6, joint)
		shut := laid(t, Box{W: 300, D: 200, H: 400, T: 10, Joint: joint, Bottom: true, Lid: true, Overhang: 15})
		want := 2.0*(300+200)*390 + // the walls
			280*180 + // the floor, from below
			330*230 + 2*(330+230)*10 + 330*230 - 300*200 // the lid: its top, its edge, what of it stands out
		assert.InDelta(t, want, shut.Painted(false), 1e-6, joint)
	}
	// glued to each other, no brush comes between
	board.Lines = []Line{{Length: 600, Width: 50}}
	assert.InDelta(t, 3*(2*600*400+2*(600+400)*50)-2*600*50, board.Painted(true), 1e-6)
}
