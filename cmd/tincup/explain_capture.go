package main

import (
	"bufio"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"strings"
	"unicode/utf8"

	"github.com/spf13/cobra"

	"tincup/internal/core/capture"
	"tincup/internal/core/day"
	"tincup/internal/core/repeat"
	"tincup/internal/core/term"
)

// errRefused ends a command with status 3: what was asked about would be refused.
var errRefused = errors.New("a sentence would be refused")

func explainCaptureCommand() *cobra.Command {
	f := &flags{}
	env := capture.Env{}
	cmd := &cobra.Command{
		Use:   `capture "sentence"`,
		Short: "Print what a sentence means, as JSON",
		Long: `Capture prints what a sentence means as one JSON object: its fields, the chips and
offers with where their words stand (in Unicode code points), and its problems with a code.
With "-" it reads a sentence from each line of standard input and prints an object a line.
The status is 0 when all are ok, 3 when a problem would refuse one, 2 for a wrong call.`,
		Example: `  tincup explain capture --now 2026-11-24T09:00 --list "Night Signals" \
    "Order mount board, by Friday 4pm, in Night Signals, high"
  tincup explain capture - < sentences.txt`,
		Args: usageArgs(cobra.ExactArgs(1)),
		RunE: func(cmd *cobra.Command, args []string) error {
			settings, source, err := f.world()
			if err != nil {
				return err
			}
			env.Settings = settings.Writing
			env.Clock = day.Clock{Now: source.Now(), Zone: zoneOf(settings), DayStart: settings.DayStart}
			out := json.NewEncoder(cmd.OutOrStdout())
			out.SetEscapeHTML(false)
			if args[0] == "-" {
				return explainLines(cmd.InOrStdin(), out, env)
			}
			out.SetIndent("", "  ")
			e := explain(args[0], env)
			if err := out.Encode(e); err != nil || e.OK {
				return err
			}
			return errRefused
		},
	}
	f.onTime(cmd)
	cmd.Flags().StringArrayVar(&env.Lists, "list", nil, "the name of a list; may be given again")
	cmd.Flags().StringArrayVar(&env.Tags, "tag", nil, "the name of a tag; may be given again")
	cmd.Flags().StringArrayVar(&env.People, "person", nil, "the name of a person; may be given again")
	cmd.Flags().StringArrayVar(&env.Places, "place", nil, "the name of a place; may be given again")
	return cmd
}

// explainLines explains each line that is not empty.
func explainLines(in io.Reader, out *json.Encoder, env capture.Env) error {
	lines := bufio.NewReader(in)
	var refused error
	for {
		line, err := lines.ReadString('\n')
		if line = strings.TrimRight(line, "\r\n"); strings.TrimSpace(line) != "" {
			e := explain(line, env)
			if !e.OK {
				refused = errRefused
			}
			if err := out.Encode(e); err != nil {
				return err
			}
		}
		switch {
		case err == io.EOF:
			return refused
		case err != nil:
			return fmt.Errorf("reading sentences: %w", err)
		}
	}
}

// explanationVersion is that of what explain prints. It goes up when a field changes its
// meaning, and not when one is added.
const explanationVersion = 1

// explanation is a draft as explain prints it; absent fields are null or empty.
type explanation struct {
	Version  int           `json:"version"`
	Now      string        `json:"now"`
	Zone     string        `json:"zone"`
	OK       bool          `json:"ok"`
	Kind     string        `json:"kind"` // to-do or note
	Title    string        `json:"title"`
	Notes    string        `json:"notes"`
	List     *string       `json:"list"`
	NewList  bool          `json:"newList,omitempty"` // the list is made with the to-do
	Due      *string       `json:"due"`
	Start    *string       `json:"start"`
	Plan     *string       `json:"plan"`
	Priority term.Priority `json:"priority"`
	// Choices are the values of other fields of closed sets, such as the status.
	Choices   map[capture.Field]string `json:"choices,omitempty"`
	Tags      []string                 `json:"tags"`
	Repeat    *explainedRepeat         `json:"repeat"`
	Estimate  *int                     `json:"estimate"` // minutes
	Person    *explainedPerson         `json:"person"`
	Reminders []day.Reminder           `json:"reminders"`
	Said      string                   `json:"said,omitempty"`   // a sentence that reads to the same
	Remark    string                   `json:"remark,omitempty"` // why words that were understood are no field
	Chips     []explainedChip          `json:"chips"`
	Offers    []explainedOffer         `json:"offers"`
	Problems  []explainedFault         `json:"problems"`
}

type explainedRepeat struct {
	Rule   string        `json:"rule"`
	First  day.Date      `json:"first"`
	Anchor repeat.Anchor `json:"anchor"`
	Lead   int           `json:"lead"` // days
}

type explainedPerson struct {
	Name string    `json:"name"`
	Role term.Role `json:"role"`
	New  bool      `json:"new,omitempty"` // the person is made with the to-do
}

// explainedChip is a field that was read, or is offered.
type explainedChip struct {
	Field capture.Field `json:"field"`
	Words string        `json:"words"`
	// Spans are where the words stand, in code points of the line, the end left out.
	Spans [][2]int `json:"spans"`
	// Value is the field's own JSON, null with a problem; Text is for people.
	Value any    `json:"value"`
	Text  string `json:"text"`
}

