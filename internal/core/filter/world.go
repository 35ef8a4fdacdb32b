package filter

import (
	"math"
	"slices"
	"strings"
	"unicode/utf8"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/question"
)

// world is what a to-do may be on one today, cut down to what a filter can tell
// apart: variables, each with a few values that stand for all.
type world struct {
	*checker
	today day.Date
	vars  []*variable
	// needs are the variables that each test looks at, as bits.
	needs []uint64
	// laws hold between variables of every to-do.
	laws []law
	// key tells worlds apart in which the tests see different sorts of values.
	key string
	// sorts are those of the values of a date, by the variable's name.
	sorts map[string][]sort
	// asked are the ids that tests of a field name, by the field.
	asked map[question.Field][]book.ID
	// undecidable: there is more to tell apart than is tried.
	undecidable bool
}

// maxVariables is how many things are told apart at most; a set of them is a word of
// bits.
const maxVariables = 64

// variable is one thing about a to-do.
type variable struct {
	name   string
	values []func(*facts)
}

// law is a fact that some variables must agree with.
type law struct {
	needs uint64
	holds func(*facts) bool
}

// flags are the variables that are so or not.
var flags = map[string]func(*facts) *bool{
	"kind": func(f *facts) *bool { return &f.note }, "repeating": func(f *facts) *bool { return &f.repeating },
	"paused": func(f *facts) *bool { return &f.paused }, "has-subtasks": func(f *facts) *bool { return &f.hasSubtasks },
	"is-subtask": func(f *facts) *bool { return &f.isSubtask }, "next-action": func(f *facts) *bool { return &f.next },
	"attachment": func(f *facts) *bool { return &f.attachment }, "in-handful": func(f *facts) *bool { return &f.handful },
	// It follows from plan and due, and is taken to be either all the same where there are
	// both: no proof then rests on it alone.
	"planned-past-due": func(f *facts) *bool { return &f.plannedPast },
}

// lawsOf are what holds of every to-do, by the variables that it ties together.
func (w *world) lawsOf() []struct {
	vars  [2]string
	holds func(*facts) bool
} {
	slack := 0
	if w.clock.DayStart > 0 { // a due before the day's start counts to the day before
		slack = 1
	}
	type laws = []struct {
		vars  [2]string
		holds func(*facts) bool
	}
	return laws{
		{[2]string{"paused", "repeating"}, func(f *facts) bool { return !f.paused || f.repeating }},
		{[2]string{"planned-past-due", "due"}, func(f *facts) bool { return !f.plannedPast || !f.due.IsZero() }},
		{[2]string{"planned-past-due", "plan"}, func(f *facts) bool { return !f.plannedPast || !f.plan.First().IsZero() }},
		{[2]string{"slack", "status"}, func(f *facts) bool { return !f.hasSlack || f.status.Open() }},
		{[2]string{"slack", "kind"}, func(f *facts) bool { return !f.hasSlack || !f.note }},
		{[2]string{"slack", "due"}, func(f *facts) bool { return !f.hasSlack || !f.passed }},
		{[2]string{"paused", "status"}, func(f *facts) bool { return !f.paused || f.status.Open() }},
		{[2]string{"next-action", "is-subtask"}, func(f *facts) bool { return !f.next || f.isSubtask }},
		{[2]string{"next-action", "status"}, func(f *facts) bool { return !f.next || f.status.Open() }},
		{[2]string{"next-action", "paused"}, func(f *facts) bool { return !f.next || !f.paused }},
		{[2]string{"next-action", "person"}, func(f *facts) bool { return !f.next || f.role != book.WaitingOn }},
		{[2]string{"next-action", "plan"}, func(f *facts) bool { return !f.next || w.doable(f) }},
		{[2]string{"next-action", "start"}, func(f *facts) bool { return !f.next || !f.start.After(w.today) }},
		{[2]string{"kind", "status"}, func(f *facts) bool { return !f.note || f.status == book.NeedsAction }},
		{[2]string{"kind", "repeating"}, func(f *facts) bool { return !f.note || !f.repeating }},
		{[2]string{"kind", "has-subtasks"}, func(f *facts) bool { return !f.note || !f.hasSubtasks }},
		{[2]string{"kind", "next-action"}, func(f *facts) bool { return !f.note || !f.next }},
		{[2]string{"kind", "in-handful"}, func(f *facts) bool { return !f.note || !f.handful }},
		{[2]string{"completed", "status"}, func(f *facts) bool { return f.completed.IsZero() == f.status.Open() }},
		{[2]string{"created", "completed"}, func(f *facts) bool { return f.completed.IsZero() || !f.created.After(f.completed) }},
		{[2]string{"start", "due"}, func(f *facts) bool {
			return f.start.IsZero() || f.due.IsZero() || !f.start.After(f.due.AddDays(slack))
		}},
	}
}

