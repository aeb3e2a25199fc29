package check

import (
	"bytes"
	"encoding/json"
	"flag"
	"fmt"
	"math"
	"os"
	"path/filepath"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"testing"
	"time"

	"zapbarn/core/form"
	"zapbarn/core/measure"
	"zapbarn/core/pattern"
	"zapbarn/core/plan"
	"zapbarn/core/source"
	"zapbarn/core/work"
	"zapbarn/testkit/shop"
	"zapbarn/testkit/wirings"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

var freeze = flag.Bool("freeze", false, "write the frozen answers afresh; read the difference before it is kept")

// Every number, working, cut part, harness and snag of the made-up displays, as
// they stood when they were last read through. A rule that changes says so here,
// line by line; one that changes by accident is found.
func TestAnswersStandAsFrozen(t *testing.T) {
	files, err := filepath.Glob("../../docs/examples/*.json")
	require.NoError(t, err)
	require.NotEmpty(t, files)
	today := time.Date(2026, 9, 20, 0, 0, 0, 0, time.UTC)
	for _, f := range files {
		data, err := os.ReadFile(f)
		require.NoError(t, err)
		p, err := plan.Decode(data)
		require.NoError(t, err)
		frozen(t, strings.TrimSuffix(filepath.Base(f), ".json"), answers(work.Do(p, shop.Kept, today)))
	}
	data, err := os.ReadFile("../../docs/examples/pattern-book.json")
	require.NoError(t, err)
	book, err := plan.Decode(data)
	require.NoError(t, err)
	var large bytes.Buffer // the same patterns larger than their sheets, with seams of both kinds
	for _, seam := range []string{"half-lap", "butt"} {
		for i := range book.Solids() {
			s := book.Solids()[i]
			for _, field := range []string{"w", "d", "h", "low", "high"} {
				if l := s.Length(field); !l.IsZero() {
					s = s.Set(field, measure.Of[measure.LengthKind](3.5*l.Value()))
				}
			}
			s.Seam = seam
			if shape, err := s.Shape(shop.Kept); err == nil {
				large.WriteString(stands(shape, &s))
			}
		}
	}
	frozen(t, "large", large.Bytes())
	var b bytes.Buffer // and of careless wirings
	for seed := uint64(1); seed <= 8; seed++ {
		for _, p := range []*plan.Plan{wirings.Random(seed), wirings.RandomProp(seed)} {
			if p.Validate() == nil {
				b.Write(answers(work.Do(p, shop.Kept, today)))
			}
		}
	}
	frozen(t, "careless", b.Bytes())
}

// frozen compares an answer with the one that is kept, line by line.
func frozen(t *testing.T, name string, got []byte) {
	t.Helper()
	got = thinned(got)
	name = filepath.Join("testdata", "frozen", name+".txt")
	if *freeze {
		require.NoError(t, os.MkdirAll(filepath.Dir(name), 0o750))
		require.NoError(t, os.WriteFile(name, got, 0o600))
	}
	want, err := os.ReadFile(name)
	require.NoError(t, err)
	a, b := strings.Split(string(want), "\n"), strings.Split(string(got), "\n")
	for i := range max(len(a), len(b)) { // the first that differs says it best
		if i >= len(a) || i >= len(b) || a[i] != b[i] {
			assert.Fail(
				t,
				"another answer",
				"%s:%d\n was %s\n now %s\nrun go test ./core/check -freeze, and read the difference",
				name,
				i+1,
				at(a, i),
				at(b, i),
			)
			return
		}
	}
}

// thinned is a long answer with one line of four as it is, and the three after it as one mark:
// what differs is seen, and near which line, and what is kept stays readable.
func thinned(long []byte) []byte {
	const whole, every = 60 << 10, 4
	if len(long) < whole {
		return long
	}
	lines, out := strings.Split(strings.TrimSuffix(string(long), "\n"), "\n"), strings.Builder{}
	for i := 0; i < len(lines); i += every {
		next := lines[i+1 : min(len(lines), i+every)]
		fmt.Fprintf(&out, "%s\n~ %d more %s\n", lines[i], len(next), sum(strings.Join(next, "\n")))
	}
	return []byte(out.String())
}

func at(l []string, i int) string {
	if i < len(l) {
		return l[i]
	}
	return "(nothing)"
}

// answers writes all that a plan's work says, a line each.
func answers(w *work.Work) []byte {
	var b bytes.Buffer
	all := slices.SortedFunc(w.Results().All(), func(a, b source.Result) int {
		return strings.Compare(a.Key.String(), b.Key.String())
	})
	for _, r := range all {
		fmt.Fprintf(&b, "%s = %.6g %s | %s: %s\n", r.Key, r.Value, r.Unit, r.Label, r.Text)
		for _, s := range r.Steps {
			fmt.Fprintf(&b, "  %s: %s = %s\n", s.Formula, s.Numbers, s.Value)
		}
	}
	for _, p := range w.Parts() {
		lo, hi := p.Panel.Bounds()
		fmt.Fprintf(
			&b,
			"part %s x %d: %.3f by %.3f mm, %.1f mm2, %.1f mm3, %d corners, %d holes, %d marks, cut %.3f bevel %.3f turned "+
				"%.3f; %s\n",
			p.Ref,
			p.Panel.Copies,
			hi.X-lo.X,
			hi.Y-lo.Y,
			p.Panel.Area(),
			p.Panel.Volume(),
			len(p.Panel.Outline),
			len(p.Panel.Holes),
			len(p.Panel.Marks),
			p.Panel.CutAngle,
			p.Panel.Bevel,
			p.Panel.Slant,
			strings.Join(p.Panel.Notes, " "),
		)
	}
	for _, s := range w.Sheets() {
		for i, l := range s.Layout.Sheets {
			for _, q := range l.Placed {
				fmt.Fprintf(
					&b,
					"on %s %d: %s at %.2f, %.2f turned %v\n",
					s.Stock.ID,
					i+1,
					s.Pieces[q.Part].Ref,
					q.X,
					q.Y,
					q.Turned,
				)
			}
		}
	}
	for i := range w.Plan.Solids() {
		s := &w.Plan.Solids()[i]
		if shape := w.Shapes()[s.ID]; shape != nil {
			b.WriteString(stands(shape, s))
		}
		for _, x := range s.Necks(w.Lib) {
			fmt.Fprintf(&b, "necks of %s/%s: %s\n", s.ID, x.Panel.ID, asJSON(x.Necks))
		}
	}
	for _, c := range w.Plan.Cases(w.Lib) {
		if st := w.Plan.Case(w.Lib, c.Key); st != nil {
			for _, d := range w.Plan.Devices() {
				if o, ok := st.Readings[d.ID]; ok {
					fmt.Fprintf(&b, "%s %s: %s\n", c.Name, d.Name, asJSON(o))
				}
			}
		}
	}
	for _, prop := range w.Plan.Props() {
		fmt.Fprintf(&b, "harness %s: %s\n", prop.ID, asJSON(w.Harness(prop.ID)))
		size, ok := w.Plan.Extent(w.Lib, prop.ID)
		fmt.Fprintf(&b, "extent %s: %.2f %.2f %.2f %v\n", prop.ID, size.X, size.Y, size.Z, ok)
	}
	b.WriteString(told(Check(w)))
	return b.Bytes()
}

// stands writes how a solid's parts stand in space and go together: of each body
// its faces and two sums over their corners, in which no two corners weigh alike.
func stands(shape *pattern.Shape, s *plan.Solid) string {
	var b strings.Builder
	for _, body := range shape.Bodies {
		sum, turn, n, holes := 0.0, 0.0, 0, 0
		for _, f := range body.Faces {
			for _, ring := range slices.Concat([][]pattern.Vec{f.Points}, f.Holes, f.Edges) {
				for _, v := range ring {
					n++
					sum += v.X + 2*v.Y + 3*v.Z
					turn += math.Sqrt(float64(n)) * (v.X - 2*v.Y + 5*v.Z)
				}
			}
			holes += len(f.Holes)
		}
		fmt.Fprintf(
			&b,
			"body %s/%s %d: %d faces, %d holes, %d corners, %.0f %.0f mm, pulled to %.2f %.2f %.2f\n",
			s.ID,
			body.Panel,
			body.Copy,
			len(body.Faces),
			holes,
			n,
			sum,
			turn,
			body.Explode.X,
			body.Explode.Y,
			body.Explode.Z,
		)
	}
	for _, l := range shape.Lines {
		fmt.Fprintf(&b, "line %s: %s to %s, %.2f by %.2f mm\n", s.ID, l.A, l.B, l.Length, l.Width)
	}
	for _, step := range form.Steps(s.Form, shape) {
		fmt.Fprintf(&b, "order %s: %s\n", s.ID, step)
	}
	return b.String()
}

// told writes snags with their mends.
func told(snags []Snag) string {
	var b strings.Builder
	for _, s := range snags {
		fmt.Fprintf(&b, "%s %s %s %s %v %.6g: %s. %s\n", s.Level, s.Code, s.Place, s.Prop, s.At, s.weight, s.Title, s.Why)
		for _, m := range s.Mends {
			fmt.Fprintf(&b, "  mend: %s; %s; %s\n", m.Label, m.Effect, sum(asJSON(m.Edit)))
		}
	}
	return b.String()
}

var fine = regexp.MustCompile(`\d+\.\d{4,}`)

// asJSON writes a value, numbers to three decimals: the last digit is the machine's.
func asJSON(v any) string {
	b, err := json.Marshal(v)
	if err != nil {
		return err.Error()
	}
	return fine.ReplaceAllStringFunc(string(b), func(s string) string {
		x, err := strconv.ParseFloat(s, 64)
		if err != nil {
			return s
		}
		return strconv.FormatFloat(x, 'f', 3, 64)
	})
}
