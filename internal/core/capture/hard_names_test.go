package capture_test

import (
	"fmt"
	"strings"
	"testing"

	"tincup/internal/core/capture"
)

// Names that are words for something else, alike, or full of signs.
func TestHardNames(t *testing.T) {
	env := at(tuesday)
	env.Lists = []string{"Friday", "High", `The "small" flat`, "Loans, lent"}
	for i := range 200 {
		env.Lists = append(env.Lists, fmt.Sprintf("Crates of room %d", i))
	}
	env.People = []string{"May", "April Vance", "April Moss"}
	for sentence, want := range map[string]string{
		"Order board, in Friday":                      "Order board | in Friday",
		"Order board, Friday":                         "Order board | in Friday",
		"Order board, friday":                         "Order board | due 2026-11-27",
		"Order board Friday":                          "Order board | due 2026-11-27",
		"Order board, High":                           "Order board | in High",
		"Order board, high":                           "Order board | high",
		"Order board, ask May":                        "Order board | ask May",
		"Order board, ask April":                      "Order board, ask April",
		"Order board, in Crates of room":              "Order board, in Crates of room",
		"Order board, in Crates of room 17":           "Order board | in Crates of room 17",
		"Order board tomorrow in Crates of room 17":   "Order board | due 2026-11-25 | in Crates of room 17",
		"Order board, in Loans, lent":                 "Order board, lent | in Loans, lent",
		"Order board tomorrow, in Crates of room 999": "Order board tomorrow, in Crates of room 999",
	} {
		if got := brief(capture.Read(sentence, env)); got != want {
			t.Errorf("%q reads\n %s\nwant\n %s", sentence, got, want)
		}
	}
}

// veryMuch are sentences with a great many of one thing each, by the name of that thing.
var veryMuch = map[string]string{
	"field phrases":        "x" + strings.Repeat(" tomorrow 3pm high 20 min", 50),
	"clauses":              "x" + strings.Repeat(", the other", 500),
	"clauses of fields":    "x" + strings.Repeat(", by Friday 4pm high", 90),
	"characters":           strings.Repeat("lamp ", 20_000),
	"one word":             strings.Repeat("a", 20_000),
	"what might be offers": strings.Repeat("ring Ada Friday about it ", 60),
	"names to make":        "x" + strings.Repeat(", in Garden, ask Bo", 40),
	"dates from dates":     "x " + strings.Repeat("2 weeks before ", 300) + "15 January",
	"brackets":             strings.Repeat("(", 500) + "tomorrow" + strings.Repeat(")", 500),
	"dashes":               strings.Repeat("a - ", 400),
	"numbers":              strings.Repeat("12-1 ", 400),
	"quotes":               strings.Repeat("\"“", 3000),
	"weekdays":             "x " + strings.Repeat("Monday and ", 300) + "Tuesday",
	"beginnings of names":  "x" + strings.Repeat(" in Crates of room", 60),
	"nothing but a tag":    "#calls",
	"stops":                strings.Repeat(".", 1000),
}

// manyNames is an Env with two hundred lists whose names begin alike.
func manyNames() capture.Env {
	env := at(tuesday)
	for i := range 200 {
		env.Lists = append(env.Lists, fmt.Sprintf("Crates of room %d", i))
		env.People = append(env.People, fmt.Sprintf("Person of room %d", i))
	}
	return env
}

// Very much of everything is read, refused with a code, or left.
func TestVeryMuch(t *testing.T) {
	env := manyNames()
	for name, text := range veryMuch {
		d := capture.Read(text, env)
		for _, p := range d.Problems {
			if p.Code == "" || p.Reason == "" {
				t.Errorf("%s: the problem %+v has no code or no reason", name, p)
			}
		}
		if offers := capture.Offers(text, env); len(offers) > capture.MaxOffers {
			t.Errorf("%s: %d offers", name, len(offers))
		}
		if len(d.Problems) == 0 && d.Title == "" {
			t.Errorf("%s: no title, and no problem", name)
		}
		checkWords(t, text, d)
	}
}

// Easter Sundays: the computus that is used against another one (Oudin 1940, as the US
// Naval Observatory prints it; from memory) over two centuries, and against dates of the
// published tables (from memory).
func TestEaster(t *testing.T) {
	for _, want := range []string{"2000-04-23", "2008-03-23", "2011-04-24", "2016-03-27", "2019-04-21", "2024-03-31",
		"2025-04-20", "2026-04-05", "2027-03-28", "2028-04-16", "2029-04-01", "2030-04-21", "2038-04-25"} {
		env := at(want[:4] + "-01-01T09:00")
		if got := capture.Read("Dye the eggs by Easter", env).Due.String(); got != want {
			t.Errorf("Easter is %s; the tables say %s", got, want)
		}
	}
	for year := 1900; year < 2100; year++ {
		g, c := year%19, year/100
		h := (c - c/4 - (8*c+13)/25 + 19*g + 15) % 30
		i := h - h/28*(1-29/(h+1)*((21-g)/11))
		j := (year + year/4 + i + 2 - c + c/4) % 7
		l := i - j
		month := 3 + (l+40)/44
		want := fmt.Sprintf("%d-%02d-%02d", year, month, l+28-31*(month/4))
		if got := capture.Read("Dye the eggs by Easter", at(fmt.Sprintf("%d-01-01T09:00", year))).Due.String(); got != want {
			t.Errorf("Easter is %s; the other computus says %s", got, want)
		}
	}
}
