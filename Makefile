# Bridle: `make demo` to use it, `make test` to check it.
PYTHON ?= python3.11
PORT ?= 8420
BIN := .venv/bin
S := .stamps
export DJANGO_SETTINGS_MODULE := bridle.server.settings
# Modules are kept compiled, whatever the surroundings say: to compile Bridle anew is a third of every start.
unexport PYTHONDONTWRITEBYTECODE

PAGE_SOURCES := $(shell find frontend/src frontend/public -type f) frontend/index.html frontend/vite.config.ts frontend/svelte.config.js

.PHONY: demo demo-fresh dev test check check-python check-page page bench fuzz mutants golden screenshots api format docs chromium \
	lock outdated

# --- setting up, each step only when what it depends on has changed ---

# What is installed is named in a lock, each file by its digest, what is needed by what is needed too; the installer first.
PIP := $(BIN)/python -m pip install --quiet --disable-pip-version-check
LOCKED := $(PIP) --require-hashes --no-deps -r

$(S)/pip: requirements-pip.lock
	@mkdir -p $(S)
	@test -x $(BIN)/python || (echo "making the virtual environment"; $(PYTHON) -m venv .venv)
	@$(LOCKED) requirements-pip.lock
	@touch $@

$(S)/run: $(S)/pip requirements.lock pyproject.toml
	@echo "installing the pinned Python packages"
	@$(LOCKED) requirements.lock
	@$(PIP) --no-deps --no-build-isolation -e .
	@$(BIN)/python -m compileall -q bridle
	@touch $@

$(S)/test: $(S)/run requirements-dev.lock
	@echo "installing the packages that the checks need"
	@$(LOCKED) requirements-dev.lock
	@touch $@

$(S)/node: frontend/package-lock.json frontend/package.json
	@mkdir -p $(S)
	@echo "installing the pinned page packages"
	@cd frontend && npm ci --silent
	@touch $@

$(S)/page: $(S)/run $(S)/node $(PAGE_SOURCES)
	@echo "building the page"
	@cd frontend && npm run --silent build -- --logLevel warn
	@$(BIN)/python -m whitenoise.compress --quiet frontend/dist
	@touch $@

page: $(S)/page

# --- using it ---

demo: $(S)/page
	@exec $(BIN)/python manage.py serve --demo --port $(PORT)

demo-fresh: $(S)/page
	@rm -f var/bridle.sqlite3 var/bridle.sqlite3-wal var/bridle.sqlite3-shm
	@$(MAKE) --no-print-directory demo

# The page from its sources with live reload at 8421, the server restarting by itself behind it at 8420.
dev: $(S)/test $(S)/node
	@$(BIN)/python manage.py migrate --verbosity 0
	@$(BIN)/python manage.py loaddemo
	@trap 'kill 0' EXIT INT TERM; BRIDLE_DEBUG=1 $(BIN)/python manage.py runserver 127.0.0.1:8420 & \
		cd frontend && npm run dev

# --- checking it ---

chromium:
	@test -x /usr/bin/chromium || (echo "installing Chromium from Debian's packages"; \
		apt-get update -qq && apt-get install -y -qq --no-install-recommends chromium > /dev/null) || \
		(echo "The browser tests need Debian's chromium: apt-get install chromium"; exit 1)

check: check-python check-page

check-python: $(S)/test
	$(BIN)/ruff check .
	$(BIN)/ruff format --check --quiet .
	$(BIN)/mypy bridle tests
	$(BIN)/lint-imports

check-page: $(S)/node
	cd frontend && npm run --silent check
	cd frontend && npm run --silent lint
	cd frontend && npx --no-install openapi-typescript src/api/openapi.json --silent -o ../.stamps/schema.d.ts \
		&& cmp ../.stamps/schema.d.ts src/api/schema.d.ts

test: chromium check $(S)/page
	$(BIN)/python manage.py test tests --noinput --parallel auto

bench: $(S)/test $(S)/page
	@$(BIN)/python -m tests.bench $(BASE)

# Long hunts, each bounded: some thousand plans and cards, damaged rows and files, power cuts, a fuzzer on the API, a month of
# saves and runs.
fuzz: $(S)/test $(S)/page
	@BRIDLE_EXAMPLES=20000 $(BIN)/python manage.py test --noinput tests.core.test_any_plan
	@BRIDLE_EXAMPLES=5000 $(BIN)/python manage.py test --noinput tests.core.test_chains tests.core.test_agree tests.core.test_evaluate tests.core.test_knowing tests.prints.test_lines tests.prints.test_swift
	@BRIDLE_EXAMPLES=3000 $(BIN)/python manage.py test --noinput tests.server.test_given tests.server.test_rows
	@$(BIN)/python -m tests.hunts.kills
	@$(BIN)/python -m tests.hunts.requests
	@BRIDLE_DATA=$$(mktemp -d) $(BIN)/python -c "import django; django.setup(); from tests.hunts.month import main; main()"

# One-line mistakes, each made in a copy of its own: which tests notice.
mutants: $(S)/test
	@$(BIN)/python -m tests.mutants

# Whether this checkout tells what an earlier commit tells: make golden BASE=REV
golden: $(S)/test
	@$(BIN)/python -m tests.golden $(BASE)

# --- the packages ---

# Pins all that is named in requirements*.txt, with all that it needs, by digest. Looks at the network, and takes minutes.
LOCK := $(S)/lock/bin/pip-compile --quiet --generate-hashes --allow-unsafe --strip-extras --no-header --no-emit-options
lock:
	@mkdir -p $(S)
	@test -x $(S)/lock/bin/pip-compile || ($(PYTHON) -m venv $(S)/lock && $(S)/lock/bin/python -m pip install --quiet pip-tools==7.6.2)
	@# What the checks need narrows what Bridle may run on: it is pinned first, and the other lock is a part of it.
	@echo "pinning what the checks need" && $(LOCK) -o requirements-dev.lock requirements-dev.txt
	@echo "pinning what Bridle runs on" && cp requirements-dev.lock requirements.lock && $(LOCK) -o requirements.lock requirements.txt
	@echo "pinning the installer" && $(LOCK) -o requirements-pip.lock requirements-pip.txt

# Which pinned version has a newer one.
outdated: $(S)/test $(S)/node
	@$(BIN)/python -m tests.outdated

# --- writing what is made from other things ---

api: $(S)/test $(S)/node
	@$(BIN)/python manage.py exportapi
	@$(BIN)/python -m tests.sentences
	@cd frontend && npm run --silent api

screenshots: chromium $(S)/test $(S)/page
	@$(BIN)/python -m tests.browser.screenshots

format: $(S)/test $(S)/node
	@$(BIN)/ruff check --fix --quiet . ; $(BIN)/ruff format --quiet .
	@cd frontend && npm run --silent format
