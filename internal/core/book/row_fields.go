package book

import (
	"slices"

	"tincup/internal/core/day"
	"tincup/internal/core/term"
)

// todoField is a field of a to-do that a person can change: how two states of it are
// compared, how one is set back, how the history writes it, and how it tells what became
// of it; an edit tells of fields in the order of the table.
type todoField struct {
	attribute[Todo]
	pack func(*packer, *Todo)
	told told
}

// told is how the history tells what became of a field.
type told struct {
	as    string // what people call it; "" where an edit does not tell of it
	words func(*draft, *Todo) string
	// day is the one that the words name, if any.
	day func(*Todo) day.Date
}

// personal are the fields of a to-do that each account has for itself; the others are
// one for all who see it.
var personal = FieldsOf("plan", "handful", "reminders")

// Personal reports whether each account has a field of a to-do for itself.
func Personal(field string) bool { return FieldsOf(field)&personal != 0 }

// todoFields is every field of a to-do that a person can change, save the text of the
// notes. The names are those the API uses. A field that is missing here fails
// TestEveryFieldIsInTheTable.
var todoFields = []todoField{
	{attr("title", func(t *Todo) *string { return &t.Title }), func(p *packer, t *Todo) { p.line("Title", t.Title) }, told{}},
	{attr("notes", func(t *Todo) *int32 { return &t.NotesSize }), func(p *packer, t *Todo) { p.number("NotesSize", int64(t.NotesSize)) }, told{}},
	{attr("kind", func(t *Todo) *bool { return &t.IsNote }), func(p *packer, t *Todo) { p.flag("IsNote", t.IsNote) }, told{"kind", func(_ *draft, t *Todo) string { return map[bool]string{true: "note", false: "to-do"}[t.IsNote] }, nil}},
	{attribute[Todo]{"status", func(a, b *Todo) bool {
		return a.Status == b.Status && a.Completed == b.Completed && a.Cleared == b.Cleared
	},
		func(to, from *Todo) { to.Status, to.Completed, to.Cleared = from.Status, from.Completed, from.Cleared }}, func(p *packer, t *Todo) {
		p.word("Status", uint8(t.Status), t.Status)
		p.text("Completed", t.Completed)
		p.flag("Cleared", t.Cleared)
	}, told{"status", func(_ *draft, t *Todo) string {
		return map[Status]string{NeedsAction: "not begun", InProcess: "begun"}[t.Status]
	}, nil}},
	{attribute[Todo]{"list", func(a, b *Todo) bool {
		return a.List == b.List && a.Section == b.Section && a.Parent == b.Parent && a.Position == b.Position
	}, func(to, from *Todo) {
		to.List, to.Section, to.Parent, to.Position = from.List, from.Section, from.Parent, from.Position
	}}, func(p *packer, t *Todo) {
		p.text("List", t.List)
		p.text("Section", t.Section)
		p.text("Parent", t.Parent)
		p.lineIfAny("Position", string(t.Position))
	}, told{"list", (*draft).homeName, nil}},
	{attr("priority", func(t *Todo) *Priority { return &t.Priority }), func(p *packer, t *Todo) { p.word("Priority", uint8(t.Priority), t.Priority) }, told{"priority", func(_ *draft, t *Todo) string { return t.Priority.String() }, nil}},
	{attr("start", func(t *Todo) *day.Date { return &t.Start }), func(p *packer, t *Todo) { p.text("Start", t.Start) }, told{"start", func(d *draft, t *Todo) string { return d.dayWords(t.Start) }, func(t *Todo) day.Date { return t.Start }}},
	{attr("due", func(t *Todo) *day.Moment { return &t.Due }), func(p *packer, t *Todo) { p.text("Due", t.Due) }, told{"due", func(d *draft, t *Todo) string { return d.momentWords(t.Due) }, func(t *Todo) day.Date { return t.Due.Date }}},
	{attr("plan", func(t *Todo) *day.Horizon { return &t.Plan }), func(p *packer, t *Todo) { p.text("Plan", t.Plan) }, told{"plan", func(d *draft, t *Todo) string { return d.planWords(t.Plan) }, plannedDay}},
	{attr("estimate", func(t *Todo) *int32 { return &t.Estimate }), func(p *packer, t *Todo) { p.number("Estimate", int64(t.Estimate)) }, told{"takes", func(_ *draft, t *Todo) string { return minutesWords(int(t.Estimate)) }, nil}},
	{attr("concentration", func(t *Todo) *term.Concentration { return &t.Concentration }), func(p *packer, t *Todo) { p.word("Concentration", uint8(t.Concentration), t.Concentration) },
		told{"concentration", func(_ *draft, t *Todo) string {
			return map[term.Concentration]string{term.Deep: "deep", term.Light: "light"}[t.Concentration]
		}, nil}},
	{attr("person", func(t *Todo) *Involved { return &t.Person }), func(p *packer, t *Todo) {
		if t.Person != (Involved{}) {
			p.any("Person", t.Person)
		}
	}, told{"person", (*draft).personWords, nil}},
	{attr("place", func(t *Todo) *string { return &t.Place }), func(p *packer, t *Todo) { p.lineIfAny("Place", t.Place) }, told{"place", func(_ *draft, t *Todo) string { return t.Place }, nil}},
	{attr("outcome", func(t *Todo) *string { return &t.Outcome }), func(p *packer, t *Todo) { p.lineIfAny("Outcome", t.Outcome) }, told{"outcome", func(_ *draft, t *Todo) string { return quoteOrNone(t.Outcome) }, nil}},
	{attr("source", func(t *Todo) *Source { return &t.Source }), func(p *packer, t *Todo) {
		if !t.Source.IsZero() {
			p.any("Source", t.Source)
		}
	}, told{}},
	{attr("inOrder", func(t *Todo) *bool { return &t.InOrder }), func(p *packer, t *Todo) { p.flag("InOrder", t.InOrder) }, told{"subtasks", func(_ *draft, t *Todo) string {
		return map[bool]string{true: "one after another", false: "in any order"}[t.InOrder]
	}, nil}},
	{attr("handful", func(t *Todo) *day.Date { return &t.Handful }), func(p *packer, t *Todo) { p.text("Handful", t.Handful) }, told{}},
	{attribute[Todo]{"attachments", func(a, b *Todo) bool { return slices.Equal(a.Attachments, b.Attachments) },
		func(to, from *Todo) { to.Attachments = from.Attachments }}, func(p *packer, t *Todo) {
		p.anyOf("Attachments", len(t.Attachments), t.Attachments)
	}, told{}},
	{attribute[Todo]{"reminders", func(a, b *Todo) bool { return slices.Equal(a.Reminders, b.Reminders) },
		func(to, from *Todo) { to.Reminders = from.Reminders }}, func(p *packer, t *Todo) {
		p.anyOf("Reminders", len(t.Reminders), t.Reminders)
	}, told{}},
	{attribute[Todo]{"repeat", sameRepeat, func(to, from *Todo) { to.Repeat = from.Repeat }}, func(p *packer, t *Todo) {
		if t.Repeat != nil {
			p.any("Repeat", t.Repeat)
		}
	}, told{}},
	{attr("record", func(t *Todo) *ID { return &t.Record }), func(p *packer, t *Todo) { p.text("Record", t.Record) }, told{}},
	{attribute[Todo]{"tags", func(a, b *Todo) bool { return slices.Equal(a.Tags, b.Tags) },
		func(to, from *Todo) { to.Tags = from.Tags }}, func(p *packer, t *Todo) { p.ids("Tags", t.Tags) }, told{}},
	{attr("deleted", func(t *Todo) *day.Timestamp { return &t.Deleted }), func(p *packer, t *Todo) { p.text("Deleted", t.Deleted) }, told{}},
}

