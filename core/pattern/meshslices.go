package pattern

import (
	"bytes"
	"compress/flate"
	"encoding/base64"
	"encoding/binary"
	"fmt"
	"io"
	"math"
	"sort"
	"sync"

	"zapbarn/core/measure"
	"zapbarn/core/source"
)

// MaxPlanMesh is how many triangles a mesh kept in a plan may have.
const MaxPlanMesh = 30_000

// Pack writes a mesh as short text: corners in 65,535ths of its largest
// extent, deflated, base64. Its size is not kept: a plan stretches it.
func (m Mesh) Pack() (string, error) {
	if len(m) == 0 || len(m) > MaxPlanMesh {
		return "", measure.Bad(
			"mesh",
			"has %d triangles; a plan keeps 1 to %d, so make it coarser",
			len(m),
			MaxPlanMesh,
		)
	}
	r := m.Report()
	size := math.Max(r.Hi.X-r.Lo.X, math.Max(r.Hi.Y-r.Lo.Y, r.Hi.Z-r.Lo.Z))
	if size <= 0 {
		return "", measure.Bad("mesh", "has no size")
	}
	type vertex [3]uint16
	no := map[vertex]uint32{}
	var vs []vertex
	var is []uint32
	for _, t := range m {
		var k [3]uint32
		for i, v := range t {
			q := vertex{
				uint16(math.Round((v.X - r.Lo.X) / size * 65535)),
				uint16(math.Round((v.Y - r.Lo.Y) / size * 65535)),
				uint16(math.Round((v.Z - r.Lo.Z) / size * 65535)),
			}
			n, ok := no[q]
			if !ok {
				n = uint32(len(vs))
				no[q] = n
				vs = append(vs, q)
			}
			k[i] = n
		}
		if k[0] != k[1] && k[1] != k[2] && k[0] != k[2] {
			is = append(is, k[:]...)
		}
	}
	var b bytes.Buffer
	b.WriteString("zm1")
	w, err := flate.NewWriter(&b, flate.BestCompression)
	if err != nil {
		return "", err
	}
	for _, v := range []any{uint32(len(vs)), uint32(len(is)), vs, is} {
		if err := binary.Write(w, binary.LittleEndian, v); err != nil {
			return "", err
		}
	}
	if err := w.Close(); err != nil {
		return "", err
	}
	return base64.StdEncoding.EncodeToString(b.Bytes()), nil
}

// Unpack reads a packed mesh; its largest extent is 1.
func Unpack(text string) (Mesh, error) {
	bad := measure.Bad("mesh", "is damaged; bring the STL in again")
	raw, err := base64.StdEncoding.DecodeString(text)
	if err != nil || len(raw) < 4 || string(raw[:3]) != "zm1" {
		return nil, bad
	}
	r := io.LimitReader(flate.NewReader(bytes.NewReader(raw[3:])), 8<<20)
	var n, k uint32
	if binary.Read(r, binary.LittleEndian, &n) != nil || binary.Read(r, binary.LittleEndian, &k) != nil || n == 0 ||
		n > 3*MaxPlanMesh ||
		k == 0 ||
		k%3 != 0 ||
		k > 3*MaxPlanMesh {
		return nil, bad
	}
	vs, is := make([][3]uint16, n), make([]uint32, k)
	if binary.Read(r, binary.LittleEndian, vs) != nil || binary.Read(r, binary.LittleEndian, is) != nil {
		return nil, bad
	}
	m := make(Mesh, k/3)
	for i := range m {
		for j := range 3 {
			q := is[i*3+j]
			if q >= n {
				return nil, bad
			}
			m[i][j] = Vec{float64(vs[q][0]) / 65535, float64(vs[q][1]) / 65535, float64(vs[q][2]) / 65535}
		}
	}
	return m, nil
}

