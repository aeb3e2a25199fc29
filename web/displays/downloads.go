package displays

import (
	"bytes"
	"fmt"
	"io"
	"net/http"
	"path"
	"strconv"
	"strings"

	"zapbarn/web/shell"

	"zapbarn/core/check"
	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/work"
	"zapbarn/formats"

	"github.com/gin-gonic/gin"
)

// download is a file made of a prop, or of all when none is named: what it is
// called, and what writes it.
type download struct {
	Name  string
	write func(out io.Writer, w *work.Work, prop string, paper formats.Paper) error
	All   bool // may be had of the whole display
}

// noPaper leaves out the paper that a list does not need.
func noPaper(
	write func(io.Writer, *work.Work, string) error,
) func(io.Writer, *work.Work, string, formats.Paper) error {
	return func(out io.Writer, w *work.Work, prop string, _ formats.Paper) error { return write(out, w, prop) }
}

// Downloads are the files by the address they are had at.
var Downloads = map[string]download{
	"cutsheet.pdf": {"cut-sheet", formats.CutSheet, false},
	"rounds.pdf":   {"rounds", nil, true},
	"labels.pdf":   {"labels", formats.Labels, false},
	"bins.pdf":     {"bins", formats.BinLabels, true},
	"harness.pdf":  {"harness", formats.HarnessPDF, false},
	"harness.zip":  {"harness", noPaper(formats.HarnessZIP), false},
	"harness.xlsx": {"harness", noPaper(formats.HarnessXLSX), false},
	"cutlist.csv":  {"cut-list", noPaper(formats.CutListCSV), true},
	"shop.csv": {"shop", func(out io.Writer, w *work.Work, _ string, _ formats.Paper) error {
		return formats.GoodsCSV(out, w.Plan)
	}, true},
	"calendar.ics":   {"calendar", noPaper(formats.ICS), true},
	"tasks.csv":      {"tasks", noPaper(formats.TasksCSV), true},
	"buy-list.csv":   {"buy-list", noPaper(formats.BuyListCSV), true},
	"buy-list.xlsx":  {"buy-list", noPaper(formats.BuyListXLSX), true},
	"day-sheets.pdf": {"day-sheets", formats.DaySheets, true},
	"solids.stl": {"solids", noPaper(func(out io.Writer, w *work.Work, prop string) error {
		return formats.SolidsSTL(out, w, prop, "")
	}), false},
	"commission.pdf":  {"commissioning", formats.CommissionPDF, true},
	"program.zip":     {"program", noPaper(formats.ProgramZIP), true},
	"cues.csv":        {"cues", noPaper(formats.CueListCSV), true},
	"cues.json":       {"cues", noPaper(formats.CueListJSON), true},
	"show.mid":        {"show", noPaper(formats.MIDI), true},
	"night-book.csv":  {"night-book", noPaper(formats.NightBookCSV), true},
	"night-book.xlsx": {"night-book", noPaper(formats.NightBookXLSX), true},
	"shelf.csv":       {"shelf", noPaper(formats.ShelfCSV), true},
	"shelf.xlsx":      {"shelf", noPaper(formats.ShelfXLSX), true},
	"yard.pdf":        {"yard", formats.YardPDF, true},
	"yard.svg": {"yard", noPaper(func(out io.Writer, w *work.Work, _ string) error {
		return yardAs(w, func(f *formats.Flat) error { return f.SVG(out) })
	}), true},
	"yard.dxf": {"yard", noPaper(func(out io.Writer, w *work.Work, _ string) error {
		return yardAs(w, func(f *formats.Flat) error { return f.DXF(out) })
	}), true},
	"pack.csv":     {"pack-list", noPaper(formats.PackListCSV), true},
	"cutlist.xlsx": {"cut-list", noPaper(formats.CutListXLSX), true},
}

// yardAs writes the yard's plan in some form.
func yardAs(w *work.Work, write func(f *formats.Flat) error) error {
	f, err := formats.FlatYard(w)
	if err != nil {
		return err
	}
	return write(f)
}

