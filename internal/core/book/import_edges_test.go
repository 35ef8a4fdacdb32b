package book_test

import (
	"fmt"
	"strings"
	"testing"
	"time"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/repeat"
)

// Moments that come in: what is made or done in the future is so now, and what is the same stays.
func TestImportedMoments(t *testing.T) {
	d := newDesk(t)
	past, future, now := day.TimestampOf(d.now.Add(-time.Hour)), day.TimestampOf(d.now.Add(time.Hour)), day.TimestampOf(d.now)
	done := func(at day.Timestamp) func(*book.Incoming) {
		return func(in *book.Incoming) { in.Todo.Status, in.Todo.Completed = book.Completed, at }
	}
	made := func(at day.Timestamp) func(*book.Incoming) {
		return func(in *book.Incoming) { in.Todo.Created = at }
	}
	d.bring(coming("past", "x", done(past), made(past)), coming("future", "x", done(future), made(future)), coming("none", "x", done(0)), coming("now", "x", done(now), made(now)))
	for uid, want := range map[string]day.Timestamp{"past": past, "future": now, "none": now, "now": now} {
		if got := d.desk.ByUID(uid); got.Created != want || got.Completed != want || got.Status != book.Completed {
			t.Errorf("%s: made %v, done %v, %v; want %v", uid, got.Created, got.Completed, got.Status, want)
		}
	}
	d.now = d.now.Add(time.Hour)
	for _, c := range []struct {
		name string
		at   day.Timestamp
		said string
	}{{"told again", past, "same"}, {"without a moment", 0, "same"}, {"another", past - 1000, "status"}} {
		if _, said := d.bring(coming("past", "x", done(c.at))); said != c.said {
			t.Errorf("%s: %s; want %s", c.name, said, c.said)
		}
	}
	if _, said := d.bring(coming("past", "x")); !strings.Contains(said, "status") || !d.desk.ByUID("past").Completed.IsZero() {
		t.Errorf("opened: %s, %+v", said, d.desk.ByUID("past"))
	}
}

// Tags, people, lists and sections of what is there already.
func TestImportedNames(t *testing.T) {
	d := newDesk(t)
	person := func(name string, role book.Role, since string) func(*book.Incoming) {
		return func(in *book.Incoming) {
			in.Person, in.Todo.Person.Role = name, role
			if since != "" {
				in.Todo.Person.Since = day.MustDate(since)
			}
		}
	}
	in := func(list, section string) func(*book.Incoming) {
		return func(in *book.Incoming) { in.List, in.Section = list, section }
	}
	tags := func(names ...string) func(*book.Incoming) { return func(in *book.Incoming) { in.Tags = names } }
	first := coming("a", "x", person("Ines", book.Ask, ""), in("Loans", "May"), tags("calls", "quick"))
	d.bring(first, coming("sub", "y", func(in *book.Incoming) { in.Under = 0 }))
	if got := d.desk.ByUID("a").Person; got.Since != day.DateOf(d.now) {
		t.Errorf("since %v", got.Since)
	}
	for _, step := range []struct {
		name, said string
		item       book.Incoming
	}{
		{"told again", "same", first},
		{"names in capitals", "same", coming("a", "x", person("INES", book.Ask, ""), in("LOANS", "MAY"), tags("QUICK", "calls"))},
		{"another role", "person", coming("a", "x", person("Ines", book.WaitingOn, "2026-11-20"), in("Loans", "May"), tags("calls", "quick"))},
		{"another since alone", "same", coming("a", "x", person("Ines", book.WaitingOn, "2026-11-21"), in("Loans", "May"), tags("calls", "quick"))},
		{"another person", "person", coming("a", "x", person("Ada", book.WaitingOn, ""), in("Loans", "May"), tags("calls", "quick"))},
		{"nobody", "person", coming("a", "x", person("", 0, ""), in("Loans", "May"), tags("calls", "quick"))},
		{"one tag fewer", "tags", coming("a", "x", in("Loans", "May"), tags("quick"))},
		{"another tag", "tags", coming("a", "x", in("Loans", "May"), tags("letters"))},
		{"another section", "list", coming("a", "x", in("Loans", "June"), tags("letters"))},
		{"no section said", "same", coming("a", "x", in("Loans", ""), tags("letters"))},
		{"another list", "list", coming("a", "x", in("Labels", ""), tags("letters"))},
		{"no list said", "same", coming("a", "x", tags("letters"))},
		{"what it does not carry", "same", coming("a", "other", func(in *book.Incoming) { in.Carries = 0 })},
		{"a subtask keeps its list", "same", coming("sub", "y", in("Loans", ""))},
	} {
		if _, said := d.bring(step.item); said != step.said {
			t.Errorf("%s: %s; want %s", step.name, said, step.said)
		}
	}
	if n := len(d.desk.People()); n != 2 {
		t.Errorf("%d people", n)
	}
	if d.desk.ByUID("sub").List != d.desk.ByUID("a").List {
		t.Error("the subtask did not come along")
	}
	c, _ := d.bring(first, coming("b", "z"))
	if c.Says != "Brought in: 1 new, 1 changed" {
		t.Errorf("it says %q", c.Says)
	}
	if c, _ := d.bring(first); c.Says != "Brought in: nothing that was not there" {
		t.Errorf("it says %q", c.Says)
	}
	// A UID goes with its to-do for good.
	d.do(book.Delete{ID: d.desk.ByUID("b").ID})
	d.now = d.now.AddDate(0, 0, 40)
	d.do(book.EmptyBin{UpTo: day.TimestampOf(d.now)})
	if d.desk.ByUID("b") != nil {
		t.Error("a UID outlives its to-do")
	}
	for n, want := range map[int]string{book.MaxUID: "new", book.MaxUID + 1: "refused: The UID has 256 bytes; 255 is the most."} {
		if _, said := d.bring(coming(strings.Repeat("u", n), "x")); said != want {
			t.Errorf("a UID of %d: %s", n, said)
		}
	}
	many := make([]string, book.MaxTags+1)
	for i := range many {
		many[i] = fmt.Sprint("t", i)
	}
	if _, said := d.bring(coming("", "x", tags(many[:book.MaxTags]...)), coming("", "x", tags(many...))); said != fmt.Sprintf("new | refused: There are %d tags; %d is the most.", len(many), book.MaxTags) {
		t.Errorf("many tags: %s", said)
	}
}

