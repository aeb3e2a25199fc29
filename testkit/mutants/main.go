// Command mutants changes one thing at a time in core's rules and runs the
// tests that should notice: a constant times ten, a comparison turned round (of
// whole numbers: with its edge in or out), a plus for a minus, an and for an or.
// With -edges measures' comparisons only gain or lose their edge, which few
// rules can show. The sample is drawn by seed; the sources themselves are never
// touched (go test -overlay). Tolerances of floats are left as they are.
package main

import (
	"bytes"
	"context"
	"encoding/json"
	"flag"
	"fmt"
	"go/ast"
	"go/token"
	"go/types"
	"log"
	"math/rand/v2"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"slices"
	"sort"
	"strconv"
	"strings"
	"sync"
	"time"

	"golang.org/x/tools/go/packages"
)

// Mutant is one change: a file's bytes from..to become text. Plant is its whole
// expression with the change behind a switch, for its number and its operands as
// they are rendered, where one can be made.
type Mutant struct {
	File, What, Text string
	From, To, Line   int
	Plant            string
	Span, X, Y       [2]int // bytes of the expression and of its operands
}

var flips = map[token.Token]string{
	token.LSS: "<=", token.LEQ: "<", token.GTR: ">=", token.GEQ: ">", token.EQL: "!=", token.NEQ: "==",
	token.ADD: "-", token.SUB: "+", token.MUL: "/", token.QUO: "*", token.LAND: "||", token.LOR: "&&",
}

var turned = map[token.Token]string{token.LSS: ">=", token.LEQ: ">", token.GTR: "<=", token.GEQ: "<"}

// Of lists every mutant of a source file that was read and typed.
func Of(file string, set *token.FileSet, f *ast.File, info *types.Info, edges bool) []Mutant {
	var out []Mutant
	still := constant(f)
	span := func(n ast.Node) [2]int {
		return [2]int{set.Position(n.Pos()).Offset, set.Position(n.End()).Offset}
	}
	add := func(at token.Pos, was, now string) *Mutant {
		p := set.Position(at)
		out = append(out, Mutant{
			File: file, What: was + " -> " + now, Text: now,
			From: p.Offset, To: p.Offset + len(was), Line: p.Line,
		})
		return &out[len(out)-1]
	}
	measure := func(e ast.Expr) bool {
		b, ok := info.TypeOf(e).Underlying().(*types.Basic)
		return ok && b.Info()&types.IsFloat != 0
	}
	ast.Inspect(f, func(n ast.Node) bool {
		switch x := n.(type) {
		case *ast.ImportSpec:
			return false
		case *ast.Field:
			if x.Tag != nil {
				return false
			}
		case *ast.BasicLit:
			// 0 and 1 times ten change nothing or index out of a list
			if (x.Kind == token.INT || x.Kind == token.FLOAT) && x.Value != "0" && x.Value != "0.0" && x.Value != "1" &&
				!hair(x) {
				m := add(x.Pos(), x.Value, "(10*"+x.Value+")")
				if t := typeName(info.TypeOf(x)); t != "" && !still[x] {
					m.Plant = "mutanton.Pick(%d, " + t + "(" + x.Value + "), " + t + "(10*" + x.Value + "))"
					m.Span = span(x)
				}
			}
		case *ast.BinaryExpr:
			if now, ok := flips[x.Op]; ok && !words(info.TypeOf(x)) && !words(info.TypeOf(x.X)) && !hair(x.X) && !hair(x.Y) {
				if t, ok := turned[x.Op]; ok && !edges && (measure(x.X) || measure(x.Y)) {
					now = t
				}
				m := add(x.OpPos, x.Op.String(), now)
				if set.Position(x.Pos()).Line == set.Position(x.End()).Line {
					if m.Plant = plantable(x, now, info); m.Plant != "" {
						m.Span, m.X, m.Y = span(x), span(x.X), span(x.Y)
					}
				}
			}
		}
		return true
	})
	return out
}

// hair is true of a tolerance of floats, such as 1e-9: what is a hair off counts as
// equal, and no rule is about that.
func hair(e ast.Expr) bool {
	l, ok := e.(*ast.BasicLit)
	if !ok || l.Kind != token.FLOAT {
		return false
	}
	v, err := strconv.ParseFloat(l.Value, 64)
	return err == nil && v > 0 && v <= 1e-5
}

// words is true of a string: joining words is no rule.
func words(t types.Type) bool {
	b, ok := t.Underlying().(*types.Basic)
	return ok && b.Info()&types.IsString != 0
}

// every lists the mutants of all sources below a directory, by file.
func every(dir string, edges bool) ([]Mutant, error) {
	here, err := os.Getwd()
	if err != nil {
		return nil, err
	}
	set := token.NewFileSet()
	pkgs, err := packages.Load(
		&packages.Config{Fset: set, Mode: packages.NeedName | packages.NeedFiles | packages.NeedImports |
			packages.NeedDeps | packages.NeedTypes | packages.NeedTypesInfo | packages.NeedSyntax},
		"./"+dir+"/...",
	)
	if err != nil {
		return nil, err
	}
	var all []Mutant
	for _, p := range pkgs {
		if len(p.Errors) > 0 {
			return nil, p.Errors[0]
		}
		for _, f := range p.Syntax {
			file, err := filepath.Rel(here, set.Position(f.Pos()).Filename)
			if err != nil {
				return nil, err
			}
			all = append(all, Of(file, set, f, p.TypesInfo, edges)...)
		}
	}
	return all, nil
}

