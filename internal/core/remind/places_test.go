package remind_test

import (
	"encoding/json"
	"math"
	"math/rand/v2"
	"reflect"
	"slices"
	"strings"
	"testing"
	"time"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
	"tincup/internal/core/geo"
	"tincup/internal/core/remind"
)

// walker is a person with a device.
type walker struct {
	*bell
	presence remind.Presence
}

func newWalker(t *testing.T, now string) *walker {
	return &walker{bell: newBell(t, "Europe/Lisbon", now)}
}

func (w *walker) place(name string, latitude, longitude float64, radius int) *book.Place {
	w.t.Helper()
	return w.do(book.AddPlace{Name: name, Middle: geo.MustAt(latitude, longitude), Radius: radius}).Places[0].After
}

// cross tells of crossings, and returns the titles of what rings.
func (w *walker) cross(all []remind.Crossing) []string {
	w.t.Helper()
	_, quiet := remind.Quiet(w.clock(), w.rules)
	cmd, ok := w.queue.Crossed(w.desk, w.terms(), all, quiet)
	if ok != (len(cmd.Come) > 0) {
		w.t.Errorf("something rings: %v, with %d reminders", ok, len(cmd.Come))
	}
	if !ok {
		return []string{}
	}
	var told []*book.Ring
	for _, d := range w.do(cmd).Rings {
		if d.After.State() == book.Rung {
			told = append(told, d.After)
		}
	}
	return w.titles(told)
}

// move sets the clock on by a while, and the device to a point. It returns what rings.
func (w *walker) move(later time.Duration, latitude, longitude, accuracy float64) []string {
	w.t.Helper()
	w.now = w.now.Add(later)
	return w.cross(w.presence.Move(w.desk.Places(), remind.Fix{At: geo.MustAt(latitude, longitude), Accuracy: accuracy, Taken: w.now}, w.now))
}

func (w *walker) want(what string, got []string, titles ...string) {
	w.t.Helper()
	if !slices.Equal(got, append([]string{}, titles...)) {
		w.t.Errorf("%s: it rings %q; want %q", what, got, titles)
	}
}

// RFC 9074 section 8.1 (from memory): an alarm on departing from the office, geo:40.443,-79.945
// with an uncertainty of 10 m.
func TestOnDeparting(t *testing.T) {
	w := newWalker(t, "2026-11-24T17:00")
	office := w.place("Office", 40.443, -79.945, 150)
	if r := reminder(t, "DEPART:Office"); r.Edge != day.Leaving {
		t.Fatalf("it reads as %v", r)
	}
	w.put("Remember to buy milk", "", "DEPART:Office")
	w.now = w.now.Add(time.Hour)
	w.want("at the desk", w.move(0, 40.443, -79.945, 10))
	w.want("in the yard, 189 m away", w.move(time.Minute, 40.4447, -79.945, 10))
	w.want("in the street, 211 m away", w.move(time.Minute, 40.4449, -79.945, 10), "Remember to buy milk")
	w.wantOpen("Remember to buy milk")
	if here := w.presence.Here(w.desk); len(here) != 0 {
		t.Errorf("it is at %v", here)
	}
	w.want("and back", w.move(time.Hour, 40.443, -79.945, 10))
	if here := w.presence.Here(w.desk); len(here) != 1 || here[0].ID != office.ID {
		t.Errorf("it is at %v", here)
	}
	w.want("the next day", w.move(24*time.Hour, 40.5, -79.945, 10), "Remember to buy milk")
}

