package api

import (
	"context"
	"net/http"
	"slices"
	"strings"
	"sync"
	"unicode"
	"unicode/utf8"

	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/store"
)

// Speaking is a length sent by an instrument: docs/instruments.md.
type Speaking struct {
	Text string `json:"text" doc:"The length with its unit, as a person writes it: 826.5 mm, 30 5/8 in."`
	ID   string `json:"id,omitempty" doc:"A name of its own, in at most 80 letters: sent again, it is heard once."`
	From string `json:"from,omitempty" doc:"What the instrument is called, in at most 60 letters."`
	To   string `json:"to,omitempty" doc:"Name or ID of the client at whose entry it is read; the one that sends it, where none is named."`
}

// Heard is how many pages received a length.
type Heard struct {
	Pages int `json:"pages"`
}

// said remembers recent lengths by ID, so that one that is sent again is delivered once.
type said struct {
	sync.Mutex
	ids []string
}

// mostSaidIDs is how many IDs are remembered.
const mostSaidIDs = 200

// again reports whether an ID is known, and remembers it.
func (s *said) again(id string) bool {
	if id == "" {
		return false
	}
	s.Lock()
	defer s.Unlock()
	if slices.Contains(s.ids, id) {
		return true
	}
	s.ids = append(s.ids, id)
	s.ids = s.ids[max(0, len(s.ids)-mostSaidIDs):]
	return false
}

// speak publishes a length to the pages of a client.
func (s server) speak(ctx context.Context, in *struct{ raw }) (*body[Heard], error) {
	asked, err := read[Speaking](in.RawBody)
	if err != nil {
		return nil, problem(ctx, err)
	}
	if utf8.RuneCountInString(asked.ID) > 80 || utf8.RuneCountInString(asked.From) > 60 ||
		strings.ContainsFunc(asked.ID+asked.From, unicode.IsControl) {
		return nil, refusalOf(422, "api.instrument-name", nil)
	}
	if _, err := measure.Parse(asked.Text, measure.NoUnit); err != nil {
		return nil, problem(ctx, err)
	}
	to, err := s.clientNamed(ctx, asked.To)
	if err != nil {
		return nil, err
	}
	if s.said.again(asked.ID) {
		return &body[Heard]{}, nil
	}
	if asked.From == "" {
		asked.From = s.label(ctx, "api.an-instrument", nil)
	}
	if asked.ID == "" {
		asked.ID = store.NewID()
	}
	heard := s.hub.tell("length", Measured{asked.ID, strings.TrimSpace(asked.Text), asked.From}, func(e *subscriber) bool {
		return e.pass == to
	})
	if heard == 0 {
		s.said.forget(asked.ID)
		return nil, refusalOf(http.StatusConflict, "api.nobody-listens", nil)
	}
	return &body[Heard]{Body: Heard{heard}}, nil
}

// forget lets a length be sent again after nobody received it.
func (s *said) forget(id string) {
	s.Lock()
	defer s.Unlock()
	s.ids = slices.DeleteFunc(s.ids, func(x string) bool { return x == id })
}

// clientNamed is the pass of a client by its name or ID; empty for this machine.
func (s server) clientNamed(ctx context.Context, name string) (pass string, err error) {
	switch name {
	case "":
		return clientOf(ctx).id, nil
	case thisMachine:
		return "", nil
	}
	list, err := s.store.Passes(ctx)
	if err != nil {
		return "", problem(ctx, err)
	}
	for _, p := range list {
		if p.ID == name || strings.EqualFold(p.Name, name) {
			return p.ID, nil
		}
	}
	return "", refusalOf(422, "api.no-such-client", message.Args{"given": message.Quote(name)})
}
