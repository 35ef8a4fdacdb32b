package main

import (
	"fmt"
	"time"

	"github.com/spf13/cobra"

	"tincup/internal/core/day"
	"tincup/internal/core/repeat"
)

func explainCommand() *cobra.Command {
	cmd := &cobra.Command{
		Use:   "explain",
		Short: "Say how Tin Cup reads a sentence, a rule or a filter",
	}
	cmd.AddCommand(explainCaptureCommand(), explainRepeatCommand(), explainFilterCommand(), explainWeekCommand())
	return cmd
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
