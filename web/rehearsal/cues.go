package rehearsal

import (
	"math"

	"zapbarn/web/shell"

	"zapbarn/core/measure"
	"zapbarn/core/plan"

	"github.com/gin-gonic/gin"
)

// cueStep is what cues are moved by, in seconds.
const cueStep = 0.1

// settledCue is a cue at a start for a length, both in seconds, drawn to the edges of the
// scene's other cues where one is near, else to a tenth of a second; never before the
// scene begins nor shorter than a tenth.
func settledCue(s *plan.Scene, n int, start, length, near float64) plan.Cue {
	edges := []float64{0, s.Length.Value()}
	for k, q := range s.Cues {
		if k != n {
			edges = append(edges, q.Start.Value(), q.Start.Value()+q.Length.Value())
		}
	}
	rest := func(v float64) float64 { return math.Round(shell.Settle(v, cueStep, near, edges...)*1000) / 1000 }
	q := s.Cues[n]
	from := math.Max(0, rest(start))
	end := from + q.Length.Value()
	if length != q.Length.Value() { // its end is drawn
		end = rest(from + length)
	}
	q.Start = measure.Of[measure.DurationKind](from)
	q.Length = measure.Of[measure.DurationKind](math.Max(cueStep, math.Round((end-from)*1000)/1000))
	return q
}

// MoveCue moves, stretches, adds or takes away a cue of a scene.
func (s Room) MoveCue(c *gin.Context) {
	var in struct {
		Scene string `form:"scene"`
		Cue   *int   `form:"cue"`
		Rail  string `form:"rail"`
		Away  string `form:"away"`
		Back  string `form:"back"`
	}
	w, open := s.OpenWith(c, &in)
	if !open {
		return
	}
	at, err := shell.Dragged(c, 86_400, "start", "long", "near")
	if err != nil {
		s.Applied(c, err, shell.Over{}, "")
		return
	}
	scene := w.Plan.Scene(in.Scene)
	if scene == nil {
		s.Refused(c, shell.Over{Err: "That scene is gone; look again."})
		return
	}
	next := *scene
	next.Cues = append([]plan.Cue(nil), scene.Cues...)
	next.Made = false
	n := -1
	if in.Cue != nil {
		n = *in.Cue
	}
	label := "cue of " + scene.Name
	switch rail := in.Rail; {
	case rail != "":
		next.Cues = append(next.Cues, plan.Cue{Channel: rail, Length: measure.Of[measure.DurationKind](1)})
		n = len(next.Cues) - 1
		next.Cues[n] = settledCue(&next, n, at["start"], 1, 0)
		label = "add a " + label
	case n < 0 || n >= len(next.Cues):
		s.Refused(c, shell.Over{Err: "That cue is gone; look again."})
		return
	case in.Away != "":
		next.Cues = append(next.Cues[:n], next.Cues[n+1:]...)
		label = "take away a " + label
	default:
		next.Cues[n] = settledCue(&next, n, at["start"], at["long"], math.Min(at["near"], 5))
	}
	s.Apply(
		c,
		plan.Edit{Label: label, Changes: []plan.Change{w.Plan.Put("scene", scene.ID, next)}},
		shell.Over{},
		in.Back,
	)
}
