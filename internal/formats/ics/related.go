package ics

import (
	"slices"
	"strings"

	"tincup/internal/core/exchange"
)

// related reads what a component stands under, and notes what says that it stands under this one,
// or what comes before it (RFC 5545 section 3.8.4.5, RFC 9253 section 5). It returns the UID of what
// it stands under; "" for none.
func (r *reader) related(c *component, uid string) (above string) {
	for i := range c.lines {
		l := &c.lines[i]
		if l.name != "RELATED-TO" {
			continue
		}
		other := unescape(l.value)
		switch strings.ToUpper(l.params["RELTYPE"]) {
		case "", "PARENT":
			if above == "" {
				above = other
			}
		case "CHILD":
			if r.below == nil {
				r.below = map[string]string{}
			}
			if _, twice := r.below[other]; !twice {
				r.below[other] = uid
			}
		case "DEPENDS-ON", "FINISHTOSTART":
			if r.after == nil {
				r.after = map[string][]string{}
			}
			r.after[uid] = append(r.after[uid], other)
		}
	}
	return above
}

// ordered puts each item behind what it stands under, and siblings in the order in which they
// depend on each other; what is above them is done one after another where each but the first
// depends on the one before it.
func (r *reader) ordered() []exchange.Item {
	for i := range r.items {
		if up := r.below[r.items[i].UID]; r.above[i] == "" && up != r.items[i].UID {
			r.above[i] = up
		}
	}
	if len(r.after) > 0 {
		r.depend()
	}
	return exchange.Ordered(r.items, r.above)
}

// depend orders siblings by what they depend on, and otherwise leaves them as they stand.
func (r *reader) depend() {
	at := map[string]int{}
	siblings := map[string][]int{}
	for i := range r.items {
		at[r.items[i].UID] = i
		siblings[r.above[i]] = append(siblings[r.above[i]], i)
	}
	order := make([]int, 0, len(r.items))
	for i := range r.items {
		all := siblings[r.above[i]]
		if all[0] != i {
			continue // they were put in order with the first of them
		}
		placed := map[int]bool{}
		var place func(i, depth int)
		place = func(i, depth int) {
			if placed[i] || depth > len(all) {
				return
			}
			placed[i] = true // before what it depends on: a circle ends here
			for _, uid := range r.after[r.items[i].UID] {
				if before, there := at[uid]; there && r.above[before] == r.above[i] {
					place(before, depth+1)
				}
			}
			order = append(order, i)
		}
		from := len(order)
		for _, sibling := range all {
			place(sibling, 0)
		}
		if up, there := at[r.above[i]]; there && r.chained(order[from:]) {
			r.items[up].Todo.InOrder = true
		}
	}
	items, above := make([]exchange.Item, len(order)), make([]string, len(order))
	for n, i := range order {
		items[n], above[n] = r.items[i], r.above[i]
	}
	r.items, r.above = items, above
}

// chained reports whether each of some siblings but the first depends on the one before it.
func (r *reader) chained(siblings []int) bool {
	for n := 1; n < len(siblings); n++ {
		if !slices.Contains(r.after[r.items[siblings[n]].UID], r.items[siblings[n-1]].UID) {
			return false
		}
	}
	return len(siblings) > 1
}
