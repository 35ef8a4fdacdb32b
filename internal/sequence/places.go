package sequence

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
func (r *Run) placeCommand(s Step) book.Command {
	name := fmt.Sprintf("ground %d", s.B%6)
	if s.C%3 == 0 {
		name = strings.ToUpper(name)
	}
	middle, radius := geo.MustAt(float64(s.C%90), float64(s.B%180)), int(s.C%6000)
	todo := pick(byID(slices.Clone(r.Desk.Open())), s.A)
	switch places := byID(r.Desk.Places()); {
	case s.Kind == "add-place":
		return book.AddPlace{Name: name, Middle: middle, Thing: s.C%5 == 0}
	case s.Kind == "at-place" && todo != nil:
		return book.Edit{ID: todo.ID, Place: &name}
	case s.Kind == "edge" && todo != nil:
		remind := book.Remind{ID: todo.ID, Add: []day.Reminder{day.ReminderOn(day.Edge(1+s.C%4), name)}}
		if len(todo.Reminders) > 0 && s.C%2 == 0 {
			remind.Remove = todo.Reminders[:1]
		}
		return remind
	case len(places) == 0:
		return nil
	case s.Kind == "edit-place":
		edit := book.EditPlace{ID: pick(places, s.A).ID}
		switch s.C % 4 {
		case 0:
			edit.Middle = &middle
		case 1:
			edit.Radius = &radius
		default:
			edit.Name = &name
		}
		return edit
	case s.Kind == "remove-place":
		return book.RemovePlace{ID: pick(places, s.A).ID}
	}
	return nil
}
