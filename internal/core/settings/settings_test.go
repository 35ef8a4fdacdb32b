package settings_test

import (
	"encoding/json"
	"errors"
	"fmt"
	"strings"
	"testing"
	"time"

	"tincup/internal/core/day"
	"tincup/internal/core/settings"
	"tincup/internal/core/term"
)

// Each setting takes the values of its range and no other, and says what it has.
func TestValues(t *testing.T) {
	hours := struct{ good, bad []string }{
		[]string{"none", "09:00-12:30", "00:00-24:00", "09:00-12:30, 13:30-17:30"}, []string{"9", "12:00-12:00", "09:00-25:00", "09:00-12:00, 11:00-13:00"},
	}
	onOff := struct{ good, bad []string }{[]string{"on", "off"}, []string{"", "On", "none"}}
	cases := map[string]struct{ good, bad []string }{
		"hoursMonday": hours, "hoursTuesday": hours, "hoursWednesday": hours, "hoursThursday": hours, "hoursFriday": hours, "hoursSaturday": hours, "hoursSunday": hours,
		"ownHoursMonday": hours, "ownHoursTuesday": hours, "ownHoursWednesday": hours, "ownHoursThursday": hours, "ownHoursFriday": hours, "ownHoursSaturday": hours, "ownHoursSunday": hours,
		"ownHoursOn": {[]string{"none", "2026-12-24 19:00-20:00; 2026-12-25 none"}, []string{"2026-12-24", "2026-12-24 19-18"}},
		"peak":       hours,
		"cards":      onOff, "browserNotifications": onOff, "desktopNotifications": onOff,
		"hoursOn": {[]string{"none", "2026-12-24 09:00-12:00", "2026-12-24 09:00-12:00; 2026-12-25 none", dates(100)},
			[]string{"2026-12-24", "2026-12-24 ", "Christmas none", "2026-12-24 9", "2026-12-24 none;", dates(101)}},
		"assumed":      {[]string{"1", "30", "480"}, []string{"", "0", "481", "-30", "half an hour"}},
		"csvColumns":   {[]string{"none", "colour=-", "due+by=due&subject=title", "a=" + strings.Repeat("x", 7998)}, []string{"Subject=title", "subject=", "subject=title&subject=notes", "a=%zz", "a=" + strings.Repeat("x", 7999)}},
		"copies":       {[]string{"0", "1", "14", "90"}, []string{"", "-1", "91", "all"}},
		"reminderHour": {[]string{"00:00", "00:01", "09:00", "23:59"}, []string{"", "24:00", "9"}},
		"quietHours":   {[]string{"none", "22:00-07:00", "00:00-00:01"}, []string{"", "22:00", "22:00-22:00", "22:00-25:00", "x-07:00"}},
		"ringsPaused":  {[]string{"no", "2026-11-24T14:00"}, []string{"", "2026-11-24", "14:00", "none"}},
		"sound":        {[]string{"tap", "two-taps", "drip", "low-bell", "kettle", "none"}, []string{"", "bell", "Tap"}},
		"zone":         {[]string{"machine", "Europe/Lisbon", "UTC", "America/Argentina/Buenos_Aires"}, []string{"", "Local", "local", "Mars/Olympus", "../etc/passwd"}},
		"dayStart":     {[]string{"00:00", "00:01", "04:30", "06:00"}, []string{"", "06:01", "23:00", "4", "-1:00"}},
		"weekStart":    {[]string{"monday", "sunday"}, []string{"", "Monday", "saturday"}},
		"dateOrder":    {[]string{"day-first", "month-first"}, []string{"", "year-first"}},
		"look":         {[]string{"system", "light", "dark"}, []string{"", "Dark"}},
		"urgentDays":   {[]string{"1", "3", "60"}, []string{"", "0", "61", "-1", "two", "1.5"}},
		"singleKeys":   {[]string{"on", "off"}, []string{"", "yes"}},
		"rows":         {[]string{"roomy", "close"}, []string{"", "tall"}},
		"views": {[]string{"today", "today,cup", "-", "cup,today,overdue,ready,waiting,upcoming,within-a-week,projects,done,bin"},
			[]string{"", "today,today", "inbox", "today,", "-,cup", "Today"}},
		"firstThing":      {[]string{"04:00", "08:30", "09:00", "11:59"}, []string{"", "03:59", "12:00", "9", "0"}},
		"morning":         {[]string{"04:00", "08:15"}, []string{"00:00", "12:00"}},
		"afternoon":       {[]string{"12:00", "14:00", "17:59"}, []string{"11:59", "18:00"}},
		"evening":         {[]string{"15:00", "19:00", "23:59"}, []string{"14:59", "24:00"}},
		"tonight":         {[]string{"15:00", "21:30", "23:59"}, []string{"14:59", "00:00"}},
		"reviewedDaily":   {[]string{"never", "2026-11-24"}, []string{"", "daily"}},
		"reviewedMonthly": {[]string{"never", "2026-11-24"}, []string{"", "2026-11"}},
		"reviewedWeekly":  {[]string{"never", "2026-11-24"}, []string{"", "today", "2026-02-30"}},
		"marks":           {[]string{"tag", "list", "priority"}, []string{"", "tags", "none"}},
		"reasons":         {[]string{"hidden", "shown"}, []string{"", "true"}},
	}
	for i := range settings.Fields {
		if name := settings.Fields[i].Name; len(cases[name].good) == 0 {
			t.Errorf("no value is tried for %s", name)
		}
	}
	for name, c := range cases {
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

// dates are the hours of so many single dates in a row.
func dates(n int) string {
	parts := make([]string, n)
	for i := range parts {
		parts[i] = day.MustDate("2026-12-01").AddDays(i).String() + " none"
	}
	return strings.Join(parts, "; ")
}

// set sets settings from their defaults.
func set(t *testing.T, values ...string) settings.Settings {
	t.Helper()
	var s settings.Settings
	for i := 0; i < len(values); i += 2 {
		f, _ := settings.Named(values[i])
		var err error
		if s, err = f.Set(s, values[i+1]); err != nil {
			t.Fatal(err)
		}
	}
	return s
}

// What planning and reminders read of the settings.
func TestRead(t *testing.T) {
	zero := settings.Settings{}
	own := set(t, "hoursWednesday", "10:00-11:00", "hoursSunday", "none", "peak", "09:30-10:00", "assumed", "45", "copies", "0",
		"hoursOn", "2026-12-24 09:00-12:00; 2026-12-25 none", "quietHours", "22:00-07:00", "ringsPaused", "2026-11-24T14:00", "reminderHour", "00:00",
		"csvColumns", "colour=-&due+by=due")
	few := set(t, "copies", "3", "reminderHour", "08:15")
	quiet := func(s settings.Settings) string {
		from, to, ok := s.QuietHours()
		return fmt.Sprintln(from, to, ok)
	}
	for what, pair := range map[string][2]any{
		"Monday":            {zero.HoursOf(term.WorkingHours, time.Monday).String(), "09:00-12:30, 13:30-17:30"},
		"Saturday":          {zero.HoursOf(term.WorkingHours, time.Saturday).String(), "10:00-12:00"},
		"Sunday":            {zero.HoursOf(term.WorkingHours, time.Sunday).String(), "10:00-11:00"},
		"the own Wednesday": {own.HoursOf(term.WorkingHours, time.Wednesday).String(), "10:00-11:00"},
		"the own Thursday":  {own.HoursOf(term.WorkingHours, time.Thursday).String(), "09:00-12:30, 13:30-17:30"},
		"the own Sunday":    {own.HoursOf(term.WorkingHours, time.Sunday).String(), "none"},
		"peak":              {zero.PeakHours().String() + " " + own.PeakHours().String(), "10:00-12:00 09:30-10:00"},
		"assumed":           {fmt.Sprint(zero.AssumedMinutes(), own.AssumedMinutes()), "30 45"},
		"copies":            {fmt.Sprint(zero.CopiesKept(), own.CopiesKept(), few.CopiesKept()), "14 0 3"},
		"single dates":      {fmt.Sprint(own.HoursOfDates(term.WorkingHours)), "map[2026-12-24:09:00-12:00 2026-12-25:none]"},
		"no single dates":   {fmt.Sprint(zero.HoursOfDates(term.WorkingHours)), "map[]"},
		"quiet":             {quiet(own), "22:00 07:00 true\n"},
		"not quiet":         {quiet(zero), "  false\n"},
		"paused":            {own.PausedUntil(), day.MustMoment("2026-11-24T14:00")},
		"not paused":        {zero.PausedUntil(), day.Moment{}},
		"hour of reminders": {fmt.Sprint(zero.ReminderHour(), own.ReminderHour(), few.ReminderHour()), "09:00 00:00 08:15"},
		"columns":           {fmt.Sprint(own.CSVColumns()), "map[colour:- due by:due]"},
		"no columns":        {fmt.Sprint(zero.CSVColumns()), "map[]"},
	} {
		if pair[0] != pair[1] {
			t.Errorf("%s: %v, want %v", what, pair[0], pair[1])
		}
	}
}

// Hours of one date take the place of its weekday's, and dates that are long past are let go of.
func TestHoursOfOneDate(t *testing.T) {
	s := set(t, "hoursOn", "2026-09-01 none; 2026-11-25 none; 2026-12-24 09:00-12:00")
	short, err := day.ParseHours("09:00-10:00")
	if err != nil {
		t.Fatal(err)
	}
	at, since := day.MustDate("2026-11-25"), day.MustDate("2026-10-01")
	for what, pair := range map[string][2]string{
		"others":           {s.WithHoursOn(at, &short, since), "2026-11-25 09:00-10:00; 2026-12-24 09:00-12:00"},
		"none":             {s.WithHoursOn(at, &day.Hours{}, since), "2026-11-25 none; 2026-12-24 09:00-12:00"},
		"its weekday's":    {s.WithHoursOn(at, nil, since), "2026-12-24 09:00-12:00"},
		"from a day on":    {s.WithHoursOn(at, nil, day.MustDate("2026-12-24")), "2026-12-24 09:00-12:00"},
		"nothing is left":  {s.WithHoursOn(at, nil, day.MustDate("2026-12-25")), "none"},
		"of another date":  {s.WithHoursOn(day.MustDate("2026-11-26"), &short, since), "2026-11-25 none; 2026-11-26 09:00-10:00; 2026-12-24 09:00-12:00"},
		"as it is already": {s.WithHoursOn(day.MustDate("2026-11-26"), nil, since), "2026-11-25 none; 2026-12-24 09:00-12:00"},
	} {
		if pair[0] != pair[1] {
			t.Errorf("%s: %q, want %q", what, pair[0], pair[1])
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
	for name, want := range map[string]string{"firstThing": "a time from 04:00 to 11:59", "tonight": "a time from 15:00 to 23:59"} {
		if f, ok := settings.Named(name); !ok || f.Wants != want {
			t.Errorf("%s does not say that it wants %s", name, want)
		}
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
		{"views", "cup,today,done", "today,cup,done", "views in the index in another order"},
		{"csvColumns", "none", "subject=title&colour=-", "columns of CSV files “colour” is passed over, “subject” is title"},
		{"csvColumns", "none", "due+by=due", "columns of CSV files “due by” is due"},
		{"csvColumns", "subject=title", "none", "columns of CSV files are forgotten"},
	} {
		f, _ := settings.Named(c.name)
		if got := f.Told(c.before, c.after); got != c.want {
			t.Errorf("%s → %s is told as %q, want %q", c.before, c.after, got, c.want)
		}
	}
}
