package show

import (
	"testing"

	"github.com/stretchr/testify/assert"
)

// A group that comes to its stop is scared by what begins within two seconds, shares what runs
// already, and misses what begins later.
func TestALateScareIsNone(t *testing.T) {
	m := Machine{Triggers: []Trigger{{ID: "t", Input: "i", Scene: "s"}}}
	night := func(begins, ends int) PropNight {
		return propNight(m, Trace{Events: []Event{{At: begins, What: "start", Who: "s"}, {At: ends, What: "end", Who: "s"}}},
			"i", 0, []visit{{0, 1000}, {1, 1000}})
	}
	for begins, want := range map[int][3]int{1000: {1, 0, 0}, 3000: {1, 0, 0}, 3001: {0, 0, 1}, 500: {0, 1, 0}} {
		got := night(begins, 9000)
		assert.Equal(t, want, [3]int{got.Scared, got.Shared, got.Missed}, "begins at %d", begins)
		assert.Equal(t, 1, got.Came, "the other came to another stop")
	}
	assert.Equal(t, 1, night(100, 900).Missed, "it was over")
}

// A contact that bounces for 20 ms opens after a quarter of that and closes after another.
func TestHowAContactBounces(t *testing.T) {
	m := Machine{Inputs: []Input{{ID: "i", Bounce: 20}}, Scenes: []Scene{{ID: "s", Length: 100}},
		Triggers: []Trigger{{ID: "t", Input: "i", Scene: "s", Latch: OneShot}}}
	_, seen := m.Contacts(Press("i", 100, 60), 500)
	assert.Equal(t, []Stimulus{{100, "i", true}, {105, "i", false}, {110, "i", true}, {160, "i", false}}, seen)
}
