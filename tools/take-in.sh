# What waited on a device, out of its file, taken in by the server that runs on this machine.

# take_in FILE [--port N] [--phrase-file FILE]
take_in() {
  local file="" port=5080 phrase_file=""
  while [ $# -gt 0 ]; do
    case $1 in
      --port) port=${2:?--port needs a number}; shift 2 ;;
      --phrase-file) phrase_file=${2:?--phrase-file needs a file}; shift 2 ;;
      -*) fail "There is no option $1. See ./garten help." ;;
      *) [ -z "$file" ] || fail "Give one file."; file=$1; shift ;;
    esac
  done
  [ -n "$file" ] || fail "Which file? For example: ./garten take-in garten-waiting-2026-06-12.json"
  [ -r "$file" ] || fail "The file $file can't be read."
  [[ $port =~ ^[0-9]{1,5}$ ]] || fail "--port needs a number, not “$port”."
  [ -f artifacts/server/Garten.Server.dll ] || fail "Nothing has been built yet: ./garten serve builds it."
  answers "$port" || fail "No server answers at port $port of this machine. Start ./garten serve, or say --port."
  if [ -n "$phrase_file" ]; then
    GARTEN_PHRASE=$(head -n 1 "$phrase_file") || fail "The file $phrase_file can't be read."
  elif [ -t 0 ] && grep -q '"locked"' "$file"; then
    read -rsp "Its pass-phrase: " GARTEN_PHRASE
    echo >&2
  fi
  export GARTEN_PHRASE=${GARTEN_PHRASE:-}
  dotnet artifacts/server/Garten.Server.dll take-in "$(readlink -f "$file")" "http://127.0.0.1:$port"
}
