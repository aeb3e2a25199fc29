#!/bin/sh
# Builds the program as it ships, to the file named: no debug tables, functions packed
# closely, and calls kept as calls in what is not the heart of the job, so that it stays
# under 30 MB. The fonts go beside it.
set -e
cd "$(dirname "$0")/.."
fast=""
for of in runtime/... internal/runtime/... internal/bytealg internal/abi internal/sync sync/... \
  slices maps sort math math/bits math/cmplx strings strconv bytes unicode/... encoding/json \
  encoding/binary reflect compress/... hash/... fmt errors time cmp iter container/... \
  html/template zapbarn/core/circuit zapbarn/core/nest zapbarn/core/show zapbarn/core/calendar zapbarn/core/measure \
  zapbarn/core/pattern zapbarn/core/motion zapbarn/core/memo zapbarn/core/cutting zapbarn/core/pixel; do
  fast="$fast -gcflags=$of="
done
mkdir -p "$(dirname "$1")/fonts"
for font in sansbold.ttf.gz wide.ttf.gz hangul.ttf.gz scripts.zip; do
  cp "formats/fonts/$font" "$(dirname "$1")/fonts/"
done
# shellcheck disable=SC2086
exec "${GO:-go}" build -tags nomsgpack,nethttpomithttp2 -trimpath -ldflags "-s -w -funcalign=1" -gcflags=all=-l $fast \
  -o "$1" ./cmd/zapbarn
