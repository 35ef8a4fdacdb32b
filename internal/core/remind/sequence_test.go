package remind_test

import (
	"cmp"
	"flag"
	"fmt"
	"maps"
	"math/rand/v2"
	"slices"
	"strings"
	"testing"
	"time"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/remind"
)

var (
	sequences = flag.Int("sequences", 60, "random sequences of acts on reminders")
	seed      = flag.Uint64("seed", 0, "of the random sequences; 0 takes another each time")
)

// model says what rings by looking at every to-do each time, and remembers what did.
type model struct {
	from map[book.ID]time.Time     // since when the reminders of a to-do are as they are
	as   map[book.ID]string        // as they are
	rung map[string]bool           // what has come: to-do, reminder, wall time
	last map[book.ID]string        // of each to-do the one that is told
	when map[string]day.Moment     // its wall time
	of   map[string]day.Reminder   // its reminder
	is   map[string]book.RingState // what became of it
	off  map[string]time.Time      // until when it is put off
}

func newModel() *model {
	return &model{map[book.ID]time.Time{}, map[book.ID]string{}, map[string]bool{}, map[book.ID]string{}, map[string]day.Moment{}, map[string]day.Reminder{}, map[string]book.RingState{}, map[string]time.Time{}}
}

func (m *model) copy() *model {
	return &model{maps.Clone(m.from), maps.Clone(m.as), maps.Clone(m.rung), maps.Clone(m.last), maps.Clone(m.when), maps.Clone(m.of), maps.Clone(m.is), maps.Clone(m.off)}
}

func wantsRing(t *book.Todo) bool {
	return t.Status.Open() && t.Deleted.IsZero() && !t.IsNote && t.Plan.String() != "parked"
}

// wall is when a reminder comes; base and hours as 2-model.md says, by other means.
func (m *model) wall(b *bell, t *book.Todo, r day.Reminder) (at time.Time, ok bool) {
	base := t.Due
	if base.IsZero() {
		if slot, minutes := t.Plan.Slot(); minutes > 0 {
			base = day.Moment{Date: t.Plan.First(), Time: slot}
		} else if !t.Start.IsZero() {
			base = day.Moment{Date: t.Start}
		}
	}
	if !r.At.IsZero() {
		base = r.At
	}
	if base.IsZero() {
		return at, false
	}
	text := base.Date.String() + "T09:00"
	if base.HasTime() {
		text = base.String()
	}
	at, err := time.ParseInLocation("2006-01-02T15:04", text, time.UTC) // the zone of these sequences
	if err != nil {
		b.t.Fatal(err)
	}
	return at.Add(-time.Duration(r.Before) * time.Minute), true
}

// follow notes which to-dos have other reminders, or other moments to come before, than they
// had.
func (m *model) follow(b *bell) {
	for t := range b.desk.All() {
		var parts []string
		for _, r := range t.Reminders {
			parts = append(parts, r.String())
		}
		was, known := m.as[t.ID]
		is := fmt.Sprint(t.Open(), "|", t.RemindedOf(), "|", strings.Join(parts, " "))
		m.as[t.ID] = is
		if !known || was == is {
			if !known {
				m.from[t.ID] = b.now
			}
			continue
		}
		before, after := strings.Split(was, "|"), strings.Split(is, "|")
		added := slices.ContainsFunc(parts, func(p string) bool { return !slices.Contains(strings.Fields(before[2]), p) })
		if before[1] != after[1] || before[0] == "false" && after[0] == "true" || added {
			m.from[t.ID] = b.now
		}
	}
}

func key(id book.ID, r day.Reminder, wall string) string {
	return id.String() + " " + r.String() + " " + wall
}

func (m *model) stands(b *bell, t *book.Todo, k string) bool {
	at, ok := m.wall(b, t, m.of[k])
	return ok && wantsRing(t) && slices.Contains(t.Reminders, m.of[k]) && b.clock().WallOf(at).Compare(m.when[k]) <= 0
}

