package geo_test

import (
	"bufio"
	"errors"
	"fmt"
	"math"
	"os"
	"strings"
	"testing"

	"tincup/internal/core/geo"
)

// The reference is geographiclib-geodesic, which measures along the ellipsoid.
func TestDistanceAgainstTheEllipsoid(t *testing.T) {
	file, err := os.Open("testdata/geodesic.txt")
	if err != nil {
		t.Fatal(err)
	}
	defer file.Close()
	compared, worst := 0, 0.0
	for lines := bufio.NewScanner(file); lines.Scan(); {
		if strings.HasPrefix(lines.Text(), "#") {
			continue
		}
		var a, b, c, d, want float64
		if _, err := fmt.Sscan(lines.Text(), &a, &b, &c, &d, &want); err != nil {
			t.Fatalf("%q: %v", lines.Text(), err)
		}
		from, to := geo.MustAt(a, b), geo.MustAt(c, d)
		got := geo.Distance(from, to)
		if back := geo.Distance(to, from); back != got {
			t.Errorf("%v to %v is %v, and back %v", from, to, got, back)
		}
		off := math.Abs(got-want) / want
		if off > 0.006 {
			t.Errorf("%v to %v: %.1f m, and along the ellipsoid %.1f: %.2f %% off", from, to, got, want, off*100)
		}
		compared, worst = compared+1, max(worst, off)
	}
	if compared < 400 {
		t.Errorf("%d distances were compared", compared)
	}
	t.Logf("%d distances, at most %.3f %% off", compared, worst*100)
}

func TestPointsAreRead(t *testing.T) {
	for _, c := range []struct{ text, want string }{
		// RFC 5870, sections 1, 6.1 and 6.3
		{"geo:13.4125,103.8667", "geo:13.4125,103.8667"},
		{"geo:48.2010,16.3695,183", "geo:48.201,16.3695"},
		{"geo:48.198634,16.371648;crs=wgs84;u=40", "geo:48.198634,16.371648"},
		{"geo:90,-22.43;crs=WGS84", "geo:90,0"},
		{"geo:90,46", "geo:90,0"},
		{"geo:-90,46", "geo:-90,0"},
		{"geo:22.300,-118.44", "geo:22.3,-118.44"},
		{"geo:66,30;u=6.500;FOo=this%2dthat", "geo:66,30"},
		{"geo:-33,-180", "geo:-33,180"},
		// as people write them; no source
		{"38.7223, -9.1393", "geo:38.7223,-9.1393"},
		{"38.7223 -9.1393", "geo:38.7223,-9.1393"},
		{"38.7223° N, 9.1393° W", "geo:38.7223,-9.1393"},
		{"0 S, 0 E", "geo:0,0"},
		{" 1e1,2 ", "geo:10,2"},
		{"0,0", "geo:0,0"},
		{"", ""},
	} {
		p, err := geo.Parse(c.text)
		if err != nil || p.String() != c.want {
			t.Errorf("%q is read as %q, %v; %q is wanted", c.text, p, err, c.want)
		}
		var again geo.Point
		if err := again.UnmarshalText([]byte(p.String())); err != nil || again != p {
			t.Errorf("%q comes back as %q, %v", p, again, err)
		}
	}
}

func TestWhatIsNoPoint(t *testing.T) {
	for _, text := range []string{"geo:1", "1,2,3", "91,0", "-90.1,0", "0,180.5", "NaN,0", "0,Inf", "0x10,2", "1_0,2", "north,9", "geo:1,2;crs=moon", "N 38, 9", "38 E 9 N", "-38 S, 9", ",", "°"} {
		var wrong *geo.Error
		if p, err := geo.Parse(text); !errors.As(err, &wrong) || wrong.Reason == "" || !p.IsZero() {
			t.Errorf("%q is read as %q, %v", text, p, err)
		}
	}
	for _, c := range [][2]float64{{math.NaN(), 0}, {0, math.NaN()}, {math.Inf(1), 0}, {0, math.Inf(-1)}, {90.000001, 0}} {
		if p, err := geo.At(c[0], c[1]); err == nil {
			t.Errorf("%v is the point %v", c, p)
		}
	}
}

func FuzzParse(f *testing.F) {
	for _, s := range []string{"geo:13.4125,103.8667;u=3", "38.7223° N, 9.1393° W", "1,2", ""} {
		f.Add(s)
	}
	f.Fuzz(func(t *testing.T, s string) {
		p, err := geo.Parse(s)
		if err != nil {
			return
		}
		if again, err := geo.Parse(p.String()); err != nil || again != p {
			t.Errorf("%q is read as %q, which comes back as %q, %v", s, p, again, err)
		}
		if again, err := geo.Parse(p.Words()); err != nil || again != p {
			t.Errorf("%q is written for people as %q, which comes back as %q, %v", s, p.Words(), again, err)
		}
		if d := geo.Distance(p, geo.MustAt(1, 2)); !p.IsZero() && !(d >= 0 && d <= math.Pi*geo.Radius+1) {
			t.Errorf("%v is %v m away", p, d)
		}
	})
}

func ExampleDistance() {
	museum, shed := geo.MustAt(38.7223, -9.1393), geo.MustAt(38.7241, -9.1393)
	fmt.Printf("%.0f m\n", geo.Distance(museum, shed))
	// Output: 200 m
}
