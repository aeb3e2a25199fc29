package draw

import (
	"fmt"
	"math"
	"strings"

	"zapbarn/core/calendar"
	"zapbarn/core/order"
	"zapbarn/core/plan"
)

// barLeft is the room for names, barRow how high a row is, barHead the room for the days.
const barLeft, barRow, barHead = 150.0, 46.0, 34.0

// Bars draws a timetable: a row a prop, hands-on solid and waits hatched, the tasks that
// may not slip underlined, the opening as a door; under it how full each person's days are.
func Bars(t *order.Timetable, now int, p *plan.Plan, sel string, href func(key string) string) string {
	const left, row, head = barLeft, barRow, barHead
	days := min(max(t.End, t.Deadline)/calendar.Day+1, order.Ahead)
	day := math.Max(96, 810/float64(days))
	names, rowOf := barRows(t, p)
	c := New(left+day*float64(days)+20, head+row*float64(len(names))+34*float64(len(t.Crew))+40, false)
	x := func(minute int) float64 { return left + day*float64(min(minute, days*calendar.Day))/calendar.Day }
	bottom := head + row*float64(len(names))
	for d := range days {
		at := x(d * calendar.Day)
		c.Line("rule", at, 6, at, c.H-8)
		c.Text("t lbl", "start", at+6, 22, t.At(d*calendar.Day).Format("Mon 2"))
	}
	there := [][]calendar.Span{}
	for _, who := range t.Crew {
		there = append(there, who.There)
	}
	for _, s := range merged(there) {
		if s.Start < days*calendar.Day {
			c.Rect("shift", x(s.Start), head, x(min(s.End, days*calendar.Day))-x(s.Start), bottom-head)
		}
	}
	for i, name := range names {
		y := head + row*float64(i)
		c.Line("rule", 0, y+row, c.W, y+row)
		c.Text("t name", "start", 14, y+row/2+5, clip(name, 20))
	}
	c.tasks(t, rowOf, sel, href, x)
	if now < days*calendar.Day {
		c.Line("now", x(now), head-8, x(now), bottom)
	}
	if t.Deadline > 0 && t.Deadline < days*calendar.Day {
		at := x(t.Deadline)
		c.Poly("gate", []XY{{at - 9, bottom}, {at - 9, head + 8}, {at, head - 2}, {at + 9, head + 8}, {at + 9, bottom}})
		c.TextAt("t lbl", at+4, (head+bottom)/2, -90, "opens "+t.Say(t.Deadline))
	}
	c.loads(t, days, bottom+16, x)
	desc := fmt.Sprintf("%d tasks, the last over %s.", len(t.Row), t.Say(t.End))
	// as wide as it is: it scrolls
	return strings.Replace(c.SVG("bars", "Order of work over the days", desc), "<svg ",
		fmt.Sprintf(`<svg width="%s" height="%s" `, n(c.W), n(c.H)), 1)
}

// tasks draws each task's hands and wait in its row.
func (c *Canvas) tasks(
	t *order.Timetable, rowOf map[string]int, sel string, href func(key string) string, x func(int) float64,
) {
	for i, task := range t.Row {
		s := t.Slots[i]
		if !s.Placed() {
			continue
		}
		y := barHead + barRow*float64(rowOf[task.Prop]) + 10
		if task.Kind == "arrive" { // on its way
			c.Pick(href(task.Key), "task:"+task.Key, task.Name, sel == "task:"+task.Key)
			c.Line("coming", barLeft, y+12, x(s.Start()), y+12)
			c.Poly("hand", []XY{{x(s.Start()), y + 4}, {x(s.Start()) + 10, y + 12}, {x(s.Start()), y + 20}})
			c.Text("t soft", "start", barLeft+6, y+4, clip(task.Name, 40))
			c.Done()
			continue
		}
		tip := fmt.Sprintf("%s, %s to %s", task.Name, t.Say(s.Start()), calendar.Clock(s.End()))
		c.Pick(href(task.Key), "task:"+task.Key, tip, sel == "task:"+task.Key)
		if task.Wait > 0 {
			c.Rect("wait", x(s.End()), y+6, math.Max(1, x(s.Free)-x(s.End())), 12)
		}
		for _, piece := range s.Pieces {
			c.Rect("hand", x(piece.Start), y, math.Max(2.5, x(piece.End)-x(piece.Start)), 24)
		}
		if t.Critical(i) {
			c.Line("critical", x(s.Start()), y+29, x(max(s.Free, s.End())), y+29)
		}
		c.Done()
	}
}

// loads are how full each person's days are.
func (c *Canvas) loads(t *order.Timetable, days int, y float64, x func(int) float64) {
	for k, who := range t.Crew {
		c.Text("t", "start", 14, y+16, clip(who.Name, 18))
		busy := make([]int, days)
		for i, s := range t.Slots {
			for _, w := range s.Who {
				if w != k || t.Row[i].Hands == 0 {
					continue
				}
				for _, piece := range s.Pieces {
					busy[min(days-1, piece.Start/calendar.Day)] += piece.End - piece.Start
				}
			}
		}
		has := make([]int, days)
		for _, s := range who.There {
			if d := s.Start / calendar.Day; d < days {
				has[d] += s.End - s.Start
			}
		}
		for d := range days {
			if has[d] == 0 {
				continue
			}
			a, wide := x(d*calendar.Day)+4, x((d+1)*calendar.Day)-x(d*calendar.Day)-8
			c.Rect("loadbox", a, y+4, wide, 14)
			class := "load"
			if busy[d] >= has[d] {
				class = "load full"
			}
			c.Rect(class, a, y+4, wide*math.Min(1, float64(busy[d])/float64(has[d])), 14)
		}
		y += 30
	}
}

// barRows are the props that have tasks, in the plan's order, and last what is of all.
func barRows(t *order.Timetable, p *plan.Plan) (names []string, rowOf map[string]int) {
	rowOf = map[string]int{}
	has := map[string]bool{}
	for i, x := range t.Row {
		has[x.Prop] = has[x.Prop] || t.Slots[i].Placed()
	}
	for _, prop := range p.Props() {
		if has[prop.ID] {
			rowOf[prop.ID] = len(names)
			names = append(names, prop.Name)
		}
	}
	if has[""] {
		rowOf[""] = len(names)
		names = append(names, "Everything")
	}
	return names, rowOf
}

// merged are the times in any of some lists.
func merged(lists [][]calendar.Span) (out []calendar.Span) {
	for _, l := range lists {
		out = calendar.Either(out, l)
	}
	return out
}

// clip is a text of so many letters at most.
func clip(s string, most int) string {
	if r := []rune(s); len(r) > most {
		return string(r[:most-1]) + "…"
	}
	return s
}
