// Package shell is what the rooms of the site share: the page around what a place shows, tickets,
// snags, the quick line, edits and their refusals, plans worked out and kept.
package shell

import (
	"bytes"
	"context"
	"errors"
	"html/template"
	"io"
	"log/slog"
	"net"
	"net/http"
	"net/url"
	"runtime"
	"strings"
	"sync/atomic"
	"time"

	"zapbarn/core/memo"
	"zapbarn/core/plan"
	"zapbarn/core/stock"
	"zapbarn/core/work"
	"zapbarn/formats"
	"zapbarn/store"

	"github.com/gin-contrib/requestid"
	"github.com/gin-contrib/secure"
	"github.com/gin-gonic/gin"
	"golang.org/x/sync/singleflight"
)

// Site serves one store.
type Site struct {
	Store  *store.Store
	Lib    *stock.Library
	Now    func() time.Time
	Places PlacesOf
	Assets *Assets
	Did    did

	WorkTime time.Duration // how long working out one plan may take
	MendTime time.Duration // how long a page may try mends when it is asked for them
	First    time.Duration // how long before it answers
	Patience time.Duration // how long the newest state of a page is waited for

	token       string // that our forms bear
	pages       *template.Template
	works       *works
	held        *memo.Memo[pageOf, *rendering]
	renders     singleflight.Group
	RenderSlots chan struct{}
	search      searches
}

// did counts what the server worked out since it began.
type did struct{ Solved, Rendered atomic.Int64 }

// New makes a site of the shell and what rooms bring; now tells the date that ages are judged
// by. Its Places are still to be given. It errs where the store does, or a template is wrong.
func New(s *store.Store, now func() time.Time, rooms ...Brings) (*Site, error) {
	secret, err := s.Secret(context.Background())
	if err != nil {
		return nil, err
	}
	assets, err := newAssets(rooms)
	if err != nil {
		return nil, err
	}
	token := formToken(secret)
	pages, err := assets.parse(token, rooms)
	if err != nil {
		return nil, err
	}
	return &Site{
		Store:       s,
		Lib:         s.Shop(),
		Now:         now,
		Assets:      assets,
		token:       token,
		pages:       pages,
		works:       newWorks(),
		held:        newPages(),
		search:      searches{of: map[string]*running{}, most: 2},
		WorkTime:    workTime,
		MendTime:    mendTime,
		First:       firstMends,
		Patience:    patience,
		RenderSlots: make(chan struct{}, max(2, runtime.GOMAXPROCS(0))),
	}, nil
}

// LocalOnly answers only to loopback names, so that no other site's name can
// be pointed here.
func LocalOnly(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		host := r.Host
		if h, _, err := net.SplitHostPort(host); err == nil {
			host = h
		}
		if ip := net.ParseIP(strings.Trim(host, "[]")); host != "localhost" && (ip == nil || !ip.IsLoopback()) {
			http.Error(w, "This barn answers on localhost only.", http.StatusMisdirectedRequest)
			return
		}
		next.ServeHTTP(w, r)
	})
}

// Secure sets what a browser may do with our pages: scripts, styles and pictures from here alone,
// in no frame.
var Secure = secure.New(secure.Config{
	FrameDeny:          true,
	ContentTypeNosniff: true,
	ReferrerPolicy:     "same-origin",
	ContentSecurityPolicy: "default-src 'none'; script-src 'self'; style-src 'self'; img-src 'self' data:; " +
		"font-src 'self'; connect-src 'self'; form-action 'self'; frame-ancestors 'none'; base-uri 'none'",
})

// Bounded lets no answer be kept that does not say so, and no request be larger than what its
// address takes.
func Bounded(c *gin.Context) {
	c.Header("Cache-Control", "no-store")
	most := int64(plan.MaxFile)
	switch path := c.Request.URL.Path; {
	case strings.HasSuffix(path, "/clip"):
		most = formats.MostSound
	case path == "/import":
		most = store.MaxDisplayFile
	}
	c.Request.Body = http.MaxBytesReader(c.Writer, c.Request.Body, most+beside)
	c.Next()
}

// Show answers with a template's page; an error of the template goes to the log, and a plain
// page says so.
func (s *Site) Show(c *gin.Context, code int, name string, data any) {
	var b bytes.Buffer
	if err := s.pages.ExecuteTemplate(&b, name, data); err != nil {
		s.Fail(c, err)
		return
	}
	c.Data(code, "text/html; charset=utf-8", b.Bytes())
}

// Write writes a template.
func (s *Site) Write(out io.Writer, name string, data any) error {
	return s.pages.ExecuteTemplate(out, name, data)
}

// Trouble is a plain page that says what is wrong and what to do.
func (s *Site) Trouble(c *gin.Context, code int, title, what string) {
	s.Plainly(c, code, title, what, Back{"/", "Displays"})
}

