package app_test

import (
	"bytes"
	"database/sql"
	"errors"
	"log/slog"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"tincup/internal/app"
	"tincup/internal/clock"
	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/store"
)

// A file that an earlier version left with doubled positions and tags is put right
// at the start, after a copy; one in which rows are missing is refused.
func TestFilesThatContradictThemselves(t *testing.T) {
	for name, c := range map[string]struct {
		harm []string
		says string // "" where it opens unasked
		logs string
	}{
		"nothing is wrong":   {nil, "", ""},
		"doubled positions":  {[]string{"UPDATE todos SET position = 'e0V000'", "UPDATE list_places SET position = 'e0V000'"}, "", "the data file was mended"},
		"a doubled tag":      {[]string{"UPDATE todos SET tags = CAST(tags || tags AS BLOB)"}, "", "the data file was mended"},
		"a note with a plan": {[]string{"UPDATE todos SET is_note = 1", "INSERT INTO personal (todo, account, plan, handful, reminders) SELECT id, owner, '2026-W48', '', '' FROM todos"}, "", "they stay as they are"},
		"a list is missing":  {[]string{"DELETE FROM lists"}, "in a list that is not there", "the data file was mended"},
		"a tag is missing":   {[]string{"DELETE FROM tags"}, "carries a tag that is not there", "the data file was mended"},
	} {
		t.Run(name, func(t *testing.T) {
			path := filepath.Join(t.TempDir(), "book.db")
			var log bytes.Buffer
			reopen := func(repair bool) (*app.Session, error) {
				log.Reset()
				a, err := app.Open(t.Context(), path, clock.Frozen(benchNow), app.Settings{Zone: time.UTC, Repair: repair}, slog.New(slog.NewTextHandler(&log, nil)))
				if err != nil {
					return nil, err
				}
				return a.Owner(), nil
			}
			a, err := reopen(false)
			if err != nil {
				t.Fatal(err)
			}
			list := app.NewID()
			steps := []app.Step{{At: benchNow, Command: book.AddList{Name: "Crates"}}, {At: benchNow, Command: book.AddList{ID: list, Name: "Labels"}}}
			for _, title := range []string{"a", "b", "c"} {
				steps = append(steps, app.Step{At: benchNow, Command: book.Capture{Title: title, List: list, Tags: []string{"calls"}}})
			}
			if err := errors.Join(a.Seed(t.Context(), steps), a.Close()); err != nil {
				t.Fatal(err)
			}
			db, err := sql.Open("sqlite", path)
			if err != nil {
				t.Fatal(err)
			}
			for _, harm := range c.harm {
				if _, err := db.Exec(harm); err != nil {
					t.Fatal(err)
				}
			}
			if err := db.Close(); err != nil {
				t.Fatal(err)
			}
			a, err = reopen(false)
			if c.says != "" {
				var damage *store.DamageError
				if !errors.As(err, &damage) || !strings.Contains(err.Error(), c.says) {
					t.Fatalf("it says %v", err)
				}
				a, err = reopen(true)
			}
			if err != nil {
				t.Fatal(err)
			}
			copies, _ := filepath.Glob(path + ".before-repair*")
			if mended := strings.Contains(c.logs, "mended"); mended != (len(copies) == 1) {
				t.Errorf("copies: %v", copies)
			}
			if !strings.Contains(log.String(), c.logs) || strings.Contains(log.String(), "“") {
				t.Errorf("the log says %s", log.String())
			}
			a.Read(func(b *book.Desk, clock day.Clock) {
				for _, f := range b.Faults(clock.Today()) {
					if f.Gravity != book.Clash {
						t.Errorf("a fault is left: %s", f.Says)
					}
				}
				if b.Len() != 3 {
					t.Errorf("%d to-dos are left", b.Len())
				}
			})
			if err := a.Close(); err != nil {
				t.Fatal(err)
			}
			if a, err = reopen(false); err != nil || log.Len() > 0 && !strings.Contains(c.logs, "stay") {
				t.Fatalf("the next start: %v %s", err, log.String())
			}
			if err := a.Close(); err != nil {
				t.Fatal(err)
			}
		})
	}
}

// A clock at the end of all dates, or before the first, is refused at the start with a word.
func TestClockThatIsWrong(t *testing.T) {
	for _, year := range []int{1, 1899, 9001, 9998, 12000} {
		source := clock.Frozen(time.Date(year, 11, 24, 9, 10, 0, 0, time.UTC))
		a, err := app.Open(t.Context(), filepath.Join(t.TempDir(), "t.db"), source, app.Settings{Zone: time.UTC}, slog.New(slog.DiscardHandler))
		if !errors.Is(err, app.ErrClock) || !strings.Contains(err.Error(), "from 1900 to 9000") {
			t.Errorf("in %d: %v", year, err)
		}
		if err == nil {
			_ = a.Close()
		}
	}
}
