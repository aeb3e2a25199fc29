package displays

import (
	"testing"

	"zapbarn/core/check"

	"github.com/stretchr/testify/assert"
)

// What is still open in a prop is counted by its level, notes left out.
func TestWhatIsOpenInAProp(t *testing.T) {
	assert.Equal(
		t,
		"1 stop, 1 fix",
		openIn([]check.Snag{{Prop: "a", Level: check.Stop}, {Prop: "a", Level: check.Fix},
			{Prop: "b", Level: check.Stop}, {Prop: "a", Level: check.Note}}, "a"),
	)
}
