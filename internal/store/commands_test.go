package store_test

import (
	"fmt"
	"reflect"
	"slices"
	"strings"
	"testing"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/repeat"
)

// The kinds of commands of each test, weighted so that all are met: many are
// refused for want of something to act on.
var (
	everyday = map[string]int{"capture": 3, "edit": 3, "complete": 4, "reopen": 3, "cancel": 3, "delete": 3, "restore": 5, "move": 6,
		"plan": 3, "tag": 6, "add-list": 3, "add-shelf": 3, "subtask": 3, "tree": 3, "change-rule": 3, "skip": 6, "pause": 10, "resume": 16,
		"end-repeat": 4, "move-repeat": 5, "remind": 3, "add-person": 3, "involve": 5, "add-view": 4, "undo": 3, "redo": 3}
	trees = map[string]int{"capture": 3, "tree": 2, "subtask": 4, "indent": 5, "lift": 7, "reorder": 9, "under": 5, "move": 3, "complete": 3,
		"reopen": 3, "delete": 3, "restore": 4, "bulk": 5, "add-view": 4, "undo": 3, "redo": 3}
	shelves = map[string]int{"capture": 3, "tree": 2, "add-list": 2, "add-section": 7, "move": 4, "edit-list": 4, "move-list": 4, "delete-list": 3,
		"restore-list": 7, "edit-section": 7, "move-section": 30, "delete-section": 5, "into-section": 22, "edit-shelf": 2, "move-shelf": 6,
		"delete-shelf": 2, "restore-shelf": 17, "add-shelf": 2, "add-view": 4, "checklist": 15, "template": 3, "pour": 5, "complete": 4, "delete": 2, "restore": 3, "undo": 3, "redo": 3}
	labels = map[string]int{"add-calendar": 4, "edit-calendar": 4, "remove-calendar": 3, "add-view": 5, "edit-view": 4, "move-view": 11, "delete-view": 3, "capture": 8, "tag": 4, "edit-tag": 4, "merge-tags": 24, "delete-tag": 4, "add-person": 3, "edit-person": 4,
		"remove-person": 3, "involve": 6, "handful": 5, "turn": 9, "attach": 5, "detach": 4, "postpone": 3, "bulk": 4, "complete": 3, "delete": 2, "undo": 3, "redo": 3}
	grounds = map[string]int{"add-place": 4, "edit-place": 8, "remove-place": 4, "at-place": 8, "edge": 8, "capture": 6, "complete": 2, "delete": 3, "restore": 6,
		"change-rule": 2, "undo": 4, "redo": 3}
	chosen = map[string]int{"choose": 20, "capture": 2, "complete": 2, "undo": 10, "redo": 5}
)

// asked are questions of views whose answers follow from more than the to-do itself.
var asked = []string{"{}", `{"filter":{"field":"has-subtasks","op":"yes"}}`, `{"filter":{"field":"next-action","op":"yes"}}`,
	`{"filter":{"field":"status","op":"any-of","values":["completed"]}}`, `{"filter":{"field":"kind","op":"any-of","values":["note"]}}`,
	`{"filter":{"not":{"field":"is-subtask","op":"yes"}}}`, `{"filter":{"field":"text","op":"contains","text":"a"}}`,
	`{"filter":{"any":[{"field":"tag","op":"none"},{"field":"paused","op":"yes"}]}}`, `{"filter":{"field":"list","op":"none"}}`}

func TestUndoToTheStartAndRedoToTheEnd(t *testing.T) {
	for _, c := range []struct {
		name    string
		number  float64
		weights map[string]int
	}{{"everyday", 1000, everyday}, {"trees", 2000, trees}, {"shelves", 500, shelves}, {"labels", 500, labels}, {"places", 500, grounds}, {"settings", 200, chosen}} {
		t.Run(c.name, func(t *testing.T) {
			t.Parallel()
			runSequences(t, int(c.number**sequences), c.weights)
		})
	}
}

// byID sorts rows by their ids, so that a choice among them is the same again.
func byID[T any](rows []*T) []*T {
	id := func(row *T) string {
		return reflect.ValueOf(row).Elem().FieldByName("ID").Interface().(book.ID).String()
	}
	slices.SortFunc(rows, func(a, b *T) int { return strings.Compare(id(a), id(b)) })
	return rows
}

