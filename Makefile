# Commands for people and for CI alike. `make demo` and `make test` set up all they need.
PYTHON ?= python3
PORT ?= 8000
DATA ?=
VENV := .venv
BIN := $(VENV)/bin
PAGE := cobblewort/api/page/index.html
PAGE_SOURCES := $(shell find web/src -type f) web/index.html web/vite.config.ts web/tsconfig.json web/package.json

.PHONY: demo demo-reset serve test test-long check check-python check-page attack bench first-kits screenshots sentences words scan format types schemas docs clean

demo: $(VENV)/.runtime $(PAGE)
	$(BIN)/cobblewort demo --port $(PORT) $(if $(DATA),--data $(DATA))

demo-reset: $(VENV)/.runtime
	$(BIN)/cobblewort demo --reset $(if $(DATA),--data $(DATA))

serve: $(VENV)/.runtime $(PAGE)
	$(BIN)/cobblewort serve --port $(PORT) $(if $(DATA),--data $(DATA))

test: check

# What Python and the page need is fetched side by side.
check:
	@$(MAKE) -j2 $(VENV)/.tests $(PAGE)
	@sh scripts/need-browser.sh
	@$(MAKE) -j2 check-python check-page
	$(BIN)/pytest -n 2 --dist worksteal

check-python: $(VENV)/.tests
	$(BIN)/ruff format --check -q .
	$(BIN)/ruff check -q .
	$(BIN)/mypy
	$(BIN)/lint-imports

check-page: web/node_modules/.installed
	cd web && npx tsc --noEmit && npx eslint . && npx prettier --check --log-level warn . && npx vitest run

# Everything of which `make test` tries a share, then the attacks and the scan. Before a release.
test-long: $(VENV)/.tests $(PAGE)
	@sh scripts/need-browser.sh
	$(BIN)/pytest -n 2 --dist worksteal --long
	$(BIN)/python -m tests.attack
	$(BIN)/python -m tests.scan

attack: $(VENV)/.tests
	$(BIN)/python -m tests.attack

scan: $(VENV)/.tests
	$(BIN)/python -m tests.scan

# Everything that a person can read, by screen.
words: $(VENV)/.tests web/node_modules/.installed
	@cd web && node tools/words.mjs
	@$(BIN)/python -m tests.sentences.words

sentences: $(VENV)/.tests
	$(BIN)/python -m tests.sentences

# The first kit of each purpose in each place, with its price and proof: some minutes.
first-kits: $(VENV)/.tests
	$(BIN)/python -m tests.first_kits

bench: $(VENV)/.tests $(PAGE)
	$(BIN)/python -m tests.bench

screenshots: $(VENV)/.tests $(PAGE)
	@sh scripts/need-browser.sh
	$(BIN)/python -m tests.browser.screenshots docs/screenshots

format: $(VENV)/.tests web/node_modules/.installed
	$(BIN)/ruff format -q .
	$(BIN)/ruff check -q --fix .
	cd web && npx prettier --write --log-level warn .

# Files made from the models; the tests fail when they are stale.
types: $(VENV)/.runtime web/node_modules/.installed
	mkdir -p build
	$(BIN)/python -m cobblewort.api.openapi > build/openapi.json
	cd web && npx openapi-typescript ../build/openapi.json -o src/api/schema.ts --default-non-nullable=false
	$(BIN)/python -m cobblewort.formats.page_labels web/src/api/labels.ts

schemas: $(VENV)/.runtime
	$(BIN)/python -m cobblewort.formats.schemas docs/schema

docs: $(VENV)/.runtime
	$(BIN)/python -m cobblewort.formats.rulebook docs/rules.md

$(VENV)/bin/python:
	$(PYTHON) -m venv $(VENV)

$(VENV)/.runtime: requirements.lock pyproject.toml | $(VENV)/bin/python
	$(BIN)/python -m pip install -q --disable-pip-version-check -r requirements.lock
	$(BIN)/python -m pip install -q --disable-pip-version-check --no-deps -e .
	$(BIN)/python -m cobblewort.formats.shipped
	@touch $@

$(VENV)/.tests: requirements-test.lock $(VENV)/.runtime
	$(BIN)/python -m pip install -q --disable-pip-version-check -r requirements-test.lock
	@touch $@

web/node_modules/.installed: web/package-lock.json
	cd web && npm ci --no-audit --no-fund --loglevel=error
	@touch $@

$(PAGE): web/node_modules/.installed $(PAGE_SOURCES)
	cd web && npx vite build --logLevel warn

clean:
	rm -rf $(VENV) web/node_modules cobblewort/api/page build
