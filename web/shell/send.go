package shell

import (
	"bytes"
	"net/http"
	"path"

	"github.com/gin-gonic/gin"
)

// MediaTypes are the media types by ending.
var MediaTypes = map[string]string{
	".html": "text/html; charset=utf-8",
	".pdf":  "application/pdf",
	".csv":  "text/csv; charset=utf-8",
	".ics":  "text/calendar; charset=utf-8",
	".stl":  "model/stl",
	".zip":  "application/zip",
	".mid":  "audio/midi",
	".json": "application/json",
	".cir":  "text/plain; charset=utf-8",
	".svg":  "image/svg+xml",
	".dxf":  "image/vnd.dxf",
	".xlsx": "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet",
}

// Send sends a file, to be kept.
func Send(c *gin.Context, name string, b *bytes.Buffer) {
	c.Header("Content-Disposition", `attachment; filename="`+name+`"`)
	c.Data(http.StatusOK, MediaTypes[path.Ext(name)], b.Bytes())
}
