package survey

import (
	"fmt"
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kindmargin/core/field"
	"kindmargin/core/frame"
	"kindmargin/core/measure"
	"kindmargin/core/message"
)

// truth is a crooked opening whose sides are known functions, from which
// every school's readings are worked out by geometry alone.
type truth struct{ h, l, t, f func(float64) float64 }

var crooked = truth{
	h: func(v float64) float64 { return 0.0015*v + 1.5*math.Sin(math.Pi*v/2030) },
	l: func(v float64) float64 { return 826 + 0.003*v - 1.2*math.Sin(math.Pi*v/2030) },
	t: func(u float64) float64 { return 2030 - 0.004*u },
	f: func(u float64) float64 { return 0.003 * u },
}

func (o truth) side(s frame.Side, at float64) float64 {
	return map[frame.Side]func(float64) float64{
		frame.Hinge: o.h, frame.Lock: o.l, frame.Head: o.t, frame.Foot: o.f,
	}[s](at)
}

// corner is where a jamb meets head or floor.
func (o truth) corner(jamb, end frame.Side) (u, v float64) {
	for range 20 {
		u, v = o.side(jamb, v), o.side(end, u)
	}
	return u, v
}

// read works out a reading's exact value. The slab of a gap stands with its
// foot corner at (8, 8), turned so that its head leans 0.002 to the hinge.
func (o truth) read(r Reading, slab Offer) Reading {
	at, from := r.At.MM(), r.From.MM()
	var v float64
	switch r.Kind {
	case Width:
		v = o.l(at) - o.h(at)
	case Height:
		v = o.t(at) - o.f(at)
	case Plumb:
		v = o.side(r.Side, at) - o.side(r.Side, from)
		if r.Side == frame.Lock {
			v = -v
		}
	case Level:
		v = o.side(r.Side, at) - o.side(r.Side, from)
	case Straight:
		f := (at - from) / (r.To.MM() - from)
		v = o.side(r.Side, at) - (1-f)*o.side(r.Side, from) - f*o.side(r.Side, r.To.MM())
		if r.Side == frame.Hinge || r.Side == frame.Foot {
			v = -v
		}
	case Square:
		// The stock lies on the jamb from the corner down; the blade's end.
		cu, cv := o.corner(r.Side, frame.Head)
		du := o.side(r.Side, cv) - o.side(r.Side, cv-at)
		tilt := math.Atan(du / at)
		if r.Side == frame.Hinge {
			v = o.t(cu+at*math.Cos(tilt)) - (cv - at*math.Sin(tilt))
		} else {
			v = o.t(cu-at*math.Cos(tilt)) - (cv + at*math.Sin(tilt))
		}
	case Diagonal:
		far := frame.Lock
		if r.Side == frame.Lock {
			far = frame.Hinge
		}
		au, av := o.corner(r.Side, frame.Foot)
		bu, bv := o.corner(far, frame.Head)
		v = math.Hypot(bu-au, bv-av)
	case Gap:
		const u0, v0, lean = 8, 8, 0.002
		switch r.Side {
		case frame.Hinge:
			v = u0 - lean*at - o.h(v0+at)
		case frame.Lock:
			v = o.l(v0+at) - (u0 + slab.Width.MM() - lean*at)
		case frame.Head:
			v = o.t(u0+at) - (v0 + slab.Length.MM() + lean*at)
		case frame.Foot:
			v = v0 + lean*at - o.f(u0+at)
		}
	}
	r.Value = mm(v)
	return r
}

