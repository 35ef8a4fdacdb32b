package httpapi

import (
	"encoding/json"
	"strconv"
	"strings"

	"github.com/oapi-codegen/nullable"

	"tincup/internal/app"
	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/view"
	"tincup/internal/httpapi/contract"
)

// clockNow is the Clock handed to readers of the Book.
type clockNow = day.Clock

// orNull writes none as null.
func orNull(s string) nullable.Nullable[string] {
	if s == "" {
		return nullable.NewNullNullable[string]()
	}
	return nullable.NewNullableWithValue(s)
}

// orAbsent leaves none out.
func orAbsent(s string) *string {
	if s == "" {
		return nil
	}
	return &s
}

// orFalse leaves false out.
func orFalse(b bool) *bool {
	if !b {
		return nil
	}
	return &b
}

func titled(t *book.Todo) *contract.Titled {
	if t == nil {
		return nil
	}
	return &contract.Titled{Id: t.ID.String(), Title: t.Title}
}

func upperFirst(s string) string { return strings.ToUpper(s[:1]) + s[1:] }

func reminderTexts(list []day.Reminder) []string {
	texts := make([]string, 0, len(list))
	for _, r := range list {
		texts = append(texts, r.String())
	}
	return texts
}

func encodeInvolved(p book.Involved) *contract.Involved {
	if p.Role == book.NoRole {
		return nil
	}
	return &contract.Involved{Id: p.ID.String(), Role: contract.Role(p.Role.String()), Since: orAbsent(p.Since.String())}
}

func encodeProgress(p book.Progress) *contract.Progress {
	if p.Total == 0 {
		return nil
	}
	return &contract.Progress{Done: p.Done, Total: p.Total}
}

func encodeTodo(b *book.Desk, t *book.Todo) contract.Todo {
	out := contract.Todo{
		Id: t.ID.String(), Title: t.Title, HasNotes: t.NotesSize > 0, List: orNull(t.List.String()),
		Status: contract.Status(t.Status.String()), Priority: contract.Priority(t.Priority.String()),
		Start: orNull(t.Start.String()), Due: orNull(t.Due.String()), Plan: orNull(t.Plan.String()),
		Tags: tagNames(b, t.Tags), Created: t.Created.String(), Changed: t.Changed.String(),
		Completed: orNull(t.Completed.String()), Deleted: orNull(t.Deleted.String()), Revision: t.Revision,
		Parent: orAbsent(t.Parent.String()), Person: encodeInvolved(t.Person), Repeat: encodeRepeat(t.Repeat),
		Record: orAbsent(t.Record.String()), Section: orAbsent(t.Section.String()), Handful: orAbsent(t.Handful.String()),
		IsNote: orFalse(t.IsNote), InOrder: orFalse(t.InOrder), Attachments: encodeAttachments(t.Attachments),
		Outcome: orAbsent(t.Outcome), Place: orAbsent(t.Place),
	}
	if t.Estimate > 0 {
		minutes := int(t.Estimate)
		out.Estimate = &minutes
	}
	if len(t.Reminders) > 0 {
		texts := reminderTexts(t.Reminders)
		out.Reminders = &texts
	}
	return out
}

func encodeAttachments(files []book.Attachment) *[]contract.Attachment {
	if len(files) == 0 {
		return nil
	}
	out := make([]contract.Attachment, 0, len(files))
	for _, f := range files {
		out = append(out, encodeFile(f))
	}
	return &out
}

func encodeFile(f book.Attachment) contract.Attachment {
	return contract.Attachment{Name: f.Name, Hash: f.Hash, Type: f.Type, Size: f.Size, Picture: orFalse(app.Pictures[f.Type])}
}

func tagNames(b *book.Desk, ids []book.ID) []string {
	names := make([]string, 0, len(ids))
	for _, id := range ids {
		if tag, err := b.Tag(id); err == nil {
			names = append(names, tag.Name)
		}
	}
	return names
}

// changedTodo puts what was done beside the to-do.
func changedTodo(t contract.Todo, change contract.Change) contract.ChangedTodo {
	return contract.ChangedTodo{
		Id: t.Id, Title: t.Title, Notes: t.Notes, HasNotes: t.HasNotes, List: t.List, Status: t.Status,
		Priority: t.Priority, Start: t.Start, Due: t.Due, Plan: t.Plan, Tags: t.Tags, Created: t.Created,
		Changed: t.Changed, Completed: t.Completed, Deleted: t.Deleted, Revision: t.Revision, Change: change,
		Parent: t.Parent, Person: t.Person, Repeat: t.Repeat, Record: t.Record, Estimate: t.Estimate, Reminders: t.Reminders,
		Section: t.Section, Handful: t.Handful, IsNote: t.IsNote, InOrder: t.InOrder, Attachments: t.Attachments,
		Outcome: t.Outcome, Place: t.Place,
	}
}

// encodeChange names a change, or none where the command found nothing to do.
func encodeChange(c *book.Change) contract.Change {
	if c.Empty() {
		return contract.Change{Says: c.Says}
	}
	return contract.Change{Revision: c.Revision, Says: c.Says}
}

// encodeView writes a view; found says where a search found its words, by to-do.
func encodeView(b *book.Desk, c day.Clock, q view.Query, res *view.Result, found map[book.ID]*contract.Found) viewBody {
	v := viewBody{View: contract.View{Revision: b.Revision(), Today: c.Today().String(), Sentence: view.Sentence(b, c, q),
		Total: res.Total, Beyond: res.Beyond}, Groups: make([]groupBody, 0, len(res.Groups))}
	for _, g := range res.Groups {
		group := groupBody{Group: contract.Group{Kind: contract.GroupKind(g.Kind), Horizon: orNull(g.Horizon.String()), Count: g.Count, Of: orAbsent(g.Of.String()), Name: orAbsent(g.Title(b)),
			Word: orAbsent(g.Word()),
		}, Rows: make([]json.RawMessage, 0, len(g.Rows)), ids: make([]book.ID, 0, len(g.Rows))}
		if g.Notes > 0 {
			group.Notes = &g.Notes
		}
		if g.Minutes > 0 {
			group.Minutes = &g.Minutes
		}
		for _, r := range g.Rows {
			group.Rows = append(group.Rows, appendRow(make([]byte, 0, 600), b, r, found[r.Todo.ID]))
			group.ids = append(group.ids, r.Todo.ID)
		}
		if len(g.ComesRound) > 0 {
			round := make([]contract.Titled, 0, len(g.ComesRound))
			for _, t := range g.ComesRound {
				round = append(round, contract.Titled{Id: t.ID.String(), Title: t.Title})
			}
			group.ComesRound = &round
		}
		v.Groups = append(v.Groups, group)
	}
	return v
}

func encodeRow(b *book.Desk, r view.Row) contract.Row {
	row := contract.Row{Todo: encodeTodo(b, r.Todo), Late: r.Late, DaysLate: r.DaysLate, Dimmed: r.Dimmed,
		Progress: encodeProgress(r.Progress), Why: orAbsent(r.Why)}
	if s := r.Standing; s != nil {
		moved := s.Moved.String()
		row.Next, row.NoNext, row.Moved = titled(s.Next), orFalse(s.Next == nil), &moved
		if s.Quiet > 0 {
			row.Quiet = &s.Quiet
		}
	}
	if r.Waited > 0 {
		row.Waited = &r.Waited
	}
	if r.Depth > 0 {
		row.Depth = &r.Depth
	}
	if len(r.Path) > 0 {
		row.Path = &r.Path
	}
	return row
}

func etagOf(revision int64) string { return `"` + strconv.FormatInt(revision, 10) + `"` }
