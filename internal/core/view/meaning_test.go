package view_test

import (
	"fmt"
	"slices"
	"strings"
	"testing"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/filter"
	"tincup/internal/core/view"
)

// What a definition means: how many match of how many, what to drop for most more, and what
// is to blame where nothing can.
func TestMean(t *testing.T) {
	f := fill(t)
	for i := range 12 {
		c := book.Capture{Title: fmt.Sprint("lamp ", i), Estimate: 10}
		if i < 10 {
			c.Tags = []string{"calls"}
		}
		if i%4 == 0 {
			c.Priority = book.High
		}
		f.put(c)
	}
	tag := f.desk.Tags()[0].ID.String()
	mean := func(text string) view.Meaning {
		t.Helper()
		d, err := view.ParseDefinition([]byte(text))
		if err != nil {
			t.Fatal(err)
		}
		m, err := view.Mean(f.desk, f.clock(), d, d.Filter.Check(f.desk, f.clock()))
		if err != nil {
			t.Fatal(err)
		}
		return m
	}
	tagged := `{"field":"tag","op":"any-of","values":["` + tag + `"]}`
	high := `{"field":"priority","op":"any-of","values":["high"]}`
	m := mean(`{"filter":{"all":[` + tagged + `,` + high + `]}}`)
	if m.Total != 3 || m.Looked != 12 || m.Minutes != 30 || len(m.Tests) != 2 || len(m.Rows) != 3 {
		t.Errorf("%d of %d, %d min, %d tests, %d rows", m.Total, m.Looked, m.Minutes, len(m.Tests), len(m.Rows))
	}
	if m.OfferSays != "Without “of high priority”, 10 to-dos match now." {
		t.Errorf("it offers %q", m.OfferSays)
	}
	if m = mean(`{"filter":{"all":[` + tagged + `]}}`); m.Offer != nil || m.Total != 10 || len(m.Rows) != 8 {
		t.Errorf("one test: it offers %v, %d match, %d shown", m.Offer, m.Total, len(m.Rows))
	}
	never := mean(`{"filter":{"all":[` + tagged + `,{"field":"tag","op":"none"},` + high + `]}}`)
	if never.Answer.Verdict != filter.Never || never.Total != 0 || !strings.Contains(never.Says, "calls") {
		t.Errorf("never: %+v", never)
	}
	if never.Offer == nil || !strings.HasPrefix(never.OfferSays, "Without “") {
		t.Errorf("of a contradiction it offers %+v, %q", never.Offer, never.OfferSays)
	}
	one := mean(`{"filter":{"all":[{"field":"text","op":"contains","text":"lamp 4"},{"field":"priority","op":"any-of","values":["low"]}]}}`)
	if one.OfferSays != "Without “of low priority”, 1 to-do matches now." {
		t.Errorf("one more: %q", one.OfferSays)
	}

	why := func(of view.Subject, narrow string) string {
		q := view.Query{Of: of}
		if narrow != "" {
			q.Narrow = filter.Must(narrow)
		}
		return view.WhyEmpty(f.desk, f.clock(), q)
	}
	definition := func(text string) view.Definition {
		d, err := view.ParseDefinition([]byte(text))
		if err != nil {
			t.Fatal(err)
		}
		return d
	}
	for _, c := range []struct{ got, want string }{
		{why(definition(`{"filter":{"all":[`+tagged+`,{"field":"tag","op":"none"}]}}`), ""), "It can never hold anything. "},
		{why(definition(`{"filter":{"all":[{"field":"text","op":"contains","text":"lamp 4"},{"field":"priority","op":"any-of","values":["low"]}]}}`), ""), "Without “of low priority”, 1 to-do"},
		{why(view.Ready, `{"field":"priority","op":"any-of","values":["low"]}`), "Narrowed to nothing: without that, 12 to-dos would stand here."},
		{why(view.Overdue, high), ""}, {why(view.Overdue, ""), ""}, {why(view.Own{ID: book.ID{15: 99}}, ""), ""},
	} {
		if !strings.HasPrefix(c.got, c.want) || c.want == "" && c.got != "" {
			t.Errorf("it says %q, want %q", c.got, c.want)
		}
	}
	own := f.do(book.AddView{Name: "low", Question: `{"filter":{"field":"priority","op":"any-of","values":["low"]}}`}).Views[0].After.ID
	if got := why(view.Own{ID: own}, ""); got != "" {
		t.Errorf("of one test nothing is offered: %q", got)
	}
}

