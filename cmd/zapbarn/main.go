// Command zapbarn serves the Zap Barn, and does its sums without it.
package main

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"os"
	"strings"
	"time"

	"zapbarn/core/calc"
	"zapbarn/core/check"
	"zapbarn/core/measure"
	"zapbarn/core/order"
	"zapbarn/core/plan"
	"zapbarn/core/source"
	"zapbarn/core/stock"
	"zapbarn/core/words"
	"zapbarn/core/work"
	"zapbarn/store"

	"github.com/spf13/cobra"
)

// exit is an error with its own exit code.
type exit struct {
	code int
	err  error
}

func (e exit) Error() string { return e.err.Error() }

func main() {
	root := root()
	if err := root.ExecuteContext(context.Background()); err != nil {
		var e exit
		if errors.As(err, &e) {
			if e.err != nil {
				fmt.Fprintln(os.Stderr, "zapbarn:", e.err)
			}
			os.Exit(e.code)
		}
		fmt.Fprintln(os.Stderr, "zapbarn:", err)
		os.Exit(1)
	}
}

func root() *cobra.Command {
	c := &cobra.Command{
		Use:           "zapbarn",
		Short:         "plans, checks and rehearses haunt and display props",
		SilenceUsage:  true,
		SilenceErrors: true,
	}
	c.AddCommand(
		serveCommand(),
		demoCommand(),
		checkCommand(),
		sayCommand(),
		calcCommand(),
		sliceCommand(),
		importCommand(),
		exportCommand(),
		backupCommand(),
		restoreCommand(),
		doctorCommand(),
		stopCommand(),
		schemaCommand(),
		docsCommand(),
		standinCommand(),
	)
	return c
}

func readPlan(path string) (*plan.Plan, error) {
	b, err := readFile(path, plan.MaxFile)
	if err != nil {
		return nil, err
	}
	return plan.Open(b)
}

// readDisplay reads a plan file, or one of a plan with its log.
func readDisplay(path string) (*plan.Plan, []store.Logged, error) {
	b, err := readFile(path, store.MaxDisplayFile)
	if err != nil {
		return nil, nil, err
	}
	return store.ReadDisplay(b)
}

// readFile is a file of up to most bytes, and one more where it is larger; - is standard input.
func readFile(path string, most int64) ([]byte, error) {
	in := io.Reader(os.Stdin)
	if path != "-" {
		f, err := os.Open(path)
		if err != nil {
			return nil, err
		}
		defer f.Close()
		in = f
	}
	return io.ReadAll(io.LimitReader(in, most+1))
}

func checkCommand() *cobra.Command {
	var asJSON bool
	var today string
	var limit time.Duration
	c := &cobra.Command{
		Use:   "check FILE",
		Short: "snags and results of a plan file, with no database",
		Args:  cobra.ExactArgs(1),
		Long: "Reads a plan (- for standard input) and lists its snags, worst first.\nExit 0: none at stop level. Exit " +
			"1: some. Exit 2: the plan cannot be read, or not be worked out within --limit.",
		RunE: func(cmd *cobra.Command, args []string) error {
			day := time.Now()
			if today != "" {
				t, err := time.Parse(time.DateOnly, today)
				if err != nil {
					return exit{2, fmt.Errorf("--today: %q is not a date; write such as 2026-10-09", today)}
				}
				day = t
			}
			p, err := readPlan(args[0])
			if err != nil {
				return exit{2, err}
			}
			ctx, cancel := context.WithTimeout(cmd.Context(), limit)
			defer cancel()
			r, err := check.ReportOf(work.NewWatch(ctx, time.Now), p, stock.Shop, day)
			if err != nil {
				return exit{2, fmt.Errorf("%w; --limit gives it longer", err)}
			}
			if err := printReport(cmd.OutOrStdout(), p, r, asJSON); err != nil {
				return err
			}
			if check.Count(r.Snags, check.Stop) > 0 {
				return exit{1, nil}
			}
			return nil
		},
	}
	c.Flags().BoolVar(&asJSON, "json", false, "print JSON")
	c.Flags().StringVar(&today, "today", "", "judge ages as of this date")
	c.Flags().DurationVar(&limit, "limit", 10*time.Second, "how long it may take, such as 30s")
	return c
}

