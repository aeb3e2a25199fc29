package pattern

import (
	"bytes"
	"compress/gzip"
	_ "embed"
	"io"
	"math"
	"slices"
	"sync"

	"zapbarn/core/measure"

	"golang.org/x/image/font"
	"golang.org/x/image/font/sfnt"
	"golang.org/x/image/math/fixed"
)

// bridgeShare is how wide the bridges of cut letters are, as a share of their
// height, and bridgeLeast the least of it in mm: common practice, no source.
const bridgeShare, bridgeLeast = 1. / 12, 3.

// letterUnits is how finely glyphs are read, in parts of their em.
const letterUnits = 4096

// boldFont is Go Bold of golang.org/x/image (BSD licence, as the module's), packed: unpacked
// it would weigh twice as much in the program.
//
//go:embed data/gobold.ttf.gz
var boldFont []byte

var letters = sync.OnceValues(func() (*sfnt.Font, error) {
	z, err := gzip.NewReader(bytes.NewReader(boldFont))
	if err != nil {
		return nil, err
	}
	ttf, err := io.ReadAll(z)
	if err != nil {
		return nil, err
	}
	return sfnt.Parse(ttf)
})

// capital is the height of a capital H in letterUnits.
var capital = sync.OnceValue(func() float64 {
	rings, _, err := glyph('H')
	if err != nil {
		return letterUnits
	}
	lo, hi := extentOf(slices.Concat(rings...))
	return hi.Y - lo.Y
})

// glyph is a letter's outline, upright, and how far the next one stands from it.
func glyph(r rune) (rings [][]Point, advance float64, err error) {
	f, err := letters()
	if err != nil {
		return nil, 0, err
	}
	var b sfnt.Buffer
	i, err := f.GlyphIndex(&b, r)
	if err != nil {
		return nil, 0, err
	}
	if i == 0 {
		return nil, 0, measure.Bad(
			"openings",
			"there is no letter %q to cut; write plain letters and numbers",
			string(r),
		)
	}
	segments, err := f.LoadGlyph(&b, i, fixed.I(letterUnits), nil)
	if err != nil {
		return nil, 0, err
	}
	adv, err := f.GlyphAdvance(&b, i, fixed.I(letterUnits), font.HintingNone)
	if err != nil {
		return nil, 0, err
	}
	at := func(p fixed.Point26_6) Point { return Point{float64(p.X) / 64, -float64(p.Y) / 64} }
	var ring []Point
	end := func() {
		if n := len(ring); n > 2 {
			if ring[0] == ring[n-1] {
				ring = ring[:n-1]
			}
			rings = append(rings, ring)
		}
	}
	for _, s := range segments {
		switch s.Op {
		case sfnt.SegmentOpMoveTo:
			end()
			ring = []Point{at(s.Args[0])}
		case sfnt.SegmentOpLineTo:
			ring = append(ring, at(s.Args[0]))
		case sfnt.SegmentOpQuadTo:
			ring = curved(ring, at(s.Args[0]), at(s.Args[0]), at(s.Args[1]), false)
		case sfnt.SegmentOpCubeTo:
			ring = curved(ring, at(s.Args[0]), at(s.Args[1]), at(s.Args[2]), true)
		}
	}
	end()
	return rings, float64(adv) / 64, nil
}

// curved adds a Bezier curve to a ring, in steps fine enough for a foot high
// letter to be true to a tenth of a millimetre.
func curved(ring []Point, b, c, d Point, cubic bool) []Point {
	const steps = 16
	a := ring[len(ring)-1]
	for k := 1; k <= steps; k++ {
		t := float64(k) / steps
		u := 1 - t
		if cubic {
			ring = append(ring, Point{
				u*u*u*a.X + 3*u*u*t*b.X + 3*u*t*t*c.X + t*t*t*d.X,
				u*u*u*a.Y + 3*u*u*t*b.Y + 3*u*t*t*c.Y + t*t*t*d.Y,
			})
		} else {
			ring = append(ring, Point{u*u*a.X + 2*u*t*b.X + t*t*d.X, u*u*a.Y + 2*u*t*b.Y + t*t*d.Y})
		}
	}
	return ring
}

// Letters is a word to be cut through a sheet, tall mm high in its capitals, about
// the middle of its width and of its capitals' height. The middles of letters such
// as O would fall out: each hangs on an upright bridge. The error names a letter
// that cannot be cut.
func Letters(word string, tall float64) ([][]Point, error) {
	scale := tall / capital()
	bridge := math.Max(tall*bridgeShare, bridgeLeast)
	var all [][]Point
	x := 0.0
	for _, r := range word {
		rings, advance, err := glyph(r)
		if err != nil {
			return nil, err
		}
		for i := range rings {
			for k, q := range rings[i] {
				rings[i][k] = Point{x + q.X*scale, q.Y * scale}
			}
		}
		all = append(all, bridged(rings, bridge)...)
		x += advance * scale
	}
	if len(all) == 0 {
		return nil, measure.Bad("openings", "says no letter; write such as BEWARE")
	}
	lo, hi := extentOf(slices.Concat(all...))
	for i := range all {
		for k, q := range all[i] {
			all[i][k] = Point{q.X - (lo.X+hi.X)/2, q.Y - tall/2}
		}
		if SignedArea(all[i]) < 0 {
			slices.Reverse(all[i])
		}
	}
	return all, nil
}

// bridged are the rings of a letter whose every middle hangs on a bridge.
func bridged(rings [][]Point, wide float64) [][]Point {
	for i, r := range rings {
		within := 0
		for k, other := range rings {
			if k != i && Inside([][]Point{other}, r[0]) {
				within++
			}
		}
		if within%2 == 0 {
			continue
		}
		lo, hi := extentOf(r)
		left, rest := Cleft(rings, (lo.X+hi.X-wide)/2)
		_, right := Cleft(rest, (lo.X+hi.X+wide)/2)
		return bridged(slices.Concat(left, right), wide)
	}
	return rings
}

// LetterStroke is how wide the strokes of letters so tall are, mm: that of an H's
// left leg, which is upright and has no foot.
func LetterStroke(tall float64) float64 {
	rings, _, err := glyph('H')
	if err != nil {
		return 0
	}
	xs := make([]float64, len(rings[0]))
	for i, p := range rings[0] {
		xs[i] = p.X
	}
	slices.Sort(xs)
	xs = slices.Compact(xs)
	return (xs[1] - xs[0]) * tall / capital()
}
