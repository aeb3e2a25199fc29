package pattern

import (
	"math"

	"zapbarn/core/measure"
	"zapbarn/core/source"
)

// Box is a box or crate. W, D and H are outside sizes, a lid counted; only its
// overhang stands out further.
type Box struct {
	W, D, H, T float64
	Joint      string  // butt, mitre or rabbet, at the upright corners
	Bottom     bool    // a floor between the walls
	Lid        bool    // laid on top
	Overhang   float64 // of the lid, all round
}

// Lay works the box out. Front and back run the full width; with butt and
// rabbet joints the sides stand between them, with mitres all four meet at 45.
func (b Box) Lay() (*Shape, error) {
	if err := sizes("width", b.W, "depth", b.D, "height", b.H, "thickness", b.T); err != nil {
		return nil, err
	}
	if b.W <= 2*b.T || b.D <= 2*b.T {
		return nil, measure.Bad(
			"width",
			"%s x %s leaves no room between two walls of %s; make it larger or the stock thinner",
			inches(b.W),
			inches(b.D),
			inches(b.T),
		)
	}
	if b.Overhang < 0 || b.Overhang > b.W {
		return nil, measure.Bad("overhang", "must lie between 0 and the box's width")
	}
	w, d, h, t := b.W, b.D, b.H, b.T
	if b.Lid { // it lies on the walls
		if h <= t {
			return nil, measure.Bad(
				"height",
				"%s leaves no wall under a lid of %s; make it larger or the stock thinner",
				inches(h),
				inches(t),
			)
		}
		h -= t
	}
	c, err := b.corners()
	if err != nil {
		return nil, err
	}
	s := &Shape{Size: Vec{w, d, h}}
	s.Panels = []Panel{b.wall("front", "Front", w, h, c.front), b.wall("back", "Back", w, h, c.front),
		b.wall("left", "Left side", c.side, h, c.end), b.wall("right", "Right side", c.side, h, c.end)}
	plate := func(id, name string, pw, pd float64) {
		s.Panels = append(s.Panels, Panel{ID: id, Name: name, Copies: 1, Thick: t, Outline: Rect(pw, pd),
			Edges: []Edge{{Name: "front"}, {Name: "right"}, {Name: "back"}, {Name: "left"}}})
	}
	if b.Bottom {
		plate("bottom", "Bottom", w-2*t, d-2*t)
	}
	if b.Lid {
		plate("lid", "Lid", w+2*b.Overhang, d+2*b.Overhang)
		s.Size = Vec{w + 2*b.Overhang, d + 2*b.Overhang, h + t}
	}
	for i := range s.Panels {
		s.Panels[i].tick("left", "right")
	}
	s.Lines, s.Rims = b.glued(h, c.glue), b.rims(h, c.depth)
	b.stand(s, h, c.side, c.depth)
	s.Results = append(s.Results, result("side", "Length of a side panel", c.side, "mm", inches(c.side)).
		With(c.formula, c.numbers, inches(c.side), source.Exact("outside sizes, stock thickness counted")))
	return s, nil
}

// corners is what a corner joint makes of the walls.
type corners struct {
	side             float64 // length of a side panel
	depth            float64 // of a rabbet
	glue             float64 // width of its glue line
	front, end       Edge    // of the front and back, and of the sides
	formula, numbers string  // for a side's length
}

func (b Box) corners() (c corners, err error) {
	d, t := b.D, b.T
	c.end = Edge{Joint: "butt", Reason: "stands against the front"}
	switch b.Joint {
	case "butt":
		c.side, c.glue = d-2*t, t
		c.front = Edge{Joint: "butt", Reason: "covers the side's end"}
		c.formula, c.numbers = "side = depth - 2 t", inches(d)+" - 2 x "+inches(t)
	case "mitre":
		c.side, c.glue = d, t*math.Sqrt2
		c.front = Edge{Joint: "mitre", Tilt: 45, Reason: "mitred corner"}
		c.end = c.front
		c.formula, c.numbers = "side = depth (all four are mitred)", inches(d)
	case "rabbet":
		c.depth = t / 2
		c.side, c.glue = d-2*(t-c.depth), t+c.depth
		c.front = Edge{Joint: "rabbet", Width: t, Depth: c.depth, Reason: "takes the side's end"}
		c.end.Reason = "sits in the rabbet"
		c.formula, c.numbers = "side = depth - 2 (t - rabbet depth)", inches(d)+" - 2 x ("+inches(t)+" - "+inches(c.depth)+")"
	default:
		err = measure.Bad("joint", "%q is not a corner joint; choose butt, mitre or rabbet", b.Joint)
	}
	return c, err
}

