package store_test

import (
	"database/sql"
	"errors"
	"fmt"
	"math/rand/v2"
	"path/filepath"
	"slices"
	"testing"
	"time"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/seed"
	"tincup/internal/sequence"
	"tincup/internal/store"
)

// twoAccounts makes a file with a second account in it, and opens it.
func twoAccounts(t *testing.T) *store.Store {
	t.Helper()
	path := filepath.Join(t.TempDir(), "book.db")
	shut(t, open(t, path))
	execute(t, path, "INSERT INTO accounts VALUES (x'02000000000070008000000000000002', 2, 0)")
	return open(t, path)
}

func execute(t *testing.T, path string, statements ...string) {
	t.Helper()
	db, err := sql.Open("sqlite", path)
	if err != nil {
		t.Fatal(err)
	}
	for _, statement := range statements {
		if _, err := db.Exec(statement); err != nil {
			t.Fatalf("%s: %v", statement, err)
		}
	}
	if err := db.Close(); err != nil {
		t.Fatal(err)
	}
}

// Two accounts take turns at random commands, undos and redos. What the one does leaves
// the other's desk as it was, and each desk ends as if its account had been alone; so it
// comes back from the file.
func TestTwoAccounts(t *testing.T) {
	random := seed.New(t)
	for round := range int(60 * *sequences) {
		r := rand.New(rand.NewPCG(random, uint64(round)))
		file := twoAccounts(t)
		all, err := file.Load(t.Context())
		if err != nil {
			t.Fatal(err)
		}
		notes := book.MemoryNotes{}
		shared := book.New(notes, all.Accounts()...)
		shared.Load(all.Revision())
		var pairs [2]struct{ both, alone *sequence.Run }
		var done []*book.Change
		for i, account := range all.Accounts() {
			both, alone := sequence.New(account), sequence.New(account)
			both.IDs, alone.IDs = uint32(i)<<20, uint32(i)<<20
			both.Book, both.Notes = shared, notes
			both.Desk, _ = shared.Desk(account)
			pairs[i].both, pairs[i].alone = both, alone
		}
		kinds := []string{"capture", "tree", "edit", "tag", "add-list", "add-section", "add-shelf", "add-person", "edit-list", "move-list", "delete-list",
			"restore-list", "template", "pour", "complete", "cancel", "reopen", "delete", "restore", "move", "reorder", "bulk", "handful", "plan", "postpone",
			"skip", "remind", "involve", "choose", "undo", "redo"}
		for range 120 {
			i := r.IntN(2)
			pair, other := pairs[i], pairs[1-i].both
			s := sequence.NextStep(r, kinds)
			before := sequence.Dump(other.Desk)
			held := len(pair.both.Changes)
			changed, err := pair.both.Take(s)
			if err != nil {
				t.Fatalf("seed %d, round %d, %v: %v", random, round, s, err)
			}
			if again, err := pair.alone.Take(s); err != nil || again != changed {
				t.Fatalf("seed %d, round %d, %v: alone it would be %v, %v", random, round, s, again, err)
			}
			if sequence.Dump(other.Desk) != before {
				t.Fatalf("seed %d, round %d: %v changed the other's desk", random, round, s)
			}
			for _, c := range pair.both.Changes[held:] {
				if c.Actor != pair.both.Desk.Account() {
					t.Fatalf("%s is said to be by %s", c.Says, c.Actor)
				}
			}
			done = append(done, pair.both.Changes[held:]...)
		}
		var entries []store.Entry
		for _, c := range done {
			entries = append(entries, store.Entry{Change: c, Window: "w"})
		}
		if err := file.Save(t.Context(), entries...); err != nil {
			t.Fatal(err)
		}
		back, err := file.Load(t.Context())
		if err != nil {
			t.Fatal(err)
		}
		for i, account := range all.Accounts() {
			desk, err := back.Desk(account)
			if err != nil {
				t.Fatal(err)
			}
			both, alone := sequence.Dump(pairs[i].both.Desk), sequence.Dump(pairs[i].alone.Desk)
			if both != alone {
				t.Errorf("seed %d, round %d: beside another the desk is\n%s\nalone\n%s", random, round, both, alone)
			}
			if got := sequence.Dump(desk); got != both {
				t.Errorf("seed %d, round %d: the file has\n%s\nwant\n%s", random, round, got, both)
			}
			mine, err := file.ChangesSince(t.Context(), account, 0, 1<<20)
			if err != nil || len(mine) != len(pairs[i].both.Changes) {
				t.Errorf("the history has %d changes of an account that made %d, %v", len(mine), len(pairs[i].both.Changes), err)
			}
		}
		shut(t, file)
	}
}

