package e2e

import (
	"fmt"
	"strconv"
	"strings"
	"testing"
	"time"

	"zapbarn/core/plan"

	"github.com/chromedp/cdproto/input"
	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A prop by mouse alone: the template's prop is taken, a solid is pressed, joined
// and coated from lists, wired from the palette, and made to answer a mat.
func TestAPropByMouseAlone(t *testing.T) {
	t.Parallel() // it has a store and a browser of its own
	s := open(t, "/")
	eval[bool](
		s,
		`(()=>{document.querySelector("[name=name]").value="Mouse only"; document.querySelector("form[action='/new']").submit(); return true})()`,
	)
	s.wait(`document.querySelector(".start")`)
	id := eval[string](s, `document.querySelector("#page").dataset.plan`)
	s.live(func() { s.click(".start form:nth-of-type(2) .btn") })
	require.Len(t, s.plan(id).Props(), 1)
	prop := s.plan(id).Props()[0].ID
	s.goTo("/p/" + id + "/bench?prop=" + prop + "&way=whole")
	s.live(func() { s.click(`.palette button[value^="box"]`) })
	assert.Contains(t, eval[string](s, `document.activeElement.name`), "f.", "its first size is ready")
	assert.NotEqual(t, "f.name", eval[string](s, `document.activeElement.name`))
	s.goTo("/p/" + id + "/bench?prop=" + prop + "&way=joints")
	box := s.plan(id).Solids()[1]
	choose := func(form, field, value string) {
		require.True(
			t,
			eval[bool](
				s,
				`(()=>{const f=document.querySelector('`+form+`'); f.elements["`+field+`"].value="`+value+`"; return f.elements["`+field+`"].value==="`+value+`"})()`,
			),
			field,
		)
	}
	join := `form[aria-label="Join two parts"]`
	choose(join, "a", box.ID)
	choose(join, "b", box.ID)
	choose(join, "glue", "pu")
	s.live(func() { s.click(join + " .btn") })
	assert.Len(t, s.plan(id).Joints(), 4, "every seam of the box")
	coat := `form[aria-label="Add a coat"]`
	choose(coat, "solid", box.ID)
	choose(coat, "coat", "latex")
	s.live(func() { s.click(coat + " .btn") })
	choose(join, "a", box.ID+"/front")
	choose(join, "b", s.plan(id).Solids()[0].ID)
	s.live(func() { s.click(join + " .btn") })
	assert.Len(t, s.plan(id).Joints(), 5)
	s.goTo("/p/" + id + "/loom?prop=" + prop)
	n := s.count(".palette button")
	assert.Equal(t, 2, n, "only what feeds, while nothing feeds")
	s.live(func() { s.click(`.palette button[value^="supply"]`) })
	for _, what := range []string{"fuse", "run", "driven switch", "lamp puck12"} {
		s.live(func() { s.click(`.palette button[value^="` + what + `"]`) })
		assert.Equal(t, 0, s.count(".error, .got.bad"), what)
	}
	p := s.plan(id)
	require.Len(t, p.Devices(), 5)
	for i := 1; i < 5; i++ {
		assert.Equal(t, p.Devices()[i-1].ID, p.Devices()[i].From, "each hangs on the one before")
	}
	s.goTo("/p/" + id + "/rehearsal?prop=" + prop)
	s.live(func() { s.click(`.palette button[value^="mat"]`) })
	assert.Len(t, s.plan(id).Triggers(), 1)
	s.goTo("/p/" + id + "/bench?prop=" + prop + "&way=print")
	assert.Contains(t, get(t, s.url+"/p/"+id+"/cutsheet.pdf?prop="+prop, 200)[:5], "%PDF")
}

// A solid is dragged in the front view: it settles on the top of the one below,
// its middle over its middle; undo lays it back.
func TestASolidIsDragged(t *testing.T) {
	t.Parallel() // it has a store and a browser of its own
	s := open(t, "/")
	eval[bool](
		s,
		`(()=>{document.querySelector("[name=name]").value="Dragging"; document.querySelector("form[action='/new']").submit(); return true})()`,
	)
	s.wait(`document.querySelector("#line")`)
	id := eval[string](s, `document.querySelector("#page").dataset.plan`)
	for _, line := range []string{"prop stack 40 in tall", "box 20 x 20 x 20 xps1 beside",
		"box 12 x 12 x 10 xps2 beside"} {
		s.live(func() {
			eval[bool](
				s,
				`(()=>{const l=document.getElementById("line"); l.value=`+strconv.Quote(
					line,
				)+`; l.form.requestSubmit(); return true})()`,
			)
		})
	}
	p := s.plan(id)
	small := p.Solids()[1]
	require.NotZero(t, small.X.Value())
	s.goTo("/p/" + id + "/bench?prop=" + p.Props()[0].ID + "&way=whole")
	middle := func(key string) []float64 {
		return eval[[]float64](
			s,
			`(()=>{const all=[...document.querySelectorAll('svg.front .body[data-solid="`+key+`"]')].map(e=>e.getBoundingClientRect());
			const l=Math.min(...all.map(b=>b.left)), r=Math.max(...all.map(b=>b.right));
			const t=Math.min(...all.map(b=>b.top)), d=Math.max(...all.map(b=>b.bottom));
			return [(l+r)/2,(t+d)/2,r-l,d-t]})()`,
		)
	}
	from, base := middle(small.ID), middle(p.Solids()[0].ID)
	to := []float64{base[0] + 4, base[1] - base[3]/2 - from[3]/2 - 4}
	mouse := func(kind input.DispatchMouseEventType, x, y float64) chromedp.Action[chromedp.Void] {
		return chromedp.MouseEvent(kind, x, y, chromedp.ButtonLeft, chromedp.ClickCount(1))
	}
	drag := func(from, to []float64) {
		t.Helper()
		s.live(func() {
			require.NoError(t, chromedp.Do(s.ctx,
				mouse(input.DispatchMouseEventTypeMousePressed, from[0], from[1]),
				mouse(input.DispatchMouseEventTypeMouseMoved, (from[0]+to[0])/2, (from[1]+to[1])/2),
				mouse(input.DispatchMouseEventTypeMouseMoved, to[0], to[1]),
				mouse(input.DispatchMouseEventTypeMouseReleased, to[0], to[1]),
			))
		})
	}
	drag(from, to)
	got := s.plan(id).Solids()[1]
	assert.Zero(t, got.X.Value(), "its middle over the middle")
	assert.InDelta(t, 20*25.4, got.Z.Value(), 1e-6, "on the top")
	assert.Equal(t, small.Name, s.text(".ticket h2"))
	s.live(func() { s.clickText("Undo") })
	assert.Equal(t, small.X.Value(), s.plan(id).Solids()[1].X.Value())

	// from above it goes behind the other, edge to edge, and stays on the floor
	s.goTo(eval[string](s, `document.querySelector("svg.front a.view").getAttribute("href")`))
	from, base = middle(small.ID), middle(p.Solids()[0].ID)
	drag(from, []float64{base[0] + 3, base[1] - base[3]/2 - from[3]/2 - 3})
	got = s.plan(id).Solids()[1]
	assert.Zero(t, got.X.Value())
	depth := func(i int) float64 { l := p.Solids()[i].Length("d"); return l.Value() }
	assert.InDelta(t, (depth(0)+depth(1))/2, got.Y.Value(), 1)
	assert.Zero(t, got.Z.Value())
	assert.Equal(t, 1, s.count("svg.above"), "still from above")
}

// An opening is dragged on its part: near the middle it settles there; the arrow keys move
// it a step; one undo each. Over the edge it is refused, and stays.
func TestAnOpeningIsDragged(t *testing.T) {
	t.Parallel() // it has a store and a browser of its own
	s := open(t, apiary+"/bench?prop=riser&way=parts&sel=part:riser-box/front")
	at := func() (x, y float64) {
		o := s.plan("midnight-apiary").Solid("riser-box").Openings[0]
		return o.X.Value(), o.Y.Value()
	}
	x0, y0 := at()
	const grip = `[data-opening="0"] .touch`
	s.live(func() { s.dragBy(grip, 0, -60) })
	x1, y1 := at()
	assert.Equal(t, x0, x1)
	assert.Greater(t, y1, y0+50)
	eval[bool](s, `(()=>{document.querySelector("[data-opening]").focus(); return true})()`)
	s.live(func() { s.keys(kb.ArrowRight) })
	x2, _ := at()
	assert.InDelta(t, x1+25.4/4, x2, 0.01)
	s.live(func() { s.dragBy(grip, -5, 0) })
	x3, _ := at()
	assert.Zero(t, x3, "the middle draws it in")
	s.live(func() { s.dragBy(grip, 0, -600) })
	_, y4 := at()
	assert.Equal(t, y1, y4, "over the edge it is refused")
	assert.Contains(t, s.text(".error"), "runs over the edge")
	s.click("[data-undo]")
	s.wait(`true`)
}

// While a solid is dragged, a line shows what it is in line with.
func TestGuidesShowWhatIsInLine(t *testing.T) {
	t.Parallel() // it has a store and a browser of its own
	s := open(t, apiary+"/bench?prop=shelf&way=whole")
	got := eval[float64](s, `(()=>{
		const b = document.querySelector("svg.front .body[data-solid]"), r = b.getBoundingClientRect();
		const fire = (type, x, y) => b.dispatchEvent(new PointerEvent(type, {bubbles:true, clientX:x, clientY:y, pointerType:"mouse", button:0}));
		const x = r.left + r.width/2, y = r.top + r.height/2;
		fire("pointerdown", x, y);
		fire("pointermove", x + 12, y);
		fire("pointermove", x + 3, y);
		const n = document.querySelectorAll("line.guide").length;
		fire("pointercancel", x, y);
		return n;
	})()`)
	assert.GreaterOrEqual(t, got, 1.)
}

// Cues are dragged, stretched, nudged by keys, added by a press on a rail and taken away;
// undo of each.
func TestCuesAreDragged(t *testing.T) {
	t.Parallel() // it has a store and a browser of its own
	s := open(t, apiary+"/rehearsal?prop=riser")
	id := eval[string](s, `document.querySelector("#cue").elements.scene.value`)
	cues := func() []plan.Cue { return s.plan("midnight-apiary").Scene(id).Cues }
	before := cues()
	s.live(func() { s.dragBy(`[data-cue="0"] .cuebar`, 120, 0) })
	now := cues()
	assert.Greater(t, now[0].Start.Value(), before[0].Start.Value())
	assert.Equal(t, before[0].Length.Value(), now[0].Length.Value())
	s.live(func() { s.dragBy(`[data-cue="0"] .cueend`, -60, 0) })
	shorter := cues()
	assert.Less(t, shorter[0].Length.Value(), now[0].Length.Value())
	assert.Equal(t, now[0].Start.Value(), shorter[0].Start.Value())
	eval[bool](s, `(()=>{document.querySelector("[data-cue]").focus(); return true})()`)
	s.live(func() { s.keys(kb.ArrowLeft) })
	assert.InDelta(t, shorter[0].Start.Value()-0.1, cues()[0].Start.Value(), 1e-6)
	n := len(cues())
	s.live(func() {
		eval[bool](s, `(()=>{const r=document.querySelector("[data-rail]"), b=r.getBoundingClientRect();
			r.dispatchEvent(new MouseEvent("click",{bubbles:true,clientX:b.right-20,clientY:b.top+8})); return true})()`)
	})
	assert.Len(t, cues(), n+1)
	eval[bool](s, `(()=>{[...document.querySelectorAll("[data-cue]")].at(-1).focus(); return true})()`)
	s.live(func() { s.keys(kb.Delete) })
	assert.Len(t, cues(), n)
	for range 5 {
		s.live(func() { s.click("[data-undo]") })
	}
	assert.Equal(t, before, cues())
}

// A supply is dragged to an outlet, and is plugged in there; undo of it.
func TestASupplyIsPluggedInByDragging(t *testing.T) {
	t.Parallel() // it has a store and a browser of its own
	s := open(t, apiary)
	require.NoError(t, chromedp.Do(s.ctx, chromedp.EmulateViewport(1280, 1400)))
	s.say("outlet garden 15a 120v guarded", "outlet")
	var garden string
	for _, o := range s.plan("midnight-apiary").Outlets() {
		if strings.Contains(strings.ToLower(o.Name), "garden") {
			garden = o.ID
		}
	}
	require.NotEmpty(t, garden)
	s.goTo(apiary + "/loom?prop=shelf&way=power")
	from := s.plan("midnight-apiary").Device("S1").Outlet
	require.NotEqual(t, garden, from)
	at := func(sel string) []float64 {
		return eval[[]float64](s, `(()=>{const e=document.querySelector('`+sel+`'); e.scrollIntoView({block:"center"}); const b=e.getBoundingClientRect(); return [b.left,b.top,b.width,b.height]})()`)
	}
	z := at(`[data-outlet="` + garden + `"]`)
	l := at(`a[data-load="device:S1"]`)
	z = eval[[]float64](s, `(()=>{const b=document.querySelector('[data-outlet="`+garden+`"]').getBoundingClientRect(); return [b.left,b.top,b.width,b.height]})()`)
	s.live(func() { s.dragAt(l[0]+l[2]/2, l[1]+l[3]/2, z[0]+z[2]*.6, z[1]+z[3]/2) })
	assert.Equal(t, garden, s.plan("midnight-apiary").Device("S1").Outlet)
	s.live(func() { s.click("[data-undo]") })
	assert.Equal(t, from, s.plan("midnight-apiary").Device("S1").Outlet)
}

// A finger drags an opening, and a solid once it is picked: before that it scrolls.
func TestAFingerDrags(t *testing.T) {
	t.Parallel() // it has a store and a browser of its own
	s := open(t, apiary+"/bench?prop=riser&way=parts&sel=part:riser-box/front")
	require.NoError(t, chromedp.Do(s.ctx, chromedp.EmulateViewport(390, 844, chromedp.EmulateTouch)))
	swipe := func(sel string, dx, dy float64) {
		at := eval[[]float64](s, fmt.Sprintf(`(()=>{const e=document.querySelector(%q); e.scrollIntoView({block:"center"});
			const b=e.getBoundingClientRect(); return [b.left+b.width*.3,b.top+b.height*.7]})()`, sel))
		time.Sleep(300 * time.Millisecond)
		touch := func(kind input.DispatchTouchEventType, points ...*input.TouchPoint) {
			_, err := chromedp.Call(s.ctx, input.DispatchTouchEvent,
				input.DispatchTouchEventParams{Type: kind, TouchPoints: append([]*input.TouchPoint{}, points...)})
			require.NoError(t, err)
		}
		touch(input.DispatchTouchEventTypeTouchStart, &input.TouchPoint{X: at[0], Y: at[1]})
		for k := 1.0; k <= 4; k++ {
			touch(input.DispatchTouchEventTypeTouchMove, &input.TouchPoint{X: at[0] + dx*k/4, Y: at[1] + dy*k/4})
		}
		touch(input.DispatchTouchEventTypeTouchEnd)
	}
	y := func() float64 { return s.plan("midnight-apiary").Solid("riser-box").Openings[0].Y.Value() }
	was := y()
	s.live(func() { swipe(`[data-opening="0"] .touch`, 0, -30) })
	assert.Greater(t, y(), was+25)

	// the handles of its sizes are drags of their own: on a tablet there is room beside them
	require.NoError(t, chromedp.Do(s.ctx, chromedp.EmulateViewport(1024, 1366, chromedp.EmulateTouch)))
	s.goTo(apiary + "/bench?prop=riser&way=whole")
	x := func() float64 { return s.plan("midnight-apiary").Solid("riser-box").X.Value() }
	stood := x()
	swipe(`svg.front [data-solid="riser-box"]`, 70, -30)
	time.Sleep(500 * time.Millisecond)
	assert.Equal(t, stood, x(), "it is not picked")
	s.goTo(apiary + "/bench?prop=riser&way=whole&sel=solid:riser-box")
	s.live(func() { swipe(`svg.front [data-solid="riser-box"]`, 70, -30) })
	assert.Greater(t, x(), stood+100)
}
