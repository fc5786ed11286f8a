package template

import (
	"encoding/binary"
	"io"
	"math"
	"slices"
)

// Solid is a body for a 3-D printer, in mm: a block divided by planes across each axis into cells, some of them full,
// with round holes along an axis that stay inside one row of cells. All faces are divided by the same planes, so that
// the mesh is closed.
type Solid struct {
	breaks [3][]float64
	full   map[[3]int]bool
	holes  map[hole]float64 // radius
}

// hole is a row of cells along an axis; its own coordinate along that axis is 0.
type hole struct {
	axis int
	at   [3]int
}

// Block is a box from one corner to the other.
type Block struct{ From, To [3]float64 }

// Bore is a round hole right along an axis, about a place.
type Bore struct {
	Axis   int
	At     [3]float64 // its place along its own axis is of no account
	Radius float64
	Half   [3]float64 // of its cell across each axis, at least Radius and boreWall; nought as much as that
}

// half is half of its cell's size across an axis.
func (b Bore) half(axis int) float64 { return max(b.Half[axis], b.Radius+boreWall) }

// boreWall is the distance of a cell's walls from its bore, in mm.
const boreWall = 1.0

// NewSolid makes a body of blocks, less others, with bores. A bore's cell is wider than the bore; ok is false where a
// plane would cut one.
func NewSolid(add, less []Block, bores []Bore) (s *Solid, ok bool) {
	s = &Solid{full: map[[3]int]bool{}, holes: map[hole]float64{}}
	for _, b := range append(slices.Clone(add), less...) {
		for i := range 3 {
			s.breaks[i] = append(s.breaks[i], b.From[i], b.To[i])
		}
	}
	for _, b := range bores {
		for i := range 3 {
			if i != b.Axis {
				s.breaks[i] = append(s.breaks[i], b.At[i]-b.half(i), b.At[i]+b.half(i))
			}
		}
	}
	for i := range 3 {
		slices.Sort(s.breaks[i])
		s.breaks[i] = slices.CompactFunc(s.breaks[i], func(a, b float64) bool { return math.Abs(b-a) < 1e-9 })
	}
	s.cells(func(c [3]int) {
		middle := s.middle(c)
		in := func(list []Block) bool {
			return slices.ContainsFunc(list, func(b Block) bool {
				for i := range 3 {
					if middle[i] < b.From[i] || middle[i] > b.To[i] {
						return false
					}
				}
				return true
			})
		}
		s.full[c] = in(add) && !in(less)
	})
	for _, b := range bores {
		at := [3]int{}
		for i := range 3 {
			if i != b.Axis {
				at[i], _ = slices.BinarySearchFunc(s.breaks[i], b.At[i]-b.half(i), func(v, want float64) int {
					if v < want-1e-9 {
						return -1
					}
					if v > want+1e-9 {
						return 1
					}
					return 0
				})
			}
		}
		for i := range 3 {
			if i != b.Axis && math.Abs(s.breaks[i][at[i]+1]-b.At[i]-b.half(i)) > 1e-9 {
				return nil, false
			}
		}
		s.holes[hole{b.Axis, at}] = b.Radius
	}
	return s, true
}

func (s *Solid) cells(f func([3]int)) {
	for i := range len(s.breaks[0]) - 1 {
		for j := range len(s.breaks[1]) - 1 {
			for k := range len(s.breaks[2]) - 1 {
				f([3]int{i, j, k})
			}
		}
	}
}

func (s *Solid) middle(c [3]int) (m [3]float64) {
	for i := range 3 {
		m[i] = (s.breaks[i][c[i]] + s.breaks[i][c[i]+1]) / 2
	}
	return m
}

// Triangle has its corners counterclockwise, seen from outside.
type Triangle [3][3]float64

// sides is the number of sides of a bore's polygon.
const sides = 48

// Mesh is the body's surface.
func (s *Solid) Mesh() (list []Triangle) {
	put := func(a, b, c [3]float64) { list = append(list, Triangle{a, b, c}) }
	s.cells(func(c [3]int) {
		if !s.full[c] {
			return
		}
		for axis := range 3 {
			u, v := (axis+1)%3, (axis+2)%3
			row := hole{axis, c}
			row.at[axis] = 0
			r := s.holes[row]
			for _, end := range []int{0, 1} {
				next := c
				next[axis] += 2*end - 1
				if s.full[next] {
					continue
				}
				s.face(c, axis, u, v, end, r, put)
			}
			if r > 0 {
				s.wall(c, axis, u, v, r, put)
			}
		}
	})
	return list
}

