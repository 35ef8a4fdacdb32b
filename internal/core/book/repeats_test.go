package book_test

import (
	"errors"
	"fmt"
	"reflect"
	"strings"
	"testing"
	"time"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/repeat"
)

// weekly puts in a to-do that repeats by a rule.
func (d *desk) repeating(title, rule, first string, change ...func(*book.Capture)) book.ID {
	d.t.Helper()
	c := book.Capture{Title: title, Due: day.MustMoment(first),
		Repeat: &repeat.Repeat{Rule: repeat.MustParse(rule), First: day.MustMoment(first).Date}}
	for _, f := range change {
		f(&c)
	}
	return d.do(c).Todo().ID
}

func (d *desk) today(date string) {
	d.now = day.Clock{Zone: time.UTC}.Instant(day.MustMoment(date + "T09:00"))
}

func (d *desk) sub(parent book.ID, title string) book.ID {
	return d.do(book.Capture{Title: title, Parent: parent}).Todo().ID
}

// state is every row of a Book that can be told apart, without revisions.
func state(b *book.Desk) map[string]string {
	rows := map[string]string{}
	for t := range b.All() {
		row := *t
		row.Revision, row.Changed = 0, 0
		r := "-"
		if row.Repeat != nil {
			r = fmt.Sprintf("%+v %s", *row.Repeat, row.Repeat.Rule)
			r = r[strings.Index(r, "First"):]
			row.Repeat = nil
		}
		note, _ := b.Note(t)
		rows[t.ID.String()] = fmt.Sprintf("%+v %s %s", row, r, note)
	}
	return rows
}

func later(a, b day.Date) day.Date {
	if a.After(b) {
		return a
	}
	return b
}

func TestWhatTheRuleDrives(t *testing.T) {
	for name, c := range map[string]struct {
		capture book.Capture
		want    string // due, plan and start after a tick on 30 November
	}{
		"due":              {book.Capture{Due: day.MustMoment("2026-11-30T16:00"), Plan: day.MustHorizon("2026-11-27"), Start: day.MustDate("2026-11-25")}, "2026-12-07T16:00  2026-12-02"},
		"plan":             {book.Capture{Plan: day.MustHorizon("2026-11-30"), Start: day.MustDate("2026-11-25")}, " 2026-12-07 2026-12-02"},
		"slot":             {book.Capture{Plan: day.MustHorizon("2026-11-30T14:00/PT30M")}, " 2026-12-07T14:00/PT30M "},
		"week":             {book.Capture{Plan: day.MustHorizon("2026-W49")}, " 2026-W50 "},
		"start":            {book.Capture{Start: day.MustDate("2026-11-30")}, "  2026-12-07"},
		"parked and start": {book.Capture{Start: day.MustDate("2026-11-30"), Plan: day.SomeTime()}, "  2026-12-07"},
		"nothing":          {book.Capture{}, "2026-12-07  "},
	} {
		t.Run(name, func(t *testing.T) {
			d := newDesk(t)
			cmd := c.capture
			cmd.Title = "Water the seedlings"
			cmd.Repeat = &repeat.Repeat{Rule: repeat.MustParse("FREQ=WEEKLY;BYDAY=MO"), First: day.MustDate("2026-11-30")}
			id := d.do(cmd).Todo().ID
			d.today("2026-11-30")
			d.do(book.Complete{ID: id})
			got := d.todo(id)
			if s := got.Due.String() + " " + got.Plan.String() + " " + got.Start.String(); s != c.want {
				t.Errorf("%q, want %q", s, c.want)
			}
		})
	}
}

