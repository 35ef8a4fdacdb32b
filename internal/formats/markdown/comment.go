package markdown

import (
	"strings"

	"tincup/internal/core/book"
	"tincup/internal/core/capture"
	"tincup/internal/core/exchange"
	"tincup/internal/formats/column"
)

// untold are the columns that lines do not tell of.
var untold = map[string]bool{"uid": true, "under": true, "created": true, "completed": true, "since": true, "handful": true, "notes": true}

// told are the columns that lines tell of, by their names.
var told = func() map[string]*column.Column {
	all := map[string]*column.Column{}
	for i := range column.All {
		if c := &column.All[i]; !untold[c.Name] {
			all[c.Name] = c
		}
	}
	return all
}()

// hold makes a value fit for a comment; held takes it out again.
var hold = strings.NewReplacer(`\`, `\\`, "\r", "", "\n", `\n`, "--", `-\-`)

func held(s string) string {
	var b strings.Builder
	for i := 0; i < len(s); i++ {
		if s[i] == '\\' && i+1 < len(s) {
			if i++; s[i] == 'n' {
				b.WriteByte('\n')
				continue
			}
		}
		b.WriteByte(s[i])
	}
	return b.String()
}

// comments are what a sentence says otherwise than it is: the values of an item that are others in
// what is read of its line.
func comments(item, read *exchange.Item) string {
	var b strings.Builder
	for i := range column.All {
		c := &column.All[i]
		if told[c.Name] == nil {
			continue
		}
		if is := c.Write(item); is != c.Write(read) {
			b.WriteString(" <!-- " + c.Name + ": " + hold.Replace(is) + " -->")
		}
	}
	return b.String()
}

// name reads "name: value" of a comment.
func name(comment string) (name, value string, ok bool) {
	inside, ok := strings.CutPrefix(strings.TrimSpace(comment), "<!--")
	if !ok {
		return "", "", false
	}
	name, value, ok = strings.Cut(strings.TrimSuffix(inside, "-->"), ":")
	return strings.ToLower(strings.TrimSpace(name)), held(strings.TrimSpace(value)), ok
}

// itemOf is the item that a sentence makes.
func itemOf(d *capture.Draft) exchange.Item {
	item := exchange.Item{Incoming: book.Incoming{Under: -1, Carries: exchange.All, Notes: d.Notes, List: d.List, Tags: d.Tags}}
	t := &item.Todo
	t.Title, t.IsNote, t.Due, t.Start, t.Plan, t.Priority = exchange.OneLine(d.Title), d.Note, d.Due, d.Start, d.Plan, d.Priority
	t.Estimate, t.Reminders = int32(d.Estimate), d.Reminders
	if d.Repeat != nil {
		r := *d.Repeat
		r.Current = r.First // which is the next, where nothing else is said
		t.Repeat = &r
	}
	if d.Person.Name != "" {
		item.Person, t.Person.Role = d.Person.Name, d.Person.Role
	}
	for _, c := range d.Choices {
		told[string(c.Field)].Take(&item, c.Value, column.Form{}) // a value of its own set is never wrong
	}
	return item
}

// draftOf is what of an item a sentence might say.
func draftOf(item *exchange.Item) capture.Draft {
	t := &item.Todo
	d := capture.Draft{Title: t.Title, Note: t.IsNote, List: item.List, Due: t.Due, Start: t.Start, Plan: t.Plan, Priority: t.Priority,
		Tags: item.Tags, Estimate: int(t.Estimate), Reminders: t.Reminders}
	if t.Repeat != nil {
		d.Repeat = t.Repeat
	}
	if item.Person != "" {
		d.Person = capture.Person{Name: item.Person, Role: t.Person.Role}
	}
	for _, field := range []capture.Field{capture.FieldStatus, capture.FieldConcentration} {
		if value := told[string(field)].Write(item); value != "" && (field != capture.FieldStatus || t.Status.Open()) {
			d.Choices = append(d.Choices, capture.Choice{Field: field, Value: value})
		}
	}
	return d
}

// with lays what comments say over what a line says. What is wrong with them is a sentence.
func with(item exchange.Item, comments map[string]string) (laid exchange.Item, wrong string) {
	if len(comments) == 0 {
		return item, ""
	}
	fresh := exchange.Item{Incoming: book.Incoming{Under: -1, Carries: item.Carries, Notes: item.Notes}, Line: item.Line, Column: item.Column, Remarks: item.Remarks}
	for i := range column.All {
		c := &column.All[i]
		if told[c.Name] == nil {
			continue
		}
		value, said := comments[c.Name]
		if !said {
			value = c.Write(&item)
		}
		if wrong := c.Take(&fresh, value, column.Form{}); wrong != "" {
			return item, wrong
		}
	}
	column.Settle(&fresh)
	return fresh, ""
}
