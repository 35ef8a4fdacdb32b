package main

import (
	"context"
	"fmt"
	"os"
	"path/filepath"

	"github.com/spf13/cobra"

	"tincup/internal/app"
	"tincup/internal/core/day"
	"tincup/internal/store"
)

func backupCommand() *cobra.Command {
	f := &flags{}
	cmd := &cobra.Command{
		Use:   "backup FILE",
		Short: "Write a copy of the data file",
		Long: `Backup writes a copy of the data file to FILE, and of the attached files to FILE-files,
also while a server has it open and changes it. The copy holds every change that
was made before, is looked through before it counts, and is a data file like any
other. Nothing is written over.`,
		Example: `  tincup backup /media/stick/tincup.db`,
		Args:    usageArgs(cobra.ExactArgs(1)),
		RunE: func(cmd *cobra.Command, args []string) error {
			path, err := f.path("tincup.db")
			if err != nil {
				return err
			}
			if _, err := os.Stat(path); err != nil {
				return fmt.Errorf("there is no data file to copy: %w", err)
			}
			var copied store.Copied
			err = f.on(cmd.Context(), func(a *app.App) error {
				copied, err = a.CopyTo(cmd.Context(), args[0])
				return err
			}, func(string) error { // the holder goes on; the copy is of one moment
				from, err := filepath.EvalSymlinks(path)
				if err == nil {
					copied, err = store.Copy(cmd.Context(), from, args[0], false)
				}
				return explained(err)
			})
			if err != nil {
				return err
			}
			fmt.Fprintf(os.Stdout, "Copied %s and %s to %s\n", counted(copied.Todos, "to-do"), counted(copied.Files, "attached file"), copied.Path)
			return nil
		},
	}
	f.onFile(cmd)
	return cmd
}

func restoreCommand() *cobra.Command {
	f := &flags{}
	cmd := &cobra.Command{
		Use:   "restore FILE",
		Short: "Put a copy in the place of the data file",
		Long: `Restore looks through a copy and puts it, with its attached files, in the place of
the data file. What is there now is kept beside it under another name. No server
may have the data file open.`,
		Example: `  tincup restore /media/stick/tincup.db
  tincup restore ~/.local/share/tincup/tincup.db-copies/2026-11-23.db`,
		Args: usageArgs(cobra.ExactArgs(1)),
		RunE: func(cmd *cobra.Command, args []string) error {
			path, err := f.path("tincup.db")
			if err != nil {
				return err
			}
			aside, err := store.Restore(cmd.Context(), args[0], path)
			if err != nil {
				return explained(err)
			}
			fmt.Fprintf(os.Stdout, "%s is as it was in %s\n", path, args[0])
			if aside != "" {
				fmt.Fprintf(os.Stdout, "What was there is kept as %s\n", aside)
			}
			return nil
		},
	}
	f.onFile(cmd)
	return cmd
}

// counted says how many there are of something.
func counted(n int, what string) string {
	if n == 1 {
		return "1 " + what
	}
	return fmt.Sprintf("%d %ss", n, what)
}

// withCopy adds the newest good copy to an error of opening the data file that a copy mends.
func withCopy(ctx context.Context, path string, err error) error {
	if !broken(err) {
		return err
	}
	copied, found := store.NewestCopy(ctx, path)
	if !found {
		return err
	}
	on, wrong := day.ParseDate(filepath.Base(copied.Path)[:len("2026-11-24")])
	if wrong != nil {
		return err
	}
	return fmt.Errorf("%w\nThe newest good copy is of %s and has %s. To put it in place: tincup restore %q --db %q", err, on.Words(), counted(copied.Todos, "to-do"), copied.Path, path)
}
