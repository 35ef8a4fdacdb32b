// Package exchange is what passes between a Book and files: a to-do as an Item, with names in the
// place of ids. Formats map bytes to Items and back; this package takes Items out of a desk, and
// looks what would become of Items that come in.
package exchange

import (
	"slices"
	"strings"
	"time"

	"tincup/internal/core/book"
	"tincup/internal/core/capture"
	"tincup/internal/core/day"
	"tincup/internal/core/geo"
)

// Item is one to-do, with names in the place of ids. Items stand in their order, each behind what
// it is a subtask of.
type Item struct {
	book.Incoming
	// Line and Column say where it begins in its file, from 1; 0 for nowhere.
	Line, Column int
	// Remarks say what of it was not read as it stands.
	Remarks []string
	// Raw is what stands in the file, "" where that is not kept; ToNotes is how many values of it
	// could not be read, and go to the notes.
	Raw     string
	ToNotes int
	// Passed are the names of properties in the file that are not taken over, each once.
	Passed []string
	// Sentence is what was read as one, where nothing but it says what the item is; else "".
	Sentence string
}

// Leave keeps a value that could not be read for the notes; remark says why. name is what the file
// calls it, "" for nothing.
func (i *Item) Leave(name, value, remark string) {
	if name != "" {
		value = name + ": " + value
	}
	if i.Left != "" {
		i.Left += "\n"
	}
	i.Left += value
	i.ToNotes++
	i.Remarks = append(i.Remarks, remark)
}

// All are the fields of a to-do that pass between programs: what is said of it, not what it is
// here (a record, in the bin, its files).
var All = book.FieldsOf(book.FieldNames()...) &^ book.FieldsOf("record", "deleted", "attachments")

// A Codec is a format, both ways.
type Codec interface {
	// Write writes items as a file. zone is that of wall times.
	Write(items []Item, w World) ([]byte, error)
	// Read reads a file. What is wrong with all of it is an *Error; what is wrong with one item
	// is among the refusals, and the others are read.
	Read(text []byte, w World) ([]Item, []Refusal, error)
}

// World is what a format may know of its surroundings.
type World struct {
	Now  time.Time
	Zone *time.Location
	// ReminderHour is when a reminder of a date without time comes.
	ReminderHour day.TimeOfDay
	// Name is what the file is of: a list or a view.
	Name string
	// Places are where places are, by their names.
	Places map[string]geo.Point
	// Columns are what columns of a table are that were named by hand, by their heads in small
	// letters: the name of one of ours, or "-" for none.
	Columns map[string]string
	// Sentences is what sentences are read with; Instead are those that are read in the place of the
	// ones in a file, by the numbers of their lines from 1.
	Sentences capture.Env
	Instead   map[int]string
}

// Error says what is wrong with a file, and where.
type Error struct {
	// Line and Column count from 1; 0 where it is nowhere in particular.
	Line, Column int
	Reason       string
}

func (e *Error) Error() string { return e.Reason }

// Refusal is an item that could not be read.
type Refusal struct {
	Error
	// Title is what it is called, as far as that could be read; Raw is what stands in the file.
	Title, Raw string
}

// Take returns the to-dos as items, each with all that is under it and is not in the bin, in the
// order of their siblings. The error is that of reading notes.
func Take(desk *book.Desk, roots []*book.Todo) ([]Item, error) {
	t := taking{desk: desk, at: map[book.ID]int{}}
	return t.all(roots)
}

// Only returns some to-dos as items and nothing else: each stands under the next above it that is
// one of them, in the order of its siblings.
func Only(desk *book.Desk, some []*book.Todo) ([]Item, error) {
	t := taking{desk: desk, at: map[book.ID]int{}, only: map[book.ID]bool{}}
	for _, todo := range some {
		t.only[todo.ID] = true
	}
	var roots []*book.Todo
	for _, todo := range some {
		if !t.only[todo.Parent] {
			roots = append(roots, todo)
		}
	}
	return t.all(roots)
}

