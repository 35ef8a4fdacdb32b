package book_test

import (
	"math/rand/v2"
	"testing"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/seed"
	"tincup/internal/sequence"
)

// early is a change worked out ahead of its turn, and how to work it out again.
type early struct {
	*book.Ahead
	again func() (*book.Change, error)
}

// workOutAhead works a step's command out, or the undo of some change; nil where there
// is nothing to do.
func workOutAhead(w *sequence.Windows, s sequence.Step) *early {
	var work func() (*book.Change, error)
	var cmd book.Command
	switch undoable := w.Undoable(); {
	case s.Kind == "undo" || s.Kind == "redo" || s.Kind == "undo-revision":
		if len(undoable) == 0 {
			return nil
		}
		of := undoable[int(s.A)%len(undoable)].Change
		work = func() (*book.Change, error) { return w.Desk.Invert(w.Env(), of, book.Undo) }
	default:
		if cmd = w.Command(s); cmd == nil {
			return nil
		}
		work = func() (*book.Change, error) { return w.Desk.Do(w.Env(), cmd) }
	}
	now, ids := w.Now, w.IDs
	again := func() (*book.Change, error) { // at the same time, with the same new ids
		later, since := w.Now, w.IDs
		defer func() { w.Now, w.IDs = later, max(since, w.IDs) }()
		w.Now, w.IDs = now, ids
		return work()
	}
	c, err := work()
	if err != nil || c.Empty() {
		return nil
	}
	return &early{w.Desk.Ahead(c, cmd), again}
}

// A change worked out ahead of its turn is what it would be if it were worked out then,
// wherever what came between is said to be apart from it.
func TestWorkedOutAheadOfItsTurn(t *testing.T) {
	seed := seed.New(t)
	choices := sequence.Choices(sequence.AllKinds)
	kinds, not := map[book.Kind]int{}, 0
	for i := range int(10_000 * *sequences) {
		r := rand.New(rand.NewPCG(seed, uint64(i)))
		w := sequence.NewWindows(book.ID{15: 1})
		for n := range 100 {
			next := func() sequence.Step { return sequence.NextStep(r, choices) }
			ahead := workOutAhead(w, next())
			before := len(w.Changes)
			s := next()
			if err := w.Step(s); err != nil {
				t.Fatalf("seed %d, sequence %d, step %d: %v", seed, i, n, err)
			}
			if ahead == nil || len(w.Changes) == before {
				continue
			}
			between := w.Changes[before]
			if !ahead.Apart(w.Desk, between) {
				not++
				continue
			}
			kinds[ahead.Change.Kind]++
			want, err := ahead.again()
			if err != nil {
				t.Fatalf("seed %d, sequence %d, step %d: %q, worked out ahead, after %q: %v", seed, i, n, ahead.Change.Says, between.Says, err)
			}
			ahead.Change.At(w.Desk.Revision() + 1)
			if got, want := text(t, ahead.Change), text(t, want); got != want {
				t.Fatalf("seed %d, sequence %d, step %d, after %q, %v:\n%s\nworked out then:\n%s", seed, i, n, between.Says, s, got, want)
			}
		}
	}
	apart := 0
	for _, n := range kinds {
		apart += n
	}
	t.Logf("%d were apart, %d not; %v", apart, not, kinds)
	if apart < not/30 {
		t.Errorf("only %d of %d were apart", apart, apart+not)
	}
}

