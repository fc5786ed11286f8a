package api

import (
	"crypto/subtle"
	"net/netip"
	"sync"
	"time"
)

// codeLasts is the lifetime of a pairing code.
const codeLasts = 10 * time.Minute

// codes holds the pairing code: one at a time, for one client, for ten minutes.
type codes struct {
	sync.Mutex
	make  func() string       // a new one; nil where no other client is let in
	plain func(string) string // how one is compared
	now   func() time.Time
	code  string // empty where none holds
	until time.Time
}

// renew makes a new code; the one before is void.
func (c *codes) renew() (code string, until time.Time) {
	c.Lock()
	defer c.Unlock()
	c.code, c.until = c.make(), c.now().Add(codeLasts)
	return c.code, c.until
}

// show returns the valid code; empty where there is none.
func (c *codes) show() (code string, until time.Time) {
	c.Lock()
	defer c.Unlock()
	if !c.now().Before(c.until) {
		c.code = ""
	}
	return c.code, c.until
}

// is reports whether a text is the valid code.
func (c *codes) is(said string) bool {
	c.Lock()
	defer c.Unlock()
	return c.holds(said)
}

// holds is is with the mutex held, in constant time.
func (c *codes) holds(said string) bool {
	same := subtle.ConstantTimeCompare([]byte(c.plain(said)), []byte(c.plain(c.code))) == 1
	return same && c.code != "" && c.now().Before(c.until)
}

// spend uses the code up; it is false for a wrong or void one.
func (c *codes) spend(said string) bool {
	c.Lock()
	defer c.Unlock()
	held := c.holds(said)
	if held {
		c.code = ""
	}
	return held
}

// end voids the code.
func (c *codes) end() {
	c.Lock()
	defer c.Unlock()
	c.code = ""
}

// network is the rate limit's key of a code's tries: the address, or for IPv6 its network, since a machine there has
// any number of addresses.
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
