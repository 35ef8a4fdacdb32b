package app

import (
	"maps"
	"time"

	"tincup/internal/core/book"
	"tincup/internal/core/capture"
	"tincup/internal/core/day"
	"tincup/internal/core/settings"
)

// Settings are what this run is told from outside. Zone, DayStart and Writing stand in
// place of what accounts have chosen, where they are set.
type Settings struct {
	Zone     *time.Location
	DayStart time.Duration
	// Writing is how sentences are read.
	Writing capture.Settings
	// Fixed are others that stand in place of those chosen, by the settings' names.
	Fixed map[string]string
	// Machine is the zone of who has chosen none; nil is the system's.
	Machine *time.Location
	// MaxPages bounds the data file, in pages of 4096 bytes; 0 leaves that to
	// the disk.
	MaxPages int
	// Calendars is where those of other programs are read; nil reads none.
	Calendars Calendars
	// Notifier shows reminders on the desktop; nil shows none there.
	Notifier Notifier
	// Once: the program does one thing and ends. Nothing rings, and no address of a calendar is
	// asked.
	Once bool
	// Repair opens a data file also where a crash or a hand has damaged it, after
	// a copy of what is there.
	Repair bool
}

// overrides are the settings that stand in place of those chosen, by their names.
func (s Settings) overrides() map[string]string {
	over := maps.Clone(s.Fixed)
	if over == nil {
		over = map[string]string{}
	}
	if s.Zone != nil {
		over["zone"] = s.Zone.String()
	}
	if s.DayStart > 0 {
		t, _ := day.NewTimeOfDay(int(s.DayStart/time.Hour), int(s.DayStart%time.Hour/time.Minute)) // at most day.MaxDayStart
		over["dayStart"] = t.String()
	}
	if s.Writing.MonthFirst {
		over["dateOrder"] = "month-first"
	}
	if s.Writing.SundayFirst {
		over["weekStart"] = "sunday"
	}
	return over
}

// inForce are the settings that hold for an account in this run.
type inForce struct {
	settings settings.Settings
	zone     *time.Location
}

// settle works out what is in force for an account; the caller holds reading, or alone
// has the App.
func (a *App) settle(desk *book.Desk) {
	s, _ := desk.Settings()
	for name, value := range a.settings.overrides() {
		if f, known := settings.Named(name); known {
			if over, err := f.Set(s, value); err == nil {
				s = over
			}
		}
	}
	zone := a.settings.Zone
	if zone == nil && s.Zone != "" {
		zone, _ = time.LoadLocation(s.Zone) // it was found when it was chosen; nil where the machine's zones have changed
	}
	if zone == nil {
		zone = a.settings.Machine
	}
	if zone == nil {
		zone = time.Local
	}
	a.force.Store(desk.Account(), inForce{s, zone})
}

func (a *App) inForce(account book.ID) inForce {
	v, _ := a.force.Load(account)
	in, _ := v.(inForce) // settled for every account when the file was opened
	return in
}

// clockOf is now, as the settings of an account make it.
func (a *App) clockOf(account book.ID) day.Clock {
	in := a.inForce(account)
	return day.Clock{Now: a.clock.Now(), Zone: in.zone, DayStart: time.Duration(in.settings.DayStart) * time.Minute}
}

// Clock is now, as the account's settings make it.
func (a *Session) Clock() day.Clock { return a.clockOf(a.Account()) }

func (a *Session) env() book.Env { return book.Env{Clock: a.Clock(), NewID: NewID} }

// InForce are an account's settings in this run.
type InForce struct {
	// Settings hold; Chosen are those that the account has, which differ where Fixed names
	// some that are told from outside, with their values.
	Settings, Chosen settings.Settings
	Fixed            map[string]string
	// Ever: the account has chosen some at least once.
	Ever bool
}

// Settings are those of the account.
func (a *Session) Settings() InForce {
	a.reading.RLock()
	defer a.reading.RUnlock()
	return a.SettingsOf(a.desk)
}

// SettingsOf is Settings for one who reads the account's desk.
func (a *Session) SettingsOf(desk *book.Desk) InForce {
	in := InForce{Settings: a.inForce(desk.Account()).settings, Fixed: a.settings.overrides()}
	in.Chosen, in.Ever = desk.Settings()
	return in
}

// Machine is the zone of who has chosen none.
func (a *App) Machine() *time.Location {
	if a.settings.Machine != nil {
		return a.settings.Machine
	}
	return time.Local
}

// writing is how the account's sentences are read.
func (a *Session) writing() capture.Settings {
	s := a.inForce(a.Account()).settings
	return capture.Settings{MonthFirst: s.MonthFirst, SundayFirst: s.SundayFirst, ReminderHour: s.ReminderHour(), Parts: capture.PartsOfDay{
		FirstThing: s.PartOfDay(settings.FirstThing), Morning: s.PartOfDay(settings.Morning), Afternoon: s.PartOfDay(settings.Afternoon),
		Evening: s.PartOfDay(settings.Evening), Night: s.PartOfDay(settings.Tonight),
	}}
}
