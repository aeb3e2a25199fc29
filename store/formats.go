package store

import (
	"bytes"
	"context"
	"database/sql"
	"encoding/json"
	"fmt"

	"zapbarn/core/plan"

	"github.com/pressly/goose/v3"
)

// toFormat is the migration of a number that brings all that is stored, the log
// of edits as well, from a plan format to the newest.
func toFormat(number int64, from int) *goose.Migration {
	return goose.NewGoMigration(number, &goose.GoFunc{RunTx: func(ctx context.Context, tx *sql.Tx) error {
		if err := upgradeElements(ctx, tx, from); err != nil {
			return fmt.Errorf("elements: %w", err)
		}
		if err := upgradeEdits(ctx, tx, from); err != nil {
			return fmt.Errorf("edits: %w", err)
		}
		return nil
	}}, &goose.GoFunc{RunTx: func(context.Context, *sql.Tx) error {
		return fmt.Errorf("plans cannot go back to format %d; restore a backup made before", from)
	}})
}

// upgradeElements goes through the elements plan by plan and kind by kind, so
// that no more than that is held at once; pictures' data is left alone.
func upgradeElements(ctx context.Context, tx *sql.Tx, from int) error {
	type key struct{ plan, kind, id string }
	keys, err := all(
		ctx,
		tx,
		`select plan_id, kind, id from elements where kind <> 'photo'`,
		func(r *sql.Rows) (k key, err error) {
			return k, r.Scan(&k.plan, &k.kind, &k.id)
		},
	)
	if err != nil {
		return err
	}
	for _, k := range keys {
		var was []byte
		if err := tx.QueryRowContext(ctx, `select body from elements where plan_id = $1 and kind = $2 and id = $3`, k.plan,
			k.kind, k.id).Scan(&was); err != nil {
			return err
		}
		now := plan.Upgraded(k.kind, was, from)
		if same(was, now) {
			continue
		}
		if _, err := tx.ExecContext(ctx, `update elements set body = $4 where plan_id = $1 and kind = $2 and id = $3`, k.plan,
			k.kind, k.id, []byte(now)); err != nil {
			return err
		}
	}
	return nil
}

func upgradeEdits(ctx context.Context, tx *sql.Tx, from int) error {
	ids, err := all(ctx, tx, `select id from edits`, func(r *sql.Rows) (id int64, err error) { return id, r.Scan(&id) })
	if err != nil {
		return err
	}
	for _, id := range ids {
		var was []byte
		var changes []plan.Change
		if err := tx.QueryRowContext(ctx, `select changes from edits where id = $1`, id).Scan(&was); err != nil {
			return err
		}
		if json.Unmarshal(was, &changes) != nil {
			continue // a log that cannot be read can be shown, and says so when it is undone
		}
		touched := false
		for i := range changes {
			c := &changes[i]
			before, after := plan.Upgraded(c.Kind, c.Before, from), plan.Upgraded(c.Kind, c.After, from)
			touched = touched || !same(c.Before, before) || !same(c.After, after)
			c.Before, c.After = before, after
		}
		if !touched {
			continue
		}
		now, err := json.Marshal(changes)
		if err != nil {
			return err
		}
		if _, err := tx.ExecContext(ctx, `update edits set changes = $2 where id = $1`, id, now); err != nil {
			return err
		}
	}
	return nil
}

// same is true of two texts of one JSON value; the order of fields and the
// spaces between them count for nothing.
func same(a, b []byte) bool {
	if bytes.Equal(a, b) {
		return true
	}
	var x, y any
	if json.Unmarshal(a, &x) != nil || json.Unmarshal(b, &y) != nil {
		return false
	}
	return fmt.Sprint(x) == fmt.Sprint(y)
}

// all reads every row of a query.
func all[T any](ctx context.Context, tx *sql.Tx, query string, scan func(*sql.Rows) (T, error)) (list []T, err error) {
	rows, err := tx.QueryContext(ctx, query)
	if err != nil {
		return nil, err
	}
	defer rows.Close()
	for rows.Next() {
		v, err := scan(rows)
		if err != nil {
			return nil, err
		}
		list = append(list, v)
	}
	return list, rows.Err()
}
