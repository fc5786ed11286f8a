package lock

import (
	"math"

	"kindmargin/core/field"
	"kindmargin/core/figure"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/trade"
)

// Work is the work of a piece of hardware on slab and jamb. Places on the slab are down its lock edge from its finished
// top, and in from its finished lock edge; in the jamb down from the head.
type Work struct {
	Hardware trade.Hardware
	Gauge    figure.Figure // set for the centre of the thickness, marked from both faces
	Holes    []Hole
	Edge     *EdgeCut // nil where nothing goes into the edge
	Plate    *Recess  // of the faceplate
	Strike   *Strike
	Lengths  []Length // what is cut to the slab's thickness
}

// Hole is a hole in the faces.
type Hole struct {
	trade.Hole
	Down, In figure.Figure
	Bit      measure.Length // the nearest one at hand that is no smaller; nought where there is none
}

// EdgeCut is a bore or a slot in the edge.
type EdgeCut struct {
	Down  figure.Figure  // its middle
	Deep  figure.Figure  // from the finished edge
	Bit   measure.Length // of a bore, the one at hand; of a slot, what chain-drills it
	Long  measure.Length // of a slot; nought for a bore
	Wide  measure.Length // of a slot, or the bore's diameter as it is bored
	Wall  figure.Figure  // wood left each side of it
	Cover measure.Length // of the faceplate past it, each side
}

// Recess is the recess of a plate, flush.
type Recess struct {
	Top   figure.Figure // down to its upper end
	Plate trade.Plate
}

// Strike is the plate in the jamb and the hole behind it.
type Strike struct {
	Recess
	Bolt figure.Figure // middle of the bolt, down from the head
	In   figure.Figure // its middle in from the jamb's pull-side arris, as the closed slab lies
	Hole measure.Length
	Deep measure.Length
	Box  bool
}

// Length is the length to which a part is cut.
type Length struct {
	Part message.Message // what it is called
	Cut  figure.Figure
}

// Fit gives the work of a piece of hardware at a latch line. bits are those at hand, in order.
func Fit(p Plan, d trade.Hardware, thickness measure.Length, bits []measure.Length) Work {
	half := thickness / 2
	w := Work{Hardware: d, Gauge: figure.Sum(
		0,
		figure.Term{Label: "term.half-thickness", Value: half, Source: figure.Reading},
		figure.Term{Label: "term.half-pencil", Value: -trade.PencilHalf, Source: figure.Rule},
	)}
	for _, h := range d.Holes {
		w.Holes = append(w.Holes, Hole{
			Hole: h, Down: above(p.Slab, h.Up), In: in(p.Backset, h.Off), Bit: bit(bits, h.Dia),
		})
	}
	if e := d.Edge; e.Deep > 0 {
		cut := EdgeCut{
			Down: above(p.Slab, e.Up), Long: e.Long, Wide: e.Wide,
			Deep: figure.Sum(0, figure.Term{Label: "term.hardware-depth", Value: e.Deep, Source: figure.Choice}),
		}
		if d.Case.Deep > 0 {
			cut.Deep = figure.Sum(
				0,
				figure.Term{Label: "term.case-depth", Value: d.Case.Deep, Source: figure.Choice},
				figure.Term{Label: "term.clear-behind", Value: max(e.Deep-d.Case.Deep, 0), Source: figure.Rule},
			)
		}
		if e.Bore > 0 {
			cut.Bit = bit(bits, e.Bore)
			if cut.Wide = cut.Bit; cut.Bit == 0 {
				cut.Wide = e.Bore
			}
		} else {
			cut.Bit = largest(bits, e.Wide)
		}
		cut.Wall = figure.Sum(
			0,
			figure.Term{Label: "term.half-thickness", Value: half, Source: figure.Reading},
			figure.Term{Label: "term.half-bore", Value: -cut.Wide / 2, Source: figure.Choice},
		)
		if d.Plate.Wide > 0 {
			cut.Cover = (d.Plate.Wide - cut.Wide) / 2
		}
		w.Edge = &cut
	}
	if d.Plate.Long > 0 {
		w.Plate = &Recess{Top: above(above(p.Slab, d.Plate.Up), d.Plate.Long/2), Plate: d.Plate}
	}
	if s := d.Strike; s.Plate.Long > 0 {
		w.Strike = &Strike{
			Recess: Recess{Top: above(above(p.Jamb, s.Plate.Up), s.Plate.Long/2), Plate: s.Plate}, Bolt: p.Jamb,
			Hole: s.Bolt, Deep: s.Deep, Box: s.Box,
			In: figure.Sum(0, figure.Term{Label: "term.half-thickness-flush", Value: half, Source: figure.Reading}),
		}
	}
	for _, c := range d.Cuts {
		w.Lengths = append(w.Lengths, Length{c.Title(), figure.Sum(
			0,
			figure.Term{Label: "term.thickness", Value: thickness, Source: figure.Reading},
			figure.Term{
				Label: "term.part-more", Args: message.Args{"part": c.Title()}, Value: c.Base, Source: figure.Choice,
			},
		)})
	}
	return w
}

