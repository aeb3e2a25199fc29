package draw

import "math"

// Why draws what a rule is about: "" for a picture that is none of these.
func Why(name string) string {
	d, ok := whyPictures[name]
	if !ok {
		return ""
	}
	c := New(360, 150, false)
	d.draw(c)
	return c.SVG("why", d.label, d.label)
}

type whyPicture struct {
	label string
	draw  func(c *Canvas)
}

// ring is a circle, as points.
func ring(x, y, r float64) (out []XY) {
	for k := range 40 {
		s, co := math.Sincos(2 * math.Pi * float64(k) / 40)
		out = append(out, XY{x + r*co, y + r*s})
	}
	return out
}

func (c *Canvas) block(x, y, w, h float64, text string) {
	c.Rect("box", x, y, w, h)
	if text != "" {
		c.Text("t lbl", "middle", x+w/2, y+h/2+5, text)
	}
}

// through is a line through points.
func (c *Canvas) through(class string, p []XY) {
	for i := 1; i < len(p); i++ {
		c.Line(class, p[i-1].X, p[i-1].Y, p[i].X, p[i].Y)
	}
}

// lamps are three in a row on a wire, each with less light than the one before.
func (c *Canvas) lamps(x, y float64, lit [3]string) {
	for k, l := range lit {
		c.Poly("lampbox l-"+l, ring(x+float64(k)*60, y, 14))
	}
}

