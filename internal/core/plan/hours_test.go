package plan_test

import (
	"fmt"
	"math/rand/v2"
	"slices"
	"strings"
	"testing"
	"time"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/plan"
	"tincup/internal/core/settings"
	"tincup/internal/core/term"
	"tincup/internal/seed"
)

// on lays out one day of a desk: its week's day, and the capacity with some busy events.
func (d *desk) on(date string, events ...plan.Event) (*plan.Capacity, *plan.WeekDay) {
	d.t.Helper()
	k := plan.NewCapacity(d.clock, plan.CalendarOf(settings.Settings{}, term.WorkingHours), plan.NewAgenda(events, d.clock, 30).Busy(), 30)
	var all []plan.Lying
	for _, t := range d.desk.Open() {
		if work, cup := plan.WorkOf(d.desk, t, 30), plan.CupOf(d.desk, d.clock, t); !cup.IsZero() {
			all = append(all, plan.Lying{Todo: t, On: cup, Work: work, Due: plan.DueOf(d.desk, d.clock, t), Within: plan.NewTree(d.desk, d.clock, 30).HourAbove(t)})
		}
	}
	of := day.MustDate(date)
	w := plan.NewWeek(k, plan.WeekStart(of, false), all)
	for i := range w.Days {
		if w.Days[i].Date == of {
			return k, &w.Days[i]
		}
	}
	d.t.Fatalf("%s is not ahead", date)
	return nil, nil
}

func (d *desk) meeting(title, at string, minutes int) plan.Event {
	from := d.clock.Instant(day.MustMoment(at))
	return plan.Event{Title: title, From: from, To: from.Add(time.Duration(minutes) * time.Minute), Busy: true}
}

func (d *desk) deep(id book.ID) {
	kind := term.Deep
	d.do(book.Edit{ID: id, Concentration: &kind})
}

// Hours as "title from–to" in their order, then what has none.
func (d *desk) hours(date string, events ...plan.Event) string {
	k, on := d.on(date, events...)
	hours, without := plan.LayHours(d.desk, k, on)
	var lines []string
	at := func(m plan.Minute) string { return m.Time().In(d.clock.Zone).Format("15:04") }
	for _, h := range hours {
		lines = append(lines, fmt.Sprintf("%s %s–%s", h.Todo.Title, at(h.At.From), at(h.At.To)))
	}
	for _, l := range without {
		lines = append(lines, l.Todo.Title+" none")
	}
	return strings.Join(lines, ", ")
}

