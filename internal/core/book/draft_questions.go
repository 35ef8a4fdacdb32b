package book

import (
	"slices"
	"strings"

	"tincup/internal/core/question"
)

// checkQuestion refuses what is no question.
func checkQuestion(text string) error {
	if _, err := question.Saved(text); err != nil {
		return refuse("definition", "%s", err.Error())
	}
	return nil
}

// askInstead lets views that ask for one row ask for another.
func (d *draft) askInstead(field question.Field, from, into ID) {
	for _, v := range d.views.all() {
		next, err := question.SavedInstead(v.Question, field, from, into)
		if err == nil && next != v.Question { // one that cannot be read names no row
			v.Question = next
			d.views.put(v)
		}
	}
}

// askedFor says which views ask for rows that the draft takes out: ". The view “Calls” asks
// for it". It is "" where none does.
func (d *draft) askedFor(field question.Field, gone ...ID) string {
	var names []string
	for _, v := range d.views.all() {
		tree, err := question.Saved(v.Question)
		if err != nil {
			continue
		}
		for _, id := range tree.Names(field) {
			if slices.Contains(gone, id) {
				names = append(names, quote(v.Name))
				break
			}
		}
	}
	switch len(names) {
	case 0:
		return ""
	case 1:
		return ". The view " + names[0] + " asks for it"
	}
	last := len(names) - 1
	return ". The views " + strings.Join(names[:last], ", ") + " and " + names[last] + " ask for it"
}
