// Package lining makes a frame to a slab: two jambs and a head, cut and ripped on the trestles to the slab and its
// margins, and set in the rough opening on packers.
package lining

import (
	"slices"
	"strconv"

	"kindmargin/core/field"
	"kindmargin/core/frame"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/trade"
)

// Choice is what is known of the wall and the boards, and the joint of the frame. A measurement of 0 is not taken yet.
type Choice struct {
	Thick   measure.Length `json:"thick"`           // of the boards
	Board   measure.Length `json:"board,omitempty"` // width that they come in
	Joint   Joint          `json:"joint,omitempty"`
	Housing measure.Length `json:"housing,omitempty"` // depth; nought a third of the boards' thickness
	// Wall is the wall's thickness, finish to finish: beside the hinge jamb at foot, middle and head, then beside the
	// lock jamb.
	Wall [6]measure.Length `json:"wall"`
	// Width is the rough opening's width at foot, middle and head, Height its height beside the hinge jamb and the lock
	// jamb, from the existing floor.
	Width  [3]measure.Length `json:"width"`
	Height [2]measure.Length `json:"height"`
	// Floor and High are the floor's height above that under the hinge jamb: under the lock jamb, and at its highest
	// place between the jambs and in the slab's swing; negative is lower. Nil is not read, which is not the same as
	// level.
	Floor  *measure.Length `json:"floor,omitempty"`
	High   *measure.Length `json:"high,omitempty"`
	Stop   measure.Length  `json:"stop,omitempty"` // thickness of the stops; nought trade.StopThick
	Stands bool            `json:"stands,omitempty"`
	Comes  Comes           `json:"comes,omitempty"`
	// Leg and Outer are of a set: its legs as they come, from the underside of its head down, and its width over all;
	// nought is not measured.
	Leg   measure.Length `json:"leg,omitempty"`
	Outer measure.Length `json:"outer,omitempty"`
	// Rebate is the depth of the frame's own rebate, from its pull-side edge to the stop; nought where a stop is planted.
	Rebate measure.Length `json:"rebate,omitempty"`
}

// Comes is how a frame comes to the opening.
type Comes string

// A frame is made of boards, made up of bought jambs, or comes as a set with its slab hung in it.
const (
	OfBoards Comes = ""
	OfJambs  Comes = "jambs"
	AsSet    Comes = "set"
)

// AllComes lists them.
var AllComes = []Comes{OfBoards, OfJambs, AsSet}

// AtLock is the floor's height under the lock jamb above that under the hinge jamb; 0 where it was not read.
func (c Choice) AtLock() measure.Length { return deref(c.Floor) }

// Highest is the height of the floor's highest place above that under the hinge jamb; 0 where that is the highest
// itself.
func (c Choice) Highest() measure.Length {
	return max(c.AtLock(), deref(c.High), 0)
}

// Kept reports whether a frame was made before its floor was asked for: its step is not reopened.
func (c Choice) Kept() bool { return c.Stands && c.High == nil }

// Joint is the joint of head and jambs.
type Joint string

// The joints.
const (
	Housed  Joint = ""        // the head is housed for the jambs
	Over    Joint = "over"    // the head lies on the jambs
	Between Joint = "between" // the head stands between the jambs
)

// Joints lists them.
var Joints = []Joint{Housed, Over, Between}

