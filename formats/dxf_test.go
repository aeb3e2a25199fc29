package formats

import (
	"bytes"
	"context"
	"encoding/json"
	"math"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"

	"zapbarn/core/pattern"
	"zapbarn/core/work"
	"zapbarn/demo"
	"zapbarn/testkit/shop"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// reader asks a general-purpose CAD library what is in some files: the areas closed lines
// enclose on the layer cut, the kinds of entity, the layers, the unit.
const reader = `
import ezdxf, ezdxf.path, json, math, sys
out = {}
for file in sys.argv[1:]:
    doc = ezdxf.readfile(file)
    area, kinds, layers = [], {}, set()
    for e in doc.modelspace():
        kinds[e.dxftype()] = kinds.get(e.dxftype(), 0) + 1
        layers.add(e.dxf.layer)
        if e.dxf.layer != "cut":
            continue
        if e.dxftype() == "CIRCLE":
            area.append(math.pi * e.dxf.radius ** 2)
        elif e.dxftype() == "POLYLINE" and e.is_closed:
            p = list(ezdxf.path.make_path(e).flattening(0.001))
            area.append(abs(sum(a.x * b.y - b.x * a.y for a, b in zip(p, p[1:] + p[:1]))) / 2)
    out[file.split("/")[-1]] = {"area": area, "kinds": kinds, "layers": sorted(layers),
        "units": doc.header.get("$INSUNITS", 0), "errors": len(doc.audit().errors)}
print(json.dumps(out))
`

type cadSees struct {
	Area   []float64
	Kinds  map[string]int
	Layers []string
	Units  int
	Errors int
}

func cad(t *testing.T, dir string) map[string]cadSees {
	t.Helper()
	files, err := filepath.Glob(dir + "/*.dxf")
	require.NoError(t, err)
	out, err := exec.Command("/usr/bin/python3", append([]string{"-c", reader}, files...)...).CombinedOutput()
	if err != nil && os.Getenv("ZAPBARN_NEED_TOOLS") == "" && strings.Contains(string(out), "No module named") {
		t.Skip("python3-ezdxf is missing: make test installs it")
	}
	require.NoError(t, err, string(out))
	var got map[string]cadSees
	require.NoError(t, json.Unmarshal(out, &got), string(out))
	return got
}

// Every part of the demo, read by a general-purpose CAD library: millimetres, our layers,
// whole outlines, circles and arcs for what is round, and the area that the part has. A
// part's outline less its holes is what the saw leaves.
func TestDXFIsReadByCAD(t *testing.T) {
	w := work.Do(demo.Apiary(bookDay), shop.Kept, bookDay)
	dir := t.TempDir()
	want := map[string]*work.Part{}
	for _, part := range w.Parts() {
		var b bytes.Buffer
		require.NoError(t, FlatPart(w, part).DXF(&b))
		name := strings.ReplaceAll(part.Ref, "/", "_") + ".dxf"
		want[name] = part
		require.NoError(t, os.WriteFile(filepath.Join(dir, name), b.Bytes(), 0o600))
	}
	circles, arced := 0, 0
	got := cad(t, dir)
	require.Len(t, got, len(want))
	for name, g := range got {
		part := want[name]
		assert.Equal(t, 4, g.Units, name)
		assert.Zero(t, g.Errors, name)
		assert.Subset(t, Layers, g.Layers, name)
		assert.Zero(t, g.Kinds["LINE"], name)
		circles += g.Kinds["CIRCLE"]
		sum, most := 0.0, 0.0
		for _, a := range g.Area {
			sum, most = sum+a, math.Max(most, a)
		}
		left := 2*most - sum // the outline is the largest
		assert.InEpsilon(t, part.Panel.Area(), left, 0.002, name)
		var b bytes.Buffer
		require.NoError(t, FlatPart(w, part).DXF(&b))
		arced += strings.Count(b.String(), "\n 42\r\n")
	}
	assert.Greater(t, circles, 20)
	assert.Greater(t, arced, 10)
}

// Arcs are put in for runs of short sides only: a box keeps its corners, a slot has two
// half circles, a circle is one; and what is drawn back from them is what was there.
func TestArcsStandForRuns(t *testing.T) {
	box, _, _ := arcs(pattern.Rect(100, 60), true)
	require.Len(t, box, 4)
	for _, c := range box {
		assert.Zero(t, c.bulge)
	}
	none, m, r := arcs(pattern.Circle(30, 40, 50), true)
	assert.Nil(t, none)
	assert.InDelta(t, 25, r, 1e-6)
	assert.InDelta(t, 30, m.X, 1e-6)
	var hexagon []pattern.Point // its corners lie on a circle too
	for k := range 6 {
		s, c := math.Sincos(float64(k) * math.Pi / 3)
		hexagon = append(hexagon, pattern.Point{X: 50 * c, Y: 50 * s})
	}
	got, _, _ := arcs(hexagon, true)
	assert.Len(t, got, 6)
	// a plate with a rounded corner of radius 20, by hand: a quarter circle's bulge is tan(90/4)
	var plate []pattern.Point
	for k := range 31 {
		s, c := math.Sincos(float64(k) * math.Pi / 2 / 30)
		plate = append(plate, pattern.Point{X: 80 + 20*c, Y: 40 + 20*s})
	}
	plate = append(plate, pattern.Point{X: 0, Y: 60}, pattern.Point{}, pattern.Point{X: 100})
	got, _, _ = arcs(plate, true)
	require.Len(t, got, 5)
	bulges := 0
	for _, c := range got {
		if c.bulge != 0 {
			bulges++
			assert.InDelta(t, math.Tan(math.Pi/8), c.bulge, 1e-6)
		}
	}
	assert.Equal(t, 1, bulges)
	var p []pattern.Point
	var b []float64
	for _, c := range got {
		p, b = append(p, c.Point), append(b, c.bulge)
	}
	again, err := bulged(newBudget(context.Background()), p, b, true)
	require.NoError(t, err)
	assert.InEpsilon(t, pattern.Area(plate), pattern.Area(again), 1e-4)
}
