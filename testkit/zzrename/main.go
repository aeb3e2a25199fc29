package main

import (
	"fmt"
	"go/token"
	"go/types"
	"os"
	"sort"
	"strings"

	"golang.org/x/tools/go/packages"
)

// args: file with lines "zapbarn/core/x.Name new" or "zapbarn/core/x.Type.Method new"
func main() {
	b, _ := os.ReadFile(os.Args[1])
	want := map[string]string{}
	for _, l := range strings.Split(string(b), "\n") {
		if f := strings.Fields(l); len(f) == 2 {
			want[f[0]] = f[1]
		}
	}
	pkgs, err := packages.Load(&packages.Config{Mode: packages.LoadAllSyntax, Tests: true}, "./...")
	if err != nil {
		panic(err)
	}
	target := map[string]string{} // def position -> new name
	seen := map[string]bool{}
	for _, p := range pkgs {
		if p.Types == nil || strings.HasSuffix(p.ID, ".test") {
			continue
		}
		sc := p.Types.Scope()
		for _, n := range sc.Names() {
			o := sc.Lookup(n)
			key := p.PkgPath + "." + n
			if nw, ok := want[key]; ok {
				target[p.Fset.Position(o.Pos()).String()] = nw
				seen[key] = true
			}
			if tn, ok := o.(*types.TypeName); ok {
				if nt, ok := tn.Type().(*types.Named); ok {
					for i := range nt.NumMethods() {
						m := nt.Method(i)
						k := key + "." + m.Name()
						if nw, ok := want[k]; ok {
							target[p.Fset.Position(m.Pos()).String()] = nw
							seen[k] = true
						}
					}
					if st, ok := nt.Underlying().(*types.Struct); ok {
						for i := range st.NumFields() {
							k := key + "." + st.Field(i).Name()
							if nw, ok := want[k]; ok {
								target[p.Fset.Position(st.Field(i).Pos()).String()] = nw
								seen[k] = true
							}
						}
					}
				}
			}
		}
	}
	for k := range want {
		if !seen[k] {
			fmt.Println("not found", k)
		}
	}
	type e struct {
		at, n int
		text  string
	}
	edits := map[string]map[e]bool{}
	for _, p := range pkgs {
		note := func(id token.Pos, old string, o types.Object) {
			if o == nil || !o.Pos().IsValid() {
				return
			}
			nw, ok := target[p.Fset.Position(o.Pos()).String()]
			if !ok {
				return
			}
			pos := p.Fset.Position(id)
			if edits[pos.Filename] == nil {
				edits[pos.Filename] = map[e]bool{}
			}
			edits[pos.Filename][e{pos.Offset, len(old), nw}] = true
		}
		if p.TypesInfo == nil {
			continue
		}
		for id, o := range p.TypesInfo.Defs {
			note(id.Pos(), id.Name, o)
		}
		for id, o := range p.TypesInfo.Uses {
			if v, ok := o.(*types.Var); ok {
				o = v.Origin()
			}
			if v, ok := o.(*types.Func); ok {
				o = v.Origin()
			}
			note(id.Pos(), id.Name, o)
		}
	}
	n := 0
	for f, set := range edits {
		if !strings.Contains(f, "/work/main/") {
			continue
		}
		var list []e
		for x := range set {
			list = append(list, x)
		}
		sort.Slice(list, func(i, j int) bool { return list[i].at > list[j].at })
		src, _ := os.ReadFile(f)
		s := string(src)
		for _, x := range list {
			s = s[:x.at] + x.text + s[x.at+x.n:]
			n++
		}
		os.WriteFile(f, []byte(s), 0o644)
	}
	fmt.Println(n, "renamed")
}
