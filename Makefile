# Two commands do everything on a fresh machine: `make demo` and `make test`.
PYTHON ?= python3
PORT ?= 5000
HOST ?= 127.0.0.1
DATA ?= instance
# more for `serve`
OPTIONS ?=
# who asks for another address than this machine's own opens it to a network: it is said at the start
TRUST = $(if $(filter-out 127.% localhost ::1,$(HOST)),--trust-network)
BIN := .venv/bin
UV := $(BIN)/uv

.PHONY: setup setup-dev demo test fuzz mutants check format messages bench load soak screenshots lock chromium clean

setup: .venv/.runtime

# The stamp is as new as the lock files: a second `make demo` installs nothing.
.venv/.runtime: requirements/build.txt requirements/runtime.txt pyproject.toml
	@test -x $(BIN)/python || $(PYTHON) -m venv .venv
	@$(BIN)/python -m pip install --quiet --disable-pip-version-check --require-hashes -r requirements/build.txt
	@$(UV) pip install --quiet --compile-bytecode --python $(BIN)/python --require-hashes -r requirements/runtime.txt
	@$(UV) pip install --quiet --python $(BIN)/python --no-deps --no-build-isolation --editable .
	@$(BIN)/python -m compileall -q src
	@touch $@

setup-dev: .venv/.dev

.venv/.dev: .venv/.runtime requirements/dev.txt
	@$(UV) pip install --quiet --python $(BIN)/python --require-hashes -r requirements/dev.txt
	@touch $@

demo: setup
	@$(BIN)/wide-arc serve --demo --host $(HOST) --port $(PORT) --data $(DATA) $(TRUST) $(OPTIONS)

# Debian's chromium draws the pages under test; as root it is installed, else the one command is named.
chromium:
	@if command -v chromium >/dev/null 2>&1; then :; \
	elif [ "$$(id -u)" = 0 ]; then echo "Installing Debian's chromium for the browser tests."; \
		apt-get update -qq && DEBIAN_FRONTEND=noninteractive apt-get install -y -qq chromium >/dev/null; \
	else echo "The browser tests need Debian's chromium. Run: sudo apt-get install chromium"; exit 1; fi

# Three processes, each with its part of the files in order: what a session computed once serves the tests beside it;
# one more than cores, because a browser is waited for.
test: setup-dev chromium check
	@$(BIN)/python -m pytest -n 3 --dist worksteal

# The property tests again, with other and many more examples, then odd input over a real server;
# set-ups from all over every option, by another seed each time.
CASES ?= 10000
fuzz: setup-dev
	@$(BIN)/python -m tools.fuzz $(CASES)
	@$(BIN)/python -m pytest -n 2 --hypothesis-profile fuzz $(shell grep -rl '@given' tests)
	@WIDEARC_SWEEP=20000 WIDEARC_SWEEP_SEED=$$(date +%s) $(BIN)/python -m pytest -q tests/reference/test_broken_poses.py

# Deliberate faults on a copy: each must make `wide-arc check` fail; the core tests run beside it (long; TESTS= without).
TESTS ?= --tests
mutants: setup-dev
	@$(BIN)/python -m tools.mutants $(TESTS)

check: setup-dev
	@$(BIN)/ruff format --check --quiet . || { echo "Run: make format"; exit 1; }
	@$(BIN)/ruff check --quiet .
	@$(BIN)/mypy
	@$(BIN)/lint-imports --no-logo 2>/dev/null || $(BIN)/lint-imports

format: setup-dev
	@$(BIN)/ruff format --quiet . && $(BIN)/ruff check --fix --quiet .

# The catalogues of texts: every text that is said, no other; what has no translation yet is listed.
messages: setup-dev
	@$(BIN)/python -m tools.messages

bench: setup-dev
	@$(BIN)/python -m bench

# Ten minutes of the gauge's live trace: events a second, longest gap, growth of memory.
# Twenty phones at once, on loopback: errors, waiting times, growth of memory.
SECONDS ?= 60
load: setup-dev
	@$(BIN)/python -m tools.load $(SECONDS)

soak: setup-dev
	@$(BIN)/python -m tools.soak
	@$(BIN)/python -m tools.kills

screenshots: setup-dev chromium
	@$(BIN)/python -m tools.screenshots docs/screenshots

lock: setup
	@for f in build runtime dev; do $(UV) pip compile --quiet --generate-hashes --no-emit-index-url --no-header \
		--no-annotate --python-version 3.11 requirements/$$f.in -o requirements/$$f.txt; done

clean:
	rm -rf .venv .mypy_cache .ruff_cache .pytest_cache .hypothesis instance
