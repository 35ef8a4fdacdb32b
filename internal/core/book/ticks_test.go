package book_test

import (
	"fmt"
	"reflect"
	"strings"
	"testing"
	"time"

	"github.com/teambition/rrule-go"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
)

// A repeat ticked forty times on changing days, with a skip, a pause, a
// postponement and a missed fortnight in between. Every date is that of
// rrule-go, which knows the pattern alone.
func TestFortyTicks(t *testing.T) {
	d := newDesk(t)
	const rule = "FREQ=WEEKLY;BYDAY=MO,TH"
	id := d.repeating("Volunteers' rota", rule, "2026-11-26T17:00", func(c *book.Capture) {
		c.Notes, c.Tags, c.Start = "Ask who can open up", []string{"rota", "calls"}, day.MustDate("2026-11-24")
		c.Reminders = []day.Reminder{day.ReminderBefore(60), day.ReminderAt(day.MustMoment("2026-11-25T10:00"))}
	})
	branch := d.sub(id, "Ring round")
	leaf := d.sub(branch, "Ring the Tuesday crew")
	twig := d.sub(leaf, "Find their numbers")
	other := d.sub(id, "Pin it up")
	d.do(book.Edit{ID: leaf, Due: ptr(day.MustMoment("2026-11-25")), Notes: ptr("mornings only")})
	first, size := state(d.desk), d.desk.Len()

	option, err := rrule.StrToROption(rule)
	if err != nil {
		t.Fatal(err)
	}
	option.Dtstart = time.Date(2026, 11, 26, 0, 0, 0, 0, time.UTC)
	option.Until = option.Dtstart.AddDate(50, 0, 0)
	pattern, err := rrule.NewRRule(*option)
	if err != nil {
		t.Fatal(err)
	}
	next := func(d day.Date, inclusive bool) day.Date {
		year, month, dom := d.Civil()
		return day.DateOf(pattern.After(time.Date(year, month, dom, 0, 0, 0, 0, time.UTC), inclusive))
	}
	var changes []*book.Change
	do := func(cmd book.Command) *book.Change {
		c := d.do(cmd)
		if !c.Empty() {
			changes = append(changes, c)
		}
		return c
	}
	current := day.MustDate("2026-11-26")
	today := current
	check := func(what string) {
		t.Helper()
		got := d.todo(id)
		if got.Repeat.Current != current || got.Due.Date != current || got.Due.Time.String() != "17:00" {
			t.Fatalf("%s: it stands on %s, due %s; the pattern says %s", what, got.Repeat.Current, got.Due, current)
		}
		if got.Start != current.AddDays(-2) || got.Reminders[1].At.Date != current.AddDays(-1) || got.Reminders[0].Before != 60 {
			t.Fatalf("%s: start %s and reminders %v do not go with %s", what, got.Start, got.Reminders, current)
		}
		if due := d.todo(leaf).Due.Date; due != current.AddDays(-1) {
			t.Fatalf("%s: the subtask is due %s, not the day before %s", what, due, current)
		}
		if note, _ := d.desk.Note(got); note != "Ask who can open up" || len(got.Tags) != 2 {
			t.Fatalf("%s: notes %q, tags %v", what, note, got.Tags)
		}
	}
	for i := range 40 {
		switch i {
		case 7: // skip one
			do(book.Skip{ID: id})
			current = next(current, false)
			check("skip")
		case 13: // a pause of a month
			do(book.Pause{ID: id})
			today = today.AddDays(31)
			d.today(today.String())
			do(book.Resume{ID: id})
			if current.Before(today) {
				current = next(today, true)
			}
			check("resume")
		case 21: // this one two days later
			do(book.Edit{ID: id, Due: ptr(day.Moment{Date: current.AddDays(2), Time: d.todo(id).Due.Time})})
		case 30: // a fortnight goes by
			today = today.AddDays(14)
		}
		today = later(today, current.AddDays(i%5-2))
		d.today(today.String())
		for n, sub := range []book.ID{branch, leaf, twig, other} {
			if i>>n&1 == 1 && d.todo(sub).Open() {
				do(book.Complete{ID: sub})
			}
		}
		var want []string
		for _, sub := range []book.ID{branch, leaf, twig, other} {
			want = append(want, d.todo(sub).Title+" "+d.todo(sub).Status.String())
		}
		passed := 0
		for on := next(current, false); !on.After(later(today, current)); on = next(on, false) {
			passed++
		}
		change := do(book.Complete{ID: id})
		pattern := current
		current = next(later(today, current), false)
		check(fmt.Sprintf("tick %d on %s", i, today))
		if !strings.Contains(change.Says, "Next: "+current.Words()) || strings.Contains(change.Says, "passed over") != (passed > 0) {
			t.Fatalf("tick %d says %q; %d were passed over", i, change.Says, passed)
		}
		record := d.desk.Records(id)[0]
		var got []string
		var walk func(book.ID)
		walk = func(id book.ID) {
			for _, sub := range d.desk.Subtasks(id) {
				got = append(got, sub.Title+" "+sub.Status.String())
				walk(sub.ID)
			}
		}
		walk(record.ID)
		if record.Repeat.Current != pattern || record.Status != book.Completed || !reflect.DeepEqual(got, want) {
			t.Fatalf("the record of %s is %+v with %v, want %v", pattern, record, got, want)
		}
		if note, _ := d.desk.Note(record); note != "Ask who can open up" || len(record.Tags) != 2 {
			t.Fatalf("the record's notes are %q", note)
		}
		for _, sub := range []book.ID{branch, leaf, twig, other} {
			if !d.todo(sub).Open() {
				t.Fatalf("tick %d left %q closed", i, d.todo(sub).Title)
			}
		}
	}
	if n := len(d.desk.Records(id)); n != 40 || d.todo(id).Repeat.Ticks != 40 || d.todo(id).Repeat.Missed == 0 {
		t.Errorf("%d records, %+v", n, d.todo(id).Repeat)
	}
	for i := len(changes) - 1; i >= 0; i-- {
		back, err := d.desk.Invert(d.env(), changes[i], book.Undo)
		if err != nil {
			t.Fatalf("undoing %q: %v", changes[i].Says, err)
		}
		d.book.Apply(back)
	}
	if d.desk.Len() != size || !reflect.DeepEqual(state(d.desk), first) {
		t.Errorf("after undoing all, the Book is\n%v\nand was\n%v", state(d.desk), first)
	}
}
