// Package api is the HTTP API of the program: it decodes requests, calls core, and encodes answers. Its contract is the
// OpenAPI 3.1 document that it serves.
package api

import (
	"context"
	"crypto/rand"
	"fmt"
	"log/slog"
	"net/http"
	"os"
	"runtime/debug"
	"strings"
	"sync"
	"time"

	"github.com/danielgtaylor/huma/v2/adapters/humachi"
	"github.com/go-chi/chi/v5"
	"github.com/go-chi/chi/v5/middleware"
	"golang.org/x/sync/semaphore"

	"kindmargin/core/message"
	"kindmargin/store"
)

type server struct {
	store    *store.Store
	plans    *planCache
	imports  *background[Import]
	exports  *background[Export]
	making   *semaphore.Weighted // one export is made at a time, for the memory's sake
	seen     *sightings
	codes    *codes
	underway *underway
	logs     *slog.Logger
	share    Share
	hub      *hub
	said     *said
	pages    string
	closing  chan struct{}
	machine  string // the name of this machine, for other clients
}

// Program is the HTTP handler of the whole program.
type Program struct {
	http.Handler
	close func()
	codes *codes
}

// NewCode makes a new pairing code, for the terminal where the program was started.
func (p Program) NewCode() string {
	code, _ := p.codes.renew()
	return code
}

// Close ends the pages' streams, and removes made files.
func (p Program) Close() { p.close() }

// Pages are the front end, with the name of its build.
type Pages struct {
	http.Handler
	Build string
}

// New returns the handler of the whole program: the API under /api, and the front end, which may have no handler. It
// answers only to the host names of this machine, against DNS rebinding, and to other clients only where it is shared
// and they have a pass.
func New(st *store.Store, pages Pages, log *slog.Logger, share Share) Program {
	s := server{
		store: st, plans: newPlanCache(log), imports: newImports(), exports: newExports(),
		making: semaphore.NewWeighted(1), seen: &sightings{}, codes: &codes{
			make: share.Codes, plain: share.Plain, now: time.Now,
		}, underway: newUnderway(), logs: log, share: share, hub: newHub(), said: &said{}, pages: pages.Build,
		closing: make(chan struct{}),
	}
	if s.machine, _ = os.Hostname(); s.machine == "" {
		s.machine = thisMachine
	}
	r := chi.NewRouter()
	foreign := http.NewCrossOriginProtection()
	foreign.SetDenyHandler(http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		refuse(w, r, http.StatusForbidden, "api.foreign-change", nil)
	}))
	r.Use(logged(log), renamed, s.guarded, s.ownNames, foreign.Handler, ownPages, tries, s.admitted)
	operations(humachi.New(r, config(s)), s)
	r.Get("/healthz", func(w http.ResponseWriter, r *http.Request) {
		if err := st.Ready(r.Context()); err != nil {
			traceOf(r.Context()).cause = err
			refuse(w, r, http.StatusServiceUnavailable, "api.no-answer", nil)
			return
		}
		w.Header().Set("Content-Type", "text/plain; charset=utf-8")
		_, _ = fmt.Fprintln(w, "ok")
	})
	r.NotFound(func(w http.ResponseWriter, req *http.Request) {
		if pages.Handler != nil && !strings.HasPrefix(req.URL.Path, "/api/") {
			if req.Method != http.MethodGet && req.Method != http.MethodHead {
				w.Header().Set("Allow", "GET, HEAD")
				refuse(w, req, http.StatusMethodNotAllowed, "api.page-method", message.Args{
					"method": message.Quote(req.Method),
				})
				return
			}
			pages.ServeHTTP(w, req)
			return
		}
		refuse(w, req, http.StatusNotFound, "api.no-address", nil)
	})
	r.MethodNotAllowed(func(w http.ResponseWriter, req *http.Request) {
		refuse(w, req, http.StatusMethodNotAllowed, "api.address-method", message.Args{
			"method": message.Quote(req.Method),
		})
	})
	return Program{r, sync.OnceFunc(func() {
		close(s.closing)
		s.exports.close()
	}), s.codes}
}

