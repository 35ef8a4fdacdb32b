package book_test

import (
	"errors"
	"fmt"
	"strings"
	"testing"

	"tincup/internal/core/book"
	"tincup/internal/core/day"
)

// refused is why a command is refused, and in which field; "" where it is not.
func (d *desk) refusal(cmd book.Command) string {
	d.t.Helper()
	_, err := d.desk.Do(d.env(), cmd)
	var rule *book.RuleError
	if err != nil && !errors.As(err, &rule) {
		return err.Error()
	}
	if err != nil {
		return rule.Field + ": " + rule.Reason
	}
	return ""
}

func file(nth int, size int64) book.Attachment {
	return book.Attachment{Name: fmt.Sprintf("%d.png", nth), Hash: fmt.Sprintf("%064d", nth), Type: "image/png", Size: size}
}

// The most there may be is allowed, and one more is refused with how many there are.
func TestTheMostThereMayBe(t *testing.T) {
	tags := func(n int) (tags []string) {
		for i := range n {
			tags = append(tags, fmt.Sprint("t", i))
		}
		return tags
	}
	reminders := func(n int) (all []day.Reminder) {
		for i := range n {
			all = append(all, day.ReminderBefore(i))
		}
		return all
	}
	tree := func(n int) (c book.CaptureTree) {
		for range n {
			c.Items = append(c.Items, book.TreeItem{Capture: book.Capture{Title: "x"}, Under: -1})
		}
		return c
	}
	deep := func(n int) (c book.CaptureTree) {
		for i := range n {
			c.Items = append(c.Items, book.TreeItem{Capture: book.Capture{Title: "x"}, Under: i - 1})
		}
		return c
	}
	with := func(sound string) day.Reminder {
		r := day.ReminderBefore(5)
		r.Sound = sound
		return r
	}
	line := func(n int) string { return strings.Repeat("é", n) }
	d := newDesk(t)
	id := d.capture("Ring the framer")
	for text, ok := range map[string]bool{"P1D": true, "P366D": true, "P0D": false, "P367D": false} {
		if _, err := book.ParseDistance(text, day.MustDate("2026-11-24")); (err == nil) != ok {
			t.Errorf("the distance %s: %v", text, err)
		}
	}
	for name, c := range map[string]struct {
		most, more book.Command
		says       string
	}{
		"title": {book.Capture{Title: line(500)}, book.Capture{Title: line(501)}, "title: The title has 501 characters; 500 is the most."},
		"notes": {book.Capture{Title: "x", Notes: strings.Repeat("n", 65536)}, book.Capture{Title: "x", Notes: strings.Repeat("n", 65537)}, "notes: The notes have 65537 bytes; 65536 is the most."},
		"tags":  {book.Capture{Title: "x", Tags: tags(book.MaxTags)}, book.Capture{Title: "x", Tags: tags(book.MaxTags + 1)}, fmt.Sprintf("tags: There are %d tags; %d is the most.", book.MaxTags+1, book.MaxTags)},
		"estimate": {book.Capture{Title: "x", Estimate: book.MaxEstimate}, book.Capture{Title: "x", Estimate: book.MaxEstimate + 1},
			fmt.Sprintf("estimate: The estimate is %d minutes", book.MaxEstimate+1)},
		"reminders": {book.Capture{Title: "x", Reminders: reminders(book.MaxReminders)}, book.Capture{Title: "x", Reminders: reminders(book.MaxReminders + 1)},
			"reminders: There are 21 reminders; 20 is the most."},
		"outcome":    {book.Edit{ID: id, Outcome: ptr(line(book.MaxOutcome))}, book.Edit{ID: id, Outcome: ptr(line(book.MaxOutcome + 1))}, "outcome: The outcome has 501 characters; 500 is the most."},
		"place":      {book.Edit{ID: id, Place: ptr(line(book.MaxPlace))}, book.Edit{ID: id, Place: ptr(line(book.MaxPlace + 1))}, "place: The place has 201 characters; 200 is the most."},
		"lines":      {tree(book.MaxTree), tree(book.MaxTree + 1), "lines: There are 501 to-dos; 1 to 500 are put in at once."},
		"no lines":   {tree(1), tree(0), "lines: There are 0 to-dos; 1 to 500 are put in at once."},
		"levels":     {deep(book.MaxDepth + 1), deep(book.MaxDepth + 2), "parent: "},
		"list":       {book.AddList{Name: line(100)}, book.AddList{Name: line(101)}, "name: The name of the list has 101 characters; 100 is the most."},
		"section":    {book.AddShelf{Name: line(100)}, book.AddShelf{Name: line(101)}, "name: The name of the shelf has 101 characters; 100 is the most."},
		"person":     {book.AddPerson{Name: "x", Note: strings.Repeat("n", book.MaxPersonNote)}, book.AddPerson{Name: "x", Note: strings.Repeat("n", book.MaxPersonNote+1)}, "note: The note about a person has 2001 bytes; 2000 of text is the most."},
		"phone":      {book.AddPerson{Name: "x", Phone: line(40)}, book.AddPerson{Name: "x", Phone: line(41)}, "phone: The phone number has 41 characters; 40 is the most."},
		"email":      {book.AddPerson{Name: "x", Email: strings.Repeat("a", 240) + "@museum.example"[:14]}, book.AddPerson{Name: "x", Email: strings.Repeat("a", 240) + "@museum.example"}, "email: “aaaa"},
		"radius":     {book.AddPlace{Name: "x", Radius: 5000}, book.AddPlace{Name: "x", Radius: 5001}, "radius: The radius is 5001 m; 50 to 5000 m is wanted."},
		"least":      {book.AddPlace{Name: "x", Radius: 50}, book.AddPlace{Name: "x", Radius: 49}, "radius: The radius is 49 m; 50 to 5000 m is wanted."},
		"no minutes": {book.Edit{ID: id, Estimate: ptr(0)}, book.Edit{ID: id, Estimate: ptr(-1)}, "estimate: The estimate is -1 minutes; "},
		"remind":     {book.Remind{ID: id, Add: reminders(book.MaxReminders)}, book.Remind{ID: id, Add: reminders(book.MaxReminders + 1)}, "reminders: There are 21 reminders; 20 is the most."},
		"sound":      {book.Remind{ID: id, Add: []day.Reminder{with("drip")}}, book.Remind{ID: id, Add: []day.Reminder{with("gong")}}, "reminders: There is no sound “gong”. There are "},
		"calendar":   {book.AddCalendar{Name: line(100), Address: "https://a.example/"}, book.AddCalendar{Name: line(101), Address: "https://a.example/"}, "name: The name of the calendar has 101 characters; 100 is the most."},
		"address":    {book.AddCalendar{Name: "x", Address: "https://" + strings.Repeat("a", 1992)}, book.AddCalendar{Name: "x", Address: "https://" + strings.Repeat("a", 1993)}, "address: The address has 2001 characters, and 2000 is the most."},
		"file":       {book.Attach{ID: id, File: file(1, book.MaxAttachment)}, book.Attach{ID: id, File: file(1, book.MaxAttachment+1)}, "file: “1.png” has 25 MB; 25 MB is the most."},
		"empty file": {book.Attach{ID: id, File: file(1, 1)}, book.Attach{ID: id, File: file(1, 0)}, "file: “1.png” is empty."},
	} {
		if says := d.refusal(c.most); says != "" {
			t.Errorf("%s, the most: %s", name, says)
		}
		if says := d.refusal(c.more); !strings.HasPrefix(says, c.says) || says == "" {
			t.Errorf("%s, one more: %q; want %q", name, says, c.says)
		}
	}
}

