package book_test

import (
	"fmt"
	"math/rand/v2"
	"slices"
	"testing"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/seed"
	"tincup/internal/sequence"
)

// harms are ways in which rows come to contradict each other.
var harms = map[string]func(r *rand.Rand, rows *book.Change){
	"a position twice": func(r *rand.Rand, rows *book.Change) {
		rows.Todos[r.IntN(len(rows.Todos))].After.Position = rows.Todos[r.IntN(len(rows.Todos))].After.Position
	},
	"a list that is not there": func(r *rand.Rand, rows *book.Change) {
		rows.Todos[r.IntN(len(rows.Todos))].After.List = book.ID{9}
	},
	"a section that is not there": func(r *rand.Rand, rows *book.Change) {
		rows.Todos[r.IntN(len(rows.Todos))].After.Section = book.ID{9}
	},
	"a parent that is not there": func(r *rand.Rand, rows *book.Change) {
		rows.Todos[r.IntN(len(rows.Todos))].After.Parent = book.ID{9}
	},
	"under itself": func(r *rand.Rand, rows *book.Change) {
		t := rows.Todos[r.IntN(len(rows.Todos))].After
		t.Parent = t.ID
	},
	"a ring": func(r *rand.Rand, rows *book.Change) {
		a, b := rows.Todos[r.IntN(len(rows.Todos))].After, rows.Todos[r.IntN(len(rows.Todos))].After
		a.Parent, b.Parent = b.ID, a.ID
	},
	"a tag that is not there": func(r *rand.Rand, rows *book.Change) {
		t := rows.Todos[r.IntN(len(rows.Todos))].After
		t.Tags = append(slices.Clone(t.Tags), book.ID{9})
	},
	"a tag twice": func(r *rand.Rand, rows *book.Change) {
		t := rows.Todos[r.IntN(len(rows.Todos))].After
		t.Tags = append(slices.Clone(t.Tags), t.Tags...)
	},
	"a person that is not there": func(r *rand.Rand, rows *book.Change) {
		rows.Todos[r.IntN(len(rows.Todos))].After.Person = book.Involved{ID: book.ID{9}, Role: book.Ask, Since: day.MustDate("2026-11-24")}
	},
	"a place that is no row": func(r *rand.Rand, rows *book.Change) {
		rows.Todos[r.IntN(len(rows.Todos))].After.Place = "Nowhere"
	},
	"a shelf that is not there": func(r *rand.Rand, rows *book.Change) {
		if len(rows.Lists) > 0 {
			rows.Lists[r.IntN(len(rows.Lists))].After.Shelf = book.ID{9}
		}
	},
	"a section of no list": func(r *rand.Rand, rows *book.Change) {
		if len(rows.Sections) > 0 {
			rows.Sections[r.IntN(len(rows.Sections))].After.List = book.ID{9}
		}
	},
}

// Whatever is twice or lost is mended, and what is sound stays as it is.
func TestMendOfAnything(t *testing.T) {
	random := seed.New(t)
	kinds := sequence.Choices(sequence.AllKinds)
	kinds = append(kinds, sequence.Choices(sequence.Places)...)
	found := map[string]int{}
	for i := range int(1500 * *sequences) {
		r := rand.New(rand.NewPCG(random, uint64(i)))
		run := sequence.New(book.ID{15: 1})
		for _, s := range sequence.Generate(r, kinds) {
			if _, err := run.Take(s); err != nil {
				break
			}
		}
		if run.Desk.Len() == 0 {
			continue
		}
		for name, harm := range harms {
			rows, err := run.Desk.Whole()
			if err != nil {
				t.Fatal(err)
			}
			own(rows.Todos)
			own(rows.Lists)
			own(rows.Sections)
			harm(r, rows)
			b, desk := harmed(t, rows, run)
			before, harmed := wrong(desk), sequence.Dump(desk)
			if len(before) > 0 {
				found[name]++
			}
			c, err := desk.Do(run.Env(), book.Mend{})
			if err != nil {
				t.Fatalf("seed %d, %d, %s: %v", random, i, name, err)
			}
			if !c.Empty() {
				b.Apply(c)
			}
			if after := wrong(desk); len(after) > 0 {
				t.Fatalf("seed %d, %d, %s: mended, it is still so: %v; before %v", random, i, name, after, before)
			}
			if len(before) == 0 && sequence.Dump(desk) != harmed {
				t.Fatalf("seed %d, %d, %s: nothing was wrong, and it is another now", random, i, name)
			}
		}
	}
	for name := range harms {
		if found[name] == 0 {
			t.Errorf("%s: nothing was found wrong", name)
		}
	}
	t.Log(found)
}

// own gives rows copies of their own.
func own[T any](diffs []book.Diff[T]) {
	for i := range diffs {
		row := *diffs[i].After
		diffs[i].After = &row
	}
}

func harmed(t *testing.T, rows *book.Change, run *sequence.Run) (*book.Book, *book.Desk) {
	t.Helper()
	rows.By(run.Desk.Account())
	b := book.New(run.Notes, run.Desk.Account())
	b.Load(run.Desk.Revision(), rows)
	desk, err := b.Desk(run.Desk.Account())
	if err != nil {
		t.Fatal(err)
	}
	return b, desk
}

// wrong are the faults that Mend is for.
func wrong(desk *book.Desk) (says []string) {
	for _, f := range desk.Faults(day.MustDate("2026-11-24")) {
		if f.Gravity == book.Twin || f.Gravity == book.Lost {
			says = append(says, fmt.Sprint(f.Gravity, f.Says))
		}
	}
	return says
}
