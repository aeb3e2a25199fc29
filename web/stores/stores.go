package stores

import (
	"errors"
	"fmt"
	"net/http"
	"strings"

	"zapbarn/web/shell"

	"zapbarn/core/calendar"
	"zapbarn/core/check"
	"zapbarn/core/measure"
	"zapbarn/core/order"
	"zapbarn/core/plan"
	"zapbarn/core/source"
	"zapbarn/core/stores"
	"zapbarn/core/work"
	"zapbarn/formats"

	"github.com/gin-gonic/gin"
)

// Place is what is needed against what is there, what is short and by when it must
// be ordered, and the money.
func (s Room) Place() shell.Place {
	return shell.Place{
		ID: "stores", Name: "Stores", Hint: "price xps1 32",
		Ways: []shell.Way{
			{ID: "needs", Title: "Needs", Fill: shell.Showing(newView, s.needs)},
			{ID: "buy", Title: "To buy", Fill: shell.Showing(newView, s.needs)},
		},
		Link:    func(p *shell.Page, to shell.Way) string { return p.Href("stores", "", p.Sel, to.ID) },
		Working: "need", Reached: needWorking,
	}
}

// StoresView is what the Stores show.
type StoresView struct {
	Rows    []NeedRow
	Total   string
	Unknown int
	Short   int
	Spend   []DayTasksOf
	Shares  []MoneyRow // what of it is each prop's
	Bin     string     // whose things alone are shown
}

// MoneyRow is a prop's share of the money.
type MoneyRow struct{ Prop, Goods, Ship, All string }

// DayTasksOf are the things to order on a day.
type DayTasksOf struct {
	Day  string
	Late bool
	Rows []NeedRow
	Cost string
}

// NeedRow is one thing that is needed, as it is shown.
type NeedRow struct {
	*stores.Need
	Key      source.Key
	Uses     string
	Has      string
	Misses   string
	Buy      string
	Money    string
	By       string
	Late     bool
	Share    int // of what is wanted that is there, per cent
	HaveText string
	BinText  string
	LeadText string
	Bad      string // the field that could not be stored
	For      string
}

// needs fills in what is needed.
func (s Room) needs(_ *gin.Context, p *view, _ []check.Snag) error {
	list := stores.Of(p.Work)
	t := order.In(p.Work)
	v := &StoresView{Bin: p.Query.Get("bin")}
	p.Stores = v
	p.ShelfRead, _ = p.Laid.(*formats.ShelfRead)
	_, unknown := stores.Total(list)
	v.Total, v.Unknown = stores.Money(p.Work, list).Text, unknown
	for _, x := range stores.Shares(p.Work, list) {
		v.Shares = append(v.Shares, MoneyRow{x.Prop.Name, fmt.Sprintf("$%.2f", x.Goods), fmt.Sprintf("$%.2f", x.Ship),
			fmt.Sprintf("$%.2f", x.Goods+x.Ship)})
	}
	byDay := map[int]*DayTasksOf{}
	var days []int
	for _, n := range list {
		r := needRow(p, t, n)
		if n.Packs > 0 {
			v.Short++
		}
		if v.Bin == "" || r.BinText == v.Bin {
			v.Rows = append(v.Rows, r)
		}
		if n.Packs == 0 {
			continue
		}
		d := n.OrderBy / calendar.Day
		if n.OrderBy < 0 {
			d = -1
		}
		if byDay[d] == nil {
			byDay[d] = &DayTasksOf{Day: r.By, Late: d < 0}
			if d < 0 {
				byDay[d].Day = "should be on its way by now"
			}
			days = append(days, d)
		}
		byDay[d].Rows = append(byDay[d].Rows, r)
	}
	for _, d := range days {
		sum := 0.0
		for _, r := range byDay[d].Rows {
			sum += r.Cost
		}
		byDay[d].Cost = fmt.Sprintf("$%.2f", sum)
		v.Spend = append(v.Spend, *byDay[d])
	}
	kind, id, _ := strings.Cut(p.Sel, ":")
	if kind == "delivery" {
		p.Ticket = p.TicketOf(kind, id)
	}
	return nil
}

func needRow(p *view, t *order.Timetable, n *stores.Need) NeedRow {
	r := NeedRow{Need: n, Key: source.KeyOf("need", n.What, "packs"), Uses: stores.Amount(n.Wanted(), n.Unit),
		Has: stores.Amount(n.Have, n.Unit), For: strings.Join(n.Props, ", "), Share: 100}
	if n.Wanted() > 0 {
		r.Share = int(min(100, 100*n.Have/n.Wanted()))
	}
	if n.Packs > 0 {
		r.Misses = stores.Amount(n.Short(), n.Unit)
		r.Buy, r.Money = n.ToBuy(), n.Asks()
		switch {
		case n.First < 0:
			r.By = "when it is wanted is not known"
		case n.OrderBy < 0:
			r.By, r.Late = "late: by "+t.At(n.OrderBy).Format("Mon Jan 2"), true
		default:
			r.By = "by " + t.At(n.OrderBy).Format("Mon Jan 2")
		}
	}
	r.LeadText = fmt.Sprint(n.Lead)
	if n.On != nil {
		r.HaveText, r.BinText = n.On.Have, n.On.Bin
	}
	for field, text := range map[string]*string{"have": &r.HaveText, "bin": &r.BinText, "lead": &r.LeadText} {
		if bad, ok := p.EnteredAs(field + " " + n.What); ok { // it stays as it was entered
			*text, r.Bad = bad, field
		}
	}
	return r
}

