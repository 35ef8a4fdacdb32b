package httpapi

import (
	"net/http"
	"slices"
	"time"

	"github.com/gin-gonic/gin"
	"github.com/oapi-codegen/nullable"

	"tincup/internal/app"
	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/geo"
	"tincup/internal/core/view"
	"tincup/internal/httpapi/contract"
)

// GetPlaces answers with every place.
func (s *server) GetPlaces(c *gin.Context) {
	as := s.as(c)
	here := hereIDs(as)
	out := []contract.Place{}
	as.Read(func(b *book.Desk, _ day.Clock) {
		out = out[:0]
		for _, p := range view.UsedPlaces(b) {
			out = append(out, contract.Place{Id: p.ID.String(), Revision: p.Revision, Name: p.Name, Middle: orAbsent(p.Middle.String()),
				Radius: int(p.Radius), Thing: p.Thing, Count: p.Count, Here: slices.Contains(here, p.ID)})
		}
	})
	c.JSON(http.StatusOK, out)
}

func hereIDs(as *app.Session) (ids []book.ID) {
	for _, p := range as.Here().Places {
		ids = append(ids, p.ID)
	}
	return ids
}

// AddPlace adds a place.
func (s *server) AddPlace(c *gin.Context, params contract.AddPlaceParams) {
	in, raw, err := body[contract.NewPlace](c)
	cmd := book.AddPlace{Name: in.Name, Thing: isTrue(in.Thing)}
	if in.Radius != nil {
		cmd.Radius = *in.Radius
		if cmd.Radius == 0 {
			cmd.Radius = -1 // it was said, and is none
		}
	}
	if err == nil {
		var middle *geo.Point
		if middle, err = middleOf(in.Middle); middle != nil {
			cmd.Middle = *middle
		}
	}
	if err != nil {
		s.fail(c, err)
		return
	}
	s.made(c, request(c, params.IdempotencyKey, params.WindowId, raw), cmd,
		func(change *book.Change) book.ID { return change.Places[0].After.ID })
}

// middleOf reads where a place is: absent leaves nil, null and "" are no point.
func middleOf(n nullable.Nullable[string]) (*geo.Point, error) {
	text := cleared(n)
	if text == nil {
		return nil, nil
	}
	p, err := geo.Parse(*text)
	if err != nil {
		return nil, &book.RuleError{Field: "middle", Reason: err.Error()}
	}
	return &p, nil
}

// EditPlace changes a place.
func (s *server) EditPlace(c *gin.Context, id string, p contract.EditPlaceParams) {
	editRow(s, c, id, seen{book.PlaceRow, p.IfMatch, p.WindowId}, func(id book.ID, in contract.PlacePatch) (book.Command, error) {
		middle, err := middleOf(in.Middle)
		return book.EditPlace{ID: id, Name: in.Name, Middle: middle, Radius: in.Radius, Thing: in.Thing}, err
	})
}

// RemovePlace takes a place out.
func (s *server) RemovePlace(c *gin.Context, id string, p contract.RemovePlaceParams) {
	s.removeRow(c, id, seen{book.PlaceRow, p.IfMatch, p.WindowId}, func(id book.ID) book.Command { return book.RemovePlace{ID: id} })
}

// GetPlaceView answers with what is done at a place.
func (s *server) GetPlaceView(c *gin.Context, placeID string, params contract.GetPlaceViewParams) {
	s.answerOf(c, placeID, func(id book.ID) view.Subject { return view.AtPlace{ID: id} }, params.Offset, params.Limit)
}

// GetHereView answers with what can be done where the person is.
func (s *server) GetHereView(c *gin.Context, params contract.GetHereViewParams) {
	s.answer(c, view.Query{Of: view.Here{Places: hereIDs(s.as(c))}}, params.Offset, params.Limit)
}

// GetHere answers with the places at which the person is.
func (s *server) GetHere(c *gin.Context) {
	as := s.as(c)
	here := as.Here()
	out := contract.Here{Watched: here.Watched, Places: []contract.HerePlace{}}
	for _, p := range here.Places {
		out.Places = append(out.Places, contract.HerePlace{Id: p.ID.String(), Name: p.Name})
	}
	if !here.Seen.IsZero() {
		out.Seen = orAbsent(as.Clock().WallOf(here.Seen).String())
	}
	c.JSON(http.StatusOK, out)
}

// TellPosition takes in where a device is.
func (s *server) TellPosition(c *gin.Context) {
	in, _, err := body[contract.DevicePosition](c)
	if err == nil {
		at := app.Position{Latitude: in.Latitude, Longitude: in.Longitude, Accuracy: in.Accuracy}
		if in.Age != nil { // bounded, so that it fits a Duration
			at.Age = time.Duration(max(min(*in.Age, 1e6), -1e6) * float64(time.Second))
		}
		err = s.as(c).Move(c.Request.Context(), at)
	}
	s.noted(c, err)
}

// TellConnection takes in that a thing was connected to, or disconnected from.
func (s *server) TellConnection(c *gin.Context, id string) {
	thing, err := pathID(id)
	var on bool
	if err == nil {
		var in contract.TellConnectionJSONRequestBody
		in, _, err = body[contract.TellConnectionJSONRequestBody](c)
		on = in.Connected
	}
	if err == nil {
		err = s.as(c).Connect(c.Request.Context(), thing, on)
	}
	s.noted(c, err)
}

// noted answers that something was noted, or why not.
func (s *server) noted(c *gin.Context, err error) {
	if err != nil {
		s.fail(c, err)
		return
	}
	c.Status(http.StatusNoContent)
}
