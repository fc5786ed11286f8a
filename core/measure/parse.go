package measure

import (
	"fmt"
	"math/big"
	"strings"
)

// Unit is the unit that a job is worked in: what a bare number means and how
// a length is shown.
type Unit string

// The two units of a job; NoUnit, the zero value, accepts only text that
// names its own unit.
const (
	NoUnit      Unit = ""
	Millimetres Unit = "mm"
	Inches      Unit = "in"
)

// Longest is the longest distance that is taken as a reading of a door, an
// opening or the wall it stands in.
const Longest = 30 * Metre

// ParseError says what was written and what could not be made of it.
type ParseError struct {
	Text    string // as written
	Problem string // completes a sentence that begins with the text
}

func (e *ParseError) Error() string {
	return fmt.Sprintf("%.40q %s.", e.Text, e.Problem)
}

// units lists what may follow a number, longest first where one begins
// another.
var units = []struct {
	name string
	size Length
}{
	{"millimetres", Millimetre},
	{"millimeters", Millimetre},
	{"centimetres", Centimetre},
	{"centimeters", Centimetre},
	{"metres", Metre},
	{"meters", Metre},
	{"inches", Inch},
	{"inch", Inch},
	{"feet", Foot},
	{"foot", Foot},
	{"mm", Millimetre},
	{"cm", Centimetre},
	{"in", Inch},
	{"ft", Foot},
	{"''", Inch},
	{"m", Metre},
	{`"`, Inch},
	{"'", Foot},
}

// typed replaces what keyboards and phones put in by themselves.
var typed = strings.NewReplacer(
	"½", " 1/2", "¼", " 1/4", "¾", " 3/4",
	"⅛", " 1/8", "⅜", " 3/8", "⅝", " 5/8", "⅞", " 7/8",
	"⁄", "/", "′", "'", "″", `"`, "’", "'", "‘", "'", "”", `"`, "“", `"`,
	"−", "-", "–", "-", "\u00a0", " ", "\u2009", " ", "\u202f", " ", "\t", " ",
)

// Parse reads a length as people write it: "778", "777.5mm", "77.8 cm",
// "777,5", "30 5/8", `30-5/8"`, `2' 6 5/8"`, "-1/16", "2ft". A number
// without a unit takes the unit given, or the unit of feet-and-inches it
// stands in. Errors are *ParseError and say what was understood. A length
// finer than a nanometre is rounded to one; one beyond ±Longest is an error.
func Parse(text string, unit Unit) (Length, error) {
	fail := func(format string, a ...any) (Length, error) {
		return 0, &ParseError{Text: text, Problem: fmt.Sprintf(format, a...)}
	}
	s := strings.ToLower(strings.TrimSpace(typed.Replace(text)))
	if s == "" {
		return fail("is empty: type a length such as %s", example(unit))
	}
	if len(s) > 40 {
		return fail("is too long to be a length")
	}
	negative := strings.HasPrefix(s, "-")
	if negative || strings.HasPrefix(s, "+") {
		s = strings.TrimSpace(s[1:])
	}

	total, last := new(big.Rat), Length(0)
	for parts := 0; s != ""; parts++ {
		n, rest, err := number(s)
		if err != "" {
			return fail("%s", err)
		}
		size, rest, named := unitOf(rest)
		if word := strings.TrimLeft(rest, " "); !named && word != "" && word[0] >= 'a' && word[0] <= 'z' {
			return fail("has %.40q where mm, cm, m, in or ft can stand", word)
		}
		switch {
		case parts > 0 && !(last == Foot && (!named || size == Inch)):
			return fail("is two lengths run together: give one, or feet then inches")
		case named:
		case last == Foot:
			size = Inch
		case unit == Millimetres:
			size = Millimetre
		case unit == Inches:
			size = Inch
		default:
			return fail("has no unit: write mm or in after it")
		}
		total.Add(total, n.Mul(n, new(big.Rat).SetInt64(int64(size))))
		last = size
		s = strings.TrimLeft(rest, " ")
		if last == Foot {
			s = strings.TrimLeft(strings.TrimPrefix(s, "-"), " ")
		}
	}
	if total.Cmp(new(big.Rat).SetInt64(int64(Longest))) > 0 {
		mm, _ := total.Float64()
		return fail("was understood as %.6g m, longer than any door or wall", mm/float64(Metre))
	}
	l := nearest(total)
	if negative {
		l = -l
	}
	return l, nil
}

