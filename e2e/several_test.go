package e2e

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Runs of a list are picked together with Shift, and thickened in one step.
func TestSeveralPickedWithShift(t *testing.T) {
	t.Parallel() // it has a store and a browser of its own
	s := open(t, apiary+"/loom?prop=shelf&way=list&sel=device:W1")
	press := func(key string) {
		s.live(func() {
			require.True(t, eval[bool](s, `(()=>{const a=document.querySelector('a[data-key="`+key+`"]');
				return !a.dispatchEvent(new MouseEvent("click",{shiftKey:true,bubbles:true,cancelable:true}))})()`))
		})
	}
	press("device:W2")
	assert.Equal(t, "2 picked", s.text(".several h2"))
	assert.Equal(t, 2, s.count(".surface .picked"))
	press("device:S1")
	assert.Equal(t, "3 picked", s.text(".several h2"))
	press("device:S1")
	assert.Equal(t, "2 picked", s.text(".several h2"))
	eval[bool](s, `(()=>{document.querySelector(".each").value="gauge 12 awg"; return true})()`)
	s.live(func() { s.clickText("Do it to all") })
	p := s.plan("midnight-apiary")
	assert.Equal(t, "12 awg", p.Device("W1").Gauge.String())
	assert.Equal(t, "12 awg", p.Device("W2").Gauge.String())
	s.live(func() { s.clickText("Undo") })
	assert.NotEqual(t, "12 awg", s.plan("midnight-apiary").Device("W1").Gauge.String())
	press("device:W2") // one is left: its own ticket again
	assert.Equal(t, 0, s.count(".several"))
	assert.Equal(t, 1, s.count("form.f"))
}

// Two solids pressed are joined where they are; undo parts them.
func TestTwoPressedAreJoined(t *testing.T) {
	t.Parallel() // it has a store and a browser of its own
	s := open(t, apiary+"/bench?prop=keeper&way=whole")
	before := len(s.plan("midnight-apiary").Joints())
	for _, id := range []string{"keeper-hat", "keeper-brim"} {
		s.live(func() {
			require.True(t, eval[bool](s, `(()=>{const b=document.querySelector('[data-solid="`+id+`"]');
				return !b.dispatchEvent(new MouseEvent("click",{shiftKey:true,bubbles:true,cancelable:true}))})()`), id)
		})
	}
	s.live(func() { s.clickText("Join the two") })
	joints := s.plan("midnight-apiary").Joints()
	require.Len(t, joints, before+1)
	j := joints[before]
	assert.ElementsMatch(t, []string{"keeper-hat", "keeper-brim"}, []string{j.A, j.B})
	s.live(func() { s.clickText("Undo") })
	assert.Len(t, s.plan("midnight-apiary").Joints(), before)
}
