package plan

import (
	"encoding/json"
	"os"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// The Apiary as each landed version of the program wrote it, the newest last:
// every one still opens, nothing of it set aside, and works out. A change that
// breaks one of these files must come with a new Format and an upgrade of the old one.
func TestEveryEarlierPlanOpens(t *testing.T) {
	files, err := filepath.Glob("testdata/plans/*.json")
	require.NoError(t, err)
	require.GreaterOrEqual(t, len(files), 7)
	for _, f := range files {
		data, err := os.ReadFile(f)
		require.NoError(t, err)
		p, err := Decode(data)
		if !assert.NoError(t, err, f) {
			continue
		}
		assert.Equal(t, Format, p.Format())
		again, err := Decode(p.Encode())
		require.NoError(t, err, f)
		assert.Equal(t, string(p.Encode()), string(again.Encode()), f)
		var raw map[string]json.RawMessage
		require.NoError(t, json.Unmarshal(data, &raw))
		of := map[string][]json.RawMessage{"display": {raw["display"]}}
		for _, k := range Kinds() {
			if k == "display" {
				continue
			}
			var list []json.RawMessage
			if raw[listOf(k)] != nil {
				require.NoError(t, json.Unmarshal(raw[listOf(k)], &list))
			}
			of[k] = list
		}
		stored, err := Assemble(nil, of)
		require.NoError(t, err)
		assert.Empty(t, stored.Broken(), f)
	}
}
