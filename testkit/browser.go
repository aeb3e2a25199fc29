package testkit

import (
	"context"
	"os"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
)

// Chromium starts a headless browser with a fresh profile; cancel ends it.
func Chromium(ctx context.Context, width, height int) (context.Context, context.CancelFunc) {
	profile, err := os.MkdirTemp("", "zapbarn-chromium")
	if err != nil {
		panic(err)
	}
	opts := append(
		chromedp.DefaultExecAllocatorOptions[:],
		chromedp.NoSandbox,
		chromedp.DisableGPU,
		chromedp.NoFirstRun,
		chromedp.UserDataDir(profile),
		chromedp.WindowSize(width, height),
		chromedp.Flag("disable-quic", true),
		chromedp.Flag("disable-background-networking", true),
		chromedp.Flag("disable-component-update", true),
		chromedp.Flag("disable-sync", true),
		chromedp.Flag("disable-dev-shm-usage", true),
	)
	actx, cancelAlloc := chromedp.NewExecAllocator(ctx, opts...)
	bctx, cancel := chromedp.NewContext(actx)
	return bctx, func() { cancel(); cancelAlloc(); _ = os.RemoveAll(profile) }
}

// Browser is a tab for one test, with a time limit.
func Browser(t testing.TB, width, height int) context.Context {
	ctx, cancel := Chromium(context.Background(), width, height)
	t.Cleanup(cancel)
	ctx, stop := context.WithTimeout(ctx, 10*time.Minute)
	t.Cleanup(stop)
	return ctx
}
