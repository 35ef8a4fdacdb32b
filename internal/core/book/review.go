package book

import (
	"fmt"

	"tincup/internal/core/settings"
)

// Keep says that a to-do is to stay as it is: it counts as changed now.
type Keep struct{ ID ID }

func (Keep) kind() Kind { return "keep" }

func (c Keep) run(d *draft) error {
	t, err := d.alive(c.ID)
	if err != nil {
		return err
	}
	if !t.Open() {
		return refuse("id", "“%s” is done or cancelled.", t.Title)
	}
	d.touch(t)
	d.did("Kept", &t, "")
	return nil
}

// FinishReview notes that a walk was gone through today: a daily, weekly or monthly one, in
// which so much was decided in so many minutes.
type FinishReview struct {
	Walk             settings.Walk
	Decided, Minutes int
}

func (FinishReview) kind() Kind { return "review" }

// mostMinutes bounds how long a walk is said to have taken: a week.
const mostMinutes = 7 * 24 * 60

func (c FinishReview) run(d *draft) error {
	switch {
	case c.Walk < 0 || c.Walk >= settings.Walks:
		return refuse("walk", "There is a daily, a weekly and a monthly review.")
	case c.Decided < 0 || c.Minutes < 0 || c.Minutes > mostMinutes:
		return refuse("minutes", "%d decided in %d minutes; neither is negative, and %d minutes are the most.", c.Decided, c.Minutes, mostMinutes)
	}
	row, ok := d.chosen.get(d.desk.account)
	if !ok {
		row = Chosen{Account: d.desk.account}
	}
	row.Settings.Reviewed[c.Walk] = d.env.Clock.Today().String()
	d.chosen.put(row)
	d.says = fmt.Sprintf("%s review done: %d decided in %s", c.Walk, c.Decided, minutesWords(max(c.Minutes, 1)))
	return nil
}
