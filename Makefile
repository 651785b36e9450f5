# Two commands: `make demo` and `make check`. Each makes the virtual environment that it needs.
PYTHON ?= python3
VENV ?= .venv
BIN = $(VENV)/bin

.PHONY: demo check

$(BIN)/python:
	$(PYTHON) -m venv $(VENV)

demo: $(BIN)/python
	$(BIN)/pip install --quiet --disable-pip-version-check .
	$(BIN)/yarnex demo yarnex-demo --force

check: $(BIN)/python
	$(BIN)/pip install --quiet --disable-pip-version-check --editable '.[dev]'
	$(BIN)/ruff check .
	$(BIN)/ruff format --check .
	$(BIN)/mypy
	$(BIN)/lint-imports
	$(BIN)/python -m pytest
