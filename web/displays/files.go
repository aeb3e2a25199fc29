package displays

import (
	"bytes"
	"errors"
	"fmt"
	"io"
	"net/http"
	"strconv"
	"strings"

	"zapbarn/web/shell"

	"zapbarn/core/plan"
	"zapbarn/core/work"
	"zapbarn/formats"
	"zapbarn/store"

	"github.com/gin-gonic/gin"
)

// Start makes a display from three answers.
func (s Room) Start(c *gin.Context) {
	var in struct {
		Name  string `form:"name"`
		Opens string `form:"opens"`
		Units string `form:"units"`
	}
	if err := c.ShouldBind(&in); err != nil {
		s.home(c, http.StatusUnprocessableEntity, nil, err.Error())
		return
	}
	entered := map[string]string{"name": in.Name, "opens": in.Opens, "units": in.Units}
	err := shell.Begins(entered["name"], entered["units"])
	id := ""
	if err == nil {
		p := plan.New(plan.Slug(entered["name"]), entered["name"], entered["units"], entered["opens"])
		p.Doc().Display.Outdoors = true
		id, err = s.Store.CreateFresh(c.Request.Context(), p)
	}
	_, fault := errors.AsType[*store.Fault](err)
	switch {
	case errors.Is(err, store.ErrDown), errors.Is(err, store.ErrFull), fault:
		s.Fail(c, err)
	case err != nil:
		_, msg := shell.FieldErrors(err)
		s.home(c, http.StatusUnprocessableEntity, entered, msg)
	default:
		c.Redirect(http.StatusSeeOther, "/p/"+id)
	}
}

// ImportPlan reads a plan file; one of the same ID is kept and the new one
// gets a number.
func (s Room) ImportPlan(c *gin.Context) {
	refuse := func(code int, msg string) {
		s.home(c, code, map[string]string{"units": "in"}, "Import: "+msg)
	}
	_, b, err := shell.Upload(c, "plan", store.MaxDisplayFile)
	if err != nil {
		refuse(shell.CodeOf(err), shell.Reason(err))
		return
	}
	p, log, err := store.ReadDisplay(b)
	if err != nil && len(b) > plan.MaxFile {
		err = shell.Oversize{Err: err}
	}
	if err != nil {
		refuse(shell.CodeOf(err), err.Error())
		return
	}
	if c.PostForm("log") == "" {
		log = nil
	}
	id, err := s.Store.CreateFresh(c.Request.Context(), p, log...)
	if err != nil {
		s.Fail(c, err)
		return
	}
	c.Redirect(http.StatusSeeOther, "/p/"+id)
}

// Export sends the plan as a file.
func (s Room) Export(c *gin.Context) {
	p, _, err := s.Store.Load(c.Request.Context(), c.Param("plan"))
	if err != nil {
		s.Fail(c, err)
		return
	}
	if p, err = s.Store.Whole(c.Request.Context(), p); err != nil {
		s.Fail(c, err)
		return
	}
	c.Header("Content-Disposition", `attachment; filename="`+p.Display().ID+`.json"`)
	c.Data(http.StatusOK, "application/json; charset=utf-8", p.Encode())
}

// DeletePlan puts a whole display in the bin; the form asked first.
func (s Room) DeletePlan(c *gin.Context) {
	if err := s.Store.Bin(c.Request.Context(), c.Param("plan"), s.Now()); err != nil {
		s.Fail(c, err)
		return
	}
	c.Redirect(http.StatusSeeOther, "/#bin")
}

// PutBack takes a display out of the bin and opens it.
func (s Room) PutBack(c *gin.Context) {
	id, err := s.Store.PutBack(c.Request.Context(), c.Param("bin"))
	if err != nil {
		s.Fail(c, err)
		return
	}
	c.Redirect(http.StatusSeeOther, "/p/"+id)
}

// EmptyBin takes a display in the bin away for good; the form asked first.
func (s Room) EmptyBin(c *gin.Context) {
	if err := s.Store.Empty(c.Request.Context(), c.Param("bin")); err != nil {
		s.Fail(c, err)
		return
	}
	c.Redirect(http.StatusSeeOther, "/#bin")
}

// Flat sends a part or a nested sheet at 1:1 as SVG, DXF or tiled PDF.
func (s Room) Flat(c *gin.Context) {
	w, open := s.Open(c)
	if !open {
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
		var err error
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
		s.Trouble(
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
	shell.Send(c, name+"."+ext, &b)
}
