package api

import (
	"fmt"
	"reflect"

	"github.com/danielgtaylor/huma/v2"

	"kindmargin/core/figure"
	"kindmargin/core/fit"
	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/lining"
	"kindmargin/core/load"
	"kindmargin/core/measure"
	"kindmargin/core/plan"
	"kindmargin/core/season"
	"kindmargin/core/site"
	"kindmargin/core/survey"
	"kindmargin/core/swing"
	"kindmargin/core/trade"
)

// oneOf describes, in the contract, a type of core with a fixed set of values, as an enumeration for the front end's
// types.
type oneOf[T any] struct{}

// Schema lists the values.
func (oneOf[T]) Schema(huma.Registry) *huma.Schema {
	return &huma.Schema{Type: huma.TypeString, Enum: values[reflect.TypeFor[T]()]}
}

var values = map[reflect.Type][]any{}

func enum[T any](r huma.Registry, list ...T) {
	t := reflect.TypeFor[T]()
	var words []any
	for _, v := range list {
		words = append(words, fmt.Sprint(v))
	}
	values[t] = words
	r.RegisterTypeAlias(t, reflect.TypeFor[oneOf[T]]())
}

// enumerate registers core's enumerations with the contract.
func enumerate(r huma.Registry) {
	enum(r, append([]frame.Side{frame.NoSide}, frame.Sides[:]...)...)
	enum(r, frame.Left, frame.Right)
	enum(r, measure.Millimetres, measure.Inches)
	enum(r, append(measure.Tapes(measure.Millimetres), measure.Tapes(measure.Inches)...)...)
	enum(r, append([]job.Language{""}, job.Languages...)...)
	enum(r, survey.Kinds...)
	enum(r, append([]job.Step{""}, job.Steps...)...)
	enum(r, job.Old, job.New)
	enum(r, job.Measurings...)
	enum(r, job.Habits...)
	enum(r, job.Parts...)
	enum(r, job.Complaints...)
	enum(r, load.Slabs, load.Hinges, load.Screws, load.Locks, load.Inserts, load.Packers, load.Tools)
	enum(r, swing.AllMeets...)
	enum(r, trade.Means(""), trade.BySaw, trade.ByPlane, trade.ByTableSaw, trade.ByPowerPlane, trade.ByHandPlane, trade.Untouched)
	enum(r, trade.AtOpening, trade.AtTrestles, trade.Outside)
	enum(r, lining.Joints...)
	enum(r, lining.AllComes...)
	enum(r, season.Sawns...)
	enum(r, season.Schools...)
	enum(r, season.FromMeter, season.FromAir, season.FromClimate)
	enum(r, plan.States...)
	enum(r, site.Stop, site.Care, site.Note)
	enum(r, figure.Reading, figure.Estimate, figure.Choice, figure.Rule, figure.Rounding)
	enum(r, append([]fit.Registration{job.ByRule, fit.AsOffered, fit.ShareWidth}, fit.Registrations...)...)
	enum(r, append([]fit.Ends{"", job.ByRule, fit.ShareLength, fit.MeetStrike}, fit.AllEnds...)...)
}
