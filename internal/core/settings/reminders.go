package settings

import (
	"strings"

	"tincup/internal/core/day"
)

// Reminders are an account's choices of how reminders reach it. The zero value is as by
// default.
type Reminders struct {
	// Hour is when reminders of a date without time come, in minutes of wall time after
	// midnight; 0 stands for 09:00, and midnight is 1440.
	Hour int `json:"Hour,omitzero"`
	// Quiet is a stretch of each day in which nothing rings, as 22:00-07:00; "" for none. It
	// may reach over midnight.
	Quiet string `json:"Quiet,omitzero"`
	// Paused is the wall time until which nothing rings; "" for none.
	Paused string `json:"Paused,omitzero"`
	// CardsOff, BrowserOff and DesktopOff set a way of telling off: cards in windows, the
	// browser's notifications, the desktop's.
	CardsOff   bool `json:"CardsOff,omitzero"`
	BrowserOff bool `json:"BrowserOff,omitzero"`
	DesktopOff bool `json:"DesktopOff,omitzero"`
	// Sound names what is heard; "" is the first of Sounds, and none is silence.
	Sound string `json:"Sound,omitzero"`
}

// Sounds are those that a ring may have, the default first. They are files of the page.
var Sounds = []string{"tap", "two-taps", "drip", "low-bell", "kettle"}

const (
	reminderHour = 9 * 60
	wholeDay     = 24 * 60
)

// ReminderHour is when reminders of a date without time come.
func (s *Settings) ReminderHour() day.TimeOfDay {
	minutes := s.Reminders.Hour
	if minutes == 0 {
		minutes = reminderHour
	}
	at, _ := day.NewTimeOfDay(minutes%wholeDay/60, minutes%60)
	return at
}

// QuietHours is the stretch of each day in which nothing rings; ok is false where there is
// none. One whose end is not after its start ends on the next day.
func (s *Settings) QuietHours() (from, to day.TimeOfDay, ok bool) {
	return parseQuiet(s.Reminders.Quiet)
}

func parseQuiet(text string) (from, to day.TimeOfDay, ok bool) {
	first, last, found := strings.Cut(text, "-")
	from, err := day.ParseTimeOfDay(strings.TrimSpace(first))
	if !found || err != nil {
		return from, to, false
	}
	to, err = day.ParseTimeOfDay(strings.TrimSpace(last))
	return from, to, err == nil && from != to
}

// PausedUntil is the wall time until which nothing rings; none where it rings.
func (s *Settings) PausedUntil() day.Moment {
	m, _ := day.ParseMoment(s.Reminders.Paused) // it was read when it was set
	return m
}

// reminderFields are the settings of how reminders reach the account.
var reminderFields = []Field{
	{Name: "reminderHour", Says: "hour of reminders without a time", Default: "09:00", Wants: "a time from 00:00 to 23:59",
		get: func(s *Settings) string { return s.ReminderHour().String() },
		set: func(s *Settings, v string) bool {
			t, err := day.ParseTimeOfDay(v)
			if err != nil {
				return false
			}
			switch s.Reminders.Hour = t.Minutes(); t.Minutes() {
			case 0:
				s.Reminders.Hour = wholeDay
			case reminderHour:
				s.Reminders.Hour = 0
			}
			return true
		}},
	{Name: "quietHours", Says: "quiet hours", Default: "none", Wants: "two times such as 22:00-07:00, or none",
		get: func(s *Settings) string { return orWord(s.Reminders.Quiet, "none") },
		set: func(s *Settings, v string) bool {
			if v == "none" {
				s.Reminders.Quiet = ""
				return true
			}
			from, to, ok := parseQuiet(v)
			if ok {
				s.Reminders.Quiet = from.String() + "-" + to.String()
			}
			return ok
		}},
	{Name: "ringsPaused", Says: "rings paused until", Default: "no", Wants: "a date with a time such as 2026-11-24T14:00, or no",
		get: func(s *Settings) string { return orWord(s.Reminders.Paused, "no") },
		set: func(s *Settings, v string) bool {
			if v == "no" {
				s.Reminders.Paused = ""
				return true
			}
			m, err := day.ParseMoment(v)
			if err != nil || !m.HasTime() {
				return false
			}
			s.Reminders.Paused = m.String()
			return true
		}},
	choice("cards", "cards for rings", func(s *Settings) *bool { return &s.Reminders.CardsOff }, "on", "off"),
	choice("browserNotifications", "notifications by the browser", func(s *Settings) *bool { return &s.Reminders.BrowserOff }, "on", "off"),
	choice("desktopNotifications", "notifications on the desktop", func(s *Settings) *bool { return &s.Reminders.DesktopOff }, "on", "off"),
	words("sound", "sound of rings", func(s *Settings) *string { return &s.Reminders.Sound }, append(Sounds[:len(Sounds):len(Sounds)], "none")...),
}
