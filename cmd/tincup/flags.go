package main

import (
	"errors"
	"fmt"
	"log/slog"
	"net"
	"os"
	"path/filepath"
	"time"

	"github.com/spf13/cobra"

	"tincup/internal/app"
	"tincup/internal/clock"
	"tincup/internal/core/capture"
	"tincup/internal/core/day"
	"tincup/internal/outside/feed"
	"tincup/internal/store"
)

// DefaultAddress is where the server answers unless told otherwise.
const defaultAddress = "127.0.0.1:7420"

// flags are those that commands share.
type flags struct {
	db, addr, now, zone, dayStart, clockFile string
	quiet, repair, privateCalendars          bool
	writing                                  capture.Settings
}

func (f *flags) onFile(cmd *cobra.Command) {
	cmd.Flags().StringVar(&f.db, "db", "", "the data file (default: tincup/tincup.db in the XDG data folder)")
}

func (f *flags) onRepair(cmd *cobra.Command) {
	cmd.Flags().BoolVar(&f.repair, "repair", false, "open a data file that a crash has damaged, after a copy of what is there")
}

func (f *flags) onTime(cmd *cobra.Command) {
	cmd.Flags().StringVar(&f.now, "now", "", "stand still at this wall time, such as 2026-11-24T09:10")
	cmd.Flags().StringVar(&f.zone, "zone", "", "the time zone for this run, such as Europe/Lisbon, in place of the one in the settings")
	cmd.Flags().StringVar(&f.dayStart, "day-start", "", "when a day begins for this run, 00:00 to 06:00, in place of the settings")
	cmd.Flags().BoolVar(&f.writing.MonthFirst, "month-first", false, "read 11/30 as 30 November for this run, whatever the settings say")
	cmd.Flags().BoolVar(&f.writing.SundayFirst, "sunday-first", false, "let weeks begin on Sunday in “end of week” for this run, whatever the settings say")
	cmd.Flags().StringVar(&f.clockFile, "clock-file", "", "read the wall time from this file, for tests")
	if err := cmd.Flags().MarkHidden("clock-file"); err != nil {
		panic(err) // the flag was made a line above
	}
}

func (f *flags) onServer(cmd *cobra.Command) {
	cmd.Flags().StringVar(&f.addr, "addr", defaultAddress, "where to answer: a loopback address and a port, 0 for any free one")
	cmd.Flags().BoolVar(&f.privateCalendars, "private-calendars", false, "read calendars also from addresses on this machine and on private networks")
	cmd.Flags().BoolVar(&f.quiet, "quiet", false, "log warnings and errors only")
}

// usageError is a command line that cannot be carried out; exit status 2.
type usageError struct{ error }

func usage(format string, args ...any) error { return usageError{fmt.Errorf(format, args...)} }

// usageArgs makes a wrong number of arguments a usage error.
func usageArgs(check cobra.PositionalArgs) cobra.PositionalArgs {
	return func(cmd *cobra.Command, args []string) error {
		if err := check(cmd, args); err != nil {
			return usageError{err}
		}
		return nil
	}
}

func exitStatus(err error) int {
	var ue usageError
	if errors.As(err, &ue) {
		return 2
	}
	if errors.Is(err, errRefused) {
		return 3
	}
	return 1
}

// path returns the data file, and makes the folder it lies in.
func (f *flags) path(name string) (string, error) {
	path := f.db
	if path == "" {
		folder, err := dataFolder()
		if err != nil {
			return "", err
		}
		path = filepath.Join(folder, "tincup", name)
	}
	path, err := filepath.Abs(path)
	if err != nil {
		return "", err
	}
	if err := store.MakeFolder(filepath.Dir(path)); err != nil {
		return "", fmt.Errorf("the folder of the data file cannot be made: %w", err)
	}
	return path, nil
}

// dataFolder follows the XDG Base Directory Specification.
func dataFolder() (string, error) {
	if folder := os.Getenv("XDG_DATA_HOME"); filepath.IsAbs(folder) {
		return folder, nil
	}
	home, err := os.UserHomeDir()
	if err != nil {
		return "", fmt.Errorf("there is no home folder; say where the data file is with --db: %w", err)
	}
	return filepath.Join(home, ".local", "share"), nil
}

