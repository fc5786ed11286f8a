package day

import (
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kindmargin/core/field"
	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/lock"
	"kindmargin/core/measure"
	"kindmargin/core/plan"
	"kindmargin/core/season"
	"kindmargin/core/slab"
	"kindmargin/core/survey"
	"kindmargin/core/trade"
	"kindmargin/words"
)

var house = job.NewJob("h", "House", measure.Millimetres)

const mm = measure.Millimetre

// door is a square opening 826 by 2032, read often, with a slab on the trestles.
func door(t *testing.T, name string, change func(*job.Opening)) Opening {
	t.Helper()
	o := job.NewOpening(strings.ToLower(name), name, measure.Millimetres)
	o.Walls = job.New
	read := func(r survey.Reading) {
		for range 6 {
			r.ID = "r" + string(rune('a'+len(o.Readings)%26)) + string(rune('a'+len(o.Readings)/26))
			o.Readings = append(o.Readings, r)
		}
	}
	for _, at := range []measure.Length{100, 500, 1000, 1500, 1950} {
		read(survey.Reading{Kind: survey.Width, At: at * mm, Value: 826 * mm})
	}
	for _, at := range []measure.Length{50, 400, 770} {
		read(survey.Reading{Kind: survey.Height, At: at * mm, Value: 2032 * mm})
	}
	for _, side := range []frame.Side{frame.Hinge, frame.Lock} {
		read(survey.Reading{Kind: survey.Plumb, Side: side, At: 1800 * mm, From: 200 * mm})
	}
	read(survey.Reading{Kind: survey.Level, Side: frame.Head, At: 770 * mm, From: 50 * mm})
	read(survey.Reading{Kind: survey.Square, Side: frame.Hinge, At: 600 * mm})
	o.Slab = slab.Slab{Width: 838 * mm, Length: 2040 * mm, Thickness: 35 * mm, Construction: "hollow"}
	if change != nil {
		change(&o)
	}
	require.NoError(t, o.Check())
	return Opening{Opening: o, Plan: plan.Solve(house, o)}
}

const eight = 8 * 60

func tasks(t *testing.T, d Day, doors ...Opening) Work {
	t.Helper()
	require.NoError(t, d.Check())
	w, err := d.Tasks(house, doors, nil, eight)
	require.NoError(t, err)
	return w
}

func names(list []Task) (ids []string) {
	for _, t := range list {
		ids = append(ids, t.ID)
	}
	return ids
}

func (w Work) find(t *testing.T, id string) Task {
	t.Helper()
	i := slices.IndexFunc(w.Tasks, func(t Task) bool { return t.ID == id })
	require.GreaterOrEqual(t, i, 0, "%s in %v", id, names(w.Tasks))
	return w.Tasks[i]
}

// at is when a task begins and ends, without its preparing.
func (w Work) at(t *testing.T, o Order, id string) (start, end int) {
	t.Helper()
	for _, e := range o.Entries {
		if w.Tasks[e.Task].ID == id {
			return e.Start + e.Prep, e.End
		}
	}
	require.Fail(t, "not in the order", id)
	return 0, 0
}

