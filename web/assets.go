package web

import (
	"crypto/sha256"
	"encoding/hex"
	"io/fs"
	"strings"
)

// versions are short hashes of the embedded scripts, styles and fonts, by their
// path below static: an address that holds one never changes what it gives, so
// that a browser keeps it, and fetches the new one after an update.
var versions = func() map[string]string {
	out := map[string]string{}
	err := fs.WalkDir(files, "static", func(path string, d fs.DirEntry, err error) error {
		if err != nil || d.IsDir() {
			return err
		}
		b, err := files.ReadFile(path)
		if err != nil {
			return err
		}
		h := sha256.Sum256(b)
		out[strings.TrimPrefix(path, "static/")] = hex.EncodeToString(h[:5])
		return nil
	})
	if err != nil {
		panic(err) // the folder is embedded
	}
	return out
}()

// asset is the address of an embedded file, with its version.
func asset(path string) string {
	v, ok := versions[path]
	if !ok {
		panic("web: no asset " + path)
	}
	return "/static/" + path + "?v=" + v
}

// behaviours are the page's scripts, one a behaviour.
var behaviours = func() []string {
	all, err := fs.Glob(files, "static/page/*.js")
	if err != nil || len(all) == 0 {
		panic("web: no scripts") // the folder is embedded
	}
	for i := range all {
		all[i] = strings.TrimPrefix(all[i], "static/")
	}
	return all
}()
