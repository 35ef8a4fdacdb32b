package httpapi

import (
	"net/http"
	"time"

	"github.com/gin-gonic/gin"

	"tincup/internal/app"
	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/remind"
	"tincup/internal/httpapi/contract"
)

// GetBell answers with the rings that wait for an answer, and those put off.
func (s *server) GetBell(c *gin.Context) {
	as := s.as(c)
	clock, bell := as.Clock(), as.Bell()
	wall := func(at time.Time) *string {
		if at.IsZero() {
			return nil
		}
		return orAbsent(clock.WallOf(at).String())
	}
	rings := func(some []app.OpenRing) []contract.Ring {
		out := make([]contract.Ring, 0, len(some))
		for _, r := range some {
			row := contract.Ring{Id: r.ID.String(), Todo: r.Todo.String(), Title: r.Title, At: r.At.String(), Missed: r.Missed, Later: wall(r.Later.Time()), Sound: orAbsent(r.Reminder.Sound)}
			if r.Reminder.Edge != day.NoEdge {
				row.Edge = orAbsent(r.Reminder.Words())
			}
			if rang := wall(r.Rang.Time()); rang != nil {
				row.Rang = *rang
			}
			out = append(out, row)
		}
		return out
	}
	c.JSON(http.StatusOK, contract.Bell{Open: rings(bell.Open), OpenCount: bell.OpenCount, Later: rings(bell.Later), LaterCount: bell.LaterCount,
		QuietUntil: wall(bell.Quiet), Muted: bell.Muted, Paused: bell.Paused, Next: wall(bell.Next), InSight: as.Windows().InSight})
}

// someRings are the rings that are named, or all that wait for an answer.
func someRings(as *app.Session, named *[]string, all *bool) ([]book.ID, error) {
	switch {
	case (named == nil) == (all == nil || !*all):
		return nil, &book.RuleError{Field: "rings", Reason: "Some rings are wanted, or all: one of the two."}
	case named == nil:
		return as.OpenRings(), nil
	}
	return readIDs("rings", *named)
}

// onRings does something to the rings that a request names: it has the form of LaterRings, of
// which the contract lets each operation have its part.
func (s *server) onRings(c *gin.Context, key, window *string, do func([]book.ID, contract.LaterRings) (book.Command, error)) {
	in, raw, err := body[contract.LaterRings](c)
	if err != nil {
		s.fail(c, err)
		return
	}
	as := s.as(c)
	ids, err := someRings(as, in.Rings, in.All)
	if err != nil {
		s.fail(c, err)
		return
	}
	cmd, err := do(ids, in)
	if err != nil {
		s.fail(c, err)
		return
	}
	reply, err := as.Run(c.Request.Context(), request(c, key, window, raw), cmd, turned)
	s.reply(c, reply, err)
}

// AcknowledgeRings answers rings.
func (s *server) AcknowledgeRings(c *gin.Context, params contract.AcknowledgeRingsParams) {
	s.onRings(c, params.IdempotencyKey, params.WindowId, func(ids []book.ID, _ contract.LaterRings) (book.Command, error) {
		return book.Acknowledge{Rings: ids}, nil
	})
}

// GetLater answers with times to which a ring is often put off.
func (s *server) GetLater(c *gin.Context) {
	as := s.as(c)
	clock := as.Clock()
	out := []contract.LaterOffer{}
	for _, l := range remind.Laters(clock, as.Settings().Settings) {
		offer := contract.LaterOffer{Words: l.Words, Until: clock.WallOf(l.Until).String()}
		if l.Minutes > 0 {
			offer.Minutes = &l.Minutes
		}
		out = append(out, offer)
	}
	c.JSON(http.StatusOK, out)
}

// RingLater puts rings off, for some minutes or until a wall time.
func (s *server) RingLater(c *gin.Context, params contract.RingLaterParams) {
	s.onRings(c, params.IdempotencyKey, params.WindowId, func(ids []book.ID, in contract.LaterRings) (book.Command, error) {
		clock := s.as(c).Clock()
		if (in.Minutes == nil) == (in.Until == nil) {
			return nil, &book.RuleError{Field: "until", Reason: "One of minutes and until is wanted."}
		}
		if in.Minutes != nil {
			return book.RingLater{Rings: ids, Until: clock.Now.Add(time.Duration(*in.Minutes) * time.Minute)}, nil
		}
		at, err := read[day.Moment]("until", *in.Until)
		if err == nil && !at.HasTime() {
			err = &book.RuleError{Field: "until", Reason: "A date with a time is wanted, such as 2026-11-24T19:00."}
		}
		return book.RingLater{Rings: ids, Until: clock.Instant(at)}, err
	})
}

// TryDesktop shows a notification that reminds of nothing.
func (s *server) TryDesktop(c *gin.Context) {
	if err := s.as(c).TryDesktop(c.Request.Context()); err != nil {
		s.fail(c, err)
		return
	}
	c.Status(http.StatusNoContent)
}

// TellWindow notes whether a window is in sight.
func (s *server) TellWindow(c *gin.Context, params contract.TellWindowParams) {
	in, _, err := body[contract.WindowState](c)
	if err != nil {
		s.fail(c, err)
		return
	}
	if params.WindowId == nil || *params.WindowId == "" {
		s.fail(c, &book.RuleError{Field: "Window-Id", Reason: "The header says which window it is; it is missing."})
		return
	}
	s.as(c).WindowSpeaks(*params.WindowId, app.WindowState{InSight: in.InSight, Notifies: in.Notifies}, in.Gone != nil && *in.Gone)
	c.Status(http.StatusNoContent)
}

// prospects are what may become of a reminder, as the contract calls it.
var prospects = map[remind.Prospect]contract.ReminderProspectProspect{
	remind.ToCome: contract.ReminderProspectProspectToCome, remind.Rang: contract.ReminderProspectProspectRang, remind.Passed: contract.ReminderProspectProspectPassed,
	remind.Baseless: contract.ReminderProspectProspectBaseless, remind.Waiting: contract.ReminderProspectProspectWaiting, remind.Over: contract.ReminderProspectProspectOver,
	remind.OnEdge: contract.ReminderProspectProspectOnEdge, remind.Nowhere: contract.ReminderProspectProspectNowhere,
}

// GetProspect answers with what will become of a to-do's reminders.
func (s *server) GetProspect(c *gin.Context, id string) {
	todo, err := read[book.ID]("id", id)
	if err != nil {
		s.fail(c, err)
		return
	}
	out := []contract.ReminderProspect{}
	as := s.as(c)
	as.Read(func(b *book.Desk, clock day.Clock) {
		var t *book.Todo
		if t, err = b.Todo(todo); err != nil {
			return
		}
		w := remind.Terms{Clock: clock, Hour: new(as.SettingsOf(b).Settings).ReminderHour()}
		for _, r := range t.Reminders {
			prospect, at := w.Foresee(b, t, r)
			row := contract.ReminderProspect{Reminder: r.String(), Prospect: prospects[prospect]}
			if !at.IsZero() {
				row.At = orAbsent(clock.WallOf(at).String())
				row.AfterDue = !t.Due.IsZero() && at.After(clock.Instant(t.Due))
			}
			out = append(out, row)
		}
	})
	if err != nil {
		s.fail(c, err)
		return
	}
	c.JSON(http.StatusOK, out)
}
