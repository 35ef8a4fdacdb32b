package remind_test

import (
	"slices"
	"strings"
	"testing"
	"time"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/remind"
	"tincup/internal/core/settings"
)

func (b *bell) wantRings(wall string, titles ...string) {
	b.t.Helper()
	if got := b.at(wall); !slices.Equal(got, append([]string{}, titles...)) {
		b.t.Errorf("at %s it rings %q; want %q", wall, got, titles)
	}
}

func (b *bell) wantOpen(titles ...string) {
	b.t.Helper()
	if got := b.open(); !slices.Equal(got, append([]string{}, titles...)) {
		b.t.Errorf("open are %q; want %q", got, titles)
	}
}

// RFC 9074 sections 6.1 and 7: an alarm of a meeting at 10:30 in New York fifteen minutes
// before it, put off to 10:20 and then acknowledged at 10:20:24. The values are from memory.
func TestAcknowledgedAndPutOff(t *testing.T) {
	b := newBell(t, "America/New_York", "2021-03-02T10:10")
	b.put("Meeting", "2021-03-02T10:30", "-PT15M")
	if next, _ := b.queue.Next(); next.UTC().Format(time.RFC3339) != "2021-03-02T15:15:00Z" {
		t.Errorf("it rings at %v", next)
	}
	b.wantRings("2021-03-02T10:15", "Meeting")
	ring := b.terms().Open(b.desk)[0]
	b.now = b.now.Add(14 * time.Second)
	b.do(book.RingLater{Rings: []book.ID{ring.ID}, Until: time.Date(2021, 3, 2, 15, 20, 0, 0, time.UTC)})
	b.wantOpen()
	if off := b.terms().PutOff(b.desk); len(off) != 1 || off[0].Later.String() != "2021-03-02T15:20:00.000Z" {
		t.Errorf("put off are %+v", off)
	}
	b.wantRings("2021-03-02T10:19")
	b.wantRings("2021-03-02T10:20", "Meeting")
	b.now = b.now.Add(24 * time.Second)
	c := b.do(book.Acknowledge{Rings: []book.ID{ring.ID}})
	if r, _ := b.desk.Ring(ring.ID); r.Acknowledged.String() != "2021-03-02T15:20:24.000Z" || c.Says != "Seen: “Meeting”" {
		t.Errorf("%+v, %q", r, c.Says)
	}
	b.wantOpen()
	b.restart()
	b.wantRings("2021-03-02T10:30")
	b.wantRings("2021-03-09T10:15")
}

// What a reminder ahead comes before: the due, else the slot, else the start.
func TestWhatItComesBefore(t *testing.T) {
	for _, c := range []struct{ due, plan, start, reminder, at string }{
		{"2026-11-27T16:00", "2026-11-26T14:00/PT30M", "2026-11-25", "-PT1H", "2026-11-27T15:00"},
		{"2026-11-27", "2026-11-26T14:00/PT30M", "2026-11-25", "-PT1H", "2026-11-27T08:00"},
		{"", "2026-11-26T14:00/PT30M", "2026-11-25", "-PT1H", "2026-11-26T13:00"},
		{"", "2026-11-26", "2026-11-25", "-PT0M", "2026-11-25T09:00"},
		{"", "2026-11-26", "2026-11-25", "-P1D", "2026-11-24T09:00"},
		{"", "2026-11-26", "", "-P1D", ""},
		{"", "", "", "-PT5M", ""},
		{"", "", "", "2026-11-24T08:15", "2026-11-24T08:15"},
	} {
		b := newBell(t, "Europe/Lisbon", "2026-11-20T09:00")
		cmd := book.Capture{Title: "x", Reminders: []day.Reminder{reminder(t, c.reminder)}}
		if c.due != "" {
			cmd.Due = day.MustMoment(c.due)
		}
		if c.plan != "" {
			cmd.Plan = day.MustHorizon(c.plan)
		}
		if c.start != "" {
			cmd.Start = day.MustDate(c.start)
		}
		b.do(cmd)
		got := ""
		if next, ok := b.queue.Next(); ok {
			got = b.clock().WallOf(next).String()
		}
		if got != c.at {
			t.Errorf("%+v: it rings at %q", c, got)
		}
	}
}