// What a change rests on: one with rows that are not to-dos, lists or tags is never apart from
// anything, nor is one that writes the same row, its home, its tags or what it stands under.
func TestWhatIsApart(t *testing.T) {
	d := newDesk(t)
	list, other := d.list("Loans"), d.list("Labels")
	a, b := d.do(book.Capture{Title: "a", List: list}).Todo().ID, d.do(book.Capture{Title: "b", List: other}).Todo().ID
	under := d.do(book.Capture{Title: "under", Parent: a}).Todo().ID
	coming := func(title, uid string) book.Command {
		return book.Import{List: other, Items: []book.Incoming{{Under: -1, UID: uid, Todo: book.Todo{Title: title}}, {Under: -1, Todo: book.Todo{Title: "new"}}}}
	}
	ended := func(id book.ID) book.Command { return book.Complete{ID: id} }
	shelf, person := d.do(book.AddShelf{Name: "Home"}).Shelves[0].After.ID, d.do(book.AddPerson{Name: "Ines"}).People[0].After.ID
	section := d.do(book.AddSection{List: list, Name: "May"}).Sections[0].After.ID
	view, ground := d.do(book.AddView{Name: "v", Question: "{}"}).Views[0].After.ID, d.do(book.AddPlace{Name: "museum"}).Places[0].After.ID
	for name, c := range map[string]struct {
		ahead, between book.Command
		apart          bool
	}{
		"two lists":               {ended(a), ended(b), true},
		"the same":                {ended(a), ended(a), false},
		"what stands above":       {ended(under), ended(a), false},
		"what stands below":       {ended(a), ended(under), false},
		"its list's order":        {book.Capture{Title: "x", List: list}, book.Capture{Title: "y", List: list}, false},
		"another list's":          {book.Capture{Title: "x", List: list}, book.Capture{Title: "y", List: other}, true},
		"the handful":             {book.Pick{ID: a}, book.Pick{ID: b}, false},
		"its list is altered":     {ended(a), book.EditList{ID: list, Name: ptr("Lent")}, false},
		"tags":                    {book.Tagging{ID: a, Add: []string{"calls"}}, book.Tagging{ID: b, Add: []string{"calls"}}, false},
		"a tag beside a tick":     {ended(a), book.Tagging{ID: b, Add: []string{"calls"}}, false},
		"calm in the same list":   {book.Capture{Title: "x", List: list}, book.Edit{ID: a, Outcome: ptr("done")}, true},
		"a title in the same":     {book.Capture{Title: "x", List: list}, book.Edit{ID: a, Title: ptr("z")}, false},
		"notes of the same":       {book.Edit{ID: a, Notes: ptr("n")}, book.Edit{ID: a, Notes: ptr("m")}, false},
		"a shelf":                 {book.EditShelf{ID: shelf, Name: ptr("x")}, ended(b), false},
		"a section":               {book.EditSection{ID: section, Name: "x"}, ended(b), false},
		"a person":                {book.EditPerson{ID: person, Name: ptr("x")}, ended(b), false},
		"a view":                  {book.EditView{ID: view, Name: ptr("x")}, ended(b), false},
		"a place":                 {book.EditPlace{ID: ground, Name: ptr("x")}, ended(b), false},
		"a calendar":              {book.AddCalendar{Name: "c", Address: "https://a.example/"}, ended(b), false},
		"settings":                {book.Choose{Values: map[string]string{"urgentDays": "4"}}, ended(b), false},
		"a new list":              {book.AddList{Name: "x"}, ended(b), false},
		"a list put in the bin":   {book.DeleteList{ID: list}, ended(b), true},
		"into a list that goes":   {book.DeleteList{ID: list}, book.Capture{Title: "x", List: list}, false},
		"a list that is put away": {book.EditList{ID: list, Archived: ptr(true)}, ended(b), false},
		"many and one of them":    {book.Many{IDs: []book.ID{a, b}, Do: ended}, ended(b), false},
		"an import and another":   {coming("x", ""), ended(b), true},
		"an import of the same":   {coming("b", b.String()), book.Remind{ID: b, Add: []day.Reminder{day.ReminderBefore(5)}}, false},
		"an import of its parent": {book.Import{Items: []book.Incoming{{Under: -1, Parent: a.String(), UID: "y", Todo: book.Todo{Title: "y"}}}}, book.Edit{ID: a, Outcome: ptr("done")}, false},
		"an import and the same":  {coming("X", "elsewhere"), coming("Y", "Elsewhere"), false},
	} {
		change, err := d.desk.Do(d.env(), c.ahead)
		if err != nil {
			t.Fatalf("%s: %v", name, err)
		}
		ahead := d.desk.Ahead(change, c.ahead)
		between, err := d.desk.Do(d.env(), c.between)
		if err != nil {
			t.Fatalf("%s: %v", name, err)
		}
		d.book.Apply(between)
		if got := ahead.Apart(d.desk, between); got != c.apart {
			t.Errorf("%s: apart is %t", name, got)
		}
		back, err := d.desk.Invert(d.env(), between, book.Undo)
		if err != nil {
			t.Fatalf("%s: %v", name, err)
		}
		d.book.Apply(back)
	}
}
