package main

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"os"

	"github.com/spf13/cobra"

	"tincup/internal/app"
	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/plan"
	"tincup/internal/core/term"
)

// maxWeek is the largest input that is read, in bytes.
const maxWeek = 8 << 20

// explainedWeek is a week as explain prints it. Moments are local, and so are dates; jobs
// are named by their ids.
type explainedWeek struct {
	Feasible    bool    `json:"feasible"`
	FirstMissed *string `json:"first_missed"`
	// LateBy is how many minutes of work are undone at that deadline.
	LateBy  int      `json:"late_by"`
	Because []string `json:"because"`
	Overdue []string `json:"overdue"`
	// Late is what has to give; Proved tells whether nothing better is possible.
	Late     []string         `json:"late"`
	Proved   bool             `json:"proved"`
	Plan     explainedPlan    `json:"plan"`
	Load     map[day.Date]int `json:"load"`
	Capacity map[day.Date]int `json:"capacity"`
	// Level is a proposed day for each job without one.
	Level   map[string]day.Date `json:"level"`
	Fullest float64             `json:"fullest"`
	Bound   float64             `json:"bound"`
	// LevelProved tells whether all ways to level were tried.
	LevelProved bool     `json:"level_proved"`
	TooLong     []string `json:"too_long"`
	Unplaced    []string `json:"unplaced"`
	// Slots are from when to when each job would be worked on, on its day.
	Slots map[string][2]string `json:"slots"`
}

type explainedPlan struct {
	Holds   bool             `json:"holds"`
	Over    map[day.Date]int `json:"over"`
	PastDue []string         `json:"past_due"`
}

func explainWeekCommand() *cobra.Command {
	f := &flags{}
	days, hours := defaultWeek, term.WorkingHours.String()
	cmd := &cobra.Command{
		Use:   "week [FILE]",
		Short: "Print whether work fits into its hours, and what has to give, as JSON",
		Long: `Week reads hours, what is busy and jobs as JSON from a file, or from standard
input where the file is -:

  {"now": "2026-11-24T09:10", "zone": "Europe/Lisbon", "days": 7,
   "hours": {"mon": [["09:00","17:00"]], "2026-11-26": []},
   "busy": [["2026-11-25T10:00","2026-11-25T11:30"]],
   "jobs": [{"id": "labels", "minutes": 90, "release": "2026-11-25", "due": "2026-11-27",
             "priority": "high", "day": "2026-11-26", "after": ["loans"], "deep": true}]}

and prints whether every due can be met, the first that cannot and the work that
competes for it, what has to give, whether the plan holds, the load and capacity of
each day, a level spread of what has no day, and the time of day of each job on its
day, where one is free. Moments are local; a due date ends with the working hours of its day.
With --db it reads no FILE, but takes the to-dos and the hours from a data file, for
seven days or as many as --days says: those of the shelves that take working hours or,
with --hours own, own hours.

The status is 0 where all dues can be met, 3 where not, 2 for a wrong call.`,
		Args: usageArgs(cobra.MaximumNArgs(1)),
		RunE: func(cmd *cobra.Command, args []string) error {
			fromFile := cmd.Flags().Changed("db")
			var kind term.Hours
			err := kind.UnmarshalText([]byte(hours))
			switch {
			case err != nil || kind == term.NoHours:
				return usage("--hours is %q; working or own is wanted", hours)
			case fromFile == (len(args) == 1):
				return usage("week reads a FILE or, with --db, a data file: one of the two is wanted")
			case days < 1 || days > plan.MaxDays:
				return usage("--days is %d; 1 to %d is wanted", days, plan.MaxDays)
			case fromFile:
				return f.explainDesk(cmd.Context(), cmd.OutOrStdout(), kind, days)
			}
			data, err := readInput(cmd, args[0], maxWeek)
			if err != nil {
				return err
			}
			problem, err := f.readWeek(data)
			if err != nil {
				return usageError{err}
			}
			return printWeek(cmd.OutOrStdout(), problem)
		},
	}
	f.onTime(cmd)
	f.onFile(cmd)
	cmd.Flags().StringVar(&hours, "hours", hours, "with --db, which hours: working or own")
	cmd.Flags().IntVar(&days, "days", defaultWeek, "with --db, for how many days from today on")
	return cmd
}

