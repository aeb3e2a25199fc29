package walkdown

import (
	"fmt"

	"zapbarn/web/shell"

	"zapbarn/core/check"
	"zapbarn/core/plan"
	"zapbarn/core/words"
	"zapbarn/core/work"

	"github.com/gin-gonic/gin"
)

// CardsView are the cards to be worked before the first guest comes.
type CardsView struct {
	Rows    []CardRow
	Said    string
	Props   []shell.Link
	Of      string // the prop they are of; "" for all
	On      string
	PrintAt string
}

// CardRow is one card, as it was worked.
type CardRow struct {
	work.Trial
	Of   string
	Done *plan.Tried
	// of what was seen: its address
	Photo string
}

func (s Room) cardsWay() shell.Way {
	return shell.Way{
		ID:    "cards",
		Title: "Commission", NoSnags: true,
		Fill: shell.Showing(newView, func(_ *gin.Context, p *view, _ []check.Snag) error {
			p.proofs()
			p.Proofs.On = s.Now().Format("2006-01-02")
			return nil
		}),
	}
}

// proofs fills in the cards of all props, or of the one that is asked for.
func (p *view) proofs() {
	v := &CardsView{Of: p.Query.Get("of")}
	p.Proofs = v
	at := p.Href("walkdown", "", "", "cards")
	v.Props = []shell.Link{{Text: "All", Href: at, On: v.Of == ""}}
	for _, x := range p.Plan.Props() {
		v.Props = append(v.Props, shell.Link{Text: x.Name, Href: at + "&of=" + x.ID, On: v.Of == x.ID})
	}
	passed, failed := 0, 0
	for _, t := range p.Work.Trials(v.Of) {
		r := CardRow{Trial: t, Done: p.Plan.TriedAs(t.At, t.What)}
		if t.Prop != "" {
			r.Of = p.NameOf("prop:" + t.Prop)
		}
		if r.Done != nil {
			if x, _ := p.Plan.Get("photo", r.Done.Photo); r.Done.Photo != "" && x != nil {
				r.Photo = "/p/" + p.PlanID + "/photo/" + x.(*plan.Photo).Sum
			}
			if failed++; r.Done.Passed {
				passed++
				failed--
			}
		}
		v.Rows = append(v.Rows, r)
	}
	v.Said = fmt.Sprintf("%s, %d as expected, %d not", words.Count(len(v.Rows), "card"), passed, failed)
	v.PrintAt = "/p/" + p.PlanID + "/commission.pdf"
	if v.Of != "" {
		v.PrintAt += "?prop=" + v.Of
	}
}
