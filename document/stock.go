package document

import (
	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/plan"
)

// StockFit is a stock size checked against an opening.
type StockFit struct {
	Market    string   `json:"market"`
	Width     Length   `json:"width"`
	Length    Length   `json:"length"`
	Thickness Length   `json:"thickness"`
	Fits      bool     `json:"fits"`
	Best      bool     `json:"best"`
	Why       string   `json:"why" doc:"Why it falls out."`
	Off       []Length `json:"off" doc:"Most off head, hinge edge, lock edge and foot."`
	Weight    string   `json:"weight" doc:"About, in the unit that goes with the job's lengths."`
}

// Stock checks the stock sizes against a leaf of an opening, 0 or 1.
func Stock(j job.Job, o job.Opening, leaf int) []StockFit {
	p := newPrinter(j)
	out := []StockFit{}
	for _, f := range plan.Buy(j, o, leaf) {
		v := StockFit{
			Market: p.voice.Text(f.Market), Width: p.exact(f.Width), Length: p.exact(f.Stock.Length),
			Thickness: p.exact(f.Thickness), Fits: f.Fits, Best: f.Best,
			Why: p.voice.Say(f.Why.Message()), Off: nil, Weight: p.weight(f.Weight),
		}
		for _, side := range frame.Sides {
			v.Off = append(v.Off, p.length(f.Off[side]))
		}
		out = append(out, v)
	}
	return out
}
