# Sourced by the other scripts: where the project is, and the set-up that all of them share.
set -euo pipefail
top="$(cd "$(dirname "${BASH_SOURCE[0]}")/.." && pwd)"
cd "$top"

# Installs what packaging/debian-packages.txt lists and the machine lacks.
install_packages() {
  local missing=() package
  while read -r package; do
    case "$package" in ''|'#'*) continue ;; esac
    [ "$(dpkg-query -W -f='${Status}' "$package" 2>/dev/null)" = 'install ok installed' ] || missing+=("$package")
  done < packaging/debian-packages.txt
  [ ${#missing[@]} -eq 0 ] && return 0
  echo "Installing: ${missing[*]}"
  local as_root=()
  if [ "$(id -u)" -ne 0 ]; then
    command -v sudo >/dev/null || { echo "These packages are missing and there is no sudo to install them with: ${missing[*]}" >&2; exit 1; }
    as_root=(sudo)
  fi
  "${as_root[@]}" apt-get update -qq
  "${as_root[@]}" env DEBIAN_FRONTEND=noninteractive apt-get install -y -qq --no-install-recommends "${missing[@]}" >/dev/null
}

# Configures and builds one preset: build_preset release [targets...]. A first build of the release, and of what the
# sanitizers watch, compiles the sources of a folder together (cmake/unity.cmake); a folder that is there already keeps
# its way.
build_preset() {
  local preset="$1"; shift
  local first=()
  [ "$preset" = dev ] || [ -f "build/$preset/CMakeCache.txt" ] || first=(-DWESTRUM_UNITY=ON)
  cmake --preset "$preset" "${first[@]}" >"build/$preset.configure.log" 2>&1 || { cat "build/$preset.configure.log" >&2; exit 1; }
  local targets=()
  [ $# -gt 0 ] && targets=(--target "$@")
  cmake --build "build/$preset" "${targets[@]}"
}
mkdir -p build
