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

// orAbsent leaves a zero value out.
func orAbsent[T comparable](v T) *T {
	var zero T
	if v == zero {
		return nil
	}
	return &v
}

func titled(t *book.Todo) *contract.Titled {
	if t == nil {
		return nil
	}
	return &contract.Titled{Id: t.ID.String(), Title: t.Title}
}

func upperFirst(s string) string { return strings.ToUpper(s[:1]) + s[1:] }

func lowerFirst(s string) string { return strings.ToLower(s[:1]) + s[1:] }

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
	return contract.Attachment{Name: f.Name, Hash: f.Hash, Type: f.Type, Size: f.Size, Picture: orAbsent(app.Pictures[f.Type])}
}

// encodeChange names a change, or none where the command found nothing to do.
func encodeChange(c *book.Change) contract.Change {
	if c.Empty() {
		return contract.Change{Says: c.Says}
	}
	return contract.Change{Revision: c.Revision, Says: c.Says}
}

// encodeView writes a view, sentence saying what it holds; found says where a search found its words, by to-do.
func encodeView(b *book.Desk, c day.Clock, sentence string, res *view.Result, found map[book.ID]*contract.Found) viewBody {
	v := viewBody{View: contract.View{Revision: b.Revision(), Today: c.Today().String(), Sentence: sentence,
		Total: res.Total, Beyond: res.Beyond}, Groups: make([]groupBody, 0, len(res.Groups))}
	for _, g := range res.Groups {
		group := groupBody{Group: contract.Group{Kind: contract.GroupKind(g.Kind), Horizon: orNull(g.Horizon.String()), Count: g.Count, Of: orAbsent(g.Of.String()), Name: orAbsent(g.Title(b)),
			Word: orAbsent(g.Word()),
		}, Rows: make([]json.RawMessage, 0, len(g.Rows)), ids: make([]book.ID, 0, len(g.Rows))}
		if g.Notes > 0 {
			group.Notes = &g.Notes
		}
		if minutes := g.Minutes + g.Assumed; minutes > 0 {
			group.Minutes, group.Assumed = &minutes, orAbsent(g.Assumed)
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
		if len(g.Lists) > 0 {
			lists := make([]contract.DueList, 0, len(g.Lists))
			for _, r := range g.Lists {
				lists = append(lists, contract.DueList{Id: r.List.ID.String(), Name: r.List.Name, Colour: contract.Colour(r.List.Colour.String()),
					Due: r.List.Due.String(), Late: r.Late, DaysLate: r.DaysLate, Progress: encodeProgress(r.Progress)})
			}
			group.Lists = &lists
		}
		v.Groups = append(v.Groups, group)
	}
	return v
}

func etagOf(revision int64) string { return `"` + strconv.FormatInt(revision, 10) + `"` }
