package frame

// Along is an offset at a place along an edge, in mm.
type Along struct{ At, Off float64 }

// OffAt is the offset at a place: linear between the known ones, which are in the order of their places, and
// extrapolated beyond the ends; 0 where there are none. (gonum's interp is constant beyond the ends, where a corner is
// needed.)
func OffAt(known []Along, at float64) float64 {
	return Between(known, func(a Along) Along { return a }, at)
}

// Between is OffAt for values that have an offset along an edge.
func Between[T any](known []T, of func(T) Along, at float64) float64 {
	if len(known) == 0 {
		return 0
	}
	i := 1
	for i < len(known)-1 && of(known[i]).At <= at {
		i++
	}
	if i == len(known) {
		return of(known[0]).Off
	}
	a, b := of(known[i-1]), of(known[i])
	if a.At == b.At { // one place twice: the later counts
		return b.Off
	}
	return a.Off + (at-a.At)/(b.At-a.At)*(b.Off-a.Off)
}
