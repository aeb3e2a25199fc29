package testkit

import "net/http"

// Browserlike sends requests as a browser does from a page of the same site.
type Browserlike struct{}

// RoundTrip implements http.RoundTripper.
func (Browserlike) RoundTrip(r *http.Request) (*http.Response, error) {
	r = r.Clone(r.Context())
	if r.Header.Get("Sec-Fetch-Site") == "" && r.Header.Get("Origin") == "" { // a test says where it comes from
		r.Header.Set("Sec-Fetch-Site", "same-origin")
	}
	return http.DefaultTransport.RoundTrip(r)
}

// Following is a client that posts as a page does, and follows where it is led.
func Following() *http.Client { return &http.Client{Transport: Browserlike{}} }

// Page is a client that posts as a page does, and does not follow where it is led.
func Page() *http.Client {
	return &http.Client{
		Transport:     Browserlike{},
		CheckRedirect: func(*http.Request, []*http.Request) error { return http.ErrUseLastResponse },
	}
}
