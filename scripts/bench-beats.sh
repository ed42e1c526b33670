#!/usr/bin/env bash
# Scores ./estrella beats on the beat kit that lies beside the checkout (BEAT_KIT=folder elsewhere).
set -eu
root=$(cd "$(dirname "${BASH_SOURCE[0]}")/.." && pwd)
kit=${BEAT_KIT:-$root/../shared/beats}
[ -f "$kit/run.sh" ] || { echo "no beat kit in $kit; set BEAT_KIT" >&2; exit 1; }
ls "${BEATBENCH_DIR:-/tmp/beatbench}"/wav/*.wav >/dev/null 2>&1 || bash "$kit/make.sh"
NAME=estrella bash "$kit/run.sh" "$root/estrella" beats --json