func keep[T any](rows []*T, f func(*T) bool) []*T {
	return slices.DeleteFunc(rows, func(row *T) bool { return !f(row) })
}

func pick[T any](rows []*T, n uint32) *T {
	if len(rows) == 0 {
		return nil
	}
	return rows[int(n)%len(rows)]
}

// neighbours are the siblings that a list shows before and behind a to-do.
func (r *run) neighbours(id book.ID) (before, behind *book.Todo) {
	t, _ := r.desk.Todo(id)
	order := book.ByPriority
	if l, err := r.desk.List(t.List); err == nil {
		order = l.Order
	}
	var siblings []*book.Todo
	for s := range r.desk.OfList(t.List) {
		if s.Parent == t.Parent && s.Section == t.Section && s.Deleted.IsZero() && s.Record.IsZero() {
			siblings = append(siblings, s)
		}
	}
	slices.SortFunc(siblings, order.Compare)
	at := slices.Index(siblings, t)
	if at > 0 {
		before = siblings[at-1]
	}
	if at >= 0 && at+1 < len(siblings) {
		behind = siblings[at+1]
	}
	return before, behind
}

// many is something done to some to-dos at once.
func (r *run) many(s step, some book.Many, list, under book.ID) book.Command {
	switch s.c % 9 {
	case 0:
		return book.MoveMany{IDs: some.IDs, To: book.Move{List: list}}
	case 8:
		if t, err := r.desk.Todo(under); err == nil && s.b%2 == 0 { // beside one
			return book.MoveMany{IDs: some.IDs, To: book.Move{List: t.List, Section: t.Section, Parent: t.Parent, After: t.ID}}
		}
		return book.MoveMany{IDs: some.IDs, To: book.Move{Parent: under}}
	}
	some.Do = map[uint32]func(book.ID) book.Command{
		1: func(id book.ID) book.Command { return book.Complete{ID: id} },
		2: func(id book.ID) book.Command { return book.Delete{ID: id} },
		3: func(id book.ID) book.Command { return book.Restore{ID: id} },
		4: func(id book.ID) book.Command { return book.Reopen{ID: id} },
		5: func(id book.ID) book.Command { return book.Tagging{ID: id, Add: []string{"bulk"}} },
		6: func(id book.ID) book.Command {
			high := book.High
			return book.Edit{ID: id, Priority: &high}
		},
		7: func(id book.ID) book.Command { return book.Cancel{ID: id} },
	}[s.c%9]
	return some
}

