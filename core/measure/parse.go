package measure

import (
	"fmt"
	"math/big"
	"slices"
	"strconv"
	"strings"
)

// Unit is the unit of a job: the meaning of a bare number, and how a length is shown.
type Unit string

// The units of a job; NoUnit, the zero value, accepts only text that names its own unit.
const (
	NoUnit      Unit = ""
	Millimetres Unit = "mm"
	Inches      Unit = "in"
)

// Longest is the longest reading of a slab, an opening or its wall.
const Longest = 30 * Metre

// ParseError reports a text that is not a length.
type ParseError struct {
	Text    string // as written
	Problem string // its ID in the catalogue: "unread.empty"
	Args    map[string]any
}

func (e *ParseError) Error() string {
	if len(e.Args) > 0 {
		return fmt.Sprintf("%s %q %v", e.Problem, e.Text, e.Args)
	}
	return fmt.Sprintf("%s %q", e.Problem, e.Text)
}

// unread builds a ParseError; args are names and values by turns.
func unread(text, problem string, args ...any) *ParseError {
	e := &ParseError{Text: text, Problem: problem}
	for i := 0; i+1 < len(args); i += 2 {
		if e.Args == nil {
			e.Args = map[string]any{}
		}
		e.Args[args[i].(string)] = args[i+1]
	}
	return e
}

// units lists the suffixes of a number, longest first where one is a prefix of another.
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

// typed replaces typographic characters that keyboards and phones insert.
var typed = strings.NewReplacer(
	"½", " 1/2", "¼", " 1/4", "¾", " 3/4",
	"⅛", " 1/8", "⅜", " 3/8", "⅝", " 5/8", "⅞", " 7/8",
	"⁄", "/", "′", "'", "″", `"`, "’", "'", "‘", "'", "”", `"`, "“", `"`,
	"−", "-", "–", "-", "\u00a0", " ", "\u2009", " ", "\u202f", " ", "\t", " ",
)

// Parse reads a length as people write it: "778", "777.5mm", "77.8 cm", "777,5", "30 5/8", `30-5/8"`, `2' 6 5/8"`,
// "-1/16", "2ft". A number without a unit takes the given one, or that of the feet and inches it stands in. Errors are
// *ParseError. Digits under a nanometre are rounded; a length beyond ±Longest is an error.
func Parse(text string, unit Unit) (Length, error) {
	fail := func(problem string, args ...any) (Length, error) { return 0, unread(text, problem, args...) }
	s := strings.ToLower(strings.TrimSpace(typed.Replace(text)))
	if s == "" {
		return fail("unread.empty", "example", example(unit))
	}
	if len(s) > 40 {
		return fail("unread.long")
	}
	negative := strings.HasPrefix(s, "-")
	if negative || strings.HasPrefix(s, "+") {
		s = strings.TrimSpace(s[1:])
	}

	total, last := new(big.Rat), Length(0)
	for parts := 0; s != ""; parts++ {
		n, rest, problem := number(s)
		if problem != "" {
			return fail(problem)
		}
		size, rest, named := unitOf(rest)
		if word := strings.TrimLeft(rest, " "); !named && word != "" && word[0] >= 'a' && word[0] <= 'z' {
			return fail("unread.word", "word", word)
		}
		switch {
		case parts > 0 && !(last == Foot && (!named || size == Inch)):
			return fail("unread.two-lengths")
		case named:
		case last == Foot:
			size = Inch
		case unit == Millimetres:
			size = Millimetre
		case unit == Inches:
			size = Inch
		default:
			return fail("unread.no-unit")
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
		return fail("unread.far", "metres", strconv.FormatFloat(mm/float64(Metre), 'g', 6, 64))
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

// number parses "30", "30.625", "777,5", "5/8", "30 5/8" or "30-5/8" from the front of s. The problem is empty on
// success.
func number(s string) (n *big.Rat, rest, problem string) {
	whole, rest := digits(s)
	if whole == "" && !strings.HasPrefix(s, ".") && !strings.HasPrefix(s, ",") {
		return nil, "", "unread.no-number"
	}
	if den, after, ok := fraction(rest); ok {
		return ratio(whole, den, after)
	}
	if strings.HasPrefix(rest, ".") || strings.HasPrefix(rest, ",") {
		dec, after := digits(rest[1:])
		switch {
		case dec == "":
			return nil, "", "unread.point-at-end"
		case strings.HasPrefix(after, ".") || strings.HasPrefix(after, ","):
			return nil, "", "unread.two-points"
		case strings.HasPrefix(after, "/"):
			return nil, "", "unread.point-in-fraction"
		}
		r, ok := new(big.Rat).SetString("0" + whole + "." + dec)
		if !ok {
			return nil, "", "unread.no-length"
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
	f, after, problem := ratio(num, den, after)
	if problem != "" {
		return nil, "", problem
	}
	if f.Cmp(big.NewRat(1, 1)) >= 0 {
		return nil, "", "unread.fraction-over-one"
	}
	return n.Add(n, f), after, ""
}

// fraction parses "/64" from the front of s.
func fraction(s string) (den, rest string, ok bool) {
	t := strings.TrimLeft(s, " ")
	if !strings.HasPrefix(t, "/") {
		return "", s, false
	}
	den, rest = digits(strings.TrimLeft(t[1:], " "))
	return den, rest, true
}

// denominators are those of the marks of a tape.
var denominators = []string{"1", "2", "4", "8", "16", "32", "64"}

func ratio(num, den, rest string) (*big.Rat, string, string) {
	if den == "" {
		return nil, "", "unread.nothing-under"
	}
	r, ok := new(big.Rat).SetString(num + "/" + den)
	if !ok {
		return nil, "", "unread.over-nought"
	}
	if !slices.Contains(denominators, strings.TrimLeft(den, "0")) {
		return nil, "", "unread.no-tape"
	}
	if strings.HasPrefix(rest, "/") {
		return nil, "", "unread.two-lines"
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