// Where a stretch of ground begins and ends, metre by metre. One degree of latitude is
// 111,195 m here.
func TestEdges(t *testing.T) {
	const metre = 1 / 111_195.08
	for _, c := range []struct {
		radius   int
		accuracy float64
		from, to float64 // metres from the middle
		inside   bool
	}{
		{150, 10, 1000, 149.8, true}, {150, 10, 1000, 151, false},
		{150, 10, 0, 199.8, true}, {150, 10, 0, 201, false}, // 50 m further
		{150, 120, 0, 269, true}, {150, 120, 0, 272, false}, // or what the position may be wrong by
		{150, 300, 1000, 10, true}, {150, 301, 1000, 10, false}, // worse than twice the radius
		{150, 301, 0, 3000, true},
		{50, 0, 1000, 49.8, true}, {5000, 10, 40_000, 4999, true},
	} {
		w := newWalker(t, "2026-11-24T09:00")
		w.place("Shed", 38, -9, c.radius)
		w.move(0, 38+c.from*metre, -9, 5)
		w.move(time.Hour, 38+c.to*metre, -9, c.accuracy)
		if inside := len(w.presence.Here(w.desk)) == 1; inside != c.inside {
			t.Errorf("from %v m to %v m, radius %d m, to %v m: inside is %v", c.from, c.to, c.radius, c.accuracy, inside)
		}
	}
}

func TestWhatRingsAtAnEdge(t *testing.T) {
	w := newWalker(t, "2026-11-24T09:00")
	w.place("Museum", 38.7, -9.1, 150)
	near, far := 38.7, 38.72
	w.move(0, far, -9.1, 10)
	id := w.put("Count the lamps", "2026-11-27", "ARRIVE:Museum")
	w.put("Ring the choir", "", "DEPART:Museum")
	w.put("Parked", "", "ARRIVE:Museum")
	park := day.MustHorizon("parked")
	w.do(book.Edit{ID: w.titled("Parked"), Plan: &park})
	w.want("arriving", w.move(time.Hour, near, -9.1, 10), "Count the lamps")
	w.want("staying", w.move(time.Minute, near, -9.1, 10))
	w.want("leaving within ten minutes", w.move(2*time.Minute, far, -9.1, 10), "Ring the choir")
	w.want("coming back within ten minutes", w.move(time.Minute, near, -9.1, 10))
	w.want("leaving again", w.move(5*time.Minute, far, -9.1, 10))
	w.want("coming back", w.move(20*time.Minute, near, -9.1, 10), "Count the lamps")
	// Ticked, the ring is over; undone, it is back.
	w.wantOpen("Count the lamps", "Ring the choir")
	ticked := w.do(book.Complete{ID: id})
	w.wantOpen("Ring the choir")
	w.undo(ticked)
	w.wantOpen("Count the lamps", "Ring the choir")
	// One that was put off rings again, wherever the person is.
	w.do(book.RingLater{Rings: []book.ID{w.desk.RingsOf(id)[1].ID}, Until: w.now.Add(10 * time.Minute)})
	w.move(5*time.Minute, far, -9.1, 10)
	w.wantRings("2026-11-24T10:40", "Count the lamps")
	// In quiet hours it waits for their end.
	w.rules.Reminders.Quiet = "20:00-07:00"
	w.at("2026-11-24T21:00")
	w.want("late in the day", w.move(0, near, -9.1, 10))
	w.wantRings("2026-11-25T07:00", "Count the lamps")
	// A restart forgets nothing.
	text, err := json.Marshal(w.presence)
	if err != nil {
		t.Fatal(err)
	}
	w.presence = remind.Presence{}
	if err := json.Unmarshal(text, &w.presence); err != nil {
		t.Fatal(err)
	}
	w.restart()
	w.want("after a restart", w.move(time.Minute, near, -9.1, 10))
	w.do(book.RemovePlace{ID: w.desk.PlaceNamed("Museum").ID})
	w.presence.Tidy(w.desk)
	if w.wantOpen(); len(w.presence.Stays) != 0 || len(w.presence.Here(w.desk)) != 0 {
		t.Errorf("of a place that is gone: %+v", w.presence.Stays)
	}
}

// titled finds a to-do by its title.
func (w *walker) titled(title string) book.ID {
	for t := range w.desk.All() {
		if t.Title == title {
			return t.ID
		}
	}
	w.t.Fatalf("there is no “%s”", title)
	return book.ID{}
}

