package httpapi

import (
	"bytes"
	"cmp"
	"net/http"
	"slices"

	"github.com/gin-gonic/gin"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/view"
	"tincup/internal/httpapi/contract"
)

// pageSize is how many rows a view sends unless told otherwise.
const pageSize = 200

// GetView answers with a shipped view.
func (s *server) GetView(c *gin.Context, name contract.ViewName, params contract.GetViewParams) {
	q := view.Query{Name: view.Name(name)}
	if params.Months != nil {
		q.Months = *params.Months
	}
	s.answer(c, q, params.Offset, params.Limit)
}

// GetListView answers with the to-dos of a list.
func (s *server) GetListView(c *gin.Context, listID string, params contract.GetListViewParams) {
	id, err := pathID(listID)
	if err != nil {
		s.fail(c, err)
		return
	}
	s.answer(c, view.Query{Name: view.InList, List: id}, params.Offset, params.Limit)
}

// GetCupView answers with one cup of the rail.
func (s *server) GetCupView(c *gin.Context, cup string, params contract.GetCupViewParams) {
	h, err := read[day.Horizon]("cup", cup)
	if err != nil {
		s.fail(c, err)
		return
	}
	if h.Precision() == day.Day {
		h = day.OnDay(h.First())
	}
	s.answer(c, view.Query{Name: view.OnRail, Cup: h}, params.Offset, params.Limit)
}

func (s *server) answer(c *gin.Context, q view.Query, offset, limit *int) {
	q.Limit = pageSize
	if offset != nil {
		q.Offset = *offset
	}
	if limit != nil {
		q.Limit = *limit
	}
	var body contract.View
	var err error
	s.app.Read(func(b *book.Book, clock day.Clock) {
		var res *view.Result
		if res, err = view.Ask(b, clock, q); err == nil {
			body = encodeView(b, clock, q, res)
		}
	})
	if err != nil {
		s.fail(c, err)
		return
	}
	c.JSON(http.StatusOK, body)
}

// GetOverview answers with what stands round every view.
func (s *server) GetOverview(c *gin.Context) {
	var body contract.Overview
	s.app.Read(func(b *book.Book, clock day.Clock) {
		body = overview(b, clock, view.Take(b, clock))
	})
	c.JSON(http.StatusOK, body)
}

func overview(b *book.Book, c day.Clock, survey *view.Survey) contract.Overview {
	o := contract.Overview{Revision: b.Revision(), Now: c.Wall().String(), Zone: c.Zone.String(),
		Today: survey.Today.String(), Brim: view.Brim, Shelves: []contract.Shelf{}, Tags: []contract.Tag{},
		People: []contract.Person{}}
	o.Counts.Cup, o.Counts.Today = survey.Counts[view.Cup], survey.Counts[view.Today]
	o.Counts.Overdue, o.Counts.WithinAWeek = survey.Counts[view.Overdue], survey.Counts[view.WithinAWeek]
	o.Counts.Bin = survey.Counts[view.Bin]
	for _, cup := range survey.Rail {
		o.Rail = append(o.Rail, contract.RailCup{Horizon: cup.Horizon.String(), Count: cup.Count})
	}
	shelves, lists, tags := b.Shelves(), b.Lists(), b.Tags()
	slices.SortFunc(shelves, func(a, b *book.Shelf) int {
		return cmp.Or(cmp.Compare(a.Position, b.Position), bytes.Compare(a.ID[:], b.ID[:]))
	})
	slices.SortFunc(lists, func(a, b *book.List) int {
		return cmp.Or(cmp.Compare(a.Position, b.Position), bytes.Compare(a.ID[:], b.ID[:]))
	})
	slices.SortFunc(tags, func(a, b *book.Tag) int { return cmp.Compare(a.Name, b.Name) })
	for _, shelf := range shelves {
		row := contract.Shelf{Id: shelf.ID.String(), Name: shelf.Name, Lists: []contract.List{}}
		for _, l := range lists {
			if l.Shelf == shelf.ID {
				row.Lists = append(row.Lists, contract.List{Id: l.ID.String(), Name: l.Name,
					Colour: contract.Colour(l.Colour.String()), Open: survey.Lists[l.ID]})
			}
		}
		o.Shelves = append(o.Shelves, row)
	}
	people := b.People()
	slices.SortFunc(people, func(a, b *book.Person) int { return cmp.Compare(a.Name, b.Name) })
	for _, p := range people {
		o.People = append(o.People, contract.Person{Id: p.ID.String(), Name: p.Name, Email: orAbsent(p.Email), Phone: orAbsent(p.Phone)})
	}
	for _, t := range tags {
		o.Tags = append(o.Tags, contract.Tag{Id: t.ID.String(), Name: t.Name, Colour: contract.Colour(t.Colour.String())})
	}
	return o
}
