package bench

import (
	"fmt"
	"net/url"

	"zapbarn/web/shell"

	"zapbarn/core/check"
	"zapbarn/core/work"
	"zapbarn/formats"

	"github.com/gin-gonic/gin"
)

// counted is how many pages a display prints on.
type counted struct {
	pages int
	err   error
}

// bookPages counts the pages a display prints on, once: it takes as long as printing them.
func bookPages(w *work.Work) (int, error) {
	n := work.Derive(w, "pages of the book", func(w *work.Work) counted {
		n, err := formats.Pages(w, formats.Letter)
		return counted{n, err}
	})
	return n.pages, n.err
}

func (s Room) printWay() shell.Way {
	return shell.Way{
		ID:    "print",
		Title: "Print",
		Fill: shell.Showing(newView, func(_ *gin.Context, p *view, _ []check.Snag) error {
			p.prints()
			n, err := bookPages(p.Work)
			if err != nil {
				return err
			}
			p.BookPages = n
			p.ticket(nil)
			return nil
		}),
	}
}

// Print is a part or sheet with the files it can be had as.
type Print struct {
	Title, Sub string
	Links      []shell.Link
}

// prints lists what the print way offers.
func (p *view) prints() {
	w := p.Work
	base := "/p/" + p.PlanID
	for _, part := range w.Parts() {
		if part.Solid.Prop != p.Prop {
			continue
		}
		q := "?ref=" + url.QueryEscape(part.Ref)
		p.Prints = append(
			p.Prints,
			Print{
				fmt.Sprintf("%d %s", part.No, part.Name()),
				w.Results().At("part", part.Ref, "size").Text + fmt.Sprintf(", cut %d", part.Panel.Copies),
				[]shell.Link{
					{Text: "SVG", Href: base + "/part.svg" + q},
					{Text: "DXF", Href: base + "/part.dxf" + q},
					{Text: "tiled PDF, Letter", Href: base + "/part.pdf" + q},
					{Text: "A4", Href: base + "/part.pdf" + q + "&paper=A4"},
					{Text: "36 in roll", Href: base + "/part.pdf" + q + "&paper=roll36"},
				},
			},
		)
	}
	for _, sh := range w.Sheets() {
		for n, one := range sh.Layout.Sheets {
			mine := false
			for _, q := range one.Placed {
				mine = mine || w.Part(sh.Pieces[q.Part].Ref).Solid.Prop == p.Prop
			}
			if mine {
				q := fmt.Sprintf("?stock=%s&n=%d", url.QueryEscape(sh.Stock.ID), n+1)
				p.Sheets = append(
					p.Sheets,
					Print{
						Title: sh.Stock.Name + ", " + w.Called(sh, n),
						Links: []shell.Link{
							{Text: "SVG", Href: base + "/sheet.svg" + q},
							{Text: "DXF", Href: base + "/sheet.dxf" + q},
						},
					},
				)
			}
		}
	}
}
