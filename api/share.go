package api

import (
	"context"
	"errors"
	"net"
	"net/http"
	"net/netip"
	"strings"
	"sync"
	"time"
	"unicode"
	"unicode/utf8"

	"github.com/go-chi/httprate"

	"kindmargin/store"
)

// Share is the configuration of sharing; the zero value lets no other client in.
type Share struct {
	Codes       func() string              // a new pairing code, which a client shows once to be let in
	Plain       func(string) string        // how a code is compared
	URLs        []string                   // where they find this machine
	QR          func(code string) [][]bool // the first of them with the code, for a camera
	Fingerprint string                     // of a certificate of one's own; empty where there is none
	TLS         bool                       // all goes encrypted
	Hosts       []string                   // names and addresses that are this machine's own, beside the loopback ones
}

// on reports whether sharing is on.
func (s Share) on() bool { return s.Codes != nil }

// joining is where a client sends a pairing code.
const joining = "/api/sharing/clients"

// client is the sender of a request.
type client struct {
	id     string // of its pass; empty for this machine
	name   string
	raised bool
}

// runs reports whether the client runs the house: this machine, and a client that was raised here.
func (d client) runs() bool { return d.id == "" || d.raised }

// thisMachine is the client of requests from this machine itself.
const thisMachine = "this machine" // kept so in the history, and asked for so by instruments

type clientKey struct{}

// clientOf is the client of a request.
func clientOf(ctx context.Context) client {
	if d, ok := ctx.Value(clientKey{}).(client); ok {
		return d
	}
	return client{name: thisMachine}
}

// cookie is the name of a pass's cookie. Under TLS it binds it to this host (RFC 6265bis, the __Host- prefix; OWASP
// ASVS 4.0.3, 3.4.4; from memory).
func (s Share) cookie() string {
	if s.TLS {
		return "__Host-kindmargin"
	}
	return "kindmargin"
}

// passLasts is the cookie's lifetime; browsers allow some 400 days.
const passLasts = 390 * 24 * time.Hour

// own reports whether a request comes from this machine to 127.0.0.1 or [::1], which needs no pass; every other address
// does, other loopback addresses included.
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

// admitted admits this machine and clients with a pass; others get the pages, which ask for the code, and no data.
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
				ctx, done, ok := s.underway.begin(
					context.WithValue(r.Context(), clientKey{}, client{p.ID, p.Name, p.Runs}), p.ID,
				)
				if !ok {
					break // it was ended just now
				}
				defer done()
				s.seen.note(p, s.store.SeePass)
				r = r.WithContext(ctx)
				r.Body = reads{r.Body, ctx}
				next.ServeHTTP(w, r)
				return
			case !errors.Is(err, store.ErrNotFound):
				traceOf(r.Context()).cause = err
				refuse(w, r, http.StatusInternalServerError, wentWrong, nil)
				return
			}
		}
		open := !strings.HasPrefix(r.URL.Path, "/api/") && r.URL.Path != "/healthz" || r.URL.Path == joining &&
			r.Method == http.MethodPost
		if !open || !s.share.on() {
			w.Header().Set("Clear-Site-Data", `"cache"`) // what was kept of the house goes with the pass
			refuse(w, r, http.StatusUnauthorized, "api.no-pass", nil)
			return
		}
		next.ServeHTTP(w, r)
	})
}

// sightings record when clients were here, in the background: no request waits for that write.
type sightings struct {
	sync.Mutex
	underway map[string]bool
}

// patientSight is the time limit of recording one.
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

// peer is the network address of a request's connection, which no header can forge.
func peer(r *http.Request) (string, error) {
	host, _, err := net.SplitHostPort(r.RemoteAddr)
	return network(host), err
}

// tries limits the tries of a code: ten a minute from one network. There is no limit for all together, which could keep
// others out: a code of 36 bits with a lifetime of ten minutes is not found by trying.
func tries(next http.Handler) http.Handler {
	tooMany := httprate.WithLimitHandler(func(w http.ResponseWriter, r *http.Request) {
		w.Header().Set("Retry-After", "60")
		refuse(w, r, http.StatusTooManyRequests, "api.too-many-codes", nil)
	})
	limited := httprate.LimitBy(10, time.Minute, peer, tooMany)(next)
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		if r.URL.Path == joining {
			limited.ServeHTTP(w, r)
			return
		}
		next.ServeHTTP(w, r)
	})
}

// ownNames rejects requests with a Host that is not this machine's: a loopback name, or an address at which it is
// shared; against DNS rebinding.
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
			refuse(w, r, http.StatusMisdirectedRequest, "api.other-host", nil)
			return
		}
		next.ServeHTTP(w, r)
	})
}

// Pairing is a pairing code with the client's name.
type Pairing struct {
	Code string `json:"code"`
	Name string `json:"name" doc:"What the client is called, in at most 60 letters."`
}

// PassView is a client with a pass.
type PassView struct {
	ID   string `json:"id"`
	Name string `json:"name"`
	Made string `json:"made" doc:"RFC 3339."`
	Seen string `json:"seen" doc:"When it was last here, to the hour."`
	This bool   `json:"this" doc:"It is the client that asks."`
	Runs bool   `json:"runs" doc:"It runs the house: backup, restore, passes, taking off jobs. Else it reads and enters."`
}

func passView(p store.Pass, this bool) PassView {
	return PassView{ID: p.ID, Name: p.Name, Made: p.Made, Seen: p.Seen, This: this, Runs: p.Runs}
}

