package main

import (
	"context"
	"errors"
	"fmt"
	"io"
	"net/http"
	"net/url"
	"os"
	"strings"

	"github.com/spf13/cobra"

	"tincup/internal/app"
	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/view"
	"tincup/internal/formats"
)

func exportCommand() *cobra.Command {
	f := &flags{}
	var format, list, of, out, all string
	cmd := &cobra.Command{
		Use:   "export",
		Short: "Write to-dos to a file",
		Long: `Export writes the to-dos of a list, of a view, or of all lists and the Cup, to the
standard output or a file. With --all it is everything as a ZIP: to-dos, attached
files, settings, views, people, places and what was done, from which tincup import
makes the same again. Where a server has the data file open, it is asked to.`,
		Example: `  tincup export --list "Night Signals" -o night-signals.ics
  tincup export --view overdue
  tincup export --all tin-cup.zip`,
		Args: cobra.NoArgs,
		RunE: func(cmd *cobra.Command, _ []string) error {
			if all != "" {
				if list != "" || of != "" || out != "" || cmd.Flags().Changed("format") {
					return usageError{errors.New("--all is everything, as a ZIP; give it no --list, --view, --format or --output")}
				}
				return f.takeOutAll(cmd.Context(), all)
			}
			if list != "" && of != "" {
				return usageError{errors.New("--list and --view are two things; give one of them")}
			}
			if _, known := formats.Named(format); !known {
				return usageError{fmt.Errorf("there is no format %q; there are %s", format, formats.Names())}
			}
			text, err := f.takeOut(cmd.Context(), format, list, of)
			if err != nil {
				return err
			}
			if out == "" {
				_, err = os.Stdout.Write(text)
				return err
			}
			return writeFile(out, func(w io.Writer) error {
				_, err := w.Write(text)
				return err
			})
		},
	}
	cmd.Flags().StringVar(&format, "format", "ics", "the format: "+formats.Names())
	cmd.Flags().StringVar(&list, "list", "", "the name of a list, or cup")
	cmd.Flags().StringVar(&of, "view", "", "a view that ships, such as overdue, or the name of one of your own")
	cmd.Flags().StringVar(&all, "all", "", "everything, as a ZIP of this name")
	cmd.Flags().StringVarP(&out, "output", "o", "", "the file; without, the standard output")
	f.onFile(cmd)
	f.onTime(cmd)
	return cmd
}

func (f *flags) takeOut(ctx context.Context, format, list, of string) (text []byte, err error) {
	codec, _ := formats.Named(format)
	err = f.on(ctx, func(a *app.App) error {
		s := a.Owner()
		what, name := app.What{}, "Tin Cup"
		switch {
		case list != "":
			id, err := named(s, list)
			if err != nil {
				return err
			}
			what, name = app.What{InList: true, List: id}, s.NameOf(id, "The Cup")
		case of != "":
			if what.View, name, err = viewNamed(s, of); err != nil {
				return err
			}
		}
		items, err := s.Take(ctx, what)
		if err != nil {
			return err
		}
		world := s.World()
		world.Name = name
		text, err = codec.Write(items, world)
		return err
	}, func(address string) error {
		q := url.Values{"format": {format}}
		if list != "" || of != "" {
			ids, err := listsAt(ctx, address)
			if err != nil {
				return err
			}
			id, ok := ids[strings.ToLower(list)]
			own, isOwn := ids["view "+strings.ToLower(of)]
			switch {
			case strings.EqualFold(list, "cup"):
				q.Set("list", "cup")
			case list != "" && !ok:
				return fmt.Errorf("there is no list called “%s”", list)
			case list != "":
				q.Set("list", id)
			case isOwn:
				q.Set("own", own)
			default:
				q.Set("view", of)
			}
		}
		text, err = ask(ctx, http.MethodGet, "http://"+address+"/api/export?"+q.Encode(), nil, "")
		return err
	})
	return text, err
}

// viewNamed finds a view that ships, or one of one's own by its name.
func viewNamed(s *app.Session, name string) (of view.Subject, title string, err error) {
	if _, ships := view.Shipped(view.Name(name)); ships || view.Name(name) == view.Bin {
		return view.Name(name), name, nil
	}
	err = fmt.Errorf("there is no view called “%s”", name)
	s.Read(func(b *book.Desk, _ day.Clock) {
		for _, v := range b.Views() {
			if strings.EqualFold(v.Name, name) {
				of, title, err = view.Own{ID: v.ID}, v.Name, nil
			}
		}
	})
	return of, title, err
}
