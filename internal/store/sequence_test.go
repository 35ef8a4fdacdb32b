package store_test

import (
	"context"
	"encoding/json"
	"flag"
	"fmt"
	"maps"
	"math/rand/v2"
	"path/filepath"
	"reflect"
	"slices"
	"strings"
	"testing"
	"time"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/view"
	"tincup/internal/seed"
	"tincup/internal/store"
)

var sequences = flag.Float64("sequences", 0.1, "share of the random sequences of a full run")

// step is one random choice. What it means depends on the Book it meets, so
// that a sequence stays meaningful when steps are left out of it.
type step struct {
	kind    string
	a, b, c uint32
}

const accepted = 50 // commands a sequence holds at least

// run is a Book that remembers how to go back.
type run struct {
	book       *book.Book
	desk       *book.Desk
	notes      book.MemoryNotes
	now        time.Time
	ids        uint32
	undo, redo []*book.Change
	tally      *view.Tally    // of the desk, kept
	changes    []*book.Change // all, in order, for the file
	counts     map[string]int
}

func newRun(account book.ID) *run {
	r := &run{notes: book.MemoryNotes{}, now: time.Date(2026, 11, 24, 9, 0, 0, 0, time.UTC), counts: map[string]int{}}
	r.book = book.New(r.notes, account)
	r.desk, _ = r.book.Desk(account)
	return r
}

func (r *run) env() book.Env {
	return book.Env{Clock: day.Clock{Now: r.now, Zone: time.UTC}, NewID: func() book.ID {
		r.ids++
		return book.ID{0: 1, 12: byte(r.ids >> 24), 13: byte(r.ids >> 16), 14: byte(r.ids >> 8), 15: byte(r.ids)}
	}}
}

// take carries a step out; it reports whether the Book changed.
func (r *run) take(s step) (bool, error) {
	r.now = r.now.Add(time.Minute)
	var err error
	switch s.kind {
	case "undo":
		if len(r.undo) == 0 {
			return false, nil
		}
		err = r.turn(&r.undo, &r.redo, book.Undo)
	case "redo":
		if len(r.redo) == 0 {
			return false, nil
		}
		err = r.turn(&r.redo, &r.undo, book.Redo)
	default:
		cmd := r.command(s)
		if cmd == nil {
			return false, nil
		}
		change, refused := r.desk.Do(r.env(), cmd)
		if refused != nil || change.Empty() {
			return false, nil // names that are taken, to-dos in the bin
		}
		r.keep(change)
		r.undo, r.redo = append(r.undo, change.Slim()), nil
	}
	if err == nil {
		r.counts[s.kind]++
	}
	return err == nil, err
}

// counted compares the counts that are kept with a full count.
func (r *run) counted() error {
	clock := r.env().Clock
	if r.tally == nil {
		r.tally = view.NewTally(r.desk, clock)
	}
	kept, full := r.tally.Survey(r.desk, clock), view.Take(r.desk, clock)
	kept.Complete(r.desk, clock)
	if !reflect.DeepEqual(kept, full) {
		return fmt.Errorf("the counts that are kept are\n%+v\nwant\n%+v", *kept, *full)
	}
	for _, v := range r.desk.Views() {
		d, err := view.Own{ID: v.ID}.Definition(r.desk)
		if err != nil {
			return err
		}
		held, err := d.Holds(r.desk, clock)
		if n, counted := kept.Views[v.ID]; err != nil || counted != v.Counted || counted && n != len(held) {
			return fmt.Errorf("the view %s is counted as %d (%t); it holds %d, %v", v.Question, n, counted, len(held), err)
		}
	}
	return nil
}

func (r *run) turn(from, to *[]*book.Change, kind book.Kind) error {
	last := (*from)[len(*from)-1]
	change, err := r.desk.Invert(r.env(), last, kind)
	if err != nil {
		return fmt.Errorf("%s of %q: %w", kind, last.Says, err)
	}
	r.keep(change)
	*from = (*from)[:len(*from)-1]
	*to = append(*to, change.Slim())
	return nil
}

