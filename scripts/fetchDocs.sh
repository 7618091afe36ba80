#!/bin/sh
# Unpacks Debian documentation packages, whose pages nobody here wrote, below a folder:
#   scripts/fetchDocs.sh DIR PACKAGE...
set -eu
dir=$1; shift
mkdir -p "$dir/deb"
cd "$dir/deb"
for package in "$@"; do
  apt-get download "$package" >/dev/null
  mkdir -p "../$package"
  dpkg -x "$package"_*.deb "../$package"
done
