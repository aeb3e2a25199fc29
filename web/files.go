package web

import (
	"bytes"
	"errors"
	"fmt"
	"html/template"
	"io"
	"net/http"
	"strconv"
	"strings"

	"zapbarn/core/calc"
	"zapbarn/core/plan"
	"zapbarn/core/source"
	"zapbarn/core/work"
	"zapbarn/formats"
	"zapbarn/store"
	"zapbarn/web/draw"

	"github.com/gin-gonic/gin"
)

// start makes a display from three answers.
func (s *Server) start(c *gin.Context) {
	entered := map[string]string{"name": c.PostForm("name"), "opens": c.PostForm("opens"), "units": c.PostForm("units")}
	err := begins(entered["name"], entered["units"])
	id := ""
	if err == nil {
		p := plan.New(plan.Slug(entered["name"]), entered["name"], entered["units"], entered["opens"])
		p.Doc().Display.Outdoors = true
		id, err = s.store.CreateFresh(c.Request.Context(), p)
	}
	_, fault := errors.AsType[*store.Fault](err)
	switch {
	case errors.Is(err, store.ErrDown), errors.Is(err, store.ErrFull), fault:
		s.fail(c, err)
	case err != nil:
		_, msg := fieldErrors(err)
		s.home(c, http.StatusUnprocessableEntity, entered, msg)
	default:
		c.Redirect(http.StatusSeeOther, "/p/"+id)
	}
}

// importPlan reads a plan file; one of the same ID is kept and the new one
// gets a number.
func (s *Server) importPlan(c *gin.Context) {
	refuse := func(code int, msg string) {
		s.home(c, code, map[string]string{"units": "in"}, "Import: "+msg)
	}
	_, b, err := upload(c, "plan", store.MaxDisplayFile)
	if err != nil {
		refuse(codeOf(err), reason(err))
		return
	}
	p, log, err := store.ReadDisplay(b)
	if err != nil && len(b) > plan.MaxFile {
		err = oversize{err}
	}
	if err != nil {
		refuse(codeOf(err), err.Error())
		return
	}
	if c.PostForm("log") == "" {
		log = nil
	}
	id, err := s.store.CreateFresh(c.Request.Context(), p, log...)
	if err != nil {
		s.fail(c, err)
		return
	}
	c.Redirect(http.StatusSeeOther, "/p/"+id)
}

// export sends the plan as a file.
func (s *Server) export(c *gin.Context) {
	p, _, err := s.store.Load(c.Request.Context(), c.Param("plan"))
	if err != nil {
		s.fail(c, err)
		return
	}
	if p, err = s.store.Whole(c.Request.Context(), p); err != nil {
		s.fail(c, err)
		return
	}
	c.Header("Content-Disposition", `attachment; filename="`+p.Display().ID+`.json"`)
	c.Data(http.StatusOK, "application/json; charset=utf-8", p.Encode())
}

// deletePlan puts a whole display in the bin; the form asked first.
func (s *Server) deletePlan(c *gin.Context) {
	if err := s.store.Bin(c.Request.Context(), c.Param("plan"), s.now()); err != nil {
		s.fail(c, err)
		return
	}
	c.Redirect(http.StatusSeeOther, "/#bin")
}

// putBack takes a display out of the bin and opens it.
func (s *Server) putBack(c *gin.Context) {
	id, err := s.store.PutBack(c.Request.Context(), c.Param("bin"))
	if err != nil {
		s.fail(c, err)
		return
	}
	c.Redirect(http.StatusSeeOther, "/p/"+id)
}

// emptyBin takes a display in the bin away for good; the form asked first.
func (s *Server) emptyBin(c *gin.Context) {
	if err := s.store.Empty(c.Request.Context(), c.Param("bin")); err != nil {
		s.fail(c, err)
		return
	}
	c.Redirect(http.StatusSeeOther, "/#bin")
}

// flat sends a part or a nested sheet at 1:1 as SVG, DXF or tiled PDF.
func (s *Server) flat(c *gin.Context) {
	w, _, err := s.work(c.Request.Context(), c.Param("plan"))
	if err != nil {
		s.fail(c, err)
		return
	}
	var f *formats.Flat
	name := "part"
	if part := w.Part(c.Query("ref")); part != nil {
		f, name = formats.FlatPart(w, part), plan.Slug(part.Name())
	}
	for asked, make := range map[string]func(*work.Work, string) (*formats.Flat, error){
		"board": formats.FlatBoard, "mockup": formats.FlatMockup,
	} {
		prop := c.Query(asked)
		if prop == "" {
			continue
		}
		if w.Plan.Prop(prop) == nil {
			s.noProp(c, prop)
			return
		}
		if f, err = make(w, prop); s.cannotSend(c, err) {
			return
		}
		name = plan.Slug(f.Title)
	}
	for _, sh := range w.Sheets() {
		n, err := strconv.Atoi(c.Query("n"))
		if sh.Stock.ID == c.Query("stock") && err == nil && n >= 1 && n <= len(sh.Layout.Sheets) {
			f, name = formats.FlatSheet(w, sh, n-1), plan.Slug(fmt.Sprintf("%s sheet %d", sh.Stock.Name, n))
		}
	}
	if f == nil {
		s.trouble(
			c,
			http.StatusNotFound,
			"No such part or sheet",
			"It was changed or taken away. Go back and look again.",
		)
		return
	}
	var b bytes.Buffer
	ext, write := "svg", f.SVG
	switch path := c.Request.URL.Path; {
	case strings.HasSuffix(path, ".dxf"):
		ext, write = "dxf", f.DXF
	case strings.HasSuffix(path, ".pdf"):
		paper := paperOf(c)
		ext, write = "pdf", func(out io.Writer) error { return f.Tiles(out, paper, w.Plan.Metric()) }
	}
	if s.cannotSend(c, write(&b)) {
		return
	}
	send(c, name+"."+ext, &b)
}

// calculators is every calculator as a form; the one asked for is run.
func (s *Server) calculators(c *gin.Context) {
	type form struct {
		calc.Calculator
		Values  map[string]string
		Results []source.Result
		Error   string
		Draw    template.HTML
		Open    bool
	}
	var out []form
	for _, k := range calc.List() {
		f := form{Calculator: k, Values: map[string]string{}}
		for _, p := range k.Params {
			f.Values[p.Name] = p.Default
		}
		if c.Query("name") == k.Name {
			f.Open = true
			args := map[string]string{}
			for _, p := range k.Params {
				if v := c.Query(p.Name + "."); v != "" || c.Request.URL.Query().Has(p.Name+".") {
					args[p.Name], f.Values[p.Name] = v, v
				}
			}
			in, shape, rs, err := k.Lay(args, c.Query("units"))
			switch {
			case err != nil:
				f.Error = err.Error()
			case shape != nil:
				f.Draw = template.HTML(draw.Shape(shape))
			default:
				f.Draw = template.HTML(draw.Sum(k.Name, in.N, in.T))
			}
			f.Results = rs
		}
		if f.Open { // the one that was asked for comes first
			out = append([]form{f}, out...)
			continue
		}
		out = append(out, f)
	}
	c.Header("Content-Type", "text/html; charset=utf-8")
	_ = s.pages.ExecuteTemplate(
		c.Writer,
		"calc.html",
		map[string]any{"Forms": out, "Theme": themeOf(c), "Title": "Calculators", "Back": "/calc"},
	)
}
