package main

import (
	"fmt"
	"strconv"
	"strings"
	"time"

	"zapbarn/core/plan"
	"zapbarn/core/show"
	"zapbarn/core/stock"
	"zapbarn/core/work"
	"zapbarn/formats"
	"zapbarn/standin"

	"github.com/spf13/cobra"
)

// standinCommand plays a plan file on the stand-in, with no database and no hardware.
func standinCommand() *cobra.Command {
	var prop, stuck string
	var press []string
	var lost, brownout, until int
	c := &cobra.Command{
		Use:   "standin FILE",
		Short: "plays a plan on a simulated controller: triggers by MQTT, levels by streaming ACN, faults on demand",
		Long: "Each --press is an input's ID, when in ms, and for how long: --press mat@500:300. All goes as real packets\n" +
			"over this machine's own loopback. Exit 0: what came back is what the simulator says. Exit 1: it differs.",
		Args: cobra.ExactArgs(1),
		RunE: func(cmd *cobra.Command, args []string) error {
			p, err := readPlan(args[0])
			if err != nil {
				return exit{2, err}
			}
			ctl, err := formats.ControllerOf(work.Do(p, stock.Shop, time.Now()), prop)
			if err != nil {
				return exit{2, err}
			}
			stim, err := presses(p, press)
			if err != nil {
				return err
			}
			e, err := standin.Run(cmd.Context(), ctl.Machine, stim, until,
				standin.Faults{Lost: lost, Stuck: stuck, BrownOut: brownout, Seed: 1})
			if err != nil {
				return err
			}
			tr := ctl.Machine.Run(stim, until)
			out, same := cmd.OutOrStdout(), true
			for _, ch := range ctl.Machine.Channels {
				want, got := fmt.Sprint(tr.Spans(ch.ID)), fmt.Sprint(e.Spans(ch.ID, until))
				mark := "same"
				if want != got {
					mark, same = "differs, simulated "+want, false
				}
				fmt.Fprintf(out, "%-12s %s %s\n", ch.ID, got, mark)
			}
			fmt.Fprintf(out, "%d packets sent, %d came, slowest %s\n", e.Sent, e.Came, e.Slowest)
			if !same {
				return exit{1, nil}
			}
			return nil
		},
	}
	c.Flags().StringVar(&prop, "prop", "", "of one prop; all when not given")
	c.Flags().StringArrayVar(&press, "press", nil, "input@ms:held, as often as wanted")
	c.Flags().IntVar(&until, "until", 20_000, "ms to play")
	c.Flags().IntVar(&lost, "lost", 0, "per cent of the packets that never come")
	c.Flags().StringVar(&stuck, "stuck", "", "an input that does not close any more")
	c.Flags().IntVar(&brownout, "brownout", 0, "ms at which the controller starts anew")
	return c
}

// presses reads what is pressed, when and for how long.
func presses(p *plan.Plan, said []string) (stim []show.Stimulus, err error) {
	for _, x := range said {
		id, rest, ok := strings.Cut(x, "@")
		at, long, ok2 := strings.Cut(rest, ":")
		a, e1 := strconv.Atoi(at)
		h, e2 := strconv.Atoi(long)
		if !ok || !ok2 || e1 != nil || e2 != nil || p.Input(id) == nil {
			return nil, exit{2, fmt.Errorf("--press: %q is not understood; write an input's ID and times, such as "+
				"mat@500:300", x)}
		}
		stim = append(stim, show.Press(id, a, h)...)
	}
	return stim, nil
}
