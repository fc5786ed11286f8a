// Package measure has the one type for a distance, parses what people write on site, and shows it rounded to the tape
// in use.
package measure

import (
	"encoding/json"
	"math"
	"strconv"
	"strings"
)

// Length is a distance as a whole number of nanometres, so that every
// 1/64 in (396 875 nm) and every micrometre is exact. The zero value is no
// distance. The range is far beyond any door: ±9.2 million kilometres.
type Length int64

// Units of length. The inch is exactly 25.4 mm (international yard and pound
// agreement, 1959).
const (
	Nanometre  Length = 1
	Micrometre        = 1000 * Nanometre
	Millimetre        = 1000 * Micrometre
	Centimetre        = 10 * Millimetre
	Metre             = 1000 * Millimetre
	Inch              = 25_400 * Micrometre
	Foot              = 12 * Inch
)

// MM returns l as float64 millimetres, for the solvers.
func (l Length) MM() float64 { return float64(l) / float64(Millimetre) }

// FromMM returns the Length nearest to a number of millimetres; NaN gives 0, infinities saturate.
func FromMM(mm float64) Length {
	nm := math.Round(mm * float64(Millimetre))
	switch {
	case math.IsNaN(nm):
		return 0
	case nm >= math.MaxInt64:
		return math.MaxInt64
	case nm <= math.MinInt64:
		return math.MinInt64
	}
	return Length(nm)
}

// Abs returns l without its sign.
func (l Length) Abs() Length {
	if l < 0 {
		return -l
	}
	return l
}

// String prints l exactly, in millimetres: "777.5 mm".
func (l Length) String() string { return l.decimal(Millimetre) + " mm" }

// decimal prints l exactly as a decimal number of units of u, where u is a power of ten nanometres.
func (l Length) decimal(u Length) string {
	sign, n := "", uint64(l)
	if l < 0 {
		sign, n = "-", -n
	}
	s := sign + strconv.FormatUint(n/uint64(u), 10)
	if frac := n % uint64(u); frac != 0 {
		digits := strconv.FormatUint(uint64(u)+frac, 10)[1:]
		s += "." + strings.TrimRight(digits, "0")
	}
	return s
}

// MarshalJSON encodes l as an exact decimal number of millimetres.
func (l Length) MarshalJSON() ([]byte, error) { return []byte(l.decimal(Millimetre)), nil }

// UnmarshalJSON decodes a number of millimetres, or text that names its unit ("30 5/8 in"). Digits under a nanometre
// are rounded.
func (l *Length) UnmarshalJSON(b []byte) error {
	s := string(b)
	if strings.HasPrefix(s, `"`) {
		if err := json.Unmarshal(b, &s); err != nil {
			return err
		}
		v, err := Parse(s, NoUnit)
		if err != nil {
			return err
		}
		*l = v
		return nil
	}
	if s == "null" {
		return nil
	}
	mm, err := strconv.ParseFloat(s, 64)
	if err != nil {
		return unread(s, "unread.no-millimetres")
	}
	if math.Abs(mm) > Longest.MM() {
		return unread(s, "unread.far", "metres", strconv.FormatFloat(mm/1000, 'g', 6, 64))
	}
	*l = FromMM(mm)
	return nil
}
