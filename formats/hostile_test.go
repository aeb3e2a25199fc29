package formats

import (
	"bytes"
	"compress/zlib"
	"context"
	"encoding/binary"
	"encoding/csv"
	"errors"
	"hash/crc32"
	"image"
	"image/color"
	"image/jpeg"
	"image/png"
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"zapbarn/core/plan"
	"zapbarn/core/work"
	"zapbarn/demo"
	"zapbarn/testkit/shop"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// grown are hostile files too large to keep: written out by what they repeat.
func grown() map[string][]byte {
	rep := func(head, one string, n int, tail string) []byte { return []byte(head + strings.Repeat(one, n) + tail) }
	var stl bytes.Buffer
	stl.Write(make([]byte, 80))
	_ = binary.Write(&stl, binary.LittleEndian, uint32(4_000_000_000))
	return map[string][]byte{
		"svg-30000-curves":    rep(`<svg><path d="M0 0`, "c9 9 3 4 1 2", 30_000, `z"/></svg>`),
		"svg-300000-elements": rep("<svg>", "<g/>", 300_000, "</svg>"),
		"svg-deep":            rep("<svg>", "<g>", 100_000, ""),
		"svg-one-number":      rep(`<svg><path d="M`, "9", 2_000_000, `z"/></svg>`),
		"dxf-there-and-back": append(
			rep(
				"0\nSECTION\n2\nENTITIES\n",
				"0\nLINE\n10\n0\n20\n0\n11\n9\n21\n9\n0\nLINE\n10\n9\n20\n9\n11\n0\n21\n0\n",
				40_000,
				"",
			),
			"0\nENDSEC\n0\nEOF\n"...),
		"dxf-arcs": append(
			rep("0\nSECTION\n2\nENTITIES\n", "0\nARC\n40\n5\n50\n0\n51\n359\n", 60_000, ""),
			"0\nENDSEC\n0\nEOF\n"...),
		"stl-claims":  stl.Bytes(),
		"stl-corners": rep("solid x\n", "vertex 1 2 3\n", 300_000, ""),
		"json-deep":   rep(`{"format":`, "[", 1_000_000, ""),
		"json-many": rep(
			`{"format":"zapbarn-plan/1","display":{"id":"x","name":"X","units":"in"},"props":[`,
			`{"id":"a","name":"A"},`,
			19_999,
			`{"id":"b","name":"B"}]}`,
		),
		"png-claims-60MP": claimedPNG(10_000, 6_000),
		"png-claims-2GP":  claimedPNG(50_000, 40_000),
	}
}

// claimedPNG is a PNG of a few bytes that says it has w x h pixels.
func claimedPNG(w, h uint32) []byte {
	var b bytes.Buffer
	b.WriteString("\x89PNG\r\n\x1a\n")
	head := binary.BigEndian.AppendUint32(binary.BigEndian.AppendUint32(nil, w), h)
	pngChunk(&b, "IHDR", append(head, 8, 2, 0, 0, 0))
	var z bytes.Buffer
	d := zlib.NewWriter(&z)
	_, _ = d.Write([]byte{0})
	_ = d.Close()
	pngChunk(&b, "IDAT", z.Bytes())
	pngChunk(&b, "IEND", nil)
	return b.Bytes()
}

// pngChunk writes a piece of a PNG with its sum.
func pngChunk(b *bytes.Buffer, kind string, data []byte) {
	_ = binary.Write(b, binary.BigEndian, uint32(len(data)))
	b.WriteString(kind)
	b.Write(data)
	_ = binary.Write(b, binary.BigEndian, crc32.ChecksumIEEE(append([]byte(kind), data...)))
}

// Every hostile file, through every reader: an answer, and no more than mostMemory taken
// for it.
func TestHostileFilesAreRefusedCheaply(t *testing.T) {
	files := grown()
	kept, err := filepath.Glob("testdata/hostile/*")
	require.NoError(t, err)
	require.Greater(t, len(kept), 12)
	for _, f := range kept {
		b, err := os.ReadFile(f)
		require.NoError(t, err)
		require.Less(t, len(b), 4096, "kept ones are tiny: %s", f)
		files[filepath.Base(f)] = b
	}
	readers := readersOf(work.Do(demo.Apiary(bookDay), shop.Kept, bookDay))
	for name, data := range files {
		for reader, read := range readers {
			took, err := taken(func() error { return read(data) })
			if table := reader == "shelf"; !table && !strings.HasPrefix(name, "fine") { // anything may be a table of bad rows
				assert.Error(t, err, "%s as %s", name, reader)
			}
			assert.Less(t, took, uint64(mostMemory), "%s as %s", name, reader)
		}
	}
}

// What is drawn with names in any language, or with a mark before it, is read.
func TestOddButFineFiles(t *testing.T) {
	for _, f := range []string{"fine-bom.svg", "fine-latin1.svg", "fine-use.svg", "fine-hidden.svg"} {
		b, err := os.ReadFile("testdata/hostile/" + f)
		require.NoError(t, err)
		r, err := Rings(context.Background(), b)
		require.NoError(t, err, f)
		assert.InEpsilon(t, 1200, total(r), 1e-6, f)
	}
	p, err := plan.Decode(append([]byte("\ufeff"), demo.Apiary(time.Now()).In(shop.Kept).Encode()...))
	require.NoError(t, err)
	assert.Equal(t, "The Midnight Apiary", p.Display().Name)
}

// Who has gone is not worked for.
func TestReadingEndsWhenNobodyWaits(t *testing.T) {
	ctx, cancel := context.WithCancel(context.Background())
	cancel()
	for name, data := range grown() {
		if strings.HasPrefix(name, "svg-30000") || strings.HasPrefix(name, "dxf") {
			_, err := Rings(ctx, data)
			assert.True(t, errors.Is(err, context.Canceled), "%s: %v", name, err)
		}
	}
	var b bytes.Buffer
	require.NoError(t, png.Encode(&b, image.NewGray(image.Rect(0, 0, 200, 200))))
	one <- struct{}{} // another picture is being read
	defer func() { <-one }()
	_, err := Picture(ctx, b.Bytes(), 100)
	assert.ErrorIs(t, err, context.Canceled)
}

// Turns of an arc beyond one are one: the sector is what its ends say.
func TestArcsOfAnyAngle(t *testing.T) {
	for _, end := range []string{"180", "540", "990000180", "-180"} {
		r, err := Rings(
			context.Background(),
			dxf("0 ARC 8 0 10 0 20 0 40 30 50 0 51 "+end+" 0 LINE 8 0 10 -30 20 0 11 30 21 0"),
		)
		require.NoError(t, err, end)
		assert.InEpsilon(t, 3.14159265*450, total(r), 0.006, end)
	}
}

// A picture comes out at most as large as asked, its colours where they were,
// whatever its kind; a large photo takes a moment.
func TestPicturesAreMadeSmall(t *testing.T) {
	draw := func(w, h int) image.Image {
		m := image.NewRGBA(image.Rect(0, 0, w, h))
		for y := range h {
			for x := range w {
				c := color.RGBA{200, 30, 30, 255}
				if x > w/2 {
					c = color.RGBA{30, 30, 200, 255}
				}
				m.SetRGBA(x, y, c)
			}
		}
		return m
	}
	big := draw(3000, 2000)
	var asJPEG, asPNG bytes.Buffer
	require.NoError(t, jpeg.Encode(&asJPEG, big, nil))
	require.NoError(t, png.Encode(&asPNG, big))
	for kind, b := range map[string][]byte{"jpeg": asJPEG.Bytes(), "png": asPNG.Bytes()} {
		m, err := Picture(context.Background(), b, 300)
		require.NoError(t, err)
		assert.Equal(t, image.Pt(300, 200), m.Bounds().Size(), kind)
		l, r := m.RGBAAt(60, 100), m.RGBAAt(240, 100)
		assert.InDelta(t, 200, l.R, 6, kind)
		assert.InDelta(t, 200, r.B, 6, kind)
	}
	small, err := PackPicture(shrink(big, 900), 20_000)
	require.NoError(t, err)
	assert.LessOrEqual(t, len(small), 20_000)
}

func BenchmarkPicture48MP(b *testing.B) {
	m := image.NewYCbCr(image.Rect(0, 0, 8000, 6000), image.YCbCrSubsampleRatio420)
	for i := range m.Y {
		x, y := i%8000, i/8000
		m.Y[i] = uint8(x/40+y/30) + uint8((x*7919+y*104729)>>9&7)
	}
	var buf bytes.Buffer
	if err := jpeg.Encode(&buf, m, &jpeg.Options{Quality: 60}); err != nil {
		b.Fatal(err)
	}
	b.ReportAllocs()
	for b.Loop() {
		if _, err := Picture(context.Background(), buf.Bytes(), 1100); err != nil {
			b.Fatal(err)
		}
	}
}

// No cell of any CSV begins what a spreadsheet computes, whatever things are
// called.
func TestNoCellIsAFormula(t *testing.T) {
	for _, begin := range []string{"=", "+", "-", "@"} {
		p := demo.Apiary(time.Now()).In(shop.Kept)
		name := begin + `HYPERLINK("http://127.0.0.1")`
		for i := range p.Props() {
			p.Props()[i].Name = name
		}
		for i := range p.Solids() {
			p.Solids()[i].Name = name
		}
		for i := range p.Devices() {
			p.Devices()[i].Name = name
		}
		for i := range p.Scenes() {
			p.Scenes()[i].Name = name
		}
		for i := range p.Inputs() {
			p.Inputs()[i].Name = name
		}
		require.NoError(t, p.Validate())
		w := work.Do(p, shop.Kept, time.Now())
		for _, prop := range p.Props() {
			for list, write := range map[string]func(*bytes.Buffer) error{
				"cut list": func(b *bytes.Buffer) error { return CutListCSV(b, w, prop.ID) },
				"harness":  func(b *bytes.Buffer) error { return HarnessZIP(b, w, prop.ID) },
				"cues":     func(b *bytes.Buffer) error { return CueListCSV(b, w, prop.ID) },
				"pins": func(b *bytes.Buffer) error {
					c, err := ControllerOf(w, prop.ID)
					if err != nil {
						return nil // nothing starts anything there
					}
					return c.PinsCSV(b)
				},
				"nights":    func(b *bytes.Buffer) error { return NightBookCSV(b, w, prop.ID) },
				"pack list": func(b *bytes.Buffer) error { return PackListCSV(b, w, prop.ID) },
				"shelf":     func(b *bytes.Buffer) error { return ShelfCSV(b, w, prop.ID) },
				"to buy":    func(b *bytes.Buffer) error { return BuyListCSV(b, w, prop.ID) },
				"tasks":     func(b *bytes.Buffer) error { return TasksCSV(b, w, prop.ID) },
			} {
				var b bytes.Buffer
				if err := write(&b); IsEmpty(err) {
					continue
				} else {
					require.NoError(t, err)
				}
				var rows [][]string
				if list == "harness" {
					for _, table := range unzipped(t, b.Bytes()) {
						rows = append(rows, table...)
					}
				} else {
					r := csv.NewReader(&b)
					r.FieldsPerRecord = -1
					all, err := r.ReadAll()
					require.NoError(t, err)
					rows = all
				}
				for _, row := range rows {
					for _, cell := range row {
						if cell != "" && strings.ContainsAny(cell[:1], "=+-@\t\r\n") {
							assert.Regexp(t, `^-[0-9.]+$`, cell, "%s of %s", list, prop.ID)
						}
					}
				}
			}
		}
	}
	assert.Equal(t, "'\tx", plainCell("\tx"))
	assert.Equal(t, "'\rx", plainCell("\rx"))
	assert.Equal(t, "-3", plainCell(-3))
	assert.Equal(t, "é=", plainCell("é="))
}

func FuzzPicture(f *testing.F) {
	f.Add(claimedPNG(60, 60))
	f.Fuzz(func(t *testing.T, data []byte) { _, _ = Picture(context.Background(), data, 50) })
}
