package e2e

import (
	"fmt"
	"image"
	"image/color"
	"image/png"
	"os"
	"path/filepath"
	"testing"

	"github.com/chromedp/cdproto/input"
	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// dragOn drags with the mouse between two places of the picture, in its own
// pixels.
func (s *site) dragOn(x1, y1, x2, y2 float64) {
	s.t.Helper()
	at := eval[[]float64](
		s,
		fmt.Sprintf(
			`(()=>{const v=document.querySelector("svg.picture"); v.scrollIntoView({block:"center"}); const m=v.getScreenCTM(); const p=new DOMPoint(%g,%g).matrixTransform(m), q=new DOMPoint(%g,%g).matrixTransform(m); return [p.x,p.y,q.x,q.y]})()`,
			x1,
			y1,
			x2,
			y2,
		),
	)
	s.dragAt(at[0], at[1], at[2], at[3])
}

// dragAt drags with the mouse between two places of the window.
func (s *site) dragAt(x1, y1, x2, y2 float64) {
	s.t.Helper()
	mouse := func(kind input.DispatchMouseEventType, x, y float64) chromedp.Action[chromedp.Void] {
		return chromedp.MouseEvent(kind, x, y, chromedp.ButtonLeft, chromedp.ClickCount(1))
	}
	const moved = input.DispatchMouseEventTypeMouseMoved
	require.NoError(
		s.t,
		chromedp.Do(
			s.ctx,
			mouse(input.DispatchMouseEventTypeMousePressed, x1, y1),
			mouse(moved, (x1+x2)/2, (y1+y2)/2),
			mouse(moved, x2, y2),
			mouse(input.DispatchMouseEventTypeMouseReleased, x2, y2),
		),
	)
}

// A reference picture comes in, is scaled by one known line, measured, and
// squared up by four corners.
func TestReferencePicture(t *testing.T) {
	t.Parallel() // it has a store and a browser of its own
	file := filepath.Join(t.TempDir(), "gate-post.png")
	img := image.NewRGBA(image.Rect(0, 0, 800, 600))
	for y := range 600 {
		for x := range 800 {
			c := color.RGBA{200, 190, 170, 255}
			if x >= 300 && x < 400 && y >= 100 && y < 500 { // a post of 100 x 400 pixels
				c = color.RGBA{90, 60, 40, 255}
			}
			img.SetRGBA(x, y, c)
		}
	}
	f, err := os.Create(file)
	require.NoError(t, err)
	require.NoError(t, png.Encode(f, img))
	require.NoError(t, f.Close())

	s := open(t, apiary+"/bench?prop=gate&way=picture")
	require.NoError(t, chromedp.Do(s.ctx, chromedp.SetUploadFiles(`.picbar input[type=file]`, []string{file})))
	s.clickText("Bring it in")
	s.wait(`document.querySelector("svg.picture [data-handle=A]")`)
	assert.Equal(t, "Gate post", s.text(".ticket h2"))
	a, b := s.plan("midnight-apiary").Pictures()[1].A, s.plan("midnight-apiary").Pictures()[1].B
	s.live(func() { s.dragOn(float64(a.X), float64(a.Y), 350, 500) })
	s.live(func() { s.dragOn(float64(b.X), float64(b.Y), 350, 100) })
	s.live(func() { s.set("f.known", "80 in") })
	pic := s.plan("midnight-apiary").Pictures()[1]
	assert.InDelta(t, 350, pic.A.X, 2)
	assert.InDelta(t, 100, pic.B.Y, 2)

	// the post is 20 in wide; its size goes into the quick line
	s.live(func() { s.clickText("Measure and compare") })
	assert.Equal(t, 1, s.count("svg.picture [data-ruler], svg.picture[data-ruler]"))
	per := eval[float64](s, `Number(document.querySelector("svg.picture").dataset.per)`)
	px := 20 * 25.4 / per
	s.dragOn(200, 60, 200+px, 60)
	assert.Equal(t, "20 in", s.text(".sizes li"))
	eval[bool](
		s,
		`(()=>{document.querySelector("#line").value="panel"; document.querySelector(".sizes button").click(); return true})()`,
	)
	assert.Equal(t, "panel 20 in", eval[string](s, `document.querySelector("#line").value`))
	eval[bool](s, `(()=>{document.querySelector(".sizes button").click(); return true})()`)
	assert.Equal(t, "panel 20 in x 20 in", eval[string](s, `document.querySelector("#line").value`))
	before := eval[string](s, `document.querySelector(".overlay").getAttribute("opacity")`)
	eval[bool](
		s,
		`(()=>{const e=document.querySelector("[data-fade]"); e.value=90; e.dispatchEvent(new Event("input",{bubbles:true})); return true})()`,
	)
	assert.NotEqual(
		t,
		before,
		eval[string](s, `document.querySelector(".overlay").getAttribute("opacity")`),
		"the slider blends picture and plan",
	)

	// squared up by four corners, moved by keys, and undone
	s.live(func() { s.clickText("Set the points") })
	s.live(func() { s.clickText("Square it up by four corners") })
	assert.Equal(t, 4, s.count("svg.picture [data-handle]"))
	was := s.plan("midnight-apiary").Pictures()[1].Corners[2]
	eval[bool](s, `(()=>{document.querySelector("[data-handle='3']").focus(); return true})()`)
	s.live(func() { require.NoError(t, chromedp.Do(s.ctx, chromedp.KeyEvent(kb.ArrowRight))) })
	assert.NotEqual(t, was, s.plan("midnight-apiary").Pictures()[1].Corners[2])
	s.live(func() { s.clickText("Undo") })
	assert.Equal(t, was, s.plan("midnight-apiary").Pictures()[1].Corners[2])

	// what is no picture is refused in words
	bad := filepath.Join(t.TempDir(), "x.png")
	require.NoError(t, os.WriteFile(bad, []byte("no picture"), 0o600))
	s.goTo(apiary + "/bench?prop=riser&way=picture")
	require.NoError(t, chromedp.Do(s.ctx, chromedp.SetUploadFiles(`.picbar input[type=file]`, []string{bad})))
	s.clickText("Bring it in")
	s.wait(`document.querySelector(".error")`)
	assert.Contains(t, s.text(".error"), "neither a JPEG nor a PNG")
}