// places makes the commands on lists, sections, shelves, tags and people; nil
// for the other kinds, or where there is nothing to act on.
func (r *run) places(s step) book.Command {
	name := fmt.Sprintf("n%d", s.c%2000)
	// Few lists, so that they have something in them.
	binned := s.kind == "restore-list" || s.kind == "restore-shelf"
	list := pick(keep(byID(r.desk.Lists()), func(l *book.List) bool {
		return !l.Deleted.IsZero() == binned && (s.kind != "pour" || !l.Template.IsZero())
	}), s.a%3)
	if list != nil {
		if cmd := r.onList(s, list, name); cmd != nil {
			return cmd
		}
	}
	shelves := keep(byID(r.desk.Shelves()), func(l *book.Shelf) bool { return !l.Deleted.IsZero() == binned })
	if shelf := pick(shelves, s.a); shelf != nil {
		switch s.kind {
		case "edit-shelf":
			return book.EditShelf{ID: shelf.ID, Name: name}
		case "move-shelf":
			return book.MoveShelf{ID: shelf.ID, Before: pick(shelves, s.b).ID}
		case "delete-shelf":
			return book.DeleteShelf{ID: shelf.ID}
		case "restore-shelf":
			return book.RestoreShelf{ID: shelf.ID}
		}
	}
	if tag := pick(byID(r.desk.Tags()), s.a); tag != nil {
		switch colour := book.Colour(s.b % 8); s.kind {
		case "edit-tag":
			return book.EditTag{ID: tag.ID, Name: &name, Colour: &colour}
		case "merge-tags":
			return book.MergeTags{From: tag.ID, Into: pick(byID(r.desk.Tags()), s.b).ID}
		case "delete-tag":
			return book.DeleteTag{ID: tag.ID}
		}
	}
	if views := r.desk.Views(); s.kind == "add-view" {
		question := asked[int(s.b>>8)%len(asked)]
		if tag := pick(byID(r.desk.Tags()), s.b); tag != nil && s.b%2 == 0 {
			question = fmt.Sprintf(`{"filter":{"field":"tag","op":"any-of","values":[%q]}}`, tag.ID)
		}
		return book.AddView{Name: fmt.Sprintf("view%d", s.a%2000), Question: question, Pinned: s.b%2 == 0, Counted: s.b%3 > 0}
	} else if v := pick(views, s.a); v != nil {
		switch counted := s.b%2 == 0; s.kind {
		case "edit-view":
			return book.EditView{ID: v.ID, Name: &name, Counted: &counted, Icon: &book.ViewIcons[s.b%5]}
		case "move-view":
			return book.MoveView{ID: v.ID, Before: pick(views, s.b).ID}
		case "delete-view":
			return book.DeleteView{ID: v.ID}
		}
	}
	if calendars := r.desk.Calendars(); s.kind == "add-calendar" {
		return book.AddCalendar{Name: fmt.Sprintf("calendar%d", s.a%50), Address: fmt.Sprintf("https://calendars.example/%d.ics", s.b%50), AllDayTakes: s.c%2 == 0}
	} else if c := pick(calendars, s.a); c != nil {
		switch takes, colour := s.b%2 == 0, book.Colour(s.c%8); s.kind {
		case "edit-calendar":
			return book.EditCalendar{ID: c.ID, Name: &name, Colour: &colour, AllDayTakes: &takes}
		case "remove-calendar":
			return book.RemoveCalendar{ID: c.ID}
		}
	}
	if cmd := r.placeCommand(s); cmd != nil {
		return cmd
	}
	if person := pick(byID(r.desk.People()), s.a); person != nil {
		switch s.kind {
		case "edit-person":
			return book.EditPerson{ID: person.ID, Name: &name, Note: &name}
		case "remove-person":
			return book.RemovePerson{ID: person.ID}
		}
	}
	return nil
}

func (r *run) onList(s step, list *book.List, name string) book.Command {
	yes := s.b%2 == 0
	section := pick(r.desk.Sections(list.ID), s.b)
	switch s.kind {
	case "add-section":
		return book.AddSection{List: list.ID, Name: name}
	case "edit-list":
		order, colour := book.Order(s.b%6), book.Colour(s.c%8)
		return []book.EditList{{ID: list.ID, Name: &name}, {ID: list.ID, Order: &order, Colour: &colour}, {ID: list.ID, Archived: &yes},
			{ID: list.ID, Pinned: &yes}}[s.c%4]
	case "checklist":
		return []book.Command{book.EditList{ID: list.ID, Checklist: &yes}, book.StartOver{List: list.ID}, book.ClearDone{List: list.ID}}[s.c%3]
	case "move-list":
		return book.MoveList{ID: list.ID, Shelf: pick(byID(r.desk.Shelves()), s.b).ID}
	case "delete-list":
		return book.DeleteList{ID: list.ID}
	case "restore-list":
		return book.RestoreList{ID: list.ID}
	case "template":
		return book.SaveTemplate{List: list.ID, Name: name}
	case "pour":
		return book.Pour{Template: list.ID, Name: name, On: day.DateOf(r.now).AddDays(int(s.b % 90))}
	case "into-section":
		if t := pick(byID(slices.Collect(r.desk.OfList(list.ID))), s.b); t != nil && section != nil {
			return book.Move{ID: t.ID, List: list.ID, Section: section.ID}
		}
	}
	if section == nil {
		return nil
	}
	switch s.kind {
	case "edit-section":
		return book.EditSection{ID: section.ID, Name: name}
	case "move-section":
		if other := pick(keep(r.desk.Sections(list.ID), func(o *book.Section) bool { return o != section }), s.c); other != nil {
			return book.MoveSection{ID: section.ID, After: other.ID}
		}
	case "delete-section":
		return book.DeleteSection{ID: section.ID, WithTodos: yes}
	}
	return nil
}

