package calendar

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Hours of a day that touch are two stretches; that overlap by a minute are a mistake.
func TestHoursThatTouch(t *testing.T) {
	w, err := ParseWeek("mon 9-12, mon 12-15")
	require.NoError(t, err)
	total := 0
	for _, day := range w {
		for _, s := range day {
			total += s.End - s.Start
		}
	}
	assert.Equal(t, 6*60, total)
	_, err = ParseWeek("mon 9-12, mon 11:59-15")
	assert.ErrorContains(t, err, "overlap")
}
