package plan

import (
	"cmp"
	"slices"

	"kindmargin/core/fit"
	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/slab"
	"kindmargin/core/trade"
)

// StockFit is a stock size held against an opening.
type StockFit struct {
	trade.Stock
	Fits   bool
	Best   bool    // the one to buy
	Why    Finding // why it falls out; without a code where it fits
	Laying fit.Laying
	Off    frame.Each[measure.Length] // most that comes off each edge
	Weight float64                    // kg

	lost, lack float64 // mm: wood that comes off; wood that is not there or may not go
}

// Buy holds every stock size of the job's unit against a leaf (0, or 1 for the
// other leaf of a pair), as a slab of that leaf's construction and limits. Those
// that fit come first, the one that loses least of them all foremost; then the
// others, nearest first. It is empty while the opening has no answer, and panics
// for a leaf that is not there.
func Buy(j job.Job, o job.Opening, leaf int) (list []StockFit) {
	d := newDoor(j, o)
	read, _ := readShape(d)
	if !read.answers() {
		return nil
	}
	_, want, _ := margins(d, read)
	bays := baysOf(d)
	drawn, _ := outlines(d, read, bays, want)
	if drawn == nil {
		return nil
	}
	for _, stock := range trade.Stocks {
		inches := stock.Width%measure.Inch == 0 && stock.Length%measure.Inch == 0
		if inches == (j.Unit == measure.Inches) {
			list = append(list, hold(stock, bays[leaf].slab, drawn[leaf], j.Tape))
		}
	}
	slices.SortStableFunc(list, func(a, b StockFit) int {
		switch {
		case a.Fits && b.Fits:
			return cmp.Compare(a.lost, b.lost)
		case a.Fits:
			return -1
		case b.Fits:
			return 1
		}
		return cmp.Compare(a.lack, b.lack)
	})
	if len(list) > 0 {
		list[0].Best = list[0].Fits
	}
	return list
}

// hold holds one stock size against an outline, as a slab like another.
func hold(stock trade.Stock, like slab.Slab, o fit.Outline, tape measure.Tape) StockFit {
	like.Width, like.Length, like.Thickness = stock.Width, stock.Length, stock.Thickness
	like.WidthMid, like.WidthFoot, like.LengthLock, like.Square = 0, 0, 0, 0
	ways := fit.Judge(o, like, fit.Layings())
	best, _ := fit.Choose(ways, like)
	w := ways[best]
	f := StockFit{Stock: stock, Laying: w.Laying, Weight: like.Weight()}
	why := func(code Code, args Args) { f.Why = Finding{Note, job.StepSlab, "", code, args} }
	for _, side := range frame.Sides {
		f.Off[side] = safe(w.Deepest[side], tape)
		f.lost += max(w.Deepest[side], 0)
		f.lack += w.Over[side]
		if w.Over[side] > 0 && f.Why.Code == "" {
			why(StockOver, Args{"edge": message.Edge(side), "off": measure.FromMM(w.Deepest[side]), "more": message.Fine(measure.FromMM(w.Over[side]))})
		}
	}
	var narrow, short float64
	for _, x := range w.Short {
		if x.Side.Upright() {
			narrow += x.By
		} else {
			short += x.By
		}
	}
	switch {
	case narrow > 0:
		why(StockNarrow, Args{"by": measure.FromMM(narrow)})
	case short > 0:
		why(StockShort, Args{"by": measure.FromMM(short)})
	}
	f.lack += 3 * (narrow + short) // wood that is not there is worse than wood that may not go
	f.Fits = f.Why.Code == ""
	return f
}
