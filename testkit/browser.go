package testkit

import (
	"context"
	"os"
	"sync"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/require"
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

// browser is the one that all tests of a program share: a start takes longer than most of
// them.
var browser struct {
	sync.Mutex
	ctx context.Context
	end context.CancelFunc
}

// shared is that browser, started when it is first asked for.
func shared() (context.Context, error) {
	browser.Lock()
	defer browser.Unlock()
	if browser.ctx != nil {
		return browser.ctx, nil
	}
	ctx, end := Chromium(context.Background(), 1280, 800)
	if err := chromedp.Do(ctx, chromedp.Navigate("about:blank")); err != nil {
		end()
		return nil, err
	}
	browser.ctx, browser.end = ctx, end
	return ctx, nil
}

// Quit ends the shared browser, after all tests.
func Quit() {
	browser.Lock()
	defer browser.Unlock()
	if browser.end != nil {
		browser.end()
	}
	browser.ctx, browser.end = nil, nil
}

// Browser is a tab for one test, with a time limit: in a window of its own, with cookies
// and storage of its own, as of somebody who was never here.
func Browser(t testing.TB, width, height int) context.Context {
	all, err := shared()
	require.NoError(t, err)
	ctx, cancel := chromedp.NewContext(all, chromedp.WithNewBrowserContext())
	t.Cleanup(cancel)
	ctx, stop := context.WithTimeout(ctx, 10*time.Minute)
	t.Cleanup(stop)
	require.NoError(t, chromedp.Do(ctx, chromedp.EmulateViewport(int64(width), int64(height))))
	return ctx
}