func TestWhatEndsARing(t *testing.T) {
	for name, c := range map[string]struct {
		do   func(*bell, book.ID) book.Command
		open bool
	}{
		"completed":  {func(_ *bell, id book.ID) book.Command { return book.Complete{ID: id} }, false},
		"cancelled":  {func(_ *bell, id book.ID) book.Command { return book.Cancel{ID: id} }, false},
		"in the bin": {func(_ *bell, id book.ID) book.Command { return book.Delete{ID: id} }, false},
		"parked":     {func(_ *bell, id book.ID) book.Command { h := day.SomeTime(); return book.Edit{ID: id, Plan: &h} }, false},
		"due later": {func(_ *bell, id book.ID) book.Command {
			m := day.MustMoment("2026-11-25T10:00")
			return book.Edit{ID: id, Due: &m}
		}, false},
		"due earlier": {func(_ *bell, id book.ID) book.Command {
			m := day.MustMoment("2026-11-24T09:50")
			return book.Edit{ID: id, Due: &m}
		}, true},
		"no due":  {func(_ *bell, id book.ID) book.Command { m := day.Moment{}; return book.Edit{ID: id, Due: &m} }, false},
		"renamed": {func(_ *bell, id book.ID) book.Command { s := "y"; return book.Edit{ID: id, Title: &s} }, true},
		"no reminder": {func(b *bell, id book.ID) book.Command {
			return book.Remind{ID: id, Remove: []day.Reminder{reminder(b.t, "-PT1H")}}
		}, false},
		"one more": {func(b *bell, id book.ID) book.Command {
			return book.Remind{ID: id, Add: []day.Reminder{reminder(b.t, "-PT5M")}}
		}, true},
		"before a start": {func(_ *bell, id book.ID) book.Command {
			d := day.MustDate("2026-11-24")
			return book.Edit{ID: id, Start: &d}
		}, true},
	} {
		t.Run(name, func(t *testing.T) {
			b := newBell(t, "Europe/Lisbon", "2026-11-24T08:00")
			id := b.put("x", "2026-11-24T10:00", "-PT1H")
			b.wantRings("2026-11-24T09:00", "x")
			change := b.do(c.do(b, id))
			if open := len(b.open()) == 1; open != c.open {
				t.Errorf("open: %v", b.open())
			}
			b.undo(change)
			b.wantOpen("x")
			if told := b.ring(); len(told) != 0 {
				t.Errorf("undoing it rings %v again", told)
			}
		})
	}
}

func TestWhenItDoesNotRing(t *testing.T) {
	b := newBell(t, "Europe/Lisbon", "2026-11-24T09:30")
	b.put("set after its time", "2026-11-24T10:00", "-PT1H")
	b.wantRings("2026-11-24T10:00")
	moved := b.put("moved over its time", "2026-11-25T10:00", "-PT1H")
	due := day.MustMoment("2026-11-24T10:30")
	b.do(book.Edit{ID: moved, Due: &due})
	b.wantRings("2026-11-24T10:10")
	done := b.put("done and opened again", "2026-11-24T11:00", "-PT30M")
	b.do(book.Complete{ID: done})
	b.wantRings("2026-11-24T10:40")
	b.do(book.Reopen{ID: done})
	b.wantRings("2026-11-24T10:45")
	slip := b.do(book.Complete{ID: b.put("done by mistake", "2026-11-24T11:00", "-PT10M")})
	b.wantRings("2026-11-24T10:52")
	b.undo(slip) // its moment passed meanwhile: it is told late rather than not at all
	b.wantRings("2026-11-24T10:53", "done by mistake")
	note := b.do(book.Capture{Title: "a note", IsNote: true}).Todo().ID
	b.do(book.Remind{ID: note, Add: []day.Reminder{reminder(t, "2026-11-24T11:10")}})
	b.wantRings("2026-11-24T11:30")
}

