// Package web serves the barn: pages rendered on the server, one place a file.
// Handlers read the request, let core decide, and render; no handler writes a
// row by itself.
package web

import (
	"embed"
	"errors"
	"html/template"
	"log/slog"
	"net"
	"net/http"
	"net/url"
	"strings"
	"sync/atomic"
	"time"

	"zapbarn/core/memo"
	"zapbarn/core/plan"
	"zapbarn/core/stock"
	"zapbarn/core/work"
	"zapbarn/formats"
	"zapbarn/store"

	"github.com/gin-gonic/gin"
	"golang.org/x/sync/singleflight"
)

//go:embed templates static
var files embed.FS

// Server serves one store.
type Server struct {
	store       *store.Store
	token       string // that our forms bear
	lib         *stock.Library
	now         func() time.Time
	places      placesOf
	pages       *template.Template
	works       *works
	held        *memo.Memo[pageOf, *rendering]
	renders     singleflight.Group
	renderSlots chan struct{}
	did         did
	search      searches

	workTime time.Duration // how long working out one plan may take
	mendTime time.Duration // how long a page may try mends when it is asked for them
	first    time.Duration // how long before it answers
	patience time.Duration // how long the newest state of a page is waited for
}

// did counts what the server worked out since it began.
type did struct{ solved, rendered atomic.Int64 }

// parsePages reads the templates.
func parsePages(token string) (*template.Template, error) {
	forms := template.FuncMap{"token": func() string { return token }}
	return template.New("").Funcs(funcs).Funcs(forms).ParseFS(files, "templates/*.html", "templates/*/*.html")
}

// localOnly answers only to loopback names, so that no other site's name can
// be pointed here.
func localOnly(next http.Handler) http.Handler {
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

func secure(c *gin.Context) {
	h := c.Writer.Header()
	h.Set(
		"Content-Security-Policy",
		"default-src 'none'; script-src 'self'; style-src 'self'; img-src 'self' data:; font-src 'self'; connect-src "+
			"'self'; form-action 'self'; frame-ancestors 'none'; base-uri 'none'",
	)
	h.Set("X-Content-Type-Options", "nosniff")
	h.Set("Referrer-Policy", "same-origin")
	h.Set("Cache-Control", "no-store")
	most := int64(plan.MaxFile)
	switch path := c.Request.URL.Path; {
	case strings.HasSuffix(path, "/clip"):
		most = formats.MostSound
	case path == "/import":
		most = store.MaxDisplayFile
	}
	c.Request.Body = http.MaxBytesReader(c.Writer, c.Request.Body, most+1<<16)
	c.Next()
}

// trouble is a plain page that says what is wrong and what to do.
func (s *Server) trouble(c *gin.Context, code int, title, what string) {
	s.plainly(c, code, title, what, back{"/", "Displays"})
}

// back is the way on from a page that only says something.
type back struct{ Href, Text string }

// plainly is a page that only says something, with a way on from it.
func (s *Server) plainly(c *gin.Context, code int, title, what string, to back) {
	c.Status(code)
	c.Header("Content-Type", "text/html; charset=utf-8")
	if err := s.pages.ExecuteTemplate(c.Writer, "trouble.html", map[string]any{"Title": title, "What": what,
		"Theme": themeOf(c), "Back": to}); err != nil {
		slog.Error("render", "err", err)
	}
}

// fail answers an error that is not about a field. What a database says goes
// to the log, never to a person.
func (s *Server) fail(c *gin.Context, err error) {
	heavy, isHeavy := errors.AsType[*work.TooHeavy](err)
	switch {
	case c.Request.Context().Err() != nil:
		c.Status(statusGone)
	case errors.Is(err, errNoPlace):
		s.trouble(c, http.StatusNotFound, "There is nothing here", "Go back to the displays.")
	case errors.Is(err, store.ErrNone):
		s.trouble(
			c,
			http.StatusNotFound,
			"There is no such display",
			"It may have been taken away. Go back to the displays.",
		)
	case errors.Is(err, store.ErrFull):
		logFailed(c, err)
		s.trouble(c, http.StatusInsufficientStorage, "The disk is full",
			"The database has no room left to write. Free some room on its disk, then send it once more: what you entered "+
				"is still in its place, and what was saved is safe.")
	case errors.Is(err, store.ErrDown):
		logFailed(c, err)
		s.trouble(
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
	slog.Error("request", "request", c.GetString("request"), "path", c.Request.URL.Path, "err", store.Cause(err))
}

// statusGone is noted where whoever asked has gone; nobody reads it.
const statusGone = 499

// told is fail for scripts: the same as JSON.
func (s *Server) answered(c *gin.Context, err error) {
	code, text := http.StatusInternalServerError, "something broke here; in the log it is request "+c.GetString(
		"request",
	)
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

func themeOf(c *gin.Context) string {
	if v, err := c.Cookie("theme"); err == nil && v == "dark" {
		return "dark"
	}
	return "light"
}

func theme(c *gin.Context) {
	next := "dark"
	if themeOf(c) == "dark" {
		next = "light"
	}
	c.SetSameSite(http.SameSiteStrictMode)
	c.SetCookie("theme", next, 365*86400, "/", "", false, true)
	c.Redirect(http.StatusSeeOther, local(c.PostForm("back")))
}

// whoOf is the name this browser last gave, for readings, waivers and drills.
func whoOf(c *gin.Context) string {
	v, err := c.Cookie("who")
	if err != nil || len(v) > 40 {
		return ""
	}
	return v
}

// sayWho is the name a form gives, kept for the next; without one the last.
func sayWho(c *gin.Context, field string) string {
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

// local keeps a redirect inside this site.
func local(back string) string {
	u, err := url.Parse(back)
	if err != nil || u.Host != "" || u.Scheme != "" || !strings.HasPrefix(u.Path, "/") ||
		strings.HasPrefix(back, "//") ||
		strings.Contains(back, "\\") {
		return "/"
	}
	return back
}
