#!/usr/bin/env bash
# Sets everything up on a fresh machine, then does what is asked. Run ./do for the list.
set -euo pipefail
cd "$(dirname "${BASH_SOURCE[0]}")"
py=.venv/bin/python
stamps=.venv/stamps

say() { printf '%s\n' "$*" >&2; }

# once NAME HASH COMMAND...: runs the command unless it succeeded before with the same hash.
once() {
  local stamp="$stamps/$1" hash=$2
  shift 2
  if [ "$(cat "$stamp" 2>/dev/null)" = "$hash" ]; then return; fi
  "$@"
  mkdir -p "$stamps"
  printf '%s' "$hash" >"$stamp"
}

hash_of() { cat "$@" | sha256sum | cut -d' ' -f1; }

install_python() {
  say "Setting up Python ..."
  "$py" -m pip install --quiet --disable-pip-version-check -r requirements-dev.txt
  "$py" -m pip install --quiet --disable-pip-version-check --no-deps --no-build-isolation -e .
}

install_frontend() {
  say "Setting up the front end ..."
  (cd frontend && npm ci --no-audit --no-fund --loglevel=error)
}

build_frontend() {
  say "Building the front end ..."
  (cd frontend && npm run --silent build)
}

set_up() {
  command -v node >/dev/null || { say "Node.js 20 or newer is needed and not found."; exit 1; }
  [ -x "$py" ] || python3 -m venv .venv
  once python "$(hash_of requirements.txt requirements-dev.txt pyproject.toml)" install_python
  [ -d frontend/node_modules ] || rm -f "$stamps/npm"
  once npm "$(hash_of frontend/package-lock.json)" install_frontend
  local sources
  sources=$(find frontend/src frontend/index.html frontend/*.ts frontend/package-lock.json -type f -print0 |
    sort -z | xargs -0 cat | sha256sum | cut -d' ' -f1)
  [ -f src/sandboa/web/static/index.html ] || rm -f "$stamps/frontend"
  once frontend "$sources" build_frontend
}

find_chromium() {
  # Without a window it does a fifth less; either does.
  if command -v chromium-headless-shell || command -v chromium; then return; fi >/dev/null
  say "Chromium is missing; the interface tests need it. Installing Debian's package ..."
  if ! { apt-get update -qq &&
    { apt-get install -y -qq chromium-headless-shell || apt-get install -y -qq chromium; }; } >/dev/null; then
    say "Chromium could not be installed. Install it (apt-get install chromium) and run ./do test again."
    exit 1
  fi
}

# need COMMAND PACKAGE WHY: Debian keeps some where only root's shell looks.
need() {
  if command -v "$1" || [ -x "/usr/sbin/$1" ]; then return; fi >/dev/null
  say "$1 is missing; $3 need it. Installing Debian's package ..."
  if ! { apt-get update -qq && apt-get install -y -qq --no-install-recommends "$2"; } >/dev/null; then
    say "$1 could not be installed. Install it (apt-get install $2) and run ./do test again."
    exit 1
  fi
}

lint() {
  "$py" -m ruff format --check --quiet .
  "$py" -m ruff check --quiet .
  "$py" -m mypy --no-error-summary
  .venv/bin/lint-imports --no-logo >&2
  (cd frontend && npm run --silent lint && npm run --silent typecheck)
  fresh_client
}

fresh_client() {
  local made
  made=$(mktemp)
  describe_api | (cd frontend && npx --no-install openapi-typescript /dev/stdin -o "$made" >/dev/null)
  if ! cmp -s "$made" frontend/src/shared/api/schema.ts; then
    say "The API client is stale: run ./do client and commit frontend/src/shared/api/schema.ts."
    exit 1
  fi
  rm -f "$made"
}

describe_api() {
  "$py" -c "import json; from sandboa.web.app import create_app; print(json.dumps(create_app(None).openapi()))"
}

case "${1:-}" in
  demo)
    set_up
    shift
    exec "$py" -m sandboa demo "$@"
    ;;
  test)
    set_up
    find_chromium
    need mosquitto mosquitto "the tests of readings by MQTT"
    need certutil libnss3-tools "the tests of a phone that trusts the house"
    need systemd-analyze systemd "the tests of the service"
    lint
    (cd frontend && npm run --silent test)
    exec "$py" -m pytest -n 2 --dist worksteal
    ;;
  setup) set_up ;;
  lint) lint ;;
  client)
    describe_api | (cd frontend && npx --no-install openapi-typescript /dev/stdin -o src/shared/api/schema.ts)
    ;;
  bench)
    set_up
    shift
    exec "$py" -m benchmarks "$@"
    ;;
  accuracy)
    set_up
    shift
    exec "$py" -m benchmarks.accuracy "$@"
    ;;
  rules)
    set_up
    exec "$py" -m docs.refresh_rules
    ;;
  screenshots)
    set_up
    find_chromium
    shift
    PYTHONPATH=tests exec "$py" -m docs.refresh_screenshots "$@"
    ;;
  mutate)
    set_up
    shift
    [ -x .venv/mutate/bin/python ] || python3 -m venv .venv/mutate
    once mutate "$(hash_of requirements-mutate.txt)" \
      .venv/mutate/bin/python -m pip install --quiet --disable-pip-version-check -r requirements-mutate.txt
    exec .venv/mutate/bin/python -m benchmarks.mutation "$@"
    ;;
  wheel)
    set_up
    "$py" -m build --wheel --no-isolation --outdir dist
    ;;
  *)
    cat >&2 <<'HELP'
./do demo         set up, start the app with demo data      ./do test      set up, pass all tests
./do bench        print the benchmarks' ratios              ./do wheel     build dist/*.whl with the front end inside
./do client       regenerate the API client                 ./do lint      the linters alone
./do screenshots  refresh docs/screenshots              ./do rules     the numbers in docs/rules.md
./do accuracy     measure anew what docs/accuracy.md says
./do mutate       slips in the core that no test sees
HELP
    exit 2
    ;;
esac
