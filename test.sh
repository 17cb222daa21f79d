#!/usr/bin/env bash
# Passes the tests on a fresh machine: format, static checks, unit tests, the service against a real PostgreSQL, the command line
# against the running service, the console in headless Chromium, service processes that are killed.
set -euo pipefail
root=$(cd "$(dirname "$(readlink -f "$0")")" && pwd)
. "$root/scripts/common.sh"

kills=8
case ${1:-} in
  "") ;;
  --long) kills=20 ;;
  *) say "Usage: ./test.sh [--long]   --long kills service processes more often"; exit 2 ;;
esac

use_jdk
need_build_tools
need_postgresql
need_package chromium /usr/bin/chromium
cd "$root"
exec mvn -B -Dstyle.color=never --no-transfer-progress -Dodd.kills=$kills verify
