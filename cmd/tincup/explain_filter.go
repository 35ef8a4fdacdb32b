package main

import (
	"context"
	"encoding/json"
	"errors"

	"github.com/spf13/cobra"

	"tincup/internal/app"
	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/filter"
	"tincup/internal/core/view"
)

// maxFilter is the largest filter that is read, in bytes.
const maxFilter = 1 << 20

// explainedFilter is a filter as explain prints it.
type explainedFilter struct {
	Sentence string         `json:"sentence"`
	Verdict  filter.Verdict `json:"verdict"`
	Now      filter.Verdict `json:"now"`
	Because  []string       `json:"because"`
	// Matches is null without a data file.
	Matches *int `json:"matches"`
}

func explainFilterCommand() *cobra.Command {
	f := &flags{}
	cmd := &cobra.Command{
		Use:   "filter FILE",
		Short: "Print what a filter means and whether it can hold anything, as JSON",
		Long: `Filter reads a filter as JSON from a file, or from standard input where the file
is -, and prints it as a sentence, whether any to-do could ever match it, today
or on any day from now on, which of its tests are to blame where none could, and
with --db how many to-dos in that file match it now. Names are found in that
file too.`,
		Example: `  echo '{"all":[{"field":"due","op":"within-next","days":7},{"field":"repeating","op":"no"}]}' |
    tincup explain filter -`,
		Args: usageArgs(cobra.ExactArgs(1)),
		RunE: func(cmd *cobra.Command, args []string) error {
			data, err := readInput(cmd, args[0], maxFilter)
			if err != nil {
				return err
			}
			parsed, err := filter.Parse(data)
			if err != nil {
				return usageError{err}
			}
			explained, err := f.explainFilter(cmd.Context(), parsed, cmd.Flags().Changed("db"))
			if err != nil {
				return err
			}
			out := json.NewEncoder(cmd.OutOrStdout())
			out.SetEscapeHTML(false)
			out.SetIndent("", "  ")
			return out.Encode(explained)
		},
	}
	f.onTime(cmd)
	f.onFile(cmd)
	return cmd
}

// explainFilter explains against the data file, or against an empty Book.
func (f *flags) explainFilter(ctx context.Context, parsed filter.Filter, withFile bool) (out explainedFilter, err error) {
	settings, source, err := f.world()
	if err != nil {
		return out, err
	}
	if !withFile {
		c := day.Clock{Now: source.Now(), Zone: zoneOf(settings), DayStart: settings.DayStart}
		_, empty := book.Alone(book.MemoryNotes{})
		return describe(parsed, empty, c), nil
	}
	path, err := f.path("tincup.db")
	if err != nil {
		return out, err
	}
	f.quiet = true
	settings.Once = true
	a, err := app.Open(ctx, path, source, settings, f.logger())
	if err != nil {
		return out, explained(err)
	}
	defer func() { err = errors.Join(err, a.Close()) }()
	a.Owner().Read(func(b *book.Desk, c day.Clock) {
		out = describe(parsed, b, c)
		matcher, n := parsed.Matcher(b, c, view.CanDo(c)), 0
		err = nil // it may be asked more than once
		for t := range b.All() {
			if !t.Deleted.IsZero() || err != nil {
				continue
			}
			var matches bool
			if matches, err = matcher.Match(t); matches {
				n++
			}
		}
		out.Matches = &n
	})
	return out, err
}

func describe(f filter.Filter, b *book.Desk, c day.Clock) explainedFilter {
	a := f.Check(b, c)
	return explainedFilter{Sentence: f.Sentence(b), Verdict: a.Verdict, Now: a.Now, Because: append([]string{}, a.Because...)}
}
