package formats

import (
	"encoding/csv"
	"fmt"
	"io"

	"zapbarn/core/measure"
	"zapbarn/core/plan"
)

// WireListCSV writes what the wiring of a prop (or of all, when prop is "")
// takes: each wire to cut with both ends, and each splice with its heat-shrink.
func WireListCSV(out io.Writer, w *plan.Work, prop string) error {
	c := csv.NewWriter(out)
	row := func(cells ...any) error {
		text := make([]string, len(cells))
		for i, v := range cells {
			text[i] = fmt.Sprint(v)
		}
		return c.Write(text)
	}
	if err := row("label", "what", "from", "to", "gauge", "conductors", "length each mm", "length", "note"); err != nil {
		return err
	}
	metric := w.Plan.Metric()
	for i := range w.Plan.Devices {
		d := &w.Plan.Devices[i]
		if prop != "" && d.Prop != prop {
			continue
		}
		var err error
		switch {
		case d.Kind == "run":
			to := "open end"
			if d.To != "" {
				to = d.To
			}
			err = row(d.ID, "run", d.From, to, d.Gauge, 2, round(d.Length.Value()), measure.Run(d.Length.Value(), metric), "add a hand's width at each end for the service loop")
		case d.Kind == "lamp" && !d.Extension.IsZero():
			g := d.Gauge
			if g.IsZero() {
				g = w.Lib.Lamps[d.Product].LeadGauge
			}
			err = row(d.ID+"-x", "lead extension", d.From, d.ID, g, 2, round(d.Extension.Value()), measure.Run(d.Extension.Value(), metric), "2 splices; heat-shrink on before soldering")
		}
		if err != nil {
			return err
		}
	}
	c.Flush()
	return c.Error()
}