func (r *run) keep(c *book.Change) {
	r.book.Apply(c)
	if r.tally != nil {
		r.tally.Follow(r.desk, c)
	}
	r.changes = append(r.changes, c)
}

// check plays the steps, goes back to the start, on to the end and back again,
// and compares the Book in memory and in the file, which is empty before and
// after.
func check(steps []step, file *store.Store) (*run, error) {
	empty, err := loadDesk(context.Background(), file)
	if err != nil {
		return nil, err
	}
	r := newRun(empty.Account())
	r.book.Load(empty.Revision())
	first := dump(r.desk)
	if got := dump(empty); got != first {
		return r, fmt.Errorf("the file is not empty:\n%s", got)
	}
	for _, s := range steps {
		if _, err := r.take(s); err != nil {
			return r, err
		}
		if err := r.counted(); err != nil {
			return r, err
		}
		if err := sound(r.desk, r.now); err != nil {
			return r, err
		}
	}
	last := dump(r.desk)
	// The point from which everything can be undone again and redone.
	pending := len(r.redo)
	for _, part := range []struct {
		name     string
		kind     book.Kind
		from, to *[]*book.Change
		rest     int
		want     string
	}{
		{"undone to the start", book.Undo, &r.undo, &r.redo, 0, first},
		{"redone to the end", book.Redo, &r.redo, &r.undo, pending, last},
		{"undone again", book.Undo, &r.undo, &r.redo, 0, first},
	} {
		for len(*part.from) > part.rest {
			if err := r.turn(part.from, part.to, part.kind); err != nil {
				return r, err
			}
		}
		if got := dump(r.desk); got != part.want {
			return r, fmt.Errorf("%s, memory has\n%s\nwant\n%s", part.name, got, part.want)
		}
		if err := save(file, r.changes, part.want); err != nil {
			return r, fmt.Errorf("%s, the file: %w", part.name, err)
		}
		r.changes = nil
	}
	return r, nil
}

// save writes changes, as they come back from JSON, and reads the file.
func save(file *store.Store, changes []*book.Change, want string) error {
	var entries []store.Entry
	for _, c := range changes {
		packed, err := c.Pack()
		if err != nil {
			return err
		}
		again := &book.Change{}
		if err := json.Unmarshal(packed, again); err != nil {
			return err
		}
		again.By(c.Actor)
		entries = append(entries, store.Entry{Change: again, Window: "w"})
	}
	if err := file.Save(context.Background(), entries...); err != nil {
		return err
	}
	b, err := loadDesk(context.Background(), file)
	if err != nil {
		return err
	}
	if got := dump(b); got != want {
		return fmt.Errorf("has\n%s\nwant\n%s", got, want)
	}
	return file.CheckIndex(context.Background())
}

// sound says what is wrong with a Book, if anything is.
func sound(b *book.Desk, now time.Time) error {
	if faults := b.Faults(day.DateOf(now)); len(faults) > 0 {
		return fmt.Errorf("%d faults, one of them: %s", len(faults), faults[0].Says)
	}
	return nil
}

