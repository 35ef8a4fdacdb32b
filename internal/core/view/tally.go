package view

import (
	"time"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
)

// Tally is a Survey that is kept: it is brought up to date from each change, in
// proportion to what the change touches, and counted anew where time alone changes it.
// It is for one goroutine.
type Tally struct {
	// since is the clock of the last full count; until is when time changes an answer.
	since day.Clock
	until time.Time
	// shares are what each open to-do adds, next the next action of each project by the
	// to-do at its top.
	shares map[book.ID]share
	next   map[book.ID]book.ID
	cups   map[day.Horizon]int
	sums   sums
	lists  map[book.ID]int
	tags   map[book.ID]int
	people map[book.ID]int
}

// share is what one open to-do adds to the counts.
type share struct {
	list, person book.ID
	tags         []book.ID
	load         day.Horizon
	sums         sums
}

// sums are the plain numbers.
type sums struct{ toSort, today, overdue, within, waiting, projects, ready, handful int32 }

func (s *sums) add(o sums, by int32) {
	s.toSort += by * o.toSort
	s.today += by * o.today
	s.overdue += by * o.overdue
	s.within += by * o.within
	s.waiting += by * o.waiting
	s.projects += by * o.projects
	s.ready += by * o.ready
	s.handful += by * o.handful
}

// NewTally counts everything.
func NewTally(b *book.Desk, c day.Clock) *Tally {
	t := &Tally{}
	t.count(b, c)
	return t
}

// Survey returns the counts as of now but those of one's own views, which OwnCounts
// counts. Its maps are the Tally's own, and good until the next change of the Book.
func (t *Tally) Survey(b *book.Desk, c day.Clock) *Survey {
	if c.Zone != t.since.Zone || c.DayStart != t.since.DayStart || c.Now.Before(t.since.Now) || !c.Now.Before(t.until) {
		t.count(b, c)
	}
	s := &Survey{Today: c.Today(), Rail: rail(c.Today()), Lists: t.lists, Tags: t.tags, People: t.people, Handful: int(t.sums.handful)}
	later := map[day.Horizon]int{}
	for h, n := range t.cups {
		if i := s.place(h); i >= 0 {
			s.Rail[i].Count = n
		} else if h.Precision() == day.Month && h.Later(s.Today) {
			later[h] = n
		}
	}
	s.goOn(later)
	s.Counts = map[Name]int{Cup: int(t.sums.toSort), Today: int(t.sums.today), Overdue: int(t.sums.overdue), WithinAWeek: int(t.sums.within),
		Bin: len(b.Bin()), Waiting: int(t.sums.waiting), Projects: int(t.sums.projects), Ready: int(t.sums.ready)}
	return s
}

// count counts everything anew.
func (t *Tally) count(b *book.Desk, c day.Clock) {
	now := at(c)
	*t = Tally{since: c, until: NextChange(b, c), shares: make(map[book.ID]share, len(b.Open())), next: map[book.ID]book.ID{},
		cups: map[day.Horizon]int{}, lists: map[book.ID]int{}, tags: map[book.ID]int{}, people: map[book.ID]int{}}
	for _, top := range openParents(b) {
		t.findNext(b, now, top)
	}
	for _, todo := range b.Open() {
		t.put(now.shareOf(b, todo, t.isNext(b, todo)), todo.ID)
	}
}

// findNext notes the next action of a project that stands under no other.
func (t *Tally) findNext(b *book.Desk, now moment, top *book.Todo) {
	delete(t.next, top.ID)
	if !top.Parent.IsZero() || !top.Open() || top.Paused() {
		return
	}
	if action := b.Next(top, now.ready); action != nil {
		t.next[top.ID] = action.ID
	}
}

// isNext reports whether a subtask is the next action of the project at its top.
func (t *Tally) isNext(b *book.Desk, todo *book.Todo) bool {
	return !todo.Parent.IsZero() && t.next[topOf(b, todo).ID] == todo.ID
}

