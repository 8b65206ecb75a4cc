# Builds what changed: a stamp per part is compared with the newest of its sources.
changed_since() {
  local stamp=artifacts/stamps/$1
  shift
  [ -f "$stamp" ] || return 0
  [ -n "$(find "$@" \( -name bin -o -name obj -o -name node_modules \) -prune -o -type f -newer "$stamp" -print -quit 2>/dev/null)" ]
}

# Takes the time before a build, so that what is edited meanwhile is built again.
begin_stamp() { mkdir -p artifacts/stamps; touch "artifacts/stamps/$1.new"; }
end_stamp() { mv "artifacts/stamps/$1.new" "artifacts/stamps/$1"; }

# From the lock files; with another patch of the SDK the versions of its own parts differ, and only then the lock is left aside.
restore() {
  if ! dotnet restore "$1" --locked-mode; then
    echo "The lock files don't fit this SDK; restoring without them."
    dotnet restore "$1" -p:RestorePackagesWithLockFile=false --force-evaluate
  fi
}

# The analysers are for ./garten test; what is built to be started does without them and is there in half the time.
FAST=(-p:RunAnalyzers=false -p:EnforceCodeStyleInBuild=false)

install_web_packages() {
  if changed_since npm web/package-lock.json || [ ! -d web/node_modules ]; then
    begin_stamp npm
    quietly "install the web app's packages" npm --prefix web ci --no-audit --no-fund
    end_stamp npm
  fi
}

# The core for the browser goes with it: both are kept on a device as one program.
build_web() {
  changed_since web web src tools/notices.mjs artifacts/stamps/browser || return 0
  install_web_packages
  begin_stamp web
  quietly "build the web app" npm --prefix web run build
  quietly "gather the licences of what is shipped" node tools/notices.mjs artifacts/web/licences.txt
  end_stamp web
}

build_browser_core() {
  changed_since browser src/Garten.Core src/Garten.Browser Directory.Build.props Directory.Packages.props && [ -d src/Garten.Browser ] || return 0
  begin_stamp browser
  quietly "restore the packages of the core" restore src/Garten.Browser/Garten.Browser.csproj
  rm -rf artifacts/browser
  quietly "build the core for the browser" dotnet publish src/Garten.Browser -c Release -o artifacts/browser --no-restore "${FAST[@]}"
  end_stamp browser
}

build_server() {
  changed_since server src Directory.Build.props Directory.Packages.props global.json || return 0
  begin_stamp server
  quietly "restore the packages of the server" restore src/Garten.Server/Garten.Server.csproj
  rm -rf artifacts/server
  quietly "build the server" dotnet publish src/Garten.Server -c Release -o artifacts/server --no-restore "${FAST[@]}"
  end_stamp server
}

build_application() {
  build_server
  build_browser_core
  build_web
}
