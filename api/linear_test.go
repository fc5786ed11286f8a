package api

import (
	"fmt"
	"math/rand/v2"
	"strconv"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/anishathalye/porcupine"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kindmargin/core/measure"
)

// asks is a request at one door: a read, or a change from a version with a key.
type asks struct {
	write bool
	from  int64
	key   string
	room  string
}

// answers is what it was answered.
type answers struct {
	status int
	at     int64
	room   string
}

// stands is the door as one hand alone would have it: its version, its room, and what each key was used for.
type stands struct {
	at   int64
	room string
	keys string // key=room, one after the other
}

// used is what a key was used for.
func (s stands) used(key string) (room string, ok bool) {
	_, rest, ok := strings.Cut(s.keys, " "+key+"=")
	room, _, _ = strings.Cut(rest, " ")
	return room, ok
}

// oneHand is what a door does where one request comes after the other: If-Match and Idempotency-Key as the contract
// has them (RFC 9110, 13.1.1; the draft of the IETF on idempotency keys, from memory).
var oneHand = porcupine.Model{
	Init: func() any { return stands{at: 0} },
	Step: func(state, input, output any) (bool, any) {
		s, in, out := state.(stands), input.(asks), output.(answers)
		now := out.at == s.at && out.room == s.room || s.at == 0
		if !in.write {
			if s.at == 0 { // the first that is seen
				return true, stands{at: out.at, room: out.room}
			}
			return now, s
		}
		if room, ok := s.used(in.key); ok {
			if room == in.room {
				return out.status == 200 && now, s
			}
			return out.status == 422, s
		}
		if in.from != s.at {
			return out.status == 412, s
		}
		return out.status == 200 && out.at > s.at &&
			out.room == in.room, stands{out.at, in.room, s.keys + " " + in.key + "=" + in.room + " "}
	},
	Equal: func(a, b any) bool { return a.(stands) == b.(stands) },
	DescribeOperation: func(in, out any) string {
		return fmt.Sprintf("%+v -> %+v", in, out)
	},
}

// Hands that change one door at once, from what they last saw, with keys that are sent again and keys that are used
// twice, get what they would if they had come one after the other in some order (linearizability; checked by
// anishathalye/porcupine).
func TestHandsAtOnceAreLikeOneAfterTheOther(t *testing.T) {
	s := run(t)
	path, v, _ := s.begin(measure.Millimetres)
	begun := time.Now()
	var mu sync.Mutex
	history := []porcupine.Operation{
		{ClientId: 100, Input: asks{}, Output: answers{200, v.Version, v.Opening.Room}, Call: 0, Return: 0},
	}
	ask := func(hand int, in asks) answers {
		call := time.Since(begun).Nanoseconds()
		var a answer
		if in.write {
			a = s.doWith(
				"PATCH", path, []Op{{Op: "add", Path: "/room", Value: in.room}}, "If-Match", etag(in.from),
				"Idempotency-Key", in.key,
			)
		} else {
			a = s.do("GET", path, "", nil)
		}
		out := answers{status: a.status}
		if a.status == 200 {
			v := got[OpeningView](t, a)
			out.at, out.room = v.Version, v.Opening.Room
		}
		mu.Lock()
		defer mu.Unlock()
		history = append(history, porcupine.Operation{
			ClientId: hand, Input: in, Output: out, Call: call, Return: time.Since(begun).Nanoseconds(),
		})
		return out
	}
	var wg sync.WaitGroup
	for hand := range 6 {
		wg.Go(func() {
			rng := rand.New(rand.NewPCG(uint64(hand), 7))
			seen, last := v.Version, asks{}
			for n := range 40 {
				var out answers
				switch key := "h" + strconv.Itoa(hand) + "." + strconv.Itoa(n); {
				case rng.IntN(4) == 0:
					out = ask(hand, asks{})
				case last.key != "" && rng.IntN(4) == 0: // the answer was lost: the same again
					out = ask(hand, last)
				case last.key != "" && rng.IntN(6) == 0: // another with its key
					again := last
					again.room = "r" + key
					out = ask(hand, again)
				case rng.IntN(3) == 0: // a key that all hands use
					last = asks{true, seen, "shared" + strconv.Itoa(n/4), "shared" + strconv.Itoa(n/4)}
					out = ask(hand, last)
				default:
					last = asks{true, seen, key, "r" + key}
					out = ask(hand, last)
				}
				if out.at > 0 {
					seen = out.at
				}
			}
		})
	}
	wg.Wait()
	statuses := map[int]int{}
	for _, o := range history {
		statuses[o.Output.(answers).status]++
	}
	require.Positive(t, statuses[200])
	require.Positive(t, statuses[412], "they came in each other's way")
	require.Positive(t, statuses[422])
	assert.Len(t, statuses, 3, "%v", statuses)
	assert.Equal(t, porcupine.Ok, porcupine.CheckOperationsTimeout(oneHand, history, time.Minute))
}