// Repeats that come in stand at the occurrence they stood at, where the rule has it.
func TestImportedRepeats(t *testing.T) {
	d := newDesk(t)
	with := func(due, first, current, rule string) book.Incoming {
		return coming(rule+current, "x", func(in *book.Incoming) {
			in.Todo.Due = day.MustMoment(due)
			in.Todo.Repeat = &repeat.Repeat{Rule: repeat.MustParse(rule), First: day.MustDate(first), Ticks: 3}
			if current != "" {
				in.Todo.Repeat.Current = day.MustDate(current)
			}
		})
	}
	for name, c := range map[string]struct {
		item         book.Incoming
		due, current string
		ticks        int
	}{
		"where it stood":          {with("2026-12-08", "2026-11-24", "2026-12-08", "FREQ=WEEKLY"), "2026-12-08", "2026-12-08", 3},
		"moved by hand":           {with("2026-12-10", "2026-11-24", "2026-12-08", "FREQ=WEEKLY;INTERVAL=2"), "2026-12-10", "2026-12-08", 3},
		"a day the rule has not":  {with("2026-12-08", "2026-11-24", "2026-12-09", "FREQ=WEEKLY;INTERVAL=1"), "2026-11-24", "2026-11-24", 0},
		"with no present one":     {with("2026-12-01", "2026-12-01", "", "FREQ=MONTHLY"), "2026-12-01", "2026-12-01", 0},
		"a first that is not yet": {with("2026-12-01", "2026-12-02", "2026-12-02", "FREQ=DAILY;INTERVAL=4"), "2026-12-01", "2026-12-02", 3},
	} {
		_, said := d.bring(c.item)
		got := d.desk.ByUID(c.item.UID)
		if said != "new" || got.Repeat == nil || got.Due.String() != c.due || got.Repeat.Current.String() != c.current || int(got.Repeat.Ticks) != c.ticks {
			t.Errorf("%s: %s, due %v, %+v", name, said, got.Due, got.Repeat)
		}
	}
	bad := coming("never", "x", func(in *book.Incoming) {
		in.Todo.Due = day.MustMoment("2026-11-24")
		in.Todo.Repeat = &repeat.Repeat{Rule: repeat.MustParse("FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=30"), First: day.MustDate("2026-11-24")}
	})
	if _, said := d.bring(bad); !strings.HasPrefix(said, "refused: ") {
		t.Errorf("a rule that never happens: %s", said)
	}
	reminders := coming("reminders", "x", func(in *book.Incoming) {
		for i := range book.MaxReminders + 1 {
			in.Todo.Reminders = append(in.Todo.Reminders, day.ReminderBefore(i))
		}
	})
	if _, said := d.bring(reminders); !strings.HasPrefix(said, "refused: There are 21 reminders") {
		t.Errorf("many reminders: %s", said)
	}
}

