package slabs

import (
	"cmp"
	"slices"

	"kindmargin/core/figure"
	"kindmargin/core/fit"
	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/site"
	"kindmargin/core/slab"
	"kindmargin/core/trade"
)

// StockFit is a stock size checked against an opening.
type StockFit struct {
	trade.Stock
	Fits   bool
	Best   bool         // the one to buy
	Why    site.Finding // why it falls out; without a code where it fits
	Laying fit.Laying
	Off    frame.Each[measure.Length] // most that comes off each edge
	Weight float64                    // kg
	Closed int                        // ends of a hollow slab that are closed again with an insert

	lost, lack float64 // mm: wood that comes off; wood that is not there or may not go
}

// hardly is a depth past a limit, in mm, that a saw does not resolve.
const hardly = 0.25

// hold checks one stock size against an outline, as a slab like another.
func hold(stock trade.Stock, like slab.Slab, o fit.Outline, tape measure.Tape) StockFit {
	like.Width, like.Length, like.Thickness = stock.Width, stock.Length, stock.Thickness
	like.WidthMid, like.WidthFoot, like.LengthLock, like.Square = 0, 0, 0, 0
	ways := fit.Judge(o, like, fit.Layings())
	best, _ := fit.Choose(ways, like)
	w := ways[best]
	f := StockFit{Stock: stock, Laying: w.Laying, Weight: like.Weight()}
	why := func(code site.Code, args message.Args) {
		f.Why = site.Finding{Gravity: site.Note, Step: job.StepSlab, Code: code, Args: args}
	}
	for _, side := range frame.Sides {
		f.Off[side] = figure.Safe(w.Deepest[side], tape)
		f.lost += max(w.Deepest[side], 0)
		over := w.Over[side]
		if side.Upright() { // nobody buys a slab to rip a stile off it
			over = max(over, w.Deepest[side]-like.Plain(side).MM()-hardly)
		}
		f.lack += over
		if over > 0 && f.Why.Code == "" {
			why(site.StockOver, message.Args{
				"edge": message.Edge(side), "off": measure.FromMM(w.Deepest[side]),
				"more": message.Fine(measure.FromMM(over)),
			})
		}
	}
	f.Closed = len(w.Inserts(like))
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
		why(site.StockNarrow, message.Args{"by": measure.FromMM(narrow)})
	case short > 0:
		why(site.StockShort, message.Args{"by": measure.FromMM(short)})
	}
	f.lack += 3 * (narrow + short) // wood that is not there is worse than wood that may not go
	f.Fits = f.Why.Code == ""
	return f
}

// Stocks checks every stock size of the job's unit against an outline, as a slab like another. Those that fit come
// first, those that stay closed before the others, by what they lose; then the others, nearest first.
func Stocks(d site.Opening, like slab.Slab, o fit.Outline) (list []StockFit) {
	for _, stock := range trade.Stocks {
		inches := stock.Width%measure.Inch == 0 && stock.Length%measure.Inch == 0
		if inches == (d.Unit == measure.Inches) {
			list = append(list, hold(stock, like, o, d.Tape))
		}
	}
	slices.SortStableFunc(list, func(a, b StockFit) int {
		switch {
		case a.Fits && b.Fits:
			return cmp.Or(cmp.Compare(a.Closed, b.Closed), cmp.Compare(a.lost, b.lost))
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
