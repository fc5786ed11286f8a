package simulate

import (
	"math"
	"slices"

	"kindmargin/core/job"
)

// Tally is the result of one way of working.
type Tally struct {
	ID string `json:"id"`
	// share at the first hang: it passes and latches, nothing rubs, every margin is at least the least, and each is
	// within 1 mm of the best straight edge's
	Fits        float64 `json:"fits"`
	Finished    float64 `json:"finished"` // the same share once nothing more is done
	TripsMean   float64 `json:"tripsMean"`
	TripsMedian float64 `json:"tripsMedian"`
	Trips95     float64 `json:"trips95"`
	TripsWorst  float64 `json:"tripsWorst"`
	CutTooSmall float64 `json:"cutTooSmall"` // share that was too small already as it was cut
	TooSmall    float64 `json:"tooSmall"`    // share that is too small by over 1 mm somewhere in the end
	// of the whole opening: readings and placings, trips at 12 minutes, the work once it hangs, an hour for a door that
	// was called done and was not, and an hour for a slab bought again
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

	MinutesError   float64 `json:"minutesError"`   // standard error of MinutesMean
	ReadingsMedian float64 `json:"readingsMedian"` // of the opening
	Readings95     float64 `json:"readings95"`
	GapsMean       float64 `json:"gapsMean"`   // read of the hung slab, all hangs together
	RoundsMean     float64 `json:"roundsMean"` // how often it was looked at
	Rounds95       float64 `json:"rounds95"`
	OneTrip        float64 `json:"oneTrip"`      // share with one trip at most and three rounds
	FirstWay       float64 `json:"firstWay"`     // share of first ways that bring every margin in, done exactly
	FirstCrooked   float64 `json:"firstCrooked"` // the same in crooked houses
	GoesIn         float64 `json:"goesIn"`       // share that goes in at all at the first hang
	Called         float64 `json:"called"`       // share that was said to fit
	CalledFalse    float64 `json:"calledFalse"`  // of those, the share that does not
	Endless        float64 `json:"endless"`      // share that was given up after twelve rounds
	EdgesMean      float64 `json:"edgesMean"`    // planed once it hung
	// Outside is the same of the openings that no prior of the program draws, Chances how true the chances were that were
	// said in the end of every margin being in.
	Outside Outside  `json:"outside"`
	Chances []Chance `json:"chances"`
	Spent   Spent    `json:"spent"` // minutes, mean
}

// Spent is where the minutes of a door went.
type Spent struct {
	Reading  float64 `json:"reading"`
	Gaps     float64 `json:"gaps"`
	Hinges   float64 `json:"hinges"`
	Planing  float64 `json:"planing"`
	Trips    float64 `json:"trips"`
	CallBack float64 `json:"callBack"`
	Again    float64 `json:"again"` // a slab bought again
}

// add adds another, times by.
func (s *Spent) add(o Spent, by float64) {
	s.Reading += by * o.Reading
	s.Gaps += by * o.Gaps
	s.Hinges += by * o.Hinges
	s.Planing += by * o.Planing
	s.Trips += by * o.Trips
	s.CallBack += by * o.CallBack
	s.Again += by * o.Again
}

func (s Spent) sum() float64 {
	return s.Reading + s.Gaps + s.Hinges + s.Planing + s.Trips + s.CallBack + s.Again
}

// Outside is what came of the openings of explicit forms.
type Outside struct {
	Finished    float64 `json:"finished"`
	FirstWay    float64 `json:"firstWay"`
	CalledFalse float64 `json:"calledFalse"`
	TooSmall    float64 `json:"tooSmall"`
}

// Chance compares what was said of some doors with what came true of them.
type Chance struct {
	Said  float64 `json:"said"` // mean
	True  float64 `json:"true"` // share
	Doors int     `json:"doors"`
}

// Costs, in minutes, of a slab that is too small: another is fetched, and its work begins again; and of a door that was
// called done and was not: somebody comes back. Assumed.
const (
	boughtAgain = 60
	callBack    = 60
)

// outcome is the outcome of one slab.
type outcome struct {
	hung
	fits, finished, small bool
	cutSmall, goesIn      bool
	crooked, outside      bool // its house is crooked; of explicit forms
	uneven, end, off      float64
}

func (o opening) outcome(h hung, in house) outcome {
	out := outcome{
		hung: h, fits: o.fits(h.first), finished: o.fits(h.slab), small: len(o.small(h.slab)) > 0,
		cutSmall: len(o.small(h.first)) > 0, goesIn: o.goesIn(h.first), crooked: in.crooked, outside: in.form != nil,
		uneven: o.uneven(h.first), end: o.uneven(h.slab), off: o.off(h.slab),
	}
	out.spent.Trips = job.UsualTrip * float64(h.trips)
	if out.small {
		out.spent.Again = boughtAgain
	} else if h.called == calledFit && !out.finished {
		out.spent.CallBack = callBack
	}
	return out
}

