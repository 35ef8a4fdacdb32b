package store

import (
	"bytes"
	"compress/flate"
	"errors"
	"fmt"
	"io"
	"sync"
)

// Rows of the history and bodies of replies are a few hundred bytes of JSON that is
// much alike. They are kept as DEFLATE (RFC 1951) with a dictionary, behind a byte that
// names it; JSON as it is begins with a brace.
const squeezed1 = 1

// dictionary1 is what such JSON has in common, the commonest last. It is never
// changed: what was written with it is read with it. Another gets a number of its own.
var dictionary1 = []byte(`"Sections":[{"after":{"Shelves":[{"Views":[{"Question":"People":[{"Lists":[{"Colour":"","Notes":[{"after":{"ID":"","Text":"` +
	`"Repeat":{"rule":"FREQ=WEEKLY;BYDAY=MO","first":"2026-","anchor":"schedule","current":"","Person":{"Role":"waiting on","Since":"2026-` +
	`"Attachments":[{"Name":"","Hash":"","Type":"image/png","Size":"Reminders":["Outcome":"Place":"Handful":"2026-"Estimate":"Section":"` +
	`"attachments":[{"repeat":{"words":"reminders":[person":{"role":"section":"parent":"estimate":"isNote":true,` +
	`"project":{"done":,"finished":false,"id":"","percent":,"title":"","total":` +
	`"Parent":"","Priority":"medium","Priority":"high","Start":"2026-","Due":"2026-T16:00","Plan":"2026-W","Tags":["` +
	`"Revision":,"Kind":"move","Says":"Moved to ","Kind":"capture","Says":"Put in: “","Kind":"edit","Says":"Changed: “","Kind":"plan","Says":"Planned for ` +
	`","Kind":"complete","Says":"Done: “”","Todos":[{"before":{"ID":"","Title":"","List":"","Position":"e0V000","Status":"in-process","Status":"completed","Created":"2026-` +
	`","Changed":"2026-00:00.000Z","Completed":"2026-00:00.000Z","Revision":},"after":{"ID":"01","Title":"","Status":"completed","Changed":"2026-00:00.000Z","Revision":}}]}` +
	`{"change":{"revision":,"says":"Done: “”"},"changed":"2026-00:00.000Z","completed":null,"created":"2026-00:00.000Z","deleted":null,"due":null,"due":"2026-` +
	`","hasNotes":false,"id":"01","list":null,"list":"01","notes":"","plan":null,"plan":"2026-","priority":"none","revision":,"start":null,"status":"needs-action","status":"completed","tags":[],"title":"`)

var deflaters = sync.Pool{New: func() any {
	w, err := flate.NewWriterDict(io.Discard, 2, dictionary1)
	if err != nil {
		panic(err) // the level is one of those there are
	}
	return w
}}

// squeeze makes bytes smaller, where it does.
func squeeze(plain []byte) []byte {
	var out bytes.Buffer
	out.Grow(len(plain)/3 + 64)
	out.WriteByte(squeezed1)
	w := deflaters.Get().(*flate.Writer)
	defer deflaters.Put(w)
	w.Reset(&out)
	if _, err := w.Write(plain); err != nil || w.Close() != nil || out.Len() >= len(plain) && len(plain) > 0 && plain[0] == '{' {
		return plain // a buffer takes all; this is for what does not get smaller
	}
	return out.Bytes()
}

// unsqueeze is squeeze turned round.
func unsqueeze(kept []byte) ([]byte, error) {
	switch {
	case len(kept) == 0 || kept[0] == '{' || kept[0] == '[':
		return kept, nil
	case kept[0] != squeezed1:
		return nil, fmt.Errorf("%w: bytes begin with %d", ErrBroken, kept[0])
	}
	r := flate.NewReaderDict(bytes.NewReader(kept[1:]), dictionary1)
	plain, err := io.ReadAll(r)
	return plain, errors.Join(err, r.Close())
}
