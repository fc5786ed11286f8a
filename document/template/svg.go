package template

import (
	"encoding/xml"
	"fmt"
	"io"
	"strconv"
)

type svg struct {
	XMLName xml.Name `xml:"http://www.w3.org/2000/svg svg"`
	Width   string   `xml:"width,attr"`
	Height  string   `xml:"height,attr"`
	ViewBox string   `xml:"viewBox,attr"`
	Title   string   `xml:"title"`
	Groups  []group
}

type group struct {
	XMLName xml.Name `xml:"g"`
	ID      string   `xml:"id,attr"`
	Fill    string   `xml:"fill,attr"`
	Stroke  string   `xml:"stroke,attr"`
	Width   string   `xml:"stroke-width,attr"`
	Shapes  []any
}

type svgLine struct {
	XMLName xml.Name `xml:"line"`
	X1      num      `xml:"x1,attr"`
	Y1      num      `xml:"y1,attr"`
	X2      num      `xml:"x2,attr"`
	Y2      num      `xml:"y2,attr"`
}

type svgCircle struct {
	XMLName xml.Name `xml:"circle"`
	X       num      `xml:"cx,attr"`
	Y       num      `xml:"cy,attr"`
	R       num      `xml:"r,attr"`
}

type svgRect struct {
	XMLName xml.Name `xml:"rect"`
	X       num      `xml:"x,attr"`
	Y       num      `xml:"y,attr"`
	W       num      `xml:"width,attr"`
	H       num      `xml:"height,attr"`
	R       num      `xml:"rx,attr"`
}

type svgText struct {
	XMLName xml.Name `xml:"text"`
	X       num      `xml:"x,attr"`
	Y       num      `xml:"y,attr"`
	Size    num      `xml:"font-size,attr"`
	Anchor  string   `xml:"text-anchor,attr,omitempty"`
	Text    string   `xml:",chardata"`
}

// num is a number of millimetres, to a thousandth.
type num float64

// MarshalXMLAttr encodes it without trailing zeros.
func (n num) MarshalXMLAttr(name xml.Name) (xml.Attr, error) {
	return xml.Attr{
		Name: name, Value: strconv.FormatFloat(float64(int64(float64(n)*1000+half(float64(n))))/1000, 'f', -1, 64),
	}, nil
}

func half(v float64) float64 {
	if v < 0 {
		return -0.5
	}
	return 0.5
}

// SVG writes a draft in millimetres, a group for each layer.
func (d Draft) SVG(w io.Writer) error {
	v := svg{
		Width: fmt.Sprintf("%gmm", d.Width), Height: fmt.Sprintf("%gmm", d.Height),
		ViewBox: fmt.Sprintf("0 0 %g %g", d.Width, d.Height), Title: d.Title,
	}
	for _, l := range []Layer{CutLayer, MarkLayer, FoldLayer, TextLayer} {
		g := group{
			ID: string(l), Fill: "none",
			Stroke: map[Layer]string{CutLayer: "#003ca0", MarkLayer: "#5a5a5a", FoldLayer: "#000000"}[l], Width: "0.2",
		}
		if l == TextLayer {
			g.Fill, g.Stroke = "#000000", "none"
		}
		for _, s := range d.Shapes {
			if s.Layer == l {
				g.Shapes = append(g.Shapes, s.svg())
			}
		}
		v.Groups = append(v.Groups, g)
	}
	if _, err := io.WriteString(w, xml.Header); err != nil {
		return err
	}
	e := xml.NewEncoder(w)
	e.Indent("", " ")
	return e.Encode(v)
}

func (s Shape) svg() any {
	switch s.Kind {
	case Line:
		return svgLine{X1: num(s.X), Y1: num(s.Y), X2: num(s.X + s.W), Y2: num(s.Y + s.H)}
	case Circle:
		return svgCircle{X: num(s.X), Y: num(s.Y), R: num(s.R)}
	case Rect:
		return svgRect{X: num(s.X), Y: num(s.Y), W: num(s.W), H: num(s.H), R: num(s.R)}
	}
	t := svgText{X: num(s.X), Y: num(s.Y), Size: num(s.Size), Text: s.Text}
	if s.Mid {
		t.Anchor = "middle"
	}
	return t
}
