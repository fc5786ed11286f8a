package api

import (
	"context"
	"net/http"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A length is heard by the pages of the client that it is for, once, and by no others.
func TestALengthIsHeardOnce(t *testing.T) {
	s := sharing(t, shares)
	pass, view := s.pairs("the phone")
	other, _ := s.pairs("another phone")
	ear := func(cookie string) chan string {
		ctx, stop := context.WithCancel(t.Context())
		t.Cleanup(stop)
		req, err := http.NewRequestWithContext(ctx, "GET", s.other+"/api/events", nil)
		require.NoError(t, err)
		req.AddCookie(&http.Cookie{Name: "kindmargin", Value: cookie})
		res, err := http.DefaultClient.Do(req)
		require.NoError(t, err)
		lines := make(chan string, 20)
		go func() {
			defer res.Body.Close()
			b := make([]byte, 4096)
			for {
				n, err := res.Body.Read(b)
				if err != nil {
					return
				}
				lines <- string(b[:n])
			}
		}()
		<-lines // hello
		return lines
	}
	phone, silent := ear(pass), ear(other)
	for _, to := range []string{"the phone", "THE PHONE", view.ID} {
		got[Heard](t, s.do("POST", "/lengths", "", Speaking{Text: "826.5 mm", From: "the laser", To: to}))
		assert.Contains(t, <-phone, `"text":"826.5 mm","from":"the laser"`)
	}
	one := Speaking{Text: " 30 5/8 in ", ID: "k", To: "the phone"}
	assert.Equal(t, 1, got[Heard](t, s.do("POST", "/lengths", "", one)).Pages)
	assert.Contains(t, <-phone, `"text":"30 5/8 in","from":"an instrument"`)
	assert.Zero(t, got[Heard](t, s.do("POST", "/lengths", "", one)).Pages, "sent again, it is heard once")
	// From a phone itself, to its own page.
	require.Equal(t, 200, s.ask("POST", "/api/lengths", pass, Speaking{Text: "1 mm"}).status)
	assert.Contains(t, <-phone, `"text":"1 mm"`)
	select {
	case line := <-silent:
		assert.Fail(t, "another phone heard it", line)
	case <-time.After(50 * time.Millisecond):
	}

	for says, bad := range map[string]Speaking{
		"has no unit":               {Text: "826", To: "the phone"},
		"Begin with":                {Text: "long", To: "the phone"},
		"No device “nobody”":        {Text: "826 mm", To: "nobody"},
		"Keep the ID under 80":      {Text: "826 mm", ID: strings.Repeat("x", 81)},
		"on one line":               {Text: "826 mm", From: "a\nb"},
		"No page of that device is": {Text: "826 mm", To: thisMachine, ID: "later"},
	} {
		a := s.do("POST", "/lengths", "", bad)
		assert.Contains(t, []int{409, 422}, a.status, says)
		assert.Contains(t, a.trouble(t).Detail, says)
	}
}
