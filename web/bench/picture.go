package bench

import (
	"bytes"
	"encoding/json"
	"fmt"
	"html/template"
	"image"
	"image/jpeg"
	"math"
	"net/http"
	"strconv"
	"strings"

	"zapbarn/web/shell"

	"zapbarn/core/check"
	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/formats"
	"zapbarn/web/draw"

	"github.com/gin-gonic/gin"
)

// PictureView is a reference picture on the bench.
type PictureView struct {
	List      []shell.Link
	ID        string
	Points    bool // its points are being set
	Squared   bool
	W, H      int
	Src       string
	PerPixel  float64
	Trouble   string
	Handles   []Handle
	Prop      template.HTML // the prop over the picture
	To, Back  string        // to the other way
	SquareURL string
}

// Corners are the handles as an SVG polyline's points, round to the first where
// they square the picture up.
func (v *PictureView) Corners() string {
	var b strings.Builder
	for _, h := range v.Handles {
		fmt.Fprintf(&b, "%d,%d ", h.X, h.Y)
	}
	if v.Squared {
		fmt.Fprintf(&b, "%d,%d", v.Handles[0].X, v.Handles[0].Y)
	}
	return b.String()
}

// Handle is a point that can be dragged.
type Handle struct {
	Name string
	X, Y int
}

func (s Room) pictureWay() shell.Way {
	return shell.Way{
		ID:    "picture",
		Title: "Picture",
		Fill: shell.Showing(newView, func(_ *gin.Context, p *view, _ []check.Snag) error {
			kind, id, _ := strings.Cut(p.Sel, ":")
			p.picture(id, kind)
			return nil
		}),
	}
}

// picture shows a prop's reference picture: squared up and to scale, with the
// prop over it; or as taken, with its points.
func (p *view) picture(id, kind string) {
	v := &PictureView{}
	p.Picture = v
	var pic *plan.Picture
	for i := range p.Plan.Pictures() {
		x := &p.Plan.Pictures()[i]
		if x.Prop != p.Prop {
			continue
		}
		on := kind == "picture" && x.ID == id
		if on || pic == nil {
			pic = x
		}
		v.List = append(v.List, shell.Link{Text: x.Name, Href: p.Href("bench", p.Prop, "picture:"+x.ID, "picture"), On: on})
	}
	if pic == nil {
		p.Ticket = p.TicketOf("prop", p.Prop)
		return
	}
	p.Sel = "picture:" + pic.ID
	p.Ticket = p.TicketOf("picture", pic.ID)
	v.ID, v.Squared = pic.ID, len(pic.Corners) == 4
	base := "/p/" + p.PlanID + "/picture?id=" + pic.ID
	here := p.Href("bench", p.Prop, p.Sel, "picture")
	pl, err := pic.Plane()
	v.Points = p.Query.Get("points") != "" || err != nil
	if err != nil {
		_, v.Trouble = shell.FieldErrors(err)
	}
	if v.Points {
		v.Src, v.W, v.H, v.To = base, pic.Wide, pic.Tall, here
		v.Handles = []Handle{{"A", pic.A.X, pic.A.Y}, {"B", pic.B.X, pic.B.Y}}
		if v.Squared {
			v.Handles = nil
			for i, c := range pic.Corners {
				v.Handles = append(v.Handles, Handle{fmt.Sprint(i + 1), c.X, c.Y})
			}
		}
		return
	}
	f := pl.Frame(pic.Wide, pic.Tall, shell.PictureSide)
	v.Src, v.W, v.H, v.PerPixel, v.To = base+"&squared=1&at="+pointsKey(pic), f.W, f.H, f.PerPixel, here+"&points=1"
	x, y := (pic.X.Value()-f.X)/f.PerPixel, float64(f.H)-(pic.Z.Value()-f.Y)/f.PerPixel
	v.Handles = []Handle{{"foot", int(math.Round(x)), int(math.Round(y))}}
	v.Prop = template.HTML(draw.Over(p.Work, p.Prop, 1/f.PerPixel, x, y))
}

// pointsKey changes with what a squared picture depends on, so that a browser
// asks for it anew.
func pointsKey(x *plan.Picture) string {
	b, _ := json.Marshal([]any{x.A, x.B, x.Corners, x.Known, x.SqW, x.SqH, x.Upright})
	return fmt.Sprintf("%x", len(b)) + strconv.FormatUint(hash(b), 36)
}

func hash(b []byte) uint64 {
	h := uint64(14695981039346656037)
	for _, c := range b {
		h = (h ^ uint64(c)) * 1099511628211
	}
	return h
}

// PictureFile sends a picture as taken, or squared up.
func (s Room) PictureFile(c *gin.Context) {
	p, _, err := s.Store.Load(c.Request.Context(), c.Param("plan"))
	if err != nil {
		s.Fail(c, err)
		return
	}
	v, _ := p.Get("picture", c.Query("id"))
	pic, ok := v.(*plan.Picture)
	if !ok || pic == nil {
		s.Trouble(c, http.StatusNotFound, "No such picture", "It was taken away. Go back and look again.")
		return
	}
	v, _ = p.Get("photo", pic.Photo)
	ph, ok := v.(*plan.Photo)
	if !ok || ph == nil {
		s.Trouble(c, http.StatusNotFound, "The picture is gone", "Bring it in again.")
		return
	}
	if c.Query("squared") == "" && shell.Kept(c, ph.Sum) {
		return
	}
	data, err := s.Store.Photo(c.Request.Context(), c.Param("plan"), ph.Sum)
	if err != nil {
		s.Trouble(c, http.StatusNotFound, "The picture is gone", "Take it away and bring it in again.")
		return
	}
	if c.Query("squared") == "" {
		c.Data(http.StatusOK, "image/jpeg", data)
		return
	}
	pl, err := pic.Plane()
	var img image.Image
	if err == nil {
		img, err = formats.Picture(c.Request.Context(), data, max(shell.PictureSide, pic.Wide, pic.Tall))
	}
	if err != nil {
		_, msg := shell.FieldErrors(err)
		s.Trouble(c, http.StatusUnprocessableEntity, "It cannot be squared up yet", msg)
		return
	}
	var b bytes.Buffer
	if err := jpeg.Encode(&b, pl.Squared(img, pl.Frame(pic.Wide, pic.Tall, shell.PictureSide)),
		&jpeg.Options{Quality: 82}); err != nil {
		s.Fail(c, err)
		return
	}
	c.Header("Cache-Control", "private, max-age=3600")
	c.Data(http.StatusOK, "image/jpeg", b.Bytes())
}

