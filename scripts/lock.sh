#!/usr/bin/env bash
# Write the lock files anew from requirements/*.in; versions that are locked stay unless --upgrade is given.
set -euo pipefail
cd "$(dirname "$(readlink -f "$0")")/.."
export UV_SYSTEM_CERTS=1
for name in run dev; do
  .venv/bin/uv pip compile --quiet --generate-hashes --no-header --no-emit-index-url --python-version 3.11 "$@" \
    -o "requirements/$name.txt" "requirements/$name.in"
done
