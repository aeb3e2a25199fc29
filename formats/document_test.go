package formats

import (
	"bytes"
	"math"
	"regexp"
	"slices"
	"strings"
	"testing"

	"zapbarn/core/work"
	"zapbarn/demo"
	"zapbarn/testkit/shop"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Names in any script are printed with their letters: poppler reads them back from the
// page, and all fonts are in the file.
func TestNamesOfAnyScriptArePrinted(t *testing.T) {
	names := []string{"夜のカボチャ", "밤의 양봉장", "午夜养蜂场", "Ночной улей", "Κυψέλη", "Bienenhäuschen", "כוורת", "रात का छत्ता",
		"คืนรังผึ้ง", "خلية"}
	for _, name := range names {
		for _, r := range strings.ReplaceAll(name, " ", "") {
			assert.True(t, plainHas(r) || fontOf(r) >= 0 || outlined(r) != nil, "no font has %c", r)
		}
		p := demo.Apiary(today).In(shop.Kept)
		p.Prop("riser").Name = name
		p.Doc().Display.Name = name + " 2"
		w := work.Do(p, shop.Kept, today)
		for what, print := range map[string]func(*bytes.Buffer) error{
			"cut sheet": func(b *bytes.Buffer) error { return CutSheet(b, w, "riser", A4) },
			"labels":    func(b *bytes.Buffer) error { return Labels(b, w, "riser", A4) },
			"harness":   func(b *bytes.Buffer) error { return HarnessPDF(b, w, "riser", A4) },
		} {
			var b bytes.Buffer
			require.NoError(t, print(&b), what)
			text := poppler(t, "pdftotext", b.Bytes())
			if name == "כוורת" || name == "خلية" { // read from the right: poppler turns it round
				assert.True(t, strings.Contains(text, name) || strings.Contains(text, backwards(name)), what)
			} else {
				assert.Contains(t, strings.Join(strings.Fields(text), " "), name, what)
			}
			for _, line := range strings.Split(poppler(t, "pdffonts", b.Bytes()), "\n")[2:] {
				if line != "" {
					assert.Regexp(t, `yes +(yes|no) +yes`, line, "embedded, and read back as text")
				}
			}
			assert.Less(t, b.Len(), 600_000, "only the letters that are used are in it")
		}
	}
}

func backwards(s string) string {
	r := []rune(s)
	slices.Reverse(r)
	return string(r)
}

// A long text in a script without spaces breaks within its width, and loses no letter.
func TestLinesBreakInAnyScript(t *testing.T) {
	d := newPDF(A4, "x")
	d.AddPage()
	d.SetFont(face, "", 9)
	for _, s := range []string{
		strings.Repeat("夜のカボチャ", 20), "a word and " + strings.Repeat("养蜂场", 30) + " and two", "밤의 양봉장 밤의 양봉장 밤의 양봉장",
		strings.Repeat("रात का छत्ता ", 12), strings.Repeat("คืนรังผึ้งฟักทอง", 12), strings.Repeat("مزرعة النحل ", 12),
	} {
		lines := d.SplitText(s, 50)
		assert.Equal(t, int(math.Ceil(d.GetStringWidth(s)/48)) > 1, len(lines) > 1, s)
		for _, l := range lines {
			assert.LessOrEqual(t, d.GetStringWidth(l), 50.0, l)
		}
		assert.Equal(
			t,
			strings.Join(strings.Fields(s), ""),
			strings.Join(strings.Fields(strings.Join(lines, "")), ""),
		)
	}
	assert.InDelta(t, d.GetStringWidth("Hive")+d.GetStringWidth("夜"), d.GetStringWidth("Hive夜"), 1e-9)
	assert.InDelta(t, 9*25.4/72, d.GetStringWidth("夜"), .01, "a letter of that script is as wide as it is high")
}

// Every print says what its texts are to whoever has it read out: poppler's reader of
// structure finds a title, its rows in tables and no text beside the tree.
func TestPrintsAreTagged(t *testing.T) {
	w := work.Do(demo.Apiary(today), shop.Kept, today)
	var cut, whole, harness bytes.Buffer
	require.NoError(t, CutSheet(&cut, w, "riser", A4))
	_, _, err := Book(&whole, w, func(string) string { return "" }, A4)
	require.NoError(t, err)
	require.NoError(t, HarnessPDF(&harness, w, "riser", Letter))
	for what, b := range map[string]*bytes.Buffer{"cut sheet": &cut, "book": &whole, "harness": &harness} {
		info := poppler(t, "pdfinfo", b.Bytes())
		assert.Regexp(t, `Tagged: +yes`, info, what)
		assert.Regexp(t, `Title: +\S`, info, what)
		assert.NotContains(t, info, "rror", what)
		if what == "book" {
			continue // the same pages: its tree takes a quarter of a minute to read
		}
		tree := poppler(t, "pdfinfo", b.Bytes(), "-struct-text")
		assert.NotContains(t, tree, "rror", what)
		assert.Regexp(t, `(?m)^ *Document\b`, tree, what)
		assert.Regexp(t, `(?m)^ *H1\b`, tree, what)
		assert.Contains(t, tree, "Frame riser", what)
		said := strings.Join(strings.Fields(regexp.MustCompile(`"([^"]*)"`).ReplaceAllString(tree, "$1")), "")
		for _, word := range regexp.MustCompile(`[A-Za-z]{5,}`).FindAllString(poppler(t, "pdftotext", b.Bytes()), -1) {
			footer := strings.Contains(
				"Print percent, no fit to page. Measure before cut. Goggles, dust mask; two people "+
					"for large sheet; no flame on foam.",
				word,
			)
			assert.True(t, footer || strings.Contains(said, word), "%s: %s is not in the tree", what, word)
		}
	}
	assert.Regexp(t, `(?s)Table.*TR.*TH.*TR.*TD`, poppler(t, "pdfinfo", cut.Bytes(), "-struct-text"))
}
