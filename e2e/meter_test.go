package e2e

import (
	"context"
	"strings"
	"testing"

	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/wiring"
	"zapbarn/store"
	"zapbarn/testkit"
	"zapbarn/testkit/shop"

	"github.com/chromedp/cdproto/input"
	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Find a fault: say what is dark, measure where it says, and the cause stands
// first; readings are kept with the plan and can be undone.
func TestFindAFault(t *testing.T) {
	t.Parallel() // it has a store and a browser of its own
	s := serve(t)
	p := s.plan("midnight-apiary")
	jar := *p.Device("jar-8")
	jar.Reversed = false
	require.NoError(
		t,
		s.store.Apply(
			context.Background(),
			"midnight-apiary",
			store.By{},
			plan.Edit{Label: "mend", Changes: []plan.Change{p.Put("device", "jar-8", jar)}},
		),
	)
	s.ctx = testkit.Browser(t, 1280, 800)
	s.goTo(apiary + "/loom?prop=shelf&way=fault")
	assert.Contains(t, s.text(".fault"), "Say first what is dark")
	say := func(device, volts, do string) {
		s.live(func() {
			eval[bool](
				s,
				`(()=>{const f=document.querySelector("form.meter"); f.elements.device.value="`+device+`"; f.elements.volts.value="`+volts+`"; f.requestSubmit(`+do+`); return true})()`,
			)
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
	assert.Len(t, s.plan("midnight-apiary").Readings(), 26+len(p.Readings()))
	say("jar-12", "lots", "")
	assert.Contains(t, s.text(".error"), "write volts such as")
	s.live(func() { s.clickText("Clear the readings") })
	assert.Len(t, s.plan("midnight-apiary").Readings(), len(p.Readings()), "those of other supplies stay")
}

// Prove: what each lamp should read, what it read, pass or fail, and proven.
func TestProve(t *testing.T) {
	t.Parallel() // it has a store and a browser of its own
	s := open(t, apiary+"/loom?prop=riser&way=prove")
	assert.Equal(t, 8, s.count(".card"))
	assert.Contains(t, s.text(".caution"), "Polarity first")
	keep := func(volts string) {
		s.live(func() {
			eval[bool](
				s,
				`(()=>{const f=document.querySelectorAll(".card form")[1]; f.elements.volts.value="`+volts+`"; f.requestSubmit(); return true})()`,
			)
		})
	}
	assert.Equal(t, 1, s.count(".st-pass"), "glow 2; glow 3 and 4 lie past the planted bad joint")
	assert.Equal(t, 2, s.count(".st-fail"))
	keep("11.8 V")
	assert.Equal(t, 2, s.count(".st-pass"), s.text(".list"))
	keep("9 V")
	assert.Equal(t, 3, s.count(".st-fail"))
	s.live(func() {
		eval[bool](
			s,
			`(()=>{const f=document.querySelector("form.meter"); f.elements.by.value="Sam"; f.requestSubmit(); return true})()`,
		)
	})
	keep("250 mA")
	rs := s.plan("midnight-apiary").Readings()
	assert.Equal(t, "Sam", rs[len(rs)-1].By, "who measures is said once")
	keep("200 kohm")
	assert.Contains(t, s.text(".list"), "9 V, 250 mA, 200 kohm to ground by Sam")
	keep("2 bananas")
	assert.Contains(t, s.text(".error"), "volts:")
	s.live(func() { s.clickText("It lit: proven") })
	expect := s.text(".card small")
	s.goTo(apiary + "/loom?prop=riser&way=prove&state=without%3AS2")
	assert.NotEqual(t, expect, s.text(".card small"), "what to expect in another state")
	s.goTo(apiary + "/loom?prop=riser&way=prove")
	assert.True(t, s.plan("midnight-apiary").Device("glow-4").Proven)
	assert.NotContains(t, s.text(".gutter"), "Prove 1 lamp")
}

// Trainer: a fault is hidden, the learner measures by pressing on the board,
// answers, and the score against the best possible is kept.
func TestTrainer(t *testing.T) {
	t.Parallel() // it has a store and a browser of its own
	s := open(t, apiary+"/loom?prop=shelf&way=train&level=1&seed=3")
	assert.Equal(t, 0, s.count(".seen li"))
	d, err := wiring.NewDrill(s.plan("midnight-apiary").Wiring(shop.Kept), "S1", 1, 3)
	require.NoError(t, err)
	truth, say := d.Truth()
	device := truth[strings.IndexByte(truth, ':')+1:]
	s.live(func() { s.click(`svg.board a[data-key="device:` + device + `"]`) })
	assert.Equal(t, 1, s.count(".seen li"))
	v, _ := d.Measure(device)
	assert.Contains(t, s.text(".seen"), measure.Volts(v), "what the meter shows is core's")
	answer := func(guess, who string) {
		s.live(func() {
			eval[bool](
				s,
				`(()=>{const f=document.querySelector('form[action$="/drill"]'); f.elements.guess.value="`+guess+`"; f.elements.who.value="`+who+`"; f.requestSubmit(); return true})()`,
			)
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
	assert.Equal(t, wiring.Score(true, 1, d.Best()), record[0].Score)
	s.live(func() { s.clickText("Another fault") })
	assert.Equal(t, 0, s.count(".seen li"))
}

// A lamp is dragged along its run: the volts follow while it moves, the plan
// when it is let go.
func TestSlideALampAlongItsRun(t *testing.T) {
	t.Parallel() // it has a store and a browser of its own
	s := open(t, apiary+"/loom?prop=shelf")
	before := s.plan("midnight-apiary").Device("jar-24").At.Value()
	volts := s.text(`[data-volts="jar-24"]`)
	at := eval[[]float64](
		s,
		`(()=>{const b=document.querySelector('a[data-slide="jar-24"] .lampbox').getBoundingClientRect(); return [b.left+b.width/2,b.top+b.height/2]})()`,
	)
	mouse := func(kind input.DispatchMouseEventType, x, y float64) chromedp.Action[chromedp.Void] {
		return chromedp.MouseEvent(kind, x, y, chromedp.ButtonLeft, chromedp.ClickCount(1))
	}
	require.NoError(
		t,
		chromedp.Do(
			s.ctx,
			mouse(input.DispatchMouseEventTypeMousePressed, at[0], at[1]),
			mouse(input.DispatchMouseEventTypeMouseMoved, at[0]-100, at[1]),
			mouse(input.DispatchMouseEventTypeMouseMoved, at[0]-200, at[1]),
		),
	)
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

// A feed and a supply slide along the run they feed, by arrow and by mouse.
func TestSlideAFeed(t *testing.T) {
	t.Parallel() // it has a store and a browser of its own
	s := open(t, apiary+"/loom?prop=shelf")
	eval[bool](s, `(()=>{document.querySelector('a[data-slide="W2"]').focus(); return true})()`)
	s.live(func() {
		require.NoError(
			t,
			chromedp.Do(s.ctx, chromedp.KeyEvent(kb.ArrowRight, chromedp.KeyModifiers(chromedp.ModifierShift))),
		)
	})
	assert.InDelta(t, 304.8, s.plan("midnight-apiary").Device("W2").FedAt.Value(), 4)
	assert.Contains(t, s.text("svg.board"), "fed at")
	volts := s.text(`[data-volts="jar-1"]`)
	at := eval[[]float64](
		s,
		`(()=>{const b=document.querySelector('a[data-slide="W1"] .box').getBoundingClientRect(); return [b.left+b.width/2,b.top+8]})()`,
	)
	mouse := func(kind input.DispatchMouseEventType, x float64) chromedp.Action[chromedp.Void] {
		return chromedp.MouseEvent(kind, x, at[1], chromedp.ButtonLeft, chromedp.ClickCount(1))
	}
	require.NoError(
		t,
		chromedp.Do(
			s.ctx,
			mouse(input.DispatchMouseEventTypeMousePressed, at[0]),
			mouse(input.DispatchMouseEventTypeMouseMoved, at[0]+40),
			mouse(input.DispatchMouseEventTypeMouseMoved, at[0]+80),
		),
	)
	s.wait(`document.querySelector('[data-volts="jar-1"]').textContent!=="` + volts + `"`)
	s.live(func() {
		require.NoError(t, chromedp.Do(s.ctx, mouse(input.DispatchMouseEventTypeMouseReleased, at[0]+80)))
	})
	assert.Greater(t, s.plan("midnight-apiary").Device("W1").FedAt.Value(), 500.0)
	s.live(func() { s.clickText("Undo") })
	assert.True(t, s.plan("midnight-apiary").Device("W1").FedAt.IsZero())
}

// Pixels from the quick line to the build sheet: feeds, data, their snags
// mended, and the order the data runs in on paper.
func TestPixelsFromFeedToPaper(t *testing.T) {
	t.Parallel() // it has a store and a browser of its own
	s := open(t, apiary+"/loom?prop=comb")
	assert.Contains(t, s.text(".gutter"), "wants a level shifter")
	s.live(func() { s.clickText("Mend: Fit a level shifter at the pin") })
	s.live(func() { s.clickText("Mend: Put them on the list") })
	assert.NotContains(t, s.text(".gutter"), "level shifter")
	d := s.plan("midnight-apiary").Device("cells")
	assert.True(t, d.Shifter && d.Bulk)
	s.say("feed comb at 0% 50% 100%", "feed Cells 1 to 72 at 0% 50% 100%")
	assert.Equal(t, "0% 50% 100%", s.plan("midnight-apiary").Device("cells").Feeds)
	s.say("pixels 0.5 m on W4", "lamp L1, Addressable pixels 5 V, 60/m, 0.5 m on W4")
	s.say("data L1 from cells 4 in", "Addressable pixels 5 V, 60/m gets its data from Cells 1 to 72, 4 in of wire")
	s.goTo(apiary + "/loom?prop=comb&way=build")
	assert.Contains(t, s.text(".build"), "pixels 73 to 102")
	assert.Contains(t, s.text(".build"), "330 ohm at the first pixel")
	assert.Contains(t, s.text(".build"), " feed 3")
	s.goTo(apiary + "/loom?prop=comb&sel=device:cells")
	s.set("f.feeds", "0% 140%")
	s.live(func() { s.keys(kb.Enter) })
	assert.Contains(t, s.text(".ticket"), "no place along the strip")
	assert.Equal(t, "0% 140%", s.value("f.feeds"), "what was entered stays")
}

// The comb's planted fault stands first, and the strip's far end can be measured.
func TestPlantedFaultOfTheComb(t *testing.T) {
	t.Parallel() // it has a store and a browser of its own
	s := open(t, apiary+"/loom?prop=comb&way=fault")
	assert.Contains(t, s.text(".cause"), "a bad contact in Comb plug X1")
	assert.Contains(t, s.text(".seen"), "2.72 V")
	s.live(func() {
		eval[bool](
			s,
			`(()=>{const f=document.querySelector("form.meter"); f.elements.device.value="cells far"; f.elements.volts.value="2.77 V"; f.requestSubmit(); return true})()`,
		)
	})
	r := s.plan("midnight-apiary").Readings()
	assert.True(t, r[len(r)-1].Far)
	assert.Contains(t, s.text(".seen"), "2.77 V at its far end")
	assert.Contains(t, s.text(".cause"), "a bad contact in Comb plug X1")
}
