# Shared by demo.sh, odd and test.sh: finding the JDK, installing what is missing, building.
# Sourced, not run; expects $root to be the checkout.

say() { printf '%s\n' "$*" >&2; }
die() { say "$*"; exit 1; }

# A JDK 25 or newer, whatever the default java is.
find_jdk() {
  local candidate
  for candidate in "${JAVA_HOME:-}" /usr/lib/jvm/*25* /usr/lib/jvm/*2[6-9]* /opt/jdk* "$HOME"/.sdkman/candidates/java/25*; do
    if is_new_jdk "$candidate"; then printf '%s' "$candidate"; return 0; fi
  done
  candidate=$(command -v javac || true)
  if [ -n "$candidate" ]; then
    candidate=$(dirname "$(dirname "$(readlink -f "$candidate")")")
    if is_new_jdk "$candidate"; then printf '%s' "$candidate"; return 0; fi
  fi
  return 1
}

is_new_jdk() {
  [ -n "$1" ] && [ -x "$1/bin/javac" ] && [ -f "$1/release" ] || return 1
  local version
  version=$(sed -n 's/^JAVA_VERSION="\([0-9]*\).*/\1/p' "$1/release")
  [ "${version:-0}" -ge 25 ]
}

use_jdk() {
  JAVA_HOME=$(find_jdk) || die "A JDK 25 or newer is needed and none was found under /usr/lib/jvm, /opt or JAVA_HOME. Install one (a package with 25-jdk in its name), or set JAVA_HOME to it."
  export JAVA_HOME
}

# Installs Debian packages for commands or files that are missing, never at the price of another package, and waits for other installations:
# need_package PACKAGE PATH-OR-COMMAND
need_package() {
  local package=$1 witness=$2
  case $witness in
    /*) compgen -G "$witness" > /dev/null && return 0 ;;
    *) command -v "$witness" > /dev/null && return 0 ;;
  esac
  say "Installing Debian's package $package ..."
  local as_root=()
  [ "$(id -u)" = 0 ] || as_root=(sudo -n)
  export DEBIAN_FRONTEND=noninteractive
  local log
  log=${TMPDIR:-/tmp}/odd-sentry-install.$(id -u).log
  { update_package_lists && "${as_root[@]}" env RUNLEVEL=1 apt-get -o DPkg::Lock::Timeout=600 install -y -qq --no-install-recommends --no-remove "$package"; } >> "$log" 2>&1 ||
    die "Debian's package $package is missing and could not be installed without removing other packages. See $log, and install it as root: apt-get install $package"
}

# Apt waits for the lock of its packages, but not for that of its lists.
update_package_lists() {
  local try answer
  for try in $(seq 60); do
    answer=$("${as_root[@]}" apt-get -o DPkg::Lock::Timeout=600 update -qq 2>&1) && return 0
    printf '%s\n' "$answer"
    case $answer in *"Could not get lock"* | *"nable to lock"*) sleep 10 ;; *) return 1 ;; esac
  done
  return 1
}

need_build_tools() {
  need_package maven mvn
  need_package nodejs node
  need_package npm npm
}

need_postgresql() { need_package postgresql "/usr/lib/postgresql/*/bin/initdb"; }

# The newest file of the sources against the built file: is a build needed?
is_stale() {
  local built=$1
  shift
  [ ! -e "$built" ] || [ -n "$(find "$@" \( -name target -o -name node_modules -o -name dist \) -prune -o -type f -newer "$built" -print -quit)" ]
}

# Builds with a line for each module; everything else goes to a log, whose errors are shown if the build fails.
maven() {
  local log
  log=${TMPDIR:-/tmp}/odd-sentry-build.$(id -u).log
  (cd "$root" && mvn -B --no-transfer-progress -Dstyle.color=never "$@") 2>&1 | tee "$log" |
    sed -un 's/^\[INFO\] Building \(Odd Sentry.*\) [0-9][^ ]* *\[\([0-9]*\)\/\([0-9]*\)\]$/  \2 of \3: \1/p' >&2 || {
    grep -m 20 '^\[ERROR\]' "$log" >&2 || tail -20 "$log" >&2
    die "The build failed. Its log: $log"
  }
}