// explainedOffer is what might be meant. Taken is the sentence that says it, absent where
// something has to be chosen first.
type explainedOffer struct {
	explainedChip
	Taken string `json:"taken,omitempty"`
}

type explainedFault struct {
	Code   capture.Code  `json:"code"`
	Field  capture.Field `json:"field"`
	Words  string        `json:"words"`
	Spans  [][2]int      `json:"spans"`
	Reason string        `json:"reason"`
}

func explain(text string, env capture.Env) explanation {
	d := capture.Read(text, env)
	at := env.Clock.Now.In(env.Clock.Zone)
	e := explanation{Version: explanationVersion, Now: at.Format("2006-01-02T15:04:05"), Zone: env.Clock.Zone.String(),
		OK: len(d.Problems) == 0, Kind: "to-do", Title: d.Title, Notes: d.Notes, List: orNull(d.List), NewList: d.NewList, Due: orNull(d.Due.String()),
		Start: orNull(d.Start.String()), Plan: orNull(d.Plan.String()), Priority: d.Priority, Remark: d.Remark,
		Tags: append([]string{}, d.Tags...), Reminders: append([]day.Reminder{}, d.Reminders...),
		Chips: []explainedChip{}, Offers: []explainedOffer{}, Problems: []explainedFault{}}
	if d.Note {
		e.Kind = "note"
	}
	for _, c := range d.Choices {
		if e.Choices == nil {
			e.Choices = map[capture.Field]string{}
		}
		e.Choices[c.Field] = c.Value
	}
	if e.OK {
		e.Said = capture.Say(d, env)
	}
	if r := d.Repeat; r != nil {
		e.Repeat = &explainedRepeat{r.Rule.At(d.Due.Time).String(), r.First, r.Anchor, r.Lead}
	}
	if d.Estimate > 0 {
		e.Estimate = &d.Estimate
	}
	if d.Person.Role != term.NoRole {
		e.Person = &explainedPerson{d.Person.Name, d.Person.Role, d.Person.New}
	}
	reminders := 0
	for _, c := range d.Chips {
		chip := explainedChip{Field: c.Field, Words: c.Words, Spans: codePoints(text, c.Spans), Text: c.Value}
		if c.Problem == "" {
			chip.Value = e.value(c, &reminders)
		}
		e.Chips = append(e.Chips, chip)
	}
	for _, o := range capture.Offers(text, env) {
		offer := explainedOffer{explainedChip{Field: o.Field, Words: o.Words, Spans: codePoints(text, o.Spans), Text: o.Value}, o.Taken}
		if !o.Choose {
			offer.Value = offered(capture.Read(o.Taken, env), o)
		}
		e.Offers = append(e.Offers, offer)
	}
	for _, p := range d.Problems {
		e.Problems = append(e.Problems, explainedFault{p.Code, p.Field, p.Words, codePoints(text, p.Spans), p.Reason})
	}
	return e
}

func orNull(s string) *string {
	if s == "" {
		return nil
	}
	return &s
}

// value is the JSON of the field that a chip is about; reminders counts those seen.
func (e *explanation) value(c capture.Chip, reminders *int) any {
	switch c.Field {
	case capture.FieldDue:
		return e.Due
	case capture.FieldStart:
		return e.Start
	case capture.FieldPlan:
		return e.Plan
	case capture.FieldList:
		return e.List
	case capture.FieldPriority:
		return e.Priority
	case capture.FieldTag, capture.FieldKind:
		return c.Value
	case capture.FieldRepeat:
		return e.Repeat
	case capture.FieldLead:
		if e.Repeat != nil {
			return e.Repeat.Lead
		}
	case capture.FieldEstimate:
		return e.Estimate
	case capture.FieldPerson:
		return e.Person
	case capture.FieldReminder:
		if *reminders < len(e.Reminders) {
			*reminders++
			return e.Reminders[*reminders-1]
		}
	}
	if value, chosen := e.Choices[c.Field]; chosen {
		return value
	}
	return nil
}

// offered is the JSON of the field that an offer would set.
func offered(taken capture.Draft, o capture.Offer) any {
	e := explanation{Due: orNull(taken.Due.String()), Start: orNull(taken.Start.String()), Plan: orNull(taken.Plan.String()),
		List: orNull(taken.List), Priority: taken.Priority, Estimate: &taken.Estimate, Reminders: taken.Reminders}
	if taken.Person.Role != term.NoRole {
		e.Person = &explainedPerson{taken.Person.Name, taken.Person.Role, taken.Person.New}
	}
	if r := taken.Repeat; r != nil {
		e.Repeat = &explainedRepeat{r.Rule.At(taken.Due.Time).String(), r.First, r.Anchor, r.Lead}
	}
	reminders := max(len(taken.Reminders)-1, 0)
	return e.value(capture.Chip{Field: o.Field, Value: o.Value}, &reminders)
}

// codePoints turns spans of bytes into spans of code points.
func codePoints(text string, spans []capture.Span) [][2]int {
	out := make([][2]int, len(spans))
	for i, s := range spans {
		out[i] = [2]int{utf8.RuneCountInString(text[:s.Start]), utf8.RuneCountInString(text[:s.End])}
	}
	return out
}
