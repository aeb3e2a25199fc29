#!/bin/sh
# What a commit touched that a person wrote: tests, generated and frozen files apart.
set -eu
git show --stat=200 --format='%h %s' "${1:-HEAD}" -- \
  . ':!*_test.go' ':!*/testdata/*' ':!docs/*.md' ':!docs/plan.schema.json' ':!docs/examples' ':!web/shell/static/dist'