// Back is the way on from a page that only says something.
type Back struct{ Href, Text string }

// Plainly is a page that only says something, with a way on from it.
func (s *Site) Plainly(c *gin.Context, code int, title, what string, to Back) {
	c.Status(code)
	c.Header("Content-Type", "text/html; charset=utf-8")
	if err := s.pages.ExecuteTemplate(c.Writer, "trouble.html", map[string]any{"Title": title, "What": what,
		"Theme": ThemeOf(c), "Back": to}); err != nil {
		slog.Error("render", "err", err)
	}
}

// Fail answers an error that is not about a field. What a database says goes
// to the log, never to a person.
func (s *Site) Fail(c *gin.Context, err error) {
	heavy, isHeavy := errors.AsType[*work.TooHeavy](err)
	switch {
	case c.Request.Context().Err() != nil:
		c.Status(statusGone)
	case errors.Is(err, errNoPlace):
		s.Trouble(c, http.StatusNotFound, "There is nothing here", "Go back to the displays.")
	case errors.Is(err, store.ErrNone):
		s.Trouble(
			c,
			http.StatusNotFound,
			"There is no such display",
			"It may have been taken away. Go back to the displays.",
		)
	case errors.Is(err, store.ErrFull):
		logFailed(c, err)
		s.Trouble(c, http.StatusInsufficientStorage, "The disk is full",
			"The database has no room left to write. Free some room on its disk, then send it once more: what you entered "+
				"is still in its place, and what was saved is safe.")
	case errors.Is(err, store.ErrDown):
		logFailed(c, err)
		s.Trouble(
			c,
			http.StatusServiceUnavailable,
			"The database does not answer",
			"Start it again with make demo. What you entered is still in its place: send it once more when the database is "+
				"back.",
		)
	case isHeavy:
		s.plain(c, heavy)
	default:
		logFailed(c, err)
		s.broken(c)
	}
}

// logFailed writes to the log why a request failed, with what people are not told.
// What ends because whoever asked has gone is no fault.
func logFailed(c *gin.Context, err error) {
	if c.Request.Context().Err() != nil {
		return
	}
	slog.Error("request", "request", requestid.Get(c), "path", c.Request.URL.Path, "err", store.Cause(err))
}

// statusGone is noted where whoever asked has gone; nobody reads it.
const statusGone = 499

// told is fail for scripts: the same as JSON.
func (s *Site) Answered(c *gin.Context, err error) {
	code, text := http.StatusInternalServerError, "something broke here; in the log it is request "+requestid.Get(c)
	if heavy, ok := errors.AsType[*work.TooHeavy](err); ok {
		code, text = http.StatusUnprocessableEntity, heavy.Error()
	}
	switch {
	case errors.Is(err, store.ErrNone):
		code, text = http.StatusNotFound, "there is no such display"
	case errors.Is(err, store.ErrFull):
		code, text = http.StatusInsufficientStorage, err.Error()
	case errors.Is(err, store.ErrDown):
		code, text = http.StatusServiceUnavailable, "the database does not answer"
	}
	if code >= http.StatusInternalServerError {
		logFailed(c, err)
	}
	c.JSON(code, gin.H{"error": text})
}

func ThemeOf(c *gin.Context) string {
	if v, err := c.Cookie("theme"); err == nil && v == "dark" {
		return "dark"
	}
	return "light"
}

func Theme(c *gin.Context) {
	next := "dark"
	if ThemeOf(c) == "dark" {
		next = "light"
	}
	c.SetSameSite(http.SameSiteStrictMode)
	c.SetCookie("theme", next, 365*86400, "/", "", false, true)
	c.Redirect(http.StatusSeeOther, Local(c.PostForm("back")))
}

// whoOf is the name this browser last gave, for readings, waivers and drills.
func whoOf(c *gin.Context) string {
	v, err := c.Cookie("who")
	if err != nil || len(v) > 40 {
		return ""
	}
	return v
}

// SayWho is the name a form gives, kept for the next; without one the last.
func SayWho(c *gin.Context, field string) string {
	who := strings.TrimSpace(c.PostForm(field))
	if who == "" {
		return whoOf(c)
	}
	if len(who) <= 40 && who != whoOf(c) {
		c.SetSameSite(http.SameSiteStrictMode)
		c.SetCookie("who", who, 365*86400, "/", "", false, true)
	}
	return who
}

// Local keeps a redirect inside this site.
func Local(back string) string {
	u, err := url.Parse(back)
	if err != nil || u.Host != "" || u.Scheme != "" || !strings.HasPrefix(u.Path, "/") ||
		strings.HasPrefix(back, "//") ||
		strings.Contains(back, "\\") {
		return "/"
	}
	return back
}