// printReport writes a plan's snags, and as JSON its results as well.
func printReport(out io.Writer, p *plan.Plan, r *check.Report, asJSON bool) error {
	if asJSON {
		enc := json.NewEncoder(out)
		enc.SetEscapeHTML(false)
		enc.SetIndent("", " ")
		return enc.Encode(map[string]any{
			"plan": p.Display().ID, "snags": r.Snags, "results": r.Work.Results(), "untried": r.Untried,
		})
	}
	for _, s := range r.Snags {
		mark := s.Level.String()
		if s.Waived != nil {
			mark = "waived"
		}
		fmt.Fprintf(out, "%-6s %s\n       %s\n       at %s (%s)\n", mark, s.Title, s.Why, strings.Join(s.At[:1], ""), s.Code)
	}
	if r.Untried > 0 {
		fmt.Fprintf(out, "The mends of %s were not tried in time; --limit gives them longer.\n",
			words.Count(r.Untried, "snag"))
	}
	_, err := fmt.Fprintf(out, "%d stop, %d fix, %d mind, %d note\n", check.Count(r.Snags, check.Stop),
		check.Count(r.Snags, check.Fix), check.Count(r.Snags, check.Mind), check.Count(r.Snags, check.Note))
	return err
}

func calcCommand() *cobra.Command {
	var asJSON bool
	var units string
	c := &cobra.Command{
		Use:   "calc [NAME key=value ...]",
		Short: "one calculator, units as written; with no name, lists them",
		RunE: func(cmd *cobra.Command, args []string) error {
			out := cmd.OutOrStdout()
			if len(args) == 0 {
				if asJSON {
					return json.NewEncoder(out).Encode(calc.List())
				}
				for _, k := range calc.List() {
					fmt.Fprintf(out, "%s: %s\n", k.Name, k.Doc)
					for _, p := range k.Params {
						def := ""
						if p.Default != "" {
							def = " (default " + p.Default + ")"
						}
						fmt.Fprintf(out, "    %s=%s: %s%s\n", p.Name, p.Kind, p.Doc, def)
					}
				}
				return nil
			}
			k, err := calc.Named(args[0])
			if err != nil {
				return exit{2, err}
			}
			values := map[string]string{}
			for _, a := range args[1:] {
				name, v, ok := strings.Cut(a, "=")
				if !ok {
					return exit{2, fmt.Errorf("%q: write key=value", a)}
				}
				values[name] = v
			}
			_, _, rs, err := k.Lay(values, units)
			if err != nil {
				return exit{2, err}
			}
			if asJSON {
				enc := json.NewEncoder(out)
				enc.SetEscapeHTML(false)
				enc.SetIndent("", " ")
				return enc.Encode(rs)
			}
			for _, r := range rs {
				printResult(out, r)
			}
			return nil
		},
	}
	c.Flags().BoolVar(&asJSON, "json", false, "print JSON")
	c.Flags().StringVar(&units, "units", "", "in or mm, for bare lengths and answers; else those of what is written")
	return c
}

func printResult(out io.Writer, r source.Result) {
	fmt.Fprintf(out, "%s: %s\n", r.Label, r.Text)
	for _, s := range r.Steps {
		fmt.Fprintf(out, "    %s\n", s.Formula)
		if s.Numbers != "" {
			fmt.Fprintf(out, "    = %s\n", s.Numbers)
		}
		fmt.Fprintf(out, "    = %s\n", s.Value)
		for _, f := range s.Sources {
			fmt.Fprintf(out, "      source: %s\n", f)
		}
	}
}

