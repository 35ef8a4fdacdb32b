package book_test

import (
	"testing"

	"tincup/internal/core/book"
)

// Wherever rows are put again and again, positions stay short, the order is what was
// asked for, and few rows are touched.
func TestPositionsStayShort(t *testing.T) {
	for name, c := range map[string]struct {
		move func(nth int, ids []book.ID, list book.ID) book.Move
		// most is how many rows a move touches on average at most.
		most float64
	}{
		"to the top": {func(n int, ids []book.ID, list book.ID) book.Move {
			return book.Move{ID: ids[len(ids)-1], List: list, Before: ids[0]}
		}, 1.1},
		"behind the first": {func(n int, ids []book.ID, list book.ID) book.Move {
			return book.Move{ID: ids[len(ids)-1], List: list, After: ids[0]}
		}, 2},
		"into the middle": {func(n int, ids []book.ID, list book.ID) book.Move {
			return book.Move{ID: ids[n%2*(len(ids)-1)], List: list, After: ids[len(ids)/2]}
		}, 2},
	} {
		t.Run(name, func(t *testing.T) {
			d := newDesk(t)
			list := d.list("Crates")
			d.do(book.EditList{ID: list, Order: ptr(book.ByHand)})
			var ids []book.ID
			for range 40 {
				ids = append(ids, d.do(book.Capture{Title: "x", List: list}).Todo().ID)
			}
			touched, longest := 0, 0
			const moves = 3000
			for n := range moves {
				m := c.move(n, ids, list)
				change := d.do(m)
				touched += len(change.Todos)
				ids = reordered(ids, m)
				for i, id := range ids {
					p := d.todo(id).Position
					longest = max(longest, len(p))
					if i > 0 && p <= d.todo(ids[i-1]).Position {
						t.Fatalf("after move %d the rows are out of order", n)
					}
				}
			}
			if longest > 24 || float64(touched)/moves > c.most {
				t.Errorf("the longest position has %d characters; a move touches %.2f rows", longest, float64(touched)/moves)
			}
		})
	}
}

func reordered(ids []book.ID, m book.Move) []book.ID {
	var out []book.ID
	for _, id := range ids {
		if id == m.Before {
			out = append(out, m.ID)
		}
		if id != m.ID {
			out = append(out, id)
		}
		if id == m.After {
			out = append(out, m.ID)
		}
	}
	return out
}

// Lists are few: all of a shelf are moved apart.
func TestPositionsOfListsStayShort(t *testing.T) {
	d := newDesk(t)
	a, b, c := d.list("a"), d.list("b"), d.list("c")
	shelf := d.desk.Shelves()[0].ID
	for n := range 1000 {
		d.do(book.MoveList{ID: []book.ID{b, c}[n%2], Shelf: shelf, After: a})
	}
	for _, l := range d.desk.Lists() {
		if len(l.Position) > 24 {
			t.Errorf("%s stands at %s", l.Name, l.Position)
		}
	}
	d.sound()
}

// Many that are moved at once stand as if moved one by one, each behind the other.
func TestMoveManyIsMovingEach(t *testing.T) {
	for _, order := range []book.Order{book.ByHand, book.ByPriority, book.ByTitle} {
		for _, from := range []string{"elsewhere", "within", "both"} {
			one, all := newDesk(t), newDesk(t)
			var got [2]string
			for i, d := range []*desk{one, all} {
				list, other := d.list("Crates"), d.list("Other")
				d.do(book.EditList{ID: list, Order: ptr(order)})
				var here, there []book.ID
				for n := range 12 {
					here = append(here, d.do(book.Capture{Title: string(rune('a' + n)), List: list, Priority: book.Priority(n % 3)}).Todo().ID)
					there = append(there, d.do(book.Capture{Title: string(rune('n' + n)), List: other, Priority: book.Priority(n % 3)}).Todo().ID)
				}
				ids := map[string][]book.ID{"elsewhere": there[2:7], "within": {here[9], here[1], here[6]}, "both": {there[3], here[9], there[0]}}[from]
				to := book.Move{List: list, After: here[4]}
				if i == 0 {
					for _, id := range ids {
						m := to
						m.ID = id
						d.do(m)
						to.After = id
					}
				} else {
					d.do(book.MoveMany{IDs: ids, To: to})
				}
				d.sound()
				l, _ := d.desk.List(list)
				got[i] = d.shown(list, l.Order)
			}
			// In another order each one's own key decides, and what is alike stands behind
			// the anchor, not behind the one moved before it.
			if order == book.ByHand && got[0] != got[1] {
				t.Errorf("%s: one by one they stand as %s, at once as %s", from, got[0], got[1])
			}
		}
	}
}

// A change of many rows is applied as one of few is: each stands where it belongs.
func TestApplyingMany(t *testing.T) {
	d := newDesk(t)
	list, other := d.list("Crates"), d.list("Other")
	var ids []book.ID
	for range 400 {
		ids = append(ids, d.do(book.Capture{Title: "x", List: list}).Todo().ID)
	}
	rest := d.do(book.Capture{Title: "rest", List: other}).Todo().ID
	for _, cmd := range []book.Command{
		book.MoveMany{IDs: ids[:300], To: book.Move{List: other, After: rest}}, book.MoveMany{IDs: ids[100:250], To: book.Move{List: list}},
		book.Many{IDs: ids, Do: func(id book.ID) book.Command { return book.Delete{ID: id} }}, book.MoveMany{IDs: []book.ID{rest}, To: book.Move{List: list}},
		book.EmptyBin{UpTo: 1 << 60},
	} {
		d.do(cmd)
		d.sound()
		n := 0
		for _, of := range []book.ID{list, other, {}} {
			for todo := range d.desk.OfList(of) {
				if known, err := d.desk.Todo(todo.ID); err != nil || known != todo {
					t.Fatalf("%T: a row stands among its siblings that is not there", cmd)
				}
				n++
			}
		}
		if n != d.desk.Len() {
			t.Fatalf("%T: %d stand somewhere, %d are there", cmd, n, d.desk.Len())
		}
	}
}
