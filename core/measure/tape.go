package measure

import (
	"fmt"
	"strconv"
)

// Tape is the finest mark that a person reads and cuts to.
type Tape string

// The tapes in use. Each is tied to one unit.
const (
	Tenths          Tape = "0.1mm"
	HalfMillimetre  Tape = "0.5mm"
	WholeMillimetre Tape = "1mm"
	SixtyFourths    Tape = "1/64in"
	ThirtySeconds   Tape = "1/32in"
	Sixteenths      Tape = "1/16in"
)

// known is what is known of a tape.
type known struct {
	tape Tape
	unit Unit
	step Length
	like Tape
}

// tapes are what is known of each, the finest of a unit first: like is the one nearest in
// fineness in the other unit.
var tapes = []known{
	{Tenths, Millimetres, Millimetre / 10, SixtyFourths},
	{HalfMillimetre, Millimetres, Millimetre / 2, ThirtySeconds},
	{WholeMillimetre, Millimetres, Millimetre, Sixteenths},
	{SixtyFourths, Inches, Inch / 64, Tenths},
	{ThirtySeconds, Inches, Inch / 32, HalfMillimetre},
	{Sixteenths, Inches, Inch / 16, WholeMillimetre},
}

// Tapes lists them for a unit, the finest first.
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

// Unit is the unit that the tape is marked in.
func (t Tape) Unit() Unit { return t.known().unit }

// Step is the distance between two marks.
func (t Tape) Step() Length { return t.known().step }

// In returns the tape nearest in fineness in another unit, so that a figure
// can be shown the other way on a tap.
func (t Tape) In(u Unit) Tape {
	k := t.known()
	if k.unit == u {
		return k.tape
	}
	return k.like
}

// known gives what is known of half a millimetre for a tape that is not one of the six.
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

// Nearest rounds halves away from nought; Down and Up go toward −∞ and +∞.
const (
	Nearest Way = iota
	Down
	Up
)

// Round brings l to a multiple of step in the way given. A step that is not
// positive leaves l as it is.
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

// Show prints l rounded to the nearest mark of the tape, with no unit:
// "777.5", or in inches a whole and a reduced fraction, "30 5/8".
func (t Tape) Show(l Length) string {
	return Exact(l.Round(t.Step(), Nearest), t.Unit())
}

// Exact is the one printer of lengths: Show, Say and Fine round first, each to
// its own step, and print by it. It prints l in a unit without rounding, with
// no unit where the length falls on a mark of that unit (1/64 in, or any decimal
// of a millimetre). A length that no 64th meets is given in millimetres and says so.
func Exact(l Length, u Unit) string {
	if u != Inches {
		return l.decimal(Millimetre)
	}
	if l%(Inch/64) == 0 {
		return inches(l)
	}
	return l.String()
}

// Say prints l with its unit, for a sentence: exactly in millimetres, to the
// nearest 64th in inches.
func Say(l Length, u Unit) string {
	if u == Inches {
		l = l.Round(Inch/64, Nearest)
	}
	return Exact(l, u) + " " + string(u)
}

// Fine prints l with no unit to more places than any tape has: to a tenth of a
// millimetre or a 64th of an inch, rounded in the way given.
func Fine(l Length, way Way, u Unit) string {
	step := Millimetre / 10
	if u == Inches {
		step = Inch / 64
	}
	return Exact(l.Round(step, way), u)
}

// Decimal prints l as a decimal number of a unit, exactly where four places
// of a millimetre or six of an inch are enough, for sums worked by hand.
func Decimal(l Length, u Unit) string {
	if u != Inches {
		return l.Round(100*Nanometre, Nearest).decimal(Millimetre)
	}
	// 1 in is 25 400 000 nm, so l·10/254 counts millionths of an inch; the
	// whole inches are taken first so that nothing overflows.
	millionths := l/Inch*1_000_000 + (l%Inch*10).Round(254, Nearest)/254
	return millionths.decimal(1_000_000)
}

// inches prints a whole number of 64ths of an inch.
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
