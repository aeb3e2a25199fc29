package formats

import (
	"archive/zip"
	"bytes"
	"compress/zlib"
	"context"
	"encoding/binary"
	"fmt"
	"image"
	"image/jpeg"
	"regexp"
	"runtime"
	"strings"
	"testing"

	"zapbarn/core/pattern"
	"zapbarn/core/plan"
	"zapbarn/core/work"
	"zapbarn/demo"
	"zapbarn/testkit/shop"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// mostMemory is how much any reader may take for any file, all of it counted, also what it
// let go of again.
const mostMemory = 200 << 20

// taken is how much memory something took.
func taken(do func() error) (bytes uint64, err error) {
	var before, after runtime.MemStats
	runtime.ReadMemStats(&before)
	err = do()
	runtime.ReadMemStats(&after)
	return after.TotalAlloc - before.TotalAlloc, err
}

// readersOf is every reader of a file that a person brings, on one plan.
func readersOf(w *work.Work) map[string]func([]byte) error {
	ctx := context.Background()
	return map[string]func([]byte) error{
		"outline": func(b []byte) error { _, err := Rings(ctx, b); return err },
		"mesh":    func(b []byte) error { _, err := STL(b, 1); return err },
		"picture": func(b []byte) error { _, err := Picture(ctx, b, 1100); return err },
		"plan":    func(b []byte) error { _, err := plan.Decode(b); return err },
		"packed":  func(b []byte) error { _, err := pattern.Unpack(string(b)); return err },
		"sound":   func(b []byte) error { _, err := WAV(ctx, bytes.NewReader(b)); return err },
		"shelf":   func(b []byte) error { _, err := ReadShelf(ctx, b, w); return err },
		"cues":    func(b []byte) error { _, err := ReadCueList(ctx, b, w, ""); return err },
		"goods": func(b []byte) error {
			r, err := ReadGoods(ctx, b)
			if err == nil {
				_, err = r.Edit(w.Plan)
			}
			return err
		},
		"nights": func(b []byte) error {
			sent, err := plan.ReadList[plan.Sent](b, plan.MaxSent)
			if err != nil {
				return err
			}
			known, err := w.RoundsOf(sent)
			if err == nil {
				_, err = w.Plan.Merge(sent, known)
			}
			return err
		},
	}
}

// sweeps are small files with each number of each kind of entity in them: what a hostile file
// is made of.
func sweeps() map[string][]byte {
	var b bytes.Buffer
	p := demo.Apiary(bookDay).In(shop.Kept)
	small := plan.New("x", "X", "in", "2026-10-01").In(shop.Kept)
	small.Doc().Props, small.Doc().Solids, small.Doc().Devices = p.Props()[:1], p.Solids()[:2], p.Devices()[:6]
	_ = GoodsCSV(&b, p)
	files := map[string][]byte{
		"plan":   small.Encode(),
		"goods":  []byte("material,cork3,eva5,thick,3 mm,2026-09-01\n"),
		"shelf":  []byte("what,name,have,unit,bin,days to come\nmaterial:xps1,,3,sheets,B2,4\n"),
		"cues":   []byte("scene,channel,start,length,shape,level\nHum,K12,0 s,1 s,fade,70 %\n"),
		"nights": []byte(`[{"kind":"ticked","id":"a","value":{"on":"2026-10-09","line":"open:7","by":"A","at":"17:40"}}]`),
		"mesh-text": []byte("solid x\nfacet normal 0 0 1\nouter loop\nvertex 1 2 3\nvertex 4 5 6\nvertex 7 8 9.5\nendloop\n" +
			"endfacet\nendsolid\n"),
		"svg-path": []byte(`<svg><g transform="rotate(30 4 5) scale(2 3) matrix(1 0 0 1 4 5)"><path d="M1 2L3 4H5V6C1 2 3 4 5 6` +
			`S1 2 3 4Q1 2 3 4T5 6A30 20 5 1 0 7 8Z"/><rect x="1" y="2" width="30" height="40" rx="3" ry="4"/><circle cx="1" ` +
			`cy="2" r="3"/><ellipse cx="1" cy="2" rx="30" ry="4"/><polygon points="0,0 60,0 30,80"/></g></svg>`),
		"sound": wavOf(16, 2, 8000, .5, .1),
	}
	for name, e := range map[string]string{
		"line":       "LINE 8 0 10 1 20 2 11 3 21 4",
		"circle":     "CIRCLE 8 0 10 1 20 2 40 30",
		"arc":        "ARC 8 0 10 1 20 2 40 30 50 10 51 300",
		"ellipse":    "ELLIPSE 8 0 10 1 20 2 11 30 21 0 40 0.5 41 0 42 3",
		"lwpolyline": "LWPOLYLINE 8 0 90 3 70 1 10 1 20 2 42 0.5 10 30 20 2 42 1 10 30 20 40",
		"polyline":   "POLYLINE 8 0 66 1 70 1 0 VERTEX 10 1 20 2 42 0.5 0 VERTEX 10 30 20 2 0 VERTEX 10 30 20 40 0 SEQEND",
		"spline": "SPLINE 8 0 70 1 71 2 72 6 73 3 40 0 40 0 40 0 40 1 40 1 40 1 41 1 41 1 41 1 10 1 20 2 10 30 20 2 10 30 " +
			"20 40 11 5 21 6 11 7 21 8",
	} {
		files["dxf-"+name] = dxf("0 " + e)
	}
	return files
}

var aNumber = regexp.MustCompile(`-?\d+(\.\d+)?`)

// Every number of every small file, made the most that can be asked for: no reader takes more
// than its memory for any of them, whatever its answer.
func TestEveryNumberToItsMost(t *testing.T) {
	w := work.Do(demo.Apiary(bookDay), shop.Kept, bookDay)
	readers := readersOf(w)
	most := []string{"1e9", "990000000", "-990000000", "1e308", "1e999", "NaN", "inf", "0", "-1", "4294967295"}
	tried := 0
	try := func(name string, data []byte) {
		for reader, read := range readers {
			if kind, _, _ := strings.Cut(name, "-"); readers[kind] != nil && kind != reader ||
				readers[kind] == nil && reader != "outline" {
				continue
			}
			took, _ := taken(func() error { return read(data) })
			assert.Less(t, took, uint64(mostMemory), "%s as %s: %.200q", name, reader, data)
			tried++
		}
	}
	for name, data := range sweeps() {
		if name == "sound" {
			for at := 4; at < 44; at += 2 {
				for _, v := range []uint32{0, 1, 0x7FFFFFFF, 0x80000000, 0xFFFFFFFF, 0x10000000} {
					bad := bytes.Clone(data)
					binary.LittleEndian.PutUint32(bad[at:], v)
					try(name, bad)
				}
			}
			continue
		}
		for _, at := range aNumber.FindAllIndex(data, -1) {
			for _, m := range most {
				try(name, append(append(bytes.Clone(data[:at[0]]), m...), data[at[1]:]...))
			}
		}
	}
	assert.Greater(t, tried, 1500)
}

// zipped is a workbook of the parts that are named, the rest as small as can be.
func zipped(parts map[string]string) []byte {
	all := map[string]string{
		"[Content_Types].xml": `<Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"/>`,
		"_rels/.rels": `<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Id="r1" ` +
			`Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/officeDocument" Target="xl/workbook.xml"/></Relationships>`,
		"xl/workbook.xml": `<workbook xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main" ` +
			`xmlns:r="http://schemas.openxmlformats.org/officeDocument/2006/relationships"><sheets><sheet name="S" sheetId="1" r:id="r1"/></sheets></workbook>`,
		"xl/_rels/workbook.xml.rels": `<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Id="r1" ` +
			`Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/worksheet" Target="worksheets/sheet1.xml"/></Relationships>`,
		"xl/worksheets/sheet1.xml": `<worksheet xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main"><sheetData>` +
			`<row r="1"><c r="A1" t="inlineStr"><is><t>what</t></is></c></row></sheetData></worksheet>`,
	}
	for name, text := range parts {
		all[name] = text
	}
	var b bytes.Buffer
	z := zip.NewWriter(&b)
	for name, text := range all {
		f, _ := z.Create(name)
		_, _ = f.Write([]byte(text))
	}
	_ = z.Close()
	return b.Bytes()
}

// sheetOf is a workbook with these rows.
func sheetOf(rows string) []byte {
	return zipped(map[string]string{"xl/worksheets/sheet1.xml": `<worksheet xmlns="http://schemas.openxmlformats.org/` +
		`spreadsheetml/2006/main"><sheetData>` + rows + `</sheetData></worksheet>`})
}

// greedy are, for each reader, the smallest files that ask for the most, each with whether it
// is read all the same.
func greedy() map[string][]byte {
	rep := strings.Repeat
	pairs := func(head, each string, n int) []byte { return dxf(head + " " + rep(each+" ", n)) }
	wide := func(n int) string {
		var b strings.Builder
		for i := 1; i <= n; i++ {
			fmt.Fprintf(&b, `<row r="%d"><c r="XFD%d"><v>1</v></c></row>`, i, i)
		}
		return b.String()
	}
	sst := `<sst xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main">`
	uses := `<svg><defs><path id="a" d="` + rep("M0 0", 400_000) + `"/></defs>` + rep(`<use href="#a"/>`,
		40_000) + `</svg>`
	sound := wavOf(8, 1, 8000, .5, .01)[:44]
	binary.LittleEndian.PutUint32(sound[40:], MostSound-44)
	files := map[string][]byte{
		"outline: lwpolyline bulges": pairs("0 LWPOLYLINE 70 1", "10 1 20 2 42 1 10 9 20 2 42 1", 100_000),
		"outline: spline":            pairs("0 SPLINE 71 1", "10 1 20 2 40 1", 240_000),
		"outline: ellipse of turns":  dxf("0 ELLIPSE 10 0 20 0 11 9 21 0 40 1 41 0 42 990000000"),
		"outline: vertices":          pairs("0 POLYLINE 70 1", "0 VERTEX 10 1 20 2 42 1", 150_000),
		"outline: layers of circles": pairs("", "0 CIRCLE 40 9", 250_000),
		"outline: moves used again":  []byte(uses),
		"outline: attributes":        []byte(`<svg ` + rep(`a="" `, 700_000) + `/>`),
		"outline: polygon":           []byte(`<svg><polygon points="` + rep("1 2 ", 1_000_000) + `"/></svg>`),
		"outline: transforms": []byte(`<svg><g transform="` + rep("scale(1)", 480_000) +
			`"><rect width="4" height="9"/></g></svg>`),
		"mesh: lines":         []byte("solid" + rep("\n", 8_000_000)),
		"mesh: one long line": []byte("solid\nvertex " + rep("1 ", 4_000_000)),
		"shelf: last column":  sheetOf(wide(20_000)),
		"shelf: last row":     sheetOf(`<row r="1048576"><c r="A1048576"><v>1</v></c></row>`),
		"shelf: cells":        []byte(rep(",", 2_000_000)),
		"shelf: rows":         []byte(rep("\n", 2_000_000)),
		"shelf: quotes":       []byte(rep(`"a",`, 500_000)),
		"shelf: shared strings": zipped(map[string]string{"xl/sharedStrings.xml": sst + rep("<si/>",
			1_200_000) + "</sst>"}),
		"shelf: rows without cells":    sheetOf(rep("<row/>", 1_000_000)),
		"shelf: workbook of 60 MB":     sheetOf(rep(" ", 60_000_000)),
		"goods: rows":                  []byte(rep("material,cork3,eva5,thick,3 mm\n", 60_000)),
		"goods: columns":               []byte(rep("a,", 900_000)),
		"cues: list":                   []byte("[" + rep("{},", 300_000) + "{}]"),
		"cues: deep":                   []byte(rep("[", 1_000_000)),
		"nights: entries":              []byte("[" + rep(`{"kind":"ticked"},`, 200_000) + "{}]"),
		"nights: a tick of each night": nightsOf(1900),
		"sound: 40 MB of 8 bit":        append(sound, make([]byte, MostSound-44)...),
		"sound: format of 4 GB":        formatOf(0xFFFFFFF0),
		"sound: list of 2 GB":          listOf(0x7FFFFFF0),
		"plan: spaces":                 []byte("{" + rep(" ", 8_000_000) + "}"),
		"plan: lists":                  []byte(`{"props":[` + rep("[],", 2_000_000) + "[]]}"),
		"plan: keys":                   keysOf(400_000),
		"plan: one long number":        []byte(`{"props":` + rep("9", 8_000_000) + "}"),
		"packed: letters":              []byte(rep("A", 8_000_000)),
	}
	for name, data := range pictures() {
		files["picture: "+name] = data
	}
	return files
}

func nightsOf(n int) []byte {
	var b strings.Builder
	for i := range n {
		fmt.Fprintf(&b, `%s{"kind":"ticked","value":{"on":"%d-01-01","line":"open:7","by":"A"}}`,
			map[bool]string{false: ","}[i == 0], 1000+i)
	}
	return []byte("[" + b.String() + "]")
}

func keysOf(n int) []byte {
	var b strings.Builder
	for i := range n {
		fmt.Fprintf(&b, `,"k%d":0`, i)
	}
	return []byte("{" + b.String()[1:] + "}")
}

// formatOf and listOf are sounds with a piece that says it is so long.
func formatOf(long uint32) []byte {
	b := bytes.Clone(wavOf(16, 1, 8000, .5, .01))
	binary.LittleEndian.PutUint32(b[16:], long)
	return b
}

func listOf(long uint32) []byte {
	b := bytes.Clone(wavOf(16, 1, 8000, .5, .01))
	return append(append(bytes.Clone(b[:36]), append([]byte("LIST"), binary.LittleEndian.AppendUint32(nil,
		long)...)...), b[36:]...)
}

// pictures are whole pictures of one colour, as large as each kind gets.
func pictures() map[string][]byte {
	var b bytes.Buffer
	_ = jpeg.Encode(&b, image.NewYCbCr(image.Rect(0, 0, 8800, 6700), image.YCbCrSubsampleRatio420), nil)
	scans := bytes.Clone(b.Bytes())
	scans[bytes.Index(scans, []byte{0xFF, 0xC0})+1] = progressive
	fine := bytes.Clone(b.Bytes()) // says each component has a sample a pixel
	at := bytes.Index(fine, []byte{0xFF, 0xC0})
	fine[at+11] = 0x11
	return map[string][]byte{
		"59 MP of 8 bytes":          claiming(8800, 6700, 16, 0),
		"59 MP of 4 bytes":          claiming(8800, 6700, 8, 0),
		"31 MP of 4 bytes":          wholePNG(6200, 5000),
		"31 MP of 4 bytes, in rows": claiming(6200, 5000, 8, 1),
		"59 MP JPEG":                b.Bytes(),
		"59 MP JPEG in scans":       scans,
		"59 MP JPEG of 3 bytes":     fine,
	}
}

// wholePNG is a picture of zeros, of 4 bytes a pixel.
func wholePNG(w, h uint32) []byte {
	var z bytes.Buffer
	d, _ := zlib.NewWriterLevel(&z, zlib.BestSpeed)
	row := make([]byte, 1+int(w)*4)
	for range h {
		_, _ = d.Write(row)
	}
	_ = d.Close()
	return pngOf(w, h, 8, 0, z.Bytes())
}

// claiming is a picture of 4 values a pixel, long enough for what it says it is.
func claiming(w, h uint32, depth, interlaced byte) []byte {
	return pngOf(w, h, depth, interlaced, make([]byte, 100_000))
}

// pngOf is a PNG by hand: ISO 15948, 11.2.
func pngOf(w, h uint32, depth, interlaced byte, data []byte) []byte {
	var b bytes.Buffer
	b.WriteString("\x89PNG\r\n\x1a\n")
	head := binary.BigEndian.AppendUint32(binary.BigEndian.AppendUint32(nil, w), h)
	pngChunk(&b, "IHDR", append(head, depth, 6, 0, 0, interlaced))
	pngChunk(&b, "IDAT", data)
	pngChunk(&b, "IEND", nil)
	return b.Bytes()
}

// The smallest files that ask for the most: each is refused, or read, within the memory that
// a reader may take.
func TestTheGreediestFiles(t *testing.T) {
	w := work.Do(demo.Apiary(bookDay), shop.Kept, bookDay)
	readers := readersOf(w)
	fine := map[string]bool{
		"sound: 40 MB of 8 bit": true, "picture: 31 MP of 4 bytes": true, "picture: 59 MP JPEG": true,
		"outline: transforms": true,
	}
	for name, data := range greedy() {
		reader, _, _ := strings.Cut(name, ":")
		took, err := taken(func() error { return readers[reader](data) })
		t.Logf("%-32s %8d bytes %5d MB %v", name, len(data), took>>20, err)
		assert.Less(t, took, uint64(mostMemory), name)
		if fine[name] {
			require.NoError(t, err, name)
		} else {
			assert.Error(t, err, name)
		}
	}
}
