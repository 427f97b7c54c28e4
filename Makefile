# Lyrandis: everything sets itself up. `make demo` runs the demo, `make test` tests, `make` lists.
PYTHON ?= python3
VENV := .venv
BIN := $(VENV)/bin
PORT ?= 8080
STAMPS := .make
WEB_SOURCES := $(shell find web/src web/public -type f 2>/dev/null) web/index.html web/field.html web/vite.config.ts web/vite.field.config.ts web/svelte.config.js web/tsconfig.json
NPM := sh tools/npm.sh

.DEFAULT_GOAL := help
.PHONY: help demo demo-reset run test check format types prove worlds naming demo-sounds bench screenshots clean

help: ## what can be made
	@grep -hE '^[a-z-]+:.*## ' $(MAKEFILE_LIST) | sed -E 's/^([a-z-]+):.*## /  make \1\t/' | expand -t 22

$(STAMPS)/venv: requirements.txt pyproject.toml tools/venv.sh
	@sh tools/venv.sh $(PYTHON) $(VENV) requirements.txt
	@mkdir -p $(STAMPS) && touch $@

$(STAMPS)/dev: $(STAMPS)/venv requirements-dev.txt
	@$(BIN)/python -m pip install --quiet --disable-pip-version-check -r requirements-dev.txt
	@touch $@

$(STAMPS)/npm: web/package.json web/package-lock.json
	@$(NPM) ci
	@mkdir -p $(STAMPS) && touch $@

$(STAMPS)/page: $(STAMPS)/npm $(WEB_SOURCES)
	@$(NPM) build
	@touch $@

$(STAMPS)/chromium: tools/chromium.sh
	@sh tools/chromium.sh
	@mkdir -p $(STAMPS) && touch $@

demo: $(STAMPS)/venv $(STAMPS)/page ## serve the three demo rigs on http://127.0.0.1:8080
	@$(BIN)/lyrandis serve --demo --port $(PORT)

demo-reset: $(STAMPS)/venv ## make the demo start afresh
	@$(BIN)/lyrandis demo-reset

run: $(STAMPS)/venv $(STAMPS)/page ## serve your own bench
	@$(BIN)/lyrandis serve --port $(PORT)

test: $(STAMPS)/dev $(STAMPS)/page $(STAMPS)/chromium ## run every test
	@OPENBLAS_NUM_THREADS=1 $(BIN)/python -m pytest -n 2 --dist worksteal

check: $(STAMPS)/dev $(STAMPS)/npm ## lint, types, and drift of the generated web types
	@$(BIN)/ruff check --quiet src tests tools
	@$(BIN)/ruff format --quiet --check src tests tools
	@$(BIN)/mypy --no-error-summary
	@sh tools/types.sh --check
	@$(NPM) check
	@echo "check: all good"

format: $(STAMPS)/dev $(STAMPS)/npm ## format everything
	@$(BIN)/ruff check --quiet --fix src tests tools; $(BIN)/ruff format --quiet src tests tools
	@$(NPM) format

types: $(STAMPS)/venv $(STAMPS)/npm ## write the web types from the API document
	@sh tools/types.sh

prove: $(STAMPS)/dev ## shoot the flight's trials and evenings anew (forty minutes)
	@$(BIN)/python tools/prove_flight.py

worlds: $(STAMPS)/dev ## shoot string, sweep and sound in other worlds anew (ten minutes)
	@$(BIN)/python tools/try_worlds.py

naming: $(STAMPS)/dev ## fit the scores that name a fault by its sound anew (five minutes)
	@$(BIN)/python tools/fit_naming.py

demo-sounds: $(STAMPS)/dev ## let the simulated microphone record the demo anew
	@$(BIN)/python tools/demo_sounds.py

bench: $(STAMPS)/dev $(STAMPS)/page $(STAMPS)/chromium ## measure speed and memory into docs/BENCH.md
	@$(BIN)/python -m tools.bench $(AREAS)

screenshots: $(STAMPS)/dev $(STAMPS)/page $(STAMPS)/chromium ## take docs/screenshots afresh
	@$(BIN)/python tools/screenshots.py

clean: ## remove what was built
	@rm -rf $(STAMPS) $(VENV) web/node_modules src/lyrandis/static