// A reminder that is set at the place itself is for the next time.
func TestSetWhereOneIs(t *testing.T) {
	w := newWalker(t, "2026-11-24T09:00")
	w.place("Museum", 38.7, -9.1, 150)
	w.put("Count the lamps", "", "ARRIVE:Museum")
	w.want("a minute later, at the museum", w.move(time.Minute, 38.7, -9.1, 10))
	w.move(time.Hour, 38.8, -9.1, 10)
	w.want("there again", w.move(time.Hour, 38.7, -9.1, 10), "Count the lamps")
	// Set the day before, and nobody watched since: it is an arrival.
	w = newWalker(t, "2026-11-24T09:00")
	w.place("Museum", 38.7, -9.1, 150)
	w.put("Count the lamps", "", "ARRIVE:Museum")
	w.want("the next day", w.move(24*time.Hour, 38.7, -9.1, 10), "Count the lamps")
	// A place that is said to be where one is, while positions come, has been arrived at.
	w = newWalker(t, "2026-11-24T09:00")
	w.move(time.Hour, 38.7, -9.1, 10)
	w.put("Count the lamps", "", "ARRIVE:Museum")
	w.now = w.now.Add(time.Hour)
	w.move(0, 38.7, -9.1, 10)
	middle := geo.MustAt(38.7, -9.1)
	w.do(book.EditPlace{ID: w.desk.PlaceNamed("Museum").ID, Middle: &middle})
	w.want("where one is", w.move(time.Minute, 38.7, -9.1, 10))
}

func TestConnecting(t *testing.T) {
	w := newWalker(t, "2026-11-24T09:00")
	w.put("Tank up", "", "CONNECT:the car", "DISCONNECT;drip:the car")
	w.put("Not by going there", "", "ARRIVE:the car")
	w.now = w.now.Add(time.Hour)
	car := w.desk.PlaceNamed("the car")
	w.want("in the car", w.cross(w.presence.Connect(car, true, w.now)), "Tank up")
	w.want("told twice", w.cross(w.presence.Connect(car, true, w.now)))
	if here := w.presence.Here(w.desk); len(here) != 1 || here[0].Name != "the car" {
		t.Errorf("it is at %v", here)
	}
	w.want("out of it", w.cross(w.presence.Connect(car, false, w.now)), "Tank up")
	w.want("in it again at once", w.cross(w.presence.Connect(car, true, w.now)))
}

// Positions that jump, come late, come from a clock that was set back, or from the poles.
func TestOddPositions(t *testing.T) {
	w := newWalker(t, "2026-11-24T09:00")
	w.place("Museum", 38.7, -9.1, 150)
	w.place("Pole", 90, 0, 150)
	w.place("Date line", -16.5, 180, 150)
	w.put("Leave", "", "DEPART:Museum")
	w.put("Arrive", "", "ARRIVE:Pole", "ARRIVE:Date line", "ARRIVE:Museum")
	w.now = w.now.Add(time.Hour)
	w.want("at the museum", w.move(0, 38.7, -9.1, 10), "Arrive")
	w.want("10,000 km away a second later", w.move(time.Second, -50, -9.1, 10))
	w.want("which was wrong", w.move(time.Second, 38.7, -9.1, 10))
	w.want("once more", w.move(time.Second, -50, -9.1, 10))
	w.want("and there it stays", w.move(time.Second, -50, -9.1, 10), "Leave")
	for i := range 100 { // in one second
		w.want("a hundred a second", w.move(10*time.Millisecond, -50+float64(i%3)/1e5, -9.1, 30))
	}
	w.want("at the pole", w.move(24*time.Hour, 89.9999, 137, 10), "Arrive")
	w.want("round the pole", w.move(time.Minute, 89.9999, -43, 10))
	w.want("across the date line", w.move(48*time.Hour, -16.5, -179.9995, 10), "Arrive")
	w.want("on its other side", w.move(time.Minute, -16.5, 179.9995, 10))
	late := remind.Fix{At: geo.MustAt(38.7, -9.1), Accuracy: 10, Taken: w.now.Add(-time.Hour)}
	w.want("one that comes late", w.cross(w.presence.Move(w.desk.Places(), late, w.now)))
	if here := w.presence.Here(w.desk); len(here) != 1 || here[0].Name != "Date line" {
		t.Errorf("it is at %v", here)
	}
	w.now = w.now.Add(-10 * 24 * time.Hour) // the clock is set back: what it says now is right
	w.move(0, -16.5, 180, 10)
	w.move(24*time.Hour, 38.7, -9.1, 10)
	if here := w.presence.Here(w.desk); len(here) != 1 || here[0].Name != "Museum" {
		t.Errorf("by a clock set back it is at %v", here)
	}
}

