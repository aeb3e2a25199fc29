package formats

import (
	"bytes"
	"encoding/json"
	"image/png"
	"io"
	"math"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"

	"github.com/go-text/typesetting/font"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"golang.org/x/text/unicode/bidi"
)

// samples are words of scripts whose letters join, stack or change places, each with the
// font that draws it.
var samples = map[string]string{
	"devanagari": "रात का छत्ता और कद्दू क्षत्रिय",
	"bengali":    "রাত্রি মৌচাক ক্ষুদ্র",
	"gurmukhi":   "ਰਾਤ ਸ਼ਹਿਦ",
	"gujarati":   "રાત્રિ મધ",
	"oriya":      "ରାତି ମହୁଫେଣା",
	"tamil":      "இரவு தேனீ கூடு",
	"telugu":     "రాత్రి తేనెటీగ",
	"kannada":    "ರಾತ್ರಿ ಜೇನುಗೂಡು",
	"malayalam":  "രാത്രി തേനീച്ച",
	"sinhala":    "ශ්\u200dරී ලංකා මීපැණි",
	"thai":       "คืนรังผึ้งฟักทอง",
	"lao":        "ຄືນຮັງເຜິ້ງ",
	"khmer":      "ឃ្មុំពាក់កណ្តាលអធ្រាត្រ",
	"myanmar":    "ညသန်းခေါင်ပျား",
	"tibetan":    "བོད་ཡིག་སྦྲང",
	"ethiopic":   "ሌሊት ንብ",
	"arabic":     "مزرعة النحل",
	"hebrew":     "כוורת חצות",
	"syriac":     "ܕܒܫܐ",
	"thaana":     "މާމުއި",
	"nko":        "ߟߌ",
	"adlam":      "𞤀𞤁𞤂𞤃",
	"mongolian":  "ᠮᠣᠩᠭᠣᠯ",
}

// The letters' order, forms and places, against HarfBuzz's own program with the same fonts:
// glyph by glyph, their widths and where they stand.
func TestShapingAgainstHarfBuzz(t *testing.T) {
	tool, err := exec.LookPath("hb-shape")
	if err != nil && os.Getenv("ZAPBARN_NEED_TOOLS") == "" {
		t.Skip("hb-shape is not installed")
	}
	require.NoError(t, err, "libharfbuzz-bin is missing: make test installs it")
	dir := t.TempDir()
	for _, s := range scripts() {
		name := strings.TrimSuffix(s.file.Name, ".ttf")
		text, ok := samples[name]
		if !ok {
			continue
		}
		r, err := s.file.Open()
		require.NoError(t, err)
		data, err := io.ReadAll(r)
		require.NoError(t, err)
		path := filepath.Join(dir, s.file.Name)
		require.NoError(t, os.WriteFile(path, data, 0o644))
		want, size := "", float64(s.font().Upem())/emUnits/64
		var theirs, ours []glyphAt
		for _, word := range strings.Fields(text) { // signs between words may be another font's
			out, err := exec.Command(tool, "--output-format=json", "--no-glyph-names", "--no-clusters", path, word).
				Output()
			require.NoError(t, err, name)
			var one []glyphAt
			require.NoError(t, json.Unmarshal(out, &one), string(out))
			theirs = append(theirs, one...)
			want += string(out)
			for _, run := range shape(word, 0)[0].runs {
				for _, g := range run.Glyphs {
					ours = append(
						ours,
						glyphAt{g.GlyphID, whole(float64(g.Advance) * size), whole(float64(g.XOffset) * size),
							whole(float64(g.YOffset) * size)},
					)
				}
			}
		}
		require.Len(t, ours, len(theirs), "%s: %s", name, want)
		for i, o := range ours {
			assert.Equal(t, theirs[i].G, o.G, "%s: glyph %d", name, i)
			for _, d := range [][2]float64{{theirs[i].AX, o.AX}, {theirs[i].DX, o.DX}, {theirs[i].DY, o.DY}} {
				assert.InDelta(t, d[0], d[1], 1, "%s: glyph %d", name, i)
			}
		}
		delete(samples, name)
	}
	assert.Empty(t, samples, "each has its font")
}

