package book_test

import (
	"fmt"
	"strings"
	"testing"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/term"
)

// A to-do is split into subtasks that add up to it and go where it goes; one undo joins them.
func TestSplit(t *testing.T) {
	d := newDesk(t)
	id := d.do(book.Capture{Title: "Write the catalogue", Estimate: 1000, Priority: book.High, Concentration: term.Deep, Plan: day.MustHorizon("2026-11-27T10:00/PT2H")}).Todo().ID
	before := snapshot(t, d.desk)
	change := d.do(book.Split{ID: id, Parts: 3})
	if change.Says != "Split: “Write the catalogue” into 3 parts of 5 h 35 min" {
		t.Errorf("%q", change.Says)
	}
	var got []string
	for _, sub := range d.desk.Subtasks(id) {
		got = append(got, fmt.Sprint(sub.Title, " ", sub.Estimate, " ", sub.Priority, " ", sub.Concentration))
	}
	want := "Write the catalogue, part 1 of 3 335 high deep|Write the catalogue, part 2 of 3 335 high deep|Write the catalogue, part 3 of 3 330 high deep"
	if strings.Join(got, "|") != want {
		t.Errorf("parts: %v", got)
	}
	if at := d.todo(id).Plan; at != day.MustHorizon("2026-11-27") {
		t.Errorf("the whole is planned for %v", at)
	}
	if why := d.refused(book.Split{ID: id, Parts: 2}); !strings.Contains(why, "has open subtasks already") {
		t.Errorf("split again: %s", why)
	}
	back, err := d.desk.Invert(d.env(), change, book.Undo)
	if err != nil {
		t.Fatal(err)
	}
	d.book.Apply(back)
	if subs := d.desk.Subtasks(id); len(subs) != 0 && d.desk.IsOpen(subs[0]) {
		t.Errorf("%d parts are left, and the Book was\n%s", len(subs), before)
	}
}

func TestSplitShares(t *testing.T) {
	for minutes := 10; minutes <= 2000; minutes += 7 {
		for parts := 2; parts <= book.MostParts && parts*5 <= minutes; parts += 3 {
			d := newDesk(t)
			id := d.do(book.Capture{Title: strings.Repeat("long ", 99), Estimate: minutes}).Todo().ID
			d.do(book.Split{ID: id, Parts: parts})
			sum, least, most := 0, minutes, 0
			subs := d.desk.Subtasks(id)
			for i, sub := range subs {
				n := int(sub.Estimate)
				sum, least, most = sum+n, min(least, n), max(most, n)
				if i < parts-1 && n%5 != 0 || n < 1 {
					t.Fatalf("%d into %d: part %d takes %d", minutes, parts, i+1, n)
				}
			}
			if sum != minutes || len(subs) != parts || most-least > 9 {
				t.Fatalf("%d into %d: %d parts of %d to %d, %d in all", minutes, parts, len(subs), least, most, sum)
			}
		}
	}
}

func TestSplitRefused(t *testing.T) {
	d := newDesk(t)
	short := d.do(book.Capture{Title: "call", Estimate: 12}).Todo().ID
	none := d.do(book.Capture{Title: "guess"}).Todo().ID
	note := d.do(book.Capture{Title: "thought", IsNote: true}).Todo().ID
	done := d.do(book.Capture{Title: "done", Estimate: 100}).Todo().ID
	d.do(book.Complete{ID: done})
	for _, c := range []struct {
		id    book.ID
		parts int
		why   string
	}{
		{short, 3, "too little for 3 parts"}, {none, 2, "Give it an estimate first"}, {note, 2, "note"}, {done, 2, "Reopen it first"},
		{short, 1, "2 to 20 are wanted"}, {short, 21, "2 to 20 are wanted"}, {book.ID{15: 99}, 2, "no to-do"},
	} {
		if why := d.refused(book.Split{ID: c.id, Parts: c.parts}); !strings.Contains(why, c.why) {
			t.Errorf("%s into %d: %s", c.id, c.parts, why)
		}
	}
}

// One date has hours of its own, or none again, and undo gives back what was.
func TestHoursOn(t *testing.T) {
	d := newDesk(t)
	on := day.MustDate("2026-11-25")
	hours := func(text string) *day.Hours {
		h, err := day.ParseHours(text)
		if err != nil {
			t.Fatal(err)
		}
		return &h
	}
	kept := func() string {
		s, _ := d.desk.Settings()
		return s.HoursOn
	}
	d.do(book.HoursOn{Day: day.MustDate("2026-12-24"), Hours: hours("09:00-12:00")})
	if says := d.do(book.HoursOn{Day: on, Hours: hours("none")}).Says; says != "Hours on Wed 25 Nov: away" {
		t.Errorf("%q", says)
	}
	change := d.do(book.HoursOn{Day: on, Hours: hours("10:00-12:00")})
	if kept() != "2026-11-25 10:00-12:00; 2026-12-24 09:00-12:00" || change.Says != "Hours on Wed 25 Nov: 10:00-12:00" {
		t.Errorf("kept %q, said %q", kept(), change.Says)
	}
	back, err := d.desk.Invert(d.env(), change, book.Undo)
	if err != nil {
		t.Fatal(err)
	}
	d.book.Apply(back)
	if kept() != "2026-11-25 none; 2026-12-24 09:00-12:00" {
		t.Errorf("after undo: %q", kept())
	}
	if says := d.do(book.HoursOn{Day: on}).Says; says != "Hours on Wed 25 Nov: as usual" || kept() != "2026-12-24 09:00-12:00" {
		t.Errorf("said %q, kept %q", says, kept())
	}
	// What is long past makes room; more dates than can be are refused.
	d.do(book.Choose{Values: map[string]string{"hoursOn": "2025-01-01 none"}})
	for i := range 100 {
		d.do(book.HoursOn{Day: on.AddDays(i), Hours: hours("none")})
	}
	if strings.Contains(kept(), "2025") {
		t.Error("a date of two years ago is kept")
	}
	if why := d.refused(book.HoursOn{Day: on.AddDays(100), Hours: hours("none")}); !strings.Contains(why, "So many dates") {
		t.Errorf("the 101st: %s", why)
	}
}
