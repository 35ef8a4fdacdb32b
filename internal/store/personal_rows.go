package store

import (
	"maps"
	"slices"
	"strings"

	"tincup/internal/core/book"
)

// personal is every column of the row that an account has of a to-do for itself.
var personal = func() (columns []column) {
	for _, field := range slices.Sorted(maps.Keys(fieldColumns)) {
		if book.Personal(field) {
			columns = append(columns, fieldColumns[field]...)
		}
	}
	return append(columns, column{"remind_from", func(t *book.Todo) any { return int64(t.RemindFrom) }, func(t *book.Todo) any { return &t.RemindFrom }})
}()

// personalFields are the fields in it.
var personalFields = func() book.Fields {
	var set book.Fields
	for field := range fieldColumns {
		if book.Personal(field) {
			set |= book.FieldsOf(field)
		}
	}
	return set
}()

// personalOrNone selects the columns; what a new to-do has stands for a row that was never
// needed.
var personalOrNone = func() string {
	cells := make([]string, len(personal))
	for i, c := range personal {
		none := "''"
		if _, number := c.value(&book.Todo{}).(int64); number {
			none = "0"
		}
		cells[i] = "coalesce(personal." + c.name + ", " + none + ")"
	}
	return strings.Join(cells, ", ")
}()

// putPersonal writes so many rows, and putsPersonal as many as one statement does.
var putPersonal, putsPersonal = putPersonals(1), putPersonals(manyRows)

func putPersonals(rows int) string {
	sets := make([]string, len(personal))
	for i, c := range personal {
		sets[i] = c.name + " = excluded." + c.name
	}
	row := "(?, ?" + strings.Repeat(", ?", len(personal)) + ")"
	return "INSERT INTO personal (todo, account, " + columnNames(personal) + ") VALUES " + row + strings.Repeat(", "+row, rows-1) +
		" ON CONFLICT (todo, account) DO UPDATE SET " + strings.Join(sets, ", ")
}

// savePersonal writes what an account changed of to-dos for itself alone. A row in which
// nothing is left goes.
func savePersonal(w writer, account id, diffs []book.Diff[book.Todo]) error {
	width := 2 + len(personal)
	var cells []any
	none := &book.Todo{}
	for _, d := range diffs {
		before := d.Before
		if before == nil {
			before = none
		}
		if d.After == nil || book.Altered(before, d.After)&personalFields == 0 && before.RemindFrom == d.After.RemindFrom {
			continue
		}
		if book.Altered(none, d.After)&personalFields == 0 && d.After.RemindFrom.IsZero() {
			if err := w.exec(deletePersonal, id(d.After.ID), account); err != nil {
				return err
			}
			continue
		}
		cells = append(cells, id(d.After.ID), account)
		for _, c := range personal {
			cells = append(cells, c.value(d.After))
		}
	}
	for len(cells) > 0 {
		query, n := putPersonal, width
		if len(cells) >= width*manyRows {
			query, n = putsPersonal, width*manyRows
		}
		if err := w.exec(query, cells[:n]...); err != nil {
			return err
		}
		cells = cells[n:]
	}
	return nil
}
