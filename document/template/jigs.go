package template

import (
	"math"

	"kindmargin/core/field"
	"kindmargin/core/job"
	"kindmargin/core/lock"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/stage/hinges"
	"kindmargin/core/trade"
)

// Sizes of the jigs that are cut from sheet, in mm.
const (
	sheetThick = 12.0
	jigPlay    = 0.3  // between parts that go into one another, and round a bit
	jigFoot    = 4.0  // that a cheek stands off its face, so that dust falls out
	jigWall    = 3.0  // the least wood between two holes, or beside one
	jigTail    = 60.0 // of a cheek past its deepest hole: a clamp grips both there
	jigGap     = 12.0 // between the parts on a sheet
	jigBay     = 16.0 // cut out of a cheek below a window, so that chips fall out
	jigScrew   = 2.0  // radius of a hole for a screw
	linerText  = 70.0 // that a line of text beside a part takes
)

// reach is how far a piece of hardware goes above and below its latch line, and into the face, in mm.
func reach(w lock.Work, line float64) (up, down, deep float64) {
	see := func(y, half float64) { up, down = max(up, half-y), max(down, y+half) }
	for _, h := range w.Holes {
		see(h.Down.Value.MM()-line, cup(h))
		deep = max(deep, h.In.Value.MM()+cup(h))
	}
	if e := w.Edge; e != nil {
		see(e.Down.Value.MM()-line, max(e.Long, e.Wide).MM()/2)
	}
	return up, down, deep
}

// cup is the radius of the window that a hole's bit runs in, in mm.
func cup(h lock.Hole) float64 { return (max(h.Bit, 0).MM() + jigPlay) / 2 }

// clear refuses a jig for holes that their bits cannot clear.
func clear(w lock.Work, line, thick float64) error {
	refuse := func(id message.ID, args message.Args) error {
		args["hardware"] = w.Hardware.Title()
		return field.Fault("/template", id, args)
	}
	for i, h := range w.Holes {
		dia := message.Near(h.Bit)
		switch room := trade.HoleSawDeep.MM() - sheetThick - jigFoot; {
		case h.Bit == 0:
			return refuse("refused.jig-no-bit", message.Args{"dia": message.Near(h.Dia)})
		case h.Bit > trade.WidestBit && h.From == trade.FromBoth && thick/2 > room:
			return refuse("refused.jig-deep", message.Args{
				"deep": message.Exact(trade.HoleSawDeep), "most": message.Near(measure.FromMM(2 * room)),
			})
		case h.In.Value.MM()-cup(h) < jigWall:
			return refuse("refused.jig-edge", message.Args{"dia": dia, "in": message.Near(h.In.Value)})
		}
		for _, o := range w.Holes[:i] {
			apart := math.Hypot((h.In.Value - o.In.Value).MM(), (h.Down.Value - o.Down.Value).MM())
			if apart < cup(h)+cup(o)+jigWall {
				return refuse("refused.jig-holes-near", message.Args{})
			}
		}
	}
	return nil
}

// faced refuses a block for hardware with no holes in the faces.
func faced(w lock.Work, line, thick float64) error {
	if len(w.Holes) == 0 {
		return field.Fault("/template", "refused.no-face-holes", message.Args{"hardware": w.Hardware.Title()})
	}
	return clear(w, line, thick)
}

// cheekPart is a cheek's place on the sheet, its size, its latch line and the length of the window in the edge, in mm.
type cheekPart struct{ x, y, wide, high, top, window float64 }

// cheek draws one of a jig's two cheeks: with its own face's holes, a bay under the window in the edge, and a tail for
// the clamp.
func (d *Draft) cheek(of drawn, w lock.Work, line float64, face trade.Face, c cheekPart) {
	bay := jigBay
	for _, h := range w.Holes {
		bay = min(bay, h.In.Value.MM()-cup(h)-jigWall)
	}
	edge, in, bayAt := c.x, 1.0, c.x // its slab edge is on the left, and of the push face's on the right
	if face == trade.FromPush {
		edge, in, bayAt = c.x+c.wide, -1, c.x+c.wide-bay
	}
	d.rect(CutLayer, c.x, c.y, c.wide, c.high, 0)
	if c.window > 0 {
		d.rect(CutLayer, bayAt, c.y+c.top-c.window/2, bay, c.window, 0)
	}
	for _, h := range w.Holes {
		if h.From == trade.FromBoth || h.From == face {
			d.circle(edge+in*h.In.Value.MM(), c.y+c.top+h.Down.Value.MM()-line, cup(h))
		}
	}
	d.line(MarkLayer, c.x, c.y+c.top, c.x+c.wide, c.y+c.top)
	d.middle(c.x+c.wide/2, c.y+5, 3.5, of.Text("face."+message.ID(face)))
	d.middle(edge+in*(c.wide-jigTail/2), c.y+c.high-4, 3, of.Text("template-line.clamp"))
}

