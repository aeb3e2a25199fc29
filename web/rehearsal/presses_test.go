package rehearsal

import (
	"strings"
	"testing"
	"time"

	"zapbarn/demo"
	"zapbarn/testkit/shop"

	"github.com/stretchr/testify/assert"
)

func TestPressesAreReadDefensively(t *testing.T) {
	p := demo.Apiary(today).In(shop.Kept)
	assert.Len(t, presses("mat@1000:200,button@500:100", p), 4)
	assert.Equal(t, 500, presses("mat@1000:200,button@500:100", p)[0].At)
	assert.Empty(t, presses("mat@x:1,ghost@1:1,mat@-1:5,mat@1:0,,@:,mat@99999999:1", p))
	assert.LessOrEqual(t, len(presses(strings.Repeat("mat@1:1,", 5000), p)), 202)
}

var today = time.Date(2026, 9, 20, 12, 0, 0, 0, time.UTC)
