package view

import (
	"slices"
	"time"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/filter"
	"tincup/internal/core/plan"
	"tincup/internal/core/question"
	"tincup/internal/core/term"
)

// Tally is a Survey that is kept: it is brought up to date from each change, in
// proportion to what the change touches, and counted anew where time alone changes it.
// It is for one goroutine.
type Tally struct {
	// since is the clock of the last full count; until is when time changes an answer.
	since day.Clock
	until time.Time
	// badges are the views that ship and have one; own are those of one's own that are
	// counted, and unkept of them those that ask what stands in notes, which lie on the
	// disk, or for slack, which any change alters: these are counted each time.
	badges   []*fitted
	own      []ownView
	unkept   []saved
	asksTags bool // one of own does
	// shares are what each to-do adds that adds anything.
	shares  map[book.ID]share
	cups    map[day.Horizon]int
	loads   map[day.Horizon]Loads
	assumed int // minutes of a to-do without an estimate
	lists   map[book.ID]int
	tags    map[book.ID]int
	people  map[book.ID]int
	handful int
	counts  []int // of badges
	views   []int // of own
}

// saved is a view of one's own, ownView one made ready.
type (
	saved struct {
		id         book.ID
		definition Definition
	}
	ownView struct {
		saved
		matcher *filter.Matcher
	}
)

// share is what one to-do adds to the counts.
type share struct {
	list, person book.ID
	tags         []book.ID
	load         day.Horizon
	cup          day.Horizon // on which its work lies, which may follow from what it stands under
	work         plan.Work
	hours        term.Hours
	handful      bool
	badges       uint16  // which of them count it, by their indices
	own          []uint8 // which of them hold it
}

// NewTally counts everything.
func NewTally(b *book.Desk, c day.Clock) *Tally {
	t := &Tally{}
	t.count(b, c)
	return t
}

// Survey returns the counts as of now, but those that Survey.Complete adds. Its maps are the Tally's own, and good until the
// next change of the Book.
func (t *Tally) Survey(b *book.Desk, c day.Clock) *Survey {
	if c.Zone != t.since.Zone || c.DayStart != t.since.DayStart || c.Now.Before(t.since.Now) || c.Today() != t.since.Today() {
		t.count(b, c)
	} else if !c.Now.Before(t.until) {
		t.pass(b, c)
	}
	s := &Survey{Today: c.Today(), Rail: rail(c.Today()), Lists: t.lists, Tags: t.tags, People: t.people, Handful: t.handful,
		Counts: map[Name]int{Bin: len(b.Bin())}, Views: map[book.ID]int{}, unkept: t.unkept}
	later := map[day.Horizon]int{} // months that stand behind those of the rail
	for h, n := range t.cups {
		if i := s.onRail(h); i >= 0 {
			s.Rail[i].Count = n
		} else if h.Precision() == day.Month && h.Later(s.Today) {
			later[h] = n
		}
	}
	s.goOn(later)
	s.Loads = t.loads
	for i, f := range t.badges {
		s.Counts[f.of.name] = t.counts[i]
	}
	for i, v := range t.own {
		s.Views[v.id] = t.views[i]
	}
	return s
}

// count counts everything anew.
func (t *Tally) count(b *book.Desk, c day.Clock) {
	now := at(c)
	*t = Tally{shares: make(map[book.ID]share, len(b.Open())),
		cups: map[day.Horizon]int{}, loads: map[day.Horizon]Loads{}, lists: map[book.ID]int{}, tags: map[book.ID]int{}, people: map[book.ID]int{}}
	wide := t.fit(b, now)
	t.counts, t.views = make([]int, len(t.badges)), make([]int, len(t.own))
	tree := plan.NewTree(b, now.Clock, t.assumed)
	for _, todo := range b.Open() {
		t.put(b, now, tree, todo, true)
	}
	if wide { // some hold what is not open
		for _, todos := range [][]*book.Todo{b.Paused(), b.Notes(), b.Closed()} {
			for _, todo := range todos {
				t.put(b, now, tree, todo, false)
			}
		}
	}
}

// pass counts anew what has become late since the counts were made, on the same day.
func (t *Tally) pass(b *book.Desk, c day.Clock) {
	var passed []*book.Todo
	for _, todos := range [][]*book.Todo{b.Open(), b.Paused()} {
		for _, todo := range todos {
			if todo.Due.HasTime() && c.Passed(todo.Due) && !t.since.Passed(todo.Due) {
				passed = append(passed, todo)
			}
		}
	}
	now := at(c)
	t.fit(b, now)
	tree := plan.NewTree(b, now.Clock, t.assumed)
	for _, todo := range passed {
		t.take(todo.ID)
		t.put(b, now, tree, todo, b.IsOpen(todo))
	}
}

// fit makes all that is counted ready for a moment, and tells whether one of the views of
// one's own may hold what is not open.
func (t *Tally) fit(b *book.Desk, now moment) (wide bool) {
	t.since, t.until = now.Clock, NextChange(b, now.Clock)
	chosen, _ := b.Settings()
	t.assumed = chosen.AssumedMinutes()
	t.badges, t.own, t.unkept, t.asksTags = nil, nil, nil, false
	for i := range ships {
		if len(ships[i].counted) > 0 {
			t.badges = append(t.badges, ships[i].fit(b, now))
		}
	}
	for _, v := range b.Views() {
		d, err := Own{v.ID}.Definition(b)
		if !v.Counted || err != nil {
			continue
		}
		if d.Filter.Asks(question.Text, question.Slack, question.AtRisk) {
			t.unkept = append(t.unkept, saved{v.ID, d})
			continue
		}
		t.own = append(t.own, ownView{saved{v.ID, d}, now.matcher(d.Filter, b)})
		wide, t.asksTags = wide || d.wide(), t.asksTags || d.Filter.Asks(question.Tag)
	}
	return wide
}