// Netlist sends the wiring as a netlist, in the state asked for.
func (s Room) Netlist(c *gin.Context) {
	w, open := s.Open(c)
	if !open {
		return
	}
	for _, k := range w.Plan.Cases(w.Lib) {
		if k.Key != c.DefaultQuery("state", "all") {
			continue
		}
		rig, st := w.Plan.CaseRig(w.Lib, k.Key)
		var b bytes.Buffer
		if err := formats.SPICE(&b, w.Plan.Display().Name, k.Name, rig.Net, st.Solution); err != nil {
			s.Fail(c, err)
			return
		}
		shell.Send(c, "wiring-"+plan.Slug(k.Name)+".cir", &b)
		return
	}
	s.Trouble(
		c,
		http.StatusNotFound,
		"There is no such state",
		"The scene or supply it names was taken away. Go back and choose another.",
	)
}

// paperOf is the paper asked for; Letter when it is none of ours.
func paperOf(c *gin.Context) formats.Paper {
	if p, ok := formats.Papers[c.Query("paper")]; ok {
		return p
	}
	return formats.Letter
}

// noProp says that a prop is not there.
func (s Room) noProp(c *gin.Context, prop string) {
	s.Trouble(c, http.StatusNotFound, "No such prop",
		"There is no prop "+strconv.Quote(prop)+" here: it was taken away. Go back and look again.")
}

// cannotSend tells why there is no file, on a page: there is nothing to write yet, or what was
// asked for is not to be had. It is false where there is no error.
func (s Room) cannotSend(c *gin.Context, err error) bool {
	if err == nil {
		return false
	}
	_, msg := shell.FieldErrors(err)
	msg = measure.Capital(msg)
	if formats.IsEmpty(err) {
		s.Plainly(c, http.StatusOK, "Nothing to print yet", msg+".", shell.Back{Href: "/p/" + c.Param("plan"),
			Text: "Back to the display"})
		return true
	}
	s.Plainly(c, http.StatusUnprocessableEntity, "That cannot be made", msg, shell.Back{Href: "/p/" + c.Param("plan"),
		Text: "Back to the display"})
	return true
}

// File answers one of the downloads.
func (s Room) File(c *gin.Context) {
	w, open := s.Open(c)
	if !open {
		return
	}
	base := path.Base(c.Request.URL.Path)
	d, ext := Downloads[base], path.Ext(base)
	prop := c.Query("prop")
	if w.Plan.Prop(prop) == nil && (prop != "" || !d.All) {
		s.noProp(c, prop)
		return
	}
	paper := paperOf(c)
	if paper.Roll { // lists go on sheets
		paper = formats.Letter
	}
	var b bytes.Buffer
	var err error
	if base == "rounds.pdf" {
		err = formats.RoundsPDF(&b, w, c.Query("on"), paper)
	} else {
		err = d.write(&b, w, prop, paper)
	}
	if s.cannotSend(c, err) {
		return
	}
	name := d.Name + ext
	if prop != "" {
		name = prop + "-" + name
	}
	if ext == ".pdf" { // looked at before it is printed
		c.Header("Content-Disposition", `inline; filename="`+name+`"`)
		c.Data(http.StatusOK, shell.MediaTypes[ext], b.Bytes())
		return
	}
	shell.Send(c, name, &b)
}

// Book sends the whole display as one print, with what is still open in each prop.
func (s Room) Book(c *gin.Context) {
	w, snags, err := s.Work(c.Request.Context(), c.Param("plan"))
	if err != nil {
		s.Fail(c, err)
		return
	}
	paper, ok := formats.Papers[c.DefaultQuery("paper", "Letter")]
	if !ok || paper.Roll {
		paper = formats.Letter
	}
	data, err := formats.BookBytes(w, func(prop string) string { return openIn(snags, prop) }, paper)
	if err != nil {
		s.Fail(c, err)
		return
	}
	c.Header("Content-Disposition", `inline; filename="`+plan.Slug(w.Plan.Display().Name)+`-all.pdf"`)
	c.Data(http.StatusOK, "application/pdf", data)
}

// openIn is what is still to mend in a prop: 2 stop, 1 fix.
func openIn(snags []check.Snag, prop string) string {
	var of []check.Snag
	for _, s := range snags {
		if s.Prop == prop {
			of = append(of, s)
		}
	}
	var out []string
	for _, l := range []check.Level{check.Stop, check.Fix, check.Mind} {
		if n := check.Count(of, l); n > 0 {
			out = append(out, fmt.Sprintf("%d %s", n, l))
		}
	}
	return strings.Join(out, ", ")
}
