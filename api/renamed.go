package api

import (
	"net/http"
	"net/url"
	"strings"
)

// addressNow is an address of the API as it is called now; a page that is still open, a bookmark and a script of before
// may ask for it as it was. ok is false where it is called so now.
func addressNow(path string) (now string, ok bool) {
	switch {
	case path == "/api/pair":
		return "/api/sharing/clients", true
	case path == "/api/pairing":
		return "/api/sharing/code", true
	case strings.HasPrefix(path, "/api/passes/"):
		return "/api/sharing/clients/" + strings.TrimPrefix(path, "/api/passes/"), true
	case strings.HasPrefix(path, "/api/jobs/") && strings.Contains(path, "/openings/") && strings.HasSuffix(path, "/sheet"):
		return strings.TrimSuffix(path, "/sheet") + "/template", true
	}
	return "", false
}

// askedNow are the names of arguments in an address now, by those of before.
var askedNow = map[string]string{"doors": "openings"}

// keysNow are the names of keys in what is sent for an export or a day, by the JSON pointers of those of before.
var keysNow = map[string]string{"/doors": "openings"}

// renamed answers what is asked for by a name of before as what it is called now.
func renamed(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		now, moved := addressNow(r.URL.Path)
		query := r.URL.Query()
		var was []string
		for name := range query {
			if _, ok := askedNow[name]; ok && strings.HasPrefix(r.URL.Path, "/api/") {
				was = append(was, name)
			}
		}
		if !moved && was == nil {
			next.ServeHTTP(w, r)
			return
		}
		to := *r
		to.URL = new(url.URL)
		*to.URL = *r.URL
		if moved {
			to.URL.Path, to.URL.RawPath = now, ""
		}
		for _, name := range was {
			query[askedNow[name]] = append(query[askedNow[name]], query[name]...)
			delete(query, name)
			to.URL.RawQuery = query.Encode()
		}
		next.ServeHTTP(w, &to)
	})
}
