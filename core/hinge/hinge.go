// Package hinge places the hinges on slab and jamb. Distances are to the top of each leaf: on the slab from its
// finished top hinge corner, on the jamb from the head.
package hinge

import (
	"fmt"

	"kindmargin/core/field"
	"kindmargin/core/figure"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/trade"
)

// From is what decides the hinges' heights: one of these, or the ID of a trade.HingeRule.
type From string

// The values of Choice.From beside a rule's ID.
const (
	FromPockets From = "pockets" // the jamb has its pockets already
	OwnPlaces   From = "own"     // Choice.Places
	WholeEdge   From = "whole"   // one continuous hinge along the edge
)

// Third is the rule for a third hinge.
type Third string

// The places of a third hinge.
const (
	Midway Third = "midway" // between the other two; so also where nothing is said
	MoveUp Third = "up"     // under the top one, where the weight pulls
)

// Choice is what is chosen, or found in the jamb, for an opening's hinges.
type Choice struct {
	From    From             `json:"from"`
	Pockets []measure.Length `json:"pockets,omitempty"` // existing, head to the top of each, top first
	Count   int              `json:"count"`             // two or three; with pockets, as many as there are
	Leaf    measure.Length   `json:"leaf"`              // length of a leaf along the edge
	Width   measure.Length   `json:"width"`             // of a leaf, knuckle side to far side, as let in
	Plate   measure.Length   `json:"plate"`             // thickness of a leaf
	Closed  measure.Length   `json:"closed"`            // closed hinge, outside to outside, leaves parallel
	// ID of a trade.Hinge or of one in the kit, from which these measures were taken
	Size  string `json:"size,omitempty"`
	Long  bool   `json:"long,omitempty"` // the lower pockets a little long, so that hanging goes easily
	Third Third  `json:"third,omitempty"`
	// the carpenter's own: slab's finished top to the top of each leaf, top first
	Places []measure.Length `json:"places,omitempty"`
	Old    []Pocket         `json:"old,omitempty"`   // what is known of Pockets, in their order
	Avoid  []Avoid          `json:"avoid,omitempty"` // what else the leaves keep clear of
	// thickness of the jamb that the recesses are cut in; 0 is not read
	Jamb measure.Length `json:"jamb,omitempty"`
	// the slab's edge is hollowed to a jamb that bellies in, between the recesses
	Hollow bool `json:"hollow,omitempty"`
}

// Pocket is an old recess and the leaf in it; 0 is not read.
type Pocket struct {
	Long   measure.Length `json:"long,omitempty"`
	Wide   measure.Length `json:"wide,omitempty"`
	Deep   measure.Length `json:"deep,omitempty"`
	Round  measure.Length `json:"round,omitempty"`  // radius of its corners; nought for square ones
	Filled bool           `json:"filled,omitempty"` // with glued wood: no longer in the way
	Faults []string       `json:"faults,omitempty"` // IDs of trade.Faults
}

// Avoid is a part of an edge where no hinge may go.
type Avoid struct {
	What string `json:"what"`
	// on the slab's hinge edge, down from its uncut top; otherwise on the jamb, down from the head
	Slab bool           `json:"slab,omitempty"`
	At   measure.Length `json:"at"`
	Long measure.Length `json:"long"`
}

// PocketAt is what is known of recess i.
func (c Choice) PocketAt(i int) Pocket {
	if i < len(c.Old) {
		return c.Old[i]
	}
	return Pocket{}
}

const mostAvoid = 20

// Check reports the first invalid field, as a field.Error.
func (c Choice) Check() error {
	if _, ok := trade.HingeRuleByID(c.From); !ok && c.From != FromPockets && c.From != OwnPlaces &&
		c.From != WholeEdge {
		return field.Fault("/from", "refused.no-hinge-rule-listed", message.Args{"given": message.Quote(c.From)})
	}
	if c.Count != 2 && c.Count != 3 {
		return field.Fault("/count", "refused.hinges-2-or-3", message.Args{"given": message.Number(c.Count)})
	}
	const mm = measure.Millimetre
	if err := field.First(
		field.Range{Pointer: "/leaf", Is: "size.length-of-a-hinge", Value: c.Leaf, Least: 40 * mm, Most: 250 * mm},
		field.Range{
			Pointer: "/width", Is: "size.width-of-a-hinge-leaf", Value: c.Width, Least: 10 * mm, Most: 120 * mm,
		},
		field.Range{
			Pointer: "/plate", Is: "size.thickness-of-a-hinge-leaf", Value: c.Plate, Least: mm / 2, Most: 6 * mm,
		},
		field.Range{
			Pointer: "/closed", Is: "size.thickness-of-a-closed-hinge", Value: c.Closed, Least: mm, Most: 20 * mm,
		},
		field.Range{Pointer: "/jamb", Is: "size.thickness-of-a-jamb", Value: c.Jamb, Most: 150 * mm},
	); err != nil {
		return err
	}
	if c.Closed < 2*c.Plate {
		return field.Fault("/closed", "refused.closed-hinge", message.Args{
			"closed": message.Exact(c.Closed), "plate": message.Exact(c.Plate),
		})
	}
	for i, p := range c.Pockets {
		at := fmt.Sprintf("/pockets/%d", i)
		if p <= 0 || p > 4*measure.Metre {
			return field.Fault(at, "refused.pocket-place", message.Args{"value": message.Exact(p)})
		}
		if i > 0 && p < c.Pockets[i-1]+c.Leaf {
			return field.Fault(at, "refused.pockets-overlap", message.Args{
				"at": message.Exact(p), "before": message.Exact(c.Pockets[i-1]), "leaf": message.Exact(c.Leaf),
			})
		}
	}
	if len(c.Pockets) > 3 {
		return field.Fault("/pockets", "refused.too-many-pockets", message.Args{
			"given": message.Number(len(c.Pockets)),
		})
	}
	if err := c.checkPlaces(); err != nil {
		return err
	}
	return c.checkOld()
}