// put counts a to-do in, as the views say that were made ready; open tells whether it is
// one of the desk's open ones, and tree is of the desk as it is now.
func (t *Tally) put(b *book.Desk, now moment, tree *plan.Tree, todo *book.Todo, open bool) {
	var s share
	for i, v := range t.own {
		if (open || v.definition.wide() && b.IsShown(todo)) && v.matcher.Holds()(todo) {
			s.own = append(s.own, uint8(i))
		}
	}
	if open {
		s.list, s.tags, s.handful = todo.List, todo.Tags, todo.Handful == now.today
		if todo.Person.Role != book.NoRole {
			s.person = todo.Person.ID
		}
		s.load, _ = now.load(todo)
		s.work, s.cup, s.hours = tree.Work(todo), tree.Cup(todo), b.HoursOf(todo)
		for i, f := range t.badges {
			if at := f.part(todo); at >= 0 && slices.Contains(f.of.counted, f.of.parts[at].kind) {
				s.badges |= 1 << i
				if f.of.name == Today && f.of.parts[at].kind != CanStart {
					s.cup = day.OnDay(now.today)
				}
			}
		}
	}
	if open || len(s.own) > 0 {
		t.shares[todo.ID] = s
		t.weigh(s, 1)
	}
}

func (t *Tally) take(id book.ID) {
	if s, counted := t.shares[id]; counted {
		t.weigh(s, -1)
		delete(t.shares, id)
	}
}

func (t *Tally) weigh(s share, by int) {
	for i := range t.counts {
		if s.badges&(1<<i) != 0 {
			t.counts[i] += by
		}
	}
	for _, i := range s.own {
		t.views[i] += by
	}
	if s.handful {
		t.handful += by
	}
	for _, tag := range s.tags {
		bump(t.tags, tag, by)
	}
	if !s.list.IsZero() {
		bump(t.lists, s.list, by)
	}
	if !s.person.IsZero() {
		bump(t.people, s.person, by)
	}
	if !s.load.IsZero() {
		bump(t.cups, s.load, by)
	}
	if s.work.Minutes > 0 && !s.cup.IsZero() && s.hours != term.NoHours {
		all := t.loads[s.cup]
		l := &all[s.hours]
		if l.Minutes += by * s.work.Minutes; s.work.Assumed {
			l.Assumed += by * s.work.Minutes
		}
		if t.loads[s.cup] = all; all == (Loads{}) {
			delete(t.loads, s.cup)
		}
	}
}

// Lying returns the work of open to-dos where it lies, of those horizons alone that are wanted,
// as of the last Survey.
func (t *Tally) Lying(b *book.Desk, wanted func(day.Horizon) bool) []plan.Lying {
	var all []plan.Lying
	tree := plan.NewTree(b, t.since, t.assumed)
	for id, s := range t.shares {
		if s.cup.IsZero() || !wanted(s.cup) {
			continue
		}
		todo, err := b.Todo(id)
		if err != nil || !b.IsOpen(todo) || todo.IsNote {
			continue
		}
		if _, slot := todo.Plan.Slot(); s.work.Minutes > 0 || slot > 0 || !b.HasSubtasks(id) {
			all = append(all, plan.Lying{Todo: todo, On: s.cup, Work: s.work, Due: tree.Due(todo), Hours: s.hours, Within: tree.HourAbove(todo)})
		}
	}
	return all
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
	if t.regroups(c) {
		t.count(b, t.since)
		return
	}
	for _, f := range t.badges {
		f.forget()
	}
	for _, v := range t.own {
		v.matcher.Forget()
	}
	touched, tops := map[book.ID]bool{}, map[book.ID]*book.Todo{}
	reach := func(id book.ID) {
		if todo, err := b.Todo(id); err == nil {
			top := b.Top(todo)
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
	for id := range tops {
		touched[id] = true
		for sub := range b.OfList(id) { // all that stands under it
			touched[sub.ID] = true
		}
	}
	now := at(t.since)
	tree := plan.NewTree(b, now.Clock, t.assumed)
	for id := range touched {
		t.take(id)
		if todo, err := b.Todo(id); err == nil {
			t.put(b, now, tree, todo, b.IsOpen(todo))
		}
	}
}

// regroups reports whether a change is about more than the to-dos that it writes: views of
// one's own, what tags are nested under, what stands in which list or shelf and is away, which
// hours a shelf takes.
func (t *Tally) regroups(c *book.Change) bool {
	if len(c.Views) > 0 || len(c.Settings) > 0 || t.asksTags && slices.ContainsFunc(c.Tags, func(d book.Diff[book.Tag]) bool {
		return d.Before == nil || d.After == nil || d.Before.Name != d.After.Name
	}) {
		return true
	}
	if slices.ContainsFunc(c.Shelves, func(d book.Diff[book.Shelf]) bool {
		return d.Before != nil && d.After != nil && d.Before.Hours != d.After.Hours
	}) {
		return true
	}
	return slices.ContainsFunc(c.Lists, func(d book.Diff[book.List]) bool {
		return d.Before != nil && d.After != nil && (d.Before.Away() != d.After.Away() || d.Before.Shelf != d.After.Shelf)
	})
}
