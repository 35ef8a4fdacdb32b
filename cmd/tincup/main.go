// Command tincup serves a person's to-dos and puts new ones in.
package main

import (
	"context"
	"errors"
	"fmt"
	"os"
	"os/signal"
	"slices"
	"strings"
	"syscall"
	_ "time/tzdata"

	"github.com/spf13/cobra"
)

func main() {
	ctx, stop := signal.NotifyContext(context.Background(), os.Interrupt, syscall.SIGTERM)
	defer stop()
	root := &cobra.Command{
		Use:   "tincup",
		Short: "A person's own to-dos, in one file, served to a page",
		Long: `Tin Cup keeps a person's own to-dos in one file and serves them to a page.

Slips go in without thought, get sorted, come back on the right day, and leave
with a tick.`,
		SilenceUsage:  true,
		SilenceErrors: true,
	}
	root.SetFlagErrorFunc(func(_ *cobra.Command, err error) error { return usageError{err} })
	root.AddCommand(serveCommand(), demoCommand(), addCommand(), explainCommand(), deviceCommand(), importCommand(), exportCommand(),
		backupCommand(), restoreCommand())
	root.SetArgs(withDashes(os.Args[1:]))
	if err := root.ExecuteContext(ctx); err != nil {
		if errors.Is(err, errRefused) { // what is wrong has been printed
			os.Exit(exitStatus(err))
		}
		fmt.Fprintln(os.Stderr, "tincup: "+err.Error())
		os.Exit(exitStatus(err))
	}
}

// withDashes lets a sentence begin with a dash and a space: it is no flag.
func withDashes(args []string) []string {
	at := slices.IndexFunc(args, func(a string) bool { return a == "--" || strings.HasPrefix(a, "- ") })
	if at < 0 || args[at] == "--" {
		return args
	}
	return slices.Insert(slices.Clone(args), at, "--")
}
