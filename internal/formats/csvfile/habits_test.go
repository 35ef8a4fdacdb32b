package csvfile_test

import (
	"fmt"
	"slices"
	"strings"
	"testing"
	"time"
	"unicode/utf16"

	"tincup/internal/core/exchange"
	"tincup/internal/formats"
	"tincup/internal/formats/csvfile"
)

// brief says what came in of an item, in one line: title, then what is set.
func brief(item *exchange.Item) string {
	t := &item.Todo
	words := []string{t.Title}
	add := func(name, value string) {
		if value != "" {
			words = append(words, name+"="+value)
		}
	}
	if !t.Status.Open() || t.Status.String() != "needs-action" {
		add("is", t.Status.String())
	}
	if !t.Completed.IsZero() {
		add("completed", t.Completed.Time().UTC().Format("2006-01-02T15:04"))
	}
	if t.Priority != 0 {
		add("prio", t.Priority.String())
	}
	add("start", t.Start.String())
	add("due", t.Due.String())
	if t.Estimate > 0 {
		add("min", fmt.Sprint(t.Estimate))
	}
	add("tags", strings.Join(item.Tags, " "))
	add("list", item.List)
	add("who", item.Person)
	add("notes", strings.ReplaceAll(item.Notes, "\n", "\\"))
	add("left", strings.ReplaceAll(item.Left, "\n", "\\"))
	if item.Under >= 0 {
		add("under", fmt.Sprint(item.Under))
	}
	return strings.Join(words, " ")
}

func wide(text string, little bool, mark bool) string {
	units := utf16.Encode([]rune(text))
	if mark {
		units = append([]uint16{0xfeff}, units...)
	}
	var b []byte
	for _, u := range units {
		pair := []byte{byte(u >> 8), byte(u)}
		if little {
			slices.Reverse(pair)
		}
		b = append(b, pair...)
	}
	return string(b)
}

