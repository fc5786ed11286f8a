// Package share has what sharing needs outside the API: the addresses of this machine, its certificate, and QR codes.
package share

import (
	"crypto/ecdsa"
	"crypto/elliptic"
	"crypto/rand"
	"crypto/sha256"
	"crypto/tls"
	"crypto/x509"
	"crypto/x509/pkix"
	"encoding/pem"
	"errors"
	"fmt"
	"io"
	"io/fs"
	"math/big"
	"net"
	"os"
	"strings"
	"time"

	"github.com/yeqown/go-qrcode/v2"
)

// Addresses are the addresses of this machine on the local network, the likeliest first.
func Addresses() ([]net.IP, error) {
	list, err := net.InterfaceAddrs()
	if err != nil {
		return nil, err
	}
	var near, far []net.IP
	for _, a := range list {
		n, ok := a.(*net.IPNet)
		switch {
		case !ok || n.IP.IsLoopback() || n.IP.IsLinkLocalUnicast() || n.IP.IsMulticast():
		case n.IP.To4() != nil && n.IP.IsPrivate():
			near = append(near, n.IP)
		default:
			far = append(far, n.IP)
		}
	}
	return append(near, far...), nil
}

// codeLetters are the letters of a pairing code, none easily confused with another, read aloud or in capitals.
const codeLetters = "23456789CDFGHJKMPQRTVWXY"

// Code is a new pairing code, 8 letters in two groups: 36 bits, of which nobody can try more than a hundred in its
// lifetime of ten minutes.
func Code() string {
	var b strings.Builder
	for i := range 8 {
		if i == 4 {
			b.WriteByte('-')
		}
		n, err := rand.Int(rand.Reader, big.NewInt(int64(len(codeLetters))))
		if err != nil {
			panic(err) // crypto/rand does not fail
		}
		b.WriteByte(codeLetters[n.Int64()])
	}
	return b.String()
}

// Plain normalises a code for comparison: lower case, without hyphens and spaces.
func Plain(code string) string {
	return strings.Map(func(r rune) rune {
		if strings.ContainsRune("- \t", r) {
			return -1
		}
		return r
	}, strings.ToUpper(code))
}

// QR is a text as a QR code, row by row, true where it is dark; without the quiet zone.
func QR(text string) ([][]bool, error) {
	q, err := qrcode.NewWith(text, qrcode.WithErrorCorrectionLevel(qrcode.ErrorCorrectionMedium))
	if err != nil {
		return nil, err
	}
	var w bits
	if err := q.Save(&w); err != nil {
		return nil, err
	}
	return w.rows, nil
}

// bits takes a code's squares.
type bits struct{ rows [][]bool }

func (b *bits) Write(m qrcode.Matrix) error { b.rows = m.Bitmap(); return nil }

func (b *bits) Close() error { return nil }

// Print prints a QR code in a terminal, two rows a line, readable on dark and light backgrounds, with its quiet zone.
func Print(w io.Writer, rows [][]bool) error {
	const quiet = 2
	dark := func(x, y int) bool {
		return y >= 0 && y < len(rows) && x >= 0 && x < len(rows[y]) && rows[y][x]
	}
	for y := -quiet; y < len(rows)+quiet; y += 2 {
		var line strings.Builder
		line.WriteString("\x1b[30;107m") // black on white, whatever the terminal is
		for x := -quiet; x < len(rows)+quiet; x++ {
			switch up, down := dark(x, y), dark(x, y+1); {
			case up && down:
				line.WriteString("█")
			case up:
				line.WriteString("▀")
			case down:
				line.WriteString("▄")
			default:
				line.WriteString(" ")
			}
		}
		line.WriteString("\x1b[0m\n")
		if _, err := io.WriteString(w, line.String()); err != nil {
			return err
		}
	}
	return nil
}

// validity is the lifetime of a certificate made here: less than browsers' limit.
const validity = 397 * 24 * time.Hour

// Own reads the certificate at a path, or makes a self-signed one there for some addresses and names; one with less
// than a month left, or not for all of them, is replaced.
func Own(path string, hosts []net.IP, names []string) (tls.Certificate, error) {
	have, err := tls.LoadX509KeyPair(path, path)
	switch {
	case err == nil && holds(have, hosts, names):
		return have, nil
	case err != nil && !errors.Is(err, fs.ErrNotExist):
		return have, fmt.Errorf("the certificate %s cannot be read: take it away, and another is made: %w", path, err)
	}
	key, err := ecdsa.GenerateKey(elliptic.P256(), rand.Reader)
	if err != nil {
		return have, err
	}
	serial, err := rand.Int(rand.Reader, new(big.Int).Lsh(big.NewInt(1), 120))
	if err != nil {
		return have, err
	}
	from := time.Now().Add(-time.Hour) // a phone's clock may be behind
	c := &x509.Certificate{
		SerialNumber: serial, Subject: pkix.Name{CommonName: "Kind Margin on this machine"}, NotBefore: from,
		NotAfter: from.Add(validity),
		KeyUsage: x509.KeyUsageDigitalSignature, ExtKeyUsage: []x509.ExtKeyUsage{x509.ExtKeyUsageServerAuth},
		BasicConstraintsValid: true,
		IPAddresses:           append([]net.IP{net.IPv4(127, 0, 0, 1), net.IPv6loopback}, hosts...),
		DNSNames:              append([]string{"localhost"}, names...),
	}
	der, err := x509.CreateCertificate(rand.Reader, c, c, &key.PublicKey, key)
	if err != nil {
		return have, err
	}
	private, err := x509.MarshalPKCS8PrivateKey(key)
	if err != nil {
		return have, err
	}
	both := append(
		pem.EncodeToMemory(&pem.Block{Type: "CERTIFICATE", Bytes: der}),
		pem.EncodeToMemory(&pem.Block{Type: "PRIVATE KEY", Bytes: private})...,
	)
	if err := os.WriteFile(path, both, 0o600); err != nil {
		return have, err
	}
	return tls.X509KeyPair(both, both)
}

// holds reports whether a certificate is valid for another month and for all of some addresses and names.
func holds(c tls.Certificate, hosts []net.IP, names []string) bool {
	if c.Leaf == nil || time.Until(c.Leaf.NotAfter) < 30*24*time.Hour {
		return false
	}
	for _, h := range hosts {
		if c.Leaf.VerifyHostname(h.String()) != nil {
			return false
		}
	}
	for _, n := range names {
		if c.Leaf.VerifyHostname(n) != nil {
			return false
		}
	}
	return true
}

// Fingerprint is a certificate's SHA-256 as browsers show it, in pairs.
func Fingerprint(c tls.Certificate) string {
	sum := sha256.Sum256(c.Certificate[0])
	return strings.ReplaceAll(fmt.Sprintf("% X", sum), " ", ":")
}
