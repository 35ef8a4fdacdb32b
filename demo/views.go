package demo

import (
	"encoding/json"
	"fmt"
	"time"

	"tincup/internal/app"
	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/view"
)

// savedView is a view in the file. Its filter is that of package filter, with
// names where that has ids.
type savedView struct {
	Name, Icon, Colour, Group, Shape string
	Order                            []string
	Pinned, Counted                  bool
	Filter                           map[string]any
}

// views makes the commands that save the views; the Book has all they name.
func (w *writer) views(saved []savedView) ([]app.Step, error) {
	var steps []app.Step
	var err error
	w.app.Read(func(b *book.Desk, _ day.Clock) {
		ids := idsByName(b)
		for _, v := range saved {
			cmd := book.AddView{Name: v.Name, Icon: v.Icon, Pinned: v.Pinned, Counted: v.Counted, Colour: new(book.Colour)}
			if err = cmd.Colour.UnmarshalText([]byte(v.Colour)); err == nil {
				cmd.Question, err = v.question(ids)
			}
			if err != nil {
				err = fmt.Errorf("the demo data, view %s: %w", v.Name, err)
				return
			}
			steps = append(steps, app.Step{At: w.clock.Now.Add(-time.Minute), Command: cmd})
		}
	})
	return steps, err
}

// idsByName finds what a filter may name, by its field and name.
func idsByName(b *book.Desk) map[string]book.ID {
	ids := map[string]book.ID{}
	for _, t := range b.Tags() {
		ids["tag "+t.Name] = t.ID
	}
	for _, l := range b.Lists() {
		ids["list "+l.Name] = l.ID
	}
	for _, s := range b.Shelves() {
		ids["shelf "+s.Name] = s.ID
	}
	for _, p := range b.People() {
		ids["person "+p.Name] = p.ID
	}
	return ids
}

func (v savedView) question(ids map[string]book.ID) (string, error) {
	if err := nameToID(v.Filter, ids); err != nil {
		return "", err
	}
	text, err := json.Marshal(map[string]any{"filter": v.Filter, "group": v.Group, "order": v.Order, "shape": v.Shape})
	if err != nil {
		return "", err
	}
	d, err := view.ParseDefinition(text)
	if err != nil {
		return "", err
	}
	text, err = json.Marshal(d)
	return string(text), err
}

// nameToID puts ids in place of names throughout a filter.
func nameToID(node any, ids map[string]book.ID) error {
	switch n := node.(type) {
	case []any:
		for _, sub := range n {
			if err := nameToID(sub, ids); err != nil {
				return err
			}
		}
	case map[string]any:
		field, _ := n["field"].(string)
		values, _ := n["values"].([]any)
		switch field {
		case "tag", "list", "shelf", "person":
			for i, name := range values {
				id, ok := ids[fmt.Sprintf("%s %v", field, name)]
				if !ok {
					return fmt.Errorf("there is no %s called %v", field, name)
				}
				values[i] = id.String()
			}
		}
		for _, key := range []string{"all", "any", "not"} {
			if err := nameToID(n[key], ids); err != nil {
				return err
			}
		}
	}
	return nil
}
