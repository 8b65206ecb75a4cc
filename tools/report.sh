# The report of a survey as a file: HTML as it is, or PDF as Chromium prints it.

# report SURVEY [--out FILE] [--port N] [--exact]
report() {
  local survey="" out="" port=5080 exact=""
  while [ $# -gt 0 ]; do
    case $1 in
      --out) out=${2:?--out needs a file}; shift 2 ;;
      --port) port=${2:?--port needs a number}; shift 2 ;;
      --exact) exact=exact; shift ;;
      -*) fail "There is no option $1. See ./garten help." ;;
      *) [ -z "$survey" ] || fail "Name one survey, in quotes: ./garten report \"Plots at Lang Meadow\""; survey=$1; shift ;;
    esac
  done
  [ -n "$survey" ] || fail "Name the survey: ./garten report \"Plots at Lang Meadow\" --out report.pdf"
  [[ $port =~ ^[0-9]{1,5}$ ]] || fail "--port needs a number, not “$port”."
  out=${out:-report.pdf}
  [ -d "$(dirname "$out")" ] || fail "The folder $(dirname "$out") isn't there."
  [[ $out == *.pdf || $out == *.html ]] || fail "A report is written as .pdf or .html, not as $out."
  local folder
  folder=$(mktemp -d)
  trap 'rm -rf "$folder"' RETURN
  local name
  name=$(node "$GARTEN_ROOT/tools/report.mjs" "http://127.0.0.1:$port" "$survey" "$folder/report.html" $exact) || exit 1
  if [[ $out == *.html ]]; then
    cp "$folder/report.html" "$out"
  else
    install_browser
    chromium --headless=new --no-sandbox --disable-gpu --no-first-run --disable-background-networking --user-data-dir="$folder/profile" \
      --no-pdf-header-footer --print-to-pdf="$folder/report.pdf" "file://$folder/report.html" >"$folder/log" 2>&1 || true
    [ -s "$folder/report.pdf" ] || fail "Chromium didn't print the report: $(tail -1 "$folder/log")"
    cp "$folder/report.pdf" "$out"
  fi
  say "The report of “$name” is in $out"
}
