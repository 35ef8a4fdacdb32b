package sequence

import (
	"fmt"
	"reflect"
	"slices"
	"strings"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/repeat"
	"tincup/internal/core/term"
)

// asked are questions of views whose answers follow from more than the to-do itself.
var asked = []string{"{}", `{"filter":{"field":"has-subtasks","op":"yes"}}`, `{"filter":{"field":"next-action","op":"yes"}}`,
	`{"filter":{"field":"status","op":"any-of","values":["completed"]}}`, `{"filter":{"field":"kind","op":"any-of","values":["note"]}}`,
	`{"filter":{"not":{"field":"is-subtask","op":"yes"}}}`, `{"filter":{"field":"text","op":"contains","text":"a"}}`,
	`{"filter":{"any":[{"field":"tag","op":"none"},{"field":"paused","op":"yes"}]}}`, `{"filter":{"field":"list","op":"none"}}`}

// byID sorts rows by their ids, so that a choice among them is the same again.
func byID[T any](rows []*T) []*T {
	id := func(row *T) string {
		return reflect.ValueOf(row).Elem().FieldByName("ID").Interface().(book.ID).String()
	}
	slices.SortFunc(rows, func(a, b *T) int { return strings.Compare(id(a), id(b)) })
	return rows
}

func only[T any](rows []*T, f func(*T) bool) []*T {
	return slices.DeleteFunc(rows, func(row *T) bool { return !f(row) })
}

func pick[T any](rows []*T, n uint32) *T {
	if len(rows) == 0 {
		return nil
	}
	return rows[int(n)%len(rows)]
}

