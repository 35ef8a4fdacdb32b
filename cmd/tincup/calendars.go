package main

import (
	"context"
	"errors"
	"fmt"
	"net"
	"net/http"
	"net/url"
	"os"
	"time"

	"tincup/internal/app"
	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/standin/calendar"
)

// serveCalendars serves the demo's calendars on loopback until the context ends, and
// returns where: at a free port, or at the one by which a demo that was kept knows them.
func (f *flags) serveCalendars(ctx context.Context, a *app.App) (string, error) {
	at := keptAt(a)
	listener, err := net.Listen("tcp", at)
	if err != nil {
		return "", fmt.Errorf("the demo's calendars cannot be served at %s: %w", at, err)
	}
	fmt.Fprintf(os.Stdout, "The demo's calendars are at http://%s\n", listener.Addr())
	clock := a.Owner().Clock()
	service := calendar.New(clock.Zone, func() time.Time { return clock.Now })
	service.Demo(clock.Today())
	srv := &http.Server{Handler: service, ReadHeaderTimeout: 5 * time.Second}
	go func() {
		if err := srv.Serve(listener); !errors.Is(err, http.ErrServerClosed) {
			f.logger().Warn("the demo's calendars are no longer served", "error", err)
		}
	}()
	context.AfterFunc(ctx, func() { _ = srv.Close() })
	return "http://" + listener.Addr().String(), nil
}

// keptAt is where the demo's calendars were served before; any free port where they were not.
func keptAt(a *app.App) string {
	at := "127.0.0.1:0"
	a.Owner().Read(func(b *book.Desk, _ day.Clock) {
		for _, c := range b.Calendars() {
			if where, err := url.Parse(c.Address); err == nil && where.Path == "/museum.ics" {
				at = where.Host
			}
		}
	})
	return at
}

// addCalendars adds the demo's calendars.
func addCalendars(ctx context.Context, a *app.App, at string) error {
	for _, name := range []string{"museum", "choir"} {
		_, err := a.Owner().AddCalendar(ctx, app.Request{Window: "demo"}, book.AddCalendar{Address: at + "/" + name + ".ics"}, nil, nil)
		if err != nil {
			return fmt.Errorf("the demo's calendar %s: %w", name, err)
		}
	}
	return nil
}
