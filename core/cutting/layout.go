package cutting

import (
	"strings"

	"zapbarn/core/measure"
	"zapbarn/core/nest"
)

// Layout is how the parts of one stock lie on its sheets, as kept or as moved
// by hand. Its ID is the stock's.
type Layout struct {
	ID   string `json:"id"`
	Pins []Pin  `json:"pins" max:"20000"`
}

// Key is the stock.
func (x *Layout) Key() string { return x.ID }

// Called is what its edits are called.
func (x *Layout) Called() string { return "layout of " + x.ID }

// Pin is where one copy of a part lies: its box's lower left corner.
type Pin struct {
	Part   string         `json:"part" max:"260"` // solid/panel
	Copy   int            `json:"copy"`
	Offcut string         `json:"offcut,omitempty"` // which offcut of the shelf, or else
	Sheet  int            `json:"sheet"`            // which new sheet, from 0
	X      measure.Length `json:"x"`
	Y      measure.Length `json:"y"`
	Turned bool           `json:"turned,omitempty"` // by a quarter
	Flip   bool           `json:"flip,omitempty"`   // head to foot, before the turn
	Locked bool           `json:"locked,omitempty"` // laid by hand: the rest is laid round it
	Cut    bool           `json:"cut,omitempty"`    // its sheet is cut: nothing more is laid there
}

// Offcut is a piece of sheet on the shelf, used before a new one is opened.
type Offcut struct {
	ID    string         `json:"id"`
	Stock string         `json:"stock" label:"Stock" choose:"sheet"`
	W     measure.Length `json:"w" label:"Across"`
	H     measure.Length `json:"h" label:"Along the grain"` // along the grain or flutes
	Label string         `json:"label,omitempty" max:"80" label:"Label"`
}

// Key is its ID.
func (x *Offcut) Key() string { return x.ID }

// Called is what its edits are called.
func (x *Offcut) Called() string { return "offcut " + x.ID }

// offcutKey marks a stock that is an offcut of the shelf.
const offcutKey = "offcut:"

// OffcutOf is the ID of the offcut that a sheet of a layout is; "" when it is new.
func OffcutOf(s nest.Stock) string {
	id, _ := strings.CutPrefix(s.ID, offcutKey)
	if id == s.ID {
		return ""
	}
	return id
}
