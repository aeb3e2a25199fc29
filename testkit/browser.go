package testkit

import (
	"context"
	"os"
	"os/exec"
	"sync"
	"testing"
	"time"

	"github.com/chromedp/cdproto/browser"
	"github.com/chromedp/cdproto/cdp"
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
		chromedp.ExecPath(headless()),
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

// headless is the browser's program: the headless shell, which draws no frame of its own and so
// takes half the time, where it is installed.
func headless() string {
	for _, name := range []string{"chromium-headless-shell", "chromium"} {
		if path, err := exec.LookPath(name); err == nil {
			return path
		}
	}
	return "chromium"
}

// one is the browser that all tests of a program share: a start takes longer than most of
// them.
var one struct {
	sync.Mutex
	ctx context.Context
	end context.CancelFunc
}

// shared is that browser, started when it is first asked for.
func shared() (context.Context, error) {
	one.Lock()
	defer one.Unlock()
	if one.ctx != nil {
		return one.ctx, nil
	}
	ctx, end := Chromium(context.Background(), 1280, 800)
	if err := chromedp.Do(ctx, chromedp.Navigate("about:blank")); err != nil {
		end()
		return nil, err
	}
	one.ctx, one.end = ctx, end
	return ctx, nil
}

// BrowserVersion is the product and version of the browser a tab is in, to be printed with
// a failure; "" when it no longer answers.
func BrowserVersion(tab context.Context) string {
	v, err := chromedp.CallBrowser(tab, browser.GetVersion, cdp.Empty{})
	if err != nil {
		return ""
	}
	return v.Product
}

// Quit ends the shared browser, after all tests.
func Quit() {
	one.Lock()
	defer one.Unlock()
	if one.end != nil {
		one.end()
	}
	one.ctx, one.end = nil, nil
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
