package formats

import (
	"fmt"
	"io"
	"strings"
)

// DXF writes the drawing for machines (release 12, which every reader takes): whole
// outlines as polylines with their arcs, circles as circles, on layers named by what the
// tool does, in millimetres as the header says.
func (f *Flat) DXF(out io.Writer) error {
	d := &dxfWriter{}
	d.header(f.layers())
	d.g(0, "SECTION")
	d.g(2, "ENTITIES")
	for _, s := range f.Lines {
		d.stroke(s)
	}
	for _, t := range f.Texts {
		d.g(0, "TEXT")
		d.g(8, "text")
		d.at(t.At.X, t.At.Y)
		d.g(40, t.High)
		d.g(1, strings.NewReplacer("\n", " ", "\r", " ").Replace(t.Text))
	}
	d.g(0, "ENDSEC")
	d.g(0, "EOF")
	_, err := io.WriteString(out, d.String())
	return err
}

// dxfWriter is a drawing being written, as pairs of group codes and values.
type dxfWriter struct{ strings.Builder }

func (d *dxfWriter) g(code int, v any) { fmt.Fprintf(d, "%3d\r\n%v\r\n", code, v) }

func (d *dxfWriter) at(x, y float64) {
	d.g(10, round(x))
	d.g(20, round(y))
	d.g(30, 0)
}

func (d *dxfWriter) header(layers []string) {
	d.g(0, "SECTION")
	d.g(2, "HEADER")
	for _, v := range []struct {
		name  string
		code  int
		value any
	}{{"$ACADVER", 1, "AC1009"}, {"$INSUNITS", 70, 4}, {"$MEASUREMENT", 70, 1}} {
		d.g(9, v.name)
		d.g(v.code, v.value)
	}
	d.g(0, "ENDSEC")
	d.g(0, "SECTION")
	d.g(2, "TABLES")
	d.g(0, "TABLE")
	d.g(2, "LAYER")
	d.g(70, len(layers))
	for i, l := range layers {
		d.g(0, "LAYER")
		d.g(2, l)
		d.g(70, 0)
		d.g(62, []int{8, 3, 1, 5, 7}[i%5])
		d.g(6, "CONTINUOUS")
	}
	d.g(0, "ENDTAB")
	d.g(0, "ENDSEC")
}

// stroke writes a line as a circle or as one polyline.
func (d *dxfWriter) stroke(s Stroke) {
	if len(s.Points) < 2 {
		return
	}
	corners, middle, radius := arcs(s.Points, s.Closed)
	if corners == nil {
		d.g(0, "CIRCLE")
		d.g(8, s.Layer)
		d.at(middle.X, middle.Y)
		d.g(40, round(radius))
		return
	}
	d.g(0, "POLYLINE")
	d.g(8, s.Layer)
	d.g(66, 1)
	d.at(0, 0)
	d.g(70, map[bool]int{true: 1}[s.Closed])
	for _, c := range corners {
		d.g(0, "VERTEX")
		d.g(8, s.Layer)
		d.at(c.X, c.Y)
		if c.bulge != 0 {
			d.g(42, fmt.Sprintf("%.9g", c.bulge))
		}
	}
	d.g(0, "SEQEND")
	d.g(8, s.Layer)
}
