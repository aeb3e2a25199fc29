package formats

import (
	"fmt"
	"io"
	"slices"
	"strings"

	"zapbarn/core/calendar"
	"zapbarn/core/measure"
	"zapbarn/core/order"
	"zapbarn/core/work"

	ics "github.com/arran4/golang-ical"
)

// ICS writes the timetable as an iCalendar file (RFC 5545): an event for each time that
// hands are on a task, its people and its steps in its text, and one for the opening. Times
// are floating: the clock of wherever it is read.
func ICS(out io.Writer, w *work.Work, _ string) error {
	t := order.In(w)
	cal := ics.NewCalendar()
	cal.SetProductId("-//Zap Barn//order of work//EN")
	cal.SetMethod(ics.MethodPublish)
	cal.SetName(w.Plan.Display().Name)
	const local = "20060102T150405"
	event := func(id, title, text string, from, to int) {
		e := cal.AddEvent(id + "@" + w.Plan.Display().ID)
		e.SetDtStampTime(t.First)
		e.SetProperty(ics.ComponentPropertyDtStart, t.At(from).Format(local))
		e.SetProperty(ics.ComponentPropertyDtEnd, t.At(to).Format(local))
		e.SetSummary(title)
		if text != "" {
			e.SetDescription(text)
		}
	}
	for _, i := range t.InTime() {
		x, s := t.Row[i], t.Slots[i]
		text := strings.Join(append(append([]string{strings.Join(t.Who(i), " and ")}, x.Steps...), x.Cautions...), "\n")
		for k, piece := range s.Pieces {
			if piece.End > piece.Start || x.Kind == "arrive" {
				end := piece.End
				if x.Kind == "arrive" { // nobody's time: a quarter of an hour, to be seen
					end = piece.Start + 15
				}
				event(fmt.Sprintf("%s-%d", x.Key, k), titled(w, x), text, piece.Start, end)
			}
		}
	}
	if t.Deadline > 0 {
		event("opens", w.Plan.Display().Name+" opens", "", t.Deadline, t.Deadline+60)
	}
	return cal.SerializeTo(out, ics.WithNewLineWindows)
}

// titled is a task's name with its prop.
func titled(w *work.Work, x *order.Task) string {
	if p := w.Plan.Prop(x.Prop); p != nil && !strings.Contains(x.Name, p.Name) {
		return p.Name + ": " + x.Name
	}
	return x.Name
}

// TasksCSV writes the timetable as a table, a row a task, in order of time; those that
// nobody can do come last.
func TasksCSV(out io.Writer, w *work.Work, _ string) error {
	t := order.In(w)
	rows := [][]any{{"begins", "hands off", "wait over", "latest start", "may not slip", "prop", "task", "who",
		"hands-on, min", "wait, min", "key", "waits for"}}
	stamp := func(minute int) string { return t.At(minute).Format("2006-01-02 15:04") }
	for i, x := range t.Row {
		if t.Slots != nil && t.Slots[i].Placed() {
			continue
		}
		lacks := ""
		if t.Slots != nil {
			lacks = t.Slots[i].Lacks
		}
		rows = append(
			rows,
			[]any{"", "", "", "", "", nameOfProp(w, x), x.Name, lacks, x.Hands, x.Wait, x.Key, waitsFor(x)},
		)
	}
	late := slices.Clone(rows[1:])
	rows = rows[:1]
	for _, i := range t.InTime() {
		x, s := t.Row[i], t.Slots[i]
		slip := ""
		if t.Critical(i) {
			slip = "yes"
		}
		rows = append(
			rows,
			[]any{stamp(s.Start()), stamp(s.End()), stamp(s.Free), stamp(t.Latest[i]), slip, nameOfProp(w, x),
				x.Name, strings.Join(t.Who(i), " and "), x.Hands, x.Wait, x.Key, waitsFor(x)},
		)
	}
	return writeCSV(out, append(rows, late...))
}

