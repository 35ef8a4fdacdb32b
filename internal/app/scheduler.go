package app

import (
	"context"
	"sync/atomic"
	"time"
)

// source is one of the things that time brings.
type source struct {
	name string
	// next is when it has something to do; the zero time is never. It is asked often.
	next func() time.Time
	// run does what is due by now. After an error it is run again in a while.
	run func(context.Context) error
	// setBack, if set, is called when the clock was set back, before next.
	setBack func()
	// long: it may take long, and nothing waits for it.
	long bool
	busy atomic.Bool
	// rest is until when it is not run again, by the machine's own clock.
	rest atomic.Int64
}

// restAfter is how long a source rests that failed, or that has something to do again at once.
const restAfter = 2 * time.Second

// schedule runs every source when its moment has come, until ctx ends: the one timer of the
// program. The clock's Wait returns early after a jump or a sleep, and all is looked at anew.
func (a *App) schedule(ctx context.Context, sources []*source) {
	last := a.clock.Now()
	for ctx.Err() == nil {
		waiting, wake := context.WithCancel(ctx)
		a.wake.Store(&wake) // before the moments are asked for: one that comes nearer meanwhile ends the wait
		now := a.clock.Now()
		var soonest time.Time
		for _, s := range sources {
			if now.Before(last) && s.setBack != nil {
				s.setBack()
			}
			if at := s.next(); !at.IsZero() && !at.After(now) {
				a.start(ctx, s)
			}
			if at := s.next(); !at.IsZero() && (soonest.IsZero() || at.Before(soonest)) {
				soonest = at
			}
		}
		last = now
		if soonest.IsZero() || !soonest.After(now) { // a source rests, or works still
			soonest = now.Add(restAfter)
		}
		_ = a.clock.Wait(waiting, soonest) // its only error is the context's, which is looked at above
		wake()
	}
}

// start runs a source that is due, unless it rests or runs already.
func (a *App) start(ctx context.Context, s *source) {
	if time.Now().UnixMilli() < s.rest.Load() || !s.busy.CompareAndSwap(false, true) {
		return
	}
	work := func() {
		defer s.busy.Store(false)
		if err := s.run(ctx); err != nil {
			a.log.Warn("what was due is tried again", "what", s.name, "error", err)
			s.rest.Store(time.Now().Add(restAfter).UnixMilli())
		}
	}
	if s.long {
		a.done.Go(func() { work(); a.look() })
		return
	}
	work()
}

// look lets the scheduler look at all that is due now.
func (a *App) look() {
	if wake := a.wake.Load(); wake != nil {
		(*wake)()
	}
}
