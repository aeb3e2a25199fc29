package formats

import (
	"context"
	"errors"
	"fmt"
	"io"
	"strings"

	"zapbarn/core/measure"
	"zapbarn/core/plan"
)

var goodsHead = []any{"table", "good", "like", "field", "value", "on"}

// GoodsCSV writes the shop's entries that a plan changes or adds, a row a field.
func GoodsCSV(out io.Writer, p *plan.Plan) error {
	rows := [][]any{goodsHead}
	for _, g := range p.Goods() {
		if len(g.Set) == 0 {
			rows = append(rows, []any{g.Table, g.Good, g.Like, "", "", g.On})
		}
		for _, s := range g.Set {
			rows = append(rows, []any{g.Table, g.Good, g.Like, s.Field, s.Value, g.On})
		}
	}
	return writeCSV(out, rows)
}

// maxGoodRows is how many rows a file of goods may have.
const maxGoodRows = 4000

// GoodsRead is such a file as it was read.
type GoodsRead struct{ rows [][]string }

// ReadGoods reads such a file. Errors name the row.
func ReadGoods(ctx context.Context, data []byte) (*GoodsRead, error) {
	rows, err := tableOf(ctx, data, maxGoodRows)
	return &GoodsRead{rows}, err
}

// Edit is the edit that puts the file's entries into a plan, those of the same name in place
// of what was there. Errors name the row.
func (r *GoodsRead) Edit(p *plan.Plan) (plan.Edit, error) {
	e := plan.Edit{Label: "goods from a file"}
	order, by, rowOf := []string{}, map[string]*plan.Good{}, map[string]int{}
	for i, row := range r.rows {
		n := i + 1
		if n == 1 && len(row) > 0 && strings.EqualFold(row[0], "table") {
			continue
		}
		if len(row) < 5 {
			return e, fmt.Errorf("row %d has %d cells; write table, good, like, field, value, on", n, len(row))
		}
		id := plan.GoodID(row[0], row[1])
		g := by[id]
		if g == nil {
			g = &plan.Good{
				ID:    id,
				Table: strings.ToLower(row[0]),
				Good:  strings.ToLower(row[1]),
				Like:  strings.ToLower(row[2]),
			}
			by[id], order = g, append(order, id)
		}
		if len(row) > 5 && row[5] != "" {
			g.On = row[5]
		}
		if row[3] != "" {
			*g = g.With(row[3], row[4])
		}
		if was := rowOf[id+" "+row[3]]; was > 0 && row[3] != "" {
			return e, measure.Bad("file", "row %d says %s of %s again, after row %d; keep one of the two", n,
				row[3], g.Good, was)
		}
		rowOf[id+" "+row[3]], rowOf[id] = n, n
	}
	if len(order) == 0 {
		return e, errors.New("the file has no rows; write table, good, like, field, value, on")
	}
	for _, id := range order {
		e.Changes = append(e.Changes, p.Put("good", id, *by[id]))
	}
	_, err := p.Apply(e)
	return e, inRow(err, rowOf)
}

// inRow says in which row of the file a good that cannot be is written.
func inRow(err error, rowOf map[string]int) error {
	at, known := errors.AsType[*plan.ElementError](err)
	if !known || at.Kind != "good" {
		return err
	}
	field := ""
	if f, ok := errors.AsType[*measure.FieldError](err); ok {
		field = f.Field
	}
	if n := rowOf[at.ID+" "+field]; n > 0 {
		return measure.Bad("file", "row %d: %s", n, at.Err)
	}
	return measure.Bad("file", "row %d: %s", rowOf[at.ID], at.Err)
}