func (c Choice) checkPlaces() error {
	if c.Third != "" && c.Third != Midway && c.Third != MoveUp {
		return field.Fault("/third", "refused.third-hinge", message.Args{"given": message.Quote(c.Third)})
	}
	if len(c.Places) > mostHinges {
		return field.Fault("/places", "refused.hinges-most", message.Args{
			"most": message.Number(mostHinges), "given": message.Number(len(c.Places)),
		})
	}
	for i, p := range c.Places {
		at := fmt.Sprintf("/places/%d", i)
		if p < 0 || p > 4*measure.Metre {
			return field.Fault(at, "refused.hinge-place", message.Args{"value": message.Exact(p)})
		}
		if i > 0 && p < c.Places[i-1]+c.Leaf {
			return field.Fault(at, "refused.hinges-overlap", message.Args{
				"at": message.Exact(p), "before": message.Exact(c.Places[i-1]), "leaf": message.Exact(c.Leaf),
				"least": message.Exact(c.Places[i-1] + c.Leaf),
			})
		}
	}
	return CheckAvoid(c.Avoid)
}

// CheckAvoid reports the first invalid part to avoid.
func CheckAvoid(list []Avoid) error {
	if len(list) > mostAvoid {
		return field.Fault("/avoid", "refused.too-many-places", message.Args{"most": message.Number(mostAvoid)})
	}
	for i, a := range list {
		at := fmt.Sprintf("/avoid/%d", i)
		if n := len([]rune(a.What)); n == 0 || n > 60 {
			return field.Fault(at+"/what", "refused.what-is-there", nil)
		}
		if a.At < 0 || a.At > 4*measure.Metre {
			return field.Fault(at+"/at", "refused.place-on-edge", message.Args{"value": message.Exact(a.At)})
		}
		if a.Long <= 0 || a.Long > 4*measure.Metre {
			return field.Fault(at+"/long", "refused.how-long", nil)
		}
	}
	return nil
}

const mostHinges = 4

func (c Choice) checkOld() error {
	const mm = measure.Millimetre
	if len(c.Old) > len(c.Pockets) {
		return field.Fault("/old", "refused.pockets-described", message.Args{
			"pockets": message.Number(len(c.Pockets)), "given": message.Number(len(c.Old)),
		})
	}
	for i, p := range c.Old {
		at := fmt.Sprintf("/old/%d", i)
		if err := field.First(
			field.Range{Pointer: at + "/long", Is: "size.length-of-a-recess", Value: p.Long, Most: 300 * mm},
			field.Range{Pointer: at + "/wide", Is: "size.width-of-a-recess", Value: p.Wide, Most: 120 * mm},
			field.Range{Pointer: at + "/deep", Is: "size.depth-of-a-recess", Value: p.Deep, Most: 15 * mm},
			field.Range{Pointer: at + "/round", Is: "size.radius-of-a-recesss-corners", Value: p.Round, Most: 25 * mm},
		); err != nil {
			return err
		}
		for k, f := range p.Faults {
			if _, ok := trade.FaultByID(f); !ok {
				return field.Fault(fmt.Sprintf("%s/faults/%d", at, k), "refused.no-hinge-fault", message.Args{
					"given": message.Quote(f),
				})
			}
		}
	}
	return nil
}

// Flush is the hinge margin with both leaves flush: closed thickness less both recess depths.
func (c Choice) Flush() figure.Figure {
	return figure.Sum(
		0,
		figure.Term{Label: "term.closed-hinge", Value: c.Closed, Source: figure.Choice},
		figure.Term{Label: "term.slab-pocket", Value: -c.Plate, Source: figure.Rule},
		figure.Term{Label: "term.jamb-pocket", Value: -c.Plate, Source: figure.Rule},
	)
}

// Setback is the wood left between the recess and the push face.
func (c Choice) Setback(thickness measure.Length) measure.Length { return thickness - c.Width }

// names are the names of hinges, by their number.
var names = map[int][]message.ID{
	2: {"hinge.top", "hinge.bottom"}, 3: {"hinge.top", "hinge.middle", "hinge.bottom"},
	4: {"hinge.top", "hinge.second", "hinge.third", "hinge.bottom"},
}

// Names are the names of so many hinges, top first; nil where no slab hangs on so many.
func Names(of int) []message.ID { return names[of] }

// Number is how many hinges a slab hangs on; a continuous hinge counts as the number that carries as much.
func (c Choice) Number() int {
	switch {
	case c.From == OwnPlaces && len(c.Places) > 0:
		return len(c.Places)
	case c.From == FromPockets && len(c.Pockets) > 0:
		return len(c.Pockets)
	case c.From == WholeEdge:
		return 2 // one carries as two do
	}
	return c.Count
}
