// Package web serves the barn: pages rendered on the server, one place a file.
// Handlers read the request, let core decide, and render; no handler writes a
// row by itself.
package web

import (
	"context"
	"embed"
	"errors"
	"html/template"
	"io/fs"
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

	"github.com/gin-contrib/gzip"
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

// New makes a server; now tells the date that ages are judged by.
func New(s *store.Store, now func() time.Time) (*Server, error) {
	secret, err := s.Secret(context.Background())
	if err != nil {
		return nil, err
	}
	token := formToken(secret)
	t, err := parsePages(token)
	if err != nil {
		return nil, err
	}
	return &Server{
		store:       s,
		token:       token,
		lib:         s.Shop(),
		now:         now,
		pages:       t,
		places:      allPlaces(),
		works:       newWorks(),
		held:        newPages(),
		search:      searches{of: map[string]*running{}, most: 2},
		workTime:    workTime,
		mendTime:    mendTime,
		first:       firstMends,
		patience:    patience,
		renderSlots: make(chan struct{}, max(2, runtime.GOMAXPROCS(0))),
	}, nil
}

func init() { gin.SetMode(gin.ReleaseMode) }

// Handler is the whole site.
func (s *Server) Handler() http.Handler {
	r := s.routes()
	protect := http.NewCrossOriginProtection()
	protect.SetDenyHandler(http.HandlerFunc(func(w http.ResponseWriter, _ *http.Request) {
		http.Error(w, "This form was sent from another site and was refused.", http.StatusForbidden)
	}))
	return protect.Handler(localOnly(headAsGet(r)))
}

// packedHere are the addresses of displays: their pages pack themselves, and
// what else they send is packed as a file, or small, or a stream.
var packedHere = []string{"^/p/"}

// routes are all addresses.
func (s *Server) routes() *gin.Engine {
	r := gin.New()
	r.HandleMethodNotAllowed = true
	r.MaxMultipartMemory = plan.MaxFile
	r.Use(requestID, s.recover, secure, browserKey, s.ownForms, gzip.Gzip(gzip.DefaultCompression,
		gzip.WithExcludedPathsRegexs(packedHere)))
	static, err := fs.Sub(files, "static")
	if err != nil {
		panic(err) // the folder is embedded
	}
	fileServer := http.StripPrefix("/static/", http.FileServerFS(static))
	r.GET("/static/*path", func(c *gin.Context) {
		if v := c.Query("v"); v != "" && v == versions[strings.TrimPrefix(c.Param("path"), "/")] {
			c.Header("Cache-Control", "public, max-age=31536000, immutable")
		} else {
			c.Header("Cache-Control", "public, max-age=3600")
		}
		fileServer.ServeHTTP(c.Writer, c.Request)
	})
	r.GET("/healthz", func(c *gin.Context) {
		if err := s.store.Ping(c.Request.Context()); err != nil {
			c.String(http.StatusServiceUnavailable, "database down\n")
			return
		}
		c.String(http.StatusOK, "ok\n")
	})
	r.GET("/", s.displays)
	r.POST("/new", s.start)
	r.POST("/import", s.importPlan)
	r.POST("/bin/:bin/back", s.putBack)
	r.POST("/bin/:bin/empty", s.emptyBin)
	r.GET("/calc", s.calculators)
	r.GET("/why", s.why)
	r.GET("/why/:code", s.why)
	r.POST("/theme", theme)
	r.POST("/tour", tour)
	p := r.Group("/p/:plan")
	s.views(p)
	s.files(p)
	s.edits(p)
	r.NoRoute(func(c *gin.Context) {
		s.trouble(
			c,
			http.StatusNotFound,
			"There is nothing here",
			"The address "+c.Request.URL.Path+" leads nowhere. Go back to the displays.",
		)
	})
	return r
}

// views are what a display is looked at by.
func (s *Server) views(p *gin.RouterGroup) {
	p.GET("", func(c *gin.Context) { s.place(c, "barn") })
	for _, pl := range s.places[1:] {
		p.GET("/"+pl.id, func(c *gin.Context) { s.place(c, pl.id) })
	}
	p.GET("/working", s.working)
	p.GET("/row", s.row)
	p.GET("/read", ownOnly, s.read)
	p.GET("/help", ownOnly, s.help)
	p.GET("/trace", ownOnly, s.trace)
	p.GET("/search", ownOnly, s.searching)
	p.GET("/deeper", ownOnly, s.deeper)
	p.GET("/better", ownOnly, s.better)
	p.POST("/turns", s.keepTurns)
	p.GET("/slide", ownOnly, s.sliding)
}

// files are what is taken away of a display.
func (s *Server) files(p *gin.RouterGroup) {
	p.GET("/board.svg", s.flat)
	p.GET("/board.dxf", s.flat)
	p.GET("/board.pdf", s.flat)
	p.GET("/mockup.svg", s.flat)
	p.GET("/mockup.dxf", s.flat)
	p.GET("/mockup.pdf", s.flat)
	for name := range downloads {
		p.GET("/"+name, s.file)
	}
	p.GET("/wiring.cir", s.netlist)
	p.GET("/pixels.png", s.pixels)
	p.GET("/book.pdf", s.book)
	p.GET("/plan.json", s.export)
	p.GET("/along.html", s.alongFile)
	p.GET("/part.svg", s.flat)
	p.GET("/part.dxf", s.flat)
	p.GET("/part.pdf", s.flat)
	p.GET("/sheet.svg", s.flat)
	p.GET("/sheet.dxf", s.flat)
	p.GET("/picture", s.pictureFile)
	p.GET("/photo/:sum", s.photo)
}

// edits are what changes a display, or is told before it does.
func (s *Server) edits(p *gin.RouterGroup) {
	p.POST("/shop", s.bringGoods)
	p.POST("/read", s.readLines)
	p.POST("/lines", s.lines)
	p.POST("/each", s.forEach)
	p.POST("/lay", s.lay)
	p.POST("/slide", s.slide)
	p.POST("/keep", s.keep)
	p.POST("/bring", s.bringIn)
	p.POST("/picture", s.addPicture)
	p.POST("/note", s.addNote)
	p.POST("/point", s.point)
	p.POST("/quick", s.quick)
	p.POST("/edit", s.edit)
	p.POST("/mend", s.mend)
	p.POST("/waive", s.waive)
	p.POST("/remove", s.remove)
	p.POST("/reading", s.reading)
	p.POST("/drill", s.answer)
	p.POST("/undo", s.undo)
	p.POST("/join", s.join)
	p.POST("/task", s.sayTask)
	p.POST("/crew", s.addTo)
	p.POST("/stock", s.stockIt)
	p.POST("/move", s.moveSolid)
	p.POST("/plug", s.plugIn)
	p.POST("/cue", s.moveCue)
	p.POST("/behaviour", s.behave)
	p.POST("/behaviour/read", s.readBehaviour)
	p.POST("/pivot", s.movePivot)
	p.POST("/yardmove", s.moveInYard)
	p.POST("/book", s.bookIn)
	p.POST("/shelf", s.bringShelf)
	p.POST("/record", s.record)
	p.POST("/sketch", s.addSketch)
	p.POST("/nightmerge", s.mergeNights)
	p.POST("/nextseason", s.nextSeason)
	p.GET("/evening.html", s.evening)
	p.GET("/eye.svg", s.eyeFile)
	p.POST("/cuelist", s.cueList)
	p.POST("/clip", s.addClip)
	p.POST("/opening", s.moveOpening)
	p.POST("/step", s.stepTo)
	p.POST("/redo", s.redo)
	p.POST("/delete", s.deletePlan)
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
