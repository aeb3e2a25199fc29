package web

import (
	"bytes"
	"path"
	"strings"

	"zapbarn/core/check"
	"zapbarn/core/measure"
	"zapbarn/core/plan"
	"zapbarn/core/work"
	"zapbarn/formats"

	"github.com/gin-gonic/gin"
)

// HandView is what is handed over to a controller.
type HandView struct {
	None    string
	Pins    []formats.Wired
	Program string
	Runs    []Link
	Echo    *Echo
	Trials  []work.Trial
}

func (s *Server) handWay() way {
	return way{
		id: "hand", title: "Hand over",
		fill: showing(newRehearsal, func(c *gin.Context, p *rehearsalView, _ []check.Snag) error {
			return p.handing(s, c)
		}),
	}
}

// handing is the open prop's controller: its pins, its program, and a run of it on the
// stand-in when that is asked for.
func (p *rehearsalView) handing(s *Server, c *gin.Context) error {
	v := &HandView{Trials: p.Work.Trials(p.Prop)}
	p.Hand = v
	ctl, err := formats.ControllerOf(p.Work, p.Prop)
	if err != nil {
		v.None = measure.Capital(strings.TrimPrefix(strings.Split(err.Error(), ";")[0], "prop: "))
		return nil
	}
	v.Pins = ctl.Pins
	var b bytes.Buffer
	if err := ctl.Program(&b); err != nil {
		return err
	}
	v.Program = b.String()
	kind, id, _ := strings.Cut(p.Sel, ":")
	p.Ticket = p.ticket(kind, id)
	return p.standing(s, c, ctl)
}

// addClip measures a sound that is brought in, and keeps what it comes to.
func (s *Server) addClip(c *gin.Context) {
	file, sent, err := opened(c, "file", formats.MostSound)
	if err != nil {
		s.applied(c, err, over{}, "")
		return
	}
	defer sent.Close()
	got, err := formats.WAV(c.Request.Context(), sent)
	if err != nil {
		s.applied(c, err, over{}, "")
		return
	}
	name := strings.TrimSuffix(path.Base(file), path.Ext(file))
	if r := []rune(name); len(r) > 60 || strings.TrimSpace(name) == "" {
		name = "Sound"
	}
	prop := c.PostForm("prop")
	_, err = s.store.Edit(c.Request.Context(), c.Param("plan"), editor(c), func(p *plan.Plan) (plan.Edit, error) {
		x := plan.ClipOf(got)
		x.ID, x.Prop, x.Name = p.FreshID("clip", prop+"-"+name), prop, measure.Capital(name)
		x.Channel = c.PostForm("channel")
		return plan.Edit{Label: "sound " + x.Name, Changes: []plan.Change{p.Put("clip", x.ID, x)}}, nil
	})
	s.applied(c, err, over{}, "")
}

// cueList reads a cue list that is brought in.
func (s *Server) cueList(c *gin.Context) {
	_, data, err := upload(c, "file", 1<<20)
	if err != nil {
		s.applied(c, err, over{}, "")
		return
	}
	w, _, err := s.work(c.Request.Context(), c.Param("plan"))
	if err != nil {
		s.fail(c, err)
		return
	}
	e, err := formats.ReadCueList(c.Request.Context(), data, w, c.PostForm("prop"))
	if err != nil {
		s.applied(c, err, over{}, "")
		return
	}
	_, err = s.store.Edit(
		c.Request.Context(),
		c.Param("plan"),
		editor(c),
		func(*plan.Plan) (plan.Edit, error) { return e, nil },
	)
	s.applied(c, err, over{}, "")
}