// topOf is the to-do that one stands under and that stands under none; itself where it
// is no subtask.
func topOf(b *book.Desk, t *book.Todo) *book.Todo {
	for !t.Parent.IsZero() {
		parent, err := b.Todo(t.Parent)
		if err != nil {
			break
		}
		t = parent
	}
	return t
}

func (n moment) shareOf(b *book.Desk, t *book.Todo, isNext bool) share {
	s := share{list: t.List, tags: t.Tags}
	one := func(is bool) int32 {
		if is {
			return 1
		}
		return 0
	}
	if t.Person.Role != book.NoRole {
		s.person = t.Person.ID
	}
	s.load, _ = n.load(t)
	s.sums.waiting = one(t.Person.Role == book.WaitingOn)
	s.sums.ready = one(n.readyIfOpen(t) && (t.Parent.IsZero() || isNext))
	s.sums.projects = one(b.HasSubtasks(t.ID))
	s.sums.handful = one(t.Handful == n.today)
	if t.List.IsZero() {
		key, _ := n.cup(t)
		s.sums.toSort = one(key.kind == ToSort)
	}
	if key, ok := n.inToday(t); ok {
		s.sums.today = 1
		s.sums.overdue = one(key.kind == Late || key.kind == Handful && n.overdue(t))
	}
	s.sums.within = one(!t.Due.IsZero() && !n.DayOfMoment(t.Due).After(n.today.AddDays(7)))
	return s
}

func (t *Tally) put(s share, id book.ID) {
	t.shares[id] = s
	t.weigh(s, 1)
}

func (t *Tally) take(id book.ID) {
	if s, counted := t.shares[id]; counted {
		t.weigh(s, -1)
		delete(t.shares, id)
	}
}

func (t *Tally) weigh(s share, by int32) {
	t.sums.add(s.sums, by)
	for _, tag := range s.tags {
		bump(t.tags, tag, int(by))
	}
	if !s.list.IsZero() {
		bump(t.lists, s.list, int(by))
	}
	if !s.person.IsZero() {
		bump(t.people, s.person, int(by))
	}
	if !s.load.IsZero() {
		bump(t.cups, s.load, int(by))
	}
}

// bump counts up or down, and lets go of what is nothing.
func bump[K comparable](counts map[K]int, key K, by int) {
	if counts[key] += by; counts[key] == 0 {
		delete(counts, key)
	}
}

// Follow brings the counts up to date with a change that has just been applied to the
// Book. What a to-do adds may follow from any other of its project: these are counted
// with it.
func (t *Tally) Follow(b *book.Desk, c *book.Change) {
	for _, d := range c.Lists {
		if d.Before != nil && d.After != nil && d.Before.Away() != d.After.Away() {
			t.count(b, t.since)
			return
		}
	}
	now := at(t.since)
	touched, tops := map[book.ID]bool{}, map[book.ID]*book.Todo{}
	reach := func(id book.ID) {
		if todo, err := b.Todo(id); err == nil {
			top := topOf(b, todo)
			tops[top.ID] = top
		}
	}
	for _, d := range c.Todos {
		for _, state := range []*book.Todo{d.Before, d.After} {
			if state == nil {
				continue
			}
			touched[state.ID] = true
			reach(state.ID)
			if !state.Parent.IsZero() {
				reach(state.Parent)
			}
		}
		if d.After != nil {
			t.until = Sooner(t.since, d.After, t.until)
		}
	}
	for id, top := range tops {
		t.findNext(b, now, top)
		touched[id] = true
		for sub := range b.OfList(id) { // all that stands under it
			touched[sub.ID] = true
		}
	}
	for id := range touched {
		t.take(id)
		if todo, err := b.Todo(id); err == nil && b.IsOpen(todo) {
			t.put(now.shareOf(b, todo, t.isNext(b, todo)), id)
		} else if err != nil {
			delete(t.next, id)
		}
	}
}