type glyphAt struct {
	G  font.GID
	AX float64
	DX float64
	DY float64
}

func whole(v float64) float64 { return float64(int(v + 0.5)) }

// What is read from the right is set from the right, numbers and other words in it from the
// left: where each word lands, against the order of Unicode's own algorithm.
func TestReadFromTheRight(t *testing.T) {
	for text, want := range map[string]string{
		"כוורת 12":       "12 תרווכ",
		"Hive כוורת 7 b": "Hive 7 תרווכ b", // numbers after such a word belong to it
		"אב Hive גד":     "דג Hive בא",
		"abc":            "abc",
	} {
		var p bidi.Paragraph
		_, err := p.SetString(text)
		require.NoError(t, err)
		lines := shape(text, 0)
		require.Len(t, lines, 1)
		letters := []rune(text)
		got := ""
		for _, run := range lines[0].runs {
			part := string(letters[run.Runes.Offset : run.Runes.Offset+run.Runes.Count])
			if run.Direction.Progression() {
				part = backwards(part)
			}
			got += part
		}
		assert.Equal(t, want, got, text)
	}
}

// A text that is drawn is as wide as it says, keeps the colours that were set, and is read
// back whole; twice the size is twice as wide.
func TestDrawnText(t *testing.T) {
	d := newPDF(A4, "x")
	d.AddPage()
	d.SetFont(face, "", 20)
	d.SetFillColor(1, 2, 3)
	d.SetDrawColor(4, 5, 6)
	d.SetLineWidth(0.7)
	d.Text(20, 40, samples0)
	r, g, b := d.GetFillColor()
	assert.Equal(t, []int{1, 2, 3}, []int{r, g, b})
	r, g, b = d.GetDrawColor()
	assert.Equal(t, []int{4, 5, 6}, []int{r, g, b})
	assert.InDelta(t, 0.7, d.GetLineWidth(), 1e-9)
	d.AddPage()
	d.SetXY(30, 60)
	d.CellFormat(0, 7, samples0, "", 2, "L", false, 0, "")
	x, y := d.GetXY()
	assert.Equal(t, []float64{30, 67}, []float64{x, y}, "what follows is below it")
	d.SetFont(face, "", 20)
	wide := d.GetStringWidth(samples0)
	var out bytes.Buffer
	require.NoError(t, d.Output(&out))
	text := poppler(t, "pdftotext", out.Bytes())
	assert.Contains(t, text, samples0)
	left, right := inked(t, out.Bytes())
	assert.InDelta(t, 20, left, 1.5, "mm from the left")
	assert.InDelta(t, 20+wide, right, 1.5)
	assert.InDelta(t, 2*wide, widthAt(40, samples0), 1e-6, "twice the size, twice as wide")
}

const samples0 = "रात का छत्ता"

func widthAt(size float64, s string) float64 {
	d := newPDF(A4, "x")
	d.AddPage()
	d.SetFont(face, "", size)
	return d.GetStringWidth(s)
}

// inked is where a page's ink begins and ends, mm from its left, as poppler draws it.
func inked(t *testing.T, pdf []byte) (left, right float64) {
	t.Helper()
	dir := t.TempDir()
	file := filepath.Join(dir, "x.pdf")
	require.NoError(t, os.WriteFile(file, pdf, 0o600))
	out, err := exec.Command("pdftoppm", "-r", "100", "-singlefile", "-png", file, filepath.Join(dir, "x")).
		CombinedOutput()
	require.NoError(t, err, string(out))
	data, err := os.ReadFile(filepath.Join(dir, "x.png"))
	require.NoError(t, err)
	img, err := png.Decode(bytes.NewReader(data))
	require.NoError(t, err)
	left = math.Inf(1)
	for y := range img.Bounds().Dy() {
		for x := range img.Bounds().Dx() {
			if r, _, _, _ := img.At(x, y).RGBA(); r < 0x8000 {
				mm := float64(x) * 25.4 / 100
				left, right = math.Min(left, mm), math.Max(right, mm)
			}
		}
	}
	return left, right
}
