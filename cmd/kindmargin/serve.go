package main

import (
	"context"
	"crypto/tls"
	"errors"
	"fmt"
	"io"
	"log/slog"
	"net"
	"net/http"
	"os"
	"runtime/debug"
	"strings"
	"time"

	"kindmargin/api"
	"kindmargin/share"
	"kindmargin/store"
	"kindmargin/web"
)

type listen struct {
	Addr    string   `help:"Address to listen on; 127.0.0.1:8137 where none is given, and with --share port 8137 of every address." env:"KINDMARGIN_ADDR"`
	Log     string   `help:"What to log: debug, info, warn or error." default:"info" enum:"debug,info,warn,error" env:"KINDMARGIN_LOG"`
	Share   bool     `help:"Let devices on the local network in that know the pairing code." env:"KINDMARGIN_SHARE"`
	Name    []string `help:"With --share: names that this machine is reached by, beside its addresses." env:"KINDMARGIN_NAME"`
	TLS     bool     `help:"With --share: encrypt, by a certificate made here." env:"KINDMARGIN_TLS"`
	TLSCert string   `help:"With --share: encrypt, by a certificate of your own." type:"existingfile" env:"KINDMARGIN_TLS_CERT"`
	TLSKey  string   `help:"Its key." type:"existingfile" env:"KINDMARGIN_TLS_KEY"`
}

// dataFile is the default data file.
type dataFile struct {
	Data string `help:"Data file." default:"kindmargin.db" env:"KINDMARGIN_DATA" type:"path"`
}

type serveCmd struct {
	listen
	dataFile
}

func (c serveCmd) Run(ctx context.Context, out io.Writer) error {
	l, err := c.open(c.Data)
	if err != nil {
		return err
	}
	defer l.Close()
	st, err := store.Open(ctx, c.Data)
	if err != nil {
		return err
	}
	defer st.Close()
	return c.serve(ctx, out, l, st, c.Data)
}

// listener is where the program listens, and how others are let in.
type listener struct {
	net.Listener
	share api.Share
}

// open listens, before any file is touched; data is the data file, beside which a certificate is kept.
func (c listen) open(data string) (*listener, error) {
	addr := c.Addr
	switch {
	case addr == "" && c.Share: // shared, it is heard at every address, but for one that was given
		addr = ":8137"
	case addr == "":
		addr = "127.0.0.1:8137"
	}
	host, port, err := net.SplitHostPort(addr)
	if err != nil {
		return nil, fmt.Errorf("%q is no address to listen on: give one such as 127.0.0.1:8137", addr)
	}
	ip := net.ParseIP(host)
	local := host == "localhost" || ip != nil && ip.IsLoopback()
	switch {
	case !local && !c.Share:
		return nil, fmt.Errorf(
			"%s can be reached from other machines: add --share to let in those that know the pairing code, or "+
				"listen on 127.0.0.1",
			addr,
		)
	case !c.Share && (c.TLS || c.TLSCert != "" || len(c.Name) > 0):
		return nil, errors.New("--tls and --name go with --share")
	case (c.TLSCert == "") != (c.TLSKey == ""), c.TLS && c.TLSCert != "":
		return nil, errors.New("give --tls-cert and --tls-key together, or --tls alone")
	}
	l, err := net.Listen("tcp", net.JoinHostPort(host, port))
	if err != nil {
		return nil, fmt.Errorf("cannot listen on %s (is it running already?): %w", net.JoinHostPort(host, port), err)
	}
	if !c.Share {
		return &listener{l, api.Share{}}, nil
	}
	shared, err := c.shared(l, ip, host == "", data)
	if err != nil {
		_ = l.Close()
		return nil, err
	}
	return shared, nil
}

// shared is a listener for other clients: at one address, or at all.
func (c listen) shared(l net.Listener, ip net.IP, all bool, data string) (*listener, error) {
	_, port, err := net.SplitHostPort(l.Addr().String())
	if err != nil {
		return nil, err
	}
	at := []net.IP{ip}
	if all || ip == nil || ip.IsUnspecified() {
		if at, err = share.Addresses(); err != nil {
			return nil, err
		}
	}
	s := api.Share{Codes: share.Code, Plain: share.Plain, Hosts: c.Name, TLS: c.TLS || c.TLSCert != ""}
	scheme := "http"
	if s.TLS {
		scheme = "https"
		cert, err := c.certificate(data+".pem", at)
		if err != nil {
			return nil, err
		}
		if c.TLS {
			s.Fingerprint = share.Fingerprint(cert)
		}
		l = tls.NewListener(l, &tls.Config{
			Certificates: []tls.Certificate{cert}, MinVersion: tls.VersionTLS12, NextProtos: []string{"h2", "http/1.1"},
		})
	}
	for _, name := range c.Name {
		s.URLs = append(s.URLs, scheme+"://"+net.JoinHostPort(name, port))
	}
	for _, a := range at {
		s.Hosts = append(s.Hosts, a.String())
		if len(c.Name) == 0 { // else the names are what one wants to be found by
			s.URLs = append(s.URLs, scheme+"://"+net.JoinHostPort(a.String(), port))
		}
	}
	if len(s.URLs) == 0 {
		return nil, errors.New(
			"this machine is on no network that others could reach it by: join one, or run without --share",
		)
	}
	first := s.URLs[0]
	if _, err := share.QR(first); err != nil {
		return nil, err
	}
	s.QR = func(code string) [][]bool {
		rows, _ := share.QR(first + "/pair#" + code) // as the address alone does, it fits
		return rows
	}
	return &listener{l, s}, nil
}

