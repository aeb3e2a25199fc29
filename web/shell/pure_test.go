package shell

import (
	"testing"

	"github.com/dop251/goja"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// What the scripts work out without a page, run by a script engine of its own.
func TestScriptsWorkOut(t *testing.T) {
	src, err := files.ReadFile("static/first/pure.js")
	require.NoError(t, err)
	vm := goja.New()
	_, err = vm.RunString(string(src))
	require.NoError(t, err)
	for does, want := range map[string]any{
		`pure.inches(0)`:      "0 in",
		`pure.inches(25.4)`:   "1 in",
		`pure.inches(-19.05)`: "3/4 in",
		`pure.inches(60.325)`: "2 3/8 in",

		`pure.effect("a", "a", true)`:  "Done; nothing else changes.",
		`pure.effect("a", "a", false)`: "",
		`pure.effect('{"s":["a","b"],"c":3}', '{"s":["b","c","d"],"c":1.5}', true)`: "1 snag gone, 2 new, −$1.50",
		`pure.effect('{"s":["a","b"],"c":0}', '{"s":[],"c":2}', true)`:              "2 snags gone, +$2.00",

		`pure.left(1)`:       "1 min",
		`pure.left(3600000)`: "1 h",
		`pure.left(3660001)`: "1 h 2 min",
		`pure.clock(61)`:     "1:01",
		`pure.clock(600)`:    "10:00",

		`pure.remembered(["a","b"], "b").join()`:                                                          "b,a",
		`pure.remembered(["a"], "  ").join()`:                                                             "a",
		`pure.remembered(Array.from({length: 50}, (_, i) => "l" + i), "new").length`:                      int64(40),
		`pure.completed("box 22 xp", "xps1")`:                                                             "box 22 xps1 ",
		`pure.travelled([], {id: "m", up: 1000, down: 500}, 900)`:                                         int64(0),
		`pure.travelled([{mover: "m", at: 100, pos: 0, dir: 1}], {id: "m", up: 1000}, 600)`:               int64(500),
		`pure.travelled([{mover: "m", at: 0, pos: 800, dir: -1}], {id: "m", down: 500}, 100)`:             int64(600),
		`pure.travelled([{mover: "m", at: 0, pos: 0, dir: 1}], {id: "m", up: 1000}, 5000)`:                int64(1000),
		`pure.travelled([{mover: "m", at: 0, pos: 0, dir: 1}], {id: "m", up: 1000, circles: true}, 2250)`: int64(250),
		`pure.travelled([{mover: "other", at: 0, pos: 9, dir: 1}], {id: "m", up: 1}, 5)`:                  int64(0),

		`pure.keyRefused("", "m", false)`:  "A key must be one letter or sign.",
		`pure.keyRefused("x", "m", true)`:  "x does something else already; change that one first.",
		`pure.keyRefused("3", "m", false)`: "3 is kept for the places and this list.",
		`pure.keyRefused("0", "0", false)`: "",
		`pure.keyRefused("x", "m", false)`: "",

		`pure.picked(["a"], "b").join()`:      "a,b",
		`pure.picked(["a", "b"], "a").join()`: "b",

		`pure.looked("", "anything")`:           true,
		`pure.looked(" LAMP ", "a lamp", "x")`:  true,
		`pure.looked("lamp", "a box", "Lamps")`: true,
		`pure.looked("glue", "a box", "Lamps")`: false,
	} {
		got, err := vm.RunString(does)
		if assert.NoError(t, err, does) {
			assert.Equal(t, want, got.Export(), does)
		}
	}
}
