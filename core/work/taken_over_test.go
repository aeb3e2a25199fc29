package work

import (
	"encoding/json"
	"math/rand/v2"
	"testing"
	"time"

	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/demo"
	"zapbarn/testkit/shop"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Whatever is done to the wiring, what is told of every device is what is told of it worked
// out afresh, also of those that are taken over from before.
func TestDevicesTakenOverAreDevicesAfresh(t *testing.T) {
	day := time.Date(2026, 9, 12, 10, 0, 0, 0, time.UTC)
	p := demo.Apiary(day).In(shop.Kept)
	w := Do(p, shop.Kept, day)
	r := rand.New(rand.NewPCG(1, 2))
	tried := map[string]int{}
	for range 150 {
		d := p.Devices()[r.IntN(len(p.Devices()))]
		what := [...]string{"length", "gauge", "path", "volts", "rating", "off", "reversed", "temp", "units"}[r.IntN(9)]
		e := plan.Edit{}
		switch what {
		case "length":
			d.Length = measure.Of[measure.LengthKind](d.Length.Value()*1.5 + 10)
		case "gauge":
			d.Gauge = measure.Must[measure.GaugeKind]("14 AWG")
		case "path":
			d.Path = "0,0,0 500,0,0 500,900,0"
		case "volts":
			d.Volts = measure.Must[measure.VoltKind]("9 V")
		case "rating":
			d.Rating = measure.Must[measure.AmpKind]("7 A")
		case "off":
			d.Off = !d.Off
		case "reversed":
			d.Reversed = !d.Reversed
		}
		if e.Changes = []plan.Change{p.Put("device", d.ID, d)}; what == "temp" || what == "units" {
			x := p.Display()
			if what == "temp" {
				x.Temp = measure.Of[measure.CelsiusKind](x.Temp.Value() + 7)
			} else if x.Units = "mm"; p.Metric() {
				x.Units = "in"
			}
			e.Changes = []plan.Change{p.Put("display", x.ID, x)}
		}
		q, err := p.Apply(e)
		if err != nil {
			continue
		}
		tried[what]++
		from, err := DoFrom(w, nil, q, shop.Kept, day)
		require.NoError(t, err)
		afresh := Do(q, shop.Kept, day)
		for i := range q.Devices() {
			id := q.Devices()[i].ID
			a, _ := json.Marshal(afresh.Results().Of("device", id))
			b, _ := json.Marshal(from.Results().Of("device", id))
			require.Equal(t, string(a), string(b), "%s of %s", what, d.ID)
		}
		p, w = q, from // and on from there
	}
	for _, what := range []string{"length", "path", "temp", "units", "off"} {
		assert.Greater(t, tried[what], 3, what)
	}
}
