# Two commands are enough: `make demo` and `make test`. The rest is for those who build Orthomer.

export PLAYWRIGHT_SKIP_BROWSER_DOWNLOAD = 1
QUICK    = target/quick/orthomer
PORT    ?= 8080
PYTHON   = reference/.venv/bin/python

.PHONY: demo dev dev-server dev-web build release test test-words test-core test-web test-browser bench load faults deb reference schema api screenshots chromium tools figure accuracy girths poses calibration levers weeks clean

## demo: build everything and start it with demo data
demo: build
	$(QUICK) demo --port $(PORT)

## dev: the server on demo data kept in target/dev and the front end in front of it, each anew when its source changes
dev: tools web/node_modules/.package-lock.json
	$(MAKE) -j2 --no-print-directory dev-server dev-web

dev-server:
	cd web && npx nodemon --watch ../crates --ext rs,toml,sql,json --cwd .. --signal SIGINT \
	  --exec "if [ -e target/dev/orthomer.sqlite ]; then cargo run --bin orthomer -- serve --data target/dev --port $(PORT); \
	  else cargo run --bin orthomer -- demo --no-pictures --data target/dev --port $(PORT); fi"

dev-web:
	cd web && PORT=$(PORT) npx vite --port 5173 --strictPort

## build: the optimised binary with the front end inside, quick to build
build: tools web/dist/index.html
	cargo build --profile quick --locked --bin orthomer

## release: the same with link-time optimisation, for shipping
release: tools web/dist/index.html
	cargo build --release --locked --bin orthomer

## test: everything, in the order in which it fails soonest, and how long each part took
test:
	@for part in words core web browser; do \
	  start=$$(date +%s); $(MAKE) --no-print-directory test-$$part || exit 1; \
	  echo "test-$$part took $$(($$(date +%s) - start)) s"; \
	done

# Clippy compiles what the tests run, so that everything is compiled once and not again for its sake alone.
LINTED = RUSTC_WORKSPACE_WRAPPER=clippy-driver CLIPPY_ARGS=-D__CLIPPY_HACKERY__warnings__CLIPPY_HACKERY__

# Made-up cases are the same in every run of this; `cargo test` alone makes others each time.
SAME_CASES = PROPTEST_RNG_SEED=20260302

# A line set otherwise than the formatter sets it is told before anything is compiled.
test-words: web/node_modules/.package-lock.json
	cargo fmt --all --check
	cd web && npm run lint

test-core: tools web/dist/index.html
	$(LINTED) cargo test --workspace --all-targets --locked --no-run
	$(LINTED) $(SAME_CASES) cargo test --workspace --locked --quiet

test-web: web/node_modules/.package-lock.json
	cd web && npm run api:check && npm test

test-browser: tools web/dist/index.html e2e/node_modules/.package-lock.json chromium
	$(LINTED) cargo test --workspace --locked --quiet --no-run
	cd e2e && npx playwright test

## bench: the core's figures, beside a numpy yardstick
bench: $(PYTHON)
	cargo bench -p assess -p plan --bench assessment --bench week --locked -- --noplot
	cargo bench -p vision --bench photo --locked -- --noplot
	cargo bench -p levers --bench levers --locked -- --noplot
	$(PYTHON) reference/yardstick.py
	$(PYTHON) reference/ingest_yardstick.py
	$(PYTHON) reference/levers_yardstick.py

## reference: make the outside figures anew; fails when they differ from what is committed
reference: $(PYTHON)
	$(PYTHON) reference/bdims.py
	$(PYTHON) reference/norms.py
	$(PYTHON) reference/conditional.py
	$(PYTHON) reference/joint.py
	$(PYTHON) reference/posterior.py
	$(PYTHON) reference/verdict.py
	$(PYTHON) reference/agreement.py
	$(PYTHON) reference/eye.py
	$(PYTHON) reference/schools.py
	$(PYTHON) reference/girths.py
	$(PYTHON) reference/vision.py
	$(PYTHON) reference/levers.py
	git diff --exit-code reference/fixtures crates/assess/data crates/levers/data crates/lighttable/data

## schema, api: what is generated from the Rust types and committed
schema: tools
	cargo run --locked --bin orthomer -- schema docs/schema

