package formats

import (
	"archive/zip"
	"bytes"
	"context"
	"encoding/csv"
	"errors"
	"io"
	"strings"
	"unicode/utf8"

	"zapbarn/core/measure"

	"github.com/xuri/excelize/v2"
)

// What a table that is brought may come to.
const (
	MaxTableFile = 2 << 20 // bytes
	mostUnzipped = 6 << 20 // of a workbook's parts together
	mostTags     = 200_000 // of a part of a workbook, ends of elements counted
	mostColumns  = 40      // more than any table of ours has
)

// tableOf reads a table of at most so many rows, CSV or XLSX: cells trimmed, without the
// apostrophe that keeps them from being formulas. An error says what is wrong with the file
// and, where it is one row, with which.
func tableOf(ctx context.Context, data []byte, most int) ([][]string, error) {
	done, err := alone(ctx)
	if err != nil {
		return nil, err
	}
	defer done()
	if len(data) > MaxTableFile {
		return nil, measure.Bad("file", "is %d MB; a table is at most %d MB", len(data)>>20, MaxTableFile>>20)
	}
	t := &table{b: newBudget(ctx), most: most}
	if bytes.HasPrefix(data, []byte("PK")) {
		err = t.workbook(data)
	} else {
		err = t.csv(data)
	}
	return t.rows, err
}

// table is a table as it is read.
type table struct {
	b    *budget
	most int // rows
	rows [][]string
}

// row takes one more row; the reader's own list of cells may be used again.
func (t *table) row(cells []string) error {
	if len(t.rows) == t.most {
		return measure.Bad("file", "has more than %d rows", t.most)
	}
	if len(cells) > mostColumns {
		return measure.Bad("file", "row %d has %d columns; %d at most are read", len(t.rows)+1, len(cells), mostColumns)
	}
	if err := t.b.cell(len(cells)); err != nil {
		return err
	}
	own := make([]string, len(cells))
	for i, cell := range cells {
		own[i] = strings.TrimSpace(strings.TrimPrefix(cell, "'"))
	}
	t.rows = append(t.rows, own)
	return nil
}

// csv reads comma separated values. All its commas and line ends are counted first: a line
// is read whole.
func (t *table) csv(data []byte) error {
	data = bytes.TrimPrefix(data, []byte("\ufeff"))
	if line, ok := notUTF8(data); ok {
		return measure.Bad("file", "line %d holds a letter that is not UTF-8; save it as CSV UTF-8", line)
	}
	if err := t.b.cell(bytes.Count(data, []byte(",")) + bytes.Count(data, []byte("\n"))); err != nil {
		return err
	}
	t.b.cells = 0 // as they are read they are counted row by row
	c := csv.NewReader(bytes.NewReader(data))
	c.FieldsPerRecord, c.LazyQuotes, c.ReuseRecord = -1, true, true
	for n := 1; ; n++ {
		cells, err := c.Read()
		if errors.Is(err, io.EOF) {
			return nil
		}
		if err != nil {
			return measure.Bad("file", "row %d is no row of a table: %s", n, err)
		}
		if err := t.row(cells); err != nil {
			return err
		}
	}
}

// workbook reads the first sheet of an XLSX, row by row, cells as they were entered.
func (t *table) workbook(data []byte) error {
	none := measure.Bad("file", "is no spreadsheet that can be read; save it as XLSX or CSV")
	parts, err := zip.NewReader(bytes.NewReader(data), int64(len(data)))
	if err != nil {
		return none
	}
	if err := t.parts(parts); err != nil {
		return err
	}
	f, err := excelize.OpenReader(bytes.NewReader(data), excelize.Options{
		UnzipSizeLimit: mostUnzipped, UnzipXMLSizeLimit: mostUnzipped, RawCellValue: true,
	})
	if err != nil {
		return none
	}
	defer f.Close()
	rows, err := f.Rows(f.GetSheetName(0))
	if err != nil {
		return measure.Bad("file", "has no sheet that can be read; save it as CSV")
	}
	defer rows.Close()
	for rows.Next() {
		cells, err := rows.Columns()
		if err != nil {
			return measure.Bad("file", "row %d cannot be read; save it as CSV", len(t.rows)+1)
		}
		if err := t.row(cells); err != nil {
			return err
		}
	}
	if err := rows.Error(); err != nil {
		return measure.Bad("file", "row %d cannot be read; save it as CSV", len(t.rows)+1)
	}
	return nil
}

// parts looks at the parts of a workbook before any is taken apart: how long they are, and
// how many elements each may have, an empty one being made a whole thing of.
func (t *table) parts(z *zip.Reader) error {
	large := measure.Bad("file", "unpacks to more than %d MB; keep the one sheet, or save it as CSV", mostUnzipped>>20)
	size := uint64(0)
	for _, p := range z.File {
		if size += p.UncompressedSize64; p.UncompressedSize64 > mostUnzipped || size > mostUnzipped {
			return large
		}
		in, err := p.Open()
		if err != nil {
			return measure.Bad("file", "is no spreadsheet that can be read; save it as XLSX or CSV")
		}
		text, err := io.ReadAll(io.LimitReader(in, mostUnzipped+1))
		in.Close()
		switch {
		case err != nil:
			return measure.Bad("file", "is a damaged spreadsheet; save it again, or as CSV")
		case len(text) > mostUnzipped:
			return large
		case bytes.Count(text, []byte("<")) > mostTags:
			return measure.Bad("file", "has more in it than a table of %d rows; keep the columns that are asked for, "+
				"or save it as CSV", t.most)
		}
		if err := t.b.look(len(text)); err != nil {
			return err
		}
	}
	return nil
}

// notUTF8 is the line, from 1, of the first letter that is not UTF-8.
func notUTF8(data []byte) (line int, found bool) {
	if utf8.Valid(data) {
		return 0, false
	}
	line = 1
	for len(data) > 0 {
		r, n := utf8.DecodeRune(data)
		if r == utf8.RuneError && n == 1 {
			break
		}
		if r == '\n' {
			line++
		}
		data = data[n:]
	}
	return line, true
}
