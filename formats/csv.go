package formats

import (
	"encoding/csv"
	"fmt"
	"io"
	"strings"
)

// Every list leaves as CSV through writeCSV, so that no export can forget what
// a spreadsheet does with a cell.

// plainCell is a value as a cell that no spreadsheet takes for a formula: a
// text that begins with one of = + - @, a tab or a line end gets an
// apostrophe before it (OWASP, CSV Injection). Numbers stay numbers.
func plainCell(v any) string {
	s := fmt.Sprint(v)
	if _, text := v.(string); text && s != "" && strings.ContainsRune("=+-@\t\r\n", rune(s[0])) {
		return "'" + s
	}
	return s
}

// asCells are rows of texts as writeCSV takes them.
func asCells(rows [][]string) [][]any {
	out := make([][]any, len(rows))
	for i, r := range rows {
		for _, cell := range r {
			out[i] = append(out[i], cell)
		}
	}
	return out
}

// writeCSV writes rows as CSV.
func writeCSV(out io.Writer, rows [][]any) error {
	c := csv.NewWriter(out)
	for _, r := range rows {
		cells := make([]string, len(r))
		for i, v := range r {
			cells[i] = plainCell(v)
		}
		if err := c.Write(cells); err != nil {
			return err
		}
	}
	c.Flush()
	return c.Error()
}
