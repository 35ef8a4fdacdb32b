package book

import (
	"slices"
	"strings"

	"tincup/internal/core/day"
	"tincup/internal/core/settings"
)

// MaxReminders is how many a to-do has at most.
const MaxReminders = 20

// Remind adds reminders to a to-do and takes others away. One that is added takes the place of
// another of the same time with another sound.
type Remind struct {
	ID          ID
	Add, Remove []day.Reminder
}

func (Remind) kind() Kind { return "remind" }

func (c Remind) run(d *draft) error {
	t, err := d.alive(c.ID)
	if err != nil {
		return err
	}
	before := reminderWords(t.Reminders)
	kept := slices.DeleteFunc(slices.Clone(t.Reminders), func(r day.Reminder) bool { return slices.Contains(c.Remove, r) })
	if t.Reminders, err = addReminders(kept, c.Add); err != nil {
		return err
	}
	d.put(t)
	d.did("Reminders changed", &t, addedAndGone(before, reminderWords(t.Reminders)))
	return nil
}

func reminderWords(reminders []day.Reminder) []string {
	words := make([]string, len(reminders))
	for i, r := range reminders {
		if words[i] = r.Words(); r.Sound != "" {
			words[i] += " with the sound " + r.Sound
		}
	}
	return words
}

func addReminders(to, add []day.Reminder) ([]day.Reminder, error) {
	for _, r := range add {
		at := slices.IndexFunc(to, func(had day.Reminder) bool { return had.Silent() == r.Silent() })
		switch {
		case r.IsZero():
		case r.Sound != "" && r.Sound != "none" && !slices.Contains(settings.Sounds, r.Sound):
			return nil, refuse("reminders", "There is no sound “%s”. There are %s and none.", r.Sound, strings.Join(settings.Sounds, ", "))
		case at >= 0:
			to = slices.Clone(to)
			to[at] = r
		default:
			to = append(to, r)
		}
	}
	if len(to) > MaxReminders {
		return nil, refuse("reminders", "There are %d reminders; %d is the most.", len(to), MaxReminders)
	}
	return to, nil
}

func checkEstimate(minutes int) (int32, error) {
	if minutes < 0 || minutes > MaxEstimate {
		return 0, refuse("estimate", "The estimate is %d minutes; 1 to %d is wanted.", minutes, MaxEstimate)
	}
	return int32(minutes), nil
}
