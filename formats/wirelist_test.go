package formats

import (
	"bytes"
	"encoding/csv"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/stock"
	"zapbarn/demo"
)

// Every run and every lead extension is on the list, with both ends.
func TestWireList(t *testing.T) {
	p := demo.Apiary(today)
	p.Device("jar-10").Extension = measure.Len("3 in")
	w := plan.Do(p, stock.Shop, today)
	var b bytes.Buffer
	require.NoError(t, WireListCSV(&b, w, ""))
	rows, err := csv.NewReader(&b).ReadAll()
	require.NoError(t, err)
	require.Len(t, rows, 1+6+1, "head, W1 to W6, one extension")
	assert.Equal(t, []string{"W2", "run", "W1", "open end", "22 AWG", "2", "10668", "35' 0\"", "add a hand's width at each end for the service loop"}, rows[2])
	assert.Equal(t, "jar-10-x", rows[6][0])
	assert.Contains(t, rows[6][8], "heat-shrink on before soldering")
	b.Reset()
	require.NoError(t, WireListCSV(&b, w, "riser"))
	rows, err = csv.NewReader(&b).ReadAll()
	require.NoError(t, err)
	assert.Len(t, rows, 2)
}