// MeshSlices is a closed mesh in level layers of the stock. Each layer is cut
// as wide as the mesh is anywhere in it, so that carving only takes away.
type MeshSlices struct {
	Mesh   Mesh
	H      float64 // the height it is stretched to, in all three ways alike
	T      float64
	Wall   float64 // left all round when hollowed; 0 leaves it solid
	Allow  float64 // carve allowance all round
	Dowels int     // pins between each two layers, 0 to 4
	Dowel  float64 // how thick
}

// flush is how near to a cut plane a face may lie and still count as in it, mm.
const flush = 0.1

// cells is how fine the layers are drawn: the larger side of the mesh in cells.
const cells = 240

// meshGrid is the mesh as it is cut: to size, and the cells its layers are drawn in.
type meshGrid struct {
	MeshSlices
	m          Mesh
	n          int // layers
	cell       float64
	nx, ny     int
	o          Point // of the first cell
	wide, deep float64
}

// meshLayer is a layer's outlines, where the whole of it is full, and its pins.
type meshLayer struct {
	rings [][]Point
	inter []bool
	pins  []Point
}

// grid is the mesh to size, with f what it is stretched by.
func (c MeshSlices) grid(r MeshReport) (g *meshGrid, f float64, err error) {
	f = c.H / (r.Hi.Z - r.Lo.Z)
	g = &meshGrid{MeshSlices: c, m: make(Mesh, len(c.Mesh))}
	mid := Vec{(r.Lo.X + r.Hi.X) / 2, (r.Lo.Y + r.Hi.Y) / 2, r.Lo.Z}
	for i, t := range c.Mesh {
		for k, v := range t {
			d := sub(v, mid)
			g.m[i][k] = Vec{d.X * f, d.Y * f, d.Z * f}
		}
	}
	g.wide, g.deep = (r.Hi.X-r.Lo.X)*f, (r.Hi.Y-r.Lo.Y)*f
	if err := sizes("width", g.wide, "depth", g.deep); err != nil {
		return nil, 0, err
	}
	g.n = int(math.Ceil(c.H/c.T - 1e-6))
	if g.n > 200 {
		return nil, 0, measure.Bad("height", "takes %d slices; use thicker stock (200 at most)", g.n)
	}
	g.cell = math.Max(g.wide, g.deep) / cells
	pad := int(math.Ceil(c.Allow/g.cell)) + 3
	g.nx, g.ny = int(g.wide/g.cell)+2*pad+1, int(g.deep/g.cell)+2*pad+1
	g.o = Point{-g.wide/2 - float64(pad)*g.cell, -g.deep/2 - float64(pad)*g.cell}
	return g, f, nil
}

// back is loops of cells as outlines in mm.
func (g *meshGrid) back(loops [][]Point) [][]Point {
	out := make([][]Point, 0, len(loops))
	for _, l := range loops {
		p := make([]Point, len(l))
		for i, q := range l {
			p[i] = Point{g.o.X + q.X*g.cell, g.o.Y + q.Y*g.cell}
		}
		if Area(p) > 9*g.cell*g.cell {
			out = append(out, Simplified(smoothed(p, 4), g.cell/3))
		}
	}
	return out
}

// layer draws one layer.
func (g *meshGrid) layer(i int) meshLayer {
	c := g.MeshSlices
	z0, z1 := float64(i)*c.T, math.Min(c.H, float64(i+1)*c.T)
	// what stands anywhere in the layer is what stands half way up it, and
	// wherever a face of it lies; what fills it whole is that less the faces
	union, inter, faces := make([]bool, g.nx*g.ny), make([]bool, g.nx*g.ny), make([]bool, g.nx*g.ny)
	fillCuts(union, g.nx, g.ny, g.m.cuts((z0+z1)/2), g.o, g.cell)
	for _, t := range g.m {
		if p := between(t, z0+flush, z1-flush); len(p) > 2 {
			fillMask(faces, g.nx, g.ny, [][]Point{p}, g.o, g.cell)
		}
	}
	for k := range union {
		inter[k] = union[k] && !faces[k]
		union[k] = union[k] || faces[k]
	}
	rings := g.back(signedField(union, g.nx, g.ny).contours(c.Allow/g.cell + 1))
	if c.Wall > 0 && i > 0 && i < g.n-1 {
		hollow := signedField(inter, g.nx, g.ny)
		for _, l := range g.back(hollow.contours(-c.Wall / g.cell)) {
			if SignedArea(l) > 0 &&
				math.Min(bounds(l)) > 2*c.Wall { // a hollow narrower than its walls is not worth the blade
				rings = append(rings, reversed(l))
			}
		}
	}
	return meshLayer{rings: rings, inter: inter}
}

