package job

import (
	"bytes"
	"encoding/json"
	"strings"
)

// renamed maps keys of an opening that were renamed in version 4 of the job file, as JSON pointers into an opening, to
// their present names.
var renamed = map[string]string{"/lock/device": "hardware"}

// renamedInJob maps those of a job outside its openings.
var renamedInJob = map[string]string{"/kit/devices": "hardware", "/usual/lock/device": "hardware"}

// Now rewrites a JSON pointer into an opening to the present names: a page that is still open may use old ones.
func Now(pointer string) string {
	for was, now := range renamed {
		if rest, ok := strings.CutPrefix(pointer, was); ok && (rest == "" || rest[0] == '/') {
			return was[:strings.LastIndexByte(was, '/')+1] + now + rest
		}
	}
	return pointer
}

// RenameJob gives the keys of a job outside its openings their present names: a page that is still open sends the kit
// as it read it.
func RenameJob(b []byte) []byte { return Rename(b, renamedInJob) }

// Rename gives the keys of a JSON text their present names, by old JSON pointers, and leaves every other byte as it is.
// Invalid JSON is left for the decoder to report.
func Rename(b []byte, names map[string]string) []byte {
	return rename(b, func(path []string) (now string, ok bool) {
		now, ok = names["/"+strings.Join(path, "/")]
		return now, ok
	})
}

// rename renames the keys of a JSON text by their paths, with nameAt, and leaves every other byte as it is.
func rename(b []byte, nameAt func(path []string) (now string, ok bool)) []byte {
	type level struct {
		list bool
		key  string // in hand
		even bool   // a key comes next
	}
	var at []level
	var out bytes.Buffer
	done := 0
	d := json.NewDecoder(bytes.NewReader(b))
	for {
		t, err := d.Token()
		if err != nil {
			break
		}
		end := int(d.InputOffset())
		if delim, ok := t.(json.Delim); ok && (delim == '}' || delim == ']') {
			at = at[:len(at)-1]
		} else if n := len(at) - 1; n >= 0 && at[n].even {
			at[n].key, at[n].even = t.(string), false
			path := make([]string, len(at))
			for i, l := range at {
				if path[i] = l.key; l.list {
					path[i] = "*"
				}
			}
			if now, ok := nameAt(path); ok {
				start := bytes.LastIndexByte(b[:end-1], '"')
				out.Write(b[done:start])
				out.WriteString(`"` + now + `"`)
				done = end
			}
			continue
		} else if ok {
			at = append(at, level{list: delim == '[', even: delim == '{'})
			continue
		}
		if n := len(at) - 1; n >= 0 && !at[n].list {
			at[n].even = true
		}
	}
	out.Write(b[done:])
	return out.Bytes()
}

// nameInFile is the present name of the key at a path of a job file; ok is false where it was not renamed.
func nameInFile(path []string) (now string, ok bool) {
	names := renamedInJob
	switch {
	case len(path) > 3 && path[0] == "job" && path[1] == "openings":
		path, names = path[3:], renamed
	case len(path) > 1 && path[0] == "job":
		path = path[1:]
	default:
		return "", false
	}
	now, ok = names["/"+strings.Join(path, "/")]
	return now, ok
}