// Check reports invalid fields, as field.Errors.
func (c Choice) Check() error {
	const mm = measure.Millimetre
	var bad field.Errors
	ranges := []field.Range{
		{Pointer: "/thick", Is: "size.thickness-of-a-lining-leg", Value: c.Thick, Most: 80 * mm},
		{Pointer: "/board", Is: "size.width-of-a-board", Value: c.Board, Most: 500 * mm},
		{Pointer: "/housing", Is: "size.depth-of-a-housing", Value: c.Housing, Most: 30 * mm},
		{
			Pointer: "/floor", Is: "size.step-in-the-floor-between-the-legs", Value: c.AtLock(), Least: -60 * mm,
			Most: 60 * mm,
		},
		{Pointer: "/high", Is: "size.rise-of-the-floor", Value: deref(c.High), Least: -60 * mm, Most: 60 * mm},
		{Pointer: "/stop", Is: "size.thickness-of-a-doorstop", Value: c.Stop, Most: 30 * mm},
		{Pointer: "/leg", Is: "size.length-of-a-leg", Value: c.Leg, Most: 4 * measure.Metre},
		{Pointer: "/outer", Is: "size.width-of-a-set", Value: c.Outer, Most: 4 * measure.Metre},
		{Pointer: "/rebate", Is: "size.depth-of-a-rebate", Value: c.Rebate, Most: 120 * mm},
	}
	for i, v := range c.Wall {
		ranges = append(ranges, field.Range{
			Pointer: "/wall/" + strconv.Itoa(i), Is: "size.thickness-of-a-wall", Value: v, Most: 600 * mm,
		})
	}
	for i, v := range c.Width {
		ranges = append(ranges, field.Range{
			Pointer: "/width/" + strconv.Itoa(i), Is: "size.width-of-a-rough-opening", Value: v,
			Most: 4 * measure.Metre,
		})
	}
	for i, v := range c.Height {
		ranges = append(ranges, field.Range{
			Pointer: "/height/" + strconv.Itoa(i), Is: "size.height-of-a-rough-opening", Value: v,
			Most: 5 * measure.Metre,
		})
	}
	for _, r := range ranges {
		bad.Under("", r.Check())
	}
	if !slices.Contains(Joints, c.Joint) {
		bad.Add("/joint", "refused.no-joint", message.Args{"given": string(c.Joint)})
	}
	if !slices.Contains(AllComes, c.Comes) {
		bad.Add("/comes", "refused.frame-comes", message.Args{"given": string(c.Comes)})
	}
	if c.Joint == Housed && c.Housing > 0 && c.Thick > 0 && c.Housing > c.Thick/2 {
		bad.Add("/housing", "refused.housing-deep", message.Args{
			"housing": message.Exact(c.Housing), "board": message.Exact(c.Thick), "most": message.Exact(c.Thick / 2),
		})
	}
	return bad.Err()
}

func deref(l *measure.Length) measure.Length {
	if l == nil {
		return 0
	}
	return *l
}

// housing is the depth of the head's housing.
func (c Choice) housing() measure.Length {
	switch {
	case c.Joint != Housed || c.Comes == AsSet:
		return 0
	case c.Housing > 0:
		return c.Housing
	}
	return (c.Thick / 3).Round(measure.Millimetre, measure.Nearest)
}

func (c Choice) stop() measure.Length {
	if c.Stop > 0 {
		return c.Stop
	}
	return trade.StopThick
}

// Clear is the clear size that a frame must leave: between its jambs, and from the existing floor under the hinge jamb
// to the head; and the slab's thickness.
type Clear struct{ Width, Height, Thick measure.Length }

// Frame is a frame as it is cut. A length of 0 waits for a measurement.
type Frame struct {
	Clear
	Jamb   frame.Each[measure.Length] // length of the hinge jamb and of the lock jamb
	Head   measure.Length
	House  measure.Length                // depth of the head's housings, nought for none
	Rip    frame.Each[[3]measure.Length] // width of each jamb at foot, middle and head
	RipEnd [2]measure.Length             // of the head, at the hinge jamb and at the lock jamb
	Taper  bool                          // it is ripped to a taper: the wall is not one thickness
	Brace  measure.Length                // across the foot, between the jambs
	Feet   frame.Each[measure.Length]    // of a set: what is cut off the foot of each jamb; below nought it is packed up
	Outer  Clear                         // over all
	Pack   [3]measure.Length             // a side, at foot, middle and head; below nought it does not go in
	Above  measure.Length                // over the head, at the lower side
	Parts  []Part
	// What is in its way; 0 where nothing is.
	Narrow     measure.Length // by which the rough opening is too narrow, packed by the least
	NarrowAt   int            // 0 foot, 1 middle, 2 head
	Low        measure.Length // by which it is too low
	Thin       measure.Length // the thinnest wall, where no lining can be ripped to it
	ThinAt     int            // in Choice.Wall
	Board      measure.Length // by which the boards are narrower than the wall
	BoardAt    int
	Walls      bool           // all six were measured
	Rough      bool           // all of the rough opening was
	PackedMore measure.Length // the packing of a side, where it is more than the most
}

// Part is a line of the cut list.
type Part struct {
	Name              message.ID
	Count             int
	Long, Wide, Thick measure.Length
	Note              message.ID // nothing where there is none
}

// Least is the narrowest width of a lining: the slab, and a stop that can be nailed.
func Least(slab measure.Length) measure.Length { return slab + trade.StopWide }

