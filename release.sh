#!/usr/bin/env bash
# Makes a release of what is committed: the service's jar, the command line as an archive, Debian packages of both, checksums and lists of parts.
set -euo pipefail
root=$(cd "$(dirname "$(readlink -f "$0")")" && pwd)
. "$root/scripts/common.sh"

usage() {
  say "Usage: ./release.sh VERSION [--try]   such as ./release.sh 0.1.0; --try installs the packages afterwards, runs them and removes them (as root)"
  exit 2
}
version=${1:-}
try=${2:-}
[[ $version =~ ^[0-9]+\.[0-9]+\.[0-9]+$ ]] || usage
[ -z "$try" ] || [ "$try" = --try ] || usage
grep -q "^## $version" "$root/CHANGELOG.md" || die "CHANGELOG.md has no section \"## $version\"."

use_jdk
need_build_tools
need_package help2man help2man
need_package dpkg dpkg-deb
out=$root/target/release
rm -rf "$out"
mkdir -p "$out"
work=$(mktemp -d)
trap 'rm -rf "$work"' EXIT

say "Building version $version from the newest commit ..."
# From what is committed, so that nothing else gets in.
git -C "$root" archive HEAD | tar -x -C "$work"
find "$work" -name pom.xml -exec sed -i "s|<version>[0-9.]*-SNAPSHOT</version>|<version>$version</version>|" {} +
when=$(git -C "$root" log -1 --format=%cI)
(cd "$work" && mvn -B -q -Dstyle.color=never -DskipTests -Dspotless.check.skip -Dproject.build.outputTimestamp="$when" package -pl service,cli -am)

cp "$work/service/target/odd-service-exec.jar" "$out/odd-service-$version.jar"
unzip -p "$work/service/target/odd-service-exec.jar" "META-INF/legal/bom.json" > "$out/odd-service-$version.cdx.json"
unzip -p "$work/cli/target/odd-cli.jar" META-INF/legal/bom.json > "$out/odd-cli-$version.cdx.json"

say "Writing the manual pages ..."
cli="$JAVA_HOME/bin/java -XX:TieredStopAtLevel=1 -Dpicocli.usage.width=200 -jar $work/cli/target/odd-cli.jar"
man=$work/man
mkdir -p "$man" "$work/run"
# help2man runs a program without arguments of its own, and knows a section of examples by its heading.
page() { # page NAME COMMAND...
  local name=$1 run=$work/run/$1
  shift
  $cli "$@" --help | sed 's/^Example: */\nExamples:\n  /; s/^         odd /\n  odd /' > "$run.help"
  printf '#!/bin/sh\nif [ "$1" = --version ]; then echo "%s %s"; else cat %s; fi\n' "$name" "$version" "$run.help" > "$run"
  chmod +x "$run"
  help2man --no-info --name "$(sed -n '2{s/\.$//;p}' "$run.help")" --source "Odd Sentry $version" --manual "Odd Sentry" \
    --output "$man/$name.1" "$run"
}
page odd
while read -r command; do page "odd-$command" "$command"; done < <($cli --help | sed -n 's/^  \([a-z][a-z-]*\)  .*/\1/p' | sort -u)