// stocking is what a form says of a thing on the shelf: of the fields it sent, what is entered.
type stocking struct {
	What string  `form:"what" binding:"required"`
	Name string  `form:"name"`
	Have *string `form:"have"`
	Bin  *string `form:"bin"`
	Lead *string `form:"lead"`
}

// into puts what was sent into an entry, field by field: what could not be taken, and why.
func (in stocking) into(x *plan.Stocked) (bad map[string]string, why string) {
	bad = map[string]string{}
	for _, f := range []struct {
		name string
		to   *string
		sent *string
	}{{"have", &x.Have, in.Have}, {"bin", &x.Bin, in.Bin}, {"lead", &x.Lead, in.Lead}} {
		if f.sent == nil {
			continue
		}
		was := *f.to
		*f.to = strings.TrimSpace(*f.sent)
		if err := x.Check(); err != nil { // the others are stored
			bad[f.name+" "+in.What] = *f.sent
			_, why = shell.FieldErrors(err)
			*f.to = was
		}
	}
	return bad, why
}

// StockIt keeps how much of a thing lies on the shelf, where, and how long it takes to come.
func (s Room) StockIt(c *gin.Context) {
	var in stocking
	if !s.Bind(c, &in) {
		return
	}
	what, name := in.What, in.Name
	var bad map[string]string
	why := ""
	err := s.Change(c, func(p *plan.Plan) (plan.Edit, error) {
		x := plan.Stocked{What: what}
		if was := p.StockedOf(what); was != nil {
			x = *was
		} else {
			x.ID = p.FreshID("stocked", what)
		}
		bad, why = in.into(&x)
		if x.Have == "" && x.Bin == "" && x.Lead == "" {
			if p.StockedOf(what) == nil {
				if len(bad) > 0 {
					return plan.Edit{}, shell.ErrNothingGood
				}
				return plan.Edit{}, shell.ErrGone
			}
			return plan.Edit{
				Label:   "nothing of " + name + " on the shelf",
				Changes: []plan.Change{p.Drop("stocked", x.ID)},
			}, nil
		}
		return plan.Edit{Label: name + " on the shelf", Changes: []plan.Change{p.Put("stocked", x.ID, x)}}, nil
	})
	switch {
	case len(bad) > 0 && (err == nil || errors.Is(err, shell.ErrNothingGood)):
		s.Edited(c, c.Param("plan"))
		s.Refused(c, shell.Over{Values: bad, Err: fmt.Sprintf("Not stored of %s: %s. What else you entered is stored.",
			in.Name, why)})
	case err != nil:
		_, msg := shell.FieldErrors(err)
		s.Refused(c, shell.Over{Err: "The shelf is as it was. " + measure.Capital(msg)})
	default:
		s.Applied(c, nil, shell.Over{}, "")
	}
}

// BringShelf reads a table of the shelf and shows it; sent once more as it was shown, it is
// taken.
func (s Room) BringShelf(c *gin.Context) {
	var in struct {
		Text string `form:"text"`
		Take string `form:"take"`
	}
	w, open := s.OpenWith(c, &in)
	if !open {
		return
	}
	data, take := []byte(in.Text), in.Take != ""
	if !take {
		var err error
		if _, data, err = shell.Upload(c, "file", formats.MaxTableFile); err != nil {
			s.Applied(c, err, shell.Over{}, "")
			return
		}
	}
	read, err := formats.ReadShelf(c.Request.Context(), data, w)
	if err != nil {
		s.Applied(c, err, shell.Over{}, "")
		return
	}
	if !take {
		s.Refused(c, shell.Over{Laid: read, Code: http.StatusOK})
		return
	}
	err = s.Change(c, func(p *plan.Plan) (plan.Edit, error) {
		return read.Edit(p), nil
	})
	s.Applied(c, err, shell.Over{}, "")
}

// needWorking is how a need came about.
func needWorking(w *work.Work, k source.Key) (source.Result, bool) {
	all := stores.Of(w)
	if k.ID == "all" {
		return stores.Money(w, all), true
	}
	for _, n := range all {
		if n.What == k.ID {
			r := source.Num(n.Name+", to buy", float64(n.Packs), "", fmt.Sprint(n.Packs))
			r.Steps = n.Steps
			return r, true
		}
	}
	return source.Result{}, false
}

// view is what the Stores shows.
type view struct {
	*shell.Page
	Stores    *StoresView
	ShelfRead *formats.ShelfRead // a table of the shelf, before it is taken
}

func newView(p *shell.Page) *view { return &view{Page: p} }
