package web

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

	"zapbarn/core/check"
	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/formats"
	"zapbarn/web/draw"

	"github.com/gin-gonic/gin"
)

// PictureView is a reference picture on the bench.
type PictureView struct {
	List      []Link
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

func (s *Server) benchPictureWay() way {
	return way{
		id:    "picture",
		title: "Picture",
		fill: showing(newBench, func(_ *gin.Context, p *benchView, _ []check.Snag) error {
			kind, id, _ := strings.Cut(p.Sel, ":")
			p.picture(id, kind)
			return nil
		}),
	}
}

// picture shows a prop's reference picture: squared up and to scale, with the
// prop over it; or as taken, with its points.
func (p *benchView) picture(id, kind string) {
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
		v.List = append(v.List, Link{Text: x.Name, Href: p.href("bench", p.Prop, "picture:"+x.ID, "picture"), On: on})
	}
	if pic == nil {
		p.Ticket = p.ticket("prop", p.Prop)
		return
	}
	p.Sel = "picture:" + pic.ID
	p.Ticket = p.ticket("picture", pic.ID)
	v.ID, v.Squared = pic.ID, len(pic.Corners) == 4
	base := "/p/" + p.PlanID + "/picture?id=" + pic.ID
	here := p.href("bench", p.Prop, p.Sel, "picture")
	pl, err := pic.Plane()
	v.Points = p.Query.Get("points") != "" || err != nil
	if err != nil {
		_, v.Trouble = fieldErrors(err)
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
	f := pl.Frame(pic.Wide, pic.Tall, pictureSide)
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

// pictureFile sends a picture as taken, or squared up.
func (s *Server) pictureFile(c *gin.Context) {
	p, _, err := s.store.Load(c.Request.Context(), c.Param("plan"))
	if err != nil {
		s.fail(c, err)
		return
	}
	v, _ := p.Get("picture", c.Query("id"))
	pic, ok := v.(*plan.Picture)
	if !ok || pic == nil {
		s.trouble(c, http.StatusNotFound, "No such picture", "It was taken away. Go back and look again.")
		return
	}
	v, _ = p.Get("photo", pic.Photo)
	ph, ok := v.(*plan.Photo)
	if !ok || ph == nil {
		s.trouble(c, http.StatusNotFound, "The picture is gone", "Bring it in again.")
		return
	}
	if c.Query("squared") == "" && kept(c, ph.Sum) {
		return
	}
	data, err := s.store.Photo(c.Request.Context(), c.Param("plan"), ph.Sum)
	if err != nil {
		s.trouble(c, http.StatusNotFound, "The picture is gone", "Take it away and bring it in again.")
		return
	}
	if c.Query("squared") == "" {
		c.Data(http.StatusOK, "image/jpeg", data)
		return
	}
	pl, err := pic.Plane()
	var img image.Image
	if err == nil {
		img, err = formats.Picture(c.Request.Context(), data, max(pictureSide, pic.Wide, pic.Tall))
	}
	if err != nil {
		_, msg := fieldErrors(err)
		s.trouble(c, http.StatusUnprocessableEntity, "It cannot be squared up yet", msg)
		return
	}
	var b bytes.Buffer
	if err := jpeg.Encode(&b, pl.Squared(img, pl.Frame(pic.Wide, pic.Tall, pictureSide)),
		&jpeg.Options{Quality: 82}); err != nil {
		s.fail(c, err)
		return
	}
	c.Header("Cache-Control", "private, max-age=3600")
	c.Data(http.StatusOK, "image/jpeg", b.Bytes())
}

// addPicture takes a PNG or JPEG, makes it small enough to keep, and guesses
// points to begin with.
func (s *Server) addPicture(c *gin.Context) {
	w, _, err := s.work(c.Request.Context(), c.Param("plan"))
	if err != nil {
		s.fail(c, err)
		return
	}
	pic, ph, err := takenIn(c, w.Plan)
	if err != nil {
		_, msg := fieldErrors(err)
		s.refused(c, over{err: "No picture was brought in. " + measure.Capital(msg), code: codeOf(err)})
		return
	}
	p := &Page{Asked: Asked{PlanID: c.Param("plan")}}
	s.apply(
		c,
		plan.Edit{
			Label:   "bring in picture " + pic.Name,
			Changes: []plan.Change{w.Plan.Put("photo", ph.ID, ph), w.Plan.Put("picture", pic.ID, pic)},
		},
		over{},
		p.href("bench", pic.Prop, "picture:"+pic.ID, "picture")+"&points=1",
	)
}

func takenIn(c *gin.Context, p *plan.Plan) (*plan.Picture, *plan.Photo, error) {
	in, err := photoIn(c, p, "Reference")
	if err != nil {
		return nil, nil, err
	}
	prop := c.PostForm("prop")
	if p.Prop(prop) == nil {
		return nil, nil, measure.Bad("prop", "is gone; open one first")
	}
	ph, title, W, H := in.photo, in.title, in.wide, in.tall
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

// point moves a point of a picture, squares it up by four, or goes back to two.
func (s *Server) point(c *gin.Context) {
	w, _, err := s.work(c.Request.Context(), c.Param("plan"))
	if err != nil {
		s.fail(c, err)
		return
	}
	v, _ := w.Plan.Get("picture", c.PostForm("id"))
	old, ok := v.(*plan.Picture)
	if !ok || old == nil {
		s.refused(c, over{err: "That picture was taken away already.", code: http.StatusConflict})
		return
	}
	pic := *old
	pic.Corners = append([]plan.Spot(nil), old.Corners...)
	x, e1 := strconv.ParseFloat(c.PostForm("x"), 64)
	y, e2 := strconv.ParseFloat(c.PostForm("y"), 64)
	at := plan.Spot{X: int(math.Round(x)), Y: int(math.Round(y))}
	label := "move a point of " + pic.Name
	name := c.PostForm("handle")
	if do := c.PostForm("do"); do != "" {
		name = do
	}
	if name != "four" && name != "two" &&
		(e1 != nil || e2 != nil || math.IsNaN(x) || math.IsNaN(y) || math.Abs(x) > 9000 || math.Abs(y) > 9000) {
		s.refused(c, over{err: "That is no place in the picture."})
		return
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
		f := pl.Frame(pic.Wide, pic.Tall, pictureSide)
		label = "move the prop over " + pic.Name
		pic.X = measure.Of[measure.LengthKind](math.Round(f.X + x*f.PerPixel))
		pic.Z = measure.Of[measure.LengthKind](math.Round(f.Y + (float64(f.H)-y)*f.PerPixel))
	case "1", "2", "3", "4":
		if i := int(name[0] - '1'); i < len(pic.Corners) {
			pic.Corners[i] = at
		}
	}
	s.apply(c, plan.Edit{Label: label, Changes: []plan.Change{w.Plan.Put("picture", pic.ID, pic)}}, over{}, "")
}