func tally(w way, list []outcome) Tally {
	n := float64(len(list))
	share := func(of func(o outcome) bool) (count float64) {
		for _, o := range list {
			if of(o) {
				count++
			}
		}
		return count
	}
	mean := func(of func(o outcome) float64) (m float64) {
		for _, o := range list {
			m += of(o) / n
		}
		return m
	}
	at := func(f float64, of func(o outcome) float64) float64 {
		all := make([]float64, len(list))
		for i, o := range list {
			all[i] = of(o)
		}
		slices.Sort(all)
		return all[min(int(f*float64(len(all))), len(all)-1)]
	}
	trips := func(o outcome) float64 { return float64(o.trips) }
	minutes := func(o outcome) float64 { return o.spent.sum() }
	readings := func(o outcome) float64 { return float64(o.readings) }
	rounds := func(o outcome) float64 { return float64(o.rounds) }
	uneven := func(o outcome) float64 { return o.uneven }
	end := func(o outcome) float64 { return o.end }
	off := func(o outcome) float64 { return o.off }
	called := share(func(o outcome) bool { return o.called == calledFit })
	worked := share(func(o outcome) bool { return o.worked })
	bent := share(func(o outcome) bool { return o.worked && o.crooked })
	t := Tally{
		ID:          w.id,
		Fits:        share(func(o outcome) bool { return o.fits }) / n,
		Finished:    share(func(o outcome) bool { return o.finished }) / n,
		TripsMean:   mean(trips),
		TripsMedian: at(0.5, trips), Trips95: at(0.95, trips), TripsWorst: at(1, trips),
		CutTooSmall:  share(func(o outcome) bool { return o.cutSmall }) / n,
		TooSmall:     share(func(o outcome) bool { return o.small }) / n,
		MinutesMean:  mean(minutes),
		ReadingsMean: mean(readings),
		UnevenMedian: at(0.5, uneven), Uneven95: at(0.95, uneven), EndMedian: at(0.5, end), End95: at(0.95, end),
		Off95: at(0.95, off), OffWorst: at(1, off),
		ReadingsMedian: at(0.5, readings), Readings95: at(0.95, readings),
		GapsMean:   mean(func(o outcome) float64 { return float64(o.gaps) }),
		RoundsMean: mean(rounds), Rounds95: at(0.95, rounds),
		OneTrip:      share(func(o outcome) bool { return o.trips <= 1 && o.rounds <= 3 }) / n,
		FirstWay:     share(func(o outcome) bool { return o.right }) / max(worked, 1),
		FirstCrooked: share(func(o outcome) bool { return o.right && o.crooked }) / max(bent, 1),
		GoesIn:       share(func(o outcome) bool { return o.goesIn }) / n,
		Called:       called / n,
		CalledFalse:  share(func(o outcome) bool { return o.called == calledFit && !o.finished }) / max(called, 1),
		Endless:      share(func(o outcome) bool { return o.endless }) / n,
		EdgesMean:    mean(func(o outcome) float64 { return float64(o.edges) }),
	}
	t.Outside, t.Chances = outsideOf(list), chances(list)
	t.MinutesError = math.Sqrt(mean(func(o outcome) float64 { return math.Pow(minutes(o)-t.MinutesMean, 2) }) / n)
	for _, o := range list {
		t.Spent.add(o.spent, 1/n)
	}
	return t
}

// outsideOf is what came of the openings of explicit forms.
func outsideOf(list []outcome) (x Outside) {
	var n, worked, called float64
	for _, o := range list {
		if !o.outside {
			continue
		}
		n++
		x.Finished += count(o.finished)
		x.TooSmall += count(o.small)
		worked += count(o.worked)
		x.FirstWay += count(o.right)
		called += count(o.called == calledFit)
		x.CalledFalse += count(o.called == calledFit && !o.finished)
	}
	return Outside{
		x.Finished / max(n, 1), x.FirstWay / max(worked, 1), x.CalledFalse / max(called, 1), x.TooSmall / max(n, 1),
	}
}

// chances compares what was said with what came true, by tenths of what was said.
func chances(list []outcome) (by []Chance) {
	var tenths [10]Chance
	for _, o := range list {
		if o.chance > 0 {
			x := &tenths[min(int(10*o.chance), 9)]
			x.Said, x.True, x.Doors = x.Said+o.chance, x.True+count(o.finished), x.Doors+1
		}
	}
	for _, x := range tenths {
		if n := float64(x.Doors); n > 0 {
			by = append(by, Chance{x.Said / n, x.True / n, x.Doors})
		}
	}
	return by
}

func count(is bool) float64 {
	if is {
		return 1
	}
	return 0
}
