package httpapi

import (
	"io"
	"net/http"
	"time"

	"github.com/gin-gonic/gin"

	"tincup/internal/app"
	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/plan"
	"tincup/internal/httpapi/contract"
	"tincup/internal/store"
)

// maxCalendarBody is the largest file of a calendar, in bytes.
const maxCalendarBody = 10 << 20

// GetCalendars answers with every calendar.
func (s *server) GetCalendars(c *gin.Context) {
	out := []contract.Calendar{}
	s.as(c).Read(func(b *book.Desk, _ day.Clock) {
		out = out[:0]
		for _, row := range b.Calendars() {
			out = append(out, encodeCalendar(row, s.as(c).CalendarState(row.ID)))
		}
	})
	c.JSON(http.StatusOK, out)
}

func encodeCalendar(row *book.Calendar, state app.CalendarState) contract.Calendar {
	out := contract.Calendar{Id: row.ID.String(), Revision: row.Revision, Name: row.Name, Colour: contract.Colour(row.Colour.String()),
		AllDayTakes: row.AllDayTakes, Address: orAbsent(row.Address), File: orAbsent(row.File),
		Events: len(state.Events), Asking: state.Asking, Problem: orAbsent(state.Problem), LeftOut: state.LeftOut, Problems: []string{}}
	out.Problems = append(out.Problems, state.Problems...)
	at := func(ts day.Timestamp) *time.Time {
		if ts.IsZero() {
			return nil
		}
		t := ts.Time()
		return &t
	}
	out.Changed, out.Asked = at(state.Changed), at(state.Asked)
	return out
}

// AddCalendar adds one at an address.
func (s *server) AddCalendar(c *gin.Context, params contract.AddCalendarParams) {
	in, raw, err := body[contract.NewCalendar](c)
	cmd := book.AddCalendar{Address: in.Address, AllDayTakes: isTrue(in.AllDayTakes)}
	if in.Name != nil {
		cmd.Name = *in.Name
	}
	if err == nil && in.Address == "" {
		err = &book.RuleError{Field: "address", Reason: "The address is empty: one such as https://example.org/calendar.ics is wanted."}
	}
	if err == nil {
		cmd.Colour, err = perhaps[book.Colour]("colour", in.Colour)
	}
	if err != nil {
		s.fail(c, err)
		return
	}
	reply, err := s.as(c).AddCalendar(c.Request.Context(), request(c, params.IdempotencyKey, params.WindowId, raw), cmd, nil, madeCalendar)
	s.reply(c, reply, err)
}

func madeCalendar(o *app.Outcome) (*store.Reply, error) {
	return placed(o.Change.Calendars[0].After.ID, http.StatusCreated, o)
}

// AddCalendarFile adds one from a file.
func (s *server) AddCalendarFile(c *gin.Context, params contract.AddCalendarFileParams) {
	text, err := io.ReadAll(c.Request.Body)
	if err == nil && params.Name == "" {
		err = &book.RuleError{Field: "name", Reason: "The file has no name."}
	}
	if err != nil {
		s.fail(c, err)
		return
	}
	req := request(c, params.IdempotencyKey, params.WindowId, append([]byte(params.Name+"\n"), text...))
	reply, err := s.as(c).AddCalendar(c.Request.Context(), req, book.AddCalendar{File: params.Name}, text, madeCalendar)
	s.reply(c, reply, err)
}

// EditCalendar changes a calendar.
func (s *server) EditCalendar(c *gin.Context, id string, p contract.EditCalendarParams) {
	editRow(s, c, id, seen{book.CalendarRow, p.IfMatch, p.WindowId}, func(id book.ID, in contract.CalendarPatch) (book.Command, error) {
		cmd := book.EditCalendar{ID: id, Name: in.Name, AllDayTakes: in.AllDayTakes}
		var err error
		cmd.Colour, err = perhaps[book.Colour]("colour", in.Colour)
		return cmd, err
	})
}

// RemoveCalendar takes a calendar out.
func (s *server) RemoveCalendar(c *gin.Context, id string, p contract.RemoveCalendarParams) {
	s.removeRow(c, id, seen{book.CalendarRow, p.IfMatch, p.WindowId}, func(id book.ID) book.Command { return book.RemoveCalendar{ID: id} })
}

// RefreshCalendar asks an address now.
func (s *server) RefreshCalendar(c *gin.Context, rowID string) {
	id, err := pathID(rowID)
	if err == nil {
		err = s.as(c).Refresh(c.Request.Context(), id)
	}
	var out contract.Calendar
	if err == nil {
		s.as(c).Read(func(b *book.Desk, _ day.Clock) {
			var row *book.Calendar
			if row, err = b.Calendar(id); err == nil {
				out = encodeCalendar(row, s.as(c).CalendarState(id))
			}
		})
	}
	s.json(c, out, err)
}

// GetHappenings answers with the events of some days.
func (s *server) GetHappenings(c *gin.Context, params contract.GetHappeningsParams) {
	first, days := day.Date{}, 7
	var err error
	if params.First != nil {
		first, err = read[day.Date]("first", *params.First)
	}
	if params.Days != nil {
		days = *params.Days
	}
	if err != nil {
		s.fail(c, err)
		return
	}
	out := []contract.HappeningsOfDay{}
	s.as(c).Read(func(b *book.Desk, clock day.Clock) {
		out = out[:0]
		from := first
		if from.IsZero() {
			from = clock.Today()
		}
		for i := range days {
			on := from.AddDays(i)
			if listed, more := s.as(c).Happenings(b, clock, on); len(listed) > 0 {
				out = append(out, contract.HappeningsOfDay{Day: on.String(), Events: encodeHappenings(listed, clock), MoreEvents: orAbsent(more)})
			}
		}
	})
	c.JSON(http.StatusOK, out)
}

func encodeHappenings(all []plan.Happening, clock day.Clock) []contract.Happening {
	out := make([]contract.Happening, 0, len(all))
	for _, h := range all {
		row := contract.Happening{Calendar: h.Calendar.String(), Uid: h.UID, Title: h.Title, Takes: h.Takes, AllDay: orAbsent(h.AllDay)}
		if !h.AllDay {
			from, to := wallTime(h.From, clock), wallTime(h.To, clock)
			row.From, row.To = &from, &to
		}
		out = append(out, row)
	}
	return out
}

func wallTime(t time.Time, clock day.Clock) string {
	return t.In(clock.Zone).Format("2006-01-02T15:04")
}

// PutInEvent makes a to-do of an event.
func (s *server) PutInEvent(c *gin.Context, params contract.PutInEventParams) {
	in, raw, err := body[contract.EventOnDay](c)
	var calendar book.ID
	var on day.Date
	if err == nil {
		calendar, err = read[book.ID]("calendar", in.Calendar)
	}
	if err == nil {
		on, err = read[day.Date]("day", in.Day)
	}
	if err != nil {
		s.fail(c, err)
		return
	}
	reply, err := s.as(c).PutInEvent(c.Request.Context(), request(c, params.IdempotencyKey, params.WindowId, raw), calendar, in.Uid, on, s.todoReply(c, http.StatusCreated))
	s.reply(c, reply, err)
}
