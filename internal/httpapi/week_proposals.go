package httpapi

import (
	"encoding/json"
	"fmt"
	"strings"

	"github.com/gin-gonic/gin"

	"tincup/internal/app"
	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/plan"
	"tincup/internal/core/term"
	"tincup/internal/httpapi/contract"
)

// LevelWeek proposes days for what has none.
func (s *server) LevelWeek(c *gin.Context, params contract.LevelWeekParams) {
	of, err := weekOf(params.Of)
	var out contract.Levelled
	if err == nil {
		s.as(c).Read(func(b *book.Desk, clock day.Clock) {
			var levels plan.Kinds[plan.Levelled]
			var gathered plan.Kinds[plan.Gathered]
			var stays plan.Kinds[bool]
			if levels, gathered, stays, err = s.as(c).LevelWeek(b, clock, of); err == nil {
				out = encodeLevels(levels, gathered, stays)
			}
		})
	}
	s.json(c, out, err)
}

// encodeLevels says of each kind of hours how full its fullest day would be, and of own hours
// nothing where nothing is proposed for them; the figures are those of the fuller kind.
func encodeLevels(levels plan.Kinds[plan.Levelled], gathered plan.Kinds[plan.Gathered], stays plan.Kinds[bool]) contract.Levelled {
	out := contract.Levelled{Proposals: []contract.Proposal{}, TooLong: []contract.TooLong{}, Proved: true}
	for kind, level := range levels {
		g := gathered[kind]
		if says := level.Words(func(job int) string { return g.Todos[job].Title }); stays[kind] {
			continue
		} else if term.Hours(kind) == term.WorkingHours {
			out.Says = says
		} else {
			out.Says += " In own hours: " + strings.ToLower(says[:1]) + says[1:]
		}
		if float32(level.Fullest) >= out.Fullest {
			out.Fullest, out.Bound = float32(level.Fullest), float32(level.Bound)
		}
		out.Proved = out.Proved && level.Proved
		for _, job := range level.TooLong {
			t, minutes := g.Todos[job], g.Jobs[job].Minutes
			out.TooLong = append(out.TooLong, contract.TooLong{Id: t.ID.String(), Minutes: minutes, Parts: level.Parts(minutes), Title: t.Title})
		}
		for _, job := range level.Jobs() {
			out.Proposals = append(out.Proposals, contract.Proposal{Day: level.Day[job].String(), Id: g.Todos[job].ID.String()})
		}
	}
	if out.Says = strings.TrimSpace(out.Says); out.Says == "" {
		out.Says = "Nothing needs to move."
	}
	return out
}

// LayHours proposes times of day for what lies on a day.
func (s *server) LayHours(c *gin.Context, params contract.LayHoursParams) {
	of, err := weekOf(params.Of)
	out := contract.LaidHours{}
	if err == nil {
		s.as(c).Read(func(b *book.Desk, clock day.Clock) {
			hours, without := s.as(c).LayHours(b, clock, of)
			out.Says = plan.HourWords(hours, without)
			out.Proposals = []contract.HourProposal{}
			for _, h := range hours {
				out.Proposals = append(out.Proposals, contract.HourProposal{Id: h.Todo.ID.String(), Plan: h.Horizon(clock).String()})
			}
		})
	}
	s.json(c, out, err)
}

// SetHoursOn gives a date working hours of its own.
func (s *server) SetHoursOn(c *gin.Context, params contract.SetHoursOnParams) {
	in, raw, err := body[contract.HoursOn](c)
	cmd := book.HoursOn{}
	if err == nil {
		cmd.Day, err = read[day.Date]("day", in.Day)
	}
	if err == nil && !in.Hours.IsNull() {
		text, _ := in.Hours.Get()
		var hours day.Hours
		if hours, err = day.ParseHours(text); err != nil {
			err = &book.RuleError{Field: "hours", Reason: fmt.Sprintf("“%.60s” are no hours. Stretches such as 09:00-12:30, 13:30-17:30 are wanted, or none.", text)}
		}
		cmd.Hours = &hours
	}
	if err != nil {
		s.fail(c, err)
		return
	}
	reply, err := s.as(c).Run(c.Request.Context(), request(c, params.IdempotencyKey, params.WindowId, raw), cmd, turned)
	s.reply(c, reply, err)
}

// givenBody is a contract.Given whose to-dos are written already.
type givenBody struct {
	contract.Given
	Late []toGiveBody `json:"late"`
}

type toGiveBody struct {
	Todo    json.RawMessage `json:"todo"`
	Minutes int             `json:"minutes"`
	Due     string          `json:"due"`
	Later   *string         `json:"later,omitempty"`
}

// WhatHasToGive finds whose dues cost least to let go of.
func (s *server) WhatHasToGive(c *gin.Context, params contract.WhatHasToGiveParams) {
	of, err := weekOf(params.Of)
	out := givenBody{Late: []toGiveBody{}}
	if err == nil {
		s.as(c).Read(func(b *book.Desk, clock day.Clock) {
			var give []app.ToGive
			if give, out.Proved, err = s.as(c).GiveInWeek(b, clock, of); err != nil {
				return
			}
			out.Says = plan.GiveWords(len(give), out.Proved)
			for _, g := range give {
				one := toGiveBody{Todo: todoJSON(tagsOf(b), g.Todo, func(*writer) {}), Minutes: g.Minutes, Due: g.Due.String()}
				if !g.Later.IsZero() {
					later := g.Later.String()
					one.Later = &later
				}
				out.Late = append(out.Late, one)
			}
		})
	}
	s.json(c, out, err)
}

// SplitTodo makes subtasks of a to-do that is too long for a day.
func (s *server) SplitTodo(c *gin.Context, id string, p contract.SplitTodoParams) {
	withBody(s, c, id, p.IdempotencyKey, p.WindowId, func(id book.ID, in contract.Split) (book.Command, error) {
		return book.Split{ID: id, Parts: in.Parts}, nil
	})
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
