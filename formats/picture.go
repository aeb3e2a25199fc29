package formats

import (
	"bytes"
	"context"
	"fmt"
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

// Picture reads a PNG or JPEG and makes it at most side pixels wide and tall,
// on white. It is measured before it is decoded: a file too small to hold the
// pixels it claims, or one that takes too much room as it is read, is not decoded at all.
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
	room := pngRoom(data, conf)
	if kind == "jpeg" {
		room = jpegRoom(data, n)
	}
	err = newBudget(ctx).bytes(room,
		fmt.Sprintf("has %.1f million pixels in a form that takes %d MB to read; save it as a "+
			"plain JPEG, or smaller", n/1e6, room>>20))
	if err != nil {
		return nil, err
	}
	done, err := alone(ctx)
	if err != nil {
		return nil, err
	}
	defer done()
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

// pngRoom is how many bytes a PNG takes as it is decoded: a pixel by its kind, all of it
// twice where it is interlaced (byte 28 of the file, ISO 15948, 11.2.2).
func pngRoom(data []byte, conf image.Config) int64 {
	each := int64(4)
	switch conf.ColorModel {
	case color.GrayModel:
		each = 1
	case color.Gray16Model:
		each = 2
	case color.RGBA64Model, color.NRGBA64Model:
		each = 8
	}
	if _, few := conf.ColorModel.(color.Palette); few {
		each = 1
	}
	room := each * int64(conf.Width) * int64(conf.Height)
	if len(data) > 28 && data[28] != 0 {
		room *= 2
	}
	return room
}

// jpegRoom is how many bytes a JPEG of so many pixels takes as it is decoded: a byte a
// sample, by the sampling of its components; with four or unmixed ones four a pixel more;
// and four bytes a sample for the coefficients of a progressive one (ITU T.81, B.2.2).
func jpegRoom(data []byte, pixels float64) int64 {
	kind, parts := frameHead(data)
	if len(parts) == 0 {
		return int64(7 * pixels) // it has none, and will be refused
	}
	largest, samples := 1, 0
	for i := 1; i < len(parts); i += 3 {
		n := int(parts[i]>>4) * int(parts[i]&15)
		largest, samples = max(largest, n), samples+n
	}
	each := float64(samples) / float64(largest)
	room := each * pixels
	if kind == progressive {
		room += 4 * each * pixels
	}
	if len(parts) == 12 || bytes.Contains(data[:min(len(data), 4096)], []byte("Adobe")) {
		room += 4 * pixels
	}
	return int64(room)
}

// progressive is the marker of a frame that comes in scans, each finer than the last.
const progressive = 0xC2

// frameHead is the frame header of a JPEG: its marker, and three bytes of each component,
// the second its sampling.
func frameHead(data []byte) (kind byte, parts []byte) {
	for at := 2; at+4 <= len(data) && data[at] == 0xFF; {
		mark, long := data[at+1], int(data[at+2])<<8|int(data[at+3])
		switch {
		case mark == 0xFF: // a filling byte
			at++
		case mark >= 0xC0 && mark <= progressive:
			body := data[at+4 : min(len(data), at+2+max(2, long))]
			if len(body) < 6 || len(body) < 6+3*int(body[5]) {
				return 0, nil
			}
			return mark, body[6 : 6+3*int(body[5])]
		default:
			at += 2 + long
		}
	}
	return 0, nil
}

// shrink makes a picture at most side pixels wide and tall, on white: first by
// whole squares of pixels, each looked at once, then to size.
func shrink(img image.Image, side int) *image.RGBA {
	b := img.Bounds()
	long := max(b.Dx(), b.Dy())
	if k := long / side; k > 1 {
		img = boxed(img, k)
		b = img.Bounds()
		long = max(b.Dx(), b.Dy())
	}
	f := math.Min(1, float64(side)/float64(long))
	small := image.NewRGBA(image.Rect(0, 0, max(1, int(float64(b.Dx())*f)), max(1, int(float64(b.Dy())*f))))
	draw.Draw(small, small.Bounds(), image.White, image.Point{}, draw.Src)
	xdraw.ApproxBiLinear.Scale(small, small.Bounds(), img, b, xdraw.Over, nil)
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
	at := func(x, y int) color.RGBA64 { return color.RGBA64Model.Convert(img.At(x, y)).(color.RGBA64) }
	if m, ok := img.(image.RGBA64Image); ok { // makes nothing for each pixel
		at = m.RGBA64At
	}
	return func(x, y int) color.RGBA {
		var r, g, b, a uint32
		for dy := range k {
			for dx := range k {
				c := at(x+dx, y+dy)
				r, g, b, a = r+uint32(c.R>>8), g+uint32(c.G>>8), b+uint32(c.B>>8), a+uint32(c.A>>8)
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
