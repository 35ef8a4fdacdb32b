package app

import (
	"context"
	"fmt"
	"net/url"
	"strings"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/plan"
	"tincup/internal/store"
)

// AddCalendar adds a calendar that can be read: at its address, or with the text of a file.
// One without a name gets what it calls itself. Errors are Run's, or a *book.RuleError that
// says why it cannot be read.
func (a *Session) AddCalendar(ctx context.Context, req Request, cmd book.AddCalendar, file []byte, respond Responder) (*store.Reply, error) {
	field, text, known := "file", file, Validators{}
	if a.settings.Calendars == nil {
		return nil, &book.RuleError{Field: field, Reason: "This run reads no calendars."}
	}
	if cmd.Address = strings.TrimSpace(cmd.Address); cmd.Address != "" {
		field = "address"
		fetched, err := a.settings.Calendars.Fetch(ctx, cmd.Address, known)
		if err != nil {
			return nil, &book.RuleError{Field: field, Reason: err.Error()}
		}
		text, known = fetched.Text, fetched.Validators
	}
	w, today := a.window()
	contents, err := a.settings.Calendars.Read(text, w)
	if err != nil {
		return nil, &book.RuleError{Field: field, Reason: err.Error()}
	}
	if cmd.Name == "" {
		cmd.Name = a.freeCalendarName(contents.Name, cmd)
	}
	cmd.ID = NewID()
	now := day.TimestampOf(a.clock.Now())
	feed := &store.Feed{Calendar: cmd.ID, Text: text, ETag: known.ETag, Modified: known.Modified, Changed: now, Asked: now}
	// Before the row, so that what is told of it is there. Where the row is refused, it is
	// swept with what was read of calendars that are gone.
	a.changing.Lock()
	err = a.store.SaveFeed(context.WithoutCancel(ctx), feed)
	a.changing.Unlock()
	if err != nil {
		return nil, err
	}
	a.know(feed, contents, w, today)
	return a.Run(ctx, req, cmd, respond)
}

// freeCalendarName is a name for a calendar that was given none.
func (a *Session) freeCalendarName(own string, cmd book.AddCalendar) string {
	name := own
	for _, other := range []string{cmd.File, hostOf(cmd.Address), "Calendar"} {
		if name == "" {
			name = other
		}
	}
	taken := map[string]bool{}
	for _, c := range a.calendars() {
		taken[c.Name] = true
	}
	for n := 2; taken[name]; n++ {
		name = fmt.Sprintf("%.80s %d", own, n)
	}
	return name
}

func hostOf(address string) string {
	u, err := url.Parse(address)
	if err != nil {
		return ""
	}
	return u.Hostname()
}

// PutInEvent makes a to-do of an event, planned for the time at which it happens. Errors are
// Run's, or a *book.RuleError where there is no such event on the day.
func (a *Session) PutInEvent(ctx context.Context, req Request, calendar book.ID, uid string, on day.Date, respond Responder) (*store.Reply, error) {
	var cmd book.Capture
	found := false
	a.Read(func(desk *book.Desk, c day.Clock) {
		e := a.capacity(desk, c).agenda.Find(on, func(e *plan.Event) bool { return e.Calendar == calendar && e.UID == uid })
		if found = e != nil; !found {
			return
		}
		name := ""
		if row, err := desk.Calendar(calendar); err == nil {
			name = row.Name
		}
		slot := e.Slot(c, on)
		cmd = book.Capture{Title: e.Title, Plan: slot, Source: book.OfEvent(calendar, uid, slot, e.SourceWords(name, c.Zone))}
	})
	if !found {
		return nil, &book.RuleError{Field: "uid", Reason: "There is no such event on that day any more. Look again."}
	}
	return a.Run(ctx, req, cmd, respond)
}
