package main

import (
	"bytes"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"go/ast"
	"go/token"
	"go/types"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"time"
)

// switchSource is the package that a planted mutant asks whether it is on.
const switchSource = `// Package mutanton tells which mutant is switched on.
package mutanton

import (
	"os"
	"strconv"
)

var on, _ = strconv.Atoi(os.Getenv("MUTANT"))

func On(k int) bool { return k == on }

func Pick[T any](k int, was, now T) T {
	if k == on {
		return now
	}
	return was
}
`

// typeName is a type as the source can write it, "" when only another package's
// name for it would do.
func typeName(t types.Type) string {
	b, ok := t.(*types.Basic)
	if !ok || b.Info()&types.IsUntyped != 0 || b.Info()&types.IsNumeric == 0 {
		return ""
	}
	return b.Name()
}

// plantable is the source that holds both a binary expression and its mutant,
// for its operands as they are rendered; "" when it must be tried by itself.
func plantable(e *ast.BinaryExpr, now string, info *types.Info) string {
	t := info.Types[e]
	if t.Value != nil || t.Type == nil {
		return ""
	}
	b, ok := t.Type.Underlying().(*types.Basic)
	switch {
	case !ok:
		return ""
	case b.Info()&types.IsBoolean != 0:
		return "(mutanton.On(%[1]d) && (%[2]s " + now + " %[3]s) || " +
			"!mutanton.On(%[1]d) && (%[2]s " + e.Op.String() + " %[3]s))"
	case now == "/" && b.Info()&types.IsFloat == 0: // it may divide by nothing
		return ""
	}
	return "mutanton.Pick(%[1]d, %[2]s " + e.Op.String() + " %[3]s, %[2]s " + now + " %[3]s)"
}

// constant reports the literals of a file that must stay constants.
func constant(f *ast.File) map[*ast.BasicLit]bool {
	out := map[*ast.BasicLit]bool{}
	all := func(n ast.Node) {
		if n != nil {
			ast.Inspect(n, func(n ast.Node) bool {
				if l, ok := n.(*ast.BasicLit); ok {
					out[l] = true
				}
				return true
			})
		}
	}
	ast.Inspect(f, func(n ast.Node) bool {
		switch x := n.(type) {
		case *ast.GenDecl:
			if x.Tok == token.CONST {
				all(x)
			}
		case *ast.ArrayType:
			if x.Len != nil {
				all(x.Len)
			}
		case *ast.KeyValueExpr:
			all(x.Key)
		case *ast.CaseClause:
			for _, e := range x.List {
				all(e)
			}
		}
		return true
	})
	return out
}

// planted is a file's source with its mutants behind their switches. Mutants
// are given by their numbers, from 1.
func planted(src string, of map[int]Mutant) string {
	var order []int
	for k := range of {
		order = append(order, k)
	}
	slices.SortFunc(order, func(a, b int) int { // outer ones first
		if d := of[a].Span[0] - of[b].Span[0]; d != 0 {
			return d
		}
		return of[b].Span[1] - of[a].Span[1]
	})
	var render func(from, to int, list []int) string
	render = func(from, to int, list []int) string {
		var out strings.Builder
		for i := 0; i < len(list); {
			m := of[list[i]]
			in := i + 1
			for in < len(list) && of[list[in]].Span[1] <= m.Span[1] {
				in++
			}
			out.WriteString(src[from:m.Span[0]])
			if m.X == [2]int{} {
				out.WriteString(fmt.Sprintf(m.Plant, list[i]))
			} else {
				inner := func(s [2]int) string {
					var l []int
					for _, k := range list[i+1 : in] {
						if of[k].Span[0] >= s[0] && of[k].Span[1] <= s[1] {
							l = append(l, k)
						}
					}
					return render(s[0], s[1], l)
				}
				out.WriteString(fmt.Sprintf(m.Plant, list[i], inner(m.X), inner(m.Y)))
			}
			from, i = m.Span[1], in
		}
		return out.String() + src[from:to]
	}
	return render(0, len(src), order)
}

var packageLine = regexp.MustCompile(`(?m)^package \w+`)

// Grove is the tests of some packages with many mutants planted in them, each
// behind a switch: they are built once.
type Grove struct {
	dir  string
	bins map[string]string // by package
	In   map[int]Mutant    // those that are planted
}

