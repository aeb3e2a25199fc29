package formats

import (
	"archive/zip"
	"bytes"
	"encoding/csv"
	"math"
	"strings"
	"testing"

	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/work"
	"zapbarn/demo"
	"zapbarn/testkit/shop"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"github.com/xuri/excelize/v2"
)

// The comb wall's harness can be built and proven from what is on paper: the
// lists, the order of work, both ends' labels, and what each lamp should read.
func TestHarnessOnPaper(t *testing.T) {
	w := work.Do(demo.Apiary(today), shop.Kept, today)
	for _, paper := range []Paper{Letter, A4} {
		var b bytes.Buffer
		require.NoError(t, HarnessPDF(&b, w, "comb", paper))
		text := strings.Join(strings.Fields(poppler(t, "pdftotext", b.Bytes(), "-layout")), " ")
		for _, want := range []string{"Comb wall, harness", "Order of work", "W4", "X1", "18 AWG", "5 V: yellow and " +
			"black, one band", "heat-shrink", "Cells 1 to 72", "Cells 1 to 72 feed 2", "330 ohm",
			"U1 pin 1", "licensed electrician",
			"W4 from F3", "measure each lamp against its card"} {
			assert.Contains(t, text, want)
		}
	}
	var b bytes.Buffer
	assert.ErrorContains(t, HarnessPDF(&b, w, "skep", A4), "no runs to build")
	b.Reset()
	require.NoError(t, HarnessZIP(&b, w, "shelf"))
	tables := unzipped(t, b.Bytes())
	assert.Greater(t, len(tables["SPLICES"])+len(tables["PROVE"]), 24+24, "splices and lamps")
	b.Reset()
	require.NoError(t, HarnessXLSX(&b, w, "shelf"))
	f, err := excelize.OpenReader(&b)
	require.NoError(t, err)
	defer f.Close()
	assert.Equal(t, []string{"Wires", "Splices", "Connectors", "Data", "Pins", "Holes", "Prove"}, f.GetSheetList())
	v, err := f.GetCellValue("Wires", "A3")
	require.NoError(t, err)
	assert.Equal(t, "W2", v)
}

// On the nail board a run is as long as it is: its path measures its length and
// what it goes down from row to row, and each tap has its tick.
func TestNailBoardIsToScale(t *testing.T) {
	w := work.Do(demo.Apiary(today), shop.Kept, today)
	f, err := FlatBoard(w, "shelf")
	require.NoError(t, err)
	var paths []float64
	ticks := 0
	for _, s := range f.Lines {
		switch s.Layer {
		case "score":
			ticks++
		case "cut":
			along := 0.0
			for i := 1; i < len(s.Points); i++ {
				a, b := s.Points[i-1], s.Points[i]
				if math.Abs(a.Y-b.Y) < 1e-9 {
					along += math.Abs(a.X - b.X)
				}
			}
			paths = append(paths, along)
		}
		for _, q := range s.Points {
			assert.GreaterOrEqual(t, q.X, 0.0)
			assert.LessOrEqual(t, q.X, f.W)
			assert.GreaterOrEqual(t, q.Y, -1e-9)
			assert.LessOrEqual(t, q.Y, f.H)
		}
	}
	require.Len(t, paths, 2)
	assert.InDelta(t, 112*25.4, paths[0], 1e-6, "W1, 9 ft 4 in")
	assert.InDelta(t, 420*25.4, paths[1], 1e-6, "W2, 35 ft")
	assert.Equal(t, 1+24, ticks, "W2 and K1 share one at the end of W1")
	var b bytes.Buffer
	require.NoError(t, f.Tiles(&b, Roll36, false))
	assert.Contains(t, poppler(t, "pdfinfo", b.Bytes()), "Pages:           2", "on a roll it is one page and its map")
	_, err = FlatBoard(w, "skep")
	assert.ErrorContains(t, err, "no runs to lay")
}

// What pixels need is in the lists as a spreadsheet reads them: the feed and
// data wires, the plug, the chain, and where readings are written.
func TestHarnessTablesOfTheComb(t *testing.T) {
	p := demo.Apiary(today).In(shop.Kept)
	p.Doc().Readings = append(
		p.Readings(),
		plan.Reading{ID: "r90", Device: "cells", Amps: measure.Must[measure.AmpKind]("2.6 A")},
		plan.Reading{ID: "r91", Device: "cells", Ohms: measure.Must[measure.OhmKind]("3 Mohm")},
	)
	require.NoError(t, p.Validate())
	w := work.Do(p, shop.Kept, today)
	var b bytes.Buffer
	require.NoError(t, HarnessZIP(&b, w, "comb"))
	table := unzipped(t, b.Bytes())
	cell := func(name string, row int, column string) string {
		for i, c := range table[name][0] {
			if c == column {
				return table[name][row][i]
			}
		}
		t.Fatalf("%s has no column %s", name, column)
		return ""
	}
	require.Len(t, table["WIRES"], 4)
	assert.Equal(t, "Cells 1 to 72 feed 2", cell("WIRES", 2, "label"))
	assert.Equal(t, "Cells 1 to 72 at 50%", cell("WIRES", 2, "to"))
	assert.Equal(t, "1", cell("WIRES", 3, "cores"), "data alone: the ground is the supply's")
	assert.Equal(t, "X1", cell("CONNECTORS", 1, "connector"))
	assert.Equal(t, "1 to 72", cell("DATA", 1, "pixels"))
	assert.Equal(t, "406", cell("DATA", 1, "frames a second"), "1 / (72 x 30 us + 300 us)")
	assert.Equal(t, "", cell("PINS", 1, "volts"))
	assert.Equal(t, "2.6 A", cell("PROVE", 1, "amps read"))
	assert.Equal(t, "3 Mohm", cell("PROVE", 1, "ohms to ground"))
	assert.Equal(t, "", cell("PROVE", 1, "volts read"), "nothing read yet, room to write it")
}

// A run that is fed along itself has that place on the nail board.
func TestNailBoardShowsTheFeed(t *testing.T) {
	p := demo.Apiary(today).In(shop.Kept)
	p.Device("W2").FedAt = measure.Len("17 ft")
	require.NoError(t, p.Validate())
	f, err := FlatBoard(work.Do(p, shop.Kept, today), "shelf")
	require.NoError(t, err)
	found := false
	for _, x := range f.Texts {
		found = found || x.Text == "fed from W1"
	}
	assert.True(t, found)
}

// unzipped are the tables of a zip of CSV files, each with as many columns in every row.
func unzipped(t *testing.T, data []byte) map[string][][]string {
	t.Helper()
	z, err := zip.NewReader(bytes.NewReader(data), int64(len(data)))
	require.NoError(t, err)
	out := map[string][][]string{}
	for _, f := range z.File {
		in, err := f.Open()
		require.NoError(t, err)
		rows, err := csv.NewReader(in).ReadAll() // one table: its rows are all as long
		require.NoError(t, err, f.Name)
		require.NoError(t, in.Close())
		out[strings.ToUpper(strings.TrimSuffix(f.Name, ".csv"))] = rows
	}
	return out
}
