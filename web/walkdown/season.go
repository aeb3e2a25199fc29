package walkdown

import (
	"zapbarn/core/check"
	"zapbarn/core/plan"
	"zapbarn/core/words"
	"zapbarn/web/shell"

	"github.com/gin-gonic/gin"
)

// CompareView is this display beside an earlier one.
type CompareView struct {
	With   string
	Others []shell.Option
	Groups []shell.Group
	Said   string
	None   bool
}

func (s Room) compareWay() shell.Way {
	return shell.Way{ID: "compare", Title: "Compare", NoSnags: true, Fill: shell.Showing(newView, s.compare)}
}

// compare lists what is different between this display and another, prop by prop.
func (s Room) compare(c *gin.Context, p *view, _ []check.Snag) error {
	v := &CompareView{With: p.Query.Get("with")}
	p.Compare = v
	list, err := s.Store.List(c.Request.Context())
	if err != nil {
		return err
	}
	for _, l := range list {
		if l.ID != p.PlanID {
			v.Others = append(v.Others, shell.Option{Value: l.ID, Text: l.Name, On: l.ID == v.With})
		}
	}
	if v.None = len(v.Others) == 0; v.None || v.With == "" {
		return nil
	}
	before, _, err := s.Store.Load(c.Request.Context(), v.With)
	if err != nil {
		return err
	}
	by := map[string]int{}
	all := p.Plan.Compare(before)
	for _, d := range all {
		from := p.Plan
		if d.Is == "gone" {
			from = before
		}
		title := "The display"
		if x := from.Prop(from.PropOf(d.Kind + ":" + d.ID)); x != nil {
			title = x.Name
		}
		k, ok := by[title]
		if !ok {
			k = len(v.Groups)
			by[title] = k
			v.Groups = append(v.Groups, shell.Group{Title: title})
		}
		v.Groups[k].Rows = append(v.Groups[k].Rows, shell.Row{Mark: d.Is, Title: d.Name, Right: d.Is})
	}
	v.Said = words.Count(len(all), "difference")
	return nil
}

// NextSeason begins the next season as a copy; the plan stays as it is.
func (s Room) NextSeason(c *gin.Context) {
	p, _, err := s.Store.Load(c.Request.Context(), c.Param("plan"))
	if err == nil {
		if p, err = s.Store.Whole(c.Request.Context(), p); err == nil {
			var id string
			var next *plan.Plan = p.NextSeason()
			if id, err = s.Store.CreateFresh(c.Request.Context(), next); err == nil {
				c.Redirect(303, "/p/"+id)
				return
			}
		}
	}
	s.Applied(c, err, shell.Over{}, "")
}
