// Package photo turns a reference picture into measures: it squares the picture
// up by the corners of a rectangle whose size is known, or levels and scales
// it by one known line, so that anything in that plane can be measured off it.
package photo

import (
	"image"
	"image/color"
	"math"

	"zapbarn/core/measure"
)

// Spot is a place in the picture, in its pixels, Y down.
type Spot struct{ X, Y float64 }

// Plane maps the picture's pixels to a flat plane in millimetres, Y up, by a
// projective map (a homography).
type Plane struct {
	h, back [9]float64
	lines   bool // parallels stay parallel: no vanishing line
}

// ByLine is the plane in which the line from a to b is known mm long. With
// upright, b stands straight above a: the picture is levelled by it. A is the
// origin.
func ByLine(a, b Spot, known float64, upright bool) (Plane, error) {
	l := math.Hypot(b.X-a.X, b.Y-a.Y)
	if l < 5 {
		return Plane{}, measure.Bad("points", "lie %.0f pixels apart; set them further apart", l)
	}
	if known <= 0 || known > 1e5 {
		return Plane{}, measure.Bad("known", "is empty; write how long the line is, such as 6 ft")
	}
	k := known / l
	c, s := k, 0.0
	if upright { // turn (b - a) to straight up
		c, s = k*(a.Y-b.Y)/l, k*(b.X-a.X)/l
	}
	// mm x = c dx + s dy ... with the picture's Y down
	h := [9]float64{c, s, -(c*a.X + s*a.Y), s, -c, -(s*a.X - c*a.Y), 0, 0, 1}
	return plane(h, true)
}

// BySquare is the plane in which four spots, from the lower left round the
// lower right, are the corners of a rectangle w x h mm. The lower left is the
// origin.
func BySquare(q [4]Spot, w, h float64) (Plane, error) {
	if w <= 0 || h <= 0 || w > 1e5 || h > 1e5 {
		return Plane{}, measure.Bad("square", "has no size; write the rectangle's width and height")
	}
	for i := range q { // convex, one way round
		a, b, c := q[i], q[(i+1)%4], q[(i+2)%4]
		if (b.X-a.X)*(c.Y-b.Y)-(b.Y-a.Y)*(c.X-b.X) > -20 {
			return Plane{}, measure.Bad(
				"points",
				"are not the corners of a rectangle, lower left first, then lower right, upper right, upper left",
			)
		}
	}
	// unit square to quadrilateral (Heckbert 1989), then turned round
	dx1, dx2, dx3 := q[1].X-q[2].X, q[3].X-q[2].X, q[0].X-q[1].X+q[2].X-q[3].X
	dy1, dy2, dy3 := q[1].Y-q[2].Y, q[3].Y-q[2].Y, q[0].Y-q[1].Y+q[2].Y-q[3].Y
	den := dx1*dy2 - dx2*dy1
	g, hh := (dx3*dy2-dx2*dy3)/den, (dx1*dy3-dx3*dy1)/den
	to := [9]float64{q[1].X - q[0].X + g*q[1].X, q[3].X - q[0].X + hh*q[3].X, q[0].X,
		q[1].Y - q[0].Y + g*q[1].Y, q[3].Y - q[0].Y + hh*q[3].Y, q[0].Y, g, hh, 1}
	unit := inverse(to)
	scaled := [9]float64{
		w * unit[0],
		w * unit[1],
		w * unit[2],
		h * unit[3],
		h * unit[4],
		h * unit[5],
		unit[6],
		unit[7],
		unit[8],
	}
	return plane(scaled, math.Abs(g) < 1e-9 && math.Abs(hh) < 1e-9)
}

func plane(h [9]float64, lines bool) (Plane, error) {
	p := Plane{h: h, back: inverse(h), lines: lines}
	for _, v := range p.back {
		if math.IsNaN(v) || math.IsInf(v, 0) {
			return Plane{}, measure.Bad("points", "lie on one line; set them apart")
		}
	}
	return p, nil
}

func inverse(m [9]float64) [9]float64 {
	a, b, c, d, e, f, g, h, i := m[0], m[1], m[2], m[3], m[4], m[5], m[6], m[7], m[8]
	det := a*(e*i-f*h) - b*(d*i-f*g) + c*(d*h-e*g)
	return [9]float64{(e*i - f*h) / det, (c*h - b*i) / det, (b*f - c*e) / det,
		(f*g - d*i) / det, (a*i - c*g) / det, (c*d - a*f) / det,
		(d*h - e*g) / det, (b*g - a*h) / det, (a*e - b*d) / det}
}

