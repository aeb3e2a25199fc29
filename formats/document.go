package formats

import (
	"io"
	"slices"
	"strings"
	"unicode"

	"codeberg.org/go-pdf/fpdf"
)

// document is what is printed: an fpdf document whose texts fall back on the wide font for
// letters that the plain one lacks, and which says what each text is, heading, row or
// paragraph, to whoever has it read out.
type document struct {
	*fpdf.Fpdf
	style  string
	size   float64
	in     [len(further)]bool // which further fonts are in
	footer bool               // what is printed now is no part of the text
	inside *structure         // what texts belong to now; nil makes each its own
	said   []*structure       // in the order they were printed
	marks  []int              // of each page: how many texts are marked
}

// headingFrom and titleFrom are from which size on, in points, bold print is a heading, and
// one of the first rank.
const headingFrom, titleFrom = 10.5, 13.0

// SetFont sets one of the document's own fonts.
func (d *document) SetFont(family, style string, size float64) {
	d.style, d.size = style, size
	d.Fpdf.SetFont(family, style, size)
}

// role is what a text printed now is.
func (d *document) role() string {
	switch bold := strings.Contains(d.style, "B"); {
	case bold && d.size >= titleFrom:
		return "H1"
	case bold && d.size >= headingFrom:
		return "H2"
	}
	return "P"
}

// within prints what belongs together as one.
func (d *document) within(role string, print func()) {
	up := d.inside
	s := &structure{role: role}
	if up == nil {
		d.said = append(d.said, s)
	} else {
		up.kids = append(up.kids, s)
	}
	d.inside = s
	print()
	d.inside = up
}

// marked prints a text on the page at hand as what it is.
func (d *document) marked(print func()) {
	if d.footer {
		d.RawWriteStr("/Artifact BMC")
		print()
		d.RawWriteStr("EMC")
		return
	}
	if d.inside == nil {
		d.within(d.role(), func() { d.marked(print) })
		return
	}
	page := d.PageNo()
	for len(d.marks) <= page {
		d.marks = append(d.marks, 0)
	}
	n := d.marks[page]
	d.marks[page]++
	d.inside.marks = append(d.inside.marks, mark{page, n})
	d.RawWriteStr(beginMark(d.inside.role, n))
	print()
	d.RawWriteStr("EMC")
}

// run is a piece of a text that is set in one font: -1 the plain one, else one of further.
type run struct {
	text string
	font int
}

// runs breaks a text where its font changes.
func runs(s string) (out []run) {
	for _, r := range s {
		font := fontOf(r)
		if n := len(out); n > 0 && out[n-1].font == font {
			out[n-1].text += string(r)
		} else {
			out = append(out, run{string(r), font})
		}
	}
	return out
}

// plain is whether the plain font alone sets a text.
func plain(s string) bool {
	for _, r := range s {
		if r > 0x7F && fontOf(r) >= 0 {
			return false
		}
	}
	return !shaped(s)
}

// with calls with the font of a run set, and sets the old one again.
func (d *document) with(r run, do func()) {
	if r.font >= 0 {
		f := further[r.font]
		if !d.in[r.font] {
			d.AddUTF8FontFromBytes(f.name, "", f.data())
			d.AddUTF8FontFromBytes(f.name, "B", f.data())
			d.in[r.font] = true
		}
		d.Fpdf.SetFont(f.name, d.style, d.size)
		defer d.Fpdf.SetFont(face, d.style, d.size)
	}
	do()
}

// GetStringWidth is how wide a text is set, mm.
func (d *document) GetStringWidth(s string) (wide float64) {
	if plain(s) {
		return d.Fpdf.GetStringWidth(s)
	}
	if shaped(s) {
		_, em := d.GetFontSize()
		for _, l := range shape(s, 0) {
			wide = max(wide, l.wide*em)
		}
		return wide
	}
	for _, r := range runs(s) {
		d.with(r, func() { wide += d.Fpdf.GetStringWidth(r.text) })
	}
	return wide
}

// Text prints a text from a point of its base line on.
func (d *document) Text(x, y float64, s string) {
	d.marked(func() { d.set(x, y, s) })
}

