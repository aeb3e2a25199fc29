package check

import (
	"fmt"
	"slices"
	"strings"

	"zapbarn/core/source"
	"zapbarn/core/words"
	"zapbarn/core/work"
)

var _ = rule("wind-unknown", Mind, "Props stand outdoors, and no wind is forecast: which wind they bear is said.",
	func(w *work.Work, say func(Snag)) {
		stand := outdoors(w)
		if len(windy(w)) > 0 || len(stand) == 0 {
			return
		}
		stand = slices.Clone(stand)
		slices.SortStableFunc(stand, func(a, b *work.Placed) int {
			if d := a.Sides.Goes() - b.Sides.Goes(); d != 0 {
				return map[bool]int{true: -1, false: 1}[d < 0]
			}
			return strings.Compare(a.Prop.ID, b.Prop.ID)
		})
		at, all := []string{}, []string{}
		for _, s := range stand {
			does, goes := "tips", s.Sides.Goes()
			if s.Sides.Slides().Slides() <= goes {
				does = "slides"
			}
			at = append(at, "plot:"+s.Of.ID)
			all = append(all, fmt.Sprintf("%s %s at %s", s.Prop.Name, does, w.Speed(goes)))
		}
		level := Note
		if stand[0].Sides.Goes() < work.Gale {
			level = Mind
		}
		say(Snag{Level: level, Place: "yard", At: at, Title: "No wind is forecast yet",
			Why: fmt.Sprintf("%s. Enter the wind of the nights to come as it is forecast; a gale is %s.", words.Few(all, 6),
				w.Speed(work.Gale)),
			From: []source.Source{source.Std("ASCE 7: q = 0.613 V2 Pa"), source.FromMemory("a strong gale is 45 mph")}})
	})