func TestWhatIsForeseenOfPlaces(t *testing.T) {
	w := newWalker(t, "2026-11-24T09:00")
	id := w.put("Count the lamps", "", "ARRIVE:Museum", "CONNECT:the car")
	todo := func() *book.Todo { t, _ := w.desk.Todo(id); return t }
	want := func(what string, museum, car remind.Prospect, watched bool) {
		t.Helper()
		gotMuseum, _ := w.terms().Foresee(w.desk, todo(), todo().Reminders[0])
		gotCar, _ := w.terms().Foresee(w.desk, todo(), todo().Reminders[1])
		if gotMuseum != museum || gotCar != car || w.queue.Watched(w.desk) != watched {
			t.Errorf("%s: %v and %v, watched %v; want %v, %v, %v", what, gotMuseum, gotCar, w.queue.Watched(w.desk), museum, car, watched)
		}
	}
	want("without a position", remind.Nowhere, remind.OnEdge, false)
	middle := geo.MustAt(38.7, -9.1)
	w.do(book.EditPlace{ID: w.desk.PlaceNamed("Museum").ID, Middle: &middle})
	want("with one", remind.OnEdge, remind.OnEdge, true)
	park := day.MustHorizon("parked")
	parked := w.do(book.Edit{ID: id, Plan: &park})
	want("parked", remind.Waiting, remind.Waiting, false)
	w.undo(parked)
	w.do(book.Complete{ID: id})
	want("done", remind.Over, remind.Over, false)
	if next, some := w.queue.Next(); some {
		t.Errorf("something rings at %v", next)
	}
}

// A repeat that is ticked where it rang is over with it, and rings at the next arrival.
func TestEdgesOfRepeats(t *testing.T) {
	w := newWalker(t, "2026-11-24T09:00")
	w.place("Allotment", 38.7, -9.1, 150)
	cmd := book.Capture{Title: "Water", Due: day.MustMoment("2026-11-24"), Repeat: daily(), Reminders: []day.Reminder{day.ReminderOn(day.Arriving, "Allotment")}}
	id := w.do(cmd).Todo().ID
	w.want("there", w.move(time.Hour, 38.7, -9.1, 10), "Water")
	w.now = w.now.Add(5 * time.Second)
	ticked := w.do(book.Complete{ID: id})
	w.wantOpen()
	w.undo(ticked)
	w.wantOpen("Water")
	w.do(book.Complete{ID: id})
	name := "The allotment"
	w.do(book.EditPlace{ID: w.desk.PlaceNamed("Allotment").ID, Name: &name})
	w.wantOpen()
	w.move(time.Hour, 38.8, -9.1, 10)
	w.want("there again", w.move(23*time.Hour, 38.7, -9.1, 10), "Water")
}

// Walks of 500 positions with noise up to the accuracy they state, many of them along the edge:
// each edge is told once in ten minutes at most, and who is surely inside or outside for three
// positions is known to be.
func TestNoisyWalks(t *testing.T) {
	random := *seed
	if random == 0 {
		random = rand.Uint64()
	}
	t.Logf("seed %d", random)
	told, positions := 0, 0
	for walk := range *sequences * 2 {
		r := rand.New(rand.NewPCG(random, uint64(walk)))
		told += noisyWalk(t, r)
		positions += 500
		if t.Failed() {
			t.Fatalf("seed %d, walk %d", random, walk)
		}
	}
	t.Logf("%d walks, %d positions, %d edges told", *sequences*2, positions, told)
	if told < *sequences {
		t.Errorf("only %d edges were told", told)
	}
}