// What comes in closed closes what is under it, as when it is ticked here; where something under it
// comes in open it stays open, and is not said to be changed.
func TestImportedClosedParents(t *testing.T) {
	d := newDesk(t)
	under := func(in *book.Incoming) { in.Under = 0 }
	done := func(in *book.Incoming) { in.Todo.Status = book.Completed }
	d.bring(coming("p", "parent"), coming("s", "sub", under), coming("n", "a note", under, func(in *book.Incoming) { in.Todo.IsNote = true }))
	if c, said := d.bring(coming("p", "parent", done), coming("s", "sub", under)); said != "same | same" || c.Says != "Brought in: nothing that was not there" {
		t.Errorf("with its open subtask: %s, %q", said, c.Says)
	}
	c, said := d.bring(coming("p", "parent", done))
	if said != "status" || c.Says != "Brought in: 1 changed, with 1 subtask" {
		t.Errorf("without its subtasks: %s, %q", said, c.Says)
	}
	if p, s, n := d.desk.ByUID("p"), d.desk.ByUID("s"), d.desk.ByUID("n"); p.Status != book.Completed || s.Status != book.Completed || s.Completed != p.Completed || !n.IsNote {
		t.Errorf("the parent is %v, its subtask %v", p.Status, s.Status)
	}
	if c, said := d.bring(coming("s", "sub", under)); said != "status" || c.Says != "Brought in: 1 changed. “parent” is open again too" || !d.desk.ByUID("p").Open() {
		t.Errorf("the subtask opened: %s, %q", said, c.Says)
	}
	if _, said := d.bring(coming("p", "parent", func(in *book.Incoming) { in.Todo.IsNote = true })); said != "refused: “parent” has subtasks, and a note has none. Move them out first." {
		t.Errorf("as a note: %s", said)
	}
}

// A series that is over keeps its rule when it comes in again; one that goes on ends where it is
// closed. An occurrence that is counted from when the last was done stays where it is, and what was
// picked for today and is done stays picked.
func TestImportedSeries(t *testing.T) {
	d := newDesk(t)
	today := day.DateOf(d.now)
	series := func(rule string, anchor repeat.Anchor) book.ID {
		return d.do(book.Capture{Title: rule, Due: day.Moment{Date: today}, Repeat: &repeat.Repeat{Rule: repeat.MustParse(rule), First: today, Anchor: anchor}}).Todo().ID
	}
	over := series("FREQ=DAILY;COUNT=1", repeat.Schedule)
	d.do(book.Complete{ID: over})
	late := series("FREQ=DAILY;INTERVAL=5", repeat.Completion)
	d.now = d.now.AddDate(0, 0, 3)
	d.do(book.Complete{ID: late})
	goesOn := series("FREQ=DAILY", repeat.Schedule)
	picked := d.do(book.Capture{Title: "picked"}).Todo().ID
	d.do(book.Pick{ID: picked})
	d.do(book.Complete{ID: picked})
	again := func(id book.ID, change ...func(*book.Incoming)) book.Incoming {
		row := *d.todo(id)
		return coming(id.String(), row.Title, append([]func(*book.Incoming){func(in *book.Incoming) { in.Todo = row }}, change...)...)
	}
	if _, said := d.bring(again(over), again(late), again(goesOn), again(picked)); said != "same | same | same | same" {
		t.Errorf("as they are: %s", said)
	}
	other := newDesk(t)
	other.now = d.now
	other.bring(again(over), again(late))
	if r := other.desk.ByUID(over.String()).Repeat; r == nil || r.Last != today {
		t.Errorf("elsewhere what is over has the repeat %v", r)
	}
	if got, want := other.desk.ByUID(late.String()), d.todo(late); got.Due != want.Due || got.Repeat.Current != want.Repeat.Current || want.Repeat.Current != today.AddDays(8) {
		t.Errorf("elsewhere it is due on %v, here on %v", got.Due, want.Due)
	}
	if _, said := d.bring(again(goesOn, func(in *book.Incoming) { in.Todo.Status = book.Completed })); d.todo(goesOn).Repeat != nil {
		t.Errorf("closed: %s", said)
	}
}

// What came in and repeats is known by its UID still when its latest tick is taken back in Done.
func TestTickTakenBackKeepsTheUID(t *testing.T) {
	d := newDesk(t)
	c, _ := d.bring(book.Incoming{Under: -1, UID: "elsewhere", Todo: book.Todo{Title: "Rota"}})
	id := c.Todo().ID
	d.do(book.Edit{ID: id, Due: ptr(day.MustMoment("2026-11-25"))})
	d.do(book.ChangeRule{ID: id, Rule: repeat.MustParse("FREQ=WEEKLY"), First: day.MustDate("2026-11-25")})
	d.do(book.Complete{ID: id})
	d.do(book.Reopen{ID: d.desk.Records(id)[0].ID})
	if got := d.desk.ByUID("elsewhere"); got == nil || got.ID != id || got.UID != "elsewhere" || got.Due.String() != "2026-11-25" {
		t.Errorf("it is known as %+v", got)
	}
	d.sound()
}
