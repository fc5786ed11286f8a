package e2e

import (
	"bufio"
	"fmt"
	"io"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// ip runs ip(8).
func ip(t *testing.T, args ...string) error {
	out, err := exec.CommandContext(t.Context(), "ip", args...).CombinedOutput()
	if err != nil {
		return fmt.Errorf("ip %s: %w: %s", strings.Join(args, " "), err, out)
	}
	return nil
}

// Two hosts in network namespaces, where the machine allows them: one serves, the other finds
// it at the address that was printed, is refused without a pass, is let in by the code, and
// sees the certificate whose fingerprint was printed and no other.
func TestTwoHosts(t *testing.T) {
	t.Parallel()
	laptop, phone := fmt.Sprintf("km-laptop-%d", os.Getpid()), fmt.Sprintf("km-phone-%d", os.Getpid())
	if err := ip(t, "netns", "add", laptop); err != nil {
		t.Logf("this machine allows no network namespaces, so nothing was seen of two hosts: %v", err)
		return
	}
	t.Cleanup(func() {
		for _, n := range []string{laptop, phone} {
			_ = exec.Command("ip", "netns", "del", n).Run() // its own context is over by now
		}
	})
	for _, args := range [][]string{
		{"netns", "add", phone},
		{"link", "add", "wire0", "netns", laptop, "type", "veth", "peer", "name", "wire0", "netns", phone},
		{"-n", laptop, "addr", "add", "10.77.31.1/24", "dev", "wire0"},
		{"-n", phone, "addr", "add", "10.77.31.2/24", "dev", "wire0"},
		{"-n", laptop, "link", "set", "lo", "up"},
		{"-n", laptop, "link", "set", "wire0", "up"},
		{"-n", phone, "link", "set", "wire0", "up"},
	} {
		require.NoError(t, ip(t, args...))
	}
	for _, tls := range []bool{false, true} {
		args := []string{
			"netns", "exec", laptop, bin, "demo", "--share", "--addr", "0.0.0.0:8137", "--log", "warn", "--data",
			filepath.Join(t.TempDir(), "demo.db"),
		}
		url := "http://10.77.31.1:8137"
		if tls {
			args, url = append(args, "--tls"), "https://10.77.31.1:8137"
		}
		cmd := exec.CommandContext(t.Context(), "ip", args...)
		said, err := cmd.StdoutPipe()
		require.NoError(t, err)
		require.NoError(t, cmd.Start())
		lines := bufio.NewReader(said)
		var code, fingerprint, all string
		for code == "" || tls && fingerprint == "" {
			line, err := lines.ReadString('\n')
			require.NoError(t, err, all)
			all += line
			if _, c, ok := strings.Cut(line, "Pairing code: "); ok {
				code = strings.TrimSpace(c)
			}
			if strings.Count(line, ":") == 31 {
				fingerprint = strings.TrimSpace(line)
			}
		}
		go func() { _, _ = io.Copy(io.Discard, lines) }()
		assert.Contains(t, all, "for other devices at "+url)
		from := func(more ...string) string {
			out, err := exec.CommandContext(
				t.Context(), "ip",
				append([]string{"netns", "exec", phone, bin, "tape", "--to", url, "826 mm"}, more...)...,
			).CombinedOutput()
			require.Error(t, err, "no page is open that could hear it")
			return string(out)
		}
		pin := []string{}
		if tls {
			pin = []string{"--fingerprint", fingerprint}
			assert.Contains(t, from("--code", code), "certificate", "one that nobody signed is not trusted")
			assert.Contains(
				t, from("--code", code, "--fingerprint", strings.Replace(fingerprint, fingerprint[:2], "00", 1)),
				"another fingerprint",
			)
		}
		assert.Contains(t, from(pin...), "no pass")
		assert.Contains(t, from(append(pin, "--code", "2222-2222")...), "not the code")
		assert.Contains(t, from(append(pin, "--code", code)...), "No page of that device is open", "it is let in")
		require.NoError(t, cmd.Process.Signal(os.Interrupt))
		require.NoError(t, cmd.Wait(), "it ends on a signal, with no error")
	}
}