func above(f figure.Figure, up measure.Length) figure.Figure {
	if up == 0 {
		return f
	}
	label := message.ID("term.above-latch-line")
	if up < 0 {
		label = "term.under-latch-line"
	}
	return with(f, label, -up)
}

// in is a hole's distance from the finished edge: its own, or the backset.
func in(backset figure.Figure, off measure.Length) figure.Figure {
	if off == 0 {
		return backset
	}
	return figure.Sum(0, figure.Term{Label: "term.off-lock-edge", Value: off, Source: figure.Choice})
}

func with(f figure.Figure, label message.ID, by measure.Length) figure.Figure {
	terms := append(append(make([]figure.Term, 0, len(f.Terms)+1), f.Terms...), figure.Term{
		Label: label, Value: by, Source: figure.Choice,
	})
	return figure.Sum(f.Sigma, terms...)
}

// bit is the smallest bit at hand that is no smaller than a hole; 0 where none is within a tenth more.
func bit(bits []measure.Length, hole measure.Length) measure.Length {
	best := measure.Length(math.MaxInt64)
	for _, b := range bits {
		if b >= hole && b < best {
			best = b
		}
	}
	if best > hole+hole/10 {
		return 0
	}
	return best
}

// largest is the largest bit no wider than a slot.
func largest(bits []measure.Length, wide measure.Length) (best measure.Length) {
	for _, b := range bits {
		if b <= wide {
			best = max(best, b)
		}
	}
	return best
}

// Gap is the wood between two holes of a piece of hardware, in the same face or right through; negative where they
// meet.
func Gap(a, b Hole) measure.Length {
	dx, dy := (a.In.Value - b.In.Value).MM(), (a.Down.Value - b.Down.Value).MM()
	return measure.FromMM(math.Hypot(dx, dy)) - (a.Dia+b.Dia)/2
}

// Router is what a router's template is made for: the diameters of its guide bush and its cutter.
type Router struct{ Bush, Cutter measure.Length }

// UsualRouter is the common pair of bush and cutter.
var UsualRouter = Router(trade.UsualRouter)

// Opening is the template's opening for a plate: larger by the difference of the bush's and the cutter's diameter, each
// way. Common practice.
func (r Router) Opening(plate measure.Length) measure.Length { return plate + r.Bush - r.Cutter }

// Check rejects, as a field.Error, a router that cannot make so wide an opening.
func (r Router) Check(wide measure.Length) error {
	switch {
	case r.Bush > trade.WidestBush:
		return field.Fault("/bush", "refused.bush", message.Args{
			"bush": message.Exact(r.Bush), "most": message.Exact(trade.WidestBush),
		})
	case r.Cutter <= 0 || r.Bush <= r.Cutter:
		return field.Fault("/bush", "refused.bush-cutter", message.Args{
			"bush": message.Exact(r.Bush), "cutter": message.Exact(r.Cutter),
		})
	case r.Cutter > wide:
		return field.Fault("/cutter", "refused.cutter-wide", message.Args{
			"cutter": message.Exact(r.Cutter), "wide": message.Exact(wide),
		})
	}
	return nil
}
