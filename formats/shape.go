package formats

import (
	"archive/zip"
	"bytes"
	"encoding/binary"
	"io"
	"log/slog"
	"slices"
	"strings"
	"sync"
	"unicode"
	"unicode/utf16"

	"github.com/go-text/typesetting/bidi"
	"github.com/go-text/typesetting/di"
	"github.com/go-text/typesetting/font"
	"github.com/go-text/typesetting/font/opentype"
	"github.com/go-text/typesetting/shaping"
	"golang.org/x/image/math/fixed"
)

// Scripts whose letters join, stack, change places or are read from the right are shaped
// (OpenType, by a port of the usual shaper) and drawn by their outlines; what they say is in
// the file beside them, so that it can be searched, copied and read out.

// scriptsFile holds a font for each of them.
const scriptsFile = "scripts.zip"

// scripts are those fonts, each parsed when it is first asked for.
var scripts = sync.OnceValue(func() (out []*script) {
	data := fontFile(scriptsFile)
	z, err := zip.NewReader(bytes.NewReader(data), int64(len(data)))
	if err != nil {
		slog.Warn("the fonts of further scripts cannot be read: their letters are printed as boxes", "err", err)
		return nil
	}
	for _, f := range z.File {
		out = append(out, &script{file: f})
	}
	return out
})

type script struct {
	file *zip.File
	once sync.Once
	f    *font.Font
}

func (s *script) font() *font.Font {
	s.once.Do(func() {
		r, err := s.file.Open()
		if err != nil {
			return
		}
		defer r.Close()
		data, err := io.ReadAll(r)
		if err == nil {
			s.f = parsedFont(data)
		}
	})
	return s.f
}

func parsedFont(data []byte) *font.Font {
	ld, err := opentype.NewLoader(bytes.NewReader(data))
	if err != nil {
		return nil
	}
	f, err := font.NewFont(ld)
	if err != nil {
		return nil
	}
	return f
}

// built are the plain font and the further ones, for texts that are drawn.
var built = [...]func() *font.Font{
	sync.OnceValue(func() *font.Font { p, _ := sans(); return parsedFont(p) }),
	sync.OnceValue(func() *font.Font { return parsedFont(further[0].data()) }),
	sync.OnceValue(func() *font.Font { return parsedFont(further[1].data()) }),
}

// outlined is which font draws a letter of a script that is shaped; nil for a letter that is
// set as it is, or that no font has.
var outlined = func() func(r rune) *font.Font {
	var known sync.Map
	return func(r rune) *font.Font {
		if got, ok := known.Load(r); ok {
			return got.(*font.Font)
		}
		var is *font.Font
		for _, s := range scripts() {
			f := s.font()
			if f == nil {
				continue
			}
			if _, ok := f.NominalGlyph(r); ok {
				is = f
				break
			}
		}
		known.Store(r, is)
		return is
	}
}()

// shaped is whether a text must be shaped: it has letters that are read from the right, that
// are of a script which only those fonts have, or marks that stand on others.
func shaped(s string) bool {
	for _, r := range s {
		switch {
		case r < 0x300:
		case unicode.In(r, unicode.Hebrew, unicode.Arabic, unicode.Mn),
			!plainHas(r) && fontOf(r) < 0 && outlined(r) != nil:
			return true
		}
	}
	return false
}

// faces choose a font for each letter of a text that is drawn.
type faces struct {
	of   map[*font.Font]*font.Face
	last *font.Face
}

// ResolveFace is the font of a letter: spaces and signs stay in that of the letter before.
func (f *faces) ResolveFace(r rune) *font.Face {
	if f.last != nil && (unicode.IsSpace(r) || unicode.In(r, unicode.Mn, unicode.Cf)) {
		if _, ok := f.last.NominalGlyph(r); ok || unicode.In(r, unicode.Cf) {
			return f.last
		}
	}
	of := built[0]()
	if plain := plainHas(r) && !unicode.In(r, unicode.Hebrew, unicode.Arabic); !plain {
		if n := fontOf(r); n >= 0 {
			of = built[n+1]()
		} else if s := outlined(r); s != nil {
			of = s
		}
	}
	if f.of[of] == nil {
		f.of[of] = font.NewFace(of)
	}
	f.last = f.of[of]
	return f.last
}

