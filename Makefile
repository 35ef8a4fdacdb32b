# make demo   installs, builds and serves the demo data
# make test   installs what the tests need and runs them all
# make check  formatting, vet, lint, types, and drift of generated code
# make hostile   kills, faults of storage, hostile requests and files, waits of a tick and every random test, long, with a new seed
# make replica-test   litestream against a server under load, both killed, and what is restored
# make mutants PKG=internal/core/day   what a package's own tests notice when its code is changed
# make bench  prints the benchmarks' ratios
# make screenshots   takes the pictures in docs/screenshots anew
# make dev    serves the demo data with the page rebuilt on each change

export CGO_ENABLED := 0
BIN := bin/tincup
# Not ./...: packages of npm may hold Go files too.
PACKAGES := ./api ./cmd/... ./demo ./internal/... ./web
PAGE := web/dist/page/index.html
WEB_SOURCES := $(shell find web/src web/public -type f) web/index.html web/vite.config.ts web/package.json
GO_SOURCES := $(shell find cmd internal demo api -type f) web/embed.go go.mod go.sum

.PHONY: demo build test test-go test-web check hostile replica-test mutants bench dev generate screenshots clean

demo: build
	./$(BIN) demo --quiet

build: $(BIN)

$(BIN): $(PAGE) $(GO_SOURCES)
	go build -trimpath -o $(BIN) ./cmd/tincup

$(PAGE): web/node_modules/.installed $(WEB_SOURCES)
	cd web && npm run --silent build

web/node_modules/.installed: web/package-lock.json
	cd web && npm ci --no-audit --no-fund --loglevel=error
	touch $@

test: test-go test-web

test-go: build
	web/e2e/packages.sh
	go test $(PACKAGES)

test-web: build
	web/e2e/packages.sh
	cd web && npm run --silent test

check: web/node_modules/.installed
	@out=$$(gofmt -l api cmd demo internal web/*.go); test -z "$$out" || { echo "gofmt wants to change:"; echo "$$out"; exit 1; }
	go vet $(PACKAGES)
	go tool staticcheck $(PACKAGES)
	cd web && npm run --silent format && npm run --silent lint && npm run --silent types
	.ci/drift

generate: web/node_modules/.installed
	go generate ./api
	cd web && npm run --silent generate

# Each prints its seed; SEED=n takes that one.
SEED ?= 0
hostile: build
	go test ./cmd/tincup -run 'Killed|StorageFaults' -v -count=1 -timeout 30m -long -seed $(SEED)
	go test ./internal/httpapi -run HostileRequests -v -count=1 -timeout 60m -long -seed $(SEED)
	CGO_ENABLED=1 go test -race ./internal/app -run ACrowd -v -count=1 -timeout 30m -long -seed $(SEED)
	go test ./internal/core/remind -run 'Sequences|NoisyWalks' -v -count=1 -timeout 30m -sequences 2000 -seed $(SEED)
	go test ./internal/formats -run RoundTrip -v -count=1 -timeout 30m -books 2000 -seed $(SEED)
	go test ./internal/core/repeat -run AgainstReference -v -count=1 -timeout 30m -rules 20000 -seed $(SEED)
	go test ./internal/core/filter -v -count=1 -timeout 60m -filters 1 -seed $(SEED)
	go test ./internal/core/capture -v -count=1 -timeout 30m -seed $(SEED)
	go test ./internal/core/view -v -count=1 -timeout 30m -sequences 1 -seed $(SEED)
	go test ./internal/core/book -run 'Sequences|TwoWindows|AheadOfItsTurn' -v -count=1 -timeout 30m -sequences 1 -seed $(SEED)
	go test ./internal/core/book -run UndoneInAnyOrder -v -count=1 -timeout 30m -sequences 1 -seed $(SEED)
	go test ./internal/httpapi -run 'DeepChain|ManyLongEvents|TakeLong' -v -count=1 -timeout 10m
	go test ./internal/formats/everything -run ReadRefuses -v -count=1 -timeout 10m
	CGO_ENABLED=1 go test -race ./internal/app -run 'WhileOthers|OfOneMoment' -v -count=1 -timeout 10m
	GOGC=200 go test ./internal/app -run '^$$' -bench WorstWait -benchtime 3x -timeout 20m
	go test ./internal/store -run 'TwoWindows|UndoToTheStart|RowsOfLarge' -v -count=1 -timeout 60m -sequences 1 -seed $(SEED)

# Changes the code of one package of core at a time, and counts what its own tests notice.
# How long one may take follows from the first run, which is not to come from the cache.
# Those of book, filter and repeat take hours.
PKG ?= internal/core/day
mutants:
	GOFLAGS='-vet=off -count=1' go run github.com/go-gremlins/gremlins/cmd/gremlins@v0.6.0 unleash --timeout-coefficient 4 ./$(PKG)

# GOGC as serve sets it.
bench: build
	GOGC=200 go test ./internal/... -run '^$$' -bench . -benchtime 1s

dev: build
	./$(BIN) demo --quiet --keep & trap 'kill $$!' EXIT; cd web && npm run --silent dev

screenshots: build
	web/e2e/packages.sh
	cd web && node screenshots.mjs

replica-test: build
	cd replica && go build -trimpath -o ../bin/litestream github.com/benbjohnson/litestream/cmd/litestream && go test -count=1 -v .

clean:
	rm -rf bin web/dist/page web/node_modules
