package csvfile

import (
	"bytes"
	"encoding/csv"
	"errors"
	"io"
	"slices"
	"strings"

	"tincup/internal/core/exchange"
	"tincup/internal/formats/plaintext"
)

// table is a file as rows of values.
type table struct {
	comma rune
	// head is the first row, which names the columns; records are the others, but for empty ones.
	head    []string
	records []record
}

// record is a row with the line on which it begins, and the column of each value there.
type record struct {
	values  []string
	line    int
	columns []int
}

// raw is a row as it could stand in a file.
func (t *table) raw(values []string) string {
	var out strings.Builder
	w := csv.NewWriter(&out)
	w.Comma = t.comma
	_ = w.Write(values) // to memory
	w.Flush()
	return strings.TrimSuffix(out.String(), "\n")
}

// readTable reads a file. A quotation mark in a value that is not quoted as a whole, which RFC 4180
// section 2.5 forbids, is one of its characters. The error is an *exchange.Error.
func readTable(file []byte) (*table, error) {
	clean, err := plaintext.Decode(file)
	if err != nil {
		return nil, err
	}
	t := &table{}
	skipped := 0
	if t.comma, clean, skipped = separator(clean); len(bytes.TrimSpace(clean)) == 0 {
		return nil, &exchange.Error{Line: 1, Reason: "The file is empty. Its first row names the columns."}
	}
	if err = t.read(clean, skipped, false); errors.Is(err, csv.ErrBareQuote) {
		err = t.read(clean, skipped, true)
	}
	if err != nil {
		return nil, problem(err, skipped)
	}
	return t, nil
}

// read reads rows; skipped is how many lines stand before them.
func (t *table) read(text []byte, skipped int, lazy bool) error {
	r := csv.NewReader(bytes.NewReader(text))
	r.Comma, r.FieldsPerRecord, r.LazyQuotes = t.comma, -1, lazy
	t.head, t.records = nil, nil
	for {
		values, err := r.Read()
		if errors.Is(err, io.EOF) {
			return nil
		}
		if err != nil {
			return err
		}
		if strings.TrimSpace(strings.Join(values, "")) == "" {
			continue
		}
		if t.head == nil {
			t.head = values
			continue
		}
		next := record{values: values, columns: make([]int, len(values))}
		for i := range values {
			line, column := r.FieldPos(i)
			if next.columns[i] = column; i == 0 {
				next.line = line + skipped
			}
		}
		t.records = append(t.records, next)
	}
}

// separator is what stands between values: what a first line such as "sep=;" says (common practice,
// no source), which is taken off, or what the first line has most of, outside of quotation marks.
func separator(text []byte) (comma rune, rest []byte, skipped int) {
	line, after, _ := bytes.Cut(text, []byte("\n"))
	if says := strings.ToLower(strings.Trim(strings.TrimSpace(string(line)), `"`)); strings.HasPrefix(says, "sep=") {
		if said := []rune(says[4:]); len(said) == 1 && slices.Contains(separators, said[0]) {
			return said[0], after, 1
		} else if len(said) == 0 { // a tab, which was trimmed
			return '\t', after, 1
		}
	}
	counts := map[rune]int{}
	quoted := false
	for _, r := range string(line) {
		if r == '"' {
			quoted = !quoted
		}
		if !quoted {
			counts[r]++
		}
	}
	comma = ','
	for _, r := range separators {
		if counts[r] > counts[comma] {
			comma = r
		}
	}
	return comma, text, 0
}

var separators = []rune{',', ';', '\t', '|'}

// problem is what encoding/csv says is wrong, in our words.
func problem(err error, skipped int) error {
	var wrong *csv.ParseError
	if !errors.As(err, &wrong) {
		return err
	}
	reason := "The row cannot be read."
	if errors.Is(err, csv.ErrQuote) || errors.Is(err, csv.ErrBareQuote) {
		reason = "A quotation mark in a quoted value is not doubled, or the value is not closed (RFC 4180 section 2.7)."
	}
	return &exchange.Error{Line: wrong.Line + skipped, Column: wrong.Column, Reason: reason}
}
