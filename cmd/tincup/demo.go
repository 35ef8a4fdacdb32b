package main

import (
	"context"
	"errors"
	"fmt"
	"io/fs"
	"os"

	"github.com/spf13/cobra"

	"tincup/demo"
	"tincup/internal/app"
	"tincup/internal/store"
)

func demoCommand() *cobra.Command {
	f := &flags{}
	var keep bool
	cmd := &cobra.Command{
		Use:   "demo",
		Short: "Serve the demo data",
		Long: `Demo fills a data file of its own with the to-dos of an assistant curator who
prepares an exhibition, dated round today, and serves it. The file is made
afresh at each start unless --keep is given. Your own data file is not touched.`,
		Example: `  tincup demo
  tincup demo --keep
  tincup demo --now 2026-11-24T09:10 --zone Europe/Lisbon`,
		Args: cobra.NoArgs,
		RunE: func(cmd *cobra.Command, _ []string) error {
			f.privateCalendars = true // its own are served on this machine
			path, err := f.path("demo.db")
			if err != nil {
				return err
			}
			if keep {
				if _, err := os.Stat(path); err == nil {
					return f.serve(cmd.Context(), path, func(ctx context.Context, a *app.App) error {
						if _, err := f.serveCalendars(ctx, a); err != nil { // something else has their port: they are read later
							f.logger().Warn(err.Error())
						}
						return nil
					})
				}
			} else if err := clear(cmd.Context(), path); err != nil {
				return explained(err)
			}
			return f.serve(cmd.Context(), path, func(ctx context.Context, a *app.App) error {
				if err := a.MarkDemo(ctx); err != nil {
					return err
				}
				count, err := demo.Fill(ctx, a.Owner())
				if err != nil {
					return err
				}
				at, err := f.serveCalendars(ctx, a)
				if err == nil {
					err = addCalendars(ctx, a, at)
				}
				if err == nil {
					fmt.Fprintf(os.Stdout, "Demo data: %d to-dos in %s\n", count, path)
				}
				return err
			})
		},
	}
	f.onFile(cmd)
	f.onServer(cmd)
	f.onTime(cmd)
	cmd.Flags().BoolVar(&keep, "keep", false, "go on with the demo data as it was left")
	return cmd
}

// clear removes an earlier demo file, and nothing that is not one.
func clear(ctx context.Context, path string) error {
	if _, err := os.Stat(path); errors.Is(err, fs.ErrNotExist) {
		return nil
	}
	s, err := store.Open(ctx, path)
	if err != nil {
		return err
	}
	isDemo, err := s.IsDemo(ctx)
	if err := errors.Join(err, s.Close()); err != nil {
		return err
	}
	if !isDemo {
		return fmt.Errorf("%s holds to-dos of your own and is not made afresh; name another file with --db", path)
	}
	return store.Remove(path)
}
