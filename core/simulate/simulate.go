// Package simulate hangs slabs in random openings, planned by this program with one kit or another and by the schools
// that it competes with, and counts how many fit at the first hang, the trips to the trestles, slabs cut too far, and
// minutes. No plan uses it.
package simulate

import (
	"hash/fnv"
	"math/rand/v2"
	"runtime"
	"slices"
	"sync"

	"kindmargin/core/field"
	"kindmargin/core/job"
	"kindmargin/core/message"
	"kindmargin/core/survey"
)

// Tally is the result of one way of working.
type Tally struct {
	ID string `json:"id"`
	// share at the first hang: every margin at least the least, and within 1 mm of the best straight edge's
	Fits        float64 `json:"fits"`
	Finished    float64 `json:"finished"` // the same share once nothing more is done
	TripsMean   float64 `json:"tripsMean"`
	TripsMedian float64 `json:"tripsMedian"`
	Trips95     float64 `json:"trips95"`
	TripsWorst  float64 `json:"tripsWorst"`
	CutTooSmall float64 `json:"cutTooSmall"` // share that was too small already as it was cut
	TooSmall    float64 `json:"tooSmall"`    // share that is too small by over 1 mm somewhere in the end
	// of the whole opening: readings and placings, trips at 12 minutes, the work once it hangs, and an hour for a slab
	// bought again
	MinutesMean  float64 `json:"minutesMean"`
	ReadingsMean float64 `json:"readingsMean"`
	// mm, at the first hang: greatest less least margin along lock edge or head
	UnevenMedian float64 `json:"unevenMedian"`
	Uneven95     float64 `json:"uneven95"`
	EndMedian    float64 `json:"endMedian"` // the same of the finished slab
	End95        float64 `json:"end95"`
	// Off95 and OffWorst are the distance of a finished slab's straight edges from the best, in mm: 95th percentile and
	// maximum.
	Off95    float64 `json:"off95"`
	OffWorst float64 `json:"offWorst"`
}

// Result compares the ways over the same openings.
type Result struct {
	Openings int     `json:"openings"`
	Ways     []Tally `json:"ways"`
}

// hung is one slab by one way.
type hung struct {
	first    hungSlab // as it hung first
	slab     hungSlab // as it is left
	readings int
	minutes  float64 // but for those of trips
	trips    int     // beside the first cut
}

// tried is a school's slab from its first hang on.
func (h hung) tried(o opening, rng *rand.Rand) hung {
	h.first = h.slab
	o.shave(&h, rng)
	return h
}

// way is a way of working; hands are the tools with their errors.
type way struct {
	id   string
	hang func(o opening, h hands, rng *rand.Rand) (hung, error)
}

// Run hangs slabs in so many random openings each way, in houses from half to one and a half times as crooked as the
// prior, with typical tool errors. It is deterministic in the seed, whichever ways are run; all are where no ID is
// given.
func Run(openings int, seed uint64, only ...string) (Result, error) {
	if openings < 1 {
		return Result{}, field.Fault("/openings", "refused.simulate-none", message.Args{
			"given": message.Number(openings),
		})
	}
	ways := ways()
	for _, id := range only {
		if !slices.ContainsFunc(ways, func(w way) bool { return w.id == id }) {
			return Result{}, field.Fault("/only", "refused.simulate-way", message.Args{"given": message.Quote(id)})
		}
	}
	ways = slices.DeleteFunc(ways, func(w way) bool { return len(only) > 0 && !slices.Contains(only, w.id) })
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
				rng := rand.New(rand.NewPCG(seed, uint64(i)))
				crooked := 0.5 + rng.Float64()
				o := newDrawer(crookeder(crooked)).draw(rng)
				h := newHands(rng)
				for w := range ways {
					own := fnv.New64a() // each way draws its own noise
					_, _ = own.Write([]byte(ways[w].id))
					got, err := ways[w].hang(o, h, rand.New(rand.NewPCG(seed^own.Sum64(), uint64(i))))
					if err != nil {
						errs[i] = err
						break
					}
					counts[w][i] = o.outcome(got)
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

// crookeder is the prior of old openings, so many times as crooked, by version 1 of the rules, one bend a side:
// published figures were found in those. Package oracle has other forms.
func crookeder(by float64) survey.Prior {
	p := survey.OldOpening(width, height).Version1()
	p.Lean, p.Slope, p.JambBow, p.HeadBow = p.Lean*by, p.Slope*by, p.JambBow*by, p.HeadBow*by
	return p
}

// boughtAgain is the cost of a slab that is too small, in minutes: another is fetched, and its work begins again.
// Assumed.
const boughtAgain = 60

// outcome is the outcome of one slab.
type outcome struct {
	fits, finished, small    bool
	cutSmall                 bool
	trips, minutes, readings float64
	uneven, end, off         float64
}

func (o opening) outcome(h hung) outcome {
	out := outcome{
		fits: o.fits(h.first), finished: o.fits(h.slab), small: len(o.small(h.slab)) > 0,
		cutSmall: len(o.small(h.first)) > 0,
		uneven:   o.uneven(h.first), end: o.uneven(h.slab), off: o.off(h.slab),
		trips: float64(h.trips), readings: float64(h.readings), minutes: h.minutes + job.UsualTrip*float64(h.trips),
	}
	if out.small {
		out.minutes += boughtAgain
	}
	return out
}

func tally(w way, list []outcome) Tally {
	n := float64(len(list))
	t := Tally{ID: w.id}
	var trips, uneven, end, off []float64
	for _, o := range list {
		if o.fits {
			t.Fits += 1 / n
		}
		if o.cutSmall {
			t.CutTooSmall += 1 / n
		}
		if o.small {
			t.TooSmall += 1 / n
		}
		if o.finished {
			t.Finished += 1 / n
		}
		t.TripsMean += o.trips / n
		t.MinutesMean += o.minutes / n
		t.ReadingsMean += o.readings / n
		trips, uneven = append(trips, o.trips), append(uneven, o.uneven)
		end, off = append(end, o.end), append(off, o.off)
	}
	for _, list := range [][]float64{trips, uneven, end, off} {
		slices.Sort(list)
	}
	k := len(list)
	t.TripsMedian, t.Trips95, t.TripsWorst = trips[k/2], trips[k*95/100], trips[k-1]
	t.UnevenMedian, t.Uneven95 = uneven[k/2], uneven[k*95/100]
	t.EndMedian, t.End95 = end[k/2], end[k*95/100]
	t.Off95, t.OffWorst = off[k*95/100], off[k-1]
	return t
}
