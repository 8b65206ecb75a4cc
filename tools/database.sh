# A PostgreSQL cluster of one's own: loopback only, with a password, not the system's service; it dies with this command.
DATABASE_PID=""
DATABASE_PORT=""

# The server refuses to run as root; its programs then run as the user that Debian's package made.
run_as_postgres=()
if is_root; then run_as_postgres=(env -u HOME setpriv --reuid=postgres --regid=postgres --init-groups --); fi

# open_data_folder DIR NAME RESET
open_data_folder() {
  DATA=$(mkdir -p "$1" && cd "$1" && pwd) || fail "The data folder $1 can't be made."
  CLUSTER=$DATA/postgresql-$2
  PG=$(postgresql_programs)
  if is_root && ! (cd / && "${run_as_postgres[@]}" test -x "$DATA" 2>/dev/null); then
    # A folder below /root, say, can't be reached by the user that PostgreSQL runs as.
    CLUSTER=/var/lib/garten/$(printf '%s' "$CLUSTER" | sha256sum | cut -c1-16)
    say "The database is kept in $CLUSTER, since the user postgres can't reach $DATA."
    mkdir -p /var/lib/garten
  fi
  mkdir -p "$(dirname "$CLUSTER")"
  exec 9>"$DATA/lock-$2"
  flock -n 9 || fail "Another ./garten uses this data folder: $DATA. Stop it first, or choose another folder with --data."
  wait_for_old_server
  if [ "$3" = 1 ]; then rm -rf "$CLUSTER"; fi
  if [ ! -f "$CLUSTER/db/PG_VERSION" ]; then create_cluster; fi
  local major=${PG%/bin}
  major=${major##*/}
  [ "$(cat "$CLUSTER/db/PG_VERSION")" = "$major" ] || fail "The database in $CLUSTER was made by PostgreSQL $(cat "$CLUSTER/db/PG_VERSION"), and $major is installed. Install that version's packages, or start anew with --reset (this throws the data away)."
}

# Where the cluster of a data folder stands; sets CLUSTER.
cluster_of() {
  local folder
  folder=$(cd "$1" 2>/dev/null && pwd) || return 1
  CLUSTER=$folder/postgresql-$2
  [ -d "$CLUSTER" ] || CLUSTER=/var/lib/garten/$(printf '%s' "$CLUSTER" | sha256sum | cut -c1-16)
  [ -f "$CLUSTER/db/postmaster.pid" ]
}

# Whether a server runs on it.
is_running() {
  local pid
  cluster_of "$1" "$2" || return 1
  pid=$(head -n 1 "$CLUSTER/db/postmaster.pid" 2>/dev/null) && [ -d "/proc/$pid" ] && [[ $(tr '\0' ' ' <"/proc/$pid/cmdline" 2>/dev/null) == *"$CLUSTER"* ]]
}

# Uses the server that another ./garten has started on a data folder.
join_running_database() {
  is_running "$1" "$2" || return 1
  DATABASE_PORT=$(sed -n 4p "$CLUSTER/db/postmaster.pid")
}

# After a kill the old server needs a moment to end.
wait_for_old_server() {
  local waited=0 pid
  while [ $waited -lt 100 ]; do
    pid=$(head -n 1 "$CLUSTER/db/postmaster.pid" 2>/dev/null) || return 0
    [ -d "/proc/$pid" ] && [[ $(tr '\0' ' ' <"/proc/$pid/cmdline" 2>/dev/null) == *"$CLUSTER"* ]] || return 0
    sleep 0.1
    waited=$((waited + 1))
  done
  fail "A PostgreSQL server still runs on $CLUSTER (process $pid). Stop it first."
}

create_cluster() {
  rm -rf "$CLUSTER"
  mkdir -m 700 "$CLUSTER"
  (umask 077; head -c 24 /dev/urandom | od -An -tx1 | tr -d ' \n' >"$CLUSTER/password")
  if is_root; then chown -R postgres:postgres "$CLUSTER"; fi
  quietly "create a database cluster" in_root_folder "${run_as_postgres[@]}" env LC_ALL=C "$PG/initdb" -D "$CLUSTER/db" --username=garten_admin --pwfile="$CLUSTER/password" \
    --auth=scram-sha-256 --encoding=UTF8 --locale=C.UTF-8 --data-checksums "${INITDB_OPTIONS[@]}"
}
INITDB_OPTIONS=()
POSTGRES_OPTIONS=()

in_root_folder() { (cd / && "$@"); }

start_database() {
  local tries=0 port
  while :; do
    # A server that starts again after a crash keeps its port: what is connected to it finds it there.
    port=${DATABASE_PORT:-$(free_port)}
    # Directly in the background: this shell must be the parent whose death ends the server.
    "${run_as_postgres[@]}" setpriv --pdeathsig INT -- env LC_ALL=C "$PG/postgres" -D "$CLUSTER/db" -c listen_addresses=127.0.0.1 -c port="$port" \
      -c unix_socket_directories= -c max_connections=60 -c logging_collector=off "${POSTGRES_OPTIONS[@]}" >>"$CLUSTER.log" 2>&1 9>&- &
    DATABASE_PID=$!
    local waited=0
    while kill -0 "$DATABASE_PID" 2>/dev/null && [ $waited -lt 600 ]; do
      if "$PG/pg_isready" -q -h 127.0.0.1 -p "$port"; then break 2; fi
      sleep 0.1
      waited=$((waited + 1))
    done
    # Backends of a server that was killed need a moment to end; until then a new one can't start.
    tries=$((tries + 1))
    [ $tries -lt 20 ] || { tail -n 20 "$CLUSTER.log" >&2; fail "The database doesn't start; see $CLUSTER.log."; }
    sleep 0.5
  done
  DATABASE_PORT=$port
  prepare_role
}

# The application's role owns its database; in this cluster, which is its own, it may make further ones: a sandbox is one.
prepare_role() {
  local password
  password=$(cat "$CLUSTER/password")
  PGPASSWORD=$password "$PG/psql" -q -X -v ON_ERROR_STOP=1 -h 127.0.0.1 -p "$DATABASE_PORT" -U garten_admin -d postgres >/dev/null <<'SQL'
\getenv password PGPASSWORD
select format('create role garten login nosuperuser nocreaterole createdb password %L', :'password')
where not exists (select from pg_roles where rolname = 'garten') \gexec
alter role garten createdb;
select 'create database garten owner garten' where not exists (select from pg_database where datname = 'garten') \gexec
SQL
}

database_connection() { printf 'Host=127.0.0.1;Port=%s;Username=garten;Password=%s;Database=%s' "$DATABASE_PORT" "$(cat "$CLUSTER/password")" "$1"; }

stop_database() {
  if [ -n "$DATABASE_PID" ] && kill -0 "$DATABASE_PID" 2>/dev/null; then
    kill -INT "$DATABASE_PID" 2>/dev/null || true
    wait "$DATABASE_PID" 2>/dev/null || true
  fi
  DATABASE_PID=""
}