// shapers are kept: they remember what they read of a font.
var shapers = sync.Pool{New: func() any { return &shaping.HarfbuzzShaper{} }}

// emUnits is how large letters are shaped, in units of the shaper.
const emUnits = 1000

// shape breaks a text into lines no wider than so many ems, 0 for one line, each its pieces
// from left to right.
func shape(text string, ems float64) (lines []shapedLine) {
	letters := []rune(text)
	way := wayOf(letters)
	in := shaping.Input{Text: letters, RunEnd: len(letters), Direction: way, Size: fixed.I(emUnits)}
	var seg shaping.Segmenter
	shaper, _ := shapers.Get().(*shaping.HarfbuzzShaper)
	defer shapers.Put(shaper)
	var runs []shaping.Output
	levels := levelsOf(letters, way)
	for _, part := range seg.Split(in, &faces{of: map[*font.Font]*font.Face{}}) {
		for end := part.RunEnd; part.RunStart < end; part.RunStart = part.RunEnd {
			part.RunEnd = part.RunStart + 1
			for part.RunEnd < end && levels[part.RunEnd] == levels[part.RunStart] {
				part.RunEnd++
			}
			runs = append(runs, shaper.Shape(part))
		}
	}
	most := fixed.I(1 << 24)
	if ems > 0 {
		most = fixed.Int26_6(ems * emUnits * 64)
	}
	var wrap shaping.LineWrapper
	wrapped, _ := wrap.WrapParagraphF(
		shaping.WrapConfig{Direction: way, DisableTrailingWhitespaceTrim: ems == 0},
		most,
		letters,
		shaping.NewSliceIterator(runs),
	)
	at := 0
	for _, l := range wrapped {
		line := shapedLine{runs: slices.Clone(l)}
		n := 0
		for _, run := range l {
			line.wide += float64(run.Advance) / 64 / emUnits
			n += run.Runes.Count
		}
		line.text = string(letters[at : at+n])
		at += n
		slices.SortFunc(line.runs, func(a, b shaping.Output) int { return a.Runes.Offset - b.Runes.Offset })
		ordered(line.runs, func(run shaping.Output) int { return levels[run.Runes.Offset] })
		lines = append(lines, line)
	}
	return lines
}

// wayOf is the way a text is read: that of its first letter.
func wayOf(letters []rune) di.Direction {
	for _, r := range letters {
		switch {
		case !unicode.IsLetter(r):
			continue
		case unicode.In(r, unicode.Hebrew, unicode.Arabic, unicode.Syriac, unicode.Thaana, unicode.Nko, unicode.Adlam):
			return di.DirectionRTL
		}
		return di.DirectionLTR
	}
	return di.DirectionLTR
}

// levelsOf is how deep each letter lies in texts of the other way (UAX 9): even for those
// read from the left.
func levelsOf(letters []rune, way di.Direction) []int {
	from := bidi.LeftToRight
	if way.Progression() == di.TowardTopLeft {
		from = bidi.RightToLeft
	}
	out := make([]int, len(letters))
	var p bidi.Paragraph
	runs := p.Segment(letters, from)
	at := 0
	for i := range runs.NumRuns() {
		run := runs.Run(i)
		for ; at < run.End; at++ {
			out[at] = int(run.Level)
		}
		if from == bidi.LeftToRight && run.Level == 2 {
			outside(letters, out, run)
		}
	}
	return out
}

// outside sets right what the runs take for one: numbers after a word that is read from the
// right belong to it, the words of the other way that follow on them do not.
func outside(letters []rune, levels []int, run bidi.Run) {
	strong := run.Start
	for strong < run.End && !unicode.IsLetter(letters[strong]) {
		strong++
	}
	number := strong
	for number > run.Start && !unicode.IsDigit(letters[number-1]) {
		number--
	}
	if strong < run.End {
		for i := number; i < run.End; i++ {
			levels[i] = 0
		}
	}
}