api: web/node_modules/.package-lock.json
	cargo run --locked --bin orthomer -- openapi > web/openapi.json
	cd web && npm run api

## levers: what mechanics says of every claim of the catalogue, behind the heading of docs/levers.md
levers: tools
	sed '/^## The claims/q' docs/levers.md > target/levers.md
	echo >> target/levers.md
	cargo run --profile quick --locked -p levers --example claims >> target/levers.md
	mv target/levers.md docs/levers.md

## accuracy: how well booth pictures are measured
accuracy: tools
	cargo run --release --locked -p vision --example accuracy

## girths: made-up bodies pictured and measured anew, and the constants of girths from pictures fitted to them (a quarter of an hour)
girths: tools $(PYTHON)
	cargo run --profile quick --locked -p lighttable --example bodies > reference/fixtures/girth_bodies.csv
	$(PYTHON) reference/girths.py

## poses: the figures that show a client how to stand
poses: tools web/node_modules/.package-lock.json
	cargo run --profile quick --locked -p lighttable --example poses > web/src/features/capture/poses.json
	cd web && npx biome format --write src/features/capture/poses.json

## calibration: how often the words are right
calibration: tools
	cargo run --profile quick --locked -p assess --example calibration -- 4000

## weeks: the planner on twenty generated clients, beside HiGHS
weeks: tools $(PYTHON)
	cargo build --profile quick --locked --workspace --example instances
	target/quick/examples/instances target/weeks
	$(PYTHON) reference/plan_table.py target/weeks
	target/quick/examples/instances target/weeks-exercises exercises
	target/quick/examples/instances target/weeks-days days

## load: the server with 200 clients and three years of logs under 20 readers and 2 writers; a phone that comes back
load: build e2e/node_modules/.package-lock.json
	cargo build --profile quick --locked -p server --example bare
	cd e2e && node load.mjs ../target/load && node offline.mjs && node crowd.mjs

## faults: the program killed in the middle of every kind of write
faults: build
	cd e2e && node faults.mjs

## deb: a Debian package in target/debian, and a try at installing, upgrading and removing it where that is allowed
deb: tools web/dist/index.html target/tools/bin/cargo-deb
	target/tools/bin/cargo-deb --locked -p orthomer
	packaging/try.sh target/debian/orthomer_*.deb

target/tools/bin/cargo-deb:
	cargo install cargo-deb --version 3.8.0 --locked --root target/tools

## figure: make the booth's figure file anew from its source
figure: $(PYTHON)
	$(PYTHON) crates/booth/make_figure.py
	git diff --exit-code crates/booth/data

## screenshots: one picture of each main view, from demo data
screenshots: build e2e/node_modules/.package-lock.json chromium
	$(QUICK) demo --port 8137 & server=$$!; trap "kill $$server" EXIT; sleep 2; \
	cd e2e && node screenshots.mjs http://127.0.0.1:8137 ../docs/screenshots

web/dist/index.html: web/node_modules/.package-lock.json $(shell find web/src web/public web/index.html web/phone.html web/vite.config.ts -type f)
	cd web && npm run build

web/node_modules/.package-lock.json: web/package-lock.json
	cd web && npm ci --no-audit --no-fund
	touch $@

e2e/node_modules/.package-lock.json: e2e/package-lock.json
	cd e2e && npm ci --no-audit --no-fund
	touch $@

$(PYTHON): reference/requirements.txt
	python3 -m venv reference/.venv
	$(PYTHON) -m pip install --quiet -r reference/requirements.txt
	touch $@

# The JPEG decoder is built from source with these.
tools:
	@command -v cmake >/dev/null && command -v nasm >/dev/null || { echo "installing Debian's cmake and nasm"; \
	  $$( [ $$(id -u) = 0 ] || echo sudo ) sh -c "apt-get update -qq && apt-get install -y -qq cmake nasm" >/dev/null; }

# Debian's own Chromium; asks for the administrator's rights only when it is missing.
chromium:
	@command -v chromium >/dev/null || { echo "installing Debian's chromium"; \
	  $$( [ $$(id -u) = 0 ] || echo sudo ) sh -c "apt-get update -qq && apt-get install -y -qq chromium" >/dev/null; }

clean:
	cargo clean
	rm -rf web/dist web/node_modules e2e/node_modules e2e/test-results reference/.venv
