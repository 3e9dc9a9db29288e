# Two commands do everything on a fresh machine: `make demo` and `make test`.
PYTHON ?= python3
VENV := .venv
PY := $(VENV)/bin/python
STAMPS := .stamps
WEB_SOURCES := $(shell find web/src web/generated web/public -type f 2>/dev/null) web/index.html web/vite.config.ts web/package-lock.json
NEEDED := $(addprefix $(STAMPS)/,node chromium office) # looked for first: what is missing is said before anything is built

.PHONY: demo serve test test-quick hunt steady kept check types lock shots bench photos trust mutants share wheel page format clean

demo: $(STAMPS)/node $(STAMPS)/python $(STAMPS)/page ## serve the demo household
	@$(VENV)/bin/noxel demo

serve: $(STAMPS)/node $(STAMPS)/python $(STAMPS)/page ## serve your own rigs
	@$(VENV)/bin/noxel serve

test: $(NEEDED) $(STAMPS)/python $(STAMPS)/page ## every test
	$(PY) -m tools.tests

test-quick: $(STAMPS)/node $(STAMPS)/office $(STAMPS)/python $(STAMPS)/page ## all but the browser, a tenth of the random examples
	NOXEL_QUICK=1 $(PY) -m tools.tests --but .browser.

hunt: $(STAMPS)/python ## the tests of the core with new random examples, more of them
	NOXEL_HUNT=1 $(PY) -m tools.tests tests/core

RUNS ?= 10
SLOW ?= 900
steady: $(NEEDED) $(STAMPS)/python $(STAMPS)/page ## every test RUNS times, then the browser tests over a poor network
	for run in $$(seq $(RUNS)); do $(PY) -m tools.tests || exit 1; done
	NOXEL_SLOW=$(SLOW) $(PY) -m tools.tests tests/browser

KEPT = $(subst /,.,$(basename $(shell grep -rlE 'as_kept|same_text' tests --include='test_*.py')))
kept: $(STAMPS)/python $(STAMPS)/page ## writes the kept answers anew; read the difference before it is committed
	NOXEL_GOLDEN=1 $(PY) -m unittest $(KEPT)
	git diff --stat tests/golden

check: $(STAMPS)/python $(STAMPS)/web ## style, types, layering, generated files
	$(VENV)/bin/ruff check .
	$(VENV)/bin/ruff format --check .
	$(VENV)/bin/mypy
	$(VENV)/bin/lint-imports --no-logo
	$(PY) -m tools.generated --check
	$(PY) tools/names.py
	cd web && npx --no-install tsc && npx --no-install biome check .

types: $(STAMPS)/python $(STAMPS)/web ## what is generated from the models: the page's types, the rig file's schema
	$(PY) -m tools.generated

lock: $(STAMPS)/python ## requirements.lock from pyproject.toml, with hashes; UPGRADE=--upgrade takes the newest versions
	$(VENV)/bin/uv pip compile --quiet --universal --python-version 3.11 --generate-hashes --all-extras \
		--no-header --no-annotate $(UPGRADE) --output-file requirements.lock pyproject.toml

shots: $(STAMPS)/python $(STAMPS)/page $(STAMPS)/chromium ## docs/screenshots, from the demo data
	$(PY) -m tools.shots

bench: $(STAMPS)/python $(STAMPS)/page $(STAMPS)/chromium ## the measured limits
	$(PY) -m tools.bench

photos: $(STAMPS)/python $(STAMPS)/web ## photographs of labels and tickets, and how much of them is read
	$(PY) -m tools.photos

trust: $(STAMPS)/python ## tries to lose, break and hang it: a table of what came of it
	$(PY) -m tools.trust

mutants: $(STAMPS)/python ## small faults in a copy of the core, and how many of them the tests notice
	$(PY) -m tools.mutants --count 300 --minutes 45
	$(PY) -m tools.mutants --room edges --count 150 --minutes 45

share: ## non-blank lines of the tests against those of the code
	@tests=$$(git ls-files 'tests/*.py' | xargs cat | grep -c '[^[:space:]]'); \
	code=$$(git ls-files 'src/*.py' 'web/src/*.ts' 'web/src/*.tsx' 'web/src/*.css' | xargs cat | grep -c '[^[:space:]]'); \
	echo "tests $$tests, code $$code: $$((100 * tests / code)) %"

wheel: $(STAMPS)/python $(STAMPS)/page ## a wheel that carries the built page
	rm -rf dist && $(PY) -m build --wheel --no-isolation

page: $(STAMPS)/page

format: $(STAMPS)/python $(STAMPS)/web
	$(VENV)/bin/ruff check --fix . && $(VENV)/bin/ruff format . && cd web && npx --no-install biome check --write .

clean:
	rm -rf $(VENV) $(STAMPS) dist build var web/node_modules src/noxel/page

$(STAMPS)/python: requirements.lock pyproject.toml
	@$(PYTHON) tools/need.py python
	$(PYTHON) -m venv $(VENV)
	$(PY) -m pip install --quiet --disable-pip-version-check -r requirements.lock
	$(PY) -m pip install --quiet --disable-pip-version-check --no-deps --no-build-isolation -e .
	@mkdir -p $(STAMPS) && touch $@

$(STAMPS)/web: web/package-lock.json web/package.json | $(STAMPS)/node
	cd web && npm install --no-save --silent --no-audit --no-fund # as locked; unlike ci it lets a registry lack other systems' builds
	@mkdir -p $(STAMPS) && touch $@

$(STAMPS)/page: $(STAMPS)/web $(WEB_SOURCES)
	cd web && npm run --silent build
	@mkdir -p $(STAMPS) && touch $@

$(NEEDED): tools/need.py
	@$(PYTHON) tools/need.py $(notdir $@)
	@mkdir -p $(STAMPS) && touch $@
