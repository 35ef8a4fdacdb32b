package store_test

import (
	"fmt"
	"slices"
	"strings"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/geo"
)

// placeCommand is a command about places, as a step of a sequence says; nil for other steps.
// Names come back in both cases, so that they meet.
func (r *run) placeCommand(s step) book.Command {
	name := fmt.Sprintf("ground %d", s.b%6)
	if s.c%3 == 0 {
		name = strings.ToUpper(name)
	}
	middle, radius := geo.MustAt(float64(s.c%90), float64(s.b%180)), int(s.c%6000)
	todo := pick(byID(slices.Clone(r.desk.Open())), s.a)
	switch places := byID(r.desk.Places()); {
	case s.kind == "add-place":
		return book.AddPlace{Name: name, Middle: middle, Thing: s.c%5 == 0}
	case s.kind == "at-place" && todo != nil:
		return book.Edit{ID: todo.ID, Place: &name}
	case s.kind == "edge" && todo != nil:
		remind := book.Remind{ID: todo.ID, Add: []day.Reminder{day.ReminderOn(day.Edge(1+s.c%4), name)}}
		if len(todo.Reminders) > 0 && s.c%2 == 0 {
			remind.Remove = todo.Reminders[:1]
		}
		return remind
	case len(places) == 0:
		return nil
	case s.kind == "edit-place":
		edit := book.EditPlace{ID: pick(places, s.a).ID}
		switch s.c % 4 {
		case 0:
			edit.Middle = &middle
		case 1:
			edit.Radius = &radius
		default:
			edit.Name = &name
		}
		return edit
	case s.kind == "remove-place":
		return book.RemovePlace{ID: pick(places, s.a).ID}
	}
	return nil
}
