# The demo's servers: each has a port that was free, a log, and a way to end it. Sourced by demo.sh.

demo=$("$root/scripts/demo-folder")

# The port kept from last time if nobody else has it now, else the usual one, else the next free one: port_for NAME USUAL
port_for() {
  local file=$demo/$1.port port
  port=$(cat "$file" 2> /dev/null || echo "$2")
  while (exec 3<> "/dev/tcp/127.0.0.1/$port") 2> /dev/null; do port=$((port + 1)); done
  echo "$port" > "$file"
  echo "$port"
}

secret() {
  mkdir -p "$demo/secrets"
  chmod 700 "$demo/secrets"
  [ -e "$demo/secrets/$1" ] || (umask 077; printf '%s\n' "$2" > "$demo/secrets/$1")
}

random_text() { head -c 18 /dev/urandom | base64 | tr -d '/+='; }

# PostgreSQL refuses to run as root.
as_postgres() {
  if [ "$(id -u)" = 0 ]; then (cd / && runuser -u postgres -- "$@"); else "$@"; fi
}

pg() { local program=$1; shift; as_postgres "$(ls -d /usr/lib/postgresql/*/bin | sort -V | tail -n 1)/$program" "$@"; }

start_postgres() {
  local data=$demo/postgres first=no
  secret postgres "$(random_text)"
  secret records "$(random_text)"
  secret ferry_owner "$(random_text)"
  secret ferry_reader "$(random_text)"
  if [ ! -e "$demo/postgres-is-set-up" ]; then
    first=yes
    rm -rf "$data"
    mkdir -p "$data"
    cp "$demo/secrets/postgres" "$data.password"
    [ "$(id -u)" != 0 ] || chown postgres "$data" "$data.password"
    chmod 700 "$data"
    pg initdb -D "$data" -U postgres --auth=scram-sha-256 --pwfile="$data.password" --encoding=UTF8 --locale=C.UTF-8 > "$demo/initdb.log" 2>&1 || die "PostgreSQL could not be set up; see $demo/initdb.log"
    rm -f "$data.password"
  fi
  local port
  port=$(port_for postgres 5480)
  pg pg_ctl -D "$data" -w -s -l "$data/server.log" -o "-c port=$port -c listen_addresses=127.0.0.1 -c unix_socket_directories='' -c max_connections=150" start > /dev/null || die "PostgreSQL did not start; see $data/server.log"
  if [ $first = yes ]; then
    sql postgres "create role records login password '$(cat "$demo/secrets/records")'; create role ferry_owner login password '$(cat "$demo/secrets/ferry_owner")'; create role ferry_reader login password '$(cat "$demo/secrets/ferry_reader")'"
    sql postgres "create database records owner records"
    sql postgres "create database ferry owner ferry_owner"
    sql ferry "revoke create on schema public from public; grant create on schema public to ferry_owner; alter default privileges for role ferry_owner in schema public grant select on tables to ferry_reader; alter database ferry set timezone to 'Europe/Oslo'"
    say "Loading the ferry company's data ..."
    demo_program load
    touch "$demo/postgres-is-set-up"
  fi
}

sql() {
  PGPASSWORD=$(cat "$demo/secrets/postgres") psql -q -v ON_ERROR_STOP=1 -h 127.0.0.1 -p "$(cat "$demo/postgres.port")" -U postgres -d "$1" -c "$2" > /dev/null
}

demo_program() {
  FERRY_URL=jdbc:postgresql://127.0.0.1:$(cat "$demo/postgres.port")/ferry FERRY_USER=ferry_owner FERRY_PASSWORD=$(cat "$demo/secrets/ferry_owner") \
    "$JAVA_HOME/bin/java" -jar "$root/demo/target/odd-demo.jar" "$@"
}

start_mail() {
  local smtp imap page
  smtp=$(port_for smtp 2580)
  imap=$(port_for imap 1480)
  page=$(port_for page 8481)
  in_background mail "$JAVA_HOME/bin/java" -Xmx256m -jar "$root/demo/target/odd-demo.jar" mail "$smtp" "$imap" "$page" "$demo/mailbox"
  wait_for mail "http://127.0.0.1:$page/"
}

