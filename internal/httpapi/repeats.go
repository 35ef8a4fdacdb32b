package httpapi

import (
	"encoding/json"
	"net/http"
	"time"

	"github.com/gin-gonic/gin"

	"tincup/internal/core/book"
	"tincup/internal/core/capture"
	"tincup/internal/core/day"
	"tincup/internal/core/repeat"
	"tincup/internal/core/view"
	"tincup/internal/httpapi/contract"
)

// decodeRepeat reads a rule, or the choices that make one.
func decodeRepeat(in contract.RepeatChoice) (repeat.Repeat, error) {
	wrong := func(err error) error {
		return &book.RuleError{Field: "repeat", Reason: "The repeat cannot be read: " + err.Error() + "."}
	}
	r := repeat.Repeat{}
	var err error
	switch {
	case in.Rule != nil && in.Choice != nil, in.Rule == nil && in.Choice == nil:
		return r, &book.RuleError{Field: "repeat", Reason: "Send a rule or a choice, one of the two."}
	case in.Rule != nil:
		r.Rule, err = repeat.Parse(*in.Rule)
	default:
		var choice repeat.Choice
		if choice, err = decodeChoice(*in.Choice); err == nil {
			r.Rule, err = choice.Rule()
		}
	}
	if err != nil {
		return r, wrong(err)
	}
	if in.Anchor != nil {
		if err := r.Anchor.UnmarshalText([]byte(*in.Anchor)); err != nil {
			return r, wrong(err)
		}
	}
	if in.Lead != nil {
		r.Lead = *in.Lead
	}
	if err := optional(&r.First, "first", in.First); err != nil {
		return r, err
	}
	if in.Choice != nil && r.Anchor == repeat.Schedule && !r.First.IsZero() {
		if first := r.Rule.FirstOn(r.First); !first.IsZero() {
			r.First = first
		}
	}
	return r, nil
}

func decodeChoice(in contract.Choice) (repeat.Choice, error) {
	c := repeat.Choice{Every: in.Every}
	var err error
	if c.Unit, err = repeat.ParseFrequency(string(in.Unit)); err != nil {
		return c, err
	}
	if in.Weekdays != nil {
		for _, name := range *in.Weekdays {
			d, err := repeat.ParseWeekday(string(name))
			if err != nil {
				return c, err
			}
			c.Weekdays = append(c.Weekdays, d)
		}
	}
	if in.NthDay != nil {
		if c.NthDay, err = repeat.ParseWeekday(string(*in.NthDay)); err != nil {
			return c, err
		}
	}
	for to, from := range map[*int]*int{&c.MonthDay: in.MonthDay, &c.Nth: in.Nth, &c.Count: in.Count} {
		if from != nil {
			*to = *from
		}
	}
	if in.Month != nil {
		c.Month = time.Month(*in.Month)
	}
	if in.Until != nil && *in.Until != "" {
		c.Until, err = day.ParseDate(*in.Until)
	}
	return c, err
}

func encodeChoice(r *repeat.Rule) *contract.Choice {
	c, ok := r.Choice()
	if !ok {
		return nil
	}
	out := &contract.Choice{Every: c.Every, Unit: contract.ChoiceUnit(c.Unit.String())}
	if len(c.Weekdays) > 0 {
		names := []contract.ChoiceWeekdays{}
		for _, d := range c.Weekdays {
			names = append(names, contract.ChoiceWeekdays(repeat.WeekdayName(d)))
		}
		out.Weekdays = &names
	}
	if c.Nth != 0 {
		name := contract.ChoiceNthDay(repeat.WeekdayName(c.NthDay))
		out.Nth, out.NthDay = &c.Nth, &name
	}
	if c.MonthDay != 0 {
		out.MonthDay = &c.MonthDay
	}
	if month := int(c.Month); month != 0 {
		out.Month = &month
	}
	if c.Count != 0 {
		out.Count = &c.Count
	}
	out.Until = orAbsent(c.Until.String())
	return out
}

func encodeRepeat(r *repeat.Repeat) *contract.Repeat {
	if r == nil {
		return nil
	}
	current := r.Current
	if current.IsZero() {
		current = r.First
	}
	return &contract.Repeat{Rule: r.Rule.String(), Words: r.Words(), Short: r.Short(), First: r.First.String(),
		Anchor: contract.Anchor(r.Anchor.String()), Lead: r.Lead, Current: current.String(),
		Paused: orAbsent(r.Paused.String()), Ticks: r.Ticks, Missed: r.Missed, LastDone: orAbsent(r.LastDone.String())}
}

// previewDates is how many dates a preview shows.
const previewDates = 5

// PreviewRepeat says what a repeat would do.
func (s *server) PreviewRepeat(c *gin.Context) {
	in, _, err := body[contract.RepeatChoice](c)
	if err != nil {
		s.fail(c, err)
		return
	}
	clock := s.as(c).Clock()
	if first, err := in.First.Get(); err != nil || first == "" {
		in.First.Set(clock.Today().String())
	}
	r, err := decodeRepeat(in)
	if err != nil {
		s.fail(c, err)
		return
	}
	begun, err := r.Begin(day.TimeOfDay{}, clock.Zone)
	if err != nil {
		s.fail(c, &book.RuleError{Field: "repeat", Reason: upperFirst(err.Error()) + "."})
		return
	}
	out := contract.RepeatPreview{Rule: begun.Rule.String(), Words: begun.Words(), First: begun.Current.String(),
		Dates: []string{}, Choice: encodeChoice(begun.Rule)}
	begun.First = begun.Current
	out.Say = orAbsent(capture.SayRepeat(begun, s.as(c).Env()))
	for _, d := range begun.Preview(previewDates, day.TimeOfDay{}, clock.Zone) {
		out.Dates = append(out.Dates, d.String())
	}
	c.JSON(http.StatusOK, out)
}

