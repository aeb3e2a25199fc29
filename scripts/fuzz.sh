#!/bin/sh
# Fuzzes every reader for a while each: sh scripts/fuzz.sh 5s
set -eu
time=${1:-5s}
grep -rlE '^func Fuzz' --include=*_test.go core formats web store cmd | while read -r file; do
  for name in $(sed -nE 's/^func (Fuzz[A-Za-z0-9]+).*/\1/p' "$file"); do
    echo "fuzz $name in $(dirname "$file") for $time"
    go test "./$(dirname "$file")" -run xxx -fuzz "^$name\$" -fuzztime "$time" >/dev/null
  done
done
