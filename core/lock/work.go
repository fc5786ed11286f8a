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
// top, and in from its lock edge as it is bored: the finished one, or that with LeftOn still on it; in the jamb down from
// the head.
type Work struct {
	Hardware trade.Hardware
	LeftOn   measure.Length // wood still to come off the lock edge, past the finished one
	Gauge    figure.Figure  // set for the centre of the thickness, marked from both faces
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
	Deep  figure.Figure  // from the edge as it is bored
	Bit   measure.Length // of a bore, the one at hand; of a slot, what chain-drills it
	Long  measure.Length // of a slot; nought for a bore
	Wide  measure.Length // of a slot, or the bore's diameter as it is bored
	Wall  figure.Figure  // wood left each side of it
	Cover measure.Length // of the faceplate past it, each side
	// Square is how high its ends are squared for a case that is higher than the bore; nought where it is not.
	Square measure.Length
}

// Recess is the recess of a plate, flush.
type Recess struct {
	Top   figure.Figure // down to its upper end
	Plate trade.Plate
}

// Strike is the plate in the jamb and the hole behind it; a receiver that is pressed in has no plate.
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

// Into is what a piece of hardware goes into, and what it is bored with.
type Into struct {
	Thickness measure.Length
	LeftOn    measure.Length   // on the lock edge, to come off after it is bored
	Bits      []measure.Length // at hand, in order
	Tight     bool             // the bore in the edge is as narrow as the case allows
}

// Fit gives the work of a piece of hardware at a latch line.
func Fit(p Plan, d trade.Hardware, into Into) Work {
	half, bits := into.Thickness/2, into.Bits
	w := Work{Hardware: d, LeftOn: into.LeftOn, Gauge: figure.Sum(
		0,
		figure.Term{Label: "term.half-thickness", Value: half, Source: figure.Reading},
		figure.Term{Label: "term.half-pencil", Value: -trade.PencilHalf, Source: figure.Rule},
	)}
	for _, h := range d.Holes {
		w.Holes = append(w.Holes, Hole{
			Hole: h, Down: above(p.Slab, h.Up), In: fromEdge(in(p.Backset, h.Off), into.LeftOn), Bit: bit(bits, h.Dia),
		})
	}
	if d.Edge.Deep > 0 {
		w.Edge = inEdge(p, d, into)
	}
	if d.Plate.Long > 0 {
		w.Plate = &Recess{Top: above(above(p.Slab, d.Plate.Up), d.Plate.Long/2), Plate: d.Plate}
	}
	if s := d.Strike; s.Plate.Long > 0 || s.Pressed {
		w.Strike = &Strike{
			Recess: Recess{Top: above(above(p.Jamb, s.Plate.Up), s.Plate.Long/2), Plate: s.Plate}, Bolt: p.Jamb,
			Hole: s.Bolt, Deep: s.Deep, Box: s.Box,
			In: figure.Sum(0, figure.Term{Label: "term.half-thickness-flush", Value: half, Source: figure.Reading}),
		}
		if d.Surface() { // it lies on the face of the jamb
			w.Strike.In = figure.Figure{}
		}
	}
	for _, c := range d.Cuts {
		w.Lengths = append(w.Lengths, Length{c.Title(), figure.Sum(
			0,
			figure.Term{Label: "term.thickness", Value: into.Thickness, Source: figure.Reading},
			figure.Term{
				Label: "term.part-more", Args: message.Args{"part": c.Title()}, Value: c.Base, Source: figure.Choice,
			},
		)})
	}
	return w
}

// inEdge is the bore or the slot of a piece of hardware in the edge.
func inEdge(p Plan, d trade.Hardware, into Into) *EdgeCut {
	e := d.Edge
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
	cut.Deep = fromEdge(cut.Deep, into.LeftOn)
	if e.Bore > 0 {
		cut.Bit = bit(into.Bits, e.Bore)
		if narrow := bit(into.Bits, d.Case.Thick); into.Tight && narrow > 0 && d.Case.Thick > 0 {
			cut.Bit = min(cut.Bit, narrow)
		}
		if cut.Wide = cut.Bit; cut.Bit == 0 {
			cut.Wide = e.Bore
		}
		if d.Case.High > cut.Wide+trade.BitUnder {
			cut.Square = d.Case.High
		}
	} else {
		cut.Bit = largest(into.Bits, e.Wide)
	}
	cut.Wall = figure.Sum(
		0,
		figure.Term{Label: "term.half-thickness", Value: into.Thickness / 2, Source: figure.Reading},
		figure.Term{Label: "term.half-bore", Value: -cut.Wide / 2, Source: figure.Choice},
	)
	if d.Plate.Wide > 0 {
		cut.Cover = (d.Plate.Wide - cut.Wide) / 2
	}
	return &cut
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

// fromEdge is a distance from the finished lock edge, measured from it with so much still on.
func fromEdge(f figure.Figure, left measure.Length) figure.Figure {
	if left == 0 {
		return f
	}
	return with(f, "term.left-on-lock-edge", left)
}

func with(f figure.Figure, label message.ID, by measure.Length) figure.Figure {
	terms := append(append(make([]figure.Term, 0, len(f.Terms)+1), f.Terms...), figure.Term{
		Label: label, Value: by, Source: figure.Choice,
	})
	return figure.Sum(f.Sigma, terms...)
}

// bit is the smallest bit at hand that is no smaller than a hole, to within trade.BitUnder; 0 where none is within a
// tenth more.
func bit(bits []measure.Length, hole measure.Length) measure.Length {
	best := measure.Length(math.MaxInt64)
	for _, b := range bits {
		if b >= hole-trade.BitUnder && b < best {
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