// What remains of a door, in trade order: its parts that are done are left out.
func TestWhatRemainsOfADoor(t *testing.T) {
	d := Usual("2026-11-26")
	d.Coats = 2
	fresh := door(t, "Study", nil)
	assert.Equal(t, []string{
		"study/cut", "study/seal", "study/pockets", "study/jamb", "study/hang", "study/try", "study/bores",
		"study/strike", "study/stops",
		"study/coat", "study/coat-2", "study/sign",
	}, names(tasks(t, d, fresh).Tasks))

	hung := door(t, "Study", func(o *job.Opening) {
		free := door(t, "Study", nil)
		o.Tried = []job.Tried{{Made: free.Plan.Leaves[0].Try.Planned, Hangs: []job.Hang{{ID: "h1"}}}}
	})
	assert.Equal(
		t,
		[]string{"study/try", "study/bores", "study/strike", "study/stops", "study/coat", "study/coat-2", "study/sign"},
		names(tasks(t, d, hung).Tasks),
	)

	first := door(t, "Study", func(o *job.Opening) { o.Lock.When = lock.First })
	early := tasks(t, d, first)
	assert.Equal(t, []string{"study/bores", "study/hang"}, names(early.Tasks)[4:6], "on the trestles, before it hangs")
	assert.Equal(t, trade.AtTrestles, early.find(t, "study/bores").Place)
	assert.Equal(t, trade.AtOpening, tasks(t, d, fresh).find(t, "study/bores").Place)
	came := door(t, "Study", func(o *job.Opening) {
		o.Slab.Machined, o.Slab.Handle = []frame.Side{frame.Lock}, 1000*measure.Millimetre
	})
	assert.Contains(t, names(tasks(t, d, came).Tasks), "study/case")
	assert.NotContains(t, names(tasks(t, d, came).Tasks), "study/bores", "it came bored")

	hanging := door(t, "Study", func(o *job.Opening) { o.Service, o.Readings = &job.Service{}, nil })
	assert.Equal(t, []string{"study/service", "study/sign"}, names(tasks(t, d, hanging).Tasks), "it hangs already")

	unread := door(t, "Study", func(o *job.Opening) { o.Readings = nil })
	assert.Equal(t, "study/measure", tasks(t, d, unread).Tasks[0].ID)
	signed := door(t, "Study", func(o *job.Opening) { o.Signed = &job.Signed{On: "2026-11-25", By: "Wren"} })
	assert.Empty(t, tasks(t, d, signed).Tasks)
}

// An insert's glue dries under tape for twenty minutes, in clamps over night; old pockets that are
// too wide are filled before the jamb's are cut. Common practice.
func TestGlueAndFiller(t *testing.T) {
	low := door(t, "Low", func(o *job.Opening) {
		for i := range o.Readings {
			if o.Readings[i].Kind == survey.Height {
				o.Readings[i].Value = 1860 * mm
			}
		}
		most := 200 * mm
		o.Slab.Limits = slab.Limits{Head: &most, Foot: &most, Hinge: &most, Lock: &most}
	})
	d := Usual("2026-11-26")
	assert.Equal(t, 20, tasks(t, d, low).find(t, "low/insert").Dries)
	d.Clamps = true
	w := tasks(t, d, low)
	assert.Equal(t, 12*60, w.find(t, "low/insert").Dries)
	o, err := d.Plan(w, eight)
	require.NoError(t, err)
	_, glued := w.at(t, o, "low/insert")
	sealed, _ := w.at(t, o, "low/seal")
	assert.GreaterOrEqual(t, sealed, glued+12*60)
	assert.Equal(t, dayMinutes+eight, sealed-sealed%60, "first thing the day after")
	bored, _ := w.at(t, o, "low/jamb")
	assert.Less(t, bored, dayMinutes, "the jamb is done meanwhile")
}

// A heavy slab is handled by two where two are there; one who is alone takes longer, and is told once that two are safer.
func TestHandsByWeight(t *testing.T) {
	// 838 × 2040 × 35 × 600 kg/m³ = 36 kg
	heavy := door(t, "Porch", func(o *job.Opening) { o.Slab.Construction = "flush" })
	light := door(t, "Pantry", nil) // at 220 kg/m³, 13 kg
	d := Usual("2026-11-26")
	alone := tasks(t, d, heavy, light)
	assert.Equal(t, []string{"Porch"}, alone.Heavy)
	for _, task := range alone.Tasks {
		assert.Equal(t, 1, task.Hands, task.ID)
	}
	assert.NotEmpty(t, alone.find(t, "porch/hang").Alone)
	assert.Empty(t, alone.find(t, "pantry/hang").Alone)
	o, err := d.Plan(alone, eight)
	require.NoError(t, err)
	assert.Len(t, o.Entries, len(alone.Tasks), "every task is planned")

	d.Carpenters = append(d.Carpenters, Carpenter{"Lark", 13 * 60, 14*60 + 30})
	w := tasks(t, d, heavy, light)
	assert.Empty(t, w.Heavy)
	assert.Equal(t, 2, w.find(t, "porch/hang").Hands)
	assert.Equal(t, 1, w.find(t, "porch/pockets").Hands)
	assert.Equal(t, 1, w.find(t, "pantry/hang").Hands)
	for _, id := range []string{"porch/cut", "porch/hang", "porch/try"} {
		one := alone.find(t, id)
		assert.Positive(t, one.More, id)
		assert.Equal(t, w.find(t, id).Minutes+one.More, one.Minutes, id)
	}
	o, err = d.Plan(w, eight)
	require.NoError(t, err)
	for _, e := range o.Entries {
		if w.Tasks[e.Task].Hands == 2 {
			assert.Len(t, e.Who, 2)
			assert.GreaterOrEqual(t, e.Start, 13*60)
		}
	}
	assert.Empty(t, o.Left)

	d.Marks = []Mark{{Task: "pantry/hang", Hands: 2}}
	_, err = d.Tasks(house, []Opening{light}, nil, eight)
	assert.Contains(t, told(t, err)[0], "the slab weighs 13 kg, and one lifts that")
}

