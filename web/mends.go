package web

import (
	"context"
	"time"

	"zapbarn/core/check"
	"zapbarn/core/work"
)

// tryMends tries the mends of the snags a page shows, those in sight first, for
// as long as a page may take; the others say that theirs are still to be tried.
func (s *Server) tryMends(ctx context.Context, p *Page, mends *check.Prover) {
	ctx, cancel := context.WithTimeout(ctx, s.mendTime)
	defer cancel()
	watch := work.NewWatch(ctx, time.Now)
	try := func(v *SnagView) {
		kept, known := mends.Known(v.Snag)
		if !known && ctx.Err() == nil {
			var err error
			kept, err = mends.Mends(watch, v.Snag)
			known = err == nil
		}
		if v.Mends = kept; !known {
			v.Mends, v.Untried = nil, true
			p.Untried++
		}
	}
	for i := range p.Snags {
		try(&p.Snags[i])
	}
	for i := range p.Snags {
		for k := range p.Snags[i].Like {
			try(&p.Snags[i].Like[k])
		}
	}
}
