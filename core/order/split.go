package order

import (
	"fmt"
	"slices"
)

// split puts a task that was said to be done in parts into as many, one after the other,
// each an equal share of the hands-on time; the wait is the last one's. The first keeps the
// task's key, so that what was said of it stays said.
func (b *builder) split() {
	for i := range b.Plan.Jobs() {
		j := &b.Plan.Jobs()[i]
		t := b.taskOf(j.Task, j.ID)
		if t == nil || j.Parts < 2 {
			continue
		}
		at := slices.Index(b.o.Tasks, t)
		name, whole := t.Name, *t
		var list []*Task
		for n := 1; n <= j.Parts; n++ {
			part := t
			if n > 1 {
				c := whole
				part = &c
				part.Key = fmt.Sprintf("%s/%d", whole.Key, n)
				b.o.by[part.Key] = part
			}
			part.Name = fmt.Sprintf("%s, part %d of %d", name, n, j.Parts)
			part.Hands = share1(whole.Hands, n, j.Parts)
			part.Planned = part.Hands // it is corrected after
			if part.of = list; n < j.Parts {
				part.Wait, part.drying = 0, nil
			}
			list = append(list, part)
		}
		b.o.Tasks = slices.Replace(b.o.Tasks, at, at+1, list...)
	}
}

// share1 is the n-th of so many whole shares that add up to all.
func share1(all, n, of int) int { return all*n/of - all*(n-1)/of }

// taskOf is the task that a job speaks of, or nil.
func (b *builder) taskOf(key, id string) *Task {
	if key == "" {
		key = "own:" + id
	}
	return b.o.by[key]
}

// merge does tasks together that were said to be: the one takes the other's hands-on time,
// steps and cautions, its wait where that is longer, and all that it waited for; what waited
// for that waits for both.
func (b *builder) merge() {
	into := map[*Task]*Task{}
	var find func(t *Task) *Task
	find = func(t *Task) *Task {
		if u := into[t]; u != nil {
			return find(u)
		}
		return t
	}
	for i := range b.Plan.Jobs() {
		j := &b.Plan.Jobs()[i]
		t, u := b.taskOf(j.Task, j.ID), b.o.by[j.With]
		if j.With == "" || t == nil || u == nil || find(t) == find(u) || t.Done || u.Done || t.Out || u.Out {
			continue
		}
		into[find(t)] = find(u)
		find(u).take(t)
	}
	if len(into) == 0 {
		return
	}
	b.o.Tasks = slices.DeleteFunc(b.o.Tasks, func(t *Task) bool { return into[t] != nil })
	for t := range into {
		b.o.by[t.Key] = find(t)
	}
	for _, t := range b.o.Tasks {
		links := slices.Clone(t.After)
		for _, m := range t.Merged {
			links = append(links, m.After...)
		}
		t.After = nil
		for _, l := range links {
			l.Task = find(l.Task)
			if l.Task != t {
				t.wait(l)
			}
		}
	}
}

// take makes another task part of this one.
func (t *Task) take(other *Task) {
	t.Merged = append(append(t.Merged, other), other.Merged...)
	t.Hands, t.Planned = t.Hands+other.Hands, t.Planned+other.Planned
	t.People, t.From = max(t.People, other.People), max(t.From, other.From)
	t.Whole = t.Whole || other.Whole
	if t.Trade == "" {
		t.Trade = other.Trade
	}
	if t.Tool == "" {
		t.Tool = other.Tool
	}
	t.Name += " and " + other.Name
	t.Steps = append(append(slices.Clone(t.Steps), other.Name+":"), other.Steps...)
	t.Timers = append(slices.Clone(t.Timers), other.Timers...)
	t.About = append(slices.Clone(t.About), other.About...)
	for _, c := range other.Cautions {
		if !slices.Contains(t.Cautions, c) {
			t.Cautions = append(slices.Clone(t.Cautions), c)
		}
	}
	t.drying = append(t.allDrying(), other.allDrying()...)
	t.Wait = max(t.Wait, other.Wait)
}
