package plan

import "zapbarn/core/measure"

// Forecast is what the weather is to be on a night: the wind that decides what stays out.
type Forecast struct {
	ID    string        `json:"id"`
	On    string        `json:"on" label:"Day"`
	Wind  measure.Speed `json:"wind,omitzero" label:"Wind"`
	Gusts measure.Speed `json:"gusts,omitzero" label:"Gusts"`
	Rain  bool          `json:"rain,omitempty" label:"Rain"`

	Temp measure.Celsius `json:"temp,omitzero" label:"Temperature"` // by day, where it dries
	RH   int             `json:"rh,omitempty" label:"Humidity, %"`
}

var forecastKind = listed(kind{name: "forecast", most: 400, twin: func(v any) (string, error) {
	return v.(*Forecast).On, measure.Bad("on", "%s has a forecast; change that", v.(*Forecast).On)
}}, func(p *Plan) *[]Forecast { return &p.doc.Forecasts })

func (x *Forecast) Key() string    { return x.ID }
func (x *Forecast) Called() string { return "of " + x.On }

func (x *Forecast) valid(checks) error {
	if x.On == "" {
		return measure.Bad("on", "is empty; write a date such as 2026-10-31")
	}
	for _, f := range []struct {
		field string
		v     measure.Speed
	}{{"wind", x.Wind}, {"gusts", x.Gusts}} {
		if v := f.v.Value(); v < 0 || v > 80 {
			return measure.Bad(f.field, "%s is no wind to build for; write such as 22 mph", f.v)
		}
	}
	if x.RH < 0 || x.RH > 100 {
		return measure.Bad("rh", "%d %% cannot be; write 1 to 100", x.RH)
	}
	if t := x.Temp.Or(21); t < -40 || t > 60 {
		return measure.Bad("temp", "%s is no weather; write -40 C to 60 C", x.Temp)
	}
	return date("on", x.On)
}

// Strongest is the strongest of a night's wind, m/s.
func (x *Forecast) Strongest() float64 { return max(x.Wind.Value(), x.Gusts.Value()) }

// ForecastOf is a night's, or nil.
func (p *Plan) ForecastOf(date string) *Forecast {
	for i := range p.Forecasts() {
		if p.Forecasts()[i].On == date {
			return &p.Forecasts()[i]
		}
	}
	return nil
}
