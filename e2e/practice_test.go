package e2e

import (
	"fmt"
	"os"
	"path/filepath"
	"regexp"
	"strconv"
	"strings"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kindmargin/core/practice"
)

// asks presses each of some readings, and waits until it is there.
func (u person) asks(ids ...string) {
	u.t.Helper()
	for _, id := range ids {
		n := u.count(`[data-readings] li`)
		u.click(`[data-ask="` + id + `"]`)
		u.until(id+" is read", `document.querySelectorAll('[data-readings] li').length === `+strconv.Itoa(n+1))
	}
}

func (u person) chooses(names ...string) {
	u.t.Helper()
	for _, name := range names {
		u.click(`[data-choose="` + name + `"]`)
		u.until(name, `document.querySelector('[data-choose="`+name+`"]').checked`)
	}
}

// A newcomer plays a practice opening to its end in well under ten minutes, taking the plan's cut and
// advice: it fits, and the grade says what was well. Played badly, it says why. A drill is answered, and
// what was practised is kept, with what to practise next; the attempt is graded the same from the command
// line.
func TestPractice(t *testing.T) {
	u := sit(t, "serve")
	u.open("/")
	u.click(`[data-practice]`)
	u.until("an opening comes first", `document.querySelector('[data-practise-next="opening"]')`)
	begun := time.Now()
	u.open("/practice/opening/even/13")
	u.asks(
		"width-200", "width-600", "width-1000", "width-1400", "width-1800", "height-50", "height-413", "height-776",
		"plumb-hinge", "plumb-lock", "level-head", "level-foot", "square-hinge", "diagonal-hinge", "diagonal-lock",
	)
	u.click(`[data-enough-read]`)
	u.click(`[data-cut-plan]`)
	u.until(
		"a slab comes first",
		`[...document.querySelectorAll('[role=alert]')].some((e) => e.innerText.includes('hoose a slab first'))`,
	)
	e, err := practice.New(13, "even")
	require.NoError(t, err)
	slab := "3"
	if wide := max(e.Sides["lock"][0], e.Sides["lock"][28]); wide > 840 {
		slab = "4"
	}
	u.chooses("Margins painted", "Slab "+slab, "Width comes off keep-lock")
	u.click(`[data-cut-plan]`)
	u.until(
		"it hangs",
		`document.querySelector('[data-call-done]') && document.querySelector('[data-light="lock middle"]')`,
	)
	for range 6 {
		before := u.js(`document.querySelector('[data-minutes]').innerText`)
		u.click(`[data-adjust-plan]`)
		u.until("advised", `document.querySelector('[data-minutes]').innerText !== `+strconv.Quote(before)+
			` || [...document.querySelectorAll('[role=alert]')].some((e) => e.innerText.includes('nothing more'))`)
		if u.count(`[role=alert]`) > 0 {
			break
		}
	}
	u.click(`[data-call-done]`)
	u.until("it fits, and says so", `document.querySelector('[data-grade="true"] [data-said="true"]')`)
	t.Logf("from the start to the grade: %v", time.Since(begun))
	assert.Zero(t, u.count(`[data-unchecked]`))
	attempt := u.js(`decodeURIComponent(document.querySelector('[data-attempt]').href.split(',').slice(1).join(','))`)
	file := filepath.Join(t.TempDir(), "attempt.json")
	require.NoError(t, os.WriteFile(file, []byte(attempt), 0o600))
	out, err := command(t, "practice", "grade", file)
	require.NoError(t, err, out)
	cut := regexp.MustCompile(`, (\d+) cm² to the saw`).FindStringSubmatch(out)
	require.NotNil(t, cut, out)
	assert.Regexp(t, `\b`+cut[1]+`\b`, u.js(`document.querySelector('[data-grade]').innerText`), "one figure, on screen and in print")
	assert.Contains(t, out, u.js(`document.querySelector('[data-said="true"]').lastChild.textContent.trim()`))
	require.NoError(
		t, os.WriteFile(file, []byte(strings.Replace(attempt, `"level": "even"`, `"level": "usual"`, 1)), 0o600),
	)
	out, err = command(t, "practice", "grade", file)
	require.Error(t, err)
	assert.Contains(t, out, "was altered")

	odd := filepath.Join(t.TempDir(), "\x1b[2Jattempt.json")
	require.NoError(t, os.WriteFile(odd, []byte(attempt), 0o600))
	out, err = command(t, "practice", "grade", odd)
	require.NoError(t, err, out)
	assert.NotContains(t, out, "\x1b", "no name steers the terminal")

	// Badly: one width, from a file that was handed out, the biggest slab, and square by guess.
	handed := filepath.Join(t.TempDir(), "class.json")
	out, err = command(t, "practice", "new", "--seed", "5", "--level", "usual")
	require.NoError(t, err)
	require.NoError(t, os.WriteFile(handed, []byte(out), 0o600))
	u.open("/practice")
	u.do(chromedp.SetUploadFiles(`[data-field="exercise-file"]`, []string{handed}))
	u.until(
		"the class's opening",
		`location.pathname === '/practice/opening/file/0' && document.querySelector('[data-ask]')`,
	)
	u.asks("width-1000")
	u.click(`[data-enough-read]`)
	u.chooses("Margins prefinished", "Slab 5", "Width comes off keep-hinge")
	for field, text := range map[string]string{"head": "805", "foot": "805", "length": "2000"} {
		u.do(chromedp.Focus(`[data-field="cut-` + field + `"]`))
		u.keys(text, kb.Tab)
	}
	u.click(`[data-cut-own]`)
	u.until("it hangs", `document.querySelector('[data-call-done]')`)
	u.click(`[data-call-done]`)
	u.until(
		"the grade says why",
		`document.querySelector('[data-grade="false"]') &&
			[...document.querySelectorAll('[data-said="false"]')].some((e) => e.innerText.includes('Too much came off')) && [...document.querySelectorAll('[data-said="false"]')].some((e) => e.innerText.includes('was more than it took')) && [...document.querySelectorAll('[data-unchecked]')].some((e) => e.innerText.includes('floor to head'))`,
	)

	// A class's: read, cut, handed in, and graded with the teacher's key alone.
	teacher := filepath.Join(t.TempDir(), "teacher.key")
	out, err = command(t, "practice", "new", "--seed", "6", "--level", "even", "--class", teacher)
	require.NoError(t, err, out)
	assert.NotContains(t, out, `"sides": {`)
	require.NoError(t, os.WriteFile(handed, []byte(out), 0o600))
	u.open("/practice")
	u.do(chromedp.SetUploadFiles(`[data-field="exercise-file"]`, []string{handed}))
	u.until(
		"the class's opening",
		`location.pathname === '/practice/opening/file/0' && document.querySelector('[data-ask]')`,
	)
	u.asks("width-200", "width-1800", "height-50", "square-hinge")
	u.click(`[data-enough-read]`)
	u.chooses("Margins painted", "Slab 3", "Width comes off keep-lock")
	for field, text := range map[string]string{"head": "820", "foot": "820", "length": "2020"} {
		u.do(chromedp.Focus(`[data-field="cut-` + field + `"]`))
		u.keys(text, kb.Tab)
	}
	u.click(`[data-cut-own]`)
	u.until(
		"it is handed in, and nothing is told",
		`document.querySelector('[data-handed-in]') && !document.querySelector('[data-grade]') &&
			!document.querySelector('[data-light]')`,
	)
	attempt = u.js(`decodeURIComponent(document.querySelector('[data-attempt]').href.split(',').slice(1).join(','))`)
	require.NoError(t, os.WriteFile(file, []byte(attempt), 0o600))
	out, err = command(t, "practice", "grade", file)
	require.Error(t, err)
	assert.Contains(t, out, "--class KEYFILE")
	out, err = command(t, "practice", "grade", "--class", teacher, file)
	require.NoError(t, err, out)
	assert.Contains(t, out, "4 readings")

	u.open("/practice")
	u.until("both are kept", `document.querySelector('[data-runs="2"]')`)
	u.click(`[data-drill="pocket"]`)
	u.click(`[data-asks="pocket"] [data-answer="0"]`)
	u.until("told, with why", `document.querySelector('[data-told]')?.innerText.includes('both recesses')`)
	u.click(`[data-another-drill]`)
	u.until("another", `!document.querySelector('[data-told]') && document.querySelector('[data-asks="pocket"]')`)
}

