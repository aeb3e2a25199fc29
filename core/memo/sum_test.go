package memo

import (
	"testing"

	"github.com/stretchr/testify/assert"
)

// Values that differ anywhere differ in their sum; the same have the same, however long.
func TestSumsTellApart(t *testing.T) {
	of := func(take func(s *Sum)) Key {
		s := NewSum()
		s.Num(9) // and begun anew
		s.Reset()
		take(s)
		return s.Key()
	}
	long := make([]float64, 1000)
	seen := map[Key]string{}
	for name, take := range map[string]func(s *Sum){
		"nothing": func(*Sum) {},
		"0":       func(s *Sum) { s.Num(0) },
		"-0":      func(s *Sum) { s.Num(0 * -1 * 1e-300); s.Bits(1 << 63) },
		"0 0":     func(s *Sum) { s.Num(0, 0) },
		"bits":    func(s *Sum) { s.Bits(7) },
		"ab c":    func(s *Sum) { s.Text("ab"); s.Text("c") },
		"a bc":    func(s *Sum) { s.Text("a"); s.Text("bc") },
		"long":    func(s *Sum) { s.Num(long...) },
		"longer":  func(s *Sum) { s.Num(long...); s.Num(0) },
		"last":    func(s *Sum) { s.Num(long[1:]...); s.Num(1e-300) },
	} {
		k := of(take)
		assert.Equal(t, k, of(take), name)
		assert.Empty(t, seen[k], name)
		seen[k] = name
	}
}
