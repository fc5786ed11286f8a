package api

import (
	"context"
	"io"
	"sync"
	"time"
)

// underway are the running requests of other clients, by pass, so that they end with it.
type underway struct {
	sync.Mutex
	asks  map[string]map[*asking]bool
	ended map[string]bool // passes that were ended: what was let in a moment before is not begun after
}

// asking is one of them.
type asking struct {
	stop context.CancelFunc
	done chan struct{}
}

type askingKey struct{}

func newUnderway() *underway {
	return &underway{asks: map[string]map[*asking]bool{}, ended: map[string]bool{}}
}

// begin registers one: its context ends with the pass. ok is false where that was ended.
func (u *underway) begin(ctx context.Context, pass string) (on context.Context, done func(), ok bool) {
	u.Lock()
	defer u.Unlock()
	if u.ended[pass] {
		return ctx, nil, false
	}
	on, stop := context.WithCancel(ctx)
	a := &asking{stop, make(chan struct{})}
	if u.asks[pass] == nil {
		u.asks[pass] = map[*asking]bool{}
	}
	u.asks[pass][a] = true
	return context.WithValue(on, askingKey{}, a), func() {
		stop()
		u.Lock()
		defer u.Unlock()
		delete(u.asks[pass], a)
		if len(u.asks[pass]) == 0 {
			delete(u.asks, pass)
		}
		close(a.done)
	}, true
}

// over reports whether a pass was ended.
func (u *underway) over(pass string) bool {
	u.Lock()
	defer u.Unlock()
	return u.ended[pass]
}

// patientEnd is how long ending a pass waits for its running requests. A slower one has lost its context, without which
// nothing is stored.
const patientEnd = 5 * time.Second

// end cancels all requests of a pass but the caller's, and waits for them.
func (u *underway) end(ctx context.Context, pass string) {
	own, _ := ctx.Value(askingKey{}).(*asking)
	u.Lock()
	u.ended[pass] = true
	var list []*asking
	for a := range u.asks[pass] {
		if a != own {
			a.stop()
			list = append(list, a)
		}
	}
	u.Unlock()
	late := time.NewTimer(patientEnd)
	defer late.Stop()
	for _, a := range list {
		select {
		case <-a.done:
		case <-late.C:
			return
		}
	}
}

// reads is a body that cannot be read once a context has ended.
type reads struct {
	io.ReadCloser
	ctx context.Context
}

func (r reads) Read(b []byte) (int, error) {
	if err := r.ctx.Err(); err != nil {
		return 0, err
	}
	return r.ReadCloser.Read(b)
}
