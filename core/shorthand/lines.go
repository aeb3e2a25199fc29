package shorthand

import (
	"fmt"
	"strings"

	"zapbarn/core/plan"
	"zapbarn/core/stock"
)

// Line is one of several lines as it was understood; Err when it was not.
type Line struct {
	Text, Says string
	Err        error
}

// maxLines is how many lines are read at once.
const maxLines = 200

// ReadAll reads several lines, each on the plan as the ones before leave it, as
// one edit: all of them or none. A line that names a prop opens it for those
// after. The reading is nil when a line was not understood; empty lines and
// those that begin with # are passed over.
func ReadAll(p *plan.Plan, lib *stock.Library, prop, text string) (*Reading, []Line) {
	return ReadEach(p, lib, prop, text, read)
}

// ReadOne reads a line onto a plan and gives the plan as the line leaves it.
type ReadOne func(p *plan.Plan, lib *stock.Library, prop, text string) (*Reading, *plan.Plan, error)

// ReadEach is ReadAll by another reader of lines.
func ReadEach(p *plan.Plan, lib *stock.Library, prop, text string, read ReadOne) (*Reading, []Line) {
	whole := &Reading{}
	var lines []Line
	good := true
	for _, t := range strings.Split(text, "\n") {
		t = strings.TrimSpace(t)
		if t == "" || strings.HasPrefix(t, "#") {
			continue
		}
		if len(lines) == maxLines {
			lines = append(lines, Line{t, "", fmt.Errorf("%d lines at most at once", maxLines)})
			return nil, lines
		}
		r, next, err := read(p, lib, prop, t)
		if err != nil {
			good = false
			lines = append(lines, Line{t, "", err})
			continue
		}
		p = next
		if kind, id, _ := strings.Cut(r.Select, ":"); kind == "prop" && p.Prop(id) != nil {
			prop = id
		}
		lines = append(lines, Line{Text: t, Says: r.Text})
		whole.Edit.Changes = append(whole.Edit.Changes, r.Edit.Changes...)
		whole.Select = r.Select
	}
	if !good || len(lines) == 0 {
		return nil, lines
	}
	whole.Text = fmt.Sprintf("%d lines", len(lines))
	if len(lines) == 1 {
		whole.Text = lines[0].Says
	}
	whole.Edit.Label = whole.Text
	return whole, lines
}
