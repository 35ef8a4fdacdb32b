package store

import (
	"fmt"

	"github.com/klauspost/compress/zstd"
)

// Rows of the history and bodies of replies are a few hundred bytes of JSON that is
// much alike. They are kept as Zstandard (RFC 8878) with a dictionary, behind a byte
// that names it; JSON as it is begins with a brace or a bracket.
const squeezed1 = 1

// dictionary1 is what such JSON has in common. It is never changed: what was written
// with it is read with it. Another gets a number of its own.
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

// squeezer turns JSON into less and back. It is safe for concurrent use.
type squeezer struct {
	in  *zstd.Encoder
	out *zstd.Decoder
}

func newSqueezer() (*squeezer, error) {
	in, err := zstd.NewWriter(nil, zstd.WithEncoderLevel(zstd.SpeedFastest), zstd.WithEncoderConcurrency(1), zstd.WithEncoderCRC(false),
		zstd.WithSingleSegment(true), zstd.WithLowerEncoderMem(true), zstd.WithEncoderDictRaw(squeezed1, dictionary1))
	if err != nil {
		return nil, err
	}
	out, err := zstd.NewReader(nil, zstd.WithDecoderConcurrency(1), zstd.WithDecoderLowmem(true), zstd.WithDecoderDictRaw(squeezed1, dictionary1))
	return &squeezer{in, out}, err
}

// squeeze makes JSON smaller, where that is so.
func (s *squeezer) squeeze(plain []byte) []byte {
	if len(plain) == 0 {
		return plain
	}
	small := s.in.EncodeAll(plain, append(make([]byte, 0, len(plain)/2+64), squeezed1))
	if len(small) >= len(plain) && (plain[0] == '{' || plain[0] == '[') {
		return plain
	}
	return small
}

// unsqueeze is squeeze turned round.
func (s *squeezer) unsqueeze(kept []byte) ([]byte, error) {
	switch {
	case len(kept) == 0 || kept[0] == '{' || kept[0] == '[':
		return kept, nil
	case kept[0] != squeezed1:
		return nil, fmt.Errorf("%w: bytes begin with %d", ErrBroken, kept[0])
	}
	plain, err := s.out.DecodeAll(kept[1:], nil)
	if err != nil {
		return nil, fmt.Errorf("%w: %w", ErrBroken, err)
	}
	return plain, nil
}
