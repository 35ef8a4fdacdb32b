package book

import (
	"fmt"
	"slices"
	"strings"

	"tincup/internal/core/day"
)

// Gravity tells what a fault needs.
type Gravity uint8

// The gravities.
const (
	// Clash: two values contradict each other. Nothing breaks by it, and it goes when
	// one of them is next set.
	Clash Gravity = iota
	// Twin: two rows in one position, a tag that stands twice on a to-do, or the name of a
	// place that is no row. Mend puts it right and loses nothing.
	Twin
	// Lost: a row names one that is not there, or stands under itself. Something is
	// missing.
	Lost
)

// Fault is something that a Book must not hold: two rows, or two fields of one,
// that contradict each other. No command leaves one behind.
type Fault struct {
	// Says tells what is wrong, in one sentence.
	Says    string
	Gravity Gravity
}

// Faults looks at every row and returns what is wrong, in no order; none in a
// Book that is sound. A handful of other days than today has lapsed. Its work is in
// proportion to the Book.
func (b *Desk) Faults(today day.Date) []Fault {
	f := &faultFinder{desk: b}
	f.arrangement()
	depth := map[ID]int{}
	handful := 0
	for t := range b.All() {
		if t.UID != "" && b.uids[t.UID] != t.ID {
			f.add(Clash, "“%s” is known by a UID that another has.", t.Title)
		}
		f.refers(t)
		f.fields(t)
		f.under(t, depth)
		if t.Open() && t.Handful == today {
			handful++
		}
	}
	if handful > MaxHandful {
		f.add(Clash, "%d to-dos are picked for %s; %d is the most.", handful, today, MaxHandful)
	}
	for _, siblings := range b.siblings {
		for i, t := range siblings {
			if i > 0 && siblings[i-1].Position == t.Position {
				f.add(Twin, "“%s” and “%s” stand in one position.", siblings[i-1].Title, t.Title)
			}
		}
	}
	return f.found
}

type faultFinder struct {
	desk  *Desk
	found []Fault
}

func (f *faultFinder) add(g Gravity, format string, args ...any) {
	f.found = append(f.found, Fault{fmt.Sprintf(format, args...), g})
}

// arrangement looks at shelves, lists, sections, tags, people, places
// and views.
func (f *faultFinder) arrangement() {
	b := f.desk
	type key struct{ what, of, name string }
	names, positions := map[key]bool{}, map[key]bool{}
	name := func(what, of, name string) {
		if k := (key{what, of, strings.ToLower(name)}); names[k] {
			f.add(Clash, "Two have one name: %s “%s”.", what, name)
		} else {
			names[k] = true
		}
	}
	position := func(what, of string, at Position, name string) {
		if k := (key{what, of, string(at)}); positions[k] {
			f.add(Twin, "The %s “%s” stands where another stands.", what, name)
		} else {
			positions[k] = true
		}
	}
	for _, s := range b.shelves {
		position("shelf", "", s.Position, s.Name)
		if s.Deleted.IsZero() {
			name("shelf", "", s.Name)
		}
	}
	for _, l := range b.lists {
		position("list", l.Shelf.String(), l.Position, l.Name)
		if shelf, ok := b.shelves[l.Shelf]; !ok || l.Deleted.IsZero() && !shelf.Deleted.IsZero() {
			f.add(Lost, "The list “%s” is on a shelf that is not there.", l.Name)
		}
		if _, ok := b.people[l.With]; !ok && !l.With.IsZero() {
			f.add(Lost, "The list “%s” is with a person who is not there.", l.Name)
		}
		if l.Deleted.IsZero() {
			name(map[bool]string{true: "list", false: "template"}[l.Template.IsZero()], "", l.Name)
		}
	}
	for _, s := range b.sections {
		position("section", s.List.String(), s.Position, s.Name)
		name("section", s.List.String(), s.Name)
		if _, ok := b.lists[s.List]; !ok {
			f.add(Lost, "The section “%s” is of a list that is not there.", s.Name)
		}
	}
	for _, t := range b.tags {
		name("tag", "", t.Name)
		if b.tagNames[strings.ToLower(t.Name)] != t.ID {
			f.add(Clash, "The tag “%s” is not found by its name.", t.Name)
		}
	}
	for _, p := range b.people {
		name("person", "", p.Name)
	}
	for _, p := range b.places {
		name("place", "", p.Name)
	}
	for _, v := range b.views {
		position("view", "", v.Position, v.Name)
		name("view", "", v.Name)
	}
}

