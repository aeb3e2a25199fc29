package cutting

import (
	"math"
	"slices"
	"strings"

	"zapbarn/core/measure"
	"zapbarn/core/nest"
)

// Keep is what a plan keeps of a layout of these sheets.
func (s *Sheets) Keep(l nest.Layout) Layout {
	out := Layout{ID: s.Stock.ID}
	count := map[string]int{}
	for i, sh := range l.Sheets {
		for _, q := range sh.Placed {
			pin := Pin{
				Part:   s.Pieces[q.Part].Ref,
				Copy:   s.Pieces[q.Part].Copy,
				Sheet:  count[sh.Stock.ID],
				X:      exactly(q.X),
				Y:      exactly(q.Y),
				Turned: q.Turned,
				Flip:   q.Flip,
				Locked: s.Locked[q.Part],
				Cut:    i < s.Cut,
			}
			if id, ok := strings.CutPrefix(sh.Stock.ID, offcutKey); ok {
				pin.Offcut, pin.Sheet = id, 0
			}
			out.Pins = append(out.Pins, pin)
		}
		count[sh.Stock.ID]++
	}
	return out
}

// stays are the pins of the locked and the cut, but for one piece.
func (s *Sheets) stays(but int) (out []Pin) {
	for _, pin := range s.Keep(s.Layout).Pins {
		if (pin.Locked || pin.Cut) && (but < 0 || pin.Part != s.Pieces[but].Ref || pin.Copy != s.Pieces[but].Copy) {
			out = append(out, pin)
		}
	}
	return out
}

// CutAt keeps the layout with sheet i marked as cut: its parts stay on it, and
// nothing more is laid there. Rest is what is left of it, for the shelf; the
// error says that the sheet is cut already, or gone.
func (s *Sheets) CutAt(i int) (next Layout, rest []nest.Rect, err error) {
	if i < s.Cut || i >= len(s.Layout.Sheets) {
		return next, nil, measure.Bad("sheet", "that sheet is cut already, or gone; load the page again")
	}
	sh := s.Layout.Sheets[i]
	next = s.Keep(s.Layout)
	id, number := OffcutOf(sh.Stock), s.Number(i)
	if id != "" {
		number = 0
	}
	for k := range next.Pins {
		if q := &next.Pins[k]; q.Offcut == id && q.Sheet == number {
			q.Cut, q.Locked = true, false
		}
	}
	return next, sh.Offcuts, nil
}

// exactly is a place on a sheet to a ten-thousandth of a millimetre.
func exactly(mm float64) measure.Length {
	return measure.Of[measure.LengthKind](math.Round(mm*1e4) / 1e4)
}

// Move keeps the layout with one piece laid by hand: at the allowed place nearest
// to x, y of sheet i, clear of what is locked there. The rest is laid afresh.
// No reports that the piece has no room there.
func (set Set) Move(s *Sheets, piece, sheet int, x, y float64, turned, flip bool) (next Layout, ok bool, err error) {
	if piece < 0 || piece >= len(s.Pieces) || sheet < s.Cut || sheet >= len(s.Layout.Sheets) ||
		!slices.Contains(s.loose, piece) {
		return next, false, measure.Bad("piece", "that piece or sheet is cut already, or gone; load the page again")
	}
	sh := s.Layout.Sheets[sheet]
	var on []nest.Placed
	for _, q := range sh.Placed {
		if s.Locked[q.Part] && q.Part != piece {
			on = append(on, q)
		}
	}
	wish := nest.Placed{Part: piece, X: x, Y: y, Turned: turned, Flip: flip}
	q, ok := nest.Snap(s.Boxes, on, wish, sh.Stock, set.Options())
	if !ok {
		return next, false, nil
	}
	pin := Pin{
		Part:   s.Pieces[piece].Ref,
		Copy:   s.Pieces[piece].Copy,
		X:      exactly(q.X),
		Y:      exactly(q.Y),
		Turned: q.Turned,
		Flip:   q.Flip,
		Locked: true,
	}
	if pin.Offcut = OffcutOf(sh.Stock); pin.Offcut == "" {
		pin.Sheet = s.Number(sheet)
	}
	return Layout{ID: s.Stock.ID, Pins: append(s.stays(piece), pin)}, true, nil
}

// Loose keeps the layout with a locked piece let go, to be laid afresh; piece -1
// lets all of the stock go, but for what is cut.
func (s *Sheets) Loose(piece int) Layout {
	next := Layout{ID: s.Stock.ID}
	one := piece >= 0 && piece < len(s.Pieces)
	for _, pin := range s.stays(piece) {
		if pin.Cut || one {
			next.Pins = append(next.Pins, pin)
		}
	}
	return next
}
