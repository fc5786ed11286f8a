package main

import (
	"bufio"
	"bytes"
	"context"
	"crypto/rand"
	"crypto/tls"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	rnd "math/rand/v2"
	"net/http"
	"os"
	"strings"
	"time"

	"kindmargin/share"
)

// tapeCmd is a simulated tape that speaks: the stand-in for one that sends its lengths.
type tapeCmd struct {
	Lengths     []string `arg:"" optional:"" help:"Lengths to send, with their unit; lines of standard input where none is given."`
	To          string   `help:"Where Kind Margin is." default:"http://127.0.0.1:8137"`
	Device      string   `help:"Name of the device at whose entry it is read; this machine where none is named."`
	Name        string   `help:"What the tape is called." default:"the simulated tape"`
	Code        string   `help:"From another machine: the pairing code."`
	Fingerprint string   `help:"Of the certificate, where it was made by kindmargin."`
	Span        float64  `help:"Read a span of so many mm instead, as a tape does: with noise, to half a millimetre."`
	Sigma       float64  `help:"Its noise, mm." default:"0.8"`
	Count       int      `help:"How often." default:"1"`
	Seed        uint64   `help:"The same seed reads the same." default:"1"`
}

func (c tapeCmd) Run(ctx context.Context, out io.Writer) error {
	t := &tape{tapeCmd: c, http: http.Client{Timeout: 10 * time.Second}}
	if c.Fingerprint != "" {
		t.http.Transport = &http.Transport{TLSClientConfig: pinned(c.Fingerprint)}
	}
	if c.Code != "" {
		if err := t.pair(ctx); err != nil {
			return err
		}
	}
	send := func(text string) error {
		if text = strings.TrimSpace(text); text == "" {
			return nil
		}
		if err := t.say(ctx, text); err != nil {
			return err
		}
		_, err := fmt.Fprintln(out, "sent", text)
		return err
	}
	switch {
	case c.Span > 0:
		r := rnd.New(rnd.NewPCG(c.Seed, 0))
		for range c.Count {
			mm := c.Span + c.Sigma*r.NormFloat64()
			if err := send(fmt.Sprintf("%.1f mm", float64(int(mm*2+0.5))/2)); err != nil {
				return err
			}
		}
		return nil
	case len(c.Lengths) > 0:
		for _, l := range c.Lengths {
			if err := send(l); err != nil {
				return err
			}
		}
		return nil
	}
	lines := bufio.NewScanner(os.Stdin)
	for lines.Scan() {
		if err := send(lines.Text()); err != nil {
			fmt.Fprintln(out, err) // the next one may do
		}
	}
	return lines.Err()
}

// pinned takes one certificate, whoever signed it.
func pinned(fingerprint string) *tls.Config {
	return &tls.Config{
		MinVersion: tls.VersionTLS12, InsecureSkipVerify: true, // the fingerprint says more than a signature of its own
		VerifyConnection: func(s tls.ConnectionState) error {
			if len(s.PeerCertificates) == 0 || !strings.EqualFold(share.Fingerprint(tls.Certificate{Certificate: [][]byte{s.PeerCertificates[0].Raw}}), fingerprint) {
				return errors.New("the certificate has another fingerprint: nothing was sent")
			}
			return nil
		},
	}
}

// tape is a tape that speaks.
type tape struct {
	tapeCmd
	http http.Client
	pass *http.Cookie
}

func (t *tape) pair(ctx context.Context) error {
	res, err := t.post(ctx, "/api/pair", map[string]string{"code": t.Code, "name": t.Name})
	if err != nil {
		return err
	}
	defer res.Body.Close()
	for _, c := range res.Cookies() {
		t.pass = c
	}
	return nil
}

func (t *tape) say(ctx context.Context, text string) error {
	res, err := t.post(ctx, "/api/lengths", map[string]string{"text": text, "id": rand.Text(), "from": t.Name, "to": t.Device})
	if err != nil {
		return err
	}
	return res.Body.Close()
}

// post sends, and gives an answer that is well; else what the program says is wrong.
func (t *tape) post(ctx context.Context, path string, what any) (*http.Response, error) {
	b, err := json.Marshal(what)
	if err != nil {
		return nil, err
	}
	req, err := http.NewRequestWithContext(ctx, http.MethodPost, strings.TrimRight(t.To, "/")+path, bytes.NewReader(b))
	if err != nil {
		return nil, err
	}
	req.Header.Set("Content-Type", "application/json")
	if t.pass != nil {
		req.AddCookie(t.pass)
	}
	res, err := t.http.Do(req)
	if err != nil {
		return nil, fmt.Errorf("nothing answers at %s: %w", t.To, err)
	}
	if res.StatusCode < 300 {
		return res, nil
	}
	defer res.Body.Close()
	var said struct{ Detail string }
	_ = json.NewDecoder(io.LimitReader(res.Body, 1<<16)).Decode(&said)
	return nil, fmt.Errorf("%s: %s", res.Status, said.Detail)
}
