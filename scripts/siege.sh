#!/usr/bin/env bash
# npm run test:siege   hostile files, kills and crowds against the built application. SIEGE_FILES, SIEGE_KILLS and SIEGE_SEED set how many, and which.
source "$(dirname "${BASH_SOURCE[0]}")/lib.sh"
cd "$root"
ensure_system postgres ffmpeg
ensure_modules
ensure_built
work=$(mktemp -d)
chmod 711 "$work"
cleanup() { stop_postgres; rm -rf "$work"; [ -n "${PG_DIR:-}" ] && case $PG_DIR in /var/lib/estrella/*) rm -rf "$(dirname "$PG_DIR")" ;; esac; true; }
trap cleanup EXIT
trap 'exit 130' INT TERM
PG_FSYNC=off start_postgres "$work"
export ESTRELLA_TEST_DATABASE_URL=$DATABASE_URL ESTRELLA_TEST_WORK=$work
unset DATABASE_URL
node --experimental-vm-modules --no-warnings node_modules/jest/bin/jest.js --config jest.siege.config.mjs --forceExit "$@"
