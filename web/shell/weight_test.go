package shell

import (
	"testing"

	"zapbarn/core/work"
	"zapbarn/demo"
	"zapbarn/testkit/shop"

	"github.com/stretchr/testify/assert"
)

// What a plan worked out is said to weigh is about what it takes.
func TestWhatIsKeptIsWeighed(t *testing.T) {
	p := demo.Apiary(today).In(shop.Kept)
	w := Worked{Plan: p, Work: work.Do(p, shop.Kept, today)}
	assert.Greater(t, w.Weight(), int64(500<<10))
	assert.Less(t, w.Weight(), int64(20<<20))
}
