package e2e

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A builder types as they speak, with no help read: what is understood is done and said back, what
// is left over is named, with a line to press that comes near; nothing is taken for something else.
func TestSaidCold(t *testing.T) {
	t.Parallel() // it has a store and a browser of its own
	s := open(t, apiary+"/bench?prop=riser")
	before := len(s.plan("midnight-apiary").Solids())
	s.say("a bookcase 36 in wide 40 in tall 10 in deep half inch plywood", "36\" wide, 10\" deep, 40\" tall")
	p := s.plan("midnight-apiary")
	require.Len(t, p.Solids(), before+1)
	assert.Equal(t, "Bookcase", p.Solids()[before].Name)
	assert.Equal(t, "ply1/2", p.Solids()[before].Stock)

	s.say("a dozen glass jars 4 x 6 $1.75 each", "12 jars")
	s.onTheLine()
	s.strike("paint the bookcase with bone latex", 0)
	s.wait(`document.querySelector(".got").textContent.includes("nothing was made of “bone”")`)
	assert.Equal(t, "coat Bookcase latex", s.text(".tries button"))
	finishes := len(s.plan("midnight-apiary").Finishes())
	s.click(".tries button")
	s.wait(`document.querySelector(".got").textContent.startsWith("reads as")`)
	s.live(func() { s.click(".quick .do") })
	assert.Len(t, s.plan("midnight-apiary").Finishes(), finishes+1)

	devices := len(s.plan("midnight-apiary").Devices())
	s.onTheLine()
	s.strike("10 zombies on S1", 0)
	s.wait(`document.querySelector(".got.bad")`)
	assert.Len(t, s.plan("midnight-apiary").Devices(), devices, "ten zombies are no ten candles")
}
