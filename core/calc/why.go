package calc

import (
	_ "embed"
	"encoding/json"
	"strings"
	"sync"
)

// Why is when one needs a calculator, and what people do with its answer.
type Why struct {
	Try    string `json:"try"` // an example of its inputs, as the command line takes them
	Cause  string `json:"cause"`
	Do     string `json:"do"`
	Source string `json:"source"`
}

//go:embed why.json
var whyFile []byte

var whys = sync.OnceValue(func() map[string]Why {
	out := map[string]Why{}
	if err := json.Unmarshal(whyFile, &out); err != nil {
		panic(err) // it is built in, and a test reads it
	}
	return out
})

// WhyOf is what stands behind a calculator.
func WhyOf(name string) (Why, bool) {
	w, ok := whys()[name]
	return w, ok
}

// Args are its example's inputs by name.
func (w Why) Args(c Calculator) map[string]string {
	at := map[int]string{} // where each begins
	for _, p := range c.Params {
		if i := strings.Index(" "+w.Try, " "+p.Name+"="); i >= 0 {
			at[i] = p.Name
		}
	}
	out := map[string]string{}
	for i, name := range at {
		end := len(w.Try)
		for k := range at {
			if k > i && k-1 < end {
				end = k - 1
			}
		}
		out[name] = strings.TrimSpace(strings.TrimPrefix(w.Try[i:end], name+"="))
	}
	return out
}
