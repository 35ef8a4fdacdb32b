package book

import "slices"

// field is a part of a to-do that is edited, compared and undone as one. The
// names are those the API uses.
type field struct {
	name string
	same func(a, b *Todo) bool
	copy func(to, from *Todo)
}

// todoFields is every field a person can change, save the text of the notes.
var todoFields = []field{
	{"title", func(a, b *Todo) bool { return a.Title == b.Title },
		func(to, from *Todo) { to.Title = from.Title }},
	{"notes", func(a, b *Todo) bool { return a.NotesSize == b.NotesSize },
		func(to, from *Todo) { to.NotesSize = from.NotesSize }},
	{"list", func(a, b *Todo) bool { return a.List == b.List && a.Parent == b.Parent && a.Position == b.Position },
		func(to, from *Todo) { to.List, to.Parent, to.Position = from.List, from.Parent, from.Position }},
	{"status", func(a, b *Todo) bool { return a.Status == b.Status && a.Completed == b.Completed },
		func(to, from *Todo) { to.Status, to.Completed = from.Status, from.Completed }},
	{"priority", func(a, b *Todo) bool { return a.Priority == b.Priority },
		func(to, from *Todo) { to.Priority = from.Priority }},
	{"start", func(a, b *Todo) bool { return a.Start == b.Start },
		func(to, from *Todo) { to.Start = from.Start }},
	{"due", func(a, b *Todo) bool { return a.Due == b.Due },
		func(to, from *Todo) { to.Due = from.Due }},
	{"plan", func(a, b *Todo) bool { return a.Plan == b.Plan },
		func(to, from *Todo) { to.Plan = from.Plan }},
	{"estimate", func(a, b *Todo) bool { return a.Estimate == b.Estimate },
		func(to, from *Todo) { to.Estimate = from.Estimate }},
	{"reminders", func(a, b *Todo) bool { return slices.Equal(a.Reminders, b.Reminders) },
		func(to, from *Todo) { to.Reminders = from.Reminders }},
	{"person", func(a, b *Todo) bool { return a.Person == b.Person },
		func(to, from *Todo) { to.Person = from.Person }},
	{"repeat", sameRepeat,
		func(to, from *Todo) { to.Repeat = from.Repeat }},
	{"record", func(a, b *Todo) bool { return a.Record == b.Record },
		func(to, from *Todo) { to.Record = from.Record }},
	{"tags", func(a, b *Todo) bool { return slices.Equal(a.Tags, b.Tags) },
		func(to, from *Todo) { to.Tags = from.Tags }},
	{"deleted", func(a, b *Todo) bool { return a.Deleted == b.Deleted },
		func(to, from *Todo) { to.Deleted = from.Deleted }},
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