start_service() {
  local port
  port=$(port_for service 8480)
  secret key "$(head -c 32 /dev/urandom | base64)"
  secret operator "skerry-operator"
  secret ines "skerry-ines-holm"
  secret per "skerry-per-aune"
  secret sunniva "skerry-sunniva-dahl"
  secret marit "skerry-marit-lunde"
  secret eirik "skerry-eirik-moe"
  echo "http://127.0.0.1:$port" > "$demo/address"
  SPRING_DATASOURCE_URL=jdbc:postgresql://127.0.0.1:$(cat "$demo/postgres.port")/records \
  SPRING_DATASOURCE_USERNAME=records \
  SPRING_DATASOURCE_PASSWORD=$(cat "$demo/secrets/records") \
  SERVER_PORT=$port \
  ODDSENTRY_BASE_URL=http://127.0.0.1:$port \
  ODDSENTRY_KEY_FILE=$demo/secrets/key \
  ODDSENTRY_MAIL_HOST=127.0.0.1 \
  ODDSENTRY_MAIL_PORT=$(cat "$demo/smtp.port") \
  ODDSENTRY_MAIL_FROM=odd-sentry@skerryline.example \
  ODDSENTRY_FIRST_OPERATOR_PASSWORD=$(cat "$demo/secrets/operator") \
    in_background service "$root/scripts/keep-running" "$JAVA_HOME/bin/java" -Xmx512m -XX:+UseSerialGC -XX:+ExitOnOutOfMemoryError -jar "$root/service/target/odd-service-exec.jar"
  wait_for service "http://127.0.0.1:$port/login"
}

# Log-in name;name;address;password;groups of those who log in through the stand-in identity provider.
identity_users() {
  local line
  for line in "ines;Ines Holm;reporting-leads" "per;Per Aune;reporting" "sunniva;Sunniva Dahl;terminals" "marit;Marit Lunde;quays" \
    "eirik;Eirik Moe;auditors" "randi;Randi Vik;reporting"; do
    local login=${line%%;*} rest=${line#*;}
    echo "$login;${rest%;*};$(tr 'A-Z ' 'a-z.' <<< "${rest%;*}")@skerryline.example;$(cat "$demo/secrets/$login");${rest#*;}"
  done
}

start_identity() {
  local port
  port=$(port_for identity 8482)
  secret identity "$(random_text)"
  secret randi "skerry-randi-vik"
  (umask 077; identity_users > "$demo/secrets/identity-users")
  in_background identity "$JAVA_HOME/bin/java" -Xmx256m -jar "$root/identity-provider/target/odd-identity-provider.jar" "$port" "$(cat "$demo/address")" "$demo/secrets/identity" "$demo/secrets/identity-users"
  wait_for identity "http://127.0.0.1:$port/.well-known/openid-configuration"
}

# Starts a server in a session of its own, so that Ctrl-C reaches it through stop_servers alone: in_background NAME COMMAND...
in_background() {
  local name=$1
  shift
  setsid "$@" > "$demo/$name.log" 2>&1 < /dev/null &
  echo $! > "$demo/$name.pid"
}

wait_for() {
  local name=$1 url=$2 tries
  for ((tries = 0; tries < 240; tries++)); do
    if curl -fs -o /dev/null "$url"; then return 0; fi
    is_ours "$name" || die "The demo's $name ended at its start; see $demo/$name.log"
    sleep 0.5
  done
  die "The demo's $name is not ready after two minutes; see $demo/$name.log"
}

# The process of that name, if the number was not given to another one meanwhile.
is_ours() {
  local pid
  pid=$(cat "$demo/$1.pid" 2> /dev/null) || return 1
  { tr "\\0" " " < "/proc/$pid/cmdline"; } 2> /dev/null | grep -qF "$root/"
}

stop_servers() {
  local name
  for name in service mail identity; do
    if is_ours "$name"; then
      kill "$(cat "$demo/$name.pid")" 2> /dev/null || true
      for _ in $(seq 100); do is_ours "$name" || break; sleep 0.2; done
      # The whole session, of which it is the first process.
      if is_ours "$name"; then kill -9 -- "-$(cat "$demo/$name.pid")" 2> /dev/null || true; fi
    fi
    rm -f "$demo/$name.pid"
  done
  if [ -e "$demo/postgres/postmaster.pid" ]; then pg pg_ctl -D "$demo/postgres" -s -w -m fast stop > /dev/null 2>&1 || true; fi
}

watch_servers() {
  while sleep 1; do
    is_ours service || die "The service has ended; see $demo/service.log"
    [ "$sign_on" = no ] || is_ours identity || die "The stand-in identity provider has ended; see $demo/identity.log"
    is_ours mail || die "The stand-in mail server has ended; see $demo/mail.log"
  done
}

a_day_passes() {
  [ -e "$demo/postgres/postmaster.pid" ] || die "No demo runs. Start it in another terminal with: ./demo.sh"
  demo_program a-day-passes
  echo "Check again to see what is new: ./odd check late-sailings"
}
