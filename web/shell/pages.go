package shell

import (
	"bytes"
	"compress/gzip"
	"context"
	"fmt"
	"io"
	"net/http"
	"net/url"
	"strconv"
	"strings"
	"sync"
	"time"

	"zapbarn/core/memo"
	"zapbarn/store"

	"github.com/gin-gonic/gin"
)

// pageOf names a page as one person sees it, whatever state its plan is in.
type pageOf struct {
	plan, uri, theme, who string
	tour                  int
	steps                 store.Steps // what undo and redo of whoever asks would do
}

// rendering is a page as it was rendered last: each page is rendered once a state of its plan,
// whoever asks, and while that is under way the one before it is shown with a mark.
type rendering struct {
	at      revision
	tried   int    // of the plan's snags, those whose mends had been tried
	untried int    // of the page's own snags, those whose mends had not
	clock   string // the minute, of a page that tells the time
	made    time.Time
	page    packed
	behind  func() packed // the same, with what is said of its age
	code    int
	keep    bool
}

// patience is how long a page that must be worked out is waited for before the one before it
// is shown; mostBehind how old that may be.
const patience, mostBehind = 120 * time.Millisecond, 5 * time.Second

// mendsApart is how far apart a page is rendered anew for mends that were tried meanwhile.
const mendsApart = time.Second

// renderTime is how long rendering a page may take once its plan is worked out.
const renderTime = 20 * time.Second

// behindMark stands in the page where it is said that it is not of the newest state.
const behindMark = "<!--behind-->"

const behindSays = `<p class="behind" data-behind role="status">Working out the last edit; this is from just before it.</p>`

// packed is a page, compressed once.
type packed []byte

// unpacked is the page itself.
func (p packed) unpacked() []byte {
	z, err := gzip.NewReader(bytes.NewReader(p))
	if err != nil {
		return nil
	}
	page, _ := io.ReadAll(z) // it was packed here
	return page
}

// marked is the page with what is said of its age, where that belongs.
func (p packed) marked() packed {
	return Pack(bytes.Replace(p.unpacked(), []byte(behindMark), []byte(behindSays), 1))
}

// newPages keeps the newest rendering of each page.
func newPages() *memo.Memo[pageOf, *rendering] {
	return memo.New[pageOf](pageBytes, func(p *rendering) int64 { return 2*int64(len(p.page)) + 500 })
}

// packers are kept: each holds most of a megabyte. Their level takes half the time
// of the usual one, for a tenth more to send, and that over loopback.
var packers = sync.Pool{New: func() any {
	z, _ := gzip.NewWriterLevel(nil, 2)
	return z
}}

func Pack(page []byte) packed {
	var b bytes.Buffer
	z, _ := packers.Get().(*gzip.Writer)
	z.Reset(&b)
	_, _ = z.Write(page) // to memory: cannot fail
	_ = z.Close()
	packers.Put(z)
	return b.Bytes()
}

// SendPage answers with a packed page, unpacked for who cannot do that.
func SendPage(c *gin.Context, code int, p packed) {
	h := c.Writer.Header()
	h.Set("Content-Type", "text/html; charset=utf-8")
	h.Add("Vary", "Accept-Encoding, Cookie")
	if strings.Contains(c.GetHeader("Accept-Encoding"), "gzip") {
		h.Set("Content-Encoding", "gzip")
		h.Set("Content-Length", strconv.Itoa(len(p)))
		c.Status(code)
		_, _ = c.Writer.Write(p)
		return
	}
	c.Status(code)
	_, _ = c.Writer.Write(p.unpacked())
}