// doable: no plan keeps it for later, nor is it parked.
func (w *world) doable(f *facts) bool {
	return !f.plan.Later(f.planToday(w.today)) && f.plan.Precision() != day.Parked
}

func (k *checker) newWorld(today day.Date) *world {
	w := &world{checker: k, today: today, sorts: map[string][]sort{}}
	wanted := map[string]bool{}
	for _, n := range k.nodes {
		for _, name := range w.variablesOf(n.Test) {
			wanted[name] = true
		}
	}
	// What a law ties to a variable may decide whether it can have a value; not
	// these, where no test looks at them: what is neither keeps every law.
	neither := []string{"next-action", "paused", "kind"}
	all := w.lawsOf()
	for grown := true; grown; {
		grown = false
		for _, l := range all {
			if slices.ContainsFunc(l.vars[:], func(v string) bool { return wanted[v] }) {
				for _, v := range l.vars {
					if !wanted[v] && !slices.Contains(neither, v) {
						wanted[v], grown = true, true
					}
				}
			}
		}
	}
	if len(wanted) > maxVariables {
		w.undecidable = true
		return w
	}
	bit := map[string]uint64{}
	add := func(name string, values []func(*facts)) {
		if len(w.vars) == maxVariables {
			w.undecidable = true
			return
		}
		if len(values) > 0 {
			bit[name] = 1 << len(w.vars)
			w.vars = append(w.vars, &variable{name, values})
		}
	}
	names := make([]string, 0, len(wanted))
	for name := range wanted {
		names = append(names, name)
	}
	slices.Sort(names)
	values := map[string][]func(*facts){}
	for _, name := range names {
		values[name] = w.tellApart(name, w.valuesOf(name))
	}
	for _, l := range all {
		if len(w.sorts[l.vars[0]]) > 0 && len(w.sorts[l.vars[1]]) > 0 {
			w.ties(l.vars, l.holds)
		}
	}
	// Those with few values first: they decide most for least.
	slices.SortStableFunc(names, func(a, b string) int { return len(values[a]) - len(values[b]) })
	for _, name := range names {
		add(name, values[name])
	}
	for _, n := range k.nodes {
		set := uint64(0)
		for _, name := range w.variablesOf(n.Test) {
			set |= bit[name]
		}
		w.needs = append(w.needs, set)
	}
	for _, l := range all {
		set, whole := uint64(0), true
		for _, v := range l.vars {
			set |= bit[v]
			whole = whole && bit[v] != 0
		}
		if whole {
			w.laws = append(w.laws, law{set, l.holds})
		}
	}
	return w
}

// variablesOf are the variables a test looks at; each tag is one, and so is
// any other.
func (w *world) variablesOf(t *question.Test) []string {
	if t.Field != question.Tag {
		return specs[t.Field].vars
	}
	if t.Op == question.None {
		names := []string{"tag"}
		for _, id := range w.tags() {
			names = append(names, "tag "+id.String())
		}
		return names
	}
	var names []string
	for _, id := range w.tags() {
		// Those nested under one that is asked for carry it too.
		if slices.ContainsFunc(w.aboveOf(id), func(up book.ID) bool { return slices.Contains(t.IDs, up) }) {
			names = append(names, "tag "+id.String())
		}
	}
	return names
}

func (w *world) aboveOf(id book.ID) []book.ID {
	if up, ok := w.above[id]; ok {
		return up
	}
	return []book.ID{id} // it is gone: nothing carries it
}

// ids are those that tests of a field name, each once.
func (w *world) ids(f question.Field) []book.ID {
	if ids, known := w.asked[f]; known {
		return ids
	}
	var ids []book.ID
	set := map[book.ID]bool{}
	for _, n := range w.nodes {
		if n.Test.Field != f {
			continue
		}
		for _, id := range n.Test.IDs {
			if !set[id] {
				set[id] = true
				ids = append(ids, id)
			}
		}
	}
	if w.asked == nil {
		w.asked = map[question.Field][]book.ID{}
	}
	w.asked[f] = ids
	return ids
}

func (w *world) tags() []book.ID { return w.ids(question.Tag) }

