package main_test

import (
	"context"
	"errors"
	"io/fs"
	"math/rand/v2"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"sync"
	"testing"
	"time"

	"tincup/internal/seed"
	"tincup/internal/store"
)

// A backup that is killed while the server is under load leaves a whole copy or none: one that is
// there holds every change that was acknowledged before it began.
func TestKilledBackups(t *testing.T) {
	kills := 6
	if *long {
		kills = 50
	}
	seed := seed.New(t)
	r := rand.New(rand.NewPCG(seed, 0))
	folder := t.TempDir()
	db := filepath.Join(folder, "book.db")
	s := start(t, "serve", "--db", db, "--addr", freeAddress(t))
	var working sync.WaitGroup
	var writers []*writer
	var newest sync.Map // of each writer, the last revision that was acknowledged
	for i := range 4 {
		w := &writer{Rand: rand.New(rand.NewPCG(seed, uint64(i+1))), base: s.url, name: string(rune('a' + i)), acknowledged: map[int64]string{}, kinds: map[string]int{}}
		writers = append(writers, w)
		working.Go(func() {
			for last := int64(0); !w.stop.Load(); {
				w.step()
				for revision := range w.acknowledged {
					last = max(last, revision)
				}
				newest.Store(w.name, last)
			}
		})
	}
	defer working.Wait()
	defer func() {
		for _, w := range writers {
			w.stop.Store(true)
		}
	}()
	whole, none := 0, 0
	to := filepath.Join(folder, "copy.db")
	for round := range kills {
		time.Sleep(50 * time.Millisecond)
		before := int64(0)
		newest.Range(func(_, revision any) bool { before = max(before, revision.(int64)); return true })
		ctx, kill := context.WithTimeout(t.Context(), time.Duration(5+r.IntN(400))*time.Millisecond)
		out, err := exec.CommandContext(ctx, binary, "backup", to, "--db", db).CombinedOutput() // SIGKILL at its end
		killed := ctx.Err() != nil
		kill()
		if err != nil && !killed {
			t.Fatalf("round %d: %v\n%s", round, err, out)
		}
		if _, err := os.Stat(to); errors.Is(err, fs.ErrNotExist) {
			none++
			continue
		}
		c, err := store.Check(t.Context(), to)
		if err != nil || c.Revision < before {
			t.Fatalf("round %d: %+v, %v; %d was acknowledged before", round, c, err, before)
		}
		whole++
		if err := errors.Join(os.Remove(to), os.RemoveAll(to+"-files")); err != nil {
			t.Fatal(err)
		}
	}
	// Whatever was left of one that was killed is not in the way.
	if out, err := exec.Command(binary, "backup", to, "--db", db).CombinedOutput(); err != nil {
		t.Fatalf("%v\n%s", err, out)
	}
	other := start(t, "serve", "--db", to, "--addr", freeAddress(t))
	get(t, other.url+"/api/overview")
	other.stop(t)
	t.Logf("%d killed or in time: %d whole copies, %d times none", kills, whole, none)
}

// A server that is killed while it makes the copy of a day leaves a whole copy or none, and loses
// nothing that it acknowledged meanwhile.
func TestKilledDailyCopies(t *testing.T) {
	times, kills := 1, 5
	if *long {
		times, kills = 4, 20 // each of them a day: after thirty the history begins to go
	}
	seed := seed.New(t)
	for i := range times {
		killDailyCopies(t, seed+uint64(i), kills)
	}
}

