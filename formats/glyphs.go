package formats

import (
	"embed"
	"sync"

	"golang.org/x/image/font/sfnt"
)

// fonts are those that prints are set in, in the program itself.
//
//go:embed fonts/*.gz fonts/scripts.zip
var fonts embed.FS

// fontFile is one of them.
func fontFile(file string) []byte {
	data, err := fonts.ReadFile("fonts/" + file)
	if err != nil {
		panic(err) // it is built in
	}
	return data
}

// further are the fonts with letters that the plain one lacks: of Chinese and Japanese, and of
// Korean.
var further = [...]extra{
	{"wide", extraFont("wide.ttf.gz")},
	{"hangul", extraFont("hangul.ttf.gz")},
}

type extra struct {
	name string
	data func() []byte
}

func extraFont(file string) func() []byte {
	return sync.OnceValue(func() []byte { return unpacked(fontFile(file)) })
}

// has is whether a font has a letter, asked once for each.
func has(font func() []byte) func(r rune) bool {
	parsed := sync.OnceValue(func() *sfnt.Font {
		f, err := sfnt.Parse(font())
		if err != nil {
			return nil // none there
		}
		return f
	})
	var known sync.Map
	return func(r rune) bool {
		if got, ok := known.Load(r); ok {
			return got.(bool)
		}
		f, is := parsed(), false
		if f != nil && r <= 0xFFFF { // the library sets no letters beyond
			i, err := f.GlyphIndex(nil, r)
			is = err == nil && i != 0
		}
		known.Store(r, is)
		return is
	}
}

var (
	plainHas   = has(func() []byte { p, _ := sans(); return p })
	furtherHas = [...]func(rune) bool{
		has(func() []byte { return further[0].data() }),
		has(func() []byte { return further[1].data() }),
	}
)

// fontOf is which of the further fonts sets a letter; -1 for the plain one, which has a box
// for what none has.
func fontOf(r rune) int {
	if r <= 0x7F || plainHas(r) {
		return -1
	}
	for i, has := range furtherHas {
		if has(r) {
			return i
		}
	}
	return -1
}
