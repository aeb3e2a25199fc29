package draw

import (
	"container/heap"

	"zapbarn/core/pattern"
)

// reach3 is the box a body fills in its prop.
type reach3 struct{ lo, hi pattern.Vec }

func reachOf(st standing) reach3 {
	lo, hi := st.body.Bounds()
	move := func(v pattern.Vec) pattern.Vec {
		return pattern.Vec{X: v.X + st.offset.X, Y: v.Y + st.offset.Y, Z: v.Z + st.offset.Z}
	}
	return reach3{move(lo), move(hi)}
}

// behind says which of two boxes hides the other: 1 when b lies behind a, -1
// when a lies behind b, 0 when they stand in no order. Along a line of sight what
// is further along the way to the eye is nearer, on each axis; two boxes parted on
// two axes in contrary order are seen beside each other.
func behind(a, b reach3, toward pattern.Vec) int {
	const near = 0.05 // mm: faces that touch
	order := 0
	axis := func(t, alo, ahi, blo, bhi float64) bool {
		if t < 0 {
			alo, ahi, blo, bhi = -ahi, -alo, -bhi, -blo
		}
		o := 0
		switch {
		case t == 0:
		case ahi <= blo+near && bhi <= alo+near: // a thin one in the other's face
		case ahi <= blo+near:
			o = -1
		case bhi <= alo+near:
			o = 1
		}
		if o != 0 && order == -o {
			return false
		}
		if o != 0 {
			order = o
		}
		return true
	}
	if axis(toward.X, a.lo.X, a.hi.X, b.lo.X, b.hi.X) && axis(toward.Y, a.lo.Y, a.hi.Y, b.lo.Y, b.hi.Y) &&
		axis(toward.Z, a.lo.Z, a.hi.Z, b.lo.Z, b.hi.Z) {
		return order
	}
	return 0
}

// mostOrdered is how many bodies are compared two by two; more keep the order of
// their middles.
const mostOrdered = 900

// ready are bodies with nothing left behind them, the furthest middle first.
type ready struct{ index []int }

func (r *ready) Len() int           { return len(r.index) }
func (r *ready) Less(i, j int) bool { return r.index[i] < r.index[j] }
func (r *ready) Swap(i, j int)      { r.index[i], r.index[j] = r.index[j], r.index[i] }
func (r *ready) Push(x any)         { r.index = append(r.index, x.(int)) }
func (r *ready) Pop() any {
	x := r.index[len(r.index)-1]
	r.index = r.index[:len(r.index)-1]
	return x
}

// paintOrder takes bodies in the order of their middles and draws each after all
// that lie behind it; where that runs in a circle, the order of the middles stands.
func paintOrder(in []standing, toward pattern.Vec) []standing {
	n := len(in)
	if n > mostOrdered || n < 2 {
		return in
	}
	boxes := make([]reach3, n)
	for i := range in {
		boxes[i] = reachOf(in[i])
	}
	after, waits := make([][]int, n), make([]int, n)
	for i := range n {
		for j := i + 1; j < n; j++ {
			o := behind(boxes[i], boxes[j], toward)
			if in[i].solid == in[j].solid && in[i].layer != in[j].layer {
				o = -1 // layers lie in their own order already
			}
			switch o {
			case -1:
				after[i] = append(after[i], j)
				waits[j]++
			case 1:
				after[j] = append(after[j], i)
				waits[i]++
			}
		}
	}
	r := &ready{}
	for i := range n {
		if waits[i] == 0 {
			r.index = append(r.index, i)
		}
	}
	heap.Init(r)
	done := make([]bool, n)
	out := make([]standing, 0, n)
	for len(out) < n {
		if r.Len() == 0 { // a circle: the furthest that waits goes on
			for i := range n {
				if !done[i] {
					heap.Push(r, i)
					break
				}
			}
		}
		i := heap.Pop(r).(int)
		if done[i] {
			continue
		}
		done[i] = true
		out = append(out, in[i])
		for _, j := range after[i] {
			if waits[j]--; waits[j] == 0 && !done[j] {
				heap.Push(r, j)
			}
		}
	}
	return out
}
