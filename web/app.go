// Package web serves the barn: pages rendered on the server, one place a file.
// Handlers read the request, let core decide, and render; no handler writes a
// row by itself.
package web

import (
	"context"
	"embed"
	"errors"
	"fmt"
	"html/template"
	"io/fs"
	"log/slog"
	"net"
	"net/http"
	"net/url"
	"reflect"
	"strings"
	"sync"
	"time"

	"github.com/gin-contrib/gzip"
	"github.com/gin-gonic/gin"
	"zapbarn/core/check"
	"zapbarn/core/plan"
	"zapbarn/core/stock"
	"zapbarn/store"
)

//go:embed templates static
var files embed.FS

// Server serves one store.
type Server struct {
	store *store.Store
	lib   *stock.Library
	now   func() time.Time
	pages *template.Template
	mu    sync.Mutex
	cache map[string]worked
}

// worked is a plan already worked out at a revision.
type worked struct {
	rev   int64
	day   string
	work  *plan.Work
	snags []check.Snag
}

// New makes a server; now tells the date that ages are judged by.
func New(s *store.Store, now func() time.Time) (*Server, error) {
	t, err := template.New("").Funcs(funcs).ParseFS(files, "templates/*.html")
	if err != nil {
		return nil, err
	}
	return &Server{store: s, lib: stock.Shop, now: now, pages: t, cache: map[string]worked{}}, nil
}

// Handler is the whole site.
func (s *Server) Handler() http.Handler {
	gin.SetMode(gin.ReleaseMode)
	r := gin.New()
	r.HandleMethodNotAllowed = true
	r.MaxMultipartMemory = plan.MaxFile
	r.Use(s.recover, secure, gzip.Gzip(gzip.DefaultCompression, gzip.WithExcludedPathsRegexs([]string{"^/p/[^/]+/search$"})))
	static, err := fs.Sub(files, "static")
	if err != nil {
		panic(err) // the folder is embedded
	}
	fileServer := http.StripPrefix("/static/", http.FileServerFS(static))
	r.GET("/static/*path", func(c *gin.Context) {
		c.Header("Cache-Control", "public, max-age=86400")
		fileServer.ServeHTTP(c.Writer, c.Request)
	})
	r.GET("/healthz", func(c *gin.Context) {
		if err := s.store.Ping(c); err != nil {
			c.String(http.StatusServiceUnavailable, "database down\n")
			return
		}
		c.String(http.StatusOK, "ok\n")
	})
	r.GET("/", s.displays)
	r.POST("/new", s.start)
	r.POST("/import", s.importPlan)
	r.GET("/calc", s.calculators)
	r.POST("/theme", theme)
	p := r.Group("/p/:plan")
	p.GET("", func(c *gin.Context) { s.place(c, "barn") })
	for _, place := range []string{"bench", "loom", "rehearsal", "walkdown"} {
		p.GET("/"+place, func(c *gin.Context) { s.place(c, place) })
	}
	p.GET("/working", s.working)
	p.GET("/read", s.read)
	p.GET("/trace", s.trace)
	p.GET("/board.svg", s.flat)
	p.GET("/board.dxf", s.flat)
	p.GET("/board.pdf", s.flat)
	p.GET("/mockup.svg", s.flat)
	p.GET("/mockup.dxf", s.flat)
	p.GET("/mockup.pdf", s.flat)
	for name := range downloads {
		p.GET("/"+name, s.file)
	}
	p.GET("/plan.json", s.export)
	p.GET("/part.svg", s.flat)
	p.GET("/part.dxf", s.flat)
	p.GET("/part.pdf", s.flat)
	p.GET("/sheet.svg", s.flat)
	p.GET("/sheet.dxf", s.flat)
	p.GET("/search", s.search)
	p.POST("/lay", s.lay)
	p.GET("/slide", s.sliding)
	p.POST("/slide", s.slide)
	p.POST("/keep", s.keep)
	p.POST("/bring", s.bringIn)
	p.GET("/picture", s.pictureFile)
	p.POST("/picture", s.addPicture)
	p.POST("/point", s.point)
	p.POST("/quick", s.quick)
	p.POST("/edit", s.edit)
	p.POST("/mend", s.mend)
	p.POST("/waive", s.waive)
	p.POST("/remove", s.remove)
	p.POST("/reading", s.reading)
	p.POST("/drill", s.answer)
	p.POST("/undo", s.undo)
	p.POST("/redo", s.redo)
	p.POST("/delete", s.deletePlan)
	r.NoRoute(func(c *gin.Context) {
		s.trouble(c, http.StatusNotFound, "There is nothing here", "The address "+c.Request.URL.Path+" leads nowhere. Go back to the displays.")
	})
	protect := http.NewCrossOriginProtection()
	protect.SetDenyHandler(http.HandlerFunc(func(w http.ResponseWriter, _ *http.Request) {
		http.Error(w, "This form was sent from another site and was refused.", http.StatusForbidden)
	}))
	return protect.Handler(localOnly(r))
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
	h.Set("Content-Security-Policy", "default-src 'none'; script-src 'self'; style-src 'self'; img-src 'self' data:; font-src 'self'; connect-src 'self'; form-action 'self'; frame-ancestors 'none'; base-uri 'none'")
	h.Set("X-Content-Type-Options", "nosniff")
	h.Set("Referrer-Policy", "same-origin")
	h.Set("Cache-Control", "no-store")
	c.Request.Body = http.MaxBytesReader(c.Writer, c.Request.Body, plan.MaxFile+1<<16)
	c.Next()
}

