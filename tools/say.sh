# Short messages and small checks that every part of the command uses.
say() { printf '%s\n' "$*" >&2; }

fail() {
  printf 'garten: %s\n' "$*" >&2
  exit 1
}

is_root() { [ "$(id -u)" = 0 ]; }

port_is_free() { ! (exec 3<>"/dev/tcp/127.0.0.1/$1") 2>/dev/null; }

free_port() {
  local port tries=0
  while [ $tries -lt 200 ]; do
    port=$((20000 + RANDOM % 12000))
    if port_is_free "$port"; then
      echo "$port"
      return
    fi
    tries=$((tries + 1))
  done
  fail "No free port was found on 127.0.0.1."
}

# Status of a GET, by bash alone; curl may be missing. 000 where nothing answers.
curl_status() {
  local address=${1#http://} host path status
  host=${address%%/*}
  path=/${address#*/}
  { exec 8<>"/dev/tcp/${host%:*}/${host#*:}"; } 2>/dev/null || { echo 000; return; }
  printf 'GET %s HTTP/1.0\r\nHost: %s\r\nConnection: close\r\n\r\n' "$path" "$host" >&8
  read -r -t 10 _ status _ <&8 || status=000
  exec 8<&- 8>&-
  echo "$status"
}

# Runs a step with its output in a file; shows the file only where the step fails.
quietly() {
  local what=$1 log
  shift
  mkdir -p artifacts/logs
  log=artifacts/logs/$(printf '%s' "$what" | tr -c 'a-zA-Z0-9' '-').log
  say "· $what"
  if ! "$@" >"$log" 2>&1; then
    tail -n 60 "$log" >&2
    fail "This step failed: $what. Its whole output is in $log."
  fi
}