// grown builds the tests of packages with mutants planted; those that do not
// build behind a switch are left out.
func grown(ctx context.Context, dir string, pkgs []string, of map[int]Mutant) (*Grove, error) {
	mod, err := exec.CommandContext(ctx, "go", "list", "-m").Output()
	if err != nil {
		return nil, err
	}
	root, err := os.Getwd()
	if err != nil {
		return nil, err
	}
	g := &Grove{dir: dir, bins: map[string]string{}, In: of}
	for range 40 { // each round leaves out what its errors name
		over, err := g.write(root, strings.TrimSpace(string(mod)))
		if err != nil {
			return nil, err
		}
		args := append([]string{"test", "-c", "-vet=off", "-gcflags=-e", "-ldflags=-s -w", "-overlay", over,
			"-o", dir + string(filepath.Separator)}, pkgs...)
		out, err := exec.CommandContext(ctx, "go", args...).CombinedOutput()
		if err == nil {
			for _, p := range pkgs {
				bin := filepath.Join(dir, filepath.Base(p)+".test")
				if p == "." || p == "./." {
					bin = filepath.Join(dir, filepath.Base(strings.TrimSpace(string(mod)))+".test")
				}
				if _, err := os.Stat(bin); err == nil {
					g.bins[p] = bin
				}
			}
			return g, nil
		}
		if !g.blame(out) {
			return nil, fmt.Errorf("building with mutants: %w: %s", err, out)
		}
	}
	return nil, errors.New("building with mutants: too many rounds")
}

// write writes the changed files and the overlay that names them.
func (g *Grove) write(root, mod string) (string, error) {
	files := map[string]map[int]Mutant{}
	for k, m := range g.In {
		if files[m.File] == nil {
			files[m.File] = map[int]Mutant{}
		}
		files[m.File][k] = m
	}
	replace := map[string]string{filepath.Join(root, "mutanton", "on.go"): filepath.Join(g.dir, "on.go")}
	if err := os.WriteFile(filepath.Join(g.dir, "on.go"), []byte(switchSource), 0o600); err != nil {
		return "", err
	}
	for name, of := range files {
		src, err := os.ReadFile(name)
		if err != nil {
			return "", err
		}
		text := planted(string(src), of)
		at := packageLine.FindStringIndex(text)
		text = text[:at[1]] + `; import "` + mod + `/mutanton"` + text[at[1]:]
		to := filepath.Join(g.dir, strings.ReplaceAll(name, string(filepath.Separator), "-"))
		if err := os.WriteFile(to, []byte(text), 0o600); err != nil {
			return "", err
		}
		replace[filepath.Join(root, name)] = to
	}
	over, err := json.Marshal(map[string]map[string]string{"Replace": replace})
	if err != nil {
		return "", err
	}
	path := filepath.Join(g.dir, "overlay.json")
	return path, os.WriteFile(path, over, 0o600)
}

var complaint = regexp.MustCompile(`(?m)^(\S+\.go):(\d+):\d+: `)

// blame leaves out the mutants of the lines that a compiler complains about; it
// is false when there are none. Planting keeps every line where it was.
func (g *Grove) blame(out []byte) bool {
	some := false
	for _, c := range complaint.FindAllSubmatch(out, -1) {
		line, err := strconv.Atoi(string(c[2]))
		if err != nil {
			continue
		}
		for k, m := range g.In {
			same := filepath.Base(m.File) == filepath.Base(string(c[1])) ||
				strings.ReplaceAll(m.File, string(filepath.Separator), "-") == filepath.Base(string(c[1]))
			if same && m.Line == line {
				delete(g.In, k)
				some = true
			}
		}
	}
	return some
}

// tried runs the tests over one planted mutant, its own package's first.
func (g *Grove) tried(ctx context.Context, k int, order [][]string) (string, error) {
	for _, p := range order {
		if g.bins[p[0]] == "" {
			continue
		}
		c, done := context.WithTimeout(ctx, 3*time.Minute)
		args := []string{"-test.failfast", "-test.timeout=150s"}
		if len(p) > 2 {
			args = append(args, "-test.run="+p[2])
		}
		cmd := exec.CommandContext(c, g.bins[p[0]], args...)
		cmd.Dir, cmd.Env = p[0], append(os.Environ(), "MUTANT="+strconv.Itoa(k))
		out, err := cmd.CombinedOutput()
		done()
		if ctx.Err() != nil {
			return "", ctx.Err()
		}
		if err != nil {
			if k == 0 {
				return "", fmt.Errorf("the tests fail as they are: %w: %s", err, bytes.TrimSpace(out))
			}
			return "killed by " + p[0], nil
		}
	}
	return "survived", nil
}
