package barn

import (
	"fmt"
	"slices"
	"strings"

	"zapbarn/web/shell"

	"zapbarn/core/check"
	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/stock"
	"zapbarn/formats"

	"github.com/gin-gonic/gin"
)

// ShopRow is one entry of the shop as this plan has it.
type ShopRow struct {
	Table, ID, Name, Says string
	Own                   bool   // changed or added by this plan
	Href                  string // to its ticket, when it is
	On                    bool
}

// ShopTable is one list of the shop.
type ShopTable struct {
	Name string
	Rows []ShopRow
}

func (s Room) shopWay() shell.Way {
	return shell.Way{ID: "shop", Title: "Shop", Fill: shell.Showing(newView, s.shop)}
}

// shop shows the lists of the shop; what this plan changed has a ticket.
func (s Room) shop(_ *gin.Context, p *view, _ []check.Snag) error {
	w := p.Work
	own := map[string]bool{}
	for _, g := range w.Plan.Goods() {
		own[g.ID] = true
	}
	find := strings.ToLower(strings.TrimSpace(p.Query.Get("find")))
	p.Find = p.Query.Get("find")
	add := func(t *ShopTable, table, id, name string, says ...string) {
		r := ShopRow{Table: table, ID: id, Name: name, Own: own[plan.GoodID(table, id)]}
		r.Says = strings.Join(slices.DeleteFunc(says, func(x string) bool { return x == "" }), ", ")
		if find != "" && !strings.Contains(strings.ToLower(id+" "+name), find) {
			return
		}
		if r.Own {
			key := "good:" + plan.GoodID(table, id)
			r.Href, r.On = p.Href("barn", "", key, "shop"), p.Sel == key
		}
		t.Rows = append(t.Rows, r)
	}
	p.Shop = shopTables(w.Lib, add)
	kind, id, _ := strings.Cut(p.Sel, ":")
	if kind == "good" {
		p.Ticket = p.TicketOf(kind, id)
	}
	return nil
}

func dollars(x float64) string {
	if x == 0 {
		return ""
	}
	return fmt.Sprintf("$%.2f", x)
}

// shopTables are all goods of the shop, a table each kind.
func shopTables(l *stock.Library, add func(t *ShopTable, table, id, name string, says ...string)) []ShopTable {
	m := ShopTable{Name: "Materials"}
	for _, id := range stock.IDs(l.Materials) {
		x := l.Materials[id]
		size := ""
		if x.Form == "sheet" {
			size = x.Sheet[0].String() + " x " + x.Sheet[1].String()
		}
		add(&m, "material", id, x.Name, size, fmt.Sprintf("%g kg/m3", x.Density), dollars(x.Price))
	}
	g := ShopTable{Name: "Glues"}
	for _, id := range stock.IDs(l.Glues) {
		add(&g, "glue", id, l.Glues[id].Name, "full after "+l.Glues[id].Full.String())
	}
	c := ShopTable{Name: "Coats"}
	for _, id := range stock.IDs(l.Coats) {
		x := l.Coats[id]
		add(&c, "coat", id, x.Name, fmt.Sprintf("%g m2/L", x.Coverage), "again after "+x.Recoat.String())
	}
	a := ShopTable{Name: "Lamps and loads"}
	for _, id := range stock.IDs(l.Lamps) {
		x := l.Lamps[id]
		add(&a, "lamp", id, x.Name, measure.Volts(x.Volts), measure.Amps(x.Amps))
	}
	u := ShopTable{Name: "Supplies"}
	for _, id := range stock.IDs(l.Supplies) {
		x := l.Supplies[id]
		add(&u, "supply", id, x.Name, measure.Volts(x.Volts), measure.Amps(x.Amps), dollars(x.Price))
	}
	return []ShopTable{m, g, c, a, u}
}

// BringGoods takes a file of goods into the plan's shop.
func (s Room) BringGoods(c *gin.Context) {
	_, data, err := shell.Upload(c, "file", formats.MaxTableFile)
	if err != nil {
		s.Applied(c, err, shell.Over{}, "")
		return
	}
	goods, err := formats.ReadGoods(c.Request.Context(), data)
	if err != nil {
		s.Applied(c, err, shell.Over{}, "")
		return
	}
	err = s.Change(c, goods.Edit)
	s.Applied(c, err, shell.Over{}, "")
}