// SharingView is the state of sharing.
type SharingView struct {
	On          bool       `json:"on"`
	URLs        []string   `json:"urls"`
	Code        string     `json:"code" doc:"The pairing code, while one holds; told on this machine alone."`
	Until       string     `json:"until" doc:"Until when it holds, RFC 3339."`
	QR          []string   `json:"qr" doc:"Address and code for a camera, row by row, # where it is dark; told on this machine alone."`
	Fingerprint string     `json:"fingerprint" doc:"SHA-256 of a certificate of one's own; empty where there is none."`
	TLS         bool       `json:"tls"`
	Passes      []PassView `json:"passes"`
	Client      string     `json:"client" doc:"What the client that asks is called."`
	Here        bool       `json:"here" doc:"It is the machine that the program runs on."`
	Runs        bool       `json:"runs" doc:"The client that asks runs the house."`
}

func (s server) sharing(ctx context.Context, _ *struct{}) (*body[SharingView], error) {
	passes, err := s.store.Passes(ctx)
	if err != nil {
		return nil, problem(ctx, err)
	}
	d := clientOf(ctx)
	v := SharingView{
		On: s.share.on(), URLs: append([]string{}, s.share.URLs...), QR: []string{}, Fingerprint: s.share.Fingerprint,
		TLS:    s.share.TLS,
		Passes: []PassView{}, Client: d.name, Here: d.id == "", Runs: d.runs(),
	}
	if v.Here && v.On {
		var until time.Time
		if v.Code, until = s.codes.show(); v.Code != "" {
			v.Until = until.UTC().Format(time.RFC3339)
			v.QR = squares(s.share.QR(v.Code))
		}
	}
	for _, p := range passes {
		v.Passes = append(v.Passes, passView(p, p.ID == d.id))
	}
	return &body[SharingView]{Body: v}, nil
}

// squares is a QR code, row by row.
func squares(rows [][]bool) (lines []string) {
	for _, row := range rows {
		line := ""
		for _, dark := range row {
			line += map[bool]string{true: "#", false: " "}[dark]
		}
		lines = append(lines, line)
	}
	return lines
}

// newCode makes a new pairing code: at this machine only.
func (s server) newCode(ctx context.Context, _ *struct{}) (*body[SharingView], error) {
	switch {
	case clientOf(ctx).id != "":
		return nil, refusalOf(http.StatusForbidden, "api.code-here-only", nil)
	case !s.share.on():
		return nil, refusalOf(http.StatusForbidden, "api.not-shared", nil)
	}
	s.codes.renew()
	return s.sharing(ctx, nil)
}

// Paired is a client that was let in, with its pass as a cookie.
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
		return nil, refusalOf(http.StatusForbidden, "api.not-shared", nil)
	case !s.codes.is(asked.Code):
		s.logs.Warn("a pairing code was refused", "address", traceOf(ctx).from, "name", name)
		return nil, errNoCode
	case n == 0 || n > 60 || strings.ContainsFunc(name, unicode.IsControl):
		return nil, refusalOf(422, "api.client-name", nil)
	}
	if !s.codes.spend(asked.Code) { // another client was quicker
		return nil, errNoCode
	}
	p, secret, err := s.store.AddPass(ctx, name)
	if errors.Is(err, store.ErrPasses) {
		return nil, refusalOf(422, "api.clients-full", nil)
	}
	if err != nil {
		return nil, problem(ctx, err)
	}
	s.logs.Info("a client was let in", "client", name, "pass", p.ID, "address", traceOf(ctx).from)
	s.hub.tell("client", LetIn{p.ID, name}, everyone)
	return &Paired{http.Cookie{
		Name: s.share.cookie(), Value: secret, Path: "/", MaxAge: int(passLasts / time.Second),
		Secure: s.share.TLS, HttpOnly: true, SameSite: http.SameSiteStrictMode,
	}, passView(p, true)}, nil
}

var errNoCode = refusalOf(http.StatusForbidden, "api.wrong-code", nil)

// LetIn is the event of a client that was let in.
type LetIn struct {
	Pass string `json:"pass"`
	Name string `json:"name"`
}

// PassPath is a pass in an address.
type PassPath struct {
	Pass string `path:"client"`
}

// endPass ends a pass, with its running requests and tasks and the pairing code. A client that does not run the house
// may end only its own.
func (s server) endPass(ctx context.Context, in *PassPath) (*struct{}, error) {
	if d := clientOf(ctx); !d.runs() && d.id != in.Pass {
		return nil, errNotRun
	}
	if err := s.store.EndPass(ctx, in.Pass); err != nil {
		return nil, problem(ctx, err)
	}
	s.codes.end()
	s.hub.drop(in.Pass)
	s.underway.end(ctx, in.Pass)
	s.imports.endPass(in.Pass) // after it: what begins later is stopped where it begins
	s.exports.endPass(in.Pass)
	s.logs.Info("a pass was ended", "pass", in.Pass, "by", clientOf(ctx).name)
	return nil, nil
}

// Raising is whether a client runs the house.
type Raising struct {
	Runs bool `json:"runs"`
}

// raisePass lets a client run the house, or no longer: at this machine only.
func (s server) raisePass(ctx context.Context, in *struct {
	PassPath
	raw
},
) (*struct{}, error) {
	if clientOf(ctx).id != "" {
		return nil, refusalOf(http.StatusForbidden, "api.raise-here-only", nil)
	}
	asked, err := read[Raising](in.RawBody)
	if err != nil {
		return nil, problem(ctx, err)
	}
	if err := s.store.RaisePass(ctx, in.Pass, asked.Runs); err != nil {
		return nil, problem(ctx, err)
	}
	s.logs.Info("a client was raised", "pass", in.Pass, "runs", asked.Runs)
	return nil, nil
}

var errNotRun = refusalOf(http.StatusForbidden, "api.not-raised", nil)
