#!/usr/bin/env bash
# The demo: PostgreSQL, a stand-in mail server and the service on loopback, with the ferry company's data and rules.
set -euo pipefail
root=$(cd "$(dirname "$(readlink -f "$0")")" && pwd)
. "$root/scripts/common.sh"
. "$root/scripts/demo-servers.sh"

usage() {
  cat <<'TXT'
Usage: ./demo.sh [--fresh] [--detach] [--single-sign-on]   starts the demo; Ctrl-C stops it
       ./demo.sh --stop                 ends a demo that was started with --detach
       ./demo.sh a-day-passes           adds the next day's data to a demo that runs
  --fresh    starts over: data, mail and memory of the last demo are deleted
  --detach   returns when the demo is ready
  --single-sign-on   also starts an identity provider, through which the same people log in
TXT
}

fresh=no detach=no sign_on=no act=start
for argument in "$@"; do
  case $argument in
    --fresh) fresh=yes ;;
    --detach) detach=yes ;;
    --single-sign-on) sign_on=yes ;;
    --stop) act=stop ;;
    a-day-passes) act=a-day-passes ;;
    --help|-h) usage; exit 0 ;;
    *) say "Unknown: $argument"; usage >&2; exit 2 ;;
  esac
done

build() {
  need_build_tools
  local stamp=$root/demo/target/built
  if is_stale "$stamp" "$root"/{core,extracts,testkit,identity-provider,service,cli,console,demo}/src "$root"/contract/*.json "$root/contract/templates" "$root"/{pom.xml,console/package-lock.json,console/types.mjs,console/index.html,console/vite.config.ts}; then
    say "Building (some minutes the first time) ..."
    maven package -DskipTests -Dspotless.check.skip -pl service,cli,demo,identity-provider -am
    touch "$stamp"
  fi
}

set_up_rules() {
  local definitions=$root/demo/definitions stamp now
  stamp=$demo/rules-are-set-up
  now=$(cat "$definitions"/* | cksum)
  [ "$(cat "$stamp" 2> /dev/null)" != "$now" ] || return 0
  say "Setting up people, the source and the rules, through the same door as a user's ..."
  export XDG_CONFIG_HOME=$demo/operator
  odd login --user operator --password-stdin < "$demo/secrets/operator" > /dev/null
  odd save-source ferry --jdbc-url "jdbc:postgresql://127.0.0.1:$(cat "$demo/postgres.port")/ferry" --user ferry_reader --password-stdin < "$demo/secrets/ferry_reader" > /dev/null
  odd save-team "Traffic reporting" ines.holm@skerryline.example --signature "Traffic reporting\nSkerry Line, Hamnegata 4, Måkehamn" --logo "$definitions/skerry-line.png" > /dev/null
  odd save-team "Terminal operations" terminals@skerryline.example --signature "Terminal operations, Skerry Line" > /dev/null
  set_up_people
  # A choice that somebody made since stays.
  [ -e "$stamp" ] || odd access --teams-decide > /dev/null
  odd push "$definitions"/*.calendar.yaml "$definitions"/terminals.query.yaml "$definitions"/*.query.yaml "$definitions"/*.threshold.yaml "$definitions"/*.layout.yaml "$definitions"/*.recipient-list.yaml "$definitions"/*.rule.yaml "$definitions"/*.round-up.yaml --reason "the demo's own" > /dev/null
  set_thresholds
  local active rule
  active=$(odd rules --csv | grep ',active,' || true)
  for rule in $(sed -n 's/^name: //p' "$definitions"/*.rule.yaml); do
    case $active in *"$rule"*) ;; *) odd activate "$rule" > /dev/null ;; esac
  done
  odd logout
  unset XDG_CONFIG_HOME
  echo "$now" > "$stamp"
}

# Two teams and each role beside the operator's. Somebody who is there already stays as they are.
set_up_people() {
  add_person ines "Ines Holm" lead "Traffic reporting"
  add_person per "Per Aune" analyst "Traffic reporting"
  add_person sunniva "Sunniva Dahl" analyst "Terminal operations"
  add_person marit "Marit Lunde" reader "Terminal operations"
  add_person eirik "Eirik Moe" auditor
}

add_person() {
  local login=$1 name=$2 role=$3 team=()
  [ -z "${4:-}" ] || team=(--team "$4")
  odd people --all --csv | grep -q "^$login," && return
  odd add-person "$login" --name "$name" --email "$(tr 'A-Z ' 'a-z.' <<< "$name")@skerryline.example" --role "$role" "${team[@]}" < "$demo/secrets/$login" > /dev/null
}

# Only where nobody has set them yet: a person's own value stays.
set_thresholds() {
  local file name
  if ! odd thresholds late_minutes --csv | grep -q always; then
    odd set-threshold late_minutes 15 --reason "as the timetable promises" > /dev/null
    odd set-threshold late_minutes 12 --from "$(date -d '+40 days' +%F)" --reason "the winter timetable promises more" > /dev/null
  fi
  for file in "$definitions"/*.csv; do
    name=$(basename "$file" .csv)
    odd thresholds "$name" --csv | grep -q always || odd import-threshold "$name" "$file" --reason "agreed with the vessels' and routes' leads" > /dev/null
  done
}

# The groups of the stand-in provider, whose people are the demo's own.
set_up_single_sign_on() {
  local issuer
  issuer=http://127.0.0.1:$(cat "$demo/identity.port")
  export XDG_CONFIG_HOME=$demo/operator
  odd login --user operator --password-stdin < "$demo/secrets/operator" > /dev/null
  odd save-provider skerry --title "Skerry directory" --issuer "$issuer" --client-id odd-sentry --secret-stdin \
    --group "reporting-leads=lead,Traffic reporting" --group "reporting=analyst,Traffic reporting" \
    --group "terminals=analyst,Terminal operations" --group "quays=reader,Terminal operations" --group "auditors=auditor" \
    --known-by log_in_name --active < "$demo/secrets/identity" > /dev/null
  odd logout
  unset XDG_CONFIG_HOME
}

# A demo that had it before shows no way in that leads nowhere.
end_single_sign_on() {
  [ -e "$demo/identity.port" ] || return 0
  export XDG_CONFIG_HOME=$demo/operator
  odd login --user operator --password-stdin < "$demo/secrets/operator" > /dev/null
  odd providers --csv | grep -q '^skerry,' && odd save-provider skerry --no-active > /dev/null
  odd logout
  unset XDG_CONFIG_HOME
}

odd() { "$root/odd" "$@" --url "$(cat "$demo/address")"; }

tell() {
  cat <<TXT

Odd Sentry runs.
  Console        $(cat "$demo/address")
  Mailbox        http://127.0.0.1:$(cat "$demo/page.port")   (SMTP $(cat "$demo/smtp.port"), IMAP $(cat "$demo/imap.port"))
  Log-ins        ines / $(cat "$demo/secrets/ines")   (lead of Traffic reporting)
                 per / $(cat "$demo/secrets/per")   (analyst in the same team)
                 sunniva / $(cat "$demo/secrets/sunniva")   (analyst of Terminal operations)
                 marit / $(cat "$demo/secrets/marit")   (reader)
                 eirik / $(cat "$demo/secrets/eirik")   (auditor)
                 operator / $(cat "$demo/secrets/operator")   (operator)
  Its folder     $demo

$([ "$sign_on" = no ] || printf '%s\n' "  Single sign-on Skerry directory at http://127.0.0.1:$(cat "$demo/identity.port"): the same names and passwords," "                 and randi / $(cat "$demo/secrets/randi"), who is not a user yet")
Three things to try:
  1. Log in, open "Late sailings without a reason", press "Check now", and read the mail in the mailbox.
     Press again, and "Check again": nothing is new, so nothing is mailed.
  2. In a second terminal: ./demo.sh a-day-passes   Then check again: only the new rows are mailed.
  3. export ODD_URL=$(cat "$demo/address")   then   ./odd login --user ines,   ./odd rules   and   ./odd preview late-sailings
TXT
}

start() {
  if is_ours service; then
    [ "$fresh" = no ] || die "A demo runs at $(cat "$demo/address"). End it first, with Ctrl-C where it was started or ./demo.sh --stop"
    say "A demo runs already:"
    tell
    return
  fi
  use_jdk
  need_postgresql
  build
  stop_servers
  [ "$fresh" = no ] || rm -rf "$demo"
  mkdir -p "$demo"
  trap 'stop_servers' EXIT
  trap 'exit 130' INT TERM
  start_postgres
  start_mail
  start_service
  set_up_rules
  if [ "$sign_on" = yes ]; then start_identity; set_up_single_sign_on; else end_single_sign_on; fi
  tell
  if [ "$detach" = yes ]; then trap - EXIT; return; fi
  say "Ctrl-C stops it."
  watch_servers
}

case $act in
  start) start ;;
  stop) stop_servers; say "Stopped." ;;
  a-day-passes) use_jdk; a_day_passes ;;
esac