// What is counted over all rows.
func TestTheMostOfAll(t *testing.T) {
	d := newDesk(t)
	id := d.capture("Ring the framer")
	for i := range 8 {
		d.do(book.Attach{ID: id, File: file(i, book.MaxAttachment)})
	}
	if says := d.refusal(book.Attach{ID: id, File: file(8, 1)}); says != "file: With “8.png” the files of this to-do have 200 MB; 200 MB is the most." {
		t.Errorf("one file more: %q", says)
	}
	if says := d.refusal(book.Attach{ID: id, File: file(7, 1)}); says != "" { // in place of one
		t.Errorf("one file in place of another: %q", says)
	}
	for i := range book.MaxCalendars {
		d.do(book.AddCalendar{Name: fmt.Sprint("c", i), Address: fmt.Sprint("https://a.example/", i)})
	}
	if says := d.refusal(book.AddCalendar{Name: "one more", Address: "https://a.example/more"}); says != "name: There are 30 calendars; that is the most. Remove one first." {
		t.Errorf("one calendar more: %q", says)
	}
	for i := range book.MaxViews {
		d.do(book.AddView{Name: fmt.Sprint("v", i), Question: "{}"})
	}
	if says := d.refusal(book.AddView{Name: "one more", Question: "{}"}); !strings.Contains(says, "200") {
		t.Errorf("one view more: %q", says)
	}
	for i := range book.MaxPlaces {
		d.do(book.AddPlace{Name: fmt.Sprint("p", i)})
	}
	if says := d.refusal(book.AddPlace{Name: "one more"}); !strings.Contains(says, "500") {
		t.Errorf("one place more: %q", says)
	}
	for range book.MaxHandful {
		d.do(book.Pick{ID: d.capture("picked")})
	}
	if says := d.refusal(book.Pick{ID: id}); !strings.HasPrefix(says, "handful: ") || strings.Count(says, "“picked”") != 5 {
		t.Errorf("one more in the handful: %q", says)
	}
}