// Wednesday 25 November has 09:00–12:30 and 13:30–17:30, its peak is 10:00–12:00.
func TestLayHours(t *testing.T) {
	for _, ex := range []struct {
		name string
		set  func(d *desk) []plan.Event
		want string
	}{
		{"one after the other, the sooner due first", func(d *desk) []plan.Event {
			d.put("label", 60, "", "2026-11-25", book.ID{})
			d.put("call", 20, "2026-11-25T11:00", "", book.ID{})
			return nil
		}, "call 09:00–09:20, label 09:20–10:20"},
		{"deep work into the peak, the rest around it", func(d *desk) []plan.Event {
			d.put("mail", 45, "", "2026-11-25", book.ID{})
			d.deep(d.put("write", 90, "", "2026-11-25", book.ID{}))
			d.put("tidy", 30, "", "2026-11-25", book.ID{})
			return nil
		}, "mail 09:00–09:45, write 10:00–11:30, tidy 11:30–12:00"},
		{"deep work that is longer than the peak lies where it fits", func(d *desk) []plan.Event {
			d.deep(d.put("write", 150, "", "2026-11-25", book.ID{}))
			return nil
		}, "write 09:00–11:30"},
		{"not over events, slots and lunch", func(d *desk) []plan.Event {
			d.put("call", 30, "", "2026-11-25T10:00/PT30M", book.ID{})
			d.put("sort", 70, "", "2026-11-25", book.ID{})
			d.put("hang", 120, "", "2026-11-25", book.ID{})
			return []plan.Event{d.meeting("round", "2026-11-25T11:30", 45)}
		}, "sort 13:30–14:40, hang 14:40–16:40"},
		{"what nothing is free for", func(d *desk) []plan.Event {
			d.put("all day", 300, "", "2026-11-25", book.ID{})
			d.put("short", 10, "", "2026-11-25", book.ID{})
			return nil
		}, "short 09:00–09:10, all day none"},
		{"one after another", func(d *desk) []plan.Event {
			oak := d.put("oak", 0, "", "2026-11-25", book.ID{})
			d.put("saw", 200, "", "", oak)
			last := d.put("plane", 20, "2026-11-25T09:30", "", oak)
			inOrder := true
			d.do(book.Edit{ID: oak, InOrder: &inOrder})
			d.deep(last)
			return nil
		}, "saw 09:00–12:20, plane 13:30–13:50"},
		{"subtasks in their order, whichever is due first, deep or high", func(d *desk) []plan.Event {
			oak := d.put("oak", 0, "", "2026-11-25", book.ID{})
			d.put("saw", 60, "", "", oak)
			d.deep(d.put("plane", 20, "2026-11-25T10:00", "", oak))
			wax := d.put("wax", 0, "", "", oak)
			d.put("rub", 10, "2026-11-25T09:10", "", wax)
			return nil
		}, "saw 09:00–10:00, plane 10:00–10:20, rub 10:20–10:30"},
		{"a subtask that has no room leaves the others theirs", func(d *desk) []plan.Event {
			oak := d.put("oak", 0, "", "2026-11-25", book.ID{})
			d.put("saw", 300, "", "", oak)
			d.put("plane", 20, "", "", oak)
			return nil
		}, "plane 09:00–09:20, saw none"},
		{"a peak that makes others late is left", func(d *desk) []plan.Event {
			d.deep(d.put("write", 120, "", "2026-11-25", book.ID{}))
			d.put("send", 90, "2026-11-25T10:30", "", book.ID{})
			return nil
		}, "send 09:00–10:30, write 10:30–12:30"},
		{"the sooner deadline before the higher priority, and that before none", func(d *desk) []plan.Event {
			free := d.put("free", 20, "", "2026-11-25", book.ID{})
			d.put("later", 20, "2026-11-27", "2026-11-25", book.ID{})
			on := d.put("on the day", 20, "2026-11-25", "2026-11-25", book.ID{})
			d.put("past", 20, "2026-11-23", "2026-11-25", book.ID{})
			high, low := book.High, book.Low
			d.do(book.Edit{ID: free, Priority: &high})
			d.do(book.Edit{ID: on, Priority: &low})
			return nil
		}, "past 09:00–09:20, on the day 09:20–09:40, later 09:40–10:00, free 10:00–10:20"},
		{"behind one that has its time", func(d *desk) []plan.Event {
			oak := d.put("oak", 0, "", "2026-11-25", book.ID{})
			d.put("saw", 30, "", "2026-11-25T14:00/PT30M", oak)
			d.put("plane", 20, "", "", oak)
			d.put("oil", 300, "", "", oak)
			d.put("hang", 5, "", "", oak)
			inOrder := true
			d.do(book.Edit{ID: oak, InOrder: &inOrder})
			return nil
		}, "plane 14:30–14:50, oil none, hang none"},
		{"behind one that waits for someone", func(d *desk) []plan.Event {
			oak := d.put("oak", 0, "", "2026-11-25", book.ID{})
			saw := d.put("saw", 30, "", "2026-11-25", oak)
			d.put("plane", 20, "", "", oak)
			who, inOrder := d.do(book.AddPerson{Name: "Ines"}).People[0].After.ID, true
			d.do(book.Edit{ID: saw, Person: &book.Involved{ID: who, Role: book.WaitingOn}})
			d.do(book.Edit{ID: oak, InOrder: &inOrder})
			return nil
		}, "plane none"},
		{"parts of what has its time", func(d *desk) []plan.Event {
			oak := d.put("oak", 0, "", "2026-11-25T09:00/PT90M", book.ID{})
			d.put("saw", 30, "", "", oak)
			d.put("call", 30, "", "2026-11-25", book.ID{})
			return nil
		}, "call 10:30–11:00"},
		{"waiting ones take no time", func(d *desk) []plan.Event {
			wait := d.put("wait", 40, "", "2026-11-25", book.ID{})
			who := d.do(book.AddPerson{Name: "Ines"}).People[0].After.ID
			d.do(book.Edit{ID: wait, Person: &book.Involved{ID: who, Role: book.WaitingOn}})
			return nil
		}, ""},
	} {
		d := newDesk(t)
		events := ex.set(d)
		if got := d.hours("2026-11-25", events...); got != ex.want {
			t.Errorf("%s: %s, want %s", ex.name, got, ex.want)
		}
	}
	// Today begins now, rounded up, and a time that is over is none.
	d := newDesk(t)
	d.clock.Now = d.clock.Now.Add(73 * time.Minute) // 10:13
	d.put("passed", 30, "", "2026-11-24T09:00/PT30M", book.ID{})
	d.put("yesterday's", 20, "", "2026-11-23T15:00/PT30M", book.ID{})
	if got := d.hours("2026-11-24"); got != "passed 10:15–10:45, yesterday's 10:45–11:05" {
		t.Errorf("today: %s", got)
	}
	// One that ends this very minute is over too.
	d = newDesk(t)
	d.put("just over", 30, "", "2026-11-24T08:30/PT30M", book.ID{})
	if got := d.hours("2026-11-24"); got != "just over 09:00–09:30" {
		t.Errorf("just over: %s", got)
	}
	k, on := d.on("2026-11-24", d.meeting("round", "2026-11-24T08:00", 60))
	if clashes := k.Clashes(on.Lying, plan.NewAgenda([]plan.Event{d.meeting("round", "2026-11-24T08:00", 60)}, d.clock, 30)); len(clashes) > 0 {
		t.Errorf("what is over clashes: %v", clashes)
	}
}