func TestLeadPostponeAndMove(t *testing.T) {
	d := newDesk(t)
	id := d.repeating("Loan agreement", "FREQ=MONTHLY;BYMONTHDAY=15", "2026-12-15", func(c *book.Capture) { c.Repeat.Lead = 14 })
	if got := d.todo(id); got.Start.String() != "2026-12-01" {
		t.Errorf("it surfaces on %s", got.Start)
	}
	c := d.do(book.Edit{ID: id, Due: ptr(day.MustMoment("2026-12-20"))})
	if got := d.todo(id); got.Start.String() != "2026-12-06" || got.Repeat.Current.String() != "2026-12-15" || !strings.Contains(c.Says, "The next one stays Fri 15 Jan 2027") {
		t.Errorf("postponed: start %s, %q", got.Start, c.Says)
	}
	c = d.do(book.Edit{ID: id, Due: ptr(day.MustMoment("2027-01-15"))})
	if !strings.Contains(c.Says, "passes over the one of Fri 15 Jan 2027") {
		t.Errorf("postponed onto the next: %q", c.Says)
	}
	c = d.do(book.Edit{ID: id, Due: ptr(day.MustMoment("2027-03-20"))})
	if !strings.Contains(c.Says, "passes over 3, from Fri 15 Jan 2027 on") {
		t.Errorf("postponed far: %q", c.Says)
	}
	d.do(book.Complete{ID: id})
	if got := d.todo(id); got.Due.String() != "2027-01-15" || got.Start.String() != "2027-01-01" {
		t.Errorf("the next one moved with it: %s, start %s", got.Due, got.Start)
	}
	c = d.do(book.MoveRepeat{ID: id, To: day.MustDate("2027-01-18")})
	if got := d.todo(id); got.Due.String() != "2027-01-18" || got.Repeat.Rule.String() != "FREQ=MONTHLY;BYMONTHDAY=18" || got.Repeat.Ticks != 1 {
		t.Errorf("all coming ones: due %s, %s (%q)", got.Due, got.Repeat.Rule, c.Says)
	}
	d.do(book.ChangeRule{ID: id, Rule: repeat.MustParse("FREQ=WEEKLY;BYDAY=FR"), First: day.MustDate("2027-01-20")})
	if got := d.todo(id); got.Due.String() != "2027-01-22" || got.Repeat.Lead != 0 {
		t.Errorf("changed: %s %+v", got.Due, got.Repeat)
	}
	d.do(book.EndRepeat{ID: id})
	if got := d.todo(id); got.Repeat != nil || got.Due.String() != "2027-01-22" {
		t.Errorf("ended: %+v", got)
	}
}

// What is released moves with its start where the rule drives that, and without it where
// the start is a date of its own.
func TestStartsOfPostponedRepeats(t *testing.T) {
	d := newDesk(t) // on Tuesday 24 November 2026
	ahead := d.repeating("Loan agreement", "FREQ=MONTHLY;BYMONTHDAY=25", "2026-11-25", func(c *book.Capture) { c.Repeat.Lead = 14 })
	own := d.repeating("Rota", "FREQ=MONTHLY;BYMONTHDAY=25", "2026-11-25", func(c *book.Capture) { c.Start = day.MustDate("2026-11-20") })
	ids := []book.ID{ahead, own}
	d.do(book.Postpone{IDs: ids, By: book.ByDays(7), Release: ids})
	for id, want := range map[book.ID]string{ahead: "2026-11-18 to 2026-12-02", own: "2026-11-20 to 2026-12-02"} {
		if got := d.todo(id); got.Start.String()+" to "+got.Due.String() != want {
			t.Errorf("“%s” lies from %s to %s, want %s", got.Title, got.Start, got.Due, want)
		}
	}
}

// What is let go does not come back, nor when it is opened again.
func TestCancelledRepeats(t *testing.T) {
	d := newDesk(t)
	id := d.repeating("Rota", "FREQ=WEEKLY", "2026-11-25")
	d.do(book.Cancel{ID: id})
	if got := d.todo(id); got.Repeat != nil || got.Status != book.Cancelled {
		t.Errorf("let go: %s, %v", got.Status, got.Repeat)
	}
	d.do(book.Reopen{ID: id})
	if got := d.todo(id); got.Repeat != nil || !got.Open() {
		t.Errorf("opened again: %s, %v", got.Status, got.Repeat)
	}
	d = newDesk(t)
	id = d.repeating("Rota", "FREQ=WEEKLY", "2026-11-25")
	gone := d.do(book.Cancel{ID: id})
	if err := d.undo(gone); err != "" || d.todo(id).Repeat == nil || !d.todo(id).Open() {
		t.Errorf("undone: %v, %v", d.todo(id).Repeat, err)
	}
}

// A rule that ends after so many times counts those of its own pattern from its first date on;
// counted from when it is done, it begins anew where the rule is changed.
func TestTicksOfAChangedRule(t *testing.T) {
	for name, c := range map[string]struct {
		anchor repeat.Anchor
		rule   string
		ticks  int32
	}{
		"by its dates":            {repeat.Schedule, "FREQ=WEEKLY;COUNT=5", 1},
		"from done, without end":  {repeat.Completion, "FREQ=WEEKLY", 1},
		"from done, with a count": {repeat.Completion, "FREQ=WEEKLY;COUNT=5", 0},
	} {
		d := newDesk(t)
		id := d.repeating("Rota", "FREQ=DAILY", "2026-11-24", func(cmd *book.Capture) { cmd.Repeat.Anchor = c.anchor })
		d.do(book.Complete{ID: id})
		d.do(book.ChangeRule{ID: id, Rule: repeat.MustParse(c.rule), Anchor: c.anchor})
		if got := d.todo(id).Repeat.Ticks; int32(got) != c.ticks {
			t.Errorf("%s: %d ticks, want %d", name, got, c.ticks)
		}
	}
}