// get answers a page that was asked for: as it is kept where that is of the newest state,
// else as it is rendered now, once for all who ask; where that takes long, as it was just
// before, with a mark.
func (s *Site) get(c *gin.Context, place, id string, u *url.URL) {
	m, err := s.at(c.Request.Context(), id)
	if err != nil {
		s.Fail(c, err)
		return
	}
	steps, err := s.Store.Steps(c.Request.Context(), id, Editor(c))
	if err != nil {
		s.Fail(c, err)
		return
	}
	u, all := asksMends(u)
	of := pageOf{id, u.RequestURI(), ThemeOf(c), whoOf(c), 0, steps}
	if step := tourOf(c, id); step != nil {
		of.tour = step.N
	}
	last, ok := s.held.Look(of)
	if ok && s.current(last, m, all) {
		SendPage(c, last.code, last.page)
		return
	}
	key := fmt.Sprint(of, m, all)
	asked := c.Copy()
	rendered := s.renders.DoChan(key, func() (any, error) {
		ctx, cancel := context.WithTimeout(context.WithoutCancel(asked.Request.Context()),
			s.WorkTime+s.MendTime+renderTime)
		defer cancel()
		asked.Request = asked.Request.WithContext(ctx)
		return s.renderOnce(asked, place, id, u, of, all)
	})
	waits := time.NewTimer(s.Patience)
	defer waits.Stop()
	late := waits.C
	if all || !ok || !last.may(c, m, s.Now()) {
		late = nil // there is none to show meanwhile
	}
	select {
	case r := <-rendered:
		if r.Err != nil {
			s.Fail(c, r.Err)
			return
		}
		now := r.Val.(*rendering)
		SendPage(c, now.code, now.page)
	case <-late:
		if last.at == m { // of the clock, or of mends that were tried since
			SendPage(c, last.code, last.page)
			return
		}
		SendPage(c, last.code, last.behind())
	case <-c.Request.Context().Done():
		c.Status(statusGone)
	}
}

// renderOnce renders a page and keeps it.
func (s *Site) renderOnce(c *gin.Context, place, id string, u *url.URL, of pageOf, all bool) (out *rendering,
	err error) {
	defer func() {
		if r := recover(); r != nil {
			err = logged(r, id)
		}
	}()
	select {
	case s.RenderSlots <- struct{}{}:
		defer func() { <-s.RenderSlots }()
	case <-c.Request.Context().Done():
		return nil, c.Request.Context().Err()
	}
	s.Did.Rendered.Add(1)
	out, err = s.rendered(c, place, id, u, Over{}, all)
	if err == nil && out.keep {
		if before, ok := s.held.Look(of); !ok || before.at.Version.Made != out.at.Version.Made ||
			before.at.Version.Rev <= out.at.Version.Rev {
			s.held.Keep(of, out)
		}
	}
	return out, err
}

// stands reports whether a page is of the newest state: of the plan, of the mends that were
// tried, and of the clock where it tells that.
func (s *Site) current(p *rendering, m revision, all bool) bool {
	return p.at == m && (p.clock == "" || p.clock == s.minute()) &&
		(p.untried == 0 || !all && (p.tried == s.triedAt(m) || s.Now().Sub(p.made) < mendsApart))
}

func (s *Site) minute() string { return s.Now().Format("15:04") }

// triedAt is of how many snags of a plan's state the mends were tried.
func (s *Site) triedAt(m revision) int {
	if got, ok := s.works.look(m); ok && got.mends != nil {
		return got.mends.Tried()
	}
	return 0
}

// may reports whether a page may be shown to whoever asks, though it is not of the newest
// state: it is hardly old, of the same plan and day, and whoever asks has not edited since.
func (p *rendering) may(c *gin.Context, m revision, now time.Time) bool {
	if p.at.Version.Made != m.Version.Made || p.at.Day != m.Day || now.Sub(p.made) > mostBehind {
		return false
	}
	made, rev, ok := editedOf(c)
	return !ok || made == p.at.Version.Made && rev <= p.at.Version.Rev
}

// Edited notes in the browser up to which edit it has to be shown what was done.
func (s *Site) Edited(c *gin.Context, id string) {
	v, err := s.Store.Version(c.Request.Context(), id)
	if err != nil {
		return // it is shown what is kept, at worst
	}
	c.SetSameSite(http.SameSiteStrictMode)
	c.SetCookie("edited", fmt.Sprintf("%d.%d", v.Made, v.Rev), 60, "/p/"+id, "", false, true)
}

// editedOf is the state that this browser's last edit left its plan in.
func editedOf(c *gin.Context) (made, rev int64, ok bool) {
	v, err := c.Cookie("edited")
	if err != nil {
		return 0, 0, false
	}
	a, b, _ := strings.Cut(v, ".")
	made, e1 := strconv.ParseInt(a, 10, 64)
	rev, e2 := strconv.ParseInt(b, 10, 64)
	return made, rev, e1 == nil && e2 == nil
}
