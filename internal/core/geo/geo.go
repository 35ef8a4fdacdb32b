// Package geo is a point of the earth, as people and devices write one, and how far two lie
// apart. Points are latitude and longitude in degrees of WGS 84.
package geo

import (
	"fmt"
	"math"
	"strconv"
	"strings"
)

// Point is a point of the earth's surface, to a millionth of a degree (a tenth of a metre).
// The zero Point is none.
type Point struct {
	// millionths of a degree
	latitude, longitude int32
	set                 bool
}

// Radius is the mean radius of the earth in metres: (2a + b) / 3 of WGS 84 (IUGG).
const Radius = 6_371_008.8

// Error says what is wrong with a point, in words for people.
type Error struct{ Reason string }

func (e *Error) Error() string { return e.Reason }

// At returns the point at a latitude of -90 to 90 and a longitude of -180 to 180 degrees.
// All longitudes are one at a pole, and so are 180 and -180 (RFC 5870, section 3.4.4). The
// error is an *Error.
func At(latitude, longitude float64) (Point, error) {
	switch {
	case math.IsNaN(latitude) || math.IsInf(latitude, 0) || latitude < -90 || latitude > 90:
		return Point{}, &Error{fmt.Sprintf("The latitude is %v; -90 to 90 degrees is wanted.", latitude)}
	case math.IsNaN(longitude) || math.IsInf(longitude, 0) || longitude < -180 || longitude > 180:
		return Point{}, &Error{fmt.Sprintf("The longitude is %v; -180 to 180 degrees is wanted.", longitude)}
	}
	p := Point{int32(math.Round(latitude * 1e6)), int32(math.Round(longitude * 1e6)), true}
	if p.longitude == -180e6 {
		p.longitude = 180e6
	}
	if p.latitude == 90e6 || p.latitude == -90e6 {
		p.longitude = 0
	}
	return p, nil
}

// MustAt is At for points that are known to be right; it panics where one is not.
func MustAt(latitude, longitude float64) Point {
	p, err := At(latitude, longitude)
	if err != nil {
		panic(err)
	}
	return p
}

// Parse reads a geo URI (RFC 5870; an altitude and an uncertainty are passed over), or a
// latitude and a longitude as people write them: "38.7223, -9.1393", "38.7223 N 9.1393 W". "" is
// no point. The error is an *Error.
func Parse(s string) (Point, error) {
	s = strings.TrimSpace(s)
	if s == "" {
		return Point{}, nil
	}
	bad := &Error{fmt.Sprintf("“%.60s” is not a position. A latitude and a longitude in degrees are wanted, such as 38.7223, -9.1393.", s)}
	rest := s
	if len(s) > 4 && strings.EqualFold(s[:4], "geo:") {
		var parameters string
		rest, parameters, _ = strings.Cut(s[4:], ";")
		for _, p := range strings.Split(parameters, ";") {
			if name, value, _ := strings.Cut(p, "="); strings.EqualFold(name, "crs") && !strings.EqualFold(value, "wgs84") {
				return Point{}, &Error{fmt.Sprintf("The position is of the system “%.40s”; wgs84 is the only one that is read.", value)}
			}
		}
		if first, more, ok := strings.Cut(rest, ","); ok {
			second, _, _ := strings.Cut(more, ",")
			rest = first + "," + second
		}
	}
	words := strings.FieldsFunc(rest, func(r rune) bool { return strings.ContainsRune(",; \t°", r) })
	var degrees []float64
	for _, w := range words {
		switch side := strings.ToUpper(w); side {
		case "N", "S", "E", "W":
			at := len(degrees) - 1
			if at != map[string]int{"N": 0, "S": 0, "E": 1, "W": 1}[side] || degrees[at] < 0 {
				return Point{}, bad
			}
			if side == "S" || side == "W" {
				degrees[at] = -degrees[at]
			}
			continue
		}
		n, err := strconv.ParseFloat(w, 64)
		if err != nil || strings.ContainsAny(w, "xXpP_iInN") { // numbers as people write them, alone
			return Point{}, bad
		}
		degrees = append(degrees, n)
	}
	if len(degrees) != 2 {
		return Point{}, bad
	}
	return At(degrees[0], degrees[1])
}

// IsZero reports whether p is none.
func (p Point) IsZero() bool { return !p.set }

// Latitude is in degrees, north of the equator above 0.
func (p Point) Latitude() float64 { return float64(p.latitude) / 1e6 }

// Longitude is in degrees, east of Greenwich above 0.
func (p Point) Longitude() float64 { return float64(p.longitude) / 1e6 }

// String is the point as a geo URI (RFC 5870), or "" for none.
func (p Point) String() string {
	if !p.set {
		return ""
	}
	return "geo:" + degrees(p.Latitude()) + "," + degrees(p.Longitude())
}

// Words is the point as people write one: "38.7223, -9.1393"; "" for none.
func (p Point) Words() string {
	return strings.Replace(strings.TrimPrefix(p.String(), "geo:"), ",", ", ", 1)
}

func degrees(d float64) string { return strconv.FormatFloat(d, 'f', -1, 64) }

// MarshalText implements encoding.TextMarshaler.
func (p Point) MarshalText() ([]byte, error) { return []byte(p.String()), nil }

// UnmarshalText implements encoding.TextUnmarshaler; "" is none.
func (p *Point) UnmarshalText(text []byte) (err error) {
	*p, err = Parse(string(text))
	return err
}

// Distance is how many metres two points lie apart along a great circle of a sphere of the
// earth's mean radius (the haversine formula, which holds for points that are near as well): of
// what it is along the ellipsoid it is wrong by 0.6 % at most.
func Distance(a, b Point) float64 {
	const radians = math.Pi / 180 / 1e6
	hav := func(x float64) float64 { s := math.Sin(x / 2); return s * s }
	from, to := float64(a.latitude)*radians, float64(b.latitude)*radians
	h := hav(to-from) + math.Cos(from)*math.Cos(to)*hav((float64(b.longitude)-float64(a.longitude))*radians)
	return 2 * Radius * math.Asin(math.Sqrt(min(h, 1)))
}
