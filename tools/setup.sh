# Shared by ./start and ./check: what a fresh machine lacks is installed here.
# Called with `start` or `check`. Says what is missing and what to do.
set -euo pipefail
cd "$(dirname "${BASH_SOURCE[0]}")/.."
mkdir -p .run

fail() { printf 'even coil: %s\n           %s\n' "$1" "$2" >&2; exit 1; }

as_root() {
  if [ "$(id -u)" -eq 0 ]; then "$@"
  elif command -v sudo >/dev/null 2>&1; then sudo "$@"
  else fail "root rights are needed to install: $*" "Run as root, or install sudo, or install the packages of tools/apt.txt by hand."
  fi
}

install_debian() {
  local wanted=() package proof need
  while read -r package proof need; do
    case "$package" in ''|\#*) continue ;; esac
    if [ "$need" = check ] && [ "$1" != check ]; then continue; fi
    # shellcheck disable=SC2086  # the proof may hold a pattern
    ls $proof >/dev/null 2>&1 || wanted+=("$package")
  done < tools/apt.txt
  [ ${#wanted[@]} -eq 0 ] && return
  command -v apt-get >/dev/null 2>&1 || fail "these packages are missing: ${wanted[*]}" "This script installs them on Debian 12 only; install their like by hand."
  echo "even coil: installing ${wanted[*]}" >&2
  as_root env DEBIAN_FRONTEND=noninteractive apt-get update -qq >.run/apt.log 2>&1 || fail "apt-get update failed" "See .run/apt.log; is there a network?"
  as_root env DEBIAN_FRONTEND=noninteractive apt-get install -y -qq --no-install-recommends "${wanted[@]}" >>.run/apt.log 2>&1 || fail "apt-get install failed" "See .run/apt.log."
}

find_python() {
  local candidate
  for candidate in python3.11 python3; do
    if command -v "$candidate" >/dev/null 2>&1 && "$candidate" -c 'import sys; sys.exit(sys.version_info[:2] != (3, 11))' 2>/dev/null; then
      PYTHON=$(command -v "$candidate"); return
    fi
  done
  fail "Python 3.11 is missing" "Install it (Debian 12: apt-get install python3.11 python3.11-venv)."
}

same() { [ -f ".run/$1" ] && [ "$(cat ".run/$1")" = "$2" ]; }

install_python() {
  local file="requirements/$1.txt" sum
  find_python
  sum=$("$PYTHON" -V; cat requirements/base.txt "$file" | sha256sum)
  if [ ! -x .venv/bin/python ]; then
    if ! "$PYTHON" -c 'import ensurepip, venv' 2>/dev/null; then
      as_root env DEBIAN_FRONTEND=noninteractive apt-get install -y -qq python3.11-venv >>.run/apt.log 2>&1 || fail "this Python cannot make virtual environments" "apt-get install python3.11-venv"
    fi
    "$PYTHON" -m venv .venv
  fi
  if ! same "pip-$1" "$sum"; then
    echo "even coil: installing Python packages" >&2
    .venv/bin/python -m pip install -q --disable-pip-version-check --no-deps --require-hashes -r "$file" >.run/pip.log 2>&1 || fail "installing Python packages failed" "See .run/pip.log; is there a network?"
    printf '%s' "$sum" > ".run/pip-$1"
    [ "$1" = dev ] && { cat requirements/base.txt requirements/base.txt | sha256sum >/dev/null; printf '%s' "$("$PYTHON" -V; cat requirements/base.txt requirements/base.txt | sha256sum)" > .run/pip-base; }
  fi
  printf '%s\n' "$PWD/core/src" > "$(.venv/bin/python -c 'import sysconfig; print(sysconfig.get_path("purelib"))')/evencoil-core.pth"
}

install_web() {
  local sum major
  command -v node >/dev/null 2>&1 || fail "Node is missing" "Install Node 20 or newer (Debian's own is 18, too old)."
  major=$(node -p 'process.versions.node.split(".")[0]')
  [ "$major" -ge 20 ] || fail "Node $major is too old" "Install Node 20 or newer; Debian's own package is 18."
  command -v npm >/dev/null 2>&1 || fail "npm is missing" "It comes with Node 20 or newer."
  sum=$(node --version; sha256sum < web/package-lock.json)
  if [ ! -d web/node_modules ] || ! same npm "$sum"; then
    echo "even coil: installing front-end packages" >&2
    (cd web && npm ci --no-fund --no-audit) >.run/npm.log 2>&1 || fail "npm ci failed" "See .run/npm.log; is there a network?"
    printf '%s' "$sum" > .run/npm
  fi
  sum=$(git ls-files -z --cached --others --exclude-standard web 2>/dev/null | xargs -0 sha256sum 2>/dev/null | sha256sum || true)
  [ -n "$(git ls-files web 2>/dev/null | head -1)" ] || sum=$(find web -path web/node_modules -prune -o -path web/dist -prune -o -type f -print0 | sort -z | xargs -0 sha256sum | sha256sum)
  if [ ! -f web/dist/index.html ] || ! same web "$sum"; then
    echo "even coil: building the front end" >&2
    (cd web && npm run build --silent) >.run/build.log 2>&1 || fail "the front end does not build" "See .run/build.log."
    rm -rf server/staticfiles
    printf '%s' "$sum" > .run/web
  fi
  [ -d server/staticfiles ] || EVENCOIL_SECRET_KEY=build .venv/bin/python server/manage.py collectstatic --noinput -v 0 -i '*.map' -i 'redoc*' >.run/static.log 2>&1 || fail "collecting static files failed" "See .run/static.log."
}
