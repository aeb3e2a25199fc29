package walkdown

import (
	"time"

	"zapbarn/web/shell"

	"zapbarn/core/check"
	"zapbarn/core/work"

	"github.com/gin-gonic/gin"
)

// historyWay is which edit raised a snag, and which one mended it.
func (s Room) historyWay() shell.Way {
	return shell.Way{ID: "history", Title: "History", NoSnags: true, Fill: shell.Showing(newView, s.history)}
}

// lookedBack is over how many edits snags are looked for: each takes as long as an edit.
const lookedBack = 20

// SnagTurn is what an edit changed about the snags.
type SnagTurn struct {
	When, Who, Label string
	New, Gone        []string
	Stands           int // snags after it
}

// history takes the latest edits back one by one and tells what each raised and mended.
func (s Room) history(c *gin.Context, p *view, snags []check.Snag) error {
	past, err := s.Store.Past(c.Request.Context(), p.PlanID, lookedBack)
	if err != nil {
		return err
	}
	now := snags
	at := p.Work
	found, err := check.Find(nil, at)
	if err != nil {
		return err
	}
	watch := work.NewWatch(c.Request.Context(), time.Now)
	for _, e := range past {
		was, err := at.Plan.Apply(e.Edit.Inverse())
		if err != nil {
			break // what stands there is not what the edit left: no further back
		}
		w, err := work.DoFrom(at, watch, was, s.Lib, s.Now())
		if err != nil {
			return err
		}
		if found, err = check.Find(found, w); err != nil {
			return err
		}
		t := SnagTurn{When: e.At.Format("Mon Jan 2 15:04"), Who: e.Who, Label: e.Label, Stands: len(now)}
		t.New, t.Gone = turned(found.Snags, now)
		p.History = append(p.History, t)
		now, at = found.Snags, w
	}
	return nil
}

// turned are the titles of snags that are there after and were not before, and the other
// way round; one that is waived counts as gone.
func turned(before, after []check.Snag) (raised, gone []string) {
	open := func(list []check.Snag) map[string]check.Snag {
		out := map[string]check.Snag{}
		for _, s := range list {
			if s.Waived == nil {
				out[s.ID()] = s
			}
		}
		return out
	}
	was, is := open(before), open(after)
	for _, s := range after {
		if _, ok := was[s.ID()]; !ok && s.Waived == nil {
			raised = append(raised, s.Level.String()+": "+s.Title)
		}
	}
	for _, s := range before {
		if _, ok := is[s.ID()]; !ok && s.Waived == nil {
			gone = append(gone, s.Level.String()+": "+s.Title)
		}
	}
	return raised, gone
}
