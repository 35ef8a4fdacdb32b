package httpapi

import (
	"encoding/binary"
	"encoding/json"
	"hash/maphash"
	"net/http"
	"slices"
	"strconv"
	"sync"

	"github.com/gin-gonic/gin"

	"tincup/internal/core/book"
)

// patches remembers the latest answers to views by who asked what, so that a
// client that has one is told only which rows stayed as they were. Of each row
// no more is kept than its id and a hash.
type patches struct {
	mu    sync.Mutex
	seed  maphash.Seed
	asked map[string][]answered // the newest last
	order []string              // of asked, the longest unused first
}

// answered is one answer that a client may have.
type answered struct {
	mark string
	rows []rowMark
}

type rowMark struct {
	id   book.ID
	hash uint64
}

// What is remembered: of so many questions the latest few answers each.
const (
	maxAsked    = 200
	maxAnswered = 4
)

func newPatches() *patches {
	return &patches{seed: maphash.MakeSeed(), asked: map[string][]answered{}}
}

// view answers with a view, or what has changed of it since the client was told.
func (s *server) view(c *gin.Context, v *viewBody) {
	s.patches.leaveOut(s.as(c).Account(), c, v)
	text, err := v.bytes()
	if err != nil {
		s.fail(c, err)
		return
	}
	c.Data(http.StatusOK, "application/json; charset=utf-8", text)
}

// leaveOut leaves out of a view the rows that the client has, and remembers what
// it was told.
func (p *patches) leaveOut(account book.ID, c *gin.Context, v *viewBody) {
	query := c.Request.URL.Query()
	have := query.Get("have")
	query.Del("have")
	var now answered
	var whole maphash.Hash
	whole.SetSeed(p.seed)
	for _, g := range v.Groups {
		for i, r := range g.Rows {
			m := rowMark{g.ids[i], maphash.Bytes(p.seed, r)}
			now.rows = append(now.rows, m)
			whole.Write(binary.LittleEndian.AppendUint64(nil, m.hash)) // never fails
		}
	}
	now.mark = strconv.FormatUint(whole.Sum64(), 36)
	v.Mark = &now.mark
	if had, known := p.remember(account.String()+" "+c.Request.URL.Path+"?"+query.Encode(), now, have); known {
		v.Builds = &have
		v.leaveOut(now, had)
	}
}

// remember keeps an answer, and finds the one with a mark.
func (p *patches) remember(key string, now answered, mark string) (had answered, known bool) {
	p.mu.Lock()
	defer p.mu.Unlock()
	list := p.asked[key]
	for _, a := range list {
		if a.mark == mark {
			had, known = a, true
		}
	}
	list = slices.DeleteFunc(list, func(a answered) bool { return a.mark == now.mark })
	if list = append(list, now); len(list) > maxAnswered {
		list = slices.Clone(list[1:])
	}
	if i := slices.Index(p.order, key); i >= 0 {
		p.order = slices.Delete(p.order, i, i+1)
	}
	p.order = append(p.order, key)
	p.asked[key] = list
	if len(p.order) > maxAsked {
		delete(p.asked, p.order[0])
		p.order = p.order[1:]
	}
	return had, known
}

// leaveOut puts runs in place of the rows that are as they were.
func (v *viewBody) leaveOut(now, had answered) {
	was := make(map[rowMark]int, len(had.rows))
	for i, m := range had.rows {
		was[m] = i
	}
	at := 0
	for i := range v.Groups {
		g := &v.Groups[i]
		kept := []int{}
		fresh := []json.RawMessage{}
		for _, r := range g.Rows {
			from, stays := was[now.rows[at]]
			at++
			n := len(kept)
			switch {
			case !stays && n > 0 && kept[n-2] < 0:
				kept[n-1]++
			case !stays:
				kept = append(kept, -1, 1)
			case n > 0 && kept[n-2] >= 0 && kept[n-2]+kept[n-1] == from:
				kept[n-1]++
			default:
				kept = append(kept, from, 1)
			}
			if !stays {
				fresh = append(fresh, r)
			}
		}
		g.Kept, g.Rows = &kept, fresh
	}
}