// valuesOf returns values that stand for all a variable may have.
func (w *world) valuesOf(name string) []func(*facts) {
	if at, ok := flags[name]; ok {
		return []func(*facts){func(f *facts) { *at(f) = false }, func(f *facts) { *at(f) = true }}
	}
	if tag, ok := strings.CutPrefix(name, "tag"); ok {
		return w.tagValues(strings.TrimSpace(tag))
	}
	if values := choiceValues(name); values != nil {
		return values
	}
	switch name {
	case "text":
		return w.textValues(question.Text, book.MaxNotes, func(f *facts, s string) { f.text = s })
	case "place":
		values := w.textValues(question.Place, book.MaxPlace, func(f *facts, s string) { f.place = s })
		return append(values, func(*facts) {})
	case "home":
		return w.homeValues()
	case "status":
		return each(4, func(f *facts, i int) { f.status = book.Status(i) })
	case "person":
		people := append(w.there(question.Person), book.ID{0: 255}) // another
		values := each(len(people)*3, func(f *facts, i int) { f.person, f.role = people[i/3], book.Ask+book.Role(i%3) })
		return append(values, func(*facts) {})
	case "slack":
		// How much there is follows from all other work, and is taken to be anything.
		minutes := w.lengths(-1, 0, math.MaxInt)
		values := each(len(minutes), func(f *facts, i int) { f.slack, f.hasSlack = minutes[i], true })
		return append(values, func(*facts) {})
	case "estimate":
		minutes := w.lengths(0, 1, book.MaxEstimate)
		return each(len(minutes), func(f *facts, i int) { f.estimate = minutes[i] })
	}
	return w.dateValues(name)
}

// lengths are the two least lengths of time there are, and those up to the longest that stand for
// all others: where a test on one changes its answer, and a minute more.
func (w *world) lengths(least, next, longest int) []int {
	minutes := []int{least, next}
	for _, n := range w.nodes {
		if m := n.Test.Minutes; m != 0 {
			minutes = append(minutes, m, min(m+1, longest))
		}
	}
	return minutes
}

func each(n int, set func(*facts, int)) []func(*facts) {
	values := make([]func(*facts), n)
	for i := range n {
		values[i] = func(f *facts) { set(f, i) }
	}
	return values
}

// there are the ids a field names that are in the Book.
func (w *world) there(field question.Field) []book.ID {
	return slices.DeleteFunc(slices.Clone(w.ids(field)), func(id book.ID) bool {
		_, _, there := named(w.book, field, id)
		return !there
	})
}

func (w *world) tagValues(id string) []func(*facts) {
	values := []func(*facts){func(*facts) {}}
	if id == "" { // any other tag
		return append(values, func(f *facts) { f.tags = append(f.tags, book.ID{0: 255}) })
	}
	for tag, above := range w.above {
		if tag.String() == id {
			values = append(values, func(f *facts) { f.tags = append(f.tags, above...) })
		}
	}
	return values
}

// maxTexts is how many texts may be told apart.
const maxTexts = 10

// textValues are texts that contain each set of what is looked for in a field,
// and no more than that set brings with it; none where there are too many, or
// they might not find room in it.
func (w *world) textValues(field question.Field, most int, set func(*facts, string)) []func(*facts) {
	var needles []string
	for _, n := range w.nodes {
		if s := fold(n.Test.Text); n.Test.Field == field && n.Test.Op == question.Contains && !slices.Contains(needles, s) {
			needles = append(needles, s)
		}
	}
	all := strings.Join(needles, "")
	if len(needles) > maxTexts || utf8.RuneCountInString(all)+len(needles)+1 > most {
		w.undecidable = true
		return nil
	}
	filler := 'ǂ'
	for strings.ContainsRune(all, filler) {
		filler++
	}
	return each(1<<len(needles), func(f *facts, some int) {
		var b strings.Builder
		b.WriteRune(filler)
		for i, s := range needles {
			if some&(1<<i) != 0 {
				b.WriteString(s)
				b.WriteRune(filler)
			}
		}
		set(f, b.String())
	})
}

// homeValues are the Cup, each list and section that is named, another list on
// each shelf that is named, and another one elsewhere.
func (w *world) homeValues() []func(*facts) {
	type home struct{ list, shelf, section book.ID }
	other := book.ID{0: 255}
	homes := []home{{}, {list: other, shelf: other}}
	for _, id := range w.there(question.Shelf) {
		homes = append(homes, home{list: other, shelf: id}, home{other, id, book.ID{0: 254}})
	}
	for _, id := range w.there(question.List) {
		if l, err := w.book.List(id); err == nil {
			homes = append(homes, home{list: id, shelf: l.Shelf}, home{id, l.Shelf, other})
		}
	}
	for _, id := range w.there(question.Section) {
		if s, err := w.book.Section(id); err == nil {
			if l, err := w.book.List(s.List); err == nil {
				homes = append(homes, home{s.List, l.Shelf, id})
			}
		}
	}
	homes = append(homes, home{other, other, book.ID{0: 254}})
	return each(len(homes), func(f *facts, i int) { f.list, f.shelf, f.section = homes[i].list, homes[i].shelf, homes[i].section })
}