// pin sets pins between each two layers.
func (g *meshGrid) pin(layers []meshLayer) {
	c := g.MeshSlices
	for i := 0; i+1 < g.n && c.Dowels > 0; i++ { // pins stand where both layers are deep
		both := make([]bool, g.nx*g.ny)
		for k := range both {
			both[k] = layers[i].inter[k] && layers[i+1].inter[k]
		}
		for _, li := range []int{i, i + 1} { // and not in a hollow
			for _, l := range layers[li].rings {
				if SignedArea(l) < 0 {
					hole := make([]bool, g.nx*g.ny)
					fillMask(hole, g.nx, g.ny, [][]Point{l}, g.o, g.cell)
					for k, v := range hole {
						both[k] = both[k] && !v
					}
				}
			}
		}
		pins := deepest(distances(both, g.nx, g.ny), g.nx, c.Dowels, c.Dowel/g.cell)
		for _, k := range pins {
			q := Point{g.o.X + float64(k%g.nx)*g.cell, g.o.Y + float64(k/g.nx)*g.cell}
			layers[i].pins, layers[i+1].pins = append(layers[i].pins, q), append(layers[i+1].pins, q)
		}
	}
}

// panel is one bit of a layer as it is cut, and as it stands.
func (g *meshGrid) panel(i, k, of int, part [][]Point, pins []Point) (Panel, Body) {
	c := g.MeshSlices
	p := Panel{
		ID:      fmt.Sprintf("slice%d", i+1),
		Name:    fmt.Sprintf("Slice %d", i+1),
		Copies:  1,
		Thick:   c.T,
		Outline: part[0],
		Holes:   part[1:],
	}
	if of > 1 {
		p.ID, p.Name = fmt.Sprintf("%s-%d", p.ID, k+1), fmt.Sprintf("%s, bit %d", p.Name, k+1)
	}
	lo, _ := p.Bounds()
	for _, q := range pins {
		if Inside(part, q) {
			p.Holes = append(p.Holes, Circle(q.X, q.Y, c.Dowel))
		}
	}
	// a cross through the mesh's own middle lines the layers up
	p.Marks = append(p.Marks, [2]Point{{-10, 0}, {10, 0}}, [2]Point{{0, -10}, {0, 10}})
	p.Notes = append(p.Notes, "The cross is the middle of the whole: set it over the one below, front to front.")
	shift := func(r []Point) []Point {
		out := make([]Point, len(r))
		for i, q := range r {
			out[i] = Point{q.X - lo.X, q.Y - lo.Y}
		}
		return out
	}
	b := plate(p, float64(i)*c.T, c.T, math.Max(g.wide, g.deep)/150)
	b.Explode = Vec{0, 0, 1}
	p.Outline = shift(p.Outline)
	for h := range p.Holes {
		p.Holes[h] = shift(p.Holes[h])
	}
	for h := range p.Marks {
		p.Marks[h] = [2]Point{
			{p.Marks[h][0].X - lo.X, p.Marks[h][0].Y - lo.Y},
			{p.Marks[h][1].X - lo.X, p.Marks[h][1].Y - lo.Y},
		}
	}
	return p, b
}

