package capture

import (
	"strings"

	"tincup/internal/core/day"
)

// edge reads "when I get to", "when I arrive at", "when I leave", "on arriving at" or "on
// leaving" and a known place by its whole name, with "the" before it or without.
func (p *parser) edge() (item, bool) {
	from := p.pos
	it := item{kind: itemReminder}
	switch {
	case p.take("when", "i", "get", "to"), p.take("when", "i", "arrive", "at"), p.take("on", "arriving", "at"):
		it.edge = day.Arriving
	case p.take("when", "i", "leave"), p.take("on", "leaving"):
		it.edge = day.Leaving
	default:
		return it, false
	}
	var ok bool
	if it.name, ok = p.wholeName(p.names.Places); !ok && p.take("the") {
		it.name, ok = p.wholeName(p.names.Places)
	}
	if !ok {
		p.pos = from
	}
	return it, ok
}

// edgeOf returns the name behind words for an edge.
func edgeOf(words string) (name string, ok bool) {
	said := strings.ToLower(words)
	for _, lead := range []string{"when i get to ", "when i arrive at ", "when i leave ", "on arriving at ", "on leaving ", "arriving at ", "leaving "} {
		if len(said) == len(words) && strings.HasPrefix(said, lead) && strings.TrimSpace(words[len(lead):]) != "" {
			return strings.TrimSpace(words[len(lead):]), true
		}
	}
	return "", false
}

// wholeName reads the longest stretch of words that is a name, whatever its case.
func (p *parser) wholeName(names []string) (string, bool) {
	from := p.pos
	for p.pos = min(len(p.tokens), from+p.nameTokens()); p.pos > from; p.pos-- {
		if p.at(-1).kind != plainWord {
			continue
		}
		said := p.words(from)
		for _, name := range names {
			if strings.EqualFold(name, said) {
				return name, true
			}
		}
	}
	return "", false
}

// sayEdge says a reminder of a place as a clause; "" where no sentence says it.
func sayEdge(r day.Reminder, env Env) string {
	said := map[day.Edge]string{day.Arriving: "remind me when I get to ", day.Leaving: "remind me when I leave "}[r.Edge]
	if said == "" {
		return ""
	}
	read := Read("x, "+said+r.Place, env)
	if len(read.Reminders) != 1 || read.Reminders[0] != r || read.Title != "x" {
		return ""
	}
	return said + r.Place
}