// Names and addresses that another has are refused, one's own are not; a title is cut where it is
// quoted.
func TestNamesThatAreTaken(t *testing.T) {
	d := newDesk(t)
	c := d.do(book.AddCalendar{Name: "Museum", Address: "https://a.example/1"}).Calendars[0].After.ID
	d.do(book.AddCalendar{Name: "Choir", File: "choir.ics"})
	for name, c := range map[string]struct {
		cmd  book.Command
		says string
	}{
		"a name":          {book.AddCalendar{Name: "MUSEUM", Address: "https://a.example/2"}, "name: A calendar called “Museum” exists already."},
		"an address":      {book.AddCalendar{Name: "Other", Address: "https://a.example/1"}, "address: The calendar “Museum” has this address already."},
		"no address":      {book.AddCalendar{Name: "Other", File: "other.ics"}, ""},
		"neither":         {book.AddCalendar{Name: "Other"}, "address: A calendar has an address, or comes from a file: one of the two is wanted."},
		"both":            {book.AddCalendar{Name: "Other", File: "a.ics", Address: "https://a.example/3"}, "address: A calendar has an address, or comes from a file: one of the two is wanted."},
		"its own name":    {book.EditCalendar{ID: c, Name: ptr("MUSEUM")}, ""},
		"another's name":  {book.EditCalendar{ID: c, Name: ptr("choir")}, "name: A calendar called “Choir” exists already."},
		"a file's path":   {book.Attach{ID: d.capture("x"), File: book.Attachment{Name: "../a.png", Hash: "1", Size: 1}}, "name: “../a.png” is a path."},
		"a file's folder": {book.Attach{ID: d.capture("x"), File: book.Attachment{Name: "..", Hash: "1", Size: 1}}, "name: “..” is a path."},
	} {
		if says := d.refusal(c.cmd); !strings.HasPrefix(says, c.says) || (says == "") != (c.says == "") {
			t.Errorf("%s: %q; want %q", name, says, c.says)
		}
	}
	for _, takes := range []bool{true, false} {
		want := map[bool]string{true: "Calendar “Museum”: events of a whole day take the day", false: "Calendar “Museum”: events of a whole day take no time"}[takes]
		if c := d.do(book.EditCalendar{ID: c, AllDayTakes: &takes}); c.Says != want {
			t.Errorf("all-day events: %q; want %q", c.Says, want)
		}
	}
	for n, quoted := range map[int]string{60: strings.Repeat("é", 60), 61: strings.Repeat("é", 59) + "…"} {
		if c := d.do(book.Capture{Title: strings.Repeat("é", n)}); c.Says != "Put in: “"+quoted+"”" {
			t.Errorf("a title of %d is quoted in %q", n, c.Says)
		}
	}
}