// recover turns a panic into a plain page; the trace goes to the log only.
func (s *Server) recover(c *gin.Context) {
	defer func() {
		if r := recover(); r != nil {
			slog.Error("panic", "path", c.Request.URL.Path, "what", fmt.Sprint(r))
			s.trouble(c, http.StatusInternalServerError, "Something broke here", "This is our fault, not yours. What was saved is safe; go back and try again.")
			c.Abort()
		}
	}()
	c.Next()
}

// trouble is a plain page that says what is wrong and what to do.
func (s *Server) trouble(c *gin.Context, code int, title, what string) {
	c.Status(code)
	c.Header("Content-Type", "text/html; charset=utf-8")
	if err := s.pages.ExecuteTemplate(c.Writer, "trouble.html", map[string]any{"Title": title, "What": what, "Theme": themeOf(c)}); err != nil {
		slog.Error("render", "err", err)
	}
}

// fail answers an error that is not about a field.
func (s *Server) fail(c *gin.Context, err error) {
	switch {
	case errors.Is(err, store.ErrNone):
		s.trouble(c, http.StatusNotFound, "There is no such display", "It may have been taken away. Go back to the displays.")
	case errors.Is(err, store.ErrDown):
		s.trouble(c, http.StatusServiceUnavailable, "The database does not answer", "Start it again with make demo. What you entered is still in the form: go back in your browser and send it once more.")
	default:
		slog.Error("request", "path", c.Request.URL.Path, "err", err)
		s.trouble(c, http.StatusInternalServerError, "Something broke here", "This is our fault, not yours. What was saved is safe; go back and try again.")
	}
}

// work is the plan worked out, from the cache while its revision stands.
func (s *Server) work(ctx context.Context, id string) (*plan.Work, []check.Snag, error) {
	p, rev, err := s.store.Load(ctx, id)
	if err != nil {
		return nil, nil, err
	}
	today := s.now()
	day := today.Format(time.DateOnly)
	s.mu.Lock()
	w, ok := s.cache[id]
	s.mu.Unlock()
	if ok && w.rev == rev && w.day == day && w.work.Plan.Display.ID == id && reflect.DeepEqual(w.work.Plan, p) {
		return w.work, w.snags, nil
	}
	work := plan.Do(p, s.lib, today)
	snags := check.Check(work)
	s.mu.Lock()
	if len(s.cache) > 30 {
		clear(s.cache)
	}
	s.cache[id] = worked{rev, day, work, snags}
	s.mu.Unlock()
	return work, snags, nil
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
	if err != nil || u.Host != "" || u.Scheme != "" || !strings.HasPrefix(u.Path, "/") || strings.HasPrefix(back, "//") || strings.Contains(back, "\\") {
		return "/"
	}
	return back
}