// AddPicture takes a PNG or JPEG, makes it small enough to keep, and guesses
// points to begin with.
func (s Room) AddPicture(c *gin.Context) {
	w, open := s.Open(c)
	if !open {
		return
	}
	var in struct {
		Prop string `form:"prop"`
	}
	if !s.Bind(c, &in) {
		return
	}
	pic, ph, err := takenIn(c, w.Plan, in.Prop)
	if err != nil {
		_, msg := shell.FieldErrors(err)
		s.Refused(c, shell.Over{Err: "No picture was brought in. " + measure.Capital(msg), Code: shell.CodeOf(err)})
		return
	}
	p := &shell.Page{Asked: shell.Asked{PlanID: c.Param("plan")}}
	s.Apply(
		c,
		plan.Edit{
			Label:   "bring in picture " + pic.Name,
			Changes: []plan.Change{w.Plan.Put("photo", ph.ID, ph), w.Plan.Put("picture", pic.ID, pic)},
		},
		shell.Over{},
		p.Href("bench", pic.Prop, "picture:"+pic.ID, "picture")+"&points=1",
	)
}

func takenIn(c *gin.Context, p *plan.Plan, prop string) (*plan.Picture, *plan.Photo, error) {
	in, err := shell.PhotoIn(c, p, "Reference")
	if err != nil {
		return nil, nil, err
	}
	if p.Prop(prop) == nil {
		return nil, nil, measure.Bad("prop", "is gone; open one first")
	}
	ph, title, W, H := in.Photo, in.Title, in.Wide, in.Tall
	pic := &plan.Picture{
		ID:    p.FreshID("picture", prop),
		Prop:  prop,
		Photo: ph.ID,
		Name:  measure.Capital(title),
		Wide:  W,
		Tall:  H,
		A:     plan.Spot{X: W / 2, Y: H * 9 / 10},
		B:     plan.Spot{X: W / 2, Y: H / 10},
		Known: p.Prop(prop).Known,
	}
	return pic, ph, nil
}

// pointing is what a form says of a point of a picture.
type pointing struct {
	ID     string  `form:"id"`
	X      float64 `form:"x" binding:"min=-9000,max=9000"`
	Y      float64 `form:"y" binding:"min=-9000,max=9000"`
	Handle string  `form:"handle"`
	Do     string  `form:"do"`
}

// Point moves a point of a picture, squares it up by four, or goes back to two.
func (s Room) Point(c *gin.Context) {
	var in pointing
	w, open := s.OpenWith(c, &in)
	if !open {
		return
	}
	v, _ := w.Plan.Get("picture", in.ID)
	old, ok := v.(*plan.Picture)
	if !ok || old == nil {
		s.Refused(c, shell.Over{Err: "That picture was taken away already.", Code: http.StatusConflict})
		return
	}
	pic := *old
	pic.Corners = append([]plan.Spot(nil), old.Corners...)
	label := in.onto(&pic)
	s.Apply(c, plan.Edit{Label: label, Changes: []plan.Change{w.Plan.Put("picture", pic.ID, pic)}}, shell.Over{}, "")
}

// onto does to a picture what is said, and tells what that is.
func (in pointing) onto(pic *plan.Picture) (label string) {
	x, y := in.X, in.Y
	at := plan.Spot{X: int(math.Round(x)), Y: int(math.Round(y))}
	label = "move a point of " + pic.Name
	name := in.Handle
	if in.Do != "" {
		name = in.Do
	}
	switch name {
	case "A":
		pic.A = at
	case "B":
		pic.B = at
	case "four":
		label = "square up " + pic.Name
		l, r, t, b := pic.Wide/4, pic.Wide*3/4, pic.Tall/4, pic.Tall*3/4
		pic.Corners = []plan.Spot{{X: l, Y: b}, {X: r, Y: b}, {X: r, Y: t}, {X: l, Y: t}}
		if pic.SqW.IsZero() {
			pic.SqW = measure.Len("24 in")
		}
		if pic.SqH.IsZero() {
			pic.SqH = measure.Len("24 in")
		}
	case "two":
		label, pic.Corners = "measure "+pic.Name+" by one line", nil
	case "foot":
		pl, err := pic.Plane()
		if err != nil {
			break
		}
		f := pl.Frame(pic.Wide, pic.Tall, shell.PictureSide)
		label = "move the prop over " + pic.Name
		pic.X = measure.Of[measure.LengthKind](math.Round(f.X + x*f.PerPixel))
		pic.Z = measure.Of[measure.LengthKind](math.Round(f.Y + (float64(f.H)-y)*f.PerPixel))
	case "1", "2", "3", "4":
		if i := int(name[0] - '1'); i < len(pic.Corners) {
			pic.Corners[i] = at
		}
	}
	return label
}
