package yard

import (
	"fmt"
	"strings"

	"zapbarn/core/check"
	"zapbarn/core/measure"
	"zapbarn/core/words"

	"github.com/gin-gonic/gin"
)

// StrikeView is what comes down, piece by piece.
type StrikeView struct {
	Rows  []StrikeRow
	Total string
	Asks  string // what is not said yet
	Boxes []BoxRow
}

// BoxRow is a box that goes along.
type BoxRow struct{ Name, Mass, Holds string }

// StrikeRow is one piece.
type StrikeRow struct {
	No                     int
	Prop, Name, Size, Mass string
	Door, Car, Shelf       string // goes, does not, or is not asked
	Box                    string
	Href                   string
	TooLarge               bool
}

func (s Room) strikeFill(_ *gin.Context, p *view, _ []check.Snag) error {
	d := p.Plan.Display()
	v := &StrikeView{}
	p.Strike = v
	fits := func(known, does bool) string {
		switch {
		case !known:
			return ""
		case does:
			return "goes"
		}
		return "too large"
	}
	kg, count := 0.0, 0
	pieces := p.Work.Pieces()
	boxes, of := p.Work.Boxed(pieces)
	for _, b := range boxes {
		v.Boxes = append(v.Boxes, BoxRow{b.Name(), measure.Kilograms(b.Mass), strings.Join(b.Holds, "; ")})
	}
	for i, x := range pieces {
		r := StrikeRow{No: i + 1, Prop: x.Prop.Name, Name: x.Name(), Mass: measure.Kilograms(x.Mass),
			Href: p.Href("bench", x.Prop.ID, "solid:"+x.Solids[0].ID, "whole")}
		if n := len(x.Solids) - 1; n > 0 {
			r.Name += " and " + words.Count(n, "more")
		}
		r.Size = fmt.Sprintf("%s x %s x %s", p.Work.Len(x.Size[0]), p.Work.Len(x.Size[1]), p.Work.Len(x.Size[2]))
		r.Door = fits(!d.DoorWide.IsZero() && !d.DoorHigh.IsZero(), x.Through(d.DoorWide.Value(), d.DoorHigh.Value()))
		r.Car = fits(!d.CarLong.IsZero() && !d.CarWide.IsZero() && !d.CarHigh.IsZero(),
			x.Into(d.CarLong.Value(), d.CarWide.Value(), d.CarHigh.Value()))
		r.Shelf = fits(
			!d.ShelfDeep.IsZero() && !d.ShelfHigh.IsZero(),
			x.Through(d.ShelfDeep.Value(), d.ShelfHigh.Value()),
		)
		r.TooLarge = r.Door == "too large" || r.Car == "too large"
		if b := of[x]; b != nil {
			r.Box = b.Name()
		}
		kg += x.Mass
		count += x.Copies
		v.Rows = append(v.Rows, r)
	}
	v.Total = words.Count(count, "piece") + ", " + measure.Kilograms(kg)
	if d.CarLong.IsZero() || d.ShelfDeep.IsZero() || d.DoorWide.IsZero() {
		v.Asks = "Say the size of the door, the car and the shelf on the display's ticket below."
	}
	p.Ticket = p.TicketOf("display", d.ID)
	return nil
}
