package displays

import (
	"bytes"
	"encoding/base64"
	"fmt"
	"html/template"
	"io"
	"regexp"
	"slices"
	"strings"
	"sync"

	"zapbarn/web/shell"

	"zapbarn/core/check"
	"zapbarn/core/cutting"
	"zapbarn/core/form"
	"zapbarn/core/plan"
	"zapbarn/core/stores"
	"zapbarn/core/words"
	"zapbarn/core/work"
	"zapbarn/web/draw"

	"github.com/gin-gonic/gin"
)

// Along is a display as one page to take along: it asks nothing of any server, has
// no script, and changes nothing.
type Along struct {
	Name, Opens, Made string
	Style             template.CSS
	Defs              template.HTML
	Buy               []AlongRow
	Shelf             []AlongRow // bins, open bottles and offcuts
	Props             []AlongProp
	Snags             []check.Snag // of no one prop
}

// AlongProp is one prop of it.
type AlongProp struct {
	ID, Name, Note                   string
	Iso, Front, Sheets, Harness      template.HTML
	Cut, Joints, Coats, Wires, Steps []AlongRow
	Snags                            []check.Snag
}

// AlongRow is a row of a list.
type AlongRow struct {
	Mark, Text, More string
	At               string // its own place in the page; "" for none
}

// fontAt is an address of one of our fonts in the style sheet.
var fontAt = regexp.MustCompile(`url\(/static/(fonts/[\w.-]+)\)`)

// ownStyle is the style sheet with the fonts in it.
var ownStyle = sync.OnceValues(func() (template.CSS, error) {
	css, err := shell.Style()
	if err != nil {
		return "", err
	}
	var failed error
	out := fontAt.ReplaceAllFunc(css, func(m []byte) []byte {
		font, err := shell.Font(string(fontAt.FindSubmatch(m)[1]))
		if err != nil {
			failed = err
		}
		return []byte("url(data:font/woff2;base64," + base64.StdEncoding.EncodeToString(font) + ")")
	})
	return template.CSS(out), failed // our own file
})

// along gathers what the page shows.
func along(w *work.Work, snags []check.Snag, made string) (*Along, error) {
	style, err := ownStyle()
	if err != nil {
		return nil, err
	}
	a := &Along{Name: w.Plan.Display().Name, Opens: w.Plan.Display().Opens, Made: made, Style: style,
		Defs: template.HTML(draw.Defs())}
	for _, n := range stores.Of(w) {
		if n.Packs > 0 {
			a.Buy = append(a.Buy, AlongRow{Mark: n.ToBuy(), Text: n.Name, More: n.Asks()})
		}
	}
	a.shelf(w)
	of := map[string][]check.Snag{}
	for _, s := range snags {
		if s.Waived == nil {
			of[s.Prop] = append(of[s.Prop], s)
		}
	}
	a.Snags = of[""]
	for i := range w.Plan.Props() {
		x := alongProp(w, &w.Plan.Props()[i])
		x.Snags = of[x.ID]
		a.Props = append(a.Props, x)
	}
	return a, nil
}

// shelf is what lies in bins, which bottles are open, and the offcuts: what else has a label.
func (a *Along) shelf(w *work.Work) {
	for _, b := range stores.Bins(w) {
		a.Shelf = append(a.Shelf, AlongRow{"Bin " + b.Name, strings.Join(b.Holds, ", "), "", plan.Anchor("bin",
			b.Name)})
	}
	for i := range w.Plan.Lots() {
		x := &w.Plan.Lots()[i]
		a.Shelf = append(a.Shelf, AlongRow{"Bottle", w.Lib.Glues[x.Glue].Name, "opened " + x.Opened,
			plan.Anchor("lot", x.ID)})
	}
	for _, o := range w.Plan.Offcuts() {
		a.Shelf = append(a.Shelf, AlongRow{"Offcut", w.Lib.Materials[o.Stock].Name,
			w.Len(o.W.Value()) + " x " + w.Len(o.H.Value()), plan.Anchor("offcut", o.ID)})
	}
}