// caseBoard guides a case, its faceplate and its holes from one clamping: a plate on the slab's edge with the window of
// the faceplate, a liner in it with that of the case, and a cheek on each face. The case is cut first; the liner comes
// out for the faceplate.
func caseBoard(of drawn, w lock.Work, line, thick float64, r lock.Router) (Draft, error) {
	if w.Edge == nil || w.Plate == nil || w.Edge.Long == 0 {
		return Draft{}, field.Fault("/template", "refused.jig-no-case", message.Args{"hardware": w.Hardware.Title()})
	}
	if err := clear(w, line, thick); err != nil {
		return Draft{}, err
	}
	if err := r.Check(w.Edge.Wide); err != nil {
		return Draft{}, err
	}
	plate, e := w.Plate.Plate, w.Edge
	outer := [2]float64{r.Opening(plate.Wide).MM(), r.Opening(plate.Long).MM()}
	inner := [2]float64{r.Opening(e.Wide).MM(), r.Opening(e.Long).MM()}
	middle := w.Plate.Top.Value.MM() + plate.Long.MM()/2 - line // of the faceplate, below the latch line
	off := e.Down.Value.MM() - line - middle                    // of the case, below that
	if (outer[0]-inner[0])/2 < jigWall-jigPlay || (outer[1]-inner[1])/2-math.Abs(off) < jigWall-jigPlay {
		return Draft{}, field.Fault("/template", "refused.jig-liner", message.Args{
			"plate": message.Size{plate.Wide, plate.Long}, "case": message.Size{e.Wide, e.Long},
		})
	}
	up, down, deep := reach(w, line)
	up = max(up+jigFoot, outer[1]/2-middle) + cheek
	down = max(down+jigFoot, outer[1]/2+middle) + cheek
	high, wide := up+down, max(outer[0]+2*cheek, thick+2*sheetThick+8)
	round := max(plate.Radius, r.Cutter/2) + (r.Bush-r.Cutter)/2
	cheekWide := deep + jigWall + jigTail
	d := Draft{voice: of.Voice, Title: of.title(message.ID("template.case"))}
	// The plate.
	x, y := wide/2, up+middle
	d.rect(CutLayer, 0, 0, wide, high, 0)
	d.rect(CutLayer, x-outer[0]/2, y-outer[1]/2, outer[0], outer[1], round.MM())
	d.line(MarkLayer, x, 0, x, high)
	d.line(MarkLayer, 0, up, wide, up)
	for _, side := range []float64{-1, 1} {
		d.line(FoldLayer, x+side*thick/2, 0, x+side*thick/2, high)
		for _, at := range []float64{12, high - 12} {
			d.circle(x+side*(thick+sheetThick)/2, at, jigScrew)
		}
	}
	d.text(4, 6, 3.5, of.say("template-line.routed", message.Args{
		"wide": message.Exact(r.Opening(plate.Wide)), "long": message.Exact(r.Opening(plate.Long)),
		"cutter": message.Exact(r.Cutter), "bush": message.Exact(r.Bush),
	}))
	// The liner.
	lx := wide + jigGap
	lw, lh := outer[0]-jigPlay, outer[1]-jigPlay
	d.rect(CutLayer, lx, 0, lw, lh, round.MM())
	d.rect(
		CutLayer, lx+(lw-inner[0])/2, lh/2+off-inner[1]/2, inner[0], inner[1], (r.Bush / 2).MM(),
	)
	d.text(lx, lh+5, 3, of.Text("template-line.liner"))
	at := cheekPart{lx + max(lw, linerText), 0, cheekWide, high, up, outer[1]}
	d.cheek(of, w, line, trade.FromPull, at)
	at.x += cheekWide + jigGap
	d.cheek(of, w, line, trade.FromPush, at)
	d.Width, d.Height = at.x+cheekWide, high
	return d, nil
}