// What another has is not there for one who asks by its id, and a list of another that
// comes to a desk all the same is not written to.
func TestAnothersRows(t *testing.T) {
	file := twoAccounts(t)
	defer shut(t, file)
	b, err := file.Load(t.Context())
	if err != nil {
		t.Fatal(err)
	}
	owner, second := b.Accounts()[0], b.Accounts()[1]
	ids := byte(0)
	env := book.Env{Clock: day.Clock{Now: time.Date(2026, 11, 24, 9, 0, 0, 0, time.UTC), Zone: time.UTC},
		NewID: func() book.ID { ids++; return book.ID{1, 15: ids} }}
	do := func(account book.ID, cmd book.Command) *book.Change {
		t.Helper()
		desk, err := b.Desk(account)
		if err != nil {
			t.Fatal(err)
		}
		c, err := desk.Do(env, cmd)
		if err != nil {
			t.Fatal(err)
		}
		b.Apply(c)
		return c
	}
	loans := do(owner, book.AddList{Name: "Loans"}).Lists[0].After
	frame := do(owner, book.Capture{Title: "Frame", List: loans.ID, Tags: []string{"calls"}}).Todo().ID
	do(second, book.Capture{Title: "Sow beans", Tags: []string{"calls"}})
	desk, _ := b.Desk(second)
	for what, cmd := range map[string]book.Command{
		"tick":      book.Complete{ID: frame},
		"edit":      book.Edit{ID: frame, Title: new(string)},
		"delete":    book.Delete{ID: frame},
		"list":      book.EditList{ID: loans.ID, Name: &loans.Name},
		"capture":   book.Capture{Title: "Glass", List: loans.ID},
		"beneath":   book.Capture{Title: "Glass", Parent: frame},
		"many":      book.Many{IDs: []book.ID{frame}, Do: func(id book.ID) book.Command { return book.Complete{ID: id} }},
		"no list":   book.DeleteList{ID: loans.ID},
		"the shelf": book.DeleteShelf{ID: loans.Shelf},
	} {
		if c, err := desk.Do(env, cmd); err == nil && !c.Empty() {
			t.Errorf("%s: another's row was changed: %s", what, c.Says)
		}
	}
	if n := len(desk.Tags()); n != 1 {
		t.Errorf("%d tags at the second desk; each account has its own", n)
	}

	// A list that is seen and not one's own: to-dos, sections and the list stay as they are.
	b.Load(b.Revision(), &book.Change{Actor: second,
		Shelves: []book.Diff[book.Shelf]{{After: &book.Shelf{ID: book.ID{5}, Name: "Lent", Position: "e0V"}}},
		Lists:   []book.Diff[book.List]{{After: &book.List{ID: book.ID{6}, Owner: owner, Shelf: book.ID{5}, Name: "Rota", Position: "e0V"}}},
		Todos:   []book.Diff[book.Todo]{{After: &book.Todo{ID: book.ID{7}, List: book.ID{6}, Title: "Ring Sam", Position: "e0V"}}}})
	name := "Mine"
	for what, cmd := range map[string]book.Command{
		"tick":    book.Complete{ID: book.ID{7}},
		"out":     book.MoveMany{IDs: []book.ID{{7}}},
		"capture": book.Capture{Title: "Glass", List: book.ID{6}},
		"list":    book.EditList{ID: book.ID{6}, Name: &name},
		"section": book.AddSection{List: book.ID{6}, Name: "June"},
	} {
		if c, err := desk.Do(env, cmd); !errors.Is(err, book.ErrNotYours) {
			t.Errorf("%s: %v, %v; want it refused as not one's own", what, c, err)
		}
	}
}

