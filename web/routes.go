package web

import (
	"net/http"
	"strings"

	"zapbarn/web/displays"
	"zapbarn/web/shell"

	"zapbarn/core/plan"

	"github.com/gin-contrib/gzip"
	"github.com/gin-gonic/gin"
)

// places are all of them, in the builder's order.
func (s *Server) places() shell.PlacesOf {
	return shell.PlacesOf{
		s.barn.Place(),
		s.bench.Place(),
		s.loom.Place(),
		s.rehearsal.Place(),
		s.yard.Place(),
		s.calendar.Place(),
		s.stores.Place(),
		s.walkdown.Place(),
	}
}

// packedHere are the addresses of displays: their pages pack themselves, and
// what else they send is packed as a file, or small, or a stream.
var packedHere = []string{"^/p/"}

// routes are all addresses.
func (s *Server) routes() *gin.Engine {
	r := gin.New()
	r.HandleMethodNotAllowed = true
	r.MaxMultipartMemory = plan.MaxFile
	r.Use(shell.RequestID, s.Recover, shell.Secure, shell.Bounded, shell.BrowserKey, s.OwnForms,
		gzip.Gzip(gzip.DefaultCompression, gzip.WithExcludedPathsRegexs(packedHere)))
	fileServer := http.StripPrefix("/static/", http.FileServerFS(s.Assets))
	r.GET("/static/*path", func(c *gin.Context) {
		if s.Assets.Is(strings.TrimPrefix(c.Param("path"), "/"), c.Query("v")) {
			c.Header("Cache-Control", "public, max-age=31536000, immutable")
		} else {
			c.Header("Cache-Control", "public, max-age=3600")
		}
		if c.Param("path") == "/"+shell.Script {
			c.Data(http.StatusOK, "text/javascript; charset=utf-8", s.Assets.All())
			return
		}
		fileServer.ServeHTTP(c.Writer, c.Request)
	})
	r.GET("/healthz", func(c *gin.Context) {
		if err := s.Store.Ping(c.Request.Context()); err != nil {
			c.String(http.StatusServiceUnavailable, "database down\n")
			return
		}
		c.String(http.StatusOK, "ok\n")
	})
	r.GET("/", s.displays.List)
	r.POST("/new", s.displays.Start)
	r.POST("/import", s.displays.ImportPlan)
	r.POST("/bin/:bin/back", s.displays.PutBack)
	r.POST("/bin/:bin/empty", s.displays.EmptyBin)
	r.GET("/calc", s.calculators.List)
	r.GET("/why", s.calculators.Why)
	r.GET("/why/:code", s.calculators.Why)
	r.POST("/theme", shell.Theme)
	r.POST("/tour", shell.Tour)
	p := r.Group("/p/:plan")
	s.views(p)
	s.files(p)
	s.edits(p)
	r.NoRoute(func(c *gin.Context) {
		s.Trouble(
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
	p.GET("", func(c *gin.Context) { s.Place(c, "barn") })
	for _, pl := range s.Places[1:] {
		p.GET("/"+pl.ID, func(c *gin.Context) { s.Place(c, pl.ID) })
	}
	p.GET("/working", s.Working)
	p.GET("/row", s.barn.Row)
	p.GET("/read", shell.OwnOnly, s.Read)
	p.GET("/help", shell.OwnOnly, s.Help)
	p.GET("/trace", shell.OwnOnly, s.rehearsal.Trace)
	p.GET("/search", shell.OwnOnly, s.bench.Searching)
	p.GET("/deeper", shell.OwnOnly, s.rehearsal.Deeper)
	p.GET("/better", shell.OwnOnly, s.calendar.Better)
	p.POST("/turns", s.calendar.KeepTurns)
	p.GET("/slide", shell.OwnOnly, s.loom.Sliding)
}

// files are what is taken away of a display.
func (s *Server) files(p *gin.RouterGroup) {
	p.GET("/board.svg", s.displays.Flat)
	p.GET("/board.dxf", s.displays.Flat)
	p.GET("/board.pdf", s.displays.Flat)
	p.GET("/mockup.svg", s.displays.Flat)
	p.GET("/mockup.dxf", s.displays.Flat)
	p.GET("/mockup.pdf", s.displays.Flat)
	for name := range displays.Downloads {
		p.GET("/"+name, s.displays.File)
	}
	p.GET("/wiring.cir", s.displays.Netlist)
	p.GET("/pixels.png", s.rehearsal.Pixels)
	p.GET("/book.pdf", s.displays.Book)
	p.GET("/plan.json", s.displays.Export)
	p.GET("/along.html", s.displays.AlongFile)
	p.GET("/part.svg", s.displays.Flat)
	p.GET("/part.dxf", s.displays.Flat)
	p.GET("/part.pdf", s.displays.Flat)
	p.GET("/sheet.svg", s.displays.Flat)
	p.GET("/sheet.dxf", s.displays.Flat)
	p.GET("/picture", s.bench.PictureFile)
	p.GET("/photo/:sum", s.Photo)
}

// edits are what changes a display, or is told before it does.
func (s *Server) edits(p *gin.RouterGroup) {
	p.POST("/shop", s.barn.BringGoods)
	p.POST("/read", s.ReadLines)
	p.POST("/lines", s.Lines)
	p.POST("/each", s.ForEach)
	p.POST("/lay", s.bench.Lay)
	p.POST("/slide", s.loom.Slide)
	p.POST("/keep", s.bench.Keep)
	p.POST("/bring", s.bench.BringIn)
	p.POST("/picture", s.bench.AddPicture)
	p.POST("/note", s.AddNote)
	p.POST("/point", s.bench.Point)
	p.POST("/quick", s.Quick)
	p.POST("/edit", s.Edit)
	p.POST("/mend", s.Mend)
	p.POST("/waive", s.Waive)
	p.POST("/remove", s.Remove)
	p.POST("/reading", s.loom.Reading)
	p.POST("/drill", s.loom.Answer)
	p.POST("/undo", s.Undo)
	p.POST("/join", s.bench.Join)
	p.POST("/task", s.calendar.SayTask)
	p.POST("/crew", s.calendar.AddTo)
	p.POST("/stock", s.stores.StockIt)
	p.POST("/move", s.bench.MoveSolid)
	p.POST("/plug", s.loom.PlugIn)
	p.POST("/cue", s.rehearsal.MoveCue)
	p.POST("/behaviour", s.rehearsal.Behave)
	p.POST("/behaviour/read", s.rehearsal.ReadBehaviour)
	p.POST("/pivot", s.rehearsal.MovePivot)
	p.POST("/yardmove", s.yard.MoveInYard)
	p.POST("/book", s.walkdown.BookIn)
	p.POST("/shelf", s.stores.BringShelf)
	p.POST("/record", s.rehearsal.Record)
	p.POST("/sketch", s.yard.AddSketch)
	p.POST("/nightmerge", s.walkdown.MergeNights)
	p.POST("/nextseason", s.walkdown.NextSeason)
	p.GET("/evening.html", s.walkdown.Evening)
	p.GET("/eye.svg", s.yard.EyeFile)
	p.POST("/cuelist", s.rehearsal.CueList)
	p.POST("/clip", s.rehearsal.AddClip)
	p.POST("/opening", s.bench.MoveOpening)
	p.POST("/step", s.StepTo)
	p.POST("/redo", s.Redo)
	p.POST("/delete", s.displays.DeletePlan)
}