// Lay cuts the layers. Outlines are true to a cell, a 240th of the larger
// side, and lie outside the mesh, never inside.
func (c MeshSlices) Lay() (*Shape, error) {
	if err := sizes("height", c.H, "thickness", c.T); err != nil {
		return nil, err
	}
	if c.Wall < 0 || c.Allow < 0 || c.Allow > 300 {
		return nil, measure.Bad("allow", "must lie between nothing and 12 in")
	}
	if c.Dowels < 0 || c.Dowels > 4 || c.Dowels > 0 && c.Dowel <= 0 {
		return nil, measure.Bad("dowels", "write 0 to 4, and how thick they are")
	}
	r := c.Mesh.Report()
	if !r.Sound() {
		return nil, measure.Bad("mesh", "cannot be cut: %s", join(r.Words()))
	}
	g, f, err := c.grid(r)
	if err != nil {
		return nil, err
	}
	n := g.n
	layers := make([]meshLayer, n)
	full := 0.0
	var wg sync.WaitGroup
	for i := range n {
		wg.Go(func() { layers[i] = g.layer(i) })
	}
	wg.Wait()
	g.pin(layers)
	s := &Shape{}
	for i, l := range layers {
		list := parts(l.rings)
		if len(list) == 0 {
			return nil, measure.Bad("mesh", "slice %d is too thin to cut; make the prop larger", i+1)
		}
		for k, part := range list {
			p, b := g.panel(i, k, len(list), part, l.pins)
			s.Bodies = append(s.Bodies, b)
			full += p.Area() * c.T
			s.Panels = append(s.Panels, p)
			if k == 0 {
				s.layers = append(s.layers, nil)
			}
			s.layers[i] = append(s.layers[i], p)
		}
	}
	s.Lines = meshLines(s.layers)
	s.Size = extent(s.Bodies)
	c.counted(s, r, n, f, full)
	return s, nil
}

// counted adds how many layers there are, and what is carved away: of so many slices whose
// volume is full, mm3, the mesh scaled by f.
func (c MeshSlices) counted(s *Shape, r MeshReport, n int, f, full float64) {
	v := r.Volume * f * f * f
	s.Results = append(
		s.Results,
		result("layers", "Slices", float64(n), "", fmt.Sprint(n)).
			With("n = ceil(height / thickness)", fmt.Sprintf("ceil(%s / %s)", inches(c.H), inches(c.T)), fmt.Sprint(n),
				source.Exact("whole layers")),
	)
	if r.Volume > 0 && !c.overlaps(r.Lo.Z, f, n) { // else what two shells share would be counted twice
		s.Results = append(s.Results, result("carve", "Carved away, hollow counted", (full-v)/1e9, "m3",
			fmt.Sprintf("%.1f L", (full-v)/1e6)).
			With("slices - mesh", fmt.Sprintf("%.1f L - %.1f L", full/1e6, v/1e6), fmt.Sprintf("%.1f L; below 0 the hollow "+
				"saves more than carving takes", (full-v)/1e6), source.Exact("the mesh's volume by the divergence theorem")),
		)
	}
}

// overlaps is true where shells of the mesh share a place in one of n layers'
// middles; low is its own lowest, f how much it is stretched.
func (c MeshSlices) overlaps(low, f float64, n int) bool {
	for i := range n {
		if _, over := c.Mesh.Overlap(low + (float64(i)+.5)*c.T/f); over {
			return true
		}
	}
	return false
}

// smoothed evens out the steps of a grid: each corner moves to the mean of
// itself, twice, and its neighbours.
func smoothed(p []Point, times int) []Point {
	for range times {
		q := make([]Point, len(p))
		for i, b := range p {
			a, c := p[(i+len(p)-1)%len(p)], p[(i+1)%len(p)]
			q[i] = Point{(a.X + 2*b.X + c.X) / 4, (a.Y + 2*b.Y + c.Y) / 4}
		}
		p = q
	}
	return p
}

func join(words []string) string {
	out := ""
	for i, w := range words {
		if i > 0 {
			out += "; "
		}
		out += w
	}
	return out
}

func bounds(p []Point) (w, h float64) {
	lo, hi := Panel{Outline: p}.Bounds()
	return hi.X - lo.X, hi.Y - lo.Y
}

