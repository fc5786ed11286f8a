package season

import (
	"kindmargin/core/field"
	"kindmargin/core/message"
	"kindmargin/core/trade"
)

// Air is the air of a room.
type Air struct {
	Celsius  Celsius `json:"celsius"`
	Humidity Percent `json:"humidity"` // relative
}

// Bounds of indoor air.
const (
	leastCelsius, mostCelsius   = -30, 60
	leastHumidity, mostHumidity = 1, 100
)

// Check reports air that no room has, as field.Errors.
func (a Air) Check() error {
	var bad field.Errors
	if !(a.Celsius >= leastCelsius && a.Celsius <= mostCelsius) {
		bad.Add("/celsius", "refused.celsius", message.Args{
			"given": message.Celsius(a.Celsius), "least": message.Celsius(leastCelsius),
			"most": message.Celsius(mostCelsius),
		})
	}
	if !(a.Humidity >= leastHumidity && a.Humidity <= mostHumidity) {
		bad.Add("/humidity", "refused.humidity", message.Args{
			"given": a.Humidity.Text(), "least": message.Number(leastHumidity), "most": message.Number(mostHumidity),
		})
	}
	return bad.Err()
}

// Moisture is the equilibrium moisture content of wood in air, in %, by the Hailwood–Horrobin equation for two
// hydrates: Wood Handbook (FPL-GTR-190), eq. 4-5, from memory. It holds from −1 to 130 °C.
func (a Air) Moisture() float64 {
	t, h := float64(a.Celsius), float64(a.Humidity)/100
	w := 349 + 1.29*t + 0.0135*t*t
	k := 0.805 + 0.000736*t - 0.00000273*t*t
	k1 := 6.27 - 0.00938*t - 0.000303*t*t
	k2 := 1.91 + 0.0407*t - 0.000293*t*t
	kh := k * h
	return 1800 / w * (kh/(1-kh) + (k1*kh+2*k1*k2*kh*kh)/(1+k1*kh+k1*k2*kh*kh))
}

// humidityFor is the relative humidity, in %, at which wood has a given equilibrium moisture content, at a temperature:
// by bisection, since Moisture is monotonic in it.
func humidityFor(moisture float64, at Celsius) Percent {
	low, high := Percent(0), Percent(100)
	for high-low > 1e-6 {
		mid := (low + high) / 2
		if (Air{at, mid}).Moisture() < moisture {
			low = mid
		} else {
			high = mid
		}
	}
	return (low + high) / 2
}

// CheckMoisture reports a moisture content outside the range of slabs that are fitted, as a field.Error. 0 is not read.
func CheckMoisture(pointer string, m Percent) error {
	switch {
	case m == 0:
		return nil
	case m > trade.FibreSaturation:
		return field.Fault(pointer, "refused.moisture-high", message.Args{
			"given": m.Text(), "most": message.Number(trade.FibreSaturation),
		})
	case !(m >= 3):
		return field.Fault(pointer, "refused.moisture-low", message.Args{
			"given": m.Text(), "most": message.Number(trade.FibreSaturation),
		})
	}
	return nil
}
