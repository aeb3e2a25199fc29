package plan

import (
	"net/netip"
	"net/url"
	"path"
	"strings"

	"zapbarn/core/measure"
)

// reachable refuses an address that no phone opens.
func reachable(field, text string) error {
	if text == "" {
		return nil
	}
	u, err := url.Parse(text)
	if err != nil || u.Scheme != "http" && u.Scheme != "https" || u.Hostname() == "" || u.User != nil ||
		strings.ContainsAny(text, " <>\"?#") {
		return measure.Bad(field, "%.60q is no address; write such as http://barn.home, or https://barn.home/%s", text,
			"apiary.html")
	}
	ip, none := netip.ParseAddr(u.Hostname())
	if host := strings.ToLower(u.Hostname()); host == "localhost" || strings.HasSuffix(host, ".localhost") ||
		none == nil && (ip.IsLoopback() || ip.IsUnspecified()) {
		return measure.Bad(field, "%s is this machine alone: on a phone it is the phone itself; write the name or number "+
			"that the phone reaches this barn by", u.Hostname())
	}
	return nil
}

// Code is the address that a label's code opens: of a kind of thing and its ID, and the place
// of the program that shows it. "" where it is not known how phones reach the display. Where the
// display's page file is put up, it is the thing's own place in it.
func (p *Plan) Code(kind, id, place string, query url.Values) string {
	at := strings.TrimRight(p.Display().Reach, "/")
	switch ext := path.Ext(at); {
	case at == "":
		return ""
	case ext == ".html" || ext == ".htm":
		return at + "#" + Anchor(kind, id)
	}
	return at + "/p/" + p.Display().ID + "/" + place + "?" + query.Encode()
}

// Anchor is the name of a thing's own place in the display's page file.
func Anchor(kind, id string) string { return kind + "-" + url.QueryEscape(id) }
