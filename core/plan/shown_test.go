package plan_test

import (
	"testing"

	"zapbarn/core/plan"

	"github.com/stretchr/testify/assert"
)

// Every kind has a place, but for the three that are shown with what they are about.
func TestEachKindIsShownSomewhere(t *testing.T) {
	with := map[string]bool{"photo": true, "note": true, "waiver": true}
	for _, kind := range plan.Kinds() {
		s, ok := plan.ShownIn(kind)
		assert.Equal(t, !with[kind], ok, kind)
		if ok {
			assert.Contains(t, []string{"barn", "bench", "loom", "rehearsal", "yard", "calendar", "stores", "walkdown"},
				s.Place, kind)
		}
	}
	for kind, want := range map[string]plan.Shown{"outlet": {Place: "loom", Way: "power"},
		"mechanism": {Place: "rehearsal", Way: "motion"}, "offcut": {Place: "bench", Way: "sheets"},
		"forecast": {Place: "yard", Way: "wind", Whole: true}} {
		got, _ := plan.ShownIn(kind)
		assert.Equal(t, want, got, kind)
	}
	_, ok := plan.ShownIn("nothing")
	assert.False(t, ok)
}
