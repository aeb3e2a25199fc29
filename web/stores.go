package web

import (
	"errors"
	"fmt"
	"net/http"
	"strings"

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

// storesPlace is what is needed against what is there, what is short and by when it must
// be ordered, and the money.
func (s *Server) storesPlace() place {
	return place{
		id: "stores", name: "Stores", hint: "price xps1 32",
		ways: []way{
			{id: "needs", title: "Needs", fill: showing(newStores, s.needs)},
			{id: "buy", title: "To buy", fill: showing(newStores, s.needs)},
		},
		link:    func(p *Page, to way) string { return p.href("stores", "", p.Sel, to.id) },
		working: "need", reached: needWorking,
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
func (s *Server) needs(_ *gin.Context, p *storesView, _ []check.Snag) error {
	list := stores.Of(p.Work)
	t := order.In(p.Work)
	v := &StoresView{Bin: p.Query.Get("bin")}
	p.Stores = v
	p.ShelfRead, _ = p.laid.(*formats.ShelfRead)
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
		p.Ticket = p.ticket(kind, id)
	}
	return nil
}

func needRow(p *storesView, t *order.Timetable, n *stores.Need) NeedRow {
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
		if bad, ok := p.entered[field+" "+n.What]; ok { // it stays as it was entered
			*text, r.Bad = bad, field
		}
	}
	return r
}

// stockIt keeps how much of a thing lies on the shelf, where, and how long it takes to come.
func (s *Server) stockIt(c *gin.Context) {
	what := c.PostForm("what")
	bad, why := map[string]string{}, ""
	_, err := s.store.Edit(c.Request.Context(), c.Param("plan"), editor(c), func(p *plan.Plan) (plan.Edit, error) {
		x := plan.Stocked{What: what}
		if was := p.StockedOf(what); was != nil {
			x = *was
		} else {
			x.ID = p.FreshID("stocked", what)
		}
		for _, f := range []struct {
			name string
			to   *string
		}{{"have", &x.Have}, {"bin", &x.Bin}, {"lead", &x.Lead}} {
			v, there := c.GetPostForm(f.name)
			if !there {
				continue
			}
			was := *f.to
			*f.to = strings.TrimSpace(v)
			if err := x.Check(); err != nil { // the others are stored
				bad[f.name+" "+what] = v
				_, why = fieldErrors(err)
				*f.to = was
			}
		}
		name := c.PostForm("name")
		if x.Have == "" && x.Bin == "" && x.Lead == "" {
			if p.StockedOf(what) == nil {
				if len(bad) > 0 {
					return plan.Edit{}, errNothingGood
				}
				return plan.Edit{}, errGone
			}
			return plan.Edit{
				Label:   "nothing of " + name + " on the shelf",
				Changes: []plan.Change{p.Drop("stocked", x.ID)},
			}, nil
		}
		return plan.Edit{Label: name + " on the shelf", Changes: []plan.Change{p.Put("stocked", x.ID, x)}}, nil
	})
	switch {
	case len(bad) > 0 && (err == nil || errors.Is(err, errNothingGood)):
		s.edited(c, c.Param("plan"))
		s.refused(c, over{values: bad, err: fmt.Sprintf("Not stored of %s: %s. What else you entered is stored.",
			c.PostForm("name"), why)})
	case err != nil:
		_, msg := fieldErrors(err)
		s.refused(c, over{err: "The shelf is as it was. " + measure.Capital(msg)})
	default:
		s.applied(c, nil, over{}, "")
	}
}

// bringShelf reads a table of the shelf and shows it; sent once more as it was shown, it is
// taken.
func (s *Server) bringShelf(c *gin.Context) {
	w, _, err := s.work(c.Request.Context(), c.Param("plan"))
	if err != nil {
		s.fail(c, err)
		return
	}
	data, take := []byte(c.PostForm("text")), c.PostForm("take") != ""
	if !take {
		if _, data, err = upload(c, "file", formats.MaxTableFile); err != nil {
			s.applied(c, err, over{}, "")
			return
		}
	}
	read, err := formats.ReadShelf(c.Request.Context(), data, w)
	if err != nil {
		s.applied(c, err, over{}, "")
		return
	}
	if !take {
		s.refused(c, over{laid: read, code: http.StatusOK})
		return
	}
	_, err = s.store.Edit(c.Request.Context(), c.Param("plan"), editor(c), func(p *plan.Plan) (plan.Edit, error) {
		return read.Edit(p), nil
	})
	s.applied(c, err, over{}, "")
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

// storesView is what the Stores shows.
type storesView struct {
	*Page
	Stores    *StoresView
	ShelfRead *formats.ShelfRead // a table of the shelf, before it is taken
}

func newStores(p *Page) *storesView { return &storesView{Page: p} }