// set is Text, unmarked.
func (d *document) set(x, y float64, s string) {
	if plain(s) {
		d.Fpdf.Text(x, y, s)
		return
	}
	if shaped(s) {
		d.drawn(x, y, s)
		return
	}
	for _, r := range runs(s) {
		d.with(r, func() {
			d.Fpdf.Text(x, y, r.text)
			x += d.Fpdf.GetStringWidth(r.text)
		})
	}
}

// CellFormat prints a cell with its text, on the next page where there is no room.
func (d *document) CellFormat(w, h float64, s, border string, ln int, align string, fill bool, link int, to string) {
	if auto, margin := d.GetAutoPageBreak(); auto && !d.footer && d.PageNo() > 0 {
		if _, high := d.GetPageSize(); d.GetY()+h > high-margin {
			x := d.GetX()
			d.AddPage()
			d.SetX(x)
		}
	}
	if s == "" {
		d.Fpdf.CellFormat(w, h, s, border, ln, align, fill, link, to)
		return
	}
	if plain(s) {
		d.marked(func() { d.Fpdf.CellFormat(w, h, s, border, ln, align, fill, link, to) })
		return
	}
	x, y := d.GetX(), d.GetY()
	if w == 0 {
		full, _ := d.GetPageSize()
		_, _, right, _ := d.GetMargins()
		w = full - right - x
	}
	d.Fpdf.CellFormat(w, h, "", border, ln, align, fill, link, to)
	switch left := w - d.GetStringWidth(s); {
	case strings.Contains(align, "R"):
		x += left - d.GetCellMargin()
	case strings.Contains(align, "C"):
		x += left / 2
	default:
		x += d.GetCellMargin()
	}
	_, em := d.GetFontSize()
	d.marked(func() { d.set(x, y+h/2+.3*em, s) })
}

// SplitText breaks a text into lines of a width: at spaces, and between the letters of
// scripts that have none.
func (d *document) SplitText(s string, width float64) (lines []string) {
	if plain(s) {
		return d.Fpdf.SplitText(s, width)
	}
	width -= 2 * d.GetCellMargin()
	for part := range strings.SplitSeq(s, "\n") {
		if shaped(part) {
			_, em := d.GetFontSize()
			for _, l := range shape(part, width/em) {
				lines = append(lines, strings.TrimRight(l.text, " "))
			}
			continue
		}
		line := ""
		for _, word := range breakable(part) {
			if line != "" && d.GetStringWidth(strings.TrimRight(line+word, " ")) > width {
				lines, line = append(lines, strings.TrimRight(line, " ")), ""
			}
			line += word
		}
		lines = append(lines, strings.TrimRight(line, " "))
	}
	return lines
}

// breakable are the pieces of a text between which a line may end.
func breakable(s string) (out []string) {
	begin := true
	for _, r := range s {
		alone := unicode.In(r, unicode.Han, unicode.Hiragana, unicode.Katakana)
		if begin || alone {
			out = append(out, "")
		}
		out[len(out)-1] += string(r)
		begin = alone || r == ' '
	}
	return out
}

// MultiCell prints a text in lines of a width, as one paragraph.
func (d *document) MultiCell(w, h float64, s, border, align string, fill bool) {
	print := func() {
		if w == 0 {
			full, _ := d.GetPageSize()
			_, _, right, _ := d.GetMargins()
			w = full - right - d.GetX()
		}
		x := d.GetX()
		for _, l := range d.SplitText(s, w) {
			d.SetX(x)
			d.CellFormat(w, h, l, border, 2, align, fill, 0, "")
		}
		left, _, _, _ := d.GetMargins()
		d.SetX(left)
	}
	if d.inside != nil || d.footer {
		print()
		return
	}
	d.within(d.role(), print)
}

// Output writes the document with its structure.
func (d *document) Output(out io.Writer) error {
	var b strings.Builder
	if err := d.Fpdf.Output(&b); err != nil {
		return err
	}
	data, err := tagged([]byte(b.String()), tabled(d.said), slices.Clone(d.marks))
	if err != nil {
		return err
	}
	_, err = out.Write(data)
	return err
}

// tabled puts rows that follow one another into a table.
func tabled(said []*structure) (out []*structure) {
	for _, s := range said {
		if s.role != "TR" {
			out = append(out, s)
			continue
		}
		if n := len(out); n == 0 || out[n-1].role != "Table" {
			out = append(out, &structure{role: "Table"})
		}
		t := out[len(out)-1]
		t.kids = append(t.kids, s)
	}
	return out
}
