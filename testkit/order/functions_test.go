package order

import (
	"go/ast"
	"go/parser"
	"go/token"
	"io/fs"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A function of the product says one thing, in sixty lines at most.
func TestNoFunctionIsTooLong(t *testing.T) {
	looked := 0
	for _, dir := range []string{"cmd", "core", "demo", "formats", "store", "web"} {
		require.NoError(
			t,
			filepath.WalkDir(filepath.Join("../..", dir), func(path string, d fs.DirEntry, err error) error {
				if err != nil || !strings.HasSuffix(path, ".go") || strings.HasSuffix(path, "_test.go") {
					return err
				}
				files := token.NewFileSet()
				f, err := parser.ParseFile(files, path, nil, 0)
				if err != nil {
					return err
				}
				for _, d := range f.Decls {
					if fn, ok := d.(*ast.FuncDecl); ok && fn.Body != nil {
						looked++
						lines := files.Position(fn.End()).Line - files.Position(fn.Pos()).Line + 1
						assert.LessOrEqual(t, lines, 60, "%s: %s", path, fn.Name.Name)
					}
				}
				return nil
			}),
		)
	}
	assert.Greater(t, looked, 3000)
}