// Make gives the frame for a clear size.
func Make(c Choice, clear Clear) Frame {
	f := Frame{Clear: clear, House: c.housing(), Brace: clear.Width}
	f.Jamb[frame.Hinge], f.Jamb[frame.Lock] = clear.Height, clear.Height-c.AtLock()
	f.Head = clear.Width
	f.Outer = Clear{Width: clear.Width + 2*c.Thick, Height: clear.Height + c.Thick}
	switch {
	case c.Comes == AsSet: // its head is on, and its legs end at its underside
		if c.Outer > 0 {
			f.Outer.Width = c.Outer
		}
		if c.Leg > 0 {
			f.Feet[frame.Hinge], f.Feet[frame.Lock] = c.Leg-f.Jamb[frame.Hinge], c.Leg-f.Jamb[frame.Lock]
		}
	case c.Joint == Housed:
		f.Jamb[frame.Hinge] += f.House
		f.Jamb[frame.Lock] += f.House
		f.Head += 2 * c.Thick
	case c.Joint == Over:
		f.Head += 2 * c.Thick
	case c.Joint == Between:
		f.Jamb[frame.Hinge] += c.Thick
		f.Jamb[frame.Lock] += c.Thick
	}
	if c.Comes == OfBoards {
		f.rip(c)
	}
	f.rough(c)
	f.list(c)
	return f
}

// rip gives the widths that the linings are ripped to: flush with both faces of the wall at each measured place, or all
// to the thickest where one width does.
func (f *Frame) rip(c Choice) {
	f.Walls = !slices.Contains(c.Wall[:], 0)
	if !f.Walls {
		return
	}
	most, least := slices.Max(c.Wall[:]), slices.Min(c.Wall[:])
	f.Taper = most-least > trade.FlushWithin
	wide := func(i int) measure.Length {
		if f.Taper {
			return c.Wall[i]
		}
		return most
	}
	for i := range 3 {
		f.Rip[frame.Hinge][i], f.Rip[frame.Lock][i] = wide(i), wide(3+i)
	}
	f.RipEnd = [2]measure.Length{wide(2), wide(5)}
	if f.Clear.Thick > 0 && least < Least(f.Clear.Thick) {
		f.Thin, f.ThinAt = least, slices.Index(c.Wall[:], least)
	}
	if c.Board > 0 && most > c.Board {
		f.Board, f.BoardAt = most-c.Board, slices.Index(c.Wall[:], most)
	}
}

// rough checks the frame against the rough opening.
func (f *Frame) rough(c Choice) {
	f.Rough = !slices.Contains(c.Width[:], 0) && !slices.Contains(c.Height[:], 0)
	if !f.Rough || c.Thick == 0 {
		return
	}
	narrowest := 0
	for i, w := range c.Width {
		f.Pack[i] = (w - f.Outer.Width) / 2
		if w < c.Width[narrowest] {
			narrowest = i
		}
	}
	if short := f.Outer.Width + 2*trade.LeastPacking - c.Width[narrowest]; short > 0 {
		f.Narrow, f.NarrowAt = short, narrowest
	}
	if most := slices.Max(f.Pack[:]); most > trade.MostPacking {
		f.PackedMore = most
	}
	// Both are from the floor under their own jamb.
	f.Above = min(c.Height[0], c.Height[1]+c.AtLock()) - f.Outer.Height
	if f.Above < 0 {
		f.Low = -f.Above
	}
}

// list is the cut list, the longest first; of a set, its legs.
func (f *Frame) list(c Choice) {
	wide := func(list ...measure.Length) measure.Length { return slices.Max(list) }
	jamb := func(name message.ID, side frame.Side) Part {
		return Part{Name: name, Count: 1, Long: f.Jamb[side], Wide: wide(f.Rip[side][:]...), Thick: c.Thick}
	}
	f.Parts = []Part{jamb("wall.hinge", frame.Hinge), jamb("wall.lock", frame.Lock)}
	if c.Comes == AsSet {
		return
	}
	f.Parts = append(f.Parts, Part{
		Name: "wall.head", Count: 1, Long: f.Head, Wide: wide(f.RipEnd[:]...), Thick: c.Thick,
	})
	if c.Rebate == 0 {
		f.Parts = append(f.Parts, Part{
			Name: "lining-part.leg-stop", Count: 2, Long: f.Clear.Height, Wide: trade.StopWide, Thick: c.stop(),
			Note: "lining-part.leg-stop-note",
		}, Part{
			Name: "lining-part.head-stop", Count: 1, Long: f.Clear.Width, Wide: trade.StopWide, Thick: c.stop(),
		})
	}
	f.Parts = append(f.Parts, Part{
		Name: "lining-part.brace", Count: 1, Long: f.Brace, Wide: trade.BraceWide, Thick: trade.BraceThick,
		Note: "lining-part.brace-note",
	})
}
