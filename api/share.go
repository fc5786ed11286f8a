package api

import (
	"context"
	"crypto/subtle"
	"errors"
	"net"
	"net/http"
	"net/netip"
	"strings"
	"sync"
	"time"
	"unicode"
	"unicode/utf8"

	"github.com/danielgtaylor/huma/v2"
	"github.com/go-chi/httprate"

	"kindmargin/store"
)

// Share is how other devices are let in; the zero value lets none in.
type Share struct {
	Code        string              // what a device shows once to be let in
	URLs        []string            // where they find this machine
	QR          [][]bool            // the first of them with the code, for a camera
	Fingerprint string              // of a certificate of one's own; empty where there is none
	TLS         bool                // all goes encrypted
	Hosts       []string            // names and addresses that are this machine's own, beside the loopback ones
	Plain       func(string) string // how a code is compared
}

// on reports whether other devices are let in.
func (s Share) on() bool { return s.Code != "" }

// device is who sent a request.
type device struct {
	id   string // of its pass; empty for this machine
	name string
}

// thisMachine is what a request from this machine itself comes from.
const thisMachine = "this machine"

type deviceKey struct{}

// deviceOf is who sent a request.
func deviceOf(ctx context.Context) device {
	if d, ok := ctx.Value(deviceKey{}).(device); ok {
		return d
	}
	return device{name: thisMachine}
}

// cookie is what a device keeps its pass in. Under TLS its name binds it to this host (RFC
// 6265bis, the __Host- prefix; OWASP ASVS 4.0.3, 3.4.4; from memory).
func (s Share) cookie() string {
	if s.TLS {
		return "__Host-kindmargin"
	}
	return "kindmargin"
}

// passLasts is how long a device keeps its pass; browsers allow some 400 days.
const passLasts = 390 * 24 * time.Hour

// own reports whether a request comes from this machine and to 127.0.0.1 or [::1], which need
// no pass; every other address does, others of the loopback net too.
func own(r *http.Request) bool {
	to, ok := r.Context().Value(http.LocalAddrContextKey).(net.Addr)
	return ok && loopback(r.RemoteAddr) && loopback(to.String())
}

func loopback(addr string) bool {
	at, err := netip.ParseAddrPort(addr)
	if err != nil {
		return false
	}
	a := at.Addr().Unmap()
	return a == netip.AddrFrom4([4]byte{127, 0, 0, 1}) || a == netip.IPv6Loopback()
}

// admitted lets in this machine and devices with a pass; others see the pages, which ask for
// the code, and nothing of the job.
func (s server) admitted(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		if own(r) {
			next.ServeHTTP(w, r)
			return
		}
		if c, err := r.Cookie(s.share.cookie()); err == nil && s.share.on() {
			p, err := s.store.PassOf(r.Context(), c.Value)
			switch {
			case err == nil:
				s.seen.note(p, s.store.SeePass)
				next.ServeHTTP(w, r.WithContext(context.WithValue(r.Context(), deviceKey{}, device{p.ID, p.Name})))
				return
			case !errors.Is(err, store.ErrNotFound):
				traceOf(r.Context()).cause = err
				refuse(w, r, http.StatusInternalServerError, wentWrong)
				return
			}
		}
		open := !strings.HasPrefix(r.URL.Path, "/api/") && r.URL.Path != "/healthz" || r.URL.Path == "/api/pair" && r.Method == http.MethodPost
		if !open || !s.share.on() {
			refuse(w, r, http.StatusUnauthorized, "This device has no pass, or its pass was ended: pair it with the code that Kind Margin shows on the machine it runs on.")
			return
		}
		next.ServeHTTP(w, r)
	})
}

// sightings note when devices were here, on their own: no request waits for the data file to be written to.
type sightings struct {
	sync.Mutex
	underway map[string]bool
}

// patientSight is how long it is tried to note one.
const patientSight = 10 * time.Second

func (n *sightings) note(p store.Pass, see func(context.Context, string) error) {
	if !p.Unseen(time.Now()) {
		return
	}
	n.Lock()
	defer n.Unlock()
	if n.underway == nil {
		n.underway = map[string]bool{}
	}
	if n.underway[p.ID] {
		return
	}
	n.underway[p.ID] = true
	go func() {
		ctx, cancel := context.WithTimeout(context.Background(), patientSight)
		defer cancel()
		_ = see(ctx, p.ID) // it is let in all the same, and noted with the next
		n.Lock()
		defer n.Unlock()
		delete(n.underway, p.ID)
	}()
}

// peer is the address that a request came from, which no header can claim.
func peer(r *http.Request) (string, error) {
	host, _, err := net.SplitHostPort(r.RemoteAddr)
	return host, err
}

// tries limits how often a code is tried: ten times a minute from one address, thirty in all.
func tries(next http.Handler) http.Handler {
	tooMany := httprate.WithLimitHandler(func(w http.ResponseWriter, r *http.Request) {
		w.Header().Set("Retry-After", "60")
		refuse(w, r, http.StatusTooManyRequests, "Too many codes were tried: wait a minute, then try the one that is shown.")
	})
	limited := httprate.LimitBy(10, time.Minute, peer, tooMany)(httprate.LimitBy(30, time.Minute, httprate.Key("all"), tooMany)(next))
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		if r.URL.Path == "/api/pair" {
			limited.ServeHTTP(w, r)
			return
		}
		next.ServeHTTP(w, r)
	})
}

