#!/bin/sh
# Serves a fresh demo on a port and folder of its own and takes the pictures.
set -eu
export ZAPBARN_ADDR=127.0.0.1:8489 ZAPBARN_DATA=.data/shots
./bin/zapbarn demo --fresh >/dev/null &
pid=$!
trap 'kill $pid 2>/dev/null || true' EXIT
for _ in 1 2 3 4 5 6 7 8 9 10 11 12 13 14 15 16 17 18 19 20; do
  sleep 0.5
  curl -sf http://127.0.0.1:8489/healthz >/dev/null && break
done
go run ./testkit/shots http://127.0.0.1:8489 docs/screenshots
curl -s "http://127.0.0.1:8489/p/midnight-apiary/cutsheet.pdf?prop=riser&paper=Letter" -o .data/shots/cut.pdf
pdftoppm -png -singlefile -r 60 -f 4 -l 4 .data/shots/cut.pdf docs/screenshots/cutsheet
