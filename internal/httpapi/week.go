package httpapi

import (
	"encoding/json"
	"net/http"

	"github.com/gin-gonic/gin"

	"tincup/internal/app"
	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/plan"
	"tincup/internal/core/term"
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

// So many slips of a day are listed at most, and so many of what was done on it.
const (
	mostSlips = 60
	mostDone  = 24
)

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
	Hours   contract.Hours  `json:"hours"`
	Under   *string         `json:"under,omitempty"`
	Within  *string         `json:"within,omitempty"`
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
			Says: w.Says, Now: wallTime(clock.Now, clock), Late: orAbsent(w.Late)}
		out.Loose, out.Days = encodeSlips(b, w.Loose, nil), nil
		if w.Relief.Todo != nil {
			out.Relief = &struct {
				Id    string `json:"id"`
				Title string `json:"title"`
				To    string `json:"to"`
			}{w.Relief.Todo.ID.String(), w.Relief.Todo.Title, w.Relief.To.String()}
		}
		for i := range 7 {
			on := w.First.AddDays(i)
			d := weekDayBody{WeekDay: contract.WeekDay{Day: on.String(), Events: []contract.Happening{}, Hours: []contract.TimeSpan{}, OwnHours: []contract.TimeSpan{}, Peak: []contract.TimeSpan{}, Apart: orAbsent(w.Apart[i])}, Slips: []slipBody{}, Done: []slipBody{}}
			d.Worked, d.OwnWorked = w.Worked[term.WorkingHours][i], w.Worked[term.OwnHours][i]
			working, own := w.Kinds[term.WorkingHours].On(on), w.Kinds[term.OwnHours].On(on)
			if working != nil && own != nil { // the day is not past
				usual := w.Usual[i].String()
				d.Usual, d.Hours, d.OwnHours, d.Peak = &usual, encodeTimes(working.Hours, clock), encodeTimes(own.Hours, clock), encodeTimes(working.Peak, clock)
				d.Worked, d.Over, d.OwnWorked = working.Worked, working.Over, own.Worked // of the day as it begins and ends, and as the clock goes
				d.Load = encodeLoad(plan.Kinds[app.Filled]{filledOf(working), filledOf(own)}, b.OneKind())
				d.addSlips(b, w.Clashes, working.Lying, own.Lying, w.Aside[on])
				listed, others := s.as(c).Happenings(b, clock, on)
				d.Events, d.MoreEvents = encodeHappenings(listed, clock), orAbsent(others)
			}
			d.DoneCount = len(w.Done[on])
			for _, t := range w.Done[on][:min(len(w.Done[on]), mostDone)] {
				d.Done = append(d.Done, encodeSlip(b, plan.Lying{Todo: t, Work: plan.Work{Minutes: int(t.Estimate)}, Hours: b.HoursOf(t)}))
			}
			out.Days = append(out.Days, d)
		}
	})
	c.JSON(http.StatusOK, out)
}

func filledOf(d *plan.WeekDay) app.Filled {
	return app.Filled{Load: view.Load{Minutes: d.Load, Assumed: d.Assumed}, Capacity: d.Minutes, Known: true}
}

// addSlips lists what lies on the day, mostSlips of what takes working hours, of what takes own
// hours and of what takes none, and counts the rest.
func (d *weekDayBody) addSlips(b *book.Desk, clashes map[book.ID]plan.Clash, kinds ...[]plan.Lying) {
	more, minutes := 0, 0
	for _, lying := range kinds {
		n := min(len(lying), mostSlips)
		d.Slips = append(d.Slips, encodeSlips(b, lying[:n], clashes)...)
		for _, l := range lying[n:] {
			if more++; l.Hours == term.WorkingHours {
				minutes += l.Work.Minutes
			}
		}
	}
	if more > 0 {
		d.More, d.MoreMinutes = &more, &minutes
	}
}

func encodeSlips(b *book.Desk, all []plan.Lying, clashes map[book.ID]plan.Clash) []slipBody {
	out := make([]slipBody, 0, len(all))
	for _, l := range all {
		one := encodeSlip(b, l)
		if !l.Within.IsZero() {
			within := l.Within.String()
			one.Within = &within
		}
		if clash, is := clashes[l.Todo.ID]; is {
			one.Under = &clash.With
		}
		out = append(out, one)
	}
	return out
}

func encodeSlip(b *book.Desk, l plan.Lying) slipBody {
	return slipBody{Todo: todoJSON(tagsOf(b), l.Todo, func(*writer) {}), Minutes: l.Work.Minutes, Assumed: orAbsent(l.Work.Assumed), Hours: contract.Hours(l.Hours.String())}
}

func encodeTimes(all []plan.Stretch, clock day.Clock) []contract.TimeSpan {
	out := make([]contract.TimeSpan, 0, len(all))
	for _, s := range all {
		out = append(out, contract.TimeSpan{From: wallTime(s.From.Time(), clock), To: wallTime(s.To.Time(), clock)})
	}
	return out
}
