package rehearsal

import (
	"bytes"
	"path"
	"strings"

	"zapbarn/web/shell"

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
	Runs    []shell.Link
	Echo    *Echo
	Trials  []work.Trial
}

func (s Room) handWay() shell.Way {
	return shell.Way{
		ID: "hand", Title: "Hand over",
		Fill: shell.Showing(newView, func(c *gin.Context, p *view, _ []check.Snag) error {
			return p.handing(c)
		}),
	}
}

// handing is the open prop's controller: its pins, its program, and a run of it on the
// stand-in when that is asked for.
func (p *view) handing(c *gin.Context) error {
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
	p.Ticket = p.TicketOf(kind, id)
	return p.standing(c, ctl)
}

// AddClip measures a sound that is brought in, and keeps what it comes to.
func (s Room) AddClip(c *gin.Context) {
	var in struct {
		Prop    string `form:"prop"`
		Channel string `form:"channel"`
	}
	if !s.Bind(c, &in) {
		return
	}
	file, sent, err := shell.Opened(c, "file", formats.MostSound)
	if err != nil {
		s.Applied(c, err, shell.Over{}, "")
		return
	}
	defer sent.Close()
	got, err := formats.WAV(c.Request.Context(), sent)
	if err != nil {
		s.Applied(c, err, shell.Over{}, "")
		return
	}
	name := strings.TrimSuffix(path.Base(file), path.Ext(file))
	if r := []rune(name); len(r) > 60 || strings.TrimSpace(name) == "" {
		name = "Sound"
	}
	prop := in.Prop
	err = s.Change(c, func(p *plan.Plan) (plan.Edit, error) {
		x := plan.ClipOf(got)
		x.ID, x.Prop, x.Name = p.FreshID("clip", prop+"-"+name), prop, measure.Capital(name)
		x.Channel = in.Channel
		return plan.Edit{Label: "sound " + x.Name, Changes: []plan.Change{p.Put("clip", x.ID, x)}}, nil
	})
	s.Applied(c, err, shell.Over{}, "")
}

// CueList reads a cue list that is brought in.
func (s Room) CueList(c *gin.Context) {
	var in struct {
		Prop string `form:"prop"`
	}
	if !s.Bind(c, &in) {
		return
	}
	_, data, err := shell.Upload(c, "file", 1<<20)
	if err != nil {
		s.Applied(c, err, shell.Over{}, "")
		return
	}
	w, open := s.Open(c)
	if !open {
		return
	}
	e, err := formats.ReadCueList(c.Request.Context(), data, w, in.Prop)
	if err != nil {
		s.Applied(c, err, shell.Over{}, "")
		return
	}
	err = s.Change(c, func(*plan.Plan) (plan.Edit, error) { return e, nil })
	s.Applied(c, err, shell.Over{}, "")
}
