package formats

import (
	"io"
	"strings"

	"zapbarn/core/measure"
	"zapbarn/core/work"
)

// nightSheets are the night book as tables: nights, incidents, props over the season, what
// was done of the lists.
func nightSheets(w *work.Work) (names []string, sheets [][][]any) {
	s := w.Season()
	nights := [][]any{{"night of", "opened", "closed", "guests", "weather", "note"}}
	for _, n := range s.Nights {
		nights = append(nights, []any{n.On, n.Opened, n.Closed, n.Guests, n.Weather, n.Note})
	}
	name := func(prop string) string {
		if p := w.Plan.Prop(prop); p != nil {
			return p.Name
		}
		return ""
	}
	incidents := [][]any{
		{"night of", "prop", "what happened", "minutes down", "part", "cause", "what was done", "cost, $",
			"by", "next season"},
	}
	for _, x := range w.Plan.Incidents() {
		incidents = append(
			incidents,
			[]any{x.On, name(x.Prop), x.What, x.Minutes, x.Part, x.Cause, x.Mended, x.Cost, x.By,
				x.Next},
		)
	}
	props := [][]any{{"prop", "failed", "minutes down", "up, %"}}
	for _, u := range s.Props {
		props = append(props, []any{u.Prop.Name, u.Times, u.Down, round(100 * u.Share)})
	}
	done := [][]any{{"night of", "line", "by", "at"}}
	for _, x := range w.Plan.Ticks() {
		done = append(done, []any{x.On, x.Line, x.By, x.At})
	}
	return []string{"nights", "incidents", "props", "lists"}, [][][]any{nights, incidents, props, done}
}

// NightBookCSV writes the nights as one table: each with what went wrong on it.
func NightBookCSV(out io.Writer, w *work.Work, _ string) error {
	_, sheets := nightSheets(w)
	rows := [][]any{append(append([]any{}, sheets[0][0]...), "prop", "what happened", "minutes down")}
	for _, n := range w.Season().Nights {
		base := []any{n.On, n.Opened, n.Closed, n.Guests, n.Weather, n.Note}
		some := false
		for _, x := range sheets[1][1:] {
			if x[0] == n.On {
				rows, some = append(rows, append(append([]any{}, base...), x[1], x[2], x[3])), true
			}
		}
		if !some {
			rows = append(rows, append(base, "", "", ""))
		}
	}
	return writeCSV(out, rows)
}

// NightBookXLSX writes the night book as a spreadsheet, a table a sheet.
func NightBookXLSX(out io.Writer, w *work.Work, _ string) error {
	names, sheets := nightSheets(w)
	return writeXLSX(out, names, sheets)
}

// PackListCSV writes the pieces as they are loaded.
func PackListCSV(out io.Writer, w *work.Work, _ string) error {
	rows := [][]any{{"no.", "prop", "piece", "how many", "long, mm", "wide, mm", "high, mm", "weighs in all, kg", "box"}}
	pieces := w.Pieces()
	boxes, of := w.Boxed(pieces)
	for i, x := range pieces {
		box := ""
		if b := of[x]; b != nil {
			box = b.Name()
		}
		rows = append(
			rows,
			[]any{i + 1, x.Prop.Name, x.Solids[0].Name, x.Copies, round(x.Size[0]), round(x.Size[1]), round(x.Size[2]),
				measure.Decimal(x.Mass, 2), box},
		)
	}
	for _, b := range boxes {
		rows = append(rows, []any{"", b.Prop.Name, "box: " + strings.Join(b.Holds, "; "), 1, "", "", "",
			measure.Decimal(b.Mass, 2), b.Name()})
	}
	return writeCSV(out, rows)
}