func killDailyCopies(t *testing.T, seed uint64, kills int) {
	r := rand.New(rand.NewPCG(seed, 0))
	folder := t.TempDir()
	db, clock := filepath.Join(folder, "book.db"), filepath.Join(folder, "clock")
	now := time.Date(2026, 11, 24, 9, 0, 0, 0, time.UTC)
	tell := func(ahead time.Duration) {
		t.Helper()
		now = now.Add(ahead)
		if err := errors.Join(os.WriteFile(clock+".next", []byte(now.Format(time.RFC3339)), 0o600), os.Rename(clock+".next", clock)); err != nil {
			t.Fatal(err)
		}
	}
	tell(0)
	args := []string{"serve", "--db", db, "--addr", freeAddress(t), "--clock-file", clock, "--zone", "UTC"}
	s := start(t, args...)
	w := &writer{Rand: rand.New(rand.NewPCG(seed, 1)), base: s.url, name: "a", acknowledged: map[int64]string{}, kinds: map[string]int{}}
	many := &writer{Rand: rand.New(rand.NewPCG(seed, 2)), base: s.url, name: "b", acknowledged: map[int64]string{}, kinds: map[string]int{}}
	var working sync.WaitGroup
	for hand, step := range map[*writer]func(){w: w.step, many: many.stepMany} {
		working.Go(func() {
			for !hand.stop.Load() {
				step()
			}
		})
	}
	for range kills {
		time.Sleep(50 * time.Millisecond)
		tell(2 * time.Minute) // the copy is made a minute after the start
		time.Sleep(time.Duration(r.IntN(400)) * time.Millisecond)
		s.kill()
		tell(24 * time.Hour)
		s = start(t, args...)
	}
	w.stop.Store(true)
	many.stop.Store(true)
	working.Wait()
	tell(2 * time.Minute)
	last := filepath.Join(store.CopyFolder(db), now.Format(time.DateOnly)+".db")
	until(t, "the copy of the last day", func() bool { _, err := os.Stat(last); return err == nil })
	s.stop(t)
	copies, err := os.ReadDir(store.CopyFolder(db))
	if err != nil {
		t.Fatal(err)
	}
	whole := 0
	for _, c := range copies {
		switch name := c.Name(); {
		case strings.HasSuffix(name, ".db"):
			if _, err := store.Check(t.Context(), filepath.Join(store.CopyFolder(db), name)); err != nil {
				t.Error(err)
			}
			whole++
		case !strings.HasSuffix(name, ".db-files"):
			t.Errorf("%s is left of a copy that was killed", name)
		}
	}
	lost := 0
	undoAll(t, db)
	there := historyOf(t, db)
	for _, hand := range []*writer{w, many} {
		for revision, says := range hand.acknowledged {
			if there[revision] != says {
				t.Errorf("change %d, %q, was acknowledged; there is %q", revision, says, there[revision])
				lost++
			}
		}
	}
	t.Logf("%d kills: %d whole copies are kept; %d changes acknowledged, %d lost", kills, whole, len(w.acknowledged)+len(many.acknowledged), lost)
}

// What stands in the place of the data file and cannot be opened is answered with the newest good
// copy, and that goes in by what the answer says.
func TestTheNewestCopyIsNamed(t *testing.T) {
	folder := t.TempDir()
	db, clock := filepath.Join(folder, "book.db"), filepath.Join(folder, "clock")
	if err := os.WriteFile(clock, []byte("2026-11-24T09:10:00Z"), 0o600); err != nil {
		t.Fatal(err)
	}
	args := []string{"serve", "--db", db, "--addr", freeAddress(t), "--clock-file", clock, "--zone", "UTC"}
	s := start(t, args...)
	hand := &writer{Rand: rand.New(rand.NewPCG(1, 1)), base: s.url, name: "hand", acknowledged: map[int64]string{}, kinds: map[string]int{}}
	hand.send("capture", "/api/todos", `{"title":"Count the lamps"}`)
	if err := errors.Join(os.WriteFile(clock+".next", []byte("2026-11-24T09:12:00Z"), 0o600), os.Rename(clock+".next", clock)); err != nil {
		t.Fatal(err)
	}
	copied := filepath.Join(store.CopyFolder(db), "2026-11-24.db")
	until(t, "the copy of the day", func() bool { _, err := os.Stat(copied); return err == nil })
	s.stop(t)
	if err := os.WriteFile(db, []byte("this is no data file"), 0o600); err != nil {
		t.Fatal(err)
	}
	status, _, says := tincup(t, args...)
	if want := "The newest good copy is of Tue 24 Nov 2026 and has 1 to-do. To put it in place: tincup restore"; status == 0 || !strings.Contains(says, want) {
		t.Errorf("status %d, %s; want %s", status, says, want)
	}
	if status, out, says := tincup(t, "restore", copied, "--db", db); status != 0 || !strings.Contains(out, "What was there is kept as "+db+".before-restore") {
		t.Fatalf("status %d, %s%s", status, out, says)
	}
	s = start(t, args...)
	if status, _, says := tincup(t, "restore", copied, "--db", db); status == 0 || !strings.Contains(says, "stop that one first") {
		t.Errorf("restored under a server: %d, %s", status, says)
	}
	s.stop(t)
}
