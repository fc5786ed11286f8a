// Package survey turns readings of an opening, taken by any school, into one estimate of its shape with its
// uncertainty.
//
// Each side of the opening is a Gaussian process, which before any reading is known only as roughly straight and
// roughly plumb or level:
//
// side(s) = nominal + offset + lean·s + bow(s) + ripple(s)
//
// cov(s,s') = σ_offset² + σ_lean²·s·s' + σ_bow²·exp(−½((s−s')/ℓ)²) + σ_ripple²·exp(−½((s−s')/λ)²)
//
// The bow is a side's one long bend, the ripple its S, its bump at a knot or a hinge, its settled corner: the shape
// between three readings.
//
// Each reading is a linear row over the sides, y = A z + ε, ε ~ N(0, R). The estimate is the conditional of the joint
// normal:
//
// S = A K Aᵀ + R; z̄ = μ + K Aᵀ S⁻¹ (y − Aμ); P = K − K Aᵀ S⁻¹ A K
//
// (Rasmussen and Williams, Gaussian Processes for Machine Learning, 2006, eqs. 2.22–2.24, from memory.) All numbers in
// this package are float64 millimetres in the elevation frame of package frame.
package survey

import (
	"kindmargin/core/frame"
)

// Prior is the prior of an opening: standard deviations in millimetres, leans in millimetres per millimetre.
type Prior struct {
	Width, Height     float64 // nominal size
	FloorRise         float64 // nominal, toward the lock jamb
	Offset            float64 // of each side from its nominal place
	Lean              float64 // of a jamb from plumb
	Slope             float64 // of head and floor from level
	JambBow, HeadBow  float64 // HeadBow is for head and floor
	JambRun, FloorRun float64 // ℓ: the length over which a side bends
	HeadRun           float64
	// Ripple is the deviation of jambs, head and floor over a shorter length, JambWave and FlatWave. 0 by version 1 of
	// the rules, for which a side had one bend.
	JambRipple, HeadRipple, FloorRipple float64
	JambWave, FlatWave                  float64
	// Tape is the distance between two marks of the tape: readings are rounded to it, which adds Tape²/12 to their
	// variance (a uniform error; JCGM 100:2008, 4.3.7). 0 where readings are not rounded.
	Tape float64
	// Kit is the tools that the readings are taken with.
	Kit Kit
	// Hangs are the slab as it hung, each time that it did, and Strays the errors of its
	// cuts and of its hanging.
	Hangs  []Hang
	Strays []Stray

	// OwnEdges says that a slab that is offered up is the one that is cut, by marks from its own edges: an error of its
	// sizes is the same in both, and cancels.
	OwnEdges bool

	first bool // of version 1 of the rules
}

// OldOpening is an opening in a house that has settled. Common practice.
func OldOpening(width, height float64) Prior {
	return Prior{
		Width: width, Height: height, Offset: 50,
		Lean: 0.004, Slope: 0.004, JambBow: 1.5, HeadBow: 0.8,
		JambRun: 700, FloorRun: 400, HeadRun: 400,
		JambRipple: 1.25, HeadRipple: 1.9, FloorRipple: 0.6, JambWave: 300, FlatWave: 200,
	}
}

// Version1 is the prior by version 1 of the rules: without a ripple, and with a smaller bias of a tape's hook. What was
// cut by it keeps its figures.
func (p Prior) Version1() Prior {
	p.JambRipple, p.HeadRipple, p.FloorRipple = 0, 0, 0
	p.first = true
	return p
}

// hook1 is the bias of an unproved tape by version 1, in mm.
const hook1 = 0.5

// NewFrame is a frame set with care: a quarter of OldOpening's crookedness. Common practice.
func NewFrame(width, height float64) Prior {
	p := OldOpening(width, height)
	const quarter = 0.25
	return p.crookeder(crookedness{
		lean: quarter, bow: quarter, ripple: quarter, slope: quarter, flatBow: quarter, flatRipple: quarter,
	})
}

// MadeFrame is a frame whose boards were cut to a size, set on packers with care: its size is known before it is read,
// and head and brace keep its jambs parallel. Assumed.
func MadeFrame(width, height float64) Prior {
	p := NewFrame(width, height).crookeder(crookedness{
		lean: 0.4, bow: 0.7, ripple: 0.7, slope: 0.4, flatBow: 0.7, flatRipple: 0.7,
	})
	p.Offset = 1
	return p
}

// noise is the variance of a reading, in mm²: its own and that of its rounding to the tape. Where ± was typed for a
// reading, that is all of it.
func (p *Prior) noise(r Reading) float64 {
	sigma := p.Kit.Sigma(r)
	if r.PlusMinus > 0 {
		return sigma * sigma
	}
	return sigma*sigma + p.Tape*p.Tape/12
}

func (p *Prior) mean(of Part) float64 {
	switch of {
	case Of(frame.Lock):
		return p.Width
	case Of(frame.Head):
		return p.Height
	}
	if of >= firstBias && of < firstPlaced {
		mean, _ := p.biasFor(of)
		return mean
	}
	return 0
}

// spread is the deviation of a part: the sigmas of its offset, its lean, its bow and its ripple, and the length scales
// of the last two.
type spread struct{ offset, lean, bow, run, ripple, wave float64 }

func (p *Prior) of(part Part) spread {
	switch part {
	case Of(frame.Hinge), Of(frame.Lock):
		return spread{
			offset: p.Offset, lean: p.Lean, bow: p.JambBow, run: p.JambRun, ripple: p.JambRipple, wave: p.JambWave,
		}
	case Of(frame.Head):
		return spread{
			offset: p.Offset, lean: p.Slope, bow: p.HeadBow, run: p.HeadRun, ripple: p.HeadRipple,
			wave: p.FlatWave,
		}
	case Of(frame.Foot):
		return spread{
			offset: p.Offset, lean: p.Slope, bow: p.HeadBow, run: p.FloorRun, ripple: p.FloorRipple,
			wave: p.FlatWave,
		}
	}
	if part < firstPlaced {
		_, bias := p.biasFor(part)
		return spread{offset: bias}
	}
	if part >= firstHung {
		return p.Strays[part-firstHung].spread()
	}
	switch which := int(part-firstPlaced) % unknowns; which {
	case turn:
		return spread{offset: turnSpread}
	case across, up:
		return spread{offset: shiftSpread}
	default:
		return shapes[(which-oldLock)/3]
	}
}

// Cov is the prior covariance of one part at two places, in mm². Different parts are
// independent.
func (p *Prior) Cov(of Part, s, t float64) float64 {
	return p.of(of).cov(s, t)
}

func (x spread) cov(s, t float64) float64 {
	v := x.offset*x.offset + x.lean*x.lean*s*t
	if x.bow != 0 {
		v += x.bow * x.bow * bell((s-t)/x.run)
	}
	if x.ripple != 0 {
		v += x.ripple * x.ripple * bell((s-t)/x.wave)
	}
	return v
}

func (p *Prior) meanOf(r Row) float64 {
	var m float64
	for _, t := range r {
		m += t.By * p.mean(t.Of)
		if t.Of == Of(frame.Foot) {
			m += t.By * p.FloorRise * t.At
		}
	}
	return m
}

func (p *Prior) covOf(a, b Row) float64 {
	var c float64
	for _, s := range a {
		for _, t := range b {
			if s.Of == t.Of {
				c += s.By * t.By * p.Cov(s.Of, s.At, t.At)
			}
		}
	}
	return c
}
