#!/bin/sh
# Builds the program as it ships, one file, to the file named.
set -e
cd "$(dirname "$0")/.."
mkdir -p "$(dirname "$1")"
exec "${GO:-go}" build -trimpath -ldflags "-s -w" -o "$1" ./cmd/zapbarn
