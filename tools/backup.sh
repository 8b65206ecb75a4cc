# A copy of the database in one file, and the way back. It holds everything, exact places of sensitive taxa too.

# pg_dump and its like reach the cluster as the application does.
with_database() {
  local program=$1
  shift
  local connection=${GARTEN_DATABASE:-}
  if [ -n "$connection" ]; then
    PGHOST=$(connection_part Host) PGPORT=$(connection_part Port) PGUSER=$(connection_part Username) PGPASSWORD=$(connection_part Password) PGDATABASE=$(connection_part Database) "$PG/$program" "$@"
  else
    PGHOST=127.0.0.1 PGPORT=$DATABASE_PORT PGUSER=garten PGPASSWORD=$(cat "$CLUSTER/password") PGDATABASE=garten "$PG/$program" "$@"
  fi
}

# A part of a connection string such as Host=127.0.0.1;Port=5432.
connection_part() {
  local part
  IFS=';' read -ra part <<<"$GARTEN_DATABASE"
  local it
  for it in "${part[@]}"; do
    if [ "${it%%=*}" = "$1" ]; then
      printf '%s' "${it#*=}"
      return
    fi
  done
}

# Options of both: the data folder, and which of the two databases in it.
backup_options() {
  BACKUP_DATA="" BACKUP_NAME=garten BACKUP_FILE=""
  while [ $# -gt 0 ]; do
    case $1 in
      --data) BACKUP_DATA=${2:?--data needs a folder}; shift 2 ;;
      --demo) BACKUP_NAME=demo; shift ;;
      --*) fail "There is no option $1. See ./garten help." ;;
      *) [ -z "$BACKUP_FILE" ] || fail "Give one file."; BACKUP_FILE=$1; shift ;;
    esac
  done
  [ "$COMMAND" = rebuild ] || [ -n "$BACKUP_FILE" ] || fail "Which file? For example: ./garten $COMMAND garten.copy"
}

# Joins the database that a running ./garten serves, or starts it for as long as it takes.
reach_database() {
  PG=$(postgresql_programs) || fail "PostgreSQL isn't installed. ./garten serve installs it."
  if [ -n "${GARTEN_DATABASE:-}" ]; then return; fi
  local folder=${BACKUP_DATA:-$GARTEN_ROOT/.garten}
  if join_running_database "$folder" "$BACKUP_NAME"; then return; fi
  trap stop_database EXIT
  open_data_folder "$folder" "$BACKUP_NAME" 0
  start_database
}

backup() {
  backup_options "$@"
  reach_database
  with_database psql -q -X -t -A -c "select 1 from schemaversions limit 1" >/dev/null 2>&1 || fail "There is nothing to copy: this database was never served."
  local target part
  target=$(cd "$(dirname "$BACKUP_FILE")" 2>/dev/null && pwd) || fail "The folder of $BACKUP_FILE isn't there."
  target=$target/$(basename "$BACKUP_FILE")
  part=$target.part
  (umask 077; with_database pg_dump --format=custom --compress=6 --no-owner --no-privileges --file="$part") || { rm -f "$part"; fail "The copy wasn't made; nothing was changed."; }
  # Read back before it is called a copy: its list of contents, and every block of data in it.
  { "$PG/pg_restore" --list "$part" >/dev/null && "$PG/pg_restore" --file=/dev/null "$part"; } || { rm -f "$part"; fail "The copy can't be read back; it was thrown away."; }
  mv "$part" "$target"
  with_database psql -q -X -c "insert into backup_made (made_at) values (now())" >/dev/null
  say "A copy stands in $target ($(du -h "$target" | cut -f1)). It holds exact places of sensitive taxa: keep it where only you can read it."
}

restore_copy() {
  backup_options "$@"
  [ -f "$BACKUP_FILE" ] || fail "There is no file $BACKUP_FILE."
  PG=$(postgresql_programs) || fail "PostgreSQL isn't installed. ./garten serve installs it."
  local contents
  contents=$("$PG/pg_restore" --list "$BACKUP_FILE" 2>/dev/null) && [[ $contents = *"TABLE DATA public command"* ]] || fail "$BACKUP_FILE is no copy that ./garten backup has made."
  if [ -z "${GARTEN_DATABASE:-}" ] && is_running "${BACKUP_DATA:-$GARTEN_ROOT/.garten}" "$BACKUP_NAME"; then fail "This database is being served. Stop that ./garten first."; fi
  reach_database
  local tables
  tables=$(with_database psql -q -X -t -A -c "select count(*) from information_schema.tables where table_schema = 'public'")
  if [ "$tables" != 0 ]; then
    [ "$(with_database psql -q -X -t -A -c "select count(*) from command")" = 0 ] || fail "There is something in this database already. Restore into an empty one: choose another folder with --data, or throw this one away first with ./garten serve --reset."
    with_database psql -q -X -v ON_ERROR_STOP=1 -c "drop schema public cascade; create schema public" >/dev/null 2>&1
  fi
  with_database pg_restore --no-owner --no-privileges --exit-on-error --single-transaction --dbname="$(with_database psql -q -X -t -A -c 'select current_database()')" "$BACKUP_FILE" ||
    fail "The copy couldn't be restored; the database is as empty as before."
  # Another life of the database: devices that had sent something newer can tell.
  with_database psql -q -X -v ON_ERROR_STOP=1 -c "insert into epoch (id) values (gen_random_uuid())" >/dev/null
  say "Restored from $BACKUP_FILE. Start it with ./garten $([ "$BACKUP_NAME" = demo ] && echo demo || echo serve)."
}

# What lists read follows from the facts; it can be made again at any time, also while it is served.
rebuild() {
  backup_options "$@"
  [ -z "$BACKUP_FILE" ] || fail "rebuild takes no file."
  reach_database
  local plants
  plants=$(with_database psql -q -X -t -A -v ON_ERROR_STOP=1 -c "select rebuild_lists()") || fail "The lists could not be made again; they are as they were. Start ./garten serve once if this database is of an older version."
  say "Made again from the facts: the lists of $plants plants."
}