// glued are the glue lines of walls so high: up the corners, so wide, and round the floor.
func (b Box) glued(h, wide float64) (out []Line) {
	for _, e := range [][2]string{{"front", "left"}, {"front", "right"}, {"back", "left"}, {"back", "right"}} {
		out = append(out, Line{e[0], e[1], h, wide})
	}
	if b.Bottom {
		w, d := b.W-2*b.T, b.D-2*b.T
		out = append(out, Line{"bottom", "front", w, b.T}, Line{"bottom", "back", w, b.T},
			Line{"bottom", "left", d, b.T}, Line{"bottom", "right", d, b.T})
	}
	return out
}

// wall is an upright panel with the same edge left and right.
func (b Box) wall(id, name string, width, h float64, e Edge) Panel {
	p := Panel{ID: id, Name: name, Copies: 1, Thick: b.T, Outline: Rect(width, h), Grain: "up"}
	l, r := e, e
	l.Name, r.Name = "left", "right"
	p.Edges = []Edge{{Name: "bottom"}, r, {Name: "top"}, l}
	if e.Tilt == 45 {
		p.Inside = []Point{{b.T, 0}, {width - b.T, 0}, {width - b.T, h}, {b.T, h}}
	}
	return p
}

// stand places the walls, h tall, the floor and the lid in space.
func (b Box) stand(s *Shape, h, side, depth float64) {
	w, d, t := b.W/2, b.D/2, b.T
	slab := func(id string, x0, x1, y0, y1, z0, z1 float64, skin int, ex Vec) {
		c := func(x, y, z float64) Vec { return Vec{x, y, z} }
		f := [6][]Vec{
			{c(x0, y0, z0), c(x1, y0, z0), c(x1, y0, z1), c(x0, y0, z1)}, // front
			{c(x1, y1, z0), c(x0, y1, z0), c(x0, y1, z1), c(x1, y1, z1)}, // back
			{c(x0, y1, z0), c(x0, y0, z0), c(x0, y0, z1), c(x0, y1, z1)}, // left
			{c(x1, y0, z0), c(x1, y1, z0), c(x1, y1, z1), c(x1, y0, z1)}, // right
			{c(x0, y1, z0), c(x1, y1, z0), c(x1, y0, z0), c(x0, y0, z0)}, // under
			{c(x0, y0, z1), c(x1, y0, z1), c(x1, y1, z1), c(x0, y1, z1)}, // top
		}
		body := Body{Panel: id, Explode: ex}
		other := skin ^ 1 // its inside
		for _, i := range append([]int{skin, other}, others(skin, other)...) {
			body.Faces = append(body.Faces, Face{Points: f[i], Skin: i == skin})
		}
		s.Bodies = append(s.Bodies, body)
	}
	if b.Joint == "mitre" {
		ring := [4][2]float64{{-w, -d}, {w, -d}, {w, d}, {-w, d}}
		inner := [4][2]float64{{-w + t, -d + t}, {w - t, -d + t}, {w - t, d - t}, {-w + t, d - t}}
		for i, id := range []string{"front", "right", "back", "left"} {
			j := (i + 1) % 4
			quad := func(a, b [2]float64) []Vec {
				return []Vec{{a[0], a[1], 0}, {b[0], b[1], 0}, {b[0], b[1], h}, {a[0], a[1], h}}
			}
			ex := []Vec{{0, -1, 0}, {1, 0, 0}, {0, 1, 0}, {-1, 0, 0}}[i]
			s.Bodies = append(s.Bodies, prism(id, 0, quad(ring[i], ring[j]), quad(inner[i], inner[j]), ex))
		}
	} else {
		slab("front", -w, w, -d, -d+t, 0, h, 0, Vec{0, -1, 0})
		slab("back", -w, w, d-t, d, 0, h, 1, Vec{0, 1, 0})
		slab("left", -w, -w+t, -side/2, side/2, 0, h, 2, Vec{-1, 0, 0})
		slab("right", w-t, w, -side/2, side/2, 0, h, 3, Vec{1, 0, 0})
	}
	if b.Bottom {
		slab("bottom", -w+t, w-t, -d+t, d-t, 0, t, 5, Vec{0, 0, -1})
	}
	if b.Lid {
		o := b.Overhang
		slab("lid", -w-o, w+o, -d-o, d+o, h, h+t, 5, Vec{0, 0, 1})
	}
}

// others are the four faces of a slab that are neither.
func others(a, b int) (out []int) {
	for i := range 6 {
		if i != a && i != b {
			out = append(out, i)
		}
	}
	return
}
