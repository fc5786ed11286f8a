package template

import (
	"bufio"
	"fmt"
	"io"
	"strings"
)

// DXF writes a draft as DXF R12 text in millimetres, y up: lines, circles and arcs, and text,
// each on its layer.
func (d Draft) DXF(w io.Writer) error {
	b := bufio.NewWriter(w)
	put := func(pairs ...any) {
		for i := 0; i < len(pairs); i += 2 {
			switch v := pairs[i+1].(type) {
			case float64:
				fmt.Fprintf(b, "%3d\n%.4f\n", pairs[i], v)
			default:
				fmt.Fprintf(b, "%3d\n%v\n", pairs[i], v)
			}
		}
	}
	put(
		0, "SECTION", 2, "HEADER", 9, "$ACADVER", 1, "AC1009", 9, "$EXTMIN", 10, 0.0, 20, 0.0, 9, "$EXTMAX", 10,
		d.Width, 20, d.Height, 0, "ENDSEC",
	)
	put(0, "SECTION", 2, "ENTITIES")
	line := func(l Layer, x0, y0, x1, y1 float64) {
		put(0, "LINE", 8, l, 10, x0, 20, d.Height-y0, 11, x1, 21, d.Height-y1)
	}
	for _, s := range d.Shapes {
		switch s.Kind {
		case Line:
			line(s.Layer, s.X, s.Y, s.X+s.W, s.Y+s.H)
		case Circle:
			put(0, "CIRCLE", 8, s.Layer, 10, s.X, 20, d.Height-s.Y, 40, s.R)
		case Rect:
			x1, y1 := s.X+s.W, s.Y+s.H
			line(s.Layer, s.X+s.R, s.Y, x1-s.R, s.Y)
			line(s.Layer, x1, s.Y+s.R, x1, y1-s.R)
			line(s.Layer, x1-s.R, y1, s.X+s.R, y1)
			line(s.Layer, s.X, y1-s.R, s.X, s.Y+s.R)
			if s.R > 0 { // counterclockwise, y up
				for _, c := range []struct{ x, y, from float64 }{
					{x1 - s.R, s.Y + s.R, 0},
					{s.X + s.R, s.Y + s.R, 90},
					{s.X + s.R, y1 - s.R, 180},
					{x1 - s.R, y1 - s.R, 270},
				} {
					put(0, "ARC", 8, s.Layer, 10, c.x, 20, d.Height-c.y, 40, s.R, 50, c.from, 51, c.from+90)
				}
			}
		case Text:
			plain := strings.Map(func(r rune) rune { // R12 knows no other letters
				if r < 32 || r > 126 {
					return -1
				}
				return r
			}, s.Text)
			put(0, "TEXT", 8, s.Layer, 10, s.X, 20, d.Height-s.Y, 40, s.Size, 1, plain)
		}
	}
	put(0, "ENDSEC", 0, "EOF")
	return b.Flush()
}
