package source

import (
	"testing"

	"github.com/stretchr/testify/assert"
)

func TestSourcesSayHowFarToTrustThem(t *testing.T) {
	for s, want := range map[Source]string{
		Std("IEC 60028"):        "IEC 60028",
		FromTrade(""):           "common practice, no source",
		FromTrade("fuse first"): "common practice, no source; fuse first",
		FromMemory("price"):     "from memory, typical, editable; price",
		Entered(""):             "entered by you",
		Exact("sum"):            "sum",
	} {
		assert.Equal(t, want, s.String())
	}
}

// Adding a step leaves the result it came from alone.
func TestWithCopies(t *testing.T) {
	a := Result{Key: What("k")}.With("x", "1", "1")
	b, c := a.With("y", "2", "2"), a.With("z", "3", "3")
	assert.Len(t, a.Steps, 1)
	assert.Equal(t, "y", b.Steps[1].Formula)
	assert.Equal(t, "z", c.Steps[1].Formula)
}
