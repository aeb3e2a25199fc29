package e2e

import (
	"bytes"
	"encoding/base64"
	"encoding/json"
	"fmt"
	"image"
	"image/color"
	"image/png"
	"math"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"testing"

	"zapbarn/core/plan"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// What stands in the yard is dragged, moved and turned by keys, undone; the lamp in plain
// view and the cord on the path are mended by a press, and the drawing follows.
func TestTheYardIsSetOut(t *testing.T) {
	t.Parallel() // it has a store and a browser of its own
	s := open(t, apiary+"/yard")
	flowers := func() *plan.Plot { return s.plan("midnight-apiary").PlotOf("sunflowers") }
	was := *flowers()
	s.live(func() { s.dragBy(`[data-yard="plot:sunflowers"] .yardprop`, 60, 30) })
	now := *flowers()
	assert.Greater(t, now.X.Value(), was.X.Value()+500)
	assert.Greater(t, now.Y.Value(), was.Y.Value()+200)
	s.live(func() { s.clickText("Undo") })
	assert.Equal(t, was, *flowers())
	eval[bool](s, `(()=>{document.querySelector('[data-yard="plot:sunflowers"]').focus(); return true})()`)
	s.live(func() { s.keys(kb.ArrowRight) })
	assert.InDelta(t, was.X.Value()+152.4, flowers().X.Value(), 13, "half a foot, on the nearest inch")
	eval[bool](s, `(()=>{document.querySelector('[data-yard="plot:sunflowers"]').focus(); return true})()`)
	s.live(func() {
		require.NoError(t, chromedp.Do(s.ctx, chromedp.KeyEvent(kb.ArrowRight, chromedp.KeyModifiers(8))))
	})
	assert.InDelta(t, 195, flowers().Turn.Value(), 1e-9, "15 degrees more")
	s.live(func() { s.clickText("Mend: A ramp covers it") })
	assert.NotContains(t, s.text("svg.yard"), "cord on the path")
	s.goTo(apiary + "/yard?way=sight")
	require.Contains(t, s.text("svg.yard"), "seen from here")
	s.live(func() { s.clickText(`Make low screen 30" high`) })
	assert.NotContains(t, s.text("svg.yard"), "seen from here")
	assert.NotContains(t, s.text("#snags"), "Skep fill is seen")
	s.goTo(apiary + "/yard?way=light")
	assert.Contains(t, s.text("svg.yard"), "lx on its face")
	s.goTo(apiary + "/yard?way=walk&far=3000")
	assert.Contains(t, s.text("svg.eye"), "9' 10\" along the path")
	assert.Contains(t, s.text(".eyes table"), "before it")
	s.goTo(apiary + "/yard?way=strike")
	assert.Contains(t, s.text("table"), "too large")
	s.say("stand bee, one of seven at 20 ft, 30 ft", "stands 20 ft right")
}

// A yard from nothing, by the line: each line understood, each thing in the picture.
func TestAYardFromNothing(t *testing.T) {
	t.Parallel() // it has a store and a browser of its own
	s := open(t, "/p/thistledown-porch/yard")
	assert.Contains(t, s.text(".blank"), "An empty yard")
	for _, l := range [][2]string{
		{"walk path 1200 mm wide 500 mm, 8 m ; 4 m, 6 m ; 12 m, 6 m", "3 places"},
		{"walk way out 12 m, 6 m ; 14 m, 6 m", "Way out"},
		{"stand seed hopper at 5 m, 2500 mm turned 20", "stands 5 m right"},
		{"screen reed 1800 mm high from 3 m, 3 m to 5 m, 3 m", "Reed, a screen"},
		{"light fill 120 lm at 4 m, 2 m up 300 mm", "fill, 120 lm"},
		{"view gate at 500 mm, 8 m looking -20", "viewpoint"},
		{"wind 2026-12-24 30 km/h gusts 15 m/s", "forecast"},
	} {
		s.goTo("/p/thistledown-porch/yard")
		s.say(l[0], l[1])
	}
	s.goTo("/p/thistledown-porch/yard?way=wind")
	text := s.text("svg.yard")
	for _, want := range []string{"Reed, 1.8 m", "Seed hopper", "Gate", "gusts 15 m/s", "Guests' path"} {
		assert.Contains(t, text, want)
	}
	assert.NotContains(t, text, " ft")
}

// A sketch is laid beneath the plan, as wide as was said: on the drawing it is as wide as the
// yard is there; a width that is none keeps what was entered.
func TestASketchLiesBeneath(t *testing.T) {
	t.Parallel() // it has a store and a browser of its own
	file := filepath.Join(t.TempDir(), "front-yard.png")
	f, err := os.Create(file)
	require.NoError(t, err)
	require.NoError(t, png.Encode(f, image.NewGray(image.Rect(0, 0, 600, 400))))
	require.NoError(t, f.Close())
	s := open(t, apiary+"/yard")
	lay := func(across string) {
		require.NoError(t, chromedp.Do(s.ctx, chromedp.SetUploadFiles(`form[action$="/sketch"] input[type=file]`,
			[]string{file})))
		s.live(func() {
			eval[bool](
				s,
				`(()=>{const f=document.querySelector('form[action$="/sketch"]'); f.elements.across.value="`+across+
					`"; f.requestSubmit(); return true})()`,
			)
		})
	}
	lay("wide")
	assert.Contains(t, s.text(".error"), "No sketch was laid down")
	assert.Equal(t, "wide", s.value("across"))
	lay("60 ft")
	x := s.plan("midnight-apiary").Sketches()[0]
	assert.Equal(t, "Front yard", x.Name)
	wide := eval[float64](s, `Number(document.querySelector(".yardsketch").getAttribute("width"))`)
	scale := eval[float64](s, `Number(document.querySelector("[data-yard-scale]").dataset.yardScale)/100`)
	assert.InDelta(t, 60*.3048*scale, wide, 0.2)
	eval[bool](s, `(()=>{document.querySelector(".yardsketch").focus(); return true})()`)
	s.live(func() { s.keys(kb.ArrowRight) })
	assert.InDelta(t, 152.4, s.plan("midnight-apiary").Sketches()[0].X.Value(), 13, "half a foot")
}

// A phone that is out of reach keeps what is entered over a reload; brought back, nothing is
// lost, and what two noted differently is told.
func TestAPhoneOutOfReach(t *testing.T) {
	t.Parallel() // it has a store and a browser of its own
	s := open(t, apiary+"/walkdown?way=nights&on=2026-12-15")
	file := filepath.Join(t.TempDir(), "night.html")
	require.NoError(t, os.WriteFile(file, []byte(get(t, s.url+apiary+"/evening.html?on=2026-12-15", 200)), 0o644))
	s.live(func() { s.click(`[data-k="round-open:guard:porch"] .tick`) }) // at the gate, meanwhile
	require.NoError(t, chromedp.Do(s.ctx, chromedp.Navigate("file://"+file)))
	enter := func() {
		eval[bool](
			s,
			`(()=>{const set=(q,v)=>{const e=document.querySelector(q); e.value=v; e.dispatchEvent(new Event("input"))};
			set("#who","Ben"); set("#n-guests","212"); set("#n-weather","fog");
			document.querySelector('[data-line="open:guard:porch"]').click();
			document.querySelector('[data-line="open:way:path"]').click();
			set("#i-what","Jar dark"); set("#i-minutes","12"); document.querySelector("#incident").requestSubmit(); return true})()`,
		)
	}
	enter()
	require.NoError(t, chromedp.Do(s.ctx, chromedp.Reload()))
	assert.Contains(t, s.text("#kept"), "4 entries kept on this phone", "a reload loses nothing")
	sent := eval[[]map[string]any](s, `window.night.entries()`)
	require.Len(t, sent, 4)
	data, err := json.Marshal(sent)
	require.NoError(t, err)
	back := filepath.Join(t.TempDir(), "back.json")
	require.NoError(t, os.WriteFile(back, data, 0o644))
	for range 2 { // brought back twice, taken once
		s.goTo(apiary + "/walkdown?way=nights&on=2026-12-15")
		require.NoError(
			t,
			chromedp.Do(s.ctx, chromedp.SetUploadFiles(`.nightbook .bring input[type=file]`, []string{back})),
		)
		s.live(func() { s.clickText("Merge it") })
		assert.Contains(t, s.text(".ends[role=status]"), "guard porch", s.text(".error"))
	}
	p := s.plan("midnight-apiary")
	n := p.NightBook()[len(p.NightBook())-1]
	assert.Equal(t, 212, n.Guests)
	ticks, jars := 0, 0
	for _, x := range p.Ticks() {
		if x.On == "2026-12-15" {
			ticks++
		}
	}
	for _, x := range p.Incidents() {
		if x.What == "Jar dark" {
			jars++
		}
	}
	assert.Equal(t, 2, ticks)
	assert.Equal(t, 1, jars)
}

// A card is worked, and one that fails is a snag until it is worked again; a night goes into
// the book; the next season begins as a copy with what was to be better, and is compared.
func TestCardsNightsAndSeasons(t *testing.T) {
	t.Parallel() // it has a store and a browser of its own
	s := open(t, apiary+"/walkdown?way=cards&of=keeper")
	card := `[data-k^="card-device:S6"]`
	fill := func(measured, press string) {
		s.live(func() {
			eval[bool](
				s,
				`(()=>{const f=document.querySelector('`+card+` form').elements; f["n.measured"].value="`+measured+
					`"; f["n.by"].value="Mia"; document.querySelector('`+card+` button[value=`+press+`]').click(); return true})()`,
			)
		})
	}
	fill("-12 V", "off")
	assert.Contains(t, s.text(card), "Not as expected: -12 V Mia")
	s.goTo(apiary + "/walkdown")
	assert.Contains(t, s.text("main"), "polarity is not as expected")
	s.goTo(apiary + "/walkdown?way=cards&of=keeper")
	fill("12.1 V", "on")
	assert.Contains(t, s.text(card), "As expected: 12.1 V")
	s.goTo(apiary + "/walkdown?way=nights&on=2026-12-16")
	s.live(func() {
		eval[bool](
			s,
			`(()=>{const f=document.querySelector('form[aria-label="The night"]'); f.elements["n.guests"].value="88";
			f.elements["n.opened"].value="25:00"; f.requestSubmit(); return true})()`,
		)
	})
	assert.Contains(t, s.text(".error"), "no time of the day")
	s.live(func() {
		eval[bool](
			s,
			`(()=>{const f=document.querySelector('form[aria-label="The night"]'); f.elements["n.guests"].value="88";
			f.elements["n.opened"].value="18:30"; f.requestSubmit(); return true})()`,
		)
	})
	assert.Contains(t, s.text(".nightbook"), "173 guests", "34 + 51 + 88")
	s.clickText("Begin next season as a copy")
	s.wait(`document.querySelector(".show") && document.querySelector(".show").textContent.includes("next season")`)
	id := eval[string](s, `document.querySelector("#page").dataset.plan`)
	p := s.plan(id)
	assert.Empty(t, p.NightBook())
	names := ""
	for _, j := range p.Jobs() {
		names += j.Name + ";"
	}
	assert.Contains(t, names, "A hood over the gate beam")
	s.goTo("/p/" + id + "/bench?prop=skep&way=whole")
	s.say("box 12 x 12 x 12 xps1 called Bait box", "box")
	s.goTo("/p/" + id + "/walkdown?way=compare&with=midnight-apiary")
	assert.Contains(t, s.text("main"), "added Bait box")
}

// Two places are measured, by press and by keys; layers are left out and stay out; a drawing
// comes out as a picture with something on it.
func TestTheYardIsMeasured(t *testing.T) {
	t.Parallel() // it has a store and a browser of its own
	s := open(t, apiary+"/yard")
	before := s.plan("midnight-apiary").Plots()
	eval[bool](s, `(()=>{document.querySelector("[data-measure]").click(); return true})()`)
	assert.Contains(t, s.text("[data-measured]"), "from where?")
	at := func(sel string) string {
		return `(()=>{const b=document.querySelector('` + sel + `').getBoundingClientRect();
			document.querySelector('` + sel + `').dispatchEvent(new PointerEvent("pointerdown",
			{bubbles:true,cancelable:true,clientX:b.x+b.width/2,clientY:b.y+b.height/2})); return true})()`
	}
	eval[bool](s, at(`[data-yard="plot:sunflowers"] .yardprop`))
	eval[bool](s, at(`[data-yard="plot:skep"] .yardprop`))
	says := s.text("[data-measured]")
	a, b := s.plan("midnight-apiary").PlotOf("sunflowers"), s.plan("midnight-apiary").PlotOf("skep")
	inches := math.Hypot(a.X.Value()-b.X.Value(), a.Y.Value()-b.Y.Value()) / 25.4
	var feet, rest float64
	_, err := fmt.Sscanf(says, "%f' %f", &feet, &rest)
	require.NoError(t, err, says)
	assert.InDelta(t, inches, 12*feet+rest, 4, says)
	assert.Equal(t, before, s.plan("midnight-apiary").Plots(), "nothing was dragged")
	for _, id := range []string{"sunflowers", "skep"} {
		eval[bool](s, `(()=>{const e=document.querySelector('[data-yard="plot:`+id+`"]'); e.focus();
			e.dispatchEvent(new KeyboardEvent("keydown",{key:"Enter",bubbles:true,cancelable:true})); return true})()`)
	}
	assert.Regexp(t, `\d+' \d+"`, s.text("[data-measured]"))
	eval[bool](s, `(()=>{document.querySelector("[data-measure]").click();
		document.querySelector("[data-layer=cord]").click(); return true})()`)
	shown := `getComputedStyle(document.querySelector('[data-key^="cord:"]')).display`
	assert.Equal(t, "none", eval[string](s, shown))
	s.goTo(apiary + "/yard?way=light")
	assert.Equal(t, "none", eval[string](s, shown), "it is remembered")
	eval[bool](s, `(()=>{document.querySelector("[data-layer=cord]").click();
		window.kept=""; HTMLAnchorElement.prototype.click=function(){window.kept=this.href+"|"+this.download}; return true})()`)
	eval[bool](s, `(()=>{document.querySelector("a[data-png]").dispatchEvent(new MouseEvent("click",{bubbles:true,
		cancelable:true})); return true})()`)
	s.wait(`window.kept !== ""`)
	kept := eval[string](s, `window.kept`)
	data, name, _ := strings.Cut(strings.TrimPrefix(kept, "data:image/png;base64,"), "|")
	assert.Equal(t, "yard.png", name)
	raw, err := base64.StdEncoding.DecodeString(data)
	require.NoError(t, err)
	img, err := png.Decode(bytes.NewReader(raw))
	require.NoError(t, err)
	colours := map[color.Color]bool{}
	for x := 0; x < img.Bounds().Dx(); x += 7 {
		for y := 0; y < img.Bounds().Dy(); y += 7 {
			colours[img.At(x, y)] = true
		}
	}
	assert.Greater(t, len(colours), 3, "something is drawn")
}

// Shift and a press picks several in the yard; they are put in a row and spread evenly,
// each one step to undo; the line says the same.
func TestTheYardIsPutInLine(t *testing.T) {
	t.Parallel() // it has a store and a browser of its own
	s := open(t, apiary+"/yard")
	ids := []string{"sunflowers", "skep", "gate"}
	for i, id := range ids {
		s.live(func() {
			eval[bool](s, fmt.Sprintf(`(()=>{document.querySelector('[data-yard="plot:%s"]').dispatchEvent(
				new MouseEvent("click",{bubbles:true,cancelable:true,shiftKey:true})); return true})()`, id))
		})
		if i > 0 {
			assert.Contains(t, s.text(".ticket h2"), fmt.Sprintf("%d picked", i+1))
		}
	}
	y := func(id string) float64 { return s.plan("midnight-apiary").PlotOf(id).Y.Value() }
	x := func(id string) float64 { return s.plan("midnight-apiary").PlotOf(id).X.Value() }
	was := y("gate")
	s.live(func() { s.clickText("In a row") })
	for _, id := range ids {
		assert.InDelta(t, y("sunflowers"), y(id), 0.01, id)
	}
	s.live(func() { s.clickText("Spread evenly") })
	at := []float64{x(ids[0]), x(ids[1]), x(ids[2])}
	slices.Sort(at)
	assert.InDelta(t, at[2]-at[1], at[1]-at[0], 2)
	s.say("undo", "undo: spread evenly")
	s.say("undo", "undo: put in a row")
	assert.InDelta(t, was, y("gate"), 0.01)
	s.say("align gate, skep in a column", "put in a column")
	assert.InDelta(t, x("gate"), x("skep"), 0.01)
}
