package sequence

import (
	"encoding/json"
	"fmt"
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
		row := *l
		row.Revision = 0
		lines = append(lines, fmt.Sprintf("list %+v", row))
		for _, section := range b.Sections(l.ID) {
			row := *section
			row.Revision = 0
			lines = append(lines, fmt.Sprintf("section %+v", row))
		}
	}
	for _, s := range b.Shelves() {
		row := *s
		row.Revision = 0
		lines = append(lines, fmt.Sprintf("shelf %+v", row))
	}
	for _, v := range b.Views() {
		row := *v
		row.Revision = 0
		lines = append(lines, fmt.Sprintf("view %+v", row))
	}
	for _, c := range b.Calendars() {
		row := *c
		row.Revision = 0
		lines = append(lines, fmt.Sprintf("calendar %+v", row))
	}
	for _, p := range b.Places() {
		row := *p
		row.Revision = 0
		lines = append(lines, fmt.Sprintf("place %+v", row))
	}
	for _, p := range b.People() {
		row := *p
		row.Revision = 0
		lines = append(lines, fmt.Sprintf("person %+v", row))
	}
	chosen, ever := b.Settings()
	lines = append(lines, fmt.Sprintf("settings %+v %v", chosen, ever))
	for _, t := range b.Tags() {
		lines = append(lines, fmt.Sprintf("tag %v %q %v", t.ID, t.Name, t.Colour))
	}
	slices.Sort(lines)
	return strings.Join(lines, "\n")
}