func TestTheLastOccurrence(t *testing.T) {
	d := newDesk(t)
	id := d.repeating("Stretch", "FREQ=DAILY;COUNT=2", "2026-11-24")
	sub := d.sub(id, "Roll out the mat")
	d.do(book.Complete{ID: id})
	c := d.do(book.Complete{ID: id}) // the next day's, early
	if got := d.todo(id); got.Status != book.Completed || d.todo(sub).Status != book.Completed || !strings.Contains(c.Says, "last one") {
		t.Errorf("after the last: %s, %q", got.Status, c.Says)
	}
	d.do(book.Reopen{ID: id})
	if got := d.todo(id); !got.Open() || got.Repeat == nil {
		t.Errorf("opened again: %+v", got)
	}
	skip := d.repeating("Fetch the key", "FREQ=DAILY;COUNT=1", "2026-11-24")
	d.do(book.Skip{ID: skip})
	if got := d.todo(skip); got.Status != book.Cancelled {
		t.Errorf("the last one skipped: %s", got.Status)
	}
}

func TestReopeningARecord(t *testing.T) {
	d := newDesk(t)
	id := d.repeating("Rota", "FREQ=WEEKLY;BYDAY=TU", "2026-11-24", func(c *book.Capture) { c.Notes = "who opens up" })
	sub := d.sub(id, "Ring round")
	deep := d.sub(sub, "Find the numbers")
	d.do(book.Complete{ID: deep})
	before, size := state(d.desk), d.desk.Len()
	d.do(book.Complete{ID: id})
	record := d.desk.Records(id)[0].ID
	c := d.do(book.Reopen{ID: record})
	if got := state(d.desk); d.desk.Len() != size || !reflect.DeepEqual(got, before) {
		t.Errorf("the tick is not undone:\n%v\nwas\n%v", got, before)
	}
	back, err := d.desk.Invert(d.env(), c, book.Undo)
	if err != nil {
		t.Fatal(err)
	}
	d.book.Apply(back)
	if got := d.todo(id); got.Due.String() != "2026-12-01" || len(d.desk.Records(id)) != 1 {
		t.Errorf("undone: %s, %d records", got.Due, len(d.desk.Records(id)))
	}
	d.do(book.Edit{ID: sub, Title: ptr("Ring everyone")}) // something has changed since
	record = d.desk.Records(id)[0].ID
	d.do(book.Reopen{ID: record})
	got := d.todo(record)
	if !got.Open() || got.Repeat != nil || got.Due.String() != "2026-11-24" || d.todo(id).Due.String() != "2026-12-01" || len(d.desk.Subtasks(record)) != 1 {
		t.Errorf("a to-do of its own: %+v", got)
	}
	if kept := d.desk.Subtasks(record)[0]; !kept.Open() || kept.Title != "Ring round" {
		t.Errorf("its subtask: %+v", kept)
	}
	older := d.repeating("Sweep", "FREQ=DAILY", "2026-11-24")
	d.do(book.Complete{ID: older})
	d.do(book.Complete{ID: older})
	records := d.desk.Records(older)
	d.do(book.Reopen{ID: records[1].ID})
	if !d.todo(records[1].ID).Open() || d.todo(older).Repeat.Ticks != 2 {
		t.Error("an older record undid a later tick")
	}
}

