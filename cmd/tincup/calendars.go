package main

import (
	"context"
	"errors"
	"fmt"
	"net"
	"net/http"
	"strconv"
	"time"

	"tincup/internal/app"
	"tincup/internal/core/book"
	"tincup/internal/standin/calendar"
)

// serveCalendars serves the demo's calendars on loopback until the context ends, and
// returns where: at the port behind the page's where that is free.
func (f *flags) serveCalendars(ctx context.Context, a *app.App) (string, error) {
	listener, err := net.Listen("tcp", portAfter(f.addr))
	if err != nil {
		listener, err = net.Listen("tcp", "127.0.0.1:0")
	}
	if err != nil {
		return "", fmt.Errorf("the demo's calendars cannot be served: %w", err)
	}
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

// portAfter is the address with the next port; an address with any free one is left so.
func portAfter(addr string) string {
	host, port, err := net.SplitHostPort(addr)
	n, bad := strconv.Atoi(port)
	if err != nil || bad != nil || n == 0 || n >= 65535 {
		return "127.0.0.1:0"
	}
	return net.JoinHostPort(host, strconv.Itoa(n+1))
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
