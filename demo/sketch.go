package demo

import (
	"bytes"
	"encoding/base64"
	"image"
	"image/color"
	"image/jpeg"
	"math"

	"zapbarn/core/measure"
	"zapbarn/core/pattern"
	"zapbarn/core/photo"
	"zapbarn/core/plan"
)

// sketch is a made-up reference picture: a straw hive before a plank wall with
// a door of 36 x 80 in, seen at a slant. It is painted in the wall's own
// measures and looked at through the plane's map, so that squaring it up by
// the door gives the hive's true size.
func sketch() (plan.Photo, plan.Picture) {
	const in, wide, tall = measure.Inch, 900, 640
	corners := []plan.Spot{{X: 96, Y: 560}, {X: 296, Y: 538}, {X: 296, Y: 118}, {X: 96, Y: 84}}
	pic := plan.Picture{
		ID:      "skep-sketch",
		Prop:    "skep",
		Photo:   "skep-sketch",
		Name:    "Old hive by the door",
		Wide:    wide,
		Tall:    tall,
		Corners: corners,
		SqW:     l("36 in"),
		SqH:     l("80 in"),
		A:       plan.Spot{X: 560, Y: 530},
		B:       plan.Spot{X: 560, Y: 230},
		Known:   l("54 in"),
		X:       l("87 in"),
		Z:       l("-2 in"),
	}
	p, err := pic.Plane()
	if err != nil {
		panic(err) // the corners above are a rectangle's
	}
	dome, err := pattern.NewProfile("dome", 46*in, 54*in, 1)
	if err != nil {
		panic(err)
	}
	img := image.NewRGBA(image.Rect(0, 0, wide, tall))
	for py := range tall {
		for px := range wide {
			x, y := p.MM(photo.Spot{X: float64(px) + .5, Y: float64(py) + .5})
			img.SetRGBA(px, py, painted(dome, x, y))
		}
	}
	var b bytes.Buffer
	if err := jpeg.Encode(&b, img, &jpeg.Options{Quality: 72}); err != nil {
		panic(err) // into memory
	}
	return plan.Photo{ID: pic.Photo, Data: base64.StdEncoding.EncodeToString(b.Bytes())}, pic
}

func noise(x, y float64) float64 { // the same for the same place
	v := math.Sin(x*.013+y*.031)*43758.5453 + math.Sin(y*.07)*91.7
	return v - math.Floor(v)
}

func mix(r, g, b, k float64) color.RGBA {
	f := func(v float64) uint8 { return uint8(math.Max(0, math.Min(255, v*k))) }
	return color.RGBA{f(r), f(g), f(b), 255}
}

// painted is the colour of a place of the wall, mm: planks, the door, the hive before them.
func painted(dome pattern.Profile, x, y float64) color.RGBA {
	const in = measure.Inch
	grain := .93 + .07*noise(math.Floor(x/6), math.Floor(y/40))
	c := mix(126, 108, 86, grain) // planks
	if math.Mod(math.Abs(x), 8*in) < 7 {
		c = mix(78, 66, 52, 1)
	}
	if y < -2*in { // ground
		c = mix(92, 96, 66, .9+.1*noise(math.Floor(x/30), math.Floor(y/12)))
	}
	if x >= 0 && x <= 36*in && y >= 0 && y <= 80*in { // the door
		c = mix(96, 58, 44, grain)
		if x < 2*in || x > 34*in || y > 78*in || math.Abs(y-40*in) < in {
			c = mix(70, 42, 32, 1)
		}
	}
	hx, hy := x-87*in, y+2*in
	if hy >= 0 && hy <= 54*in && math.Abs(hx) < dome.At(hy) { // the hive
		r := dome.At(hy)
		shade := math.Sqrt(
			math.Max(0, 1-hx*hx/(r*r)*.8),
		) * (.82 + .18*math.Sin(hy/(2*in)*math.Pi)*math.Sin(hy/(2*in)*math.Pi))
		c = mix(214, 172, 96, shade)
		if dx, dy := hx/(6*in), (hy-5*in)/(5*in); dx*dx+dy*dy < 1 {
			c = mix(40, 28, 18, 1)
		}
	}
	return c
}
