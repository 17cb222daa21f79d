#!/usr/bin/env bash
# Passes the tests on a fresh machine: format, static checks, unit tests, the service against a real PostgreSQL, the command line
# against the running service, the console in headless Chromium, service processes that are killed.
set -euo pipefail
root=$(cd "$(dirname "$(readlink -f "$0")")" && pwd)
. "$root/scripts/common.sh"

kills=8 requests=5000 texts=10000 skip_mutations=true
case ${1:-} in
  "") ;;
  --long) kills=20 requests=100000 texts=100000 skip_mutations=false ;;
  *) say "Usage: ./test.sh [--long]   --long kills service processes more often and sends more malformed requests and SQL, and mutates the core"; exit 2 ;;
esac

use_jdk
need_build_tools
need_postgresql
need_package chromium /usr/bin/chromium
# Other programs that read what we write, and a mail server that takes it.
need_package exim4-daemon-light /usr/sbin/exim4
need_package openssl openssl
need_package libreoffice-calc-nogui soffice
need_package poppler-utils pdftotext
need_package w3m w3m
need_package python3 /usr/bin/python3
# Another implementation of recurrences.
need_package python3-dateutil /usr/lib/python3/dist-packages/dateutil
cd "$root"
mvn -B -T 2 -Dstyle.color=never --no-transfer-progress -Dodd.kills=$kills -Dodd.requests=$requests -Dodd.sql-texts=$texts -Dcore.skip.mutations=$skip_mutations verify
say "What the tests of the core run, by package:"
awk -F, 'NR > 1 { sub(/dev\.oddsentry\.core\.?/, "", $2); for (p = 0; p < 2; p++) { n = p ? "all" : $2; bm[n] += $6; bc[n] += $7; lm[n] += $8; lc[n] += $9 } }
  END { for (n in lm) printf "  %-12s %5.1f %% of lines, %5.1f %% of branches\n", n, 100 * lc[n] / (lc[n] + lm[n]), bc[n] + bm[n] ? 100 * bc[n] / (bc[n] + bm[n]) : 100 }' \
  core/target/site/jacoco/jacoco.csv | sort >&2
