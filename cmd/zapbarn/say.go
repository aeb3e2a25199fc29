package main

import (
	"bufio"
	"encoding/json"
	"fmt"
	"io"
	"os"
	"strings"

	"zapbarn/core/hearing"
	"zapbarn/core/plan"
	"zapbarn/core/stock"

	"github.com/spf13/cobra"
)

// said is what a line of zapbarn say came to.
type said struct {
	hearing.Heard
	Edit *plan.Edit `json:"edit,omitempty"`
}

func sayCommand() *cobra.Command {
	var file, units, out string
	var asJSON bool
	c := &cobra.Command{
		Use:   "say",
		Short: "reads lines from standard input onto a plan, with no database",
		Args:  cobra.NoArgs,
		Long: "Reads lines as the quick line does, or in a builder's own words, each onto the plan that the lines before\n" +
			"left, and says what each came to: done, offered (a word was left over: nothing is made) or refused.\n" +
			"Blank lines and lines that begin with # are passed over. Exit 0: none was refused. Exit 1: some were.\n" +
			"Exit 2: the plan cannot be read or written.",
		RunE: func(cmd *cobra.Command, _ []string) error {
			p := plan.New("said", "Said", units, "")
			if file != "" {
				var err error
				if p, err = readPlan(file); err != nil {
					return exit{2, err}
				}
			}
			q, all, err := sayAll(p, cmd.InOrStdin())
			if err != nil {
				return exit{2, err}
			}
			if err := printSaid(cmd.OutOrStdout(), all, asJSON); err != nil {
				return exit{2, err}
			}
			if out != "" {
				if err := os.WriteFile(out, q.Encode(), 0o644); err != nil {
					return exit{2, err}
				}
			}
			for _, s := range all {
				if s.Answer == hearing.Refused {
					return exit{1, nil}
				}
			}
			return nil
		},
	}
	c.Flags().StringVar(&file, "plan", "", "the plan that the lines are read onto; a new one when none is given")
	c.Flags().StringVar(&units, "units", "in", "of a new plan: in or mm")
	c.Flags().StringVar(&out, "out", "", "where the plan is written that the lines left")
	c.Flags().BoolVar(&asJSON, "json", false, "print JSON: an array, one object a line")
	return c
}

// sayAll reads lines onto a plan, each onto what the ones before left; what is made last of a prop
// is what the next line is about.
func sayAll(p *plan.Plan, in io.Reader) (*plan.Plan, []said, error) {
	prop := ""
	if n := len(p.Props()); n > 0 {
		prop = p.Props()[n-1].ID
	}
	var all []said
	lines := bufio.NewScanner(in)
	for lines.Scan() {
		line := strings.TrimSpace(lines.Text())
		if line == "" || strings.HasPrefix(line, "#") {
			continue
		}
		s := said{Heard: hearing.Hear(p, stock.Shop, prop, line)}
		if s.Answer == hearing.Done {
			q, err := p.Apply(s.Reading.Edit)
			if err != nil {
				s.Answer, s.Why = hearing.Refused, err.Error()
			} else {
				p, s.Edit = q, &s.Reading.Edit
				if kind, id, _ := strings.Cut(s.Reading.Select, ":"); kind == "prop" {
					prop = id
				}
			}
		}
		all = append(all, s)
	}
	return p, all, lines.Err()
}

// printSaid writes what each line came to.
func printSaid(out io.Writer, all []said, asJSON bool) error {
	if asJSON {
		enc := json.NewEncoder(out)
		enc.SetEscapeHTML(false)
		enc.SetIndent("", " ")
		return enc.Encode(all)
	}
	for _, s := range all {
		text := s.Text()
		if s.Answer != hearing.Done {
			text = s.Trouble()
		}
		fmt.Fprintf(out, "%-8s %s\n         %s\n", s.Answer, s.Line, text)
		if s.As != "" && s.Answer != hearing.Refused {
			fmt.Fprintf(out, "         as: %s\n", s.As)
		}
	}
	return nil
}
