package linings

import (
	"kindmargin/core/figure"
	"kindmargin/core/frame"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/site"
)

// Clear is the clear size of a frame made to the slab; nil where none is made, or the slab is not measured. wanted are
// the margins of a leaf. Common practice: clear width = slab and two margins, clear height = slab, head margin, and
// foot margin over the finished floor.
func Clear(d site.Opening, wanted frame.Each[figure.Figure]) *site.Clear {
	c := d.Framed()
	if c == nil || c.Thick == 0 {
		return nil
	}
	head, hinge, lock, foot := wanted[frame.Head], wanted[frame.Hinge], wanted[frame.Lock], wanted[frame.Foot]
	var width []figure.Term
	var long measure.Length
	bays := site.Bays(d)
	for i, b := range bays {
		s := b.Slab
		if s.Width == 0 || s.Length == 0 {
			return nil
		}
		name := message.ID("term.slab-widest")
		if len(bays) > 1 {
			name = []message.ID{"term.hinge-leaf-widest", "term.lock-leaf-widest"}[i]
		}
		width = append(
			width, figure.Term{Label: name, Value: max(s.Width, s.WidthMid, s.WidthFoot), Source: figure.Reading},
			figure.Term{Label: "term.hinge-margin-wanted", Value: hinge.Value, Source: figure.Choice},
		)
		if i == 0 {
			width = append(width, figure.Term{
				Label: "term.lock-margin-wanted", Value: lock.Value, Source: figure.Choice,
			})
		} else {
			width = append(width, figure.Term{
				Label: "term.other-half-between", Value: d.Pair.Meeting - lock.Value, Source: figure.Choice,
			})
		}
		long = max(long, s.Length, s.LengthLock)
	}
	height := []figure.Term{
		{Label: "term.slab-longest", Value: long, Source: figure.Reading},
		{Label: "term.head-margin-wanted", Value: head.Value, Source: figure.Choice},
		{Label: "term.foot-margin-wanted", Value: foot.Value, Source: figure.Choice},
	}
	if high := highest(d); high > 0 {
		height = append(height, figure.Term{Label: "term.floor-highest", Value: high, Source: figure.Reading})
	}
	return &site.Clear{Width: figure.Sum(0, width...), Height: figure.Sum(0, height...)}
}

// highest is the height of the floor's highest place above that under the hinge jamb of a frame made to the slab: under
// the lock jamb, between, or in the slab's swing, which is relative to the floor under the closed slab's free corner.
func highest(d site.Opening) measure.Length {
	c := d.Framed()
	if c == nil || c.Kept() {
		return 0
	}
	high := c.Highest()
	for _, f := range d.Swing.Floor {
		high = max(high, c.AtLock()+f.Up)
	}
	return high
}