// Past 60 kg nobody hangs a slab alone: what comes before it is planned, its hanging waits for a second person, and the
// other doors go on. Common practice.
func TestNinetyKilogramsAlone(t *testing.T) {
	// 838 × 2040 × 88 × 600 kg/m³ = 90 kg
	vault := door(t, "Vault", func(o *job.Opening) {
		o.Slab.Construction, o.Slab.Thickness = "flush", 88*mm
	})
	light := door(t, "Pantry", nil)
	d := Usual("2026-11-26")
	w := tasks(t, d, vault, light)
	ids := names(w.Tasks)
	assert.Contains(t, ids, "vault/cut")
	assert.Contains(t, ids, "vault/jamb")
	assert.NotContains(t, ids, "vault/hang")
	assert.Contains(t, ids, "pantry/sign")
	require.Len(t, w.Held, 1)
	assert.Equal(
		t, "its hanging waits for a second person: about 90 kg. The rest is planned as far as that",
		words.In(job.British, measure.Millimetres, measure.HalfMillimetre).Say(w.Held[0].Why),
	)
	_, err := d.Plan(w, eight)
	require.NoError(t, err)

	d.Carpenters = append(d.Carpenters, Carpenter{"Lark", 8 * 60, 17 * 60})
	assert.Equal(t, 2, tasks(t, d, vault).find(t, "vault/hang").Hands)
	d.Marks = []Mark{{Task: "vault/hang", Hands: 1}}
	_, err = d.Tasks(house, []Opening{vault}, nil, eight)
	assert.Equal(
		t,
		"Vault: Hang it on its trial screws: the slab weighs 90 kg, and is not hung alone from 60 kg up. Leave it at two.",
		told(t, err)[0],
	)
}

// Six doors on one router's depth: it is set once, and a coat dries while other doors are worked on.
func TestABatchSharesItsSetting(t *testing.T) {
	d := Usual("2026-11-26")
	var doors []Opening
	for _, n := range []string{"One", "Two", "Three"} {
		doors = append(doors, door(t, n, nil))
	}
	w := tasks(t, d, doors...)
	o, err := d.Plan(w, eight)
	require.NoError(t, err)
	times := map[string]int{}
	last := map[string]string{}
	for _, e := range o.Entries {
		set := w.Tasks[e.Task].Set
		if set.Tool != "" && last[set.Tool] != set.Key {
			last[set.Tool] = set.Key
			times[set.Tool]++
		}
	}
	assert.Equal(t, 1, times["router"])
	// Apart, each door would be walked to and its tools set for it alone.
	apart := 0
	for _, one := range doors {
		w := tasks(t, d, one)
		o, err := d.Plan(w, eight)
		require.NoError(t, err)
		apart += o.Prep
	}
	assert.Less(t, o.Prep, apart)
}