var schools = map[string][]Reading{
	"tape and square": {
		{Kind: Width, At: mm(200)},
		{Kind: Width, At: mm(1000)},
		{Kind: Width, At: mm(1800)},
		{Kind: Height, At: mm(50)},
		{Kind: Height, At: mm(770)},
		{Kind: Square, Side: frame.Hinge, At: mm(600)},
		{Kind: Square, Side: frame.Lock, At: mm(600)},
	},
	"plumb and level": {
		{Kind: Width, At: mm(1000)},
		{Kind: Height, At: mm(400)},
		{Kind: Plumb, Side: frame.Hinge, At: mm(1800), From: mm(200)},
		{Kind: Plumb, Side: frame.Lock, At: mm(1800), From: mm(200)},
		{Kind: Straight, Side: frame.Hinge, At: mm(1000), From: mm(200), To: mm(1800)},
		{Kind: Straight, Side: frame.Lock, At: mm(1000), From: mm(200), To: mm(1800)},
		{Kind: Level, Side: frame.Head, At: mm(770), From: mm(50)},
		{Kind: Level, Side: frame.Foot, At: mm(770), From: mm(50)},
	},
	"diagonals": {
		{Kind: Width, At: mm(100)},
		{Kind: Width, At: mm(1000)},
		{Kind: Width, At: mm(1900)},
		{Kind: Height, At: mm(20)},
		{Kind: Height, At: mm(800)},
		{Kind: Diagonal, Side: frame.Hinge},
		{Kind: Diagonal, Side: frame.Lock},
	},
	"offered up": {
		{Kind: Gap, Offer: "s", Side: frame.Hinge, At: mm(200)},
		{Kind: Gap, Offer: "s", Side: frame.Hinge, At: mm(1000)},
		{Kind: Gap, Offer: "s", Side: frame.Hinge, At: mm(1800)},
		{Kind: Gap, Offer: "s", Side: frame.Lock, At: mm(200)},
		{Kind: Gap, Offer: "s", Side: frame.Lock, At: mm(1000)},
		{Kind: Gap, Offer: "s", Side: frame.Lock, At: mm(1800)},
		{Kind: Gap, Offer: "s", Side: frame.Head, At: mm(50)},
		{Kind: Gap, Offer: "s", Side: frame.Head, At: mm(750)},
		{Kind: Gap, Offer: "s", Side: frame.Foot, At: mm(50)},
		{Kind: Gap, Offer: "s", Side: frame.Foot, At: mm(750)},
	},
}

// wantedOf are figures of shape alone: widths, heights and how far the head is
// out of square to the hinge jamb, which every school tells.
func wantedOf(h, w float64) map[string]Row {
	return map[string]Row{
		"width low":  {{Of(frame.Lock), 200, 1}, {Of(frame.Hinge), 200, -1}},
		"width mid":  {{Of(frame.Lock), 1000, 1}, {Of(frame.Hinge), 1000, -1}},
		"width high": {{Of(frame.Lock), 1800, 1}, {Of(frame.Hinge), 1800, -1}},
		"height":     {{Of(frame.Head), 400, 1}, {Of(frame.Foot), 400, -1}},
		"square": {
			{Of(frame.Head), w, 1}, {Of(frame.Head), 0, -1}, {Of(frame.Hinge), h, w / h}, {Of(frame.Hinge), 0, -w / h},
		},
	}
}

// Each school, alone and mixed with each other one, gives the same opening
// back, to its own sigma, from exact readings.
func TestEverySchoolGivesTheSameOpening(t *testing.T) {
	slab := Offer{ID: "s", Name: "slab", Width: mm(815), Length: mm(2010)}
	p := OldOpening(828, 2029)
	check := func(name string, rs []Reading) {
		s, err := Estimate(rs, []Offer{slab}, p)
		require.NoError(t, err, name)
		for what, row := range wantedOf(2029, 828) {
			m, sd := s.Of(row)
			var want float64
			for _, c := range row {
				want += c.By * crooked.side(frame.Side(c.Of), c.At)
			}
			assert.InDelta(t, want, m, 2*sd, "%s: %s", name, what)
			assert.Less(t, sd, 2.6, "%s: %s is told by this school", name, what)
		}
		assert.Empty(t, s.Suspects(), name)
	}
	for a, first := range schools {
		var rs []Reading
		for _, r := range first {
			rs = append(rs, crooked.read(r, slab))
		}
		check(a, rs)
		for b, second := range schools {
			if a < b {
				both := rs
				for _, r := range second {
					both = append(both, crooked.read(r, slab))
				}
				check(a+" and "+b, both)
			}
		}
	}
}

