#!/bin/sh
# Builds the program as it ships, to the file named: no debug tables, and calls kept as calls
# in what is not the heart of the job, so that it stays under 30 MB.
set -e
cd "$(dirname "$0")/.."
light=""
for of in github.com/... gorm.io/... gopkg.in/... golang.org/x/... net/... vendor/... zapbarn/web zapbarn/demo \
  zapbarn/core/calc zapbarn/core/check zapbarn/core/shorthand zapbarn/core/stores zapbarn/core/order \
  zapbarn/formats/... zapbarn/store/... zapbarn/standin zapbarn/cmd/...; do
  light="$light -gcflags=$of=-l"
done
mkdir -p "$(dirname "$1")/fonts"
cp formats/fonts/wide.ttf.gz formats/fonts/hangul.ttf.gz "$(dirname "$1")/fonts/"
# shellcheck disable=SC2086
exec "${GO:-go}" build -tags nomsgpack,nethttpomithttp2 -trimpath -ldflags "-s -w" $light -o "$1" ./cmd/zapbarn
