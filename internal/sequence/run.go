// Package sequence makes random sequences of commands, for the tests of the packages that hold a
// Book. Only tests import it.
package sequence

import (
	"fmt"
	"math/rand/v2"
	"slices"
	"time"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
)

// Step is one random choice. What it means depends on the Book it meets, so
// that a sequence stays meaningful when steps are left out of it.
type Step struct {
	Kind    string
	A, B, C uint32
}

// NextStep chooses a step of one of some kinds.
func NextStep(r *rand.Rand, kinds []string) Step {
	return Step{kinds[r.IntN(len(kinds))], r.Uint32(), r.Uint32(), r.Uint32()}
}

// Run is a Book that steps are carried out on, and that remembers how to go back.
type Run struct {
	Book  *book.Book
	Desk  *book.Desk
	Notes book.MemoryNotes
	// Now is when the next step is taken, less a minute; IDs counts those that were given.
	Now time.Time
	IDs uint32
	// Undo and Redo are the changes that can be turned round, the next one last.
	Undo, Redo []*book.Change
	// Changes are all that were applied, in their order.
	Changes []*book.Change
	// Counts says how many steps of each kind changed something.
	Counts map[string]int
	// Applied, if set, is told of each change that was applied.
	Applied func(*book.Change)
}

// New is a Run at the desk of an account's empty Book.
func New(account book.ID) *Run {
	r := &Run{Notes: book.MemoryNotes{}, Now: time.Date(2026, 11, 24, 9, 0, 0, 0, time.UTC), Counts: map[string]int{}}
	r.Book = book.New(r.Notes, account)
	r.Desk, _ = r.Book.Desk(account)
	return r
}

// Env is the surroundings of the next command.
func (r *Run) Env() book.Env {
	return book.Env{Clock: day.Clock{Now: r.Now, Zone: time.UTC}, NewID: func() book.ID {
		r.IDs++
		return book.ID{0: 1, 12: byte(r.IDs >> 24), 13: byte(r.IDs >> 16), 14: byte(r.IDs >> 8), 15: byte(r.IDs)}
	}}
}

// Take carries a step out; it reports whether the Book changed. A command that is refused changes
// nothing and is no error; an undo or a redo that is refused is one.
func (r *Run) Take(s Step) (bool, error) {
	r.Now = r.Now.Add(time.Minute)
	var err error
	switch s.Kind {
	case "undo":
		if len(r.Undo) == 0 {
			return false, nil
		}
		err = r.Turn(&r.Undo, &r.Redo, book.Undo)
	case "redo":
		if len(r.Redo) == 0 {
			return false, nil
		}
		err = r.Turn(&r.Redo, &r.Undo, book.Redo)
	default:
		cmd := r.Command(s)
		if cmd == nil {
			return false, nil
		}
		change, refused := r.Desk.Do(r.Env(), cmd)
		if refused != nil || change.Empty() {
			return false, nil // names that are taken, to-dos in the bin
		}
		r.Keep(change)
		r.Undo, r.Redo = append(r.Undo, change.Slim()), nil
	}
	if err == nil {
		r.Counts[s.Kind]++
	}
	return err == nil, err
}

// Turn turns the last of some changes round, which is then the last of others.
func (r *Run) Turn(from, to *[]*book.Change, kind book.Kind) error {
	last := (*from)[len(*from)-1]
	change, err := r.Desk.Invert(r.Env(), last, kind)
	if err != nil {
		return fmt.Errorf("%s of %q: %w", kind, last.Says, err)
	}
	r.Keep(change)
	*from = (*from)[:len(*from)-1]
	*to = append(*to, change.Slim())
	return nil
}

// Keep applies a change.
func (r *Run) Keep(c *book.Change) {
	r.Book.Apply(c)
	if r.Applied != nil {
		r.Applied(c)
	}
	r.Changes = append(r.Changes, c)
}

// ThereAndBack undoes all to the start, redoes to where everything was, and undoes again. After
// each it calls look with what the desk is to be then, as Dump writes it, unless it is not that.
// start is what the desk was before the first step.
func (r *Run) ThereAndBack(start string, look func(when, want string) error) error {
	end, pending := Dump(r.Desk), len(r.Redo)
	for _, part := range []struct {
		when     string
		kind     book.Kind
		from, to *[]*book.Change
		rest     int
		want     string
	}{
		{"undone to the start", book.Undo, &r.Undo, &r.Redo, 0, start},
		{"redone to the end", book.Redo, &r.Redo, &r.Undo, pending, end},
		{"undone again", book.Undo, &r.Undo, &r.Redo, 0, start},
	} {
		for len(*part.from) > part.rest {
			if err := r.Turn(part.from, part.to, part.kind); err != nil {
				return err
			}
		}
		if got := Dump(r.Desk); got != part.want {
			return fmt.Errorf("%s there is\n%s\nwant\n%s", part.when, got, part.want)
		}
		if err := look(part.when, part.want); err != nil {
			return fmt.Errorf("%s: %w", part.when, err)
		}
	}
	return nil
}

// Sound says what is wrong with the desk, if anything is.
func (r *Run) Sound() error { return Sound(r.Desk, r.Now) }

// accepted is how many steps of a sequence change something, at least.
const accepted = 50

// Generate makes a sequence of some kinds of steps.
func Generate(r *rand.Rand, kinds []string) []Step {
	probe := New(book.ID{15: 1})
	var steps []Step
	for n := 0; n < accepted; {
		s := NextStep(r, kinds)
		if len(probe.Redo) > 0 && r.IntN(3) == 0 {
			s.Kind = "redo" // any other command would take the chance away
		}
		steps = append(steps, s)
		ok, err := probe.Take(s)
		if err != nil {
			break // who plays it will meet it again and report it
		}
		if ok {
			n++
		}
	}
	return steps
}

// Shrink leaves out steps for as long as the sequence still fails.
func Shrink(steps []Step, fails func([]Step) bool) []Step {
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
