package calendar

import (
	"encoding/json"
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
// is, nearly always equal, and our bound is never above it. With windows that close, where
// what is tied together is placed together, it is within 5 %. The proofs take most of a minute:
// they are kept in testdata, by the problem, and made anew in make slow.
func TestAgainstAConstraintSolver(t *testing.T) {
	proofs := map[string]int{}
	data, err := os.ReadFile("testdata/proofs.json")
	if err == nil {
		require.NoError(t, json.Unmarshal(data, &proofs))
	}
	anew := os.Getenv("ZAPBARN_SLOW") != ""
	solved := func(p Problem, most int) (least int, ok bool) {
		key := fmt.Sprintf("%x", p.Sum())
		had, known := proofs[key]
		if !anew {
			require.True(t, known, "this problem was not proven yet: run make slow, which proves it")
			return had, had != unproven
		}
		least, ok = solved(t, p, most)
		if !ok {
			least = unproven
		}
		if known && ok && had != unproven {
			assert.Equal(t, had, least, "another proof")
		}
		proofs[key] = least
		return least, ok
	}
	known := func(p Problem, s Schedule, within float64) bool { // it is as good as it was proven that any can be
		least, ok := proofs[fmt.Sprintf("%x", p.Sum())]
		return ok && (least < 0 || left(s) == 0 && float64(s.End) <= within*float64(least))
	}
	equal, proven := 0, 0
	const cases, tied = 20, 12
	for seed := range uint64(cases + tied) {
		p := alike(seed, seed >= cases)
		s := NewSearch(p, seed)
		got := s.Run(50)
		// 3,000 rounds at most
		for n := 1; n < 60 && (anew || !known(p, got, map[bool]float64{true: 1.02, false: 1}[seed >= cases])); n++ {
			got = s.Run(50)
		}
		most := 1000
		if left(got) == 0 {
			most = got.End
		}
		least, ok := solved(p, most)
		if !ok {
			assert.GreaterOrEqual(t, seed, uint64(cases), "no proof in time")
			continue
		}
		proven++
		if least < 0 {
			assert.Positive(t, left(got), "seed %d: windows that cannot all be kept", seed)
			continue
		}
		assert.Zero(t, left(got), "seed %d: all can be kept", seed)
		assert.GreaterOrEqual(t, got.End, least, "seed %d: less than can be", seed)
		assert.LessOrEqual(t, got.Bound, least, "seed %d: the bound", seed)
		within := 1.02
		if seed >= cases {
			within = 1.02
		} else if got.End == least {
			equal++
		}
		assert.LessOrEqual(t, float64(got.End), within*float64(least), "seed %d", seed)
	}
	assert.GreaterOrEqual(t, equal, cases-1, "of %d", cases)
	assert.GreaterOrEqual(t, proven, cases+tied/2)
	if anew {
		data, err := json.MarshalIndent(proofs, "", " ")
		require.NoError(t, err)
		require.NoError(t, os.WriteFile("testdata/proofs.json", append(data, '\n'), 0o600))
	}
}

// unproven is kept of a problem whose proof took too long.
const unproven = -2

// alike is a problem drawn by a seed, its people all alike and always there.
func alike(seed uint64, windows bool) Problem {
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
				if windows && rng.IntN(3) == 0 {
					x.Within = append(x.Within, Window{a, 5 + rng.IntN(40)})
				}
			}
		}
		p.Tasks = append(p.Tasks, x)
	}
	return p
}

// solved is the least end of a problem whose people are all alike and always there; -1 when
// its windows cannot all be kept. It is known to be no more than most.
func solved(t *testing.T, p Problem, most int) (least int, ok bool) {
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
	fmt.Fprintf(&m, "array[1..%d] of var 0..%d: s; var 0..%d: e;\n", n, most, most)
	fmt.Fprintf(&m, "constraint forall(i in 1..%d)(s[i] >= f[i] /\\ e >= s[i] + d[i] + w[i]);\n", n)
	fmt.Fprintf(&m, "constraint cumulative(s, d, k, %d);\nconstraint cumulative(s, d, saw, 1);\n", len(p.Crew))
	for i, x := range p.Tasks {
		for _, a := range x.After {
			fmt.Fprintf(&m, "constraint s[%d] >= s[%d] + d[%d] + w[%d];\n", i+1, a+1, a+1, a+1)
		}
		for _, x := range x.Within {
			fmt.Fprintf(
				&m,
				"constraint s[%d] <= s[%d] + d[%d] + w[%d] + %d;\n",
				i+1,
				x.After+1,
				x.After+1,
				x.After+1,
				x.Minutes,
			)
		}
	}
	m.WriteString("solve :: int_search(s ++ [e], smallest, indomain_min) minimize e;\noutput [show(e)];\n")
	file := filepath.Join(t.TempDir(), "plan.mzn")
	require.NoError(t, os.WriteFile(file, []byte(m.String()), 0o600))
	out, err := exec.Command("minizinc", "--solver", "gecode", "--time-limit", "8000", file).Output()
	require.NoError(t, err, string(out))
	if strings.Contains(string(out), "UNSATISFIABLE") {
		return -1, true
	}
	if !strings.Contains(string(out), "==========") {
		return 0, false
	}
	e, err := strconv.Atoi(strings.Fields(string(out))[0])
	require.NoError(t, err, string(out))
	return e, true
}