func example(u Unit) string {
	if u == Inches {
		return "30 5/8"
	}
	return "777.5"
}

// number reads "30", "30.625", "777,5", "5/8", "30 5/8" or "30-5/8" from the
// front of s. The message is empty when it could.
func number(s string) (n *big.Rat, rest, message string) {
	whole, rest := digits(s)
	if whole == "" && !strings.HasPrefix(s, ".") && !strings.HasPrefix(s, ",") {
		return nil, "", "is not a length: it should begin with a number"
	}
	if den, after, ok := fraction(rest); ok {
		return ratio(whole, den, after)
	}
	if strings.HasPrefix(rest, ".") || strings.HasPrefix(rest, ",") {
		dec, after := digits(rest[1:])
		switch {
		case dec == "":
			return nil, "", "ends in a decimal point: what follows it?"
		case strings.HasPrefix(after, ".") || strings.HasPrefix(after, ","):
			return nil, "", "has two decimal points: write thousands without a separator"
		case strings.HasPrefix(after, "/"):
			return nil, "", "has a decimal inside a fraction: write one or the other"
		}
		r, ok := new(big.Rat).SetString("0" + whole + "." + dec)
		if !ok {
			return nil, "", "is not a length"
		}
		return r, after, ""
	}
	n, _ = new(big.Rat).SetString(whole)
	sep := strings.TrimLeft(rest, " ")
	if strings.HasPrefix(sep, "-") {
		sep = strings.TrimLeft(sep[1:], " ")
	} else if sep == rest {
		return n, rest, "" // nothing stands between the number and what follows
	}
	num, after := digits(sep)
	den, after, ok := fraction(after)
	if num == "" || !ok {
		return n, rest, ""
	}
	f, after, message := ratio(num, den, after)
	if message != "" {
		return nil, "", message
	}
	if f.Cmp(big.NewRat(1, 1)) >= 0 {
		return nil, "", fmt.Sprintf("has the fraction %s/%s, which is not less than one", num, den)
	}
	return n.Add(n, f), after, ""
}

// fraction reads "/64" from the front of s.
func fraction(s string) (den, rest string, ok bool) {
	t := strings.TrimLeft(s, " ")
	if !strings.HasPrefix(t, "/") {
		return "", s, false
	}
	den, rest = digits(strings.TrimLeft(t[1:], " "))
	return den, rest, true
}

func ratio(num, den, rest string) (*big.Rat, string, string) {
	if den == "" {
		return nil, "", "has a fraction with nothing under the line"
	}
	r, ok := new(big.Rat).SetString(num + "/" + den)
	if !ok {
		return nil, "", "has a fraction over nought"
	}
	if strings.HasPrefix(rest, "/") {
		return nil, "", "has a fraction with two lines"
	}
	return r, rest, ""
}

func digits(s string) (head, rest string) {
	i := 0
	for i < len(s) && s[i] >= '0' && s[i] <= '9' {
		i++
	}
	return s[:i], s[i:]
}

func unitOf(s string) (size Length, rest string, ok bool) {
	t := strings.TrimLeft(s, " ")
	for _, u := range units {
		if after, found := strings.CutPrefix(t, u.name); found {
			if u.name[0] >= 'a' {
				after = strings.TrimPrefix(after, ".") // "35 in."
				if after != "" && after[0] >= 'a' && after[0] <= 'z' {
					continue
				}
			}
			return u.size, after, true
		}
	}
	return 0, s, false
}

// nearest rounds a positive number of nanometres, halves up.
func nearest(r *big.Rat) Length {
	num := new(big.Int).Mul(r.Num(), big.NewInt(2))
	num.Add(num, r.Denom())
	den := new(big.Int).Mul(r.Denom(), big.NewInt(2))
	return Length(num.Quo(num, den).Int64())
}
