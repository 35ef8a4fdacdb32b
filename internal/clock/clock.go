// Package clock gives the time to the parts of the program that wait for it.
// The rules never ask it: they are handed a day.Clock.
package clock

import (
	"context"
	"os"
	"strings"
	"sync"
	"time"
)

// Source tells the time and waits for it.
type Source interface {
	Now() time.Time
	// Wait returns when Now may have reached until, or has jumped; it may
	// return early. It returns the context's error when that ends first.
	Wait(ctx context.Context, until time.Time) error
}

// System is the machine's clock.
type System struct{}

// Now implements Source.
func (System) Now() time.Time { return time.Now() }

// lookAgain bounds how long a wait sleeps: timers stand still while a machine
// sleeps, its clock may be set, and what is waited for may come nearer.
const lookAgain = time.Second

// Wait implements Source.
func (System) Wait(ctx context.Context, until time.Time) error {
	return sleep(ctx, min(time.Until(until), lookAgain))
}

func sleep(ctx context.Context, d time.Duration) error {
	timer := time.NewTimer(max(d, 0))
	defer timer.Stop()
	select {
	case <-ctx.Done():
		return ctx.Err()
	case <-timer.C:
		return nil
	}
}

// Frozen stands still.
type Frozen time.Time

// Now implements Source.
func (f Frozen) Now() time.Time { return time.Time(f) }

// Wait implements Source: a frozen clock reaches nothing.
func (f Frozen) Wait(ctx context.Context, _ time.Time) error {
	<-ctx.Done()
	return ctx.Err()
}

// File reads a wall time such as 2026-11-24T09:10:00 from a file each time it
// is asked, so that a test may move it. Between readable contents it stands.
type File struct {
	Path string
	Zone *time.Location
	mu   sync.Mutex
	last time.Time
}

// WallLayout is how times are written in flags and clock files.
const WallLayout = "2006-01-02T15:04:05"

// ParseWall reads a wall time, with or without seconds, in a zone.
func ParseWall(s string, zone *time.Location) (time.Time, error) {
	if len(s) == len("2006-01-02T15:04") {
		s += ":00"
	}
	return time.ParseInLocation(WallLayout, s, zone)
}

// Now implements Source.
func (f *File) Now() time.Time {
	f.mu.Lock()
	defer f.mu.Unlock()
	content, err := os.ReadFile(f.Path)
	if err != nil {
		return f.last
	}
	s := strings.TrimSpace(string(content))
	if t, err := time.Parse(time.RFC3339, s); err == nil {
		f.last = t
	} else if t, err := ParseWall(s, f.Zone); err == nil {
		f.last = t
	}
	return f.last
}

// Wait implements Source.
func (f *File) Wait(ctx context.Context, _ time.Time) error {
	return sleep(ctx, 20*time.Millisecond)
}