func schemaCommand() *cobra.Command {
	return &cobra.Command{
		Use:   "schema",
		Short: "the plan file's JSON Schema",
		RunE: func(cmd *cobra.Command, _ []string) error {
			_, err := cmd.OutOrStdout().Write(plan.Schema())
			return err
		},
	}
}

// docsCommand writes the documents that are made from the code.
func docsCommand() *cobra.Command {
	return &cobra.Command{
		Use:   "docs DIR",
		Short: "writes snags.md, order.md, calculators.md, quickline.md and plan.schema.json",
		Args:  cobra.ExactArgs(1),
		RunE: func(_ *cobra.Command, args []string) error {
			var b strings.Builder
			b.WriteString(
				"# Snags\n\nEvery rule the walkdown looks for. Codes are stable; glue and coat codes carry their reason after a " +
					"dash.\n\n| code | worst | what it finds |\n|---|---|---|\n",
			)
			for _, r := range check.Rules() {
				fmt.Fprintf(&b, "| `%s` | %s | %s |\n", r.Code, r.Level, r.Doc)
			}
			if err := os.WriteFile(args[0]+"/snags.md", []byte(b.String()), 0o644); err != nil {
				return err
			}
			b.Reset()
			b.WriteString("# Calculators\n\nRun as `zapbarn calc NAME key=value ...`, or at /calc in the barn.\n")
			for _, k := range calc.List() {
				fmt.Fprintf(&b, "\n## %s\n%s\n\n", k.Name, k.Doc)
				for _, p := range k.Params {
					def := "must be given"
					if p.Default != "" {
						def = "default " + p.Default
					}
					fmt.Fprintf(&b, "- `%s` (%s): %s; %s\n", p.Name, p.Kind, p.Doc, def)
				}
			}
			if err := os.WriteFile(args[0]+"/calculators.md", []byte(b.String()), 0o644); err != nil {
				return err
			}
			if err := rulePages(args[0] + "/rules"); err != nil {
				return err
			}
			if err := os.WriteFile(args[0]+"/order.md", []byte(orderPage()), 0o644); err != nil {
				return err
			}
			if err := os.WriteFile(args[0]+"/quickline.md", []byte(quickLinePage()), 0o644); err != nil {
				return err
			}
			return os.WriteFile(args[0]+"/plan.schema.json", plan.Schema(), 0o644)
		},
	}
}

// orderPage is the rules of order and the kinds of task, from the code.
func orderPage() string {
	var b strings.Builder
	b.WriteString("# Order of work\n\nTasks follow from the plan; nothing is typed in twice.\n\n" +
		"## Kinds of task\n\n| kind | what it is |\n|---|---|\n")
	for _, k := range order.Kinds() {
		fmt.Fprintf(&b, "| `%s` | %s |\n", k[0], k[1])
	}
	b.WriteString("\n## What comes before what\n\n| code | rule | because | source |\n|---|---|---|---|\n")
	for _, r := range order.Rules() {
		fmt.Fprintf(&b, "| `%s` | %s | %s | %s |\n", r.Code, r.Says, r.Why, r.From)
	}
	return b.String()
}

// rulePages writes a page a rule, of snags and of order, from the code.
func rulePages(dir string) error {
	if err := os.MkdirAll(dir, 0o755); err != nil {
		return err
	}
	page := func(code, says, why, do, from string) error {
		text := fmt.Sprintf("# %s\n\n%s\n\n**Why.** %s\n", code, says, why)
		if do != "" {
			text += "\n**What people do.** " + do + "\n"
		}
		return os.WriteFile(dir+"/"+code+".md", []byte(text+"\n**Source.** "+from+"\n"), 0o644)
	}
	for _, w := range check.Whys() {
		if err := page(w.Code, w.Rule, w.Cause, w.Do, w.Source); err != nil {
			return err
		}
	}
	for _, r := range order.Rules() {
		if err := page(r.Code, r.Says, measure.Capital(r.Why)+".", "", r.From.String()); err != nil {
			return err
		}
	}
	return nil
}