func noisyWalk(t *testing.T, r *rand.Rand) (told int) {
	const metre = 1 / 111_195.08
	latitude, longitude := r.Float64()*160-80, r.Float64()*360-180
	place := &book.Place{ID: book.ID{15: 1}, Name: "Shed", Middle: geo.MustAt(latitude, longitude), Radius: int32(50 + r.IntN(300))}
	radius := float64(place.Radius)
	// A point so many metres north and east of the middle.
	at := func(north, east float64) geo.Point {
		lon := longitude + east*metre/math.Cos(latitude*math.Pi/180)
		return geo.MustAt(latitude+north*metre, math.Mod(lon+540, 360)-180)
	}
	accuracy := 3 + r.Float64()*60
	north, east := r.NormFloat64()*radius*2, r.NormFloat64()*radius*2
	targetN, targetE := 0.0, 0.0
	now := time.Date(2026, 11, 24, 9, 0, 0, 0, time.UTC)
	var p remind.Presence
	last := map[day.Edge]time.Time{}
	inside, outside, wasInside := 0, 0, false
	for i := range 500 {
		now = now.Add(time.Duration(5+r.IntN(20)) * time.Second)
		if i%40 == 0 { // somewhere else: the middle, far away, or the edge itself
			angle, far := r.Float64()*2*math.Pi, []float64{0, radius * 5, radius, radius + 50}[r.IntN(4)]
			targetN, targetE = far*math.Cos(angle), far*math.Sin(angle)
		}
		stepN, stepE := targetN-north, targetE-east
		if length := math.Hypot(stepN, stepE); length > 30 {
			stepN, stepE = stepN*30/length, stepE*30/length
		}
		north, east = north+stepN, east+stepE
		angle, off := r.Float64()*2*math.Pi, r.Float64()*accuracy
		fix := remind.Fix{At: at(north+off*math.Cos(angle), east+off*math.Sin(angle)), Accuracy: accuracy, Taken: now}
		crossings := p.Move([]*book.Place{place}, fix, now)
		is := p.Stays[place.ID].Inside
		for _, c := range crossings {
			told++
			if before, ok := last[c.Edge]; ok && now.Sub(before) < 10*time.Minute {
				t.Errorf("position %d: %v is told again after %v", i, c.Edge, now.Sub(before))
			}
			last[c.Edge] = now
		}
		edge := day.Leaving
		if is {
			edge = day.Arriving
		}
		if is != wasInside && len(crossings) == 0 && last[edge].IsZero() && i > 0 {
			t.Errorf("position %d: the first %v is not told", i, edge)
		}
		wasInside = is
		distance := math.Hypot(north, east)
		// 0.3 % is what the plane is wrong by at most.
		if inside++; distance*1.003+accuracy > radius || accuracy > 2*radius {
			inside = 0
		}
		if outside++; distance*0.997-accuracy <= radius+max(50, accuracy) || accuracy > 2*radius {
			outside = 0
		}
		if inside > 2 && !is || outside > 2 && is {
			t.Errorf("position %d: %.0f m from the middle, radius %.0f m, to %.0f m: inside is %v", i, distance, radius, accuracy, is)
		}
	}
	return told
}

// Presence reads back as it was written, and what is not to be kept is not.
func TestPresenceAsText(t *testing.T) {
	w := newWalker(t, "2026-11-24T09:00")
	w.place("Museum", 38.7, -9.1, 150)
	w.move(0, 38.7, -9.1, 10)
	w.move(time.Second, 50, 50, 10)
	text, err := json.Marshal(w.presence)
	if err != nil {
		t.Fatal(err)
	}
	var back remind.Presence
	if err := json.Unmarshal(text, &back); err != nil || !strings.Contains(string(text), `"middle":"geo:38.7,-9.1","inside":true`) {
		t.Fatalf("%s: %v", text, err)
	}
	again, err := json.Marshal(back)
	if err != nil || string(again) != string(text) || !back.Odd.At.IsZero() || !reflect.DeepEqual(back.Here(w.desk), w.presence.Here(w.desk)) {
		t.Errorf("%s comes back as %s, %v", text, again, err)
	}
}

