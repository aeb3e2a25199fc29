package plan

import "zapbarn/core/measure"

// Photo is a picture's own data: a JPEG, in base64.
type Photo struct {
	ID   string `json:"id"`
	Data string `json:"data" max:"614400"`
}

var photoKind = listed(kind{name: "photo", most: 400}, func(p *Plan) *[]Photo { return &p.Photos })

func (x *Photo) key() string    { return x.ID }
func (x *Photo) called() string { return "photo " + x.ID }

func (x *Photo) valid(c checks) error {
	if len(x.Data) == 0 || len(x.Data) > MaxPhoto {
		return measure.Bad("data", "is %d KB; a picture is kept with at most %d", len(x.Data)>>10, MaxPhoto>>10)
	}
	return nil
}
