package formats_test

import (
	"bytes"
	"encoding/json"
	"flag"
	"fmt"
	"math/rand/v2"
	"os"
	"os/exec"
	"path/filepath"
	"slices"
	"testing"

	"tincup/internal/core/book"
	"tincup/internal/core/exchange"
	"tincup/internal/core/remind"
	"tincup/internal/core/repeat"
	"tincup/internal/formats/csvfile"
	"tincup/internal/formats/ics"
	"tincup/internal/formats/jscal"
	"tincup/internal/formats/markdown"
)

// sample is where files of random Books go, with what other readers are to find in them
// (web/e2e/readers-logic.spec.ts, reference/readers.py). The ones that are kept are of a fixed seed.
var sample = flag.String("sample", "", "a folder for as many samples as -books says; without, those in testdata are compared")

// found is what another reader finds of a to-do.
type found struct {
	UID    string `json:"uid"`
	Title  string `json:"title"`
	Due    string `json:"due,omitempty"`
	Alarms int    `json:"alarms"`
	// Rings are the instants at which reminders before the due come, and those at a time.
	Rings []string `json:"rings,omitempty"`
	// Under is the place of what it is a subtask of, -1 for none; a Note has no box.
	Under int  `json:"under"`
	Done  bool `json:"done,omitempty"`
	Note  bool `json:"note,omitempty"`
	// Dates are the first twenty of its rule from the present occurrence on.
	Dates []string `json:"dates,omitempty"`
}

func TestSamplesForOtherReaders(t *testing.T) {
	folder, count, random := *sample, *books, *seed
	if folder == "" {
		folder, count, random = "testdata", 12, 42
	}
	for n := range count {
		r := rand.New(rand.NewPCG(random, uint64(n)))
		s := newShop(t)
		s.bring(t, randomItems(r, s))
		items, err := exchange.Take(s.desk, exchange.Everything(s.desk))
		if err != nil {
			t.Fatal(err)
		}
		files := map[string][]byte{}
		for ending, format := range map[string]exchange.Codec{"ics": ics.Format{}, "csv": csvfile.Format{}, "md": markdown.Format{}, "jscal": jscal.Format{}} {
			if files[fmt.Sprintf("sample-%d.%s", n, ending)], err = format.Write(items, s.world()); err != nil {
				t.Fatal(err)
			}
		}
		all := []found{}
		for i := range items {
			all = append(all, s.finds(t, &items[i]))
		}
		packed, err := json.MarshalIndent(all, "", " ")
		if err != nil {
			t.Fatal(err)
		}
		files[fmt.Sprintf("sample-%d.json", n)] = append(packed, '\n')
		for name, want := range files {
			path := filepath.Join(folder, name)
			if *sample != "" {
				if err := os.WriteFile(path, want, 0o600); err != nil {
					t.Fatal(err)
				}
				continue
			}
			if kept, err := os.ReadFile(path); err != nil || !bytes.Equal(kept, want) {
				t.Errorf("%s is written otherwise now (%v); go test ./internal/formats -sample internal/formats/testdata -seed 42 -books 12 writes it anew", name, err)
			}
		}
	}
}

// Programs that others wrote read our samples as they were meant: python3-icalendar, with dateutil for
// the dates of rules, and Python's csv.
func TestReadersOfOthers(t *testing.T) {
	folder := *sample
	if folder == "" {
		folder = "testdata"
	}
	out, err := exec.Command("/usr/bin/python3", "reference/readers.py", folder).CombinedOutput()
	if err != nil {
		t.Fatalf("%v (Debian's package python3-icalendar is wanted)\n%s", err, out)
	}
	t.Logf("%s", out)
}

// ringsOf are the instants at which reminders of a to-do come, those at places left out, in order.
func (s *shop) ringsOf(todo *book.Todo) (rings []string) {
	chosen, _ := s.desk.Settings()
	w := remind.Terms{Clock: s.env().Clock, Hour: chosen.ReminderHour()}
	for _, r := range todo.Reminders {
		if at := w.When(todo, r); !at.IsZero() {
			rings = append(rings, at.UTC().Format("2006-01-02T15:04:05Z"))
		}
	}
	slices.Sort(rings)
	return rings
}

// finds is what a reader is to find of an item.
func (s *shop) finds(t *testing.T, item *exchange.Item) found {
	t.Helper()
	todo := &item.Todo
	alarms := len(todo.Reminders)
	if todo.IsNote { // which may have none (RFC 5545 section 3.6.3)
		alarms = 0
	}
	f := found{UID: item.UID, Title: todo.Title, Alarms: alarms, Under: item.Under, Done: !todo.Status.Open(), Note: todo.IsNote}
	if !todo.IsNote {
		f.Due = todo.Due.String()
		f.Rings = s.ringsOf(todo)
	}
	r := todo.Repeat
	// The repeats that are written as rules: not those with a lead, or reckoned from completion, nor
	// SKIP=FORWARD, which nothing but RFC 7529 can say.
	if r == nil || r.Lead > 0 || r.Anchor != repeat.Schedule || r.Rule.Skip == repeat.Forward {
		return f
	}
	ruled := *todo // a date that was moved by hand is the rule's in a calendar
	if !todo.Due.IsZero() {
		ruled.Due.Date = r.Current
	} else if !todo.Start.IsZero() {
		ruled.Start = r.Current
	}
	f.Due, f.Rings = ruled.Due.String(), s.ringsOf(&ruled)
	series, err := r.Series(todo.Due.Time, s.zone)
	if err != nil {
		t.Fatal(err)
	}
	for on := range series.From(r.Current) {
		if f.Dates = append(f.Dates, on.String()); len(f.Dates) == 20 {
			break
		}
	}
	return f
}