// boringBlock keeps a hole saw and an edge bit square and on the line: two cheeks with a window for each cup, which
// stand off their faces on feet, and a piece across the slab's edge with the hole of the edge bit.
func boringBlock(of drawn, w lock.Work, line, thick float64) (Draft, error) {
	if err := faced(w, line, thick); err != nil {
		return Draft{}, err
	}
	up, down, deep := reach(w, line)
	up, down = up+25, down+25
	high, wide := up+down, deep+jigWall+jigTail
	d := Draft{voice: of.Voice, Title: of.title(message.ID("template.block"))}
	d.cheek(of, w, line, trade.FromPull, cheekPart{0, 0, wide, high, up, 0})
	d.cheek(of, w, line, trade.FromPush, cheekPart{0, high + jigGap, wide, high, up, 0})
	// Feet, and the piece across the edge.
	x := wide + jigGap
	across := thick + 2*(jigFoot+sheetThick)
	d.rect(CutLayer, x, 0, across, high, 0)
	d.line(MarkLayer, x, up, x+across, up)
	d.line(MarkLayer, x+across/2, 0, x+across/2, high)
	for _, side := range []float64{-1, 1} {
		d.line(FoldLayer, x+across/2+side*thick/2, 0, x+across/2+side*thick/2, high)
	}
	if e := w.Edge; e != nil && e.Long == 0 && e.Bit > 0 {
		d.circle(x+across/2, up+e.Down.Value.MM()-line, (e.Bit.MM()+jigPlay)/2)
	}
	d.middle(x+across/2, 5, 3, of.Text("template-line.edge"))
	for i := range 4 {
		d.rect(CutLayer, x+float64(i)*(10+4), high+jigGap, 10, min(wide, 60), 0)
	}
	d.text(x, high+jigGap-3, 3, of.say("template-line.feet", message.Args{
		"thick": message.Exact(measure.FromMM(jigFoot)),
	}))
	d.Width, d.Height = x+max(across, 56), max(2*high+jigGap, high+jigGap+60)
	return d, nil
}

// hingeStrip guides the leaves of some hinges from one setting: a window for each, open at the pull face, on a strip
// along the hinge side. On the slab its shoulder lies on the slab's top. On the jamb it is turned over, and its nib, as
// long as the head margin, touches the head.
func hingeStrip(of drawn, title message.ID, o job.Opening, leaves []hinges.Hinge, r lock.Router) (Draft, error) {
	c := o.Hinges
	if err := r.Check(min(c.Width, c.Leaf)); err != nil {
		return Draft{}, err
	}
	more := (r.Bush - r.Cutter).MM()
	w, h := c.Width.MM()+more/2, c.Leaf.MM()+more // open at the pull face
	nib := (leaves[0].Jamb.Value - leaves[0].Slab.Value).MM()
	d := Draft{voice: of.Voice, Title: of.title(title), Width: w + cheek}
	from := nib
	for _, k := range leaves {
		top := k.Jamb.Value.MM() - more/2
		d.line(CutLayer, 0, from, 0, top)
		d.line(CutLayer, 0, top, w, top)
		d.line(CutLayer, w, top, w, top+h)
		d.line(CutLayer, w, top+h, 0, top+h)
		d.rect(MarkLayer, 0, k.Jamb.Value.MM(), c.Width.MM(), c.Leaf.MM(), 0)
		d.text(w+2, top+h/2, 2.5, of.Text(k.Name))
		from = top + h
	}
	d.Height = from + cheek
	d.line(CutLayer, 0, from, 0, d.Height)
	d.line(CutLayer, 0, d.Height, d.Width, d.Height)
	d.line(CutLayer, d.Width, d.Height, d.Width, 0)
	d.line(CutLayer, d.Width, 0, d.Width-cheek/2, 0)
	d.line(CutLayer, d.Width-cheek/2, 0, d.Width-cheek/2, nib)
	d.line(CutLayer, d.Width-cheek/2, nib, 0, nib)
	d.text(4, nib+6, 3.5, of.say("template-line.leaf", message.Args{
		"long": message.Near(c.Leaf), "wide": message.Near(c.Width), "deep": message.Near(c.Plate),
	}))
	d.text(
		4, nib+11, 3,
		of.say("template-line.router", message.Args{"cutter": message.Exact(r.Cutter), "bush": message.Exact(r.Bush)}),
	)
	d.text(4, nib+18, 2.5, of.Text("template-line.on-slab"))
	d.text(4, nib+22, 2.5, of.Text("template-line.on-jamb"))
	d.text(4, d.Height-8, 2.5, of.Text("template-line.fence"))
	d.text(4, d.Height-4, 3, of.Text("template-line.left"))
	return d, nil
}