// ring returns what is told by now.
func (m *model) ring(b *bell) (told []string) {
	_, quiet := remind.Quiet(b.clock(), b.rules)
	tell := func(t *book.Todo, k string) {
		if m.is[k] = book.Muted; !quiet {
			m.is[k] = book.Rung
			told = append(told, t.Title+" "+m.of[k].String()+" "+m.when[k].String())
		}
		delete(m.off, k)
	}
	for t := range b.desk.All() {
		if !wantsRing(t) {
			continue
		}
		var newest string
		var newestAt time.Time
		come := false
		for _, r := range t.Reminders {
			at, ok := m.wall(b, t, r)
			if !ok || at.After(b.now) || !at.After(m.from[t.ID]) || b.now.Sub(at) > 7*24*time.Hour {
				continue
			}
			k := key(t.ID, r, b.clock().WallOf(at).String())
			if m.rung[k] {
				continue
			}
			m.rung[k], come = true, true
			m.when[k], m.of[k], m.is[k] = b.clock().WallOf(at), r, book.Answered
			if newest == "" || !at.Before(newestAt) {
				newest, newestAt = k, at
			}
		}
		mine := slices.DeleteFunc(slices.Collect(maps.Keys(m.is)), func(k string) bool { return !strings.HasPrefix(k, t.ID.String()) || !m.stands(b, t, k) })
		slices.SortFunc(mine, func(a, b string) int { return cmp.Or(m.when[b].Compare(m.when[a]), strings.Compare(a, b)) })
		// What was put off rings whatever else comes; what is muted is stood for by anything else.
		for _, k := range mine {
			if m.is[k] == book.PutOff && !m.off[k].After(b.now) {
				tell(t, k)
				if !quiet {
					come = true
				}
			}
		}
		if newest != "" {
			tell(t, newest)
		}
		if quiet {
			continue
		}
		if at := slices.IndexFunc(mine, func(k string) bool { return m.is[k] == book.Muted }); at >= 0 && !come {
			tell(t, mine[at])
			come = true
		}
		for k := range m.is { // what rings stands for all that was muted
			if come && strings.HasPrefix(k, t.ID.String()) && m.is[k] == book.Muted {
				m.is[k] = book.Answered
			}
		}
	}
	slices.Sort(told)
	return told
}

func TestSequencesAgainstASimpleModel(t *testing.T) {
	s := *seed
	if s == 0 {
		s = rand.Uint64()
	}
	t.Logf("seed %d", s)
	rings, acts := 0, 0
	for n := range *sequences {
		rings, acts = playSequence(t, rand.New(rand.NewPCG(s, uint64(n))), rings, acts)
		if t.Failed() {
			t.Fatalf("in sequence %d of seed %d", n, s)
		}
	}
	t.Logf("%d rings in %d acts", rings, acts)
	if rings < *sequences {
		t.Errorf("only %d rings in %d sequences", rings, *sequences)
	}
}