func (f *flags) settings() (app.Settings, error) {
	s := app.Settings{Machine: machineZone(), Writing: f.writing, Repair: f.repair,
		Calendars: feed.NewReader(f.privateCalendars)}
	if f.zone != "" {
		zone, err := time.LoadLocation(f.zone)
		if err != nil {
			return s, usage("--zone %q is not a time zone; one such as Europe/Lisbon is wanted", f.zone)
		}
		s.Zone = zone
	}
	if f.dayStart != "" {
		t, err := day.ParseTimeOfDay(f.dayStart)
		if err != nil {
			return s, usage("--day-start: %v", err)
		}
		s.DayStart = time.Duration(t.Minutes()) * time.Minute
		s.Fixed = map[string]string{"dayStart": t.String()} // midnight, too
		if s.DayStart > day.MaxDayStart {
			return s, usage("--day-start %s is too late; 06:00 is the latest", f.dayStart)
		}
	}
	return s, nil
}

// world is the person's settings, and the clock in their zone.
func (f *flags) world() (app.Settings, clock.Source, error) {
	settings, err := f.settings()
	if err != nil {
		return settings, nil, err
	}
	source, err := f.source(zoneOf(settings))
	return settings, source, err
}

// zoneOf is the zone of a run that asks no account.
func zoneOf(s app.Settings) *time.Location {
	if s.Zone != nil {
		return s.Zone
	}
	return s.Machine
}

func (f *flags) source(zone *time.Location) (clock.Source, error) {
	switch {
	case f.now != "" && f.clockFile != "":
		return nil, usage("--now and --clock-file exclude one another")
	case f.clockFile != "":
		return &clock.File{Path: f.clockFile, Zone: zone}, nil
	case f.now != "":
		t, err := clock.ParseWall(f.now, zone)
		if err != nil {
			return nil, usage("--now %q is not a wall time such as 2026-11-24T09:10", f.now)
		}
		return clock.Frozen(t), nil
	}
	return clock.System{}, nil
}

func (f *flags) logger() *slog.Logger {
	level := slog.LevelInfo
	if f.quiet {
		level = slog.LevelWarn
	}
	return slog.New(slog.NewTextHandler(os.Stderr, &slog.HandlerOptions{Level: level}))
}

// checkAddress refuses addresses that other machines could reach: there are no
// accounts yet to keep them out.
func checkAddress(addr string) error {
	host, _, err := net.SplitHostPort(addr)
	if err != nil {
		return usage("--addr %q is not an address and a port such as %s", addr, defaultAddress)
	}
	if host != "localhost" && !net.ParseIP(host).IsLoopback() {
		return usage("--addr %q can be reached from other machines, and there are no accounts to keep them out; use %s", addr, defaultAddress)
	}
	return nil
}

// broken reports whether an error of opening is of what is in the data file.
func broken(err error) bool {
	return errors.Is(err, store.ErrBroken) || errors.Is(err, store.ErrDamaged) || errors.Is(err, store.ErrNotOurs)
}

// explained says what to do about a data file that cannot be opened.
func explained(err error) error {
	switch {
	case errors.Is(err, store.ErrHeld):
		return fmt.Errorf("%w; stop that one first, or use another file with --db", err)
	case errors.Is(err, store.ErrNotOurs):
		return fmt.Errorf("%w. Name another file with --db", err)
	case errors.Is(err, store.ErrNewer):
		return fmt.Errorf("%w. Use that version; the file was not touched", err)
	case errors.Is(err, store.ErrReadOnly):
		return fmt.Errorf("%w. Make the file and its folder writable, or name another with --db", err)
	case errors.Is(err, store.ErrBroken):
		return fmt.Errorf("%w. Put a copy of the file in its place; what is there was left as it is. Nothing was changed", err)
	case errors.Is(err, store.ErrFull):
		return fmt.Errorf("%w. Free some space; the file was not changed", err)
	}
	return err
}