// A repeat that is ticked rings again at its next date; what is kept of the tick never rings.
func TestRepeats(t *testing.T) {
	b := newBell(t, "Europe/Lisbon", "2026-11-23T08:00")
	id := b.do(book.Capture{Title: "Water the lamp", Due: day.MustMoment("2026-11-23T10:00"), Repeat: daily(),
		Reminders: []day.Reminder{reminder(t, "-PT1H"), reminder(t, "2026-11-23T08:30")}}).Todo().ID
	b.wantRings("2026-11-23T08:30", "Water the lamp")
	b.wantRings("2026-11-23T09:00", "Water the lamp")
	b.do(book.Complete{ID: id})
	b.wantOpen()
	b.wantRings("2026-11-24T08:30", "Water the lamp")
	b.wantRings("2026-11-24T09:00", "Water the lamp")
	b.do(book.Pause{ID: id})
	b.wantOpen()
	b.wantRings("2026-11-25T09:00")
}

func TestMissed(t *testing.T) {
	b := newBell(t, "Europe/Lisbon", "2026-11-01T09:00")
	b.put("two of them", "", "2026-11-09T09:00", "2026-11-10T09:00")
	b.put("too old", "", "2026-11-02T09:00")
	b.put("just now", "", "2026-11-10T11:59")
	b.now = b.clock().Instant(day.MustMoment("2026-11-10T12:00")) // nothing ran since
	b.restart()
	rings := b.ring()
	slices.SortFunc(rings, func(a, b *book.Ring) int { return a.At.Compare(b.At) })
	if len(rings) != 2 || !rings[0].Missed || rings[0].At.String() != "2026-11-10T09:00" || rings[1].Missed {
		t.Errorf("it rings %+v", rings)
	}
	b.restart()
	b.wantRings("2026-11-10T12:01")
	// Answering one answers what else of the to-do came.
	for _, r := range b.terms().Open(b.desk) {
		b.do(book.Acknowledge{Rings: []book.ID{r.ID}})
	}
	b.wantOpen()
}

func TestClockSetBack(t *testing.T) {
	b := newBell(t, "Europe/Lisbon", "2026-11-24T09:00")
	b.put("x", "", "2026-11-24T10:00", "2026-11-25T10:00")
	b.put("y", "", "2026-11-24T10:30")
	b.wantRings("2026-11-24T10:00", "x")
	b.wantRings("2026-11-24T09:30")
	b.restart()
	b.wantRings("2026-11-24T10:00")
	b.wantRings("2026-11-24T10:30", "y")
	b.wantRings("2026-12-24T10:30") // far ahead by mistake: all is too old there
	b.now = b.clock().Instant(day.MustMoment("2026-11-24T11:00"))
	b.restart() // as the scheduler does when the clock was set back
	b.wantRings("2026-11-25T10:00", "x")
}

func TestQuietHours(t *testing.T) {
	b := newBell(t, "Europe/Lisbon", "2026-11-24T21:00")
	b.rules.Reminders.Quiet = "22:00-07:00"
	x := b.put("x", "", "2026-11-24T22:00", "2026-11-24T23:00")
	b.put("y", "", "2026-11-25T06:59")
	b.wantRings("2026-11-24T22:00")
	b.do(book.Remind{ID: x, Add: []day.Reminder{reminder(t, "2026-11-25T12:00")}}) // which loses nothing
	b.wantRings("2026-11-24T23:00")
	b.restart()
	b.wantRings("2026-11-25T06:59")
	b.wantOpen()
	if got := b.at("2026-11-25T07:00"); len(got) != 2 || !slices.Contains(got, "x") || !slices.Contains(got, "y") {
		t.Errorf("at their end it rings %q", got)
	}
	for _, r := range b.terms().Open(b.desk) {
		if r.Missed || r.Todo == x && r.At.String() != "2026-11-24T23:00" {
			t.Errorf("it counts as missed, or is not the newest: %+v", r)
		}
	}
	b.wantRings("2026-11-25T07:01")
	// A pause that ends in quiet hours ends with them.
	b.rules.Reminders.Paused = "2026-11-25T23:00"
	b.now = b.clock().Instant(day.MustMoment("2026-11-25T08:00"))
	if end, ok := remind.Quiet(b.clock(), b.rules); !ok || b.clock().WallOf(end).String() != "2026-11-26T07:00" {
		t.Errorf("it is quiet until %v, %v", end, ok)
	}
	b.rules.Reminders = settings.Reminders{Quiet: "12:00-13:00"}
	for at, until := range map[string]string{"11:59": "", "12:00": "13:00", "12:59": "13:00", "13:00": ""} {
		b.now = b.clock().Instant(day.MustMoment("2026-11-26T" + at))
		end, ok := remind.Quiet(b.clock(), b.rules)
		if ok != (until != "") || ok && !strings.HasSuffix(b.clock().WallOf(end).String(), until) {
			t.Errorf("at %s it is quiet until %v, %v; want %q", at, end, ok, until)
		}
	}
}