var whyPictures = map[string]whyPicture{
	"calendar": {"Work and waits one after the other, past the day of the opening", func(c *Canvas) {
		c.Rect("hand", 20, 30, 60, 22)
		c.Rect("wait", 80, 30, 90, 22)
		c.Rect("hand", 170, 62, 50, 22)
		c.Rect("wait", 220, 62, 100, 22)
		c.Line("ground", 20, 110, 340, 110)
		c.Poly("door", []XY{{270, 110}, {270, 34}, {285, 22}, {300, 34}, {300, 110}})
		c.Text("t soft", "middle", 285, 128, "opening")
		c.Text("t soft", "middle", 120, 128, "solid is hands, hatched is drying")
	}},
	"wire": {"A supply, its wire, and lamps that fade along it", func(c *Canvas) {
		c.block(20, 50, 70, 50, "supply")
		c.Line("rail", 90, 75, 335, 75)
		c.lamps(160, 75, [3]string{"lit", "lit", "dim"})
		c.Text("t soft", "middle", 220, 125, "what the wire eats, the last lamp lacks")
	}},
	"fuse": {"A fuse near the supply guards all the wire behind it", func(c *Canvas) {
		c.block(20, 50, 70, 50, "supply")
		c.Line("rail", 90, 75, 335, 75)
		c.block(115, 62, 46, 26, "fuse")
		c.Line("limit", 240, 60, 262, 92)
		c.Line("limit", 262, 60, 240, 92)
		c.Text("t soft", "middle", 251, 118, "a short here blows the fuse, not the wire")
	}},
	"battery": {"Cells that give less each hour and in the cold", func(c *Canvas) {
		for k := range 4 {
			c.Rect("box", 24+float64(k)*40, 60, 34, 44)
			c.Rect("box", 36+float64(k)*40, 52, 10, 8)
			h := 34 - float64(k)*9
			c.Rect("live", 28+float64(k)*40, 100-h, 26, h)
		}
		c.Line("limit", 200, 90, 335, 90)
		c.through("edge", []XY{{200, 40}, {240, 48}, {290, 60}, {318, 84}, {330, 118}})
		c.Text("t soft", "middle", 268, 136, "hours of the night")
	}},
	"pixels": {"Pixels need power, data and one common ground", func(c *Canvas) {
		c.block(20, 40, 80, 70, "controller")
		c.block(230, 52, 110, 46, "pixels")
		c.Line("warm", 100, 58, 230, 62)
		c.Text("t soft", "middle", 165, 50, "data")
		c.Line("rail", 100, 95, 230, 90)
		c.Text("t soft", "middle", 165, 112, "ground")
	}},
	"mains": {"An outlet, its cord, and what hangs on one circuit", func(c *Canvas) {
		c.block(20, 48, 60, 54, "outlet")
		c.Line("rail", 80, 75, 180, 75)
		for k, s := range []string{"fogger", "supply", "amplifier"} {
			c.Line("rail", 180, 75, 230, 35+float64(k)*40)
			c.block(230, 20+float64(k)*40, 105, 30, s)
		}
	}},
	"sheet": {"Parts on a sheet, and what is left of it", func(c *Canvas) {
		c.Rect("box", 30, 20, 300, 110)
		for _, r := range [][4]float64{{36, 26, 90, 98}, {132, 26, 110, 60}, {132, 92, 70, 32}} {
			c.Rect("cut", r[0], r[1], r[2], r[3])
		}
		c.Text("t soft", "middle", 288, 80, "left over")
	}},
	"edge": {"A strip left too thin beside a hole", func(c *Canvas) {
		c.Rect("box", 60, 20, 240, 110)
		c.Poly("m", ring(180, 86, 38))
		c.Line("limit", 150, 132, 210, 132)
		c.Text("t soft", "middle", 180, 146, "breaks here")
	}},
	"bend": {"A sheet bent tighter than it bears", func(c *Canvas) {
		var out, in []XY
		for k := range 21 {
			s, co := math.Sincos(math.Pi * float64(k) / 20)
			out, in = append(out, XY{180 - 90*co, 120 - 90*s}), append(in, XY{180 - 76*co, 120 - 76*s})
		}
		for i := len(in) - 1; i >= 0; i-- {
			out = append(out, in[i])
		}
		c.Poly("box", out)
		for _, x := range []float64{166, 180, 194} {
			c.Line("limit", x, 28, x, 42)
		}
		c.Text("t soft", "middle", 180, 144, "the outside is stretched")
	}},
	"joint": {"Two parts, and what holds them", func(c *Canvas) {
		c.Rect("box", 60, 60, 120, 34)
		c.Rect("box", 184, 20, 34, 110)
		c.Line("glue", 182, 60, 182, 94)
		c.Text("t soft", "middle", 122, 120, "part")
		c.Text("t soft", "start", 226, 80, "glue line")
	}},
	"coat": {"Coats, from the part up: each must stand on the one below", func(c *Canvas) {
		for k, s := range []string{"part", "barrier", "base coat", "glaze"} {
			c.block(60, 104-float64(k)*28, 240, 26, s)
		}
	}},
	"box": {"A closed part, with what is inside it and the way in", func(c *Canvas) {
		c.Rect("box", 100, 20, 160, 110)
		c.block(140, 60, 80, 34, "supply")
		c.Rect("limit", 250, 84, 12, 40)
		c.Text("t soft", "start", 268, 110, "a door")
	}},
	"frame": {"A rail that sags under what hangs on it", func(c *Canvas) {
		c.Line("rail", 50, 130, 50, 30)
		c.Line("rail", 310, 130, 310, 30)
		c.through("edge", []XY{{50, 32}, {110, 44}, {180, 50}, {250, 44}, {310, 32}})
		c.Line("edge", 180, 50, 180, 80)
		c.block(150, 80, 60, 34, "load")
	}},
	"overlap": {"Two parts in one place", func(c *Canvas) {
		c.Rect("box", 70, 30, 130, 70)
		c.Rect("box", 160, 60, 130, 70)
		c.Rect("limit", 160, 60, 40, 40)
	}},
	"size": {"The one known size that all is scaled from", func(c *Canvas) {
		c.Rect("box", 120, 24, 110, 100)
		c.Dim(XY{110, 24}, XY{110, 124}, -18, "known")
	}},
	"time": {"A scene with its cues along the time", func(c *Canvas) {
		c.Line("edge", 30, 130, 335, 130)
		for k, r := range [][2]float64{{40, 120}, {90, 160}, {220, 90}} {
			c.Rect("box", r[0], 24+float64(k)*34, r[1], 24)
		}
		c.Line("limit", 280, 16, 280, 130)
		c.Text("t soft", "end", 276, 146, "the scene ends")
	}},
	"motor": {"A motor's crank and its pull arm lift a lid about its hinge", func(c *Canvas) {
		c.Line("edge", 40, 110, 320, 110)
		c.through("line", []XY{{210, 140}, {236, 126}, {190, 62}})
		c.Line("limit", 80, 110, 270, 20)
		c.Poly("box", ring(210, 140, 14))
		c.Poly("box", ring(80, 110, 5))
		c.Text("t soft", "end", 74, 128, "hinge")
		c.Text("t soft", "start", 244, 146, "motor, crank, pull arm")
	}},
	"beam": {"A beam above the eyes of guests", func(c *Canvas) {
		c.block(20, 20, 60, 26, "laser")
		c.Line("limit", 80, 33, 340, 33)
		c.Poly("box", ring(250, 84, 16))
		c.Line("edge", 250, 100, 250, 140)
		c.Text("t soft", "start", 276, 90, "no eye in its way")
	}},
	"fire": {"Heat kept away from foam", func(c *Canvas) {
		c.Poly("limit", []XY{{110, 120}, {90, 84}, {108, 60}, {114, 30}, {138, 64}, {150, 92}, {132, 120}})
		c.Line("edge", 190, 20, 190, 130)
		c.Rect("box", 230, 50, 90, 70)
		c.Text("t soft", "middle", 275, 140, "foam, cloth, plywood")
	}},
	"wind": {"Wind at the middle of a prop, its weight over its foot", func(c *Canvas) {
		c.Line("ground", 30, 130, 330, 130)
		c.Rect("box", 160, 26, 70, 104)
		for _, y := range []float64{50, 78, 106} {
			c.Line("limit", 60, y, 140, y)
			c.through("limit", []XY{{128, y - 7}, {140, y}, {128, y + 7}})
		}
		c.Line("edge", 195, 78, 195, 122)
		c.through("edge", []XY{{188, 112}, {195, 124}, {202, 112}})
		c.Text("t soft", "start", 240, 84, "weight")
		c.Text("t soft", "middle", 100, 36, "wind")
	}},
	"path": {"A path, and what stands and lies in it", func(c *Canvas) {
		c.Line("edge", 20, 50, 340, 50)
		c.Line("edge", 20, 110, 340, 110)
		c.Rect("box", 150, 20, 60, 46)
		c.Line("limit", 270, 20, 270, 135)
		c.Text("t soft", "start", 40, 84, "guests walk here")
		c.Text("t soft", "middle", 180, 140, "clear for its whole width")
	}},
	"sight": {"An eye on the path, a screen, and a lamp behind it", func(c *Canvas) {
		c.Line("ground", 20, 130, 340, 130)
		c.Poly("box", ring(60, 44, 10))
		c.Line("edge", 60, 54, 60, 130)
		c.Line("edge", 200, 60, 200, 130)
		c.Line("limit", 70, 44, 300, 78)
		c.Poly("lampbox l-lit", ring(300, 112, 14))
		c.Text("t soft", "middle", 206, 150, "screen")
		c.Text("t soft", "start", 240, 60, "the line over its top")
	}},
}