// dump writes all of a Book but revisions.
func dump(b *book.Desk) string {
	var lines []string
	for t := range b.All() {
		row := *t
		row.Revision = 0
		packed, _ := json.Marshal(row.Repeat)
		row.Repeat = nil
		if len(row.Reminders) == 0 {
			row.Reminders = nil
		}
		if len(row.Attachments) == 0 {
			row.Attachments = nil
		}
		if len(row.Tags) == 0 {
			row.Tags = nil
		}
		note, err := b.Note(t)
		lines = append(lines, fmt.Sprintf("%+v repeat %s notes %q %v", row, packed, note, err))
	}
	for _, l := range b.Lists() {
		row := *l
		row.Revision = 0
		lines = append(lines, fmt.Sprintf("list %+v", row))
		for _, section := range b.Sections(l.ID) {
			row := *section
			row.Revision = 0
			lines = append(lines, fmt.Sprintf("section %+v", row))
		}
	}
	for _, s := range b.Shelves() {
		row := *s
		row.Revision = 0
		lines = append(lines, fmt.Sprintf("shelf %+v", row))
	}
	for _, v := range b.Views() {
		row := *v
		row.Revision = 0
		lines = append(lines, fmt.Sprintf("view %+v", row))
	}
	for _, c := range b.Calendars() {
		row := *c
		row.Revision = 0
		lines = append(lines, fmt.Sprintf("calendar %+v", row))
	}
	for _, p := range b.Places() {
		row := *p
		row.Revision = 0
		lines = append(lines, fmt.Sprintf("place %+v", row))
	}
	for _, p := range b.People() {
		row := *p
		row.Revision = 0
		lines = append(lines, fmt.Sprintf("person %+v", row))
	}
	chosen, ever := b.Settings()
	lines = append(lines, fmt.Sprintf("settings %+v %v", chosen, ever))
	for _, t := range b.Tags() {
		lines = append(lines, fmt.Sprintf("tag %v %q %v", t.ID, t.Name, t.Colour))
	}
	slices.Sort(lines)
	return strings.Join(lines, "\n")
}

// generate makes a sequence with enough accepted commands.
func generate(r *rand.Rand, choices []string) []step {
	probe := newRun(book.ID{15: 1})
	var steps []step
	for n := 0; n < accepted; {
		s := step{choices[r.IntN(len(choices))], r.Uint32(), r.Uint32(), r.Uint32()}
		if len(probe.redo) > 0 && r.IntN(3) == 0 {
			s.kind = "redo" // any other command would take the chance away
		}
		steps = append(steps, s)
		ok, err := probe.take(s)
		if err != nil {
			break // check will meet it again and report it
		}
		if ok {
			n++
		}
	}
	return steps
}

// shrink leaves out steps for as long as the sequence still fails.
func shrink(steps []step, fails func([]step) bool) []step {
	for size := len(steps) / 2; size > 0; size /= 2 {
		for at := 0; at+size <= len(steps); {
			if shorter := slices.Concat(steps[:at], steps[at+size:]); fails(shorter) {
				steps = shorter
			} else {
				at += size
			}
		}
	}
	return steps
}

// runSequences checks random sequences of some kinds of commands, each at least
// a fiftieth of those accepted. A failing one is shrunk and printed.
func runSequences(t *testing.T, number int, weights map[string]int) {
	seed := seed.New(t)
	var choices []string // each kind as often as it takes for all to be met
	for _, kind := range slices.Sorted(maps.Keys(weights)) {
		choices = append(choices, slices.Repeat([]string{kind}, weights[kind])...)
	}
	total := map[string]int{}
	sum := 0
	file := openFile(t)
	for i := range number {
		steps := generate(rand.New(rand.NewPCG(seed, uint64(i))), choices)
		r, err := check(steps, file)
		if err != nil {
			small := shrink(steps, func(s []step) bool {
				_, err := check(s, openFile(t))
				return err != nil
			})
			_, err = check(small, openFile(t))
			t.Fatalf("seed %d, sequence %d, shrunk from %d to %d steps:\n%v\n%v", seed, i, len(steps), len(small), small, err)
		}
		for kind, n := range r.counts {
			total[kind] += n
			sum += n
		}
	}
	for kind := range weights {
		if share := 100 * float64(total[kind]) / float64(sum); share < 2 && *sequences >= 1 || share == 0 {
			t.Errorf("only %.1f %% of the accepted commands are %s", share, kind)
		}
	}
	t.Logf("%d sequences, %d accepted commands: %v", number, sum, total)
}

func openFile(t *testing.T) *store.Store {
	s, err := store.Open(context.Background(), filepath.Join(t.TempDir(), "t.db"))
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() {
		if err := s.Close(); err != nil {
			t.Error(err)
		}
	})
	return s
}
