package web

import (
	"io/fs"
	"net/http"
	"strings"

	"zapbarn/core/plan"

	"github.com/gin-contrib/gzip"
	"github.com/gin-gonic/gin"
)

// allPlaces in the builder's order.
func (s *Server) allPlaces() placesOf {
	return placesOf{
		s.barnPlace(),
		s.benchPlace(),
		s.loomPlace(),
		s.rehearsalPlace(),
		s.yardPlace(),
		s.calendarPlace(),
		s.storesPlace(),
		s.walkdownPlace(),
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