func (r *run) command(s step) book.Command {
	todos := byID(slices.Collect(r.desk.All()))
	list := book.ID{}
	if l := pick(byID(r.desk.Lists()), s.b); l != nil && s.b%5 > 0 {
		list = l.ID
	}
	today := day.DateOf(r.now)
	due := day.Moment{Date: today.AddDays(int(s.c%40) - 10)}
	tag := fmt.Sprintf("tag%d", s.c%6)
	switch s.kind {
	case "capture":
		c := book.Capture{Title: fmt.Sprintf("t%d", s.a%1000), List: list, Priority: book.Priority(s.a % 4), Due: due}
		if s.a%3 == 0 {
			c.Notes, c.Tags = fmt.Sprintf("n%d", s.b), []string{tag}
		}
		if s.b%2 == 0 {
			c.Repeat = &repeat.Repeat{Rule: repeat.MustParse("FREQ=DAILY;INTERVAL=3"), First: due.Date}
		}
		return c
	case "tree":
		return book.CaptureTree{Items: []book.TreeItem{
			{Capture: book.Capture{Title: "tree", List: list, Done: s.a%5 == 0}, Under: -1},
			{Capture: book.Capture{Title: "branch", Estimate: int(s.b % 90), Done: s.a%3 == 0}, Under: 0},
			{Capture: book.Capture{Title: "leaf", Notes: fmt.Sprintf("n%d", s.c), Done: s.b%3 == 0}, Under: 1},
		}}
	case "choose":
		values := map[string]string{"urgentDays": fmt.Sprint(1 + s.a%5)}
		if s.b%2 == 0 {
			values["dayStart"] = fmt.Sprintf("0%d:00", s.b%7)
		}
		if s.c%2 == 0 {
			values["look"] = []string{"system", "light", "dark", ""}[s.c%4]
		}
		return book.Choose{Values: values}
	case "add-person":
		return book.AddPerson{Name: fmt.Sprintf("person%d", s.a%2000), Email: "p@harbour.example"}
	case "add-list":
		return book.AddList{Name: fmt.Sprintf("list%d", s.a%2000)}
	case "add-shelf":
		return book.AddShelf{Name: fmt.Sprintf("shelf%d", s.a%2000)}
	}
	// What acts on closed or binned to-dos looks among those first.
	var repeating []*book.Todo
	for _, t := range r.desk.Open() {
		if t.Repeat != nil {
			repeating = append(repeating, t)
		}
	}
	if pool := map[string][]*book.Todo{"reopen": r.desk.Closed(), "restore": r.desk.Bin(), "skip": repeating, "pause": repeating,
		"resume": r.desk.Paused(), "end-repeat": slices.Concat(repeating, r.desk.Paused()), "move-repeat": repeating}[s.kind]; len(pool) > 0 {
		todos = byID(slices.Clone(pool))
	}
	if cmd := r.places(s); cmd != nil || len(todos) == 0 {
		return cmd
	}
	id := todos[int(s.a)%len(todos)].ID
	switch s.kind {
	case "edit":
		e := book.Edit{ID: id}
		title, notes, start := fmt.Sprintf("e%d", s.b%1000), strings.Repeat("x", int(s.c%4)), due.Date.AddDays(-3)
		switch s.b % 5 {
		case 0:
			e.Title = &title
		case 1:
			e.Notes = &notes
		case 2:
			e.Due = &due
		case 3:
			e.Start, e.Due = &start, &due
		case 4:
			e.List, e.Priority = &list, new(book.Priority)
		}
		return e
	case "complete":
		return book.Complete{ID: id}
	case "reopen":
		return book.Reopen{ID: id}
	case "cancel":
		return book.Cancel{ID: id}
	case "delete":
		return book.Delete{ID: id}
	case "restore":
		return book.Restore{ID: id}
	case "move":
		return book.Move{ID: id, List: list}
	case "indent": // under the sibling that stands before it
		if before, _ := r.neighbours(id); before != nil {
			return book.Move{ID: id, Parent: before.ID}
		}
	case "lift":
		t, _ := r.desk.Todo(id)
		if parent, err := r.desk.Todo(t.Parent); err == nil {
			return book.Move{ID: id, List: parent.List, Section: parent.Section, Parent: parent.Parent, After: parent.ID}
		}
	case "reorder":
		t, _ := r.desk.Todo(id)
		before, behind := r.neighbours(id)
		switch m := (book.Move{ID: id, List: t.List, Section: t.Section, Parent: t.Parent}); {
		case before != nil && s.b%2 == 0:
			m.Before = before.ID
			return m
		case behind != nil:
			m.After = behind.ID
			return m
		}
	case "under": // also where it would be a cycle, which is refused
		return book.Move{ID: id, Parent: todos[int(s.b)%len(todos)].ID}
	case "bulk":
		some := book.Many{}
		for i := range 2 + int(s.b%6) {
			some.IDs = append(some.IDs, todos[(int(s.a)+i*int(s.c%7+1))%len(todos)].ID)
		}
		slices.SortFunc(some.IDs, func(a, b book.ID) int { return strings.Compare(a.String(), b.String()) })
		some.IDs = slices.Compact(some.IDs)
		return r.many(s, some, list, id)
	case "handful":
		return book.Pick{ID: id, Out: s.b%4 == 0}
	case "turn":
		note := s.b%3 > 0
		return book.Edit{ID: id, IsNote: &note}
	case "attach":
		return book.Attach{ID: id, File: book.Attachment{Name: "plan.png", Hash: strings.Repeat(fmt.Sprint(s.b%7), 64), Type: "image/png", Size: 9}}
	case "detach":
		if t := pick(keep(todos, func(t *book.Todo) bool { return len(t.Attachments) > 0 }), s.a); t != nil {
			return book.Detach{ID: t.ID, Hash: t.Attachments[int(s.b)%len(t.Attachments)].Hash}
		}
	case "split":
		return book.Split{ID: id, Parts: 2 + int(s.b%4)}
	case "postpone":
		return book.Postpone{IDs: []book.ID{id}, By: book.ByDays(1 + int(s.b%9)), Release: []book.ID{id}}
	case "plan":
		return book.PlanFor{ID: id, Plan: []day.Horizon{{}, day.OnDay(due.Date), day.InWeek(due.Date), day.SomeTime()}[s.b%4]}
	case "subtask":
		return book.Capture{Title: fmt.Sprintf("s%d", s.b%1000), Parent: id, Due: due}
	case "change-rule":
		rules := []string{"FREQ=DAILY;INTERVAL=2", "FREQ=WEEKLY;BYDAY=MO,TH", "FREQ=MONTHLY;BYMONTHDAY=31", "FREQ=DAILY;COUNT=3"}
		return book.ChangeRule{ID: id, Rule: repeat.MustParse(rules[s.b%4]), Lead: int(s.c % 3), Anchor: repeat.Anchor(s.c % 6 / 5 * (1 - s.b%4%2))}
	case "skip":
		return book.Skip{ID: id}
	case "pause":
		return book.Pause{ID: id}
	case "resume":
		return book.Resume{ID: id}
	case "end-repeat":
		return book.EndRepeat{ID: id}
	case "move-repeat":
		return book.MoveRepeat{ID: id, To: due.Date.AddDays(20)}
	case "remind":
		return book.Remind{ID: id, Add: []day.Reminder{day.ReminderBefore(int(s.b % 100))}, Remove: []day.Reminder{day.ReminderBefore(int(s.c % 10))}}
	case "involve":
		if p := pick(byID(r.desk.People()), s.b); p != nil {
			return book.Edit{ID: id, Person: &book.Involved{ID: p.ID, Role: book.Role(s.c % 4)}}
		}
	case "tag":
		return book.Tagging{ID: id, Add: []string{tag}[:s.b%2], Remove: []string{fmt.Sprintf("tag%d", s.b%6)}}
	}
	return nil
}