// Of random days: no hour is laid over another, a slot, an event, or outside working hours and
// now; each is as long as its work; and what has none would fit nowhere that is left.
func TestLayHoursOfRandomDays(t *testing.T) {
	r := rand.New(rand.NewPCG(seed.New(t), 31))
	for range *cases {
		d := newDesk(t)
		d.clock.Now = d.clock.Now.Add(time.Duration(r.IntN(600)) * time.Minute)
		date := []string{"2026-11-24", "2026-11-25", "2026-11-28", "2026-11-29"}[r.IntN(4)]
		for i := range r.IntN(12) {
			due, planned := "", date
			if r.IntN(3) == 0 {
				due = fmt.Sprintf("%sT%02d:%02d", date, 8+r.IntN(11), 15*r.IntN(4))
			}
			if r.IntN(4) == 0 {
				planned = fmt.Sprintf("%sT%02d:%02d/PT%dM", date, 8+r.IntN(11), 15*r.IntN(4), 15+15*r.IntN(6))
			}
			id := d.put(fmt.Sprint(i), 5+r.IntN(150), due, planned, book.ID{})
			if r.IntN(3) == 0 {
				d.deep(id)
			}
		}
		var events []plan.Event
		for range r.IntN(4) {
			events = append(events, d.meeting("round", fmt.Sprintf("%sT%02d:%02d", date, 8+r.IntN(10), 5*r.IntN(12)), 10+r.IntN(120)))
		}
		k, on := d.on(date, events...)
		hours, without := plan.LayHours(d.desk, k, on)
		free := map[plan.Minute]bool{}
		for _, s := range on.Free {
			for m := s.From; m < s.To; m++ {
				free[m] = true
			}
		}
		want := 0
		for _, l := range on.Lying {
			s, has := plan.SlotOf(d.clock, l.Todo)
			if has && s.To > plan.MinuteOf(d.clock.Now) {
				for m := s.From; m < s.To; m++ {
					free[m] = false
				}
			} else {
				want++
			}
		}
		if len(hours)+len(without) != want {
			t.Fatalf("%d hours and %d without, of %d", len(hours), len(without), want)
		}
		for _, h := range hours {
			if h.At.Minutes() != h.Work.Minutes {
				t.Fatalf("%s takes %d, its hour %d", h.Todo.Title, h.Work.Minutes, h.At.Minutes())
			}
			for m := h.At.From; m < h.At.To; m++ {
				if !free[m] {
					t.Fatalf("%s lies over something at %v", h.Todo.Title, m.Time())
				}
				free[m] = false
			}
		}
		longest := 0
		for _, s := range on.Free {
			run := 0
			for m := s.From; m < s.To; m++ {
				if !free[m] {
					run = 0
				} else if run > 0 || m%5 == 0 {
					run++
				}
				longest = max(longest, run)
			}
		}
		for _, l := range without {
			if l.Work.Minutes <= longest {
				t.Fatalf("%s takes %d and has no hour, where %d are free", l.Todo.Title, l.Work.Minutes, longest)
			}
		}
		if !slices.IsSortedFunc(hours, func(a, b plan.Hour) int { return int(a.At.From - b.At.From) }) {
			t.Fatal("hours are not in order")
		}
	}
}

