package shell

import (
	"net/http"
	"strconv"

	"github.com/gin-gonic/gin"
)

// TourStep is one step of the first walk through the demo: what to do, and where.
type TourStep struct {
	N, Of                   int
	Title, Text, Show, Href string
}

// tourPlan is the display the tour leads through.
const tourPlan = "midnight-apiary"

// tourSteps are the steps: the demo's planted mistakes, found, explained, mended.
var tourSteps = []TourStep{
	{Title: "Find a mistake", Show: "Show me one", Href: "/p/midnight-apiary/bench?prop=riser",
		Text: "This display is good but not finished. Every snag on the right is a mistake found before anything is cut: " +
			"press its title, and the drawing shows where."},
	{Title: "See how a number came about", Show: "Show me a number",
		Href: "/p/midnight-apiary/bench?prop=riser&sel=solid:riser-box",
		Text: "Numbers with a dotted line open: the formula, the same with numbers, and where each value is from. " +
			"Press one in the ticket below."},
	{Title: "Take a mend", Show: "To the Loom", Href: "/p/midnight-apiary/loom?prop=bee",
		Text: "A mend was tried before it is offered: it cures, raises nothing worse, and says what it costs. " +
			"Press Mend on a stop."},
	{Title: "Take it back", Show: "What was done", Href: "/p/midnight-apiary/walkdown?way=log",
		Text: "Nothing is lost: press Undo at the top, or step to any moment in the log."},
	{Title: "Start your own", Show: "To the displays", Href: "/",
		Text: "Name a display and choose a small prop to begin with, or type what you build: box 22 x 18 x 26."},
}

// tourOf is the step of the tour this browser is at; nil when it is over, or for
// another display.
func tourOf(c *gin.Context, plan string) *TourStep {
	if plan != tourPlan {
		return nil
	}
	n := 1
	if v, err := c.Cookie("tour"); err == nil {
		if n, err = strconv.Atoi(v); err != nil { // done
			return nil
		}
	}
	if n < 1 || n > len(tourSteps) {
		return nil
	}
	s := tourSteps[n-1]
	s.N, s.Of = n, len(tourSteps)
	return &s
}

// Tour goes to a step, or ends for good.
func Tour(c *gin.Context) {
	to := c.PostForm("to")
	if n, err := strconv.Atoi(to); err != nil || n < 1 || n > len(tourSteps) {
		to = "done"
	}
	c.SetSameSite(http.SameSiteStrictMode)
	c.SetCookie("tour", to, 365*86400, "/", "", false, true)
	c.Redirect(http.StatusSeeOther, Local(c.PostForm("back")))
}