// A file of the version before accounts opens with all that it had, as the owner's, and
// its history is undone to the first change.
func TestFileFromBeforeAccounts(t *testing.T) {
	path := filepath.Join(t.TempDir(), "old.db")
	if err := store.MakeAtSchema(t.Context(), path, 12); err != nil {
		t.Fatal(err)
	}
	todo := func(plan, more string) string {
		return `{"ID":"03000000-0000-0000-0000-000000000000","Title":"Frame","List":"02000000-0000-0000-0000-000000000000","Position":"e0V000","Created":"1970-01-01T00:00:00.001Z","Changed":"1970-01-01T00:00:00.001Z","Priority":"high"` + plan + more + `,"Revision":2}`
	}
	row := `INSERT INTO history (seq, at, made_in, kind, says, rows) VALUES (%d, %d, 'w', '%s', '%s', '%s')`
	execute(t, path,
		"INSERT INTO shelves (id, name, position, deleted, revision) VALUES (x'01000000000000000000000000000000', 'Museum', 'e0V000', 0, 1)",
		"INSERT INTO lists (id, shelf, name, colour, position, sorted, checklist, pinned, archived, template, deleted, revision) VALUES (x'02000000000000000000000000000000', x'01000000000000000000000000000000', 'Loans', 'sea', 'e0V007', 'priority', 1, 1, 0, '', 0, 1)",
		`INSERT INTO todos (id, title, notes_size, list, position, status, priority, start, due, plan, created, changed, completed, deleted, revision, reminders, handful)
			VALUES (x'03000000000000000000000000000000', 'Frame', 0, x'02000000000000000000000000000000', 'e0V000', 'needs-action', 'high', '', '', '2026-W48', 1, 1, 0, 0, 3, '-PT1H', '2026-11-24')`,
		fmt.Sprintf(row, 1, 1, "add-list", "New list: “Loans”", `{"Revision":1,"Kind":"add-list","Says":"New list","Shelves":[{"after":{"ID":"01000000-0000-0000-0000-000000000000","Name":"Museum","Position":"e0V000","Revision":1}}],"Lists":[{"after":{"ID":"02000000-0000-0000-0000-000000000000","Shelf":"01000000-0000-0000-0000-000000000000","Name":"Loans","Colour":"sea","Position":"e0V007","Checklist":true,"Pinned":true,"Revision":1}}]}`),
		fmt.Sprintf(row, 2, 2, "capture", "Put in: “Frame”", `{"Revision":2,"Kind":"capture","Says":"Put in","Todos":[{"after":`+todo("", "")+`}]}`),
		fmt.Sprintf(row, 3, 3, "edit", "Planned: “Frame”", `{"Revision":3,"Kind":"edit","Says":"Planned","Todos":[{"before":`+todo("", "")+`,"after":`+todo(`,"Plan":"2026-W48"`, `,"Reminders":["-PT1H"],"Handful":"2026-11-24"`)+`}]}`),
		"INSERT INTO replies (seq, key, fingerprint, status, etag, location, remake, revision, body, at) VALUES (1, 'k', x'01', 200, '', '', '', 0, x'7b7d', 1)",
	)
	file := open(t, path)
	defer shut(t, file)
	b, err := file.Load(t.Context())
	if err != nil {
		t.Fatal(err)
	}
	if owner := b.Owner(); len(b.Accounts()) != 1 || owner[6]>>4 != 7 || owner[8]>>6 != 2 {
		t.Errorf("the accounts are %v; want one owner with a UUIDv7", b.Accounts())
	}
	desk := ownersDesk(t, b)
	frame, err := desk.Todo(book.ID{3})
	if err != nil || frame.Plan.String() != "2026-W48" || frame.Handful.String() != "2026-11-24" || len(frame.Reminders) != 1 {
		t.Errorf("the to-do came over as %+v, %v", frame, err)
	}
	loans, err := desk.List(book.ID{2})
	if err != nil || loans.Owner != b.Owner() || loans.Shelf != (book.ID{1}) || loans.Position != "e0V007" || !loans.Pinned || !loans.Checklist {
		t.Errorf("the list came over as %+v, %v", loans, err)
	}
	if kept, err := file.ReplyTo(t.Context(), b.Owner(), "k"); err != nil || kept == nil {
		t.Errorf("the reply of before is %v, %v", kept, err)
	}
	env := book.Env{Clock: day.Clock{Now: time.Date(2026, 11, 24, 9, 0, 0, 0, time.UTC), Zone: time.UTC}}
	changes, err := file.ChangesSince(t.Context(), b.Owner(), 0, 10)
	if err != nil || len(changes) != 3 {
		t.Fatalf("%d changes, %v", len(changes), err)
	}
	for _, c := range slices.Backward(changes) {
		back, err := desk.Invert(env, c, book.Undo)
		if err != nil {
			t.Fatalf("%s cannot be undone: %v", c.Says, err)
		}
		if err := file.Save(t.Context(), store.Entry{Change: back, Turns: c.Revision}); err != nil {
			t.Fatal(err)
		}
		b.Apply(back)
	}
	if again, err := loadDesk(t.Context(), file); err != nil || again.Len()+len(again.Lists())+len(again.Shelves()) > 0 {
		t.Errorf("undone to the start there is left: %s, %v", sequence.Dump(again), err)
	}
}
