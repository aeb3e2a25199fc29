# Two commands do all set-up on a fresh machine: make demo, make test.
GO ?= go
BIN := bin/zapbarn
export ZAPBARN_ADDR ?= 127.0.0.1:8480

.PHONY: demo serve test fuzz race slow mutants lint bench shots css lint-js docs compare-packer deps deps-test stop fresh

demo: deps $(BIN) ## start the database, load the Midnight Apiary, serve it
	./$(BIN) demo

fresh: deps $(BIN) ## the same, with the demo put back to how it ships
	./$(BIN) demo --fresh

serve: deps $(BIN)
	./$(BIN) serve

stop:
	./$(BIN) stop

$(BIN): $(shell find cmd core demo formats store web -type f) go.mod
	@GO=$(GO) sh scripts/build.sh $(abspath $(BIN))

deps: ## PostgreSQL's server programs, when they are missing
	@sh scripts/install.sh postgresql

deps-test:
	@sh scripts/install.sh postgresql chromium ngspice poppler-utils python3-ezdxf minizinc g++ tshark zbar-tools libharfbuzz-bin

# what happens at once is tested under the race detector as well
RACED := 'AreKept|Limited|IsKept|EditsAtOnce|FourFirst|SideBySide'

test: deps-test lint
	ZAPBARN_NEED_TOOLS=1 $(GO) test -vet=off -parallel 4 -timeout 25m ./...

slow: deps-test ## the long kind: race, fuzz, proofs anew, kill rounds, thousands of broken plans and machines
	$(GO) test -race -timeout 10m -run $(RACED) ./web ./store ./core/check
	sh scripts/fuzz.sh 5s
	ZAPBARN_SLOW=1 $(GO) test -timeout 60m ./core/calendar ./core/show ./e2e
	ZAPBARN_SLOW=1 $(GO) test -timeout 60m -v -run 'FirstStart|WhatCore' -rapid.checks=5000 ./store
	ZAPBARN_SLOW=1 $(GO) test -timeout 60m -v -run 'Mend' ./core/check

fuzz: ## every reader for a minute each
	sh scripts/fuzz.sh 60s

race: ## all of it under the race detector: some ten minutes
	$(GO) test -race -timeout 30m ./...

mutants: ## 200 one-line changes of core's rules, sampled by seed; at most half an hour
	$(GO) run ./testkit/mutants

lint:
	@test -z "$$(gofmt -l cmd core demo formats store testkit web e2e)" || { gofmt -l cmd core demo formats store testkit web e2e; echo "run gofmt"; exit 1; }
	@! { git ls-files -z 2>/dev/null | xargs -0 -r stat -c '%s %n' 2>/dev/null | \
		awk '$$1 > 1000000 && $$2 !~ "^formats/fonts/(scripts.zip|wide.ttf.gz)$$" {print $$2 ": over 1 MB, and not listed"; n = 1} END {exit !n}'; }
	$(GO) vet ./...
	$(GO) tool staticcheck ./...

bench: ## sizes are in the benchmarks' names: demo size and 20 times it
	$(GO) test -run xxx -bench . -benchmem ./core/... ./web/... ./formats

shots: $(BIN) ## take docs/screenshots again from the demo
	sh scripts/shots.sh

css: ## build the committed style sheet (needs node; the program does not)
	npm ci --no-audit --no-fund
	npx tailwindcss -i web/shell/style/app.css -o web/shell/static/dist/app.css --minify

lint-js: ## the pages' scripts and styles (needs node; the program does not)
	npm ci --no-audit --no-fund
	npx eslint web
	npx prettier --check "web/**/*.js" "web/**/*.css" '!web/shell/static/{vendor,dist}/**'

compare-packer: ## our sheets against a general-purpose packer's (needs node)
	npm ci --no-audit --no-fund
	UPDATE=1 $(GO) test ./core/nest -run GeneralPacker >/dev/null || true
	node scripts/packer.mjs
	$(GO) test ./core/nest -run GeneralPacker -v

docs:
	$(GO) run ./cmd/zapbarn docs docs
