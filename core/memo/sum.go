package memo

import (
	"encoding/binary"
	"hash/maphash"
	"math"
)

// Key is the sum of a value, for this run of the program.
type Key [2]uint64

// seeds are of a run of the program: two sums of 64 bits, one of which two values share by
// chance once in centuries.
var seeds = [2]maphash.Seed{maphash.MakeSeed(), maphash.MakeSeed()}

// Sum takes a value in, piece by piece, quickly: outlines are long. Values that differ in
// any piece, or in where one ends, have other keys.
type Sum struct {
	of  [2]maphash.Hash
	buf []byte
}

// NewSum has taken in nothing.
func NewSum() *Sum {
	s := &Sum{buf: make([]byte, 0, 1<<10)}
	s.Reset()
	return s
}

// Reset takes nothing in again.
func (s *Sum) Reset() {
	s.buf = s.buf[:0]
	for i := range s.of {
		s.of[i].SetSeed(seeds[i])
	}
}

func (s *Sum) flush() {
	for i := range s.of {
		s.of[i].Write(s.buf)
	}
	s.buf = s.buf[:0]
}

// Bits takes in whole numbers.
func (s *Sum) Bits(v ...uint64) {
	for _, x := range v {
		if len(s.buf)+8 > cap(s.buf) {
			s.flush()
		}
		s.buf = binary.LittleEndian.AppendUint64(s.buf, x)
	}
}

// Num takes in numbers, to the last bit.
func (s *Sum) Num(v ...float64) {
	for _, x := range v {
		s.Bits(math.Float64bits(x))
	}
}

// Text takes in a text.
func (s *Sum) Text(t string) {
	s.Bits(uint64(len(t)))
	s.flush()
	for i := range s.of {
		s.of[i].WriteString(t)
	}
}

// Key is the sum of all that was taken in.
func (s *Sum) Key() Key {
	s.flush()
	return Key{s.of[0].Sum64(), s.of[1].Sum64()}
}
