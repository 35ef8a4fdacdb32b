package main

import (
	"encoding/json"
	"fmt"
	"time"

	"github.com/spf13/cobra"

	"tincup/internal/core/capture"
	"tincup/internal/core/day"
	"tincup/internal/core/repeat"
)

func explainCommand() *cobra.Command {
	cmd := &cobra.Command{
		Use:   "explain",
		Short: "Say how Tin Cup reads a sentence, a rule or a filter",
	}
	cmd.AddCommand(explainCaptureCommand(), explainRepeatCommand(), explainFilterCommand())
	return cmd
}

func explainCaptureCommand() *cobra.Command {
	f := &flags{}
	env := capture.Env{}
	cmd := &cobra.Command{
		Use:   `capture "sentence"`,
		Short: "Print what a sentence means, as JSON",
		Example: `  tincup explain capture --now 2026-11-24T09:00 --list "Night Signals" \
    "Order mount board, by Friday 4pm, in Night Signals, high"`,
		Args: usageArgs(cobra.ExactArgs(1)),
		RunE: func(cmd *cobra.Command, args []string) error {
			settings, err := f.settings()
			if err != nil {
				return err
			}
			source, err := f.source(settings.Zone)
			if err != nil {
				return err
			}
			env.Settings = settings.Writing
			env.Clock = day.Clock{Now: source.Now(), Zone: settings.Zone, DayStart: settings.DayStart}
			out := json.NewEncoder(cmd.OutOrStdout())
			out.SetEscapeHTML(false)
			out.SetIndent("", "  ")
			return out.Encode(explain(capture.Read(args[0], env)))
		},
	}
	f.onTime(cmd)
	cmd.Flags().StringArrayVar(&env.Lists, "list", nil, "the name of a list; may be given again")
	cmd.Flags().StringArrayVar(&env.Tags, "tag", nil, "the name of a tag; may be given again")
	cmd.Flags().StringArrayVar(&env.People, "person", nil, "the name of a person; may be given again")
	return cmd
}

// explanation is a draft as explain prints it; absent fields are null or empty.
type explanation struct {
	Title     string           `json:"title"`
	Notes     string           `json:"notes"`
	List      *string          `json:"list"`
	Due       *string          `json:"due"`
	Start     *string          `json:"start"`
	Plan      *string          `json:"plan"`
	Priority  capture.Priority `json:"priority"`
	Tags      []string         `json:"tags"`
	Repeat    *explainedRepeat `json:"repeat"`
	Estimate  *int             `json:"estimate"` // minutes
	Person    *explainedPerson `json:"person"`
	Reminders []day.Reminder   `json:"reminders"`
	Chips     []explainedChip  `json:"chips"`
	Problems  []explainedFault `json:"problems"`
}

type explainedRepeat struct {
	Rule   string        `json:"rule"`
	First  day.Date      `json:"first"`
	Anchor repeat.Anchor `json:"anchor"`
	Lead   int           `json:"lead"` // days
}

type explainedPerson struct {
	Name string       `json:"name"`
	Role capture.Role `json:"role"`
}

type explainedChip struct {
	Field capture.Field `json:"field"`
	Words string        `json:"words"`
	Value string        `json:"value"`
}

type explainedFault struct {
	Words  string `json:"words"`
	Reason string `json:"reason"`
}

func explain(d capture.Draft) explanation {
	orNull := func(s string) *string {
		if s == "" {
			return nil
		}
		return &s
	}
	e := explanation{Title: d.Title, Notes: d.Notes, List: orNull(d.List), Due: orNull(d.Due.String()),
		Start: orNull(d.Start.String()), Plan: orNull(d.Plan.String()), Priority: d.Priority,
		Tags: append([]string{}, d.Tags...), Reminders: append([]day.Reminder{}, d.Reminders...),
		Chips: []explainedChip{}, Problems: []explainedFault{}}
	if r := d.Repeat; r != nil {
		e.Repeat = &explainedRepeat{r.Rule.String(), r.First, r.Anchor, r.Lead}
	}
	if d.Estimate > 0 {
		e.Estimate = &d.Estimate
	}
	if d.Person.Role != capture.NoRole {
		e.Person = &explainedPerson{d.Person.Name, d.Person.Role}
	}
	for _, c := range d.Chips {
		e.Chips = append(e.Chips, explainedChip{c.Field, c.Words, c.Value})
	}
	for _, p := range d.Problems {
		e.Problems = append(e.Problems, explainedFault(p))
	}
	return e
}

// mostDates is how many dates explain prints at most.
const mostDates = 10_000

func explainRepeatCommand() *cobra.Command {
	var rule, start, at, zone, after string
	var count int
	cmd := &cobra.Command{
		Use:     "repeat",
		Short:   "Print the dates of a rule, one a line",
		Example: `  tincup explain repeat --rule "FREQ=MONTHLY;BYDAY=-1FR" --start 2026-01-30 --count 3`,
		Args:    usageArgs(cobra.NoArgs),
		RunE: func(cmd *cobra.Command, _ []string) error {
			r, err := repeat.Parse(rule)
			if err != nil {
				return usage("--rule: %w", err)
			}
			first, err := day.ParseDate(start)
			if err != nil {
				return usage("--start: %w", err)
			}
			if count < 1 || count > mostDates {
				return usage("--count is %d; 1 to %d is wanted", count, mostDates)
			}
			options := repeat.Options{Zone: time.UTC}
			if at != "" {
				if options.Time, err = day.ParseTimeOfDay(at); err != nil {
					return usage("--time: %w", err)
				}
			}
			if zone != "" {
				if options.Zone, err = time.LoadLocation(zone); err != nil {
					return usage("--zone %q is not a time zone; one such as Europe/Lisbon is wanted", zone)
				}
			}
			from := day.Date{}
			if after != "" {
				if from, err = day.ParseDate(after); err != nil {
					return usage("--after: %w", err)
				}
				from = from.AddDays(1)
			}
			series, err := repeat.New(r, first, options)
			if err != nil {
				return usageError{err}
			}
			for d := range series.From(from) {
				fmt.Fprintln(cmd.OutOrStdout(), d)
				if count--; count == 0 {
					break
				}
			}
			return nil
		},
	}
	cmd.Flags().StringVar(&rule, "rule", "", "the rule, as RFC 5545 writes it")
	cmd.Flags().StringVar(&start, "start", "", "the date it begins with, such as 2026-01-30")
	cmd.Flags().StringVar(&at, "time", "", "the time of the occurrences, such as 09:00, for an UNTIL with a time")
	cmd.Flags().StringVar(&zone, "zone", "", "their time zone, such as Europe/Lisbon")
	cmd.Flags().StringVar(&after, "after", "", "print the dates after this one")
	cmd.Flags().IntVar(&count, "count", 10, "how many dates to print at most")
	return cmd
}