func playSequence(t *testing.T, r *rand.Rand, rings, acts int) (int, int) {
	b := newBell(t, "UTC", "2026-11-24T09:00")
	m := newModel()
	if r.IntN(2) == 0 {
		b.rules.Reminders.Quiet = "22:00-07:00"
	}
	var todos []book.ID
	var trail []string
	latest := b.now // clocks that are set back and forth do not count for what was set ahead of them
	pump := func() {
		want := m.ring(b)
		var got []string
		for _, ring := range b.ring() {
			title := "gone"
			if todo, err := b.desk.Todo(ring.Todo); err == nil {
				title = todo.Title
			}
			got = append(got, title+" "+ring.Reminder.String()+" "+ring.At.String())
		}
		slices.Sort(got)
		rings += len(got)
		if !slices.Equal(got, want) {
			t.Fatalf("at %v it rings\n%q\nwant\n%q\nafter\n%s", b.now, got, want, strings.Join(trail, "\n"))
		}
	}
	moment := func() day.Moment {
		return b.clock().WallOf(b.now.Add(time.Duration(r.IntN(1600)-200) * time.Minute))
	}
	some := func() day.Reminder {
		if r.IntN(2) == 0 {
			return day.ReminderBefore([]int{0, 10, 60, 24 * 60}[r.IntN(4)])
		}
		return day.ReminderAt(moment())
	}
	var last *book.Change
	var before *model
	act := func(cmd book.Command) {
		pump()
		saved := m.copy()
		c, err := b.desk.Do(b.env(), cmd)
		trail = append(trail, fmt.Sprintf("%s %T %+v: %v", b.now.Format("02 15:04"), cmd, cmd, err))
		if err != nil {
			return
		}
		b.apply(c)
		if _, ok := cmd.(book.Capture); ok {
			todos = append(todos, c.Todo().ID)
		}
		m.follow(b)
		last, before = c, saved
	}
	for range 60 {
		acts++
		var id book.ID
		if len(todos) > 0 {
			id = todos[r.IntN(len(todos))]
		}
		switch n := r.IntN(26); {
		case n < 3 || len(todos) == 0:
			cmd := book.Capture{Title: fmt.Sprintf("t%d", len(todos)), Reminders: []day.Reminder{some()}}
			if r.IntN(2) == 0 {
				cmd.Due = moment()
			} else if r.IntN(2) == 0 {
				cmd.Due.Date = moment().Date
			}
			act(cmd)
		case n < 5:
			due := moment()
			act(book.Edit{ID: id, Due: &due})
		case n < 6:
			plan := []day.Horizon{day.SomeTime(), {}, day.OnDay(moment().Date)}[r.IntN(3)]
			if r.IntN(2) == 0 {
				at := moment()
				plan, _ = day.OnDay(at.Date).WithSlot(at.Time, 30)
			}
			act(book.Edit{ID: id, Plan: &plan})
		case n < 7:
			act(book.Remind{ID: id, Add: []day.Reminder{some()}})
		case n < 8:
			if todo, err := b.desk.Todo(id); err == nil && len(todo.Reminders) > 0 {
				act(book.Remind{ID: id, Remove: todo.Reminders[:1]})
			}
		case n < 10:
			act([]book.Command{book.Complete{ID: id}, book.Reopen{ID: id}, book.Cancel{ID: id}, book.Delete{ID: id}, book.Restore{ID: id}}[r.IntN(5)])
		case n < 12:
			if open := b.terms().Open(b.desk); len(open) > 0 {
				ring := open[r.IntN(len(open))]
				k := key(ring.Todo, ring.Reminder, ring.At.String())
				pump() // what else of it has rung is answered as well
				for other := range m.is {
					if strings.HasPrefix(other, ring.Todo.String()) && m.is[other] == book.Rung {
						m.is[other] = book.Answered
					}
				}
				if r.IntN(2) == 0 {
					m.is[k] = book.Answered
					act(book.Acknowledge{Rings: []book.ID{ring.ID}})
				} else {
					until := b.now.Add(time.Duration(1+r.IntN(900)) * time.Minute)
					m.is[k], m.off[k] = book.PutOff, until
					act(book.RingLater{Rings: []book.ID{ring.ID}, Until: until})
				}
				last = nil
			}
		case n < 13 && last != nil:
			pump()                         // what has come meanwhile stays
			for _, d := range last.Todos { // since when they are as they are comes back with them
				todo := d.After
				if todo == nil {
					todo = d.Before
				}
				if from, known := before.from[todo.ID]; known {
					m.from[todo.ID], m.as[todo.ID] = from, before.as[todo.ID]
				}
			}
			back, err := b.desk.Invert(b.env(), last, book.Undo)
			trail = append(trail, fmt.Sprintf("%s undo: %v", b.now.Format("02 15:04"), err))
			if err != nil {
				return rings, acts // what is in its way is another test's
			}
			b.apply(back)
			m.follow(b)
			last = nil
		case n < 14:
			b.restart()
		case n < 15 && b.now.Equal(latest):
			b.now = b.now.Add(-time.Duration(r.IntN(300)) * time.Minute)
			b.restart()
			last = nil
		default:
			b.now = b.now.Add(time.Duration(r.IntN(500)) * time.Minute)
			if r.IntN(20) == 0 {
				b.now = b.now.AddDate(0, 0, 9)
			}
			if b.now.After(latest) {
				latest = b.now
			}
		}
		pump()
	}
	return rings, acts
}
