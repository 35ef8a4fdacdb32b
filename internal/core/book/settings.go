package book

import (
	"slices"
	"strings"

	"tincup/internal/core/day"
	"tincup/internal/core/settings"
)

// Chosen are the settings of an account. There is a row once something was chosen.
type Chosen struct {
	Account  ID                `json:"Account"`
	Settings settings.Settings `json:"Settings"`
	Revision int64             `json:"Revision"`
}

// Choose sets settings of the account by their names; "" sets one back to its default.
type Choose struct{ Values map[string]string }

func (Choose) kind() Kind { return "settings" }

// Settings are the account's, and whether any was ever chosen.
func (b *Desk) Settings() (s settings.Settings, ever bool) {
	if row, ok := b.chosen[b.account]; ok {
		return row.Settings, true
	}
	return s, false
}

func (c Choose) run(d *draft) error {
	row, ok := d.chosen.get(d.desk.account)
	if !ok {
		row = Chosen{Account: d.desk.account}
	}
	for name := range c.Values {
		if _, there := settings.Named(name); !there {
			return refuse(name, "There is no setting “%.40s”.", name)
		}
	}
	var told []string
	for i := range settings.Fields {
		f := &settings.Fields[i]
		value, named := c.Values[f.Name]
		if !named {
			continue
		}
		before := f.Get(row.Settings)
		if value == "" {
			value = f.Default
		}
		next, err := f.Set(row.Settings, value)
		if err != nil {
			return refuse(f.Name, "“%.60s” is not a value of “%s”: %s is wanted.", value, f.Says, f.Wants)
		}
		row.Settings = next
		if after := f.Get(next); after != before {
			told = append(told, f.Told(before, after))
		}
	}
	if len(told) > 0 {
		d.chosen.put(row)
		d.says = "Settings, " + strings.Join(told, ", ")
	}
	return nil
}

// HoursOn gives one date working hours of its own; nil leaves it those of its weekday.
type HoursOn struct {
	Day   day.Date
	Hours *day.Hours
}

func (HoursOn) kind() Kind { return "settings" }

// keptHours is for how many days after it a date keeps hours of its own.
const keptHours = 62

func (c HoursOn) run(d *draft) error {
	row, ok := d.chosen.get(d.desk.account)
	if !ok {
		row = Chosen{Account: d.desk.account}
	}
	before := row.Settings
	f, _ := settings.Named("hoursOn")
	next, err := f.Set(before, before.WithHoursOn(c.Day, c.Hours, d.env.Clock.Today().AddDays(-keptHours)))
	if err != nil {
		return refuse("day", "So many dates have hours of their own that no more can. Set some of them back.")
	}
	if f.Get(next) == f.Get(before) {
		return nil
	}
	row.Settings = next
	d.chosen.put(row)
	said := "as usual"
	switch {
	case c.Hours != nil && c.Hours.Minutes() == 0:
		said = "away"
	case c.Hours != nil:
		said = c.Hours.String()
	}
	d.says = "Hours on " + d.dayWords(c.Day) + ": " + said
	return nil
}

// settingsAttributes are the settings, each edited and undone by itself.
var settingsAttributes = func() (all []attribute[Chosen]) {
	for i := range settings.Fields {
		f := &settings.Fields[i]
		all = append(all, attribute[Chosen]{f.Name,
			func(a, b *Chosen) bool { return f.Get(a.Settings) == f.Get(b.Settings) },
			func(to, from *Chosen) {
				// What a row holds is a value of the setting.
				to.Settings, _ = f.Set(to.Settings, f.Get(from.Settings))
			}})
	}
	return slices.Clip(all)
}()

func (c Chosen) key() ID           { return c.Account }
func (c Chosen) at(n int64) Chosen { c.Revision = n; return c }
func (c Chosen) revised() int64    { return c.Revision }