// ownNames refuses a request that calls this machine by a name that is not its own: a loopback
// name, or one of those at which it is shared; so that no name elsewhere can be turned to it.
func (s server) ownNames(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		host := r.Host
		if name, _, err := net.SplitHostPort(host); err == nil {
			host = name
		}
		host = strings.Trim(host, "[]")
		ip := net.ParseIP(host)
		known := strings.EqualFold(host, "localhost") || ip != nil && ip.IsLoopback()
		for _, h := range s.share.Hosts {
			known = known || strings.EqualFold(h, host)
		}
		if !known {
			refuse(w, r, http.StatusMisdirectedRequest, "Kind Margin answers only under its own addresses: open it at one that it printed when it started.")
			return
		}
		next.ServeHTTP(w, r)
	})
}

// Pairing is a device that asks to be let in.
type Pairing struct {
	Code string `json:"code"`
	Name string `json:"name" doc:"What the device is called, in at most 60 letters."`
}

// PassView is a device that is let in.
type PassView struct {
	ID   string `json:"id"`
	Name string `json:"name"`
	Made string `json:"made" doc:"RFC 3339."`
	Seen string `json:"seen" doc:"When it was last here, to the hour."`
	This bool   `json:"this" doc:"It is the device that asks."`
}

// SharingView is how other devices are let in.
type SharingView struct {
	On          bool       `json:"on"`
	URLs        []string   `json:"urls"`
	Code        string     `json:"code" doc:"The pairing code; told on this machine alone."`
	QR          []string   `json:"qr" doc:"Address and code for a camera, row by row, # where it is dark; told on this machine alone."`
	Fingerprint string     `json:"fingerprint" doc:"SHA-256 of a certificate of one's own; empty where there is none."`
	TLS         bool       `json:"tls"`
	Passes      []PassView `json:"passes"`
	Device      string     `json:"device" doc:"What the device that asks is called."`
	Here        bool       `json:"here" doc:"It is the machine that the program runs on."`
}

func (s server) sharing(ctx context.Context, _ *struct{}) (*body[SharingView], error) {
	passes, err := s.store.Passes(ctx)
	if err != nil {
		return nil, problem(ctx, err)
	}
	d := deviceOf(ctx)
	v := SharingView{
		On: s.share.on(), URLs: append([]string{}, s.share.URLs...), QR: []string{}, Fingerprint: s.share.Fingerprint, TLS: s.share.TLS,
		Passes: []PassView{}, Device: d.name, Here: d.id == "",
	}
	if v.Here {
		v.Code = s.share.Code
		for _, row := range s.share.QR {
			line := ""
			for _, dark := range row {
				line += map[bool]string{true: "#", false: " "}[dark]
			}
			v.QR = append(v.QR, line)
		}
	}
	for _, p := range passes {
		v.Passes = append(v.Passes, PassView{p.ID, p.Name, p.Made, p.Seen, p.ID == d.id})
	}
	return &body[SharingView]{Body: v}, nil
}

// Paired is a device that was let in, with its pass as a cookie.
type Paired struct {
	SetCookie http.Cookie `header:"Set-Cookie"`
	Body      PassView
}

func (s server) pair(ctx context.Context, in *struct{ raw }) (*Paired, error) {
	asked, err := read[Pairing](in.RawBody)
	if err != nil {
		return nil, problem(ctx, err)
	}
	name := strings.TrimSpace(asked.Name)
	switch n := utf8.RuneCountInString(name); {
	case !s.share.on():
		return nil, huma.NewError(http.StatusForbidden, "No other device is let in now: start Kind Margin with --share.")
	case subtle.ConstantTimeCompare([]byte(s.share.Plain(asked.Code)), []byte(s.share.Plain(s.share.Code))) != 1:
		return nil, huma.NewError(http.StatusForbidden, "That is not the code: type the one that Kind Margin shows on the machine it runs on.")
	case n == 0 || n > 60 || strings.ContainsFunc(name, unicode.IsControl):
		return nil, huma.Error422UnprocessableEntity("Say what this device is called, in 1 to 60 letters, such as Wren's phone.")
	}
	p, secret, err := s.store.AddPass(ctx, name)
	if errors.Is(err, store.ErrPasses) {
		return nil, huma.Error422UnprocessableEntity("50 devices are let in, as many as can be: end the pass of one first.")
	}
	if err != nil {
		return nil, problem(ctx, err)
	}
	return &Paired{http.Cookie{
		Name: s.share.cookie(), Value: secret, Path: "/", MaxAge: int(passLasts / time.Second),
		Secure: s.share.TLS, HttpOnly: true, SameSite: http.SameSiteStrictMode,
	}, PassView{p.ID, p.Name, p.Made, p.Seen, true}}, nil
}

func (s server) endPass(ctx context.Context, in *struct {
	Pass string `path:"pass"`
},
) (*struct{}, error) {
	if err := s.store.EndPass(ctx, in.Pass); err != nil {
		return nil, problem(ctx, err)
	}
	s.hub.drop(in.Pass)
	return nil, nil
}