// A task that runs late moves what waits for it and nothing that does not have to; one that is done
// holds its drying against the clock; one that is struck out hands on what it waited for.
func TestReplanned(t *testing.T) {
	d := Usual("2026-11-26")
	d.Coats = 2
	study := door(t, "Study", nil)
	w := tasks(t, d, study)
	o, err := d.Plan(w, eight)
	require.NoError(t, err)
	before, _ := w.at(t, o, "study/hang")

	d.Marks = []Mark{{Task: "study/cut", Begun: "2026-11-26T08:00", Late: 30}}
	w = tasks(t, d, study)
	o, err = d.Plan(w, eight)
	require.NoError(t, err)
	assert.Equal(t, "study/cut", w.Tasks[o.Entries[0].Task].ID, "what is in hand is gone on with")
	late, _ := w.at(t, o, "study/hang")
	assert.Equal(t, before+30-trade.WalkMinutes-trade.SetUpMinutes, late, "it stands at the saw already")

	d.Marks = []Mark{
		{Task: "study/cut", Done: "2026-11-26T08:40"},
		{Task: "study/seal", Done: "2026-11-26T09:00"},
		{Task: "study/jamb", Struck: true},
	}
	w, err = d.Tasks(house, []Opening{study}, nil, 9*60)
	require.NoError(t, err)
	assert.Len(t, w.Done, 3)
	hang := w.find(t, "study/hang")
	assert.Equal(t, 9*60+30, hang.Ready, "the sealer dries for half an hour")
	o, err = d.Plan(w, 9*60)
	require.NoError(t, err)
	start, _ := w.at(t, o, "study/hang")
	assert.GreaterOrEqual(t, start, 9*60+30)

	one, _ := w.at(t, o, "study/coat-2")
	_, coat := w.at(t, o, "study/coat")
	assert.GreaterOrEqual(t, one, coat+240)
}

// While two readings clash nothing of a door is planned but to read again.
func TestADoorWhoseReadingsClash(t *testing.T) {
	w := tasks(t, Usual("2026-11-26"), door(t, "Study", func(o *job.Opening) { o.Readings[0].Value = 926 * mm }))
	assert.Equal(t, []string{"study/measure"}, names(w.Tasks))
	require.Len(t, w.Held, 1)
	assert.Equal(t, "day.clash", string(w.Held[0].Why.ID))
}

// The house's own log goes before the table: 60 minutes at the lock, where the table gives an
// ordinary door 8 + 28 + 4 + 20, is its pace.
func TestTheHousesOwnPace(t *testing.T) {
	d := Usual("2026-11-26")
	study := door(t, "Study", nil)
	w, err := d.Tasks(house, []Opening{study}, Log{job.StepLock: 30}, eight)
	require.NoError(t, err)
	assert.Equal(t, 11, w.find(t, "study/bores").Minutes, "(8 + 14) / 2")
	w, err = d.Tasks(house, []Opening{study}, Log{job.StepLock: 6000}, eight)
	require.NoError(t, err)
	assert.Equal(t, 66, w.find(t, "study/bores").Minutes, "three times as long at most: a clock was left running")
}

// A slab from a damp yard lies in its room before it is cut; where that takes more than a week, what
// comes after is held, and it says so.
func TestASlabThatLies(t *testing.T) {
	lying := func(moisture season.Percent) Opening {
		return door(t, "Loft", func(o *job.Opening) {
			o.Slab.Construction = "solid"
			o.Season = season.Choice{Climate: "heated", Air: &season.Air{Celsius: 20, Humidity: 45}, Moisture: moisture}
		})
	}
	d := Usual("2026-11-26")
	d.Carpenters = append(d.Carpenters, Carpenter{"Lark", eight, 17 * 60})
	short := lying(9.9)
	days := short.Plan.Leaves[0].Season.Lie
	require.Positive(t, days)
	require.LessOrEqual(t, days, 7)
	w := tasks(t, d, short)
	o, err := d.Plan(w, eight)
	require.NoError(t, err)
	_, laid := w.at(t, o, "loft/lie")
	cut, _ := w.at(t, o, "loft/cut")
	assert.GreaterOrEqual(t, cut, laid+days*dayMinutes)

	w = tasks(t, d, lying(16))
	assert.Equal(t, []string{"loft/lie"}, names(w.Tasks), "nothing that comes after, paint and sign-off neither")
	require.NotEmpty(t, w.Held)
	assert.Equal(t, "day.lies", string(w.Held[0].Why.ID))
}