// Fields is a set of the fields of a to-do that a person can change.
type Fields uint32

// Altered returns the fields in which two states of a to-do differ.
func Altered(a, b *Todo) Fields {
	var set Fields
	for i := range todoFields {
		if !todoFields[i].same(a, b) {
			set |= 1 << i
		}
	}
	return set
}

// FieldsOf is the set of the fields with some names.
func FieldsOf(names ...string) Fields {
	var set Fields
	for i := range todoFields {
		if slices.Contains(names, todoFields[i].name) {
			set |= 1 << i
		}
	}
	return set
}

// Names names the fields of the set in the API's words, in one order.
func (f Fields) Names() []string {
	var names []string
	for i := range todoFields {
		if f&(1<<i) != 0 {
			names = append(names, todoFields[i].name)
		}
	}
	return names
}

// FieldNames names every field a person can change, in the API's words.
func FieldNames() []string { return Fields(1<<len(todoFields) - 1).Names() }

// changedFields names the fields in which two states of a to-do differ.
func changedFields(a, b *Todo) []string { return Altered(a, b).Names() }

// Slim returns the change with no more of each changed to-do than turning it
// round needs: what was altered, and what names it. New and removed ones stay
// whole.
func (c *Change) Slim() *Change {
	slim := *c
	slim.Todos = make([]Diff[Todo], len(c.Todos))
	for i, d := range c.Todos {
		if d.Before == nil || d.After == nil {
			slim.Todos[i] = d
			continue
		}
		part := func(t *Todo) *Todo {
			return &Todo{ID: t.ID, Title: t.Title, Changed: t.Changed, RemindFrom: t.RemindFrom, Revision: t.Revision}
		}
		before, after := part(d.Before), part(d.After)
		for _, f := range todoFields {
			if !f.same(d.Before, d.After) {
				f.copy(before, d.Before)
				f.copy(after, d.After)
			}
		}
		slim.Todos[i] = Diff[Todo]{before, after}
	}
	return &slim
}

// Redone returns a to-do as a change left it, of what Slim keeps of the change; now is the to-do as it
// was before.
func Redone(now *Todo, d Diff[Todo]) *Todo {
	next := *now
	for _, f := range todoFields {
		if !f.same(d.Before, d.After) {
			f.copy(&next, d.After)
		}
	}
	next.Changed, next.RemindFrom, next.Revision = d.After.Changed, d.After.RemindFrom, d.After.Revision
	return &next
}

// ChangedFields names what the change did to one to-do, in the API's words.
func (c *Change) ChangedFields(id ID) []string {
	var names []string
	for _, d := range c.Todos {
		if d.Before != nil && d.After != nil && d.After.ID == id {
			names = changedFields(d.Before, d.After)
		}
	}
	for _, d := range c.Notes {
		touches := d.Before != nil && d.Before.ID == id || d.After != nil && d.After.ID == id
		if touches && !slices.Contains(names, "notes") {
			names = append(names, "notes")
		}
	}
	return names
}

func sameRepeat(a, b *Todo) bool {
	if a.Repeat == nil || b.Repeat == nil {
		return a.Repeat == b.Repeat
	}
	return a.Repeat == b.Repeat || a.Repeat.Same(*b.Repeat)
}
