# Builds and checks everything and runs every test; closes with the line "N passed, N failed".
prepare_tests() {
  require_toolchain
  install_postgresql
  install_browser
}

# With "durable" what is written is on the disk before it is answered, as in use.
start_test_database() {
  local folder
  folder=$(mktemp -d /tmp/garten-test.XXXXXX)
  chmod 755 "$folder"
  TEST_FOLDER=$folder
  # Thrown away afterwards: nothing here has to outlive a power cut.
  POSTGRES_OPTIONS=(-c fsync=off -c synchronous_commit=off -c full_page_writes=off -c max_connections=200)
  [ "${1:-}" != durable ] || POSTGRES_OPTIONS=(-c max_connections=200)
  open_data_folder "$folder" test 0
  start_database
  PGPASSWORD=$(cat "$CLUSTER/password") "$PG/psql" -q -X -h 127.0.0.1 -p "$DATABASE_PORT" -U garten_admin -d postgres -c "alter role garten createdb"
  GARTEN_TEST_DATABASE=$(database_connection postgres)
  export GARTEN_TEST_DATABASE
}

end_tests() {
  stop_database
  rm -rf "${TEST_FOLDER:-}"
}

check_web() {
  quietly "check the formatting of TypeScript" npm --prefix web run format
  quietly "check TypeScript with ESLint" npm --prefix web run lint -- --max-warnings 0
  quietly "check the types of TypeScript" npm --prefix web run typecheck
}

# The description of the API and the types made from it are committed; they must be those of this code.
# The build itself writes the description, so what was there is put aside before it.
put_generated_types_aside() {
  cp docs/openapi.json artifacts/openapi.before.json
  cp web/src/api/schema.d.ts artifacts/schema.before.d.ts
}

check_generated_types() {
  quietly "make the types of the API" npm --prefix web run types
  cmp -s docs/openapi.json artifacts/openapi.before.json || fail "docs/openapi.json was not current; it has been made again. Look at it and commit it."
  cmp -s web/src/api/schema.d.ts artifacts/schema.before.d.ts || fail "web/src/api/schema.d.ts was not current; it has been made again. Look at it and commit it."
}


# Share of tests in the code; see docs/architecture.md.
report_share() { bash tools/code-share.sh; }

run_tests() {
  prepare_tests
  mkdir -p artifacts/logs
  rm -f artifacts/logs/*.Tests.log
  quietly "restore the packages" restore Garten.slnx
  install_web_packages
  put_generated_types_aside
  # Beside the build, much of which keeps one core busy.
  check_web &
  local web_checks=$!
  trap 'kill "$web_checks" 2>/dev/null || true' EXIT
  # One compiler for all projects: each started anew takes longer to get warm than to compile.
  quietly "build everything" dotnet build Garten.slnx -c Release --no-restore -warnaserror -p:UseSharedCompilation=true
  # Style and analysers have been checked by the build.
  quietly "restore the formatter of C#" dotnet tool restore
  quietly "check the formatting of C#" dotnet csharpier check .
  wait "$web_checks" || exit 1
  trap - EXIT
  check_generated_types
  trap end_tests EXIT
  trap 'exit 130' INT
  trap 'exit 143' TERM HUP
  # What was just built is published as it is. The tests of the core need neither it nor a database: they run beside.
  FAST=(-p:UseSharedCompilation=true)
  build_application &
  local application=$! code=0
  say "· run the tests"
  run_project Garten.Core.Tests "$@" || code=1
  run_project Garten.Formats.Tests "$@" || code=1
  wait "$application" || exit 1
  dotnet build-server shutdown --vbcscompiler >/dev/null 2>&1 || true
  start_test_database
  export GARTEN_WEB="$GARTEN_ROOT/artifacts/web" SE_OFFLINE=true
  run_project Garten.Server.Tests "$@" || code=1
  run_project Garten.Ui.Tests "$@" || code=1
  report_share
  report_failures
  local passed failed
  passed=$(counted succeeded)
  failed=$(counted failed)
  end_tests
  trap - EXIT
  printf '%s passed, %s failed\n' "$passed" "$failed"
  [ "$code" = 0 ] && [ "$failed" = 0 ] && [ "$passed" -gt 0 ]
}

# The tests of one project, with what they say kept for the count at the end.
run_project() {
  local project=$1
  shift
  dotnet test --project "tests/$project" -c Release --no-build "$@" 2>&1 | tee "artifacts/logs/$project.log" >&2
}

# What failed, once more at the end with the beginning of its message: above it stands between all that the server said.
FAILURE_LINES=80
report_failures() {
  cat artifacts/logs/*.Tests.log 2>/dev/null | sed 's/\x1b\[[0-9;]*m//g' |
    awk -v most="$FAILURE_LINES" '/^failed .*\(/ { left = most } /^(passed|skipped) / { left = 0 } left-- > 0 { print substr($0, 1, 400) }'
}

# How many tests of all projects succeeded, or failed.
counted() {
  cat artifacts/logs/*.Tests.log 2>/dev/null | sed -n "s/^ *$1: *\([0-9]*\).*/\1/p" | awk '{ sum += $1 } END { print sum + 0 }'
}

# The pictures of the README, from the demo data at 1280x800; the journeys of the interface tests take them as they go.
take_screenshots() {
  export GARTEN_SCREENSHOTS="$GARTEN_ROOT/docs/screenshots"
  mkdir -p "$GARTEN_SCREENSHOTS"
  prepare_tests
  quietly "restore the packages" restore Garten.slnx
  quietly "build everything" dotnet build Garten.slnx -c Release --no-restore
  build_application
  trap end_tests EXIT
  trap 'exit 130' INT
  trap 'exit 143' TERM HUP
  start_test_database
  export GARTEN_WEB="$GARTEN_ROOT/artifacts/web" SE_OFFLINE=true
  dotnet test --project tests/Garten.Ui.Tests -c Release --no-build -- --filter-class '*ScreenshotTests' --filter-class '*AwayTests'
}