// tried runs the tests over one mutant: "killed by" a package, "survived", or
// "" when it does not compile.
func tried(ctx context.Context, m Mutant, others [][]string) (string, error) {
	tmp, err := os.MkdirTemp("", "mutant")
	if err != nil {
		return "", err
	}
	defer func() { _ = os.RemoveAll(tmp) }()
	src, err := os.ReadFile(m.File)
	if err != nil {
		return "", err
	}
	changed := filepath.Join(tmp, "changed.go")
	out := append(append(append([]byte(nil), src[:m.From]...), m.Text...), src[m.To:]...)
	if err := os.WriteFile(changed, out, 0o600); err != nil {
		return "", err
	}
	abs, err := filepath.Abs(m.File)
	if err != nil {
		return "", err
	}
	over, err := json.Marshal(map[string]map[string]string{"Replace": {abs: changed}})
	if err != nil {
		return "", err
	}
	overlay := filepath.Join(tmp, "overlay.json")
	if err := os.WriteFile(overlay, over, 0o600); err != nil {
		return "", err
	}
	own := "./" + filepath.Dir(m.File)
	if b, err := exec.CommandContext(ctx, "go", "build", "-overlay", overlay, own).CombinedOutput(); err != nil {
		if bytes.Contains(b, []byte(m.File)) {
			return "", nil
		}
		return "", fmt.Errorf("building: %w: %s", err, b)
	}
	for _, p := range ordered(own, others) {
		c, done := context.WithTimeout(ctx, 3*time.Minute)
		err := exec.CommandContext(c, "go", append([]string{"test", "-overlay", overlay, "-failfast", "-vet=off",
			"-ldflags=-s -w", "-timeout", "150s"}, p...)...).
			Run()
		done()
		if ctx.Err() != nil {
			return "", ctx.Err()
		}
		if err != nil {
			return "killed by " + p[0], nil
		}
	}
	return "survived", nil
}

// ordered is which tests are asked: the mutant's own package's first.
func ordered(own string, others [][]string) [][]string {
	order := append([][]string{{own}}, others...)
	if own == "./core/check" { // its whole takes half a minute, what usually notices two seconds
		order[0], order[1] = order[1], order[0]
	}
	return order
}

func main() {
	n := flag.Int("n", 200, "mutants that compile")
	seed := flag.Uint64("seed", 1, "of the sample")
	limit := flag.Duration("time", 30*time.Minute, "stop after this long")
	side := flag.Int("side", 2, "how many at once")
	only := flag.String("only", "", "regular expression of the files")
	edges := flag.Bool("edges", false, "comparisons of measures only gain or lose their edge")
	flag.Parse()
	all, err := every("core", *edges)
	if err != nil {
		log.Fatal(err)
	}
	var pkgs []string
	for _, m := range all {
		if dir := "./" + filepath.Dir(m.File); !slices.Contains(pkgs, dir) {
			pkgs = append(pkgs, dir)
		}
	}
	which, err := regexp.Compile(*only)
	if err != nil {
		log.Fatal(err)
	}
	all = slices.DeleteFunc(all, func(m Mutant) bool { return !which.MatchString(m.File) })
	rnd := rand.New(rand.NewPCG(*seed, 0))
	rnd.Shuffle(len(all), func(i, k int) { all[i], all[k] = all[k], all[i] })
	ctx, done := context.WithTimeout(context.Background(), *limit)
	defer done()
	others := [][]string{
		{"./core/check", "-run", "Frozen|EachRule|Limits"},
		{"./core/work"},
		{"./core/plan"},
		{"./core/calc"},
	} // what else stands on a rule, quick ones first
	tmp, err := os.MkdirTemp("", "grove")
	if err != nil {
		log.Fatal(err)
	}
	defer func() { _ = os.RemoveAll(tmp) }()
	of := map[int]Mutant{}
	for k, m := range all[:min(len(all), *n+*n/4)] { // some do not compile
		if m.Plant != "" {
			of[k+1] = m
		}
	}
	grove, err := grown(ctx, tmp, pkgs, of)
	if err != nil {
		log.Fatal(err)
	}
	var whole [][]string
	for p := range grove.bins {
		whole = append(whole, []string{p})
	}
	if _, err := grove.tried(ctx, 0, whole); err != nil { // a test that fails as it is would kill everything
		log.Fatal(err)
	}
	fmt.Printf("%d of %d planted\n", len(grove.In), min(len(all), *n+*n/4))
	var mu sync.Mutex
	var wg sync.WaitGroup
	next, killed, left := 0, 0, []string{}
	for range *side {
		wg.Go(func() {
			for {
				mu.Lock()
				if next >= len(all) || killed+len(left) >= *n || ctx.Err() != nil {
					mu.Unlock()
					return
				}
				m := all[next]
				next++
				k := next
				mu.Unlock()
				var end string
				var err error
				if _, in := grove.In[k]; in {
					end, err = grove.tried(ctx, k, ordered("./"+filepath.Dir(m.File), others))
				} else {
					end, err = tried(ctx, m, others)
				}
				mu.Lock()
				switch {
				case ctx.Err() != nil:
				case err != nil:
					log.Print(m.File, ":", m.Line, ": ", err)
				case end == "survived":
					left = append(left, fmt.Sprintf("%s:%d: %s", m.File, m.Line, m.What))
				case end != "":
					killed++
				}
				if end != "" {
					fmt.Printf("%d of %d killed; %s:%d: %s %s\n", killed, killed+len(left), m.File, m.Line, m.What, end)
				}
				mu.Unlock()
			}
		})
	}
	wg.Wait()
	sort.Strings(left)
	fmt.Printf(
		"\n%d mutants of %d, seed %d: %d killed, %.1f %%; survivors:\n%s\n",
		killed+len(left),
		len(all),
		*seed,
		killed,
		100*float64(killed)/max(1, float64(killed+len(left))),
		strings.Join(left, "\n"),
	)
}
