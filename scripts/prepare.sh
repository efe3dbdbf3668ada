#!/usr/bin/env bash
# Installs what is missing: the npm packages, the database server, the browser for tests and pictures, what a cluster
# needs.
# With DATABASE_URL set, no database server is needed here.
set -euo pipefail
cd "$(dirname "${BASH_SOURCE[0]}")/.."

if ! cmp -s package-lock.json node_modules/.clapboard-lock; then
  echo "Installing the npm packages …" >&2
  npm ci --no-audit --no-fund >&2
  cp package-lock.json node_modules/.clapboard-lock
fi

missing=()
[ -n "${DATABASE_URL:-}" ] || command -v mariadbd >/dev/null 2>&1 || [ -x /usr/sbin/mariadbd ] || missing+=(mariadb-server)
case "${npm_lifecycle_event:-test}" in
  test | lines | trials | bench | screenshots)
    [ -n "${CHROMIUM:-}" ] || command -v chromium-headless-shell >/dev/null 2>&1 || missing+=(chromium-headless-shell)
    ;;
esac
case "${npm_lifecycle_event:-test}" in
  test | lines | trials | cluster)
    [ -e /usr/lib/galera/libgalera_smm.so ] || missing+=(galera-4)
    command -v rsync >/dev/null 2>&1 || missing+=(rsync)
    command -v haproxy >/dev/null 2>&1 || [ -x /usr/sbin/haproxy ] || missing+=(haproxy)
    ;;
esac
if [ "${#missing[@]}" -gt 0 ]; then
  as_root=()
  if [ "$(id -u)" -ne 0 ]; then
    if command -v sudo >/dev/null 2>&1 && sudo -n true 2>/dev/null; then as_root=(sudo); else
      echo "Please install: sudo apt-get install ${missing[*]}   (then run this again)" >&2
      exit 1
    fi
  fi
  echo "Installing ${missing[*]} …" >&2
  "${as_root[@]}" apt-get update >&2
  DEBIAN_FRONTEND=noninteractive "${as_root[@]}" apt-get install -y --no-install-recommends "${missing[@]}" >&2
fi
