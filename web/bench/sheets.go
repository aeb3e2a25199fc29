package bench

import (
	"bytes"
	"encoding/json"
	"fmt"
	"html/template"
	"math"
	"net/http"
	"time"

	"zapbarn/web/shell"

	"zapbarn/core/check"
	"zapbarn/core/cutting"
	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/source"
	"zapbarn/core/words"
	"zapbarn/core/work"
	"zapbarn/web/draw"

	"github.com/gin-gonic/gin"
)

// Stock is one stock on the sheets way: what it takes, and what can be done.
type Stock struct {
	ID, Name           string
	Count, Used, Cost  shell.Result
	Kept, Hand         bool
	Cuts               []SheetButton // sheets not cut yet
	Searchable, Larger bool
}

// SheetButton marks one sheet as cut.
type SheetButton struct {
	Index int
	Name  string
}

func (s Room) sheetsWay() shell.Way {
	return shell.Way{
		ID:    "sheets",
		Title: "Sheets",
		Fill: shell.Showing(newView, func(_ *gin.Context, p *view, _ []check.Snag) error {
			p.Draw = template.HTML(draw.Sheets(p.Work, p.Prop, p.Sel, p.Here))
			p.stocks()
			p.ticket(p.partOf())
			return nil
		}),
	}
}

// stocks lists what the sheets way offers for the prop's stocks.
func (p *view) stocks() {
	w := p.Work
	for _, s := range w.Sheets() {
		mine := false
		for _, pc := range s.Pieces {
			mine = mine || w.Part(pc.Ref).Solid.Prop == p.Prop
		}
		if !mine {
			continue
		}
		r := func(what string) shell.Result {
			x := w.Results().At("stock", s.Stock.ID, what)
			return shell.Result{Key: source.KeyOf("stock", s.Stock.ID, what), Label: x.Label, Text: x.Text}
		}
		st := Stock{
			ID:         s.Stock.ID,
			Name:       s.Stock.Name,
			Count:      r("sheets"),
			Used:       r("yield"),
			Cost:       r("cost"),
			Kept:       s.Kept,
			Hand:       len(s.Locked) > 0,
			Searchable: len(s.Pieces)-len(s.Layout.TooLarge) > 1 && s.Cut < len(s.Layout.Sheets),
		}
		st.Count.Text = words.Count(int(w.Results().At("stock", s.Stock.ID, "sheets").Value), "new sheet")
		for i := s.Cut; i < len(s.Layout.Sheets); i++ {
			st.Cuts = append(st.Cuts, SheetButton{i, w.Called(s, i)})
		}
		p.Stocks = append(p.Stocks, st)
	}
	used := map[string]bool{}
	for _, s := range w.Sheets() {
		for i, sh := range s.Layout.Sheets {
			if o := w.Offcut(sh.Stock); o != nil && i < s.Cut {
				used[o.ID] = true
			}
		}
	}
	for _, o := range w.Plan.Offcuts() {
		if used[o.ID] {
			continue
		}
		p.Shelf = append(
			p.Shelf,
			shell.Row{
				Key:   "offcut:" + o.ID,
				Href:  p.Href("bench", p.Prop, "offcut:"+o.ID, "sheets"),
				Title: w.Lib.Materials[o.Stock].Name,
				Sub:   o.Label,
				Right: w.Len(o.W.Value()) + " x " + w.Len(o.H.Value()),
				On:    p.Sel == "offcut:"+o.ID,
			},
		)
	}
}

// sheetsOf is the layout a form speaks of.
func (s Room) sheetsOf(c *gin.Context) (*work.Work, *cutting.Sheets, bool) {
	w, _, err := s.Work(c.Request.Context(), c.Param("plan"))
	if err != nil {
		s.Fail(c, err)
		return nil, nil, false
	}
	var in struct {
		Stock string `form:"stock" binding:"required"`
	}
	if !s.Bind(c, &in) {
		return nil, nil, false
	}
	sh := w.SheetsOf(in.Stock)
	if sh == nil {
		s.Refused(c, shell.Over{Err: "Nothing is cut from that stock any more; look again.", Code: http.StatusConflict})
		return nil, nil, false
	}
	return w, sh, true
}

