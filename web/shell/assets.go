package shell

import (
	"bytes"
	"crypto/sha256"
	"embed"
	"encoding/hex"
	"html/template"
	"io/fs"
	"path"
	"slices"
	"strings"
)

//go:embed templates static
var files embed.FS

// Brings is what a room of the house brings to the site, beside its handlers.
type Brings struct {
	Room      string
	Templates fs.FS // *.html
	Scripts   fs.FS // *.js, one a behaviour of the page; nil for none
}

// Assets are the scripts, styles and fonts that pages ask for, by their path below /static/.
type Assets struct {
	of       map[string]fs.FS // by the first part of the path
	versions map[string]string
	scripts  []string // one a behaviour
	all      []byte   // all scripts in one
}

// Script is the path of all scripts in one: a page asks for one file, not for forty.
const Script = "all.js"

// All are all scripts, in the order in which they stand on each other.
func (a *Assets) All() []byte { return a.all }

// bundled puts the scripts into one file. Each is a function of its own that is called at once.
func (a *Assets) bundled() error {
	var b bytes.Buffer
	for _, at := range slices.Concat(first, a.scripts, last) {
		src, err := fs.ReadFile(a, at)
		if err != nil {
			return err
		}
		b.WriteString("// " + at + "\n")
		b.Write(src)
		b.WriteString("\n;\n")
	}
	a.all = b.Bytes()
	h := sha256.Sum256(a.all)
	a.versions[Script] = hex.EncodeToString(h[:5])
	return nil
}

// first are the scripts that the others stand on, in their order.
var first = []string{"first/pure.js", "first/queue.js", "first/swap.js", "first/links.js", "first/base.js"}

// last are kept from others: what our scripts hand their parts to begins when all are there.
var last = []string{"vendor/alpine-morph.js", "vendor/alpine.js"}

// Style is the site's style sheet.
func Style() ([]byte, error) { return files.ReadFile("static/dist/app.css") }

// Font is a font file of the site, by its path below /static/.
func Font(at string) ([]byte, error) { return files.ReadFile("static/" + at) }

// newAssets gathers what the shell and the rooms ship.
func newAssets(rooms []Brings) (*Assets, error) {
	a := &Assets{of: map[string]fs.FS{}, versions: map[string]string{}}
	own, err := fs.Sub(files, "static")
	if err != nil {
		return nil, err
	}
	dirs, err := fs.ReadDir(own, ".")
	if err != nil {
		return nil, err
	}
	for _, d := range dirs {
		if a.of[d.Name()], err = fs.Sub(own, d.Name()); err != nil {
			return nil, err
		}
	}
	for _, r := range rooms {
		if r.Scripts != nil {
			a.of[r.Room] = r.Scripts
		}
	}
	for first, in := range a.of {
		if err := a.take(first, in); err != nil {
			return nil, err
		}
	}
	slices.Sort(a.scripts)
	return a, a.bundled()
}

// take notes what is below one part of the paths.
func (a *Assets) take(first string, in fs.FS) error {
	return fs.WalkDir(in, ".", func(at string, d fs.DirEntry, err error) error {
		if err != nil || d.IsDir() {
			return err
		}
		b, err := fs.ReadFile(in, at)
		if err != nil {
			return err
		}
		at = path.Join(first, at)
		h := sha256.Sum256(b)
		a.versions[at] = hex.EncodeToString(h[:5])
		if strings.HasSuffix(at, ".js") && first != "first" && first != "vendor" {
			a.scripts = append(a.scripts, at)
		}
		return nil
	})
}

// Open is a file by its path below /static/.
func (a *Assets) Open(name string) (fs.File, error) {
	if _, ok := a.versions[name]; !ok {
		return nil, &fs.PathError{Op: "open", Path: name, Err: fs.ErrNotExist}
	}
	first, rest, _ := strings.Cut(name, "/")
	return a.of[first].Open(rest)
}

// Is reports whether a version is that of a file: an address that holds one never changes what
// it gives, so that a browser keeps it, and fetches the new one after an update.
func (a *Assets) Is(name, version string) bool { return version != "" && a.versions[name] == version }

// at is the address of a file, with its version.
func (a *Assets) at(name string) string {
	v, ok := a.versions[name]
	if !ok {
		panic("web: no asset " + name)
	}
	return "/static/" + name + "?v=" + v
}

// Parse reads the templates of the shell and of rooms, for forms that bear a token.
func Parse(token string, rooms ...Brings) (*template.Template, error) {
	a, err := newAssets(rooms)
	if err != nil {
		return nil, err
	}
	return a.parse(token, rooms)
}

func (a *Assets) parse(token string, rooms []Brings) (*template.Template, error) {
	t := template.New("").Funcs(funcs).Funcs(template.FuncMap{
		"token": func() string { return token },
		"asset": a.at,
	})
	t, err := t.ParseFS(files, "templates/*.html", "templates/*/*.html")
	for _, r := range rooms {
		if err == nil && r.Templates != nil {
			t, err = t.ParseFS(r.Templates, "*.html")
		}
	}
	return t, err
}
