package check

import (
	_ "embed"
	"encoding/json"
	"strings"
	"sync"
)

// Why is what stands behind a rule, for whoever meets its snag for the first time.
type Why struct {
	Code    string `json:"-"`
	Rule    string `json:"-"`       // its sentence
	Level   Level  `json:"-"`       // the worst it reports
	Trade   string `json:"trade"`   // whose work it is, one of Trades
	Picture string `json:"picture"` // which drawing shows it
	Cause   string `json:"cause"`
	Do      string `json:"do"` // what people do
	Source  string `json:"source"`
}

//go:embed why.json
var whyFile []byte

// whys are all of them by code, with what their rules say of themselves.
var whys = sync.OnceValue(func() map[string]Why {
	out := map[string]Why{}
	if err := json.Unmarshal(whyFile, &out); err != nil {
		panic(err) // it is built in, and a test reads it
	}
	for _, r := range rules {
		w := out[r.Code]
		w.Code, w.Rule, w.Level = r.Code, r.Doc, r.Level
		out[r.Code] = w
	}
	return out
})

// WhyOf is what stands behind a snag's code: its rule's, where the code goes on with its
// reason (glue-solvent, fuse-slow).
func WhyOf(code string) (Why, bool) {
	all := whys()
	for c := code; c != ""; c = c[:max(0, strings.LastIndexByte(c, '-'))] {
		if w, ok := all[c]; ok && w.Cause != "" {
			return w, true
		}
		if to := partOf[c]; to != "" {
			w, ok := all[to]
			return w, ok
		}
	}
	return Why{}, false
}

// partOf are codes that a rule of another name says too.
var partOf = map[string]string{"fuse": "fuse-size", "controller-starved": "starved"}

// Whys are all of them, by code.
func Whys() []Why {
	var out []Why
	for _, r := range Rules() {
		w, _ := WhyOf(r.Code)
		out = append(out, w)
	}
	return out
}
