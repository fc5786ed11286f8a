package main

import (
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"os"
	"strings"
	"unicode"

	"kindmargin/class"
	"kindmargin/core/practice"
)

// practiceCmd makes exercises for a class, and grades what comes back.
type practiceCmd struct {
	New   exerciseCmd `cmd:"" help:"Draw an exercise, as a file to hand out."`
	Grade gradeCmd    `cmd:"" help:"Grade attempts at exercises."`
}

type exerciseCmd struct {
	Seed  uint64 `help:"The same seed draws the same opening." default:"1"`
	Level string `help:"even, usual or crooked." default:"usual"`
	Class string `help:"For a class: its truth is sealed for the key in this file, which is made where there is none. Grading needs it." type:"path" placeholder:"KEYFILE"`
}

func (c exerciseCmd) Run(out io.Writer) error {
	e, err := practice.New(c.Seed, c.Level)
	if err != nil {
		return err
	}
	if c.Class != "" {
		key, err := class.Key(c.Class)
		if err != nil {
			return err
		}
		if e, err = class.Seal(e, key.Recipient()); err != nil {
			return err
		}
	}
	_, err = out.Write(e.Write())
	return err
}

// plain is foreign text for a terminal: without control characters.
func plain(text string) string {
	return strings.Map(func(r rune) rune {
		if !unicode.IsPrint(r) {
			return '\uFFFD'
		}
		return r
	}, text)
}

type gradeCmd struct {
	Files []string `arg:"" help:"Attempts, as the page saves them." type:"existingfile"`
	Class string   `help:"The file with the key of the class that they are of." type:"existingfile" placeholder:"KEYFILE"`
	JSON  bool     `help:"As JSON."`
}

// unsealed is an attempt of a class, with what was sealed in it.
func (c gradeCmd) unsealed(e practice.Exercise) (practice.Exercise, error) {
	if c.Class == "" {
		return e, errors.New("it is of a class: give the file with its key, --class KEYFILE")
	}
	key, err := class.Key(c.Class)
	if err != nil {
		return e, err
	}
	return class.Open(e, key)
}

// gradeText is a grade in words.
type gradeText struct {
	*practice.Grade
	Said      []judgement
	Unchecked []string
	Learn     string
}

type judgement struct {
	Good bool
	Text string
}

func inText(g *practice.Grade) gradeText {
	t := gradeText{Grade: g, Learn: terminal.Say(g.Learn)}
	for _, s := range g.Said {
		t.Said = append(t.Said, judgement{s.Good, terminal.Say(s.Text)})
	}
	for _, u := range g.Unchecked {
		t.Unchecked = append(t.Unchecked, terminal.Say(u))
	}
	return t
}

func (c gradeCmd) Run(out io.Writer) error {
	for _, name := range c.Files {
		b, err := os.ReadFile(name)
		if err != nil {
			return err
		}
		e, err := practice.Read(b)
		if err != nil {
			return fmt.Errorf("%s: %s", plain(name), plain(inWords(err).Error()))
		}
		if e.Sealed != "" {
			if e, err = c.unsealed(e); err != nil {
				return fmt.Errorf("%s: %s", plain(name), plain(inWords(err).Error()))
			}
		}
		s, err := practice.Play(e, e.Moves)
		if err != nil {
			return fmt.Errorf("%s: %s", plain(name), plain(inWords(err).Error()))
		}
		if s.Grade == nil {
			return fmt.Errorf("%s: it was not played to its end: %d moves", plain(name), len(e.Moves))
		}
		if c.JSON {
			if err := json.NewEncoder(out).Encode(inText(s.Grade)); err != nil {
				return err
			}
			continue
		}
		g := inText(s.Grade)
		fmt.Fprintf(out, "%s: %s\n", plain(name), plain(terminal.Say(e.Title())))
		fmt.Fprintf(
			out, "  %d readings, %d trips, %.0f minutes, %.1f mm uneven, %.0f cm² to the saw (%.0f at least)\n",
			g.Readings, g.Trips, g.Minutes, g.Uneven, g.Waste, g.Least,
		)
		for _, x := range g.Said {
			mark := "-"
			if x.Good {
				mark = "+"
			}
			fmt.Fprintf(out, "  %s %s\n", mark, x.Text)
		}
		for _, u := range g.Unchecked {
			fmt.Fprintf(out, "  - never read: %s\n", u)
		}
		fmt.Fprintf(
			out, "  the plan: %d trips, %.0f minutes; practise next: %s\n", g.Plan.Trips, g.Plan.Minutes, g.Learn,
		)
	}
	return nil
}
