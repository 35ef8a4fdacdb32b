package store_test

import (
	"context"
	"encoding/json"
	"flag"
	"fmt"
	"math/rand/v2"
	"path/filepath"
	"slices"
	"strings"
	"testing"
	"time"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/repeat"
	"tincup/internal/store"
)

var (
	seedFlag  = flag.Uint64("seed", 0, "seed of the random sequences; 0 takes one from the clock")
	sequences = flag.Int("sequences", 1000, "how many random sequences")
)

// step is one random choice. What it means depends on the Book it meets, so
// that a sequence stays meaningful when steps are left out of it.
type step struct {
	kind    string
	a, b, c uint32
}

var kinds = []string{"capture", "edit", "complete", "reopen", "cancel", "delete", "restore", "move", "plan", "tag",
	"add-list", "add-shelf", "subtask", "tree", "change-rule", "skip", "pause", "resume", "end-repeat", "move-repeat",
	"remind", "add-person", "involve", "undo", "redo"}

// choices holds each kind as often as it takes for all to be met.
var choices = func() []string {
	var all []string
	for _, kind := range kinds {
		n := map[string]int{"skip": 6, "pause": 10, "resume": 16, "end-repeat": 4, "move-repeat": 5,
			"complete": 4, "move": 6, "tag": 6, "restore": 5, "involve": 5}[kind]
		for range max(n, 3) {
			all = append(all, kind)
		}
	}
	return all
}()

const accepted = 50 // commands a sequence holds at least

// run is a Book that remembers how to go back.
type run struct {
	book       *book.Book
	notes      book.MemoryNotes
	now        time.Time
	ids        uint32
	undo, redo []*book.Change
	changes    []*book.Change // all, in order, for the file
	counts     map[string]int
}

func newRun() *run {
	r := &run{notes: book.MemoryNotes{}, now: time.Date(2026, 11, 24, 9, 0, 0, 0, time.UTC), counts: map[string]int{}}
	r.book = book.New(r.notes)
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
		change, refused := r.book.Do(r.env(), cmd)
		if refused != nil || change.Empty() {
			return false, nil // names that are taken, to-dos in the bin
		}
		r.keep(change)
		r.undo, r.redo = append(r.undo, change), nil
	}
	if err == nil {
		r.counts[s.kind]++
	}
	return err == nil, err
}

func (r *run) turn(from, to *[]*book.Change, kind book.Kind) error {
	last := (*from)[len(*from)-1]
	change, err := r.book.Invert(r.env(), last, kind)
	if err != nil {
		return fmt.Errorf("%s of %q: %w", kind, last.Says, err)
	}
	r.keep(change)
	*from = (*from)[:len(*from)-1]
	*to = append(*to, change)
	return nil
}

func (r *run) keep(c *book.Change) {
	r.book.Apply(c)
	r.changes = append(r.changes, c)
}

