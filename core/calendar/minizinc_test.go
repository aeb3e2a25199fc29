package calendar

import (
	"fmt"
	"math/rand/v2"
	"os"
	"os/exec"
	"path/filepath"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Small random problems solved to proof by MiniZinc with Gecode, a general-purpose
// constraint solver (Debian's package minizinc): our end is within 2 % of the least there
// is, nearly always equal, and our bound is never above it.
func TestAgainstAConstraintSolver(t *testing.T) {
	if _, err := exec.LookPath("minizinc"); err != nil && os.Getenv("ZAPBARN_NEED_TOOLS") == "" {
		t.Skip("minizinc is not installed; make test installs it")
	}
	equal := 0
	const cases = 20
	for seed := range uint64(cases) {
		rng := rand.New(rand.NewPCG(seed, 99))
		p := Problem{Crew: crewOf(1 + rng.IntN(3))}
		for i := range 7 + rng.IntN(3) {
			x := Task{
				Work:   1 + rng.IntN(20),
				People: 1 + rng.IntN(len(p.Crew)),
				Wait:   []int{0, 0, 5, 25}[rng.IntN(4)],
				Tool:   []string{"", "", "saw"}[rng.IntN(3)],
				From:   []int{0, 0, 0, 10}[rng.IntN(4)],
			}
			for a := range i {
				if rng.IntN(4) == 0 {
					x.After = append(x.After, a)
				}
			}
			p.Tasks = append(p.Tasks, x)
		}
		least := solved(t, p)
		s := NewSearch(p, seed)
		got := s.Run(3000)
		assert.GreaterOrEqual(t, got.End, least, "seed %d: less than can be", seed)
		assert.LessOrEqual(t, float64(got.End), 1.02*float64(least), "seed %d", seed)
		assert.LessOrEqual(t, got.Bound, least, "seed %d: the bound", seed)
		if got.End == least {
			equal++
		}
	}
	assert.GreaterOrEqual(t, equal, cases-1, "of %d", cases)
}

// solved is the least end of a problem whose people are all alike and always there.
func solved(t *testing.T, p Problem) int {
	var m strings.Builder
	list := func(name string, of func(Task) int) {
		m.WriteString("array[1.." + strconv.Itoa(len(p.Tasks)) + "] of int: " + name + " = [")
		for _, x := range p.Tasks {
			fmt.Fprintf(&m, "%d,", of(x))
		}
		m.WriteString("];\n")
	}
	m.WriteString("include \"cumulative.mzn\";\n")
	list("d", func(x Task) int { return x.Work })
	list("w", func(x Task) int { return x.Wait })
	list("k", func(x Task) int { return x.People })
	list("f", func(x Task) int { return x.From })
	list("saw", func(x Task) int { return len(x.Tool) / 3 })
	n := len(p.Tasks)
	fmt.Fprintf(&m, "array[1..%d] of var 0..1000: s; var 0..1000: e;\n", n)
	fmt.Fprintf(&m, "constraint forall(i in 1..%d)(s[i] >= f[i] /\\ e >= s[i] + d[i] + w[i]);\n", n)
	fmt.Fprintf(&m, "constraint cumulative(s, d, k, %d);\nconstraint cumulative(s, d, saw, 1);\n", len(p.Crew))
	for i, x := range p.Tasks {
		for _, a := range x.After {
			fmt.Fprintf(&m, "constraint s[%d] >= s[%d] + d[%d] + w[%d];\n", i+1, a+1, a+1, a+1)
		}
	}
	m.WriteString("solve :: int_search(s ++ [e], smallest, indomain_min) minimize e;\noutput [show(e)];\n")
	file := filepath.Join(t.TempDir(), "plan.mzn")
	require.NoError(t, os.WriteFile(file, []byte(m.String()), 0o600))
	out, err := exec.Command("minizinc", "--solver", "gecode", file).Output()
	require.NoError(t, err, string(out))
	require.Contains(t, string(out), "==========", "solved to proof")
	e, err := strconv.Atoi(strings.Fields(string(out))[0])
	require.NoError(t, err, string(out))
	return e
}
