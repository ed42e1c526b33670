#!/usr/bin/env bash
# Speed against a baseline in the same run: npm run bench [-- NAMES]. Installs and builds what is missing.
source "$(dirname "${BASH_SOURCE[0]}")/lib.sh"
cd "$root"
ensure_system ffmpeg chromium
ensure_modules
ensure_built
MIMALLOC_PURGE_DELAY=5000 exec node dist/server/bench.js "$@"
