package job

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kindmargin/core/hinge"
	"kindmargin/core/lock"
	"kindmargin/core/measure"
)

// What is chosen goes to another door; what its jambs decide stays: old pockets and a strike
// that is there keep their heights, and a floor still to come is the room's.
func TestChoicesAreTaken(t *testing.T) {
	mm := measure.FromMM
	from := NewOpening("a", "Study", measure.Millimetres)
	from.Margins.School, from.Margins.Floor, from.Margins.Sweep = "prefinished", mm(12), true
	own := mm(2)
	from.Margins.Lock = &own
	from.Hinges = hinge.Choice{
		From: "7and11", Count: 3, Leaf: mm(100), Width: mm(32), Plate: mm(2.5), Closed: mm(8), Size: "butt-100",
		Third: hinge.MoveUp,
	}
	from.Swing.Pin = mm(6)
	from.Lock = lock.Choice{
		From: lock.FromHandle, Handle: mm(1040), Backset: mm(44), Bore: mm(22), Hardware: "bathroom-64", Strike: mm(990),
		Reach: "uk", When: lock.First, Tight: true,
	}

	plain := NewOpening("b", "Bath", measure.Millimetres)
	got := plain.Takes(from, Parts)
	assert.Equal(t, "prefinished", got.Margins.School)
	assert.Equal(t, &own, got.Margins.Lock)
	assert.Zero(t, got.Margins.Floor)
	assert.False(t, got.Margins.Sweep)
	assert.Equal(t, from.Hinges, got.Hinges)
	assert.Equal(t, mm(6), got.Swing.Pin)
	assert.Equal(t, "bathroom-64", got.Lock.Hardware)
	assert.Equal(t, mm(1040), got.Lock.Handle)
	assert.Equal(t, lock.First, got.Lock.When, "the house's school")
	assert.True(t, got.Lock.Tight)
	assert.Zero(t, got.Lock.Strike, "the other jamb's strike is not this one's")
	assert.NoError(t, got.Check())

	old := NewOpening("c", "Boot room", measure.Millimetres)
	old.Hinges.From, old.Hinges.Pockets, old.Hinges.Count = hinge.FromPockets, []measure.Length{mm(163), mm(1718)}, 2
	old.Lock.From, old.Lock.Strike = lock.FromStrike, mm(1041)
	got = old.Takes(from, Parts)
	assert.Equal(t, hinge.FromPockets, got.Hinges.From)
	assert.Equal(t, old.Hinges.Pockets, got.Hinges.Pockets)
	assert.Equal(t, 2, got.Hinges.Count)
	assert.Equal(t, mm(100), got.Hinges.Leaf)
	assert.Equal(t, lock.FromStrike, got.Lock.From)
	assert.Equal(t, mm(1041), got.Lock.Strike)
	assert.Equal(t, old.Lock.Handle, got.Lock.Handle)
	assert.Equal(t, "bathroom-64", got.Lock.Hardware)

	assert.Equal(t, plain.Hinges, plain.Takes(from, []Part{PartMargins, PartLock}).Hinges, "only what is asked for")
	assert.Equal(t, plain.Hinges.From, plain.Takes(old, Parts).Hinges.From, "pockets of another jamb are not copied")
}

// A job's own usual choices go into each door that is put on its walk, are kept in its file,
// and are refused where no door could begin with them.
func TestADoorBeginsWithWhatIsUsual(t *testing.T) {
	j := NewJob("house", "House", measure.Millimetres)
	from := j.Begin("a", "Study")
	assert.Equal(t, NewOpening("a", "Study", measure.Millimetres), from, "at first as the unit has it")
	from.Margins.School = "prefinished"
	from.Hinges.Size, from.Hinges.Leaf = "butt-100", measure.FromMM(100)
	from.Readings = nil
	j.Usual = j.Usual.Set(j.Unit, from, []Part{PartMargins, PartHinges})
	next := j.Begin("b", "Bath")
	assert.Equal(t, "prefinished", next.Margins.School)
	assert.Equal(t, "butt-100", next.Hinges.Size)
	assert.Nil(t, j.Usual.Lock)
	b, err := Encode(j)
	require.NoError(t, err)
	again, err := Decode(b)
	require.NoError(t, err)
	assert.Equal(t, j.Usual, again.Usual)
	j.Usual = j.Usual.Without([]Part{PartHinges})
	assert.Equal(t, NewOpening("", "", j.Unit).Hinges, j.Begin("c", "Hall").Hinges)

	j.Usual.Hinges = &UsualHinges{Choice: from.Hinges}
	j.Usual.Hinges.Choice.Size = "brass"
	assert.ErrorContains(t, j.CheckHead(), "/usual/hinges/size")
}
