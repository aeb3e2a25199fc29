package formats

import (
	"bytes"
	"image"
	"image/png"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"strconv"
	"testing"

	"zapbarn/core/work"
	"zapbarn/demo"
	"zapbarn/testkit/shop"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// The printed sheet is read back with poppler: page size, words, and the scale
// bar measured in a rendered page against the length it claims on paper.
func TestCutSheetIsToScaleOnBothPapers(t *testing.T) {
	w := work.Do(demo.Apiary(today), shop.Kept, today)
	for _, paper := range []Paper{Letter, A4} {
		for _, prop := range []string{"riser", "gate", "keeper", "skep", "sunflowers"} {
			var b bytes.Buffer
			require.NoError(t, CutSheet(&b, w, prop, paper))
			dir := t.TempDir()
			file := filepath.Join(dir, "cut.pdf")
			require.NoError(t, os.WriteFile(file, b.Bytes(), 0o644))
			info, err := exec.Command("pdfinfo", file).Output()
			require.NoError(t, err)
			assert.Regexp(
				t,
				map[string]string{"Letter": `Page size:\s+612 x 792`, "A4": `Page size:\s+595\.\d+ x 841\.\d+`}[paper.Name],
				string(info),
			)
			pages, err := exec.Command("pdftotext", "-layout", file, "-").Output()
			require.NoError(t, err)
			if prop == "riser" {
				for _, want := range []string{"Hive box, front", "OUTSIDE", "up", `rabbet 1" wide, 1/2" deep`, `22" x 26 1/2"`,
					"sheet 3 of 4", "Measure the bar", "no. 1 of 6"} {
					assert.True(t, bytes.Contains(pages, []byte(want)), want)
				}
			}
			if prop == "gate" {
				assert.Contains(t, string(pages), "cut angle on the face")
				assert.Contains(t, string(pages), "blade tilt 44.7°")
			}
			texts := bytes.Split(pages, []byte("\f"))
			checked := 0
			for i, text := range texts {
				m := regexp.MustCompile(`it measures ([\d.]+) in on paper`).FindSubmatch(text)
				if m == nil || i > 4 || prop != "riser" && prop != "gate" {
					continue
				}
				want, _ := strconv.ParseFloat(string(m[1]), 64)
				assert.InDelta(t, want, barOnPaper(t, file, i+1), 0.02, "%s %s page %d", prop, paper.Name, i+1)
				checked++
			}
			assert.True(t, checked > 0 || prop != "riser" && prop != "gate")
		}
	}
	assert.ErrorContains(t, CutSheet(&bytes.Buffer{}, w, "nowhere", A4), "no prop")
}

// barOnPaper renders a page and measures the row of bar colours, in inches.
func barOnPaper(t *testing.T, file string, page int) float64 {
	const dpi = 120
	out := filepath.Join(t.TempDir(), "p")
	require.NoError(
		t,
		exec.Command("pdftoppm", "-png", "-singlefile", "-r", strconv.Itoa(dpi), "-f", strconv.Itoa(page), "-l",
			strconv.Itoa(page), file, out).
			Run(),
	)
	f, err := os.Open(out + ".png")
	require.NoError(t, err)
	defer f.Close()
	img, err := png.Decode(f)
	require.NoError(t, err)
	best := 0
	b := img.Bounds()
	for y := b.Max.Y * 3 / 4; y < b.Max.Y; y++ {
		first, last, red := -1, -1, 0
		for x := range b.Max.X {
			if isRed(img, x, y) {
				red++
			}
			if isRed(img, x, y) || red > 10 && isInk(img, x, y) {
				if first < 0 {
					first = x
				}
				last = x
			}
		}
		if red > 25 {
			best = max(best, last-first+1)
		}
	}
	return float64(best) / dpi
}

func isRed(img image.Image, x, y int) bool {
	r, g, b, _ := img.At(x, y).RGBA()
	return r>>8 > 130 && r>>8 < 150 && g>>8 < 60 && b>>8 < 40
}

func isInk(img image.Image, x, y int) bool {
	r, g, b, _ := img.At(x, y).RGBA()
	return r>>8 < 50 && g>>8 < 45 && b>>8 < 40
}
