package exchange_test

import (
	"fmt"
	"testing"
	"time"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/exchange"
)

// An item without a UID looks like a to-do that is there where title, list and due are equal, case aside,
// and as often as it is there; what is left out takes with it what stands under it.
func TestLikes(t *testing.T) {
	b, desk := book.Alone(book.MemoryNotes{})
	n := byte(0)
	do := func(cmd book.Command) *book.Change {
		t.Helper()
		c, err := desk.Do(book.Env{Clock: day.Clock{Now: time.Date(2026, 11, 24, 9, 0, 0, 0, time.UTC), Zone: time.UTC}, NewID: func() book.ID { n++; return book.ID{15: n} }}, cmd)
		if err != nil {
			t.Fatal(err)
		}
		b.Apply(c)
		return c
	}
	list := do(book.AddList{Name: "House"}).Lists[0].After.ID
	friday := day.MustMoment("2026-11-27")
	do(book.Capture{Title: "Oil the hinge", Due: friday})
	do(book.Capture{Title: "Wipe", List: list})
	do(book.Delete{ID: do(book.Capture{Title: "Sweep"}).Todo().ID})
	item := func(title string, due day.Moment, list, uid string, under int) exchange.Item {
		return exchange.Item{Incoming: book.Incoming{UID: uid, Under: under, List: list, Todo: book.Todo{Title: title, Due: due}}}
	}
	none := day.Moment{}
	items := []exchange.Item{
		item("oil the HINGE", friday, "", "", -1), item("Oil the hinge", friday, "", "", -1), item("Oil the hinge", none, "", "", -1), // the first alone
		item("Oil the hinge", friday, "House", "", -1), item("Wipe", none, "house", "", -1), item("Cloth", none, "", "", 4), // the second
		item("Wipe", none, "Barn", "", -1), item("Sweep", none, "", "", -1), item("Oil the hinge", friday, "", "a@x", -1), item("Wash", none, "", "", -1), item("Dry", none, "", "", 9),
	}
	like := exchange.Likes(desk, items, book.ID{})
	if got := fmt.Sprint(like); got != "[true false false false true false false false false false false]" {
		t.Errorf("alike are %s", got)
	}
	var kept []string
	for _, i := range exchange.Without(items, like) {
		kept = append(kept, fmt.Sprint(i.Todo.Title, " ", i.Under))
	}
	if got, want := fmt.Sprint(kept), "[Oil the hinge -1 Oil the hinge -1 Oil the hinge -1 Wipe -1 Sweep -1 Oil the hinge -1 Wash -1 Dry 6]"; got != want {
		t.Errorf("kept are %s, want %s", got, want)
	}
	if into := exchange.Likes(desk, []exchange.Item{item("Wipe", none, "", "", -1)}, list); !into[0] {
		t.Error("what goes into the list of the import is not looked for there")
	}
}