func nameOfProp(w *work.Work, x *order.Task) string {
	if p := w.Plan.Prop(x.Prop); p != nil {
		return p.Name
	}
	return ""
}

func waitsFor(x *order.Task) string {
	var list []string
	for _, l := range x.After {
		list = append(list, l.Task.Key)
	}
	return strings.Join(list, " ")
}

// DaySheets writes a page a person and day, for the days of the next two weeks on which
// they do something: the tasks with a box to tick, their steps and cautions.
func DaySheets(out io.Writer, w *work.Work, _ string, paper Paper) error {
	t := order.In(w)
	pdf := newPDF(paper, w.Plan.Display().Name+", day sheets")
	footed(pdf, paper)
	pdf.SetMargins(pageMargin, pageMargin, pageMargin)
	pdf.SetAutoPageBreak(true, pageMargin)
	s := &sheetWriter{pdf: pdf, tr: letters, paper: paper, w: w, metric: w.Plan.Metric()}
	pages := 0
	for day := range 14 {
		for k, who := range t.Crew {
			title := func() {
				s.heading(who.Name+", "+t.At(day*calendar.Day).Format("Monday Jan 2"), w.Plan.Display().Name)
				pages++
			}
			any := false
			for _, i := range t.InTime() {
				x := t.Row[i]
				if x.Hands == 0 || !slices.Contains(t.Slots[i].Who, k) {
					continue
				}
				for n, piece := range t.Slots[i].Pieces {
					if piece.Start/calendar.Day != day {
						continue
					}
					if !any {
						title()
						any = true
					}
					s.dayTask(t, i, n, piece)
				}
			}
		}
	}
	if pages == 0 {
		return empty("tasks", "nobody has anything to do in the next two weeks")
	}
	return pdf.Output(out)
}

// dayTask prints one time of a task on a day sheet.
func (s *sheetWriter) dayTask(t *order.Timetable, i, n int, piece calendar.Span) {
	x := t.Row[i]
	if s.pdf.GetY() > s.paper.H-45 {
		s.pdf.AddPage()
		s.pdf.SetY(pageMargin)
	}
	y := s.pdf.GetY() + 1.5
	s.pdf.Rect(pageMargin, y+.8, 4.2, 4.2, "D")
	s.font("B", 11)
	s.pdf.SetXY(pageMargin+7, y)
	name := titled(s.w, x)
	if n > 0 {
		name += ", goes on"
	}
	s.pdf.CellFormat(
		s.paper.W-2*pageMargin-40,
		6,
		fitted(s.pdf, letters(name), s.paper.W-2*pageMargin-42),
		"",
		0,
		"L",
		false,
		0,
		"",
	)
	s.font("", 10)
	s.pdf.CellFormat(0, 6, calendar.Clock(piece.Start)+" to "+calendar.Clock(piece.End), "", 1, "R", false, 0, "")
	lines := []string{}
	if len(t.Slots[i].Who) > 1 {
		lines = append(lines, strings.Join(t.Who(i), " and ")+" together.")
	}
	lines = append(lines, x.Steps...)
	if x.Wait > 0 {
		lines = append(lines, "Leave it "+measure.Span(float64(x.Wait)*60)+", to "+t.Say(t.Slots[i].Free)+".")
	}
	s.font("", 9)
	for _, l := range lines {
		s.pdf.SetX(pageMargin + 7)
		s.pdf.MultiCell(s.paper.W-2*pageMargin-7, lineHigh, letters(l), "", "L", false)
	}
	s.font("B", 9)
	for _, l := range x.Cautions {
		s.pdf.SetX(pageMargin + 7)
		s.pdf.MultiCell(s.paper.W-2*pageMargin-7, lineHigh, letters(l), "", "L", false)
	}
	s.pdf.Ln(1)
	s.pdf.SetLineWidth(.15)
	s.pdf.Line(pageMargin, s.pdf.GetY(), s.paper.W-pageMargin, s.pdf.GetY())
}
