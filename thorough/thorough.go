// Package thorough sets how much the tests try: a part in make test, everything in make thorough.
package thorough

import (
	"math"
	"os"
)

// On reports whether everything is tried: whether KINDMARGIN_THOROUGH is set.
func On() bool { return os.Getenv("KINDMARGIN_THOROUGH") != "" }

// Count returns all where everything is tried, and few otherwise.
func Count(few, all int) int {
	if On() {
		return all
	}
	return few
}

// Chance returns three binomial standard deviations of a rate of p in n: the allowance for a rate that is counted over
// a few. It is 0 where everything is tried.
func Chance(p float64, n int) float64 {
	if On() {
		return 0
	}
	return 3 * math.Sqrt(p*(1-p)/float64(n))
}
