# What ./start and ./test share: Debian packages, the virtual environment, pinned Python packages.
unset PYTHONDONTWRITEBYTECODE
export UV_SYSTEM_CERTS=1 PYTHONUTF8=1

need_debian() { # need_debian PACKAGE… : install as root, otherwise say the one line to run
  if [ "$(id -u)" = 0 ]; then
    echo "Installing $* …"
    (apt-get update -qq && DEBIAN_FRONTEND=noninteractive apt-get install -y -qq --no-install-recommends "$@") >/dev/null
  else
    echo "Something is missing. Run this line, then try again:" >&2
    echo "  sudo apt-get install -y --no-install-recommends $*" >&2
    exit 1
  fi
}

need_postgresql() { compgen -G "/usr/lib/postgresql/*/bin/initdb" >/dev/null || need_debian postgresql; }
need_chromium() { [ -x /usr/bin/chromium ] || need_debian chromium; }

need_packages() { # need_packages run|dev : the packages of requirements/NAME.txt, where they are not there yet
  command -v python3 >/dev/null || need_debian python3 python3-venv
  if [ ! -x .venv/bin/python ] || ! .venv/bin/python -c '' 2>/dev/null; then
    rm -rf .venv
    python3 -m venv .venv 2>/dev/null || { need_debian python3-venv; python3 -m venv .venv; }
  fi
  local lock="requirements/$1.txt" stamp=".venv/$1.stamp"
  [ -f .venv/dev.stamp ] && [ "$1" = run ] && lock=requirements/dev.txt && stamp=.venv/dev.stamp
  local mark; mark="$(sha256sum "$lock" | cut -c1-64)"
  [ "$(cat "$stamp" 2>/dev/null)" = "$mark" ] && return
  echo "Installing Python packages …"
  [ -x .venv/bin/uv ] || .venv/bin/python -m pip install -q --disable-pip-version-check "$(grep -m1 '^uv==' requirements/run.txt | tr -d ' \\')"
  .venv/bin/uv pip sync -q --python .venv/bin/python --require-hashes "$lock"
  echo "$mark" >"$stamp"
}