// between is the part of a face from z0 up to z1, seen from above.
func between(t Triangle, z0, z1 float64) []Point {
	p := t[:]
	for _, side := range [2]struct{ z, up float64 }{{z0, 1}, {z1, -1}} {
		var q []Vec
		for i, a := range p {
			b := p[(i+1)%len(p)]
			da, db := side.up*(a.Z-side.z), side.up*(b.Z-side.z)
			if da >= 0 {
				q = append(q, a)
			}
			if da < 0 != (db < 0) {
				f := da / (da - db)
				q = append(q, Vec{a.X + f*(b.X-a.X), a.Y + f*(b.Y-a.Y), side.z})
			}
		}
		p = q
	}
	out := make([]Point, len(p))
	for i, q := range p {
		out[i] = Point{q.X, q.Y}
	}
	return out
}

// Overlap is a place, level at z, that lies in two shells of the mesh at once;
// false where none is met along 400 lines across it.
func (m Mesh) Overlap(z float64) (Point, bool) {
	cuts := m.cuts(z)
	lo, hi := math.Inf(1), math.Inf(-1)
	for _, c := range cuts {
		lo, hi = math.Min(lo, math.Min(c[0].Y, c[1].Y)), math.Max(hi, math.Max(c[0].Y, c[1].Y))
	}
	const lines = 400
	if cell := (hi - lo) / lines; cell > 0 {
		for y, xs := range crossings(cuts, lines, Point{0, lo + cell/2}, cell) {
			wound := 0
			for k := 0; k+1 < len(xs); k++ {
				if wound += xs[k].by; wound > 1 && xs[k+1].x-xs[k].x > .01 {
					return Point{(xs[k].x + xs[k+1].x) / 2, lo + (float64(y)+.5)*cell}, true
				}
			}
		}
	}
	return Point{}, false
}

// fineUnion is how fine the union of shells is drawn: the larger side of the mesh in cells.
const fineUnion = 600

// Union is the outline, level at z, of all that lies in any shell of the mesh, holes the other
// way round, to within a cell of its larger side's 600th.
func (m Mesh) Union(z float64) [][]Point {
	cuts := m.cuts(z)
	lo, hi := Point{math.Inf(1), math.Inf(1)}, Point{math.Inf(-1), math.Inf(-1)}
	for _, c := range cuts {
		for _, p := range c {
			lo, hi = Point{math.Min(lo.X, p.X), math.Min(lo.Y, p.Y)}, Point{math.Max(hi.X, p.X), math.Max(hi.Y, p.Y)}
		}
	}
	cell := math.Max(hi.X-lo.X, hi.Y-lo.Y) / fineUnion
	if len(cuts) == 0 || cell <= 0 {
		return nil
	}
	const pad = 2
	o := Point{lo.X - pad*cell, lo.Y - pad*cell}
	nx, ny := int((hi.X-lo.X)/cell)+2*pad+1, int((hi.Y-lo.Y)/cell)+2*pad+1
	mask := make([]bool, nx*ny)
	fillCuts(mask, nx, ny, cuts, o, cell)
	var out [][]Point
	for _, l := range signedField(mask, nx, ny).contours(0) {
		p := make([]Point, len(l))
		for i, q := range l {
			p[i] = Point{o.X + q.X*cell, o.Y + q.Y*cell}
		}
		if Area(p) > 4*cell*cell {
			out = append(out, Simplified(p, cell/2))
		}
	}
	return out
}

// fillCuts marks the cells whose middle has material about it by the winding
// number of directed cuts: shells may overlap, and need not be joined to rings.
func fillCuts(mask []bool, nx, ny int, cuts [][2]Point, o Point, cell float64) {
	for y, xs := range crossings(cuts, ny, o, cell) {
		wound := 0
		for k := 0; k+1 < len(xs); k++ {
			wound += xs[k].by
			if wound <= 0 { // outside, or in a hollow: a shell turned inside out
				continue
			}
			for x := max(0, int(math.Ceil((xs[k].x-o.X)/cell))); x < nx && o.X+float64(x)*cell <= xs[k+1].x; x++ {
				mask[y*nx+x] = true
			}
		}
	}
}