func (t *taking) all(roots []*book.Todo) ([]Item, error) {
	for _, root := range roots {
		if err := t.take(root, -1); err != nil {
			return nil, err
		}
	}
	return t.items, nil
}

type taking struct {
	desk  *book.Desk
	items []Item
	// only are the to-dos that are taken; nil for all.
	only map[book.ID]bool
	// at is where each to-do stands among the items.
	at map[book.ID]int
}

func (t *taking) take(todo *book.Todo, under int) error {
	if _, taken := t.at[todo.ID]; taken || !todo.Deleted.IsZero() || t.only != nil && !t.only[todo.ID] {
		return nil
	}
	item := Item{Incoming: book.Incoming{UID: todo.KnownAs(), Under: under, Todo: *todo, Carries: All}}
	notes, err := t.desk.Note(todo)
	if err != nil {
		return err
	}
	item.Notes = notes
	if list, err := t.desk.List(todo.List); err == nil {
		item.List = list.Name
	}
	if section, err := t.desk.Section(todo.Section); err == nil {
		item.Section = section.Name
	}
	if person, err := t.desk.Person(todo.Person.ID); err == nil {
		item.Person = person.Name
	}
	for _, id := range todo.Tags {
		if tag, err := t.desk.Tag(id); err == nil {
			item.Tags = append(item.Tags, tag.Name)
		}
	}
	at := len(t.items)
	t.at[todo.ID] = at
	t.items = append(t.items, item)
	subtasks := t.desk.Subtasks(todo.ID)
	slices.SortFunc(subtasks, book.ComparePositions)
	for _, sub := range subtasks {
		if err := t.take(sub, at); err != nil {
			return err
		}
	}
	return nil
}

// OfList returns what stands in a list by itself, by its sections and positions; none is the Cup.
func OfList(desk *book.Desk, list book.ID) []*book.Todo {
	rank := map[book.ID]int{}
	for i, s := range desk.Sections(list) {
		rank[s.ID] = i + 1
	}
	var roots []*book.Todo
	for t := range desk.OfList(list) {
		if t.Parent.IsZero() && t.Deleted.IsZero() && t.Record.IsZero() {
			roots = append(roots, t)
		}
	}
	slices.SortFunc(roots, func(a, b *book.Todo) int {
		if d := rank[a.Section] - rank[b.Section]; d != 0 {
			return d
		}
		return book.ComparePositions(a, b)
	})
	return roots
}

// Everything returns what stands by itself in all lists that are listed, and in the Cup: list
// after list, in the order of the index.
func Everything(desk *book.Desk) []*book.Todo {
	roots := OfList(desk, book.ID{})
	shelves := map[book.ID]book.Position{}
	for _, s := range desk.Shelves() {
		shelves[s.ID] = s.Position
	}
	lists := slices.DeleteFunc(desk.Lists(), func(l *book.List) bool { return !l.Listed() })
	slices.SortFunc(lists, func(a, b *book.List) int {
		if c := strings.Compare(string(shelves[a.Shelf]), string(shelves[b.Shelf])); c != 0 {
			return c
		}
		return strings.Compare(string(a.Position), string(b.Position))
	})
	for _, l := range lists {
		roots = append(roots, OfList(desk, l.ID)...)
	}
	return roots
}

// What says what becomes of an item.
type What string

// What may become of an item.
const (
	New     What = "new"
	Changed What = "changed"
	Same    What = "same"
	Refused What = "refused"
)

// Row is an item of a preview.
type Row struct {
	What  What
	Title string
	// Like: it is new, has no UID, and a to-do with its title, list and due is there.
	Like bool
	// Depth is how deep it stands below another item.
	Depth int
	// Line and Column say where it begins in its file.
	Line, Column int
	Fields       []FieldChange
	// Reason is why it is refused.
	Reason  string
	Remarks []string
	// Raw is what stands in the file of an item that is refused; "" where that is not kept.
	Raw string
	// Status, Due and List say a little of what it is.
	Status book.Status
	Due    day.Moment
	List   string
	// Sentence is that of the item.
	Sentence string
}