// Files as people and their programs write them, each along one of the ways in which they differ:
// what stands between values, the words of heads, the order and form of dates, times, words for
// priority and for what is done, lengths, characters and line ends. Modelled on no program.
func TestTablesAsPeopleHaveThem(t *testing.T) {
	lisbon, err := time.LoadLocation("Europe/Lisbon")
	if err != nil {
		t.Fatal(err)
	}
	for _, c := range []struct {
		name, file, text string
		columns          map[string]string
		want             string
	}{
		{"semicolons", "a.csv", "Task;Deadline;Labels\nOil the hinge;2026-12-01;home\n", nil, "Oil the hinge due=2026-12-01 tags=home"},
		{"tabs, by the ending", "a.tsv", "Task\tDeadline\nOil, then wipe\t2026-12-01\n", nil, "Oil, then wipe due=2026-12-01"},
		{"a text file that is a table", "a.txt", "Subject\tNotes\nOil the hinge\ttwice\n", nil, "Oil the hinge notes=twice"},
		{"bars", "a.csv", "task|due\nOil the hinge|2026-12-01\n", nil, "Oil the hinge due=2026-12-01"},
		{"a first line that names the separator", "a.csv", "sep=;\r\ntask;due\r\n\"Oil; wipe\";2026-12-01\r\n", nil, "Oil; wipe due=2026-12-01"},
		{"more commas than semicolons in a quoted head", "a.csv", "\"task, or what, or whom\";title\nx;Oil\n", nil, "Oil"},
		{"line ends of another age", "a.csv", "task,due\r\nOil,2026-12-01\r\n\r\n,\r\nWipe,2026-12-02", nil, "Oil due=2026-12-01 / Wipe due=2026-12-02"},
		{"heads in capitals and with underscores", "a.csv", "TASK_NAME,DUE_DATE,DATE COMPLETED\nOil,2026-12-01,\n", nil, "Oil due=2026-12-01"},
		{"description alone is the title", "a.csv", "Description,Deadline\nOil the hinge,2026-12-01\n", nil, "Oil the hinge due=2026-12-01"},
		{"description beside a name is the notes", "a.csv", "Name,Description,Category\nOil,with care,Home Office;Work\n", nil, "Oil tags=Home-Office Work notes=with care"},
		{"a quotation mark in a value", "a.csv", "task,notes\nOil 2\" hinge,ask for \"Ines\"\n", nil, "Oil 2\" hinge notes=ask for \"Ines\""},
		{"lines within a value", "a.csv", "task,notes\n\"Oil\nthe hinge\",\"a\r\nb\"\n", nil, "Oil the hinge notes=a\\b"},
		{"spaces in a title", "a.csv", "task\n\"Oil  the hinge\"\n", nil, "Oil  the hinge"},

		{"day first, shown by one value", "a.csv", "task,due\nA,03/04/2026\nB,30/11/26\n", nil, "A due=2026-04-03 / B due=2026-11-30"},
		{"month first, shown by a value of another column", "a.csv", "task,due,start\nA,03/04/2026,\nB,12/25/2026,11/30/2026\n", nil, "A due=2026-03-04 / B start=2026-11-30 due=2026-12-25"},
		{"an order that nothing shows is the account's", "a.csv", "task,due\nA,03/04/2026\n", nil, "A due=2026-04-03"},
		{"an order that was said", "a.csv", "task,due\nA,03/04/2026\n", map[string]string{"due": "due:month-first"}, "A due=2026-03-04"},
		{"what the file shows is over what was said", "a.csv", "task,due\nA,03/04/2026\nB,13/04/2026\n", map[string]string{"due": "due:month-first"}, "A due=2026-04-03 / B due=2026-04-13"},
		{"both orders in one file", "a.csv", "task,due\nA,13/04/2026\nB,04/13/2026\n", nil, "A due=2026-04-13 / B due=2026-04-13"},
		{"the year first", "a.csv", "task,due\nA,2026/11/30\nB,20261130\nC,2026.11.30\nD,2026-11-3\n", nil, "A due=2026-11-30 / B due=2026-11-30 / C due=2026-11-30 / D due=2026-11-03"},
		{"names of months", "a.csv", "task;due\nA;Nov 30 2026\nB;30 November 2026\nC;November 30, 2026\nD;Mon, 30 Nov 2026\nE;30-Nov-26\nF;2026 Nov 30\nG;1st of December 2026\n", nil,
			"A due=2026-11-30 / B due=2026-11-30 / C due=2026-11-30 / D due=2026-11-30 / E due=2026-11-30 / F due=2026-11-30 / G due=2026-12-01"},
		{"times of day", "a.csv", "task;due\nA;30/11/2026 4:00 PM\nB;30.11.2026 16.00\nC;2026-11-30 16:00:00\nD;Nov 30, 2026 12:05 am\nE;2026-11-30 00:00:00\nF;2026-11-30T00:00\n", nil,
			"A due=2026-11-30T16:00 / B due=2026-11-30T16:00 / C due=2026-11-30T16:00 / D due=2026-11-30T00:05 / E due=2026-11-30 / F due=2026-11-30T00:00"},
		{"times with a zone", "a.csv", "task;due\nA;2026-07-30T16:00:00Z\nB;2026-11-30T16:00+02:00\nC;2026-11-30T23:30:00.000-0500\nD;20261130T160000Z\nE;2026-11-30T00:00:00.000Z\n", nil,
			"A due=2026-07-30T17:00 / B due=2026-11-30T14:00 / C due=2026-12-01T04:30 / D due=2026-11-30T16:00 / E due=2026-11-30"},
		{"no dates", "a.csv", "task;due\nA;31/02/2026\nB;soon\nC;25:00\nD;2026-11-30 25:00\nE;99/99/9999\n", nil,
			"A left=due: 31/02/2026 / B left=due: soon / C left=due: 25:00 / D left=due: 2026-11-30 25:00 / E left=due: 99/99/9999"},

		{"words for priority", "a.csv", "task;priority\nA;High\nB;LOW\nC;urgent\nD;Normal\nE;1 - High\nF;not urgent\nG;none\nH;purple\n", nil,
			"A prio=high / B prio=low / C prio=high / D prio=medium / E prio=high / F prio=low / G / H left=priority: purple"},
		{"numbers for priority, 1 is high", "a.csv", "task,priority\nA,1\nB,2\nC,3\nD,0\n", nil, "A prio=high / B prio=medium / C prio=low / D"},
		{"numbers for priority, as was said", "a.csv", "task,prio\nA,1\nB,2\nC,3\n", map[string]string{"prio": "priority:1-low"}, "A prio=low / B prio=medium / C prio=high"},
		{"numbers for priority, of the standard", "a.csv", "task,priority\nA,1\nB,5\nC,9\n", nil, "A prio=high / B prio=medium / C prio=low"},
		{"words for what is done", "a.csv", "task;Completed\nA;yes\nB;no\nC;TRUE\nD;x\nE;\nF;2026-11-20\nG;false\nH;20/11/2026 16:00\n", nil,
			"A is=completed / B / C is=completed / D is=completed / E / F is=completed completed=2026-11-20T00:00 / G / H is=completed completed=2026-11-20T16:00"},
		{"words for a state", "a.csv", "task,Status\nA,Done\nB,In Progress\nC,Not Started\nD,Cancelled\nE,☑\nF,resting\n", nil,
			"A is=completed / B is=in-process / C / D is=cancelled / E is=completed / F left=Status: resting"},
		{"lengths", "a.csv", "task;estimate\nA;1h 30m\nB;1:30\nC;PT90M\nD;90\nE;90 min\nF;1.5 hours\nG;1,5 h\nH;2 hours 15 minutes\nI;1h30\nJ;PT1H30M\nK;all day\n", nil,
			"A min=90 / B min=90 / C min=90 / D min=90 / E min=90 / F min=90 / G min=90 / H min=135 / I min=90 / J min=90 / K left=estimate: all day"},

		{"subtasks by the title above", "a.csv", "task,Parent\nHang,Show\nShow,\nLight,show\n", nil, "Show / Hang under=0 / Light under=0"},
		{"subtasks by a number", "a.csv", "ID,Task,Parent ID\n7,Show,\n8,Hang,7\n", nil, "Show / Hang under=0"},
		{"a circle of subtasks", "a.csv", "ID,Task,Parent ID\n7,Show,8\n8,Hang,7\n", nil, "Show / Hang under=0"},
		{"values without a column", "a.csv", "task,due\nOil,2026-12-01,and wipe,,\n", nil, "Oil due=2026-12-01 left=and wipe"},
		{"fewer values than columns", "a.csv", "task,due,notes\nOil\n", nil, "Oil"},
		{"a column by hand, and one passed over", "a.csv", "what to do,task\nOil,T-17\n", map[string]string{"what to do": "title", "task": "-"}, "Oil"},

		{"a mark at the beginning", "a.csv", "\xef\xbb\xbfTask;Notes\nÖl;für die Tür\n", nil, "Öl notes=für die Tür"},
		{"UTF-16 with a mark", "a.csv", wide("Task\tNotes\nÖl\tfür die Tür\n", true, true), nil, "Öl notes=für die Tür"},
		{"UTF-16 without one", "a.csv", wide("Task;Notes\nÖl;für die Tür\n", false, false), nil, "Öl notes=für die Tür"},
		{"Windows-1252", "a.csv", "Task;Notes\nCaf\xe9;\x80 5 \x96 \x93now\x94\n", nil, "Café notes=€ 5 – “now”"},
	} {
		format, known := formats.Guess(c.file, []byte(c.text))
		if !known || format.Name != "csv" {
			t.Errorf("%s: it is taken for %q", c.name, format.Name)
		}
		items, refused, err := csvfile.Format{}.Read([]byte(c.text), exchange.World{Zone: lisbon, Columns: c.columns})
		if err != nil || len(refused) > 0 {
			t.Errorf("%s: %v, %+v", c.name, err, refused)
			continue
		}
		var got []string
		for i := range items {
			got = append(got, brief(&items[i]))
		}
		if s := strings.Join(got, " / "); s != c.want {
			t.Errorf("%s:\n%s\nwant\n%s", c.name, s, c.want)
		}
	}
}