// explainDesk explains the work in a data file.
func (f *flags) explainDesk(ctx context.Context, to io.Writer, kind term.Hours, days int) (err error) {
	settings, source, err := f.world()
	if err != nil {
		return err
	}
	path, err := f.path("tincup.db")
	if err != nil {
		return err
	}
	f.quiet, settings.Once = true, true
	a, err := app.Open(ctx, path, source, settings, f.logger())
	if err != nil {
		return explained(err)
	}
	defer func() { err = errors.Join(err, a.Close()) }()
	var p *plan.Problem
	a.Owner().Read(func(b *book.Desk, c day.Clock) { p, _, err = a.Owner().Week(b, c, kind, days) })
	if err != nil {
		return err
	}
	return printWeek(to, p)
}

// readInput reads a file, or standard input where its name is -.
func readInput(cmd *cobra.Command, name string, most int64) ([]byte, error) {
	in := cmd.InOrStdin()
	if name != "-" {
		file, err := os.Open(name)
		if err != nil {
			return nil, usage("%w", err)
		}
		defer file.Close()
		in = file
	}
	data, err := io.ReadAll(io.LimitReader(in, most+1))
	if err == nil && int64(len(data)) > most {
		err = usage("the input has more than %d bytes", most)
	}
	return data, err
}

// printWeek prints what a problem comes to; the error is errRefused where it is not
// feasible.
func printWeek(to io.Writer, p *plan.Problem) error {
	out := describeWeek(p)
	enc := json.NewEncoder(to)
	enc.SetEscapeHTML(false)
	enc.SetIndent("", "  ")
	if err := enc.Encode(out); err != nil {
		return fmt.Errorf("printing the week: %w", err)
	}
	if !out.Feasible {
		return errRefused
	}
	return nil
}

func describeWeek(p *plan.Problem) explainedWeek {
	verdict, hold, level := p.Feasible(), p.Hold(), p.Level()
	given := plan.Given{Proved: true}
	if !verdict.Feasible {
		given = p.Give()
	}
	out := explainedWeek{
		Feasible: verdict.Feasible, LateBy: verdict.LateBy, Because: p.IDs(verdict.Because), Overdue: p.IDs(p.Overdue()),
		Late: p.IDs(given.Late), Proved: given.Proved,
		Plan: explainedPlan{hold.Holds, hold.Over, p.IDs(hold.PastDue)},
		Load: hold.Load, Capacity: map[day.Date]int{}, Level: map[string]day.Date{}, Fullest: level.Fullest, Bound: level.Bound,
		LevelProved: level.Proved, TooLong: p.IDs(level.TooLong), Unplaced: p.IDs(level.Unplaced), Slots: map[string][2]string{},
	}
	local := func(m plan.Minute) string { return m.Time().In(p.Clock.Zone).Format("2006-01-02T15:04") }
	if !verdict.Feasible {
		at := local(verdict.FirstMissed)
		out.FirstMissed = &at
	}
	for _, d := range p.Days {
		out.Capacity[d.Date] = d.Minutes
	}
	for job, on := range level.Day {
		out.Level[p.Jobs[job].ID] = on
	}
	slots := p.Slots(func(job int) day.Date {
		if on, proposed := level.Day[job]; proposed {
			return on
		}
		if p.Jobs[job].Day.IsZero() {
			return day.Date{}
		}
		return p.DayOf(job)
	})
	for job, s := range slots {
		out.Slots[p.Jobs[job].ID] = [2]string{local(s.From), local(s.To)}
	}
	return out
}