func (r *run) command(s step) book.Command {
	todos := slices.Concat(r.book.Open(), r.book.Paused(), r.book.Closed(), r.book.Kept(), r.book.Bin())
	slices.SortFunc(todos, func(a, b *book.Todo) int { return strings.Compare(a.ID.String(), b.ID.String()) })
	lists := r.book.Lists()
	slices.SortFunc(lists, func(a, b *book.List) int { return strings.Compare(a.ID.String(), b.ID.String()) })
	list := book.ID{}
	if n := int(s.b) % (len(lists) + 1); n < len(lists) {
		list = lists[n].ID
	}
	today := day.DateOf(r.now)
	due := day.Moment{Date: today.AddDays(int(s.c%40) - 10)}
	tag := fmt.Sprintf("tag%d", s.c%6)
	switch s.kind {
	case "capture":
		c := book.Capture{Title: fmt.Sprintf("t%d", s.a%1000), List: list, Priority: book.Priority(s.a % 4), Due: due}
		if s.a%3 == 0 {
			c.Notes, c.Tags = fmt.Sprintf("n%d", s.b), []string{tag}
		}
		if s.b%2 == 0 {
			c.Repeat = &repeat.Repeat{Rule: repeat.MustParse("FREQ=DAILY;INTERVAL=3"), First: due.Date}
		}
		return c
	case "tree":
		return book.CaptureTree{Items: []book.TreeItem{
			{Capture: book.Capture{Title: "tree", List: list, Done: s.a%5 == 0}, Under: -1},
			{Capture: book.Capture{Title: "branch", Estimate: int(s.b % 90), Done: s.a%3 == 0}, Under: 0},
			{Capture: book.Capture{Title: "leaf", Notes: fmt.Sprintf("n%d", s.c), Done: s.b%3 == 0}, Under: 1},
		}}
	case "add-person":
		return book.AddPerson{Name: fmt.Sprintf("person%d", s.a%2000), Email: "p@harbour.example"}
	case "add-list":
		return book.AddList{Name: fmt.Sprintf("list%d", s.a%2000)}
	case "add-shelf":
		return book.AddShelf{Name: fmt.Sprintf("shelf%d", s.a%2000)}
	}
	// What acts on closed or binned to-dos looks among those first.
	var repeating []*book.Todo
	for _, t := range r.book.Open() {
		if t.Repeat != nil {
			repeating = append(repeating, t)
		}
	}
	if pool := map[string][]*book.Todo{"reopen": r.book.Closed(), "restore": r.book.Bin(), "skip": repeating, "pause": repeating,
		"resume": r.book.Paused(), "end-repeat": slices.Concat(repeating, r.book.Paused()), "move-repeat": repeating}[s.kind]; len(pool) > 0 {
		todos = slices.Clone(pool)
		slices.SortFunc(todos, func(a, b *book.Todo) int { return strings.Compare(a.ID.String(), b.ID.String()) })
	}
	if len(todos) == 0 {
		return nil
	}
	id := todos[int(s.a)%len(todos)].ID
	switch s.kind {
	case "edit":
		e := book.Edit{ID: id}
		title, notes, start := fmt.Sprintf("e%d", s.b%1000), strings.Repeat("x", int(s.c%4)), due.Date.AddDays(-3)
		switch s.b % 5 {
		case 0:
			e.Title = &title
		case 1:
			e.Notes = &notes
		case 2:
			e.Due = &due
		case 3:
			e.Start, e.Due = &start, &due
		case 4:
			e.List, e.Priority = &list, new(book.Priority)
		}
		return e
	case "complete":
		return book.Complete{ID: id}
	case "reopen":
		return book.Reopen{ID: id}
	case "cancel":
		return book.Cancel{ID: id}
	case "delete":
		return book.Delete{ID: id}
	case "restore":
		return book.Restore{ID: id}
	case "move":
		return book.MoveToList{ID: id, List: list}
	case "plan":
		return book.PlanFor{ID: id, Plan: []day.Horizon{{}, day.OnDay(due.Date), day.InWeek(due.Date), day.SomeTime()}[s.b%4]}
	case "subtask":
		return book.Capture{Title: fmt.Sprintf("s%d", s.b%1000), Parent: id, Due: due}
	case "change-rule":
		rules := []string{"FREQ=DAILY;INTERVAL=2", "FREQ=WEEKLY;BYDAY=MO,TH", "FREQ=MONTHLY;BYMONTHDAY=31", "FREQ=DAILY;COUNT=3"}
		return book.ChangeRule{ID: id, Rule: repeat.MustParse(rules[s.b%4]), Lead: int(s.c % 3), Anchor: repeat.Anchor(s.c % 6 / 5 * (1 - s.b%4%2))}
	case "skip":
		return book.Skip{ID: id}
	case "pause":
		return book.Pause{ID: id}
	case "resume":
		return book.Resume{ID: id}
	case "end-repeat":
		return book.EndRepeat{ID: id}
	case "move-repeat":
		return book.MoveRepeat{ID: id, To: due.Date.AddDays(20)}
	case "remind":
		return book.Remind{ID: id, Add: []day.Reminder{day.ReminderBefore(int(s.b % 100))}, Remove: []day.Reminder{day.ReminderBefore(int(s.c % 10))}}
	case "involve":
		people := r.book.People()
		slices.SortFunc(people, func(a, b *book.Person) int { return strings.Compare(a.ID.String(), b.ID.String()) })
		if len(people) == 0 {
			return nil
		}
		return book.Edit{ID: id, Person: &book.Involved{ID: people[int(s.b)%len(people)].ID, Role: book.Role(s.c % 4)}}
	case "tag":
		return book.Tagging{ID: id, Add: []string{tag}[:s.b%2], Remove: []string{fmt.Sprintf("tag%d", s.b%6)}}
	}
	return nil
}

// check plays the steps, goes back to the start and on to the end again, and
// compares the Book in memory and, with a file, the one read back.
func check(steps []step, path string) (*run, error) {
	r := newRun()
	first := dump(r.book)
	for _, s := range steps {
		if _, err := r.take(s); err != nil {
			return r, err
		}
	}
	last := dump(r.book)
	if err := sound(r.book); err != nil {
		return r, err
	}
	// The point from which everything can be undone again and redone.
	pending := len(r.redo)
	for len(r.undo) > 0 {
		if err := r.turn(&r.undo, &r.redo, book.Undo); err != nil {
			return r, err
		}
	}
	if got := dump(r.book); got != first {
		return r, fmt.Errorf("undone to the start, memory has\n%s\nwant\n%s", got, first)
	}
	middle := len(r.changes)
	for len(r.redo) > pending {
		if err := r.turn(&r.redo, &r.undo, book.Redo); err != nil {
			return r, err
		}
	}
	if got := dump(r.book); got != last {
		return r, fmt.Errorf("redone to the end, memory has\n%s\nwant\n%s", got, last)
	}
	if path == "" {
		return r, nil
	}
	if err := reload(path, r.changes[:middle], first); err != nil {
		return r, fmt.Errorf("undone to the start, the file: %w", err)
	}
	return r, checkEnd(path, r.changes[middle:], last)
}

