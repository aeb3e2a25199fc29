#!/bin/sh
# Builds the program as it ships, one file, to the file named, and beside it the notices of what
# is built in.
set -e
cd "$(dirname "$0")/.."
mkdir -p "$(dirname "$1")"
"${GO:-go}" run ./testkit/notices "$(dirname "$1")/NOTICES.txt"
exec "${GO:-go}" build -trimpath -ldflags "-s -w" -o "$1" ./cmd/zapbarn
