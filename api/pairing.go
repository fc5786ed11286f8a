package api

import (
	"crypto/subtle"
	"net/netip"
	"sync"
	"time"
)

// codeLasts is how long a pairing code lets a client in.
const codeLasts = 10 * time.Minute

// codes is the pairing code: one at a time, for one client, for ten minutes.
type codes struct {
	sync.Mutex
	make  func() string       // a new one; nil where no other client is let in
	plain func(string) string // how one is compared
	now   func() time.Time
	code  string // empty where none holds
	until time.Time
}

// renew makes a new code, which puts the one before it out of use.
func (c *codes) renew() (code string, until time.Time) {
	c.Lock()
	defer c.Unlock()
	c.code, c.until = c.make(), c.now().Add(codeLasts)
	return c.code, c.until
}

// show is the code that holds; empty where none does.
func (c *codes) show() (code string, until time.Time) {
	c.Lock()
	defer c.Unlock()
	if !c.now().Before(c.until) {
		c.code = ""
	}
	return c.code, c.until
}

// is reports whether that is the code that holds.
func (c *codes) is(said string) bool {
	c.Lock()
	defer c.Unlock()
	return c.holds(said)
}

// holds is is, under the lock; it takes the same time whatever was said.
func (c *codes) holds(said string) bool {
	same := subtle.ConstantTimeCompare([]byte(c.plain(said)), []byte(c.plain(c.code))) == 1
	return same && c.code != "" && c.now().Before(c.until)
}

// spend uses the code up; it is false where that is not the one that holds, or no longer.
func (c *codes) spend(said string) bool {
	c.Lock()
	defer c.Unlock()
	held := c.holds(said)
	if held {
		c.code = ""
	}
	return held
}

// end puts the code out of use.
func (c *codes) end() {
	c.Lock()
	defer c.Unlock()
	c.code = ""
}

// network is what the tries of a code are counted by: an address, or the network of one in IPv6, of which any
// machine has as many addresses as it likes.
func network(host string) string {
	a, err := netip.ParseAddr(host)
	if err != nil {
		return host
	}
	a = a.Unmap().WithZone("")
	if a.Is4() {
		return a.String()
	}
	p, _ := a.Prefix(64)
	return p.String()
}
