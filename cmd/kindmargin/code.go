package main

import (
	"context"
	"encoding/json"
	"fmt"
	"io"
	"strings"

	"kindmargin/share"
)

// codeCmd asks a program that runs on this machine for a new pairing code, for use without a browser.
type codeCmd struct {
	To          string `help:"Where Kind Margin runs, on this machine." default:"http://127.0.0.1:8137"`
	Fingerprint string `help:"Of the certificate, where it runs with --tls: https://127.0.0.1:8137, and the fingerprint that it printed."`
}

func (c codeCmd) Run(ctx context.Context, out io.Writer) error {
	l, err := instrument{To: c.To, Fingerprint: c.Fingerprint}.reach(ctx, "")
	if err != nil {
		return err
	}
	res, err := l.post(ctx, "/api/sharing/code", nil)
	if err != nil {
		return err
	}
	defer res.Body.Close()
	var v struct {
		Code string
		URLs []string
	}
	if err := json.NewDecoder(io.LimitReader(res.Body, 1<<20)).Decode(&v); err != nil {
		return err
	}
	fmt.Fprintf(
		out, "Pairing code: %s\nIt lets in one device in the next ten minutes, at %s\n", v.Code,
		strings.Join(v.URLs, " or "),
	)
	if len(v.URLs) == 0 {
		return nil
	}
	rows, err := share.QR(v.URLs[0] + "/pair#" + v.Code)
	if err != nil {
		return err
	}
	return share.Print(out, rows)
}