// A hidden opening is read by touching the drawing, which says where the hinges are; its minutes agree with the grade's; and
// it is begun again.
func TestPracticeByTouch(t *testing.T) {
	u := sit(t, "serve")
	u.open("/practice/opening/usual/8")
	u.until("the hinge side is named", `document.querySelector('[data-hinge-side]')?.textContent === 'hinge jamb'`)
	for i, id := range []string{"width-1000", "height-413", "plumb-lock"} {
		u.until(id, fmt.Sprintf(`document.querySelector('[data-touch=%q]')`, id))
		u.js(fmt.Sprintf(`(document.querySelector('[data-touch=%q]').dispatchEvent(new MouseEvent('click', { bubbles: true })), '')`, id))
		u.until(id+" is read", fmt.Sprintf(`document.querySelector('[data-readings]')?.dataset.readings === '%d'`, i+1))
	}
	u.click(`[data-enough-read]`)
	u.chooses("Margins painted", "Slab 4", "Width comes off keep-lock")
	u.click(`[data-cut-plan]`)
	u.until("it hangs", `document.querySelector('[data-call-done]')`)
	u.click(`[data-adjust-plan]`)
	u.click(`[data-call-done]`)
	u.until("the grade", `document.querySelector('[data-grade]')`)
	minutes := u.js(`document.querySelector('[data-minutes]').dataset.minutes`)
	assert.Contains(t, u.js(`document.querySelector('[data-grade]').innerText`), minutes)
	u.click(`[data-begin-again]`)
	u.until("nothing is read", `document.querySelector('[data-readings]')?.dataset.readings === '0' && document.querySelector('[data-touch]')`)
}
