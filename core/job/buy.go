package job

import (
	"cmp"
	"fmt"
	"slices"

	"kindmargin/core/fit"
	"kindmargin/core/frame"
	"kindmargin/core/measure"
	"kindmargin/core/trade"
)

// StockFit is a stock size held against an opening.
type StockFit struct {
	trade.Stock
	Fits   bool
	Best   bool   // the one to buy
	Why    string // why it falls out; empty where it fits
	Laying fit.Laying
	Off    frame.Each[measure.Length] // most that comes off each edge
	Weight float64                    // kg
}

// Buy holds every stock size of the job's unit against an opening, as a slab
// of the opening's construction and limits. Those that fit come first, the one
// that loses least of them all foremost; then the others, nearest first. It is
// empty while the opening has no answer.
// For a pair, leaf is 1 or 2; for a single door 0.
func Buy(j Job, o Opening, leaf int) []StockFit {
	if leaf == 2 {
		o.Slab = o.Pair.Slab
	}
	s := solver{job: j, o: o, unit: j.Unit, tape: j.Tape, leaf: leaf}
	s.survey()
	s.outline()
	if !s.ok || !s.answers() {
		return nil
	}
	say := func(mm float64) string {
		return measure.Say(measure.FromMM(mm).Round(j.Tape.Step(), measure.Nearest), j.Unit)
	}
	type ranked struct {
		StockFit
		lost, lack float64
	}
	var list []ranked
	for _, stock := range trade.Stocks {
		inches := stock.Width%measure.Inch == 0 && stock.Length%measure.Inch == 0
		if inches != (j.Unit == measure.Inches) {
			continue
		}
		cand := o.Slab
		cand.Width, cand.Length, cand.Thickness = stock.Width, stock.Length, stock.Thickness
		cand.WidthMid, cand.WidthFoot, cand.LengthLock, cand.Square = 0, 0, 0, 0
		ways := fit.Weigh(s.drawn, cand, fit.Layings())
		best, _ := fit.Choose(ways, cand)
		w := ways[best]
		r := ranked{StockFit: StockFit{Stock: stock, Fits: true, Laying: w.Laying, Weight: cand.Weight()}}
		var narrow, short float64
		for _, x := range w.Short {
			if x.Side.Upright() {
				narrow += x.By
			} else {
				short += x.By
			}
		}
		for _, side := range frame.Sides {
			r.Off[side] = safe(w.Deepest[side], j.Tape)
			r.lost += max(w.Deepest[side], 0)
			if w.Over[side] > 0 && r.Why == "" {
				r.Why = fmt.Sprintf("the %s would lose %s, %s more than may come off", edgeOf(side), say(w.Deepest[side]), s.fine(measure.FromMM(w.Over[side])))
			}
			r.lack += w.Over[side]
		}
		switch {
		case narrow > 0:
			r.Why = "too narrow by " + say(narrow)
		case short > 0:
			r.Why = "too short by " + say(short)
		}
		r.lack += 3 * (narrow + short) // wood that is not there is worse than wood that may not go
		r.Fits = r.Why == ""
		list = append(list, r)
	}
	slices.SortStableFunc(list, func(a, b ranked) int {
		if a.Fits != b.Fits {
			if a.Fits {
				return -1
			}
			return 1
		}
		if a.Fits {
			return cmp.Compare(a.lost, b.lost)
		}
		return cmp.Compare(a.lack, b.lack)
	})
	out := make([]StockFit, len(list))
	for i, r := range list {
		out[i] = r.StockFit
	}
	if len(out) > 0 {
		out[0].Best = out[0].Fits
	}
	return out
}
