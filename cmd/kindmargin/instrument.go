package main

import (
	"bytes"
	"context"
	"crypto/tls"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"net/http"
	"strings"
	"time"

	"kindmargin/share"
)

// instrument is a simulated instrument's connection settings.
type instrument struct {
	To          string `help:"Where Kind Margin is." default:"http://127.0.0.1:8137"`
	Code        string `help:"From another machine: the pairing code."`
	Fingerprint string `help:"Of the certificate, where it was made by kindmargin."`
}

// line is its connection to the program.
type line struct {
	to   string
	http http.Client
	pass *http.Cookie
}

// reach connects; from another machine it pairs, under a name.
func (i instrument) reach(ctx context.Context, name string) (*line, error) {
	l := &line{to: strings.TrimRight(i.To, "/"), http: http.Client{Timeout: 10 * time.Second}}
	if i.Fingerprint != "" {
		l.http.Transport = &http.Transport{TLSClientConfig: pinned(i.Fingerprint)}
	}
	if i.Code == "" {
		return l, nil
	}
	res, err := l.post(ctx, "/api/sharing/clients", map[string]string{"code": i.Code, "name": name})
	if err != nil {
		return nil, err
	}
	defer res.Body.Close()
	for _, c := range res.Cookies() {
		l.pass = c
	}
	return l, nil
}

// send sends a body, and returns the program's error.
func (l *line) send(ctx context.Context, path string, what any) error {
	res, err := l.post(ctx, path, what)
	if err != nil {
		return err
	}
	return res.Body.Close()
}

// pinned accepts one certificate, whoever signed it.
func pinned(fingerprint string) *tls.Config {
	return &tls.Config{
		MinVersion: tls.VersionTLS12, InsecureSkipVerify: true, // the fingerprint says more than a signature of its own
		VerifyConnection: func(s tls.ConnectionState) error {
			if len(s.PeerCertificates) == 0 || !strings.EqualFold(
				share.Fingerprint(tls.Certificate{Certificate: [][]byte{s.PeerCertificates[0].Raw}}), fingerprint,
			) {
				return errors.New("the certificate has another fingerprint: nothing was sent")
			}
			return nil
		},
	}
}

// post sends a body, and returns a successful answer, or the program's error.
func (l *line) post(ctx context.Context, path string, what any) (*http.Response, error) {
	b, err := json.Marshal(what)
	if err != nil {
		return nil, err
	}
	req, err := http.NewRequestWithContext(ctx, http.MethodPost, l.to+path, bytes.NewReader(b))
	if err != nil {
		return nil, err
	}
	req.Header.Set("Content-Type", "application/json")
	if l.pass != nil {
		req.AddCookie(l.pass)
	}
	res, err := l.http.Do(req)
	if err != nil {
		return nil, fmt.Errorf("nothing answers at %s: %w", l.to, err)
	}
	if res.StatusCode < 300 {
		return res, nil
	}
	defer res.Body.Close()
	var said struct{ Detail string }
	_ = json.NewDecoder(io.LimitReader(res.Body, 1<<16)).Decode(&said)
	return nil, fmt.Errorf("%s: %s", res.Status, said.Detail)
}
