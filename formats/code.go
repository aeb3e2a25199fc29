package formats

import (
	"rsc.io/qr"
)

// quiet is the clear edge of a code, in its modules (ISO/IEC 18004: four).
const quiet = 4

// code prints a QR code of a text, so many mm wide with its clear edge, with its upper left
// corner at a point. A text too long for one is left out.
func (d *document) code(x, y, wide float64, text string) {
	c, err := qr.Encode(text, qr.M)
	if err != nil {
		return
	}
	k := wide / float64(c.Size+2*quiet)
	d.SetFillColor(0, 0, 0)
	for row := range c.Size {
		for col := 0; col < c.Size; col++ {
			run := 0
			for c.Black(col+run, row) && col+run < c.Size {
				run++
			}
			if run > 0 {
				d.Rect(x+float64(quiet+col)*k, y+float64(quiet+row)*k, float64(run)*k, k, "F")
				col += run
			}
		}
	}
}
