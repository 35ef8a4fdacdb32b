package httpapi

import (
	"encoding/json"
	"net/http"

	"github.com/gin-gonic/gin"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/plan"
	"tincup/internal/core/view"
	"tincup/internal/httpapi/contract"
)

// weekOf reads a day of the week that is meant; none is today's.
func weekOf(of *string) (d day.Date, err error) {
	if of == nil {
		return d, nil
	}
	return read[day.Date]("of", *of)
}

// weekBody is a contract.Week whose to-dos are written already.
type weekBody struct {
	contract.Week
	Days  []weekDayBody `json:"days"`
	Loose []slipBody    `json:"loose"`
}

type weekDayBody struct {
	contract.WeekDay
	Slips []slipBody `json:"slips"`
	Done  []slipBody `json:"done"`
}

type slipBody struct {
	Todo    json.RawMessage `json:"todo"`
	Minutes int             `json:"minutes"`
	Assumed *bool           `json:"assumed,omitempty"`
}

// GetWeek answers with a week as it is planned.
func (s *server) GetWeek(c *gin.Context, params contract.GetWeekParams) {
	of, err := weekOf(params.Of)
	if err != nil {
		s.fail(c, err)
		return
	}
	var out weekBody
	s.as(c).Read(func(b *book.Desk, clock day.Clock) {
		w := s.as(c).ShownWeek(b, clock, of)
		out.Week = contract.Week{Revision: b.Revision(), Today: clock.Today().String(), First: w.First.String(), Week: day.InWeek(w.First.AddDays(3)).String(),
			Says: w.Says}
		out.Loose, out.Days = encodeSlips(b, w.Loose), nil
		if w.Relief.Todo != nil {
			out.Relief = &struct {
				Id    string `json:"id"`
				Title string `json:"title"`
				To    string `json:"to"`
			}{w.Relief.Todo.ID.String(), w.Relief.Todo.Title, w.Relief.To.String()}
		}
		ahead := map[day.Date]*plan.WeekDay{}
		for i := range w.Days {
			ahead[w.Days[i].Date] = &w.Days[i]
		}
		for i := range 7 {
			on := w.First.AddDays(i)
			d := weekDayBody{WeekDay: contract.WeekDay{Day: on.String(), Events: []contract.Happening{}}, Slips: []slipBody{}, Done: []slipBody{}}
			d.Worked = w.Worked[i]
			if p := ahead[on]; p != nil {
				d.Worked, d.Over = p.Worked, p.Over // of the day as it begins and ends, and as the clock goes
				d.Load = encodeLoad(view.Load{Minutes: p.Load, Assumed: p.Assumed}, p.Minutes, true)
				d.Slips = encodeSlips(b, p.Lying)
				d.Events = encodeHappenings(s.as(c).Happenings(b, clock, on), clock)
			}
			for _, t := range w.Done[on] {
				d.Done = append(d.Done, encodeSlip(b, plan.Lying{Todo: t, Work: plan.Work{Minutes: int(t.Estimate)}}))
			}
			out.Days = append(out.Days, d)
		}
	})
	c.JSON(http.StatusOK, out)
}

func encodeSlips(b *book.Desk, all []plan.Lying) []slipBody {
	out := make([]slipBody, 0, len(all))
	for _, l := range all {
		out = append(out, encodeSlip(b, l))
	}
	return out
}

func encodeSlip(b *book.Desk, l plan.Lying) slipBody {
	return slipBody{todoJSON(tagsOf(b), l.Todo, func(*writer) {}), l.Work.Minutes, orFalse(l.Work.Assumed)}
}

// LevelWeek proposes days for what has none.
func (s *server) LevelWeek(c *gin.Context, params contract.LevelWeekParams) {
	of, err := weekOf(params.Of)
	var out contract.Levelled
	if err == nil {
		s.as(c).Read(func(b *book.Desk, clock day.Clock) {
			var level plan.Levelled
			var g plan.Gathered
			if level, g, err = s.as(c).LevelWeek(b, clock, of); err != nil {
				return
			}
			out = contract.Levelled{Fullest: float32(level.Fullest), Bound: float32(level.Bound), Proved: level.Proved, Says: level.Words(func(job int) string { return g.Todos[job].Title })}
			for _, job := range level.Jobs() {
				out.Proposals = append(out.Proposals, struct {
					Day string `json:"day"`
					Id  string `json:"id"`
				}{level.Day[job].String(), g.Todos[job].ID.String()})
			}
		})
	}
	s.json(c, out, err)
}

// PlanEach plans many, each for a time of its own.
func (s *server) PlanEach(c *gin.Context, params contract.PlanEachParams) {
	in, raw, err := body[contract.Plans](c)
	var cmd book.PlanEach
	for _, p := range in.Plans {
		if err != nil {
			break
		}
		one := book.PlanFor{}
		if one.ID, err = read[book.ID]("plans", p.Id); err == nil && !p.Plan.IsNull() {
			var text string
			if text, err = p.Plan.Get(); err == nil {
				one.Plan, err = read[day.Horizon]("plans", text)
			}
		}
		cmd.Plans = append(cmd.Plans, one)
	}
	if err != nil {
		s.fail(c, err)
		return
	}
	reply, err := s.as(c).Run(c.Request.Context(), request(c, params.IdempotencyKey, params.WindowId, raw), cmd, turned)
	s.reply(c, reply, err)
}
