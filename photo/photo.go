// Package photo reads photographs as they are sent and writes them as they are kept: JPEG without metadata, such as
// place and camera.
package photo

import (
	"bytes"
	"encoding/binary"
	"image"
	"image/jpeg"
	_ "image/png" // is taken as well
	"math"
	"strings"

	"golang.org/x/image/draw"

	"kindmargin/core/field"
	"kindmargin/core/message"
)

// Bounds on a photograph: the page scales it down before it is sent.
const (
	Largest = 8 << 20 // bytes, as it is sent
	Widest  = 2400    // dots, either way

	mostDots = 40_000_000
	// mostScans is the largest number of scans of a JPEG that is decoded: each goes over the whole picture. Programs
	// write ten or so, the most economical some twenty; common practice.
	mostScans = 40
	quality   = 82
)

// Kept is a photograph as it is kept.
type Kept struct {
	Data          []byte // JPEG
	Width, Height int
}

// Keep decodes a photograph, JPEG or PNG, and encodes it anew. It fails with a field.Error for one that is no
// photograph, is damaged, or would take too much memory or time.
func Keep(raw []byte) (k Kept, err error) {
	kind, err := check(raw)
	if err != nil {
		return k, err
	}
	img, _, err := image.Decode(bytes.NewReader(raw))
	if err != nil {
		return k, refused("refused.photo-damaged", message.Args{"kind": strings.ToUpper(kind)})
	}
	var out bytes.Buffer
	if err := jpeg.Encode(&out, img, &jpeg.Options{Quality: quality}); err != nil {
		return k, err
	}
	return Kept{out.Bytes(), img.Bounds().Dx(), img.Bounds().Dy()}, nil
}

// Fit is a kept photograph scaled down to fit a number of dots each way; one that fits is returned as it is. It fails
// with a field.Error for one that is damaged.
func Fit(data []byte, width, height int) (k Kept, err error) {
	kind, err := check(data)
	if err == nil && kind != "jpeg" {
		err = refused("refused.photo-no-jpeg", nil)
	}
	if err != nil {
		return k, err
	}
	img, _, err := image.Decode(bytes.NewReader(data)) // all of it, not the beginning alone
	if err != nil {
		return k, refused("refused.photo-damaged", message.Args{"kind": "JPEG"})
	}
	is := img.Bounds()
	by := min(float64(width)/float64(is.Dx()), float64(height)/float64(is.Dy()))
	if by >= 1 {
		return Kept{data, is.Dx(), is.Dy()}, nil
	}
	small := image.NewRGBA(image.Rect(0, 0, dots(is.Dx(), by), dots(is.Dy(), by)))
	draw.ApproxBiLinear.Scale(small, small.Bounds(), img, is, draw.Src, nil)
	var out bytes.Buffer
	if err := jpeg.Encode(&out, small, &jpeg.Options{Quality: quality}); err != nil {
		return k, err
	}
	return Kept{out.Bytes(), small.Bounds().Dx(), small.Bounds().Dy()}, nil
}

// dots is a number of dots scaled down, at least one.
func dots(n int, by float64) int { return max(1, int(math.Round(float64(n)*by))) }

func refused(id message.ID, args message.Args) error {
	return field.Fault("", id, args)
}

// check rejects what would take too much to decode, before decoding.
func check(raw []byte) (kind string, err error) {
	known, kind, err := image.DecodeConfig(bytes.NewReader(raw))
	switch {
	case err != nil:
		return kind, refused("refused.photo-unread", nil)
	case known.Width < 1 || known.Height < 1:
		return kind, refused("refused.photo-empty", nil)
	case known.Width*known.Height > mostDots:
		return kind, refused("refused.photo-large", message.Args{
			"wide": message.Number(known.Width), "high": message.Number(known.Height),
			"most": message.Number(mostDots / 1_000_000),
		})
	case max(known.Width, known.Height) > Widest:
		return kind, refused("refused.photo-wide", message.Args{
			"wide": message.Number(known.Width), "high": message.Number(known.Height), "most": message.Number(Widest),
		})
	case kind == "jpeg" && scans(raw) > mostScans:
		return kind, refused("refused.photo-passes", message.Args{"most": message.Number(mostScans)})
	}
	return kind, nil
}

// scans counts the scans of a JPEG (ITU-T T.81, B.1.1: markers are 0xFF and a code, all but a few followed by a length;
// within a scan, 0xFF is followed by 0 or a restart marker).
func scans(raw []byte) (n int) {
	const soi, sos, eoi = 0xd8, 0xda, 0xd9
	for at := 0; at+3 < len(raw); {
		if raw[at] != 0xff {
			next := bytes.IndexByte(raw[at:], 0xff)
			if next < 0 {
				return n
			}
			at += next
			continue
		}
		switch code := raw[at+1]; {
		case code == 0xff: // filled up
			at++
		case code == eoi:
			return n
		case code == 0 || code == soi || code >= 0xd0 && code <= 0xd7 || code == 1:
			at += 2
		default:
			if code == sos {
				n++
			}
			at += 2 + max(int(binary.BigEndian.Uint16(raw[at+2:])), 2)
		}
	}
	return n
}
