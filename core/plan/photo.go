package plan

import (
	"crypto/sha256"
	"encoding/base64"
	"encoding/hex"

	"zapbarn/core/measure"
)

// Photo is a picture's own data, a JPEG. A file holds it in base64; a store keeps
// it apart, and the plan only its sum.
type Photo struct {
	ID   string `json:"id"`
	Sum  string `json:"sum,omitempty" max:"64"` // SHA-256 of the data in hex, where that is kept apart
	Data string `json:"data,omitempty" max:"614400"`
}

var photoKind = listed(kind{name: "photo", most: 400}, func(p *Plan) *[]Photo { return &p.doc.Photos })

func (x *Photo) Key() string    { return x.ID }
func (x *Photo) Called() string { return "photo " + x.ID }

func (x *Photo) valid(checks) error {
	if n := len(x.Data); n > MaxPhoto || n == 0 && x.Sum == "" {
		return measure.Bad("data", "is %d KB; a picture is kept with at most %d", n>>10, MaxPhoto>>10)
	}
	if _, _, err := x.Apart(); err != nil {
		return err
	}
	if b, err := hex.DecodeString(x.Sum); x.Sum != "" && (err != nil || len(b) != sha256.Size) {
		return measure.Bad("sum", "%q is no SHA-256 in hex", x.Sum)
	}
	return nil
}

// Apart is the photo without its data, and that data; nil when it is apart
// already.
func (x Photo) Apart() (Photo, []byte, error) {
	if x.Data == "" {
		return x, nil, nil
	}
	jpeg, err := base64.StdEncoding.DecodeString(x.Data)
	if err != nil {
		return x, nil, measure.Bad("data", "is not base64; bring the picture in again")
	}
	sum := sha256.Sum256(jpeg)
	return Photo{ID: x.ID, Sum: hex.EncodeToString(sum[:])}, jpeg, nil
}

// Whole is the photo with its data again, as files have it.
func (x Photo) Whole(jpeg []byte) Photo {
	return Photo{ID: x.ID, Data: base64.StdEncoding.EncodeToString(jpeg)}
}
