package day_test

import (
	"strings"
	"testing"

	"tincup/internal/core/day"
)

func TestHours(t *testing.T) {
	for text, want := range map[string]string{
		"": "none", "none": "none", "09:00-12:30": "09:00-12:30", "09:00-12:30, 13:30-17:30": "09:00-12:30, 13:30-17:30",
		"9-17": "09:00-17:00", "9:30 – 12, 13-17:05": "09:30-12:00, 13:00-17:05", "09:00—10:00": "09:00-10:00", "0-24": "00:00-24:00",
		"09:00-12:00 12:00-13:00": "09:00-13:00", "22:00-24:00": "22:00-24:00", "00:00-24:00": "00:00-24:00",
	} {
		h, err := day.ParseHours(text)
		if err != nil || h.String() != want {
			t.Errorf("%q: %v, %v; want %s", text, h, err, want)
		}
		if again, err := day.ParseHours(h.String()); err != nil || again.String() != want || again.Minutes() != h.Minutes() {
			t.Errorf("%q again: %v, %v", text, again, err)
		}
	}
	for text, says := range map[string]string{
		"09:00": "not a stretch", "09:00-08:00": "end before they begin", "09:00-09:00": "end before they begin", "09:00-12:00,11:00-13:00": "overlap",
		"13:00-14:00,09:00-10:00": "not in order", "09:00-25:00": "25:00", "24:00-24:00": "24:00", "9-5": "end before they begin", "9:-10": "9:", "-": "", "009-10": "009", "9 to 5": "not a stretch",
		strings.Repeat("09:00-10:00 ", 13): "13 stretches",
	} {
		if h, err := day.ParseHours(text); err == nil || !strings.Contains(err.Error(), says) {
			t.Errorf("%q: %v, %v; want %q", text, h, err, says)
		}
	}
	if h, _ := day.ParseHours("09:00-12:30,13:30-17:30"); h.Minutes() != 450 {
		t.Errorf("%d minutes; want 450", h.Minutes())
	}
}
