package formats

import (
	"log/slog"
	"os"
	"path/filepath"
	"sync"

	"golang.org/x/image/font/sfnt"
)

// further are the fonts with letters that the built-in one lacks: of Chinese and Japanese,
// and of Korean. They weigh as much as a tenth of the program, so that they lie beside it,
// in a folder of fonts.
var further = [...]extra{
	{"wide", extraFont("wide.ttf.gz")},
	{"hangul", extraFont("hangul.ttf.gz")},
}

type extra struct {
	name string
	data func() []byte // nil where its file is not found: its letters are then boxes
}

// FontsAt names the variable that says where that folder is, where it does not lie beside
// the program.
const FontsAt = "ZAPBARN_FONTS"

func extraFont(file string) func() []byte {
	return sync.OnceValue(func() []byte {
		if data := fontFile(file); data != nil {
			return unpacked(data)
		}
		return nil
	})
}

// fontFile is a file of the folder of fonts, nil where it is not found.
func fontFile(file string) []byte {
	dirs := []string{os.Getenv(FontsAt)}
	if exe, err := os.Executable(); err == nil {
		dirs = append(dirs, filepath.Join(filepath.Dir(exe), "fonts"))
	}
	for _, dir := range dirs {
		if dir == "" {
			continue
		}
		if data, err := os.ReadFile(filepath.Join(dir, file)); err == nil {
			return data
		}
	}
	slog.Warn("a font is missing: letters that only it has are printed as boxes", "font", file, "looked in", dirs)
	return nil
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
