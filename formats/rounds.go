package formats

import (
	"io"
	"time"

	"zapbarn/core/words"
	"zapbarn/core/work"
)

// RoundsPDF prints what is done before a night opens and after it closes, a list a page, in
// letters that are read off a wall: a box to tick, what to do, of which prop, and the usual
// caution where one is due; below it who did it, and when.
func RoundsPDF(out io.Writer, w *work.Work, on string, paper Paper) error {
	if on == "" {
		on = w.Today.Format(time.DateOnly)
	}
	rounds := w.Rounds(on)
	if len(rounds) == 0 {
		return empty("night", "has nothing to open or to close yet: no prop, no outlet")
	}
	s := &rounded{newPDF(paper, w.Plan.Display().Name+", opening and closing, "+on), w, paper, on}
	s.pdf.SetAutoPageBreak(false, 0)
	for _, closing := range []bool{false, true} {
		var list []work.Round
		for _, r := range rounds {
			if r.Closing == closing {
				list = append(list, r)
			}
		}
		if len(list) > 0 {
			s.list(map[bool]string{false: "Opening", true: "Closing"}[closing], list)
		}
	}
	return s.pdf.Output(out)
}

// rounded prints the lists of a night.
type rounded struct {
	pdf   *document
	w     *work.Work
	paper Paper
	on    string
}

// roundBox is how large a box to tick is, mm: a thick pen hits it.
const roundBox = 6.0

// list prints one list, over as many pages as it takes.
func (s *rounded) list(name string, list []work.Round) {
	s.head(name, len(list))
	for _, r := range list {
		wide := s.paper.W - 2*pageMargin - roundBox - 4
		s.pdf.SetFont(face, "", 12.5)
		lines := s.pdf.SplitText(letters(r.What), wide)
		high := float64(len(lines))*5.6 + 3
		if r.Danger != "" {
			high += 5.2
		}
		if s.pdf.GetY()+high > s.paper.H-26 {
			s.foot()
			s.head(name+", on", len(list))
		}
		s.row(r, lines, wide, high)
	}
	s.foot()
}

func (s *rounded) head(name string, n int) {
	s.pdf.AddPage()
	s.pdf.SetTextColor(35, 28, 21)
	s.pdf.SetDrawColor(35, 28, 21)
	s.pdf.SetXY(pageMargin, pageMargin)
	s.pdf.SetFont(face, "B", 24)
	s.pdf.CellFormat(0, 11, letters(name), "", 2, "L", false, 0, "")
	s.pdf.SetFont(face, "", 10)
	s.pdf.CellFormat(
		0,
		5,
		letters(s.w.Plan.Display().Name+", "+s.on+", "+words.Count(n, "line")),
		"",
		2,
		"L",
		false,
		0,
		"",
	)
	s.pdf.SetLineWidth(.5)
	s.pdf.Line(pageMargin, pageMargin+18, s.paper.W-pageMargin, pageMargin+18)
	s.pdf.SetY(pageMargin + 21)
}

// row is a box and what it is for.
func (s *rounded) row(r work.Round, lines []string, wide, high float64) {
	y := s.pdf.GetY()
	s.pdf.SetLineWidth(.5)
	s.pdf.Rect(pageMargin, y+.4, roundBox, roundBox, "D")
	s.pdf.within("P", func() {
		s.pdf.SetFont(face, "", 12.5)
		for _, l := range lines {
			s.pdf.SetX(pageMargin + roundBox + 3)
			s.pdf.CellFormat(wide, 5.6, l, "", 2, "L", false, 0, "")
		}
		if r.Danger != "" {
			s.pdf.SetFont(face, "B", 9)
			s.pdf.SetX(pageMargin + roundBox + 3)
			s.pdf.CellFormat(wide, 5.2, shortened(s.pdf, r.Danger, wide-2), "", 2, "L", false, 0, "")
		}
	})
	s.pdf.SetLineWidth(.1)
	s.pdf.Line(pageMargin, y+high-.8, s.paper.W-pageMargin, y+high-.8)
	s.pdf.SetY(y + high)
}

// foot is who did it, and when, and that local rules come first.
func (s *rounded) foot() {
	y := s.paper.H - 18
	s.pdf.SetFont(face, "", 10)
	s.pdf.Text(pageMargin, y, "Done by")
	s.pdf.Text(s.paper.W*.62, y, "at")
	s.pdf.SetLineWidth(.2)
	s.pdf.Line(pageMargin+16, y+.5, s.paper.W*.58, y+.5)
	s.pdf.Line(s.paper.W*.62+6, y+.5, s.paper.W-pageMargin, y+.5)
	s.pdf.SetFont(face, "", 7.5)
	s.pdf.Text(
		pageMargin,
		y+7,
		"Local codes, the fire authority and licensed practice come first. In doubt it stays shut.",
	)
}