// neighbours are the siblings that a list shows before and behind a to-do.
func (r *Run) neighbours(id book.ID) (before, behind *book.Todo) {
	t, _ := r.Desk.Todo(id)
	order := book.ByPriority
	if l, err := r.Desk.List(t.List); err == nil {
		order = l.Order
	}
	var siblings []*book.Todo
	for s := range r.Desk.OfList(t.List) {
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
func (r *Run) many(s Step, some book.Many, list, under book.ID) book.Command {
	switch s.C % 9 {
	case 0:
		return book.MoveMany{IDs: some.IDs, To: book.Move{List: list}}
	case 8:
		if t, err := r.Desk.Todo(under); err == nil && s.B%2 == 0 { // beside one
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
	}[s.C%9]
	return some
}

// places makes the commands on lists, sections, shelves, tags and people; nil
// for the other kinds, or where there is nothing to act on.
func (r *Run) places(s Step) book.Command {
	name := fmt.Sprintf("n%d", s.C%2000)
	// Few lists, so that they have something in them.
	binned := s.Kind == "restore-list" || s.Kind == "restore-shelf"
	list := pick(only(byID(r.Desk.Lists()), func(l *book.List) bool {
		return !l.Deleted.IsZero() == binned && (s.Kind != "pour" || !l.Template.IsZero())
	}), s.A%3)
	if list != nil {
		if cmd := r.onList(s, list, name); cmd != nil {
			return cmd
		}
	}
	shelves := only(byID(r.Desk.Shelves()), func(l *book.Shelf) bool { return !l.Deleted.IsZero() == binned })
	if shelf := pick(shelves, s.A); shelf != nil {
		switch s.Kind {
		case "edit-shelf":
			if hours := term.Hours(s.B % 5); hours <= term.NoHours {
				return book.EditShelf{ID: shelf.ID, Hours: &hours}
			}
			return book.EditShelf{ID: shelf.ID, Name: &name}
		case "move-shelf":
			return book.MoveShelf{ID: shelf.ID, Before: pick(shelves, s.B).ID}
		case "delete-shelf":
			return book.DeleteShelf{ID: shelf.ID}
		case "restore-shelf":
			return book.RestoreShelf{ID: shelf.ID}
		}
	}
	if tag := pick(byID(r.Desk.Tags()), s.A); tag != nil {
		switch colour := book.Colour(s.B % 8); s.Kind {
		case "edit-tag":
			return book.EditTag{ID: tag.ID, Name: &name, Colour: &colour}
		case "merge-tags":
			return book.MergeTags{From: tag.ID, Into: pick(byID(r.Desk.Tags()), s.B).ID}
		case "delete-tag":
			return book.DeleteTag{ID: tag.ID}
		}
	}
	if views := r.Desk.Views(); s.Kind == "add-view" {
		question := asked[int(s.B>>8)%len(asked)]
		if tag := pick(byID(r.Desk.Tags()), s.B); tag != nil && s.B%2 == 0 {
			question = fmt.Sprintf(`{"filter":{"field":"tag","op":"any-of","values":[%q]}}`, tag.ID)
		}
		return book.AddView{Name: fmt.Sprintf("view%d", s.A%2000), Question: question, Pinned: s.B%2 == 0, Counted: s.B%3 > 0}
	} else if v := pick(views, s.A); v != nil {
		switch counted := s.B%2 == 0; s.Kind {
		case "edit-view":
			return book.EditView{ID: v.ID, Name: &name, Counted: &counted, Icon: &book.ViewIcons[s.B%5]}
		case "move-view":
			return book.MoveView{ID: v.ID, Before: pick(views, s.B).ID}
		case "delete-view":
			return book.DeleteView{ID: v.ID}
		}
	}
	if calendars := r.Desk.Calendars(); s.Kind == "add-calendar" {
		return book.AddCalendar{Name: fmt.Sprintf("calendar%d", s.A%50), Address: fmt.Sprintf("https://calendars.example/%d.ics", s.B%50), AllDayTakes: s.C%2 == 0}
	} else if c := pick(calendars, s.A); c != nil {
		switch takes, colour := s.B%2 == 0, book.Colour(s.C%8); s.Kind {
		case "edit-calendar":
			return book.EditCalendar{ID: c.ID, Name: &name, Colour: &colour, AllDayTakes: &takes}
		case "remove-calendar":
			return book.RemoveCalendar{ID: c.ID}
		}
	}
	if cmd := r.placeCommand(s); cmd != nil {
		return cmd
	}
	if person := pick(byID(r.Desk.People()), s.A); person != nil {
		switch s.Kind {
		case "edit-person":
			return book.EditPerson{ID: person.ID, Name: &name, Note: &name}
		case "remove-person":
			return book.RemovePerson{ID: person.ID}
		}
	}
	return nil
}

func (r *Run) onList(s Step, list *book.List, name string) book.Command {
	yes := s.B%2 == 0
	section := pick(r.Desk.Sections(list.ID), s.B)
	switch s.Kind {
	case "add-section":
		return book.AddSection{List: list.ID, Name: name}
	case "edit-list":
		order, colour := book.Order(s.B%6), book.Colour(s.C%8)
		var with book.ID
		if p := pick(byID(r.Desk.People()), s.A); p != nil {
			with = p.ID
		}
		due := day.DateOf(r.Now).AddDays(int(s.B%40) - 5)
		return []book.EditList{{ID: list.ID, Name: &name}, {ID: list.ID, Order: &order, Colour: &colour}, {ID: list.ID, Archived: &yes},
			{ID: list.ID, Pinned: &yes}, {ID: list.ID, Due: &due, Shift: s.A%2 == 0, Outcome: &name}, {ID: list.ID, Due: new(day.Date)}, {ID: list.ID, With: &with}}[s.C%7]
	case "finish-list":
		return book.FinishList{ID: list.ID, Rest: book.Rest(s.B % 4)}
	case "duplicate":
		if t := pick(byID(slices.Collect(r.Desk.OfList(list.ID))), s.B); t != nil && s.C%4 > 0 {
			return book.Duplicate{ID: t.ID}
		}
		return book.DuplicateList{ID: list.ID}
	case "checklist":
		return []book.Command{book.EditList{ID: list.ID, Checklist: &yes}, book.StartOver{List: list.ID}, book.ClearDone{List: list.ID}}[s.C%3]
	case "move-list":
		return book.MoveList{ID: list.ID, Shelf: pick(byID(r.Desk.Shelves()), s.B).ID}
	case "delete-list":
		return book.DeleteList{ID: list.ID}
	case "restore-list":
		return book.RestoreList{ID: list.ID}
	case "template":
		return book.SaveTemplate{List: list.ID, Name: name}
	case "pour":
		return book.Pour{Template: list.ID, Name: name, On: day.DateOf(r.Now).AddDays(int(s.B % 90))}
	case "into-section":
		if t := pick(byID(slices.Collect(r.Desk.OfList(list.ID))), s.B); t != nil && section != nil {
			return book.Move{ID: t.ID, List: list.ID, Section: section.ID}
		}
	}
	if section == nil {
		return nil
	}
	switch s.Kind {
	case "edit-section":
		return book.EditSection{ID: section.ID, Name: name}
	case "move-section":
		if other := pick(only(r.Desk.Sections(list.ID), func(o *book.Section) bool { return o != section }), s.C); other != nil {
			return book.MoveSection{ID: section.ID, After: other.ID}
		}
	case "delete-section":
		return book.DeleteSection{ID: section.ID, WithTodos: yes}
	}
	return nil
}

// Command is what a step means to the Book as it is; nil where it means nothing.
func (r *Run) Command(s Step) book.Command {
	todos := byID(slices.Collect(r.Desk.All()))
	list := book.ID{}
	if l := pick(byID(r.Desk.Lists()), s.B); l != nil && s.B%5 > 0 {
		list = l.ID
	}
	today := day.DateOf(r.Now)
	due := day.Moment{Date: today.AddDays(int(s.C%40) - 10)}
	tag := fmt.Sprintf("tag%d", s.C%6)
	switch s.Kind {
	case "capture":
		c := book.Capture{Title: fmt.Sprintf("t%d", s.A%1000), List: list, Priority: book.Priority(s.A % 4), Due: due}
		if s.A%3 == 0 {
			c.Notes, c.Tags = fmt.Sprintf("n%d", s.B), []string{tag}
		}
		if s.B%2 == 0 {
			c.Repeat = &repeat.Repeat{Rule: repeat.MustParse("FREQ=DAILY;INTERVAL=3"), First: due.Date}
		}
		return c
	case "tree":
		return book.CaptureTree{Items: []book.TreeItem{
			{Capture: book.Capture{Title: "tree", List: list, Done: s.A%5 == 0}, Under: -1},
			{Capture: book.Capture{Title: "branch", Estimate: int(s.B % 90), Done: s.A%3 == 0}, Under: 0},
			{Capture: book.Capture{Title: "leaf", Notes: fmt.Sprintf("n%d", s.C), Done: s.B%3 == 0}, Under: 1},
		}}
	case "choose":
		values := map[string]string{"urgentDays": fmt.Sprint(1 + s.A%5)}
		if s.B%2 == 0 {
			values["dayStart"] = fmt.Sprintf("0%d:00", s.B%7)
		}
		if s.C%2 == 0 {
			values["look"] = []string{"system", "light", "dark", ""}[s.C%4]
		}
		return book.Choose{Values: values}
	case "add-person":
		return book.AddPerson{Name: fmt.Sprintf("person%d", s.A%2000), Email: "p@harbour.example"}
	case "add-list":
		return book.AddList{Name: fmt.Sprintf("list%d", s.A%2000)}
	case "add-shelf":
		return book.AddShelf{Name: fmt.Sprintf("shelf%d", s.A%2000)}
	case "import":
		return r.incoming(s, todos, list)
	}
	// What acts on closed or binned to-dos looks among those first.
	var repeating []*book.Todo
	for _, t := range r.Desk.Open() {
		if t.Repeat != nil {
			repeating = append(repeating, t)
		}
	}
	if pool := map[string][]*book.Todo{"reopen": r.Desk.Closed(), "restore": r.Desk.Bin(), "skip": repeating, "pause": repeating,
		"resume": r.Desk.Paused(), "end-repeat": slices.Concat(repeating, r.Desk.Paused()), "move-repeat": repeating}[s.Kind]; len(pool) > 0 {
		todos = byID(slices.Clone(pool))
	}
	if cmd := r.places(s); cmd != nil || len(todos) == 0 {
		return cmd
	}
	id := todos[int(s.A)%len(todos)].ID
	switch s.Kind {
	case "edit":
		e := book.Edit{ID: id}
		title, notes, start := fmt.Sprintf("e%d", s.B%1000), strings.Repeat("x", int(s.C%4)), due.Date.AddDays(-3)
		switch s.B % 5 {
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
		t, _ := r.Desk.Todo(id)
		if parent, err := r.Desk.Todo(t.Parent); err == nil {
			return book.Move{ID: id, List: parent.List, Section: parent.Section, Parent: parent.Parent, After: parent.ID}
		}
	case "reorder":
		t, _ := r.Desk.Todo(id)
		before, behind := r.neighbours(id)
		switch m := (book.Move{ID: id, List: t.List, Section: t.Section, Parent: t.Parent}); {
		case before != nil && s.B%2 == 0:
			m.Before = before.ID
			return m
		case behind != nil:
			m.After = behind.ID
			return m
		}
	case "under": // also where it would be a cycle, which is refused
		return book.Move{ID: id, Parent: todos[int(s.B)%len(todos)].ID}
	case "bulk":
		some := book.Many{}
		for i := range 2 + int(s.B%6) {
			some.IDs = append(some.IDs, todos[(int(s.A)+i*int(s.C%7+1))%len(todos)].ID)
		}
		slices.SortFunc(some.IDs, func(a, b book.ID) int { return strings.Compare(a.String(), b.String()) })
		some.IDs = slices.Compact(some.IDs)
		return r.many(s, some, list, id)
	case "handful":
		return book.Pick{ID: id, Out: s.B%4 == 0}
	case "turn":
		note := s.B%3 > 0
		return book.Edit{ID: id, IsNote: &note}
	case "attach":
		return book.Attach{ID: id, File: book.Attachment{Name: "plan.png", Hash: strings.Repeat(fmt.Sprint(s.B%7), 64), Type: "image/png", Size: 9}}
	case "detach":
		if t := pick(only(todos, func(t *book.Todo) bool { return len(t.Attachments) > 0 }), s.A); t != nil {
			return book.Detach{ID: t.ID, Hash: t.Attachments[int(s.B)%len(t.Attachments)].Hash}
		}
	case "split":
		return book.Split{ID: id, Parts: 2 + int(s.B%4)}
	case "postpone":
		return book.Postpone{IDs: []book.ID{id}, By: book.ByDays(1 + int(s.B%9)), Release: []book.ID{id}}
	case "plan":
		return book.PlanFor{ID: id, Plan: []day.Horizon{{}, day.OnDay(due.Date), day.InWeek(due.Date), day.SomeTime()}[s.B%4]}
	case "subtask":
		return book.Capture{Title: fmt.Sprintf("s%d", s.B%1000), Parent: id, Due: due}
	case "change-rule":
		rules := []string{"FREQ=DAILY;INTERVAL=2", "FREQ=WEEKLY;BYDAY=MO,TH", "FREQ=MONTHLY;BYMONTHDAY=31", "FREQ=DAILY;COUNT=3"}
		return book.ChangeRule{ID: id, Rule: repeat.MustParse(rules[s.B%4]), Lead: int(s.C % 3), Anchor: repeat.Anchor(s.C % 6 / 5 * (1 - s.B%4%2))}
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
		return book.Remind{ID: id, Add: []day.Reminder{day.ReminderBefore(int(s.B % 100))}, Remove: []day.Reminder{day.ReminderBefore(int(s.C % 10))}}
	case "involve":
		if p := pick(byID(r.Desk.People()), s.B); p != nil {
			return book.Edit{ID: id, Person: &book.Involved{ID: p.ID, Role: book.Role(s.C % 4)}}
		}
	case "tag":
		return book.Tagging{ID: id, Add: []string{tag}[:s.B%2], Remove: []string{fmt.Sprintf("tag%d", s.B%6)}}
	}
	return nil
}
