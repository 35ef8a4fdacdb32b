package main

import (
	"context"
	"errors"
	"fmt"
	"net"
	"os"
	"runtime/debug"
	"time"

	"github.com/spf13/cobra"

	"tincup/internal/app"
	"tincup/internal/httpapi"
	"tincup/internal/outside/desktop"
	"tincup/web"
)

func serveCommand() *cobra.Command {
	f := &flags{}
	cmd := &cobra.Command{
		Use:   "serve",
		Short: "Serve the data file to the page",
		Long: `Serve opens the data file, making it where there is none, and answers on a
loopback address until it is stopped with Ctrl+C. One process at a time owns a
data file; a second one is refused and told the first one's address.`,
		Example: `  tincup serve
  tincup serve --db ~/notes/mine.db --addr 127.0.0.1:8000
  tincup serve --now 2026-11-24T09:10 --zone Europe/Lisbon`,
		Args: cobra.NoArgs,
		RunE: func(cmd *cobra.Command, _ []string) error {
			path, err := f.path("tincup.db")
			if err != nil {
				return err
			}
			return f.serve(cmd.Context(), path, nil)
		},
	}
	f.onFile(cmd)
	f.onRepair(cmd)
	f.onServer(cmd)
	f.onTime(cmd)
	return cmd
}

// garbagePercent is how much may be left behind, in percent of the Book, before
// it is collected. The Book stays while the process runs and each collection
// goes through all of it, so it is done half as often as by default.
const garbagePercent = 200

// serve runs until the context ends. fill, if set, is run on the open Book
// before the first request.
func (f *flags) serve(ctx context.Context, path string, fill func(context.Context, *app.App) error) error {
	if err := checkAddress(f.addr); err != nil {
		return err
	}
	settings, source, err := f.world()
	if err != nil {
		return err
	}
	if os.Getenv("GOGC") == "" {
		debug.SetGCPercent(garbagePercent)
	}
	log := f.logger()
	settings.Notifier = desktop.New()
	a, err := app.Open(ctx, path, source, settings, log)
	if err != nil {
		return withCopy(ctx, path, explained(err))
	}
	if fill != nil {
		if err := fill(ctx, a); err != nil {
			return errors.Join(err, a.Close())
		}
	}
	return errors.Join(f.answer(ctx, a), a.Close())
}

func (f *flags) answer(ctx context.Context, a *app.App) error {
	handler, err := httpapi.New(a, httpapi.OwnerAlone(a), web.Page(), f.logger())
	if err != nil {
		return err
	}
	listener, err := net.Listen("tcp", f.addr)
	if err != nil {
		return fmt.Errorf("cannot answer at %s: %w; choose another with --addr", f.addr, err)
	}
	address := listener.Addr().String()
	if err := a.Announce(address); err != nil {
		return errors.Join(err, listener.Close())
	}
	srv := httpapi.Serve(listener, handler, f.logger())
	fmt.Fprintf(os.Stdout, "Tin Cup is at http://%s\n", address)

	<-ctx.Done()
	a.HangUp() // streams would hold the shutdown up
	stopping, cancel := context.WithTimeout(context.WithoutCancel(ctx), 5*time.Second)
	defer cancel()
	err = srv.Shutdown(stopping)
	if errors.Is(err, context.DeadlineExceeded) { // an upload is still coming: it was acknowledged to nobody
		return srv.Close()
	}
	return err
}
