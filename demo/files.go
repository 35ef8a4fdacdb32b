package demo

import (
	"bytes"
	"image"
	"image/color"
	"image/draw"
	"image/png"
	"strings"
)

const agreement = `Loan agreement, draft

Lender: the lighthouse museum. Borrower: the harbour archive.
Objects: one shutter lamp, two oil lamps, one hand lamp.
From the first day of the exhibition to the last.

The crates can travel with the second lorry.
`

// drawn makes the bytes of a file of the demo: a letter, or the plan of a wall.
func drawn(name string) []byte {
	if !strings.HasSuffix(name, ".png") {
		return []byte(agreement)
	}
	var out bytes.Buffer
	if err := png.Encode(&out, wall()); err != nil {
		panic(err) // it is written to memory
	}
	return out.Bytes()
}

// wall is the hanging plan of a bay: panels, and lamps on their shelves.
func wall() image.Image {
	ink, paper := color.RGBA{31, 78, 72, 255}, color.RGBA{255, 253, 248, 255}
	glass, chart := color.RGBA{201, 207, 203, 255}, color.RGBA{47, 116, 128, 255}
	m := image.NewRGBA(image.Rect(0, 0, 640, 360))
	fill := func(x, y, w, h int, c color.Color) {
		draw.Draw(m, image.Rect(x, y, x+w, y+h), image.NewUniform(c), image.Point{}, draw.Src)
	}
	frame := func(x, y, w, h int, c color.Color) {
		fill(x, y, w, h, ink)
		fill(x+3, y+3, w-6, h-6, c)
	}
	fill(0, 0, 640, 360, paper)
	fill(0, 320, 640, 4, ink)
	frame(40, 60, 150, 200, chart)
	frame(220, 60, 90, 90, glass)
	frame(220, 170, 90, 90, glass)
	fill(350, 250, 250, 5, ink)
	for i := range 4 {
		x := 365 + i*60
		frame(x, 190-i*12, 36, 60+i*12, glass)
		fill(x+13, 180-i*12, 10, 10, ink)
	}
	return m
}