// A position follows another where a person can have come so far in the time: a kilometre and 350 m
// for each second, beside how far off both may be.
func TestHowFarInHowLong(t *testing.T) {
	for _, c := range []struct{ was, is, seconds, most float64 }{{0, 0, 0, 1000}, {100, 200, 10, 4800}, {200, 100, 10, 4800}, {0, 300, 1, 1650}, {300, 0, 1, 1650}, {900, 900, 20, 9800}} {
		for _, off := range []float64{-30, 30} {
			start := time.Date(2026, 11, 24, 9, 0, 0, 0, time.UTC)
			later := start.Add(time.Duration(c.seconds * float64(time.Second)))
			var p remind.Presence
			p.Move(nil, remind.Fix{At: geo.MustAt(0, 0), Accuracy: c.was, Taken: start}, start)
			there := geo.MustAt((c.most+off)/geo.Distance(geo.MustAt(0, 0), geo.MustAt(1, 0)), 0)
			p.Move(nil, remind.Fix{At: there, Accuracy: c.is, Taken: later}, later)
			if followed := p.Last.At == there; followed != (off < 0) {
				t.Errorf("%v m in %v s, %v and %v m off: it follows: %t", c.most+off, c.seconds, c.was, c.is, followed)
			}
		}
	}
}

// The same edge is told once in ten minutes, and at their end again.
func TestToldAgainAfterTenMinutes(t *testing.T) {
	start := time.Date(2026, 11, 24, 9, 0, 0, 0, time.UTC)
	for again, told := range map[time.Duration]int{remind.Again - time.Second: 0, remind.Again: 1, remind.Again + time.Second: 1} {
		car := &book.Place{ID: book.ID{1}, Name: "the car", Thing: true}
		var p remind.Presence
		if n := len(p.Connect(car, true, start)); n != 1 {
			t.Errorf("at first it is told %d times", n)
		}
		p.Connect(car, false, start.Add(time.Minute))
		if n := len(p.Connect(car, true, start.Add(again))); n != told {
			t.Errorf("after %v it is told %d times; want %d", again, n, told)
		}
	}
}

// How long a position tells where a person is, to the millisecond: where they were a moment ago
// and no place was, one that is made there does not ring.
func TestAPlaceMadeWhereOneIs(t *testing.T) {
	for gap, rings := range map[time.Duration][]string{2*time.Minute - time.Millisecond: {}, 2 * time.Minute: {"Count the lamps"}} {
		w := newWalker(t, "2026-11-24T09:00")
		w.move(0, 38.7, -9.1, 10)
		w.place("Museum", 38.7, -9.1, 150)
		w.put("Count the lamps", "", "ARRIVE:Museum")
		w.want(gap.String()+" after the last position", w.move(gap, 38.7, -9.1, 10), rings...)
	}
}

// A reminder that is set between two positions was set after the edge, if it came within two
// minutes; a ring in the very millisecond in which its reminder is set stands.
func TestSetAsOneArrives(t *testing.T) {
	for gap, rings := range map[time.Duration][]string{2*time.Minute - time.Millisecond: {}, 2 * time.Minute: {"Count the lamps"}} {
		w := newWalker(t, "2026-11-24T09:00")
		w.place("Museum", 38.7, -9.1, 150)
		w.move(0, 38.72, -9.1, 10)
		w.now = w.now.Add(time.Second)
		w.put("Count the lamps", "", "ARRIVE:Museum")
		w.want(gap.String()+" after it was set", w.move(gap, 38.7, -9.1, 10), rings...)
	}
	w := newWalker(t, "2026-11-24T09:00")
	w.place("Museum", 38.7, -9.1, 150)
	w.move(0, 38.7018, -9.1, 10) // 200 m away
	w.put("Count the lamps", "", "ARRIVE:Museum")
	w.want("at once", w.move(0, 38.7009, -9.1, 10), "Count the lamps")
	w.wantOpen("Count the lamps")
}