// face is one face of a cell, without the circle of its bore.
func (s *Solid) face(c [3]int, axis, u, v, end int, r float64, put func(a, b, c [3]float64)) {
	at := func(x, y float64) (p [3]float64) {
		p[axis], p[u], p[v] = s.breaks[axis][c[axis]+end], x, y
		return p
	}
	turned := put
	if end == 0 { // seen from below
		turned = func(a, b, c [3]float64) { put(a, c, b) }
	}
	x0, x1, y0, y1 := s.breaks[u][c[u]], s.breaks[u][c[u]+1], s.breaks[v][c[v]], s.breaks[v][c[v]+1]
	corners := [4][3]float64{at(x1, y1), at(x0, y1), at(x0, y0), at(x1, y0)} // from 45° round
	if r == 0 {
		turned(corners[0], corners[1], corners[2])
		turned(corners[0], corners[2], corners[3])
		return
	}
	m := s.middle(c)
	ring := func(i int) [3]float64 {
		sin, cos := math.Sincos(2 * math.Pi * float64(i%sides) / sides)
		return at(m[u]+r*cos, m[v]+r*sin)
	}
	for q := range 4 { // each corner looks on a quarter of the circle, that about it
		from := q * sides / 4
		for i := from; i < from+sides/4; i++ {
			turned(ring(i+1), ring(i), corners[q])
		}
		turned(corners[q], corners[(q+1)%4], ring(from+sides/4))
	}
}

// wall is the inside of a bore in one cell.
func (s *Solid) wall(c [3]int, axis, u, v int, r float64, put func(a, b, c [3]float64)) {
	m := s.middle(c)
	at := func(i, end int) (p [3]float64) {
		sin, cos := math.Sincos(2 * math.Pi * float64(i%sides) / sides)
		p[axis], p[u], p[v] = s.breaks[axis][c[axis]+end], m[u]+r*cos, m[v]+r*sin
		return p
	}
	for i := range sides { // seen from the middle
		put(at(i, 0), at(i, 1), at(i+1, 0))
		put(at(i+1, 0), at(i, 1), at(i+1, 1))
	}
}

// Volume is the body's volume, in mm³.
func (s *Solid) Volume() (v float64) {
	s.cells(func(c [3]int) {
		if !s.full[c] {
			return
		}
		size := [3]float64{}
		for i := range 3 {
			size[i] = s.breaks[i][c[i]+1] - s.breaks[i][c[i]]
		}
		v += size[0] * size[1] * size[2]
		for axis := range 3 {
			row := hole{axis, c}
			row.at[axis] = 0
			r := s.holes[row]
			// An inscribed polygon.
			v -= size[axis] * sides / 2 * r * r * math.Sin(2*math.Pi/sides)
		}
	})
	return v
}

// STL writes the body as binary STL, in mm.
func (s *Solid) STL(w io.Writer) error {
	mesh := s.Mesh()
	head := make([]byte, 84)
	copy(head, "Kind Margin, mm")
	binary.LittleEndian.PutUint32(head[80:], uint32(len(mesh)))
	if _, err := w.Write(head); err != nil {
		return err
	}
	record := make([]byte, 50)
	for _, t := range mesh {
		put := func(at int, p [3]float64) {
			for i, v := range p {
				binary.LittleEndian.PutUint32(record[at+4*i:], math.Float32bits(float32(v)))
			}
		}
		put(0, normal(t))
		for i, p := range t {
			put(12+12*i, p)
		}
		if _, err := w.Write(record); err != nil {
			return err
		}
	}
	return nil
}

func normal(t Triangle) (n [3]float64) {
	var a, b [3]float64
	for i := range 3 {
		a[i], b[i] = t[1][i]-t[0][i], t[2][i]-t[0][i]
	}
	n = [3]float64{a[1]*b[2] - a[2]*b[1], a[2]*b[0] - a[0]*b[2], a[0]*b[1] - a[1]*b[0]}
	if l := math.Sqrt(n[0]*n[0] + n[1]*n[1] + n[2]*n[2]); l > 0 {
		for i := range n {
			n[i] /= l
		}
	}
	return n
}