func apply(m [9]float64, x, y float64) (float64, float64, float64) {
	w := m[6]*x + m[7]*y + m[8]
	return (m[0]*x + m[1]*y + m[2]) / w, (m[3]*x + m[4]*y + m[5]) / w, w
}

// MM is where a spot of the picture lies in the plane.
func (p Plane) MM(s Spot) (x, y float64) {
	x, y, _ = apply(p.h, s.X, s.Y)
	return
}

// Spot is where a place of the plane lies in the picture.
func (p Plane) Spot(x, y float64) Spot {
	u, v, _ := apply(p.back, x, y)
	return Spot{u, v}
}

// Between is the distance in mm between two spots.
func (p Plane) Between(a, b Spot) float64 {
	x1, y1 := p.MM(a)
	x2, y2 := p.MM(b)
	return math.Hypot(x2-x1, y2-y1)
}

// View is the picture squared up: its lower left corner in the plane and how
// many mm a pixel is.
type View struct {
	X, Y, PerPixel float64
	W, H           int
}

// Frame chooses the view of a picture w x h pixels that shows all of it, as far
// as it does not run off towards the horizon, most pixels on the longer side.
func (p Plane) Frame(w, h, most int) View {
	lox, loy, hix, hiy := math.Inf(1), math.Inf(1), math.Inf(-1), math.Inf(-1)
	_, _, sign := apply(p.h, float64(w)/2, float64(h)/2)
	ox, oy := p.MM(Spot{float64(w) / 2, float64(h) / 2})
	// near the middle a pixel is about this large; ten pictures of it are enough
	nx, ny := p.MM(Spot{float64(w)/2 + 1, float64(h) / 2})
	far := math.Hypot(nx-ox, ny-oy) * float64(max(w, h)) * 2
	for i := range 33 {
		for k := range 33 {
			x, y, s := apply(p.h, float64(w)*float64(i)/32, float64(h)*float64(k)/32)
			if s*sign <= 0 || math.Abs(x-ox) > far || math.Abs(y-oy) > far {
				continue
			}
			lox, loy, hix, hiy = math.Min(lox, x), math.Min(loy, y), math.Max(hix, x), math.Max(hiy, y)
		}
	}
	per := math.Max(hix-lox, hiy-loy) / float64(most)
	return View{lox, loy, per, max(1, int((hix-lox)/per)), max(1, int((hiy-loy)/per))}
}

// Squared is the picture as seen straight on, one pixel of the view at a time,
// each mixed from the four nearest.
func (p Plane) Squared(img image.Image, v View) *image.RGBA {
	b := img.Bounds()
	src, ok := img.(*image.RGBA)
	if !ok {
		src = image.NewRGBA(b)
		for y := b.Min.Y; y < b.Max.Y; y++ {
			for x := b.Min.X; x < b.Max.X; x++ {
				src.Set(x, y, img.At(x, y))
			}
		}
	}
	out := image.NewRGBA(image.Rect(0, 0, v.W, v.H))
	paper := color.RGBA{239, 230, 211, 255}
	_, _, sign := apply(p.h, float64(b.Dx())/2, float64(b.Dy())/2)
	for y := range v.H {
		for x := range v.W {
			mx, my := v.X+(float64(x)+.5)*v.PerPixel, v.Y+(float64(v.H-y)-.5)*v.PerPixel
			u, w, s := apply(p.back, mx, my)
			u, w = u-.5, w-.5
			if s*sign <= 0 || u < -.5 || w < -.5 || u > float64(b.Dx())-.5 || w > float64(b.Dy())-.5 {
				out.SetRGBA(x, y, paper)
				continue
			}
			i, k := int(math.Floor(u)), int(math.Floor(w))
			fx, fy := u-float64(i), w-float64(k)
			at := func(i, k int) []uint8 {
				i, k = max(0, min(b.Dx()-1, i)), max(0, min(b.Dy()-1, k))
				o := src.PixOffset(b.Min.X+i, b.Min.Y+k)
				return src.Pix[o : o+4]
			}
			p00, p10, p01, p11 := at(i, k), at(i+1, k), at(i, k+1), at(i+1, k+1)
			o := out.PixOffset(x, y)
			for c := range 3 {
				out.Pix[o+c] = uint8(
					(float64(p00[c])*(1-fx)+float64(p10[c])*fx)*(1-fy) + (float64(p01[c])*(1-fx)+float64(p11[c])*fx)*fy + .5,
				)
			}
			out.Pix[o+3] = 255
		}
	}
	return out
}