func TestClosingAParent(t *testing.T) {
	d := newDesk(t)
	parent := d.capture("Opening evening")
	a := d.sub(parent, "Invitations")
	b := d.sub(a, "Addresses")
	rep := d.repeating("Chase replies", "FREQ=DAILY", "2026-11-24", func(c *book.Capture) { c.Parent = a })
	c := d.do(book.Complete{ID: parent})
	for _, id := range []book.ID{parent, a, b, rep} {
		if got := d.todo(id); got.Status != book.Completed || got.Repeat != nil {
			t.Errorf("%s is %s and repeats %v", got.Title, got.Status, got.Repeat)
		}
	}
	back, err := d.desk.Invert(d.env(), c, book.Undo)
	if err != nil {
		t.Fatal(err)
	}
	d.book.Apply(back)
	if !d.todo(b).Open() || d.todo(rep).Repeat == nil {
		t.Error("undo left subtasks closed")
	}
	d.do(book.Complete{ID: parent})
	c = d.do(book.Reopen{ID: b})
	if !d.todo(a).Open() || !d.todo(parent).Open() || d.todo(rep).Open() || !strings.Contains(c.Says, "“Invitations” is open again too. “Opening evening” is open again too") {
		t.Errorf("reopening a subtask: %q", c.Says)
	}
	d.do(book.Complete{ID: parent})
	c = d.do(book.Capture{Title: "Flowers", Parent: parent})
	if !d.todo(parent).Open() || !strings.Contains(c.Says, "open again too") {
		t.Errorf("a new subtask under a closed parent: %q", c.Says)
	}
	d.do(book.Delete{ID: parent})
	if got := d.todo(b); got.Deleted.IsZero() {
		t.Error("a subtask stayed out of the bin")
	}
	d.do(book.Restore{ID: b})
	if got := d.todo(b); !got.Parent.IsZero() || !got.Deleted.IsZero() {
		t.Errorf("restored by itself: %+v", got)
	}
	d.do(book.Restore{ID: parent})
	if !d.todo(a).Deleted.IsZero() || len(d.desk.Subtasks(parent)) != 2 {
		t.Errorf("restored with %d subtasks", len(d.desk.Subtasks(parent)))
	}
	list := d.list("Night Signals")
	d.do(book.Move{ID: parent, List: list})
	if d.todo(a).List != list {
		t.Error("a subtask stayed behind")
	}
	d.do(book.Move{ID: a, List: book.ID{}})
	if got := d.todo(a); !got.Parent.IsZero() || !got.List.IsZero() {
		t.Errorf("a subtask moved to another list: %+v", got)
	}
}

func TestPausedStandsStill(t *testing.T) {
	d := newDesk(t)
	id := d.repeating("Water the seedlings", "FREQ=DAILY;INTERVAL=2", "2026-11-20")
	d.do(book.Pause{ID: id})
	if len(d.desk.Open()) != 0 || len(d.desk.Paused()) != 1 {
		t.Error("a paused to-do is still among the open ones")
	}
	d.today("2026-12-11")
	c := d.do(book.Resume{ID: id})
	if got := d.todo(id); got.Due.String() != "2026-12-12" || got.Repeat.Missed != 0 || len(d.desk.Open()) != 1 {
		t.Errorf("goes on with %s, %q", got.Due, c.Says)
	}
}

func TestRepeatRefusals(t *testing.T) {
	d := newDesk(t)
	plain := d.capture("Ring the framer")
	rep := d.repeating("Rota", "FREQ=WEEKLY", "2026-11-24")
	d.sub(rep, "Ring round")
	d.do(book.Complete{ID: rep})
	record := d.desk.Records(rep)[0].ID
	kept := d.desk.Subtasks(record)[0].ID
	done := d.capture("Old")
	d.do(book.Complete{ID: done})
	person := d.do(book.AddPerson{Name: "Registrar", Email: "registrar@harbour.example"}).People[0].After.ID
	for name, c := range map[string]struct {
		cmd         book.Command
		field, says string
	}{
		"skip what does not repeat":     {book.Skip{ID: plain}, "repeat", "does not repeat"},
		"pause what does not repeat":    {book.Pause{ID: plain}, "repeat", "does not repeat"},
		"resume what does not repeat":   {book.Resume{ID: plain}, "repeat", "does not repeat"},
		"a rule that is missing":        {book.ChangeRule{ID: plain}, "repeat", "needs a rule"},
		"a rule that never happens":     {book.ChangeRule{ID: plain, Rule: repeat.MustParse("FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=30;SKIP=OMIT"), First: day.MustDate("9999-03-01")}, "repeat", "never happens"},
		"a lead too long":               {book.ChangeRule{ID: plain, Rule: repeat.MustParse("FREQ=YEARLY"), Lead: 400}, "repeat", "0 to 366"},
		"weekdays after done":           {book.ChangeRule{ID: plain, Rule: repeat.MustParse("FREQ=WEEKLY;BYDAY=MO"), Anchor: repeat.Completion}, "repeat", "only an interval"},
		"a rule for a record":           {book.ChangeRule{ID: record, Rule: repeat.MustParse("FREQ=WEEKLY")}, "id", "record"},
		"cancelling a record":           {book.Cancel{ID: record}, "id", "record"},
		"moving what a record holds":    {book.Move{ID: kept}, "id", "stays as it was"},
		"ticking what a record holds":   {book.Complete{ID: kept}, "id", "stays as it was"},
		"opening what a record holds":   {book.Reopen{ID: kept}, "id", "stays as it was"},
		"deleting what a record holds":  {book.Delete{ID: kept}, "id", "stays as it was"},
		"a subtask of a record":         {book.Capture{Title: "x", Parent: record}, "parent", "takes no subtasks"},
		"a subtask of nothing":          {book.Capture{Title: "x", Parent: book.ID{9}}, "parent", "no to-do"},
		"moving to no date":             {book.MoveRepeat{ID: rep}, "to", "missing"},
		"an estimate too long":          {book.Capture{Title: "x", Estimate: 6001}, "estimate", "6001 minutes"},
		"an estimate below none":        {book.Edit{ID: plain, Estimate: ptr(-1)}, "estimate", "-1 minutes"},
		"a person unknown":              {book.Capture{Title: "x", Person: book.ID{9}, Role: book.Ask}, "person", "no person"},
		"a person twice":                {book.AddPerson{Name: "registrar"}, "name", "exists already"},
		"an e-mail that is none":        {book.AddPerson{Name: "Tomás", Email: "tomas at harbour"}, "email", "not an e-mail"},
		"a name of two lines":           {book.EditPerson{ID: person, Name: ptr("a\nb")}, "name", "line break"},
		"a tree under what comes after": {book.CaptureTree{Items: []book.TreeItem{{Capture: book.Capture{Title: "x"}, Under: 0}}}, "lines", "after it"},
		"an empty tree":                 {book.CaptureTree{}, "lines", "0 to-dos"},
	} {
		d.now = d.now.Add(time.Minute)
		_, err := d.desk.Do(d.env(), c.cmd)
		var rule *book.RuleError
		if !errors.As(err, &rule) || rule.Field != c.field || !strings.Contains(rule.Reason, c.says) {
			t.Errorf("%s: %v, want %s: %s", name, err, c.field, c.says)
		}
	}
}

