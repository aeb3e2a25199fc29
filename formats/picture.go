package formats

import (
	"bytes"
	"context"
	"image"
	"image/color"
	"image/draw"
	"image/jpeg"
	_ "image/png" // pictures come as PNG too
	"math"
	"runtime"
	"sync"

	"zapbarn/core/measure"

	xdraw "golang.org/x/image/draw"
)

// MaxPixels is the largest picture read: some more than a phone takes.
const MaxPixels = 60_000_000

// onePicture lets one picture be decoded at a time: a large one takes a quarter
// of a gigabyte while it is read.
var onePicture = make(chan struct{}, 1)

// Picture reads a PNG or JPEG and makes it at most side pixels wide and tall,
// on white. It is measured before it is decoded: a file too small to hold the
// pixels it claims is not decoded at all.
func Picture(ctx context.Context, data []byte, side int) (*image.RGBA, error) {
	conf, kind, err := image.DecodeConfig(bytes.NewReader(data))
	if err != nil || kind != "jpeg" && kind != "png" {
		return nil, measure.Bad("file", "is neither a JPEG nor a PNG; save the picture as one of these")
	}
	n := float64(conf.Width) * float64(conf.Height)
	switch {
	case n > MaxPixels:
		return nil, measure.Bad("file", "has %.0f million pixels; %d at most", n/1e6, MaxPixels/1_000_000)
	case conf.Width < 40 || conf.Height < 40:
		return nil, measure.Bad("file", "is only %d x %d pixels; 40 at least", conf.Width, conf.Height)
	case float64(len(data)) < leastBytes(kind, n):
		return nil, measure.Bad(
			"file",
			"claims %d x %d pixels and holds almost none of them; save it again",
			conf.Width,
			conf.Height,
		)
	}
	select {
	case onePicture <- struct{}{}:
		defer func() { <-onePicture }()
	case <-ctx.Done():
		return nil, ctx.Err()
	}
	img, _, err := image.Decode(bytes.NewReader(data))
	if err != nil {
		return nil, measure.Bad("file", "is a damaged picture; save it again")
	}
	return shrink(img, side), nil
}

// leastBytes is how small a file of so many pixels can be. Deflate makes at
// most 1032 bytes of one (RFC 1951), and a PNG pixel is an eighth of a byte or
// more; a JPEG spends a bit or more on each block of 64 (ITU T.81).
func leastBytes(kind string, pixels float64) float64 {
	if kind == "png" {
		return pixels / 8 / 1032
	}
	return pixels / 64 / 8
}

// shrink makes a picture at most side pixels wide and tall, on white: first by
// whole squares of pixels, each looked at once, then to size.
func shrink(img image.Image, side int) *image.RGBA {
	b := img.Bounds()
	long := max(b.Dx(), b.Dy())
	if k := long / (2 * side); k > 1 {
		img = boxed(img, k)
		b = img.Bounds()
		long = max(b.Dx(), b.Dy())
	}
	f := math.Min(1, float64(side)/float64(long))
	small := image.NewRGBA(image.Rect(0, 0, max(1, int(float64(b.Dx())*f)), max(1, int(float64(b.Dy())*f))))
	draw.Draw(small, small.Bounds(), image.White, image.Point{}, draw.Src)
	xdraw.BiLinear.Scale(small, small.Bounds(), img, b, xdraw.Over, nil)
	return small
}

// boxed is a picture with squares of k x k pixels made one; rows are shared
// among the cores.
func boxed(img image.Image, k int) *image.RGBA {
	b := img.Bounds()
	out := image.NewRGBA(image.Rect(0, 0, b.Dx()/k, b.Dy()/k))
	box := boxOf(img, k)
	var wg sync.WaitGroup
	cores := runtime.GOMAXPROCS(0)
	for c := range cores {
		wg.Go(func() {
			for y := c; y < out.Rect.Dy(); y += cores {
				for x := range out.Rect.Dx() {
					out.SetRGBA(x, y, box(b.Min.X+x*k, b.Min.Y+y*k))
				}
			}
		})
	}
	wg.Wait()
	return out
}

// boxOf is the mean colour of the square of k x k pixels at a place, taken
// quickly for what cameras and phones write.
func boxOf(img image.Image, k int) func(x, y int) color.RGBA {
	n := uint32(k * k)
	if m, ok := img.(*image.YCbCr); ok {
		return func(x, y int) color.RGBA {
			var l, cb, cr, c uint32
			for dy := range k {
				o := m.YOffset(x, y+dy)
				for _, v := range m.Y[o : o+k] {
					l += uint32(v)
				}
				for dx := 0; dy%2 == 0 && dx < k; dx += 2 { // colour is kept at half the places
					q := m.COffset(x+dx, y+dy)
					cb, cr, c = cb+uint32(m.Cb[q]), cr+uint32(m.Cr[q]), c+1
				}
			}
			r, g, b := color.YCbCrToRGB(uint8(l/n), uint8(cb/c), uint8(cr/c))
			return color.RGBA{r, g, b, 255}
		}
	}
	return func(x, y int) color.RGBA {
		var r, g, b, a uint32
		for dy := range k {
			for dx := range k {
				p, q, s, t := img.At(x+dx, y+dy).RGBA()
				r, g, b, a = r+p>>8, g+q>>8, b+s>>8, a+t>>8
			}
		}
		return color.RGBA{uint8(r / n), uint8(g / n), uint8(b / n), uint8(a / n)}
	}
}

// PackPicture is a picture as a JPEG of at most so many bytes, as good as that
// allows.
func PackPicture(img image.Image, most int) ([]byte, error) {
	for q := 82; ; q -= 12 {
		var b bytes.Buffer
		if err := jpeg.Encode(&b, img, &jpeg.Options{Quality: q}); err != nil {
			return nil, err
		}
		if b.Len() <= most || q < 30 {
			return b.Bytes(), nil
		}
	}
}
