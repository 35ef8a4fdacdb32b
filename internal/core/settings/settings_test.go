package settings_test

import (
	"encoding/json"
	"errors"
	"testing"

	"tincup/internal/core/settings"
	"tincup/internal/core/term"
)

// Each setting takes the values of its range and no other, and says what it has.
func TestValues(t *testing.T) {
	for name, c := range map[string]struct{ good, bad []string }{
		"zone":       {[]string{"machine", "Europe/Lisbon", "UTC", "America/Argentina/Buenos_Aires"}, []string{"", "Local", "local", "Mars/Olympus", "../etc/passwd"}},
		"dayStart":   {[]string{"00:00", "00:01", "04:30", "06:00"}, []string{"", "06:01", "23:00", "4", "-1:00"}},
		"weekStart":  {[]string{"monday", "sunday"}, []string{"", "Monday", "saturday"}},
		"dateOrder":  {[]string{"day-first", "month-first"}, []string{"", "year-first"}},
		"look":       {[]string{"system", "light", "dark"}, []string{"", "Dark"}},
		"urgentDays": {[]string{"1", "3", "60"}, []string{"", "0", "61", "-1", "two", "1.5"}},
		"singleKeys": {[]string{"on", "off"}, []string{"", "yes"}},
		"rows":       {[]string{"roomy", "close"}, []string{"", "tall"}},
		"views": {[]string{"today", "today,cup", "-", "cup,today,overdue,ready,waiting,upcoming,within-a-week,projects,done,bin"},
			[]string{"", "today,today", "inbox", "today,", "-,cup", "Today"}},
		"firstThing":     {[]string{"04:00", "08:30", "09:00", "11:59"}, []string{"", "03:59", "12:00", "9", "0"}},
		"morning":        {[]string{"04:00", "08:15"}, []string{"00:00", "12:00"}},
		"afternoon":      {[]string{"12:00", "14:00", "17:59"}, []string{"11:59", "18:00"}},
		"evening":        {[]string{"15:00", "19:00", "23:59"}, []string{"14:59", "24:00"}},
		"tonight":        {[]string{"15:00", "21:30", "23:59"}, []string{"14:59", "00:00"}},
		"reviewedWeekly": {[]string{"never", "2026-11-24"}, []string{"", "today", "2026-02-30"}},
		"marks":          {[]string{"tag", "list", "priority"}, []string{"", "tags", "none"}},
		"reasons":        {[]string{"hidden", "shown"}, []string{"", "true"}},
	} {
		f, known := settings.Named(name)
		if !known {
			t.Fatalf("there is no setting %s", name)
		}
		for _, v := range c.good {
			s, err := f.Set(settings.Settings{}, v)
			if err != nil || f.Get(s) != v {
				t.Errorf("%s set to %s is %s, %v", name, v, f.Get(s), err)
			}
			if back, err := f.Set(s, f.Default); err != nil || back != (settings.Settings{}) {
				t.Errorf("%s set back from %s leaves %+v, %v", name, v, back, err)
			}
			// What the file keeps reads to the same.
			packed, err := json.Marshal(s)
			var again settings.Settings
			if err != nil || json.Unmarshal(packed, &again) != nil || again != s {
				t.Errorf("%s set to %s is kept as %s", name, v, packed)
			}
		}
		for _, v := range c.bad {
			if s, err := f.Set(settings.Settings{}, v); !errors.Is(err, settings.ErrRange) || term.ClassOf(err) != term.Refused {
				t.Errorf("%s takes %q: %+v, %v", name, v, s, err)
			}
		}
	}
}

// The zero Settings are the defaults, and every setting has the words it needs.
func TestDefaults(t *testing.T) {
	names := map[string]bool{}
	for i := range settings.Fields {
		f := &settings.Fields[i]
		if got := f.Get(settings.Settings{}); got != f.Default {
			t.Errorf("%s is %s by default, and says %s", f.Name, got, f.Default)
		}
		if f.Says == "" || f.Wants == "" || names[f.Name] {
			t.Errorf("%s lacks words, or is there twice", f.Name)
		}
		names[f.Name] = true
	}
	if s := (settings.Settings{}); s.Urgent() != 3 {
		t.Errorf("urgent is within %d days", s.Urgent())
	}
}

// What became of a setting is said so that a person sees it.
func TestTold(t *testing.T) {
	for _, c := range []struct{ name, before, after, want string }{
		{"look", "system", "dark", "look: system → dark"},
		{"views", "cup,today,waiting", "cup,today", "views in the index without waiting"},
		{"views", "cup", "cup,within-a-week,done", "views in the index with within a week, done"},
		{"views", "cup,today", "today,cup", "views in the index in another order"},
		{"views", "cup,today", "today,done", "views in the index with done, without cup"},
		{"views", "cup", "-", "views in the index without cup"},
	} {
		f, _ := settings.Named(c.name)
		if got := f.Told(c.before, c.after); got != c.want {
			t.Errorf("%s → %s is told as %q, want %q", c.before, c.after, got, c.want)
		}
	}
}
