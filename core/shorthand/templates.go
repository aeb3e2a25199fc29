package shorthand

import "regexp"

// Template is a small prop to start from: a name, what it teaches, and its lines,
// in which {18|450} is 18 in a display in inches and 450 in one in millimetres.
type Template struct{ Name, Says, Text string }

var either = regexp.MustCompile(`\{([^|}]*)\|([^}]*)\}`)

// Lines are the template's in a plan's units.
func (t Template) Lines(metric bool) string {
	if metric {
		return either.ReplaceAllString(t.Text, "$2")
	}
	return either.ReplaceAllString(t.Text, "$1")
}

// Templates are three small props of our own, each with something cut, glued,
// painted and lit.
var Templates = []Template{
	{"Lit lantern", "A foam lantern on a base, lit from its own cells.", `prop lit lantern {46 in|1150 mm} tall
box {18 x 18 x 6|450 x 450 x 150} xps2 bottom
rename box to base
tower 4 sides {28 tall 16 to 12|700 tall 400 to 300} xps1
rename tower to body
pyramid {14 x 14 12|350 x 350 300} tall xps1
rename pyramid to roof
glue base with pu
glue body with pu
glue roof with pu
coat base masonry latex 2
coat body masonry latex 2
coat roof masonry latex 2
battery 8 aa
fuse 1a on B1
switch on F1
run 22awg {2ft|600mm} on SW1
lamp puck12 on W1`},
	{"Marker stones", "Two silhouettes from one board, sealed and washed.", `prop marker stones {34 in|850 mm} tall
outline {34 in|850 mm} tall xps2 x2 0,0 20,0 20,24 17,31 10,34 3,31 0,24
rename outline to stone
coat stone masonry latex 2 wash`},
	{"Knocking crate", "A crate that lights when someone steps on its mat.", `prop knocking crate {24 in|600 mm} tall
box {30 x 20 x 24|750 x 500 x 600} ply1/4 bottom lid
rename box to crate
glue crate with pva
coat crate latex 2
supply 12v 2a
fuse 1a on S1
run 20awg {6ft|1800mm} on F1
driven switch on W1
lamp puck12 on K1
mat runs glow`},
}