// Several lines make a tree: headings are sections of the list they stand under, and an open
// subtask at any depth keeps what is ticked open.
func TestTreesOfLines(t *testing.T) {
	d := newDesk(t)
	list := d.list("Opening")
	item := func(title string, under int, change ...func(*book.TreeItem)) book.TreeItem {
		in := book.TreeItem{Capture: book.Capture{Title: title, List: list}, Under: under}
		for _, f := range change {
			f(&in)
		}
		return in
	}
	heading := func(in *book.TreeItem) { in.Heading = true }
	done := func(in *book.TreeItem) { in.Done = true }
	other := d.list("Loans")
	c := d.do(book.CaptureTree{Items: []book.TreeItem{item("Before", -1, heading), item("Order flowers", 0, done), item("Ask", 1, done), item("Count", 2),
		item("Sent", 0, done), item("Elsewhere", 0, func(in *book.TreeItem) { in.List = other }), item("After", -1, heading), item("Sweep", 6)}})
	if c.Says != "Put in: 6 to-dos in 2 sections, 1 of them done" {
		t.Errorf("it says %q", c.Says)
	}
	var found []string
	for _, diff := range c.Todos {
		section := ""
		if s, err := d.desk.Section(diff.After.Section); err == nil {
			section = s.Name
		}
		found = append(found, fmt.Sprintf("%s %s %s", diff.After.Title, section, diff.After.Status))
	}
	if want := "[Order flowers Before needs-action Ask Before needs-action Count Before needs-action Sent Before completed Elsewhere  needs-action Sweep After needs-action]"; fmt.Sprint(found) != want {
		t.Errorf("there is\n%v\nwant\n%s", found, want)
	}
	if says := d.refusal(book.CaptureTree{Items: []book.TreeItem{item("a", -1), item("b", 1)}}); says != "lines: Item 2 stands under one that comes after it." {
		t.Errorf("under itself: %q", says)
	}
	// A section of that name is there already and is used.
	d.do(book.CaptureTree{Items: []book.TreeItem{item("before", -1, heading), item("Again", 0)}})
	if n := len(d.desk.Sections(list)); n != 2 {
		t.Errorf("there are %d sections", n)
	}
}

// What the bin lets go of: to-dos to the instant, lists and shelves that hold nothing more.
func TestTheBinsEdge(t *testing.T) {
	d := newDesk(t)
	shelf := d.do(book.AddShelf{Name: "Old"}).Shelves[0].After.ID
	empty := d.do(book.AddList{Name: "Empty", Shelf: shelf}).Lists[0].After.ID
	held := d.do(book.AddList{Name: "Held"}).Lists[0].After.ID
	d.do(book.AddSection{List: empty, Name: "One"})
	in := d.do(book.Capture{Title: "in it", List: held}).Todo().ID
	d.do(book.DeleteList{ID: empty})
	d.do(book.DeleteShelf{ID: shelf})
	d.do(book.DeleteList{ID: held})
	gone := d.capture("gone")
	d.do(book.Delete{ID: gone})
	at := day.TimestampOf(d.now)
	late := d.capture("late")
	d.do(book.Delete{ID: late})
	d.do(book.EmptyBin{UpTo: at - 1})
	if _, err := d.desk.Todo(gone); err != nil {
		t.Error("it went a moment too early")
	}
	d.do(book.EmptyBin{UpTo: at})
	if _, err := d.desk.Todo(gone); err == nil {
		t.Error("it is still there at its instant")
	}
	if _, err := d.desk.Todo(late); err != nil {
		t.Error("what was put in later went too")
	}
	for id, there := range map[book.ID]bool{empty: false, held: false} {
		if _, err := d.desk.List(id); (err == nil) != there {
			t.Errorf("of the list %v: %v", id, err)
		}
	}
	if _, err := d.desk.Todo(in); err == nil {
		t.Error("what was in a list that went is still there")
	}
	if n := len(d.desk.Sections(empty)); n != 0 {
		t.Errorf("%d sections of a list that went", n)
	}
	d.sound()
}
