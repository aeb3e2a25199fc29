package barn

import (
	"fmt"
	"html/template"
	"net/http"
	"strconv"
	"strings"

	"zapbarn/web/calendar"
	"zapbarn/web/shell"

	"zapbarn/core/check"
	"zapbarn/core/order"
	"zapbarn/core/source"
	"zapbarn/core/wiring"
	"zapbarn/core/words"
	"zapbarn/core/work"
	"zapbarn/web/draw"

	"github.com/gin-gonic/gin"
)

func (s Room) showWay() shell.Way {
	return shell.Way{ID: "show", Title: "Display", Fill: shell.Showing(newView, s.show)}
}

// Take is what the plan takes from one stock.
type Take struct {
	Name    string
	Numbers []shell.Result
}

// shown is how many rows of props come with the page; the rest comes when
// it is looked at.
const shown = 2

// Later is a drawing that comes when it is looked at; its things are links
// meanwhile.
type Later struct {
	Href  string
	Links []shell.Link
}

func (p *view) row(rows draw.BarnRows, row int, snags []check.Snag) template.HTML {
	return template.HTML(
		rows.Barn(
			p.Work,
			row,
			p.Sel,
			func(key string) string { return p.Href("barn", "", key, "") },
			func(prop string) [4]string { return aspects(p.Work, snags, prop) },
		),
	)
}

// Row answers one row of the barn's props, as a drawing.
func (s Room) Row(c *gin.Context) {
	w, snags, err := s.Work(c.Request.Context(), c.Param("plan"))
	if err != nil {
		s.Fail(c, err)
		return
	}
	rows := draw.RowsOf(w)
	n, err := strconv.Atoi(c.Query("n"))
	if err != nil || n < 0 || n >= len(rows.Rows) {
		s.Trouble(
			c,
			http.StatusNotFound,
			"There is no such row",
			"The props stand otherwise now. Load the page again.",
		)
		return
	}
	p := newView(&shell.Page{Asked: shell.Asked{PlanID: c.Param("plan")}, Plan: w.Plan, Work: w})
	shell.SendPage(c, http.StatusOK, shell.Pack([]byte(p.row(rows, n, snags))))
}

// Tonight is what dries now, and what everybody does next, for the Barn.
type Tonight struct {
	Drying []calendar.Drying
	Next   []calendar.TaskRow
	Href   string
	Stuck  string // what has no time
}

// tonightOf is the short list of the Calendar.
func (s Room) tonightOf(p *view) Tonight {
	t := order.In(p.Work)
	now := s.Now()
	v := Tonight{Drying: calendar.DryingAt(t.Order, now.Hour()*60+now.Minute()), Href: p.Href("calendar", "", "", ""),
		Stuck: t.Stuck()}
	if t.Loop != nil {
		return v
	}
	seen := map[int]bool{}
	for _, i := range t.InTime() {
		if t.Row[i].Hands == 0 || len(v.Next) == 4 {
			continue
		}
		mine := false
		for _, k := range t.Slots[i].Who {
			mine = mine || !seen[k]
			seen[k] = true
		}
		if mine {
			r := calendar.RowOf(p.Page, t, t.Row[i], i)
			r.Href = p.Href("calendar", "", "task:"+t.Row[i].Key, "bars")
			v.Next = append(v.Next, r)
		}
	}
	return v
}

// show shows all props on ground lines, to one scale.
func (s Room) show(_ *gin.Context, p *view, snags []check.Snag) error {
	w := p.Work
	if p.Sel == "" && p.Prop != "" {
		p.Sel = "prop:" + p.Prop
	}
	p.Tonight = s.tonightOf(p)
	rows := draw.RowsOf(w)
	for i := range max(1, len(rows.Rows)) {
		if i < shown {
			p.Drawn = append(p.Drawn, p.row(rows, i, snags))
			continue
		}
		l := Later{Href: fmt.Sprintf("/p/%s/row?n=%d", p.PlanID, i)}
		for _, x := range rows.Props(i) {
			l.Links = append(l.Links, shell.Link{Text: x.Name, Href: p.Href("barn", "", "prop:"+x.ID, "")})
		}
		p.Later = append(p.Later, l)
	}
	kind, id, _ := strings.Cut(p.Sel, ":")
	if p.Ticket = p.TicketOf(kind, id); p.Ticket == nil {
		p.Ticket = p.TicketOf("display", w.Plan.Display().ID)
	} else if kind == "prop" {
		p.Ticket.Touches = []shell.Link{{Text: "to its bench", Href: p.Href("bench", id, "", "")},
			{Text: "to its loom", Href: p.Href("loom", id, "", "")}}
	}
	for _, sh := range w.Sheets() {
		p.taken(sh.Stock.ID, sh.Stock.Name, "sheets", "sheet")
	}
	for _, b := range w.Bars() {
		p.taken(b.Stock.ID, b.Stock.Name, "bars", "length")
	}
	for _, d := range w.Plan.Devices() {
		if d.Is(wiring.Origin) {
			g := w.All().Readings[d.ID]
			p.Rows = append(
				p.Rows,
				shell.Row{
					Key:   source.KeyOf("device", d.ID, "load").String(),
					Href:  p.Href("loom", d.Prop, "device:"+d.ID, ""),
					Mark:  g.State,
					Title: d.Name + ", " + w.Plan.Prop(d.Prop).Name,
					Right: w.Results().At("device", d.ID, "load").Text,
				},
			)
		}
	}
	return nil
}

// aspects are the four squares of a prop: parts, joints, coats, wiring; each
// done, snag or none.
func aspects(w *work.Work, snags []check.Snag, prop string) [4]string {
	have := [4]bool{}
	for _, s := range w.Plan.Solids() {
		have[0] = have[0] || s.Prop == prop && w.Shapes()[s.ID] != nil
	}
	for _, j := range w.Plan.Joints() {
		have[1] = have[1] || j.Prop == prop
	}
	for _, f := range w.Plan.Finishes() {
		have[2] = have[2] || w.Plan.Solid(f.Solid).Prop == prop
	}
	for _, d := range w.Plan.Devices() {
		have[3] = have[3] || d.Prop == prop
	}
	of := [4]func(check.Snag) bool{
		func(s check.Snag) bool {
			return s.Place == "bench" && !strings.HasPrefix(s.Code, "glue-") && !strings.HasPrefix(s.Code, "coat-")
		},
		func(s check.Snag) bool { return strings.HasPrefix(s.Code, "glue-") },
		func(s check.Snag) bool { return strings.HasPrefix(s.Code, "coat-") },
		func(s check.Snag) bool { return s.Place == "loom" },
	}
	var out [4]string
	for i := range out {
		out[i] = "none"
		if have[i] {
			out[i] = "done"
			if l := shell.Worst(snags, func(s check.Snag) bool {
				return s.Prop == prop && s.Level >= check.Fix &&
					of[i](s)
			}); l != "" {
				out[i] = "snag"
			}
		}
	}
	return out
}

// taken adds what the display takes of a stock.
func (p *view) taken(id, name, count, one string) {
	t := Take{Name: name}
	for _, r := range p.Work.Results().Of("stock", id) {
		n := shell.Result{Key: r.Key, Text: r.Text}
		switch r.Key.What {
		case count:
			n.Text = words.Count(int(r.Value), one)
		case "yield":
			n.Text += " used"
		}
		t.Numbers = append(t.Numbers, n)
	}
	p.Takes = append(p.Takes, t)
}
