package main

import (
	"context"
	"errors"
	"fmt"
	"net"
	"net/http"
	"os"
	"time"

	"github.com/spf13/cobra"

	"tincup/internal/core/geo"
	"tincup/internal/standin/device"
)

func deviceCommand() *cobra.Command {
	var server, from string
	accuracy, every, steps := 20.0, time.Second, 12
	made := func() (*device.Device, error) {
		d := device.New(server)
		d.Accuracy, d.Every, d.Steps = accuracy, every, steps
		if steps < 1 || accuracy < 0 || every < 0 {
			return nil, usageError{errors.New("--steps is 1 or more, --accuracy and --every are 0 or more")}
		}
		return d, nil
	}
	cmd := &cobra.Command{
		Use:   "device",
		Short: "Simulate a device that walks from place to place",
		Long: `Device stands in for a telephone: it tells a Tin Cup that runs where it is, and to
what it is connected, so that reminders of places can be tried without going
anywhere.`,
		Example: `  tincup device page
  tincup device walk "the museum"
  tincup device connect "the car"`,
	}
	shared := cmd.PersistentFlags()
	shared.StringVar(&server, "server", "http://127.0.0.1:7420", "where the Tin Cup is that is told")
	shared.Float64Var(&accuracy, "accuracy", accuracy, "by how many metres the positions may be wrong")
	shared.DurationVar(&every, "every", every, "the time between two positions of a walk")
	shared.IntVar(&steps, "steps", steps, "how many positions a walk has")

	walk := &cobra.Command{
		Use: "walk PLACE", Short: "Walk to a place, and tell of each step", Args: cobra.ExactArgs(1),
		RunE: func(cmd *cobra.Command, args []string) error {
			d, err := made()
			if err != nil {
				return err
			}
			if from != "" {
				at, err := geo.Parse(from)
				if err != nil {
					return usageError{err}
				}
				if err := d.Put(cmd.Context(), at); err != nil {
					return err
				}
			}
			p, err := d.Find(cmd.Context(), args[0])
			if err == nil {
				err = d.Walk(cmd.Context(), p)
			}
			if err == nil {
				at, _ := d.At()
				fmt.Fprintf(os.Stdout, "It is at %s, %s\n", p.Name, at.Words())
			}
			return err
		},
	}
	walk.Flags().StringVar(&from, "from", "", `where it begins, such as "38.7223, -9.1393"; without, a kilometre to the north`)
	connect := func(use, short, says string, on bool) *cobra.Command {
		return &cobra.Command{Use: use + " THING", Short: short, Args: cobra.ExactArgs(1), RunE: func(cmd *cobra.Command, args []string) error {
			d, err := made()
			if err != nil {
				return err
			}
			thing, err := d.Find(cmd.Context(), args[0])
			if err == nil {
				err = d.Connect(cmd.Context(), thing, on)
			}
			if err == nil {
				fmt.Fprintln(os.Stdout, says, thing.Name)
			}
			return err
		}}
	}
	var addr string
	page := &cobra.Command{
		Use: "page", Short: "Serve a page with a button for each place", Args: cobra.NoArgs,
		RunE: func(cmd *cobra.Command, _ []string) error {
			d, err := made()
			if err != nil {
				return err
			}
			return servePage(cmd.Context(), addr, d.Page(cmd.Context()))
		},
	}
	page.Flags().StringVar(&addr, "addr", "127.0.0.1:7430", "where it is served")
	cmd.AddCommand(page, walk, connect("connect", "Connect to a thing", "Connected to", true), connect("disconnect", "Disconnect from a thing", "Disconnected from", false))
	return cmd
}

// servePage serves a page of a stand-in on loopback until the context ends.
func servePage(ctx context.Context, addr string, page http.Handler) error {
	host, _, err := net.SplitHostPort(addr)
	if ip := net.ParseIP(host); err != nil || ip == nil || !ip.IsLoopback() {
		return usageError{fmt.Errorf("--addr is %q; an address of this machine alone is wanted, such as 127.0.0.1:7430", addr)}
	}
	listener, err := net.Listen("tcp", addr)
	if err != nil {
		return fmt.Errorf("the device cannot be served: %w", err)
	}
	srv := &http.Server{Handler: page, ReadHeaderTimeout: 5 * time.Second}
	context.AfterFunc(ctx, func() { _ = srv.Close() })
	fmt.Fprintln(os.Stdout, "The device is at http://"+listener.Addr().String())
	if err := srv.Serve(listener); !errors.Is(err, http.ErrServerClosed) {
		return err
	}
	return nil
}