# share FOLDER: what both the archive and the package of the command line have.
share() {
  mkdir -p "$1/lib"
  cp "$work"/cli/target/lib/*.jar "$1/lib/"
  # The manifest looks for its libraries in lib/ beside it.
  mkdir -p "$1/lib/lib" && mv "$1"/lib/*.jar "$1/lib/lib/"
  cp "$work/cli/target/odd-cli.jar" "$1/lib/odd-cli.jar"
  cp "$work/packaging/find-java" "$1/find-java"
}
launcher() { # launcher SHARE FILE
  sed "s|@SHARE@|$1|; s|@VERSION@|$version|" "$work/packaging/odd-cli/odd" > "$2"
  chmod 755 "$2"
}

say "Packing the command line ..."
archive=$work/odd-cli-$version
share "$archive/share"
mkdir -p "$archive/bin" "$archive/man/man1" "$archive/completions"
launcher '$here/../share' "$archive/bin/odd"
cp "$man"/*.1 "$archive/man/man1/"
$cli completion > "$archive/completions/odd"
cp "$work/LICENSE" "$work/NOTICE" "$archive/"
tar -C "$work" --sort=name --owner=0 --group=0 --numeric-owner --mtime="$when" -czf "$out/odd-cli-$version.tar.gz" "odd-cli-$version"

control() { # control FOLDER NAME DEPENDS RECOMMENDS DESCRIPTION
  mkdir -p "$1/DEBIAN"
  {
    echo "Package: $2"
    echo "Version: $version"
    echo "Architecture: all"
    echo "Maintainer: The founders of Odd Sentry <odd-sentry@localhost>"
    echo "Installed-Size: $(du -sk "$1" | cut -f1)"
    if [ -n "$3" ]; then echo "Depends: $3"; fi
    if [ -n "$4" ]; then echo "Recommends: $4"; fi
    echo "Section: misc"
    echo "Priority: optional"
    echo "Description: $5"
  } > "$1/DEBIAN/control"
}
documents() { # documents FOLDER NAME FILE...
  local to=$1/usr/share/doc/$2
  shift 2
  mkdir -p "$to"
  cp "$work/NOTICE" "$to/copyright"
  cat "$work/LICENSE" >> "$to/copyright"
  gzip -9nc "$work/CHANGELOG.md" > "$to/changelog.gz"
  for file in "$@"; do cp "$work/$file" "$to/"; done
}
java="java25-runtime-headless | openjdk-25-jre-headless | openjdk-26-jre-headless"

deb=$work/deb-cli
share "$deb/usr/share/odd-cli"
mkdir -p "$deb/usr/bin" "$deb/usr/share/man/man1" "$deb/usr/share/bash-completion/completions"
launcher /usr/share/odd-cli "$deb/usr/bin/odd"
for each in "$man"/*.1; do gzip -9nc "$each" > "$deb/usr/share/man/man1/$(basename "$each").gz"; done
cp "$archive/completions/odd" "$deb/usr/share/bash-completion/completions/odd"
documents "$deb" odd-cli
control "$deb" odd-cli "" "$java" "command line of Odd Sentry
 Rules, checks, findings and mail of an Odd Sentry service, from a terminal."

deb=$work/deb-service
mkdir -p "$deb/usr/share/odd-sentry" "$deb/usr/lib/systemd/system" "$deb/etc/odd-sentry"
cp "$out/odd-service-$version.jar" "$deb/usr/share/odd-sentry/odd-service.jar"
cp "$work/packaging/find-java" "$deb/usr/share/odd-sentry/find-java"
install -m 755 "$work/packaging/odd-sentry/odd-service" "$deb/usr/share/odd-sentry/odd-service"
cp "$work/packaging/odd-sentry/odd-sentry.service" "$deb/usr/lib/systemd/system/"
install -m 640 "$work/packaging/odd-sentry/settings" "$deb/etc/odd-sentry/settings"
documents "$deb" odd-sentry docs/operating.md
control "$deb" odd-sentry adduser "$java, postgresql (>= 15)" "service that checks report queries and emails what needs attention
 Evaluates conditions on saved report queries on recurring schedules, remembers
 what it has reported, and emails rendered extracts when there is something new."
for script in postinst prerm postrm; do install -m 755 "$work/packaging/odd-sentry/$script" "$deb/DEBIAN/$script"; done
echo /etc/odd-sentry/settings > "$deb/DEBIAN/conffiles"

for each in cli service; do
  chmod -R u=rwX,go=rX "$work/deb-$each"
  [ $each = cli ] || chmod 640 "$work/deb-service/etc/odd-sentry/settings"
  SOURCE_DATE_EPOCH=$(git -C "$root" log -1 --format=%ct) dpkg-deb --build --root-owner-group "$work/deb-$each" "$out" > /dev/null
done

(cd "$out" && sha256sum -- * > SHA256SUMS)
say "Made in $out:"
(cd "$out" && ls -l | awk 'NR > 1 { printf "  %-36s %12d bytes\n", $9, $5 }') >&2

if [ "$try" = --try ]; then exec "$root/scripts/try-release" "$version"; fi
