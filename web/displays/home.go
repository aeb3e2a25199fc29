package displays

import (
	"context"
	"math"
	"time"

	"zapbarn/web/shell"

	"zapbarn/core/words"
	"zapbarn/store"

	"github.com/gin-gonic/gin"
)

// Shed is a display in the row of barns.
type Shed struct {
	Name, Href, Days, Worst string
}

func (s Room) List(c *gin.Context) { s.home(c, 200, nil, "") }

// freshTime is how long the list of displays waits for those not worked out
// since they changed; freshMost is how many it has worked out.
const freshTime, freshMost = 400 * time.Millisecond, 8

// freshen works out displays that were changed since they were worked out last,
// and takes what is done in time into the list. The rest goes on behind it.
func (s Room) freshen(ctx context.Context, list []store.Listing) {
	ctx, cancel := context.WithTimeout(ctx, freshTime)
	defer cancel()
	type fresh struct {
		i   int
		rev int64
		got store.Summary
	}
	day, under := s.Now().Format(time.DateOnly), 0
	done := make(chan fresh, len(list))
	for i, l := range list {
		if l.Seen.Rev == l.Rev && l.Seen.Day == day || under == freshMost {
			continue
		}
		under++
		go func() {
			if got, m, err := s.Worked(context.Background(), l.ID); err == nil {
				done <- fresh{i, m.Version.Rev, store.Summary{Rev: m.Version.Rev, Day: m.Day, Worst: got.Worst()}}
			}
		}()
	}
	for ; under > 0; under-- {
		select {
		case f := <-done:
			list[f.i].Seen, list[f.i].Rev = f.got, f.rev
		case <-ctx.Done():
			return
		}
	}
}

// Binned is a display in the bin, and how long it still lies there.
type Binned struct{ Name, ID, Left string }

// binned is what lies in the bin; what has lain there long enough goes first.
func (s Room) binned(ctx context.Context) (out []Binned, err error) {
	now := s.Now()
	if _, err := s.Store.EmptyOld(ctx, now); err != nil {
		return nil, err
	}
	list, err := s.Store.Bins(ctx)
	for _, b := range list {
		left := int(math.Ceil(b.At.AddDate(0, 0, store.BinDays).Sub(now).Hours() / 24))
		out = append(out, Binned{b.Name, b.ID, words.Count(left, "more day")})
	}
	return out, err
}

// home is the row of displays with the three questions and the import.
func (s Room) home(c *gin.Context, code int, entered map[string]string, problem string) {
	list, err := s.Store.List(c.Request.Context())
	if err != nil {
		s.Fail(c, err)
		return
	}
	s.freshen(c.Request.Context(), list)
	var sheds []Shed
	for _, l := range list {
		sh := Shed{Name: l.Name, Href: "/p/" + l.ID, Days: shell.DaysTo(l.Opens, s.Now()), Worst: l.Seen.Worst}
		switch {
		case l.Seen.Worst == "":
			sh.Worst = "not looked at yet"
		case l.Seen.Rev != l.Rev || l.Seen.Day != s.Now().Format(time.DateOnly):
			sh.Worst = "when last looked at, " + l.Seen.Worst
		}
		sheds = append(sheds, sh)
	}
	binned, err := s.binned(c.Request.Context())
	if err != nil {
		s.Fail(c, err)
		return
	}
	if entered == nil {
		entered = map[string]string{"units": "in", "opens": s.Now().AddDate(0, 0, 42).Format(time.DateOnly)}
	}
	s.Show(c, code, "home.html", gin.H{"Sheds": sheds, "Bin": binned, "Theme": shell.ThemeOf(c), "Title": "Displays",
		"V": entered, "Problem": problem, "Back": "/"})
}
