package plan

import "slices"

// Stage is how far a prop has come. Rules about what is still to be planned speak
// only from one of them on: nothing is wrong with a sketch for being one.
type Stage int

// The stages, in order.
const (
	Idea Stage = iota
	Drawn
	Cut
	Glued
	Wired
	Proven
	Closed
	Standing
)

// StageNames are their names in files and on tickets.
var StageNames = []string{"idea", "drawn", "cut", "glued", "wired", "proven", "closed", "standing"}

// String is a stage's name.
func (s Stage) String() string { return StageNames[s] }

// StageNamed is the stage of a name, an idea where there is none.
func StageNamed(name string) Stage { return Stage(max(0, slices.Index(StageNames, name))) }
