package job

import (
	"bytes"
	"encoding/json"
	"errors"
	"io"
	"reflect"
	"strconv"
	"strings"
	"sync"
	"unicode/utf8"

	"kindmargin/core/field"
	"kindmargin/core/message"
)

// CheckJSON reports, as a field.Error, the first thing in a JSON text that encoding/json would silently drop or alter:
// invalid UTF-8, a duplicate name in an object, a name that type t does not have exactly so, or trailing data; and a
// text whose values would take more memory than the largest job. With a nil type any name is accepted. Whether the
// values fit the type is json.Unmarshal's to report.
func CheckJSON(b []byte, t reflect.Type) error {
	if !utf8.Valid(b) {
		return field.Fault("", "refused.not-utf8", nil)
	}
	w := strictly{dec: json.NewDecoder(bytes.NewReader(b)), text: b, left: mostRoom}
	w.halves = sync.OnceValue(func() bool {
		return !bytes.ContainsRune(b, utf8.RuneError) && !bytes.Contains(bytes.ToLower(b), []byte(`\ufffd`))
	})
	w.dec.UseNumber()
	if err := w.value(t, ""); err != nil {
		var own field.Error
		if errors.As(err, &own) {
			return own
		}
		return field.Fault("", "refused.not-json", message.Args{"line": message.Number(w.line())})
	}
	if _, err := w.dec.Token(); !errors.Is(err, io.EOF) {
		return field.Fault("", "refused.after-end", nil)
	}
	return nil
}

// Bounds on the memory of decoded values: three bytes, "{}," decode to some thousand as an opening.
const (
	mostRoom  = 192 << 20 // bytes, structs in lists counted twice
	mostDepth = 100
)

type strictly struct {
	dec    *json.Decoder
	text   []byte
	left   int         // bytes of room
	depth  int         // of lists and objects that are open
	halves func() bool // what stands for half a character was not written so
}

// take reserves memory for a value of a type.
func (w *strictly) take(t reflect.Type, at string) error {
	room := 32
	if t != nil {
		room = max(int(t.Size()), 16)
	}
	if w.left -= room; w.left < 0 {
		return field.Fault(at, "refused.too-much", message.Args{"line": message.Number(w.line())})
	}
	return nil
}

// deeper enters a list or an object.
func (w *strictly) deeper() error {
	if w.depth++; w.depth > mostDepth {
		return field.Fault("", "refused.too-deep", message.Args{"line": message.Number(w.line())})
	}
	return nil
}

func (w *strictly) line() int {
	return 1 + bytes.Count(w.text[:w.dec.InputOffset()], []byte("\n"))
}

var unmarshaler = reflect.TypeFor[json.Unmarshaler]()

// value checks one value of type t at a JSON pointer.
func (w *strictly) value(t reflect.Type, at string) error {
	for t != nil && t.Kind() == reflect.Pointer {
		t = t.Elem()
	}
	if t != nil && reflect.PointerTo(t).Implements(unmarshaler) {
		t = nil // it reads itself
	}
	token, err := w.dec.Token()
	if err != nil {
		return err
	}
	switch token {
	case json.Delim('{'):
		if err := errors.Join(w.deeper(), w.take(t, at)); err != nil {
			return err
		}
		if err := w.object(t, at); err != nil {
			return err
		}
	case json.Delim('['):
		if err := w.deeper(); err != nil {
			return err
		}
		var elem reflect.Type
		if t != nil && (t.Kind() == reflect.Slice || t.Kind() == reflect.Array) {
			elem = t.Elem()
		}
		n := 0
		for ; w.dec.More(); n++ {
			here := at + "/" + strconv.Itoa(n)
			if err := w.take(elem, here); err != nil {
				return err
			}
			if err := w.value(elem, here); err != nil {
				return err
			}
		}
		if t != nil && t.Kind() == reflect.Array && n != t.Len() {
			return field.Fault(at, "refused.so-many", message.Args{
				"given": message.Number(n), "most": message.Number(t.Len()), "line": message.Number(w.line()),
			})
		}
	default:
		if s, ok := token.(string); ok {
			return w.whole(s, at)
		}
		return nil
	}
	w.depth--
	_, err = w.dec.Token() // the closing brace or bracket
	return err
}

