package check

import (
	"time"

	"zapbarn/core/plan"
	"zapbarn/core/stock"
	"zapbarn/core/work"
)

// Report is a plan worked out with its snags, worst first.
type Report struct {
	Work    *work.Work
	Snags   []Snag
	Untried int // snags whose mends were not tried in time, and are left out
}

// ReportOf works a plan out, runs every rule and tries every mend, within a watch. The error
// is *work.TooHeavy where the plan or its rules took longer than that; mends that were not
// tried in time are left out and counted. A nil watch lets it take what it takes.
func ReportOf(watch *work.Watch, p *plan.Plan, lib *stock.Library, today time.Time) (*Report, error) {
	w, err := work.DoFrom(nil, watch, p, lib, today)
	if err != nil {
		return nil, err
	}
	found, err := Find(nil, w)
	if err != nil {
		return nil, err
	}
	r := &Report{Work: w, Snags: found.Snags}
	if r.Snags == nil {
		r.Snags = []Snag{}
	}
	prover := NewProver(w, r.Snags)
	for i := range r.Snags {
		kept, err := prover.Mends(watch, r.Snags[i])
		if err != nil {
			r.Untried++
		}
		r.Snags[i].Mends = kept
	}
	return r, nil
}