// FieldChange is a field that would be another; the words are "" where there are none.
type FieldChange struct{ Field, Was, Is string }

// Preview is what would become of items.
type Preview struct {
	Rows                        []Row
	New, Changed, Same, Refused int
	// ToNotes is how many values could not be read, and go to the notes.
	ToNotes int
	// Like is how many of those that are new are like a to-do that is there.
	Like int
	// Passed are the properties that are not taken over, those of the most items first.
	Passed []Passed
	// Says is what the history would say.
	Says string
}

// Command is the Import of items into a list, with room for its report.
func Command(items []Item, list book.ID) book.Import {
	cmd := book.Import{List: list, Report: make([]book.Imported, len(items))}
	for _, item := range items {
		cmd.Items = append(cmd.Items, item.Incoming)
	}
	return cmd
}

// Look works out what would become of items, and changes nothing. refused are those that could
// not be read at all; each is told how far it has got, and may end it, as that of book.Import.
// Errors are a *book.RuleError, of reading notes, or of each.
func Look(desk *book.Desk, env book.Env, items []Item, refused []Refusal, list book.ID, each func(done int) error) (Preview, error) {
	var p Preview
	for _, r := range refused {
		p.Rows = append(p.Rows, Row{What: Refused, Title: r.Title, Line: r.Line, Column: r.Column, Reason: r.Reason, Raw: r.Raw})
	}
	p.Refused = len(refused)
	if len(items) == 0 {
		return p, nil
	}
	cmd := Command(items, list)
	cmd.Each = each
	change, err := desk.Do(env, cmd)
	if err != nil {
		return p, err
	}
	p.Says = change.Says
	diffs := map[book.ID]*book.Diff[book.Todo]{}
	for i := range change.Todos {
		if after := change.Todos[i].After; after != nil {
			diffs[after.ID] = &change.Todos[i]
		}
	}
	like := Likes(desk, items, list)
	p.Passed = passed(items)
	depths := make([]int, len(items))
	for i, told := range cmd.Report {
		item := &items[i]
		row := Row{Title: item.Todo.Title, Line: item.Line, Column: item.Column, Remarks: item.Remarks, Status: item.Todo.Status, Due: item.Todo.Due, List: item.List, Sentence: item.Sentence}
		if item.Under >= 0 {
			depths[i] = depths[item.Under] + 1
		}
		if told.Err == nil {
			p.ToNotes += item.ToNotes
		}
		row.Depth = depths[i]
		switch {
		case told.Err != nil:
			row.What, row.Reason, row.Raw = Refused, told.Err.Error(), item.Raw
			p.Refused++
		case told.New:
			row.What, row.Like = New, like[i]
			if p.New++; row.Like {
				p.Like++
			}
		case len(told.Changed) > 0:
			row.What = Changed
			p.Changed++
			for _, field := range told.Changed {
				change := FieldChange{Field: field}
				if d := diffs[told.ID]; d != nil && d.Before != nil {
					change.Was, change.Is = words(field, d.Before), words(field, d.After)
				}
				row.Fields = append(row.Fields, change)
			}
		default:
			row.What = Same
			p.Same++
		}
		p.Rows = append(p.Rows, row)
	}
	return p, nil
}

// words say what a field holds, for those that a few words can say.
func words(field string, t *book.Todo) string {
	switch field {
	case "title":
		return t.Title
	case "status":
		return t.Status.String()
	case "priority":
		return t.Priority.String()
	case "start":
		return t.Start.String()
	case "due":
		return t.Due.String()
	case "plan":
		return t.Plan.String()
	case "place":
		return t.Place
	case "outcome":
		return t.Outcome
	case "estimate":
		if t.Estimate > 0 {
			return day.LengthWords(int(t.Estimate))
		}
	}
	return ""
}
