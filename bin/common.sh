# What the commands in this folder share: finding and installing what is missing, and building. Sourced, not run.
set -eu
project=$(cd "$(dirname "$0")/.." && pwd)
cd "$project"

fail() { printf '%s\n' "$1" >&2; exit 1; }

need_node() {
  command -v node >/dev/null 2>&1 || fail "Node.js is missing; version 20.19 or newer is needed."
  node -e 'const [a, b] = process.versions.node.split(".").map(Number)
    process.exit(a > 20 || (a === 20 && b >= 19) ? 0 : 1)' \
    || fail "Node.js $(node -v) is too old; version 20.19 or newer is needed."
  command -v npm >/dev/null 2>&1 || fail "npm is missing; it comes with Node.js."
}

# need_packages PACKAGE…: installs the Debian packages that are not there.
need_packages() {
  missing=
  for package in "$@"; do
    case $package in
      opencolorio-tools) command -v ociochecklut >/dev/null 2>&1 || missing="$missing $package" ;;
      opencv-doc) [ -f /usr/share/doc/opencv-doc/examples/data/fruits.jpg ] || missing="$missing $package" ;;
      postgresql) ls /usr/lib/postgresql/*/bin/initdb >/dev/null 2>&1 || missing="$missing $package" ;;
      *) command -v "$package" >/dev/null 2>&1 || missing="$missing $package" ;;
    esac
  done
  [ -n "$missing" ] || return 0
  if [ "$(id -u)" = 0 ]; then as_root=
  elif command -v sudo >/dev/null 2>&1 && sudo -n true 2>/dev/null; then as_root=sudo
  else fail "These Debian packages are missing:$missing. Install them with: sudo apt-get install$missing"; fi
  command -v apt-get >/dev/null 2>&1 \
    || fail "These programs are missing:$missing. Install them with your system's package manager."
  printf 'Installing%s …\n' "$missing"
  log=$(mktemp)
  # postgresql-common must not make and start a cluster of its own: the project has one.
  if ! {
    $as_root apt-get update -qq \
      && $as_root env DEBIAN_FRONTEND=noninteractive apt-get install -y -qq --no-install-recommends $missing
  } >"$log" 2>&1; then
    tail -n 3 "$log" >&2
    fail "The packages$missing could not be installed; the lines above say why."
  fi
  rm -f "$log"
}

need_modules() {
  wanted=$(sha256sum package-lock.json | cut -d' ' -f1)
  [ "$(cat node_modules/.pale-lock 2>/dev/null || true)" = "$wanted" ] && return 0
  printf 'Installing the npm packages …\n'
  npm ci --no-progress --loglevel=error || fail "The npm packages could not be installed; the lines above say why."
  printf '%s\n' "$wanted" > node_modules/.pale-lock
}

need_build() {
  sources="core contracts media server web cli demo tests/bench tests/guess tests/screens tests/support"
  if [ -f dist/.built ] \
    && [ -z "$(find $sources vite*.ts tsconfig.base.json package-lock.json -newer dist/.built -type f -print -quit)" ]
  then return 0; fi
  printf 'Building …\n'
  mkdir -p dist
  node_modules/.bin/vite build --logLevel warn \
    || fail "The web application could not be built; the lines above say why."
  node_modules/.bin/vite build --logLevel warn -c vite.node.config.ts \
    || fail "The server could not be built; the lines above say why."
  touch dist/.built
}
