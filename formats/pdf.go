package formats

import (
	"bytes"
	"compress/gzip"
	"io"
	"strings"
	"sync"

	"codeberg.org/go-pdf/fpdf"
)

// sans are the plain font and its bold.
var sans = sync.OnceValues(func() (plain, bold []byte) {
	return unpacked(fontFile("sans.ttf.gz")), unpacked(fontFile("sansbold.ttf.gz"))
})

func unpacked(data []byte) []byte {
	r, err := gzip.NewReader(bytes.NewReader(data))
	if err == nil {
		data, err = io.ReadAll(r)
	}
	if err != nil {
		panic(err) // it is built in, and every print's test reads it
	}
	return data
}

// face is the font that everything printed is set in: it has the letters of Latin, Greek,
// Cyrillic, Armenian and Georgian, and goes into the file with those used. Those of Chinese,
// Japanese and Korean are in further ones; scripts that are shaped are drawn.
const face = "barn"

// newPDF is a document of one paper size, in mm, with its title and its font.
func newPDF(paper Paper, title string) *document {
	pdf := fpdf.NewCustom(&fpdf.InitType{UnitStr: "mm", Size: fpdf.SizeType{Wd: paper.W, Ht: paper.H}})
	pdf.SetCatalogSort(true) // the same display prints the same bytes
	plain, bold := sans()
	pdf.AddUTF8FontFromBytes(face, "", plain)
	pdf.AddUTF8FontFromBytes(face, "B", bold)
	pdf.SetTitle(title, true)
	pdf.SetCreator("Zap Barn", true)
	pdf.SetLang("en")
	return &document{Fpdf: pdf}
}

// letters is a text as it is printed: what lies beyond the first plane, such as small
// pictures, has no letter in a font, but that of a few scripts.
func letters(s string) string {
	return strings.Map(func(r rune) rune {
		if r > 0xFFFF && outlined(r) == nil {
			return '\uFFFD'
		}
		return r
	}, s)
}

// lineHigh is how far the lines of a table lie apart, mm.
const lineHigh = 4.6

// wrapped is a row of a table with its cells broken into lines, and how high it is.
func wrapped(pdf *document, cells []string, widths []float64) (lines [][]string, high float64) {
	most := 1
	for i, c := range cells {
		l := pdf.SplitText(letters(c), widths[i]-2)
		if len(l) == 0 {
			l = []string{""}
		}
		lines, most = append(lines, l), max(most, len(l))
	}
	return lines, float64(most)*lineHigh + 1
}

// tableRow prints a row that was broken into lines.
func tableRow(pdf *document, lines [][]string, widths []float64, high float64) {
	x, y := pdf.GetX(), pdf.GetY()
	pdf.within("TR", func() {
		for i, cell := range lines {
			pdf.within("TD", func() {
				for k, l := range cell {
					pdf.SetXY(x, y+float64(k)*lineHigh)
					pdf.CellFormat(widths[i], lineHigh, l, "", 0, "L", false, 0, "")
				}
			})
			x += widths[i]
		}
	})
	left, _, _, _ := pdf.GetMargins()
	pdf.SetXY(left, y+high)
}

// fitted is a text shortened to a width, whole letters at a time.
func fitted(pdf *document, text string, width float64) string {
	r := []rune(text)
	for len(r) > 3 && pdf.GetStringWidth(string(r)) > width {
		r = r[:len(r)-1]
	}
	return string(r)
}