// refers looks at the rows that a to-do names.
func (f *faultFinder) refers(t *Todo) {
	b := f.desk
	if !t.List.IsZero() {
		if l, ok := b.lists[t.List]; !ok || t.Deleted.IsZero() && !l.Deleted.IsZero() {
			f.add(Lost, "“%s” is in a list that is not there.", t.Title)
		}
	}
	if !t.Section.IsZero() {
		if s, ok := b.sections[t.Section]; !ok || s.List != t.List {
			f.add(Lost, "“%s” is in a section that is not of its list.", t.Title)
		}
	}
	for i, tag := range t.Tags {
		if _, ok := b.tags[tag]; !ok {
			f.add(Lost, "“%s” carries a tag that is not there.", t.Title)
		} else if slices.Contains(t.Tags[:i], tag) {
			f.add(Twin, "“%s” carries a tag twice.", t.Title)
		}
	}
	for _, name := range t.placeNames() {
		if p := b.PlaceNamed(name); p == nil || p.Name != name {
			f.add(Twin, "“%s” is to be done at “%s”, which is no place yet.", t.Title, name)
		}
	}
	if _, ok := b.people[t.Person.ID]; !ok && t.Person.Role != NoRole {
		f.add(Lost, "“%s” tells of a person who is not there.", t.Title)
	}
}

// fields looks at what the fields of one to-do say of each other.
func (f *faultFinder) fields(t *Todo) {
	if why := clashOf(t); why != "" {
		f.add(Clash, "“%s” %s.", t.Title, why)
	}
}

// clashOf says in what two fields of a to-do contradict each other, or "".
func clashOf(t *Todo) string {
	switch {
	case !t.Start.IsZero() && !t.Due.IsZero() && t.Start.After(t.Due.Date):
		return fmt.Sprintf("would start on %s, after it is due on %s", t.Start, t.Due.Date)
	case t.IsNote && !t.Plan.IsZero():
		return "is a note, and a note has no plan"
	case t.IsNote && t.Repeat != nil:
		return "is a note, and a note does not repeat"
	case t.IsNote && !t.Handful.IsZero():
		return "is a note, and a note is not picked for a day"
	case t.IsNote && t.Status != NeedsAction:
		return "is a note, and a note has no tick"
	case t.Status.Open() != t.Completed.IsZero():
		return "is open and has been closed at some time, or the other way round"
	case t.Cleared && t.Status != Completed:
		return "is cleared from its list, and is not done"
	}
	return ""
}

// under looks at what a to-do stands under. depth holds the levels found so far.
func (f *faultFinder) under(t *Todo, depth map[ID]int) {
	if t.Parent.IsZero() {
		return
	}
	parent, err := f.desk.Todo(t.Parent)
	if err != nil {
		f.add(Lost, "“%s” stands under a to-do that is not there.", t.Title)
		return
	}
	if why := clashUnder(t, parent); why != "" {
		f.add(Clash, "“%s” %s.", t.Title, why)
	}
	switch n := f.levels(t, depth); {
	case n > f.desk.Len():
		f.add(Lost, "“%s” stands under itself.", t.Title)
	case n > MaxDepth:
		f.add(Clash, "“%s” stands more than %d levels deep.", t.Title, MaxDepth)
	}
}

// levels is how many to-dos a to-do stands under; more than there are where it
// stands under itself. depth holds what was found before.
func (f *faultFinder) levels(t *Todo, depth map[ID]int) int {
	var path []ID
	n := 0
	for !t.Parent.IsZero() {
		if known, ok := depth[t.ID]; ok {
			n = known
			break
		}
		if path = append(path, t.ID); len(path) > f.desk.Len() {
			n = f.desk.Len() + 1
			break
		}
		above, ok := f.desk.todos[t.Parent]
		if !ok {
			break
		}
		t = above.todo
	}
	for _, id := range slices.Backward(path) {
		n++
		depth[id] = n
	}
	return n
}

// clashUnder says what keeps a to-do from standing under another, or "".
func clashUnder(t, parent *Todo) string {
	switch {
	case parent.List != t.List || parent.Section != t.Section:
		return fmt.Sprintf("is not in the list and section of “%s”, under which it stands", parent.Title)
	case parent.IsNote:
		return fmt.Sprintf("stands under the note “%s”", parent.Title)
	case t.Deleted.IsZero() && !parent.Deleted.IsZero():
		return fmt.Sprintf("stands under “%s”, which is in the bin", parent.Title)
	case t.Open() && !parent.Status.Open():
		return fmt.Sprintf("is open, and “%s”, under which it stands, is not", parent.Title)
	case t.Deleted.IsZero() && t.Record.IsZero() && t.Repeat != nil && !parent.Status.Open():
		return fmt.Sprintf("repeats, and “%s”, under which it stands, is closed", parent.Title)
	}
	return ""
}