// trace follows one request: its ID, and its internal error, which goes to the log and never to the client.
type trace struct {
	id       string
	page     string // that asks, by a name of its own
	from     string // the address that asks
	language string // that the client reads: its Accept-Language
	cause    error
}

type traceKey struct{}

func traceOf(ctx context.Context) *trace {
	if t, ok := ctx.Value(traceKey{}).(*trace); ok {
		return t
	}
	return &trace{}
}

// logged logs each request, and recovers panics.
func logged(log *slog.Logger) func(http.Handler) http.Handler {
	return func(next http.Handler) http.Handler {
		return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
			t := &trace{
				id: strings.ToLower(rand.Text()[:8]), page: r.Header.Get("X-Page"), from: r.RemoteAddr,
				language: r.Header.Get("Accept-Language"),
			}
			r = r.WithContext(context.WithValue(r.Context(), traceKey{}, t))
			ww, start := middleware.NewWrapResponseWriter(w, r.ProtoMajor), time.Now()
			ww.Header().Set("X-Request-Id", t.id)
			defer func() {
				if p := recover(); p != nil && p != http.ErrAbortHandler {
					t.cause = fmt.Errorf("panic: %v\n%s", p, debug.Stack())
					refuse(ww, r, http.StatusInternalServerError, wentWrong, nil)
				}
				level := slog.LevelDebug
				if ww.Status() >= 500 {
					level = slog.LevelError
				}
				args := []any{
					"request", t.id, "method", r.Method, "path", r.URL.Path,
					"status", ww.Status(), "bytes", ww.BytesWritten(), "took", time.Since(start),
				}
				if t.cause != nil {
					args = append(args, "cause", t.cause.Error())
				}
				log.Log(r.Context(), level, "request", args...)
			}()
			next.ServeHTTP(ww, r)
		})
	}
}

// guarded sets headers that keep browsers to what the program itself ships.
func (s server) guarded(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		h := w.Header()
		h.Set(
			"Content-Security-Policy",
			"default-src 'self'; img-src 'self' data:; object-src 'none'; base-uri 'none'; form-action 'self'; "+
				"frame-ancestors 'none'",
		)
		h.Set("Referrer-Policy", "no-referrer")
		h.Set("X-Content-Type-Options", "nosniff")
		h.Set("Cross-Origin-Opener-Policy", "same-origin")
		h.Set("Cross-Origin-Resource-Policy", "same-origin")
		h.Set("Permissions-Policy", "geolocation=(), microphone=(), camera=(), usb=(), serial=(), payment=()")
		if strings.HasPrefix(r.URL.Path, "/api/") && h.Get("Cache-Control") == "" {
			h.Set("Cache-Control", "no-cache") // it may be kept, and is asked for again
		}
		if s.share.TLS {
			h.Set("Strict-Transport-Security", "max-age=31536000")
		}
		next.ServeHTTP(w, r)
	})
}

// ownPages admits requests to the API from the program's own pages, and those typed or followed here, but none from
// other sites, reads included (Fetch Metadata, W3C, Sec-Fetch-Site).
func ownPages(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		switch r.Header.Get("Sec-Fetch-Site") {
		case "", "none", "same-origin": // one that is no browser says nothing
		default:
			if strings.HasPrefix(r.URL.Path, "/api") {
				refuse(w, r, http.StatusForbidden, "api.foreign-read", nil)
				return
			}
		}
		next.ServeHTTP(w, r)
	})
}

// refuse answers outside the operations, in their form.
func refuse(w http.ResponseWriter, r *http.Request, status int, id message.ID, args message.Args) {
	write(w, r, refusalOf(status, id, args).in(requestVoice(r.Header.Get("Accept-Language"))))
}
