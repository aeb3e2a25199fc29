package shell

import (
	"context"
	"net/url"
	"time"

	"zapbarn/core/check"
	"zapbarn/core/work"
)

// tryMends tries the mends of the snags a page shows, those in sight first, for
// as long as a page may take; the others say that theirs are still to be tried.
// A page that does not ask for all starts none after its first moment.
func (s *Site) tryMends(ctx context.Context, p *Page, mends *check.Prover, all bool) {
	within := s.MendTime
	if !all {
		within = min(within, s.First)
	}
	ctx, cancel := context.WithTimeout(ctx, within)
	defer cancel()
	watch := work.NewWatch(ctx, time.Now)
	try := func(v *SnagView) {
		if v.Waived != nil {
			return // it shows none
		}
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

// allMends is what an address says that wants every mend tried.
const allMends = "mends"

// asksMends is a page's address without that, and whether it was there.
func asksMends(u *url.URL) (*url.URL, bool) {
	q := u.Query()
	if !q.Has(allMends) {
		return u, false
	}
	q.Del(allMends)
	bare := *u
	bare.RawQuery = q.Encode()
	return &bare, true
}

// WithMends is the page's address that has every mend tried first.
func (p *Page) WithMends() string {
	u, err := url.Parse(p.Back)
	if err != nil {
		return p.Back
	}
	q := u.Query()
	q.Set(allMends, "all")
	u.RawQuery = q.Encode()
	return u.String()
}
