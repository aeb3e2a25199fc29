package formats

import (
	"bytes"
	"context"
	"fmt"
	"io"
	"slices"
	"strings"

	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/stores"
	"zapbarn/core/work"
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
	for _, x := range w.Plan.Shelf() {
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
func ReadShelf(ctx context.Context, data []byte, w *work.Work) (*ShelfRead, error) {
	rows, err := tableOf(ctx, data, mostShelfRows)
	if err != nil {
		return nil, err
	}
	known := shopNames(w)
	out := &ShelfRead{}
	units := map[string]string{}
	for n, row := range rows {
		for len(row) < 6 {
			row = append(row, "")
		}
		if n == 0 && strings.EqualFold(row[0], "what") || strings.Join(row, "") == "" {
			continue
		}
		r := rowOf(n, row, known, w)
		units[r.What] = row[3]
		out.Rows = append(out.Rows, r)
	}
	out.saidAgain()
	good := [][]any{shelfHead}
	for _, r := range out.Rows {
		if r.Error != "" {
			out.Bad++
		} else {
			good = append(good, []any{r.What, r.Name, r.Have, units[r.What], r.Bin, r.Lead})
		}
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

// saidAgain refuses a row of what a later row says as well: the last counts.
func (r *ShelfRead) saidAgain() {
	last := map[string]int{}
	for i, x := range slices.Backward(r.Rows) {
		if no := last[x.What]; no > 0 && x.Error == "" {
			r.Rows[i].Error = fmt.Sprintf("row %d says it again, and counts", no)
		} else if x.Error == "" {
			last[x.What] = x.No
		}
	}
}

// shopNames are what a row may name: as the shop has it, or as it is called there, in small
// letters.
func shopNames(w *work.Work) map[string]string {
	known := map[string]string{}
	for _, n := range stores.Of(w) {
		known[strings.ToLower(n.Name)], known[n.What] = n.What, n.What
	}
	for _, x := range w.Plan.Shelf() {
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
	for _, x := range r.Rows {
		if x.Error != "" {
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
