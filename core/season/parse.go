package season

import (
	"math"
	"strconv"
	"strings"

	"kindmargin/core/field"
	"kindmargin/core/measure"
	"kindmargin/core/message"
)

// Celsius is a temperature in °C.
type Celsius float64

// Percent is a percentage: a relative humidity, or a moisture content by dry weight.
type Percent float64

// ParseCelsius parses a temperature as people write it: 20, 20 °C, 68F, -5,5. A bare number is in the degrees of the
// job's unit.
func ParseCelsius(text string, u measure.Unit) (Celsius, error) {
	bare := strings.TrimRight(strings.TrimSpace(text), " ")
	fahrenheit := u == measure.Inches
	for _, s := range []struct {
		suffix     string
		fahrenheit bool
	}{{"c", false}, {"f", true}} {
		if cut, ok := strings.CutSuffix(strings.ToLower(bare), s.suffix); ok {
			bare, fahrenheit = strings.TrimSuffix(strings.TrimSpace(cut), "°"), s.fahrenheit
			break
		}
	}
	v, ok := plainNumber(strings.TrimSuffix(strings.TrimSpace(bare), "°"))
	if !ok {
		return 0, field.Fault("", "refused.temperature", message.Args{"given": message.Quote(text)})
	}
	if fahrenheit {
		v = (v - 32) / 1.8
	}
	return Celsius(v), nil
}

// Text formats a temperature for an entry, in the degrees of a job's unit, to a tenth.
func (c Celsius) Text(u measure.Unit) string {
	v := float64(c)
	if u == measure.Inches {
		v = v*1.8 + 32
	}
	return number(v)
}

// Degrees is the symbol of the degrees of a job's unit.
func Degrees(u measure.Unit) string {
	if u == measure.Inches {
		return "°F"
	}
	return "°C"
}

// ParsePercent parses a humidity or a moisture content as people write it: 54, 54 %, 54,5.
func ParsePercent(text string) (Percent, error) {
	v, ok := plainNumber(strings.TrimSpace(strings.TrimSuffix(strings.TrimSpace(text), "%")))
	if !ok {
		return 0, field.Fault("", "refused.percentage", message.Args{"given": message.Quote(text)})
	}
	return Percent(v), nil
}

// Text formats a percentage for an entry, to a tenth.
func (p Percent) Text() string { return number(float64(p)) }

// plainNumber matches a decimal number with a point or a comma.
func plainNumber(text string) (float64, bool) {
	text = strings.Replace(strings.Replace(text, "−", "-", 1), ",", ".", 1)
	if text == "" || strings.Trim(text, "+-.0123456789") != "" {
		return 0, false
	}
	v, err := strconv.ParseFloat(text, 64)
	return v, err == nil && math.Abs(v) < 1e6
}

// number formats a number without trailing zeros.
func number(v float64) string { return strconv.FormatFloat(math.Round(v*10)/10, 'f', -1, 64) }

// Text formats air in the degrees of a job's unit.
func (a Air) Text(u measure.Unit) string {
	return a.Celsius.Text(u) + " " + Degrees(u) + ", " + a.Humidity.Text() + " %"
}