// alongProp is one prop's drawings and lists.
func alongProp(w *work.Work, p *plan.Prop) AlongProp {
	to := func(string) string { return "#" + p.ID }
	x := AlongProp{ID: p.ID, Name: p.Name, Note: p.Note}
	iso, front := draw.Whole(w, p.ID, "", "", to)
	x.Iso, x.Front = template.HTML(iso), template.HTML(front)
	for _, part := range w.Parts() {
		if part.Solid.Prop == p.ID {
			x.Cut = append(x.Cut, AlongRow{fmt.Sprint(part.No), part.Name(), fmt.Sprintf("%s, cut %d of %s",
				w.Results().At("part", part.Ref, "size").Text, part.Panel.Copies, w.Lib.Materials[part.Solid.Stock].Name),
				plan.Anchor("part", part.Ref)})
		}
	}
	for _, s := range w.Sheets() { // those of its stocks, not all
		if slices.ContainsFunc(s.Pieces, func(pc cutting.Piece) bool { return w.Part(pc.Ref).Solid.Prop == p.ID }) {
			x.Sheets += template.HTML(draw.SheetsOf(w, s, p.ID))
		}
	}
	for i := range w.Plan.Solids() {
		if s := &w.Plan.Solids()[i]; s.Prop == p.ID && w.Shapes()[s.ID] != nil {
			x.solid(w, s)
		}
	}
	for i := range w.Plan.Joints() {
		if j := &w.Plan.Joints()[i]; j.Prop == p.ID {
			x.Joints = append(x.Joints, AlongRow{w.Results().At("joint", j.ID, "clamp").Text,
				shell.SideName(w, j.A) + " to " + shell.SideName(w, j.B), w.Lib.Glues[j.Glue].Name + ", full after " +
					w.Results().At("joint", j.ID, "full").Text, ""})
		}
	}
	if h := w.Harness(p.ID); len(h.Wires) > 0 {
		x.Harness = template.HTML(draw.Harness(w, w.All(), p.ID, "", to))
		for _, r := range h.Wires {
			x.Wires = append(x.Wires, AlongRow{r.Label, fmt.Sprintf("%s: %s to %s", r.Kind, r.From, r.To),
				fmt.Sprintf("%s, cut %s", r.Gauge, w.Len(r.Cut)), ""})
		}
	}
	return x
}

// solid adds what is cut for a solid by the length, its steps and its coats.
func (x *AlongProp) solid(w *work.Work, s *plan.Solid) {
	for _, c := range w.Shapes()[s.ID].Cuts {
		x.Cut = append(
			x.Cut,
			AlongRow{words.Count(c.Count, "piece"), s.Name + ", " + c.Name, w.Len(c.Length) + " of " +
				w.Lib.Materials[s.Stock].Name, ""},
		)
	}
	for n, step := range form.Steps(s.Form, w.Shapes()[s.ID]) {
		x.Steps = append(x.Steps, AlongRow{Mark: fmt.Sprint(n + 1), Text: step, More: s.Name})
	}
	for _, f := range w.Plan.Finishes() {
		if f.Solid == s.ID {
			x.Coats = append(x.Coats, AlongRow{w.Results().At("finish", f.ID, "wait").Text, s.Name, coatsOf(w, &f), ""})
		}
	}
}

// coatsOf are a finish's layers in words.
func coatsOf(w *work.Work, f *plan.Finish) string {
	var out []string
	for _, l := range f.Layers {
		out = append(out, fmt.Sprintf("%s x%d", w.Lib.Coats[l.Coat].Name, l.Coats))
	}
	return strings.Join(out, ", then ")
}

// WriteAlong writes a display as one page to take along.
func WriteAlong(out io.Writer, w *work.Work, snags []check.Snag, made string) error {
	pages, err := shell.Parse("", Brings)
	if err != nil {
		return err
	}
	a, err := along(w, snags, made)
	if err != nil {
		return err
	}
	return pages.ExecuteTemplate(out, "along.html", a)
}

// AlongFile sends it.
func (s Room) AlongFile(c *gin.Context) {
	w, snags, err := s.Work(c.Request.Context(), c.Param("plan"))
	if err != nil {
		s.Fail(c, err)
		return
	}
	var b bytes.Buffer
	a, err := along(w, snags, s.Now().Format("2 January 2006"))
	if err == nil {
		err = s.Write(&b, "along.html", a)
	}
	if err != nil {
		s.Fail(c, err)
		return
	}
	shell.Send(c, w.Plan.Display().ID+".html", &b)
}
