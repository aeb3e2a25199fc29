package e2e

import (
	"fmt"
	"os"
	"path/filepath"
	"testing"
	"time"

	"zapbarn/core/cutting"
	"zapbarn/core/shorthand"
	"zapbarn/core/work"
	"zapbarn/testkit"
	"zapbarn/testkit/shop"

	"github.com/chromedp/cdproto/input"
	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func (s *site) sheets(id, stockID string) *cutting.Sheets {
	return work.Do(s.plan(id), shop.Kept, today).SheetsOf(stockID)
}

// dragBy drags an element by so many pixels, with the mouse.
func (s *site) dragBy(sel string, dx, dy float64) {
	s.t.Helper()
	at := eval[[]float64](
		s,
		fmt.Sprintf(
			`(()=>{const e=document.querySelector(%q); e.scrollIntoView({block:"center"}); const b=(e.querySelector("polygon")||e).getBoundingClientRect(); return [b.left+b.width/2,b.top+b.height/2]})()`,
			sel,
		),
	)
	mouse := func(kind input.DispatchMouseEventType, x, y float64) chromedp.Action[chromedp.Void] {
		return chromedp.MouseEvent(kind, x, y, chromedp.ButtonLeft, chromedp.ClickCount(1))
	}
	const moved = input.DispatchMouseEventTypeMouseMoved
	require.NoError(
		s.t,
		chromedp.Do(
			s.ctx,
			mouse(input.DispatchMouseEventTypeMousePressed, at[0], at[1]),
			mouse(moved, at[0]+dx/2, at[1]+dy/2),
			mouse(moved, at[0]+dx, at[1]+dy),
			mouse(input.DispatchMouseEventTypeMouseReleased, at[0]+dx, at[1]+dy),
		),
	)
}

// A part is dragged on the sheet: it snaps, stays, and the rest is laid round it.
func TestDragAPartOnItsSheet(t *testing.T) {
	t.Parallel() // it has a store and a browser of its own
	s := open(t, apiary+"/bench?prop=riser&way=sheets")
	lid := func() (int, float64, float64, bool) {
		sh := s.sheets("midnight-apiary", "xps1")
		for i, one := range sh.Layout.Sheets {
			for _, q := range one.Placed {
				if sh.Pieces[q.Part].Ref == "riser-box/lid" {
					return i, q.X, q.Y, sh.Locked[q.Part]
				}
			}
		}
		t.Fatal("the lid is not laid")
		return 0, 0, 0, false
	}
	sheet, x, y, locked := lid()
	require.False(t, locked)
	sel := `a[data-key="part:riser-box/lid"]`
	s.live(func() { s.dragBy(sel, 30, -90) })
	n, x2, y2, locked := lid()
	assert.True(t, locked)
	assert.Equal(t, sheet, n)
	assert.Greater(t, y2-y, 250.0, "up the sheet")
	assert.NotEqual(t, x, x2)
	assert.Equal(t, 1, s.count(".nail"), "a nail holds it")
	assert.Equal(t, 0, s.count(".error"))

	// by keys: an inch up, a quarter turn, and loose again
	focus := func() {
		eval[bool](s, fmt.Sprintf(`(()=>{document.querySelector(%q).focus(); return true})()`, sel))
	}
	focus()
	s.live(func() { require.NoError(t, chromedp.Do(s.ctx, chromedp.KeyEvent("r"))) })
	assert.Equal(t, "true", eval[string](s, fmt.Sprintf(`document.querySelector(%q).dataset.turned`, sel)))
	assert.True(
		t,
		eval[bool](s, fmt.Sprintf(`document.activeElement===document.querySelector(%q)`, sel)),
		"the piece keeps the focus",
	)
	s.live(func() { require.NoError(t, chromedp.Do(s.ctx, chromedp.KeyEvent("l"))) })
	_, _, _, locked = lid()
	assert.False(t, locked)
	s.live(func() { s.clickText("Undo") })
	_, _, _, locked = lid()
	assert.True(t, locked, "undo brings it back")
	s.live(func() { s.clickText("Lay all afresh") })
	assert.Empty(t, s.plan("midnight-apiary").Layouts())
}

// The search goes on in view, can be stopped, and its layout is kept.
func TestSearchForATighterLayout(t *testing.T) {
	t.Parallel() // it has a store and a browser of its own
	s := open(t, apiary+"/bench?prop=riser&way=sheets")
	s.clickText("Look for a tighter layout")
	s.wait(`document.querySelector(".found svg") && document.querySelector(".found progress").value>0.05`)
	assert.Contains(t, s.text(".found"), "% used")
	s.clickText("Stop here")
	time.Sleep(300 * time.Millisecond)
	v := eval[float64](s, `document.querySelector(".found progress").value`)
	time.Sleep(500 * time.Millisecond)
	assert.Equal(t, v, eval[float64](s, `document.querySelector(".found progress").value`), "it has stopped")
	s.live(func() { s.clickText("Keep this layout") })
	sh := s.sheets("midnight-apiary", "xps1")
	assert.True(t, sh.Kept)
	assert.Contains(t, s.text(".stocks"), "Forget the kept layout")
	s.live(func() { s.clickText("Forget the kept layout") })
	assert.Empty(t, s.plan("midnight-apiary").Layouts())
}

// A sheet is cut: its offcuts come on the shelf and are used first.
func TestCutASheetAndUseItsOffcuts(t *testing.T) {
	t.Parallel() // it has a store and a browser of its own
	s := open(t, apiary+"/bench?prop=riser&way=sheets")
	s.live(func() { s.clickText("is cut") })
	p := s.plan("midnight-apiary")
	require.NotEmpty(t, p.Offcuts())
	assert.Contains(t, s.text(".shelf"), `48" x 11 1/8"`)
	assert.Contains(t, s.text("svg.sheets"), "CUT")
	s.live(func() { s.click(".shelf a.item") })
	s.live(func() { s.set("f.label", "behind the door") })
	assert.Contains(t, s.text(".shelf"), "behind the door")
	s.say("offcut eva5 20 x 20 in", `on the shelf: EVA foam 5 mm, 20" x 20"`)
	s.goTo(apiary + "/bench?prop=keeper&way=sheets")
	assert.Contains(t, s.text("svg.sheets"), `offcut 20" x 20"`, "the hat is cut from it")
}

// Silhouettes and meshes come in from files.
func TestBringInASilhouetteAndAMesh(t *testing.T) {
	t.Parallel() // it has a store and a browser of its own
	dir := t.TempDir()
	svg := filepath.Join(dir, "crow-on-post.svg")
	require.NoError(
		t,
		os.WriteFile(
			svg,
			[]byte(
				`<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 100 200"><path d="M40 200V120C20 110 10 80 30 60C40 40 60 40 70 60L95 65L72 75C80 100 70 115 60 120V200Z"/></svg>`,
			),
			0o600,
		),
	)
	s := open(t, apiary+"/bench?prop=sunflowers&way=whole")
	send := func(file string, fields map[string]string) {
		eval[bool](s, `(()=>{document.querySelector(".bring").open=true; return true})()`)
		require.NoError(t, chromedp.Do(s.ctx, chromedp.SetUploadFiles(`.bring input[type=file]`, []string{file})))
		for k, v := range fields {
			eval[bool](
				s,
				fmt.Sprintf(
					`(()=>{const e=document.querySelector('.bring [name=%q]'); if(e.type==="checkbox") e.checked=true; else e.value=%q; return true})()`,
					k,
					v,
				),
			)
		}
		s.clickText("Bring it in")
		s.wait(`document.readyState==="complete"`)
	}
	send(svg, map[string]string{"size": "60 in", "stock": "ply1/4", "pair": "on"})
	s.wait(
		`document.querySelector(".ticket h2") && document.querySelector(".ticket h2").textContent==="Crow on post"`,
	)
	assert.Equal(t, "60 in", s.value("f.h"))
	assert.Contains(t, s.text(".ticket"), "Shape, left")
	assert.Contains(t, s.text(".ticket"), "Shape, right")
	s.goTo(apiary + "/bench?prop=sunflowers&sel=part:sunflowers-crow-on-post/shape-left&way=parts")
	assert.Contains(t, s.text("svg.parts"), `60"`)

	// a closed mesh: a pyramid
	stl := filepath.Join(dir, "spire.stl")
	tri := func(a, b, c string) string {
		return "facet normal 0 0 0\nouter loop\nvertex " + a + "\nvertex " + b + "\nvertex " + c + "\nendloop\nendfacet\n"
	}
	a, b, c, d, top := "0 0 0", "10 0 0", "10 10 0", "0 10 0", "5 5 20"
	solid := tri(a, c, b) + tri(a, d, c) + tri(a, b, top) + tri(b, c, top) + tri(c, d, top) + tri(d, a, top)
	require.NoError(t, os.WriteFile(stl, []byte("solid spire\n"+solid+"endsolid\n"), 0o600))
	s.goTo(apiary + "/bench?prop=gate&way=whole")
	send(stl, map[string]string{"size": "24 in", "stock": "xps2"})
	s.wait(`document.querySelector(".ticket h2") && document.querySelector(".ticket h2").textContent==="Spire"`)
	assert.Contains(t, s.text(".ticket .r"), "Slices 12")

	// one with a hole is refused in words, and nothing is lost
	require.NoError(t, os.WriteFile(stl, []byte("solid spire\n"+tri(a, b, top)+"endsolid\n"), 0o600))
	s.goTo(apiary + "/bench?prop=gate&way=whole")
	send(stl, map[string]string{"size": "24 in", "stock": "xps2"})
	s.wait(`document.querySelector(".error")`)
	assert.Contains(t, s.text(".error"), "holes: 3 edges have a face on one side only")
	require.NoError(t, os.WriteFile(svg, []byte("<svg></svg>"), 0o600))
	s.goTo(apiary + "/bench?prop=gate&way=whole")
	send(svg, map[string]string{"size": "24 in"})
	s.wait(`document.querySelector(".error")`)
	assert.Contains(t, s.text(".error"), "no closed outline")
}

// A solid is added by pressing its drawing, and its sizes are pulled.
func TestAddASolidAndPullItsSizes(t *testing.T) {
	t.Parallel() // it has a store and a browser of its own
	s := open(t, apiary+"/bench?prop=bee&way=whole")
	s.live(func() { s.click(`.palette button[value^="tower"]`) })
	p := s.plan("midnight-apiary")
	tower := p.Solids()[len(p.Solids())-1]
	require.Equal(t, "tower", tower.Kind)
	assert.Equal(t, 3, s.count("svg.front .grip"), "across below, across above, height")
	drag := func(field string, dx, dy float64) {
		at := eval[[]float64](
			s,
			fmt.Sprintf(
				`(()=>{const b=document.querySelector('[data-size="f.%s"]').getBoundingClientRect(); return [b.left+b.width/2,b.top+b.height/2]})()`,
				field,
			),
		)
		mouse := func(kind input.DispatchMouseEventType, x, y float64) chromedp.Action[chromedp.Void] {
			return chromedp.MouseEvent(kind, x, y, chromedp.ButtonLeft, chromedp.ClickCount(1))
		}
		require.NoError(
			t,
			chromedp.Do(
				s.ctx,
				mouse(input.DispatchMouseEventTypeMousePressed, at[0], at[1]),
				mouse(input.DispatchMouseEventTypeMouseMoved, at[0]+dx, at[1]+dy),
				mouse(input.DispatchMouseEventTypeMouseReleased, at[0]+dx, at[1]+dy),
			),
		)
	}
	s.live(func() { drag("h", 0, -40) })
	p = s.plan("midnight-apiary")
	assert.Greater(t, p.Solid(tower.ID).Length("h").Value(), tower.Length("h").Value()+50)
	assert.Equal(t, p.Solid(tower.ID).Length("h").String(), s.value("f.h"), "the ticket says the same")
	s.live(func() { drag("low", 15, 0) })
	assert.Greater(t, s.plan("midnight-apiary").Solid(tower.ID).Length("low").Value(), tower.Length("low").Value()+20)
	s.live(func() { s.clickText("Undo") })
	assert.Equal(t, tower.Length("low").Value(), s.plan("midnight-apiary").Solid(tower.ID).Length("low").Value())
	// every drawing of the palette makes a solid: a quarter of them here
	n := s.count(".palette button")
	s.goTo(apiary + "/bench?prop=riser&way=whole")
	pressed := 0
	for i := range n {
		if !testkit.Slow() && i%4 != 0 {
			continue // all of them in make slow
		}
		s.live(func() { s.click(fmt.Sprintf(`.palette button:nth-of-type(%d)`, i+1)) })
		assert.Equal(t, 0, s.count(".error, .got.bad"), i)
		pressed++
	}
	assert.Len(t, s.plan("midnight-apiary").Solids(), len(p.Solids())+pressed)
	s.goTo("/p/thistledown-porch/bench?way=whole")
	says := eval[[]string](s, `[...document.querySelectorAll(".palette button")].map(b=>b.value)`)
	require.Len(t, says, n)
	porch := s.plan("thistledown-porch")
	for _, line := range says {
		r, err := shorthand.Read(porch, shop.Kept, porch.Props()[0].ID, line)
		require.NoError(t, err, "in millimetres too: %s", line)
		q, err := porch.Apply(r.Edit)
		require.NoError(t, err, line)
		assert.Len(t, q.Solids(), len(porch.Solids())+1, line)
	}
}
