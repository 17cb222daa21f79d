#!/usr/bin/env bash
# Called by Maven: installs packages only when the lock file changed, then runs the npm scripts named.
set -euo pipefail
cd "$(dirname "$0")"
stamp=node_modules/installed-from
if ! cmp -s package-lock.json "$stamp"; then
  npm ci --loglevel=error
  cp package-lock.json "$stamp"
fi
for script in "$@"; do npm run --silent "$script"; done
