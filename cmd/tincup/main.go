// Command tincup serves a person's to-dos and puts new ones in.
package main

import (
	"context"
	"fmt"
	"os"
	"os/signal"
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
	root.AddCommand(serveCommand(), demoCommand(), addCommand(), explainCommand())
	if err := root.ExecuteContext(ctx); err != nil {
		fmt.Fprintln(os.Stderr, "tincup: "+err.Error())
		os.Exit(exitStatus(err))
	}
}
