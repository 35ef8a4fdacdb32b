package httpapi

import (
	"errors"
	"net/http"
	"unicode/utf16"

	"github.com/gin-gonic/gin"

	"tincup/internal/app"
	"tincup/internal/core/book"
	"tincup/internal/core/capture"
	"tincup/internal/core/day"
	"tincup/internal/core/question"
	"tincup/internal/core/view"
	"tincup/internal/httpapi/contract"
)

// sentence reads what a person typed, and where, from the body.
func sentence(c *gin.Context) (app.Sentence, []byte, error) {
	in, raw, err := body[contract.Sentence](c)
	if err != nil {
		return app.Sentence{}, nil, err
	}
	s := app.Sentence{Text: in.Text}
	if in.Zone != nil {
		s.Zone = *in.Zone
	}
	if in.Typed != nil && *in.Typed != "" {
		if s.At, err = read[day.Moment]("typed", *in.Typed); err != nil {
			return s, raw, err
		}
		if !s.At.HasTime() {
			return s, raw, &book.RuleError{Field: "typed", Reason: "A date with time is wanted, such as 2026-11-24T09:00."}
		}
	}
	if in.Files != nil {
		for _, f := range *in.Files {
			s.Files = append(s.Files, book.Attachment{Name: f.Name, Hash: f.Hash})
		}
	}
	s.Exact = in.Exact != nil && *in.Exact
	if in.Given != nil {
		for _, g := range *in.Given {
			s.Given = append(s.Given, view.Given{Field: question.Field(g.Field), Value: g.Value})
		}
	}
	for _, err := range []error{
		optional(&s.List, "list", in.List), optional(&s.Section, "section", in.Section),
		optional(&s.Parent, "parent", in.Parent), optional(&s.After, "after", in.After),
	} {
		if err != nil {
			return s, raw, err
		}
	}
	return s, raw, nil
}

// ReadSentence says what a sentence means.
func (s *server) ReadSentence(c *gin.Context) {
	in, _, err := sentence(c)
	if err != nil {
		s.fail(c, err)
		return
	}
	reading, err := s.as(c).ReadSentence(in)
	if err != nil {
		s.fail(c, err)
		return
	}
	c.JSON(http.StatusOK, encodeReading(in.Text, reading))
}

// PutIn puts in what a sentence means.
func (s *server) PutIn(c *gin.Context, params contract.PutInParams) {
	in, raw, err := sentence(c)
	if err != nil {
		s.fail(c, err)
		return
	}
	reply, err := s.as(c).PutIn(c.Request.Context(), request(c, params.IdempotencyKey, params.WindowId, raw), in,
		s.todoReply(c, http.StatusCreated))
	s.reply(c, reply, err)
}

// ReadLines says what several lines mean.
func (s *server) ReadLines(c *gin.Context) {
	in, _, err := sentence(c)
	if err != nil {
		s.fail(c, err)
		return
	}
	lines, err := s.as(c).ReadLines(in)
	if err != nil {
		s.fail(c, err)
		return
	}
	out := contract.Lines{Lines: make([]contract.Line, 0, len(lines))}
	for _, l := range lines {
		out.Lines = append(out.Lines, contract.Line{Number: l.Number, Depth: l.Depth, Section: l.Section, Done: l.Done,
			Sentence: l.Sentence, Reading: encodeReading(l.Sentence, l.Reading)})
	}
	c.JSON(http.StatusOK, out)
}

// PutInLines puts in what several lines mean.
func (s *server) PutInLines(c *gin.Context, params contract.PutInLinesParams) {
	in, raw, err := sentence(c)
	if err != nil {
		s.fail(c, err)
		return
	}
	reply, err := s.as(c).PutInLines(c.Request.Context(), request(c, params.IdempotencyKey, params.WindowId, raw), in, putIn)
	s.reply(c, reply, err)
}