// On the days on which the clocks change, what is proposed as a time of the wall means the
// moment that was free, in each of a few zones.
func TestLayHoursWhereClocksChange(t *testing.T) {
	for _, c := range []struct{ zone, date string }{
		{"Europe/Lisbon", "2026-10-25"}, {"Europe/Lisbon", "2027-03-28"}, {"America/New_York", "2026-11-01"}, {"America/New_York", "2027-03-14"},
		{"Australia/Lord_Howe", "2027-04-04"}, {"Australia/Lord_Howe", "2026-10-04"},
	} {
		zone, err := time.LoadLocation(c.zone)
		if err != nil {
			t.Fatal(err)
		}
		for shift := range 12 {
			d := newDesk(t)
			d.clock.Zone = zone
			on := day.MustDate(c.date)
			d.clock.Now = d.clock.StartOf(on.AddDays(-1))
			hours, err := day.ParseHours("00:00-06:00")
			if err != nil {
				t.Fatal(err)
			}
			d.do(book.HoursOn{Day: on, Hours: &hours})
			d.put("fixed", 30, "", fmt.Sprintf("%sT%02d:%02d/PT30M", c.date, shift/2, shift%2*30), book.ID{})
			for i := range 5 {
				d.put(fmt.Sprint(i), 25+10*i, "", c.date, book.ID{})
			}
			chosen, _ := d.desk.Settings()
			k := plan.NewCapacity(d.clock, plan.CalendarOf(chosen, term.WorkingHours), nil, 5)
			var all []plan.Lying
			for _, todo := range d.desk.Open() {
				all = append(all, plan.Lying{Todo: todo, On: day.OnDay(on), Work: plan.WorkOf(d.desk, todo, 30)})
			}
			w := plan.NewWeek(k, on, all)
			laid, without := plan.LayHours(d.desk, k, &w.Days[0])
			if len(laid)+len(without) != 5 || len(laid) < 4 {
				t.Errorf("%s in %s: %d laid, %d without", c.date, c.zone, len(laid), len(without))
			}
			var taken []plan.Stretch
			for i := range w.Days[0].Lying {
				if s, has := plan.SlotOf(d.clock, w.Days[0].Lying[i].Todo); has {
					taken = append(taken, s)
				}
			}
			for _, h := range laid {
				planned := *h.Todo
				planned.Plan = h.Horizon(d.clock)
				s, has := plan.SlotOf(d.clock, &planned)
				if !has || s != h.At {
					t.Errorf("%s in %s: %v means %v, and %v was free", c.date, c.zone, planned.Plan, s, h.At)
				}
				for _, o := range taken {
					if max(s.From, o.From) < min(s.To, o.To) {
						t.Errorf("%s in %s: %v lies over %v", c.date, c.zone, s, o)
					}
				}
				taken = append(taken, s)
			}
		}
	}
}

func TestClashes(t *testing.T) {
	d := newDesk(t)
	d.put("call", 30, "", "2026-11-25T10:00/PT30M", book.ID{})
	d.put("label", 60, "", "2026-11-25T10:15/PT1H", book.ID{})
	d.put("sort", 60, "", "2026-11-25T14:00/PT1H", book.ID{})
	d.put("fine", 60, "", "2026-11-25T15:30/PT30M", book.ID{})
	d.put("loose", 60, "", "2026-11-25", book.ID{})
	round := d.meeting("round", "2026-11-25T14:30", 60)
	free := d.meeting("open house", "2026-11-25T09:00", 600)
	free.Busy = false
	events := []plan.Event{free, round}
	k, on := d.on("2026-11-25", events...)
	var got []string
	for _, c := range k.Clashes(on.Lying, plan.NewAgenda(events, d.clock, 30)) {
		got = append(got, c.Todo.Title+" with "+c.With)
	}
	if want := []string{"label with call", "sort with round"}; !slices.Equal(got, want) {
		t.Errorf("clashes: %v, want %v", got, want)
	}
	// Once its time is over, nothing is in its way; a minute before it is.
	early := d.meeting("early round", "2026-11-25T10:00", 60)
	for now, want := range map[string]bool{"2026-11-25T10:29": true, "2026-11-25T10:30": false} {
		d.clock.Now = d.clock.Instant(day.MustMoment(now))
		k, on := d.on("2026-11-25", early)
		clashes := k.Clashes(on.Lying, plan.NewAgenda([]plan.Event{early}, d.clock, 30))
		if got := slices.ContainsFunc(clashes, func(c plan.Clash) bool { return c.Todo.Title == "call" }); got != want {
			t.Errorf("at %s the call clashes: %t", now, got)
		}
	}
}

// A day on which far more lies than it can hold is laid as far as it goes, a project's subtasks in
// their order, and each of the others is named as having no hour.
func TestLayHoursOfFarTooMuch(t *testing.T) {
	const many = 1500
	d := newDesk(t)
	top := d.put("project", 0, "", "2026-11-25", book.ID{})
	for i := range many {
		d.put(fmt.Sprint(i), 5, "", "", top)
	}
	k, on := d.on("2026-11-25")
	hours, none := plan.LayHours(d.desk, k, on)
	if len(hours) != 90 || len(hours)+len(none) != many { // 7 h 30, five minutes each
		t.Fatalf("%d have an hour and %d none", len(hours), len(none))
	}
	for i, h := range hours {
		if h.Todo.Title != fmt.Sprint(i) {
			t.Fatalf("“%s” is the %dth in turn", h.Todo.Title, i)
		}
	}
}
