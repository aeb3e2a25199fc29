package main

import (
	"fmt"
	"time"

	"zapbarn/core/words"
	"zapbarn/store"

	"github.com/spf13/cobra"
)

func backupCommand() *cobra.Command {
	var s settings
	c := &cobra.Command{
		Use:   "backup [FILE]",
		Short: "writes all displays, logs and pictures to one file, while others work",
		Long: "Writes the whole database as it is at one moment to one file, restores that into a database of its own and " +
			"compares the two before it counts.\nWithout a name it is called by the date.",
		Args: cobra.MaximumNArgs(1),
		RunE: func(cmd *cobra.Command, args []string) error {
			file := "zapbarn-" + time.Now().Format("2006-01-02-1504") + ".zapbarn"
			if len(args) > 0 {
				file = args[0]
			}
			url, _, err := s.found(cmd.Context(), cmd.ErrOrStderr())
			if err != nil {
				return err
			}
			n, err := store.Backup(cmd.Context(), url, file)
			if err != nil {
				return err
			}
			fmt.Fprintf(cmd.OutOrStdout(), "%s: %s, restored once to try it, and alike\n", file, words.Count(n, "display"))
			return nil
		},
	}
	s.flags(c)
	return c
}

func restoreCommand() *cobra.Command {
	var s settings
	c := &cobra.Command{
		Use:   "restore FILE",
		Short: "puts a backup in the place of what is there, which is kept beside it",
		Args:  cobra.ExactArgs(1),
		RunE: func(cmd *cobra.Command, args []string) error {
			url, _, err := s.found(cmd.Context(), cmd.ErrOrStderr())
			if err != nil {
				return err
			}
			n, kept, err := store.Restore(cmd.Context(), url, args[0], time.Now())
			if err != nil {
				return err
			}
			fmt.Fprintf(cmd.OutOrStdout(), "restored %s; what was there before is kept as the database %s\n",
				words.Count(n, "display"), kept)
			return nil
		},
	}
	s.flags(c)
	return c
}
