#!/bin/sh
# Make the virtual environment: venv.sh PYTHON FOLDER REQUIREMENTS
set -eu
python=$1 folder=$2 requirements=$3
if ! "$python" -c 'import sys; sys.exit(sys.version_info < (3, 11))'; then
  echo "Lyrandis needs Python 3.11 or newer; $python is older. Try: make PYTHON=python3.11" >&2
  exit 1
fi
if [ ! -x "$folder/bin/python" ] || ! "$folder/bin/python" -m pip --version >/dev/null 2>&1; then
  rm -rf "$folder"
  if ! "$python" -m venv "$folder" >/dev/null 2>&1; then
    rm -rf "$folder"
    if [ "$(id -u)" = 0 ] && command -v apt-get >/dev/null; then
      echo "Installing python3-venv…"
      apt-get update -qq && DEBIAN_FRONTEND=noninteractive apt-get install -y -qq python3-venv >/dev/null
      "$python" -m venv "$folder"
    else
      echo "Python cannot make virtual environments here. Install the package python3-venv." >&2
      exit 1
    fi
  fi
fi
echo "Setting up Python packages…"
"$folder/bin/python" -m pip install --quiet --disable-pip-version-check -r "$requirements"
"$folder/bin/python" -m pip install --quiet --disable-pip-version-check --no-deps --no-build-isolation -e .
