package e2e

import (
	"context"
	"strings"
	"testing"

	"github.com/chromedp/cdproto/input"
	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/stock"
	"zapbarn/testkit"
)

// Find a fault: say what is dark, measure where it says, and the cause stands
// first; readings are kept with the plan and can be undone.
func TestFindAFault(t *testing.T) {
	s := serve(t)
	p := s.plan("midnight-apiary")
	jar := *p.Device("jar-8")
	jar.Reversed = false
	require.NoError(t, s.store.Apply(context.Background(), "midnight-apiary", "", plan.Edit{Label: "mend", Changes: []plan.Change{p.Put("device", "jar-8", jar)}}))
	s.ctx = testkit.Browser(t, 1280, 800)
	s.goTo(apiary + "/loom?prop=shelf&way=fault")
	assert.Contains(t, s.text(".fault"), "Say first what is dark")
	say := func(device, volts, do string) {
		s.live(func() {
			eval[bool](s, `(()=>{const f=document.querySelector("form.meter"); f.elements.device.value="`+device+`"; f.elements.volts.value="`+volts+`"; f.requestSubmit(`+do+`); return true})()`)
		})
	}
	say("jar-12", "", `f.querySelector("[value=dark]")`)
	s.live(func() { s.clickText("The other 24 lamps are lit") })
	assert.Contains(t, s.text(".next"), "Jar 12", "the next probe is the dark jar")
	assert.Equal(t, 1, s.count("svg.board .pick.on"), "marked on the board")
	say("jar-12", "0.02 V", "")
	assert.Contains(t, s.text(".cause"), "a lead of Jar 12 is open")
	s.live(func() { s.click("[data-undo]") })
	say("jar-12", "-11.6 V", "")
	assert.Contains(t, s.text(".cause"), "Jar 12 is reversed")
	assert.Len(t, s.plan("midnight-apiary").Readings, 26)
	say("jar-12", "lots", "")
	assert.Contains(t, s.text(".error"), "write volts such as")
	s.live(func() { s.clickText("Clear the readings") })
	assert.Empty(t, s.plan("midnight-apiary").Readings)
}

// Prove: what each lamp should read, what it read, pass or fail, and proven.
func TestProve(t *testing.T) {
	s := open(t, apiary+"/loom?prop=riser&way=prove")
	assert.Equal(t, 5, s.count(".card"))
	assert.Contains(t, s.text(".caution"), "Polarity first")
	keep := func(volts string) {
		s.live(func() {
			eval[bool](s, `(()=>{const f=document.querySelectorAll(".card form")[1]; f.elements.volts.value="`+volts+`"; f.requestSubmit(); return true})()`)
		})
	}
	keep("11.8 V")
	assert.Equal(t, 1, s.count(".st-pass"), s.text(".list"))
	keep("9 V")
	assert.Equal(t, 1, s.count(".st-fail"))
	s.live(func() { s.clickText("It lit: proven") })
	assert.True(t, s.plan("midnight-apiary").Device("glow-4").Proven)
	assert.NotContains(t, s.text(".gutter"), "Prove 1 lamp")
}

// Trainer: a fault is hidden, the learner measures by pressing on the board,
// answers, and the score against the best possible is kept.
func TestTrainer(t *testing.T) {
	s := open(t, apiary+"/loom?prop=shelf&way=train&level=1&seed=3")
	assert.Equal(t, 0, s.count(".seen li"))
	d, err := plan.NewDrill(s.plan("midnight-apiary"), stock.Shop, "S1", 1, 3)
	require.NoError(t, err)
	truth, say := d.Truth()
	device := truth[strings.IndexByte(truth, ':')+1:]
	s.live(func() { s.click(`svg.board a[data-key="device:` + device + `"]`) })
	assert.Equal(t, 1, s.count(".seen li"))
	v, _ := d.Measure(device)
	assert.Contains(t, s.text(".seen"), measure.Volts(v), "what the meter shows is core's")
	answer := func(guess, who string) {
		s.live(func() {
			eval[bool](s, `(()=>{const f=document.querySelector('form[action$="/drill"]'); f.elements.guess.value="`+guess+`"; f.elements.who.value="`+who+`"; f.requestSubmit(); return true})()`)
		})
	}
	answer("", "Sam")
	assert.Contains(t, s.text(".error"), "choose what is wrong")
	answer(truth, "Sam")
	assert.Contains(t, s.text(".fault"), "Right: "+say)
	record, err := s.store.Drills(context.Background(), "midnight-apiary", 5)
	require.NoError(t, err)
	require.Len(t, record, 1)
	assert.Equal(t, "Sam", record[0].Who)
	assert.Equal(t, plan.Score(true, 1, d.Best()), record[0].Score)
	s.live(func() { s.clickText("Another fault") })
	assert.Equal(t, 0, s.count(".seen li"))
}

// A lamp is dragged along its run: the volts follow while it moves, the plan
// when it is let go.
func TestSlideALampAlongItsRun(t *testing.T) {
	s := open(t, apiary+"/loom?prop=shelf")
	before := s.plan("midnight-apiary").Device("jar-24").At.Value()
	volts := s.text(`[data-volts="jar-24"]`)
	at := eval[[]float64](s, `(()=>{const b=document.querySelector('a[data-slide="jar-24"] .lampbox').getBoundingClientRect(); return [b.left+b.width/2,b.top+b.height/2]})()`)
	mouse := func(kind input.DispatchMouseEventType, x, y float64) chromedp.Action[chromedp.Void] {
		return chromedp.MouseEvent(kind, x, y, chromedp.ButtonLeft, chromedp.ClickCount(1))
	}
	require.NoError(t, chromedp.Do(s.ctx, mouse(input.DispatchMouseEventTypeMousePressed, at[0], at[1]), mouse(input.DispatchMouseEventTypeMouseMoved, at[0]-100, at[1]), mouse(input.DispatchMouseEventTypeMouseMoved, at[0]-200, at[1])))
	s.wait(`document.querySelector('[data-volts="jar-24"]').textContent!=="` + volts + `"`)
	assert.Equal(t, before, s.plan("midnight-apiary").Device("jar-24").At.Value(), "nothing is stored while it moves")
	s.live(func() {
		require.NoError(t, chromedp.Do(s.ctx, mouse(input.DispatchMouseEventTypeMouseReleased, at[0]-200, at[1])))
	})
	moved := s.plan("midnight-apiary").Device("jar-24").At.Value()
	assert.Less(t, moved, before-500)
	eval[bool](s, `(()=>{document.querySelector('a[data-slide="jar-24"]').focus(); return true})()`)
	s.live(func() { require.NoError(t, chromedp.Do(s.ctx, chromedp.KeyEvent(kb.ArrowRight))) })
	assert.InDelta(t, moved+25.4, s.plan("midnight-apiary").Device("jar-24").At.Value(), 6.5)
	s.live(func() { s.clickText("Undo") })
	s.live(func() { s.clickText("Undo") })
	assert.Equal(t, before, s.plan("midnight-apiary").Device("jar-24").At.Value())
}
