package csvfile

import (
	"fmt"
	"slices"
	"strings"

	"tincup/internal/core/exchange"
	"tincup/internal/formats/column"
)

// The forms of dates, as World.Columns calls them.
const (
	dayFirst   = "day-first"
	monthFirst = "month-first"
)

// dated are the columns that hold dates as people write them.
var dated = []string{"start", "due", "completed"}

// forms says how the values of a file are read that can be read in several ways.
type forms struct {
	dates column.Form
	// askDates: nothing in the file shows the order of its dates, and there is one that can be read
	// either way. In one file all dates have one order.
	askDates bool
	// priorities are the columns of bare numbers, and how each is read; asked are those of which
	// nothing shows what the numbers mean.
	priorities map[int]column.Form
	asked      map[int]bool
	found      []*column.Column
}

// form is how a column is read.
func (f *forms) form(n int) column.Form {
	if p, is := f.priorities[n]; is {
		return p
	}
	return f.dates
}

// formsOf looks at all values of a file: a day above 12 in one place shows the order of its dates,
// a number above 3 that priorities go from 1 to 9. What is not shown is as it was said, or else as
// the account has it.
func formsOf(t *table, found []*column.Column, world exchange.World) *forms {
	f := &forms{dates: column.Form{Zone: world.Zone, MonthFirst: world.Sentences.Settings.MonthFirst}, priorities: map[int]column.Form{}, asked: map[int]bool{}, found: found}
	first, second, either := false, false, false
	said := ""
	for n, c := range found {
		if c == nil {
			continue
		}
		_, form, _ := strings.Cut(world.Columns[key(t.head[n])], ":")
		switch {
		case slices.Contains(dated, c.Name):
			if form != "" {
				said = form
			}
			for value := range t.values(n) {
				a, b, c := column.Order(value)
				first, second, either = first || a, second || b, either || c
			}
		case c.Name == "priority":
			f.numbers(t, n, form)
		}
	}
	switch {
	case first != second:
		f.dates.MonthFirst = second
	case said != "":
		f.dates.MonthFirst = said == monthFirst
	}
	f.askDates = either && first == second
	return f
}

// numbers says how a column of priorities is read where it has bare numbers; form is what was said
// of it.
func (f *forms) numbers(t *table, n int, form string) {
	most, some := 0, false
	for value := range t.values(n) {
		if number, is := column.IsNumber(value); is {
			most, some = max(most, number), true
		}
	}
	if !some {
		return
	}
	of := f.dates
	of.Most, of.Numbers = most, column.FirstHigh
	switch {
	case most > 4:
		of.Numbers = column.OfStandard
	case form != "":
		of.Numbers, f.asked[n] = column.Numbers(form), true
	default:
		f.asked[n] = true
	}
	f.priorities[n] = of
}

// values yields what stands in a column.
func (t *table) values(n int) func(func(string) bool) {
	return func(yield func(string) bool) {
		for _, r := range t.records {
			if n < len(r.values) && strings.TrimSpace(r.values[n]) != "" && !yield(strings.TrimSpace(r.values[n])) {
				return
			}
		}
	}
}

// choices are the ways in which a column can be read, with the one in which it is; none where there
// is nothing to choose.
func (f *forms) choices(t *table, n int) (is string, all []FormOf) {
	if f.asked[n] {
		of := f.priorities[n]
		is = string(of.Numbers)
		for _, numbers := range []column.Numbers{column.FirstHigh, column.LastHigh, column.OfStandard} {
			of.Numbers = numbers
			all = append(all, FormOf{string(numbers), f.shown(t, n, of)})
		}
		return is, all
	}
	if !f.askDates || !slices.Contains(dated, f.found[n].Name) {
		return "", nil
	}
	is = dayFirst
	if f.dates.MonthFirst {
		is = monthFirst
	}
	for _, name := range []string{dayFirst, monthFirst} {
		of := f.dates
		of.MonthFirst = name == monthFirst
		all = append(all, FormOf{name, f.shown(t, n, of)})
	}
	return is, all
}

// shown says how the first values of a column are read.
func (f *forms) shown(t *table, n int, form column.Form) string {
	var said []string
	for value := range t.values(n) {
		if _, _, either := column.Order(value); f.found[n].Name != "priority" && !either {
			continue
		}
		var item exchange.Item
		if wrong := f.found[n].Take(&item, value, form); wrong != "" {
			continue
		}
		read := item.Todo.Priority.String()
		if f.found[n].Name != "priority" {
			m, err := column.Moment(value, form)
			if err != nil {
				continue
			}
			read = m.Date.Words()
		}
		if one := fmt.Sprintf("%.20s is %s", value, read); !slices.Contains(said, one) {
			said = append(said, one)
		}
		if len(said) == samples {
			break
		}
	}
	return strings.Join(said, ", ")
}