// ReadWhen reads words for a field with a chooser of its own.
func (s *server) ReadWhen(c *gin.Context) {
	in, _, err := body[contract.When](c)
	if err != nil {
		s.fail(c, err)
		return
	}
	read, err := s.readWhen(c, in)
	var wrong *book.RuleError
	if errors.As(err, &wrong) && wrong.Field == "text" { // while words are typed they mean nothing yet
		read, err = contract.WhenRead{Reason: &wrong.Reason}, nil
	}
	if err != nil {
		s.fail(c, err)
		return
	}
	c.JSON(http.StatusOK, read)
}

func (s *server) readWhen(c *gin.Context, in contract.When) (contract.WhenRead, error) {
	if in.Field != contract.WhenFieldRepeat {
		value, words, err := s.as(c).ReadWhen(string(in.Field), in.Text)
		return contract.WhenRead{Value: value, Words: words}, err
	}
	said, clause, err := s.as(c).ReadRepeat(in.Text)
	if err != nil {
		return contract.WhenRead{}, err
	}
	rule, anchor := said.Rule.String(), contract.Anchor(said.Anchor.String())
	choice := contract.RepeatChoice{Rule: &rule, Anchor: &anchor, Lead: &said.Lead, Time: orAbsent(said.Time.String())}
	choice.First.Set(said.First.String())
	return contract.WhenRead{Value: rule, Words: said.Words, Repeat: &choice, Say: orAbsent(clause)}, nil
}

// encodeReading writes a reading; text is that of its chips, "" where they need
// not be found in it.
func encodeReading(text string, r app.Reading) contract.Reading {
	out := contract.Reading{Title: r.Title, IsNote: r.Note, Notes: r.Notes, List: orAbsent(r.List.String()), Due: orAbsent(r.Due.String()),
		Start: orAbsent(r.Start.String()), Plan: orAbsent(r.Plan.String()), Priority: contract.Priority(r.Priority.String()),
		Tags: append([]string{}, r.Tags...), Repeat: encodeRepeat(r.Repeat), Person: encodeInvolved(r.Person),
		Reminders: reminderTexts(r.Reminders), Chips: []contract.Chip{}, Problems: []contract.Fault{}}
	out.Remark = orAbsent(r.Remark)
	if r.NewList {
		out.NewList = &r.Draft.List
	}
	if r.Draft.Person.New {
		out.NewPerson = &r.Draft.Person.Name
	}
	if r.Estimate > 0 {
		out.Estimate = &r.Estimate
	}
	if len(r.Choices) > 0 {
		values := map[string]string{}
		for _, c := range r.Choices {
			values[string(c.Field)] = c.Value
		}
		out.Choices = &values
	}
	for _, chip := range r.Chips {
		out.Chips = append(out.Chips, encodeChip(text, chip))
	}
	out.Offers = encodeOffers(text, r.Offers)
	for _, p := range r.Problems {
		out.Problems = append(out.Problems, contract.Fault{Words: p.Words, Reason: p.Reason})
	}
	return out
}

func encodeOffers(text string, offers []capture.Offer) []contract.SentenceOffer {
	out := make([]contract.SentenceOffer, len(offers))
	for i, o := range offers {
		out[i] = contract.SentenceOffer{Field: contract.SentenceOfferField(o.Field), Words: o.Words, Value: o.Value,
			Taken: o.Taken, Choose: orAbsent(o.Without), Spans: encodeSpans(text, o.Spans)}
	}
	return out
}

func encodeChip(text string, chip capture.Chip) contract.Chip {
	out := contract.Chip{Field: contract.ChipField(chip.Field), Words: chip.Words, Value: chip.Value,
		Problem: orAbsent(chip.Problem), Spans: []contract.Span{}}
	if text == "" {
		return out
	}
	out.Spans = encodeSpans(text, chip.Spans)
	out.Without = capture.Quote(text, chip)
	return out
}

func encodeSpans(text string, spans []capture.Span) []contract.Span {
	out := make([]contract.Span, len(spans))
	for i, s := range spans {
		out[i] = contract.Span{Start: units(text[:s.Start]), End: units(text[:s.End])}
	}
	return out
}

// units counts UTF-16 code units, as a page does.
func units(s string) int {
	n := 0
	for _, r := range s {
		n += max(utf16.RuneLen(r), 1)
	}
	return n
}
