// Command shots takes the pictures in docs/screenshots from a running demo:
// go run ./testkit/shots http://127.0.0.1:8480 docs/screenshots
// With further arguments, name=path[@WxH] each, it takes only those.
package main

import (
	"bytes"
	"context"
	"fmt"
	"image"
	"image/color"
	"image/draw"
	"image/png"
	"os"
	"path/filepath"
	"strings"
	"time"

	"zapbarn/testkit"

	"github.com/chromedp/chromedp"
	"github.com/soniakeys/quant/median"
)

var main_ = []string{
	"motion=/p/midnight-apiary/rehearsal?prop=keeper&way=motion",
	"barn=/p/midnight-apiary",
	"bench-whole=/p/midnight-apiary/bench?prop=riser&way=whole&sel=solid:riser-box",
	"bench-parts=/p/midnight-apiary/bench?prop=riser&sel=part:riser-box/front&way=parts",
	"yard=/p/midnight-apiary/yard?way=sight",
	"bench-sheets=/p/midnight-apiary/bench?prop=riser&way=sheets",
	"bench-joints=/p/midnight-apiary/bench?prop=riser&way=joints&sel=joint:riser-back-right",
	"loom=/p/midnight-apiary/loom?prop=shelf&sel=device:jar-8",
	"rehearsal=/p/midnight-apiary/rehearsal?prop=riser&press=mat@1000:200,mat@3000:200&t=2200",
	"walkdown=/p/midnight-apiary/walkdown",
	"search=/p/midnight-apiary/rehearsal?prop=riser&way=search",
	"nights=/p/midnight-apiary/walkdown?way=nights@1280x900",
	"loom-build=/p/midnight-apiary/loom?prop=comb&way=build@1280x1100",
	"loom-fault=/p/midnight-apiary/loom?prop=shelf&way=train&level=2&seed=6&m=W1,jar-12,W2",
	"eye=/p/midnight-apiary/yard?way=walk@1280x900",
	"phone=/p/midnight-apiary/calendar@390x844",
	"calendar=/p/midnight-apiary/calendar?way=bars&sel=task:coat:skep-rings:1:1",
	"stores=/p/midnight-apiary/stores",
}

// acts are done on a page before its picture is taken.
var acts = map[string]string{}

func main() {
	if len(os.Args) < 3 {
		fmt.Fprintln(os.Stderr, "usage: shots BASE DIR [name=path[@WxH] ...]")
		os.Exit(2)
	}
	list := main_
	if len(os.Args) > 3 {
		list = os.Args[3:]
	}
	ctx, cancel := testkit.Chromium(context.Background(), 1280, 800)
	defer cancel()
	if err := chromedp.Do(ctx, chromedp.Navigate(os.Args[1]+"/healthz")); err == nil {
		_, _ = chromedp.Run(ctx, chromedp.Evaluate[bool](`(()=>{document.cookie="tour=done;path=/"; return true})()`))
	}
	for _, item := range list {
		name, path, _ := strings.Cut(item, "=")
		w, h := 1280, 800
		if i := strings.LastIndex(path, "@"); i > 0 && strings.Count(path[i:], "x") == 1 &&
			!strings.Contains(path[i:], ":") {
			if _, err := fmt.Sscanf(path[i:], "@%dx%d", &w, &h); err == nil {
				path = path[:i]
			}
		}
		err := chromedp.Do(
			ctx,
			chromedp.EmulateViewport(int64(w), int64(h)),
			chromedp.Navigate(os.Args[1]+strings.ReplaceAll(path, " ", "%20")),
			chromedp.WaitReady("body"),
			chromedp.Sleep(700*time.Millisecond),
		)
		if act := acts[name]; err == nil && act != "" {
			_, err = chromedp.Run(ctx, chromedp.Evaluate[bool](act))
			if err == nil {
				err = chromedp.Do(ctx, chromedp.Sleep(900*time.Millisecond))
			}
		}
		var shot []byte
		if err == nil {
			shot, err = chromedp.Run(ctx, chromedp.CaptureScreenshot())
		}
		if err == nil {
			shot, err = small(shot)
		}
		if err == nil {
			err = os.WriteFile(filepath.Join(os.Args[2], name+".png"), shot, 0o644)
		}
		if err != nil {
			fmt.Fprintln(os.Stderr, item, err)
			os.Exit(1)
		}
	}
}

// colours are how many a picture keeps: what is drawn here is flat.
const colours = 48

// small is a picture with a palette of its own: a third of the weight, which the history keeps
// for ever.
func small(shot []byte) ([]byte, error) {
	img, err := png.Decode(bytes.NewReader(shot))
	if err != nil {
		return nil, err
	}
	of := median.Quantizer(colours).Quantize(make(color.Palette, 0, colours), img)
	flat := image.NewPaletted(img.Bounds(), of)
	draw.Draw(flat, flat.Bounds(), img, img.Bounds().Min, draw.Src)
	var out bytes.Buffer
	e := png.Encoder{CompressionLevel: png.BestCompression}
	err = e.Encode(&out, flat)
	return out.Bytes(), err
}