// ordered turns pieces round as they are seen (UAX 9, L2): from the deepest level to the
// lowest odd one, all that lies at least as deep.
func ordered[T any](runs []T, level func(T) int) {
	deepest := 0
	for _, r := range runs {
		deepest = max(deepest, level(r))
	}
	for at := deepest; at > 0; at-- {
		for i := 0; i < len(runs); i++ {
			k := i
			for k < len(runs) && level(runs[k]) >= at {
				k++
			}
			if k > i {
				slices.Reverse(runs[i:k])
				i = k
			}
		}
	}
}

// shapedLine is a line of shaped text: what it says, its pieces from left to right, and how
// wide it is in ems.
type shapedLine struct {
	text string
	runs []shaping.Output
	wide float64
}

// outlines draws a line from a point of its base line on, of a size in mm.
func (d *document) outlines(x, y, em float64, line shapedLine) {
	unit := em / emUnits / 64
	for _, run := range line.runs {
		k := em / float64(run.Face.Upem())
		for _, g := range run.Glyphs {
			gx, gy := x+float64(g.XOffset)*unit, y-float64(g.YOffset)*unit
			x += float64(g.Advance) * unit
			o, ok := run.Face.GlyphDataOutline(g.GlyphID)
			if !ok || len(o.Segments) == 0 {
				continue
			}
			at := func(p opentype.SegmentPoint) (float64, float64) { return gx + float64(p.X)*k, gy - float64(p.Y)*k }
			for _, s := range o.Segments {
				ax, ay := at(s.Args[0])
				bx, by := at(s.Args[1])
				cx, cy := at(s.Args[2])
				switch s.Op {
				case opentype.SegmentOpMoveTo:
					d.MoveTo(ax, ay)
				case opentype.SegmentOpLineTo:
					d.LineTo(ax, ay)
				case opentype.SegmentOpQuadTo:
					d.CurveTo(ax, ay, bx, by)
				case opentype.SegmentOpCubeTo:
					d.CurveBezierCubicTo(ax, ay, bx, by, cx, cy)
				}
			}
			style := "F"
			if strings.Contains(d.style, "B") {
				style = "FD"
			}
			d.DrawPath(style)
		}
	}
}

// drawn prints a text by its outlines, with what it says beside it.
func (d *document) drawn(x, y float64, s string) {
	_, em := d.GetFontSize()
	atX, atY := d.GetXY() // drawing moves it
	defer d.SetXY(atX, atY)
	r, g, b := d.GetTextColor()
	fr, fg, fb := d.GetFillColor()
	dr, dg, db := d.GetDrawColor()
	wide := d.GetLineWidth()
	d.SetFillColor(r, g, b)
	d.SetDrawColor(r, g, b)
	d.SetLineWidth(em / 35)
	d.RawWriteStr("/Span <</ActualText " + utf16Hex(s) + ">> BDC")
	for _, line := range shape(s, 0) {
		d.outlines(x, y, em, line)
		// letters that are not seen stand where they are: readers go by them
		n := max(1, int(line.wide*em/d.Fpdf.GetStringWidth("x")))
		d.SetTextRenderingMode(3)
		d.Fpdf.Text(x, y, strings.Repeat("x", n))
		d.SetTextRenderingMode(0)
	}
	d.RawWriteStr("EMC")
	d.SetLineWidth(wide)
	d.SetDrawColor(dr, dg, db)
	d.SetFillColor(fr, fg, fb)
}

// utf16Hex is a text as PDF has it in angles (ISO 32000-1, 7.9.2.2).
func utf16Hex(s string) string {
	var b strings.Builder
	b.WriteString("<FEFF")
	for _, u := range utf16.Encode([]rune(s)) {
		var two [2]byte
		binary.BigEndian.PutUint16(two[:], u)
		for _, c := range two {
			b.WriteString(strings.ToUpper(string("0123456789abcdef"[c>>4]) + string("0123456789abcdef"[c&15])))
		}
	}
	return b.String() + ">"
}
