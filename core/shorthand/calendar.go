package shorthand

import (
	"fmt"
	"slices"
	"strings"
	"time"

	"zapbarn/core/calendar"
	"zapbarn/core/measure"
	"zapbarn/core/plan"
)

// person is one of the crew: person Ola mon-fri 18-21:30, sat sun 10-18 does wiring.
func (r *reader) person() (*Reading, error) {
	words, trades, _ := parted(r.words[1:], "does", "trades")
	k := slices.IndexFunc(words, calendar.IsDay)
	if k < 0 {
		k = len(words)
	}
	name := asTyped(words[:k])
	if name == "" {
		return nil, fmt.Errorf("say who, then their hours")
	}
	if n := slices.IndexFunc(words[:k], calendar.IsHours); n >= 0 { // hours of a day that is none are no name
		_, err := calendar.ParseWeek(asTyped(words[max(0, n-1) : n+1]))
		return nil, err
	}
	x := plan.Person{ID: r.p.FreshID("person", name), Name: name, Hours: asTyped(words[k:])}
	x.Trades = asTyped(
		slices.DeleteFunc(slices.Clone(trades), func(w string) bool { return strings.EqualFold(w, "and") }),
	)
	if x.Trades != "" && !strings.Contains(x.Trades, ",") {
		x.Trades = strings.Join(strings.Fields(x.Trades), ", ")
	}
	if _, err := calendar.ParseWeek(x.Hours); err != nil {
		return nil, err
	}
	text := name + " helps"
	if x.Hours != "" {
		text += ", " + x.Hours
	}
	if x.Trades != "" {
		text += ", does " + x.Trades
	}
	return r.put(text, "person", x.ID, x)
}

// delivery is what is on its way: delivery gear motor for sunflowers 2026-10-03.
func (r *reader) delivery() (*Reading, error) {
	words := r.words[1:]
	n := len(words)
	if n == 0 {
		return nil, fmt.Errorf("say what comes, for what, and when")
	}
	if _, err := time.Parse(time.DateOnly, words[n-1]); err != nil {
		return nil, measure.Bad("arrives", "%q is no date; write such as 2026-10-03", words[n-1])
	}
	what, of, ok := parted(words[:n-1], "for")
	if !ok || len(what) == 0 {
		return nil, fmt.Errorf("say what comes, then for what")
	}
	t, rest, ok := r.named(of)
	if !ok || len(rest) > 0 || r.p.PropOf(t.kind+":"+t.id) == "" {
		return nil, r.what(of)
	}
	name := measure.Capital(asTyped(what))
	x := plan.Delivery{ID: r.p.FreshID("delivery", name), Name: name, For: t.kind + ":" + t.id, Arrives: words[n-1]}
	return r.put(fmt.Sprintf("%s for %s arrives %s", name, plan.NameOf(t.value), x.Arrives), "delivery", x.ID, x)
}

// task is a task of one's own: task fetch the fogger 1 h.
func (r *reader) task() (*Reading, error) {
	words := r.words[1:]
	for n := min(4, len(words)-1); n > 0; n-- {
		d, err := measure.Parse[measure.DurationKind](strings.Join(words[len(words)-n:], " "))
		if err != nil || d.Value() <= 0 {
			continue
		}
		name := measure.Capital(asTyped(words[:len(words)-n]))
		x := plan.Job{ID: r.p.FreshID("job", name), Name: name, Hands: d, Prop: r.prop}
		return r.put(fmt.Sprintf("%s, %s of work", name, measure.Span(d.Value())), "job", x.ID, x)
	}
	return nil, fmt.Errorf("say what is to be done, then how long it takes")
}

// asTyped are words as they were typed, commas where they were.
func asTyped(words []string) string { return strings.ReplaceAll(strings.Join(words, " "), " , ", ", ") }
