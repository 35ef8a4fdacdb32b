// Package formats knows the formats in which to-dos pass in and out, by their names.
package formats

import (
	"bytes"
	"path"
	"strings"

	"tincup/internal/core/exchange"
	"tincup/internal/formats/csvfile"
	"tincup/internal/formats/ics"
	"tincup/internal/formats/jscal"
	"tincup/internal/formats/markdown"
)

// Format is a format by its name.
type Format struct {
	// Name is what commands and the API call it; Says what people do.
	Name, Says string
	// Ending is that of its files; Type their media type.
	Ending, Type string
	exchange.Codec
}

// All are the formats.
var All = []Format{
	{"ics", "iCalendar", ".ics", "text/calendar", ics.Format{}},
	{"jscal", "JSCalendar", ".json", "application/jscalendar+json", jscal.Format{}},
	{"csv", "CSV", ".csv", "text/csv", csvfile.Format{}},
	{"markdown", "Markdown", ".md", "text/markdown", markdown.Format{}},
}

// Named returns the format of a name.
func Named(name string) (Format, bool) {
	for _, f := range All {
		if f.Name == name {
			return f, true
		}
	}
	return Format{}, false
}

// Names are the names of all formats, for a sentence.
func Names() string {
	names := make([]string, len(All))
	for i, f := range All {
		names[i] = f.Name
	}
	return strings.Join(names, ", ")
}

// Guess returns the format of a file by what it begins with, or else by the ending of its name.
func Guess(file string, text []byte) (Format, bool) {
	head := bytes.TrimLeft(bytes.TrimPrefix(text[:min(len(text), 512)], []byte("\xef\xbb\xbf")), " \t\r\n")
	if len(head) >= 15 && strings.EqualFold(string(head[:15]), "BEGIN:VCALENDAR") {
		return Named("ics")
	}
	if bytes.HasPrefix(head, []byte("{")) || bytes.HasPrefix(head, []byte("[")) {
		return Named("jscal")
	}
	switch ending := strings.ToLower(path.Ext(file)); {
	case ending == ".tsv", ending == ".txt" && csvfile.Is(text):
		return Named("csv")
	case ending == ".txt":
		return Named("markdown")
	}
	for _, f := range All {
		if strings.EqualFold(path.Ext(file), f.Ending) {
			return f, true
		}
	}
	return Format{}, false
}