func (c listen) certificate(path string, at []net.IP) (tls.Certificate, error) {
	if c.TLS {
		return share.Own(path, at, c.Name)
	}
	cert, err := tls.LoadX509KeyPair(c.TLSCert, c.TLSKey)
	if err != nil {
		err = fmt.Errorf("the certificate cannot be used: %w", err)
	}
	return cert, err
}

// says prints the program's address, and with sharing a pairing code.
func (l *listener) says(out io.Writer, newCode func() string) error {
	if l.share.Codes == nil {
		_, err := fmt.Fprintf(out, "Kind Margin is at http://%s\n", l.Addr())
		return err
	}
	scheme := "http"
	if l.share.TLS {
		scheme = "https"
	}
	host, port, err := net.SplitHostPort(l.Addr().String())
	if err != nil {
		return err
	}
	if ip := net.ParseIP(host); ip == nil || ip.IsUnspecified() {
		host = "127.0.0.1"
	}
	code := newCode()
	fmt.Fprintf(out, "Kind Margin is at %s://%s on this machine,\nand for other devices at %s\nPairing code: %s\nIt "+
		"lets in one device in the next ten minutes; for another, open Devices on this machine.\n",
		scheme, net.JoinHostPort(host, port), strings.Join(l.share.URLs, " or "), code)
	if l.share.Fingerprint != "" {
		fmt.Fprintf(
			out,
			"The certificate was made here. A browser warns of it once: see that it shows this SHA-256 "+
				"fingerprint.\n%s\n",
			l.share.Fingerprint,
		)
	}
	if !l.share.TLS {
		fmt.Fprintln(
			out,
			"All of it goes unencrypted over your network, the pairing code, readings and photographs too: on one "+
				"that you do not trust, add --tls.",
		)
	}
	return share.Print(out, l.share.QR(code))
}

// softLimit is the soft memory limit, in bytes: above it garbage is collected more often, so that a house of thousands
// of openings is put on paper in half the memory, in more time.
const softLimit = 320 << 20

func (c listen) serve(ctx context.Context, out io.Writer, l *listener, st *store.Store, data string) error {
	var level slog.Level
	if err := level.UnmarshalText([]byte(c.Log)); err != nil {
		return err
	}
	if os.Getenv("GOMEMLIMIT") == "" {
		debug.SetMemoryLimit(softLimit)
	}
	log := slog.New(slog.NewJSONHandler(os.Stderr, &slog.HandlerOptions{Level: level}))
	program := api.New(st, api.Pages{Handler: web.Handler(), Build: web.Build()}, log, l.share)
	srv := &http.Server{
		Handler:           program,
		ReadHeaderTimeout: 10 * time.Second,
		ReadTimeout:       time.Minute,
		WriteTimeout:      time.Minute,
		IdleTimeout:       2 * time.Minute,
		MaxHeaderBytes:    64 << 10,
		ErrorLog:          slog.NewLogLogger(log.Handler(), slog.LevelWarn),
	}
	srv.RegisterOnShutdown(program.Close)
	if err := l.says(out, program.NewCode); err != nil {
		return err
	}
	log.Info("listening", "address", l.Addr().String(), "data", data, "shared", c.Share)
	done := make(chan error, 1)
	go func() { done <- srv.Serve(l) }()
	select {
	case err := <-done:
		return err
	case <-ctx.Done():
	}
	log.Info("stopping")
	end, cancel := context.WithTimeout(context.Background(), 5*time.Second)
	defer cancel()
	if err := srv.Shutdown(end); err != nil { // somebody reads on: what was acknowledged is on the disk
		_ = srv.Close()
	}
	if err := <-done; !errors.Is(err, http.ErrServerClosed) {
		return err
	}
	return nil
}
