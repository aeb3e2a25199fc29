#!/bin/sh
# Installs Debian packages that are named and missing. As a normal user it
# tries sudo, and else says what to run.
set -eu
need=""
for p in "$@"; do
  case $p in
    postgresql) ls /usr/lib/postgresql/*/bin/initdb >/dev/null 2>&1 || need="$need postgresql" ;;
    chromium) command -v chromium-headless-shell >/dev/null 2>&1 || command -v chromium >/dev/null 2>&1 || need="$need chromium" ;;
    poppler-utils) command -v pdftotext >/dev/null 2>&1 || need="$need poppler-utils" ;;
    libharfbuzz-bin) command -v hb-shape >/dev/null 2>&1 || need="$need libharfbuzz-bin" ;;
    zbar-tools) command -v zbarimg >/dev/null 2>&1 || need="$need zbar-tools" ;;
    python3-ezdxf) /usr/bin/python3 -c "import ezdxf" >/dev/null 2>&1 || need="$need python3-ezdxf" ;;
    *) command -v "$p" >/dev/null 2>&1 || need="$need $p" ;;
  esac
done
[ -z "$need" ] && exit 0
echo "installing:$need"
run=""
if [ "$(id -u)" != 0 ]; then
  command -v sudo >/dev/null 2>&1 || { echo "not root and no sudo; run as root: apt-get install$need"; exit 1; }
  run=sudo
fi
export DEBIAN_FRONTEND=noninteractive
$run apt-get update -qq
# the browser without a frame of its own takes half the time; where there is none, the other does
if apt-cache show chromium-headless-shell >/dev/null 2>&1; then
  need=$(echo "$need" | sed 's/ chromium\( \|$\)/ chromium-headless-shell\1/')
fi
# shellcheck disable=SC2086
$run apt-get install -y -qq --no-install-recommends $need >/dev/null