func (w *strictly) object(t reflect.Type, at string) error {
	seen := map[string]bool{}
	for w.dec.More() {
		token, err := w.dec.Token()
		if err != nil {
			return err
		}
		name, ok := token.(string)
		if !ok {
			return field.Fault(at, "refused.not-json", message.Args{"line": message.Number(w.line())})
		}
		if err := w.whole(name, at); err != nil {
			return err
		}
		here := at + "/" + Escape(name)
		if seen[name] {
			return field.Fault(here, "refused.twice", message.Args{
				"name": message.Quote(name), "line": message.Number(w.line()),
			})
		}
		seen[name] = true
		kind, err := fieldOf(t, name)
		if err != nil {
			var own field.Error
			if errors.As(err, &own) {
				own.Pointer, own.Problem.Args["line"] = here, message.Number(w.line())
				return own
			}
			return err
		}
		if err := w.value(kind, here); err != nil {
			return err
		}
	}
	return nil
}

// whole rejects text with a lone surrogate, which decoding would replace.
func (w *strictly) whole(s, at string) error {
	if strings.ContainsRune(s, utf8.RuneError) && w.halves() {
		return field.Fault(at, "refused.half-character", message.Args{"line": message.Number(w.line())})
	}
	return nil
}

// fieldOf is the type of a struct's field or a map's value by its JSON name; nil where any name is accepted.
func fieldOf(t reflect.Type, name string) (reflect.Type, error) {
	if t == nil {
		return nil, nil
	}
	switch t.Kind() {
	case reflect.Map:
		return t.Elem(), nil
	case reflect.Struct:
		like := ""
		for i := range t.NumField() {
			tag, _, _ := strings.Cut(t.Field(i).Tag.Get("json"), ",")
			switch {
			case tag == name:
				return t.Field(i).Type, nil
			case strings.EqualFold(tag, name):
				like = tag
			}
		}
		if like != "" {
			return nil, field.Fault("", "refused.name-like", message.Args{"name": message.Quote(name), "like": like})
		}
	}
	return nil, field.Fault("", "refused.name-unknown", message.Args{"name": message.Quote(name)})
}

// TypeAt is the type at a JSON pointer (RFC 6901) into t, exactly as written: names in their own case, indices as plain
// numbers or "-" for the end. ok is false where it leads nowhere.
func TypeAt(t reflect.Type, pointer string) (at reflect.Type, ok bool) {
	if pointer == "" {
		return t, true
	}
	if pointer[0] != '/' {
		return nil, false
	}
	for _, token := range strings.Split(pointer[1:], "/") {
		for t.Kind() == reflect.Pointer {
			t = t.Elem()
		}
		switch t.Kind() {
		case reflect.Slice, reflect.Array:
			n, err := strconv.ParseUint(token, 10, 31)
			if token != "-" && (err != nil || strconv.FormatUint(n, 10) != token) || t.Kind() == reflect.Array &&
				(token == "-" || n >= uint64(t.Len())) {
				return nil, false
			}
			t = t.Elem()
		case reflect.Struct, reflect.Map:
			field, err := fieldOf(t, unescape.Replace(token))
			if err != nil {
				return nil, false
			}
			t = field
		default:
			return nil, false
		}
	}
	return t, true
}

var (
	escape   = strings.NewReplacer("~", "~0", "/", "~1")
	unescape = strings.NewReplacer("~1", "/", "~0", "~")
)

// Escape encodes a name as a reference token of a JSON pointer.
func Escape(name string) string { return escape.Replace(message.Quote(name)) }
