package formats

import (
	"bytes"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/work"
	"zapbarn/demo"
	"zapbarn/testkit/shop"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// The yard's plan is read by a general-purpose CAD library with its layers and no error, and
// printed to the scale it says: the bar of five feet is as long as it must be.
func TestTheYardIsDrawnToScale(t *testing.T) {
	w := work.Do(demo.Apiary(bookDay), shop.Kept, bookDay)
	f, err := FlatYard(w)
	require.NoError(t, err)
	var b bytes.Buffer
	require.NoError(t, f.DXF(&b))
	dir := t.TempDir()
	require.NoError(t, os.WriteFile(filepath.Join(dir, "yard.dxf"), b.Bytes(), 0o600))
	got := cad(t, dir)["yard.dxf"]
	assert.Equal(t, 4, got.Units, "millimetres")
	assert.Zero(t, got.Errors)
	assert.Subset(t, YardLayers, got.Layers)
	assert.Len(t, got.Layers, len(YardLayers), "something on each")
	assert.InDelta(t, 60*304.8, f.W, 2*304.8, "the yard is 60 ft wide")
	b.Reset()
	require.NoError(t, f.SVG(&b))
	for _, want := range []string{"Honey shelf", `id="walls"`, "Reed screen, 5&#39; 0"} {
		assert.Contains(t, b.String(), want)
	}
	b.Reset()
	require.NoError(t, YardPDF(&b, w, "", A4))
	text := poppler(t, "pdftotext", b.Bytes())
	assert.Contains(t, text, "1 : 96")
	assert.Contains(t, text, "Sunflowers")
	empty := plan.New("x", "X", "in", "").In(shop.Kept)
	assert.ErrorContains(t, YardPDF(&b, work.Do(empty, shop.Kept, bookDay), "", A4), "is empty")
}

// The night book leaves as a table and as a spreadsheet; a cell is no formula.
func TestTheNightBookLeaves(t *testing.T) {
	p := demo.Apiary(bookDay).In(shop.Kept)
	p.Incidents()[0].What = "=1+1"
	w := work.Do(p, shop.Kept, bookDay)
	var b bytes.Buffer
	require.NoError(t, NightBookCSV(&b, w, ""))
	assert.Contains(t, b.String(), "'=1+1")
	assert.Contains(t, b.String(), "drizzle, gusts")
	assert.Equal(t, 1+1+2, strings.Count(b.String(), "\n20")+1, "a row a night and incident")
	b.Reset()
	require.NoError(t, NightBookXLSX(&b, w, ""))
	assert.Greater(t, b.Len(), 5000)
	b.Reset()
	require.NoError(t, PackListCSV(&b, w, ""))
	assert.Contains(t, b.String(), "1,Skep,Hive,1,"+measure.Decimal(54*25.4, 1))
}
