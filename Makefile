# Everything a newcomer needs: `make demo` to see it, `make test` to trust it.
SHELL := bash
.SHELLFLAGS := -eu -o pipefail -c
.ONESHELL:

PYTHON ?= $(shell command -v python3.11 || command -v python3)
PORT ?= 8765
BIN := .venv/bin
FRONT := $(shell git ls-files -co --exclude-standard frontend 2>/dev/null | grep -v -e schema.d.ts -e /tests/)

.PHONY: setup dev build demo test quick lint lint-python lint-frontend unit-frontend bench simulate fuzz trial docs screenshots lock clean chromium

setup: $(BIN)/dialback

$(BIN)/dialback: requirements.lock pyproject.toml
	@$(PYTHON) -c 'import sys; sys.exit(sys.version_info < (3, 11))' || { echo "Python 3.11 or newer is needed"; exit 1; }
	$(PYTHON) -m venv .venv || { echo "python3-venv is missing: apt-get install python3-venv"; exit 1; }
	$(BIN)/pip install --quiet --disable-pip-version-check --require-hashes -r requirements.lock
	$(BIN)/pip install --quiet --disable-pip-version-check --no-deps --no-build-isolation -e .
	touch $@

# Linters, types, tests: nothing of it is there where the application only serves.
dev: .venv/.dev

.venv/.dev: $(BIN)/dialback requirements-dev.lock
	$(BIN)/pip install --quiet --disable-pip-version-check --require-hashes -r requirements-dev.lock
	touch $@

frontend/node_modules: frontend/package-lock.json frontend/package.json
	@command -v npm >/dev/null || { echo "Node 20 with npm is needed"; exit 1; }
	npm --prefix frontend ci --no-audit --no-fund --loglevel=error
	touch $@

dialback/web/static/index.html: frontend/node_modules $(FRONT) frontend/src/api/schema.d.ts
	cd frontend && npx vite build --logLevel warn

build: dialback/web/static/index.html

demo: setup build
	$(BIN)/dialback --data .demo/demo.sqlite demo --fresh
	$(BIN)/dialback --data .demo/demo.sqlite serve --port $(PORT)

lint: lint-python lint-frontend

lint-python: dev
	$(BIN)/ruff check .
	$(BIN)/ruff format --check .
	$(BIN)/mypy

lint-frontend: frontend/node_modules
	cd frontend && npx tsc --noEmit && npm run --silent lint

chromium:
	@if ! command -v chromium >/dev/null || ! command -v chromedriver >/dev/null; then
	  echo "Installing Debian's chromium and chromium-driver for the browser tests"
	  SUDO=$$([ "$$(id -u)" = 0 ] || echo sudo)
	  $$SUDO apt-get update -qq && $$SUDO apt-get install -y -qq --no-install-recommends chromium chromium-driver >/dev/null
	fi

unit-frontend: frontend/node_modules
	cd frontend && npx vitest run

# Python on one core, the front end on the other, until the browser tests need both. These wait for
# the page for half of their time: twice as many run as there are cores.
test: chromium
	$(MAKE) --no-print-directory -j2 -O lint-python lint-frontend build unit-frontend
	$(BIN)/pytest -n 4 --dist loadfile --no-loadscope-reorder

# While one writes: linters and types, the core, and the tests that were touched.
quick: dev frontend/node_modules
	$(MAKE) --no-print-directory -j2 -O lint-python lint-frontend
	$(BIN)/pytest -q -n 2 tests/core tests/test_rooms.py $$(git status --porcelain -- tests | awk '{ print $$2 }' | grep -E '/test_[a-z_]+[.]py$$' | grep -v -e tests/core/ -e tests/test_rooms)

# Properties at length: thousands of requests made of the API's own document, doors at random.
fuzz: dev
	DIALBACK_FUZZ=$${DIALBACK_FUZZ:-60} $(BIN)/pytest -q -n 2 $$(grep -rlE '@tried|AT_LENGTH' tests --include='test_*.py')

# Killed servers, many hands, long loads: figures, and zero where something could be lost.
trial: dev build chromium
	$(BIN)/python scripts/trial.py
	DIALBACK_PACE=human $(BIN)/pytest -q tests/browser/test_typing.py

bench: dev
	$(BIN)/pip install --quiet --disable-pip-version-check --require-hashes -r requirements-bench.lock
	$(BIN)/python -m bench.bench

# A made-up club over a year: how much its verdicts say, and how much of what was planted they find.
simulate: dev
	$(BIN)/python -m bench.simulation
	$(BIN)/python -m bench.simulation --follow 12

# What is made from the code and kept in the repository.
docs: setup frontend/node_modules
	$(BIN)/dialback schema > docs/book.schema.json
	$(BIN)/dialback schema --squad > docs/squad.schema.json
	$(BIN)/dialback openapi > docs/openapi.json
	$(BIN)/python scripts/fixtures.py
	cd frontend && npx prettier --write --log-level warn src/api/measures.json && cd ..
	npm --prefix frontend run --silent api

screenshots: dev build chromium
	$(BIN)/python scripts/screenshots.py

LOCK := -q --generate-hashes --strip-extras --allow-unsafe --no-emit-index-url --no-emit-find-links

lock: setup
	$(BIN)/pip install --quiet pip-tools
	$(BIN)/pip-compile $(LOCK) --extra build -o requirements.lock pyproject.toml
	$(BIN)/pip-compile $(LOCK) --extra build --extra dev --constraint requirements.lock -o requirements-dev.lock pyproject.toml
	$(BIN)/pip-compile $(LOCK) --extra build --extra dev --extra bench --constraint requirements-dev.lock -o requirements-bench.lock pyproject.toml

clean:
	rm -rf .venv .demo frontend/node_modules dialback/web/static