// A value that cannot be read says nothing of its field: what a to-do has there stays.
func TestUnreadableLeavesTheField(t *testing.T) {
	items, _, err := read(t, "uid,title,due,priority\na,A,soon,high\n")
	if err != nil || strings.Join(items[0].Carries.Names(), " ") != "title priority" {
		t.Errorf("it carries %v, %v", items[0].Carries.Names(), err)
	}
}

// The preview asks for what a file does not show: once for all its dates, and for each column of numbers, with
// what the first values would be.
func TestWhatATableAsks(t *testing.T) {
	for _, c := range []struct {
		name, text, want string
	}{
		{"dates and numbers", "task,due,start,priority\nA,03/04/2026,05/06/2026,1\nB,03/04/2026,,2\nC,01/02/2026,,\n",
			"due: day-first of day-first (03/04/2026 is Fri 3 Apr 2026, 01/02/2026 is Sun 1 Feb 2026), month-first (03/04/2026 is Wed 4 Mar 2026, 01/02/2026 is Fri 2 Jan 2026); " +
				"start: day-first of day-first (05/06/2026 is Fri 5 Jun 2026), month-first (05/06/2026 is Wed 6 May 2026); " +
				"priority: 1-high of 1-high (1 is high, 2 is medium), 1-low (1 is medium, 2 is high), 1-to-9 (1 is high, 2 is high)"},
		{"dates that show it", "task,due\nA,03/04/2026\nB,30/04/2026\n", ""},
		{"dates that are the same either way", "task,due\nA,04/04/2026\n", ""},
		{"dates of the standard", "task,due\nA,2026-04-03\n", ""},
		{"numbers that show it", "task,priority\nA,1\nB,9\n", ""},
		{"words", "task,priority\nA,high\n", ""},
	} {
		heads, _, err := csvfile.Heads([]byte(c.text), exchange.World{Zone: time.UTC})
		if err != nil {
			t.Fatal(c.name, err)
		}
		var got []string
		for _, h := range heads {
			if len(h.Forms) == 0 {
				continue
			}
			var forms []string
			for _, f := range h.Forms {
				forms = append(forms, f.Name+" ("+f.Says+")")
			}
			got = append(got, h.Name+": "+h.Form+" of "+strings.Join(forms, ", "))
		}
		if s := strings.Join(got, "; "); s != c.want {
			t.Errorf("%s:\n%s\nwant\n%s", c.name, s, c.want)
		}
	}
}
