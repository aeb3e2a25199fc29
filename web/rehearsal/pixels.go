package rehearsal

import (
	"bytes"
	"fmt"
	"image"
	"image/color"
	"image/png"
	"net/http"

	"zapbarn/core/measure"
	"zapbarn/core/pixel"
	"zapbarn/core/plan"
	"zapbarn/core/stock"
	"zapbarn/core/wiring"
	"zapbarn/core/work"

	"github.com/gin-gonic/gin"
)

// PixelView is what a string of pixels shows, and what it takes.
type PixelView struct{ ID, Name, Picture, Src, Says, Href string }

// shows are the strings of a prop that show a picture.
func (p *view) shows() (out []PixelView) {
	for i := range p.Plan.Devices() {
		d := &p.Plan.Devices()[i]
		l := p.Work.Lib.Lamps[d.Product]
		if d.Prop != p.Prop || d.Picture == "" || l.Kind != "pixels" && l.Columns == 0 {
			continue
		}
		if l.Columns > 0 {
			says := fmt.Sprintf(
				"%d by %d, a second and a quarter from one to the next; shown whole %s, each row %s; %s in the Loom.",
				l.Columns,
				l.Rows,
				p.Work.Results().At("device", d.ID, "refresh").Text,
				p.Work.Results().At("device", d.ID, "duty").Text,
				measure.Amps(wiring.RatedAmps(d, p.Work.Lib)),
			)
			out = append(
				out,
				PixelView{d.ID, d.Name, d.Picture, "/p/" + p.PlanID + "/pixels.png?device=" + d.ID, says,
					p.Href("loom", p.Prop, "device:"+d.ID, "")},
			)
			continue
		}
		n := wiring.Segments(d, p.Work.Lib)
		share := wiring.Picture(d, p.Work.Lib)
		out = append(out, PixelView{d.ID, d.Name, d.Picture, "/p/" + p.PlanID + "/pixels.png?device=" + d.ID,
			measure.Decimal(
				float64(n),
				0,
			) + " pixels, ten seconds from top to bottom; " + measure.Decimal(
				share*100,
				0,
			) +
				" % of full white at most, " + measure.Amps(
				wiring.RatedAmps(d, p.Work.Lib),
			) + " in the Loom.",
			p.Href("loom", p.Prop, "device:"+d.ID, "")})
	}
	return out
}

// pixelTimes is how many moments a picture is drawn at, a tenth of a second apart.
const pixelTimes = 100

// Pixels draws what a string shows: a column a pixel, a row a tenth of a second.
func (s Room) Pixels(c *gin.Context) {
	w, open := s.Open(c)
	if !open {
		return
	}
	d := w.Device(c.Query("device"))
	if d == nil || d.Picture == "" || w.Lib.Lamps[d.Product].Kind != "pixels" && w.Lib.Lamps[d.Product].Columns == 0 {
		s.Trouble(
			c,
			http.StatusNotFound,
			"There is no such picture",
			"The string was taken away. Go back and look again.",
		)
		return
	}
	var b bytes.Buffer
	if err := png.Encode(&b, picture(w, d)); err != nil {
		s.Fail(c, err)
		return
	}
	c.Data(http.StatusOK, "image/png", b.Bytes())
}

// eyeFrames are how many moments a matrix is drawn at, side by side and one below the other.
const eyeFrames, eyeAcross, eyeApart = 8, 4, 1250

// eyes draws a matrix's picture at some moments.
func eyes(l *stock.Lamp, hue pixel.Colour) image.Image {
	wide, high := l.Columns+4, l.Rows+4
	img := image.NewRGBA(image.Rect(0, 0, eyeAcross*wide, eyeFrames/eyeAcross*high))
	for f := range eyeFrames {
		x, y := f%eyeAcross*wide+2, f/eyeAcross*high+2
		for row := range l.Rows {
			for col := range l.Columns {
				k := pixel.Eye(col, row, l.Columns, l.Rows, f*eyeApart+300)
				img.SetRGBA(x+col, y+row, color.RGBA{uint8(float64(hue.R) * k), uint8(float64(hue.G) * k),
					uint8(float64(hue.B) * k), 255})
			}
		}
	}
	return img
}

func picture(w *work.Work, d *plan.Device) image.Image {
	n := min(wiring.Segments(d, w.Lib), 600)
	hue, err := pixel.Read(d.Colour)
	if err != nil {
		hue = pixel.Names["white"]
	}
	if l := w.Lib.Lamps[d.Product]; l.Columns > 0 {
		return eyes(&l, hue)
	}
	img := image.NewRGBA(image.Rect(0, 0, n, pixelTimes))
	for t := range pixelTimes {
		for i := range n {
			q := pixel.Picture(d.Picture).At(hue, i, n, t*100)
			img.SetRGBA(i, t, color.RGBA{q.R, q.G, q.B, 255})
		}
	}
	return img
}
