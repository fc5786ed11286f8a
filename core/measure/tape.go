package measure

import (
	"fmt"
	"strconv"
)

// Tape is the finest mark of a tape that is read and cut to.
type Tape string

// The tapes, each of one unit.
const (
	Tenths          Tape = "0.1mm"
	HalfMillimetre  Tape = "0.5mm"
	WholeMillimetre Tape = "1mm"
	SixtyFourths    Tape = "1/64in"
	ThirtySeconds   Tape = "1/32in"
	Sixteenths      Tape = "1/16in"
)

// known are a tape's properties.
type known struct {
	tape Tape
	unit Unit
	step Length
	like Tape
}

// tapes lists the properties of each tape, the finest of a unit first; like is the nearest in fineness in the other
// unit.
var tapes = []known{
	{Tenths, Millimetres, Millimetre / 10, SixtyFourths},
	{HalfMillimetre, Millimetres, Millimetre / 2, ThirtySeconds},
	{WholeMillimetre, Millimetres, Millimetre, Sixteenths},
	{SixtyFourths, Inches, Inch / 64, Tenths},
	{ThirtySeconds, Inches, Inch / 32, HalfMillimetre},
	{Sixteenths, Inches, Inch / 16, WholeMillimetre},
}

// Tapes lists a unit's tapes, the finest first.
func Tapes(u Unit) (list []Tape) {
	for _, k := range tapes {
		if k.unit == u {
			list = append(list, k.tape)
		}
	}
	return list
}

// UsualTape is the tape of a unit that most carpenters cut to.
func UsualTape(u Unit) Tape {
	if u == Inches {
		return ThirtySeconds
	}
	return HalfMillimetre
}

// Unit is the tape's unit.
func (t Tape) Unit() Unit { return t.known().unit }

// Step is the distance between two marks.
func (t Tape) Step() Length { return t.known().step }

// In returns the tape of another unit nearest in fineness.
func (t Tape) In(u Unit) Tape {
	k := t.known()
	if k.unit == u {
		return k.tape
	}
	return k.like
}

// known falls back to half a millimetre for a tape that is not listed.
func (t Tape) known() known {
	for _, k := range tapes {
		if k.tape == t {
			return k
		}
	}
	return UsualTape(Millimetres).known()
}

// Way is a direction of rounding.
type Way int

// Nearest rounds halves away from zero; Down and Up round toward −∞ and +∞.
const (
	Nearest Way = iota
	Down
	Up
)

// Round rounds l to a multiple of step. A step that is not positive leaves l as it is.
func (l Length) Round(step Length, way Way) Length {
	if step <= 0 {
		return l
	}
	rest := l % step
	if rest < 0 {
		rest += step
	}
	if rest == 0 {
		return l
	}
	down := l - rest
	switch {
	case way == Down:
		return down
	case way == Up:
		return down + step
	case 2*rest > step, 2*rest == step && l > 0:
		return down + step
	}
	return down
}

// Show formats l rounded to the nearest mark of the tape, without a unit: "777.5", or in inches a whole and a reduced
// fraction, "30 5/8".
func (t Tape) Show(l Length) string {
	return Exact(l.Round(t.Step(), Nearest), t.Unit())
}

// Exact formats l in a unit without rounding, and without the unit where l is on a mark of it (1/64 in, or any decimal
// of a millimetre); a length on no 64th is given in millimetres, with "mm". Show, Say and Fine round first, each to its
// own step, and format by Exact.
func Exact(l Length, u Unit) string {
	if u != Inches {
		return l.decimal(Millimetre)
	}
	if l%(Inch/64) == 0 {
		return inches(l)
	}
	return l.String()
}

// Say formats l with its unit, for a sentence: exactly in millimetres, to the nearest 64th in inches.
func Say(l Length, u Unit) string {
	if u == Inches {
		l = l.Round(Inch/64, Nearest)
	}
	return Exact(l, u) + " " + string(u)
}

// Fine formats l without a unit to a tenth of a millimetre or a 64th of an inch, finer than any tape, rounded in the
// given way.
func Fine(l Length, way Way, u Unit) string {
	step := Millimetre / 10
	if u == Inches {
		step = Inch / 64
	}
	return Exact(l.Round(step, way), u)
}

// Decimal formats l as a decimal number of a unit, exact where four places of a millimetre or six of an inch are
// enough, for sums worked by hand.
func Decimal(l Length, u Unit) string {
	if u != Inches {
		return l.Round(100*Nanometre, Nearest).decimal(Millimetre)
	}
	// 1 in is 25 400 000 nm, so l·10/254 counts millionths of an inch; whole inches are taken first to avoid overflow.
	millionths := l/Inch*1_000_000 + (l%Inch*10).Round(254, Nearest)/254
	return millionths.decimal(1_000_000)
}

// inches formats a whole number of 64ths of an inch.
func inches(l Length) string {
	sign := ""
	if l < 0 {
		sign, l = "-", -l
	}
	whole, num, den := int64(l/Inch), int64(l%Inch/(Inch/64)), int64(64)
	for num != 0 && num%2 == 0 {
		num, den = num/2, den/2
	}
	switch {
	case num == 0:
		return sign + strconv.FormatInt(whole, 10)
	case whole == 0:
		return fmt.Sprintf("%s%d/%d", sign, num, den)
	}
	return fmt.Sprintf("%s%d %d/%d", sign, whole, num, den)
}