// A rigid opening from three sides and both diagonals, against the direct
// solution of the quadrilateral: with A at the origin, B on the floor line at
// distance w, C and D found as intersections of circles.
func TestDiagonalsAgainstTheQuadrilateral(t *testing.T) {
	const foot, left, right, d1, d2 = 800.0, 2000.0, 1996.0, 2158.0, 2150.0
	circles := func(bx, ra, rb float64) (x, y float64) { // about (0,0) and (bx,0)
		x = (ra*ra - rb*rb + bx*bx) / (2 * bx)
		return x, math.Sqrt(ra*ra - x*x)
	}
	dx, dy := circles(foot, left, d2)  // head corner at the hinge: from both feet
	cx, cy := circles(foot, d1, right) // head corner at the lock
	p := OldOpening(800, 1998)
	p.JambBow, p.HeadBow = 1e-4, 1e-4
	p.Lean, p.Slope = 0.05, 0.05
	sure := mm(0.001)
	s, err := Estimate([]Reading{
		{Kind: Width, At: 0, Value: mm(foot), PlusMinus: 2 * sure},
		{Kind: Height, At: 0, Value: mm(dy), PlusMinus: 2 * sure},
		{Kind: Level, Side: frame.Foot, At: mm(800), From: 0, Value: 0, PlusMinus: 2 * sure},
		{Kind: Level, Side: frame.Head, At: mm(800), From: 0, Value: mm(cy - dy), PlusMinus: 2 * sure},
		{Kind: Diagonal, Side: frame.Hinge, Value: mm(d1), PlusMinus: 2 * sure},
		{Kind: Diagonal, Side: frame.Lock, Value: mm(d2), PlusMinus: 2 * sure},
	}, nil, p)
	require.NoError(t, err)
	u, _ := s.At(frame.Lock, cy)
	assert.InDelta(t, cx, u, 0.06)
	u, _ = s.At(frame.Hinge, dy)
	assert.InDelta(t, dx, u, 0.06)
}

var fullTape = append(append([]Reading{}, schools["tape and square"]...), []Reading{
	{Kind: Plumb, Side: frame.Hinge, At: mm(1800), From: mm(200)},
	{Kind: Plumb, Side: frame.Lock, At: mm(1800), From: mm(200)},
	{Kind: Level, Side: frame.Head, At: mm(770), From: mm(50)},
	{Kind: Level, Side: frame.Foot, At: mm(770), From: mm(50)},
	{Kind: Width, At: mm(600)},
	{Kind: Width, At: mm(1400)},
}...)

func TestTheNextReadingIsTheOneThatHelpsMost(t *testing.T) {
	p := OldOpening(826, 2030)
	s, err := Estimate([]Reading{
		{Kind: Width, At: mm(1000), Value: mm(826)},
		{Kind: Height, At: mm(50), Value: mm(2030)},
	}, nil, p)
	require.NoError(t, err)
	square := wantedOf(2030, 826)["square"]
	gains := s.Best([]Row{square}, Candidates(mm(826), mm(2030), measure.Millimetres))
	require.NotEmpty(t, gains)
	assert.Contains(
		t, []Kind{Square, Diagonal}, gains[0].Reading.Kind, "the head corner is told by a square or a diagonal",
	)
	// What a reading promises is what it brings.
	best := gains[0].Reading
	best.Value = map[Kind]measure.Length{Square: mm(1), Diagonal: mm(2191)}[best.Kind]
	after, err := Estimate([]Reading{
		{Kind: Width, At: mm(1000), Value: mm(826)},
		{Kind: Height, At: mm(50), Value: mm(2030)},
		best,
	}, nil, p)
	require.NoError(t, err)
	_, sd := after.Of(square)
	assert.InDelta(t, gains[0].To, sd, 0.02)
	for i := 1; i < len(gains); i++ {
		assert.LessOrEqual(t, gains[i].Worth, gains[i-1].Worth)
	}
}

func TestSlips(t *testing.T) {
	cases := []struct {
		r         Reading
		predicted float64
		says      message.ID
	}{
		{Reading{Kind: Width, Value: mm(836)}, 826.4, "slip.10mm"},
		{Reading{Kind: Width, Value: mm(851)}, 826, "slip.1in"},
		{Reading{Kind: Plumb, Value: mm(4)}, -4.2, "slip.in-and-out"},
		{Reading{Kind: Straight, Value: mm(3)}, -2.8, "slip.light"},
		{Reading{Kind: Width, Value: mm(831)}, 826, ""},
	}
	for _, c := range cases {
		got := Suspect{Reading: c.r, Predicted: c.predicted, Sigma: 0.9}.Slip()
		assert.Equal(t, c.says, got)
	}
}

