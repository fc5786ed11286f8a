package fit

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/peterstace/simplefeatures/geom"
	"github.com/stretchr/testify/require"

	"kindmargin/core/frame"
	"kindmargin/core/measure"
	"kindmargin/core/survey"
)

// Over thousands of seeded random surveys the finished outline lies inside the
// estimated opening with every gap at least the least margin, judged by the
// simplefeatures geometry library: the opening is a polygon of the estimate's
// own side points, drawn here in the elevation frame, and the outline is
// turned back into it by hand.
func TestTheOutlineLiesInsideByAnotherGeometry(t *testing.T) {
	rng := rand.New(rand.NewPCG(21, 22))
	off := func(by float64) measure.Length { return mm(by * (2*rng.Float64() - 1)) }
	for range 2000 {
		w, h := mm(600+400*rng.Float64()), mm(1900+200*rng.Float64())
		rs := []survey.Reading{
			{Kind: survey.Width, At: mm(200), Value: w + off(6)},
			{Kind: survey.Width, At: mm(1000), Value: w},
			{Kind: survey.Width, At: mm(1800), Value: w + off(6)},
			{Kind: survey.Height, At: mm(30), Value: h},
			{Kind: survey.Height, At: w - mm(30), Value: h + off(6)},
			{Kind: survey.Plumb, Side: frame.Hinge, At: mm(1800), From: mm(200), Value: off(8)},
			{Kind: survey.Straight, Side: frame.Hinge, At: mm(1000), From: mm(200), To: mm(1800), Value: off(4)},
			{Kind: survey.Level, Side: frame.Head, At: w - mm(30), From: mm(30), Value: off(5)},
		}
		p := survey.OldOpening(w.MM(), h.MM())
		shape, err := survey.Estimate(rs, nil, p)
		require.NoError(t, err)
		o, err := Draw(shape, wanted)
		require.NoError(t, err)

		at := func(s frame.Side, place float64) float64 { m, _ := shape.At(s, place); return m }
		// Sides at the stations that the outline was drawn by, each run a little
		// past the corners so that they cross.
		side := func(s frame.Side, reach float64, n int) geom.Geometry {
			var xy []float64
			for i := range n {
				place := reach * float64(i) / float64(n-1)
				if s.Upright() {
					xy = append(xy, at(s, place), place)
				} else {
					xy = append(xy, place, at(s, place))
				}
			}
			return geom.NewLineString(geom.NewSequence(xy, geom.DimXY)).AsGeometry()
		}
		sides := map[frame.Side]geom.Geometry{
			frame.Hinge: side(frame.Hinge, p.Height, jambStations),
			frame.Lock:  side(frame.Lock, p.Height, jambStations),
			frame.Head:  side(frame.Head, p.Width, headStations), frame.Foot: side(frame.Foot, p.Width, headStations),
		}
		// Turn the outline back: the line of the pins, found again from the jamb.
		jamb := make([]Point, jambStations)
		for i := range jamb {
			v := p.Height * float64(i) / (jambStations - 1)
			jamb[i] = Point{v, at(frame.Hinge, v)}
		}
		pins, _, _ := Minimax(jamb)
		var ring []float64
		for _, c := range o.Corners() {
			// x, y are along unit vectors (1, −B)/√ and (B, 1)/√ from (A, 0).
			r := 1 / math.Sqrt(1+pins.B*pins.B)
			ring = append(ring, pins.A+(c.X+pins.B*c.Y)*r, (c.Y-pins.B*c.X)*r)
		}
		ring = append(ring, ring[:2]...)
		slab := geom.NewPolygon([]geom.LineString{geom.NewLineString(geom.NewSequence(ring, geom.DimXY))})
		require.NoError(t, slab.Validate())
		for s, line := range sides {
			d, ok := geom.Distance(slab.AsGeometry(), line)
			require.True(t, ok)
			require.GreaterOrEqual(t, d, wanted.Least-0.01, "%v", s)
		}
		frameRing := []float64{
			at(frame.Hinge, 0), at(frame.Foot, 0), at(frame.Lock, 0), at(frame.Foot, p.Width),
			at(frame.Lock, p.Height), at(frame.Head, p.Width), at(frame.Hinge, p.Height), at(frame.Head, 0),
			at(frame.Hinge, 0), at(frame.Foot, 0),
		}
		hole := geom.NewPolygon([]geom.LineString{geom.NewLineString(geom.NewSequence(frameRing, geom.DimXY))})
		require.NoError(t, hole.Validate())
		inside, err := geom.Contains(hole.AsGeometry(), slab.Centroid().AsGeometry())
		require.NoError(t, err)
		require.True(t, inside)
	}
}