func TestLater(t *testing.T) {
	b := newBell(t, "Europe/Lisbon", "2026-11-24T09:10")
	var got []string
	for _, l := range remind.Laters(b.clock(), b.rules) {
		got = append(got, l.Words+" "+b.clock().WallOf(l.Until).String())
	}
	want := []string{"In 10 minutes 2026-11-24T09:20", "In an hour 2026-11-24T10:10", "Tonight 2026-11-24T20:00", "Tomorrow 2026-11-25T09:00"}
	if !slices.Equal(got, want) {
		t.Errorf("%q", got)
	}
	b.now = b.clock().Instant(day.MustMoment("2026-11-24T20:00"))
	if l := remind.Laters(b.clock(), b.rules); len(l) != 3 || l[2].Words != "Tomorrow" {
		t.Errorf("in the evening: %+v", l)
	}
	b.put("x", "", "2026-11-24T20:10")
	b.wantRings("2026-11-24T20:10", "x")
	ring := b.terms().Open(b.desk)[0].ID
	for _, until := range []time.Time{b.now, b.now.Add(-time.Minute), b.now.AddDate(2, 0, 0)} {
		if _, err := b.try(book.RingLater{Rings: []book.ID{ring}, Until: until}); err == nil {
			t.Errorf("put off until %v", until)
		}
	}
	if _, err := b.try(book.Acknowledge{Rings: []book.ID{{1}}}); err == nil {
		t.Error("a ring that is not there was answered")
	}
	// Putting off is undone from the history: it is open again, and silent.
	c := b.do(book.RingLater{Rings: []book.ID{ring}, Until: b.now.Add(time.Hour)})
	b.undo(c)
	b.wantOpen("x")
	b.wantRings("2026-11-24T21:30")
}

// The sound is how a reminder is heard, and not which it is.
func TestSoundOfItsOwn(t *testing.T) {
	b := newBell(t, "Europe/Lisbon", "2026-11-24T09:00")
	id := b.put("x", "2026-11-24T11:00", "-PT1H;drip", "-PT30M")
	b.wantRings("2026-11-24T10:00", "x")
	if sound := b.terms().Open(b.desk)[0].Reminder.Sound; sound != "drip" {
		t.Errorf("it sounds %q", sound)
	}
	b.do(book.Remind{ID: id, Add: []day.Reminder{reminder(t, "-PT1H;kettle"), reminder(t, "-PT30M;none")}})
	if todo, _ := b.desk.Todo(id); len(todo.Reminders) != 2 || todo.Reminders[0].String() != "-PT1H;kettle" {
		t.Errorf("the reminders are %v", todo.Reminders)
	}
	b.wantRings("2026-11-24T10:10")
	b.wantOpen("x")
	b.wantRings("2026-11-24T10:30", "x")
	if _, err := b.try(book.Remind{ID: id, Add: []day.Reminder{reminder(t, "-PT5M;gong")}}); err == nil || !strings.Contains(err.Error(), "no sound “gong”") {
		t.Errorf("a sound that is none: %v", err)
	}
}

