package book

import (
	"slices"

	"tincup/internal/core/day"
)

// todoFields is every field of a to-do that a person can change, save the text
// of the notes. The names are those the API uses.
var todoFields = []attribute[Todo]{
	attr("title", func(t *Todo) *string { return &t.Title }),
	attr("notes", func(t *Todo) *int32 { return &t.NotesSize }),
	{"list", func(a, b *Todo) bool {
		return a.List == b.List && a.Section == b.Section && a.Parent == b.Parent && a.Position == b.Position
	}, func(to, from *Todo) {
		to.List, to.Section, to.Parent, to.Position = from.List, from.Section, from.Parent, from.Position
	}},
	attr("kind", func(t *Todo) *bool { return &t.IsNote }),
	attr("inOrder", func(t *Todo) *bool { return &t.InOrder }),
	attr("handful", func(t *Todo) *day.Date { return &t.Handful }),
	{"attachments", func(a, b *Todo) bool { return slices.Equal(a.Attachments, b.Attachments) },
		func(to, from *Todo) { to.Attachments = from.Attachments }},
	{"status", func(a, b *Todo) bool { return a.Status == b.Status && a.Completed == b.Completed },
		func(to, from *Todo) { to.Status, to.Completed = from.Status, from.Completed }},
	attr("priority", func(t *Todo) *Priority { return &t.Priority }),
	attr("start", func(t *Todo) *day.Date { return &t.Start }),
	attr("due", func(t *Todo) *day.Moment { return &t.Due }),
	attr("plan", func(t *Todo) *day.Horizon { return &t.Plan }),
	attr("estimate", func(t *Todo) *int32 { return &t.Estimate }),
	{"reminders", func(a, b *Todo) bool { return slices.Equal(a.Reminders, b.Reminders) },
		func(to, from *Todo) { to.Reminders = from.Reminders }},
	attr("person", func(t *Todo) *Involved { return &t.Person }),
	{"repeat", sameRepeat,
		func(to, from *Todo) { to.Repeat = from.Repeat }},
	attr("record", func(t *Todo) *ID { return &t.Record }),
	{"tags", func(a, b *Todo) bool { return slices.Equal(a.Tags, b.Tags) },
		func(to, from *Todo) { to.Tags = from.Tags }},
	attr("deleted", func(t *Todo) *day.Timestamp { return &t.Deleted }),
}

// FieldNames names every field a person can change, in the API's words.
func FieldNames() []string {
	names := make([]string, 0, len(todoFields))
	for _, f := range todoFields {
		names = append(names, f.name)
	}
	return names
}

// changedFields names the fields in which two states of a to-do differ.
func changedFields(a, b *Todo) []string {
	var names []string
	for _, f := range todoFields {
		if !f.same(a, b) {
			names = append(names, f.name)
		}
	}
	return names
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
