# Sourced by bin/*: installs what is missing, Debian packages through apt, the rest through npm. Messages on stderr.
root=$(cd "$(dirname "${BASH_SOURCE[0]}")/.." && pwd)

need_packages() {
  local missing=()
  for package in "$@"; do
    dpkg-query -W -f='${Status}' "$package" 2>/dev/null | grep -q 'ok installed' || missing+=("$package")
  done
  [ ${#missing[@]} -eq 0 ] && return 0
  local as=()
  if [ "$(id -u)" -ne 0 ]; then
    if command -v sudo >/dev/null && sudo -n true 2>/dev/null; then as=(sudo -n); else
      echo "Ursprung needs these Debian packages: ${missing[*]}. Install them (apt-get install ${missing[*]}) and run this again." >&2
      exit 1
    fi
  fi
  echo "Installing ${missing[*]}…" >&2
  "${as[@]}" apt-get update -qq >&2 || true
  # The package would start a server of its own; ours is private.
  "${as[@]}" env DEBIAN_FRONTEND=noninteractive apt-get install -y -qq --no-install-recommends "${missing[@]}" >/dev/null || {
    echo "These Debian packages could not be installed: ${missing[*]}." >&2
    exit 1
  }
}

need_node() {
  if ! command -v node >/dev/null || ! node -e 'const [a,b]=process.versions.node.split(".").map(Number);process.exit(a>20||(a===20&&b>=19)?0:1)'; then
    echo "Ursprung needs Node.js 20.19 or later." >&2
    exit 1
  fi
}

# npm ci once for each state of the lock file.
need_modules() {
  local mark="$root/node_modules/.ursprung-lock" sum
  sum=$(cksum <"$root/package-lock.json")
  [ -f "$mark" ] && [ "$(cat "$mark")" = "$sum" ] && return 0
  echo "Installing npm packages…" >&2
  (cd "$root" && npm ci --no-audit --no-fund --loglevel=error >&2) || exit 1
  echo "$sum" >"$mark"
}