func TestTreesPeopleAndReminders(t *testing.T) {
	d := newDesk(t)
	list := d.list("Night Signals")
	person := d.do(book.AddPerson{Name: "Registrar", Email: "registrar@harbour.example", Phone: "+351 000 000"}).People[0].After.ID
	c := d.do(book.CaptureTree{Items: []book.TreeItem{
		{Capture: book.Capture{Title: "Loans", List: list, Done: true}, Under: -1}, // kept open by what is under it
		{Capture: book.Capture{Title: "Agreement", Done: true}, Under: 0},
		{Capture: book.Capture{Title: "Crates", Estimate: 90, Person: person, Role: book.WaitingOn, Reminders: []day.Reminder{day.ReminderBefore(60)}}, Under: 0},
		{Capture: book.Capture{Title: "Measure"}, Under: 2},
	}})
	if c.Says != "Put in: 4 to-dos, 1 of them done" || len(c.Todos) != 4 {
		t.Errorf("it says %q", c.Says)
	}
	top := d.todo(c.Todos[0].After.ID)
	subs := d.desk.Subtasks(top.ID)
	if len(subs) != 2 || subs[0].Title != "Agreement" || subs[0].Open() || subs[1].List != list || !top.Open() || len(d.desk.Subtasks(subs[1].ID)) != 1 {
		t.Fatalf("the tree is %+v", subs)
	}
	crates := subs[1]
	if crates.Person.Role != book.WaitingOn || crates.Person.Since.String() != "2026-11-24" || crates.Estimate != 90 {
		t.Errorf("crates: %+v", crates)
	}
	d.today("2026-11-30")
	d.do(book.Edit{ID: crates.ID, Person: &book.Involved{ID: person, Role: book.WaitingOn}, Estimate: ptr(0)})
	if got := d.todo(crates.ID); got.Person.Since.String() != "2026-11-24" || got.Estimate != 0 {
		t.Errorf("the same role again began anew: %+v", got.Person)
	}
	d.do(book.Remind{ID: crates.ID, Add: []day.Reminder{day.ReminderAt(day.MustMoment("2026-12-01T09:00"))}, Remove: []day.Reminder{day.ReminderBefore(60)}})
	if got := d.todo(crates.ID).Reminders; len(got) != 1 || got[0].String() != "2026-12-01T09:00" {
		t.Errorf("reminders: %v", got)
	}
	edit := d.do(book.EditPerson{ID: person, Email: ptr("loans@harbour.example")})
	back, err := d.desk.Invert(d.env(), edit, book.Undo)
	if err != nil {
		t.Fatal(err)
	}
	d.book.Apply(back)
	if p, _ := d.desk.Person(person); p.Email != "registrar@harbour.example" {
		t.Errorf("after undo: %+v", p)
	}
}
