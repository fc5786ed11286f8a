package main

import (
	"context"
	"errors"
	"fmt"
	"io"
	rnd "math/rand/v2"
	"time"

	"kindmargin/core/trade"
)

// airCmd is a simulated hygrometer: the stand-in for one that logs.
type airCmd struct {
	Read       []string `arg:"" optional:"" help:"Temperature and humidity to send, such as 18.5C 54%."`
	instrument `embed:""`
	Job        string `help:"ID of the job, as its address has it." required:""`
	Name       string `help:"What the hygrometer is called." default:"the simulated hygrometer"`
	Climate    string `help:"Read a climate's air instead, as a hygrometer does, with noise: heated, coast, dry, humid, unheated."`
	Month      int    `help:"In which month, 1 to 12." default:"1"`
	Days       int    `help:"So many days up to now, four readings a day." default:"14"`
	Seed       uint64 `help:"The same seed reads the same." default:"1"`
}

// perDay is how many readings a day the simulated hygrometer takes.
const perDay = 4

func (c airCmd) Run(ctx context.Context, out io.Writer) error {
	line, err := c.reach(ctx, c.Name)
	if err != nil {
		return err
	}
	send := func(temperature, humidity string, at time.Time) error {
		return line.send(ctx, "/api/jobs/"+c.Job+"/air", map[string]string{
			"temperature": temperature, "humidity": humidity, "from": c.Name, "at": at.Format(time.RFC3339),
		})
	}
	now := time.Now().UTC()
	if c.Climate == "" {
		if len(c.Read) != 2 {
			return errors.New("give a temperature and a humidity, such as 18.5C 54%, or a climate")
		}
		if err := send(c.Read[0], c.Read[1], now); err != nil {
			return err
		}
		_, err := fmt.Fprintln(out, "sent", c.Read[0], c.Read[1])
		return err
	}
	climate, ok := trade.ClimateByID(c.Climate)
	if !ok || c.Month < 1 || c.Month > 12 || c.Days < 1 || c.Days > 400 {
		return fmt.Errorf(
			"no climate %q in month %d for %d days: heated, coast, dry, humid or unheated; 1 to 12; 1 to 400",
			c.Climate, c.Month, c.Days,
		)
	}
	r := rnd.New(rnd.NewPCG(c.Seed, 1))
	month := climate.Months[c.Month-1]
	for i := range c.Days * perDay {
		at := now.Add(-time.Duration(c.Days*perDay-1-i) * 24 * time.Hour / perDay)
		temperature, humidity := month.Celsius+0.6*r.NormFloat64(), min(max(month.Humidity+3*r.NormFloat64(), 5), 99)
		if err := send(fmt.Sprintf("%.1f °C", temperature), fmt.Sprintf("%.0f %%", humidity), at); err != nil {
			return err
		}
	}
	_, err = fmt.Fprintf(out, "sent %d readings of %d days\n", c.Days*perDay, c.Days)
	return err
}
