// Package simulate hangs slabs in random openings, planned by this program with one kit or another and by the schools
// that it competes with, and counts how many fit, the trips to the trestles, slabs cut too far, doors that were called
// done and were not, and minutes. No plan uses it.
//
// Half of the openings have sides that no prior of this program draws (package oracle). Hinges hang off their marks,
// readings are written down wrong and packers taken for the next by hands that slip as often as hands do, and everybody
// judges by what was read.
package simulate

import (
	"hash/fnv"
	"math/rand/v2"
	"runtime"
	"slices"
	"sync"

	"kindmargin/core/field"
	"kindmargin/core/measure"
	"kindmargin/core/message"
)

// Result compares the ways over the same openings.
type Result struct {
	Openings int     `json:"openings"`
	Ways     []Tally `json:"ways"`
}

// said is what was said of a slab in the end.
type said int

const (
	left      said = iota // as near as it gets
	calledFit             // that it fits
)

// hung is one slab by one way.
type hung struct {
	first    hungSlab // as it hung first
	slab     hungSlab // as it is left
	readings int
	gaps     int
	rounds   int // how often it was looked at
	trips    int // beside the first cut
	edges    int // planed once it hung
	spent    Spent
	called   said
	chance   float64 // that was said in the end of every margin being in; 0 where nothing was
	endless  bool
	worked   bool // something was done to it once it hung
	right    bool // which brings every margin in, done exactly
}

// way is a way of working; hands are the tools with their errors.
type way struct {
	id   string
	hang func(o opening, h hands, rng *rand.Rand) (hung, error)
}

// program is this program with a kit.
func program(id string, k func(h hands, rng *rand.Rand) kit) way {
	return way{id, func(o opening, h hands, rng *rand.Rand) (hung, error) { return ours(o, h, k(h, rng), rng) }}
}

// ways are this program with its kits, and the schools that it competes with.
func ways() []way {
	return []way{
		program("plain", func(h hands, _ *rand.Rand) kit { return kit{tools: h.plain(), tape: measure.HalfMillimetre} }),
		program("feelers", func(h hands, _ *rand.Rand) kit { return kit{tools: h.gauges(), tape: measure.HalfMillimetre} }),
		program("sticks", func(h hands, _ *rand.Rand) kit { return kit{tools: h.sticks(), tape: measure.HalfMillimetre} }),
		program("rods", func(h hands, rng *rand.Rand) kit {
			return kit{tools: h.proved(rng), tape: measure.Tenths, marking: "rod"}
		}),
		program("offered", func(h hands, _ *rand.Rand) kit {
			return kit{tools: h.plain(), tape: measure.HalfMillimetre, offered: true}
		}),
		{"longest", thumb(0)},
		{"leave-3", thumb(3)},
		{"scribe", scribe},
	}
}

// Run hangs slabs in so many random openings each way, six to a house: every other house is from half to one and a half
// times as crooked as the prior, the others have sides of explicit forms. All doors of a house are read with the same
// tools, in error as such tools are. It is deterministic in the seed, whichever ways are run; all are where no ID is
// given.
func Run(openings int, seed uint64, only ...string) (Result, error) {
	if openings < 1 {
		return Result{}, field.Fault("/openings", "refused.simulate-none", message.Args{
			"given": message.Number(openings),
		})
	}
	ways, unknown := waysOf(only)
	if unknown != "" {
		return Result{}, field.Fault("/only", "refused.simulate-way", message.Args{"given": message.Quote(unknown)})
	}
	return run(openings, seed, ways)
}

// run hangs slabs in so many random openings by some ways.
func run(openings int, seed uint64, ways []way) (Result, error) {
	houses := make([]house, (openings+doors-1)/doors)
	for i := range houses {
		houses[i] = newHouse(seed, i)
	}
	counts := make([][]outcome, len(ways))
	for w := range ways {
		counts[w] = make([]outcome, openings)
	}
	errs := make([]error, openings)
	next := make(chan int)
	var wg sync.WaitGroup
	for range runtime.GOMAXPROCS(0) {
		wg.Go(func() {
			for i := range next {
				in := houses[i/doors]
				o := in.draw(rand.New(rand.NewPCG(seed, uint64(i))))
				for w := range ways {
					own := fnv.New64a() // each way draws its own noise
					_, _ = own.Write([]byte(ways[w].id))
					got, err := ways[w].hang(o, in.hands, rand.New(rand.NewPCG(seed^own.Sum64(), uint64(i))))
					if err != nil {
						errs[i] = err
						break
					}
					counts[w][i] = o.outcome(got, in)
				}
			}
		})
	}
	for i := range openings {
		next <- i
	}
	close(next)
	wg.Wait()
	if i := slices.IndexFunc(errs, func(e error) bool { return e != nil }); i >= 0 {
		return Result{}, errs[i]
	}
	r := Result{Openings: openings}
	for w := range ways {
		r.Ways = append(r.Ways, tally(ways[w], counts[w]))
	}
	return r, nil
}
