package api

import (
	"net/http"
	"net/url"
	"strings"
)

// addressNow maps an old address of the API to the present one, for open pages, bookmarks and scripts. ok is false
// where it was not renamed.
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

// askedNow maps old names of query parameters to the present ones.
var askedNow = map[string]string{"doors": "openings"}

// keysNow maps old keys in the body of an export or a day to the present ones, by JSON pointer.
var keysNow = map[string]string{"/doors": "openings"}

// renamed rewrites requests with old names to the present ones.
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