// What the slip says of reminders.
func TestForesee(t *testing.T) {
	b := newBell(t, "Europe/Lisbon", "2026-11-24T09:00")
	id := b.put("x", "2026-11-24T11:00", "-PT3H", "-PT1H", "2026-11-25T09:00", "-PT2H")
	foresee := func() (all []remind.Prospect) {
		todo, err := b.desk.Todo(id)
		if err != nil {
			t.Fatal(err)
		}
		for _, r := range todo.Reminders {
			prospect, _ := b.terms().Foresee(b.desk, todo, r)
			all = append(all, prospect)
		}
		return all
	}
	want := func(when string, prospects ...remind.Prospect) {
		t.Helper()
		if got := foresee(); !slices.Equal(got, prospects) {
			t.Errorf("%s: %v, want %v", when, got, prospects)
		}
	}
	// At nine the one of two hours before it comes at that very moment, and is over.
	want("at first", remind.Passed, remind.ToCome, remind.ToCome, remind.Passed)
	b.wantRings("2026-11-24T10:00", "x")
	want("after one rang", remind.Passed, remind.Rang, remind.ToCome, remind.Passed)
	parked, none := day.SomeTime(), day.Moment{}
	b.do(book.Edit{ID: id, Plan: &parked})
	want("parked", remind.Passed, remind.Rang, remind.Waiting, remind.Passed)
	b.do(book.Edit{ID: id, Due: &none})
	want("without a due", remind.Baseless, remind.Baseless, remind.Waiting, remind.Baseless)
	b.do(book.Complete{ID: id})
	want("done", remind.Baseless, remind.Baseless, remind.Over, remind.Baseless)
	b.now = b.now.AddDate(0, 0, 10)
	b.do(book.Reopen{ID: id})
	want("opened again", remind.Baseless, remind.Baseless, remind.Passed, remind.Baseless)
}

// Of two rings of one to-do the bell has the newer one, whichever was told last.
func TestNewestOfEach(t *testing.T) {
	b := newBell(t, "Europe/Lisbon", "2026-11-24T09:00")
	b.put("x", "", "2026-11-24T10:00", "2026-11-24T10:30")
	b.put("y", "", "2026-11-24T10:15")
	b.wantRings("2026-11-24T10:00", "x")
	b.wantRings("2026-11-24T10:15", "y")
	b.wantOpen("y", "x")
	b.wantRings("2026-11-24T10:30", "x")
	b.wantOpen("x", "y")
	if at := b.terms().Open(b.desk)[0].At.String(); at != "2026-11-24T10:30" {
		t.Errorf("of x it has the one of %s", at)
	}
	if _, ok := b.queue.Due(b.desk, b.terms(), false); ok {
		t.Error("when all has rung something is due")
	}
}

// What is a week old still rings, and no longer a moment after.
func TestOldest(t *testing.T) {
	for _, c := range []struct{ now, want string }{{"2026-12-01T10:00", "x"}, {"2026-12-01T10:01", ""}} {
		b := newBell(t, "Europe/Lisbon", "2026-11-24T09:00")
		b.put("x", "", "2026-11-24T10:00")
		b.now = b.clock().Instant(day.MustMoment(c.now))
		b.restart()
		if got := strings.Join(b.titles(b.ring()), " "); got != c.want {
			t.Errorf("at %s it rings %q, want %q", c.now, got, c.want)
		}
	}
}

// The reminders of a list that is archived wait until it is back.
func TestArchivedList(t *testing.T) {
	b := newBell(t, "Europe/Lisbon", "2026-11-24T09:00")
	shelf := b.do(book.AddShelf{Name: "Home"}).Shelves[0].After.ID
	list := b.do(book.AddList{Name: "Flat", Shelf: shelf}).Lists[0].After.ID
	b.do(book.Capture{Title: "x", List: list, Reminders: []day.Reminder{reminder(t, "2026-11-24T10:00")}})
	away, back := true, false
	b.do(book.EditList{ID: list, Archived: &away})
	if next, ok := b.queue.Next(); ok {
		t.Errorf("archived it rings at %v", next)
	}
	b.wantRings("2026-11-24T10:30")
	b.do(book.EditList{ID: list, Archived: &back})
	b.wantRings("2026-11-24T10:31", "x")
}

// From two minutes after its time on a ring counts as missed.
func TestLate(t *testing.T) {
	for seconds, missed := range map[int]bool{0: false, 119: false, 120: true, 121: true} {
		b := newBell(t, "Europe/Lisbon", "2026-11-24T09:00")
		b.put("x", "", "2026-11-24T10:00")
		b.now = b.clock().Instant(day.MustMoment("2026-11-24T10:00")).Add(time.Duration(seconds) * time.Second)
		if rings := b.ring(); len(rings) != 1 || rings[0].Missed != missed {
			t.Errorf("%d seconds late: %+v", seconds, rings)
		}
	}
}