// Lay moves a piece by hand, lets it loose, or marks a sheet as cut.
func (s Room) Lay(c *gin.Context) {
	var in struct {
		Do     string  `form:"do"`
		Piece  *int    `form:"piece"`
		Sheet  *int    `form:"sheet"`
		X      float64 `form:"x"`
		Y      float64 `form:"y"`
		Turned string  `form:"turned"`
		Flip   string  `form:"flip"`
	}
	if !s.Bind(c, &in) {
		return
	}
	w, sh, ok := s.sheetsOf(c)
	if !ok {
		return
	}
	number := func(n *int) int {
		if n == nil {
			return -1
		}
		return *n
	}
	var e plan.Edit
	var err error
	switch in.Do {
	case "loose":
		e = w.Loose(sh, number(in.Piece))
	case "cut":
		e, err = w.CutSheet(sh, number(in.Sheet))
	default:
		if math.IsNaN(in.X) || math.IsNaN(in.Y) {
			err = measure.Bad("x", "is no place on a sheet")
		} else {
			e, err = w.Move(sh, number(in.Piece), number(in.Sheet), in.X, in.Y, in.Turned == "true",
				in.Flip == "true")
		}
	}
	if err != nil {
		_, msg := shell.FieldErrors(err)
		s.Refused(c, shell.Over{Err: msg})
		return
	}
	s.Apply(c, e, shell.Over{}, "")
}

// searchFor is how long a search goes on when nobody stops it, and how often
// it shows what it has.
const searchFor = 8 * time.Second

// searchTries is how many steps a search takes at most: for equal layouts from
// equal plans it is the steps that count, not the seconds.
const searchTries = 20_000

// Found is one message of a search.
type Found struct {
	Share  float64         `json:"share"` // of the search, 0 to 1
	Sheets int             `json:"sheets"`
	Used   string          `json:"used"`
	Left   string          `json:"left"` // the largest piece left of the last sheet
	Said   string          `json:"said"`
	Better bool            `json:"better"`
	Draw   string          `json:"draw,omitempty"`
	Layout json.RawMessage `json:"layout,omitempty"`
	Done   bool            `json:"done"`
}

// Searching looks for a tighter layout of a stock and streams the best so far as
// server-sent events. Closing the stream ends it; what was found is kept by
// sending it back.
func (s Room) Searching(c *gin.Context) {
	w, sh, ok := s.sheetsOf(c)
	if !ok {
		return
	}
	ctx, end, ok := s.Streamed(c)
	if !ok {
		return
	}
	defer end()
	prop := c.Query("prop")
	look := w.Cutting().Search(sh)
	start, shown := time.Now(), time.Time{}
	better := true
	for {
		done := look.Tries() >= searchTries || time.Since(start) > searchFor
		if done || time.Since(shown) > shell.SearchShows {
			shown = time.Now()
			best := look.Best()
			m := Found{
				Share:  max(float64(look.Tries())/searchTries, float64(time.Since(start))/float64(searchFor)),
				Sheets: len(best.Sheets),
				Used:   measure.Decimal(100*best.Yield(), 1) + " %",
				Better: better,
				Done:   done,
			}
			if n := len(best.Sheets); n > 0 && len(best.Sheets[n-1].Offcuts) > 0 {
				o := best.Sheets[n-1].Offcuts[0]
				m.Left = w.Len(o.W) + " x " + w.Len(o.H)
			}
			m.Said = fmt.Sprintf("%d sheets, %s used", m.Sheets, m.Used)
			if m.Left != "" {
				m.Said += ", largest piece left " + m.Left
			}
			if better || done {
				view := *sh
				view.Layout = best
				m.Draw = draw.SheetsOf(w, &view, prop)
				m.Layout, _ = json.Marshal(sh.Keep(best))
			}
			better = false
			if !shell.Sent(c, m) {
				return
			}
		}
		if done {
			return
		}
		select {
		case <-ctx.Done():
			return
		default:
		}
		for t := time.Now(); time.Since(t) < shell.SearchShows/4 && look.Tries() < searchTries; {
			better = look.Step(1) || better
		}
	}
}

// Keep stores a layout that a search found.
func (s Room) Keep(c *gin.Context) {
	var in struct {
		Layout string `form:"layout"`
	}
	if !s.Bind(c, &in) {
		return
	}
	w, sh, ok := s.sheetsOf(c)
	if !ok {
		return
	}
	var l plan.Layout
	d := json.NewDecoder(bytes.NewReader([]byte(in.Layout)))
	d.DisallowUnknownFields()
	if err := d.Decode(&l); err != nil || l.ID != sh.Stock.ID {
		s.Refused(c, shell.Over{Err: "That layout cannot be read; look for one again."})
		return
	}
	next := w.Plan.Clone()
	e := plan.Edit{Label: "keep a layout of " + sh.Stock.Name, Changes: []plan.Change{w.Plan.Put("layout", l.ID, l)}}
	if q, err := next.Apply(e); err == nil {
		if after := work.Do(q, s.Lib, s.Now()).SheetsOf(l.ID); after == nil || !after.Kept {
			s.Refused(
				c,
				shell.Over{
					Err:  "The plan changed while the search ran, so its layout no longer fits. Look again.",
					Code: http.StatusConflict,
				},
			)
			return
		}
	}
	s.Apply(c, e, shell.Over{}, "")
}
