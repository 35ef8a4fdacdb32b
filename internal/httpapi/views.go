package httpapi

import (
	"errors"
	"net/http"
	"strconv"
	"strings"

	"github.com/gin-gonic/gin"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/filter"
	"tincup/internal/core/plan"
	"tincup/internal/core/question"
	"tincup/internal/core/view"
	"tincup/internal/httpapi/contract"
)

// pageSize is how many rows a view sends unless told otherwise.
const pageSize = 200

// GetView answers with a shipped view.
func (s *server) GetView(c *gin.Context, name contract.ViewName, params contract.GetViewParams) {
	q := view.Query{Of: view.Name(name)}
	if params.Months != nil {
		q.Months = *params.Months
	}
	s.answer(c, q, params.Offset, params.Limit)
}

// GetListView answers with the to-dos of a list.
func (s *server) GetListView(c *gin.Context, listID string, params contract.GetListViewParams) {
	s.answerOf(c, listID, func(id book.ID) view.Subject { return view.InList{ID: id} }, params.Offset, params.Limit)
}

// GetShelfView answers with the to-dos of a shelf's lists.
func (s *server) GetShelfView(c *gin.Context, shelfID string, params contract.GetShelfViewParams) {
	s.answerOf(c, shelfID, func(id book.ID) view.Subject { return view.OnShelf{ID: id} }, params.Offset, params.Limit)
}

// GetTagView answers with what carries a tag.
func (s *server) GetTagView(c *gin.Context, tagID string, params contract.GetTagViewParams) {
	s.answerOf(c, tagID, func(id book.ID) view.Subject { return view.WithTag{ID: id} }, params.Offset, params.Limit)
}

// GetPersonView answers with the agenda with a person.
func (s *server) GetPersonView(c *gin.Context, personID string, params contract.GetPersonViewParams) {
	s.answerOf(c, personID, func(id book.ID) view.Subject { return view.WithPerson{ID: id} }, params.Offset, params.Limit)
}

// GetCupView answers with one cup of the rail.
func (s *server) GetCupView(c *gin.Context, cup string, params contract.GetCupViewParams) {
	h, err := read[day.Horizon]("cup", cup)
	if err != nil {
		s.fail(c, err)
		return
	}
	if h.Precision() == day.Day {
		h = day.OnDay(h.First())
	}
	s.answer(c, view.Query{Of: view.OnRail{Cup: h}}, params.Offset, params.Limit)
}

// answerOf answers with the view of a row that has an id.
func (s *server) answerOf(c *gin.Context, rowID string, of func(book.ID) view.Subject, offset, limit *int) {
	id, err := pathID(rowID)
	if err != nil {
		s.fail(c, err)
		return
	}
	s.answer(c, view.Query{Of: of(id)}, offset, limit)
}

func (s *server) answer(c *gin.Context, q view.Query, offset, limit *int) {
	q.Limit = pageSize
	if offset != nil {
		q.Offset = *offset
	}
	if limit != nil {
		q.Limit = *limit
	}
	if err := readQuery(c, &q); err != nil {
		s.fail(c, err)
		return
	}
	var body viewBody
	var err error
	s.as(c).Read(func(b *book.Desk, clock day.Clock) {
		var res *view.Result
		if res, err = view.Ask(b, clock, q); err == nil {
			body = encodeView(b, clock, view.Sentence(b, clock, q.Of), res, nil)
			body.addGives(view.Gives(b, clock, q.Of))
			switch q.Of {
			case view.Upcoming:
				body.addLoads(res, b.OneKind(), s.as(c).Loads(b, clock), func(on day.Date) ([]plan.Happening, int) { return s.as(c).Happenings(b, clock, on) }, clock.Zone)
			case view.Today, view.Daily:
				body.Holds = orAbsent(s.as(c).TodayHolds(b, clock))
			}
			if on := dayOf(q.Of, clock); !on.IsZero() {
				listed, more := s.as(c).Happenings(b, clock, on)
				body.Events = orAbsent(plan.EventWords(listed, more, clock.Zone))
			}
			if res.Total == 0 {
				body.Why = orAbsent(view.WhyEmpty(b, clock, q))
			}
		}
	})
	if err != nil {
		s.fail(c, definitionProblem(err))
		return
	}
	s.view(c, &body)
}

// dayOf is the day that a sheet is of: today's, or one of the rail; none for all others.
func dayOf(of view.Subject, clock day.Clock) day.Date {
	if of == view.Today || of == view.Daily {
		return clock.Today()
	}
	if rail, is := of.(view.OnRail); is && rail.Cup.Precision() == day.Day {
		return rail.Cup.First()
	}
	return day.Date{}
}

// readQuery reads what any view may be asked: to be narrowed, and grouped and
// ordered anew. The contract has been checked before.
func readQuery(c *gin.Context, q *view.Query) error {
	if text := c.Query("narrow"); text != "" {
		f, err := filter.Parse([]byte(text))
		var wrong *question.ParseError
		if errors.As(err, &wrong) {
			return &book.RuleError{Field: "narrow" + wrong.Path, Reason: wrong.Reason}
		}
		q.Narrow = f
	}
	q.Group = view.Grouping(c.Query("group"))
	if text := c.Query("order"); text != "" {
		keys, err := view.ParseKeys(strings.Split(text, ","))
		if err != nil {
			return definitionProblem(err)
		}
		q.Order = keys
	}
	q.UrgentDays, _ = strconv.Atoi(c.Query("urgentDays"))
	return nil
}

// GetOverview answers with what stands round every view.
func (s *server) GetOverview(c *gin.Context) {
	var body contract.Overview
	s.as(c).Read(func(b *book.Desk, clock day.Clock) {
		body = overview(b, clock, s.as(c).Survey(b, clock), s.as(c).Loads(b, clock))
		in := s.as(c).SettingsOf(b)
		values := inForce(in.Settings)
		_, fixed := in.Fixed["zone"]
		body.Settings, body.SettingsEver, body.ZoneFixed = &values, &in.Ever, orAbsent(fixed)
	})
	c.JSON(http.StatusOK, body)
}
