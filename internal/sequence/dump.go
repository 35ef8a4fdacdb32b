package sequence

import (
	"encoding/json"
	"fmt"
	"reflect"
	"slices"
	"strings"
	"time"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
)

// Sound says what is wrong with a Book, if anything is.
func Sound(b *book.Desk, now time.Time) error {
	if faults := b.Faults(day.DateOf(now)); len(faults) > 0 {
		return fmt.Errorf("%d faults, one of them: %s", len(faults), faults[0].Says)
	}
	return nil
}

// Dump writes all that a desk has but revisions.
func Dump(b *book.Desk) string {
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
		lines = append(lines, dumpRows("section", b.Sections(l.ID))...)
	}
	lines = slices.Concat(lines, dumpRows("list", b.Lists()), dumpRows("shelf", b.Shelves()), dumpRows("view", b.Views()),
		dumpRows("calendar", b.Calendars()), dumpRows("place", b.Places()), dumpRows("person", b.People()))
	chosen, ever := b.Settings()
	lines = append(lines, fmt.Sprintf("settings %+v %v", chosen, ever))
	for _, t := range b.Tags() {
		lines = append(lines, fmt.Sprintf("tag %v %q %v", t.ID, t.Name, t.Colour))
	}
	slices.Sort(lines)
	return strings.Join(lines, "\n")
}

// dumpRows writes rows of a kind, each without its revision.
func dumpRows[T any](kind string, rows []*T) (lines []string) {
	for _, r := range rows {
		row := *r
		reflect.ValueOf(&row).Elem().FieldByName("Revision").SetInt(0)
		lines = append(lines, fmt.Sprintf("%s %+v", kind, row))
	}
	return lines
}