// RepeatTodo lets a to-do repeat.
func (s *server) RepeatTodo(c *gin.Context, id string, p contract.RepeatTodoParams) {
	withBody(s, c, id, p.IdempotencyKey, p.WindowId, func(id book.ID, in contract.RepeatChoice) (book.Command, error) {
		r, err := decodeRepeat(in)
		change := book.ChangeRule{ID: id, Rule: r.Rule, Anchor: r.Anchor, Lead: r.Lead, First: r.First}
		if err == nil && in.Time != nil && *in.Time != "" {
			if change.Time, err = day.ParseTimeOfDay(*in.Time); err != nil {
				err = &book.RuleError{Field: "time", Reason: upperFirst(err.Error()) + "."}
			}
		}
		return change, err
	})
}

// MoveRepeat moves all coming occurrences.
func (s *server) MoveRepeat(c *gin.Context, id string, p contract.MoveRepeatParams) {
	withBody(s, c, id, p.IdempotencyKey, p.WindowId, func(id book.ID, in contract.MoveTo) (book.Command, error) {
		to, err := read[day.Date]("to", in.To)
		return book.MoveRepeat{ID: id, To: to}, err
	})
}

// SkipTodo leaves the present occurrence out.
func (s *server) SkipTodo(c *gin.Context, id string, p contract.SkipTodoParams) {
	s.onTodo(c, id, p.IdempotencyKey, p.WindowId, func(id book.ID) book.Command { return book.Skip{ID: id} })
}

// PauseTodo lets a repeat stand still.
func (s *server) PauseTodo(c *gin.Context, id string, p contract.PauseTodoParams) {
	s.onTodo(c, id, p.IdempotencyKey, p.WindowId, func(id book.ID) book.Command { return book.Pause{ID: id} })
}

// ResumeTodo lets a repeat go on.
func (s *server) ResumeTodo(c *gin.Context, id string, p contract.ResumeTodoParams) {
	s.onTodo(c, id, p.IdempotencyKey, p.WindowId, func(id book.ID) book.Command { return book.Resume{ID: id} })
}

// EndRepeat makes an ordinary to-do of one that repeats.
func (s *server) EndRepeat(c *gin.Context, id string, p contract.EndRepeatParams) {
	s.onTodo(c, id, p.IdempotencyKey, p.WindowId, func(id book.ID) book.Command { return book.EndRepeat{ID: id} })
}

// RemindTodo adds reminders and takes others away.
func (s *server) RemindTodo(c *gin.Context, id string, p contract.RemindTodoParams) {
	withBody(s, c, id, p.IdempotencyKey, p.WindowId, func(id book.ID, in contract.Reminding) (book.Command, error) {
		cmd := book.Remind{ID: id}
		var err error
		if cmd.Add, err = readReminders(in.Add); err == nil {
			cmd.Remove, err = readReminders(in.Remove)
		}
		return cmd, err
	})
}

func readReminders(texts *[]string) ([]day.Reminder, error) {
	if texts == nil {
		return nil, nil
	}
	var list []day.Reminder
	for _, text := range *texts {
		r, err := read[day.Reminder]("reminders", text)
		if err != nil {
			return nil, err
		}
		list = append(list, r)
	}
	return list, nil
}

// mostRecords is how many records of a repeat are sent.
const mostRecords = 50

// insideBody is a contract.Inside whose to-dos are written already.
type insideBody struct {
	contract.Inside
	Subtasks []json.RawMessage `json:"subtasks"`
}

// GetInside answers with a to-do's subtasks and the records of its repeat.
func (s *server) GetInside(c *gin.Context, todoID string) {
	id, err := pathID(todoID)
	if err != nil {
		s.fail(c, err)
		return
	}
	out := insideBody{Inside: contract.Inside{Records: []contract.Record{}}, Subtasks: []json.RawMessage{}}
	s.as(c).Read(func(b *book.Desk, clock day.Clock) {
		var t *book.Todo
		if t, err = b.Todo(id); err != nil {
			return
		}
		for _, sub := range b.Subtasks(id) {
			out.Subtasks = append(out.Subtasks, todoJSON(tagsOf(b), sub, func(*writer) {}))
		}
		out.Progress = encodeProgress(b.Progress(t))
		out.Next = titled(view.NextAction(b, clock, t))
		if t.Repeat == nil && t.Status.Open() {
			return
		}
		for _, r := range b.Records(id) {
			if len(out.Records) == mostRecords {
				break
			}
			if r.Repeat == nil { // a record always has one; a file from elsewhere may not
				continue
			}
			out.Records = append(out.Records, contract.Record{Id: r.ID.String(), Date: r.Repeat.Current.String(), Completed: r.Completed.String()})
		}
	})
	if err != nil {
		s.fail(c, err)
		return
	}
	c.JSON(http.StatusOK, out)
}
