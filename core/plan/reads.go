package plan

import "sync/atomic"

// KindSet is a set of kinds of element, a bit each.
type KindSet uint64

// All is every kind.
const All = ^KindSet(0)

// Has reports whether any kind is in both sets.
func (k KindSet) Has(any KindSet) bool { return k&any != 0 }

// Reads records which kinds of element were read, by several goroutines at once, until it is
// closed: a kind that is read first after that could change unseen, so that it panics. The nil
// Reads records nothing.
type Reads struct {
	seen   atomic.Uint64
	closed atomic.Bool
}

// Saw records that kinds were read.
func (r *Reads) Saw(kinds KindSet) {
	if r != nil && KindSet(r.seen.Load())&kinds != kinds {
		if r.closed.Load() {
			panic("plan: what was derived reads of the plan later what it had not read before")
		}
		r.seen.Or(uint64(kinds))
	}
}

// Close says that what reads is done: what it made reads nothing more, and Seen is all.
func (r *Reads) Close() KindSet {
	r.closed.Store(true)
	return r.Seen()
}

// Seen is what was read so far.
func (r *Reads) Seen() KindSet {
	if r == nil {
		return 0
	}
	return KindSet(r.seen.Load())
}

func read[T any](p *Plan, kind KindSet, list []T) []T {
	p.reads.Saw(kind)
	return list
}

// Recorded is the plan with what is read of it recorded there, and nowhere else.
func (p *Plan) Recorded(r *Reads) *Plan {
	q := *p
	q.reads = r
	return &q
}

// Doc is all that the plan holds, for building it and writing it: it counts as read whole.
func (p *Plan) Doc() *Document {
	p.reads.Saw(All)
	return &p.doc
}

// Of is the plan of a document.
func Of(d Document) *Plan { return &Plan{doc: d} }

// Changed is the kinds whose elements differ between two plans. The display counts as changed
// with any of its fields.
func Changed(a, b *Plan) (out KindSet) {
	for i := range kinds {
		if !kinds[i].same(a, b) {
			out |= kinds[i].bit
		}
	}
	return out
}

// KindsOf is the set of kinds that an edit changes.
func (e Edit) KindsOf() (out KindSet) {
	for _, c := range e.Changes {
		out |= byName()[c.Kind].bit
	}
	return out
}

// Saw records that kinds were read of the plan, by way of something that was made from them.
func (p *Plan) Saw(kinds KindSet) { p.reads.Saw(kinds) }

// OfDevices is the plan with no devices but these.
func (p *Plan) OfDevices(list []Device) *Plan {
	q := *p
	q.doc.Devices = list
	return &q
}
