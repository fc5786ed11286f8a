package api

import (
	"context"
	"encoding/json"
	"fmt"
	"net/http"
	"sync"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/danielgtaylor/huma/v2/adapters/humachi"

	"kindmargin/core/message"
)

// Changed is the event of a change, for every open page.
type Changed struct {
	Job       string `json:"job"`
	Opening   string `json:"opening" doc:"Empty where it is the job itself, or several openings."`
	Version   int64  `json:"version" doc:"That the opening stands at now; nought where it went off the walk, or is several."`
	Label     string `json:"label"`
	By        string `json:"by" doc:"Whose hand it was."`
	Client    string `json:"client" doc:"On which client; empty for the machine that Kind Margin runs on."`
	Machine   string `json:"machine" doc:"The name of that machine, for the other clients."`
	OnJob     string `json:"onJob" doc:"The name of the job."`
	OnOpening string `json:"onOpening" doc:"The name of the opening; empty where it is none."`
	From      string `json:"from" doc:"The page that made it, by a name of its own: it has it already."`
}

// Measured is the event of a length from an instrument.
type Measured struct {
	ID   string `json:"id"`
	Text string `json:"text" doc:"As it is typed, with its unit."`
	From string `json:"from" doc:"What the instrument is called."`
}

// hub publishes events to the pages. A subscriber whose buffer is full is dropped; it reconnects and fetches again.
type hub struct {
	sync.Mutex
	subscribers map[*subscriber]bool
}

// subscriber is one subscriber.
type subscriber struct {
	pass string // of its client; empty for this machine
	told chan []byte
}

// buffered is the size of a subscriber's buffer.
const buffered = 32

func newHub() *hub { return &hub{subscribers: map[*subscriber]bool{}} }

func (h *hub) listen(pass string) *subscriber {
	e := &subscriber{pass, make(chan []byte, buffered)}
	h.Lock()
	defer h.Unlock()
	h.subscribers[e] = true
	return e
}

func (h *hub) leave(e *subscriber) {
	h.Lock()
	defer h.Unlock()
	if h.subscribers[e] {
		delete(h.subscribers, e)
		close(e.told)
	}
}

// tell publishes to the subscribers that match, and returns how many there were.
func (h *hub) tell(kind string, what any, to func(*subscriber) bool) (heard int) {
	b, err := json.Marshal(what)
	if err != nil {
		panic(err) // a type of this file
	}
	line := fmt.Appendf(nil, "event: %s\ndata: %s\n\n", kind, b)
	h.Lock()
	defer h.Unlock()
	for e := range h.subscribers {
		if !to(e) {
			continue
		}
		select {
		case e.told <- line:
			heard++
		default:
			delete(h.subscribers, e)
			close(e.told)
		}
	}
	return heard
}

func everyone(*subscriber) bool { return true }

// tell publishes a change to every page.
func (s server) tell(ctx context.Context, c Changed) {
	from := clientOf(ctx)
	c.From = traceOf(ctx).page
	if c.Client = from.name; from.id == "" {
		c.Client, c.Machine = "", s.machine
	}
	if c.Job != "" { // without them a notice names no place
		c.OnJob, c.OnOpening, _ = s.store.Names(ctx, c.Job, c.Opening)
	}
	s.hub.tell("change", c, everyone)
}

// drop tells the subscribers of a client that its pass was ended, and removes them.
func (h *hub) drop(pass string) {
	h.Lock()
	defer h.Unlock()
	for e := range h.subscribers {
		if e.pass == pass {
			select {
			case e.told <- []byte("event: ended\ndata: {}\n\n"):
			default: // it hears so when it asks again
			}
			delete(h.subscribers, e)
			close(e.told)
		}
	}
}

// beat is the interval of keep-alives.
const beat = 15 * time.Second

// ListenIn is a subscription.
type ListenIn struct {
	conn *http.ResponseController
}

// Resolve keeps the connection, which stays open.
func (l *ListenIn) Resolve(c huma.Context) []error {
	_, w := humachi.Unwrap(c)
	l.conn = http.NewResponseController(w)
	return nil
}

// events streams events to a page (server-sent events, HTML standard, 9.2).
func (s server) events(ctx context.Context, in *ListenIn) (*huma.StreamResponse, error) {
	_ = in.conn.SetWriteDeadline(time.Time{}) // where it cannot be set there is none
	return &huma.StreamResponse{Body: func(c huma.Context) {
		e := s.hub.listen(clientOf(ctx).id)
		defer s.hub.leave(e)
		c.SetHeader("Content-Type", "text/event-stream")
		c.SetHeader("Cache-Control", "no-store")
		w := c.BodyWriter()
		say := func(b []byte) bool {
			_ = in.conn.SetWriteDeadline(time.Now().Add(beat))
			_, err := w.Write(b)
			return err == nil && in.conn.Flush() == nil
		}
		if !say(fmt.Appendf(nil, "retry: 1000\nevent: hello\ndata: {\"pages\": %q}\n\n", s.pages)) {
			return
		}
		tick := time.NewTicker(beat)
		defer tick.Stop()
		for {
			select {
			case b, ok := <-e.told:
				if !ok || !say(b) {
					return
				}
			case <-tick.C:
				if !say([]byte(": still here\n\n")) {
					return
				}
			case <-ctx.Done():
				return
			case <-s.closing:
				return
			}
		}
	}}, nil
}

// label is the description of a change, in the words of its job.
func (s server) label(ctx context.Context, id message.ID, args message.Args) string {
	return s.voice(ctx).Say(message.Message{ID: id, Args: args})
}
