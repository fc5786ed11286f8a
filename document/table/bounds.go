package table

import (
	"archive/zip"
	"bufio"
	"bytes"
	"encoding/xml"
	"errors"
	"io"
	"path"
	"slices"
	"strings"
)

// Bounds on an unpacked workbook. The library that reads it holds most of its parts in memory, a few hundred bytes for
// each tag, so that tags count, not only bytes.
const (
	mostParts   = 2000
	mostUnzip   = 64 << 20
	mostSheet   = 32 << 20
	mostPart    = 16 << 20 // any other part that is XML
	mostTags    = 500_000  // of all parts but the sheets, which are read row by row
	mostPiece   = 256 << 10
	mostLetters = 32_767          // of a cell: what spreadsheets take
	mostCell    = 4 * mostLetters // bytes, with its tags
	mostEscapes = 1000            // of the form _x0041_ in a cell
	mostRow     = 64 << 20        // what a row of the widest cells could come to
	mostText    = 8 << 20         // of a sheet
	mostMerged  = 20_000
)

// errLarge is a workbook that holds more than any door schedule.
var errLarge = errors.New("larger than a schedule")

// scan streams through a workbook's parts before the library reads it: it rejects one that would take too much memory,
// and returns the merged cells of each sheet by its part's name.
func scan(z *zip.Reader) (merged map[string][]string, err error) {
	if len(z.File) > mostParts {
		return nil, errLarge
	}
	merged = map[string][]string{}
	unpacked, tags, longest, widest := uint64(0), 0, 0, 0
	for _, f := range z.File {
		// The reader below never returns more of a part than its header says.
		if unpacked += f.UncompressedSize64; unpacked > mostUnzip {
			return nil, errLarge
		}
		name := strings.ToLower(strings.ReplaceAll(f.Name, `\`, "/"))
		sheet := strings.HasPrefix(name, "xl/worksheets/") && path.Ext(name) == ".xml"
		switch {
		case sheet && f.UncompressedSize64 > mostSheet:
			return nil, errLarge
		case sheet:
		case !slices.Contains([]string{".xml", ".rels", ".vml"}, path.Ext(name)):
			continue
		case f.UncompressedSize64 > mostPart:
			return nil, errLarge
		}
		p, err := scanPart(f)
		if err != nil {
			return nil, err
		}
		if sheet {
			merged[name] = p.merged
		} else if tags += p.tags; tags > mostTags {
			return nil, errLarge
		}
		longest, widest = max(longest, p.longest), max(widest, p.widest)
	}
	if longest*widest > mostRow {
		return nil, errLarge
	}
	return merged, nil
}

// part is what a scan found in one part.
type part struct {
	tags    int
	longest int // text of the shared ones, in bytes
	widest  int // row, in cells
	merged  []string
}

func scanPart(f *zip.File) (p part, err error) {
	r, err := f.Open()
	if err != nil {
		return p, err
	}
	defer r.Close()
	pieces := bufio.NewReaderSize(r, mostPiece)
	cells, since, escapes, within := 0, 0, 0, ""
	for {
		piece, err := pieces.ReadSlice('>') // some text, and the tag after it
		if errors.Is(err, io.EOF) {
			return p, nil
		}
		if errors.Is(err, bufio.ErrBufferFull) {
			return p, errLarge
		}
		if err != nil {
			return p, err
		}
		p.tags++
		since, escapes = since+len(piece), escapes+bytes.Count(piece, []byte("_x"))
		if bytes.Contains(piece, []byte("<![")) { // text in which nothing is a tag, which no program writes here
			return p, errLarge
		}
		tag := ""
		if at := bytes.LastIndexByte(piece, '<'); at >= 0 {
			tag = string(piece[at+1:])
		}
		switch nameOf(tag) {
		case "/sheetData", "/sst":
			within = ""
		case "row":
			cells, since, within = 0, 0, "row"
		case "c":
			cells, since, escapes, within = cells+1, 0, 0, "c"
		case "si":
			since, escapes, within = 0, 0, "si"
		case "mergeCell":
			if p.merged = append(p.merged, refOf(tag)); len(p.merged) > mostMerged {
				return p, errLarge
			}
		}
		if within == "" {
			continue
		}
		if since > mostCell || escapes > mostEscapes {
			return p, errLarge
		}
		if within == "si" {
			p.longest = max(p.longest, since)
		} else {
			p.widest = max(p.widest, cells)
		}
	}
}

// nameOf is a tag's local name; that of an end tag begins with a slash.
func nameOf(tag string) string {
	end := strings.HasPrefix(tag, "/")
	tag = strings.TrimPrefix(tag, "/")
	if at := strings.IndexAny(tag, " \t\r\n/>"); at >= 0 {
		tag = tag[:at]
	}
	if _, local, ok := strings.Cut(tag, ":"); ok {
		tag = local
	}
	if end {
		return "/" + tag
	}
	return tag
}

// refOf is the range of a mergeCell tag.
func refOf(tag string) string {
	_, rest, _ := strings.Cut(tag, "ref=")
	if rest == "" {
		return ""
	}
	ref, _, _ := strings.Cut(rest[1:], rest[:1]) // up to the quote that it began with
	return ref
}

// partsOf are the parts of a workbook's sheets, by relationship ID.
func partsOf(z *zip.Reader) (byID map[string]string) {
	f, err := z.Open("xl/_rels/workbook.xml.rels")
	if err != nil {
		return nil
	}
	defer f.Close()
	var rels struct {
		Relationship []struct {
			ID     string `xml:"Id,attr"`
			Target string `xml:"Target,attr"`
		}
	}
	if xml.NewDecoder(f).Decode(&rels) != nil {
		return nil
	}
	byID = map[string]string{}
	for _, r := range rels.Relationship {
		target := r.Target
		if !strings.HasPrefix(target, "/") {
			target = "/xl/" + target
		}
		byID[r.ID] = strings.ToLower(strings.TrimPrefix(path.Clean(target), "/"))
	}
	return byID
}
