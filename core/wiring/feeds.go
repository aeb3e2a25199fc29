package wiring

import (
	"fmt"
	"sort"
	"strconv"
	"strings"

	"zapbarn/core/measure"
)

// ParseFeeds reads where along a strip its supply is joined, such as
// "0% 50%", as shares of its length in order. Empty is its start. At most
// eight, each once.
func ParseFeeds(text string) ([]float64, error) {
	words := strings.FieldsFunc(text, func(c rune) bool { return c == ' ' || c == ',' || c == ';' })
	if len(words) == 0 {
		return []float64{0}, nil
	}
	if len(words) > 8 {
		return nil, measure.Bad("feeds", "%d of them; write at most 8", len(words))
	}
	var out []float64
	for _, w := range words {
		n, err := strconv.ParseFloat(strings.TrimSuffix(w, "%"), 64)
		if err != nil || !(n >= 0 && n <= 100) {
			return nil, measure.Bad("feeds", "%q is no place along the strip; write per cents such as 0%% 50%%", w)
		}
		out = append(out, n/100)
	}
	sort.Float64s(out)
	for i := 1; i < len(out); i++ {
		if out[i]-out[i-1] < 1e-9 {
			return nil, measure.Bad("feeds", "%s stands there twice", FeedsText(out[i:i+1]))
		}
	}
	return out, nil
}

// FeedsText writes feeds as they are read.
func FeedsText(feeds []float64) string {
	var out []string
	for _, f := range feeds {
		out = append(out, fmt.Sprintf("%s%%", measure.Decimal(100*f, 2)))
	}
	return strings.Join(out, " ")
}
