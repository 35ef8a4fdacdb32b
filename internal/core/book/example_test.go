package book_test

import (
	"fmt"
	"time"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
)

func ExampleDesk_Do() {
	b, desk := book.Alone(book.MemoryNotes{})
	env := book.Env{
		Clock: day.Clock{Now: time.Date(2026, 11, 24, 9, 0, 0, 0, time.UTC), Zone: time.UTC},
		NewID: func() book.ID { return book.ID{15: 1} },
	}
	captured, err := desk.Do(env, book.Capture{Title: "Order mount board", Due: day.MustMoment("2026-11-27")})
	if err != nil {
		fmt.Println(err)
		return
	}
	// The caller keeps the change here, and then makes it so.
	b.Apply(captured)
	fmt.Println(captured.Says, len(desk.Open()))

	_, err = desk.Do(env, book.Capture{Title: " "})
	fmt.Println(err)

	undo, err := desk.Invert(env, captured, book.Undo)
	if err != nil {
		fmt.Println(err)
		return
	}
	b.Apply(undo)
	fmt.Println(undo.Says, len(desk.Open()))
	// Output:
	// Put in: “Order mount board” 1
	// The title is empty. Give it at least one word.
	// Undone. Put in: “Order mount board” 0
}