// Nobody works on the night, at the break, nor on a Sunday.
func TestWhatDoesNotGoInGoesOnMonday(t *testing.T) {
	d := Usual("2026-11-27") // a Friday
	d.Carpenters[0].To = 11 * 60
	w := tasks(t, d, door(t, "Study", nil))
	o, err := d.Plan(w, eight)
	require.NoError(t, err)
	days := map[int]bool{}
	for _, e := range o.Entries {
		days[e.Start/dayMinutes] = true
	}
	assert.Equal(t, map[int]bool{0: true, 3: true}, days)
	assert.Equal(t, "2026-11-30 08:00", d.Moment(3*dayMinutes+eight).Format("2006-01-02 15:04"))
	m, ok := d.Minute("2026-11-28T00:10")
	assert.True(t, ok)
	assert.Equal(t, dayMinutes+10, m)
}

// told are the problems of an error in words.
func told(t *testing.T, err error) (list []string) {
	t.Helper()
	var bad field.Errors
	require.ErrorAs(t, err, &bad)
	for _, f := range bad {
		list = append(list, words.In(job.British, measure.Millimetres, measure.HalfMillimetre).Say(f.Problem))
	}
	return list
}

// What cannot be is named, with its numbers and what would work.
func TestDaysThatCannotBe(t *testing.T) {
	for says, change := range map[string]func(*Day){
		"From 17:00 to 08:00 there are no hours to work": func(d *Day) {
			d.Carpenters[0].From, d.Carpenters[0].To = 17*60, eight
		},
		"takes the whole day. Make it shorter":              func(d *Day) { d.Break = Span{0, dayMinutes} },
		"A day is planned for 1 to 6 carpenters, not for 0": func(d *Day) { d.Carpenters = nil },
		"is not a date. Write it like 2026-11-26":           func(d *Day) { d.Date = "tomorrow" },
		"Fetch paint waits for itself": func(d *Day) {
			d.Own = []Own{{ID: "p", Name: "Fetch paint", Minutes: 20, Place: trade.Outside, After: []string{"p"}}}
		},
		"Varnish holds up what comes after it for 9 days. A week is the most": func(d *Day) {
			d.Own = []Own{{ID: "v", Name: "Varnish", Minutes: 20, Place: trade.Outside, Dries: 9 * dayMinutes}}
		},
		"A coat that dries for 8 days": func(d *Day) { d.CoatDries = 8 * dayMinutes },
		"is not a time":                func(d *Day) { d.Marks = []Mark{{Task: "x", Done: "ten"}} },
		"There is no place of work": func(d *Day) {
			d.Own = []Own{{ID: "p", Name: "Sweep", Minutes: 5, Place: "roof"}}
		},
	} {
		d := Usual("2026-11-26")
		change(&d)
		assert.Contains(t, told(t, d.Check())[0], says)
	}
	d := Usual("2026-11-26")
	d.Own = []Own{
		{ID: "a", Name: "Order glass", Minutes: 5, Place: trade.Outside, After: []string{"b"}},
		{ID: "b", Name: "Fit glass", Minutes: 5, Place: trade.AtOpening, After: []string{"a"}},
	}
	w := tasks(t, d)
	_, err := d.Plan(w, eight)
	assert.Equal(t, "These wait for one another: Order glass and Fit glass. Let one of them not wait.", told(t, err)[0])
	d.Own = []Own{{ID: "a", Name: "Hang the gate", Minutes: 400, Place: trade.Outside}}
	_, err = d.Plan(tasks(t, d), eight)
	assert.Equal(
		t,
		"Hang the gate takes 6 h 42 with walking and setting up. The longest stretch without a break is 4 h 30. "+
			"Split it, or make the day longer.",
		told(t, err)[0],
	)
}
