package shorthand

import (
	"testing"

	"zapbarn/core/plan"
	"zapbarn/testkit/shop"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Hours of a day that is none are refused by that word, and never become part of a name.
func TestHoursAreNoName(t *testing.T) {
	p := plan.New("x", "X", "in", "").In(shop.Kept)
	for line, word := range map[string]string{
		"person Zed moon-fri 18-21":              `"moon-fri"`,
		"person Mary Ann wensday 9-12":           `"wensday"`,
		"person 18-21":                           `"18-21"`,
		"person Zed thrusday 18:30-21, sat 9-10": `"thrusday"`,
	} {
		_, err := Read(p, shop.Kept, "", line)
		require.ErrorContains(t, err, word+" is not understood; write such as mon-fri", line)
	}
	for line, name := range map[string]string{
		"person Zed":                       "Zed",
		"person Mary Ann mon-fri 18-21":    "Mary Ann",
		"person Ola 2 sat 9-10 does paint": "Ola 2",
	} {
		r, err := Read(p, shop.Kept, "", line)
		require.NoError(t, err, line)
		q, err := p.Apply(r.Edit)
		require.NoError(t, err, line)
		assert.Equal(t, name, q.People()[0].Name, line)
	}
}
