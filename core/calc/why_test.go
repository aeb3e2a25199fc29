package calc

import (
	"testing"

	"github.com/stretchr/testify/assert"
)

// Every calculator says when one needs it and what people do, with an example that works.
func TestEveryCalculatorSaysWhy(t *testing.T) {
	assert.Len(t, whys(), len(List()))
	for _, c := range List() {
		w, ok := WhyOf(c.Name)
		if !assert.True(t, ok, c.Name) {
			continue
		}
		for _, text := range []string{w.Cause, w.Do, w.Source} {
			assert.NotEmpty(t, text, c.Name)
		}
		_, _, rs, err := c.Lay(w.Args(c), "in")
		assert.NoError(t, err, "%s %v", c.Name, w.Args(c))
		assert.NotEmpty(t, rs, c.Name)
	}
}
