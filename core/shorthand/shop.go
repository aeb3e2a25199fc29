package shorthand

import (
	"fmt"
	"slices"
	"strings"

	"zapbarn/core/stock"
)

// shop adds an entry to the shop's list, or changes one: its table, its name,
// the entry it is like, then fields and their values.
func (r *reader) shop() (*Reading, error) {
	words := r.words[1:]
	if len(words) < 2 || !slices.Contains(stock.Tables(), strings.ToLower(words[0])) {
		return nil, fmt.Errorf("say which list, one of %s, and a name", strings.Join(stock.Tables(), ", "))
	}
	g := r.p.GoodOf(strings.ToLower(words[0]), strings.ToLower(words[1]))
	words = words[2:]
	if len(words) > 1 && strings.EqualFold(words[0], "like") {
		g.Like, words = strings.ToLower(words[1]), words[2:]
	}
	fields := stock.FieldsOf(g.Table)
	field, value := "", []string{}
	end := func() error {
		if field != "" && len(value) == 0 {
			return fmt.Errorf("say a value after %s", field)
		}
		if field != "" {
			g = g.With(field, strings.Join(value, " "))
		}
		return nil
	}
	for _, x := range words {
		if i := slices.IndexFunc(fields, func(f string) bool { return strings.EqualFold(f, x) }); i >= 0 {
			if err := end(); err != nil {
				return nil, err
			}
			field, value = fields[i], nil
			continue
		}
		if field == "" {
			return nil, fmt.Errorf("%q is no field of this list; it has %s", x, strings.Join(fields, ", "))
		}
		value = append(value, x)
	}
	if err := end(); err != nil {
		return nil, err
	}
	text := "in this plan's shop: " + g.Table + " " + g.Good
	if g.Like != "" {
		text += ", like " + g.Like
	}
	for _, s := range g.Set {
		text += fmt.Sprintf(", %s %s", s.Field, s.Value)
	}
	return r.put(text, "good", g.ID, g)
}

// price sets what an entry of the shop costs, whichever list it is on.
func (r *reader) price() (*Reading, error) {
	words := r.words[1:]
	if len(words) != 2 {
		return nil, fmt.Errorf("a price takes the shop's name for it and a sum")
	}
	id := strings.ToLower(words[0])
	for _, table := range stock.Tables() {
		if was, ok := r.lib.Value(table, id, "price"); ok && has(r.lib, table, id) {
			g := r.p.GoodOf(table, id).With("price", strings.TrimPrefix(words[1], "$"))
			return r.put(
				fmt.Sprintf("in this plan %s costs $%s, not $%s", id, strings.TrimPrefix(words[1], "$"), was),
				"good",
				g.ID,
				g,
			)
		}
	}
	return nil, fmt.Errorf("the shop has nothing called %q that has a price", words[0])
}

// has reports whether a list of the shop has an entry.
func has(l *stock.Library, table, id string) bool {
	switch table {
	case "material":
		return l.Materials[id].ID != ""
	case "supply":
		return l.Supplies[id].ID != ""
	}
	return false
}
