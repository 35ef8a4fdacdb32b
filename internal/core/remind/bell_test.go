package remind_test

import (
	"testing"
	"time"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/remind"
	"tincup/internal/core/repeat"
	"tincup/internal/core/settings"
)

// bell is a desk whose reminders ring, with a clock that is set by hand.
type bell struct {
	t     *testing.T
	book  *book.Book
	desk  *book.Desk
	queue *remind.Queue
	now   time.Time
	zone  *time.Location
	rules settings.Settings
	ids   int
}

func newBell(t *testing.T, zone, now string) *bell {
	t.Helper()
	in, err := time.LoadLocation(zone)
	if err != nil {
		t.Fatal(err)
	}
	b, desk := book.Alone(book.MemoryNotes{})
	bell := &bell{t: t, book: b, desk: desk, zone: in}
	bell.now = bell.clock().Instant(day.MustMoment(now))
	bell.restart()
	return bell
}

func (b *bell) clock() day.Clock { return day.Clock{Now: b.now, Zone: b.zone} }

func (b *bell) terms() remind.Terms {
	return remind.Terms{Clock: b.clock(), Hour: b.rules.ReminderHour()}
}

func (b *bell) env() book.Env {
	return book.Env{Clock: b.clock(), NewID: func() book.ID {
		b.ids++
		return book.ID{13: byte(b.ids >> 16), 14: byte(b.ids >> 8), 15: byte(b.ids)}
	}}
}

// restart forgets what is in memory alone.
func (b *bell) restart() { b.queue = remind.NewQueue(b.desk, b.terms()) }

func (b *bell) apply(c *book.Change) {
	if !c.Empty() {
		b.book.Apply(c)
		b.queue.Follow(b.desk, b.terms(), c)
	}
}

// ring tells of what is due, as the scheduler does, and returns what was told.
func (b *bell) ring() (told []*book.Ring) {
	b.t.Helper()
	for n := 0; ; n++ {
		end, quiet := remind.Quiet(b.clock(), b.rules)
		at, some := b.queue.Next()
		if (!some || at.After(b.now)) && (quiet || !b.queue.Muted()) {
			return told
		}
		if quiet && !end.After(b.now) || n > 3 {
			b.t.Fatalf("at %v it rings without end; quiet until %v", b.now, end)
		}
		c, ok := b.queue.Due(b.desk, b.terms(), quiet)
		if !ok { // what was due is too old
			continue
		}
		change, err := b.desk.Do(b.env(), c)
		if err != nil {
			b.t.Fatal(err)
		}
		b.apply(change)
		for _, d := range change.Rings {
			if d.After != nil && d.After.State() == book.Rung {
				told = append(told, d.After)
			}
		}
	}
}

// try carries a command out once all has rung that came before it.
func (b *bell) try(cmd book.Command) (*book.Change, error) {
	b.t.Helper()
	b.ring()
	c, err := b.desk.Do(b.env(), cmd)
	if err == nil {
		b.apply(c)
	}
	return c, err
}

func (b *bell) do(cmd book.Command) *book.Change {
	b.t.Helper()
	c, err := b.try(cmd)
	if err != nil {
		b.t.Fatalf("%T: %v", cmd, err)
	}
	return c
}

func (b *bell) undo(c *book.Change) {
	b.t.Helper()
	b.ring()
	back, err := b.desk.Invert(b.env(), c, book.Undo)
	if err != nil {
		b.t.Fatal(err)
	}
	b.apply(back)
}

// at sets the clock to a wall time and returns the titles of what rings then.
func (b *bell) at(wall string) []string {
	b.t.Helper()
	b.now = b.clock().Instant(day.MustMoment(wall))
	return b.titles(b.ring())
}

func (b *bell) titles(rings []*book.Ring) []string {
	titles := []string{}
	for _, r := range rings {
		t, err := b.desk.Todo(r.Todo)
		if err != nil {
			b.t.Fatal(err)
		}
		titles = append(titles, t.Title)
	}
	return titles
}

// open are the titles of what waits for an answer.
func (b *bell) open() []string { return b.titles(b.terms().Open(b.desk)) }

func (b *bell) put(title, due string, reminders ...string) book.ID {
	b.t.Helper()
	cmd := book.Capture{Title: title}
	if due != "" {
		cmd.Due = day.MustMoment(due)
	}
	for _, text := range reminders {
		cmd.Reminders = append(cmd.Reminders, reminder(b.t, text))
	}
	return b.do(cmd).Todo().ID
}

func reminder(t *testing.T, text string) day.Reminder {
	t.Helper()
	r, err := day.ParseReminder(text)
	if err != nil {
		t.Fatal(err)
	}
	return r
}

func daily() *repeat.Repeat { return &repeat.Repeat{Rule: repeat.MustParse("FREQ=DAILY")} }