func checkEnd(path string, changes []*book.Change, want string) error {
	if err := reload(path, changes, want); err != nil {
		return fmt.Errorf("redone to the end, the file: %w", err)
	}
	return nil
}

// reload writes changes, as they come back from JSON, and reads the file anew.
func reload(path string, changes []*book.Change, want string) (err error) {
	ctx := context.Background()
	s, err := store.Open(ctx, path)
	if err != nil {
		return err
	}
	defer func() {
		if closing := s.Close(); err == nil {
			err = closing
		}
	}()
	var entries []store.Entry
	for _, c := range changes {
		packed, err := json.Marshal(c)
		if err != nil {
			return err
		}
		again := &book.Change{}
		if err := json.Unmarshal(packed, again); err != nil {
			return err
		}
		entries = append(entries, store.Entry{Change: again, Window: "w"})
	}
	if err := s.Save(ctx, entries...); err != nil {
		return err
	}
	b, err := s.Load(ctx)
	if err != nil {
		return err
	}
	if got := dump(b); got != want {
		return fmt.Errorf("has\n%s\nwant\n%s", got, want)
	}
	return nil
}

// sound checks what holds of every tree: a subtask's parent is there, in the
// same list, in the bin only with it, and open while it is open.
func sound(b *book.Book) error {
	for _, t := range slices.Concat(b.Open(), b.Paused(), b.Closed(), b.Kept(), b.Bin()) {
		if t.Parent.IsZero() {
			continue
		}
		parent, err := b.Todo(t.Parent)
		if err != nil || parent.List != t.List || t.Deleted.IsZero() && !parent.Deleted.IsZero() || t.Open() && !parent.Open() {
			return fmt.Errorf("%+v stands under %+v (%v)", t, parent, err)
		}
	}
	return nil
}

// dump writes all of a Book but revisions.
func dump(b *book.Book) string {
	var lines []string
	for _, t := range slices.Concat(b.Open(), b.Paused(), b.Closed(), b.Kept(), b.Bin()) {
		row := *t
		row.Revision = 0
		packed, _ := json.Marshal(row.Repeat)
		row.Repeat = nil
		if len(row.Reminders) == 0 {
			row.Reminders = nil
		}
		if len(row.Tags) == 0 {
			row.Tags = nil
		}
		note, err := b.Note(t)
		lines = append(lines, fmt.Sprintf("%+v repeat %s notes %q %v", row, packed, note, err))
	}
	for _, l := range b.Lists() {
		lines = append(lines, fmt.Sprintf("list %v %q %v %v %v", l.ID, l.Name, l.Shelf, l.Colour, l.Position))
	}
	for _, s := range b.Shelves() {
		lines = append(lines, fmt.Sprintf("shelf %v %q %v", s.ID, s.Name, s.Position))
	}
	for _, p := range b.People() {
		lines = append(lines, fmt.Sprintf("person %v %q %q %q", p.ID, p.Name, p.Email, p.Phone))
	}
	for _, t := range b.Tags() {
		lines = append(lines, fmt.Sprintf("tag %v %q %v", t.ID, t.Name, t.Colour))
	}
	slices.Sort(lines)
	return strings.Join(lines, "\n")
}

// generate makes a sequence with enough accepted commands.
func generate(r *rand.Rand) []step {
	probe := newRun()
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

func TestUndoToTheStartAndRedoToTheEnd(t *testing.T) {
	seed := *seedFlag
	if seed == 0 {
		seed = uint64(time.Now().UnixNano())
	}
	t.Logf("seed %d", seed)
	total := map[string]int{}
	sum := 0
	folder := t.TempDir()
	for i := range *sequences {
		steps := generate(rand.New(rand.NewPCG(seed, uint64(i))))
		r, err := check(steps, filepath.Join(folder, fmt.Sprintf("%d.db", i)))
		if err != nil {
			n := 0
			small := shrink(steps, func(s []step) bool {
				n++
				_, err := check(s, filepath.Join(folder, fmt.Sprintf("shrink-%d.db", n)))
				return err != nil
			})
			_, err = check(small, filepath.Join(folder, "smallest.db"))
			t.Fatalf("seed %d, sequence %d, shrunk from %d to %d steps:\n%v\n%v", seed, i, len(steps), len(small), small, err)
		}
		for kind, n := range r.counts {
			total[kind] += n
			sum += n
		}
	}
	for _, kind := range kinds {
		if share := 100 * float64(total[kind]) / float64(sum); share < 2 {
			t.Errorf("only %.1f %% of the accepted commands are %s", share, kind)
		}
	}
	t.Logf("%d sequences, %d accepted commands: %v", *sequences, sum, total)
}
