package e2e

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A note is typed on a thing's ticket, stays on it, and is taken away again; the
// field is empty for the next one.
func TestANoteOnATicket(t *testing.T) {
	t.Parallel() // it has a store and a browser of its own
	s := open(t, apiary+"/bench?prop=riser&sel=solid:riser-box")
	s.click(".notes > summary")
	eval[bool](s, `(()=>{const f=document.querySelector(".noting"); f.elements.text.value="Lid warps; keep it flat";
		f.elements.by.value="Ola"; return true})()`)
	s.live(func() { s.click(".noting .btn") })
	notes := s.plan("midnight-apiary").NotesOn("solid:riser-box")
	require.Len(t, notes, 1)
	assert.Contains(t, s.text(".note p"), "Lid warps; keep it flat")
	assert.Empty(t, eval[string](s, `document.querySelector(".noting").elements.text.value`))
	assert.Equal(t, "Ola", eval[string](s, `document.querySelector(".noting").elements.by.value`))
	s.live(func() { s.click(".note button") })
	assert.Empty(t, s.plan("midnight-apiary").NotesOn("solid:riser-box"))
	s.say("note hive box: sand the lid", "note on Hive box")
	assert.Len(t, s.plan("midnight-apiary").NotesOn("solid:riser-box"), 1)
}
