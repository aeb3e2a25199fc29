package formats

import (
	"bytes"
	"encoding/csv"
	"fmt"
	"io"
	"strings"

	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/stores"
	"zapbarn/core/work"

	"github.com/xuri/excelize/v2"
)

var shelfHead = []any{"what", "name", "have", "unit", "bin", "days to come"}

// shelfRows are what lies on the shelf, and what is needed and could lie there.
func shelfRows(w *work.Work) [][]any {
	rows, seen := [][]any{shelfHead}, map[string]bool{}
	for _, n := range stores.Of(w) {
		have, bin, lead := "", "", ""
		if n.On != nil {
			have, bin, lead = n.On.Have, n.On.Bin, n.On.Lead
		}
		seen[n.What] = true
		rows = append(rows, []any{n.What, n.Name, have, n.Unit, bin, lead})
	}
	for _, x := range w.Plan.Shelf {
		if !seen[x.What] {
			rows = append(rows, []any{x.What, "", x.Have, "", x.Bin, x.Lead})
		}
	}
	return rows
}

// ShelfCSV writes the shelf as a table that can be filled in and brought back.
func ShelfCSV(out io.Writer, w *work.Work, _ string) error { return writeCSV(out, shelfRows(w)) }

// ShelfXLSX writes it as a spreadsheet.
func ShelfXLSX(out io.Writer, w *work.Work, _ string) error {
	return writeXLSX(out, []string{"Shelf"}, [][][]any{shelfRows(w)})
}

// ShelfRead is a table of the shelf as it was read, before it is taken.
type ShelfRead struct {
	Rows []ShelfRow
	Bad  int
	Text string // the good rows once more, as a table
}

// ShelfRow is one row of it.
type ShelfRow struct {
	No                          int
	What, Name, Have, Bin, Lead string
	Was                         string
	Error                       string
}

// mostShelfRows is how many rows a table of the shelf may have.
const mostShelfRows = 3000

// ReadShelf reads a table of the shelf, CSV or XLSX: rows of what, name, have, unit, bin, days,
// what by its name in the shop (material:xps1) or as it is called there. Each row that cannot
// be taken says why; the others can.
func ReadShelf(data []byte, w *work.Work) (*ShelfRead, error) {
	rows, err := tableOf(data)
	if err != nil {
		return nil, err
	}
	if len(rows) > mostShelfRows {
		return nil, measure.Bad("file", "has %d rows; at most %d", len(rows), mostShelfRows)
	}
	known := shopNames(w)
	out := &ShelfRead{}
	good := [][]any{shelfHead}
	for n, row := range rows {
		for len(row) < 6 {
			row = append(row, "")
		}
		for i := range row {
			row[i] = strings.TrimSpace(strings.TrimPrefix(row[i], "'"))
		}
		if n == 0 && strings.EqualFold(row[0], "what") || strings.Join(row, "") == "" {
			continue
		}
		r := rowOf(n, row, known, w)
		if r.Error != "" {
			out.Bad++
		} else {
			good = append(good, []any{r.What, r.Name, r.Have, row[3], r.Bin, r.Lead})
		}
		out.Rows = append(out.Rows, r)
	}
	if len(out.Rows) == 0 {
		return nil, measure.Bad("file", "has no rows; write what, name, have, unit, bin, days to come")
	}
	var b bytes.Buffer
	if err := writeCSV(&b, good); err != nil {
		return nil, err
	}
	out.Text = b.String()
	return out, nil
}

// shopNames are what a row may name: as the shop has it, or as it is called there, in small
// letters.
func shopNames(w *work.Work) map[string]string {
	known := map[string]string{}
	for _, n := range stores.Of(w) {
		known[strings.ToLower(n.Name)], known[n.What] = n.What, n.What
	}
	for _, x := range w.Plan.Shelf {
		known[x.What] = x.What
	}
	shop := func(table, id, name string) {
		known[strings.ToLower(name)], known[table+":"+id] = table+":"+id, table+":"+id
	}
	for id, x := range w.Lib.Materials {
		shop("material", id, x.Name)
	}
	for id, x := range w.Lib.Glues {
		shop("glue", id, x.Name)
	}
	for id, x := range w.Lib.Coats {
		shop("coat", id, x.Name)
	}
	for id, x := range w.Lib.Lamps {
		shop("lamp", id, x.Name)
	}
	for id, x := range w.Lib.Supplies {
		shop("supply", id, x.Name)
	}
	return known
}

// rowOf is one row as it is read, and why it cannot be taken.
func rowOf(n int, row []string, known map[string]string, w *work.Work) ShelfRow {
	r := ShelfRow{No: n + 1, What: row[0], Name: row[1], Have: row[2], Bin: row[4], Lead: row[5]}
	if to := known[strings.ToLower(r.What)]; to != "" {
		r.What = to
	} else if to := known[strings.ToLower(r.Name)]; to != "" {
		r.What = to
	} else {
		r.Error = fmt.Sprintf("%q is nothing the shop has; write such as material:xps1, or its name there", r.What)
	}
	if was := w.Plan.StockedOf(r.What); was != nil {
		r.Was = was.Have
	}
	if r.Error == "" {
		x := plan.Stocked{ID: "x", What: r.What, Have: r.Have, Bin: r.Bin, Lead: r.Lead}
		if err := x.Check(); err != nil {
			r.Error = err.Error()
		}
	}
	return r
}

// Edit is the edit that puts the good rows on the shelf.
func (r *ShelfRead) Edit(p *plan.Plan) plan.Edit {
	e := plan.Edit{Label: "the shelf from a table"}
	last := map[string]int{}
	for i, x := range r.Rows {
		last[x.What] = i
	}
	for i, x := range r.Rows {
		if x.Error != "" || last[x.What] != i { // said twice, the last counts
			continue
		}
		s := plan.Stocked{What: x.What, Have: x.Have, Bin: x.Bin, Lead: x.Lead}
		was := p.StockedOf(x.What)
		if was != nil {
			s.ID = was.ID
		} else {
			s.ID = p.FreshID("stocked", x.What)
		}
		switch empty := x.Have == "" && x.Bin == "" && x.Lead == ""; {
		case empty && was != nil:
			e.Changes = append(e.Changes, p.Drop("stocked", s.ID))
		case !empty:
			e.Changes = append(e.Changes, p.Put("stocked", s.ID, s))
		}
	}
	return e
}

// tableOf reads a table of either kind.
func tableOf(data []byte) ([][]string, error) {
	if bytes.HasPrefix(data, []byte("PK")) {
		f, err := excelize.OpenReader(bytes.NewReader(data), excelize.Options{UnzipSizeLimit: 32 << 20,
			UnzipXMLSizeLimit: 16 << 20})
		if err != nil {
			return nil, measure.Bad("file", "is no spreadsheet that can be read; save it as XLSX or CSV")
		}
		defer f.Close()
		rows, err := f.GetRows(f.GetSheetName(0))
		if err != nil {
			return nil, measure.Bad("file", "has no sheet that can be read; save it as CSV")
		}
		return rows, nil
	}
	c := csv.NewReader(bytes.NewReader(bytes.TrimPrefix(data, []byte("\ufeff"))))
	c.FieldsPerRecord = -1
	c.LazyQuotes = true
	rows, err := c.ReadAll()
	if err != nil {
		return nil, measure.Bad("file", "is no table: %s", err)
	}
	return rows, nil
}
