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

// A function of the product, one without a name included, says one thing, in sixty lines at most.
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
				ast.Inspect(f, func(n ast.Node) bool {
					switch n.(type) {
					case *ast.FuncDecl, *ast.FuncLit:
						looked++
						from, to := files.Position(n.Pos()), files.Position(n.End())
						assert.LessOrEqual(t, to.Line-from.Line+1, 60, "%s:%d", path, from.Line)
					}
					return true
				})
				return nil
			}),
		)
	}
	assert.Greater(t, looked, 4000)
}
