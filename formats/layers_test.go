package formats

import (
	"archive/zip"
	"bytes"
	"encoding/csv"
	"encoding/xml"
	"fmt"
	"image/png"
	"io"
	"math"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"strconv"
	"strings"
	"testing"
	"time"

	"zapbarn/core/form"
	"zapbarn/core/measure"
	"zapbarn/core/pattern"
	"zapbarn/core/plan"
	"zapbarn/core/work"
	"zapbarn/demo"
	"zapbarn/testkit/shop"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

type svgDoc struct {
	Width  string `xml:"width,attr"`
	Height string `xml:"height,attr"`
	Groups []struct {
		ID       string `xml:"id,attr"`
		Polygons []struct {
			Points string `xml:"points,attr"`
		} `xml:"polygon"`
		Lines []struct {
			Points string `xml:"points,attr"`
		} `xml:"polyline"`
		Texts []string `xml:"text"`
	} `xml:"g"`
}

func area(points string) float64 {
	var p []pattern.Point
	for _, f := range strings.Fields(points) {
		var q pattern.Point
		_, _ = fmt.Sscanf(f, "%g,%g", &q.X, &q.Y)
		p = append(p, q)
	}
	return pattern.Area(p)
}

// SVG read back with the XML parser: millimetres at 1:1, the cut layer's area
// is the part's, every layer in its place.
func TestSVGReadBack(t *testing.T) {
	w := work.Do(demo.Apiary(today), shop.Kept, today)
	for _, part := range w.Parts() {
		var b bytes.Buffer
		require.NoError(t, FlatPart(w, part).SVG(&b))
		var doc svgDoc
		require.NoError(t, xml.Unmarshal(b.Bytes(), &doc), part.Ref)
		lo, hi := part.Panel.Bounds()
		width, err := strconv.ParseFloat(strings.TrimSuffix(doc.Width, "mm"), 64)
		require.NoError(t, err)
		assert.InDelta(t, hi.X-lo.X, width, .01)
		got := 0.0
		for _, g := range doc.Groups {
			if g.ID != "cut" {
				continue
			}
			for i, p := range g.Polygons {
				if a := area(p.Points); i == 0 {
					got = a
				} else {
					got -= a
				}
			}
		}
		assert.InEpsilon(t, part.Panel.Area(), got, .004, part.Ref)
		assert.Regexp(t, `OUTSIDE|TOP`, b.String())
	}
	front := FlatPart(w, w.Part("riser-box/front"))
	scores := 0
	for _, l := range front.Lines {
		if l.Layer == "score" {
			scores++
		}
	}
	assert.Equal(t, 2, scores, "both rabbets are scored")
	for _, s := range w.Sheets() {
		for n := range s.Layout.Sheets {
			f := FlatSheet(w, s, n)
			for _, l := range f.Lines {
				for _, p := range l.Points {
					assert.True(
						t,
						p.X >= -1e-6 && p.X <= f.W+1e-6 && p.Y >= -1e-6 && p.Y <= f.H+1e-6,
						"%s leaves its sheet",
						f.Title,
					)
				}
			}
		}
	}
}

func TestCutLists(t *testing.T) {
	p := demo.Apiary(today).In(shop.Kept)
	p.Solid("skep-rings").Name = "=HYPERLINK(1)"
	w := work.Do(p, shop.Kept, today)
	var b bytes.Buffer
	require.NoError(t, CutListCSV(&b, w, ""))
	rows, err := csv.NewReader(&b).ReadAll()
	require.NoError(t, err)
	cuts := 0
	for _, s := range p.Solids() {
		cuts += len(w.Shapes()[s.ID].Cuts)
	}
	assert.Len(t, rows, 1+len(w.Parts())+cuts)
	for _, r := range rows {
		for _, c := range r {
			assert.False(t, strings.HasPrefix(c, "="), "no cell is a formula")
		}
	}
	b.Reset()
	require.NoError(t, CutListXLSX(&b, w, "riser"))
	z, err := zip.NewReader(bytes.NewReader(b.Bytes()), int64(b.Len()))
	require.NoError(t, err)
	all := ""
	for _, f := range z.File {
		if strings.HasSuffix(f.Name, ".xml") {
			r, err := f.Open()
			require.NoError(t, err)
			x, err := io.ReadAll(r)
			require.NoError(t, err)
			require.NoError(t, xml.Unmarshal(x, new(struct{ XMLName xml.Name })), f.Name)
			all += string(x)
		}
	}
	for _, want := range []string{"Hive box, front", "rabbet 1&#34; wide", "Stock", "558.8"} {
		assert.Contains(t, all, want)
	}
}

// Tiles: page count by hand, every page named, and a rectangle printed on one
// page measures what it should, with poppler.
func TestTilesAreTrueToSize(t *testing.T) {
	dir := t.TempDir()
	file := filepath.Join(dir, "t.pdf")
	f := &Flat{Title: "Test", W: 500, H: 300, Lines: []Stroke{{"cut", pattern.Rect(500, 300), true}}}
	var b bytes.Buffer
	require.NoError(t, f.Tiles(&b, Letter, false))
	require.NoError(t, os.WriteFile(file, b.Bytes(), 0o644))
	info, err := exec.Command("pdfinfo", file).Output()
	require.NoError(t, err)
	// 500 - 12 over 215.9 - 20 - 12 = 183.9: 3 across; 300 - 12 over 247.4: 2 up
	assert.Regexp(t, `Pages:\s+7`, string(info))
	words, err := exec.Command("pdftotext", file, "-").Output()
	require.NoError(t, err)
	for _, page := range []string{"A1", "A2", "A3", "B1", "B2", "B3"} {
		assert.Regexp(t, regexp.MustCompile(page+` +Test`), string(words))
	}
	f = &Flat{Title: "Small", W: 150, H: 100, Lines: []Stroke{{"cut", pattern.Rect(150, 100), true}}}
	b.Reset()
	require.NoError(t, f.Tiles(&b, A4, true))
	require.NoError(t, os.WriteFile(file, b.Bytes(), 0o644))
	out := filepath.Join(dir, "p")
	require.NoError(t, exec.Command("pdftoppm", "-png", "-singlefile", "-r", "127", "-f", "2", file, out).Run())
	r, err := os.Open(out + ".png")
	require.NoError(t, err)
	defer r.Close()
	img, err := png.Decode(r)
	require.NoError(t, err)
	long := 0 // the longest dark run of any row: the rectangle's lower side
	for y := range img.Bounds().Max.Y {
		run := 0
		for x := range img.Bounds().Max.X {
			if isInk(img, x, y) {
				run++
				long = max(long, run)
			} else {
				run = 0
			}
		}
	}
	assert.InDelta(t, 150, float64(long)/127*25.4, .6)
	huge := &Flat{Title: "Huge", W: 20000, H: 20000}
	assert.ErrorContains(t, huge.Tiles(io.Discard, A4, true), "pages")
	assert.False(t, math.IsNaN(round(1.23456)))
}

// A pocket is on a layer of its own in SVG and DXF, and no hole when it is read back.
func TestPocketsHaveALayer(t *testing.T) {
	p := plan.New("x", "X", "in", "").In(shop.Kept)
	p.Doc().Props = []plan.Prop{{ID: "a", Name: "A"}}
	x := plan.NewSolid("a", "Board", "ply1/4", form.Panel{W: measure.Len("20 in"), H: measure.Len("12 in"), Copies: 1})
	x.ID = "board"
	x.Openings = []plan.Opening{
		{Name: "Pack", Face: "panel", Kind: "rect", W: measure.Len("4 in"), H: measure.Len("2 in"),
			Y: measure.Len("6 in"), Deep: measure.Len("1/8 in")},
	}
	p.Doc().Solids = []plan.Solid{x}
	require.NoError(t, p.Validate())
	w := work.Do(p, shop.Kept, time.Date(2026, 9, 20, 0, 0, 0, 0, time.UTC))
	f := FlatPart(w, w.Parts()[0])
	n := 0
	for _, l := range f.Lines {
		if l.Layer == "pocket" {
			n++
			lo, hi := pattern.Panel{Outline: l.Points}.Bounds()
			assert.InDelta(t, 4*measure.Inch, hi.X-lo.X, 1e-6)
			assert.InDelta(t, 2*measure.Inch, hi.Y-lo.Y, 1e-6)
		}
	}
	assert.Equal(t, 1, n)
	var svg, dxf bytes.Buffer
	require.NoError(t, f.SVG(&svg))
	require.NoError(t, f.DXF(&dxf))
	assert.Contains(t, svg.String(), `<g id="pocket"`)
	assert.Contains(t, dxf.String(), "pocket")
}
