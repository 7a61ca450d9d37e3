#!/usr/bin/env bash
# validate.sh SOURCE BUILD: desktop entry, AppStream metainfo, MIME type, icon and man pages are what they should be,
# and an installed tree has all of them.
set -euo pipefail
source="$1" build="$2"
id=org.westrum.Westrum
desktop-file-validate "$source/packaging/$id.desktop"
appstreamcli validate --no-net "$source/packaging/$id.metainfo.xml"
python3 -c "import sys, xml.dom.minidom as m; [m.parse(f) for f in sys.argv[1:]]" \
  "$source/packaging/$id.mime.xml" "$source/data/icons/westrum.svg" "$source/packaging/$id.metainfo.xml"
for page in westrum westrum-takeoff westrum-meter-sim; do
  warnings="$(man --warnings -E UTF-8 -l -Tutf8 -Z "$source/packaging/$page.1" 2>&1 >/dev/null || true)"
  [ -z "$warnings" ] || { echo "$page.1: $warnings"; exit 1; }
done
root="$(mktemp -d)"
trap 'rm -rf "$root"' EXIT
DESTDIR="$root" cmake --install "$build" --prefix /usr >/dev/null
for file in bin/westrum bin/westrum-takeoff "share/applications/$id.desktop" "share/metainfo/$id.metainfo.xml" \
    "share/mime/packages/$id.xml" "share/icons/hicolor/scalable/apps/$id.svg" share/man/man1/westrum.1 \
    share/man/man1/westrum-takeoff.1; do
  [ -e "$root/usr/$file" ] || { echo "not installed: $file"; exit 1; }
done
update-mime-database "$root/usr/share/mime"
grep -q westrum "$root/usr/share/mime/globs2"
# Status 1: the example has a reading to be taken again.
list="$("$root/usr/bin/westrum-takeoff" "$source/data/plover.westrum" --csv)" || [ $? -eq 1 ]
grep -q planks <<<"$list"
echo "installed tree is whole"
