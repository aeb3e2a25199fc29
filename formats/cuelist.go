package formats

import (
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"io"
	"sort"
	"strconv"
	"strings"

	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/work"
)

// CueListCSV is every cue of a prop, or of all, in the order they come.
func CueListCSV(out io.Writer, w *work.Work, prop string) error {
	return writeCSV(out, asCells(append([][]string{cueColumns}, cueList(w, prop)...)))
}

// ReadCueList reads a cue list back: each scene that it names has the cues it lists, in
// place of those it had. An error names the row and the field.
func ReadCueList(ctx context.Context, data []byte, w *work.Work, prop string) (plan.Edit, error) {
	rows, err := cueRows(ctx, data)
	if err != nil {
		return plan.Edit{}, err
	}
	if len(rows) < 2 || len(rows[0]) < 4 || !strings.EqualFold(rows[0][0], "scene") {
		return plan.Edit{}, measure.Bad(
			"file",
			"wants the columns scene, channel, start, length, shape, level, and 1 to %d rows", mostCues,
		)
	}
	next := map[string]*plan.Scene{}
	var order []string
	for n, r := range rows[1:] {
		bad := func(field, why string, args ...any) error {
			return measure.Bad(field, "row %d: %s", n+2, fmt.Sprintf(why, args...))
		}
		if strings.Join(r, "") == "" {
			continue
		}
		if len(r) < 4 {
			return plan.Edit{}, bad("file", "has %d cells; write scene, channel, start, length", len(r))
		}
		scene, q, err := cueOf(w, prop, r, bad)
		if err != nil {
			return plan.Edit{}, err
		}
		if next[scene.ID] == nil {
			s := *scene
			s.Cues, s.Made = nil, false
			next[scene.ID], order = &s, append(order, scene.ID)
		}
		next[scene.ID].Cues = append(next[scene.ID].Cues, q)
	}
	e := plan.Edit{Label: "cue list read"}
	for _, id := range order {
		e.Changes = append(e.Changes, w.Plan.Put("scene", id, *next[id]))
	}
	return e, nil
}

// mostCues is how many cues a list that is read may have.
const mostCues = 5000

var cueColumns = []string{"scene", "channel", "start", "length", "shape", "level"}

// cueList are a prop's cues as rows.
func cueList(w *work.Work, prop string) [][]string {
	var rows [][]string
	for i := range w.Plan.Scenes() {
		s := &w.Plan.Scenes()[i]
		if prop != "" && s.Prop != prop {
			continue
		}
		cues := append([]plan.Cue(nil), s.Cues...)
		sort.SliceStable(cues, func(i, j int) bool { return cues[i].Start.Value() < cues[j].Start.Value() })
		for _, q := range cues {
			level := ""
			if q.Level > 0 {
				level = strconv.Itoa(q.Level) + " %"
			}
			rows = append(
				rows,
				[]string{
					s.Name,
					w.Device(q.Channel).Name,
					q.Start.String(),
					q.Length.String(),
					q.Shape,
					level,
				},
			)
		}
	}
	return rows
}

// jsonCue is a cue of a list in JSON.
type jsonCue struct {
	Scene   string `json:"scene"`
	Channel string `json:"channel"`
	Start   string `json:"start"`
	Length  string `json:"length"`
	Shape   string `json:"shape,omitempty"`
	Level   string `json:"level,omitempty"`
}

// CueListJSON is the cue list as JSON.
func CueListJSON(out io.Writer, w *work.Work, prop string) error {
	list := []jsonCue{}
	for _, r := range cueList(w, prop) {
		list = append(list, jsonCue{r[0], r[1], r[2], r[3], r[4], r[5]})
	}
	enc := json.NewEncoder(out)
	enc.SetEscapeHTML(false)
	enc.SetIndent("", " ")
	return enc.Encode(list)
}

// cueRows reads a cue list, a table or JSON, as rows with a head.
func cueRows(ctx context.Context, raw []byte) ([][]string, error) {
	if text := bytes.TrimSpace(raw); len(text) > 0 && text[0] == '[' {
		list, err := plan.ReadList[jsonCue](text, mostCues)
		if err != nil {
			return nil, measure.Bad("file", "is no cue list: %s", err)
		}
		rows := [][]string{cueColumns}
		for _, q := range list {
			rows = append(rows, []string{q.Scene, q.Channel, q.Start, q.Length, q.Shape, q.Level})
		}
		return rows, nil
	}
	return tableOf(ctx, raw, mostCues+1)
}

// cueOf reads a row: the scene it belongs to, and its cue.
func cueOf(w *work.Work, prop string, r []string, bad func(field, why string, args ...any) error) (scene *plan.Scene,
	q plan.Cue, err error) {
	for i := range w.Plan.Scenes() {
		if s := &w.Plan.Scenes()[i]; strings.EqualFold(s.Name, strings.TrimSpace(r[0])) &&
			(prop == "" || s.Prop == prop) {
			scene = s
		}
	}
	if scene == nil {
		return nil, q, bad("scene", "there is no scene %q", r[0])
	}
	for i := range w.Plan.Devices() {
		d := &w.Plan.Devices()[i]
		if d.Driven &&
			(strings.EqualFold(d.Name, strings.TrimSpace(r[1])) || strings.EqualFold(d.ID, strings.TrimSpace(r[1]))) {
			q.Channel = d.ID
		}
	}
	if q.Channel == "" {
		return nil, q, bad("channel", "%q is no switch that scenes drive", r[1])
	}
	if q.Start, err = measure.Parse[measure.DurationKind](r[2]); err != nil {
		return nil, q, bad("start", "%s", err)
	}
	if q.Length, err = measure.Parse[measure.DurationKind](r[3]); err != nil {
		return nil, q, bad("length", "%s", err)
	}
	if len(r) > 4 {
		q.Shape = strings.ToLower(strings.TrimSpace(r[4]))
	}
	if len(r) > 5 && strings.TrimSpace(r[5]) != "" {
		if q.Level, err = strconv.Atoi(strings.TrimSpace(strings.TrimSuffix(strings.TrimSpace(r[5]), "%"))); err != nil {
			return nil, q, bad("level", "%q is no share; write such as 70 %%", r[5])
		}
	}
	return scene, q, nil
}