// across is where a line across meets a cut, and by how much the winding
// number changes there.
type across struct {
	x  float64
	by int
}

// crossings are, of ny lines a cell apart, what each meets from left to right.
func crossings(cuts [][2]Point, ny int, o Point, cell float64) [][]across {
	rows := make([][]across, ny)
	for _, c := range cuts {
		a, b, by := c[0], c[1], 1
		if a.Y > b.Y {
			a, b, by = b, a, -1
		}
		for y := max(0, int(math.Ceil((a.Y-o.Y)/cell))); y < ny; y++ {
			cy := o.Y + float64(y)*cell
			if cy >= b.Y {
				break
			}
			if cy >= a.Y {
				rows[y] = append(rows[y], across{(b.X-a.X)*(cy-a.Y)/(b.Y-a.Y) + a.X, by})
			}
		}
	}
	for _, xs := range rows {
		sort.Slice(xs, func(i, j int) bool { return xs[i].x < xs[j].x })
	}
	return rows
}

// fillMask marks the cells whose middle lies in the rings, even-odd.
func fillMask(mask []bool, nx, ny int, rings [][]Point, o Point, cell float64) {
	rows := make([][]float64, ny)
	for _, p := range rings {
		for i := range p {
			a, b := p[i], p[(i+1)%len(p)]
			if a.Y > b.Y {
				a, b = b, a
			}
			for y := max(0, int(math.Ceil((a.Y-o.Y)/cell))); y < ny; y++ {
				cy := o.Y + float64(y)*cell
				if cy >= b.Y {
					break
				}
				if cy >= a.Y && b.Y > a.Y {
					rows[y] = append(rows[y], (b.X-a.X)*(cy-a.Y)/(b.Y-a.Y)+a.X)
				}
			}
		}
	}
	for y, xs := range rows {
		sort.Float64s(xs)
		for k := 0; k+1 < len(xs); k += 2 {
			for x := max(0, int(math.Ceil((xs[k]-o.X)/cell))); x < nx && o.X+float64(x)*cell <= xs[k+1]; x++ {
				mask[y*nx+x] = true
			}
		}
	}
}

// deepest picks up to n cells that lie at least gap deep, as far from each
// other as they can.
func deepest(d []float64, nx, n int, gap float64) (out []int) {
	for range n {
		best, score := -1, 0.0
		for k, v := range d {
			if v < gap*1.5 {
				continue
			}
			s := v
			if len(out) > 0 {
				s = math.Inf(1)
				for _, q := range out {
					s = math.Min(s, math.Hypot(float64(k%nx-q%nx), float64(k/nx-q/nx)))
				}
				if s < 4*gap {
					continue
				}
			}
			if s > score {
				best, score = k, s
			}
		}
		if best < 0 {
			return
		}
		out = append(out, best)
	}
	return
}

// plate is a flat piece lying level at z; its outline is drawn to about tol.
func plate(p Panel, z, t, tol float64) Body {
	level := func(r []Point, z float64) []Vec {
		out := make([]Vec, len(r))
		for i, q := range r {
			out[i] = Vec{q.X, q.Y, z}
		}
		return out
	}
	ring := Simplified(p.Outline, tol)
	b := prism(p.ID, 0, level(ring, z+t), level(ring, z), Vec{0, 0, 1})
	edge := append(level(ring, z+t), Vec{ring[0].X, ring[0].Y, z + t})
	b.Faces[0].Edges = [][]Vec{edge}
	for i := 2; i < len(b.Faces); i++ {
		b.Faces[i].Curved = true
	}
	for _, h := range p.Holes {
		b.Faces[0].Holes = append(b.Faces[0].Holes, level(Simplified(h, tol), z+t))
	}
	return b
}
