# What the machine must have, and what is installed when it is missing.
require_toolchain() {
  command -v dotnet >/dev/null || fail "The .NET 10 SDK is missing. Install it first; see README.md."
  [[ $(dotnet --list-sdks 2>/dev/null) =~ (^|$'\n')10\. ]] || fail "The .NET SDK here is older than 10. Install the .NET 10 SDK; see README.md."
  command -v node >/dev/null && command -v npm >/dev/null || fail "Node.js 20.19 or newer is missing. Install it first; see README.md."
  node -e 'const [a,b]=process.versions.node.split(".").map(Number);process.exit(a>20||(a===20&&b>=19)?0:1)' || fail "Node.js $(node -v) is too old: 20.19 or newer is needed."
  command -v setpriv >/dev/null && command -v flock >/dev/null || install_packages "small tools" util-linux
}

as_root() {
  if is_root; then "$@"; elif command -v sudo >/dev/null; then sudo "$@"; else fail "Debian packages must be installed ($*), which needs root or sudo."; fi
}

apt_updated=0
install_packages() {
  local what=$1
  shift
  command -v apt-get >/dev/null || fail "$what is missing, and this isn't Debian. Install these packages by hand: $*"
  if [ $apt_updated = 0 ]; then
    quietly "update the list of Debian packages" as_root apt-get update
    apt_updated=1
  fi
  quietly "install $what" as_root env DEBIAN_FRONTEND=noninteractive apt-get install -y --no-install-recommends "$@"
}

postgresql_programs() {
  local folder
  folder=$(ls -d /usr/lib/postgresql/*/bin 2>/dev/null | sort -V | tail -n 1) || true
  [ -n "$folder" ] && [ -x "$folder/initdb" ] && [ -x "$folder/postgres" ] && echo "$folder"
}

# PostgreSQL from Debian's packages. Debian would create and start a cluster of its own at installation: it is told not to.
install_postgresql() {
  postgresql_programs >/dev/null && return
  install_packages "PostgreSQL's common part" postgresql-common
  local settings=/etc/postgresql-common/createcluster.conf
  as_root cp -p "$settings" "$settings.before-garten"
  as_root sed -i 's/^#\? *create_main_cluster *=.*/create_main_cluster = false/' "$settings"
  local done=0
  (install_packages "PostgreSQL" postgresql) || done=1
  as_root mv "$settings.before-garten" "$settings"
  [ $done = 0 ] && postgresql_programs >/dev/null || fail "PostgreSQL could not be installed."
}

install_browser() {
  if [ ! -x /usr/bin/chromium ] || [ ! -x /usr/bin/chromedriver ]; then
    install_packages "Chromium and its driver" chromium chromium-driver
  fi
}
