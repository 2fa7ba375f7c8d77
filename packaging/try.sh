#!/bin/sh
# Installs a package in a root of its own, makes a practice with it, installs it again as an upgrade, removes it, and looks whether
# the practice is still there. Nothing of the machine is touched; without the right to do so it says so and ends well.
#   packaging/try.sh FILE.deb
set -eu
deb=$1
[ -f "$deb" ] || { echo "there is no $deb" >&2; exit 1; }
echo "What is in it:"
dpkg-deb --contents "$deb" | awk '{print "  " $1, $2, $6}'
root=$(mktemp -d)
trap 'rm -rf "$root"' EXIT
if [ "$(id -u)" != 0 ]; then
    echo "installing is not tried: that takes root"
    exit 0
fi
mkdir -p "$root/var/lib/dpkg/updates" "$root/var/lib/dpkg/info"
: > "$root/var/lib/dpkg/status"
package() { dpkg --root="$root" --force-depends --force-script-chrootless --log="$root/log" "$@" >/dev/null 2>"$root/errors" || { cat "$root/errors" >&2; exit 1; }; }
# Scripts would change this machine's accounts: they are read, not run, by unpacking alone.
package --unpack "$deb"
binary=$root/usr/bin/orthomer
data=$root/var/lib/orthomer
for file in usr/bin/orthomer lib/systemd/system/orthomer.service etc/default/orthomer; do
    [ -e "$root/$file" ] || [ -e "$root/usr/$file" ] || [ -e "$root/$file.dpkg-new" ] || { echo "$file is not installed" >&2; exit 1; }
done
"$binary" demo --no-pictures --port 8179 --data "$data" >/dev/null 2>&1 &
server=$!
tries=0
until [ -e "$data/orthomer.sqlite" ] && "$binary" check --data "$data" >/dev/null 2>&1; do
    tries=$((tries + 1))
    [ "$tries" -lt 300 ] || { echo "the installed program does not serve" >&2; kill "$server"; exit 1; }
    sleep 0.2
done
kill "$server"
wait "$server" 2>/dev/null || true
package --unpack "$deb"
"$binary" check --data "$data"
if command -v systemd-analyze >/dev/null; then
    unit=$(find "$root" -name orthomer.service | head -1)
    systemd-analyze security --offline=true "$unit" 2>/dev/null | tail -1 || true
fi
package --purge orthomer
[ ! -e "$binary" ] || { echo "the program stayed" >&2; exit 1; }
[ -s "$data/orthomer.sqlite" ] || { echo "the practice went with the package" >&2; exit 1; }
echo "installed, upgraded and removed; the practice stayed"
