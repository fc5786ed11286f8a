package job

import (
	"bytes"
	"encoding/json"
	"strings"
)

// renamed are the keys of what is kept that had another name until version 4 of the job file, as JSON pointers into an
// opening, and their names since.
var renamed = map[string]string{"/lock/device": "hardware"}

// renamedInJob are those of a job beside its openings'.
var renamedInJob = map[string]string{"/kit/devices": "hardware", "/usual/lock/device": "hardware"}

// Now is a JSON pointer into an opening with the names that its keys have now: a page that is still open may have those
// of before.
func Now(pointer string) string {
	for was, now := range renamed {
		if rest, ok := strings.CutPrefix(pointer, was); ok && (rest == "" || rest[0] == '/') {
			return was[:strings.LastIndexByte(was, '/')+1] + now + rest
		}
	}
	return pointer
}

// RenameJob gives the keys of a job beside its openings the names that they have now: a page that is still open sends
// its kit as it read it.
func RenameJob(b []byte) []byte { return Rename(b, renamedInJob) }

// Rename gives the keys of a JSON text the names that they have now, by the JSON pointers of before, and leaves every
// other byte as it is. What is no JSON is left for the reader to say so.
func Rename(b []byte, names map[string]string) []byte {
	return rename(b, func(path []string) (now string, ok bool) {
		now, ok = names["/"+strings.Join(path, "/")]
		return now, ok
	})
}

// rename gives keys the name that nameAt has for their path, and leaves every other byte as it is.
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

// nameInFile is the name that the key at a path of a job file has now; ok is false where it has none other.
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