func TestTheSamePlaceReadTwiceApartIsAGroup(t *testing.T) {
	rs := []Reading{
		{ID: "a", Kind: Width, At: mm(1000), Value: mm(826)},
		{ID: "b", Kind: Width, At: mm(1000), Value: mm(841)},
		{ID: "c", Kind: Height, At: mm(50), Value: mm(2030)},
	}
	s, err := Estimate(rs, nil, OldOpening(830, 2030))
	require.NoError(t, err)
	x := s.Suspects()
	require.Len(t, x, 1)
	require.Len(t, x[0].Or, 1, "nothing tells which of the two is wrong")
	assert.ElementsMatch(t, []string{"a", "b"}, []string{x[0].Reading.ID, x[0].Or[0].ID})
}

func TestStruckAndUnknownOffers(t *testing.T) {
	rs := leaning()
	rs[1].Value += 10 * measure.Millimetre
	rs[1].Struck = "misread"
	s, err := Estimate(rs, nil, OldOpening(828, 2030))
	require.NoError(t, err)
	assert.Empty(t, s.Suspects(), "a reading that was struck out is kept but not used")
	_, err = Estimate(
		[]Reading{{Kind: Gap, Offer: "x", Side: frame.Lock, At: mm(100), Value: mm(3)}}, nil, OldOpening(828, 2030),
	)
	var oe field.Error
	require.ErrorAs(t, err, &oe)
	assert.Equal(t, "/offer", oe.Pointer)
}

// An old door that was trimmed to a crooked opening is no rectangle: what its
// gaps tell of the opening is as sure as the door was measured.
func TestAnOldDoorIsAsSureAsItWasMeasured(t *testing.T) {
	p := OldOpening(800, 2000)
	var gaps []Reading
	for _, v := range []float64{100, 1000, 1900} {
		for _, side := range []frame.Side{frame.Hinge, frame.Lock} {
			gaps = append(gaps, Reading{
				ID: fmt.Sprint(side, v), Kind: Gap, Offer: "d", Side: side, At: mm(v), Value: mm(3),
			})
		}
	}
	for _, u := range []float64{50, 740} {
		for _, side := range []frame.Side{frame.Head, frame.Foot} {
			gaps = append(gaps, Reading{
				ID: fmt.Sprint(side, u), Kind: Gap, Offer: "d", Side: side, At: mm(u), Value: mm(3),
			})
		}
	}
	// The door is 794 wide at its head and 788 at its foot, and the opening with it:
	// 3 mm of light all round.
	foot := Row{{Of(frame.Lock), 0, 1}, {Of(frame.Hinge), 0, -1}}
	once := Offer{ID: "d", Name: "old door", Width: mm(794), Length: mm(1994), Old: true}
	s, err := Estimate(gaps, []Offer{once}, p)
	require.NoError(t, err)
	w, sd := s.Of(foot)
	assert.Greater(t, 2*sd, math.Abs(w-794), "one width does not tell the foot's: ± holds the truth")
	assert.Greater(t, sd, 4.0)
	thrice := once
	thrice.WidthMid, thrice.WidthFoot = mm(791), mm(788)
	s, err = Estimate(gaps, []Offer{thrice}, p)
	require.NoError(t, err)
	w, sd = s.Of(foot)
	assert.InDelta(t, 794, w, 1)
	assert.Less(t, sd, 1.3, "its hook counted, which a tape has that measures the door")
	square := measure.Length(0)
	thrice.Square = &square
	thrice.LengthLock = mm(1994)
	// against square to the hinge jamb
	head := Row{
		{Of(frame.Head), 790, 1}, {Of(frame.Head), 0, -1}, {Of(frame.Hinge), 1900, 0.395}, {Of(frame.Hinge), 0, -0.395},
	}
	_, before := s.Of(head)
	s, err = Estimate(gaps, []Offer{thrice}, p)
	require.NoError(t, err)
	_, after := s.Of(head)
	assert.Less(t, after, before/2, "its square tells the head's")
}
