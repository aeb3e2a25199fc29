package check

import (
	"testing"
	"time"

	"zapbarn/core/work"
	"zapbarn/testkit/shop"
	"zapbarn/testkit/wirings"

	"github.com/stretchr/testify/assert"
)

// Every rule says why: its cause, what people do, where that is from; and every code a
// snag was ever seen with leads there.
func TestEveryRuleSaysWhy(t *testing.T) {
	for _, w := range Whys() {
		assert.NotEmpty(t, w.Code)
		for _, text := range []string{w.Cause, w.Do, w.Source, w.Picture, w.Rule} {
			assert.NotEmpty(t, text, w.Code)
		}
		assert.Greater(t, len(w.Cause), 30, w.Code)
	}
	assert.Len(t, Whys(), len(whys()), "nothing is told of a rule that is gone")
	codes := map[string]bool{}
	day := time.Date(2026, 9, 20, 0, 0, 0, 0, time.UTC)
	for _, c := range ruleCases() {
		p := clean()
		c.spoil(p)
		for _, s := range run(work.Do(p, shop.Kept, day)) {
			codes[s.Code] = true
		}
	}
	for seed := range uint64(20) {
		for _, s := range run(work.Do(wirings.Random(seed), shop.Kept, day)) {
			codes[s.Code] = true
		}
	}
	for code := range codes {
		_, ok := WhyOf(code)
		assert.True(t, ok, code)
	}
	assert.Greater(t, len(codes), 60)
	_, ok := WhyOf("no-such-code")
	assert.False(t, ok)
}