// What a search found stands in four groups, each in the order it was found in, and any
// stretch of it can be asked for.
func TestFound(t *testing.T) {
	f := fill(t)
	away := f.do(book.AddList{Name: "Old"}).Lists[0].After.ID
	var ids []book.ID
	put := func(title string, c book.Capture) book.ID {
		c.Title = title
		id := f.put(c)
		ids = append(ids, id)
		return id
	}
	f.do(book.Delete{ID: put("binned", book.Capture{})})
	put("away", book.Capture{List: away})
	f.do(book.Complete{ID: put("done", book.Capture{})})
	put("note", book.Capture{IsNote: true})
	parent := put("open", book.Capture{Estimate: 20})
	put("sub", book.Capture{Parent: parent, Estimate: 50})
	archived := true
	f.do(book.EditList{ID: away, Archived: &archived})
	ids = append(ids, book.ID{15: 200}) // in the index still, and gone
	write := func(offset, limit int) string {
		res := view.Found(f.desk, f.clock(), ids, offset, limit)
		var all []string
		for _, g := range res.Groups {
			var titles []string
			for _, r := range g.Rows {
				titles = append(titles, strings.Join(slices.Concat([]string{r.Todo.Title}, r.Path), " < "))
			}
			all = append(all, fmt.Sprintf("%s %d (%d notes, %d min): %s", g.Kind, g.Count, g.Notes, g.Minutes, strings.Join(titles, ", ")))
		}
		return fmt.Sprintf("%d\n%s", res.Total, strings.Join(all, "\n"))
	}
	if got, want := write(0, 10), "6\nfound 3 (1 notes, 50 min): note, open, sub < open\nfound-done 1 (0 notes, 0 min): done\nfound-away 1 (0 notes, 0 min): away\nfound-bin 1 (0 notes, 0 min): binned"; got != want {
		t.Errorf("got\n%s\nwant\n%s", got, want)
	}
	if got, want := write(2, 2), "6\nfound 3 (1 notes, 50 min): sub < open\nfound-done 1 (0 notes, 0 min): done\nfound-away 1 (0 notes, 0 min): \nfound-bin 1 (0 notes, 0 min): "; got != want {
		t.Errorf("the third and fourth:\n%s\nwant\n%s", got, want)
	}
}

// Each row of Ready says why it stands there.
func TestWhyReady(t *testing.T) {
	f := fill(t) // Tuesday 24 November 2026, 09:00
	put := func(title string, c book.Capture) book.ID { c.Title = title; return f.put(c) }
	f.now = f.now.AddDate(0, 0, -4)
	put("old", book.Capture{})
	f.now = f.now.AddDate(0, 0, 3)
	put("yesterday's", book.Capture{})
	f.now = f.now.AddDate(0, 0, 1)
	put("new", book.Capture{})
	put("weighty", book.Capture{Priority: book.Medium})
	put("late", book.Capture{Due: day.MustMoment("2026-11-20"), Estimate: 45})
	put("today", book.Capture{Due: day.MustMoment("2026-11-24")})
	put("tomorrow", book.Capture{Due: day.MustMoment("2026-11-25"), Estimate: 90})
	whole := put("whole", book.Capture{Due: day.MustMoment("2026-11-28")})
	put("part", book.Capture{Parent: whole, Estimate: 30})
	want := map[string]string{
		"old": "no due, put in 4 days ago", "yesterday's": "no due, put in yesterday", "new": "no due, put in today",
		"weighty": "no due, medium priority", "late": "late, so before all that is not, 45 min of work", "today": "due today",
		"tomorrow": "1 day left, 1 h 30 of work", "whole": "4 days left, 30 min of work", "part": "4 days left for what it is part of, 30 min of work",
	}
	rows := mustAsk(t, f.desk, f.clock(), view.Ready).Groups[0].Rows
	if len(rows) != len(want) {
		t.Errorf("%d rows, want %d", len(rows), len(want))
	}
	for _, r := range rows {
		if r.Why != want[r.Todo.Title] {
			t.Errorf("%s: %q, want %q", r.Todo.Title, r.Why, want[r.Todo.Title])
		}
	}
}
