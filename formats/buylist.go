package formats

import (
	"io"
	"strings"

	"zapbarn/core/order"
	"zapbarn/core/stores"
	"zapbarn/core/work"
)

// buyRows are what is needed and what is to be bought, with a heading.
func buyRows(w *work.Work) [][]any {
	t := order.In(w)
	rows := [][]any{
		{"what", "name", "needs", "unit", "spare, %", "on the shelf", "bin", "short", "packs to buy", "pack",
			"price of a pack, $", "cost, $", "order by", "days to come", "for"},
	}
	for _, n := range stores.Of(w) {
		by, bin := "", ""
		if n.Packs > 0 && n.First >= 0 {
			by = t.At(n.OrderBy).Format("2006-01-02")
		}
		if n.On != nil {
			bin = n.On.Bin
		}
		pack := n.PackName
		if pack == "" {
			pack = strings.TrimSuffix(n.Unit, "s")
		}
		rows = append(rows, []any{n.What, n.Name, round(n.Wanted()), n.Unit, round(100 * n.Spare), round(n.Have), bin,
			round(n.Short()), n.Packs, pack, round(n.Price), round(n.Cost), by, n.Lead, strings.Join(n.Props, "; ")})
	}
	return rows
}

// BuyListCSV writes what is needed as a table.
func BuyListCSV(out io.Writer, w *work.Work, _ string) error { return writeCSV(out, buyRows(w)) }

// BuyListXLSX writes what is needed as a spreadsheet.
func BuyListXLSX(out io.Writer, w *work.Work, _ string) error {
	return writeXLSX(out, []string{"To buy"}, [][][]any{buyRows(w)})
}
